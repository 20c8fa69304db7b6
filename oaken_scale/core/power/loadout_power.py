"""What its drive does for each loadout: thrust, margins, heat, minutes, and what is usual."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp
from typing import Final

from oaken_scale.core.flight.equipment import drive_lacks
from oaken_scale.core.flight.verdict import Missing
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.kind_named import names_a_drive_pack
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import TargetKind, Thrust
from oaken_scale.core.power.as_named import capacity_named, cells_named
from oaken_scale.core.power.drive_aboard import (
    _estimate,
    as_measured,
    at_full,
    drive_estimate,
    pack_aboard,
)
from oaken_scale.core.power.drive_estimate import DriveEstimate, Predicted
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL
from oaken_scale.core.power.flight_time import (
    FlownPower,
    LevelPower,
    TiredPack,
    endurance,
    flown_power,
    held_level,
    level_power,
    tired_packs,
)
from oaken_scale.core.power.margins import CellMargin, Heat, Margin, cell_margins, heats, margins
from oaken_scale.core.power.point_doubts import OtherPropeller, PointDoubt, PointFit
from oaken_scale.core.power.rules_of_thumb import RuleOfThumb, rules_of_thumb, turns_per_s

STEPS: Final = 10
"""A curve is told at so many steps of the throttle."""


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
    the margins are those of a fresh pack, and so is the heat. ``minutes`` of level flight and full
    throttle mixed, one sigma, as so many ``flights`` found it; None without a wing. ``asked_gf`` is
    the thrust that its target of thrust-to-weight asks. ``unbeaten``: no other loadout is lighter
    and lasts longer.
    """

    loadout: str
    pack: str
    propeller: str
    half: Predicted
    fresh: Predicted
    watts_per_kg: float | None
    margins: tuple[Margin, ...]
    cells: tuple[CellMargin, ...]
    heat: tuple[Heat, ...]
    rules: tuple[RuleOfThumb, ...]
    minutes: float | None
    minutes_sd: float | None
    level_w: float | None
    flights: int
    curve: tuple[CurvePoint, ...]
    fresh_curve: tuple[CurvePoint, ...]
    asked_gf: float | None = None
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
class UnlistedPack:
    """A part that is a pack and not listed with the drive: its cells and what it holds [mAh], as
    far as its name says them."""

    part: str
    cells: int | None
    capacity_mah: float | None


@dataclass(frozen=True, slots=True)
class UntoldPower:
    """A loadout for which the drive is not told yet, and for want of what."""

    loadout: str
    missing: Missing


@dataclass(frozen=True, slots=True)
class PowerTold:
    """What is told of a build's drive for each loadout, or why not, and the packs of its parts that
    are ``unlisted`` with it."""

    constants: tuple[Constant, ...]
    doubts: tuple[PointDoubt, ...]
    others: tuple[OtherPropeller, ...]
    fits: tuple[PointFit, ...]
    loadouts: tuple[LoadoutPower, ...]
    tired: tuple[TiredPack, ...]
    unlisted: tuple[UnlistedPack, ...]
    untold: tuple[UntoldPower, ...]


@recalled(keep=64)
def _curve(
    power: Power, thrust: Thrust | None, pack: Pack, propeller: Propeller, per_cell: float
) -> tuple[CurvePoint, ...]:
    throttles = [step / STEPS for step in range(STEPS + 1)]
    asks = [(pack.id, propeller.id, throttle, per_cell) for throttle in throttles]
    told = _estimate(power, thrust).predict_all(asks)
    return tuple(
        CurvePoint(throttle, at.thrust_gf, at.thrust_sd_gf, at.pack_a, at.pack_sd_a)
        for throttle, at in zip(throttles, told, strict=True)
    )


@dataclass(frozen=True, slots=True)
class Aboard:
    """A loadout that carries a pack of the drive: its id, its mass [g]."""

    loadout: str
    mass_g: float
    pack: Pack


def loadout_power(
    build: Build,
    power: Power,
    one: Aboard,
    stall_mps: float | None,
    level: LevelPower | None,
    flown: FlownPower | None,
) -> LoadoutPower:
    """What the drive does for one loadout with its stalling speed [m/s], as level flight and the
    flights have it; the drive has a propeller.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> one = Aboard("as listed", 590.0, drive.packs[0])
    >>> told = loadout_power(build, drive, one, None, None, None)
    >>> told.minutes, round(told.half.thrust_gf), len(told.curve)
    (None, 972, 11)
    """
    pack, propeller, mass = one.pack, power.propellers[0], one.mass_g
    still = as_measured(power)
    half = at_full(power, build.thrust, pack, propeller, HALF_V_PER_CELL)
    fresh = at_full(power, build.thrust, pack, propeller, FULL_V_PER_CELL)
    lasts = None
    if level is not None and flown is not None:
        full = (half.power_w, half.power_sd_w)
        lasts = endurance(pack, mass, level, full, power.full_share, flown)
    estimate = _estimate(still, build.thrust)
    turns = turns_per_s(
        half.thrust_gf,
        power.motors,
        exp(estimate.mean[estimate.beliefs.propeller_at(propeller.id)]),
        propeller.diameter_mm,
    )
    watts_per_kg = 1000 * fresh.power_w / mass if mass > 0 else None
    ratio = half.thrust_gf / mass if mass > 0 else None
    return LoadoutPower(
        loadout=one.loadout,
        pack=pack.id,
        propeller=propeller.id,
        half=half,
        fresh=fresh,
        watts_per_kg=watts_per_kg,
        margins=margins(power, pack, fresh),
        cells=cell_margins(power, pack),
        heat=heats(power, pack, fresh, _run_currents(still, build.thrust)),
        rules=rules_of_thumb(build, ratio, watts_per_kg, propeller, turns, stall_mps),
        minutes=lasts.minutes if lasts else None,
        minutes_sd=lasts.minutes_sd if lasts else None,
        level_w=lasts.level_w if lasts else None,
        flights=lasts.flights if lasts else 0,
        curve=_curve(still, build.thrust, pack, propeller, HALF_V_PER_CELL),
        fresh_curve=_curve(still, build.thrust, pack, propeller, FULL_V_PER_CELL),
        asked_gf=next(
            (
                target.low * mass
                for target in build.targets
                if target.kind is TargetKind.THRUST_TO_WEIGHT and target.low
            ),
            None,
        ),
    )


@recalled(keep=16)
def _run_currents(power: Power, thrust: Thrust | None) -> dict[str, float]:
    """The largest current of each run [A]: as read, or as predicted at its most throttle."""
    told = {}
    for run in power.runs:
        read = [point.pack_a for point in run.points if point.pack_a is not None]
        most = max((point.throttle for point in run.points), default=0.0)
        if not read and most > 0:
            at = _estimate(power, thrust).predict(
                run.pack, run.propeller, most, run.rest_v_per_cell
            )
            read = [at.pack_a]
        told[run.id] = max(read, default=0.0)
    return told


def power_told(
    build: Build, masses: Sequence[tuple[str, float]], stall_mps: float | None
) -> PowerTold | None:
    """What is told of a build's drive; None where it has none. ``masses`` are each loadout's id and
    mass [g], in their order; ``stall_mps`` is the stalling speed of the heaviest.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> (told,) = power_told(build, [("as listed", 590.0)], 6.26).loadouts
    >>> round(told.watts_per_kg), round(told.minutes), told.flights
    (468, 12, 0)
    """
    power = build.power
    if power is None:
        return None
    flying = _flying(build, power, masses)
    level, flown = how_it_flies(build, masses, stall_mps)
    told = [
        (
            one.mass_g,
            loadout_power(build, power, one, _stall(one.mass_g, masses, stall_mps), level, flown),
        )
        for one in flying
    ]
    estimate = drive_estimate(power, build.thrust)
    return PowerTold(
        _constants(estimate),
        estimate.doubts,
        estimate.others,
        estimate.fits,
        tuple(replace(each, unbeaten=_unbeaten(mass, each, told)) for mass, each in told),
        tired_packs(power.flights),
        unlisted_packs(build),
        _untold(build, [loadout for loadout, _ in masses]),
    )


def unlisted_packs(build: Build) -> tuple[UnlistedPack, ...]:
    """The parts that are packs of a drive by their names and not listed with it yet.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack 3S", Pedigree.LISTING, stated_g=120.0)
    >>> unlisted_packs(Build("b", "B", parts=(part,), power=Power(Motor(1400, 60))))
    (UnlistedPack(part='pack', cells=3, capacity_mah=None),)
    """
    listed = {pack.part for pack in build.power.packs} if build.power else set()
    return tuple(
        UnlistedPack(part.id, cells_named(part.name), capacity_named(part.name))
        for part in build.parts
        if not part.retired and names_a_drive_pack(part.name) and part.id not in listed
    )


def how_it_flies(
    build: Build, masses: Sequence[tuple[str, float]], stall_mps: float | None
) -> tuple[LevelPower | None, FlownPower | None]:
    """Level flight by the first loadout that carries a pack of the drive, and what the flights made
    of it; None without a wing, a drive, or such a loadout. Arguments as of :func:`power_told`.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> level, flown = how_it_flies(build, [("as listed", 590.0)], 6.26)
    >>> round(level.watts, 1), flown.flights
    (20.1, 0)
    """
    power = build.power
    flying = [] if power is None else _flying(build, power, masses)
    flying = [each for each in flying if each.mass_g > 0]
    if power is None or not flying:
        return None, None
    one = flying[0]
    level = _level(build, power, one, _stall(one.mass_g, masses, stall_mps))
    return level, _flown(build, power, level)


def _flying(build: Build, power: Power, masses: Sequence[tuple[str, float]]) -> list[Aboard]:
    """The loadouts that carry a pack of the drive, where it has a propeller."""
    flying = []
    for loadout, (id, mass) in zip(build.loadouts or (None,), masses, strict=True):
        pack = pack_aboard(build, loadout)
        if pack is not None and power.propellers:
            flying.append(Aboard(id, mass, pack))
    return flying


def _untold(build: Build, loadouts: Sequence[str]) -> tuple[UntoldPower, ...]:
    lacks = (drive_lacks(build, build.aboard(one)) for one in build.loadouts or (None,))
    named = zip(loadouts, lacks, strict=True)
    return tuple(UntoldPower(loadout, missing) for loadout, missing in named if missing)


def _stall(
    mass_g: float, masses: Sequence[tuple[str, float]], stall_mps: float | None
) -> float | None:
    """The stalling speed at a mass [m/s]: it goes with its root, from that of the heaviest."""
    heaviest = max((mass for _, mass in masses), default=0.0)
    if stall_mps is None or heaviest <= 0 or mass_g <= 0:
        return None
    return float(stall_mps * (mass_g / heaviest) ** 0.5)


def _level(build: Build, power: Power, one: Aboard, stall_mps: float | None) -> LevelPower | None:
    """Level flight as a loadout flies it, by its layout and the throttle that held level with it;
    None without a wing or a mass."""
    if stall_mps is None or one.mass_g <= 0:
        return None
    level = level_power(build.layout, one.mass_g, stall_mps)
    if power.level_throttle is None:
        return level
    held = drive_estimate(power, build.thrust).predict(
        one.pack.id, power.propellers[0].id, power.level_throttle, HALF_V_PER_CELL
    )
    return held_level(level, held.power_w, held.power_sd_w) if held.power_w > 0 else level


def _flown(build: Build, power: Power, level: LevelPower | None) -> FlownPower | None:
    if level is None:
        return None
    full = {}
    for pack in power.packs:
        at = at_full(power, build.thrust, pack, power.propellers[0], HALF_V_PER_CELL)
        full[pack.id] = (at.power_w, at.power_sd_w)
    packs = {pack.id: pack for pack in power.packs}
    return flown_power(power.flights, packs, level, full, power.full_share)


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
