"""What a plane is trimmed and flown by, in the database."""

import sqlite3
from collections import defaultdict
from collections.abc import Callable
from dataclasses import replace
from datetime import date, datetime
from typing import Final

from oaken_scale.core.model.balancing import Stood
from oaken_scale.core.model.field import (
    Control,
    ControlKind,
    FieldLog,
    Note,
    NoteKind,
    OwnLine,
    Seen,
    Setting,
    Stance,
    Throw,
    Tick,
)
from oaken_scale.store.rows import stamp


def read_field(connection: sqlite3.Connection, build_id: str) -> FieldLog:
    """A build's controls, throws, ticks, lines of its own and notes."""
    controls = connection.execute(
        "SELECT id, name, kind, surface_id, from_share, to_share, chord_share, up_mm, down_mm,"
        " horn_mm, arm_mm, with_aileron, set_mm FROM control WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    ticks = connection.execute(
        "SELECT id, at, line, loadout, done, stance, about FROM tick"
        " WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    lines = connection.execute(
        "SELECT id, words FROM own_line WHERE build_id = ? ORDER BY place", (build_id,)
    )
    notes = connection.execute(
        "SELECT id, at, kind, words, due, done FROM note WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return FieldLog(
        controls=tuple(
            replace(
                Control(id, name, ControlKind(kind), *rest),
                with_aileron=bool(with_aileron),
                set_mm=set_mm,
            )
            for id, name, kind, *rest, with_aileron, set_mm in controls
        ),
        throws=_read_throws(connection, build_id),
        ticks=tuple(
            Tick(id, datetime.fromisoformat(at), line, loadout, bool(done), *rest)
            for id, at, line, loadout, done, *rest in ticks
        ),
        stances=_read_stances(connection, build_id),
        own_lines=tuple(OwnLine(*each) for each in lines),
        notes=tuple(
            Note(
                id,
                datetime.fromisoformat(at),
                NoteKind(kind),
                words,
                None if due is None else date.fromisoformat(due),
                bool(done),
            )
            for id, at, kind, words, due, done in notes
        ),
    )


def _read_throws(connection: sqlite3.Connection, build_id: str) -> tuple[Throw, ...]:
    settings: dict[str, list[Setting]] = defaultdict(list)
    for throw_id, control, mm in connection.execute(
        "SELECT throw_id, control, mm FROM throw_setting WHERE build_id = ?"
        " ORDER BY throw_id, place",
        (build_id,),
    ):
        settings[throw_id].append(Setting(control, mm))
    rows = connection.execute(
        "SELECT id, at, loadout, seen, distance_m, height_m, seconds, wind_m_s, note, set_aside,"
        " auw_g, cg_mm FROM throw WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Throw(
            id,
            datetime.fromisoformat(at),
            loadout,
            tuple(settings.get(id, ())),
            None if seen is None else Seen(seen),
            *rest,
        )
        for id, at, loadout, seen, *rest in rows
    )


def _read_stances(connection: sqlite3.Connection, build_id: str) -> tuple[Stance, ...]:
    stood: dict[str, list[Stood]] = {}
    for name, item, *where in connection.execute(
        "SELECT stance, item_id, x_mm, y_mm, z_mm FROM stance_part WHERE build_id = ?"
        " ORDER BY number, place",
        (build_id,),
    ):
        parts = stood.setdefault(name, [])
        if item is not None:
            parts.append(Stood(item, *where))
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


def _write_controls(
    connection: sqlite3.Connection, build_id: str, start: int, controls: tuple[Control, ...]
) -> None:
    connection.executemany(
        "INSERT INTO control (build_id, place, id, name, kind, surface_id, from_share, to_share,"
        " chord_share, up_mm, down_mm, horn_mm, arm_mm, with_aileron, set_mm)"
        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                each.name,
                each.kind,
                each.surface,
                each.from_share,
                each.to_share,
                each.chord_share,
                each.up_mm,
                each.down_mm,
                each.horn_mm,
                each.arm_mm,
                int(each.with_aileron),
                each.set_mm,
            )
            for place, each in enumerate(controls, start)
        ],
    )


def _write_throws(
    connection: sqlite3.Connection, build_id: str, start: int, throws: tuple[Throw, ...]
) -> None:
    connection.executemany(
        "INSERT INTO throw (build_id, place, id, at, loadout, seen, distance_m, height_m, seconds,"
        " wind_m_s, note, set_aside, auw_g, cg_mm) VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.loadout,
                each.seen,
                each.distance_m,
                each.height_m,
                each.seconds,
                each.wind_m_s,
                each.note,
                each.set_aside,
                each.auw_g,
                each.cg_mm,
            )
            for place, each in enumerate(throws, start)
        ],
    )
    connection.executemany(
        "INSERT INTO throw_setting (build_id, throw_id, place, control, mm) VALUES (?,?,?,?,?)",
        [
            (build_id, each.id, place, setting.control, setting.mm)
            for each in throws
            for place, setting in enumerate(each.settings)
        ],
    )


def _write_ticks(
    connection: sqlite3.Connection, build_id: str, start: int, ticks: tuple[Tick, ...]
) -> None:
    connection.executemany(
        "INSERT INTO tick (build_id, place, id, at, line, loadout, done, stance, about)"
        " VALUES (?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.line,
                each.loadout,
                int(each.done),
                each.stance,
                each.about,
            )
            for place, each in enumerate(ticks, start)
        ],
    )


def _write_stances(
    connection: sqlite3.Connection, build_id: str, start: int, stances: tuple[Stance, ...]
) -> None:
    connection.executemany(
        "INSERT INTO stance_part (build_id, stance, number, place, item_id, x_mm, y_mm, z_mm)"
        " VALUES (?,?,?,?,?,?,?,?)",
        [
            (build_id, each.id, number, place, *part)
            for number, each in enumerate(stances, start)
            for place, part in enumerate(
                [(s.item, s.x_mm, s.y_mm, s.z_mm) for s in each.stood] or [(None,) * 4]
            )
        ],
    )


def _write_own_lines(
    connection: sqlite3.Connection, build_id: str, start: int, lines: tuple[OwnLine, ...]
) -> None:
    connection.executemany(
        "INSERT INTO own_line (build_id, place, id, words) VALUES (?,?,?,?)",
        [(build_id, place, each.id, each.words) for place, each in enumerate(lines, start)],
    )


def _write_notes(
    connection: sqlite3.Connection, build_id: str, start: int, notes: tuple[Note, ...]
) -> None:
    connection.executemany(
        "INSERT INTO note (build_id, place, id, at, kind, words, due, done)"
        " VALUES (?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.kind,
                each.words,
                None if each.due is None else each.due.isoformat(),
                int(each.done),
            )
            for place, each in enumerate(notes, start)
        ],
    )


_WRITERS: Final[tuple[tuple[str, str, Callable[..., None]], ...]] = (
    ("control", "controls", _write_controls),
    ("throw", "throws", _write_throws),
    ("tick", "ticks", _write_ticks),
    ("stance_part", "stances", _write_stances),
    ("own_line", "own_lines", _write_own_lines),
    ("note", "notes", _write_notes),
)
"""What writes each collection, and its table."""
