"""What its drive does for each loadout: thrust, margins, minutes, and grams in hand."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from math import exp
from typing import Final

from oaken_scale.core.flight.metrics import THRUST_DOUBT
from oaken_scale.core.model.build import Build, Loadout, Thrust
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.power.drive_estimate import DriveEstimate, Predicted, estimate_drive
from oaken_scale.core.power.drive_readings import Stated
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL
from oaken_scale.core.power.point_doubts import OtherPropeller, PointDoubt

STEPS: Final = 10
"""A curve is told at so many steps of the throttle."""

CAUTION: Final = 0.8
"""From this share of what a part stands on, there is little in hand."""

USABLE: Final = 0.8
"""The share of what a pack holds that is flown."""

NOMINAL_V_PER_CELL: Final = 3.7
FULL_THROTTLE_SHARE: Final = 0.2
"""The share of a flight at full throttle; the rest is level flight."""

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

GRAVITY: Final = 9.80665


class Rated(StrEnum):
    """What a current runs through."""

    MOTOR = "motor"
    CONTROLLER = "controller"
    BURST = "burst"
    PACK = "pack"


class Rung(StrEnum):
    """Where a current stands on its ladder."""

    IN_HAND = "in hand"
    CAUTION = "little in hand"
    OVER = "over"


@dataclass(frozen=True, slots=True)
class Margin:
    """A full-throttle current beside what a part stands [A], and the rung that it stands on;
    ``seconds`` that a burst may last."""

    part: Rated
    current_a: float
    current_sd_a: float
    most_a: float
    rung: Rung
    seconds: float | None = None


@dataclass(frozen=True, slots=True)
class CurvePoint:
    """Thrust [gf] and current [A] at a throttle, one sigma each."""

    throttle: float
    thrust_gf: float
    thrust_sd_gf: float
    pack_a: float
    pack_sd_a: float


@dataclass(frozen=True, slots=True)
class LoadoutPower:
    """What the drive does with a loadout's pack and the fitted propeller.

    ``half`` and ``curve`` are with the pack half used, ``fresh`` and ``fresh_curve`` with it full:
    the margins are those of a fresh pack. ``minutes`` of level flight and full throttle mixed, one
    sigma; None without a wing. ``unbeaten``: no other loadout is lighter and lasts longer.
    """

    loadout: str
    pack: str
    propeller: str
    half: Predicted
    fresh: Predicted
    watts_per_kg: float | None
    margins: tuple[Margin, ...]
    minutes: float | None
    minutes_sd: float | None
    level_w: float | None
    curve: tuple[CurvePoint, ...]
    fresh_curve: tuple[CurvePoint, ...]
    unbeaten: bool = False


@dataclass(frozen=True, slots=True)
class Constant:
    """A constant of the drive as listings and runs tell it together, one sigma: what it was
    believed to be, and what it is."""

    name: str
    believed: float
    believed_sd: float
    value: float
    sd: float


@dataclass(frozen=True, slots=True)
class PowerTold:
    """What is told of a build's drive."""

    constants: tuple[Constant, ...]
    doubts: tuple[PointDoubt, ...]
    others: tuple[OtherPropeller, ...]
    loadouts: tuple[LoadoutPower, ...]


@recalled(keep=16)
def drive_estimate(power: Power, thrust: Thrust | None) -> DriveEstimate:
    """What runs, listings and a stated thrust tell of a drive; remembered while nobody changes
    them."""
    if thrust is None or thrust.thrust_gf <= 0:
        return estimate_drive(power)
    doubt = THRUST_DOUBT * thrust.thrust_gf if thrust.doubt_gf is None else thrust.doubt_gf
    return estimate_drive(power, stated=Stated(thrust.thrust_gf, max(doubt, 1.0)))


def pack_aboard(build: Build, loadout: Loadout | None) -> Pack | None:
    """The first of the drive's packs that flies with a loadout."""
    if build.power is None:
        return None
    aboard = {item.id for item, on in zip(build.items, build.aboard(loadout), strict=True) if on}
    return next((each for each in build.power.packs if each.item in aboard), None)


def thrust_of(build: Build, loadout: Loadout | None) -> Thrust | None:
    """A loadout's own static thrust [gf] with its pack half used, by the drive's runs and listings;
    as stated where the drive has none of the packs aboard, or no propeller.

    Its line is the stated one's.
    """
    pack, power = pack_aboard(build, loadout), build.power
    if power is None or pack is None or not power.propellers:
        return build.thrust
    found = _at_full(power, build.thrust, pack, power.propellers[0], HALF_V_PER_CELL)
    line = None if build.thrust is None else build.thrust.line_z_mm
    return Thrust(found.thrust_gf, found.thrust_sd_gf, f"{pack.name}: {found.known}", line)


@recalled(keep=64)
def _at_full(
    power: Power, thrust: Thrust | None, pack: Pack, propeller: Propeller, per_cell: float
) -> Predicted:
    return drive_estimate(power, thrust).predict(pack.id, propeller.id, 1.0, per_cell)


@recalled(keep=64)
def _curve(
    power: Power, thrust: Thrust | None, pack: Pack, propeller: Propeller, per_cell: float
) -> tuple[CurvePoint, ...]:
    told = []
    for step in range(STEPS + 1):
        at = drive_estimate(power, thrust).predict(pack.id, propeller.id, step / STEPS, per_cell)
        told.append(
            CurvePoint(step / STEPS, at.thrust_gf, at.thrust_sd_gf, at.pack_a, at.pack_sd_a)
        )
    return tuple(told)


def margins(power: Power, pack: Pack, fresh: Predicted) -> tuple[Margin, ...]:
    """Full throttle on a fresh pack beside what each part stands.

    Source: docs/methods.md, section 10: over 0.8 caution, over 1 warning.
    """
    each_a, each_sd = fresh.pack_a / power.motors, fresh.pack_sd_a / power.motors
    told = []
    if power.motor.most_a is not None:
        told.append(_margin(Rated.MOTOR, each_a, each_sd, power.motor.most_a))
    if power.controller is not None:
        told.append(_margin(Rated.CONTROLLER, each_a, each_sd, power.controller.most_a))
        if power.controller.burst_a is not None:
            burst = _margin(
                Rated.BURST, each_a, each_sd, power.controller.burst_a, power.controller.burst_s
            )
            told.append(burst)
    if pack.c_rating is not None:
        most = pack.c_rating * pack.capacity_mah / 1000
        told.append(_margin(Rated.PACK, fresh.pack_a, fresh.pack_sd_a, most))
    return tuple(told)


def _margin(
    part: Rated, current: float, sd: float, most: float, seconds: float | None = None
) -> Margin:
    share = current / most
    rung = Rung.OVER if share > 1 else Rung.CAUTION if share > CAUTION else Rung.IN_HAND
    return Margin(part, current, sd, most, rung, seconds)


def minutes(
    pack: Pack, layout: str, mass_g: float, stall_mps: float, full: Predicted
) -> tuple[float, float, float]:
    """Minutes of flight, one sigma, and the power of level flight [W].

    Drag ``M g/(L/D)`` at 1.4 times the stall, over how much of the pack's power drives the plane;
    four fifths of what the pack holds, a fifth of the time at full throttle.

    Source: docs/methods.md, section 10.
    """
    glide = GLIDE_RATIO.get(layout, USUAL_GLIDE_RATIO)
    level_w = mass_g / 1000 * GRAVITY / glide * LEVEL_OVER_STALL * stall_mps / EFFICIENCY
    level_sd = level_w * (GLIDE_RATIO_SD**2 + (EFFICIENCY_SD / EFFICIENCY) ** 2) ** 0.5
    mean_w = (1 - FULL_THROTTLE_SHARE) * level_w + FULL_THROTTLE_SHARE * full.power_w
    sd = ((1 - FULL_THROTTLE_SHARE) * level_sd) ** 2
    sd = (sd + (FULL_THROTTLE_SHARE * full.power_sd_w) ** 2) ** 0.5
    held_wh = USABLE * pack.capacity_mah / 1000 * pack.cells * NOMINAL_V_PER_CELL
    flown = 60 * held_wh / mean_w
    return flown, flown * sd / mean_w, level_w


def loadout_power(
    build: Build, loadout: Loadout | None, id: str, mass_g: float, stall_mps: float | None
) -> LoadoutPower | None:
    """What the drive does for one loadout of ``mass_g`` with a stalling speed [m/s]; None where it
    has no pack of the drive aboard, or no propeller."""
    pack, power = pack_aboard(build, loadout), build.power
    if power is None or pack is None or not power.propellers:
        return None
    propeller = power.propellers[0]
    half = _at_full(power, build.thrust, pack, propeller, HALF_V_PER_CELL)
    fresh = _at_full(power, build.thrust, pack, propeller, FULL_V_PER_CELL)
    flown = None
    if stall_mps is not None and mass_g > 0:
        flown = minutes(pack, build.layout, mass_g, stall_mps, half)
    return LoadoutPower(
        loadout=id,
        pack=pack.id,
        propeller=propeller.id,
        half=half,
        fresh=fresh,
        watts_per_kg=1000 * fresh.power_w / mass_g if mass_g > 0 else None,
        margins=margins(power, pack, fresh),
        minutes=flown[0] if flown else None,
        minutes_sd=flown[1] if flown else None,
        level_w=flown[2] if flown else None,
        curve=_curve(power, build.thrust, pack, propeller, HALF_V_PER_CELL),
        fresh_curve=_curve(power, build.thrust, pack, propeller, FULL_V_PER_CELL),
    )


def power_told(
    build: Build, masses: Sequence[tuple[str, float]], stall_mps: float | None
) -> PowerTold | None:
    """What is told of a build's drive; None where it has none. ``masses`` are each loadout's id and
    mass [g], in their order; ``stall_mps`` is the stalling speed of the heaviest."""
    if build.power is None:
        return None
    heaviest = max((mass for _, mass in masses), default=0.0)
    told: list[tuple[float, LoadoutPower]] = []
    for loadout, (id, mass) in zip(build.loadouts or (None,), masses, strict=True):
        stall = None if stall_mps is None or heaviest <= 0 else stall_mps * (mass / heaviest) ** 0.5
        found = loadout_power(build, loadout, id, mass, stall)
        if found is not None:
            told.append((mass, found))
    estimate = drive_estimate(build.power, build.thrust)
    loadouts = tuple(replace(each, unbeaten=_unbeaten(mass, each, told)) for mass, each in told)
    return PowerTold(_constants(estimate), estimate.doubts, estimate.others, loadouts)


def _unbeaten(mass: float, one: LoadoutPower, all: Sequence[tuple[float, LoadoutPower]]) -> bool:
    """Whether none of several loadouts is lighter and lasts longer than one of them."""
    if one.minutes is None or len(all) < 2:
        return False
    return not any(
        other.minutes is not None
        and grams <= mass
        and other.minutes >= one.minutes
        and (grams < mass or other.minutes > one.minutes)
        for grams, other in all
    )


def _constants(estimate: DriveEstimate) -> tuple[Constant, ...]:
    """The motor's constants, the packs' resistances and the propellers' coefficients."""
    believed = estimate.beliefs
    places = [("kv", 0), ("winding_ohm", 1), ("idle_a", 2)]
    places += [(f"pack_ohm {id}", believed.pack_at(id)) for id in believed.packs]
    for id in believed.propellers:
        at = believed.propeller_at(id)
        places += [(f"thrust_coefficient {id}", at), (f"power_coefficient {id}", at + 1)]
    return tuple(
        Constant(
            name,
            exp(believed.mean[k]),
            exp(believed.mean[k]) * float(believed.cov[k, k]) ** 0.5,
            exp(estimate.mean[k]),
            exp(estimate.mean[k]) * float(max(estimate.cov[k, k], 0.0)) ** 0.5,
        )
        for name, k in places
    )
