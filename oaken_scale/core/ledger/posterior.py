"""The ledger: one settled estimate from every weighing.

A builder may weigh anything, in any order. Every reading is one linear equation in the same
unknown masses, so one calculation takes them all; glue is what makes the equations agree. Which
readings may be slips, and what is told meanwhile, is the affair of
:mod:`oaken_scale.core.ledger.mixture`.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from oaken_scale.core.ledger.information import Information
from oaken_scale.core.ledger.prior import Prior, prior
from oaken_scale.core.ledger.readings import Gathered, Readings, gathered
from oaken_scale.core.ledger.settling import Settled, settle
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build


@dataclass(frozen=True, eq=False)
class Posterior:
    """The masses after weighing, with their covariance.

    The state is ``(lot constants (K), shared factors (P), part masses (N), scale errors (S))``;
    ``mean`` has shape (K+P+N+S,), ``cov`` (K+P+N+S, K+P+N+S). ``own`` (N,) is how far each part
    lies from all that it shares, left out itself, in sigma, and ``told`` (N,) how much of its own
    doubt the weighings took away, 0 to 1.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> after = solve(build)
    >>> after.lots, after.factors, after.parts, after.scales
    (slice(0, 0, None), slice(0, 2, None), slice(2, 4, None), slice(4, 5, None))
    >>> after.mass.round(1).tolist(), after.sd[after.parts].round(1).tolist()
    ([63.0, 40.0], [0.2, 10.0])
    >>> grams, sd = after.total(np.ones(2))
    >>> round(grams, 1), round(sd, 1), round(float(after.mass_cov[0, 0]) ** 0.5, 2)
    (103.0, 10.0, 0.2)
    >>> [round(grams, 1) for grams, _ in after.totals(np.eye(2))]
    [63.0, 40.0]
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
    def parts(self) -> slice:
        """Where the part masses stand in the state."""
        first = len(self.prior.common_mean)
        return slice(first, first + len(self.prior.stated))

    @property
    def scales(self) -> slice:
        """Where the scale errors stand in the state."""
        return slice(self.parts.stop, len(self.mean))

    @property
    def mass(self) -> Vector:
        """Part masses, shape (N,) [g]."""
        return self.mean[self.parts]

    @property
    def mass_cov(self) -> Matrix:
        """Covariance of the part masses, shape (N, N) [g2]."""
        return self.cov[self.parts, self.parts]

    @cached_property
    def sd(self) -> Vector:
        """Doubt of the whole state, shape (K+P+N+S,)."""
        deviation: Vector = np.sqrt(np.maximum(np.diag(self.cov), 0.0))
        return deviation

    def total(self, weight: Vector) -> tuple[float, float]:
        """Mass of a weighted sum of parts and its doubt [g]; ``weight`` has shape (N,)."""
        variance = float(weight @ self.mass_cov @ weight)
        return float(weight @ self.mass), max(variance, 0.0) ** 0.5

    def totals(self, weights: Matrix) -> list[tuple[float, float]]:
        """The same of many weighted sums at once; ``weights`` has shape (any, N)."""
        variance = ((weights @ self.mass_cov) * weights).sum(axis=1)
        sd = np.sqrt(np.maximum(variance, 0.0))
        return list(zip((weights @ self.mass).tolist(), sd.tolist(), strict=True))


def posterior(readings: Readings, settled: Settled) -> Posterior:
    """Masses and covariance where the readings settled.

    The covariance is worked out in the information form over the independent deviations
    ``u ~ N(0, I)``, where the matrix to factor, ``I + B'B``, stays well conditioned however often a
    set is weighed: ``Cov = D (I + B'B)^-1 D'``.

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
    >>> [round(float(g), 1) for g in posterior(readings, told).mass]
    [63.0, 40.0]
    """
    believed, of = readings.prior, readings.of
    parts = slice(len(believed.common_mean), of.rows.shape[1])
    unit = believed.pulled(of.loading.pulls((1 + settled.error)[of.scale] * settled.pull))
    mean = np.concatenate([believed.common_mean, believed.mass, settled.error])
    mean[: parts.stop] += believed.deviation(unit)
    there = settled.within
    if there is None:
        there = Information(believed, of, settled.variance).at(settled.error, settled.load)
    told = np.clip(there.told[parts], 0.0, 1.0)
    own = unit[parts] / np.sqrt(np.maximum(told, 1e-12))
    return Posterior(believed, of, mean, there.cov, own, told)


def solve(build: Build, believed: Prior | None = None) -> Posterior:
    """Condition the prior on every active weighing, all of them believed.

    ``y_j = (1 + gamma) (h_j . z + known_j) + e_j``, ``e_j ~ N(0, r_j)``, with ``gamma ~ N(0, c)``
    a state of the scale; linearised anew until it settles.

    Source: JCGM 100:2008 (GUM); Rasmussen & Williams, *Gaussian Processes for Machine Learning*,
    appendix A.2. Reference case L of docs/methods.md:

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> from oaken_scale.core.model.lot import Lot, LotUnit, Use
    >>> def foam(name, area, doubt):
    ...     return Part(name, name, Pedigree.CALCULATED, uses=(Use("a", area),), doubt_g=doubt)
    >>> build = Build("l", "L", lots=(Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4),),
    ...     parts=(foam("wing", 18.0, 1.6), foam("tail", 5.0, 0.5)),
    ...     scales=(Scale("s", "S", 0.1, 0.05, 0.0),),
    ...     weighings=(Weighing("1", datetime.now(UTC), "s", 90.2, Pan((Load("wing"),))),))
    >>> after = solve(build)
    >>> round(float(after.mean[0]), 3), after.mass.round(3).tolist()
    (4.992, [90.2, 24.959])
    """
    readings = Readings(prior(build) if believed is None else believed, gathered(build))
    return posterior(readings, settle(readings, *readings.of.without(())))
