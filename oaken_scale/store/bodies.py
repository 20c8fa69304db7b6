"""The bodies of a build's drawing in the database."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence

from oaken_scale.core.model.body import Body, BodyShape, Frame


def read_bodies(connection: sqlite3.Connection, build_id: str) -> tuple[Body, ...]:
    """A build's bodies, in their order."""
    frames: dict[str, list[Frame]] = defaultdict(list)
    for body_id, *numbers in connection.execute(
        "SELECT body_id, x_mm, z_mm, width_mm, height_mm FROM frame WHERE build_id = ?"
        " ORDER BY body_id, place",
        (build_id,),
    ):
        frames[body_id].append(Frame(*numbers))
    rows = connection.execute(
        "SELECT id, name, shape, y_mm, twin, has_top FROM body WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Body(id, name, BodyShape(shape), tuple(frames[id]), y, bool(twin), bool(top))
        for id, name, shape, y, twin, top in rows
    )


def write_bodies(connection: sqlite3.Connection, build_id: str, bodies: Sequence[Body]) -> None:
    """Write a build's bodies anew."""
    connection.execute("DELETE FROM body WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO body (build_id, id, place, name, shape, y_mm, twin, has_top)"
        " VALUES (?,?,?,?,?,?,?,?)",
        [
            (build_id, b.id, k, b.name, b.shape, b.y_mm, int(b.twin), int(b.has_top))
            for k, b in enumerate(bodies)
        ],
    )
    connection.executemany(
        "INSERT INTO frame (build_id, body_id, place, x_mm, z_mm, width_mm, height_mm)"
        " VALUES (?,?,?,?,?,?,?)",
        [
            (build_id, body.id, place, at.x_mm, at.z_mm, at.width_mm, at.height_mm)
            for body in bodies
            for place, at in enumerate(body.frames)
        ],
    )
