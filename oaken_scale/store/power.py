"""A build's drive in the database: motor, controller, propellers, packs and the runs of it."""

import sqlite3
from typing import Final

from oaken_scale.core.model.power import (
    Controller,
    Flight,
    Motor,
    Pack,
    Power,
    Propeller,
    Regulator,
    Run,
    RunPoint,
    Stand,
)
from oaken_scale.store.columns import Columns

DRIVE: Final = Columns(
    Power,
    within={
        "motor": Columns(Motor),
        "controller": Columns(Controller, prefix="controller_", named={"most_a": "controller_a"}),
        "regulator": Columns(Regulator, prefix="regulator_", named={"most_a": "regulator_a"}),
        "stand": Columns(Stand, prefix="stand_"),
    },
    apart=("propellers", "packs", "runs", "flights"),
)
PROPELLER: Final = Columns(Propeller)
PACK: Final = Columns(Pack, named={"part": "part_id"})
RUN: Final = Columns(Run, named={"pack": "pack_id", "propeller": "propeller_id"}, apart=("points",))
POINT: Final = Columns(RunPoint)
FLIGHT: Final = Columns(Flight, named={"pack": "pack_id"})


def read_power(connection: sqlite3.Connection, build_id: str) -> Power | None:
    """A build's drive; None where it has none."""
    row = connection.execute(
        f"SELECT {DRIVE} FROM drive WHERE build_id = ?", (build_id,)
    ).fetchone()
    if row is None:
        return None
    propellers = connection.execute(
        f"SELECT {PROPELLER} FROM drive_propeller WHERE build_id = ? ORDER BY place", (build_id,)
    )
    packs = connection.execute(
        f"SELECT {PACK} FROM drive_pack WHERE build_id = ? ORDER BY place", (build_id,)
    )
    flights = connection.execute(
        f"SELECT {FLIGHT} FROM flight WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return DRIVE.value(
        row,
        propellers=PROPELLER.values(propellers),
        packs=PACK.values(packs),
        runs=_read_runs(connection, build_id),
        flights=FLIGHT.values(flights),
    )


def _read_runs(connection: sqlite3.Connection, build_id: str) -> tuple[Run, ...]:
    points = POINT.under(
        connection.execute(
            f"SELECT run_id, {POINT} FROM drive_point WHERE build_id = ? ORDER BY run_id, place",
            (build_id,),
        )
    )
    rows = connection.execute(
        f"SELECT id, {RUN} FROM drive_run WHERE build_id = ? ORDER BY place", (build_id,)
    )
    return tuple(RUN.value(row, points=points.get(id, ())) for id, *row in rows)


def write_power(connection: sqlite3.Connection, build_id: str, power: Power | None) -> None:
    """Write a build's drive anew."""
    connection.execute("DELETE FROM drive WHERE build_id = ?", (build_id,))
    if power is None:
        return
    connection.execute(
        f"INSERT INTO drive (build_id, {DRIVE}) VALUES (?,{DRIVE.marks})",
        (build_id, *DRIVE.row(power)),
    )
    connection.executemany(
        f"INSERT INTO drive_propeller (build_id, place, {PROPELLER})"
        f" VALUES (?,?,{PROPELLER.marks})",
        PROPELLER.placed(build_id, power.propellers),
    )
    connection.executemany(
        f"INSERT INTO drive_pack (build_id, place, {PACK}) VALUES (?,?,{PACK.marks})",
        PACK.placed(build_id, power.packs),
    )
    connection.executemany(
        f"INSERT INTO drive_run (build_id, place, {RUN}) VALUES (?,?,{RUN.marks})",
        RUN.placed(build_id, power.runs),
    )
    connection.executemany(
        f"INSERT INTO flight (build_id, place, {FLIGHT}) VALUES (?,?,{FLIGHT.marks})",
        FLIGHT.placed(build_id, power.flights),
    )
    connection.executemany(
        f"INSERT INTO drive_point (build_id, run_id, place, {POINT}) VALUES (?,?,?,{POINT.marks})",
        POINT.placed_under(build_id, ((run.id, run.points) for run in power.runs)),
    )
