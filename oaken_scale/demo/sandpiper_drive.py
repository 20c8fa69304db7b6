"""Sandpiper's drive: what its listings say, a hidden true motor, and one run on the stand.

One point of the run had its thrust read in ounces.
"""

import random
from datetime import datetime, timedelta
from typing import Final

from oaken_scale.core.model.power import (
    FULL_V_PER_CELL,
    Controller,
    Motor,
    Pack,
    Power,
    Propeller,
    Run,
    RunPoint,
)
from oaken_scale.core.power.drive_readings import rest_v
from oaken_scale.core.power.drive_train import DriveTrain, running
from oaken_scale.core.power.point_doubts import OUNCE_G

TRUE: Final = DriveTrain(
    kv=1850,
    winding_ohm=0.085,
    idle_a=0.95,
    thrust_coefficient=0.077,
    power_coefficient=0.041,
    diameter_mm=152.4,
    pack_ohm=0.034,
    controller_ohm=0.012,
    rest_v=0.0,
    duty_exponent=1.04,
)
"""What nobody is told; the rest voltage is each point's own."""

IN_OUNCES: Final = 2
"""The point whose thrust was read in ounces."""

_THROTTLES: Final = (0.3, 0.45, 0.6, 0.75, 0.9, 1.0)
_SECONDS: Final = 12
_BIG: Final = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack-1300")


def sandpiper_drive(taken: datetime) -> Power:
    """The drive as its builder listed it, with the run that was taken after a morning's work."""
    return Power(
        motor=Motor(1950.0, 54.0, most_a=18.0),
        controller=Controller(14.0, 20.0, 10.0),
        propellers=(Propeller("prop", "6 x 3", 152.4, 76.2),),
        packs=(_BIG, Pack("small", "3-cell 850", 3, 850.0, 30.0, "pack-850")),
        runs=(Run("run-1", taken + timedelta(minutes=104), "big", "prop", _points()),),
    )


def _points() -> tuple[RunPoint, ...]:
    shake, drawn, points = random.Random(7), 0.0, []
    for k, throttle in enumerate(_THROTTLES):
        rest = _BIG.cells * rest_v(FULL_V_PER_CELL, _BIG, drawn)
        true = running(_at(rest), throttle + shake.gauss(0, 0.008))
        thrust = true.thrust_gf * 1.008 + shake.gauss(0, 1 + 0.01 * true.thrust_gf)
        points.append(
            RunPoint(
                throttle,
                round(thrust / OUNCE_G, 1) if k == IN_OUNCES else float(round(thrust)),
                round(true.pack_a * 0.99 + shake.gauss(0, 0.1), 1),
                round(true.pack_v + shake.gauss(0, 0.03), 2),
                round(drawn, 0),
            )
        )
        drawn += true.pack_a * 1000 * _SECONDS / 3600
    return tuple(points)


def _at(rest: float) -> DriveTrain:
    return DriveTrain(
        TRUE.kv,
        TRUE.winding_ohm,
        TRUE.idle_a,
        TRUE.thrust_coefficient,
        TRUE.power_coefficient,
        TRUE.diameter_mm,
        TRUE.pack_ohm,
        TRUE.controller_ohm,
        rest,
        TRUE.motors,
        TRUE.duty_exponent,
    )
