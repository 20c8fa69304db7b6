"""The electronics drawer that all builds share."""

import sqlite3

from oaken_scale.core.material.drawer import Thing, ThingKind


def read_drawer(connection: sqlite3.Connection) -> tuple[Thing, ...]:
    """The drawer that all builds share, in its order."""
    rows = connection.execute(
        "SELECT id, name, kind, listing_g, leads_included, price, note, cells, capacity_mah,"
        " c_rating, kv, most_a FROM thing ORDER BY place, id"
    )
    return tuple(
        Thing(id, name, ThingKind(kind), listing, bool(leads), *rest)
        for id, name, kind, listing, leads, *rest in rows
    )


def write_thing(connection: sqlite3.Connection, thing: Thing) -> None:
    """Lay a thing into the drawer, or write its new description over the old one."""
    connection.execute(
        "INSERT INTO thing (id, place, name, kind, listing_g, leads_included, price, note, cells,"
        " capacity_mah, c_rating, kv, most_a)"
        " VALUES (?, (SELECT 1 + coalesce(max(place), -1) FROM thing), ?,?,?,?,?,?,?,?,?,?,?)"
        " ON CONFLICT DO UPDATE SET name = excluded.name, kind = excluded.kind,"
        " listing_g = excluded.listing_g, leads_included = excluded.leads_included,"
        " price = excluded.price, note = excluded.note, cells = excluded.cells,"
        " capacity_mah = excluded.capacity_mah, c_rating = excluded.c_rating, kv = excluded.kv,"
        " most_a = excluded.most_a",
        (
            thing.id,
            thing.name,
            thing.kind,
            thing.listing_g,
            int(thing.leads_included),
            thing.price,
            thing.note,
            thing.cells,
            thing.capacity_mah,
            thing.c_rating,
            thing.kv,
            thing.most_a,
        ),
    )


def take_out_of_drawer(connection: sqlite3.Connection, thing_id: str) -> None:
    """Take a thing that no build holds out of the drawer."""
    connection.execute("DELETE FROM thing WHERE id = ?", (thing_id,))


def that_held(connection: sqlite3.Connection, thing_id: str) -> list[str]:
    """The builds that hold a thing of the drawer or held it, in the order they were begun."""
    rows = connection.execute(
        "SELECT id FROM build WHERE id IN (SELECT build_id FROM item WHERE thing_id = ?)"
        " ORDER BY created_at, rowid",
        (thing_id,),
    )
    return [id for (id,) in rows]


def holding(connection: sqlite3.Connection, thing_id: str) -> list[tuple[str, str]]:
    """Where a thing of the drawer sits now: build and item."""
    rows = connection.execute(
        "SELECT build_id, id FROM item WHERE thing_id = ? AND retired = 0 ORDER BY build_id, id",
        (thing_id,),
    )
    return [(build_id, item_id) for build_id, item_id in rows]
