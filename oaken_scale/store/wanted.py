"""What the workshop wants to buy, in the database."""

import sqlite3
from collections import defaultdict

from oaken_scale.core.material.ordering import Freight, Offer, Wanted


def read_wanted(connection: sqlite3.Connection) -> tuple[Wanted, ...]:
    """What is wanted, in the order in which it was written down."""
    offers: dict[str, list[Offer]] = defaultdict(list)
    for wanted_id, *row in connection.execute(
        "SELECT wanted_id, shop, price, lead_days FROM offer ORDER BY wanted_id, place"
    ):
        offers[wanted_id].append(Offer(*row))
    rows = connection.execute("SELECT id, name, count, is_had FROM wanted ORDER BY place, id")
    return tuple(
        Wanted(id, name, count, tuple(offers[id]), bool(had)) for id, name, count, had in rows
    )


def write_wanted(connection: sqlite3.Connection, wanted: Wanted) -> None:
    """Write down something wanted, or write it anew."""
    connection.execute(
        "INSERT INTO wanted (id, place, name, count, is_had)"
        " VALUES (?, (SELECT 1 + coalesce(max(place), -1) FROM wanted), ?,?,?)"
        " ON CONFLICT DO UPDATE SET name = excluded.name, count = excluded.count,"
        " is_had = excluded.is_had",
        (wanted.id, wanted.name, wanted.count, int(wanted.is_had)),
    )
    connection.execute("DELETE FROM offer WHERE wanted_id = ?", (wanted.id,))
    connection.executemany(
        "INSERT INTO offer (wanted_id, place, shop, price, lead_days) VALUES (?,?,?,?,?)",
        [
            (wanted.id, place, each.shop, each.price, each.lead_days)
            for place, each in enumerate(wanted.offers)
        ],
    )


def strike_wanted(connection: sqlite3.Connection, id: str) -> bool:
    """Take something off the list; whether it was there."""
    return connection.execute("DELETE FROM wanted WHERE id = ?", (id,)).rowcount > 0


def read_freights(connection: sqlite3.Connection) -> tuple[Freight, ...]:
    """What orders cost to be brought, by shop."""
    rows = connection.execute("SELECT shop, cost, free_from FROM freight ORDER BY shop")
    return tuple(Freight(*row) for row in rows)


def write_freight(connection: sqlite3.Connection, freight: Freight) -> None:
    """Write down what an order from a shop costs to be brought."""
    connection.execute(
        "INSERT INTO freight (shop, cost, free_from) VALUES (?,?,?)"
        " ON CONFLICT DO UPDATE SET cost = excluded.cost, free_from = excluded.free_from",
        (freight.shop, freight.cost, freight.free_from),
    )
