"""What the tags on the shelf say, as it was worked out last."""

import sqlite3


def read_tags(connection: sqlite3.Connection, reckoning: str) -> dict[str, str]:
    """The tags that hold, by build: of its revision now, and worked out by ``reckoning``."""
    rows = connection.execute(
        "SELECT tag.build_id, tag.says FROM tag JOIN build ON build.id = tag.build_id"
        " AND build.revision = tag.revision WHERE tag.reckoning = ?",
        (reckoning,),
    )
    return dict(rows.fetchall())


def write_tag(
    connection: sqlite3.Connection, build_id: str, revision: int, reckoning: str, says: str
) -> None:
    """Keep what the tag of a build says at a revision."""
    connection.execute(
        "INSERT OR REPLACE INTO tag (build_id, revision, reckoning, says) VALUES (?, ?, ?, ?)",
        (build_id, revision, reckoning, says),
    )
