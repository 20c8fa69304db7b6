"""A build's lists as tables for a spreadsheet: CSV one by one, or all of them in one xlsx file."""

import csv
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from io import BytesIO, StringIO
from typing import Final

from openpyxl import Workbook
from openpyxl.cell import Cell
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from oaken_scale.core.assess import Assessment
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Reference
from oaken_scale.core.model.target import UNIT_OF

Value = str | float | int | bool | None

FORMULA: Final = ("=", "+", "-", "@", "\t", "\r")
"""What a spreadsheet takes for the beginning of a formula."""


@dataclass(frozen=True, slots=True)
class Table:
    """A list: what it is called, its headings with their units, its rows, and which of its columns
    are summed up under them."""

    name: str
    headings: tuple[str, ...]
    rows: tuple[tuple[Value, ...], ...]
    summed: tuple[str, ...] = ()


def tables(build: Build, told: Assessment) -> tuple[Table, ...]:
    """Parts, weighings, loadouts, throws and runs."""
    return parts(build, told), weighings(build), loadouts(build, told), throws(build), runs(build)


def parts(build: Build, told: Assessment) -> Table:
    """Every part that is not retired, as it was typed and as it is known now. Its first columns are
    what the list of parts is read from again."""
    masses = {each.id: each for each in told.parts}
    lots = {lot.id: lot for lot in build.lots}
    rows: list[tuple[Value, ...]] = []
    for part in build.parts:
        if part.retired:
            continue
        now, at = masses[part.id], part.station
        use = part.uses[0] if part.uses else None
        where = {Reference.NOSE: "nose", Reference.LEADING_EDGE: "leading edge"}
        rows.append(
            (
                part.name,
                part.assembly,
                round(now.mass_g, 3),
                part.pieces,
                round(now.x_from_nose_mm, 2) if now.x_from_nose_mm is not None else None,
                at.y_mm if at else None,
                at.z_mm if at else None,
                part.option,
                part.pedigree.value,
                part.stated_g,
                lots[use.lot].name if use else None,
                use.amount if use else None,
                lots[use.lot].unit.value if use else None,
                at.x_mm if at else None,
                where[at.reference] if at else None,
                round(2 * now.sd_g, 3),
                now.mark.value,
            )
        )
    headings = (
        "name",
        "assembly",
        "mass g",
        "pieces",
        "station mm",
        "side mm",
        "height mm",
        "option",
        "known by",
        "stated g",
        "lot",
        "amount",
        "unit",
        "station as typed mm",
        "measured from",
        "doubt g",
        "known now",
    )
    return Table("parts", headings, tuple(rows), ("mass g",))


def weighings(build: Build) -> Table:
    """The log, in its order."""
    names = {part.id: part.name for part in build.parts}
    scales = {scale.id: scale.name for scale in build.scales}
    lots = {lot.id: lot for lot in build.lots}
    rows: list[tuple[Value, ...]] = []
    for each in build.weighings:
        on_pan = [
            names.get(load.part, load.part) + (f" x {load.count:g}" if load.count != 1 else "")
            for load in each.pan.loads
        ]
        on_pan += [f"{each.pan.known_g:g} g known"] if each.pan.known_g else []
        on_pan += [
            f"{sample.amount:g} {lots[sample.lot].unit.value} of {lots[sample.lot].name}"
            for sample in each.pan.samples
        ]
        rows.append(
            (
                _time(each.at),
                round(each.reading_g, 4),
                "; ".join(on_pan),
                scales.get(each.scale, ""),
                each.typed or None,
                each.set_aside,
                each.accepted,
                each.note or None,
                each.id,
            )
        )
    headings = (
        "time",
        "reading g",
        "on the pan",
        "scale",
        "as typed",
        "set aside",
        "accepted",
        "note",
        "id",
    )
    return Table("weighings", headings, tuple(rows))


def loadouts(build: Build, told: Assessment) -> Table:
    """Each loadout with its answers, and the options that it carries."""
    names = {part.id: part.name for part in build.parts}
    carried = {each.id: "; ".join(names[id] for id in each.carries) for each in build.loadouts}
    rows: list[tuple[Value, ...]] = []
    kinds = [answer.kind for answer in told.loadouts[0].answers]
    for each in told.loadouts:
        row: list[Value] = [each.name]
        answers = {answer.kind: answer for answer in each.answers}
        for kind in kinds:
            answer = answers[kind]
            row += [
                None if answer.value is None else round(answer.value, 4),
                None if answer.sd is None else round(2 * answer.sd, 4),
                answer.word.value if answer.word else None,
            ]
        cg = each.cg
        row += [round(cg.x_mm, 2) if cg else None, round(2 * cg.x_sd_mm, 2) if cg else None]
        row.append(carried.get(each.id) or None)
        rows.append(tuple(row))
    heads = [
        f"{title}{more}"
        for title in (f"{METRICS[kind].name} {UNIT_OF.get(kind, '')}".strip() for kind in kinds)
        for more in ("", ", doubt", ", verdict")
    ]
    heads += ["CG from nose mm", "CG from nose mm, doubt", "carries"]
    return Table("loadouts", ("loadout", *heads), tuple(rows))


def throws(build: Build) -> Table:
    """Throws with their settings."""
    controls = {each.id: each.name for each in build.field.controls}
    rows: list[tuple[Value, ...]] = [
        (
            _time(each.at),
            "; ".join(
                f"{controls.get(one.control, one.control)} {one.mm:g} mm" for one in each.settings
            ),
            each.seen.value if each.seen else None,
            each.distance_m,
            each.height_m,
            each.seconds,
            each.wind_m_s,
            each.auw_g,
            each.cg_mm,
            each.set_aside,
            each.note or None,
            each.id,
        )
        for each in build.field.throws
    ]
    headings = (
        "time",
        "settings",
        "what it did",
        "distance m",
        "height m",
        "seconds",
        "wind m/s",
        "all-up weight g",
        "CG from nose mm",
        "set aside",
        "note",
        "id",
    )
    return Table("throws", headings, tuple(rows))


def runs(build: Build) -> Table:
    """Every point of every run of the drive."""
    power = build.power
    rows: list[tuple[Value, ...]] = []
    if power is not None:
        packs = {each.id: each.name for each in power.packs}
        propellers = {each.id: each.name for each in power.propellers}
        for run in power.runs:
            for point in run.points:
                rows.append(
                    (
                        _time(run.at),
                        packs.get(run.pack, run.pack),
                        propellers.get(run.propeller, run.propeller),
                        point.throttle,
                        point.thrust_gf,
                        point.pack_a,
                        point.pack_v,
                        point.drawn_mah,
                        run.set_aside,
                        run.id,
                    )
                )
    headings = (
        "time",
        "pack",
        "propeller",
        "throttle",
        "thrust gf",
        "current A",
        "voltage V",
        "drawn mAh",
        "set aside",
        "run",
    )
    return Table("runs", headings, tuple(rows))


def as_csv(table: Table, is_comma_decimal: bool = False) -> bytes:
    """A table as CSV (RFC 4180, UTF-8 with its mark, so that a spreadsheet reads the letters):
    decimal points and commas between, or decimal commas and semicolons.

    >>> as_csv(Table("t", ("name", "mass g"), (("=1+1", 2.5),)), True).decode("utf-8-sig")
    "name;mass g\\r\\n'=1+1;2,5\\r\\n"
    """
    out = StringIO()
    writer = csv.writer(out, delimiter=";" if is_comma_decimal else ",")
    writer.writerow(table.headings)
    for row in table.rows:
        writer.writerow([_text(value, is_comma_decimal) for value in row])
    return out.getvalue().encode("utf-8-sig")


def _text(value: Value, is_comma_decimal: bool) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else ""
    if isinstance(value, str):
        return f"'{value}" if value.startswith((*FORMULA, "'")) else value
    text = f"{value:.10g}"
    return text.replace(".", ",") if is_comma_decimal else text


def as_xlsx(all_of: Sequence[Table]) -> bytes:
    """The tables as one spreadsheet file, a sheet each; sums are formulas, words never are."""
    book = Workbook()
    book.remove(book.worksheets[0])
    for table in all_of:
        sheet = book.create_sheet(table.name)
        sheet.append(list(table.headings))
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        sheet.freeze_panes = "A2"
        for number, row in enumerate(table.rows, start=2):
            for column, value in enumerate(row, start=1):
                shown = ("yes" if value else None) if isinstance(value, bool) else value
                _put(sheet.cell(number, column), shown)
        last = len(table.rows) + 1
        for heading in table.summed if table.rows else ():
            column = table.headings.index(heading) + 1
            letter = get_column_letter(column)
            sum_of = sheet.cell(last + 1, column, f"=SUM({letter}2:{letter}{last})")
            sum_of.font = Font(bold=True)
            _put(sheet.cell(last + 1, 1), "sum")
        for column, heading in enumerate(table.headings, start=1):
            longest = max([len(heading), *(len(str(row[column - 1] or "")) for row in table.rows)])
            sheet.column_dimensions[get_column_letter(column)].width = min(longest + 2, 48)
    out = BytesIO()
    book.save(out)
    return out.getvalue()


def _put(cell: Cell, value: Value) -> None:
    """A value as it is: text that begins like a formula stays text."""
    if isinstance(value, str):
        cell.value = "".join(each for each in value if each >= " " or each in "\t\n")
        cell.data_type = "s"
        cell.quotePrefix = value.startswith(FORMULA)
    else:
        cell.value = value


def _time(at: datetime) -> str:
    return at.isoformat(timespec="seconds")
