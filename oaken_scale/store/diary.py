"""What happened to a build, its balance checks, its ballast, and the earlier build beside it."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, Stood
from oaken_scale.core.model.build import Habit
from oaken_scale.core.model.diary import Happening
from oaken_scale.core.model.reference_build import Past, PastPart
from oaken_scale.store.columns import Columns

HAPPENING: Final = Columns(Happening, apart=("items",))
CHECK: Final = Columns(BalanceCheck, named={"by": "held_by", "scale": "scale_id"}, apart=("stood",))
STOOD: Final = Columns(Stood, named={"item": "item_id"})
HABIT: Final = Columns(Habit)
SPOT: Final = Columns(BallastSpot)
PAST_PART: Final = Columns(PastPart)


def read_happenings(connection: sqlite3.Connection, build_id: str) -> tuple[Happening, ...]:
    """What happened to a build, in its order."""
    items: dict[str, list[str]] = defaultdict(list)
    for happening_id, item_id in connection.execute(
        "SELECT happening_id, item_id FROM happening_item WHERE build_id = ?"
        " ORDER BY happening_id, place",
        (build_id,),
    ):
        items[happening_id].append(item_id)
    rows = connection.execute(
        f"SELECT id, {HAPPENING} FROM happening WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(HAPPENING.value(row, items=tuple(items[id])) for id, *row in rows)


def write_happenings(
    connection: sqlite3.Connection, build_id: str, happenings: Sequence[Happening]
) -> None:
    """Write a build's diary anew."""
    connection.execute("DELETE FROM happening WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO happening (build_id, place, {HAPPENING}) VALUES (?,?,{HAPPENING.marks})",
        HAPPENING.placed(build_id, happenings),
    )
    connection.executemany(
        "INSERT INTO happening_item (build_id, happening_id, place, item_id) VALUES (?,?,?,?)",
        [
            (build_id, each.id, place, item_id)
            for each in happenings
            for place, item_id in enumerate(each.items)
        ],
    )


def read_checks(connection: sqlite3.Connection, build_id: str) -> tuple[BalanceCheck, ...]:
    """A build's balance checks, as they were made, each with the plane as it stood."""
    stood = STOOD.under(
        connection.execute(
            f"SELECT check_id, {STOOD} FROM check_stood WHERE build_id = ?"
            " ORDER BY check_id, place",
            (build_id,),
        )
    )
    rows = connection.execute(
        f"SELECT id, {CHECK} FROM balance_check WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(CHECK.value(row, stood=stood.get(id, ())) for id, *row in rows)


def write_checks(
    connection: sqlite3.Connection, build_id: str, checks: Sequence[BalanceCheck]
) -> None:
    """Write a build's balance checks anew, each with what was aboard and where it sat."""
    connection.execute("DELETE FROM balance_check WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO balance_check (build_id, place, {CHECK}) VALUES (?,?,{CHECK.marks})",
        CHECK.placed(build_id, checks),
    )
    connection.execute("DELETE FROM check_stood WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO check_stood (build_id, check_id, place, {STOOD})"
        f" VALUES (?,?,?,{STOOD.marks})",
        STOOD.placed_under(build_id, ((each.id, each.stood) for each in checks)),
    )


def read_habits(connection: sqlite3.Connection, build_id: str) -> tuple[Habit, ...]:
    """How finished builds found guesses and listings to run."""
    return HABIT.values(
        connection.execute(
            f"SELECT {HABIT} FROM habit WHERE build_id = ? ORDER BY place", (build_id,)
        )
    )


def write_habits(connection: sqlite3.Connection, build_id: str, habits: Sequence[Habit]) -> None:
    """Write anew how finished builds found guesses and listings to run."""
    connection.execute("DELETE FROM habit WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO habit (build_id, place, {HABIT}) VALUES (?,?,{HABIT.marks})",
        HABIT.placed(build_id, habits),
    )


def read_ballast(connection: sqlite3.Connection, build_id: str) -> Ballast:
    """Where ballast may go on a build, and the pieces at hand."""
    spots = connection.execute(
        f"SELECT {SPOT} FROM ballast_spot WHERE build_id = ? ORDER BY place", (build_id,)
    )
    pieces = connection.execute(
        "SELECT grams FROM ballast_piece WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Ballast(SPOT.values(spots), tuple(grams for (grams,) in pieces))


def write_ballast(connection: sqlite3.Connection, build_id: str, ballast: Ballast) -> None:
    """Write a build's ballast anew."""
    connection.execute("DELETE FROM ballast_spot WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM ballast_piece WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO ballast_spot (build_id, place, {SPOT}) VALUES (?,?,{SPOT.marks})",
        SPOT.placed(build_id, ballast.spots),
    )
    connection.executemany(
        "INSERT INTO ballast_piece (build_id, place, grams) VALUES (?,?,?)",
        [(build_id, place, grams) for place, grams in enumerate(ballast.pieces)],
    )


def read_past(connection: sqlite3.Connection, build_id: str, name: str | None) -> Past | None:
    """The earlier build that a build is measured by; None where there is none."""
    if name is None:
        return None
    rows = connection.execute(
        f"SELECT {PAST_PART} FROM past_part WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Past(name, PAST_PART.values(rows))


def write_past(connection: sqlite3.Connection, build_id: str, past: Past | None) -> None:
    """Write the earlier build that a build is measured by."""
    connection.execute("DELETE FROM past_part WHERE build_id = ?", (build_id,))
    connection.execute(
        "UPDATE build SET past_name = ? WHERE id = ?", (past.name if past else None, build_id)
    )
    connection.executemany(
        f"INSERT INTO past_part (build_id, place, {PAST_PART}) VALUES (?,?,{PAST_PART.marks})",
        PAST_PART.placed(build_id, past.parts if past else ()),
    )
