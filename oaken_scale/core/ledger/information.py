"""A build's readings in the information form: over unit deviations of all that is unknown.

With ``z = mu + D u``, ``gamma = C v`` and ``y = (1 + gamma) load(z) + e``, what readings tell of
``(u, v) ~ N(0, I)`` is ``I + J'J``, ``J`` their derivatives in units of their noise. It stays well
conditioned however often a set is weighed.

Source: Rasmussen & Williams, *Gaussian Processes for Machine Learning*, appendix A.2; Bjorck,
*Numerical Methods for Least Squares Problems*, 2.2 (normal equations).
"""

from dataclasses import dataclass
from functools import cached_property
from typing import Final

import numpy as np
from scipy.linalg.lapack import dpotrf, dpotrs, dtrtri

from oaken_scale.core.ledger.prior import Prior
from oaken_scale.core.ledger.readings import Gathered
from oaken_scale.core.model.arrays import Matrix, Vector

BLOCK: Final = 40
"""Triangles up to this size are inverted as they are."""


class Information:
    """What readings tell of the unknowns under a prior, wherever they are linearised.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> of = gathered(build)
    >>> tells = Information(prior(build), of, of.variance)
    >>> none, load = np.zeros(1), np.array([60.0])
    >>> tells.factor(none, load).shape  # two factors, two parts, one scale
    (5, 5)
    >>> tells.pull(none, load, np.array([3.0])).round(0).tolist()
    [0.0, 1620.0, 2160.0, 0.0, 162.0]
    >>> there = tells.at(none, load)
    >>> tells.left(there.cov, none, load).round(4).tolist()
    [0.0004]
    """

    def __init__(self, believed: Prior, of: Gathered, variance: Vector) -> None:
        """``variance`` (M,) is that of each set's mean reading [g2], infinite for one left out."""
        self.believed, self.of = believed, of
        self.weight: Vector = 1 / variance

    @cached_property
    def _folded(self) -> list[Matrix]:
        """What the sets on each scale tell of the unit deviations of lots, factors and parts."""
        return [self.believed.folded(each) for each in self.of.products_of(self.weight)]

    def factor(self, error: Vector, load: Vector) -> Matrix:
        """Lower Cholesky factor of ``I + J'J`` at scale errors (S,) and loads (M,) [g], shape
        (K+P+N+S square)."""
        of, scale = self.of, self.of.scale
        states, count = of.rows.shape[1], len(error)
        whole = np.empty((states + count, states + count))
        whole[states:] = 0.0
        own = whole[:states, :states]
        if self._folded:
            np.multiply(self._folded[0], (1 + error[0]) ** 2, out=own)
        else:
            own[:] = 0.0
        for off, folded in zip(1 + error[1:], self._folded[1:], strict=True):
            own += off**2 * folded
        by_load = self.weight * load
        for k, sd in enumerate(self.believed.scale_sd):
            mine = np.where(scale == k, by_load, 0.0) * (1 + error[k])
            whole[:states, states + k] = sd * self.believed.pulled(of.loading.pulls(mine))
            whole[states + k, states + k] = sd**2 * float(mine @ load) / (1 + error[k])
        whole.flat[:: states + count + 1] += 1.0
        factor, failed = dpotrf(whole.T, lower=1, overwrite_a=1)  # by columns, as it wants them
        if failed:
            raise np.linalg.LinAlgError("what the readings tell is not positive definite")
        return np.asarray(factor, dtype=float)

    def pull(self, error: Vector, load: Vector, residual: Vector) -> Vector:
        """``J' R^-1/2 residual``: which way residuals (M,) [g] pull each unknown, shape
        (K+P+N+S,)."""
        by = self.weight * residual
        scale = self.of.scale
        states = self.believed.pulled(self.of.loading.pulls(by * (1 + error)[scale]))
        scales = self.believed.scale_sd * np.bincount(scale, by * load, len(error))
        return np.concatenate([states, scales])

    def at(self, error: Vector, load: Vector) -> "Linearised":
        """All of it linearised at scale errors (S,) and loads (M,) [g]."""
        return Linearised(self, error, load, self.factor(error, load))

    def left(self, cov: Matrix, error: Vector, load: Vector) -> Vector:
        """The share of each set's variance that its own reading did not take away, shape (M,), by
        the covariance of the whole state."""
        of, states = self.of, self.of.rows.shape[1]
        off, column = (1 + error)[of.scale], states + of.scale
        own = off**2 * of.loading.squares(cov[:states, :states])
        with_error = np.zeros(len(load))
        for k in range(len(error)):
            with_error += np.where(of.scale == k, of.loading.loads(cov[:states, states + k]), 0.0)
        own += load * (2 * off * with_error + load * cov[column, column])
        left: Vector = 1 - self.weight * own
        return left


@dataclass(frozen=True, eq=False)
class Linearised:
    """What readings tell, linearised at scale errors (S,) and loads (M,) [g]: ``factor`` is the
    lower Cholesky factor of ``I + J'J`` there. What it takes an inverse to know is worked out when
    it is asked for.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> of = gathered(build)
    >>> tells = Information(prior(build), of, of.variance)
    >>> none, load = np.zeros(1), np.array([60.0])
    >>> there = tells.at(none, load)
    >>> there.unit_cov.shape, there.told.round(2).tolist()
    ((5, 5), [0.0, 0.36, 0.64, 0.0, 0.0])
    >>> round(float(there.cov[2, 2]) ** 0.5, 2), there.left.round(4).tolist()
    (0.19, [0.0004])
    >>> round(there.variance_of(of.rows[0], np.zeros(1)) ** 0.5, 2)
    0.19
    """

    tells: Information
    error: Vector
    load: Vector
    factor: Matrix

    @cached_property
    def unit_cov(self) -> Matrix:
        """The covariance of unit deviations, shape (K+P+N+S square)."""
        return inverted(self.factor)

    @cached_property
    def cov(self) -> Matrix:
        """The covariance of lots, factors, parts and scale errors, shape (K+P+N+S square)."""
        return self.tells.believed.spread(self.unit_cov)

    @cached_property
    def told(self) -> Vector:
        """How much of each unit deviation's variance was taken away, shape (K+P+N+S,)."""
        told: Vector = 1 - np.diag(self.unit_cov)
        return told

    @cached_property
    def left(self) -> Vector:
        """The share of each set's variance that its own reading did not take away, shape (M,)."""
        return self.tells.left(self.cov, self.error, self.load)

    def variance_of(self, row: Vector, scales: Vector) -> float:
        """The variance of a sum over lots, factors and parts, ``row`` (K+P+N,), and scale errors,
        ``scales`` (S,)."""
        believed = self.tells.believed
        unit = np.concatenate([believed.pulled(row), believed.scale_sd * scales])
        return float(unit @ solved(self.factor, unit))


def solved(factor: Matrix, right: Vector) -> Vector:
    """``A^-1 b`` by a lower Cholesky factor of ``A``.

    >>> lower = np.linalg.cholesky(np.array([[4.0, 2.0], [2.0, 3.0]]))
    >>> [round(float(x), 3) for x in solved(lower, np.array([8.0, 8.0]))]
    [1.0, 2.0]
    """
    if not len(right):
        return right
    solution, _ = dpotrs(factor, right, lower=1)
    return np.asarray(solution, dtype=float)


def diagonal_of_inverse(factor: Matrix) -> Vector:
    """The diagonal of ``A^-1`` by a lower Cholesky factor of ``A``: squares down the columns of
    ``L^-1``.

    >>> lower = np.linalg.cholesky(np.array([[4.0, 2.0], [2.0, 3.0]]))
    >>> [round(float(x), 3) for x in diagonal_of_inverse(lower)]
    [0.375, 0.5]
    """
    inverse = _inverse_of_lower(factor)
    return np.asarray(np.einsum("ij,ij->j", inverse, inverse), dtype=float)


def inverted(factor: Matrix) -> Matrix:
    """The inverse of what a lower Cholesky factor is of; both its halves.

    >>> lower = np.linalg.cholesky(np.array([[4.0, 2.0], [2.0, 3.0]]))
    >>> inverted(lower).round(3).tolist()
    [[0.375, -0.25], [-0.25, 0.5]]
    """
    inverse = _inverse_of_lower(factor)
    return inverse.T @ inverse


def _inverse_of_lower(factor: Matrix) -> Matrix:
    """``L^-1`` by halves, so that most of it is products; above the diagonal both are 0.

    Source: Golub & Van Loan, *Matrix Computations*, 3.1.4 (block substitution).
    """
    size = len(factor)
    if size <= BLOCK:
        return np.asarray(dtrtri(factor, lower=1)[0]) if size else np.zeros((0, 0))
    half = size // 2
    first, last = _inverse_of_lower(factor[:half, :half]), _inverse_of_lower(factor[half:, half:])
    inverse = np.zeros((size, size))
    inverse[:half, :half], inverse[half:, half:] = first, last
    inverse[half:, :half] = last @ (factor[half:, :half] @ -first)
    return inverse
