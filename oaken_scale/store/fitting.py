"""Bays, and what parts take up in them, in the database."""

import sqlite3
from collections.abc import Sequence

from oaken_scale.core.model.build import Item
from oaken_scale.core.model.fitting import Bay, Fit, FitRole


def read_bays(connection: sqlite3.Connection, build_id: str) -> tuple[Bay, ...]:
    """A build's bays, in their order."""
    rows = connection.execute(
        "SELECT id, name, x_mm, length_mm, width_mm, height_mm, y_mm, z_mm"
        " FROM bay WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(Bay(*row) for row in rows)


def write_bays(connection: sqlite3.Connection, build_id: str, bays: Sequence[Bay]) -> None:
    """Write a build's bays anew."""
    connection.execute("DELETE FROM bay WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO bay (build_id, place, id, name, x_mm, length_mm, width_mm, height_mm, y_mm,"
        " z_mm) VALUES (?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                each.name,
                each.x_mm,
                each.length_mm,
                each.width_mm,
                each.height_mm,
                each.y_mm,
                each.z_mm,
            )
            for place, each in enumerate(bays)
        ],
    )


def read_fits(connection: sqlite3.Connection, build_id: str) -> dict[str, Fit]:
    """What a build's parts take up, by the parts' ids."""
    rows = connection.execute(
        "SELECT item_id, length_mm, width_mm, height_mm, lead_mm, plugs_into, bay_id, role"
        " FROM item_fit WHERE build_id = ?",
        (build_id,),
    )
    return {
        item_id: Fit(long, wide, high, lead, into, bay, None if role is None else FitRole(role))
        for item_id, long, wide, high, lead, into, bay, role in rows
    }


def write_fits(connection: sqlite3.Connection, build_id: str, items: Sequence[Item]) -> None:
    """Write anew what a build's parts take up."""
    connection.execute("DELETE FROM item_fit WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO item_fit (build_id, item_id, length_mm, width_mm, height_mm, lead_mm,"
        " plugs_into, bay_id, role) VALUES (?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                item.id,
                fit.length_mm,
                fit.width_mm,
                fit.height_mm,
                fit.lead_mm,
                fit.plugs_into,
                fit.bay,
                fit.role,
            )
            for item in items
            if (fit := item.fit) is not None
        ],
    )
