"""Folded from one board: a fuselage box and a wing, unfolded to what is cut, with the folds' gaps.

The outer face stays whole and is the hinge. A fold by an angle a, inside it either a groove with
bevelled sides, ``2 t tan(a/2)`` wide at the inner face and nothing outside, or a strip of board
taken out down to the outer face, ``2 t sin(a/2)`` wide, so that the inner edges meet; then each
outer side is shorter by ``t tan(a/2)``. ``t`` is the board's thickness.

Source: docs/methods.md, section 7 (plane trigonometry of the corner).
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import atan2, cos, degrees, hypot, radians, sin, sqrt, tan
from typing import Final

from shapely import Polygon
from shapely.ops import unary_union

from oaken_scale.core.geometry.outline import Box, Candidate, Corner
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault


class FoldWay(StrEnum):
    """How a board is opened on its inner face to be folded."""

    GROOVE = "groove"
    STRIP = "strip"


MOST_FORWARD: Final = 0.05
MOST_AFT: Final = 0.9
"""Where a spar stands, as a share of the chord."""

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


@dataclass(frozen=True, slots=True)
class FoldedBox:
    """A fuselage: ``length_mm`` long, its outer width and height at the front and at the rear, of a
    board ``board_mm`` thick; ``has_top`` or open above. Its sides are doubled inside from
    ``doubled_from_mm`` to ``doubled_to_mm`` behind its front, None for not at all."""

    length_mm: float
    width_mm: float
    height_mm: float
    board_mm: float
    rear_width_mm: float | None = None
    rear_height_mm: float | None = None
    has_top: bool = False
    way: FoldWay = FoldWay.GROOVE
    doubled_from_mm: float = 0.0
    doubled_to_mm: float | None = None


@dataclass(frozen=True, slots=True)
class FoldedWing:
    """A half wing folded about its leading edge over a spar: root chord, thickness over all, where
    the spar stands as a share of the chord; ``tip_chord_mm`` with the same shares. A strip
    of board ``doubler_mm`` wide lies under the spar, None for no such strip."""

    span_mm: float
    chord_mm: float
    thickness_mm: float
    board_mm: float
    spar_at: float = 0.3
    tip_chord_mm: float | None = None
    way: FoldWay = FoldWay.STRIP
    doubler_mm: float | None = None


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


def folded_box(box: FoldedBox, name: str = "Fuselage box") -> Folded:
    """A fuselage box unfolded: the bottom, a side on either side of it, and the top beyond the
    right one if it has any.

    Raises BuildFaultError where two walls leave nothing inside.

    >>> told = folded_box(FoldedBox(600.0, 60.0, 80.0, 5.0))
    >>> told.unfolded_mm, round(told.part.area_dm2, 2), len(told.folds)
    (220.0, 13.2, 2)
    >>> round(folded_box(FoldedBox(600.0, 60.0, 80.0, 5.0, way=FoldWay.STRIP)).unfolded_mm, 2)
    214.14
    """
    ends = (
        (box.width_mm, box.height_mm),
        (box.rear_width_mm or box.width_mm, box.rear_height_mm or box.height_mm),
    )
    for (wide, high), (w, h) in zip(
        ends, (("width_mm", "height_mm"), ("rear_width_mm", "rear_height_mm")), strict=True
    ):
        for size, field in ((wide, w), (high, h)):
            if size <= 2 * box.board_mm:
                words = (
                    f"is {size:g} mm; its two walls alone take {2 * box.board_mm:g} mm, so it must "
                    "be more, or the board thinner"
                )
                raise BuildFaultError([Fault(field, words)])
    open_mm, strip, back = opened(box.board_mm, 90.0, box.way)
    both = 2 * back
    floor = [wide - both for wide, _ in ends]
    walls = [high - back * (2 if box.has_top else 1) for _, high in ends]
    bottom = (
        (0.0, -floor[0] / 2), (box.length_mm, -floor[1] / 2),
        (box.length_mm, floor[1] / 2), (0.0, floor[0] / 2),
    )  # fmt: skip
    panels = [Panel("bottom", bottom, floor[0])]
    folds = []
    right = _beside(bottom[3], bottom[2], walls, strip, 1)
    left = _beside(bottom[0], bottom[1], walls, strip, -1)
    for side, (inner, corners) in (("right side", right), ("left side", left)):
        panels.append(Panel(side, corners, walls[0]))
        folds.append(FoldLine(*inner, 90.0, open_mm))
    if box.has_top:
        corners = right[1]
        inner, top = _beside(corners[3], corners[2], floor, strip, 1)
        panels.append(Panel("top", top, floor[0]))
        folds.append(FoldLine(*inner, 90.0, open_mm))
    outline = _outline([panel.corners for panel in panels], folds, strip)
    across = sum(panel.width_mm for panel in panels) + strip * len(folds)
    x = _centroid_along(panels, box.length_mm)
    half = max(ends[0][0], ends[1][0]) / 2
    wide, high = ends[0]
    section = ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high))
    return Folded(
        part=_part(name, outline, x, 0.0, Box(0.0, -half, box.length_mm, half)),
        panels=tuple(panels),
        folds=tuple(folds),
        unfolded_mm=across,
        groove_dm2=sum(_taken(fold, box.way) for fold in folds) / 1e4,
        section=(*section, section[0]) if box.has_top else (section[3], *section[:3])[::-1],
        doublers=_doubled_sides(box, name),
        rooms=tuple(_rooms(box)),
    )


def _sizes_at(box: FoldedBox, x: float) -> tuple[float, float]:
    """A box's outer width and height so far behind its front [mm]."""
    share = x / box.length_mm
    rear_wide, rear_high = box.rear_width_mm or box.width_mm, box.rear_height_mm or box.height_mm
    return (
        box.width_mm + share * (rear_wide - box.width_mm),
        box.height_mm + share * (rear_high - box.height_mm),
    )


def _is_doubled(box: FoldedBox, x: float) -> bool:
    to = box.doubled_to_mm
    return to is not None and box.doubled_from_mm <= x <= to


def _rooms(box: FoldedBox) -> Iterator[Room]:
    """The clear room at the front, at the rear, and where a doubler begins and ends."""
    ends = () if box.doubled_to_mm is None else (box.doubled_from_mm, box.doubled_to_mm)
    for x in sorted({0.0, box.length_mm, *ends}):
        wide, high = _sizes_at(box, x)
        walls = 4 if _is_doubled(box, x) else 2
        yield Room(x, wide - walls * box.board_mm, high - box.board_mm * (2 if box.has_top else 1))


def _doubled_sides(box: FoldedBox, name: str) -> tuple[Doubler, ...]:
    """The second layer of both sides, between floor and top."""
    start, end, t = box.doubled_from_mm, box.doubled_to_mm, box.board_mm
    if end is None:
        return ()
    if not start < end <= box.length_mm:
        words = (
            f"is {end:g} mm; the sides are doubled from {start:g} mm, so it must be more than that "
            f"and at most {box.length_mm:g} mm"
        )
        raise BuildFaultError([Fault("doubled_to_mm", words)])
    (w0, h0), (w1, h1) = _sizes_at(box, start), _sizes_at(box, end)
    if min(w0, w1) <= 4 * t:
        words = (
            f"is {end:g} mm; the body is {min(w0, w1):.4g} mm wide there and four walls take "
            f"{4 * t:g} mm: double it where it is wider, or take a thinner board"
        )
        raise BuildFaultError([Fault("doubled_to_mm", words)])
    lost = t * (2 if box.has_top else 1)
    high = (h0 - lost, h1 - lost)
    slope = hypot(end - start, (w1 - w0) / 2)
    ring = ((0.0, 0.0), (slope, 0.0), (slope, high[1]), (0.0, high[0]))
    shape = Polygon(ring)
    middle = shape.centroid
    out = (w0 + (w1 - w0) * middle.x / slope) / 2 - 1.5 * t
    part = _part(f"{name}, doubler", shape, middle.x, middle.y, Box(0.0, 0.0, slope, max(high)))
    return (Doubler(part, 2, start, out, is_upright=True),)


def folded_wing(wing: FoldedWing, name: str = "Wing half") -> Folded:
    """A half wing unfolded about its leading edge: the lower skin flat, the upper one folded back,
    up to the top of the spar and down to the trailing edge, where it lies on the lower one.

    At the leading edge the inner edges meet, so the nose is as blunt as two boards. With the top of
    the spar ``s`` over the table and ``u = p c`` behind the edge, the outer sides are ``c``,
    ``sqrt(u^2 + (s - t)^2 - t^2)`` and ``sqrt((c - u)^2 + (s - t)^2 - t^2)``, and they slope by
    ``atan((s - t)/u) - atan(t/side)``; round the nose go ``2 t cos(slope/2)``.

    Raises BuildFaultError where the board leaves no room for a spar.

    >>> told = folded_wing(FoldedWing(540.0, 190.0, 22.0, 5.0, way=FoldWay.GROOVE))
    >>> [round(panel.width_mm, 2) for panel in told.panels], round(told.unfolded_mm, 2)
    ([190.0, 59.27, 133.99], 393.21)
    """
    t, ratio = wing.board_mm, (wing.tip_chord_mm or wing.chord_mm) / wing.chord_mm
    if not MOST_FORWARD <= wing.spar_at <= MOST_AFT:
        words = f"is {wing.spar_at:g}; it stands between 0.05 and 0.9 of the chord"
        raise BuildFaultError([Fault("spar_at", words)])
    if wing.thickness_mm <= 2 * t:
        words = (
            f"is {wing.thickness_mm:g} mm; two skins of {t:g} mm leave nothing for a spar, so it "
            f"must be over {2 * t:g} mm, or the board thinner"
        )
        raise BuildFaultError([Fault("thickness_mm", words)])
    if wing.thickness_mm * ratio <= 2 * t:
        least = 2 * t / wing.thickness_mm * wing.chord_mm
        words = (
            f"is {wing.tip_chord_mm:g} mm, so the tip would be thinner than two skins of {t:g} mm; "
            f"it must be over {least:.4g} mm"
        )
        raise BuildFaultError([Fault("tip_chord_mm", words)])
    root = _skins(wing.chord_mm, wing.thickness_mm, wing.spar_at, t, wing.way)
    tip = _skins(wing.chord_mm * ratio, wing.thickness_mm * ratio, wing.spar_at, t, wing.way)
    span = wing.span_mm
    low = ((0.0, 0.0), (span, 0.0), (span, -tip.sides[0]), (0.0, -root.sides[0]))
    panels, folds = [Panel("lower skin", low, root.sides[0])], []
    y_root = y_tip = 0.0
    for k, called in ((1, "upper skin, front"), (2, "upper skin, rear")):
        at_root, at_tip = root.folds[k - 1], tip.folds[k - 1]
        folds.append(
            FoldLine(
                (0.0, y_root + at_root[1] / 2),
                (span, y_tip + at_tip[1] / 2),
                root.angles[k - 1],
                at_root[0],
            )
        )
        y_root, y_tip = y_root + at_root[1], y_tip + at_tip[1]
        ends = (y_root + root.sides[k], y_tip + tip.sides[k])
        corners = ((0.0, y_root), (span, y_tip), (span, ends[1]), (0.0, ends[0]))
        panels.append(Panel(called, corners, root.sides[k]))
        y_root, y_tip = ends
    outline = Polygon([(0.0, -root.sides[0]), (span, -tip.sides[0]), (span, y_tip), (0.0, y_root)])
    taken = sum(_taken(fold, wing.way) for fold in folds)
    out = span / 3 * (1 + 2 * ratio) / (1 + ratio)
    behind = _middle_of_section(root, wing) * (1 + ratio + ratio**2) / (1.5 * (1 + ratio))
    return Folded(
        part=_part(name, outline, out, behind, Box(0.0, 0.0, span, wing.chord_mm)),
        panels=tuple(panels),
        folds=tuple(folds),
        unfolded_mm=y_root + root.sides[0],
        groove_dm2=taken / 1e4,
        section=_section(root, wing),
        chord_mm=wing.chord_mm + t * (sin(root.slopes[0]) + sin(root.slopes[1])),
        thickness_mm=wing.thickness_mm,
        thickest_at_mm=wing.spar_at * wing.chord_mm,
        inside_mm=_inside(wing, root),
        doublers=_spar_strip(wing, name, ratio),
    )


def _inside(wing: FoldedWing, root: "_Skins") -> float:
    """The height that is left for a spar at the root [mm], over a doubler if there is one.

    Raises BuildFaultError where a doubler leaves nothing.
    """
    t = wing.board_mm
    left = wing.thickness_mm - t - t / cos(max(root.slopes))
    if wing.doubler_mm is None:
        return left
    if left <= t:
        words = (
            f"cannot go in: {left:.3g} mm are left between the skins and it takes {t:g} mm; make "
            "the wing thicker, or the board thinner"
        )
        raise BuildFaultError([Fault("doubler_mm", words)])
    return left - t


def _spar_strip(wing: FoldedWing, name: str, ratio: float) -> tuple[Doubler, ...]:
    """The strip of board along the spar, on the lower skin."""
    wide = wing.doubler_mm
    if wide is None:
        return ()
    if wide >= wing.chord_mm * ratio:
        words = (
            f"is {wide:g} mm; the chord is {wing.chord_mm * ratio:.4g} mm at the tip, so it must "
            "be less"
        )
        raise BuildFaultError([Fault("doubler_mm", words)])
    ring = ((0.0, 0.0), (wing.span_mm, 0.0), (wing.span_mm, wide), (0.0, wide))
    part = _part(
        f"{name}, doubler",
        Polygon(ring),
        wing.span_mm / 2,
        wide / 2,
        Box(0.0, 0.0, wing.span_mm, wide),
    )
    begins = wing.spar_at * wing.chord_mm * (1 + ratio) / 2 - wide / 2
    return (Doubler(part, 1, begins, None, is_upright=False),)


def comes_out(
    lower_mm: float, front_mm: float, rear_mm: float, board_mm: float
) -> tuple[float, float]:
    """The section that three outer sides fold up to: how high the top of its spar is over the
    table, and how far behind the leading edge [mm].

    With the board's thickness each upper side spans ``sqrt(side^2 + t^2)`` from the edge's inner
    corner to the top: a triangle over the lower one. Raises BuildFaultError where it does not
    close.

    >>> [round(mm, 2) for mm in comes_out(190.0, 59.27, 133.99, 5.0)]
    [22.0, 57.0]
    """
    ahead, behind = hypot(front_mm, board_mm), hypot(rear_mm, board_mm)
    if ahead + behind <= lower_mm or abs(ahead - behind) >= lower_mm:
        least = sqrt(max((lower_mm - ahead) ** 2 - board_mm**2, 0.0))
        most = sqrt((lower_mm + ahead) ** 2 - board_mm**2)
        words = (
            f"is {rear_mm:g} mm: with {front_mm:g} mm ahead of the spar it does not close over "
            f"{lower_mm:g} mm; it must be over {least:.4g} mm and under {most:.4g} mm"
        )
        raise BuildFaultError([Fault("rear_mm", words)])
    at = (ahead**2 - behind**2 + lower_mm**2) / (2 * lower_mm)
    return board_mm + sqrt(max(ahead**2 - at**2, 0.0)), at


@dataclass(frozen=True, slots=True)
class _Skins:
    """The outer sides of a section as they are cut, how its upper skins slope ahead of the spar and
    behind it, and its folds at the nose and the top: opened and round the corner, and by what angle
    [degrees]."""

    sides: tuple[float, float, float]
    slopes: tuple[float, float]
    folds: tuple[tuple[float, float], tuple[float, float]]
    angles: tuple[float, float]


def _skins(chord: float, thick: float, spar_at: float, board: float, way: FoldWay) -> _Skins:
    ahead, behind, rise = spar_at * chord, (1 - spar_at) * chord, thick - board
    sides, slopes = [], []
    for reach in (ahead, behind):
        side = sqrt(reach**2 + rise**2 - board**2)
        sides.append(side)
        slopes.append(atan2(rise, reach) - atan2(board, side))
    angles = (180 - degrees(slopes[0]), degrees(sum(slopes)))
    nose, _, _ = opened(board, angles[0], FoldWay.STRIP)
    top_open, top_strip, back = opened(board, angles[1], way)
    return _Skins(
        (chord, sides[0] - back, sides[1] - back),
        (slopes[0], slopes[1]),
        ((nose, nose), (top_open, top_strip)),
        angles,
    )


def _section(skins: _Skins, wing: FoldedWing) -> tuple[Corner, ...]:
    c, t, (front, rear) = wing.chord_mm, wing.board_mm, skins.slopes
    nose = (-t * sin(front), t + t * cos(front))
    tail = (c + t * sin(rear), t + t * cos(rear))
    top = (wing.spar_at * c, wing.thickness_mm)
    return (0.0, 0.0), (c, 0.0), tail, top, nose, (0.0, 0.0)


def _middle_of_section(skins: _Skins, wing: FoldedWing) -> float:
    """Where the middle of the three skins is behind the leading edge at the root [mm]."""
    c, p = wing.chord_mm, wing.spar_at
    middles = (c / 2, p * c / 2, (1 + p) * c / 2)
    return sum(w * x for w, x in zip(skins.sides, middles, strict=True)) / sum(skins.sides)


def _beside(
    front: Corner, rear: Corner, widths: Sequence[float], strip: float, side: int
) -> tuple[tuple[Corner, Corner], tuple[Corner, ...]]:
    """The fold along an edge, and the panel beyond it with these widths at its front and rear; on
    the left (-1) or right (1) of the way from front to rear."""
    along = hypot(rear[0] - front[0], rear[1] - front[1])
    nx, ny = -side * (rear[1] - front[1]) / along, side * (rear[0] - front[0]) / along

    def out(at: Corner, by: float) -> Corner:
        return at[0] + nx * by, at[1] + ny * by

    fold = (out(front, strip / 2), out(rear, strip / 2))
    near = out(front, strip), out(rear, strip)
    corners = (*near, out(rear, strip + widths[1]), out(front, strip + widths[0]))
    return fold, corners


def _outline(
    panels: Sequence[tuple[Corner, ...]], folds: Sequence[FoldLine], strip: float
) -> Polygon:
    """Panels with the strips between them as one outline."""
    pieces = [Polygon(corners) for corners in panels]
    for fold in folds:
        (x0, y0), (x1, y1) = fold.start, fold.end
        along = hypot(x1 - x0, y1 - y0)
        nx, ny = -(y1 - y0) / along, (x1 - x0) / along
        by = strip / 2 + 1e-6
        corners = [
            (x0 + nx * by, y0 + ny * by), (x1 + nx * by, y1 + ny * by),
            (x1 - nx * by, y1 - ny * by), (x0 - nx * by, y0 - ny * by),
        ]  # fmt: skip
        pieces.append(Polygon(corners))
    whole = unary_union(pieces)
    if not isinstance(whole, Polygon):
        raise BuildFaultError([Fault("board_mm", "is too thick: the sides do not hang together")])
    return whole


def _centroid_along(panels: Sequence[Panel], length_mm: float) -> float:
    """Where the middle of all panels is along the body [mm]: each of them stands upright on its own
    length."""
    total = moment = 0.0
    for panel in panels:
        (x0, y0), (x1, y1), (x2, y2), (x3, y3) = panel.corners
        front, rear = hypot(x3 - x0, y3 - y0), hypot(x2 - x1, y2 - y1)
        area = (front + rear) / 2
        total += area
        moment += area * length_mm / 3 * (front + 2 * rear) / (front + rear)
    return moment / total


def _taken(fold: FoldLine, way: FoldWay) -> float:
    """The board that a fold takes out, as an area of full thickness [mm2]."""
    along = hypot(fold.end[0] - fold.start[0], fold.end[1] - fold.start[1])
    is_groove = way is FoldWay.GROOVE and fold.angle_deg <= STEEPEST_DEG
    return along * fold.opened_mm / (2 if is_groove else 1)  # a triangle, or a rectangle


def _part(name: str, outline: Polygon, x_mm: float, y_mm: float, box: Box) -> Candidate:
    ring = [(round(x, 2), round(y, 2)) for x, y in outline.exterior.coords]
    return Candidate(name, "", outline.area / 1e4, x_mm, y_mm, box, 0, (tuple(ring),))
