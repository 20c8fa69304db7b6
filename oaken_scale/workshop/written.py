"""Writing what a change made of a build."""

import sqlite3

from oaken_scale.core.model.build import Build
from oaken_scale.store import builds
from oaken_scale.store.rows import now
from oaken_scale.workshop.held import Held


def write(connection: sqlite3.Connection, before: Build, after: Held) -> None:
    """Write what differs, readings that were added, and the next revision."""
    builds.write_changes(connection, before, after.build)
    for weighing in after.build.weighings[len(before.weighings) :]:
        builds.add_reading(connection, after.build.id, weighing, now())
    builds.raise_revision(connection, after.build.id)
