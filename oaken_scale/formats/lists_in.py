"""Weighings, throws, runs and loadouts from a spreadsheet: what went out comes in again, and a
builder's own list with its columns in any order. Nothing is kept that was there before."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

from oaken_scale.core.changes.listed import Entry
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault
from oaken_scale.core.model.power import Run, RunPoint
from oaken_scale.formats.list_columns import ListColumn, ListName, columns_of
from oaken_scale.formats.list_lines import CannotError, Lines

__all__ = ["ListLine", "ListName", "ListPreview", "read_list"]


@dataclass(frozen=True, slots=True)
class ListLine:
    """A line of the file: what it says, why it is left out (None: it is not), and whether the
    build has it already."""

    line: int
    says: str
    why_not: Fault | None
    is_known: bool


@dataclass(frozen=True, slots=True)
class ListPreview:
    """What a file would add: its columns, its lines, and how many entries are new."""

    columns: tuple[ListColumn, ...]
    lines: tuple[ListLine, ...]
    fresh: int


def read_list(
    what: ListName, rows: Sequence[Sequence[str]], build: Build
) -> tuple[ListPreview, tuple[Entry, ...]]:
    """What the cells of a file would add to a build, and the entries themselves.

    A line that has an id is known by it; one without, by all that it says. Raises BuildFaultError
    on ``file`` where no columns can be made out.
    """
    at, columns = columns_of(what, rows)
    where = {column.field: column.at for column in columns if column.field}
    reader = Lines(what, build, columns, rows[at + 1 :])
    lines: list[ListLine] = []
    entries: list[Entry] = []
    known = _known(what, build)
    points: dict[str, list[RunPoint]] = {}
    for number, row in enumerate(rows[at + 1 :], start=at + 2):
        cells = {field: row[k].strip() if k < len(row) else "" for field, k in where.items()}
        says = "; ".join(each for each in row[:6] if each)[:120]
        if re.fullmatch(r"sum|total|summe|gesamt", (row[0] if row else "").strip(), re.I):
            continue
        try:
            entry = reader.read(cells)
        except CannotError as error:
            lines.append(ListLine(number, says, error.fault, is_known=False))
            continue
        if isinstance(entry, Run):
            is_new = entry.id not in points
            points.setdefault(entry.id, []).extend(entry.points)
            if is_new and entry.id not in known:
                entries.append(entry)
        elif entry.id not in known:
            entries.append(entry)
        is_known = entry.id in known
        why_not = Fault("", "is here already") if is_known else None
        lines.append(ListLine(number, says, why_not, is_known))
        if not isinstance(entry, Run):
            known.add(entry.id)
    whole = tuple(
        replace(each, points=tuple(points[each.id])) if isinstance(each, Run) else each
        for each in entries
    )
    return ListPreview(tuple(columns), tuple(lines), len(whole)), whole


def _known(what: ListName, build: Build) -> set[str]:
    if what is ListName.WEIGHINGS:
        return {each.id for each in build.weighings}
    if what is ListName.THROWS:
        return {each.id for each in build.field.throws}
    if what is ListName.RUNS:
        return {each.id for each in build.power.runs} if build.power else set()
    return {each.id for each in build.loadouts}
