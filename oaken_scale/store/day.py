"""The order of the day in the database."""

import sqlite3
from typing import Final

from oaken_scale.core.model.day import Day, Done, OwnStep
from oaken_scale.store.columns import Columns

DONE: Final = Columns(Done)
OWN_STEP: Final = Columns(OwnStep)


def read_day(connection: sqlite3.Connection, build_id: str) -> Day:
    """A build's order of the day."""
    order = connection.execute(
        "SELECT step FROM day_order WHERE build_id = ? ORDER BY place", (build_id,)
    )
    done = connection.execute(
        f"SELECT {DONE} FROM day_done WHERE build_id = ? ORDER BY place", (build_id,)
    )
    own = connection.execute(
        f"SELECT {OWN_STEP} FROM own_step WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Day(tuple(step for (step,) in order), DONE.values(done), OWN_STEP.values(own))


def read_done(connection: sqlite3.Connection, besides: str) -> tuple[Done, ...]:
    """The steps of all builds but one that were timed."""
    return DONE.values(
        connection.execute(
            f"SELECT {DONE} FROM day_done WHERE minutes IS NOT NULL AND build_id <> ?"
            " ORDER BY build_id, place",
            (besides,),
        )
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
        f"INSERT INTO day_done (build_id, place, {DONE}) VALUES (?,?,{DONE.marks})",
        DONE.placed(build_id, day.done),
    )
    connection.executemany(
        f"INSERT INTO own_step (build_id, place, {OWN_STEP}) VALUES (?,?,{OWN_STEP.marks})",
        OWN_STEP.placed(build_id, day.own),
    )
