"""Parts on sheets: how few sheets it takes, and where each part lies.

Parts are laid one after another, each on the first sheet that has room for it, as far left and down
as it goes. Which order is best is searched for: by size first, then by exchanging parts in the best
order so far. Boxes laid exactly are where it begins, so that it never ends with more sheets.

Source: Baker, Coffman & Rivest (1980), *Orthogonal packings in two dimensions* (bottom-left);
Hopper & Turton (2001), *An empirical investigation of meta-heuristic and heuristic algorithms for a
2D packing problem* (orders searched for).
"""

import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from enum import Enum, auto
from itertools import count
from random import Random
from typing import Final

from oaken_scale.core.geometry.blanks import (
    SAME_MM,
    Blank,
    Knife,
    Laid,
    Layout,
    Sheet,
    fits,
    least_sheets,
    room,
)
from oaken_scale.core.geometry.laying import Grid, OnSheet, Way, ways_of

MOST_CORNERED: Final = 120
"""With more parts than this, boxes are not tried at every corner."""

CORNERED: Final = 0.7
"""Boxes are tried at corners until so much of the time is left."""

SECONDS: Final = 8.0
"""So long better orders are looked for [s]."""


@dataclass(frozen=True, slots=True, eq=False)
class _Part:
    """A part with the ways in which it may lie, its area [mm2] and the sides of its box [mm]."""

    blank: Blank
    ways: tuple[Way, ...]
    area: float
    sides: tuple[float, float]

    def lying(self, stance: "_Stance") -> tuple[Way, ...]:
        """Its ways in a stance; all of them where it has none so."""
        if stance is _Stance.ANY:
            return self.ways
        is_along = stance is _Stance.ALONG
        found = tuple(way for way in self.ways if (way.length_mm >= way.width_mm) == is_along)
        return found or self.ways


class _Stance(Enum):
    """Which way a part's longer side is wanted: any, along the sheet, or across it."""

    ANY = auto()
    ALONG = auto()
    ACROSS = auto()


@dataclass(frozen=True, slots=True, eq=False)
class _Plan:
    """What is tried: parts in their order, each with its stance, and whether a part goes where it
    reaches least far along the sheet, or across it."""

    order: tuple[tuple[_Part, _Stance], ...]
    is_across: bool = False

    def changed(self, random: Random) -> "_Plan":
        """The plan with a few parts exchanged, laid earlier, or in another stance."""
        order, is_across = list(self.order), self.is_across
        for _ in range(random.randint(1, 3)):
            i, j = random.randrange(len(order)), random.randrange(len(order))
            kind = random.random()
            if kind < 0.35:
                order[i], order[j] = order[j], order[i]
            elif kind < 0.7:
                order.insert(min(i, j), order.pop(max(i, j)))
            elif kind < 0.95:
                order[i] = (order[i][0], random.choice(tuple(_Stance)))
            else:
                is_across = not is_across
        return _Plan(tuple(order), is_across)


_SIZES: Final[tuple[Callable[[_Part], float], ...]] = (
    lambda part: part.area,
    lambda part: max(part.sides),
    lambda part: min(part.sides),
)


def _plain(parts: Sequence[_Part]) -> list[_Plan]:
    """The plans that are tried first: by size, in every stance, along and across."""
    return [
        _Plan(tuple((part, stance) for part in sorted(parts, key=size, reverse=True)), is_across)
        for size in _SIZES
        for stance in _Stance
        for is_across in (False, True)
    ]


def nest(
    blanks: Sequence[Blank],
    sheet: Sheet,
    knife: Knife = Knife(),  # noqa: B008  (it is frozen)
    seconds: float = SECONDS,
    seed: int = 0,
) -> Iterator[tuple[float, Layout]]:
    """Lay parts on as few sheets as can be found: after each order that was tried, how much of the
    time is gone (0 to 1) and the best layout so far. It ends with the time, or where the areas
    alone would need as many sheets.

    Raises ValueError for a part that fits on no empty sheet
    (:func:`oaken_scale.core.geometry.blanks.fits`).

    >>> from shapely import Polygon
    >>> square = Polygon([(0, 0), (240, 0), (240, 240), (0, 240)])
    >>> *_, (_, best) = nest([Blank(str(k), square) for k in range(4)], Sheet(700, 500))
    >>> best.sheets
    1
    """
    misfit = next((each.id for each in blanks if not fits(each, sheet, knife)), None)
    if misfit is not None:
        raise ValueError(f"{misfit} fits on no empty sheet")
    if not blanks:
        yield 1.0, Layout()
        return
    ends = time.monotonic() + seconds
    within, least, random = room(sheet, knife), least_sheets(blanks, sheet), Random(seed)
    parts = _parts(blanks, Grid.over(within, knife.kerf_mm), knife.kerf_mm)
    plain = _plain(parts)
    best, plan = min(
        ((_along_the_edge(each, within, knife.kerf_mm), each) for each in plain),
        key=lambda found: found[0].rank,
    )
    yield 0.0, _moved_in(best, knife.margin_mm)
    for each in plain if len(parts) <= MOST_CORNERED else ():
        found = _boxes_laid(each, within, knife.kerf_mm, ends - CORNERED * seconds)
        if found is not None and found.rank < best.rank:
            best, plan = found, each
    yield 0.0, _moved_in(best, knife.margin_mm)
    for tried in count():
        trial = plain[tried] if tried < len(plain) else plan.changed(random)
        found = _filled(trial, best.sheets, ends)
        if found is not None and found.rank < best.rank:
            best, plan = found, trial
        gone = 1 - (ends - time.monotonic()) / seconds
        is_done = gone >= 1 or (best.sheets <= least and tried + 1 >= len(_Stance))
        yield (1.0 if is_done else gone), _moved_in(best, knife.margin_mm)
        if is_done:
            return


def _parts(blanks: Sequence[Blank], grid: Grid, kerf_mm: float) -> list[_Part]:
    """Parts with their ways; parts of one outline share them."""
    kept: dict[tuple[bytes, bool, bool], tuple[Way, ...]] = {}
    parts = []
    for each in blanks:
        key = (each.outline.wkb, each.is_free, each.may_flip)
        if key not in kept:
            kept[key] = ways_of(each, grid, kerf_mm)
        left, low, right, top = each.outline.bounds
        parts.append(_Part(each, kept[key], each.outline.area, (right - left, top - low)))
    return parts


def _filled(plan: _Plan, most: int, ends: float) -> Layout | None:
    """Parts laid by a plan; None where that takes more than so many sheets, or too long."""
    sheets: list[OnSheet] = []
    laid: list[Laid] = []
    reach: list[float] = []
    for part, stance in plan.order:
        if time.monotonic() > ends:
            return None
        for k in range(len(sheets) + 1):
            if k == len(sheets):
                if k == most:
                    return None
                sheets.append(OnSheet(part.ways[0].grid))
                reach.append(0.0)
            found = _first(sheets[k], part, part.lying(stance), plan.is_across)
            if found is None:
                continue
            way, at = found
            sheets[k].lay(way, at)
            reach[k] = max(reach[k], at[0] + way.length_mm)
            laid.append(Laid(part.blank.id, k, *at, way.turn_deg, way.is_flipped))
            break
    return Layout(tuple(laid), len(sheets), reach[-1])


def _first(
    sheet: OnSheet, part: _Part, ways: Sequence[Way], is_across: bool
) -> tuple[Way, tuple[float, float]] | None:
    """The way and place in which a part reaches least far along a sheet, or across it."""
    if sheet.free_mm2 < part.area - SAME_MM:
        return None
    found = [(way, at) for way in ways if (at := sheet.place(way)) is not None]
    return min(found, key=lambda spot: _reach(spot[0], spot[1], is_across), default=None)


def _reach(way: Way, at: tuple[float, float], is_across: bool) -> tuple[float, float]:
    x, y = at
    if is_across:
        return round(y + way.width_mm, 3), x
    return round(x + way.length_mm, 3), y


_Box = tuple[float, float, float, float]
_Step = tuple[float, float, float]
"""From where to where across a sheet its edge stands how far along it."""


def _along_the_edge(plan: _Plan, within: Sheet, kerf_mm: float) -> Layout:
    """The boxes of the parts laid by a plan along the edge that those before them make, towards the
    free end of the sheet: what lies behind it is not filled, so it is done at once.

    Source: Burke, Kendall & Whitwell (2004), *A new placement heuristic for the orthogonal stock
    cutting problem* (skyline).
    """
    sheets: list[list[_Step]] = []
    laid = []
    for part, stance in plan.order:
        ways = [way for way in part.lying(stance) if not way.is_flipped and way.turn_deg < 180]
        for k in range(len(sheets) + 1):
            if k == len(sheets):
                sheets.append([(0.0, within.width_mm + kerf_mm, 0.0)])
            spots = [
                (way, at)
                for way in ways or part.ways[:1]
                for at in _on_the_edge(sheets[k], way, within, kerf_mm)
            ]
            if spots:
                way, at = min(spots, key=lambda spot: _reach(spot[0], spot[1], plan.is_across))
                sheets[k] = _edge_after(sheets[k], way, at, kerf_mm)
                laid.append(Laid(part.blank.id, k, *at, way.turn_deg, way.is_flipped))
                break
    reach = max(step[2] for step in sheets[-1]) - kerf_mm
    return Layout(tuple(laid), len(sheets), reach)


def _on_the_edge(
    edge: Sequence[_Step], way: Way, within: Sheet, kerf_mm: float
) -> Iterator[tuple[float, float]]:
    """Where a part's box may lie along an edge, beginning where a step of it does."""
    for low, _, _ in edge:
        high = low + way.width_mm
        if high > within.width_mm + SAME_MM:
            return
        top = high + kerf_mm - SAME_MM
        x = max(at for y0, y1, at in edge if y0 < top and y1 > low + SAME_MM)
        if x + way.length_mm <= within.length_mm + SAME_MM:
            yield x, low


def _edge_after(
    edge: Sequence[_Step], way: Way, at: tuple[float, float], kerf_mm: float
) -> list[_Step]:
    x, low = at
    high = low + way.width_mm + kerf_mm
    told = [(low, high, x + way.length_mm + kerf_mm)]
    for y0, y1, far in edge:
        if y0 < low - SAME_MM:
            told.append((y0, min(y1, low), far))
        if y1 > high + SAME_MM:
            told.append((max(y0, high), y1, far))
    return sorted(told)


def _boxes_laid(plan: _Plan, within: Sheet, kerf_mm: float, ends: float) -> Layout | None:
    """The boxes of the parts laid exactly by a plan, bottom-left, at the corners that the boxes
    before them make; None where that takes too long."""
    sheets: list[list[_Box]] = []
    laid = []
    for part, stance in plan.order:
        if time.monotonic() > ends:
            return None
        ways = [way for way in part.lying(stance) if not way.is_flipped] or part.ways[:1]
        for k in range(len(sheets) + 1):
            if k == len(sheets):
                sheets.append([])
            spots = [
                (way, at)
                for way in ways
                if way.turn_deg < 180
                and (at := _corner(sheets[k], way, within, kerf_mm)) is not None
            ]
            if spots:
                way, (x, y) = min(spots, key=lambda spot: _reach(spot[0], spot[1], plan.is_across))
                sheets[k].append((x, y, x + way.length_mm + kerf_mm, y + way.width_mm + kerf_mm))
                laid.append(Laid(part.blank.id, k, x, y, way.turn_deg, way.is_flipped))
                break
    reach = max(box[2] for box in sheets[-1]) - kerf_mm
    return Layout(tuple(laid), len(sheets), reach)


def _corner(
    boxes: Sequence[_Box], way: Way, within: Sheet, kerf_mm: float
) -> tuple[float, float] | None:
    """The leftmost corner, and the lowest of those, at which a part's box is free of others."""
    xs = sorted({0.0, *(box[2] for box in boxes)})
    ys = sorted({0.0, *(box[3] for box in boxes)})
    length, width = way.length_mm, way.width_mm
    for x in xs:
        if x + length > within.length_mm + SAME_MM:
            return None
        near = [
            box for box in boxes if box[0] < x + length + kerf_mm - SAME_MM and box[2] > x + SAME_MM
        ]
        for y in ys:
            if y + width > within.width_mm + SAME_MM:
                break
            if not any(
                box[1] < y + width + kerf_mm - SAME_MM and box[3] > y + SAME_MM for box in near
            ):
                return x, y
    return None


def _moved_in(layout: Layout, margin_mm: float) -> Layout:
    """A layout of the room, on the whole sheet: rounded to a thousandth of a millimetre."""
    return Layout(
        tuple(
            replace(
                each, x_mm=round(each.x_mm + margin_mm, 3), y_mm=round(each.y_mm + margin_mm, 3)
            )
            for each in layout.laid
        ),
        layout.sheets,
        round(layout.reach_mm + margin_mm, 3),
    )
