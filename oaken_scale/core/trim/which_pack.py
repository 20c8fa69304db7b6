"""Which pack, which motor: all that might fly, tried on this plane, its balance included."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.flying import Flying, aboard_of
from oaken_scale.core.flight.metrics.power_loading import KG_PER_G
from oaken_scale.core.geometry.proportions import proportions
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.kind_named import names_a_motor
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.power import FULL_V_PER_CELL, Motor, Pack, Power
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.power.drive_aboard import drive_estimate, pack_aboard
from oaken_scale.core.power.drive_estimate import DriveEstimate, HowKnown, estimate_drive
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL
from oaken_scale.core.power.flight_time import FlownPower, LevelPower, endurance, unflown
from oaken_scale.core.power.loadout_power import how_it_flies
from oaken_scale.core.power.margins import Rung, cell_margins, margins
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.remedies import balanceable, fine_range
from oaken_scale.core.trim.remedy import Balanceable
from oaken_scale.core.trim.tried import TriedMotor, TriedPack

TRIED: Final = "tried-"
"""What the ids of packs that are only tried begin with."""


class Balances(StrEnum):
    """Whether a plane can be brought into its range."""

    AS_IT_IS = "as it is"
    BY_MOVING = "by moving"
    WITH_BALLAST = "with ballast"
    NOT = "not"
    UNKNOWN = "unknown"


@dataclass(frozen=True, slots=True)
class Balancing:
    """How a plane is brought into its range, narrowed by its doubt: what moving the pack alone
    takes [mm, aft is more], None where more must move; or the ballast [g]; or how far short all
    moves fall [mm]."""

    how: Balances
    pack_mm: float | None = None
    ballast_g: float | None = None
    short_mm: float | None = None


@dataclass(frozen=True, slots=True)
class TriedDrive:
    """A pack and a motor on this plane: the four answers with one sigma, the current of a fresh
    pack, the worst rung of its ladders, minutes, which targets it would break, and whether nothing
    else of these is lighter and lasts longer. ``motor`` is None for the one that flies."""

    pack: str
    thing: str | None
    motor: str | None
    motor_thing: str | None
    loadouts: tuple[str, ...]
    auw_g: float
    auw_sd_g: float
    wing_loading: float | None
    thrust_to_weight: float
    thrust_to_weight_sd: float
    known: HowKnown
    pack_a: float
    pack_sd_a: float
    rung: Rung
    minutes: float | None
    minutes_sd: float | None
    breaks: tuple[TargetKind, ...]
    balance: Balancing
    unbeaten: bool = False


@dataclass(frozen=True, slots=True, eq=False)
class _Plane:
    """A loadout with its pack taken off, and its motors where others are tried: mass, one sigma
    [g], the mass of what has a place [g] and its moment [g mm]; the places of both, and how far the
    rest may be moved [g mm] either way."""

    mass_g: float
    sd_g: float
    placed_g: float
    moment: float
    pack_x: float | None
    motor_x: float | None
    pack_slide: tuple[float, float]
    least: float
    most: float
    aboard: Vector


def which_pack(
    build: Build,
    loadout: Loadout | None,
    packs: Sequence[TriedPack],
    motors: Sequence[TriedMotor] = (),
) -> tuple[TriedDrive, ...]:
    """Every pack with every motor in the place of a loadout's own, the packs of the drive that are
    parts among them; none where the drive has no propeller, or the loadout no pack, nor one with
    which the plane would weigh less than nothing (its readings contradict each other).

    Runs of the motor that flies speak of that motor alone. Moves are those allowed, for this
    loadout. Source: docs/methods.md, sections 5a and 10.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.power import Motor, Power, Propeller
    >>> own = Part("pack", "Pack", Pedigree.LISTING, stated_g=106.0, station=Station(210.0))
    >>> rest = Part("rest", "Rest", Pedigree.GUESS, stated_g=480.0, station=Station(260.0))
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "1300", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(own, rest), power=drive)
    >>> large = TriedPack(Pack("x", "2200", 3, 2200), 170.0, 4.0)
    >>> [(each.pack, round(each.auw_g)) for each in which_pack(build, None, [large])]
    [('1300', 586), ('2200', 650)]
    """
    power, now = build.power, pack_aboard(build, loadout)
    if power is None or now is None or not power.propellers:
        return ()
    flown = fly(build)
    k = build.loadouts.index(loadout) if loadout is not None else 0
    plane = flown.planes[k]
    own = _own_packs(build, power, flown.after)
    tried = (*own, *packs)
    ready = balanceable(build, flown.planes, [id for id, _ in flown.names])
    masses = [(name[0], each.auw_g) for name, each in zip(flown.names, flown.planes, strict=True)]
    shape = proportions(build, flown.wing, max(mass for _, mass in masses))
    level, flights = how_it_flies(build, masses, shape.stall_speed)
    told = []
    for motor in (None, *motors):
        off = () if motor is None else motor_parts(build, power)
        bare = _bare(build, now, plane, ready, loadout, {part.id for part in off})
        estimate = _estimate(build, power, tried, motor)
        told += _with_motor(build, plane, bare, ready, k, tried, motor, estimate, level, flights)
    return tuple(replace(each, unbeaten=_unbeaten(each, told)) for each in told)


def _own_packs(build: Build, power: Power, after: Posterior) -> tuple[TriedPack, ...]:
    at = {part.id: i for i, part in enumerate(build.parts) if not part.retired}
    mass, sd = after.mass, after.sd[after.parts]
    return tuple(
        TriedPack(pack, float(mass[at[pack.part]]), float(sd[at[pack.part]]))
        for pack in power.packs
        if pack.part is not None and pack.part in at
    )


def motor_parts(build: Build, power: Power) -> tuple[Part, ...]:
    """The motors aboard, by their names: as many as the drive has, those nearest its motor's mass.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> mount = Part("m", "Motor mount", Pedigree.GUESS, stated_g=4.0)
    >>> motor = Part("n", "Motor, leads on", Pedigree.LISTING, stated_g=28.0)
    >>> plane = Build("b", "B", parts=(mount, motor))
    >>> [part.id for part in motor_parts(plane, Power(Motor(2300.0, 28.0)))]
    ['n']
    """
    named = [i for i in build.parts if names_a_motor(i.name) and not i.retired and i.stated_g]

    def off(part: Part) -> float:
        each = (part.stated_g or 0.0) / part.pieces
        return abs(np.log(each / power.motor.mass_g)) if each > 0 else np.inf

    near = sorted((part for part in named if off(part) < 0.7), key=off)
    taken: list[Part] = []
    for part in near:
        if sum(each.pieces for each in taken) < power.motors:
            taken.append(part)
    return tuple(taken)


def _bare(
    build: Build,
    now: Pack,
    plane: Flying,
    ready: Balanceable | None,
    loadout: Loadout | None,
    off: set[str],
) -> _Plane:
    aboard = aboard_of(build, loadout)
    there = np.array([part.id != now.part and part.id not in off for part in build.parts])
    mass, sd = plane.after.total(aboard * there)
    grams, x = plane.after.mass, plane.where.xyz[:, 0]
    placed = aboard * there * plane.where.placed
    moment = float(placed @ (grams * x))
    least = most = 0.0
    slide = (0.0, 0.0)
    for j, (low, high) in _slides(ready):
        if build.parts[j].id == now.part:
            slide = (min(low - x[j], 0.0), max(high - x[j], 0.0))
        elif placed[j]:
            least += float(grams[j]) * min(low - x[j], 0.0)
            most += float(grams[j]) * max(high - x[j], 0.0)
    at = {part.id: i for i, part in enumerate(build.parts)}
    motors = [at[id] for id in off if plane.where.placed[at[id]]]
    pack = at[now.part] if now.part is not None and plane.where.placed[at[now.part]] else None
    return _Plane(
        mass,
        sd,
        float(placed @ grams),
        moment,
        None if pack is None else float(x[pack]),
        float(np.mean(x[motors])) if motors else None,
        slide,
        least,
        most,
        aboard * there,
    )


def _slides(ready: Balanceable | None) -> list[tuple[int, tuple[float, float]]]:
    if ready is None:
        return []
    return [
        (j, (float(low), float(high)))
        for j, (low, high) in zip(ready.movable, ready.slide, strict=True)
    ]


def _estimate(
    build: Build, power: Power, tried: Sequence[TriedPack], motor: TriedMotor | None
) -> DriveEstimate:
    """The drive with every pack that is tried, its ids those of :func:`_id`; with another motor
    what its listing says, as no run speaks of it."""
    listed = tuple(replace(each.pack, id=_id(k), part=None) for k, each in enumerate(tried))
    fitted = power.propellers[:1]
    if motor is None:
        whole = replace(power, packs=(*power.packs, *listed))
        return drive_estimate(whole, build.thrust)
    return estimate_drive(Power(motor.motor, power.motors, propellers=fitted, packs=listed))


def _id(k: int) -> str:
    return f"{TRIED}{k}"


def _with_motor(
    build: Build,
    plane: Flying,
    bare: _Plane,
    ready: Balanceable | None,
    k: int,
    tried: Sequence[TriedPack],
    motor: TriedMotor | None,
    estimate: DriveEstimate,
    level: LevelPower | None,
    flown: FlownPower | None,
) -> list[TriedDrive]:
    power = build.power or Power(Motor(1.0, 1.0))
    fitted = power.propellers[0].id
    ids = [
        each.pack.id if motor is None and each.pack in power.packs else _id(j)
        for j, each in enumerate(tried)
    ]
    half = estimate.predict_all([(id, fitted, 1.0, HALF_V_PER_CELL) for id in ids])
    fresh = estimate.predict_all([(id, fitted, 1.0, FULL_V_PER_CELL) for id in ids])
    one = power.motor if motor is None else motor.motor
    drive = replace(power, motor=one)
    flights = flown if motor is None else None if level is None else unflown(level)
    told = []
    for j, each in enumerate(tried):
        mass, sd = _weighs(build, plane, bare, each, power.motors, motor)
        if mass <= 0:
            continue
        full = (half[j].power_w, half[j].power_sd_w)
        lasts = None
        if level is not None and flights is not None:
            lasts = endurance(each.pack, mass, level, full, power.full_share, flights)
        ratio = half[j].thrust_gf / mass
        rungs = [m.rung for m in margins(drive, each.pack, fresh[j])]
        rungs += [m.rung for m in cell_margins(drive, each.pack)]
        told.append(
            TriedDrive(
                pack=each.pack.name,
                thing=each.thing,
                motor=None if motor is None else motor.name,
                motor_thing=None if motor is None else motor.thing,
                loadouts=_flies_with(build, each.pack, motor),
                auw_g=mass,
                auw_sd_g=sd,
                wing_loading=None if plane.wing is None else mass / plane.wing.area_dm2,
                thrust_to_weight=ratio,
                thrust_to_weight_sd=_ratio_sd(ratio, half[j].thrust_sd_gf, mass, sd),
                known=half[j].known,
                pack_a=fresh[j].pack_a,
                pack_sd_a=fresh[j].pack_sd_a,
                rung=max(rungs, key=list(Rung).index, default=Rung.IN_HAND),
                minutes=lasts.minutes if lasts else None,
                minutes_sd=lasts.minutes_sd if lasts else None,
                breaks=_breaks(build, plane, mass, ratio, fresh[j].power_w),
                balance=_balancing(bare, ready, k, each.mass_g, mass),
            )
        )
    return told


def _weighs(
    build: Build,
    plane: Flying,
    bare: _Plane,
    pack: TriedPack,
    motors: int,
    motor: TriedMotor | None,
) -> tuple[float, float]:
    """The mass with a pack and so many motors, one sigma [g]: of a part of the build as the ledger
    has the two together."""
    at = next((i for i, part in enumerate(build.parts) if part.id == pack.pack.part), None)
    if motor is None and at is not None:
        aboard = bare.aboard.copy()
        aboard[at] = 1.0
        return plane.after.total(aboard)
    mass = bare.mass_g + pack.mass_g
    if motor is None:
        return mass, float((bare.sd_g**2 + pack.doubt_g**2) ** 0.5)
    doubt = (bare.sd_g**2 + pack.doubt_g**2 + (motors * motor.doubt_g) ** 2) ** 0.5
    return mass + motors * motor.motor.mass_g, float(doubt)


def _ratio_sd(ratio: float, thrust_sd: float, mass: float, mass_sd: float) -> float:
    return float(((thrust_sd / mass) ** 2 + (ratio * mass_sd / mass) ** 2) ** 0.5)


def _flies_with(build: Build, pack: Pack, motor: TriedMotor | None) -> tuple[str, ...]:
    """The loadouts that fly just this already."""
    if motor is not None or pack.part is None:
        return ()
    return tuple(each.id for each in build.loadouts if pack_aboard(build, each) == pack)


def _breaks(
    build: Build, plane: Flying, mass: float, ratio: float, watts: float
) -> tuple[TargetKind, ...]:
    """The targets that weight, thrust and power would rather miss than meet."""
    area = None if plane.wing is None else plane.wing.area_dm2
    values = {
        TargetKind.AUW: mass,
        TargetKind.WING_LOADING: None if area is None else mass / area,
        TargetKind.THRUST_TO_WEIGHT: ratio,
        TargetKind.POWER_LOADING: watts / (mass * KG_PER_G),
    }
    return tuple(
        target.kind
        for target in build.targets
        if (value := values.get(target.kind)) is not None
        and (
            (target.high is not None and value > target.high)
            or (target.low is not None and value < target.low)
        )
    )


def _balancing(
    bare: _Plane,
    ready: Balanceable | None,
    k: int,
    pack_g: float,
    mass: float,
) -> Balancing:
    """Whether moves, or ballast at an allowed spot, bring the CG into its narrowed range.

    All is linear in the moment: what may move adds ``m (x' - x)``, each within its own range.
    """
    if ready is None or bare.pack_x is None:
        return Balancing(Balances.UNKNOWN)
    motor_g = mass - bare.mass_g - pack_g
    motor_x = bare.motor_x if bare.motor_x is not None else bare.moment / max(bare.placed_g, 1e-9)
    moment = bare.moment + pack_g * bare.pack_x + motor_g * motor_x
    # What has no place sits where all the rest of the plane balances.
    mass = bare.placed_g + pack_g + motor_g
    low, high = float(ready.low[k]), float(ready.high[k])
    fine_low, fine_high = fine_range(ready, k)
    x = moment / mass
    if fine_low <= x <= fine_high:
        return Balancing(Balances.AS_IT_IS)
    needs = mass * (low - x if x < low else high - x)
    alone = needs / pack_g
    if bare.pack_slide[0] <= alone <= bare.pack_slide[1]:
        return Balancing(Balances.BY_MOVING, pack_mm=alone)
    reach = bare.least if needs < 0 else bare.most
    reach += pack_g * bare.pack_slide[0 if needs < 0 else 1]
    farthest = (moment + reach) / mass
    if abs(reach) >= abs(needs) or fine_low <= farthest <= fine_high:
        return Balancing(Balances.BY_MOVING)
    return _with_ballast(ready, mass, moment + reach, low if needs > 0 else high)


def _with_ballast(ready: Balanceable, mass: float, moment: float, edge: float) -> Balancing:
    """The least ballast at one allowed spot that brings a CG to the edge of its range, pieces left
    aside; how far short it falls where no spot bears so much."""
    short = moment / mass - edge
    least: Vector = np.array(
        [
            grams
            for spot in ready.spots
            if (edge - spot.x_mm) * short > 0
            and (grams := (moment - mass * edge) / (edge - spot.x_mm)) <= spot.most_g
        ]
    )
    if len(least):
        return Balancing(Balances.WITH_BALLAST, ballast_g=float(least.min()))
    return Balancing(Balances.NOT, short_mm=abs(short))


def _unbeaten(one: TriedDrive, all: Sequence[TriedDrive]) -> bool:
    """Whether none of several choices that can be balanced is lighter and lasts longer."""
    if one.minutes is None or one.balance.how is Balances.NOT or len(all) < 2:
        return False
    return not any(
        other.minutes is not None
        and other.balance.how is not Balances.NOT
        and other.auw_g <= one.auw_g
        and other.minutes >= one.minutes
        and (other.auw_g < one.auw_g or other.minutes > one.minutes)
        for other in all
    )
