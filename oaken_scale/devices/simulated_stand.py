"""A stand-in thrust stand: throttle, thrust, a pack that sags and empties, windings that warm."""

import math
import random
from dataclasses import replace
from typing import Final

from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack
from oaken_scale.core.power.drive_readings import rest_v
from oaken_scale.core.power.drive_train import DriveTrain, running

SPIN_UP_S: Final = 0.25
"""Time constant with which the propeller follows the throttle [s]."""

WARMING_S: Final = 25.0
WARM_OHM: Final = 0.08
"""Windings gain up to so much resistance, as a fraction of it, with this time constant [s]."""

THRUST_NOISE: Final = 0.006
CURRENT_NOISE: Final = 0.01
VOLT_NOISE: Final = 0.02


class SimulatedStand:
    """A stand with a hidden motor on it, read at times of the caller's clock [s].

    It speaks the lines of :mod:`oaken_scale.devices.stand_line`.
    """

    def __init__(self, train: DriveTrain, pack: Pack, seed: int = 0) -> None:
        """Set it up, the motor at rest and the pack fresh; ``train`` is what nobody is told."""
        self._train, self._pack = train, pack
        self._random = random.Random(seed)
        self._asked = self._turning = self._drawn_mah = self._warm = 0.0
        self._now: float | None = None

    def throttle(self, setting: float) -> None:
        """Set the throttle, 0 to 1."""
        self._asked = min(max(setting, 0.0), 1.0)

    def line(self, now_s: float) -> str:
        """The line that it sends at a time [s], which never runs backwards."""
        elapsed = 0.0 if self._now is None else max(now_s - self._now, 0.0)
        self._now = now_s
        self._turning += (self._asked - self._turning) * (1 - math.exp(-elapsed / SPIN_UP_S))
        if abs(self._asked - self._turning) < 0.002:
            self._turning = self._asked
        rest = self._pack.cells * rest_v(FULL_V_PER_CELL, self._pack, self._drawn_mah)
        warm = self._train.winding_ohm * (1 + WARM_OHM * self._warm)
        shown = running(replace(self._train, rest_v=rest, winding_ohm=warm), self._turning)
        self._drawn_mah += shown.pack_a * elapsed / 3.6
        self._warm += (self._turning - self._warm) * (1 - math.exp(-elapsed / WARMING_S))
        thrust = shown.thrust_gf * self._about(THRUST_NOISE)
        amps = shown.pack_a * self._about(CURRENT_NOISE)
        volts = shown.pack_v + self._random.gauss(0.0, VOLT_NOISE)
        return (
            f"throttle {100 * self._asked:.0f} % thrust {max(thrust, 0.0):.0f} g"
            f" {max(amps, 0.0):.2f} A {volts:.2f} V {self._drawn_mah:.0f} mAh\r\n"
        )

    def _about(self, noise: float) -> float:
        return 1 + self._random.gauss(0.0, noise)
