"""The balance mark at full size, to cut out and lay on the wing's root chord."""

from dataclasses import dataclass, field
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.paper.drawing import BAND, SEA, Mark, Page, Point, moved
from oaken_scale.paper.shown import LengthUnit, Shown

HIGH: Final = 17.0
"""How high the strip is [mm]."""

CHECK: Final = {LengthUnit.MM: (100.0, "100 mm"), LengthUnit.IN: (101.6, "4 in")}
"""The line that is measured before the rest is trusted [mm], and what it should measure."""


@dataclass(slots=True)
class Strip:
    """Marks from their upper left corner, and how long they are [mm]."""

    long: float
    high: float
    marks: list[Mark] = field(default_factory=list)

    def placed(self, x: float, y: float) -> list[Mark]:
        """The marks at a place on paper."""
        return [moved(mark, (x, y)) for mark in self.marks]


def check_line(page: Page, x: float, y: float, shown: Shown) -> None:
    """The line to be measured, from its left end."""
    mm, words = CHECK[shown.length_unit]
    page.line((x, y - 1.5), (x, y + 1.5))
    page.line((x + mm, y - 1.5), (x + mm, y + 1.5))
    page.line((x, y), (x + mm, y))
    page.words(x + mm + 2, y + 1, f"{words}: measure it before you trust the rest", 8)


def mark_strip(told: Assessment, loadout: LoadoutAnswers | None, shown: Shown) -> Strip:
    """Root chord with leading edge, range, neutral point and CG; nothing without a wing."""
    if told.wing is None:
        return Strip(0.0, 0.0)
    edge = told.wing.leading_edge_x_mm
    wing = next(each for each in told.outlines if each.role.value == "wing")
    chord = wing.chord_mm
    page = Page(chord, HIGH + 18)
    beam, cg = told.beam, loadout.cg if loadout else None
    unit = shown.length_unit.value
    row = HIGH + 4.0
    if beam.low_mm is not None and beam.high_mm is not None:
        low, high = beam.low_mm - edge, beam.high_mm - edge
        page.box(low, 0, max(high - low, 0.3), HIGH, fill=BAND)
        middle = (low + high) / 2
        page.line((middle, -2), (middle, HIGH + 1.5), width=0.5)
        words = f"{shown.length(low)} to {shown.length(high)} {unit} behind the leading edge"
        page.words(middle, row, words, 8, anchor="middle" if middle > 25 else "start")
    page.area([(0, 0), (chord, 0), (chord, HIGH), (0, HIGH)], width=0.3)
    page.words(1.5, HIGH / 2 + 1, "leading edge", 8)
    if beam.neutral is not None and 0 <= beam.neutral.x_mm - edge <= chord:
        x = beam.neutral.x_mm - edge
        page.line((x, HIGH / 2), (x, HIGH), dash=(0.6, 0.9), width=0.4)
        page.words(x + 1.5, HIGH / 2 + 1, "neutral point", 8)
    if cg is not None:
        x = cg.x_mm - edge
        page.line((x, HIGH - 5), (x, HIGH), colour=SEA, width=0.5)
        words = f"CG now {shown.length(x)}"
        page.words(x + 1, HIGH - 1.2, words, 7.5, colour=SEA)
    check_line(page, 0, row + 6, shown)
    return Strip(chord, page.height, page.marks)


def ends(points: list[Point]) -> tuple[float, float, float, float]:
    """Left, top, right and bottom of points [mm]."""
    xs, ys = [x for x, _ in points], [y for _, y in points]
    return min(xs), min(ys), max(xs), max(ys)
