"""Writing what a change made of a build."""

import sqlite3

from oaken_scale.core.model.build import Build
from oaken_scale.store import builds, log
from oaken_scale.store.rows import now
from oaken_scale.workshop.held import Held


def write(connection: sqlite3.Connection, before: Build, after: Held) -> None:
    """Write what differs, what became of readings, those that were added, the next revision."""
    id = after.build.id
    builds.write_changes(connection, before, after.build)
    for was, is_now in zip(before.weighings, after.build.weighings, strict=False):
        if was.set_aside != is_now.set_aside:
            log.set_aside(connection, id, was.id, is_now.set_aside, now())
        if was.accepted != is_now.accepted:
            log.accept(connection, id, was.id, is_now.accepted, now())
    for weighing in after.build.weighings[len(before.weighings) :]:
        builds.add_reading(connection, id, weighing, now())
    builds.raise_revision(connection, id)
