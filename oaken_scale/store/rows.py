"""What the tables have in common."""

import sqlite3
from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Any

from oaken_scale.core.model.lot import Known


def drop_missing(
    connection: sqlite3.Connection, delete: str, select: str, build_id: str, kept: Iterable[str]
) -> None:
    """Delete the rows of a build's collection whose ids are not kept any more."""
    keep = set(kept)
    gone = [(build_id, id) for (id,) in connection.execute(select, (build_id,)) if id not in keep]
    connection.executemany(delete, gone)


def known_from(value: float | None, doubt: float, source: str) -> Known | None:
    """What other builds found, from its three columns."""
    return None if value is None else Known(value, doubt, source)


def known_row(known: Known | None) -> tuple[Any, ...]:
    """What other builds found, as its three columns."""
    return (None, None, "") if known is None else (known.value, known.doubt, known.source)


def stamp(at: datetime) -> str:
    """A moment as the database keeps it: UTC, ISO 8601."""
    return at.astimezone(UTC).isoformat()


def stamp_or_none(at: datetime | None) -> str | None:
    """A moment as the database keeps it, where there is one."""
    return None if at is None else stamp(at)


def moment(text: str | None) -> datetime | None:
    """A moment that the database kept; None where there is none."""
    return None if text is None else datetime.fromisoformat(text)


def now() -> datetime:
    """The time that is written down."""
    return datetime.now(UTC)
