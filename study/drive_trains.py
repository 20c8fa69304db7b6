"""Made-up drive trains: how far a pack, a propeller or a listing that never ran can be trusted."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Final

import numpy as np

from oaken_scale.core.model.power import Motor, Pack, Power, Propeller, Run, RunPoint
from oaken_scale.core.power.drive_estimate import estimate_drive
from oaken_scale.core.power.drive_readings import beliefs
from oaken_scale.core.power.drive_train import DriveTrain, running

DAY: Final = datetime(2026, 3, 7, 15, 0, tzinfo=UTC)
DRIVE: Final = Power(
    Motor(2300.0, 28.0),
    packs=(Pack("big", "3-cell", 3, 1300.0), Pack("small", "2-cell", 2, 1300.0)),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2), Propeller("seven", "7 x 4", 177.8, 101.6)),
)
THROTTLES: Final = (0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0)
WARM: Final = 0.06
"""How far the windings' resistance rises while a run goes on, at most."""


class Truth:
    """A made-up drive train drawn from what is believed of one, and runs of it as a stand with
    errors of its own shows them."""

    def __init__(self, seed: int, drive: Power = DRIVE) -> None:
        self.drive, self.rng = drive, np.random.default_rng(seed)
        believed = beliefs(drive)
        self.x = self.rng.multivariate_normal(believed.mean, believed.cov)
        self.believed = believed

    def train(self, pack: str, propeller: str, per_cell: float) -> DriveTrain:
        """The true train with a pack, rested at so many volts a cell, and a propeller."""
        x, at = np.exp(self.x), self.believed.pack_at(pack)
        blade = self.believed.propeller_at(propeller)
        cells = next(each.cells for each in self.drive.packs if each.id == pack)
        size = next(each.diameter_mm for each in self.drive.propellers if each.id == propeller)
        rest = cells * (per_cell + self.x[at + 1])
        return DriveTrain(
            x[0], x[1], x[2], x[blade], x[blade + 1], size, x[at], x[3], rest, 1, x[4]
        )

    def run(self, pack: str = "big", propeller: str = "six", id: str = "r") -> Run:
        """A run as the stand shows it: its errors, a throttle known to 1.5 %, windings that warm
        up."""
        points, stand, ammeter = [], 1 + self.x[5], 1 + self.x[6]
        for n, throttle in enumerate(THROTTLES):
            k = min(max(throttle + self.rng.normal(0, 0.015), 0), 1.02)
            train = self.train(pack, propeller, 4.2)
            warm = 1 + WARM * n / len(THROTTLES)
            true = running(replace(train, winding_ohm=warm * train.winding_ohm), k)
            thrust = stand * true.thrust_gf + self.rng.normal(0, 1 + 0.01 * true.thrust_gf)
            amps = ammeter * true.pack_a + self.rng.normal(0, 0.1 + 0.02 * true.pack_a)
            volts = true.pack_v + self.rng.normal(0, 0.05)
            points.append(RunPoint(throttle, max(thrust, 0.0), max(amps, 0.0), volts))
        return Run(id, DAY, pack, propeller, tuple(points))

    def full(self, pack: str, propeller: str) -> tuple[float, float]:
        """Thrust and current at full throttle, with what no model knows."""
        true = running(self.train(pack, propeller, 3.85), 1.0)
        return (
            true.thrust_gf * (1 + self.rng.normal(0, 0.02)),
            true.pack_a * (1 + self.rng.normal(0, 0.03)),
        )


@dataclass(frozen=True, slots=True)
class Trusted:
    """How often the truth lay within 2u, and how far off it was, in the middle, as a fraction."""

    thrust_within: float
    current_within: float
    thrust_off: float
    current_off: float


def predictions(
    seeds: Iterable[int], pack: str, propeller: str, runs: bool, drive: Power = DRIVE
) -> Trusted:
    """Full throttle with a pack and a propeller, predicted from one run of the three-cell pack with
    the smaller propeller, or from the listings alone."""
    within, off = [], []
    for seed in seeds:
        truth = Truth(seed, drive)
        told = estimate_drive(replace(drive, runs=(truth.run(),) if runs else ()))
        thrust, amps = truth.full(pack, propeller)
        found = told.predict(pack, propeller)
        within.append(
            (
                abs(found.thrust_gf - thrust) <= 2 * found.thrust_sd_gf,
                abs(found.pack_a - amps) <= 2 * found.pack_sd_a,
            )
        )
        off.append((abs(found.thrust_gf / thrust - 1), abs(found.pack_a / amps - 1)))
    return Trusted(
        *(float(each) for each in np.mean(within, axis=0)),
        *(float(each) for each in np.median(off, axis=0)),
    )


ASKED: Final = (
    ("another pack, from one run", "small", "six", True),
    ("another propeller, from one run", "big", "seven", True),
    ("no run at all", "big", "six", False),
)


def print_table(trains: int) -> None:
    """Print how far each kind of prediction can be trusted."""
    print(f"\n{trains} made-up drive trains, full throttle on a pack half used:")
    print("| predicted | thrust within 2u | current within 2u | thrust off | current off |")
    print("|---|---|---|---|---|")
    for name, pack, propeller, runs in ASKED:
        told = predictions(range(trains), pack, propeller, runs)
        print(
            f"| {name} | {100 * told.thrust_within:.1f} % | {100 * told.current_within:.1f} % "
            f"| {100 * told.thrust_off:.1f} % | {100 * told.current_off:.1f} % |"
        )
