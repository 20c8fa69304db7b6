"""The order of the day in the database."""

import sqlite3
from datetime import datetime

from oaken_scale.core.model.day import Day, Done, OwnStep, StepKind
from oaken_scale.store.rows import stamp


def read_day(connection: sqlite3.Connection, build_id: str) -> Day:
    """A build's order of the day."""
    order = connection.execute(
        "SELECT step FROM day_order WHERE build_id = ? ORDER BY place", (build_id,)
    )
    own = connection.execute(
        "SELECT id, name, minutes FROM own_step WHERE build_id = ? ORDER BY place", (build_id,)
    )
    done = connection.execute(
        "SELECT step, kind, at, minutes, usual_min FROM day_done WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return Day(
        tuple(step for (step,) in order),
        tuple(
            Done(step, StepKind(kind), datetime.fromisoformat(at), minutes, usual)
            for step, kind, at, minutes, usual in done
        ),
        tuple(OwnStep(*row) for row in own),
    )


def read_done(connection: sqlite3.Connection, besides: str) -> tuple[Done, ...]:
    """The steps of all builds but one that were timed."""
    rows = connection.execute(
        "SELECT step, kind, at, minutes, usual_min FROM day_done WHERE minutes IS NOT NULL"
        " AND build_id <> ? ORDER BY build_id, place",
        (besides,),
    )
    return tuple(
        Done(step, StepKind(kind), datetime.fromisoformat(at), minutes, usual)
        for step, kind, at, minutes, usual in rows
    )


def write_day(connection: sqlite3.Connection, build_id: str, day: Day) -> None:
    """Write a build's order of the day anew."""
    for table in ("day_order", "day_done", "own_step"):
        connection.execute(f"DELETE FROM {table} WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO day_order (build_id, place, step) VALUES (?,?,?)",
        [(build_id, place, step) for place, step in enumerate(day.order)],
    )
    connection.executemany(
        "INSERT INTO day_done (build_id, place, step, kind, at, minutes, usual_min)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, k, each.step, each.kind, stamp(each.at), each.minutes, each.usual_min)
            for k, each in enumerate(day.done)
        ],
    )
    connection.executemany(
        "INSERT INTO own_step (build_id, place, id, name, minutes) VALUES (?,?,?,?,?)",
        [(build_id, k, each.id, each.name, each.minutes) for k, each in enumerate(day.own)],
    )
