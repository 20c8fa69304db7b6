"""Labels for parts and packs: name, mass, doubt, date; on common label sheets or a grid to cut."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from oaken_scale.core.assess import Assessment
from oaken_scale.core.flight.forecast import Mark as HowKnown
from oaken_scale.core.model.build import Build
from oaken_scale.paper.drawing import FAINT, LINE, PAPERS, Page, Sheet, fitted, folded, wide
from oaken_scale.paper.shown import Shown
from oaken_scale.paper.table import MARKS, mark


@dataclass(frozen=True, slots=True)
class Grid:
    """Where labels lie on a sheet [mm]: how many across and down, their size, the first one's
    corner, and from one to the next. ``is_cut``: lines to cut along are printed."""

    paper: Sheet
    across: int
    down: int
    wide: float
    high: float
    left: float
    top: float
    step_x: float
    step_y: float
    is_cut: bool = False


_A4, _LETTER = PAPERS["a4"], PAPERS["letter"]
GRIDS: Final = {
    "a4-24": Grid(_A4, 3, 8, 70.0, 37.0, 0.0, 0.5, 70.0, 37.0),
    "a4-21": Grid(_A4, 3, 7, 63.5, 38.1, 7.2, 15.1, 66.0, 38.1),
    "a4-14": Grid(_A4, 2, 7, 99.1, 38.1, 4.65, 15.1, 101.6, 38.1),
    "a4-65": Grid(_A4, 5, 13, 38.1, 21.2, 4.75, 10.7, 40.6, 21.2),
    "letter-30": Grid(_LETTER, 3, 10, 66.7, 25.4, 4.75, 12.7, 69.85, 25.4),
}
"""Common sheets, by paper and how many labels they hold."""

FREE_EDGE: Final = 8.0


def free_grid(paper: Sheet, across: int, down: int) -> Grid:
    """A grid of so many labels on plain paper, with lines to cut along.

    >>> grid = free_grid(PAPERS["a4"], 2, 4)
    >>> grid.wide, round(grid.high, 2)
    (97.0, 70.25)
    """
    width = (paper.width - 2 * FREE_EDGE) / across
    height = (paper.height - 2 * FREE_EDGE) / down
    return Grid(
        paper, across, down, width, height, FREE_EDGE, FREE_EDGE, width, height, is_cut=True
    )


@dataclass(frozen=True, slots=True)
class Card:
    """What stands on one label."""

    name: str
    mass: str
    doubt: str
    how: HowKnown
    under: str


def cards(
    build: Build, told: Assessment, shown: Shown, chosen: Sequence[str] | None = None
) -> list[Card]:
    """A card for each part aboard, or for each of the ``chosen``, in the order of the list."""
    masses = {each.id: each for each in told.parts}
    last: dict[str, datetime] = {}
    for reading in build.weighings:
        if reading.set_aside is None:
            for load in reading.pan.loads:
                last[load.part] = max(reading.at, last.get(load.part, reading.at))
    found = []
    for part in build.parts:
        mass = masses.get(part.id)
        if mass is None or part.retired or (chosen is not None and part.id not in chosen):
            continue
        when = f", {last[part.id]:%d.%m.%Y}" if part.id in last else ""
        digits = 1 if shown.mass_unit.value == "g" else 2
        found.append(
            Card(
                part.name,
                f"{shown.mass(mass.mass_g, digits)} {shown.mass_unit.value}",
                f"±{shown.mass(2 * mass.sd_g, digits)}",
                mass.mark,
                f"{MARKS[mass.mark][0]}{when} · {build.name}",
            )
        )
    return found


def labels(all_cards: Sequence[Card], grid: Grid, skipped: int = 0) -> list[Page]:
    """The cards on as many pages as they take, the first ``skipped`` places of a begun sheet left
    free."""
    many = grid.across * grid.down
    pages: list[Page] = []
    for place, card in enumerate(all_cards, start=skipped):
        if not pages or place % many == 0:
            pages.append(Page(grid.paper.width, grid.paper.height))
        row, column = divmod(place % many, grid.across)
        _draw(pages[-1], card, grid, grid.left + column * grid.step_x, grid.top + row * grid.step_y)
    return pages or [Page(grid.paper.width, grid.paper.height)]


def _draw(page: Page, card: Card, grid: Grid, x: float, y: float) -> None:
    if grid.is_cut:
        corners = ((x, y), (x + grid.wide, y), (x + grid.wide, y + grid.high), (x, y + grid.high))
        page.area(corners, None, LINE)
    inner = grid.wide - 8
    is_small = grid.high < 24
    name, figure, under = (8.5, 12.0, 6.5) if is_small else (11.0, 17.0, 7.5)
    lines = folded(card.name, inner, name, "strong")[: 1 if is_small else 2]
    at = y + (4.8 if is_small else 7.5)
    for words in lines:
        page.words(x + 4, at, fitted(words, inner, name, "strong"), name, "strong")
        at += name * 0.42
    at = y + grid.high - (6.6 if is_small else 9.5)
    mark(page, card.how, x + 5.2, at - figure * 0.12)
    page.words(x + 8, at, card.mass, figure, "strong-figures")
    beside = x + 9.5 + wide(card.mass, figure, "strong-figures")
    page.words(beside, at, card.doubt, figure * 0.6, "figures", colour=FAINT)
    foot = y + grid.high - (2.4 if is_small else 4)
    page.words(x + 4, foot, fitted(card.under, inner, under), under, colour=FAINT)
