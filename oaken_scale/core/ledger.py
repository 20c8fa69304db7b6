"""The ledger: one settled estimate from every weighing.

A builder may weigh anything, in any order. Every reading is one linear equation in the same
unknown masses, so one calculation takes them all; glue is what makes the equations agree. Which
readings may be slips, and what is told meanwhile, is :mod:`oaken_scale.core.mixture`'s affair.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_solve, cholesky, solve_triangular
from scipy.linalg.blas import dsyrk
from scipy.linalg.lapack import dpotri

from oaken_scale.core.build import Build, Pan
from oaken_scale.core.prior import HABITUAL, Matrix, Prior, Vector, prior
from oaken_scale.core.scale import reading_doubt

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


@dataclass(frozen=True, slots=True)
class WeighedSet:
    """All active readings of one set of things on one scale: as good as their mean."""

    scale: int
    pan: Pan
    mean_g: float
    readings: int


@dataclass(frozen=True, slots=True, eq=False)
class Posterior:
    """The masses after weighing, with their covariance.

    The state is ``(lot constants (K), shared factors (P), item masses (N), scale errors (S))``;
    ``mean`` has shape (K+P+N+S,), ``cov`` (K+P+N+S, K+P+N+S). ``own`` (N,) is how far each item
    lies from all that it shares, left out itself, in sigma, and ``told`` (N,) how much of its own
    doubt the weighings took away, 0 to 1.
    """

    prior: Prior
    sets: tuple[WeighedSet, ...]
    rows: Matrix
    """How each set loads the lots, factors and items, shape (M, K+P+N)."""
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


def weighed_sets(build: Build) -> tuple[WeighedSet, ...]:
    """Gather the active readings by what was on the pan and which scale it was.

    Readings of one set have one equation, so their mean with ``r^2/n`` tells all that they tell:
    the ledger's cost grows with the things weighed, not with the log.
    """
    return _gathered(build)[0]


def _gathered(build: Build) -> tuple[tuple[WeighedSet, ...], NDArray[np.intp]]:
    """The weighed sets, and which of them each active reading is of, shape (J,).

    Equal pans are mostly one object; those that are not are compared only where they look alike.
    """
    scale_index = {scale.id: k for k, scale in enumerate(build.scales)}
    seen: dict[tuple[int, str], int] = {}
    alike: dict[tuple[object, ...], list[int]] = {}
    pans: list[tuple[Pan, str]] = []
    readings: list[list[float]] = []
    at: list[int] = []
    for weighing in build.weighings:
        if weighing.set_aside is not None:
            continue
        pan, scale = weighing.pan, weighing.scale
        number = seen.get((id(pan), scale))
        if number is None:
            loads = pan.loads
            ends = (loads[0].item, loads[-1].item) if loads else ()
            like = alike.setdefault((scale, len(loads), len(pan.samples), ends), [])
            number = next((k for k in like if pans[k][0] == pan), len(pans))
            if number == len(pans):
                pans.append((pan, scale))
                readings.append([])
                like.append(number)
            seen[id(pan), scale] = number
        readings[number].append(weighing.reading_g)
        at.append(number)
    sets = tuple(
        WeighedSet(scale_index[scale], pan, sum(grams) / len(grams), len(grams))
        for (pan, scale), grams in zip(pans, readings, strict=True)
    )
    return sets, np.array(at, dtype=np.intp)


def pan_row(build: Build, pan: Pan) -> Vector:
    """How a pan loads lots, factors and items: the ``h`` of ``y = h . z``, shape (K+P+N,)."""
    start = len(build.lots) + len(HABITUAL)
    row = np.zeros(start + len(build.items))
    counts = {load.item: load.count for load in pan.loads}
    amounts = {sample.lot: sample.amount for sample in pan.samples}
    for i, item in enumerate(build.items if counts else ()):
        if item.id in counts:
            row[start + i] = counts[item.id]
    for k, lot in enumerate(build.lots if amounts else ()):
        if lot.id in amounts:
            row[k] = amounts[lot.id]
    return row


@dataclass(frozen=True, slots=True, eq=False)
class Readings:
    """A build's active readings as equations ``y = (1 + gamma) load + e``, gathered into sets.

    Of the sets: ``rows`` (M, K+P+N), ``scale`` (M,), ``known_g`` (M,), ``mean_g`` (M,) and
    ``count`` (M,) of their readings, ``noise`` (M,) ``r^2`` of one reading [g2], ``load`` (M,) the
    prior mean [g], ``between`` (M, M) the prior covariance of the loads [g2]. ``spread`` (M, K+P+N)
    are the loads over unit deviations of the prior. ``at`` (J,) is each reading's set and
    ``grams`` (J,) what it read, in the order of the log.
    """

    prior: Prior
    sets: tuple[WeighedSet, ...]
    at: NDArray[np.intp]
    grams: Vector
    rows: Matrix
    spread: Matrix
    scale: NDArray[np.intp]
    known_g: Vector
    mean_g: Vector
    count: Vector
    noise: Vector
    load: Vector
    between: Matrix

    @classmethod
    def of(cls, build: Build, believed: Prior) -> "Readings":
        """Gather a build's readings under a prior."""
        sets, at = _gathered(build)
        start = len(believed.common_mean)
        rows = _rows(build, tuple(each.pan for each in sets), start)
        scale = np.array([each.scale for each in sets], dtype=np.intp)
        known = np.array([each.pan.known_g for each in sets], dtype=float)
        spread, load = _loads(believed, rows, known)
        noise = np.array([reading_doubt(each) ** 2 for each in build.scales])
        return cls(
            prior=believed,
            sets=sets,
            at=at,
            grams=np.array([w.reading_g for w in build.weighings if w.set_aside is None]),
            rows=rows,
            spread=spread,
            scale=scale,
            known_g=known,
            mean_g=np.array([each.mean_g for each in sets], dtype=float),
            count=np.array([each.readings for each in sets], dtype=float),
            noise=noise[scale] if len(sets) else np.zeros(0),
            load=load,
            between=spread @ spread.T,
        )

    def under(self, believed: Prior) -> "Readings":
        """The same readings under another prior of the same build."""
        spread, load = _loads(believed, self.rows, self.known_g)
        between = spread @ spread.T
        return replace(self, prior=believed, spread=spread, load=load, between=between)

    def without(self, dropped: Sequence[int]) -> tuple[Vector, Vector]:
        """The sets' means [g] and the variances of those means [g2], some readings left out;
        the variance is infinite where none is left."""
        count, total = self.count.copy(), self.mean_g * self.count
        for j in dropped:
            count[self.at[j]] -= 1
            total[self.at[j]] -= self.grams[j]
        some = np.maximum(count, 1)
        return (
            np.where(count > 0, total / some, self.mean_g),
            np.where(count > 0, self.noise / some, np.inf),
        )


def _loads(believed: Prior, rows: Matrix, known_g: Vector) -> tuple[Matrix, Vector]:
    """The sets' loads over unit deviations (M, K+P+N) and their prior means (M,) [g]."""
    start = len(believed.common_mean)
    spread = rows.copy()
    spread[:, :start] += rows[:, start:] @ believed.shares
    load = known_g + spread[:, :start] @ believed.common_mean + rows[:, start:] @ believed.stated
    spread[:, :start] *= believed.common_sd
    spread[:, start:] *= believed.own_sd
    return spread, load


@dataclass(frozen=True, slots=True, eq=False)
class Settled:
    """Where a set of readings settles, in the dual form.

    ``pull`` (M,) is ``a = P^-1 (y - prediction)`` [1/g], ``inverse`` (M, M) ``P^-1`` at the settled
    point, both 0 for a set left out; ``error`` (S,) and ``load`` (M,) [g] the scales' errors and
    the loads there, ``variance`` (M,) the variance of each set's mean reading [g2].
    ``log_evidence`` is the logarithm of how likely the sets' means are, by Laplace's method there.
    """

    pull: Vector
    inverse: Matrix
    error: Vector
    load: Vector
    variance: Vector
    log_evidence: float


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
    off = (1 + error)[readings.scale]
    residual = mean_g - off * readings.load + error[readings.scale] * load
    pull = cho_solve((factor, True), residual, check_finite=False) * kept
    for _ in range(REFINED):
        before, load = load, readings.load + readings.between @ (off * pull)
        error = scales**2 * np.bincount(readings.scale, pull * load, count)
        off = (1 + error)[readings.scale]
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
    inverse = _inverted(factor)
    inverse[~kept] = inverse[:, ~kept] = 0.0
    driven = (1 + error)[readings.scale] * pull
    square = float(weight @ pull**2 + driven @ readings.between @ driven)
    square += float((error[scales > 0] ** 2 / scales[scales > 0] ** 2).sum())
    halves = float(np.log(np.diag(factor)[kept]).sum()) + 0.5 * np.log(2 * np.pi) * kept.sum()
    return Settled(pull, inverse, error, load, variance, -0.5 * square - halves)


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
        off = (1 + error)[readings.scale]
        none = np.zeros(len(error))
        factor = _dual_factor(readings, error, none[readings.scale], weight, kept)
        gap = (mean_g - off * readings.load) * kept
        pull = cho_solve((factor, True), gap, check_finite=False) * kept
        load = readings.load + readings.between @ (off * pull)
        return float(gap @ pull + precision @ error**2), pull, load, factor

    error = np.zeros(count)
    least, pull, load, factor = at(error)
    mine = (readings.scale[:, None] == np.flatnonzero(use)) * kept[:, None].astype(float)
    for _ in range(ROUNDS):
        by_scale = mine * load[:, None]
        slope = by_scale.T @ pull - (precision * error)[use]
        step = np.zeros(count)
        off = (1 + error)[readings.scale][:, None]
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


def first_look(readings: Readings, gone: Sequence[int] = ()) -> tuple[Vector, Vector]:
    """How far each item lies from all that it shares, left out itself, in sigma (N,), and how much
    of its own doubt the readings take away, 0 to 1 (N,): linearised once, at the readings. Those
    that are ``gone`` say nothing.

    With the independent deviation of item i under the readings as ``B_i' a``, its variance is less
    by ``B_i' P^-1 B_i``, so that ``t_i = B_i' a / sqrt(B_i' P^-1 B_i)``.
    """
    mean, variance = readings.without(gone)
    error, kept = np.zeros(len(readings.prior.scale_sd)), np.isfinite(variance)
    weight = np.where(kept, variance, 0.0)
    factor = _dual_factor(readings, error, readings.mean_g, weight, kept)
    own = readings.spread[:, len(readings.prior.common_mean) :]
    both = np.column_stack([own, mean - readings.load]) * kept[:, None]
    whitened = solve_triangular(factor, both, lower=True, check_finite=False)
    told = np.minimum((whitened[:, :-1] ** 2).sum(axis=0), 1.0)
    unit = whitened[:, :-1].T @ whitened[:, -1]
    return unit / np.sqrt(np.maximum(told, 1e-12)), told


def _dual_factor(
    readings: Readings, error: Vector, load: Vector, weight: Vector, kept: NDArray[np.bool_]
) -> Matrix:
    """Lower Cholesky factor of ``P`` linearised at scale errors (S,) and loads (M,); a set left
    out stands by itself. Shape (M, M)."""
    off = (1 + error)[readings.scale]
    by_scale = np.zeros((len(load), len(error)))
    by_scale[np.arange(len(load)), readings.scale] = readings.prior.scale_sd[readings.scale] * load
    total = readings.between * off
    total *= off[:, None]
    total += by_scale @ by_scale.T
    total[np.diag_indices_from(total)] += weight
    out = ~kept
    if out.any():
        total[out] = total[:, out] = 0.0
        total[out, out] = 1.0
    factor: Matrix = cholesky(total, lower=True, check_finite=False, overwrite_a=True)
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
    states, scales = readings.rows.shape[1], len(believed.scale_sd)
    start = len(believed.common_mean)
    off = (1 + settled.error)[readings.scale]
    unit = readings.spread.T @ (off * settled.pull)
    deviation = np.concatenate([unit, np.zeros(scales)])
    mean = _prior_mean(believed) + _spread(believed, deviation[:, None])[:, 0]
    mean[states:] = settled.error
    kept = np.isfinite(settled.variance)
    sharpness = 1 / np.sqrt(settled.variance[kept])
    whitened = np.zeros((len(sharpness), states + scales))
    np.multiply(readings.spread[kept], (off[kept] * sharpness)[:, None], out=whitened[:, :states])
    here = readings.scale[kept]
    gamma = believed.scale_sd[here] * settled.load[kept] * sharpness
    whitened[np.arange(len(here)), states + here] = gamma
    information = dsyrk(1.0, whitened.T, lower=1)
    information[np.diag_indices_from(information)] += 1.0
    inverse = _inverted(cholesky(information, lower=True, check_finite=False, overwrite_a=True))
    left = np.diag(inverse)[start:states]
    told = np.clip(1 - left, 0.0, 1.0)
    own = unit[start:] / np.sqrt(np.maximum(told, 1e-12))
    cov = _spread(believed, _spread(believed, inverse).T)
    return Posterior(believed, readings.sets, readings.rows, mean, cov, own, told)


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
    readings = Readings.of(build, prior(build) if believed is None else believed)
    return posterior(readings, settle(readings, readings.mean_g, readings.noise / readings.count))


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


def _rows(build: Build, pans: Sequence[Pan], start: int) -> Matrix:
    """Stack the pans' rows, shape (M, K+P+N); the items' columns begin at ``start``."""
    lot_index = {lot.id: k for k, lot in enumerate(build.lots)}
    item_index = {item.id: start + i for i, item in enumerate(build.items)}
    rows = np.zeros((len(pans), start + len(build.items)))
    for j, pan in enumerate(pans):
        for load in pan.loads:
            rows[j, item_index[load.item]] += load.count
        for sample in pan.samples:
            rows[j, lot_index[sample.lot]] += sample.amount
    return rows
