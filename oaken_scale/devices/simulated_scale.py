"""A stand-in scale that behaves like one: step, settling, noise, drift, tare, overload."""

import math
import random
import threading
from collections import deque
from typing import Final

from oaken_scale.devices.scale_line import ScaleLine

SETTLING_S: Final = 0.18
"""Time constant with which the pan comes to rest [s]."""

STEADY_S: Final = 0.5
"""How long the display must stay within a step to be called steady [s]."""

DRIFT_STEPS_PER_S: Final = 0.01
"""How fast the zero wanders [display steps per s]."""

DEAD_ZONE_STEPS: Final = 0.6
"""Near zero the scale holds its zero, and swallows additions smaller than this [steps]."""


class SimulatedScale:
    """A scale with a hidden error, read at times of the caller's clock [s].

    It speaks the lines of :mod:`oaken_scale.devices.scale_line`. One hand may put things on it
    while another reads it.
    """

    def __init__(
        self,
        step_g: float,
        capacity_g: float,
        error: float = 0.0,
        noise_g: float | None = None,
        seed: int = 0,
    ) -> None:
        """Set up an empty scale; ``error`` is a fraction, ``noise_g`` a third of a step if None."""
        self.step_g = step_g
        self.capacity_g = capacity_g
        self._error = error
        self._noise_g = step_g / 3 if noise_g is None else noise_g
        self._random = random.Random(seed)
        self._load_g = 0.0
        self._felt_g = 0.0
        self._zero_g = 0.0
        self._drift_g = 0.0
        self._slow_noise = 0.0
        self._now: float | None = None
        self._shown: deque[tuple[float, float]] = deque()
        self._turn = threading.Lock()

    @property
    def decimals(self) -> int:
        """How many decimals the display has."""
        return max(0, math.ceil(-math.log10(self.step_g) - 1e-9))

    def put(self, load_g: float) -> None:
        """Have this much on the pan from now on [g]; until it has come to rest it is not steady."""
        with self._turn:
            self._load_g = load_g
            self._shown.clear()

    def tare(self) -> None:
        """Take what the pan feels now as zero."""
        with self._turn:
            self._zero_g = self._felt_g * (1 + self._error) + self._drift_g
            self._shown.clear()

    def line(self, now_s: float) -> str:
        """The line that the scale sends at a time [s], which never runs backwards."""
        with self._turn:
            return self._line(now_s)

    def _line(self, now_s: float) -> str:
        self._settle(now_s)
        if self._felt_g > self.capacity_g:
            return ScaleLine(0.0, steady=False, over=True).text(self.decimals)
        shown = self._display()
        self._shown.append((now_s, shown))
        while self._shown and self._shown[0][0] < now_s - STEADY_S:
            self._shown.popleft()
        return ScaleLine(shown, self._is_steady(now_s)).text(self.decimals)

    def _settle(self, now_s: float) -> None:
        elapsed = 0.0 if self._now is None else max(now_s - self._now, 0.0)
        self._now = now_s
        left = math.exp(-elapsed / SETTLING_S)
        self._felt_g = self._load_g + (self._felt_g - self._load_g) * left
        if abs(self._felt_g - self._load_g) < self.step_g / 50:
            self._felt_g = self._load_g
        wander = DRIFT_STEPS_PER_S * self.step_g * math.sqrt(elapsed)
        self._drift_g += self._random.gauss(0.0, wander) if elapsed else 0.0
        keep = math.exp(-elapsed / 2.0)
        fresh = self._random.gauss(0.0, self._noise_g) * math.sqrt(1 - keep * keep)
        self._slow_noise = self._slow_noise * keep + fresh

    def _display(self) -> float:
        net = self._felt_g * (1 + self._error) + self._drift_g - self._zero_g
        if abs(net) < DEAD_ZONE_STEPS * self.step_g:
            self._zero_g += net  # the scale takes a tiny load for its own drift and holds zero
            net = 0.0
        else:
            net += self._slow_noise
        return round(round(net / self.step_g) * self.step_g, 6) + 0.0

    def _is_steady(self, now_s: float) -> bool:
        values = [shown for _, shown in self._shown]
        long_enough = now_s - self._shown[0][0] >= STEADY_S * 0.8
        return long_enough and max(values) - min(values) <= self.step_g * 1.01
