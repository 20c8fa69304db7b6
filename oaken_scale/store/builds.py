"""Reading whole builds, and writing what changed of one."""

import sqlite3
from dataclasses import dataclass
from datetime import datetime

from oaken_scale.core.build import Build, Thrust
from oaken_scale.store.log import accept, append_weighing, read_weighings, set_aside
from oaken_scale.store.parts import (
    read_budget,
    read_containers,
    read_items,
    read_joints,
    read_loadouts,
    read_scales,
    read_surfaces,
    read_targets,
    write_budget,
    write_containers,
    write_items,
    write_joints,
    write_loadouts,
    write_scales,
    write_surfaces,
    write_targets,
)
from oaken_scale.store.rack import read_lots, write_lots
from oaken_scale.store.rows import stamp


@dataclass(frozen=True, slots=True)
class Shelved:
    """A build on the shelf: its id, its revision, when it was begun, whether it was put away."""

    id: str
    revision: int
    created_at: datetime
    put_away: bool


def shelf(connection: sqlite3.Connection) -> list[Shelved]:
    """Every build, in the order they were begun."""
    rows = connection.execute(
        "SELECT id, revision, created_at, put_away_at FROM build ORDER BY created_at, rowid"
    )
    return [
        Shelved(id, revision, datetime.fromisoformat(created), away is not None)
        for id, revision, created, away in rows
    ]


def revision(connection: sqlite3.Connection, build_id: str) -> int | None:
    """A build's revision; None when there is no such build."""
    row = connection.execute("SELECT revision FROM build WHERE id = ?", (build_id,)).fetchone()
    return None if row is None else int(row[0])


def read_build(connection: sqlite3.Connection, build_id: str) -> Build | None:
    """Read a whole build; None when there is no such build."""
    row = connection.execute(
        "SELECT name, purpose, layout, notes, thrust_gf, thrust_doubt_gf, thrust_source,"
        " budget_source"
        " FROM build WHERE id = ?",
        (build_id,),
    ).fetchone()
    if row is None:
        return None
    name, purpose, layout, notes, thrust_gf, thrust_doubt, thrust_source, budget = row
    return Build(
        id=build_id,
        name=name,
        purpose=purpose,
        layout=layout,
        notes=notes,
        lots=read_lots(connection, build_id),
        items=read_items(connection, build_id),
        surfaces=read_surfaces(connection, build_id),
        scales=read_scales(connection, build_id),
        containers=read_containers(connection, build_id),
        loadouts=read_loadouts(connection, build_id),
        targets=read_targets(connection, build_id),
        thrust=None if thrust_gf is None else Thrust(thrust_gf, thrust_doubt, thrust_source),
        budget=read_budget(connection, build_id, budget),
        joints=read_joints(connection, build_id),
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
        append_weighing(connection, build.id, weighing)
        if weighing.set_aside is not None:
            set_aside(connection, build.id, weighing.id, weighing.set_aside, at)
        if weighing.accepted:
            accept(connection, build.id, weighing.id, True, at)


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
    thrust = after.thrust or Thrust(0.0)
    connection.execute(
        "UPDATE build SET name = ?, purpose = ?, layout = ?, notes = ?,"
        " thrust_gf = ?, thrust_doubt_gf = ?, thrust_source = ? WHERE id = ?",
        (
            after.name,
            after.purpose,
            after.layout,
            after.notes,
            None if after.thrust is None else thrust.thrust_gf,
            thrust.doubt_gf,
            thrust.source,
            id,
        ),
    )
    if before.lots != after.lots:
        write_lots(connection, id, after.lots)
    if before.items != after.items:
        write_items(connection, id, after.items)
    if before.surfaces != after.surfaces:
        write_surfaces(connection, id, after.surfaces)
    if before.scales != after.scales:
        write_scales(connection, id, after.scales)
    if before.containers != after.containers:
        write_containers(connection, id, after.containers)
    if before.loadouts != after.loadouts or before.items != after.items:
        write_loadouts(connection, id, after.loadouts)
    if before.budget != after.budget:
        write_budget(connection, id, after.budget)
    if before.targets != after.targets:
        write_targets(connection, id, after.targets)
    if before.joints != after.joints or before.items != after.items:
        write_joints(connection, id, after.joints)
