"""What one more thing would cost: some grams more, and perhaps a larger wing, on one loadout."""

from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.headroom import Headroom, headroom
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.geometry.proportions import proportions
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.power import FULL_V_PER_CELL
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.power.drive_aboard import at_full, pack_aboard
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL
from oaken_scale.core.power.flight_time import LevelPower, endurance
from oaken_scale.core.power.loadout_power import how_it_flies
from oaken_scale.core.trim.flown import fly


@dataclass(frozen=True, slots=True)
class Cost:
    """A loadout with so much more aboard: the answers that weight moves, minutes, W/kg at full
    throttle, and what it might still gain, each target with its chance."""

    auw_g: float
    wing_loading: float | None
    thrust_to_weight: float | None
    minutes: float | None
    watts_per_kg: float | None
    headroom: tuple[Headroom, ...]


ANOTHER_WING: Final = 0.85
"""A plane glides so much less far with another wing beside its own, over the same lift."""


def one_more(
    build: Build, loadout: Loadout | None, grams: float, wing_dm2: float = 0.0
) -> tuple[Cost, Cost]:
    """A loadout as it is, and with ``grams`` more at its CG and ``wing_dm2`` more of wing.

    Level power goes with the mass to the power of 1.5 and against the root of the area; a second
    wing lowers how far it glides. Source: docs/methods.md, section 10.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> plane = Build("b", "B", parts=(Part("w", "Wing", Pedigree.GUESS, stated_g=400.0),))
    >>> [each.auw_g for each in one_more(plane, None, 60.0)]
    [400.0, 460.0]
    """
    flown = fly(build)
    k = build.loadouts.index(loadout) if loadout is not None else 0
    masses = [(name[0], each.auw_g) for name, each in zip(flown.names, flown.planes, strict=True)]
    stall = proportions(build, flown.wing, max(mass for _, mass in masses)).stall_speed
    level, flights = how_it_flies(build, masses, stall)
    told = []
    for more, area in ((0.0, 0.0), (grams, wing_dm2)):
        plane = _with(flown.planes[k], more, area)
        minutes = watts = None
        pack, power = pack_aboard(build, loadout), build.power
        if power is not None and pack is not None and power.propellers:
            fitted = power.propellers[0]
            half = at_full(power, build.thrust, pack, fitted, HALF_V_PER_CELL)
            fresh = at_full(power, build.thrust, pack, fitted, FULL_V_PER_CELL)
            if plane.auw_g > 0:
                watts = 1000 * fresh.power_w / plane.auw_g
            if level is not None and flights is not None:
                wider = _wider(level, flown.planes[k], area)
                full = (half.power_w, half.power_sd_w)
                lasts = endurance(pack, plane.auw_g, wider, full, power.full_share, flights)
                minutes = None if lasts is None else lasts.minutes
        answers = {kind: METRICS[kind].evaluate(plane).value for kind in _MOVED}
        told.append(
            Cost(
                plane.auw_g,
                answers[TargetKind.WING_LOADING],
                answers[TargetKind.THRUST_TO_WEIGHT],
                minutes,
                watts,
                headroom(plane),
            )
        )
    return told[0], told[1]


_MOVED = (TargetKind.WING_LOADING, TargetKind.THRUST_TO_WEIGHT)


def _with(plane: Flying, grams: float, wing_dm2: float) -> Flying:
    """A plane with more aboard and a larger wing."""
    wing = plane.wing
    if wing is not None:
        wing = replace(wing, area_dm2=wing.area_dm2 + wing_dm2)
    forms = tuple((share, mass + grams, sd) for share, mass, sd in plane.forms)
    return replace(plane, auw_g=plane.auw_g + grams, wing=wing, forms=forms)


def _wider(level: LevelPower, plane: Flying, wing_dm2: float) -> LevelPower:
    """Level flight with a larger wing."""
    if plane.wing is None or wing_dm2 <= 0:
        return level
    slower = (plane.wing.area_dm2 / (plane.wing.area_dm2 + wing_dm2)) ** 0.5
    return replace(level, watts=level.watts * slower / ANOTHER_WING)
