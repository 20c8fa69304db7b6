"""What is cut out of a sheet for a part, and how it may lie there."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Annotated, Final

from shapely import Polygon

from oaken_scale.core.model.declared import Coordinate, Layers, Length
from oaken_scale.core.model.recall import recalled

CORNERS: Final = 600
"""Most corners of one pattern."""

Corner = tuple[Coordinate, Coordinate]
Ring = Annotated[tuple[Corner, ...], Length(CORNERS, least=3)]
"""Corners in order around, x to the right and y down [mm]; the last is not the first again."""
FoldLine = Annotated[tuple[Corner, ...], Length(2, least=2)]
"""From one point to another [mm]."""


class Grain(StrEnum):
    """How a part lies to the grain of its sheet, which runs along the sheet's length: any way, its
    own x along the grain, or across it."""

    FREE = "free"
    ALONG = "along"
    ACROSS = "across"


@dataclass(frozen=True, slots=True)
class Pattern:
    """The outline of one piece: the outer ring first, then its holes; ``layers`` of it are cut for
    each piece, to be laid on one another. ``folds`` are lines that are folded, not cut, each from
    one point to another."""

    rings: Annotated[tuple[Ring, ...], Length(60, least=1)]
    grain: Grain = Grain.FREE
    layers: Layers = 1
    folds: Annotated[tuple[FoldLine, ...], Length(60)] = ()


@recalled(keep=512)
def shape_of(pattern: Pattern) -> Polygon:
    """A pattern as a polygon.

    >>> shape_of(Pattern((((0, 0), (60, 0), (60, 9), (0, 9)),))).area
    540.0
    """
    return Polygon(pattern.rings[0], pattern.rings[1:])


def is_sound(pattern: Pattern) -> bool:
    """Whether a pattern encloses something, and crosses neither itself nor its holes.

    >>> is_sound(Pattern((((0, 0), (60, 9), (60, 0), (0, 9)),)))
    False
    """
    shape = shape_of(pattern)
    return bool(shape.is_valid and shape.area > 0)


def turned_over(pattern: Pattern) -> Pattern:
    """The pattern of the twin on the other side: turned over about its own x.

    >>> turned_over(Pattern((((0, 0), (60, 0), (50, 9)),))).rings
    (((0, 9), (60, 9), (50, 0)),)
    """
    heights = [y for ring in pattern.rings for _, y in ring]
    both = min(heights) + max(heights)
    rings, folds = (
        tuple(tuple((x, both - y) for x, y in line) for line in lines)
        for lines in (pattern.rings, pattern.folds)
    )
    return replace(pattern, rings=rings, folds=folds)


def to_cut(rings: Sequence[Sequence[Sequence[float]]], within_mm: float = 0.1) -> tuple[Ring, ...]:
    """Rings with no more corners than it takes to cut them so truly, at most ``CORNERS`` in all.

    >>> dense = [(x / 10, 0.0) for x in range(601)] + [(60, 9), (0, 9)]
    >>> to_cut([dense])
    (((0.0, 0.0), (60.0, 0.0), (60.0, 9.0), (0.0, 9.0)),)
    """
    while True:
        simple = [Polygon(ring).simplify(within_mm).exterior.coords[:-1] for ring in rings]
        if sum(map(len, simple)) <= CORNERS:
            return tuple(
                tuple((round(float(x), 2), round(float(y), 2)) for x, y in ring) for ring in simple
            )
        within_mm *= 2
