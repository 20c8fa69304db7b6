"""A builder's own list of parts: CSV or xlsx, any column names in any order, read into a preview of
which nothing is kept until it is said so."""

import csv
import zipfile
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from io import BytesIO, StringIO
from typing import Final

from openpyxl import load_workbook

from oaken_scale.core.changes.listed import as_listed, listed_there
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.quantity import QuantityError
from oaken_scale.formats.documents import over_limits
from oaken_scale.formats.each_or_all import SUMS, each_or_all
from oaken_scale.formats.list_figures import figure, is_comma_decimal, pieces
from oaken_scale.formats.parts_columns import KINDS, Column, Field, columns_of, meant
from oaken_scale.formats.tables import FORMULA

LARGEST_BYTES: Final = 8_000_000
MOST_UNPACKED: Final = 40_000_000
MOST_ROWS: Final = 20_000
MOST_COLUMNS: Final = 60
LONGEST_CELL: Final = 20_000
"""A whole plane of 200 parts on the pan is named in less."""


@dataclass(frozen=True, slots=True)
class Row:
    """A part as a line of the file has it [g, mm], why it is left out (None: it is not), and
    whether the build has it already."""

    line: int
    name: str
    assembly: str
    mass_g: float | None
    pieces: int
    station_mm: float | None
    side_mm: float | None
    height_mm: float | None
    why_not: Fault | None
    is_known: bool


@dataclass(frozen=True, slots=True)
class Preview:
    """What a file would add."""

    columns: tuple[Column, ...]
    rows: tuple[Row, ...]


def cells(file: bytes, sheet: str = "") -> list[list[str]]:
    """The cells of a CSV or xlsx file as text, of a ``sheet`` where there is one of that name, else
    of the first. Raises BuildFaultError on ``file``."""
    if len(file) > LARGEST_BYTES:
        raise _wrong(f"is larger than {LARGEST_BYTES // 1_000_000} MB; a list is not")
    rows = _of_xlsx(file, sheet) if file.startswith(b"PK") else _of_csv(file)
    rows = [row for row in rows if any(row)]
    if not rows:
        raise _wrong("holds nothing; a list has a heading and a line for each thing")
    if len(rows) > MOST_ROWS:
        raise _wrong(f"has {len(rows)} lines; at most {MOST_ROWS} are read")
    if max(map(len, rows)) > MOST_COLUMNS:
        raise _wrong(f"is over {MOST_COLUMNS} columns wide; a list of parts has a few")
    return rows


def _of_csv(file: bytes) -> list[list[str]]:
    for encoding in (
        ("utf-8-sig", "utf-16")
        if file[:2] in (b"\xff\xfe", b"\xfe\xff")
        else ("utf-8-sig", "cp1252")
    ):
        try:
            text = file.decode(encoding)
            break
        except UnicodeDecodeError:
            continue
    else:
        raise _wrong("is no text and no spreadsheet; save the list as CSV or xlsx")
    if "\0" in text:
        raise _wrong("is no text and no spreadsheet; save the list as CSV or xlsx")
    head = "".join(text.splitlines(keepends=True)[:20])
    try:
        between = max(";\t,", key=lambda mark: _as_columns(head, mark))
        return [[_plain(cell) for cell in row] for row in _divided(text, between)]
    except csv.Error as error:
        raise _wrong(f"cannot be read as CSV ({error})") from error


def _divided(text: str, mark: str) -> Iterator[list[str]]:
    yield from csv.reader(StringIO(text, newline=""), delimiter=mark)


def _as_columns(head: str, mark: str) -> tuple[int, int]:
    """How well a mark divides lines into columns: of how many lines it makes the same number, and
    which. What stands within a cell divides some lines and not others."""
    counts = Counter(len(row) for row in _divided(head, mark) if len(row) > 1)
    return max(((lines, columns) for columns, lines in counts.items()), default=(0, 0))


def _of_xlsx(file: bytes, sheet: str) -> list[list[str]]:
    try:
        with zipfile.ZipFile(BytesIO(file)) as packed:
            if sum(each.file_size for each in packed.infolist()) > MOST_UNPACKED:
                raise _wrong("unpacks to far more than a list of parts holds")
        book = load_workbook(BytesIO(file), read_only=True, data_only=True)
        found: list[list[str]] = []
        page = book[sheet] if sheet in book.sheetnames else book.worksheets[0]
        for number, row in enumerate(page.iter_rows(values_only=True)):
            if number > MOST_ROWS + 5:
                raise _wrong(f"has over {MOST_ROWS} lines")
            found.append(
                [_plain("" if value is None else str(value)) for value in row[:MOST_COLUMNS]]
            )
        book.close()
    except BuildFaultError:
        raise
    except Exception as error:  # what a broken spreadsheet may raise is not written down
        raise _wrong(f"cannot be read as xlsx ({type(error).__name__})") from error
    return found


def _plain(text: str) -> str:
    """A cell's text; the mark that keeps a formula from being one is taken off."""
    if text[:1] == "'" and text[1:2] in (*FORMULA, "'"):
        text = text[1:]
    return " ".join(text.split())[:LONGEST_CELL]


def preview(
    rows: Sequence[Sequence[str]],
    build: Build,
    taken_for: Mapping[int, Field | None] | None = None,
) -> Preview:
    """What the cells of a file would add to a build. ``taken_for`` says otherwise of some columns.

    A line without a name, a sum, and a part of the same name and assembly that the build has are
    left out. Raises BuildFaultError on ``file``.
    """
    at, columns = columns_of(rows)
    if taken_for:
        chosen = {field for field in taken_for.values() if field}
        columns = tuple(
            Column(c.at, c.heading, taken_for[c.at], meant(c.heading, set())[1] or c.unit)
            if c.at in taken_for
            else (replace(c, field=None) if c.field in chosen else c)
            for c in columns
        )
    where = {column.field: column for column in columns if column.field}
    if Field.NAME not in where:
        raise _wrong("has no column of names; say which it is")
    places = [column.at for column in columns if column.field in KINDS]
    is_comma = is_comma_decimal(row[k] for row in rows[at + 1 :] for k in places if k < len(row))
    if not taken_for or {Field.MASS, Field.MASS_EACH}.isdisjoint(taken_for.values()):
        columns = each_or_all(columns, rows[at + 1 :], is_comma)
        where = {column.field: column for column in columns if column.field}
    there = listed_there(build)
    found = []
    for line, row in enumerate(rows[at + 1 :], start=at + 2):
        read = _read(line, row, where, is_comma)
        key = as_listed(read.name, read.assembly)
        found.append(read if key not in there else _known(read))
        if read.why_not is None:
            there.add(key)
    return Preview(columns, tuple(found))


def _known(row: Row) -> Row:
    return Row(
        row.line,
        row.name,
        row.assembly,
        row.mass_g,
        row.pieces,
        row.station_mm,
        row.side_mm,
        row.height_mm,
        row.why_not or Fault("", "is on the list already"),
        is_known=True,
    )


def _read(line: int, row: Sequence[str], where: Mapping[Field, Column], is_comma: bool) -> Row:
    def text(field: Field) -> str:
        column = where.get(field)
        return row[column.at].strip() if column and column.at < len(row) else ""

    name = text(Field.NAME)[:80]
    why_not: Fault | None = None
    figures: dict[Field, float | None] = {}
    for field, kind in KINDS.items():
        try:
            column = where.get(field)
            unit = column.unit if column else None
            figures[field] = figure(text(field), kind, unit, is_comma)
        except QuantityError as error:
            named = Field.MASS if field is Field.MASS_EACH else field
            figures[field], why_not = None, Fault(named.value, str(error))
    count = 1
    try:
        count = pieces(text(Field.PIECES))
    except QuantityError as error:
        why_not = Fault(Field.PIECES.value, str(error))
    if not name:
        why_not = Fault("", "has no name")
    elif SUMS.match(name):
        why_not = Fault("", "is a sum")
    mass, of_each = figures[Field.MASS], figures[Field.MASS_EACH]
    if mass is None and of_each is not None:
        mass = of_each * count
    read = Row(
        line,
        name,
        text(Field.ASSEMBLY)[:80],
        mass,
        count,
        figures[Field.STATION],
        figures[Field.SIDE],
        figures[Field.HEIGHT],
        why_not,
        is_known=False,
    )
    return _within_limits(read) if why_not is None else read


_FIELD_OF: Final = {
    "name": Field.NAME,
    "assembly": Field.ASSEMBLY,
    "stated_g": Field.MASS,
    "x_mm": Field.STATION,
    "y_mm": Field.SIDE,
    "z_mm": Field.HEIGHT,
}


def _within_limits(row: Row) -> Row:
    """A line, left out where a part of it could not be kept."""
    at = Station(row.station_mm or 0.0, row.side_mm or 0.0, row.height_mm or 0.0)
    part = Part("line", row.name, Pedigree.GUESS, row.assembly, row.mass_g, station=at)
    for fault in over_limits(part):
        field = _FIELD_OF.get(fault.field.rpartition(".")[2], fault.field)
        return replace(row, why_not=replace(fault, field=field))
    return row


def _wrong(words: str) -> BuildFaultError:
    return BuildFaultError([Fault("file", words)])
