"""What a plane is trimmed and flown by, in the database."""

import sqlite3
from collections.abc import Callable, Sequence
from functools import partial
from typing import Any, Final

from oaken_scale.core.model.balancing import Stood
from oaken_scale.core.model.field import (
    Control,
    FieldLog,
    Note,
    OwnLine,
    Setting,
    Stance,
    Throw,
    Tick,
)
from oaken_scale.store.columns import Columns

CONTROL: Final = Columns(Control, named={"surface": "surface_id"})
THROW: Final = Columns(Throw, apart=("settings",))
SETTING: Final = Columns(Setting)
TICK: Final = Columns(Tick)
OWN_LINE: Final = Columns(OwnLine)
NOTE: Final = Columns(Note)
STOOD: Final = Columns(Stood, named={"part": "part_id"})


def read_field(connection: sqlite3.Connection, build_id: str) -> FieldLog:
    """A build's controls, throws, ticks, lines of its own and notes."""

    def rows(columns: Columns[Any], table: str) -> sqlite3.Cursor:
        return connection.execute(
            f"SELECT {columns} FROM {table} WHERE build_id = ? ORDER BY place", (build_id,)
        )

    return FieldLog(
        controls=CONTROL.values(rows(CONTROL, "control")),
        throws=_read_throws(connection, build_id),
        ticks=TICK.values(rows(TICK, "tick")),
        stances=_read_stances(connection, build_id),
        own_lines=OWN_LINE.values(rows(OWN_LINE, "own_line")),
        notes=NOTE.values(rows(NOTE, "note")),
    )


def _read_throws(connection: sqlite3.Connection, build_id: str) -> tuple[Throw, ...]:
    settings = SETTING.under(
        connection.execute(
            f"SELECT throw_id, {SETTING} FROM throw_setting WHERE build_id = ?"
            " ORDER BY throw_id, place",
            (build_id,),
        )
    )
    rows = connection.execute(
        f"SELECT id, {THROW} FROM throw WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(THROW.value(row, settings=settings.get(id, ())) for id, *row in rows)


def _read_stances(connection: sqlite3.Connection, build_id: str) -> tuple[Stance, ...]:
    stood: dict[str, list[Stood]] = {}
    for name, *part in connection.execute(
        f"SELECT stance, {STOOD} FROM stance_part WHERE build_id = ? ORDER BY number, place",
        (build_id,),
    ):
        parts = stood.setdefault(name, [])
        if (one := STOOD.value_or_none(part)) is not None:
            parts.append(one)
    return tuple(Stance(name, tuple(parts)) for name, parts in stood.items())


def write_field(
    connection: sqlite3.Connection, build_id: str, before: FieldLog, after: FieldLog
) -> None:
    """Write what differs between two values of a build's field. What only grew is only added to:
    a page of throws is not written anew for each."""
    for table, name, write in _WRITERS:
        was, now = getattr(before, name), getattr(after, name)
        if was == now:
            continue
        grew = len(was) < len(now) and now[: len(was)] == was
        if not grew:
            connection.execute(f"DELETE FROM {table} WHERE build_id = ?", (build_id,))
        start = len(was) if grew else 0
        write(connection, build_id, start, now[start:])


def _write(
    table: str,
    columns: Columns[Any],
    connection: sqlite3.Connection,
    build_id: str,
    start: int,
    values: Sequence[Any],
) -> None:
    connection.executemany(
        f"INSERT INTO {table} (build_id, place, {columns}) VALUES (?,?,{columns.marks})",
        columns.placed(build_id, values, start),
    )


def _write_throws(
    connection: sqlite3.Connection, build_id: str, start: int, throws: tuple[Throw, ...]
) -> None:
    _write("throw", THROW, connection, build_id, start, throws)
    connection.executemany(
        f"INSERT INTO throw_setting (build_id, throw_id, place, {SETTING})"
        f" VALUES (?,?,?,{SETTING.marks})",
        SETTING.placed_under(build_id, ((each.id, each.settings) for each in throws)),
    )


def _write_stances(
    connection: sqlite3.Connection, build_id: str, start: int, stances: tuple[Stance, ...]
) -> None:
    connection.executemany(
        f"INSERT INTO stance_part (build_id, stance, number, place, {STOOD})"
        f" VALUES (?,?,?,?,{STOOD.marks})",
        [
            (build_id, each.id, number, place, *STOOD.row(one))
            for number, each in enumerate(stances, start)
            for place, one in enumerate(each.stood or (None,))
        ],
    )


_WRITERS: Final[tuple[tuple[str, str, Callable[..., None]], ...]] = (
    ("control", "controls", partial(_write, "control", CONTROL)),
    ("throw", "throws", _write_throws),
    ("tick", "ticks", partial(_write, "tick", TICK)),
    ("stance_part", "stances", _write_stances),
    ("own_line", "own_lines", partial(_write, "own_line", OWN_LINE)),
    ("note", "notes", partial(_write, "note", NOTE)),
)
"""What writes each collection, and its table."""
