"""Minutes from a pack: level flight and full throttle in a stated mix, sharpened by each flight."""

from collections.abc import Sequence
from dataclasses import dataclass
from math import exp, log
from typing import Final

import numpy as np

from oaken_scale.core.model.power import Flight, Pack

USABLE: Final = 0.8
"""The share of what a pack holds that is flown."""

NOMINAL_V_PER_CELL: Final = 3.7
"""What a pack gives on the average of its charge [V per cell]."""

LEVEL_OVER_STALL: Final = 1.4
"""Level flight is so many times as fast as the stall."""

EFFICIENCY: Final = 0.42
EFFICIENCY_SD: Final = 0.04
"""How much of the pack's power drives the plane, propeller included."""

GLIDE_RATIO: Final = {
    "biplane": 5.0,
    "sailplane": 10.0,
    "glider": 8.0,
    "flying-wing": 7.0,
    "delta": 4.5,
}
"""How far a layout glides for its height, where it is not the usual one."""

USUAL_GLIDE_RATIO: Final = 6.0
GLIDE_RATIO_SD: Final = 0.2
"""One sigma of a layout's glide ratio, as a fraction."""

HELD_LEVEL_SD: Final = 0.10
"""One sigma of the power of the throttle that held level, as a fraction."""

SHARE_SD: Final = 0.3
"""How far the share that is really flown at full throttle lies from the stated one, one sigma as a
fraction of it."""

FLOWN_SD: Final = 0.10
"""How far the power of one flight lies from that of all, one sigma as a fraction."""

EMPTIED_SD: Final = 0.15
"""How far what a flight took lies from the usual share, where nobody read the charger."""

FEWEST_FLIGHTS: Final = 4
FELL: Final = 0.10
"""A pack whose minutes fell by more than this share over its flights is told of."""

SURE: Final = 2.0
"""And by so many sigma."""

GRAVITY: Final = 9.80665
"""[m/s2]."""


@dataclass(frozen=True, slots=True)
class LevelPower:
    """The power of level flight [W] at a mass [g], one sigma as a fraction."""

    watts: float
    sd: float
    mass_g: float

    def at(self, mass_g: float) -> float:
        """The same at another mass [W]: it goes with the mass to the power of 1.5.

        >>> round(LevelPower(40.0, 0.2, 500.0).at(600.0), 1)
        52.6
        """
        return float(self.watts * (mass_g / self.mass_g) ** 1.5)


@dataclass(frozen=True, slots=True)
class Endurance:
    """Minutes of flight, one sigma, the power of level flight [W], and of how many ``flights``
    they are told."""

    minutes: float
    minutes_sd: float
    level_w: float
    flights: int


@dataclass(frozen=True, slots=True)
class TiredPack:
    """A pack whose minutes ``fell`` by a share over so many flights."""

    pack: str
    flights: int
    fell: float


def level_power(layout: str, mass_g: float, stall_mps: float) -> LevelPower:
    """The power of level flight by layout: drag ``M g/(L/D)`` at 1.4 times the stall, over how much
    of the pack's power drives the plane.

    Source: docs/methods.md, section 10.

    >>> round(level_power("trainer", 590.0, 6.26).watts, 1)
    20.1
    """
    glide = GLIDE_RATIO.get(layout, USUAL_GLIDE_RATIO)
    watts = mass_g / 1000 * GRAVITY / glide * LEVEL_OVER_STALL * stall_mps / EFFICIENCY
    return LevelPower(watts, (GLIDE_RATIO_SD**2 + (EFFICIENCY_SD / EFFICIENCY) ** 2) ** 0.5, mass_g)


def held_level(level: LevelPower, watts: float, watts_sd: float) -> LevelPower:
    """Level flight with what the throttle that held level draws [W], one sigma, at the same mass:
    both weighed by their doubt, in the logarithm.

    >>> found = held_level(LevelPower(20.0, 0.2, 590.0), 30.0, 0.0)
    >>> round(found.watts, 1), round(found.sd, 3)
    (27.7, 0.089)
    """
    seen = (HELD_LEVEL_SD**2 + (watts_sd / watts) ** 2) ** 0.5
    tells = 1 / level.sd**2 + 1 / seen**2
    mean = (log(level.watts) / level.sd**2 + log(watts) / seen**2) / tells
    return LevelPower(exp(mean), tells**-0.5, level.mass_g)


def usable_wh(pack: Pack) -> float:
    """What is flown of a pack [Wh].

    >>> round(usable_wh(Pack("p", "P", 3, 1300.0)), 2)
    11.54
    """
    return USABLE * pack.capacity_mah / 1000 * pack.cells * NOMINAL_V_PER_CELL


@dataclass(frozen=True, slots=True)
class FlownPower:
    """How many times the mixed power the flights took: the logarithm of that, one sigma, and of how
    many flights it is told."""

    log_factor: float
    sd: float
    flights: int


def unflown(level: LevelPower) -> FlownPower:
    """What is believed of a plane that never flew so.

    >>> unflown(LevelPower(20.0, 0.2, 590.0))
    FlownPower(log_factor=0.0, sd=0.2, flights=0)
    """
    return FlownPower(0.0, level.sd, 0)


def flown_power(
    flights: Sequence[Flight],
    packs: dict[str, Pack],
    level: LevelPower,
    full: dict[str, tuple[float, float]],
    full_share: float,
) -> FlownPower:
    """What flights tell of the power that a plane flies with: one factor on the mix of level flight
    and full throttle (``full``: watts and one sigma by pack), normal in its logarithm.

    ``P = (mAh/1000) V_nominal 60/minutes`` of each; of a flight that nobody read the charger after,
    that it took the usual share. A pack that would be flown with no power at all tells nothing.
    Source: docs/methods.md, section 10.

    >>> from datetime import UTC, datetime
    >>> level, pack = LevelPower(20.0, 0.2, 590.0), Pack("p", "P", 3, 1300.0)
    >>> flight = Flight("f", datetime(2026, 5, 1, tzinfo=UTC), "p", 12.0, put_back_mah=900.0)
    >>> found = flown_power([flight], {"p": pack}, level, {"p": (140.0, 8.0)}, 0.2)
    >>> round(exp(found.log_factor), 2), round(found.sd, 3), found.flights
    (1.1, 0.088, 1)
    """
    full = {
        pack: each
        for pack, each in full.items()
        if mixed_w(level, level.mass_g, each[0], full_share) > 0
    }
    spread = [mixed_sd(level, level.mass_g, each, full_share) for each in full.values()]
    before = max(spread, default=level.sd)
    tells, pull = 1 / before**2, 0.0
    told = [f for f in flights if f.set_aside is None and f.pack in full]
    for flight in told:
        pack, back = packs[flight.pack], flight.put_back_mah
        took = usable_wh(pack)
        sd = (FLOWN_SD**2 + EMPTIED_SD**2) ** 0.5
        if back is not None:
            took, sd = back / 1000 * pack.cells * NOMINAL_V_PER_CELL, FLOWN_SD
        mass = level.mass_g if flight.mass_g is None else flight.mass_g
        mix = mixed_w(level, mass, full[flight.pack][0], full_share)
        tells += 1 / sd**2
        pull += log(60 * took / flight.minutes / mix) / sd**2
    return FlownPower(pull / tells, tells**-0.5, len(told))


def mixed_w(level: LevelPower, mass_g: float, full_w: float, full_share: float) -> float:
    """The mean power of a flight [W]: level at a mass [g], and full throttle for a share of it.

    >>> mixed_w(LevelPower(20.0, 0.2, 500.0), 500.0, 100.0, 0.2)
    36.0
    """
    return (1 - full_share) * level.at(mass_g) + full_share * full_w


def mixed_sd(
    level: LevelPower, mass_g: float, full: tuple[float, float], full_share: float
) -> float:
    """One sigma of the mean power of a flight, as a fraction.

    >>> round(mixed_sd(LevelPower(20.0, 0.2, 500.0), 500.0, (100.0, 5.0), 0.2), 3)
    0.163
    """
    off = (1 - full_share) * level.at(mass_g) * level.sd
    otherwise = SHARE_SD * full_share * (full[0] - level.at(mass_g))
    spread = (off**2 + (full_share * full[1]) ** 2 + otherwise**2) ** 0.5
    return float(spread / mixed_w(level, mass_g, full[0], full_share))


def endurance(
    pack: Pack,
    mass_g: float,
    level: LevelPower,
    full: tuple[float, float],
    full_share: float,
    flown: FlownPower,
) -> Endurance | None:
    """Minutes from a pack at a mass [g]: what is flown of it over the mix, as flights found it;
    None for what weighs nothing, or less while readings contradict each other, and where no power
    is flown with: full throttle all the way of a motor that takes nothing.

    >>> pack, level = Pack("p", "P", 3, 1300.0), LevelPower(20.0, 0.2, 590.0)
    >>> told = endurance(pack, 590.0, level, (140.0, 8.0), 0.2, unflown(level))
    >>> round(told.minutes, 1), round(told.minutes_sd, 1), told.level_w
    (15.7, 2.9, 20.0)
    """
    if mass_g <= 0:
        return None
    watts = mixed_w(level, mass_g, full[0], full_share) * exp(flown.log_factor)
    if watts <= 0:
        return None
    minutes = 60 * usable_wh(pack) / watts
    sd = flown.sd if flown.flights else mixed_sd(level, mass_g, full, full_share)
    return Endurance(minutes, minutes * sd, level.at(mass_g), flown.flights)


def tired_packs(flights: Sequence[Flight]) -> tuple[TiredPack, ...]:
    """The packs whose minutes fall from flight to flight: the slope of their logarithm, its scatter
    that of flights and of these, by least squares.

    >>> from datetime import UTC, datetime
    >>> day = datetime(2026, 5, 1, tzinfo=UTC)
    >>> old = [Flight(str(k), day, "p", 10 - 0.8 * k) for k in range(6)]
    >>> [(each.pack, each.flights, round(each.fell, 2)) for each in tired_packs(old)]
    [('p', 6, 0.4)]
    """
    told = []
    for pack in dict.fromkeys(flight.pack for flight in flights):
        minutes = [f.minutes for f in flights if f.pack == pack and f.set_aside is None]
        count = len(minutes)
        if count < FEWEST_FLIGHTS:
            continue
        k = np.arange(count) - (count - 1) / 2
        y = np.log(minutes)
        slope = float(k @ y / (k @ k))
        left = y - y.mean() - slope * k
        scatter = ((4 * FLOWN_SD**2 + float(left @ left)) / (4 + count - 2)) ** 0.5
        fell = 1 - exp(slope * (count - 1))
        if fell > FELL and -slope * float(k @ k) ** 0.5 > SURE * scatter:
            told.append(TiredPack(pack, count, fell))
    return tuple(told)
