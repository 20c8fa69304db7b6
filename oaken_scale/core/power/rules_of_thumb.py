"""Rules of thumb of a drive: what such planes usually have. They warn, and block nothing."""

from dataclasses import dataclass
from enum import StrEnum
from math import inf
from typing import Final

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.power import Propeller
from oaken_scale.core.model.presets import PURPOSES
from oaken_scale.core.power.drive_train import DENSITY, GF_PER_N


class Rule(StrEnum):
    """What a rule of thumb is about."""

    THRUST_TO_WEIGHT = "thrust_to_weight"
    WATTS_PER_KG = "watts_per_kg"
    PITCH_SPEED = "pitch_speed"
    PROPELLER_ROOM = "propeller_room"


@dataclass(frozen=True, slots=True)
class RuleOfThumb:
    """A figure beside what is usual, ``low`` to ``high``, None where it has no such end; whether it
    is ``usual``. A ratio for thrust-to-weight and for the pitch speed over the stall, W/kg, and mm
    of a propeller's radius beside the room under its shaft."""

    rule: Rule
    value: float
    low: float | None
    high: float | None
    usual: bool


USUAL_RATIO: Final = {
    "sailplane": (0.3, 0.5),
    "indoor": (0.6, 1.0),
    "trainer": (0.5, 0.8),
    "park": (0.5, 0.9),
    "camera": (0.5, 0.9),
    "aerobatic": (0.9, 1.4),
}
"""Static thrust over weight by purpose."""

USUAL_WATTS_PER_KG: Final = {each.id: each.watts_per_kg for each in PURPOSES if each.watts_per_kg}
"""Power from the pack at full throttle over weight, by purpose [W/kg]."""

PITCH_OVER_STALL: Final = (2.5, 5.0)
"""The speed at which the propeller's pitch advances, over the stalling speed: with less it does not
climb, with more it stalls at rest."""


def turns_per_s(
    thrust_gf: float, motors: int, thrust_coefficient: float, diameter_mm: float
) -> float:
    """How fast a propeller turns that gives a thrust [1/s]: ``T = N C_T rho n^2 D^4``.

    >>> round(turns_per_s(684.6, 1, 0.092, 152.4), 1)
    332.3
    """
    per_turn = motors * thrust_coefficient * DENSITY * (diameter_mm / 1000) ** 4 * GF_PER_N
    return float((max(thrust_gf, 0.0) / per_turn) ** 0.5)


def rules_of_thumb(
    build: Build,
    ratio: float | None,
    watts_per_kg: float | None,
    propeller: Propeller,
    turns: float,
    stall_mps: float | None,
) -> tuple[RuleOfThumb, ...]:
    """A loadout's figures beside what is usual for its purpose; ``turns`` of the propeller [1/s].

    Source: docs/methods.md, section 10; habits among builders.

    >>> propeller = Propeller("p8", "8 by 4", 203, 102)
    >>> told = rules_of_thumb(Build("b", "B"), 0.8, 180.0, propeller, 150.0, 6.0)
    >>> [(each.rule.value, round(each.value, 2), each.usual) for each in told]
    [('pitch_speed', 2.55, True)]
    """
    told = []
    if ratio is not None and build.purpose in USUAL_RATIO:
        told.append(_beside(Rule.THRUST_TO_WEIGHT, ratio, *USUAL_RATIO[build.purpose]))
    if watts_per_kg is not None and build.purpose in USUAL_WATTS_PER_KG:
        usual = USUAL_WATTS_PER_KG[build.purpose]
        told.append(_beside(Rule.WATTS_PER_KG, watts_per_kg, *usual))
    if stall_mps:
        speed = turns * propeller.pitch_mm / 1000 / stall_mps
        told.append(_beside(Rule.PITCH_SPEED, speed, *PITCH_OVER_STALL))
    room = _room_mm(build)
    if room is not None:
        told.append(_beside(Rule.PROPELLER_ROOM, propeller.diameter_mm / 2, None, room))
    return tuple(told)


def _beside(rule: Rule, value: float, low: float | None, high: float | None) -> RuleOfThumb:
    usual = (low is None or value >= low) and (high is None or value <= high)
    return RuleOfThumb(rule, value, low, high, usual)


def _room_mm(build: Build) -> float | None:
    """From the thrust line down to the lowest thing aboard [mm]: a propeller of a longer radius
    strikes the ground before anything else does. None where no height is known."""
    if build.thrust is None or build.thrust.line_z_mm is None:
        return None
    placed = [i.station.z_mm for i in build.parts if i.station is not None and not i.retired]
    lowest = min(placed, default=inf)
    room = build.thrust.line_z_mm - lowest
    return room if 0 < room < inf else None
