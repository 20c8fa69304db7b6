"""The ledger: one settled estimate from every weighing.

A builder may weigh anything, in any order. Every reading is one linear equation in the same
unknown masses, so one calculation takes them all; glue is what makes the equations agree. Which
readings may be slips, and what is told meanwhile, is :mod:`oaken_scale.core.mixture`'s affair.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_solve, cholesky
from scipy.linalg.blas import dsyrk
from scipy.linalg.lapack import dpotri, dtrtri

from oaken_scale.core.build import Build
from oaken_scale.core.prior import Matrix, Prior, Vector, prior
from oaken_scale.core.readings import Gathered, Readings, gathered, loads

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

BENT: Final = 5e-3
"""Scale errors that moved by more since the last factorisation ask for another in the end."""


@dataclass(frozen=True, slots=True, eq=False)
class Posterior:
    """The masses after weighing, with their covariance.

    The state is ``(lot constants (K), shared factors (P), item masses (N), scale errors (S))``;
    ``mean`` has shape (K+P+N+S,), ``cov`` (K+P+N+S, K+P+N+S). ``own`` (N,) is how far each item
    lies from all that it shares, left out itself, in sigma, and ``told`` (N,) how much of its own
    doubt the weighings took away, 0 to 1.
    """

    prior: Prior
    of: Gathered
    """The readings behind it."""
    mean: Vector
    cov: Matrix
    own: Vector
    told: Vector

    @property
    def lots(self) -> slice:
        """Where the lot constants stand in the state."""
        return slice(0, self.prior.lots)

    @property
    def factors(self) -> slice:
        """Where the shared factors of guesses and listings stand in the state."""
        return slice(self.prior.lots, len(self.prior.common_mean))

    @property
    def items(self) -> slice:
        """Where the item masses stand in the state."""
        first = len(self.prior.common_mean)
        return slice(first, first + len(self.prior.stated))

    @property
    def scales(self) -> slice:
        """Where the scale errors stand in the state."""
        return slice(self.items.stop, len(self.mean))

    @property
    def rows(self) -> Matrix:
        """How each set of things weighed loads the lots, factors and items, shape (M, K+P+N)."""
        return self.of.rows

    @property
    def alone(self) -> NDArray[np.bool_]:
        """Which sets hold one kind of thing only, shape (M,)."""
        single: NDArray[np.bool_] = (self.rows != 0).sum(axis=1) == 1
        return single

    @property
    def mass(self) -> Vector:
        """Item masses, shape (N,) [g]."""
        return self.mean[self.items]

    @property
    def mass_cov(self) -> Matrix:
        """Covariance of the item masses, shape (N, N) [g2]."""
        return self.cov[self.items, self.items]

    @property
    def sd(self) -> Vector:
        """Doubt of the whole state, shape (K+P+N+S,)."""
        deviation: Vector = np.sqrt(np.maximum(np.diag(self.cov), 0.0))
        return deviation

    def total(self, weight: Vector) -> tuple[float, float]:
        """Mass of a weighted sum of items and its doubt [g]; ``weight`` has shape (N,)."""
        variance = float(weight @ self.mass_cov @ weight)
        return float(weight @ self.mass), max(variance, 0.0) ** 0.5

    def totals(self, weights: Matrix) -> list[tuple[float, float]]:
        """The same of many weighted sums at once; ``weights`` has shape (any, N)."""
        variance = ((weights @ self.mass_cov) * weights).sum(axis=1)
        sd = np.sqrt(np.maximum(variance, 0.0))
        return list(zip((weights @ self.mass).tolist(), sd.tolist(), strict=True))


@dataclass(frozen=True, slots=True, eq=False)
class Settled:
    """Where a set of readings settles, in the dual form.

    ``pull`` (M,) is ``a = P^-1 (y - prediction)`` [1/g], 0 for a set left out; ``factor`` (M, M)
    the lower Cholesky factor of ``P`` at the settled point; ``error`` (S,) and ``load`` (M,) [g]
    the scales' errors and the loads there, ``variance`` (M,) the variance of each set's mean
    reading [g2]. ``log_evidence`` is the logarithm of how likely the sets' means are, by Laplace's
    method there.
    """

    pull: Vector
    factor: Matrix
    error: Vector
    load: Vector
    variance: Vector
    log_evidence: float


def sharpness(settled: Settled) -> Vector:
    """The diagonal of ``P^-1``, shape (M,) [1/g2]: the squares of ``L^-1`` down its columns."""
    if not len(settled.factor):
        return np.zeros(0)
    inverse, _ = dtrtri(settled.factor, lower=1)
    squares: Vector = np.einsum("ij,ij->j", inverse, inverse)
    return squares


def settle(
    readings: Readings,
    mean_g: Vector,
    variance: Vector,
    near: Settled | None = None,
) -> Settled:
    """Settle the readings: the most probable masses and scale errors together.

    ``y_j = (1 + gamma) load_j + e_j`` is bilinear in the scale's error and the load. With
    ``P = D G D + L C L' + R`` linearised where it stands (``D`` the scale factors, ``G`` the loads'
    prior covariance, ``L`` the loads by scale, ``C`` the calibration variances), the settled point
    has ``R a = y - (1 + gamma) load``, ``load = load0 + G D a``, ``gamma = C L' a``; ``a`` is
    refined with one factorisation until no load moves; where that lags, the errors are searched
    for. ``mean_g`` and ``variance`` (M,) are the sets' mean readings and their variances, infinite
    for a set left out; ``near`` starts from a solution of nearly the same readings.

    Source: Rasmussen & Williams, *Gaussian Processes for Machine Learning*, 2.2 and appendix A.2;
    Bjorck, *Numerical Methods for Least Squares Problems*, 9.2 (Gauss-Newton).
    """
    kept = np.isfinite(variance)
    weight = np.where(kept, variance, 0.0)
    scales, sharp = readings.prior.scale_sd, np.sqrt(np.where(kept, variance, 1.0))
    count, settled = len(scales), False
    if near is None:
        pull, error, load = np.zeros(len(kept)), np.zeros(count), mean_g.copy()
    else:
        pull, error, load = near.pull * kept, near.error, near.load
    factor, about = _dual_factor(readings, error, load, weight, kept), error
    off = (1 + error)[readings.of.scale]
    residual = mean_g - off * readings.load + error[readings.of.scale] * load
    pull = cho_solve((factor, True), residual, check_finite=False) * kept
    for _ in range(REFINED):
        before, load = load, readings.load + readings.between @ (off * pull)
        error = scales**2 * np.bincount(readings.of.scale, pull * load, count)
        off = (1 + error)[readings.of.scale]
        moved = float((np.abs(load - before)[kept] / sharp[kept]).max(initial=0.0))
        settled = not scales.any() or moved < SETTLED
        if settled or not moved < np.inf or np.abs(error).max(initial=0.0) > MOST_OFF:
            break
        residual = mean_g - off * load - weight * pull
        pull = pull + cho_solve((factor, True), residual, check_finite=False) * kept
    if not settled:
        pull, error, load = _searched(readings, mean_g, weight, kept)
        about = np.full(count, np.inf)
    if np.abs(error - about).max(initial=0.0) > BENT:
        factor = _dual_factor(readings, error, load, weight, kept)
    driven = (1 + error)[readings.of.scale] * pull
    square = float(weight @ pull**2 + driven @ readings.between @ driven)
    square += float((error[scales > 0] ** 2 / scales[scales > 0] ** 2).sum())
    halves = float(np.log(np.diag(factor)[kept]).sum()) + 0.5 * np.log(2 * np.pi) * kept.sum()
    return Settled(pull, factor, error, load, variance, -0.5 * square - halves)


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


def first_look(believed: Prior, of: Gathered, gone: Sequence[int] = ()) -> tuple[Vector, Vector]:
    """How far each item lies from all that it shares, left out itself, in sigma (N,), and how much
    of its own doubt the readings take away, 0 to 1 (N,): linearised once, at the readings. Those
    that are ``gone`` say nothing.

    In the information form over unit deviations, as in :func:`posterior`: of what is left of item
    i's own variance ``v_i`` and where it is pulled to ``u_i``, the readings took ``1 - v_i`` away,
    and ``t_i = u_i / sqrt(1 - v_i)``.
    """
    mean, variance = of.without(gone)
    spread, load = loads(believed, of)
    kept = np.isfinite(variance)
    sharpness = np.where(kept, 1 / np.sqrt(np.where(kept, variance, 1.0)), 0.0)
    none = np.zeros(len(of.scale))
    whitened = _whitened(believed, spread, of.scale, mean, none, sharpness)
    inverse = _inverted(_information(whitened))
    start, states = len(believed.common_mean), spread.shape[1]
    unit = inverse[start:states] @ (whitened.T @ ((mean - load) * sharpness))
    told = np.clip(1 - np.diag(inverse)[start:states], 0.0, 1.0)
    return unit / np.sqrt(np.maximum(told, 1e-12)), told


def _whitened(
    believed: Prior,
    spread: Matrix,
    scale: NDArray[np.intp],
    load: Vector,
    error: Vector,
    sharpness: Vector,
) -> Matrix:
    """Each set's reading over unit deviations of the whole state and in units of its noise, shape
    (M, K+P+N+S); of its scale's ``error`` (M,) and its ``load`` (M,) [g], with ``sharpness`` (M,)
    the inverse of its noise [1/g]."""
    states, scales = spread.shape[1], len(believed.scale_sd)
    whitened = np.zeros((len(load), states + scales))
    np.multiply(spread, ((1 + error) * sharpness)[:, None], out=whitened[:, :states])
    whitened[np.arange(len(load)), states + scale] = believed.scale_sd[scale] * load * sharpness
    return whitened


def _information(whitened: Matrix) -> Matrix:
    """Lower Cholesky factor of ``I + B'B``, which stays well conditioned however often a set is
    weighed."""
    information = dsyrk(1.0, whitened.T, lower=1)
    information[np.diag_indices_from(information)] += 1.0
    factor: Matrix = cholesky(information, lower=True, check_finite=False, overwrite_a=True)
    return factor


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


def _inverted(factor: Matrix) -> Matrix:
    """The inverse of what a lower Cholesky factor is of; both its halves."""
    if not len(factor):
        return factor.copy()
    inverse, _ = dpotri(factor, lower=1)
    whole: Matrix = inverse + inverse.T
    whole[np.diag_indices_from(whole)] /= 2
    return whole


def posterior(readings: Readings, settled: Settled) -> Posterior:
    """Masses and covariance where the readings settled.

    The covariance is worked out in the information form over the independent deviations
    ``u ~ N(0, I)``, where the matrix to factor, ``I + B'B``, stays well conditioned however often a
    set is weighed: ``Cov = D (I + B'B)^-1 D'``.
    """
    believed = readings.prior
    states, scales = readings.of.rows.shape[1], len(believed.scale_sd)
    start = len(believed.common_mean)
    off = (1 + settled.error)[readings.of.scale]
    unit = readings.spread.T @ (off * settled.pull)
    deviation = np.concatenate([unit, np.zeros(scales)])
    mean = _prior_mean(believed) + _spread(believed, deviation[:, None])[:, 0]
    mean[states:] = settled.error
    kept = np.isfinite(settled.variance)
    whitened = _whitened(
        believed,
        readings.spread[kept],
        readings.of.scale[kept],
        settled.load[kept],
        settled.error[readings.of.scale][kept],
        1 / np.sqrt(settled.variance[kept]),
    )
    inverse = _inverted(_information(whitened))
    left = np.diag(inverse)[start:states]
    told = np.clip(1 - left, 0.0, 1.0)
    own = unit[start:] / np.sqrt(np.maximum(told, 1e-12))
    cov = _spread(believed, _spread(believed, inverse).T)
    return Posterior(believed, readings.of, mean, cov, own, told)


def solve(build: Build, believed: Prior | None = None) -> Posterior:
    """Condition the prior on every active weighing, all of them believed.

    ``y_j = (1 + gamma) (h_j . z + known_j) + e_j``, ``e_j ~ N(0, r_j)``, with ``gamma ~ N(0, c)``
    a state of the scale; linearised anew until it settles.

    Source: JCGM 100:2008 (GUM); Rasmussen & Williams, *Gaussian Processes for Machine Learning*,
    appendix A.2. Reference case L of docs/methods.md:

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.build import Item, Load, Pedigree, Scale, Weighing
    >>> from oaken_scale.core.lot import Lot, LotUnit, Use
    >>> def foam(name, area, doubt):
    ...     return Item(name, name, Pedigree.CALCULATED, uses=(Use("a", area),), doubt_g=doubt)
    >>> build = Build("l", "L", lots=(Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4),),
    ...     items=(foam("wing", 18.0, 1.6), foam("tail", 5.0, 0.5)),
    ...     scales=(Scale("s", "S", 0.1, 0.05, 0.0),),
    ...     weighings=(Weighing("1", datetime.now(UTC), "s", 90.2, Pan((Load("wing"),))),))
    >>> after = solve(build)
    >>> round(float(after.mean[0]), 3), after.mass.round(3).tolist()
    (4.992, [90.2, 24.959])
    """
    readings = Readings.under(prior(build) if believed is None else believed, gathered(build))
    return posterior(readings, settle(readings, *readings.of.without(())))


def _prior_mean(believed: Prior) -> Vector:
    """Prior mean of the whole state, shape (K+P+N+S,)."""
    return np.concatenate([believed.common_mean, believed.mass, np.zeros(len(believed.scale_sd))])


def _spread(believed: Prior, unit: Matrix) -> Matrix:
    """Turn unit deviations into deviations of the state: ``D unit``, with ``D D'`` the prior.

    ``unit`` has shape (K+P+N+S, any); D is diagonal but for the parts' share in what is common.
    """
    start, items = len(believed.common_sd), len(believed.own_sd)
    common = believed.common_sd[:, None] * unit[:start]
    own = believed.own_sd[:, None] * unit[start : start + items]
    error = believed.scale_sd[:, None] * unit[start + items :]
    return np.vstack([common, believed.shares @ common + own, error])
