"""The rack that all builds share, and the lots that each took from it."""

import sqlite3
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.lot import Curing, Known, Lot
from oaken_scale.store.columns import Columns
from oaken_scale.store.rows import drop_missing

CURING: Final = Columns(Curing)
LOT: Final = Columns(
    Lot,
    named={"rack": "rack_id"},
    within={
        "curing": CURING,
        "elsewhere": Columns(
            Known, prefix="elsewhere_", named={"value": "elsewhere"}, absent={"source": ""}
        ),
    },
)
RACK_LOT: Final = Columns(Lot, within={"curing": CURING}, apart=("rack", "elsewhere"))


def read_lots(connection: sqlite3.Connection, build_id: str) -> tuple[Lot, ...]:
    """A build's lots, in their order."""
    return LOT.values(
        connection.execute(f"SELECT {LOT} FROM lot WHERE build_id = ? ORDER BY place", (build_id,))
    )


def write_lots(connection: sqlite3.Connection, build_id: str, lots: Sequence[Lot]) -> None:
    """Write a build's lots anew."""
    drop_missing(
        connection,
        "DELETE FROM lot WHERE build_id = ? AND id = ?",
        "SELECT id FROM lot WHERE build_id = ?",
        build_id,
        (lot.id for lot in lots),
    )
    connection.executemany(
        f"INSERT INTO lot (build_id, place, {LOT}) VALUES (?,?,{LOT.marks})"
        f" ON CONFLICT DO UPDATE SET place = excluded.place, {LOT.renewed}",
        LOT.placed(build_id, lots),
    )


def read_rack(connection: sqlite3.Connection) -> tuple[Lot, ...]:
    """The rack that all builds share, in its order."""
    rows = connection.execute(f"SELECT id, {RACK_LOT} FROM rack_lot ORDER BY place, id")
    return tuple(RACK_LOT.value(row, rack=id) for id, *row in rows)


def write_rack_lot(connection: sqlite3.Connection, lot: Lot) -> None:
    """Hang a lot on the rack, or write its new description over the old one."""
    connection.execute(
        f"INSERT INTO rack_lot (place, {RACK_LOT})"
        f" VALUES ((SELECT 1 + coalesce(max(place), -1) FROM rack_lot), {RACK_LOT.marks})"
        f" ON CONFLICT DO UPDATE SET {RACK_LOT.renewed}",
        RACK_LOT.row(lot),
    )


def take_off_rack(connection: sqlite3.Connection, rack_id: str) -> None:
    """Take a lot that no build uses off the rack."""
    connection.execute("DELETE FROM rack_lot WHERE id = ?", (rack_id,))


def using_lot(connection: sqlite3.Connection, rack_id: str) -> list[str]:
    """The builds that use a lot of the rack."""
    rows = connection.execute("SELECT DISTINCT build_id FROM lot WHERE rack_id = ?", (rack_id,))
    return [id for (id,) in rows]


def sharing(connection: sqlite3.Connection, build_id: str) -> list[str]:
    """The other builds that use a lot of the rack or a thing of the drawer that this one uses."""
    rows = connection.execute(
        "SELECT other.build_id FROM lot JOIN lot AS other ON other.rack_id = lot.rack_id"
        " WHERE lot.build_id = :build AND other.build_id <> :build"
        " UNION SELECT other.build_id FROM part JOIN part AS other"
        " ON other.thing_id = part.thing_id"
        " WHERE part.build_id = :build AND other.build_id <> :build",
        {"build": build_id},
    )
    return [id for (id,) in rows]
