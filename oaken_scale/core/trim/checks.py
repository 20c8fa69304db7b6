"""Checks of the balance by hand, as the weighings that they are.

Fingertips, pegs, a string, scales under two supports: each is one equation in the masses and the
stations, and goes into the ledger with the rest. A check has its time: it speaks of the plane as it
was, and goes on telling of the masses and places that are still as they were. Where a check and the
sum disagree, what would explain it is told.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from enum import StrEnum
from typing import Final

import numpy as np
from scipy.linalg import cho_factor, cho_solve, solve_triangular

from oaken_scale.core.flight.centre_of_gravity import (
    CentreOfGravity,
    Stations,
    Told,
    centre_of_gravity,
)
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.balancing import (
    FEELS,
    BalanceCheck,
    CheckKind,
    Feel,
)
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.trim.as_it_stood import STILL_MM
from oaken_scale.core.trim.cg_ranges import heights_known
from oaken_scale.core.trim.check_reasons import Reason, reasons_for
from oaken_scale.core.trim.check_row import CheckRow, row_of
from oaken_scale.core.trim.feel import surprise

DISAGREES: Final = 2.0
"""A check this many sigma from the sum disagrees with it."""

AGREES_MM: Final = 0.5
"""A check that comes nearer to the sum than this agrees with it [mm]."""

FELT: Final = 1.0
"""What is felt agrees with a sum that it is no more sigma away from."""

MOVED_MM: Final = 1.0
"""What moving a thing on purpose adds to the doubt of its place, one sigma [mm]."""


class HangFlaw(StrEnum):
    """Why the angle of a plane that hung tells nothing."""

    NO_HEIGHTS = "no_heights"
    TIPS_OVER = "tips_over"


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
    flaw: HangFlaw | None = None
    held_alone: str = ""
    """What was held, where it was not the whole plane."""
    feel: Feel | None = None
    """What was felt, where nobody looked closely; on one side only, ``found_mm`` is what that tells
    beside the sum."""
    agrees: bool = field(init=False, default=True)
    """Whether it says what the sum says, as near as anybody looks or feels."""
    disagrees: bool = field(init=False, default=False)
    """Whether the two are farther apart than their doubts explain."""

    def __post_init__(self) -> None:
        """How the two stand to each other."""
        near = abs(self.found_mm - self.sum_mm) < AGREES_MM
        agrees = near if self.feel is None else abs(self.t) <= FELT
        object.__setattr__(self, "agrees", agrees)
        object.__setattr__(self, "disagrees", abs(self.t) > DISAGREES)


def checked(
    build: Build, after: Posterior, where: Stations
) -> tuple[Posterior, Stations, tuple[CheckTold, ...]]:
    """The ledger and the stations sharpened by every check that speaks, and each check beside
    the sum without any.

    The masses keep the ledger's covariance, the stations their own doubts; both move so that the
    checks agree as well as their noise allows: one Gauss-Newton step, and one more about it.

    Source: docs/methods.md, section 5a.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from datetime import UTC
    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> loose = {"pedigree": Pedigree.GUESS, "stated_g": 50.0, "doubt_g": 5.0}
    >>> parts = (Part("m", "Motor", **loose, station=Station(0.0)),
    ...         Part("p", "Pack", **loose, station=Station(200.0)))
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> pegs = BalanceCheck("c", at, CheckKind.SUPPORT, None, 104.0, "pegs")
    >>> build = Build("b", "B", parts=parts, checks=(pegs,))
    >>> after, where, (check,) = checked(build, solve(build), stations(build, None))
    >>> round(check.sum_mm), round(check.t, 1), [round(float(g), 1) for g in after.mass]
    (100, 0.5, [48.0, 51.8])
    """
    rows = [row for each in build.checks if (row := row_of(build, after, where, each)) is not None]
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
    after: Posterior, where: Stations, rows: Sequence[CheckRow]
) -> tuple[Posterior, Stations]:
    count, parts = len(rows), after.parts
    mass0 = after.mass
    lever = np.array([row.lever * row.aboard for row in rows])
    axis = np.array([row.axis for row in rows])
    aboard = np.array([row.aboard for row in rows])
    moment = np.array([row.moment for row in rows])
    lost = ~np.array([row.then.placed for row in rows]).any(axis=0)
    wide = np.array([row.adrift for row in rows]).max(axis=0)
    variance = np.where(lost, wide, where.doubt**2)[axis]
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


def _told(build: Build, after: Posterior, row: CheckRow) -> CheckTold:
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
        reasons = reasons_for(build, after, row.then, row, cg, doubt)
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
        flaw=_flaw(build, row.check, cg),
        held_alone=row.check.held_alone,
        feel=feel,
    )


def _flaw(build: Build, check: BalanceCheck, cg: CentreOfGravity) -> HangFlaw | None:
    """A plane hung from a point below its CG tips over: that angle tells nothing. Without any
    height nobody knows."""
    if check.kind is not CheckKind.HANG or check.z_mm is None:
        return None
    if not heights_known(build):
        return HangFlaw.NO_HEIGHTS
    if check.z_mm <= cg.z_mm:
        return HangFlaw.TIPS_OVER
    return None
