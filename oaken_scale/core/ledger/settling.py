"""Where a build's readings settle: masses and scale errors that agree best with all of them.

The problem has two equal forms. The dual one, over the sets of things weighed, loses no digits on
a fine scale under a heavy, vague load; the information form, over the unknowns, is smaller where
there are more sets than unknowns. The second is taken where it is smaller and loses nothing.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_solve, cholesky, solve_triangular

from oaken_scale.core.ledger.information import (
    Information,
    Linearised,
    diagonal_of_inverse,
    solved,
)
from oaken_scale.core.ledger.readings import Readings
from oaken_scale.core.model.arrays import Matrix, Vector

SETTLED: Final = 1e-7
"""It has settled when no load moves by more than this share of its reading's doubt."""

ROUNDS: Final = 60
"""So many steps a guarded search takes at most."""

REFINED: Final = 12
"""So many rounds one factorisation is refined before the search is guarded."""

MOST_OFF: Final = 0.5
"""No scale is looked for farther off than this, as a fraction."""

LEAST_STEP: Final = 3e-8
"""A search of the scales' errors ends when they move by less."""

ASTRAY: Final = 0.3
"""A refinement that does not shrink what it moves to this asks for another factorisation."""

FAR_OFF: Final = 3.0
"""Where a load moves by more than so many times its reading's doubt, it is linearised anew."""

LINEAR: Final = 0.01
"""It is linearised at a point that no load is farther from than this share of its reading's doubt
once it has settled."""

LEAST_LEFT: Final = 1e-6
"""Where the other readings tell a set's load so much worse than its own one, by this share of
their variances, the information form would lose digits."""


@dataclass(frozen=True, slots=True, eq=False)
class Point:
    """Where the readings are linearised: the scales' errors (S,) and the loads (M,) [g]."""

    error: Vector
    load: Vector


@dataclass(frozen=True, slots=True, eq=False)
class Settled:
    """Where a set of readings settles.

    ``pull`` (M,) is ``a = P^-1 (y - prediction)`` [1/g], 0 for a set left out; ``error`` (S,) and
    ``load`` (M,) [g] the scales' errors and the loads there, ``variance`` (M,) the variance of each
    set's mean reading [g2]. ``log_evidence`` is the logarithm of how likely the sets' means are, by
    Laplace's method there. ``factor`` (M, M) is the lower Cholesky factor of ``P`` at the settled
    point, None where it settled in the information form: ``within`` is that form there.
    """

    pull: Vector
    error: Vector
    load: Vector
    variance: Vector
    log_evidence: float
    factor: Matrix | None = None
    within: Linearised | None = None

    @property
    def point(self) -> Point:
        """Where it settled."""
        return Point(self.error, self.load)


def sharpness(settled: Settled) -> Vector:
    """The diagonal of ``P^-1``, shape (M,) [1/g2]: the squares of ``L^-1`` down its columns, or
    what is left over the variance of the reading.

    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.build import Build
    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = tuple(Weighing(f"r{g}", noon, "s", g, Pan((Load("m"),))) for g in (63.0, 63.2))
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> told = settle(readings, readings.of.mean_g, readings.of.noise / readings.of.count)
    >>> sharpness(told).shape
    (1,)
    """
    if settled.within is not None:
        return settled.within.left / np.where(np.isfinite(settled.variance), settled.variance, 1.0)
    return np.zeros(0) if settled.factor is None else diagonal_of_inverse(settled.factor)


def load_variance(readings: Readings, settled: Settled, s: int) -> float:
    """How well the settled readings predict what set ``s``, left out of them, would show: the
    variance of that, its own noise apart [g2].

    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.build import Build
    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = tuple(Weighing(f"r{g}", noon, "s", g, Pan((Load("m"),))) for g in (63.0, 63.2))
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> told = settle(readings, readings.of.mean_g, np.array([np.inf]))
    >>> round(load_variance(readings, told, 0) ** 0.5, 1)  # as it is believed: 60 g
    3.0
    """
    of, k = readings.of, int(readings.of.scale[s])
    off = 1 + settled.error[of.scale]
    if settled.within is not None:
        scales = np.where(np.arange(of.scales) == k, settled.load[s], 0.0)
        return settled.within.variance_of(off[s] * of.rows[s], scales)
    sd = readings.prior.scale_sd[k]
    across = off[s] * readings.between[s] * off
    across = across + np.where(of.scale == k, sd**2 * settled.load * settled.load[s], 0.0)
    kept = across * np.isfinite(settled.variance)
    white = solve_triangular(settled.factor, kept, lower=True, check_finite=False)
    return max(float(across[s]) - float(white @ white), 0.0)


def settle(
    readings: Readings,
    mean_g: Vector,
    variance: Vector,
    near: Point | None = None,
    roughly: bool = False,
) -> Settled:
    """Settle the readings: the most probable masses and scale errors together.

    ``y_j = (1 + gamma) load_j + e_j`` is bilinear in the scale's error and the load. With
    ``P = D G D + L C L' + R`` linearised where it stands (``D`` the scale factors, ``G`` the loads'
    prior covariance, ``L`` the loads by scale, ``C`` the calibration variances), the settled point
    has ``R a = y - (1 + gamma) load``, ``load = load0 + G D a``, ``gamma = C L' a``; ``a`` is
    refined with one factorisation until no load moves; where that lags, the errors are searched
    for. ``mean_g`` and ``variance`` (M,) are the sets' mean readings and their variances, infinite
    for a set left out; ``near`` is a point not far from it to start from. ``roughly``: how each
    reading stands beside the others will not be asked, so no digits of that can be lost.

    Where there are more sets than unknowns the same point is found over those, if no digits are
    lost on the way.

    Source: Rasmussen & Williams, *Gaussian Processes for Machine Learning*, 2.2 and appendix A.2;
    Bjorck, *Numerical Methods for Least Squares Problems*, 9.2 (Gauss-Newton).

    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.build import Build
    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> told = settle(readings, np.array([63.0]), np.array([0.01]))
    >>> round(float(told.load[0]), 1)  # a motor listed at 60 g is what the scale says
    63.0
    """
    if len(variance) > readings.unknowns:
        found = _by_unknowns(readings, mean_g, variance, near, roughly)
        if found is not None:
            return found
    return _by_sets(readings, mean_g, variance, near)


def _by_sets(readings: Readings, mean_g: Vector, variance: Vector, near: Point | None) -> Settled:
    """Settle in the dual form."""
    kept = np.isfinite(variance)
    weight = np.where(kept, variance, 0.0)
    scales, sharp = readings.prior.scale_sd, np.sqrt(np.where(kept, variance, 1.0))
    count, settled = len(scales), False
    error, load = (np.zeros(count), mean_g) if near is None else (near.error, near.load)
    factor, about = _dual_factor(readings, error, load, weight, kept), error
    off = (1 + error)[readings.of.scale]
    residual = mean_g - off * readings.load + error[readings.of.scale] * load
    pull = solved(factor, residual) * kept
    for _ in range(REFINED):
        before, load = load, readings.load + readings.between @ (off * pull)
        error = scales**2 * np.bincount(readings.of.scale, pull * load, count)
        off = (1 + error)[readings.of.scale]
        moved = float((np.abs(load - before)[kept] / sharp[kept]).max(initial=0.0))
        settled = not scales.any() or moved < SETTLED
        if settled or not moved < np.inf or np.abs(error).max(initial=0.0) > MOST_OFF:
            break
        residual = mean_g - off * load - weight * pull
        pull = pull + solved(factor, residual) * kept
    if not settled:
        pull, error, load = _searched(readings, mean_g, weight, kept)
        about = np.full(count, np.inf)
    if (error != about).any():
        factor = _dual_factor(readings, error, load, weight, kept)
    driven = (1 + error)[readings.of.scale] * pull
    square = float(weight @ pull**2 + driven @ readings.between @ driven)
    square += float((error[scales > 0] ** 2 / scales[scales > 0] ** 2).sum())
    halves = float(np.log(np.diag(factor)[kept]).sum()) + 0.5 * np.log(2 * np.pi) * kept.sum()
    return Settled(pull, error, load, variance, -0.5 * square - halves, factor)


def _by_unknowns(
    readings: Readings,
    mean_g: Vector,
    variance: Vector,
    near: Point | None,
    roughly: bool = False,
) -> Settled | None:
    """Settle in the information form; None where it does not, or where it would lose digits.

    The most probable point has ``J' R^-1/2 (y - (1 + gamma) load) = (u, v)``; it is refined with
    one factorisation of ``I + J'J`` until it is near, with another one at the point that it is near
    to, and with more of them where that lags.
    """
    of, believed = readings.of, readings.prior
    tells = Information(believed, of, variance)
    states, sharp = of.rows.shape[1], np.sqrt(tells.weight)
    error, load = (np.zeros(of.scales), mean_g) if near is None else (near.error, near.load)
    residual = mean_g - (1 + error)[of.scale] * readings.load + error[of.scale] * load
    deviation = np.zeros(states + of.scales)
    moved, anew, away = np.inf, True, 0.0
    for _ in range(REFINED):
        if anew:
            there, away = tells.at(error, load), 0.0
        step = tells.pull(error, load, residual) - deviation
        deviation = deviation + solved(there.factor, step)
        before = load
        load = readings.load + of.loading.loads(believed.deviation(deviation[:states]))
        error = believed.scale_sd * deviation[states:]
        residual = mean_g - (1 + error)[of.scale] * load
        last, moved = moved, float((np.abs(load - before) * sharp).max(initial=0.0))
        if moved < SETTLED:
            break
        away += moved
        anew = moved > min(ASTRAY * last, FAR_OFF) or moved < LINEAR < away
        if not np.abs(error).max(initial=0.0) < MOST_OFF:
            return None
    else:
        return None
    if not roughly and there.left.min(initial=1.0) < LEAST_LEFT:
        return None
    square = float((residual * sharp) @ (residual * sharp) + deviation @ deviation)
    kept = tells.weight > 0
    halves = float(np.log(np.diag(there.factor)).sum() - np.log(sharp[kept]).sum())
    halves += 0.5 * np.log(2 * np.pi) * float(kept.sum())
    return Settled(
        residual * tells.weight,
        error,
        load,
        variance,
        -0.5 * square - halves,
        within=there,
    )


def _searched(
    readings: Readings, mean_g: Vector, weight: Vector, kept: NDArray[np.bool_]
) -> tuple[Vector, Vector, Vector]:
    """The settled pull (M,), scale errors (S,) and loads (M,) by a guarded search over the errors.

    For given errors all else is linear, with ``R a = y - (1 + gamma) load``; what is left is to
    make ``a' P a + gamma' C^-1 gamma`` least over a few numbers. Each Newton step is halved until
    it does so: a slipped decimal has the scale thirty times off after the first one.
    """
    scales, count = readings.prior.scale_sd, len(readings.prior.scale_sd)
    use = scales > 0
    precision = np.where(use, 1 / np.where(use, scales, 1.0) ** 2, 0.0)

    def at(error: Vector) -> tuple[float, Vector, Vector, Matrix]:
        off = (1 + error)[readings.of.scale]
        none = np.zeros(len(error))
        factor = _dual_factor(readings, error, none[readings.of.scale], weight, kept)
        gap = (mean_g - off * readings.load) * kept
        pull = cho_solve((factor, True), gap, check_finite=False) * kept
        load = readings.load + readings.between @ (off * pull)
        return float(gap @ pull + precision @ error**2), pull, load, factor

    error = np.zeros(count)
    least, pull, load, factor = at(error)
    mine = (readings.of.scale[:, None] == np.flatnonzero(use)) * kept[:, None].astype(float)
    for _ in range(ROUNDS):
        by_scale = mine * load[:, None]
        slope = by_scale.T @ pull - (precision * error)[use]
        step = np.zeros(count)
        off = (1 + error)[readings.of.scale][:, None]
        bent = by_scale + off * (readings.between @ (mine * pull[:, None]))
        by = -cho_solve((factor, True), bent, check_finite=False) * kept[:, None]
        moves = readings.between @ (mine * pull[:, None] + off * by)
        curve = np.diag(precision[use]) - (mine * pull[:, None]).T @ moves - by_scale.T @ by
        flat = curve.trace() <= 0 or np.linalg.det(curve) <= 0
        if flat:  # not yet near enough for the whole curvature: without what bends it
            curve = np.diag(precision[use]) + by_scale.T @ cho_solve((factor, True), by_scale)
        step[use] = np.clip(np.linalg.solve(curve, slope), -MOST_OFF / 2, MOST_OFF / 2)
        step = np.clip(error + step, -MOST_OFF, MOST_OFF) - error
        while np.abs(step).max(initial=0.0) > LEAST_STEP:
            tried = error + step
            found = at(tried)
            if found[0] <= least * (1 + 1e-10):
                break
            step = step / 2
        else:
            break
        error, (least, pull, load, factor) = tried, found
    return pull, error, load


def _dual_factor(
    readings: Readings, error: Vector, load: Vector, weight: Vector, kept: NDArray[np.bool_]
) -> Matrix:
    """Lower Cholesky factor of ``P`` linearised at scale errors (S,) and loads (M,); a set left
    out stands by itself. Shape (M, M)."""
    off = (1 + error)[readings.of.scale]
    by_scale = np.zeros((len(load), len(error)))
    by_scale[np.arange(len(load)), readings.of.scale] = (
        readings.prior.scale_sd[readings.of.scale] * load
    )
    total = readings.between * off
    total *= off[:, None]
    total += by_scale @ by_scale.T
    total[np.diag_indices_from(total)] += weight
    out = ~kept
    if out.any():
        total[out] = total[:, out] = 0.0
        total[out, out] = 1.0
    factor: Matrix = cholesky(total.T, lower=True, check_finite=False, overwrite_a=True)
    return factor
