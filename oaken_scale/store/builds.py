"""Reading whole builds, and writing what changed of one."""

import sqlite3
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Final

from oaken_scale.core.model.balancing import PlanMark
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.target import Thrust
from oaken_scale.core.model.weighing import Weighing
from oaken_scale.store.columns import Columns
from oaken_scale.store.day import read_day, write_day
from oaken_scale.store.diary import (
    read_ballast,
    read_checks,
    read_diary,
    read_habits,
    read_reference_build,
    write_ballast,
    write_checks,
    write_diary,
    write_habits,
    write_reference_build,
)
from oaken_scale.store.drawing import (
    read_bays,
    read_bodies,
    read_surfaces,
    write_bays,
    write_bodies,
    write_surfaces,
)
from oaken_scale.store.field import read_field, write_field
from oaken_scale.store.joints import read_joints, write_joints
from oaken_scale.store.log import accept, append_weighing, read_weighings, set_aside
from oaken_scale.store.parts import read_parts, write_parts
from oaken_scale.store.power import read_power, write_power
from oaken_scale.store.rack import read_lots, write_lots
from oaken_scale.store.rows import stamp
from oaken_scale.store.scales import read_containers, read_scales, write_containers, write_scales
from oaken_scale.store.targets import (
    read_budget,
    read_loadouts,
    read_targets,
    write_budget,
    write_loadouts,
    write_targets,
)

BUILD: Final = Columns(
    Build,
    within={
        "thrust": Columns(
            Thrust, prefix="thrust_", named={"thrust_gf": "thrust_gf"}, absent={"source": ""}
        ),
        "plan_mark": Columns(PlanMark, prefix="mark_", absent={"tolerance_mm": 3.0}),
        "allowance": Columns(
            Known, prefix="allowance_", named={"value": "allowance_share"}, absent={"source": ""}
        ),
    },
    apart=(
        "lots",
        "parts",
        "surfaces",
        "bodies",
        "bays",
        "scales",
        "containers",
        "loadouts",
        "targets",
        "budget",
        "joints",
        "diary",
        "checks",
        "ballast",
        "reference_build",
        "habits",
        "power",
        "field",
        "day",
        "weighings",
    ),
)


@dataclass(frozen=True, slots=True)
class Shelved:
    """A build on the shelf: its id and revision, when it was begun, whether it was put away; what
    it is for, how it is laid out, whether it is finished, and whose variant it is."""

    id: str
    revision: int
    created_at: datetime
    put_away: bool
    purpose: str
    layout: str
    is_finished: bool
    variant_of: str | None
    has_own_lines: bool
    """Whether its list before flight has lines of its own."""


def shelf(connection: sqlite3.Connection) -> list[Shelved]:
    """Every build, in the order they were begun."""
    rows = connection.execute(
        "SELECT id, revision, created_at, put_away_at, purpose, layout, finished_at, variant_of,"
        " EXISTS (SELECT 1 FROM own_line WHERE build_id = build.id)"
        " FROM build ORDER BY created_at, rowid"
    )
    return [
        Shelved(
            id,
            revision,
            datetime.fromisoformat(created),
            away is not None,
            purpose,
            layout,
            finished is not None,
            variant_of,
            bool(has_lines),
        )
        for id, revision, created, away, purpose, layout, finished, variant_of, has_lines in rows
    ]


def revision(connection: sqlite3.Connection, build_id: str) -> int | None:
    """A build's revision; None when there is no such build."""
    row = connection.execute("SELECT revision FROM build WHERE id = ?", (build_id,)).fetchone()
    return None if row is None else int(row[0])


def read_build(connection: sqlite3.Connection, build_id: str) -> Build | None:
    """Read a whole build; None when there is no such build."""
    row = connection.execute(
        f"SELECT budget_source, reference_name, {BUILD} FROM build WHERE id = ?", (build_id,)
    ).fetchone()
    if row is None:
        return None
    budget, reference, *own = row
    return BUILD.value(
        own,
        lots=read_lots(connection, build_id),
        parts=read_parts(connection, build_id),
        surfaces=read_surfaces(connection, build_id),
        bodies=read_bodies(connection, build_id),
        bays=read_bays(connection, build_id),
        scales=read_scales(connection, build_id),
        containers=read_containers(connection, build_id),
        loadouts=read_loadouts(connection, build_id),
        targets=read_targets(connection, build_id),
        budget=read_budget(connection, build_id, budget),
        joints=read_joints(connection, build_id),
        diary=read_diary(connection, build_id),
        checks=read_checks(connection, build_id),
        ballast=read_ballast(connection, build_id),
        reference_build=read_reference_build(connection, build_id, reference),
        habits=read_habits(connection, build_id),
        power=read_power(connection, build_id),
        field=read_field(connection, build_id),
        day=read_day(connection, build_id),
        weighings=read_weighings(connection, build_id),
    )


def add_build(connection: sqlite3.Connection, build: Build, at: datetime) -> None:
    """Put a new build on the shelf, with all its readings."""
    connection.execute(
        "INSERT INTO build (id, name, purpose, layout, notes, created_at) VALUES (?,?,?,?,?,?)",
        (build.id, build.name, build.purpose, build.layout, build.notes, stamp(at)),
    )
    write_changes(connection, Build(id=build.id, name=build.name), build)
    for weighing in build.weighings:
        add_reading(connection, build.id, weighing, at)


def add_reading(
    connection: sqlite3.Connection, build_id: str, weighing: Weighing, at: datetime
) -> None:
    """Add one reading with its fate: set aside, or accepted."""
    append_weighing(connection, build_id, weighing)
    if weighing.set_aside is not None:
        set_aside(connection, build_id, weighing.id, weighing.set_aside, at)
    if weighing.accepted:
        accept(connection, build_id, weighing.id, True, at)


def raise_revision(connection: sqlite3.Connection, build_id: str) -> int:
    """Count one write to a build; its new revision."""
    (number,) = connection.execute(
        "UPDATE build SET revision = revision + 1 WHERE id = ? RETURNING revision", (build_id,)
    ).fetchone()
    return int(number)


def put_away(connection: sqlite3.Connection, build_id: str, at: datetime | None) -> None:
    """Put a build away from the shelf, or (None) back on it. Nothing is deleted."""
    connection.execute(
        "UPDATE build SET put_away_at = ? WHERE id = ?",
        (None if at is None else stamp(at), build_id),
    )


def write_changes(connection: sqlite3.Connection, before: Build, after: Build) -> None:
    """Write what differs between two values of a build, its readings apart.

    A collection that changed is written anew; the foreign keys are looked at on commit, so what a
    reading speaks of must still be there by then.
    """
    id = after.id
    connection.execute(f"UPDATE build SET {BUILD.assigned} WHERE id = ?", (*BUILD.row(after), id))
    for write, *names in _WRITERS:
        if any(getattr(before, name) != getattr(after, name) for name in names):
            write(connection, id, getattr(after, names[0]))
    write_field(connection, id, before.field, after.field)


_WRITERS: Final[tuple[tuple[Any, *tuple[str, ...]], ...]] = (
    (write_lots, "lots"),
    (write_parts, "parts"),
    (write_surfaces, "surfaces"),
    (write_bodies, "bodies"),
    (write_bays, "bays"),
    (write_scales, "scales"),
    (write_containers, "containers"),
    (write_loadouts, "loadouts", "parts"),
    (write_budget, "budget"),
    (write_targets, "targets"),
    (write_joints, "joints", "parts"),
    (write_diary, "diary", "parts"),
    (write_checks, "checks"),
    (write_ballast, "ballast"),
    (write_reference_build, "reference_build"),
    (write_habits, "habits"),
    (write_power, "power"),
    (write_day, "day"),
)
"""What writes a collection anew, and which changes make it: parts are named by others."""
