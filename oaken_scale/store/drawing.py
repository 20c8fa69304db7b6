"""A build's drawing in the database: its surfaces, bodies and bays."""

import sqlite3
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.body import Body, Frame
from oaken_scale.core.model.fitting import Bay
from oaken_scale.core.model.surface import Section, Surface
from oaken_scale.store.columns import Columns

SURFACE: Final = Columns(Surface, apart=("sections",))
SECTION: Final = Columns(Section)
BODY: Final = Columns(Body, apart=("frames",))
FRAME: Final = Columns(Frame)
BAY: Final = Columns(Bay)


def read_surfaces(connection: sqlite3.Connection, build_id: str) -> tuple[Surface, ...]:
    """A build's surfaces, in their order."""
    sections = SECTION.under(
        connection.execute(
            f"SELECT surface_id, {SECTION} FROM section WHERE build_id = ?"
            " ORDER BY surface_id, place",
            (build_id,),
        )
    )
    rows = connection.execute(
        f"SELECT id, {SURFACE} FROM surface WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(SURFACE.value(row, sections=sections.get(id, ())) for id, *row in rows)


def write_surfaces(
    connection: sqlite3.Connection, build_id: str, surfaces: Sequence[Surface]
) -> None:
    """Write a build's surfaces anew."""
    connection.execute("DELETE FROM surface WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO surface (build_id, place, {SURFACE}) VALUES (?,?,{SURFACE.marks})",
        SURFACE.placed(build_id, surfaces),
    )
    connection.executemany(
        f"INSERT INTO section (build_id, surface_id, place, {SECTION})"
        f" VALUES (?,?,?,{SECTION.marks})",
        SECTION.placed_under(build_id, ((each.id, each.sections) for each in surfaces)),
    )


def read_bodies(connection: sqlite3.Connection, build_id: str) -> tuple[Body, ...]:
    """A build's bodies, in their order."""
    frames = FRAME.under(
        connection.execute(
            f"SELECT body_id, {FRAME} FROM frame WHERE build_id = ? ORDER BY body_id, place",
            (build_id,),
        )
    )
    rows = connection.execute(
        f"SELECT id, {BODY} FROM body WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(BODY.value(row, frames=frames.get(id, ())) for id, *row in rows)


def write_bodies(connection: sqlite3.Connection, build_id: str, bodies: Sequence[Body]) -> None:
    """Write a build's bodies anew."""
    connection.execute("DELETE FROM body WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO body (build_id, place, {BODY}) VALUES (?,?,{BODY.marks})",
        BODY.placed(build_id, bodies),
    )
    connection.executemany(
        f"INSERT INTO frame (build_id, body_id, place, {FRAME}) VALUES (?,?,?,{FRAME.marks})",
        FRAME.placed_under(build_id, ((each.id, each.frames) for each in bodies)),
    )


def read_bays(connection: sqlite3.Connection, build_id: str) -> tuple[Bay, ...]:
    """A build's bays, in their order."""
    return BAY.values(
        connection.execute(f"SELECT {BAY} FROM bay WHERE build_id = ? ORDER BY place", (build_id,))
    )


def write_bays(connection: sqlite3.Connection, build_id: str, bays: Sequence[Bay]) -> None:
    """Write a build's bays anew."""
    connection.execute("DELETE FROM bay WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO bay (build_id, place, {BAY}) VALUES (?,?,{BAY.marks})",
        BAY.placed(build_id, bays),
    )
