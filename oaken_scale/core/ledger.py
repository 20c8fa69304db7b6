"""The ledger: one settled estimate from every weighing.

A builder may weigh anything, in any order. Every reading is one linear equation in the same
unknown masses, so one calculation takes them all; glue is what makes the equations agree. Which
readings may be slips, and what is told meanwhile, is :mod:`oaken_scale.core.mixture`'s affair.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from oaken_scale.core.build import Build
from oaken_scale.core.prior import Matrix, Prior, Vector, prior
from oaken_scale.core.readings import Gathered, Readings, gathered
from oaken_scale.core.settling import (
    Settled,
    diagonal_of_inverse,
    information,
    inverted,
    settle,
    solved,
    whiten,
)


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


def first_look(readings: Readings, gone: Sequence[int] = ()) -> tuple[Vector, Vector]:
    """How far each item lies from all that it shares, left out itself, in sigma (N,), and how much
    of its own doubt the readings take away, 0 to 1 (N,): linearised once, at the readings. Those
    that are ``gone`` say nothing.

    In the information form over unit deviations, as in :func:`posterior`: of what is left of item
    i's own variance ``v_i`` and where it is pulled to ``u_i``, the readings took ``1 - v_i`` away,
    and ``t_i = u_i / sqrt(1 - v_i)``.
    """
    of, believed = readings.of, readings.prior
    mean, variance = of.without(gone)
    kept = np.isfinite(variance)
    sharp = np.where(kept, 1 / np.sqrt(np.where(kept, variance, 1.0)), 0.0)
    whitened = whiten(believed, readings.spread, of.scale, mean, np.zeros(len(kept)), sharp)
    factor = information(whitened)
    own = slice(len(believed.common_mean), readings.spread.shape[1])
    unit = solved(factor, whitened.T @ ((mean - readings.load) * sharp))[own]
    told = np.clip(1 - diagonal_of_inverse(factor)[own], 0.0, 1.0)
    return unit / np.sqrt(np.maximum(told, 1e-12)), told


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
    inverse = settled.inverse
    if inverse is None:
        kept = np.isfinite(settled.variance)
        whitened = whiten(
            believed,
            readings.spread[kept],
            readings.of.scale[kept],
            settled.load[kept],
            settled.error[readings.of.scale][kept],
            1 / np.sqrt(settled.variance[kept]),
        )
        inverse = inverted(information(whitened))
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
