"""A build's parts in the database: what they use of lots, what is cut for them, what they follow on
the drawing and what they take up."""

import sqlite3
from collections.abc import Sequence
from typing import Final, TypeVar

from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.build import Item, Slide, Station
from oaken_scale.core.model.fitting import Fit
from oaken_scale.core.model.lot import Known, Use
from oaken_scale.core.model.pattern import Pattern
from oaken_scale.store.columns import Columns
from oaken_scale.store.rows import drop_missing

T = TypeVar("T")

ITEM: Final = Columns(
    Item,
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


def read_items(connection: sqlite3.Connection, build_id: str) -> tuple[Item, ...]:
    """A build's items, in their order."""
    uses = USE.under(
        connection.execute(
            f"SELECT item_id, {USE} FROM item_use WHERE build_id = ? ORDER BY item_id, place",
            (build_id,),
        )
    )
    patterns = _of_items(connection, build_id, "pattern", PATTERN)
    drawn = _of_items(connection, build_id, "item_drawn", DRAWN)
    fits = _of_items(connection, build_id, "item_fit", FIT)
    rows = connection.execute(
        f"SELECT id, {ITEM} FROM item WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(
        ITEM.value(
            row,
            uses=uses.get(id, ()),
            pattern=patterns.get(id),
            drawn=drawn.get(id),
            fit=fits.get(id),
        )
        for id, *row in rows
    )


def _of_items(
    connection: sqlite3.Connection, build_id: str, table: str, columns: Columns[T]
) -> dict[str, T]:
    rows = connection.execute(
        f"SELECT item_id, {columns} FROM {table} WHERE build_id = ?", (build_id,)
    )
    return {item_id: columns.value(row) for item_id, *row in rows}


def write_items(connection: sqlite3.Connection, build_id: str, items: Sequence[Item]) -> None:
    """Write a build's items anew."""
    connection.execute("DELETE FROM item_use WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM loadout_option WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM joint_item WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM happening_item WHERE build_id = ?", (build_id,))
    drop_missing(
        connection,
        "DELETE FROM item WHERE build_id = ? AND id = ?",
        "SELECT id FROM item WHERE build_id = ?",
        build_id,
        (item.id for item in items),
    )
    connection.executemany(
        f"INSERT INTO item (build_id, place, {ITEM}) VALUES (?,?,{ITEM.marks})"
        f" ON CONFLICT DO UPDATE SET place = excluded.place, {ITEM.renewed}",
        ITEM.placed(build_id, items),
    )
    connection.executemany(
        f"INSERT INTO item_use (build_id, item_id, place, {USE}) VALUES (?,?,?,{USE.marks})",
        USE.placed_under(build_id, ((item.id, item.uses) for item in items)),
    )
    _write_of_items(connection, build_id, "pattern", PATTERN, [(i.id, i.pattern) for i in items])
    _write_of_items(connection, build_id, "item_drawn", DRAWN, [(i.id, i.drawn) for i in items])
    _write_of_items(connection, build_id, "item_fit", FIT, [(i.id, i.fit) for i in items])


def _write_of_items(
    connection: sqlite3.Connection,
    build_id: str,
    table: str,
    columns: Columns[T],
    values: Sequence[tuple[str, T | None]],
) -> None:
    connection.execute(f"DELETE FROM {table} WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO {table} (build_id, item_id, {columns}) VALUES (?,?,{columns.marks})",
        [(build_id, id, *columns.row(value)) for id, value in values if value is not None],
    )
