"""What is remembered of a build is never told of another: each field that is changed alone is told
as if the build had never been seen before."""

import math
import random
import sys
from collections import deque
from collections.abc import Iterator
from copy import deepcopy
from dataclasses import fields, is_dataclass, replace
from datetime import datetime, timedelta
from enum import Enum

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper

PLANES = {"sandpiper": sandpiper(), **{plane.build.id: plane.build for plane in fleet()}}
CHANGED = 30
"""So many fields of each plane are changed, each alone; another choice with every seed."""

Path = tuple[str | int, ...]


def leaves(value: object, path: Path = ()) -> Iterator[tuple[Path, object]]:
    """Every plain value in a build, and where it stands."""
    if is_dataclass(value):
        for each in fields(value):
            yield from leaves(getattr(value, each.name), (*path, each.name))
    elif isinstance(value, tuple):
        for k, each in enumerate(value):
            yield from leaves(each, (*path, k))
    else:
        yield path, value


def changed(value: object, path: Path, to: object) -> object:
    """The same with another value at a place; all that is not on the way to it stays the object
    that it was."""
    if not path:
        return to
    at, rest = path[0], path[1:]
    if isinstance(at, int):
        assert isinstance(value, tuple)
        return (*value[:at], changed(value[at], rest, to), *value[at + 1 :])
    return replace(value, **{at: changed(getattr(value, at), rest, to)})


def another(value: object) -> object:
    """Another value of the kind; the same where there is none."""
    if isinstance(value, bool):
        return not value
    if isinstance(value, Enum):
        kinds = list(type(value))
        return kinds[(kinds.index(value) + 1) % len(kinds)]
    if isinstance(value, int):
        return value + 1
    if isinstance(value, float):
        return value * 1.07 + 0.013
    if isinstance(value, datetime):
        return value + timedelta(days=3)
    return value


def same(one: object, other: object, path: str = "") -> list[str]:
    """Where two assessments differ by more than rounding."""
    mine, its = inside(one), inside(other)
    if type(one) is type(other) and mine.keys() == its.keys():
        if mine:
            return [gap for key in mine for gap in same(mine[key], its[key], f"{path}/{key}")]
        if one == other or (isinstance(one, float) and near(one, other)):
            return []
    return [f"{path}: {one}, {other}"]


def inside(value: object) -> dict[object, object]:
    """What is in a value, by its name or its place; nothing in a plain one."""
    if is_dataclass(value):
        return {each.name: getattr(value, each.name) for each in fields(value)}
    if isinstance(value, tuple | list):
        return dict(enumerate(value))
    return value if isinstance(value, dict) else {}


def near(one: float, other: float) -> bool:
    return math.isclose(one, other, rel_tol=1e-5, abs_tol=1e-5)


def forget() -> None:
    """What is remembered by what it equals; what is remembered by which object it is, a copy of
    that object has never been."""
    for name, module in tuple(sys.modules.items()):
        if name.startswith("oaken_scale.core"):
            for each in vars(module).values():
                if isinstance(each, deque):
                    each.clear()
                elif hasattr(each, "cache_clear"):
                    each.cache_clear()


def told(build: Build) -> object:
    """What is told of it, or why nothing is."""
    try:
        return assess(build)
    except BuildFaultError as error:
        return tuple(str(fault) for fault in error.faults)


@pytest.mark.parametrize("name", PLANES)
def test_whatever_field_is_changed_alone_is_told_as_if_nothing_were_remembered(name):
    build, seed = PLANES[name], random.Random(f"fresh {name}")
    places = [(path, value) for path, value in leaves(build) if another(value) != value]
    seed.shuffle(places)
    tried, stale = 0, {}
    for path, value in places:
        other = changed(build, path, another(value))
        if faults(other):
            continue
        told(build)
        warm = told(other)
        forget()
        gaps = same(warm, told(deepcopy(other)))
        if gaps:
            stale[path] = gaps[:3]
        tried += 1
        if tried == CHANGED:
            break
    assert tried == CHANGED
    assert stale == {}
