"""Made-up drives for measuring."""

import random
from dataclasses import replace

from benchmarks.builds import made_up_build
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.power import Motor, Pack, Power
from oaken_scale.core.trim.tried import TriedMotor, TriedPack
from study.drive_trains import DRIVE, Truth


def drive_of_four_runs() -> Power:
    """A drive with four runs of twelve points, two packs and two propellers."""
    truth, runs = Truth(1), []
    for k, (pack, propeller) in enumerate(
        (("big", "six"), ("small", "six"), ("big", "seven"), ("small", "seven"))
    ):
        first, again = (truth.run(pack, propeller, f"r{k}") for _ in range(2))
        runs.append(replace(first, points=(*first.points, *again.points)[:12]))
    return replace(DRIVE, runs=tuple(runs))


def drives_to_try(drive: Power) -> tuple[Build, list[TriedPack], list[TriedMotor]]:
    """A build of 150 parts with a drive, and 20 packs and 5 motors that might fly in it."""
    shake = random.Random(1)
    build = made_up_build(150, 300)
    pack = Part(
        "pack",
        "Pack",
        Pedigree.LISTING,
        stated_g=105.0,
        option=True,
        station=Station(150.0),
        slide=Slide(60.0, 260.0),
    )
    first, *others = drive.packs
    build = replace(
        build,
        parts=(*build.parts, pack),
        loadouts=(Loadout("l", "With the pack", ("pack",)),),
        power=replace(drive, packs=(replace(first, part="pack"), *others)),
    )
    packs = [
        TriedPack(Pack(f"x{k}", f"Pack {k}", shake.choice((2, 3, 4)), mah, 25.0), mah * 0.075, 2.0)
        for k, mah in enumerate(shake.uniform(450, 2200) for _ in range(20))
    ]
    motors = [
        TriedMotor(Motor(shake.uniform(1200, 2600), shake.uniform(25, 70)), f"Motor {k}", 2.0)
        for k in range(5)
    ]
    return build, packs, motors
