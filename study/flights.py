"""Made-up planes that are flown: how soon the minutes that are told are those that it flies."""

import random
from dataclasses import dataclass
from datetime import UTC, datetime
from math import exp
from typing import Final

from oaken_scale.core.model.power import Flight, Pack
from oaken_scale.core.power.flight_time import (
    NOMINAL_V_PER_CELL,
    endurance,
    flown_power,
    level_power,
    usable_wh,
)

DAY: Final = datetime(2026, 5, 1, tzinfo=UTC)
PACK: Final = Pack("big", "3-cell 1300", 3, 1300.0)
FULL_W: Final = 130.0
STATED_SHARE: Final = 0.2
MASS_G, STALL_MPS = 590.0, 6.26


@dataclass(frozen=True, slots=True)
class Minutes:
    """Of many planes after so many flights: how far off the told minutes are in the median, as a
    fraction, and how often they hold the truth within 2u."""

    flights: int
    off: float
    within: float


def flown(planes: int, flights: int) -> Minutes:
    """Planes whose glide, efficiency, full power and flying are other than believed; every flight
    is flown a little otherwise, and its charger reads to 3 %."""
    level = level_power("trainer", MASS_G, STALL_MPS)
    off, within = [], 0
    for seed in range(planes):
        shake = random.Random(seed)
        level_w = level.watts * exp(shake.gauss(0, level.sd))
        full_w = FULL_W * exp(shake.gauss(0, 0.05))
        habit = min(max(shake.gauss(STATED_SHARE, 0.06), 0.02), 0.6)
        log = []
        for k in range(flights):
            share = min(max(shake.gauss(habit, 0.03), 0.0), 1.0)
            wind = exp(shake.gauss(0, 0.05))
            watts = ((1 - share) * level_w + share * full_w) * wind
            minutes = shake.uniform(0.5, 0.95) * 60 * usable_wh(PACK) / watts
            took = watts * minutes / 60 / (PACK.cells * NOMINAL_V_PER_CELL) * 1000
            back = took * exp(shake.gauss(0, 0.03))
            log.append(Flight(str(k), DAY, "big", minutes, back, MASS_G))
        full = {"big": (FULL_W, 0.05 * FULL_W)}
        found = flown_power(log, {"big": PACK}, level, full, STATED_SHARE)
        told = endurance(PACK, MASS_G, level, full["big"], STATED_SHARE, found)
        true = 60 * usable_wh(PACK) / ((1 - habit) * level_w + habit * full_w)
        off.append(abs(told.minutes / true - 1))
        within += abs(told.minutes - true) <= 2 * told.minutes_sd
    return Minutes(flights, sorted(off)[planes // 2], within / planes)


def print_flights(planes: int) -> None:
    """Print how the minutes sharpen."""
    print(f"\n{planes} made-up planes, minutes from a pack:")
    print("| flights written down | off, median | truth within 2u |")
    print("|---|---|---|")
    for flights in (0, 1, 2, 5, 10):
        told = flown(planes, flights)
        print(f"| {told.flights} | {100 * told.off:.1f} % | {100 * told.within:.1f} % |")
