"""What can be said of every part at once, for arithmetic over all of them."""

from collections import deque
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Flags
from oaken_scale.core.model.build import Item, Pedigree
from oaken_scale.core.model.recall import recalled


@dataclass(frozen=True, slots=True, eq=False)
class Traits:
    """Of a list of parts: ``at`` is each one's place by its id; all else has shape (N,).

    ``there`` are those not taken off, ``joint`` glue seams, ``done`` what was done to
    another part, ``host`` the parts that it was done to.
    """

    at: dict[str, int]
    there: Flags
    joint: Flags
    done: Flags
    host: Flags
    joints: tuple[int, ...]
    """The places of the seams that are there."""


def traits(items: tuple[Item, ...]) -> Traits:
    """What can be said of every part at once.

    >>> parts = (Item("w", "Wing", Pedigree.GUESS), Item("p", "Patch", Pedigree.JOINT, host="w"))
    >>> found = traits(parts)
    >>> found.at["p"], found.joint.tolist(), found.host.tolist()
    (1, [False, True], [True, False])
    """
    return _traits(wherever(items))


_BEFORE: Final[deque[tuple[Item, ...]]] = deque(maxlen=8)
"""The last lists of parts that differ in more than where things sit."""


def wherever(items: tuple[Item, ...]) -> tuple[Item, ...]:
    """A list of parts for what has nothing to do with where they sit: one object for all lists that
    differ in stations and slides alone, so that what was worked out of it is remembered while a
    thing is dragged. Its stations are anybody's.

    >>> from oaken_scale.core.model.build import Station
    >>> def at(x): return (Item("w", "Wing", Pedigree.GUESS, station=Station(x)),)
    >>> wherever(at(200.0)) is wherever(at(210.0))
    True
    """
    return _wherever(items)


@recalled(keep=32)
def _wherever(items: tuple[Item, ...]) -> tuple[Item, ...]:
    for before in tuple(_BEFORE):
        if len(before) == len(items) and all(map(_alike, before, items)):
            return before
    _BEFORE.appendleft(items)
    return items


def _alike(one: Item, other: Item) -> bool:
    """Whether two parts differ at most in where they sit, and how far they may slide."""
    if one is other:
        return True
    return one.id == other.id and one == replace(other, station=one.station, slide=one.slide)


@recalled(keep=8)
def _traits(items: tuple[Item, ...]) -> Traits:
    hosts = {item.host for item in items if not item.retired}
    rows = [
        (
            not item.retired,
            item.pedigree is Pedigree.JOINT,
            item.host is not None,
            item.id in hosts and not item.retired,
        )
        for item in items
    ]
    there, joint, done, host = np.array(rows, dtype=bool).reshape(-1, 4).T.copy()
    return Traits(
        at={item.id: i for i, item in enumerate(items)},
        there=there,
        joint=joint,
        done=done,
        host=host,
        joints=tuple(np.flatnonzero(there & joint).tolist()),
    )
