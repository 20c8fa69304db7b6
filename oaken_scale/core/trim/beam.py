"""The beam: where a plane must balance, where it does, and what that means, loadout by loadout."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import is_pack
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.flight.verdict import Answer, Word, chance_below, word
from oaken_scale.core.geometry.neutral_point import BAND, NeutralPoint, neutral_point
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.balancing import SUPPORT_DOUBT_MM
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.trim.cg_ranges import (
    Arrangement,
    Quarrel,
    School,
    SchoolKind,
    arrangement,
    quarrels,
    schools,
)
from oaken_scale.core.trim.checks import CheckTold
from oaken_scale.core.trim.hung import Hung, hung
from oaken_scale.core.trim.obstacles import pulls_sideways
from oaken_scale.core.trim.unchecked import Since, unchecked_since
from oaken_scale.core.trim.unplaced import Unplaced, unplaced

ON_LINE_MM: Final = 5.0
"""A thrust line this near the CG's height does next to nothing [mm]."""

OUTSIDE_MM: Final = 0.5
"""A CG nearer to a range than this lies in it [mm]."""

SIDEWAYS_FELT_MM: Final = 3.0
"""A CG farther off the middle is felt [mm]."""


class Heavy(StrEnum):
    """Which way it tips."""

    NOSE = "nose-heavy"
    TAIL = "tail-heavy"
    NEITHER = "in its range"


class Outside(StrEnum):
    """Where a CG lies that is outside every range that applies to the plane."""

    AHEAD_OF_EDGE = "ahead of the leading edge"
    BEHIND_NEUTRAL = "behind the neutral point"
    EVERY_RANGE = "outside every range that applies"


class Flies(StrEnum):
    """Whether a loadout may fly, by its targets."""

    YES = "may fly"
    NO = "may not fly"
    UNSURE = "not sure yet"


class Checked(StrEnum):
    """Whether a loadout's balance was checked by hand."""

    NEVER = "never"
    ANOTHER_LOADOUT = "another_loadout"
    NOT_SINCE = "not_since"
    CHECKED = "checked"


@dataclass(frozen=True, slots=True)
class ByHand:
    """Whether, and with which ``loadout`` instead (None: everything aboard), ``since`` what not, or
    when last."""

    how: Checked
    loadout: str | None = None
    since: Since | None = None
    at: datetime | None = None


@dataclass(frozen=True, slots=True)
class LoadoutBalance:
    """How one loadout balances.

    ``off_mm`` is how far the CG lies outside its range, aft positive, 0 inside. ``margin`` is the
    static margin as a fraction of the MAC, one sigma with the lattice's own band. ``thrust_arm_mm``
    is how far the thrust line is above the CG, ``throttle_gm`` the moment that full
    throttle pushes the nose down with (0: next to none); ``thrust_side_mm`` how
    far to starboard of it, and ``swings`` the way that the nose goes. ``lowered_arm_mm`` and
    ``lowered_throttle_gm`` are the same with the pack 10 mm lower. ``why`` names the targets
    that keep it on the ground or unsure. ``outside`` is told next to any verdict. Where it hangs to
    one side, ``pulls`` is the part that does it, and ``tip_g`` at the light tip would hold it.
    ``hung`` is what hangs on the beam, ``unplaced`` what does not because it has no place yet.
    """

    id: str
    heavy: Heavy | None
    off_mm: float
    margin: float | None
    margin_sd: float | None
    sideways_mm: float | None
    sideways_sd_mm: float | None
    light_side: str | None
    thrust_arm_mm: float | None
    throttle_gm: float | None
    flies: Flies
    why: tuple[TargetKind, ...]
    checked: ByHand
    outside: Outside | None = None
    pulls: str | None = None
    tip_g: float | None = None
    thrust_side_mm: float | None = None
    swings: str | None = None
    lowered_arm_mm: float | None = None
    lowered_throttle_gm: float | None = None
    hung: tuple[Hung, ...] = ()
    unplaced: Unplaced | None = None


@dataclass(frozen=True, slots=True)
class HeldBy:
    """What a plane may rest on where its balance is checked, and one sigma of the place found so
    [mm]."""

    by: str
    sd_mm: float


HOLDS: Final = tuple(HeldBy(by, sd) for by, sd in SUPPORT_DOUBT_MM.items())
"""All that it may rest on."""


@dataclass(frozen=True, slots=True)
class Beam:
    """Where it must balance by each school, and where every loadout does.

    ``low_mm`` and ``high_mm`` are the target's range from the nose; ``chosen`` the school that it
    is of, None for the builder's own.
    """

    arrangement: Arrangement | None
    neutral: NeutralPoint | None
    band_mm: float | None
    low_mm: float | None
    high_mm: float | None
    chosen: SchoolKind | None
    schools: tuple[School, ...]
    quarrels: tuple[Quarrel, ...]
    loadouts: tuple[LoadoutBalance, ...]
    checks: tuple[CheckTold, ...]
    held_by: tuple[HeldBy, ...] = HOLDS


def beam(
    build: Build,
    planes: Sequence[Flying],
    answers: Sequence[tuple[Answer, ...]],
    names: Sequence[str],
    checks: tuple[CheckTold, ...],
) -> Beam:
    """Tell everything about a plane's balance.

    >>> from oaken_scale.core.flight.metrics.balance import balance
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> target = Target(TargetKind.BALANCE, 85.0, 95.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=tuple(ends), targets=(target,))
    >>> planes = fly(build).planes
    >>> told = beam(build, planes, [(balance(planes[0]),)], ["all"], ())
    >>> told.loadouts[0].heavy.value, told.loadouts[0].off_mm
    ('tail-heavy', 5.0)
    """
    wing = planes[0].wing
    neutral = neutral_point(build.surfaces) if wing else None
    told = schools(build, wing, neutral, planes[0].cg)
    target = planes[0].target(TargetKind.BALANCE)
    low, high = _range(planes[0], target)
    return Beam(
        arrangement=arrangement(build.surfaces),
        neutral=neutral,
        band_mm=BAND * wing.mac_mm if wing and neutral else None,
        low_mm=low,
        high_mm=high,
        chosen=_chosen(told, low, high),
        schools=told,
        quarrels=quarrels(told),
        loadouts=tuple(
            _loadout(build, plane, four, id, low, high, neutral, checks, told)
            for plane, four, id in zip(planes, answers, names, strict=True)
        ),
        checks=checks,
    )


def _range(plane: Flying, target: Target | None) -> tuple[float | None, float | None]:
    """The balance target's range [mm from the nose]."""
    if target is None:
        return None, None
    origin, size = balance_axis(target.balance_unit, plane.wing)
    low = None if target.low is None else origin + size * target.low
    high = None if target.high is None else origin + size * target.high
    return low, high


def _chosen(told: Sequence[School], low: float | None, high: float | None) -> SchoolKind | None:
    """The school whose range the target is."""
    if low is None or high is None:
        return None
    near = (
        each.kind
        for each in told
        if each.low_mm is not None
        and each.high_mm is not None
        and abs(each.low_mm - low) < 0.1
        and abs(each.high_mm - high) < 0.1
    )
    return next(near, None)


def _loadout(
    build: Build,
    plane: Flying,
    four: tuple[Answer, ...],
    id: str,
    low: float | None,
    high: float | None,
    neutral: NeutralPoint | None,
    checks: tuple[CheckTold, ...],
    told: Sequence[School],
) -> LoadoutBalance:
    cg, wing = plane.cg, plane.wing
    off = 0.0
    if cg is not None and high is not None and cg.x_mm > high:
        off = cg.x_mm - high
    elif cg is not None and low is not None and cg.x_mm < low:
        off = cg.x_mm - low
    heavy = None
    if cg is not None and (low is not None or high is not None):
        heavy = Heavy.TAIL if off > 0 else Heavy.NOSE if off < 0 else Heavy.NEITHER
    margin = margin_sd = None
    if cg is not None and wing is not None and neutral is not None:
        margin = (neutral.x_mm - cg.x_mm) / wing.mac_mm
        margin_sd = ((cg.x_sd_mm / wing.mac_mm) ** 2 + (BAND / 2) ** 2) ** 0.5
    arm, throttle = _throttle(plane)
    lowered_arm, lowered = _throttle(plane, _sinks(build, plane))
    light = None
    if cg is not None and abs(cg.y_mm) > max(2 * cg.y_sd_mm, SIDEWAYS_FELT_MM):
        light = "left" if cg.y_mm > 0 else "right"
    outside = _outside(plane, neutral, told)
    flies, why = _flies(four, outside, _of_the_margin(margin, margin_sd))
    pulls, tip_g = _pulls(build, plane) if light else (None, None)
    return LoadoutBalance(
        id=id,
        heavy=heavy,
        off_mm=off,
        margin=margin,
        margin_sd=margin_sd,
        sideways_mm=None if cg is None else cg.y_mm,
        sideways_sd_mm=None if cg is None else cg.y_sd_mm,
        light_side=light,
        thrust_arm_mm=arm,
        throttle_gm=throttle,
        flies=flies,
        why=why,
        checked=_checked(build, id, checks),
        outside=outside,
        pulls=pulls,
        tip_g=tip_g,
        thrust_side_mm=(side := _side(plane)),
        swings=_swings(side),
        lowered_arm_mm=lowered_arm,
        lowered_throttle_gm=lowered,
        hung=hung(plane),
        unplaced=unplaced(plane, low, high),
    )


def _side(plane: Flying) -> float | None:
    """How far to starboard of the CG the thrust line lies [mm]."""
    thrust = plane.thrust
    if thrust is None or thrust.line_y_mm is None or plane.cg is None:
        return None
    return thrust.line_y_mm - plane.cg.y_mm


def _swings(side_mm: float | None) -> str | None:
    """The way that throttle swings the nose: thrust to starboard of the CG swings it to port."""
    if side_mm is None or abs(side_mm) <= ON_LINE_MM:
        return None
    return "left" if side_mm > 0 else "right"


def _outside(plane: Flying, neutral: NeutralPoint | None, told: Sequence[School]) -> Outside | None:
    """Whether the CG lies outside every range that applies, whatever the target says."""
    ranges = [
        (each.low_mm, each.high_mm)
        for each in told
        if each.low_mm is not None and each.high_mm is not None and each.kind is not SchoolKind.HANG
    ]
    if plane.cg is None or plane.wing is None or not ranges:
        return None
    x = plane.cg.x_mm
    if neutral is not None and x > neutral.x_mm:
        return Outside.BEHIND_NEUTRAL
    canard = any(each.role is Role.CANARD for each in plane.build.surfaces)
    if any(low - OUTSIDE_MM <= x <= high + OUTSIDE_MM for low, high in ranges):
        return None
    if x < plane.wing.mac_le_x_mm and not canard:
        return Outside.AHEAD_OF_EDGE
    return Outside.EVERY_RANGE


def _pulls(build: Build, plane: Flying) -> tuple[str | None, float | None]:
    """The part that pulls a loadout to one side, and the grams at the other tip that hold it."""
    drawn = [abs(s.y_mm) for each in build.surfaces for s in each.sections]
    mass = plane.after.mass * plane.aboard * plane.where.placed
    y = plane.where.xyz[:, 1]
    part, grams, _ = pulls_sideways(build.parts, mass, y, max([*drawn, float(np.abs(y).max()), 1]))
    return part, grams


LOWERED_MM: Final = 10.0
"""A pack is asked about so much lower [mm]."""


def _sinks(build: Build, plane: Flying) -> float | None:
    """How far the CG sinks with every pack aboard that much lower [mm]; None without a pack."""
    if plane.thrust is None or plane.thrust.line_z_mm is None or plane.placed_g <= 0:
        return None
    packs = _packs(build.parts) * plane.aboard * plane.where.placed
    share = float(packs @ plane.after.mass) / plane.placed_g
    return LOWERED_MM * share if share > 0 else None


@recalled(keep=8)
def _packs(parts: tuple[Part, ...]) -> Vector:
    """Which things are packs, 0 or 1, shape (N,)."""
    return np.array([is_pack(part) for part in parts], dtype=float)


def _throttle(plane: Flying, sinks_mm: float | None = 0.0) -> tuple[float | None, float | None]:
    """How far the thrust line is above the CG [mm], the CG so much lower, and the moment of full
    throttle [g m]: thrust above the CG pushes the nose down, which counts as more than 0."""
    thrust = plane.thrust
    if thrust is None or thrust.line_z_mm is None or plane.cg is None or sinks_mm is None:
        return None, None
    arm = thrust.line_z_mm - plane.cg.z_mm + sinks_mm
    if abs(arm) <= ON_LINE_MM:
        return arm, 0.0
    return arm, arm * thrust.thrust_gf / 1000


def _flies(
    four: tuple[Answer, ...], outside: Outside | None, stable: Word | None
) -> tuple[Flies, tuple[TargetKind, ...]]:
    """May fly with every target met or on course; may not with one missed or off course.

    Where nobody said where it is to balance it may not where it is not ``stable``, and else nobody
    knows; nor where its range lets its CG lie behind the neutral point, for the drawing may lack
    something, or the range be wrong."""
    judged = {each.kind: each.word for each in four if each.word is not None}
    bad = {kind for kind, word in judged.items() if word in (Word.MISSED, Word.OFF_COURSE)}
    close = {kind for kind, word in judged.items() if word is Word.TOO_CLOSE}
    is_balanced = TargetKind.BALANCE in judged
    if stable is Word.OFF_COURSE and not is_balanced:
        bad.add(TargetKind.BALANCE)
    elif outside is Outside.BEHIND_NEUTRAL or not is_balanced:
        close.add(TargetKind.BALANCE)
    if bad or close:
        flies = Flies.NO if bad else Flies.UNSURE
        return flies, tuple(each.kind for each in four if each.kind in (bad or close))
    return Flies.YES, ()


def _of_the_margin(margin: float | None, sd: float | None) -> Word | None:
    """Whether the CG lies ahead of the neutral point, in a word; None where that is not told."""
    if margin is None or sd is None:
        return None
    return word(chance_below(0.0, -margin, sd), fully_weighed=False)


def _checked(build: Build, id: str, checks: tuple[CheckTold, ...]) -> ByHand:
    """Whether this loadout's balance was checked by hand."""
    whole = {each.id for each in build.checks if each.set_aside is None and each.is_of_the_plane}
    spoken = [each for each in checks if each.id in whole and not each.across]
    mine = [each for each in spoken if each.loadout == id or not build.loadouts]
    if not mine:
        if spoken:
            return ByHand(Checked.ANOTHER_LOADOUT, loadout=spoken[-1].loadout)
        return ByHand(Checked.NEVER)
    last = max(mine, key=lambda each: each.at)
    since = unchecked_since(build, last.loadout)
    if since is not None:
        return ByHand(Checked.NOT_SINCE, since=since)
    return ByHand(Checked.CHECKED, at=last.at)
