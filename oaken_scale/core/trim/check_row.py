"""A balance check as one equation in the masses and the stations."""

from dataclasses import dataclass, replace
from math import cos, radians, tan
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import (
    Stations,
    centre_of_gravity,
    spread_without_place,
)
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.balancing import (
    FEELS,
    HANG_DOUBT_DEG,
    SUPPORT_DOUBT_MM,
    BalanceCheck,
    CheckKind,
)
from oaken_scale.core.model.build import Build
from oaken_scale.core.trim.as_it_stood import as_it_stood
from oaken_scale.core.trim.feel import felt

PLACED_MM: Final = 1.0
"""How well a support is placed, one sigma [mm]."""

TELLS_NOTHING_MM: Final = 1e4
"""A balance point no better known than this tells nothing [mm]."""


@dataclass(frozen=True, slots=True, eq=False)
class CheckRow:
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
    adrift: Matrix
    """The variance of where each part lies if it has no place, along x and y, (2, N) [mm2]."""


def row_of(build: Build, after: Posterior, where: Stations, check: BalanceCheck) -> CheckRow | None:
    """A check as an equation; None while nothing placed was aboard.

    What was aboard and had no place is taken to lie about the CG, give or take what
    spread_without_place says, and where it lies is told by the check as the other places are.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> pegs = BalanceCheck("c", at, CheckKind.SUPPORT, None, 104.0, "pegs")
    >>> build = Build("b", "B", parts=tuple(ends), checks=(pegs,))
    >>> row = row_of(build, solve(build), stations(build, None), pegs)
    >>> row.found_mm, row.found_sd_mm, row.lever.tolist()
    (104.0, 1.0, [-104.0, 96.0])
    """
    aboard, then = as_it_stood(build, where, check)
    here = after.mass * aboard * then.placed
    total = float(after.mass @ aboard)
    if float(here.sum()) <= 0 or total <= 0:
        return None
    placed = then
    middle = here @ then.xyz / float(here.sum())
    adrift = spread_without_place(here, then, middle)[:, :2].T
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
    return CheckRow(check, then, aboard, lever, axis, moment, noise, found, found_sd, adrift)


def _noise(build: Build, check: BalanceCheck) -> float:
    """What a reading under a support is worth [g], the scale's calibration included."""
    scale = next((each for each in build.scales if each.id == check.scale), None)
    scale = scale or (build.scales[0] if build.scales else None)
    if scale is None:
        return 1.0
    of = scale.calibration_doubt * (check.reading_g or 0.0)
    return float((reading_doubt(scale) ** 2 + of**2) ** 0.5)
