"""The plane as it stood when its balance was checked, and what changed since."""

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import (
    Stations,
    stations,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.balancing import (
    BalanceCheck,
    Stood,
)
from oaken_scale.core.model.build import Build, Loadout

STILL_MM: Final = 0.05
"""A thing that sits within so much of where it sat was not moved [mm]."""


def as_it_stood(build: Build, where: Stations, check: BalanceCheck) -> tuple[Vector, Stations]:
    """What was aboard when a check was made (N,), and where it sat then.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.model.balancing import CheckKind
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> pegs = BalanceCheck("c", datetime(2026, 3, 7, tzinfo=UTC), CheckKind.SUPPORT, None, 104.0)
    >>> build = Build("b", "B", parts=tuple(ends), checks=(pegs,))
    >>> aboard, then = as_it_stood(build, stations(build, None), pegs)
    >>> aboard.tolist(), then.xyz[:, 0].tolist()
    ([1.0, 1.0], [0.0, 200.0])
    """
    if not check.stood:
        return _aboard_then(build, loadout_of(build, check.loadout), check.at), where
    stood = {each.part: each for each in check.stood}
    aboard = np.array([float(part.id in stood) for part in build.parts])
    xyz, placed = where.xyz.copy(), where.placed.copy()
    for i, part in enumerate(build.parts):
        then = stood.get(part.id)
        if then is not None and then.x_mm is None:
            continue  # nobody had said where it sat: if somebody has since, it sat there then
        placed[i] = then is not None
        if then is not None and then.x_mm is not None:
            xyz[i] = then.x_mm, then.y_mm, then.z_mm
    return aboard, replace(where, xyz=xyz, placed=placed, told=None)


def as_it_stands(
    build: Build, loadout_id: str | None, only: Collection[str] | None = None
) -> tuple[Stood, ...]:
    """What is aboard a loadout now and where it sits, or ``only`` those of it that were held: what
    a check made now speaks of.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0, station=Station(12.0))
    >>> as_it_stands(Build("b", "B", parts=(motor,)), None)[0].x_mm
    12.0
    """
    where = stations(build, wing_figures(build.surfaces))
    aboard = build.aboard(loadout_of(build, loadout_id))
    return tuple(
        Stood(part.id, *(float(c) for c in where.xyz[i])) if where.placed[i] else Stood(part.id)
        for i, part in enumerate(build.parts)
        if aboard[i] and (only is None or part.id in only)
    )


class ChangeKind(StrEnum):
    """What may have happened to a thing since a check."""

    ADDED = "added"
    TAKEN_OFF = "taken off"
    MOVED = "moved"


@dataclass(frozen=True, slots=True)
class ChangedSince:
    """One thing that is otherwise than when a check was made."""

    part: str
    kind: ChangeKind


def changed_since(build: Build, check: BalanceCheck) -> tuple[ChangedSince, ...]:
    """What is otherwise now than when a check was made with its loadout.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.balancing import CheckKind
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0, station=Station(12.0))
    >>> check = BalanceCheck("c", datetime(2026, 3, 7, tzinfo=UTC), CheckKind.SUPPORT, None, 12.0,
    ...                      stood=(Stood("m", 20.0),))
    >>> build = Build("b", "B", parts=(motor,))
    >>> [(each.part, each.kind.value) for each in changed_since(build, check)]
    [('m', 'moved')]
    """
    if not check.stood:
        return ()
    now = {each.part: each for each in as_it_stands(build, check.loadout)}
    then = {each.part: each for each in check.stood}
    found = [ChangedSince(id, ChangeKind.ADDED) for id in now if id not in then]
    found += [ChangedSince(id, ChangeKind.TAKEN_OFF) for id in then if id not in now]
    for id in then.keys() & now.keys():
        old, new = then[id], now[id]
        if old.x_mm is None or new.x_mm is None:
            continue
        if max(abs(old.x_mm - new.x_mm), abs(old.y_mm - new.y_mm)) > STILL_MM:
            found.append(ChangedSince(id, ChangeKind.MOVED))
    order = {part.id: k for k, part in enumerate(build.parts)}
    return tuple(sorted(found, key=lambda each: order.get(each.part, 0)))


def _aboard_then(build: Build, loadout: Loadout | None, at: datetime) -> Vector:
    """What was aboard when a check was made, by the parts' dates, shape (N,)."""
    now = build.aboard(loadout)
    then = [
        (here or (part.retired and part.retired_at is not None and part.retired_at > at))
        and (part.added_at is None or part.added_at <= at)
        for part, here in zip(build.parts, now, strict=True)
    ]
    return np.array(then, dtype=float)


def loadout_of(build: Build, id: str | None) -> Loadout | None:
    """The loadout that a check was made with; None for what is aboard in all of them.

    >>> loadout_of(Build("b", "B", loadouts=(Loadout("fpv", "With camera", ("cam",)),)), "fpv").name
    'With camera'
    """
    return next((each for each in build.loadouts if each.id == id), None)
