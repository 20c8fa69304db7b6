"""Taking a change back, and making it again: what it did is undone, and nothing that came later."""

from collections.abc import Iterator
from dataclasses import dataclass, fields, is_dataclass, replace
from datetime import datetime
from enum import StrEnum
from itertools import chain
from typing import Any, Final

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing

TAKEN_BACK: Final = "taken back"
"""Why something of a log is set aside whose record was taken back: a log is never rewritten."""


class How(StrEnum):
    """What a change did to one thing of a build."""

    ADDED = "added"
    REMOVED = "removed"
    CHANGED = "changed"


@dataclass(frozen=True, slots=True)
class Touched:
    """One thing that a change touched: the field of the build that it stands in, what was done to
    it, its name (empty where it has none), and a reading's figure [g]."""

    field: str
    how: How
    name: str = ""
    grams: float | None = None


def touched(before: Build, after: Build) -> tuple[Touched, ...]:
    """What a change made of a build, thing by thing.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> tail = Part("tail", "Tail", Pedigree.GUESS, stated_g=20.0)
    >>> plane = Build("b", "B", parts=(tail,))
    >>> touched(plane, replace(plane, parts=(replace(tail, stated_g=25.0),)))
    (Touched(field='parts', how=<How.CHANGED: 'changed'>, name='Tail', grams=None),)
    """
    return tuple(_touched(before, after))


def taken_back(now: Build, before: Build, after: Build, at: datetime) -> Build:
    """The build without the change that made ``before`` into ``after``; what was changed since
    stays, and where both changed the same figure the one of before comes back.

    A log keeps all that was written into it: a reading, a check, a run, a flight, a throw is set
    aside, and a part that stands in one retires at a time. Called with ``before`` and ``after`` the
    other way round it makes a change again that was taken back.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> tail = Part("tail", "Tail", Pedigree.GUESS, stated_g=20.0)
    >>> plane = Build("b", "B", parts=(tail,))
    >>> heavy = replace(plane, parts=(replace(tail, stated_g=25.0),))
    >>> renamed = replace(heavy, name="C")
    >>> told = taken_back(renamed, plane, heavy, datetime(2026, 5, 1))
    >>> told.name, told.parts[0].stated_g
    ('C', 20.0)
    """
    told: Build = _merged(now, before, after)
    logged = _logged(now)
    gone = {each.id for each in told.parts}
    kept = tuple(
        each if each.retired else replace(each, retired=True, retired_at=at)
        for each in now.parts
        if each.id not in gone and each.id in logged["parts"]
    )
    parts = (*told.parts, *kept)
    used = logged["lots"] | {use.lot for part in parts for use in part.uses}
    there = {each.id for each in parts}
    return replace(
        told,
        parts=parts,
        lots=(*told.lots, *_still(now.lots, told.lots, used)),
        scales=(*told.scales, *_still(now.scales, told.scales, logged["scales"])),
        loadouts=tuple(
            replace(each, carries=tuple(id for id in each.carries if id in there))
            for each in told.loadouts
        ),
    )


def _still(now: tuple[Any, ...], told: tuple[Any, ...], named: set[str]) -> list[Any]:
    """Those that a log or a part still names."""
    there = {each.id for each in told}
    return [each for each in now if each.id in named and each.id not in there]


def _logged(build: Build) -> dict[str, set[str]]:
    """What the logs of a build name: parts, lots and scales by their ids."""
    loads = (load.part for each in build.weighings for load in each.pan.loads)
    stances = chain(
        (each.stood for each in build.checks), (each.stood for each in build.field.stances)
    )
    stood = (one.part for each in stances for one in each)
    read = {each.scale for each in build.weighings}
    checked = {each.scale for each in build.checks if each.scale is not None}
    samples = (sample.lot for each in build.weighings for sample in each.pan.samples)
    return {"parts": {*loads, *stood}, "lots": set(samples), "scales": read | checked}


def _key(thing: Any) -> Any:
    """What tells a thing apart in its list; None where nothing does."""
    return getattr(thing, "id", None) or getattr(thing, "kind", None)


def _keyed(*lists: Any) -> bool:
    return all(isinstance(each, tuple) for each in lists) and all(
        _key(thing) is not None for thing in chain(*lists)
    )


def _merged(now: Any, before: Any, after: Any) -> Any:
    """``now`` with what differs between ``before`` and ``after`` as it was before."""
    if before == after:
        return now
    if is_dataclass(now) and type(now) is type(before) is type(after):
        return replace(
            now,  # type: ignore[type-var]
            **{
                each.name: _merged(*(getattr(value, each.name) for value in (now, before, after)))
                for each in fields(now)
            },
        )
    if _keyed(now, before, after):
        return _merged_list(now, before, after)
    return before


def _merged_list(
    now: tuple[Any, ...], before: tuple[Any, ...], after: tuple[Any, ...]
) -> tuple[Any, ...]:
    was, became = ({_key(each): each for each in those} for those in (before, after))
    told = []
    for each in now:
        key = _key(each)
        if key in was and key in became:
            told.append(_merged(each, was[key], became[key]))
        elif key in was:
            told.append(was[key])
        elif key not in became:
            told.append(each)
        elif hasattr(each, "set_aside"):
            told.append(replace(each, set_aside=each.set_aside or TAKEN_BACK))
    there = {_key(each) for each in told}
    for at, each in enumerate(before):
        if _key(each) not in there and _key(each) not in became:
            told.insert(at, each)
    return tuple(told)


def _touched(before: Build, after: Build) -> Iterator[Touched]:
    for each in fields(Build):
        was, became = getattr(before, each.name), getattr(after, each.name)
        if was == became:
            continue
        if each.name in ("field", "power") and was is not None and became is not None:
            for inner in fields(was):
                yield from _in_list(
                    inner.name, getattr(was, inner.name), getattr(became, inner.name)
                )
        else:
            yield from _in_list(each.name, was, became)


def _in_list(field: str, was: Any, became: Any) -> Iterator[Touched]:
    if was == became:
        return
    if not _keyed(was, became):
        yield Touched(field, How.CHANGED)
        return
    old, new = ({_key(each): each for each in those} for those in (was, became))
    for key, each in new.items():
        if key not in old:
            yield Touched(field, How.ADDED, *_called(each))
        elif old[key] != each:
            yield Touched(field, How.CHANGED, *_called(each))
    for key, each in old.items():
        if key not in new:
            yield Touched(field, How.REMOVED, *_called(each))


def _called(thing: Any) -> tuple[str, float | None]:
    if isinstance(thing, Weighing):
        return "", thing.reading_g
    return str(getattr(thing, "name", "")), None
