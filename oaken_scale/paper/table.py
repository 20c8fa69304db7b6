"""A ruled table on a page, and what stands in its cells."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.flight.forecast import Mark as HowKnown
from oaken_scale.paper.drawing import FAINT, INK, LINE, Disc, Page, fitted, wide

ROW_MM: Final = 5.6
SIZE: Final = 8.5
"""Letters in a table [points]."""

MARKS: Final = {
    HowKnown.WEIGHED: ("weighed", Disc((0.0, 0.0), 1.15, 1.0)),
    HowKnown.DIFFERENCE: ("by difference", Disc((0.0, 0.0), 1.15, 0.75)),
    HowKnown.LISTED: ("listed or calculated", Disc((0.0, 0.0), 1.15, 0.5)),
    HowKnown.GUESS: ("guess", Disc((0.0, 0.0), 1.15, 0.0, (0.35, 0.45))),
}
"""How each way to know a mass is marked, and what it is called."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its heading, how wide it is [mm], and whether it holds figures."""

    title: str
    wide: float
    is_figure: bool = False


Cell = str | HowKnown


def mark(page: Page, how: HowKnown, x: float, y: float) -> None:
    """The mark of how a mass is known, its middle at a place."""
    disc = MARKS[how][1]
    page.marks.append(Disc((x, y), disc.radius, disc.filled, disc.dash))


def table(
    page: Page, x: float, y: float, columns: Sequence[Column], rows: Sequence[Sequence[Cell]]
) -> float:
    """Draw a table from its upper left corner; returns where it ends [mm from the top]."""
    across = x + sum(column.wide for column in columns)
    y += ROW_MM
    at = x
    for column in columns:
        place(page, column, at, y - 1.8, column.title, FAINT, "words")
        at += column.wide
    page.line((x, y), (across, y), width=0.35)
    for row in rows:
        y += ROW_MM
        at = x
        for column, cell in zip(columns, row, strict=True):
            if not isinstance(cell, HowKnown):
                cut = "figures" if column.is_figure else "words"
                place(page, column, at, y - 1.8, cell, INK, cut)
            else:
                mark(page, cell, at + 2.5, y - ROW_MM / 2)
            at += column.wide
        page.line((x, y), (across, y), colour=LINE)
    return y


def place(page: Page, column: Column, x: float, y: float, text: str, colour: str, cut: str) -> None:
    """Text in a cell: figures end at the right, words begin at the left."""
    size = SIZE if cut == "words" else SIZE - 0.5
    text = fitted(text, column.wide - 1.5, size, cut)
    if column.is_figure:
        page.words(x + column.wide - 1.0, y, text, size, cut, "end", colour)
    else:
        page.words(x + 0.8, y, text, size, cut, "start", colour)


def legend(page: Page, x: float, y: float) -> None:
    """What the marks mean, on one line."""
    for how, (name, _) in MARKS.items():
        mark(page, how, x + 1.3, y - 1.0)
        page.words(x + 3.6, y, name, 7.5, colour=FAINT)
        x += 7.0 + wide(name, 7.5)
