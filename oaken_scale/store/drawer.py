"""The electronics drawer that all builds share."""

import sqlite3
from typing import Final

from oaken_scale.core.material.drawer import Thing
from oaken_scale.store.columns import Columns

THING: Final = Columns(Thing)


def read_drawer(connection: sqlite3.Connection) -> tuple[Thing, ...]:
    """The drawer that all builds share, in its order."""
    return THING.values(connection.execute(f"SELECT {THING} FROM thing ORDER BY place, id"))


def write_thing(connection: sqlite3.Connection, thing: Thing) -> None:
    """Lay a thing into the drawer, or write its new description over the old one."""
    connection.execute(
        f"INSERT INTO thing (place, {THING})"
        f" VALUES ((SELECT 1 + coalesce(max(place), -1) FROM thing), {THING.marks})"
        f" ON CONFLICT DO UPDATE SET {THING.renewed}",
        THING.row(thing),
    )


def take_out_of_drawer(connection: sqlite3.Connection, thing_id: str) -> None:
    """Take a thing that no build holds out of the drawer."""
    connection.execute("DELETE FROM thing WHERE id = ?", (thing_id,))


def that_held(connection: sqlite3.Connection, thing_id: str) -> list[str]:
    """The builds that hold a thing of the drawer or held it, in the order they were begun."""
    rows = connection.execute(
        "SELECT id FROM build WHERE id IN (SELECT build_id FROM part WHERE thing_id = ?)"
        " ORDER BY created_at, rowid",
        (thing_id,),
    )
    return [id for (id,) in rows]


def holding(connection: sqlite3.Connection, thing_id: str) -> list[tuple[str, str]]:
    """Where a thing of the drawer sits now: build and part."""
    rows = connection.execute(
        "SELECT build_id, id FROM part WHERE thing_id = ? AND retired = 0 ORDER BY build_id, id",
        (thing_id,),
    )
    return [(build_id, part_id) for build_id, part_id in rows]
