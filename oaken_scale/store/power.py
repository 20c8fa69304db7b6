"""A build's drive in the database: motor, controller, propellers, packs and the runs of it."""

import sqlite3
from collections import defaultdict
from dataclasses import astuple, replace
from datetime import datetime

from oaken_scale.core.model.power import (
    Controller,
    Flight,
    Landing,
    Motor,
    Pack,
    Power,
    Propeller,
    Regulator,
    Run,
    RunPoint,
    Stand,
)
from oaken_scale.store.rows import stamp


def read_power(connection: sqlite3.Connection, build_id: str) -> Power | None:
    """A build's drive; None where it has none."""
    row = connection.execute(
        "SELECT motors, kv, mass_g, winding_ohm, idle_a, most_a,"
        " controller_a, controller_burst_a, controller_burst_s, controller_least_cells,"
        " controller_most_cells, regulator_a, regulator_drawn_a, regulator_most_cells,"
        " plug_a, wire_a, level_throttle, full_share, stand_port, stand_baud, stand_line"
        " FROM drive WHERE build_id = ?",
        (build_id,),
    ).fetchone()
    if row is None:
        return None
    motors, motor, controller = row[0], row[1:6], row[6:11]
    regulator, carried, stand = row[11:14], row[14:18], row[18:]
    plug_a, wire_a, level_throttle, full_share = carried
    propellers = connection.execute(
        "SELECT id, name, diameter_mm, pitch_mm FROM drive_propeller"
        " WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    packs = connection.execute(
        "SELECT id, name, cells, capacity_mah, c_rating, item_id FROM drive_pack"
        " WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return Power(
        motor=Motor(*motor),
        motors=motors,
        controller=None if controller[0] is None else Controller(*controller),
        propellers=tuple(Propeller(*each) for each in propellers),
        packs=tuple(Pack(*each) for each in packs),
        runs=_read_runs(connection, build_id),
        regulator=None if regulator[0] is None else Regulator(*regulator),
        plug_a=plug_a,
        wire_a=wire_a,
        level_throttle=level_throttle,
        full_share=full_share,
        stand=None if stand[0] is None else Stand(*stand),
        flights=_read_flights(connection, build_id),
    )


def _read_runs(connection: sqlite3.Connection, build_id: str) -> tuple[Run, ...]:
    points: dict[str, list[RunPoint]] = defaultdict(list)
    for run_id, *point in connection.execute(
        "SELECT run_id, throttle, thrust_gf, pack_a, pack_v, drawn_mah FROM drive_point"
        " WHERE build_id = ? ORDER BY run_id, place",
        (build_id,),
    ):
        points[run_id].append(RunPoint(*point))
    rows = connection.execute(
        "SELECT id, at, pack_id, propeller_id, rest_v_per_cell, note, set_aside, lever,"
        " lever_doubt, air_c, motor_c, controller_c, pack_c FROM drive_run"
        " WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        Run(id, datetime.fromisoformat(at), pack, propeller, tuple(points.get(id, ())), *rest)
        for id, at, pack, propeller, *rest in rows
    )


def _read_flights(connection: sqlite3.Connection, build_id: str) -> tuple[Flight, ...]:
    rows = connection.execute(
        "SELECT id, at, pack_id, minutes, put_back_mah, mass_g, note, set_aside,"
        " landing FROM flight WHERE build_id = ? ORDER BY place",
        (build_id,),
    )
    return tuple(
        replace(
            Flight(id, datetime.fromisoformat(at), *rest),
            landing=None if land is None else Landing(land),
        )
        for id, at, *rest, land in rows
    )


def write_power(connection: sqlite3.Connection, build_id: str, power: Power | None) -> None:
    """Write a build's drive anew."""
    connection.execute("DELETE FROM drive WHERE build_id = ?", (build_id,))
    if power is None:
        return
    controller = (None,) * 5 if power.controller is None else astuple(power.controller)
    regulator = (None,) * 3 if power.regulator is None else astuple(power.regulator)
    stand = (None,) * 3 if power.stand is None else astuple(power.stand)
    connection.execute(
        "INSERT INTO drive (build_id, motors, kv, mass_g, winding_ohm, idle_a, most_a,"
        " controller_a, controller_burst_a, controller_burst_s, controller_least_cells,"
        " controller_most_cells, regulator_a, regulator_drawn_a, regulator_most_cells,"
        " plug_a, wire_a, level_throttle, full_share, stand_port, stand_baud, stand_line)"
        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)",
        (
            build_id,
            power.motors,
            *astuple(power.motor),
            *controller,
            *regulator,
            power.plug_a,
            power.wire_a,
            power.level_throttle,
            power.full_share,
            *stand,
        ),
    )
    connection.executemany(
        "INSERT INTO drive_propeller (build_id, place, id, name, diameter_mm, pitch_mm)"
        " VALUES (?,?,?,?,?,?)",
        [
            (build_id, place, each.id, each.name, each.diameter_mm, each.pitch_mm)
            for place, each in enumerate(power.propellers)
        ],
    )
    connection.executemany(
        "INSERT INTO drive_pack (build_id, place, id, name, cells, capacity_mah, c_rating, item_id)"
        " VALUES (?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                each.name,
                each.cells,
                each.capacity_mah,
                each.c_rating,
                each.item,
            )
            for place, each in enumerate(power.packs)
        ],
    )
    connection.executemany(
        "INSERT INTO drive_run (build_id, place, id, at, pack_id, propeller_id, rest_v_per_cell,"
        " note, set_aside, lever, lever_doubt, air_c, motor_c, controller_c, pack_c)"
        " VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.pack,
                each.propeller,
                each.rest_v_per_cell,
                each.note,
                each.set_aside,
                each.lever,
                each.lever_doubt,
                each.air_c,
                each.motor_c,
                each.controller_c,
                each.pack_c,
            )
            for place, each in enumerate(power.runs)
        ],
    )
    connection.executemany(
        "INSERT INTO flight (build_id, place, id, at, pack_id, minutes, put_back_mah, mass_g, note,"
        " set_aside, landing) VALUES (?,?,?,?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                place,
                each.id,
                stamp(each.at),
                each.pack,
                each.minutes,
                each.put_back_mah,
                each.mass_g,
                each.note,
                each.set_aside,
                each.landing,
            )
            for place, each in enumerate(power.flights)
        ],
    )
    connection.executemany(
        "INSERT INTO drive_point (build_id, run_id, place, throttle, thrust_gf, pack_a, pack_v,"
        " drawn_mah) VALUES (?,?,?,?,?,?,?,?)",
        [
            (
                build_id,
                run.id,
                place,
                each.throttle,
                each.thrust_gf,
                each.pack_a,
                each.pack_v,
                each.drawn_mah,
            )
            for run in power.runs
            for place, each in enumerate(run.points)
        ],
    )
