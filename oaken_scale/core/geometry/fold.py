"""Folded from one board: a fuselage box and a wing, unfolded to what is cut, with the folds' gaps.

The outer face stays whole and is the hinge. A fold by an angle a, inside it either a groove with
bevelled sides, ``2 t tan(a/2)`` wide at the inner face and nothing outside, or a strip of board
taken out down to the outer face, ``2 t sin(a/2)`` wide, so that the inner edges meet; then each
outer side is shorter by ``t tan(a/2)``. ``t`` is the board's thickness.

Source: docs/methods.md, section 7 (plane trigonometry of the corner).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import hypot, radians, sin, tan
from typing import Final

from shapely import Polygon
from shapely.ops import unary_union

from oaken_scale.core.geometry.outline import Box, Candidate, Corner
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault


class FoldWay(StrEnum):
    """How a board is opened on its inner face to be folded."""

    GROOVE = "groove"
    STRIP = "strip"


STEEPEST_DEG: Final = 120.0
"""A groove with bevelled sides folds no further; a strip does."""


@dataclass(frozen=True, slots=True)
class FoldLine:
    """A fold across what is cut: from where to where along the middle of it [mm], by how many
    degrees, and how wide the inner face is opened there [mm]."""

    start: Corner
    end: Corner
    angle_deg: float
    opened_mm: float


@dataclass(frozen=True, slots=True)
class Panel:
    """One flat side between folds, as it lies on the sheet [mm]."""

    name: str
    corners: tuple[Corner, ...]
    width_mm: float
    """Its width at the front or the root."""


@dataclass(frozen=True, slots=True)
class Doubler:
    """A second layer inside: what is cut for one of ``pieces``, its centroid on it, and how far to
    the side its middle stands, or None where it lies in the middle [mm]."""

    part: Candidate
    pieces: int
    begins_mm: float
    out_mm: float | None
    is_upright: bool


@dataclass(frozen=True, slots=True)
class Room:
    """The clear room inside, so far behind the front or out from the root [mm]."""

    at_mm: float
    width_mm: float
    height_mm: float


@dataclass(frozen=True, slots=True)
class Folded:
    """What is cut, and what comes out of it.

    ``part`` holds the unfolded outline, its area [dm2] and the centroid of the folded part over its
    own length and width; ``groove_dm2`` is how much board the folds take out, as an area of full
    thickness. ``section`` is the outer outline at the front or root, its first corner last again.
    For a wing: the chord and thickness that come out, where the thickest point is, and the height
    that is left inside for a spar [mm]. ``doublers`` are what is glued in beside it, ``rooms`` what
    is clear inside a box at its front and its rear.
    """

    part: Candidate
    panels: tuple[Panel, ...]
    folds: tuple[FoldLine, ...]
    unfolded_mm: float
    groove_dm2: float
    section: tuple[Corner, ...]
    chord_mm: float | None = None
    thickness_mm: float | None = None
    thickest_at_mm: float | None = None
    inside_mm: float | None = None
    doublers: tuple[Doubler, ...] = ()
    rooms: tuple[Room, ...] = ()


def opened(board_mm: float, angle_deg: float, way: FoldWay) -> tuple[float, float, float]:
    """A fold: how wide the inner face is opened, how much of the outer face goes round the corner,
    and by how much each side beside it is shorter [mm].

    >>> [round(mm, 3) for mm in opened(5.0, 90.0, FoldWay.STRIP)]
    [7.071, 7.071, 5.0]
    >>> [round(mm, 3) for mm in opened(5.0, 90.0, FoldWay.GROOVE)]
    [10.0, 0.0, 0.0]
    """
    half = radians(angle_deg) / 2
    if way is FoldWay.GROOVE and angle_deg <= STEEPEST_DEG:
        return 2 * board_mm * tan(half), 0.0, 0.0
    strip = 2 * board_mm * sin(half)
    return strip, strip, board_mm * tan(half)


def beside(
    front: Corner, rear: Corner, widths: Sequence[float], strip: float, side: int
) -> tuple[tuple[Corner, Corner], tuple[Corner, ...]]:
    """The fold along an edge, and the panel beyond it with these widths at its front and rear; on
    the left (-1) or right (1) of the way from front to rear.

    >>> fold, panel = beside((0.0, 0.0), (100.0, 0.0), (40.0, 30.0), 2.0, 1)
    >>> fold
    ((0.0, 1.0), (100.0, 1.0))
    >>> panel
    ((0.0, 2.0), (100.0, 2.0), (100.0, 32.0), (0.0, 42.0))
    """
    along = hypot(rear[0] - front[0], rear[1] - front[1])
    nx, ny = -side * (rear[1] - front[1]) / along, side * (rear[0] - front[0]) / along

    def out(at: Corner, by: float) -> Corner:
        return at[0] + nx * by, at[1] + ny * by

    fold = (out(front, strip / 2), out(rear, strip / 2))
    near = out(front, strip), out(rear, strip)
    corners = (*near, out(rear, strip + widths[1]), out(front, strip + widths[0]))
    return fold, corners


def outline_of(
    panels: Sequence[tuple[Corner, ...]], folds: Sequence[FoldLine], strip: float
) -> Polygon:
    """Panels with the strips between them as one outline.

    >>> one = ((0.0, 0.0), (100.0, 0.0), (100.0, 40.0), (0.0, 40.0))
    >>> fold = FoldLine((0.0, 41.0), (100.0, 41.0), 90.0, 2.0)
    >>> two = ((0.0, 42.0), (100.0, 42.0), (100.0, 82.0), (0.0, 82.0))
    >>> [round(mm) for mm in outline_of((one, two), (fold,), 2.0).bounds]
    [0, 0, 100, 82]
    """
    pieces = [Polygon(corners) for corners in panels]
    for fold in folds:
        (x0, y0), (x1, y1) = fold.start, fold.end
        along = hypot(x1 - x0, y1 - y0)
        nx, ny = -(y1 - y0) / along, (x1 - x0) / along
        by = strip / 2 + 1e-6
        corners = [
            (x0 + nx * by, y0 + ny * by),
            (x1 + nx * by, y1 + ny * by),
            (x1 - nx * by, y1 - ny * by),
            (x0 - nx * by, y0 - ny * by),
        ]
        pieces.append(Polygon(corners))
    whole = unary_union(pieces)
    if not isinstance(whole, Polygon):
        raise BuildFaultError([Fault("board_mm", "is too thick: the sides do not hang together")])
    return whole


def centroid_along(panels: Sequence[Panel], length_mm: float) -> float:
    """Where the middle of all panels is along the body [mm]: each of them stands upright on its own
    length.

    >>> panels = [Panel("skin", ((0.0, 0.0), (100.0, 0.0), (100.0, 40.0), (0.0, 40.0)), 40.0)]
    >>> centroid_along(panels, 100.0)
    50.0
    """
    total = moment = 0.0
    for panel in panels:
        (x0, y0), (x1, y1), (x2, y2), (x3, y3) = panel.corners
        front, rear = hypot(x3 - x0, y3 - y0), hypot(x2 - x1, y2 - y1)
        area = (front + rear) / 2
        total += area
        moment += area * length_mm / 3 * (front + 2 * rear) / (front + rear)
    return moment / total


def taken_out(fold: FoldLine, way: FoldWay) -> float:
    """The board that a fold takes out, as an area of full thickness [mm2].

    >>> taken_out(FoldLine((0.0, 0.0), (100.0, 0.0), 90.0, 10.0), FoldWay.GROOVE)
    500.0
    """
    along = hypot(fold.end[0] - fold.start[0], fold.end[1] - fold.start[1])
    is_groove = way is FoldWay.GROOVE and fold.angle_deg <= STEEPEST_DEG
    return along * fold.opened_mm / (2 if is_groove else 1)  # a triangle, or a rectangle


def cut_part(name: str, outline: Polygon, x_mm: float, y_mm: float, box: Box) -> Candidate:
    """What is unfolded, as a part to be cut: its corners to a hundredth of a millimetre, and where
    its centroid sits once it is folded [mm].

    >>> cut_part("Side", Polygon(((0, 0), (100, 0), (100, 50), (0, 50))), 50.0, 0.0,
    ...          Box(0, 0, 100, 50)).area_dm2
    0.5
    """
    ring = [(round(x, 2), round(y, 2)) for x, y in outline.exterior.coords]
    return Candidate(name, "", outline.area / 1e4, x_mm, y_mm, box, 0, (tuple(ring),))
