"""Checks of the balance by hand, as the weighings that they are.

Fingertips, pegs, a string, scales under two supports: each is one equation in the masses and the
stations, and goes into the ledger with the rest. A check has its time: it speaks of the plane as it
was, and goes on telling of the masses and places that are still as they were. Where a check and the
sum disagree, what would explain it is told.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from math import cos, radians, tan
from typing import Final

import numpy as np
from scipy.linalg import cho_factor, cho_solve, solve_triangular

from oaken_scale.core.flight.centre_of_gravity import (
    CentreOfGravity,
    Stations,
    Told,
    centre_of_gravity,
    stations,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.balancing import (
    FEELS,
    HANG_DOUBT_DEG,
    SUPPORT_DOUBT_MM,
    BalanceCheck,
    CheckKind,
    Feel,
    Stood,
)
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults import BuildFaultError, Fault
from oaken_scale.core.trim.cg_ranges import heights_known
from oaken_scale.core.trim.feel import felt, surprise

PLACED_MM: Final = 1.0
"""How well a support is placed, one sigma [mm]."""

DISAGREES: Final = 2.0
"""A check this many sigma from the sum disagrees with it."""

EXPLAINS: Final = 1.5
"""What brings a check within so many sigma explains it."""

MOST_REASONS: Final = 3

MOVED_MM: Final = 1.0
"""What moving a thing on purpose adds to the doubt of its place, one sigma [mm]."""

TELLS_NOTHING_MM: Final = 1e4
"""A balance point no better known than this tells nothing [mm]."""

STILL_MM: Final = 0.05
"""A thing that sits within so much of where it sat was not moved [mm]."""


class Explains(StrEnum):
    """What would explain a check that disagrees: another loadout was aboard; a part was measured
    from the nose or the leading edge, and written down from the other; it sits elsewhere than
    written down; something at the nose or the tail is on no list (glue, paint, a repair)."""

    LOADOUT = "loadout"
    FROM_NOSE = "from_nose"
    FROM_LEADING_EDGE = "from_leading_edge"
    ELSEWHERE = "elsewhere"
    UNLISTED_NOSE = "unlisted_nose"
    UNLISTED_TAIL = "unlisted_tail"


@dataclass(frozen=True, slots=True)
class Reason:
    """What would explain a check that disagrees, whom it concerns, and how much of it: mm aft of
    where a part was written down, or g that nobody listed."""

    kind: Explains
    part: str | None = None
    loadout: str | None = None
    amount: float | None = None


@dataclass(frozen=True, slots=True)
class CheckTold:
    """A check beside the sum: where each puts the CG [mm from the nose, or to starboard], one
    sigma each, how far they are apart in sigma, and what would explain it."""

    id: str
    at: datetime
    loadout: str | None
    across: bool
    found_mm: float
    found_sd_mm: float
    sum_mm: float
    sum_sd_mm: float
    t: float
    reasons: tuple[Reason, ...]
    warning: str | None = None
    held_alone: str = ""
    """What was held, where it was not the whole plane."""
    feel: Feel | None = None
    """What was felt, where nobody looked closely; on one side only, ``found_mm`` is what that tells
    beside the sum."""


@dataclass(frozen=True, slots=True, eq=False)
class _Row:
    """One check as an equation ``lever . m + m . shift = moment``, noise one sigma [g mm].

    ``lever`` (N,) [mm] of what was aboard then, where it sat then; ``then`` are those places, and
    ``axis`` says along which of them stations matter.
    """

    check: BalanceCheck
    then: Stations
    aboard: Vector
    lever: Vector
    axis: int
    moment: float
    noise: float
    found_mm: float
    found_sd_mm: float
    adrift: Vector
    """The variance of where a thing without a place lies, along x and y [mm2]."""


def checked(
    build: Build, after: Posterior, where: Stations
) -> tuple[Posterior, Stations, tuple[CheckTold, ...]]:
    """The ledger and the stations sharpened by every check that speaks, and each check beside
    the sum without any.

    The masses keep the ledger's covariance, the stations their own doubts; both move so that the
    checks agree as well as their noise allows: one Gauss-Newton step, and one more about it.

    Source: docs/methods.md, section 5a.
    """
    rows = [row for each in build.checks if (row := _row(build, after, where, each)) is not None]
    if not rows:
        return after, where, ()
    told = tuple(_told(build, after, row) for row in rows)
    spoken = [row for row in rows if row.check.set_aside is None]
    if not spoken:
        return after, where, told
    after, told_where = _conditioned(after, where, spoken)
    moved = np.zeros(len(where.doubt), dtype=bool)
    for row in spoken:
        here = (row.aboard > 0) & row.then.placed & where.placed
        apart = np.abs(row.then.xyz - where.xyz)[:, :2].max(axis=1) > STILL_MM
        moved |= here & apart
    doubt = np.sqrt(where.doubt**2 + np.where(moved, MOVED_MM**2, 0.0))
    return after, replace(told_where, doubt=doubt), told


def _conditioned(
    after: Posterior, where: Stations, rows: Sequence[_Row]
) -> tuple[Posterior, Stations]:
    count, parts = len(rows), after.parts
    mass0 = after.mass
    lever = np.array([row.lever * row.aboard for row in rows])
    axis = np.array([row.axis for row in rows])
    aboard = np.array([row.aboard for row in rows])
    moment = np.array([row.moment for row in rows])
    lost = ~np.array([row.then.placed for row in rows]).any(axis=0)
    wide = np.array([row.adrift for row in rows]).max(axis=0)
    variance = np.where(lost, wide[:, None], where.doubt**2)[axis]
    mass, shift = mass0.copy(), np.zeros((2, len(mass0)))
    noise = np.diag([row.noise**2 for row in rows])
    for _ in range(2):
        by_mass = lever + aboard * shift[axis]
        by_shift = aboard * mass
        pushed = after.cov[:, parts] @ by_mass.T
        same = axis[:, None] == axis[None, :]
        inner = by_mass @ pushed[parts] + same * ((by_shift * variance) @ by_shift.T) + noise
        factor = cho_factor(inner, lower=True)
        said = (by_mass * mass).sum(axis=1)
        residual = moment - said + by_mass @ (mass - mass0) + (by_shift * shift[axis]).sum(axis=1)
        step = cho_solve(factor, residual)
        mass = mass0 + (pushed @ step)[parts]
        moved = (by_shift * step[:, None]) * variance
        shift = np.array([moved[axis == k].sum(axis=0) for k in range(2)])
    mean = after.mean + pushed @ step
    whitened = solve_triangular(factor[0], pushed.T, lower=True)
    cov = after.cov - whitened.T @ whitened
    spread = by_shift * variance
    along = [
        solve_triangular(factor[0], spread * (axis == k)[:, None], lower=True) for k in range(2)
    ]
    xyz = where.xyz.copy()
    xyz[:, 0] += np.where(lost, 0.0, shift[0])
    xyz[:, 1] += np.where(lost, 0.0, shift[1])
    told = Told(whitened[:, parts].reshape(count, -1), along[0], along[1])
    return replace(after, mean=mean, cov=cov), replace(
        where, xyz=xyz, told=told, adrift=np.where(lost, shift, 0.0)
    )


def _row(build: Build, after: Posterior, where: Stations, check: BalanceCheck) -> _Row | None:
    """A check as an equation; None while nothing placed was aboard.

    What was aboard and had no place is taken to lie about the CG, give or take the spread of the
    rest, and where it lies is told by the check as the other places are.
    """
    aboard, then = _as_it_stood(build, where, check)
    here = after.mass * aboard * then.placed
    total = float(after.mass @ aboard)
    if float(here.sum()) <= 0 or total <= 0:
        return None
    placed = then
    middle = here @ then.xyz / float(here.sum())
    adrift = np.maximum(here @ (then.xyz - middle) ** 2 / float(here.sum()), 0.0)[:2]
    then = replace(then, xyz=np.where(then.placed[:, None], then.xyz, middle))
    x, axis = then.xyz[:, 0], 0
    feel = FEELS.get(check.by) if check.kind is CheckKind.SUPPORT else None
    if feel is not None:
        cg = centre_of_gravity(after.mass, after.mass_cov, placed, aboard)
        if cg is None:
            return None
        ends = placed.xyz[(aboard > 0) & placed.placed, 0]
        found, found_sd = felt(
            feel, check.x_mm, cg.x_mm, cg.x_sd_mm, float(ends.min()), float(ends.max())
        )
        found_sd = min(found_sd, TELLS_NOTHING_MM)
        lever, moment, noise = x - found, 0.0, total * found_sd
    elif check.kind is CheckKind.SUPPORT:
        doubt = check.doubt or SUPPORT_DOUBT_MM.get(check.by, SUPPORT_DOUBT_MM["fingertips"])
        lever, moment, noise = x - check.x_mm, 0.0, total * doubt
        found, found_sd = check.x_mm, doubt
    elif check.kind is CheckKind.HANG:
        turn = radians(check.nose_down_deg or 0.0)
        height = (check.z_mm or 0.0) - then.xyz[:, 2]
        lever = x - check.x_mm + height * tan(turn)
        cg = centre_of_gravity(after.mass, after.mass_cov, placed, aboard)
        above = (check.z_mm or 0.0) - (cg.z_mm if cg else 0.0)
        doubt = radians(check.doubt or HANG_DOUBT_DEG) * abs(above) / cos(turn) ** 2
        doubt = (doubt**2 + PLACED_MM**2) ** 0.5
        moment, noise = 0.0, total * doubt
        found, found_sd = check.x_mm - above * tan(turn), doubt
    else:
        axis = 0 if check.kind is CheckKind.SUPPORTS else 1
        first, second = check.x_mm, check.other_mm
        if second is None or check.reading_g is None:
            return None
        lever = then.xyz[:, axis] - first
        moment = check.reading_g * (second - first)
        noise = ((_noise(build, check) * (second - first)) ** 2 + (total * PLACED_MM) ** 2) ** 0.5
        found = first + moment / total
        found_sd = noise / total
    return _Row(check, then, aboard, lever, axis, moment, noise, found, found_sd, adrift)


def _as_it_stood(build: Build, where: Stations, check: BalanceCheck) -> tuple[Vector, Stations]:
    """What was aboard when a check was made (N,), and where it sat then."""
    if not check.stood:
        return _aboard_then(build, _loadout(build, check.loadout), check.at), where
    stood = {each.part: each for each in check.stood}
    aboard = np.array([float(part.id in stood) for part in build.parts])
    xyz, placed = where.xyz.copy(), where.placed.copy()
    for i, part in enumerate(build.parts):
        then = stood.get(part.id)
        if then is not None and then.x_mm is None:
            continue  # nobody had said where it sat: if somebody has since, it sat there then
        placed[i] = then is not None
        if then is not None and then.x_mm is not None:
            xyz[i] = then.x_mm, then.y_mm, then.z_mm
    return aboard, replace(where, xyz=xyz, placed=placed, told=None)


def as_it_stands(
    build: Build, loadout_id: str | None, only: Collection[str] | None = None
) -> tuple[Stood, ...]:
    """What is aboard a loadout now and where it sits, or ``only`` those of it that were held: what
    a check made now speaks of."""
    where = stations(build, wing_figures(build.surfaces))
    aboard = build.aboard(_loadout(build, loadout_id))
    return tuple(
        Stood(part.id, *(float(c) for c in where.xyz[i])) if where.placed[i] else Stood(part.id)
        for i, part in enumerate(build.parts)
        if aboard[i] and (only is None or part.id in only)
    )


class ChangeKind(StrEnum):
    """What may have happened to a thing since a check."""

    ADDED = "added"
    TAKEN_OFF = "taken off"
    MOVED = "moved"


@dataclass(frozen=True, slots=True)
class ChangedSince:
    """One thing that is otherwise than when a check was made."""

    part: str
    kind: ChangeKind


def changed_since(build: Build, check: BalanceCheck) -> tuple[ChangedSince, ...]:
    """What is otherwise now than when a check was made with its loadout."""
    if not check.stood:
        return ()
    now = {each.part: each for each in as_it_stands(build, check.loadout)}
    then = {each.part: each for each in check.stood}
    found = [ChangedSince(id, ChangeKind.ADDED) for id in now if id not in then]
    found += [ChangedSince(id, ChangeKind.TAKEN_OFF) for id in then if id not in now]
    for id in then.keys() & now.keys():
        old, new = then[id], now[id]
        if old.x_mm is None or new.x_mm is None:
            continue
        if max(abs(old.x_mm - new.x_mm), abs(old.y_mm - new.y_mm)) > STILL_MM:
            found.append(ChangedSince(id, ChangeKind.MOVED))
    order = {part.id: k for k, part in enumerate(build.parts)}
    return tuple(sorted(found, key=lambda each: order.get(each.part, 0)))


def _aboard_then(build: Build, loadout: Loadout | None, at: datetime) -> Vector:
    """What was aboard when a check was made, by the parts' dates, shape (N,)."""
    now = build.aboard(loadout)
    then = [
        (here or (part.retired and part.retired_at is not None and part.retired_at > at))
        and (part.added_at is None or part.added_at <= at)
        for part, here in zip(build.parts, now, strict=True)
    ]
    return np.array(then, dtype=float)


def _noise(build: Build, check: BalanceCheck) -> float:
    """What a reading under a support is worth [g], the scale's calibration included."""
    scale = next((each for each in build.scales if each.id == check.scale), None)
    scale = scale or (build.scales[0] if build.scales else None)
    if scale is None:
        return 1.0
    of = scale.calibration_doubt * (check.reading_g or 0.0)
    return float((reading_doubt(scale) ** 2 + of**2) ** 0.5)


def _loadout(build: Build, id: str | None) -> Loadout | None:
    return next((each for each in build.loadouts if each.id == id), None)


def _told(build: Build, after: Posterior, row: _Row) -> CheckTold:
    cg = centre_of_gravity(after.mass, after.mass_cov, row.then, row.aboard)
    if cg is None:
        raise BuildFaultError([Fault("checks", "nothing that has a place was aboard")])
    at, sd = (cg.x_mm, cg.x_sd_mm) if row.axis == 0 else (cg.y_mm, cg.y_sd_mm)
    doubt = (sd**2 + row.found_sd_mm**2) ** 0.5
    t = (row.found_mm - at) / doubt
    feel = FEELS.get(row.check.by) if row.check.kind is CheckKind.SUPPORT else None
    sided = None if feel is None else surprise(feel, row.check.x_mm, at, sd)
    if sided is not None:
        t = sided
    reasons: tuple[Reason, ...] = ()
    if abs(t) > DISAGREES and row.axis == 0:
        reasons = _reasons(build, after, row.then, row, cg, doubt)
    return CheckTold(
        id=row.check.id,
        at=row.check.at,
        loadout=row.check.loadout,
        across=row.axis == 1,
        found_mm=row.found_mm,
        found_sd_mm=row.found_sd_mm,
        sum_mm=at,
        sum_sd_mm=sd,
        t=t,
        reasons=reasons,
        warning=_tips_over(build, row.check, cg),
        held_alone=row.check.held_alone,
        feel=feel,
    )


def _tips_over(build: Build, check: BalanceCheck, cg: CentreOfGravity) -> str | None:
    """A plane hung from a point below its CG tips over: that angle tells nothing. Without any
    height nobody knows."""
    if check.kind is not CheckKind.HANG or check.z_mm is None:
        return None
    if not heights_known(build):
        return "no heights are known: give the parts theirs, or the angle tells nothing"
    if check.z_mm <= cg.z_mm:
        return "the point it hangs from is below its CG: it tips over; lift it from above"
    return None


def _reasons(
    build: Build,
    after: Posterior,
    where: Stations,
    row: _Row,
    cg: CentreOfGravity,
    doubt_mm: float,
) -> tuple[Reason, ...]:
    """What would bring the sum to the check: another loadout aboard, a station measured from the
    other reference, one thing that sits elsewhere, something at an end that is on no list."""
    gap = row.found_mm - cg.x_mm
    total = float(after.mass @ (row.aboard * where.placed))
    found: list[tuple[float, Reason]] = []
    for other in build.loadouts:
        if other.id == row.check.loadout:
            continue
        carried = np.array(build.aboard(other), dtype=float) * where.placed
        there = centre_of_gravity(after.mass, after.mass_cov, where, carried)
        if there and abs(row.found_mm - there.x_mm) < EXPLAINS * doubt_mm:
            found.append((0.5, Reason(Explains.LOADOUT, loadout=other.id)))
    found += _misplaced(build, after, where, row, gap, total, doubt_mm)
    ends = where.xyz[(row.aboard > 0) & where.placed, 0]
    end, unlisted = (
        (ends.max(), Explains.UNLISTED_TAIL) if gap > 0 else (ends.min(), Explains.UNLISTED_NOSE)
    )
    reach = float(end) - row.found_mm
    if abs(reach) > 1:
        grams = gap * total / reach
        if 0 < grams < 0.2 * total:
            found.append((2.0, Reason(unlisted, amount=grams)))
    found.sort(key=lambda each: each[0])
    return tuple(reason for _, reason in found[:MOST_REASONS])


def _misplaced(
    build: Build,
    after: Posterior,
    where: Stations,
    row: _Row,
    gap_mm: float,
    total_g: float,
    doubt_mm: float,
) -> list[tuple[float, Reason]]:
    """Things whose station, measured from the other reference, or off by a likely amount, would
    do it; each with how unlikely it is."""
    edge = _edge(build)
    found = []
    for i, part in enumerate(build.parts):
        if not row.aboard[i] or not where.placed[i] or after.mass[i] <= 0 or part.station is None:
            continue
        by = gap_mm * total_g / float(after.mass[i])
        if edge:
            sign = 1.0 if part.station.reference.value == "nose" else -1.0
            left = gap_mm - sign * edge * float(after.mass[i]) / total_g
            if abs(left) < EXPLAINS * doubt_mm and abs(by) > EXPLAINS * float(where.doubt[i]):
                other = Explains.FROM_LEADING_EDGE if sign > 0 else Explains.FROM_NOSE
                found.append((1.0 + abs(left) / doubt_mm, Reason(other, part=part.id)))
        odds = abs(by) / max(float(where.doubt[i]), 1.0)
        found.append((odds, Reason(Explains.ELSEWHERE, part=part.id, amount=by)))
    return found


def _edge(build: Build) -> float:
    wing = wing_figures(build.surfaces)
    return wing.leading_edge_x_mm if wing else 0.0
