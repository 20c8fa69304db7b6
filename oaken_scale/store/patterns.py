"""What is cut for a build's parts, and what they follow until then, in the database."""

import json
import sqlite3
from collections.abc import Sequence

from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.build import Item
from oaken_scale.core.model.pattern import Grain, Pattern, Ring


def read_patterns(connection: sqlite3.Connection, build_id: str) -> dict[str, Pattern]:
    """The patterns of a build's parts, by the parts' ids."""
    rows = connection.execute(
        "SELECT item_id, grain, layers, rings, folds FROM pattern WHERE build_id = ?", (build_id,)
    )
    return {
        item_id: Pattern(
            _lines(rings),
            Grain(grain),
            layers,
            _lines(folds),
        )
        for item_id, grain, layers, rings, folds in rows
    }


def read_drawn(connection: sqlite3.Connection, build_id: str) -> dict[str, Drawn]:
    """What a build's parts follow on the drawing, by the parts' ids."""
    rows = connection.execute(
        "SELECT item_id, drawn_id, panel, is_cut FROM item_drawn WHERE build_id = ?", (build_id,)
    )
    return {item_id: Drawn(of, panel, bool(cut)) for item_id, of, panel, cut in rows}


def write_drawn(connection: sqlite3.Connection, build_id: str, items: Sequence[Item]) -> None:
    """Write anew what a build's parts follow on the drawing."""
    connection.execute("DELETE FROM item_drawn WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO item_drawn (build_id, item_id, drawn_id, panel, is_cut) VALUES (?,?,?,?,?)",
        [
            (build_id, item.id, item.drawn.of, item.drawn.panel, int(item.drawn.is_cut))
            for item in items
            if item.drawn is not None
        ],
    )


def write_patterns(connection: sqlite3.Connection, build_id: str, items: Sequence[Item]) -> None:
    """Write the patterns of a build's parts anew."""
    connection.execute("DELETE FROM pattern WHERE build_id = ?", (build_id,))
    connection.executemany(
        "INSERT INTO pattern (build_id, item_id, grain, layers, rings, folds) VALUES (?,?,?,?,?,?)",
        [
            (
                build_id,
                item.id,
                own.grain,
                own.layers,
                json.dumps(own.rings),
                json.dumps(own.folds),
            )
            for item in items
            if (own := item.pattern) is not None
        ],
    )


def _lines(text: str) -> tuple[Ring, ...]:
    return tuple(tuple((float(x), float(y)) for x, y in line) for line in json.loads(text))
