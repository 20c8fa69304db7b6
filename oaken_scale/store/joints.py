"""A build's joints on the clock, in the database."""

import sqlite3
from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.model.build import Joint
from oaken_scale.store.columns import Columns

JOINT: Final = Columns(Joint, apart=("items",))


def read_joints(connection: sqlite3.Connection, build_id: str) -> tuple[Joint, ...]:
    """A build's joints, in their order."""
    items: dict[str, list[str]] = defaultdict(list)
    for joint_id, item_id in connection.execute(
        "SELECT joint_id, item_id FROM joint_item WHERE build_id = ? ORDER BY joint_id, place",
        (build_id,),
    ):
        items[joint_id].append(item_id)
    rows = connection.execute(
        f"SELECT id, {JOINT} FROM joint WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(JOINT.value(row, items=tuple(items[id])) for id, *row in rows)


def write_joints(connection: sqlite3.Connection, build_id: str, joints: Sequence[Joint]) -> None:
    """Write a build's joints anew."""
    connection.execute("DELETE FROM joint WHERE build_id = ?", (build_id,))
    connection.executemany(
        f"INSERT INTO joint (build_id, place, {JOINT}) VALUES (?,?,{JOINT.marks})",
        JOINT.placed(build_id, joints),
    )
    connection.executemany(
        "INSERT INTO joint_item (build_id, joint_id, place, item_id) VALUES (?,?,?,?)",
        [
            (build_id, joint.id, place, item_id)
            for joint in joints
            for place, item_id in enumerate(joint.items)
        ],
    )
