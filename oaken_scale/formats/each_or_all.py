"""Whether the masses of a builder's own list are of each piece, or of all that a line counts, where
its headings do not say: its own sums do."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import Final

from oaken_scale.core.model.quantity import QuantityError
from oaken_scale.formats.list_figures import figure, pieces
from oaken_scale.formats.parts_columns import MASSES, Column, Field, meant

SUMS: Final = re.compile(r"^(grand )?(total|sum|subtotal|summe|gesamt\w*|zwischensumme)\b", re.I)
"""What a line of a list is called that adds up others."""
TOTAL: Final = re.compile(r"\b(total|sum|all|together|line|summe|gesamt\w*|zusammen)\b", re.I)


def each_or_all(
    columns: tuple[Column, ...], rows: Sequence[Sequence[str]], is_comma: bool
) -> tuple[Column, ...]:
    """The columns, the masses taken as of each piece where that is what adds up: to the figures of
    another column, line for line, or to the first sum below them [g].

    >>> head = [["Item", "Weight", "Qty"], ["Servo", "9", "2"], ["Motor", "28", "1"]]
    >>> columns = tuple(
    ...     Column(k, head[0][k], (Field.NAME, Field.MASS, Field.PIECES)[k], None) for k in range(3)
    ... )
    >>> [each_or_all(columns, [*head[1:], ["Total", total, ""]], False)[1].field.value
    ...     for total in ("46", "37")]
    ['mass_each', 'mass']
    """
    where = {column.field: column for column in columns if column.field}
    if {Field.NAME, Field.MASS, Field.PIECES} - set(where) or Field.MASS_EACH in where:
        return columns
    mass = where[Field.MASS]
    lines = list(_lines(rows, where, is_comma))
    # A sum is of what stands above it, and what is below the first is another list.
    end = next((k for k, line in enumerate(lines) if line.is_sum), len(lines))
    things = lines[:end]
    others = [c.at for c in columns if c.field is None and _may_be_total(c.heading)]
    adds_up = any(_is_total(at, things, mass, is_comma) for at in others) or (
        end < len(lines) and _is_sum_of_each(lines[end].grams, things)
    )
    if not adds_up:
        return columns
    return tuple(replace(c, field=Field.MASS_EACH) if c is mass else c for c in columns)


class _Line:
    """A line with a mass: its cells, mass [g] and pieces, and whether it adds up others."""

    __slots__ = ("cells", "grams", "is_sum", "pieces")

    def __init__(self, cells: Sequence[str], grams: float, count: int, is_sum: bool) -> None:
        self.cells, self.grams, self.pieces, self.is_sum = cells, grams, count, is_sum


def _lines(
    rows: Sequence[Sequence[str]], where: dict[Field, Column], is_comma: bool
) -> Iterator[_Line]:
    for row in rows:
        name, mass, count = (
            row[where[f].at].strip() if where[f].at < len(row) else ""
            for f in (Field.NAME, Field.MASS, Field.PIECES)
        )
        try:
            grams = figure(mass, "mass", where[Field.MASS].unit, is_comma)
            if grams is not None:
                yield _Line(row, grams, pieces(count), SUMS.match(name) is not None)
        except QuantityError:
            continue


def _is_near(one: float, other: float) -> bool:
    """Alike as far as figures are rounded that people add up."""
    return abs(one - other) <= 0.06 + 0.005 * abs(other)


def _may_be_total(heading: str) -> bool:
    """Whether a column may hold what a line weighs in all, by its heading."""
    return TOTAL.search(heading) is not None or meant(heading, set())[0] in MASSES


def _is_total(at: int, things: Sequence[_Line], mass: Column, is_comma: bool) -> bool:
    """Whether a column holds what the pieces of each line weigh together."""
    compared = 0
    for line in things:
        cell = line.cells[at].strip() if at < len(line.cells) else ""
        try:
            told = figure(cell, "mass", mass.unit, is_comma)
        except QuantityError:
            return False
        if told is None:
            continue
        if not _is_near(told, line.grams * line.pieces):
            return False
        compared += line.pieces > 1
    return compared > 0


def _is_sum_of_each(total: float, things: Sequence[_Line]) -> bool:
    of_all = sum(line.grams for line in things)
    of_each = sum(line.grams * line.pieces for line in things)
    return _is_near(of_each, total) and not _is_near(of_all, total)
