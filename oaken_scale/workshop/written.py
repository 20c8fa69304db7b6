"""Writing what a change made of a build."""

import sqlite3

from oaken_scale.core.model.build import Build
from oaken_scale.store import builds, log
from oaken_scale.store.rows import now
from oaken_scale.store.tags import write_tag
from oaken_scale.workshop import tags
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
    count_up(connection, after)


def count_up(connection: sqlite3.Connection, after: Held) -> None:
    """Count one write to a build, and keep what its tag says after it."""
    builds.raise_revision(connection, after.build.id)
    keep_tag(connection, after)


def keep_tag(connection: sqlite3.Connection, held: Held) -> None:
    """Keep what the tag of a build says as it is held."""
    says = tags.written(tags.tag_of(held))
    write_tag(connection, held.build.id, held.revision, tags.reckoning(), says)
