"""The weighing log: append-only. Setting a reading aside, or taking it back in, is a new row."""

import sqlite3
from collections import defaultdict
from datetime import UTC, datetime

from oaken_scale.core.model.weighing import Load, Pan, Sample, Weighing


def read_weighings(connection: sqlite3.Connection, build_id: str) -> tuple[Weighing, ...]:
    """A build's readings as they came. Equal pans are one object, which the ledger profits from."""
    loads: dict[int, list[Load]] = defaultdict(list)
    for number, part_id, count in connection.execute(
        "SELECT weighing, part_id, count FROM weighing_load JOIN weighing"
        " ON weighing.number = weighing_load.weighing WHERE weighing.build_id = ?"
        " ORDER BY weighing, part_id",
        (build_id,),
    ):
        loads[number].append(Load(part_id, count))
    samples: dict[int, list[Sample]] = defaultdict(list)
    for number, lot_id, amount in connection.execute(
        "SELECT weighing, lot_id, amount FROM weighing_sample JOIN weighing"
        " ON weighing.number = weighing_sample.weighing WHERE weighing.build_id = ?"
        " ORDER BY weighing, lot_id",
        (build_id,),
    ):
        samples[number].append(Sample(lot_id, amount))
    pans: dict[Pan, Pan] = {}
    told = []
    for number, id, at, scale, reading_g, known_g, typed, note, *fate in connection.execute(
        "SELECT number, id, at, scale_id, reading_g, known_g, typed, note,"
        " (SELECT reason FROM setting_aside WHERE weighing = weighing.number"
        "  ORDER BY setting_aside.number DESC LIMIT 1),"
        " corrects,"
        " coalesce((SELECT accepted FROM acceptance WHERE weighing = weighing.number"
        "  ORDER BY acceptance.number DESC LIMIT 1), 0)"
        " FROM weighing WHERE build_id = ? ORDER BY number",
        (build_id,),
    ):
        pan = Pan(tuple(loads[number]), tuple(samples[number]), known_g)
        pan = pans.setdefault(pan, pan)
        when = datetime.fromisoformat(at)
        reason, corrects, accepted = fate
        told.append(
            Weighing(id, when, scale, reading_g, pan, typed, note, reason, corrects, bool(accepted))
        )
    return tuple(told)


def append_weighing(connection: sqlite3.Connection, build_id: str, weighing: Weighing) -> None:
    """Add one reading to the log."""
    (number,) = connection.execute(
        "INSERT INTO weighing"
        " (build_id, id, at, scale_id, reading_g, known_g, typed, note, corrects)"
        " VALUES (?,?,?,?,?,?,?,?,?) RETURNING number",
        (
            build_id,
            weighing.id,
            weighing.at.astimezone(UTC).isoformat(),
            weighing.scale,
            weighing.reading_g,
            weighing.pan.known_g,
            weighing.typed,
            weighing.note,
            weighing.corrects,
        ),
    ).fetchone()
    connection.executemany(
        "INSERT INTO weighing_load (weighing, build_id, part_id, count) VALUES (?,?,?,?)",
        [(number, build_id, load.part, load.count) for load in weighing.pan.loads],
    )
    connection.executemany(
        "INSERT INTO weighing_sample (weighing, build_id, lot_id, amount) VALUES (?,?,?,?)",
        [(number, build_id, sample.lot, sample.amount) for sample in weighing.pan.samples],
    )


def set_aside(
    connection: sqlite3.Connection,
    build_id: str,
    weighing_id: str,
    reason: str | None,
    at: datetime,
) -> None:
    """Set a reading aside with a reason, or (None) let it speak again."""
    connection.execute(
        "INSERT INTO setting_aside (weighing, at, reason)"
        " SELECT number, ?, ? FROM weighing WHERE build_id = ? AND id = ?",
        (at.astimezone(UTC).isoformat(), reason, build_id, weighing_id),
    )


def accept(
    connection: sqlite3.Connection, build_id: str, weighing_id: str, accepted: bool, at: datetime
) -> None:
    """Accept a doubtful reading as it is, or doubt it again."""
    connection.execute(
        "INSERT INTO acceptance (weighing, at, accepted)"
        " SELECT number, ?, ? FROM weighing WHERE build_id = ? AND id = ?",
        (at.astimezone(UTC).isoformat(), int(accepted), build_id, weighing_id),
    )
