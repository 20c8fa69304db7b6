"""What the workshop wants to buy, in the database."""

import sqlite3
from typing import Final

from oaken_scale.core.material.ordering import Freight, Offer, Wanted
from oaken_scale.store.columns import Columns

WANTED: Final = Columns(Wanted, apart=("offers",))
OFFER: Final = Columns(Offer)
FREIGHT: Final = Columns(Freight)


def read_wanted(connection: sqlite3.Connection) -> tuple[Wanted, ...]:
    """What is wanted, in the order in which it was written down."""
    offers = OFFER.under(
        connection.execute(f"SELECT wanted_id, {OFFER} FROM offer ORDER BY wanted_id, place")
    )
    rows = connection.execute(f"SELECT id, {WANTED} FROM wanted ORDER BY place, id")
    return tuple(WANTED.value(row, offers=offers.get(id, ())) for id, *row in rows)


def write_wanted(connection: sqlite3.Connection, wanted: Wanted) -> None:
    """Write down something wanted, or write it anew."""
    connection.execute(
        f"INSERT INTO wanted (place, {WANTED})"
        f" VALUES ((SELECT 1 + coalesce(max(place), -1) FROM wanted), {WANTED.marks})"
        f" ON CONFLICT DO UPDATE SET {WANTED.renewed}",
        WANTED.row(wanted),
    )
    connection.execute("DELETE FROM offer WHERE wanted_id = ?", (wanted.id,))
    connection.executemany(
        f"INSERT INTO offer (wanted_id, place, {OFFER}) VALUES (?,?,{OFFER.marks})",
        OFFER.placed(wanted.id, wanted.offers),
    )


def strike_wanted(connection: sqlite3.Connection, id: str) -> bool:
    """Take something off the list; whether it was there."""
    return connection.execute("DELETE FROM wanted WHERE id = ?", (id,)).rowcount > 0


def read_freights(connection: sqlite3.Connection) -> tuple[Freight, ...]:
    """What orders cost to be brought, by shop."""
    return FREIGHT.values(connection.execute(f"SELECT {FREIGHT} FROM freight ORDER BY shop"))


def write_freight(connection: sqlite3.Connection, freight: Freight) -> None:
    """Write down what an order from a shop costs to be brought."""
    connection.execute(
        f"INSERT INTO freight ({FREIGHT}) VALUES ({FREIGHT.marks})"
        f" ON CONFLICT DO UPDATE SET {FREIGHT.renewed}",
        FREIGHT.row(freight),
    )
