"""The balance mark at full size, to cut out and lay on the wing's root chord."""

from dataclasses import dataclass, field
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.core.model.surface import Role
from oaken_scale.paper.drawing import BAND, SEA, Mark, Page, moved
from oaken_scale.paper.shown import LengthUnit, Shown

HIGH: Final = 17.0
"""How high the strip is [mm]."""

AIR: Final = 12.0
"""What is shown ahead of a mark that lies before the leading edge [mm]."""

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
    """Root chord with leading edge, range, neutral point and CG, as far ahead of the edge as they
    lie; nothing without a wing."""
    if told.wing is None:
        return Strip(0.0, 0.0)
    edge = told.wing.leading_edge_x_mm
    chord = next(each for each in told.outlines if each.role is Role.WING).chord_mm
    beam, cg = told.beam, loadout.cg if loadout else None
    first = [x - edge for x in (beam.low_mm, cg.x_mm if cg else None) if x is not None]
    ahead = min([0.0, *(x - AIR for x in first if x < 0)])
    page = Page(chord - ahead, HIGH + 18)

    def at(x_mm: float) -> float:
        return x_mm - edge - ahead

    row = HIGH + 4.0
    if beam.low_mm is not None and beam.high_mm is not None:
        low, high = at(beam.low_mm), at(beam.high_mm)
        page.box(low, 0, max(high - low, 0.3), HIGH, fill=BAND)
        middle = (low + high) / 2
        page.line((middle, -2), (middle, HIGH + 1.5), width=0.5)
        words = _behind(beam.low_mm - edge, beam.high_mm - edge, shown)
        page.words(middle, row, words, 8, anchor="middle" if middle > 40 else "start")
    left, right = -ahead, chord - ahead
    page.area([(left, 0), (right, 0), (right, HIGH), (left, HIGH)], width=0.3)
    if ahead < 0:
        page.line((0, HIGH), (left, HIGH), width=0.3)
    page.words(left + 1.5, HIGH / 2 + 1, "leading edge", 8)
    if beam.neutral is not None and 0 <= at(beam.neutral.x_mm) <= right:
        x = at(beam.neutral.x_mm)
        page.line((x, HIGH / 2), (x, HIGH), dash=(0.6, 0.9), width=0.4)
        page.words(x + 1.5, HIGH / 2 + 1, "neutral point", 8)
    if cg is not None:
        x = at(cg.x_mm)
        page.line((x, HIGH - 5), (x, HIGH), colour=SEA, width=0.5)
        page.words(x + 1, HIGH - 1.2, f"CG now {shown.length(cg.x_mm - edge)}", 7.5, colour=SEA)
    check_line(page, 0, row + 6, shown)
    return Strip(page.width, page.height, page.marks)


def _behind(low: float, high: float, shown: Shown) -> str:
    """A range from the leading edge in words; ahead of it where it lies there."""
    unit = shown.length_unit.value
    if high < 0:
        return f"{shown.length(-high)} to {shown.length(-low)} {unit} ahead of the leading edge"
    return f"{shown.length(low)} to {shown.length(high)} {unit} behind the leading edge"
