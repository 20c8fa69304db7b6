"""A fuselage box folded from one board, and its doubled sides."""

from collections.abc import Iterator
from dataclasses import dataclass
from math import hypot

from shapely import Polygon

from oaken_scale.core.geometry.fold import (
    Doubler,
    Folded,
    FoldLine,
    FoldWay,
    Panel,
    Room,
    beside,
    centroid_along,
    cut_part,
    opened,
    outline_of,
    taken_out,
)
from oaken_scale.core.geometry.outline import Box
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault


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
                    "is {}; its two walls alone take {}, so it must be more, or the board thinner"
                )
                raise BuildFaultError([Fault(field, words, (mm(size), mm(2 * box.board_mm)))])
    open_mm, strip, back = opened(box.board_mm, 90.0, box.way)
    both = 2 * back
    floor = [wide - both for wide, _ in ends]
    walls = [high - back * (2 if box.has_top else 1) for _, high in ends]
    bottom = (
        (0.0, -floor[0] / 2),
        (box.length_mm, -floor[1] / 2),
        (box.length_mm, floor[1] / 2),
        (0.0, floor[0] / 2),
    )
    panels = [Panel("bottom", bottom, floor[0])]
    folds = []
    right = beside(bottom[3], bottom[2], walls, strip, 1)
    left = beside(bottom[0], bottom[1], walls, strip, -1)
    for side, (inner, corners) in (("right side", right), ("left side", left)):
        panels.append(Panel(side, corners, walls[0]))
        folds.append(FoldLine(*inner, 90.0, open_mm))
    if box.has_top:
        corners = right[1]
        inner, top = beside(corners[3], corners[2], floor, strip, 1)
        panels.append(Panel("top", top, floor[0]))
        folds.append(FoldLine(*inner, 90.0, open_mm))
    outline = outline_of([panel.corners for panel in panels], folds, strip)
    across = sum(panel.width_mm for panel in panels) + strip * len(folds)
    x = centroid_along(panels, box.length_mm)
    half = max(ends[0][0], ends[1][0]) / 2
    wide, high = ends[0]
    section = ((0.0, 0.0), (wide, 0.0), (wide, high), (0.0, high))
    return Folded(
        part=cut_part(name, outline, x, 0.0, Box(0.0, -half, box.length_mm, half)),
        panels=tuple(panels),
        folds=tuple(folds),
        unfolded_mm=across,
        groove_dm2=sum(taken_out(fold, box.way) for fold in folds) / 1e4,
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
        words = "is {}; the sides are doubled from {}, so it must be more than that and at most {}"
        facts = (mm(end), mm(start), mm(box.length_mm))
        raise BuildFaultError([Fault("doubled_to_mm", words, facts)])
    (w0, h0), (w1, h1) = _sizes_at(box, start), _sizes_at(box, end)
    if min(w0, w1) <= 4 * t:
        words = (
            "is {}; the body is {} wide there and four walls take {}: double it where it is wider, "
            "or take a thinner board"
        )
        facts = (mm(end), mm(min(w0, w1)), mm(4 * t))
        raise BuildFaultError([Fault("doubled_to_mm", words, facts)])
    lost = t * (2 if box.has_top else 1)
    high = (h0 - lost, h1 - lost)
    slope = hypot(end - start, (w1 - w0) / 2)
    ring = ((0.0, 0.0), (slope, 0.0), (slope, high[1]), (0.0, high[0]))
    shape = Polygon(ring)
    middle = shape.centroid
    out = (w0 + (w1 - w0) * middle.x / slope) / 2 - 1.5 * t
    part = cut_part(f"{name}, doubler", shape, middle.x, middle.y, Box(0.0, 0.0, slope, max(high)))
    return (Doubler(part, 2, start, out, is_upright=True),)
