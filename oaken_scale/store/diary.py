"""What happened to a build, its balance checks, its ballast, and the earlier build beside it."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import replace
from datetime import datetime

from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, CheckKind, Stood
from oaken_scale.core.model.build import Habit, Pedigree
from oaken_scale.core.model.diary import Happening, HappeningKind
from oaken_scale.core.model.reference_build import Past, PastPart
from oaken_scale.store.rows import stamp


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
        "SELECT id, at, kind, words FROM happening WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(
        Happening(id, datetime.fromisoformat(at), HappeningKind(kind), words, tuple(items[id]))
        for id, at, kind, words in rows
    )


def write_happenings(
    connection: sqlite3.Connection, build_id: str, happenings: Sequence[Happening]
) -> None:
    """Write a build's diary anew."""
    connection.execute("DELETE FROM happening WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO happening (build_id, id, place, at, kind, words) VALUES (?,?,?,?,?,?)",
        [
            (build_id, each.id, place, stamp(each.at), each.kind, each.words)
            for place, each in enumerate(happenings)
        ],
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
    stood: dict[str, list[Stood]] = defaultdict(list)
    for check_id, *place in connection.execute(
        "SELECT check_id, item_id, x_mm, y_mm, z_mm FROM check_stood WHERE build_id = ?"
        " ORDER BY check_id, place",
        (build_id,),
    ):
        stood[check_id].append(Stood(*place))
    rows = connection.execute(
        "SELECT id, at, kind, loadout, x_mm, held_by, other_mm, reading_g, scale_id, z_mm,"
        " nose_down_deg, doubt, note, set_aside, part"
        " FROM balance_check WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        replace(
            BalanceCheck(id, datetime.fromisoformat(at), CheckKind(kind), *rest),
            stood=tuple(stood[id]),
            part=part,
        )
        for id, at, kind, *rest, part in rows
    )


def write_checks(
    connection: sqlite3.Connection, build_id: str, checks: Sequence[BalanceCheck]
) -> None:
    """Write a build's balance checks anew."""
    connection.execute("DELETE FROM balance_check WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO balance_check (build_id, place, id, at, kind, loadout, x_mm, held_by,"
        " other_mm, reading_g, scale_id, z_mm, nose_down_deg, doubt, note, set_aside,"
        " part) VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.kind,
                each.loadout,
                each.x_mm,
                each.by,
                each.other_mm,
                each.reading_g,
                each.scale,
                each.z_mm,
                each.nose_down_deg,
                each.doubt,
                each.note,
                each.set_aside,
                each.part,
            )
            for place, each in enumerate(checks)
        ],
    )
    write_stood(connection, build_id, checks)


def write_stood(
    connection: sqlite3.Connection, build_id: str, checks: Sequence[BalanceCheck]
) -> None:
    """Write anew what was aboard at each check, and where it sat."""
    connection.execute("DELETE FROM check_stood WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO check_stood (build_id, check_id, place, item_id, x_mm, y_mm, z_mm)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, each.id, place, one.item, one.x_mm, one.y_mm, one.z_mm)
            for each in checks
            for place, one in enumerate(each.stood)
        ],
    )


def read_habits(connection: sqlite3.Connection, build_id: str) -> tuple[Habit, ...]:
    """How finished builds found guesses and listings to run."""
    rows = connection.execute(
        "SELECT pedigree, factor, doubt, squares, weighed FROM habit WHERE build_id = ?"
        " ORDER BY place",
        (build_id,),
    )
    return tuple(Habit(Pedigree(pedigree), *rest) for pedigree, *rest in rows)


def write_habits(connection: sqlite3.Connection, build_id: str, habits: Sequence[Habit]) -> None:
    """Write anew how finished builds found guesses and listings to run."""
    connection.execute("DELETE FROM habit WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO habit (build_id, place, pedigree, factor, doubt, squares, weighed)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, k, each.pedigree, each.factor, each.doubt, each.squares, each.weighed)
            for k, each in enumerate(habits)
        ],
    )


def read_ballast(connection: sqlite3.Connection, build_id: str) -> Ballast:
    """Where ballast may go on a build, and the pieces at hand."""
    spots = connection.execute(
        "SELECT id, name, x_mm, y_mm, z_mm, most_g, pair FROM ballast_spot"
        " WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    pieces = connection.execute(
        "SELECT grams FROM ballast_piece WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Ballast(
        tuple(
            BallastSpot(id, name, x, y, z, most, bool(pair))
            for id, name, x, y, z, most, pair in spots
        ),
        tuple(grams for (grams,) in pieces),
    )


def write_ballast(connection: sqlite3.Connection, build_id: str, ballast: Ballast) -> None:
    """Write a build's ballast anew."""
    connection.execute("DELETE FROM ballast_spot WHERE build_id = ?", (build_id,))
    connection.execute("DELETE FROM ballast_piece WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO ballast_spot (build_id, id, place, name, x_mm, y_mm, z_mm, most_g, pair)"
        " VALUES (?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                each.id,
                place,
                each.name,
                each.x_mm,
                each.y_mm,
                each.z_mm,
                each.most_g,
                int(each.pair),
            )
            for place, each in enumerate(ballast.spots)
        ],
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
        "SELECT assembly, grams FROM past_part WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Past(name, tuple(PastPart(*row) for row in rows))


def write_past(connection: sqlite3.Connection, build_id: str, past: Past | None) -> None:
    """Write the earlier build that a build is measured by."""
    connection.execute("DELETE FROM past_part WHERE build_id = ?", (build_id,))
    connection.execute(
        "UPDATE build SET past_name = ? WHERE id = ?", (past.name if past else None, build_id)
    )
    connection.executemany(
        "INSERT INTO past_part (build_id, place, assembly, grams) VALUES (?,?,?,?)",
        [
            (build_id, place, each.assembly, each.grams)
            for place, each in enumerate(past.parts if past else ())
        ],
    )
