"""Balance marks and outlines at full size, on as many sheets of paper as they take."""

import math
from collections.abc import Sequence
from dataclasses import replace
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers, Outline
from oaken_scale.core.geometry.outline import Candidate
from oaken_scale.core.model.surface import Role
from oaken_scale.paper.balance_mark import Strip, check_line, mark_strip
from oaken_scale.paper.drawing import BAND, FAINT, Mark, Page, Point, Sheet, Stroke
from oaken_scale.paper.shown import Shown

EDGE: Final = 12.0
HEAD: Final = 18.0
FOOT: Final = 20.0
"""What is left free around a tile [mm]: the edge, the words over it, the line under it."""

OVERLAP: Final = 10.0
"""How far a tile lies over the next one [mm]."""

CROSS: Final = 3.0


def tiles(strip: Strip, paper: Sheet, title: str, shown: Shown) -> list[Page]:
    """A drawing at full size on as many sheets as it takes, each with a line to be measured and
    crosses that lie on those of its neighbours.

    >>> from oaken_scale.paper.drawing import PAPERS
    >>> len(tiles(Strip(400.0, 100.0), PAPERS["a4"], "Wing", Shown()))
    3
    """
    wide, high = paper.width - 2 * EDGE, paper.height - HEAD - FOOT
    across = _many(strip.long, wide)
    down = _many(strip.high, high)
    crosses = _crosses(strip, wide, high, across, down)
    pages = []
    for row in range(down):
        for column in range(across):
            page = Page(paper.width, paper.height)
            words = f"{title}, full size"
            if across * down > 1:
                words += f": sheet {row * across + column + 1} of {across * down}, row {row + 1}, "
                words += f"column {column + 1}; lay the crosses on each other"
            page.words(EDGE, 10, words, 9, "strong")
            check_line(page, EDGE, paper.height - 10, shown)
            page.window = (EDGE, HEAD, EDGE + wide, HEAD + high)
            by = (EDGE - column * (wide - OVERLAP), HEAD - row * (high - OVERLAP))
            page.clipped = replace(strip, marks=[*strip.marks, *crosses]).placed(*by)
            page.area(
                [
                    (EDGE, HEAD),
                    (EDGE + wide, HEAD),
                    (EDGE + wide, HEAD + high),
                    (EDGE, HEAD + high),
                ],
                colour=BAND,
            )
            pages.append(page)
    return pages


def _many(size: float, window: float) -> int:
    return max(1, math.ceil((size - OVERLAP) / (window - OVERLAP)))


def _crosses(strip: Strip, wide: float, high: float, across: int, down: int) -> list[Mark]:
    """A cross in the middle of each overlap."""
    found: list[Mark] = []
    half = OVERLAP / 2
    xs = [column * (wide - OVERLAP) + half for column in range(1, across)]
    ys = [row * (high - OVERLAP) + half for row in range(1, down)]
    at: list[Point] = [(x, y) for x in xs for y in (ys or [half + 4, strip.high - half - 4])]
    at += [(x, y) for y in ys for x in (xs or [half + 4, strip.long - half - 4])]
    for x, y in at:
        found.append(Stroke(((x - CROSS, y), (x + CROSS, y)), FAINT))
        found.append(Stroke(((x, y - CROSS), (x, y + CROSS)), FAINT))
    return found


def balance_marks(
    told: Assessment, loadout: LoadoutAnswers | None, paper: Sheet, shown: Shown
) -> list[Page]:
    """The root chord with where it must balance; no page without a wing."""
    strip = mark_strip(told, loadout, shown)
    if not strip.marks:
        return []
    inset = replace(strip, marks=strip.placed(2, 4), long=strip.long + 4, high=strip.high + 4)
    return tiles(inset, paper, "Balance mark, to lay on the root chord", shown)


def sheets_taken(outlines: Sequence[Outline], paper: Sheet) -> int:
    """How many sheets the outlines take at full size."""
    wide, high = paper.width - 2 * EDGE, paper.height - HEAD - FOOT
    many = 0
    for shape in map(_half, outlines):
        xs, ys = [x for x, _ in shape], [y for _, y in shape]
        if len(shape) > 2:
            size = max(xs) - min(xs) + 6, max(ys) - min(ys) + 6
            many += _many(size[0], wide) * _many(size[1], high)
    return many


def outline_sheets(
    outlines: Sequence[Outline], told: Assessment, paper: Sheet, shown: Shown
) -> list[Page]:
    """Drawn surfaces at full size, from the root down the paper; a wing with where it must balance.
    What is the same on both sides is drawn once: turned over, it is the other side's."""
    pages = []
    for outline in outlines:
        shape = _half(outline)
        if len(shape) < 3:
            continue
        left, low = min(x for x, _ in shape), min(y for _, y in shape)
        points = [(x - left + 3, y - low + 3) for x, y in shape]
        page = Page(max(x for x, _ in points) + 3, max(y for _, y in points) + 3)
        beam = told.beam
        if outline.role is Role.WING and beam.low_mm is not None and beam.high_mm is not None:
            across = beam.low_mm - left + 3, max(beam.high_mm - beam.low_mm, 0.3)
            page.box(across[0], 3, across[1], page.height - 6, fill=BAND)
        page.area(points, width=0.35)
        pages += tiles(Strip(page.width, page.height, page.marks), paper, outline.name, shown)
    return pages


def strip_sheets(long_mm: float, high_mm: float, paper: Sheet) -> int:
    """How many sheets of paper a drawing takes at full size.

    >>> from oaken_scale.paper.drawing import PAPERS
    >>> strip_sheets(400.0, 100.0, PAPERS["a4"])
    3
    """
    wide, high = paper.width - 2 * EDGE, paper.height - HEAD - FOOT
    return _many(long_mm, wide) * _many(high_mm, high)


def part_sheets(parts: Sequence[Candidate], paper: Sheet, shown: Shown) -> list[Page]:
    """Parts of a drawing from another program at full size, each with its name and its holes, to
    cut out and lay on the board."""
    pages = []
    for part in parts:
        page = Page(*_size(part))
        left, top = part.box.left_mm - 3, part.box.top_mm - 3
        for ring in part.rings:
            page.area([(x - left, y - top) for x, y in ring], width=0.35)
        page.words(part.x_mm - left, part.y_mm - top, part.name, 8)
        pages += tiles(Strip(page.width, page.height, page.marks), paper, part.name, shown)
    return pages


def part_sheets_taken(parts: Sequence[Candidate], paper: Sheet) -> int:
    """How many sheets parts take at full size."""
    wide, high = paper.width - 2 * EDGE, paper.height - HEAD - FOOT
    sizes = map(_size, parts)
    return sum(_many(long, wide) * _many(tall, high) for long, tall in sizes)


def _size(part: Candidate) -> tuple[float, float]:
    box = part.box
    return box.right_mm - box.left_mm + 6, box.bottom_mm - box.top_mm + 6


def _half(outline: Outline) -> list[Point]:
    """A fin from the side, anything else from its root to starboard."""
    if outline.role is Role.FIN:
        top = max(z for _, z in outline.side)
        return [(x, top - z) for x, z in outline.side]
    return [(x, y) for x, y in outline.corners if y > -0.01]
