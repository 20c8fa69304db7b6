"""A build's joints on the clock, in the database."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.joint import Joint
from oaken_scale.store.columns import Columns

JOINT: Final = Columns(Joint, apart=("parts",))


def read_joints(connection: sqlite3.Connection, build_id: str) -> tuple[Joint, ...]:
    """A build's joints, in their order."""
    parts: dict[str, list[str]] = defaultdict(list)
    for joint_id, part_id in connection.execute(
        "SELECT joint_id, part_id FROM joint_part WHERE build_id = ? ORDER BY joint_id, place",
        (build_id,),
    ):
        parts[joint_id].append(part_id)
    rows = connection.execute(
        f"SELECT id, {JOINT} FROM joint WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(JOINT.value(row, parts=tuple(parts[id])) for id, *row in rows)


def write_joints(connection: sqlite3.Connection, build_id: str, joints: Sequence[Joint]) -> None:
    """Write a build's joints anew."""
    connection.execute("DELETE FROM joint WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO joint (build_id, place, {JOINT}) VALUES (?,?,{JOINT.marks})",
        JOINT.placed(build_id, joints),
    )
    connection.executemany(
        "INSERT INTO joint_part (build_id, joint_id, place, part_id) VALUES (?,?,?,?)",
        [
            (build_id, joint.id, place, part_id)
            for joint in joints
            for place, part_id in enumerate(joint.parts)
        ],
    )
