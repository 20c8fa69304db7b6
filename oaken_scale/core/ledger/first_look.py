"""What readings tell at first sight, linearised once, at what they read.

How far the weighed things of each pedigree lie off is learned from it, and the readings settle from
where it stands. One more reading changes it by little, so it grows with the log: a reading of a set
is a change of rank one or two to what is known.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.ledger.information import Information, inverted
from oaken_scale.core.ledger.prior import Prior
from oaken_scale.core.ledger.readings import Gathered, Readings
from oaken_scale.core.ledger.settling import Point
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.recall import recalled

MOST_CHANGED: Final = 6
"""So many sets are changed in what is known already; with more of them it is worked out afresh."""

MOST_GROWN: Final = 50
"""So often, too: rounding adds up."""


@dataclass(frozen=True, slots=True, eq=False)
class FirstLook:
    """How far each part lies from all that it shares, left out itself, in sigma (``own``, (N,));
    how much of its own doubt the readings take away, 0 to 1 (``told``, (N,)); and where they all
    come to stand.

    >>> point = Point(np.zeros(1), np.array([63.00049]))
    >>> look = FirstLook(np.array([1.2345678]), np.array([0.5]), point)
    >>> look.rounded().own.tolist(), look.rounded().point.load.tolist()
    ([1.23457], [63.0])
    """

    own: Vector
    told: Vector
    point: Point

    def rounded(self) -> "FirstLook":
        """The same to a hundred-thousandth of a sigma and a milligram: a log that grew and one that
        was there at once differ far behind that, so all that is told hangs on the build alone."""
        point = Point(np.round(self.point.error, 6), np.round(self.point.load, 3))
        return FirstLook(np.round(self.own, 5), np.round(self.told, 5), point)


def first_look(readings: Readings, gone: Sequence[int] = ()) -> FirstLook:
    """What readings tell, linearised once, at what they read; those that are ``gone`` say nothing.

    In the information form over unit deviations, as in
    :func:`oaken_scale.core.ledger.posterior.posterior`: of what is left of part i's own variance
    ``v_i`` and where it is pulled to ``u_i``, the readings took ``1 - v_i`` away, and
    ``t_i = u_i / sqrt(1 - v_i)``.

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
    >>> told = first_look(readings)
    >>> [round(float(x), 3) for x in told.told]
    [0.637]
    """
    of, believed = readings.of, readings.prior
    mean, variance = of.without(gone)
    tells, none = Information(believed, of, variance), np.zeros(of.scales)
    left = _afresh(tells, mean) if gone else _growing(believed).left_by(of)
    start, states = len(believed.common_mean), of.rows.shape[1]
    unit = left @ tells.pull(none, mean, mean - readings.load)
    point = Point(
        believed.scale_sd * unit[states:],
        readings.load + of.loading.loads(believed.deviation(unit[:states])),
    )
    told = np.clip(1 - np.diag(left)[start:states], 0.0, 1.0)
    return FirstLook(unit[start:states] / np.sqrt(np.maximum(told, 1e-12)), told, point)


def _afresh(tells: Information, mean_g: Vector) -> Matrix:
    """What the readings leave of the variance of unit deviations, ``(I + J'J)^-1``, shape
    (K+P+N+S square)."""
    return inverted(tells.factor(np.zeros(tells.of.scales), mean_g))


class _Growing:
    """What the readings of a log leave of the variance of unit deviations, grown with it.

    With ``A^-1`` known and ``A`` changed by ``U C U'``, ``C`` a diagonal of signs, ``A^-1`` loses
    ``A^-1 U (C + U' A^-1 U)^-1 U' A^-1``.

    Source: Golub & Van Loan, *Matrix Computations*, 2.1.4 (Sherman, Morrison and Woodbury).
    """

    def __init__(self, believed: Prior) -> None:
        self.believed = believed
        self.last: tuple[Gathered, Matrix, int] | None = None

    def left_by(self, of: Gathered) -> Matrix:
        """Of a log of readings."""
        last = self.last
        if last is not None and last[0] is of:
            return last[1]
        grown, left = 0, None
        if last is not None and last[2] < MOST_GROWN and of.begins_with(last[0]):
            grown, left = last[2] + 1, self._changed(last[0], last[1], of)
        if left is None:
            grown, left = 0, _afresh(Information(self.believed, of, of.variance), of.mean_g)
        self.last = (of, left, grown)
        return left

    def _changed(self, before: Gathered, left: Matrix, of: Gathered) -> Matrix | None:
        """What they leave after readings more; None where too many sets changed."""
        sets = len(before.mean_g)
        moved = (before.mean_g != of.mean_g[:sets]) | (before.count != of.count[:sets])
        changed = np.flatnonzero(moved).tolist()
        fresh = range(sets, len(of.mean_g))
        if len(changed) + len(fresh) > MOST_CHANGED:
            return None
        rows = [self._row(before, s) for s in changed]
        rows += [self._row(of, s) for s in (*changed, *fresh)]
        if not rows:
            return left
        across = np.array(rows) @ left
        signs = np.ones(len(rows))
        signs[: len(changed)] = -1.0
        middle = np.diag(signs) + across @ np.array(rows).T
        return left - across.T @ np.linalg.solve(middle, across)

    def _row(self, of: Gathered, s: int) -> Vector:
        """How a set's mean reading moves with unit deviations, over its noise, (K+P+N+S,)."""
        scales = np.zeros(of.scales)
        k = int(of.scale[s])
        scales[k] = self.believed.scale_sd[k] * of.mean_g[s]
        row = np.concatenate([self.believed.pulled(of.rows[s]), scales])
        return np.asarray(row / np.sqrt(of.variance[s]), dtype=float)


@recalled(keep=8)
def _growing(believed: Prior) -> _Growing:
    return _Growing(believed)
