"""The rack that all builds share, and the lots that each took from it."""

import json
import sqlite3
from collections.abc import Sequence
from dataclasses import astuple, replace
from typing import Any, Final

from oaken_scale.core.model.lot import Curing, Faces, Lot, LotKind, LotUnit, Quality
from oaken_scale.store.rows import drop_missing, known_from, known_row

_LOT_COLUMNS: Final = (
    "name, unit, constant, doubt, source, kind, faces, thickness_mm, length_mm, width_mm,"
    " price, stock, waste, adhesive, holds_g, close_after_s, close_by_s, handle_after_s,"
    " strong_after_s, qualities, shop, lead_days"
)
_RENEWED: Final = ", ".join(
    f"{column} = excluded.{column}" for column in ("place", *_LOT_COLUMNS.split(", "))
)


def _lot_from(id: str, row: Sequence[Any]) -> Lot:
    """A lot from its columns, in the order of the tables."""
    name, unit, constant, doubt, source, kind, faces, *rest = row
    sizes, (close, by, handle, strong, qualities, shop, days) = rest[:-7], rest[-7:]
    wears = None if faces is None else Faces(faces)
    lot = Lot(id, name, LotUnit(unit), constant, doubt, source, LotKind(kind), wears, *sizes)
    return replace(
        lot,
        curing=None if close is None else Curing(close, by, handle, strong),
        qualities=tuple(Quality(each) for each in json.loads(qualities)),
        shop=shop,
        lead_days=days,
    )


def _lot_row(lot: Lot) -> tuple[Any, ...]:
    """A lot's columns, in the order of the tables."""
    curing = (None,) * 4 if lot.curing is None else astuple(lot.curing)
    return (
        lot.name,
        lot.unit,
        lot.constant,
        lot.doubt,
        lot.source,
        lot.kind,
        lot.faces,
        lot.thickness_mm,
        lot.length_mm,
        lot.width_mm,
        lot.price,
        lot.stock,
        lot.waste,
        lot.adhesive,
        lot.holds_g,
        *curing,
        json.dumps(lot.qualities),
        lot.shop,
        lot.lead_days,
    )


_MARKS: Final = ",".join("?" * len(_LOT_COLUMNS.split(",")))


def read_lots(connection: sqlite3.Connection, build_id: str) -> tuple[Lot, ...]:
    """A build's lots, in their order."""
    rows = connection.execute(
        f"SELECT id, rack_id, elsewhere, elsewhere_doubt, elsewhere_source, {_LOT_COLUMNS}"
        " FROM lot WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        replace(_lot_from(id, rest), rack=rack, elsewhere=known_from(value, doubt, source))
        for id, rack, value, doubt, source, *rest in rows
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
        f"INSERT INTO lot (build_id, id, place, {_LOT_COLUMNS}, rack_id,"
        " elsewhere, elsewhere_doubt, elsewhere_source)"
        f" VALUES (?,?,?,{_MARKS},?,?,?,?)"
        f" ON CONFLICT DO UPDATE SET {_RENEWED}, rack_id = excluded.rack_id,"
        " elsewhere = excluded.elsewhere, elsewhere_doubt = excluded.elsewhere_doubt,"
        " elsewhere_source = excluded.elsewhere_source",
        [
            (build_id, lot.id, place, *_lot_row(lot), lot.rack, *known_row(lot.elsewhere))
            for place, lot in enumerate(lots)
        ],
    )


def read_rack(connection: sqlite3.Connection) -> tuple[Lot, ...]:
    """The rack that all builds share, in its order."""
    rows = connection.execute(f"SELECT id, {_LOT_COLUMNS} FROM rack_lot ORDER BY place, id")
    return tuple(replace(_lot_from(id, rest), rack=id) for id, *rest in rows)


def write_rack_lot(connection: sqlite3.Connection, lot: Lot) -> None:
    """Hang a lot on the rack, or write its new description over the old one."""
    connection.execute(
        f"INSERT INTO rack_lot (id, place, {_LOT_COLUMNS}) VALUES"
        f" (?, (SELECT 1 + coalesce(max(place), -1) FROM rack_lot), {_MARKS})"
        f" ON CONFLICT DO UPDATE SET {_RENEWED.replace('place = excluded.place, ', '')}",
        (lot.id, *_lot_row(lot)),
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
        " UNION SELECT other.build_id FROM item JOIN item AS other"
        " ON other.thing_id = item.thing_id"
        " WHERE item.build_id = :build AND other.build_id <> :build",
        {"build": build_id},
    )
    return [id for (id,) in rows]
