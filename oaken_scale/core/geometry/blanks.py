"""Parts to be cut out of sheets, and the ways in which they may lie there."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Final, TypeVar

from shapely import MultiLineString, Polygon, affinity

Drawn = TypeVar("Drawn", Polygon, MultiLineString)

SAME_MM: Final = 1e-6
"""Lengths that differ by less are one [mm]."""


@dataclass(frozen=True, slots=True, eq=False)
class Blank:
    """A part to be laid: its outline [mm], and how it may lie on the sheet.

    ``is_free``: it may be turned by quarters; else only by a half, its own x along the sheet's
    grain. ``may_flip``: both faces of the sheet are alike, so its mirror image is the same part.
    """

    id: str
    outline: Polygon
    is_free: bool = True
    may_flip: bool = False


@dataclass(frozen=True, slots=True)
class Sheet:
    """A sheet's sides [mm]; its grain lies along ``length_mm``."""

    length_mm: float
    width_mm: float


@dataclass(frozen=True, slots=True)
class Knife:
    """What the cut takes away between two parts, and how far parts stay off the sheet's edge
    [mm]."""

    kerf_mm: float = 0.0
    margin_mm: float = 0.0


@dataclass(frozen=True, slots=True)
class Laid:
    """Where a part lies: flipped over or not, turned by ``turn_deg``, and then the lower left
    corner of its box at ``x_mm``, ``y_mm`` of its sheet, whose corner is 0, 0."""

    id: str
    sheet: int
    x_mm: float
    y_mm: float
    turn_deg: int
    is_flipped: bool


@dataclass(frozen=True, slots=True)
class Layout:
    """Where all parts lie, on how many sheets, and how far along the last of them they reach
    [mm].

    >>> Layout((), 1, 690.0).rank < Layout((), 2, 40.0).rank
    True
    """

    laid: tuple[Laid, ...] = ()
    sheets: int = 0
    reach_mm: float = 0.0

    @property
    def rank(self) -> tuple[int, float]:
        """Fewer sheets are better; then the more is left of the last."""
        return self.sheets, self.reach_mm


def room(sheet: Sheet, knife: Knife) -> Sheet:
    """What the margins leave of a sheet.

    >>> room(Sheet(700, 500), Knife(margin_mm=5))
    Sheet(length_mm=690, width_mm=490)
    """
    return Sheet(sheet.length_mm - 2 * knife.margin_mm, sheet.width_mm - 2 * knife.margin_mm)


def least_sheets(blanks: Sequence[Blank], sheet: Sheet) -> int:
    """The sheets that the areas alone would need.

    >>> square = Polygon([(0, 0), (300, 0), (300, 300), (0, 300)])
    >>> least_sheets([Blank(str(k), square) for k in range(5)], Sheet(700, 500))
    2
    """
    area = float(sum(each.outline.area for each in blanks))
    return ceil(area / (sheet.length_mm * sheet.width_mm) - 1e-9)


def ways(blank: Blank) -> Iterator[tuple[int, bool, Polygon]]:
    """The ways in which a part may lie, with its outline then: turned by so many degrees, flipped
    before that or not, the corner of its box at 0, 0.

    >>> strip = Blank("a", Polygon([(0, 0), (60, 0), (60, 9), (0, 9)]), is_free=False)
    >>> [(turn, is_flipped) for turn, is_flipped, _ in ways(strip)]
    [(0, False), (180, False)]
    """
    for is_flipped in (False, True) if blank.may_flip else (False,):
        for turn in (0, 90, 180, 270) if blank.is_free else (0, 180):
            yield turn, is_flipped, turned(blank.outline, turn, is_flipped)


def turned(outline: Polygon, turn_deg: int, is_flipped: bool = False) -> Polygon:
    """An outline flipped over or not, turned, and its box moved to the corner.

    >>> turned(Polygon([(1, 1), (61, 1), (61, 10), (1, 10)]), 90).bounds
    (0.0, 0.0, 9.0, 60.0)
    """
    told = _about_origin(outline, turn_deg, is_flipped)
    left, low, _, _ = told.bounds
    return affinity.translate(told, -left, -low)


def _about_origin(shape: Drawn, turn_deg: int, is_flipped: bool) -> Drawn:
    told: Drawn = affinity.scale(shape, -1, 1, origin=(0, 0)) if is_flipped else shape
    return affinity.rotate(told, turn_deg, origin=(0, 0)) if turn_deg else told


def as_laid(outline: Polygon, laid: Laid) -> Polygon:
    """A part's outline where it lies on its sheet.

    >>> strip = Polygon([(0, 0), (60, 0), (60, 9), (0, 9)])
    >>> as_laid(strip, Laid("a", 0, 5, 7, 90, False)).bounds
    (5.0, 7.0, 14.0, 67.0)
    """
    at = turned(outline, laid.turn_deg, laid.is_flipped)
    return affinity.translate(at, laid.x_mm, laid.y_mm)


def lines_as_laid(lines: MultiLineString, outline: Polygon, laid: Laid) -> MultiLineString:
    """What is drawn on a part where it lies on its sheet.

    >>> strip = Polygon([(0, 0), (60, 0), (60, 9), (0, 9)])
    >>> lines_as_laid(MultiLineString([[(0, 4), (60, 4)]]), strip, Laid("a", 0, 5, 7, 90, False))
    <MULTILINESTRING ((10 7, 10 67))>
    """
    left, low, _, _ = _about_origin(outline, laid.turn_deg, laid.is_flipped).bounds
    at = _about_origin(lines, laid.turn_deg, laid.is_flipped)
    return affinity.translate(at, laid.x_mm - left, laid.y_mm - low)


def fits(blank: Blank, sheet: Sheet, knife: Knife) -> bool:
    """Whether a part fits on an empty sheet in one of the ways in which it may lie.

    >>> strip = Blank("a", Polygon([(0, 0), (600, 0), (600, 90), (0, 90)]), is_free=False)
    >>> fits(strip, Sheet(700, 500), Knife(margin_mm=5)), fits(strip, Sheet(500, 700), Knife())
    (True, False)
    """
    within = room(sheet, knife)
    return any(
        shape.bounds[2] <= within.length_mm + SAME_MM
        and shape.bounds[3] <= within.width_mm + SAME_MM
        for _, _, shape in ways(blank)
    )
