"""What a build is weighed with, in the database: its scales and containers."""

import sqlite3
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.weighing import Container, Scale
from oaken_scale.store.columns import Columns
from oaken_scale.store.rows import drop_missing

SCALE: Final = Columns(Scale)
CONTAINER: Final = Columns(Container)


def read_scales(connection: sqlite3.Connection, build_id: str) -> tuple[Scale, ...]:
    """A build's scales, in their order."""
    return SCALE.values(
        connection.execute(
            f"SELECT {SCALE} FROM scale WHERE build_id = ? ORDER BY place", (build_id,)
        )
    )


def write_scales(connection: sqlite3.Connection, build_id: str, scales: Sequence[Scale]) -> None:
    """Write a build's scales anew."""
    drop_missing(
        connection,
        "DELETE FROM scale WHERE build_id = ? AND id = ?",
        "SELECT id FROM scale WHERE build_id = ?",
        build_id,
        (scale.id for scale in scales),
    )
    connection.executemany(
        f"INSERT INTO scale (build_id, place, {SCALE}) VALUES (?,?,{SCALE.marks})"
        f" ON CONFLICT DO UPDATE SET place = excluded.place, {SCALE.renewed}",
        SCALE.placed(build_id, scales),
    )


def read_containers(connection: sqlite3.Connection, build_id: str) -> tuple[Container, ...]:
    """A build's containers, in their order."""
    return CONTAINER.values(
        connection.execute(
            f"SELECT {CONTAINER} FROM container WHERE build_id = ? ORDER BY place", (build_id,)
        )
    )


def write_containers(
    connection: sqlite3.Connection, build_id: str, containers: Sequence[Container]
) -> None:
    """Write a build's containers anew."""
    connection.execute("DELETE FROM container WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO container (build_id, place, {CONTAINER}) VALUES (?,?,{CONTAINER.marks})",
        CONTAINER.placed(build_id, containers),
    )
