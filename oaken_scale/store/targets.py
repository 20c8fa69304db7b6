"""What a build is meant to be, in the database: its loadouts, targets and weight budget."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.build import Loadout
from oaken_scale.core.model.target import Allotment, Budget, Target
from oaken_scale.store.columns import Columns

LOADOUT: Final = Columns(Loadout, apart=("carries",))
TARGET: Final = Columns(Target)
ALLOTMENT: Final = Columns(Allotment, named={"group": "budget_group"})


def read_loadouts(connection: sqlite3.Connection, build_id: str) -> tuple[Loadout, ...]:
    """A build's loadouts, in their order."""
    carries: dict[str, list[str]] = defaultdict(list)
    for loadout_id, part_id in connection.execute(
        "SELECT loadout_id, part_id FROM loadout_option WHERE build_id = ?"
        " ORDER BY loadout_id, place",
        (build_id,),
    ):
        carries[loadout_id].append(part_id)
    rows = connection.execute(
        f"SELECT id, {LOADOUT} FROM loadout WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(LOADOUT.value(row, carries=tuple(carries[id])) for id, *row in rows)


def write_loadouts(
    connection: sqlite3.Connection, build_id: str, loadouts: Sequence[Loadout]
) -> None:
    """Write a build's loadouts anew."""
    connection.execute("DELETE FROM loadout WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO loadout (build_id, place, {LOADOUT}) VALUES (?,?,{LOADOUT.marks})",
        LOADOUT.placed(build_id, loadouts),
    )
    connection.executemany(
        "INSERT INTO loadout_option (build_id, loadout_id, place, part_id) VALUES (?,?,?,?)",
        [
            (build_id, each.id, place, part_id)
            for each in loadouts
            for place, part_id in enumerate(each.carries)
        ],
    )


def read_targets(connection: sqlite3.Connection, build_id: str) -> tuple[Target, ...]:
    """A build's targets, in their order."""
    return TARGET.values(
        connection.execute(
            f"SELECT {TARGET} FROM target WHERE build_id = ? ORDER BY place", (build_id,)
        )
    )


def write_targets(connection: sqlite3.Connection, build_id: str, targets: Sequence[Target]) -> None:
    """Write a build's targets anew."""
    connection.execute("DELETE FROM target WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO target (build_id, place, {TARGET}) VALUES (?,?,{TARGET.marks})",
        TARGET.placed(build_id, targets),
    )


def read_budget(connection: sqlite3.Connection, build_id: str, source: str | None) -> Budget | None:
    """A build's weight budget; None where it has none."""
    if source is None:
        return None
    rows = connection.execute(
        f"SELECT {ALLOTMENT} FROM allotment WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return Budget(ALLOTMENT.values(rows), source)


def write_budget(connection: sqlite3.Connection, build_id: str, budget: Budget | None) -> None:
    """Write a build's weight budget anew."""
    connection.execute("DELETE FROM allotment WHERE build_id = ?", (build_id,))
    connection.execute(
        "UPDATE build SET budget_source = ? WHERE id = ?",
        (None if budget is None else budget.source, build_id),
    )
    connection.executemany(
        f"INSERT INTO allotment (build_id, place, {ALLOTMENT}) VALUES (?,?,{ALLOTMENT.marks})",
        ALLOTMENT.placed(build_id, budget.allotments if budget else ()),
    )
