"""What can be said of every part at once, for arithmetic over all of them."""

from collections import deque
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Flags
from oaken_scale.core.model.part import Part, Pedigree
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


def traits(parts: tuple[Part, ...]) -> Traits:
    """What can be said of every part at once.

    >>> parts = (Part("w", "Wing", Pedigree.GUESS), Part("p", "Patch", Pedigree.JOINT, host="w"))
    >>> found = traits(parts)
    >>> found.at["p"], found.joint.tolist(), found.host.tolist()
    (1, [False, True], [True, False])
    """
    return _traits(wherever(parts))


_BEFORE: Final[deque[tuple[Part, ...]]] = deque(maxlen=8)
"""The last lists of parts that differ in more than where things sit."""


def wherever(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    """A list of parts for what has nothing to do with where they sit: one object for all lists that
    differ in stations and slides alone, so that what was worked out of it is remembered while a
    thing is dragged. Its stations are anybody's.

    >>> from oaken_scale.core.model.part import Station
    >>> def at(x): return (Part("w", "Wing", Pedigree.GUESS, station=Station(x)),)
    >>> wherever(at(200.0)) is wherever(at(210.0))
    True
    """
    return _wherever(parts)


@recalled(keep=32)
def _wherever(parts: tuple[Part, ...]) -> tuple[Part, ...]:
    for before in tuple(_BEFORE):
        if len(before) == len(parts) and all(map(_alike, before, parts)):
            return before
    _BEFORE.appendleft(parts)
    return parts


def _alike(one: Part, other: Part) -> bool:
    """Whether two parts differ at most in where they sit, and how far they may slide."""
    if one is other:
        return True
    return one.id == other.id and one == replace(other, station=one.station, slide=one.slide)


@recalled(keep=8)
def _traits(parts: tuple[Part, ...]) -> Traits:
    hosts = {part.host for part in parts if not part.retired}
    rows = [
        (
            not part.retired,
            part.pedigree is Pedigree.JOINT,
            part.host is not None,
            part.id in hosts and not part.retired,
        )
        for part in parts
    ]
    there, joint, done, host = np.array(rows, dtype=bool).reshape(-1, 4).T.copy()
    return Traits(
        at={part.id: i for i, part in enumerate(parts)},
        there=there,
        joint=joint,
        done=done,
        host=host,
        joints=tuple(np.flatnonzero(there & joint).tolist()),
    )
