"""What happened to a build, its balance checks, its ballast, and the earlier build beside it."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, Stood
from oaken_scale.core.model.diary import DiaryEntry
from oaken_scale.core.model.part import Habit
from oaken_scale.core.model.reference_build import ReferenceBuild, ReferencePart
from oaken_scale.store.columns import Columns

DIARY_ENTRY: Final = Columns(DiaryEntry, apart=("parts",))
CHECK: Final = Columns(BalanceCheck, named={"by": "held_by", "scale": "scale_id"}, apart=("stood",))
STOOD: Final = Columns(Stood, named={"part": "part_id"})
HABIT: Final = Columns(Habit)
SPOT: Final = Columns(BallastSpot)
REFERENCE_PART: Final = Columns(ReferencePart)


def read_diary(connection: sqlite3.Connection, build_id: str) -> tuple[DiaryEntry, ...]:
    """What happened to a build, in its order."""
    parts: dict[str, list[str]] = defaultdict(list)
    for entry_id, part_id in connection.execute(
        "SELECT entry_id, part_id FROM diary_entry_part WHERE build_id = ?"
        " ORDER BY entry_id, place",
        (build_id,),
    ):
        parts[entry_id].append(part_id)
    rows = connection.execute(
        f"SELECT id, {DIARY_ENTRY} FROM diary_entry WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(DIARY_ENTRY.value(row, parts=tuple(parts[id])) for id, *row in rows)


def write_diary(connection: sqlite3.Connection, build_id: str, diary: Sequence[DiaryEntry]) -> None:
    """Write a build's diary anew."""
    connection.execute("DELETE FROM diary_entry WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO diary_entry (build_id, place, {DIARY_ENTRY})"
        f" VALUES (?,?,{DIARY_ENTRY.marks})",
        DIARY_ENTRY.placed(build_id, diary),
    )
    connection.executemany(
        "INSERT INTO diary_entry_part (build_id, entry_id, place, part_id) VALUES (?,?,?,?)",
        [
            (build_id, each.id, place, part_id)
            for each in diary
            for place, part_id in enumerate(each.parts)
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


def read_reference_build(
    connection: sqlite3.Connection, build_id: str, name: str | None
) -> ReferenceBuild | None:
    """The earlier build that a build is measured by; None where there is none."""
    if name is None:
        return None
    rows = connection.execute(
        f"SELECT {REFERENCE_PART} FROM reference_part WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return ReferenceBuild(name, REFERENCE_PART.values(rows))


def write_reference_build(
    connection: sqlite3.Connection, build_id: str, reference: ReferenceBuild | None
) -> None:
    """Write the earlier build that a build is measured by."""
    connection.execute("DELETE FROM reference_part WHERE build_id = ?", (build_id,))
    connection.execute(
        "UPDATE build SET reference_name = ? WHERE id = ?",
        (reference.name if reference else None, build_id),
    )
    connection.executemany(
        f"INSERT INTO reference_part (build_id, place, {REFERENCE_PART})"
        f" VALUES (?,?,{REFERENCE_PART.marks})",
        REFERENCE_PART.placed(build_id, reference.parts if reference else ()),
    )
