"""The drives of the demo planes: what listings say, hidden true motors, and runs on the simulated
stand. One point of Sandpiper's run had its thrust read in ounces."""

import random
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Final

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
)
from oaken_scale.core.power.drive_train import DriveTrain
from oaken_scale.core.power.point_doubts import OUNCE_G
from oaken_scale.devices.simulated_stand import SimulatedStand
from oaken_scale.devices.stand_line import stand_pattern

SANDPIPER_TRUE: Final = DriveTrain(
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
MAYFLY_TRUE: Final = DriveTrain(
    kv=5300,
    winding_ohm=0.36,
    idle_a=0.5,
    thrust_coefficient=0.094,
    power_coefficient=0.048,
    diameter_mm=76.2,
    pack_ohm=0.055,
    controller_ohm=0.012,
    rest_v=0.0,
    motors=2,
    duty_exponent=0.98,
)
"""What nobody is told; the rest voltage is each point's own."""

IN_OUNCES: Final = 2
"""The point whose thrust was read in ounces."""

_STEPS: Final = (0.3, 0.45, 0.6, 0.75, 0.9, 1.0)
_BIG: Final = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack-1300")


def sandpiper_drive(taken: datetime) -> Power:
    """The drive as its builder listed it, with the run that was taken after a morning's work."""
    points = list(_on_the_stand(SANDPIPER_TRUE, _BIG, _STEPS, seed=7))
    wrong = points[IN_OUNCES]
    if wrong.thrust_gf is not None:
        points[IN_OUNCES] = replace(wrong, thrust_gf=round(wrong.thrust_gf / OUNCE_G, 1))
    run = Run("run-1", taken + timedelta(minutes=104), "big", "prop", tuple(points))
    return Power(
        motor=Motor(1950.0, 54.0, most_a=18.0),
        controller=Controller(14.0, 20.0, 10.0, 2, 3),
        propellers=(Propeller("prop", "6 x 3", 152.4, 76.2),),
        packs=(_BIG, Pack("small", "3-cell 850", 3, 850.0, 30.0, "pack-850")),
        runs=(replace(run, air_c=17.0, motor_c=52.0),),
        regulator=Regulator(3.0, 2.2, 3),
        plug_a=20.0,
    )


def mayfly_drive(taken: datetime) -> Power:
    """Two motors on one cell, run together at home."""
    pack = Pack("cell", "1-cell 240", 1, 240.0, 25.0, "pack")
    points = _on_the_stand(MAYFLY_TRUE, pack, (0.4, 0.6, 0.8, 1.0), seed=3)
    return Power(
        motor=Motor(5500.0, 5.3, most_a=2.0),
        motors=2,
        controller=Controller(3.0, least_cells=1, most_cells=1),
        propellers=(Propeller("three", "3 x 2", 76.2, 50.8),),
        packs=(pack,),
        runs=(Run("run-1", taken, "cell", "three", points, air_c=20.0, motor_c=41.0),),
    )


def night_heron_drive(first: datetime) -> Power:
    """A drive that was never on a stand, and flew: what the charger put back tells its minutes."""
    flown = (
        (9.5, 880.0),
        (10.5, 960.0),
        (8.0, 790.0),
        (10.0, None),
        (9.0, 850.0),
        (7.5, 700.0),
        (9.0, None),
        (10.0, 930.0),
        (8.5, 800.0),
        (9.5, None),
        (9.0, 835.0),
        (10.5, None),
        (8.0, 745.0),
        (9.5, 890.0),
        (9.0, None),
        (10.0, 915.0),
        (7.0, 655.0),
        (9.5, None),
        (9.0, 860.0),
        (8.5, None),
        (10.0, 940.0),
        (4.5, None),
    )
    last = len(flown) - 1
    return Power(
        motor=Motor(1400.0, 36.0, most_a=12.0),
        controller=Controller(18.0, least_cells=2, most_cells=3),
        propellers=(Propeller("prop", "7 x 4, pusher", 177.8, 101.6),),
        packs=(Pack("pack", "3-cell 1300", 3, 1300.0, 25.0, "pack"),),
        full_share=0.15,
        flights=tuple(
            Flight(
                f"flight-{k}",
                first
                + (
                    timedelta(days=26, hours=20)
                    if k == last
                    else timedelta(days=26 * k // 21, hours=-(k % 4))
                ),
                "pack",
                minutes,
                back,
                424.0,
                "met a fence post" if k == last else "",
                landing=Landing.CRASH if k == last else Landing.HARD if k == 12 else Landing.SOFT,
            )
            for k, (minutes, back) in enumerate(flown)
        ),
    )


def _on_the_stand(
    true: DriveTrain, pack: Pack, steps: tuple[float, ...], seed: int
) -> tuple[RunPoint, ...]:
    """A run on the simulated stand: each step kept once it runs steadily, nine seconds after."""
    stand, shake, now = SimulatedStand(true, pack, seed), random.Random(seed), 0.0
    reads = stand_pattern("")
    points = []
    for step in steps:
        stand.throttle(step + shake.gauss(0, 0.006))
        for _ in range(90):
            now += 0.1
            shown = reads.read(stand.line(now).strip())
        if shown is not None:
            at = (shown.thrust_gf, shown.pack_a, shown.pack_v, shown.drawn_mah or 0.0)
            points.append(RunPoint(step, *at))
    return tuple(points)
