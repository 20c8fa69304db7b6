"""Boxes in a box: whether some things go into a bay together, turned any way, and how many of one.

Source: docs/methods.md, section 7 (corner points with backtracking).
"""

from collections.abc import Iterable, Sequence
from functools import lru_cache
from itertools import permutations
from math import floor
from typing import Final

Sides = tuple[float, float, float]
"""Along, across and up [mm]."""

Placed = tuple[Sides, Sides]
"""A box's nearest corner, and its sides as it lies [mm]."""

SAME_MM: Final = 1e-6
"""Sides that differ by less are the same [mm], and volumes likewise [mm3]."""

MOST_TRIES: Final = 20_000
ANY_ORDER_TRIES: Final = 4_000
"""So many places are tried, largest first and then in any order; what was not found in them is
told as not found."""


def clearance_mm(bay: Sides, thing: Sides) -> float:
    """How much room is left on the tightest side of a thing that lies as it fits best; below zero
    it is too large by so much [mm].

    >>> clearance_mm((120.0, 40.0, 35.0), (34.0, 110.0, 28.0))
    6.0
    """
    ways = permutations(thing)
    return max(min(room - side for room, side in zip(bay, way, strict=True)) for way in ways)


def how_many(bay: Sides, thing: Sides) -> int:
    """How many of one thing go into a bay, all of them lying alike.

    >>> how_many((120.0, 40.0, 60.0), (110.0, 38.0, 28.0))
    2
    """
    if min(thing) <= 0:
        return 0
    counts = (
        [floor(room / side + SAME_MM) for room, side in zip(bay, way, strict=True)]
        for way in permutations(thing)
    )
    return max(a * b * c for a, b, c in counts)


def together(bay: Sides, things: Sequence[Sides]) -> tuple[Placed, ...] | None:
    """Where each of some things lies when all go into a bay; None where no way was found.

    Larger things first, each at a corner that those before it leave, in each of its ways to lie;
    where that finds nothing, in any order.

    >>> told = together((100.0, 40.0, 30.0), [(60.0, 40.0, 30.0), (30.0, 40.0, 40.0)])
    >>> [sides for _, sides in told]
    [(60.0, 40.0, 30.0), (40.0, 40.0, 30.0)]
    """
    if sum(map(_volume, things)) > _volume(bay) + SAME_MM:
        return None
    sides = tuple(things)
    return _laid(bay, sides, largest_first=True) or _laid(bay, sides, largest_first=False)


@lru_cache(maxsize=64)
def _laid(
    bay: Sides, things: tuple[Sides, ...], *, largest_first: bool
) -> tuple[Placed, ...] | None:
    """Where each lies when the largest goes in first, or whichever goes in next: a small one may
    hold a large one off its wall."""
    tries = [MOST_TRIES if largest_first else ANY_ORDER_TRIES]
    placed: dict[int, Placed] = {}

    def lay(left: Sequence[int]) -> bool:
        next_in = left[:1] if largest_first else {things[k]: k for k in reversed(left)}.values()
        for k in next_in:
            rest = [each for each in left if each != k]
            for at in _corners([*placed.values()]):
                for way in _ways(things[k]):
                    tries[0] -= 1
                    if tries[0] < 0:
                        return False
                    if _inside(bay, at, way) and not _meets((at, way), placed.values()):
                        placed[k] = (at, way)
                        if lay(rest):
                            return True
                        del placed[k]
        return not left

    if not lay(sorted(range(len(things)), key=lambda k: -_volume(things[k]))):
        return None
    return tuple(placed[k] for k in range(len(things)))


def _ways(sides: Sides) -> list[Sides]:
    """The ways in which a box may lie, its longest side along first."""
    return sorted({(x, y, z) for x, y, z in permutations(sides)}, reverse=True)


def _volume(sides: Sides) -> float:
    return sides[0] * sides[1] * sides[2]


def _corners(placed: Sequence[Placed]) -> list[Sides]:
    """Where the next one may begin: every meeting of the far sides of those that lie there."""
    axes = [sorted({0.0, *(at[k] + side[k] for at, side in placed)}) for k in range(3)]
    return [(x, y, z) for x in axes[0] for y in axes[1] for z in axes[2]]


def _inside(bay: Sides, at: Sides, sides: Sides) -> bool:
    return all(at[k] + sides[k] <= bay[k] + SAME_MM for k in range(3))


def _meets(one: Placed, others: Iterable[Placed]) -> bool:
    return any(_overlap(one, other) for other in others)


def _overlap(one: Placed, other: Placed) -> bool:
    (a, p), (b, q) = one, other
    return all(a[k] < b[k] + q[k] - SAME_MM and b[k] < a[k] + p[k] - SAME_MM for k in range(3))
