"""What the tables have in common."""

import sqlite3
from collections.abc import Iterable
from datetime import UTC, datetime


def drop_missing(
    connection: sqlite3.Connection, delete: str, select: str, build_id: str, kept: Iterable[str]
) -> None:
    """Delete the rows of a build's collection whose ids are not kept any more."""
    keep = set(kept)
    gone = [(build_id, id) for (id,) in connection.execute(select, (build_id,)) if id not in keep]
    connection.executemany(delete, gone)


def stamp(at: datetime) -> str:
    """A moment as the database keeps it: UTC, ISO 8601."""
    return at.astimezone(UTC).isoformat()


def now() -> datetime:
    """The time that is written down."""
    return datetime.now(UTC)
