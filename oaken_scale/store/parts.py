"""A build's parts in the database: what they use of lots, what is cut for them, what they follow on
the drawing and what they take up."""

import sqlite3
from collections.abc import Sequence
from typing import Final, TypeVar

from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.fitting import Fit
from oaken_scale.core.model.lot import Known, Use
from oaken_scale.core.model.part import Part, Slide, Station
from oaken_scale.core.model.pattern import Pattern
from oaken_scale.store.columns import Columns
from oaken_scale.store.rows import drop_missing

T = TypeVar("T")

PART: Final = Columns(
    Part,
    named={"thing": "thing_id", "group": "budget_group", "host": "host_id"},
    within={
        "station": Columns(Station),
        "elsewhere": Columns(
            Known,
            prefix="elsewhere_",
            named={"value": "elsewhere_g", "doubt": "elsewhere_doubt_g"},
            absent={"source": ""},
        ),
        "slide": Columns(Slide, prefix="slide_"),
    },
    apart=("uses", "pattern", "drawn", "fit"),
)
USE: Final = Columns(Use, named={"lot": "lot_id"})
PATTERN: Final = Columns(Pattern)
DRAWN: Final = Columns(Drawn, named={"of": "drawn_id"})
FIT: Final = Columns(Fit, named={"bay": "bay_id"})


def read_parts(connection: sqlite3.Connection, build_id: str) -> tuple[Part, ...]:
    """A build's parts, in their order."""
    uses = USE.under(
        connection.execute(
            f"SELECT part_id, {USE} FROM part_use WHERE build_id = ? ORDER BY part_id, place",
            (build_id,),
        )
    )
    patterns = _of_parts(connection, build_id, "pattern", PATTERN)
    drawn = _of_parts(connection, build_id, "part_drawn", DRAWN)
    fits = _of_parts(connection, build_id, "part_fit", FIT)
    rows = connection.execute(
        f"SELECT id, {PART} FROM part WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(
        PART.value(
            row,
            uses=uses.get(id, ()),
            pattern=patterns.get(id),
            drawn=drawn.get(id),
            fit=fits.get(id),
        )
        for id, *row in rows
    )


def _of_parts(
    connection: sqlite3.Connection, build_id: str, table: str, columns: Columns[T]
) -> dict[str, T]:
    rows = connection.execute(
        f"SELECT part_id, {columns} FROM {table} WHERE build_id = ?", (build_id,)
    )
    return {part_id: columns.value(row) for part_id, *row in rows}


def write_parts(connection: sqlite3.Connection, build_id: str, parts: Sequence[Part]) -> None:
    """Write a build's parts anew."""
    connection.execute("DELETE FROM part_use WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM loadout_option WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM joint_part WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM diary_entry_part WHERE build_id = ?", (build_id,))
    drop_missing(
        connection,
        "DELETE FROM part WHERE build_id = ? AND id = ?",
        "SELECT id FROM part WHERE build_id = ?",
        build_id,
        (part.id for part in parts),
    )
    connection.executemany(
        f"INSERT INTO part (build_id, place, {PART}) VALUES (?,?,{PART.marks})"
        f" ON CONFLICT DO UPDATE SET place = excluded.place, {PART.renewed}",
        PART.placed(build_id, parts),
    )
    connection.executemany(
        f"INSERT INTO part_use (build_id, part_id, place, {USE}) VALUES (?,?,?,{USE.marks})",
        USE.placed_under(build_id, ((part.id, part.uses) for part in parts)),
    )
    _write_of_parts(connection, build_id, "pattern", PATTERN, [(i.id, i.pattern) for i in parts])
    _write_of_parts(connection, build_id, "part_drawn", DRAWN, [(i.id, i.drawn) for i in parts])
    _write_of_parts(connection, build_id, "part_fit", FIT, [(i.id, i.fit) for i in parts])


def _write_of_parts(
    connection: sqlite3.Connection,
    build_id: str,
    table: str,
    columns: Columns[T],
    values: Sequence[tuple[str, T | None]],
) -> None:
    connection.execute(f"DELETE FROM {table} WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO {table} (build_id, part_id, {columns}) VALUES (?,?,{columns.marks})",
        [(build_id, id, *columns.row(value)) for id, value in values if value is not None],
    )
