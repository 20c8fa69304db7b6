"""Doubt: every reading left out in turn, predicted from the rest, and compared."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, ndtri

from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.readings import Readings, gathered, pan_row
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.ledger.settling import Settled, load_variance, settle, sharpness
from oaken_scale.core.ledger.slip import Prediction, Slip
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Pan, Weighing

DOUBTFUL: Final = 3.0
"""A reading this many sigma from what the rest predicts is doubtful."""

A_LOG: Final = 300
"""Of a log longer than this the farthest sound readings are farther off, so it takes more."""


def doubtful_beyond(readings: int) -> float:
    """How many sigma off a reading of so many is doubtful: :data:`DOUBTFUL`, and in a long log so
    much that no more sound ones lie beyond it than of :data:`A_LOG` readings do.

    >>> doubtful_beyond(40), doubtful_beyond(300), round(doubtful_beyond(50_000), 2)
    (3.0, 3.0, 4.31)
    """
    if readings <= A_LOG:
        return DOUBTFUL
    return float(-ndtri(ndtr(-DOUBTFUL) * A_LOG / readings))


LEAST_PART: Final = 0.4
"""A part's own doubt is most of a prediction's where neither is less than this of the other."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """A doubtful reading: what the rest predicts [g], one sigma, how far it is off in sigma.

    ``contradicts`` names the readings that speak against it where the data cannot say which is
    wrong; ``slips`` are the likely reasons, most likely first. ``disbelieved`` is the share with
    which the answers leave it out, or have it put right, 0 to 1.
    """

    weighing: str
    expected_g: float
    sd_g: float
    t: float
    contradicts: tuple[str, ...]
    slips: tuple[Slip, ...]
    disbelieved: float = 1.0


@dataclass(frozen=True, slots=True, eq=False)
class LeftOut:
    """Every active reading left out and predicted from the rest, in the order of the log.

    ``expected_g`` and ``sd_g`` (J,) are of the reading, the scale's noise included; ``t`` (J,) is
    ``(y_j - h_j . z^(-j)) / sqrt(r_j^2 + h_j' S^(-j) h_j)``.
    """

    weighings: tuple[Weighing, ...]
    expected_g: Vector
    sd_g: Vector
    t: Vector


def leave_one_out(build: Build) -> LeftOut:
    """Leave out each reading in turn, all from one factorisation, linearised where all settle.

    Source: docs/methods.md, section 9; Cook & Weisberg, *Residuals and Influence in Regression*,
    chapter 2.

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> pan = Pan((Load("motor"),))
    >>> build = Build("b", "B", parts=(Part("motor", "M", Pedigree.LISTING, stated_g=28.0),),
    ...     scales=(Scale("s", "S", 0.1, 0.05, 0.0),),
    ...     weighings=(Weighing("1", datetime.now(UTC), "s", 31.0, pan),))
    >>> round(float(leave_one_out(build).t[0]), 3)
    2.141
    """
    readings = Readings(prior(build), gathered(build))
    out = left_out(readings, settle(readings, *readings.of.without(())))
    spoken = tuple(readings.of.spoken[: len(readings.of.at)])
    return LeftOut(spoken, readings.of.grams - out.gap, out.sd, out.t)


@dataclass(frozen=True, slots=True, eq=False)
class Gaps:
    """How far each reading is from what the others predict, in sigma: ``t`` (J,), 0 where a whole
    set is left out; ``set_sd`` (M,) [g] of that prediction with the scale's noise, by set; ``at``
    (J,) each reading's set.

    >>> gaps = Gaps(np.array([2.0, 0.0, -1.0]), np.array([0.1, 0.3]), np.array([0, 0, 1]))
    >>> gaps.sd.tolist(), gaps.gap.tolist()
    ([0.1, 0.1, 0.3], [0.2, 0.0, -0.3])
    """

    t: Vector
    set_sd: Vector
    at: NDArray[np.intp]

    @property
    def gap(self) -> Vector:
        """How far each reading is off, (J,) [g]."""
        return self.t * self.sd

    @property
    def sd(self) -> Vector:
        """One sigma of each reading's prediction with the scale's noise, (J,) [g]."""
        return self.set_sd[self.at]


def left_out(readings: Readings, settled: Settled) -> Gaps:
    """Every reading left out in turn, in the dual form.

    With ``P = H S0 H' + R`` and ``a = P^-1 (y - H mu)``, leaving out reading j gives the gap
    ``a_j / (P^-1)_jj`` with the variance ``1 / (P^-1)_jj``: no small difference of large numbers,
    however fine the scale and however vague and heavy the load. Of ``n`` readings of one set, whose
    mean stands in ``P`` with ``q = r^2/n``, each has ``(P^-1)_jj = (1 - (1 - q (P^-1)_ss)/n)/r^2``.

    Source: Rasmussen & Williams, *Gaussian Processes for Machine Learning*, 5.4.2.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = tuple(Weighing(f"r{g}", noon, "s", g, Pan((Load("m"),))) for g in (63.0, 63.2))
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> told = settle(readings, readings.of.mean_g, readings.of.noise / readings.of.count)
    >>> [round(float(t), 2) for t in left_out(readings, told).t]  # one each side of the other
    [-2.44, 2.46]
    """
    of, at = readings.of, readings.of.at
    inverse, kept = sharpness(settled), np.isfinite(settled.variance)
    mean_variance = np.where(kept, settled.variance, 1.0)
    count = np.maximum(np.round(of.noise / mean_variance), 1.0)
    alone = count == 1
    sharp = np.where(alone, inverse, (1 - (1 - mean_variance * inverse) / count) / of.noise)
    sd = 1 / np.sqrt(np.where(kept, np.maximum(sharp, 1e-300), 1.0))
    apart = of.grams - ((1 + settled.error[of.scale]) * settled.load)[at]
    t = apart * (np.where(kept & ~alone, sd, 0.0) / of.noise)[at]
    single = np.flatnonzero((alone & kept)[at])
    t[single] = (settled.pull * sd)[at[single]]
    return Gaps(t, sd, at)


def scatter(readings: Readings, dropped: Sequence[int]) -> float:
    """Logarithm of how likely the readings of each set are about their own mean, some of them
    dropped: what a set's mean does not say.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = tuple(Weighing(f"r{g}", noon, "s", g, Pan((Load("m"),))) for g in (63.0, 63.2))
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> scatter(readings, [0]) == 0.0  # one reading alone has no mean to be off
    True
    >>> round(scatter(readings, []), 1)
    -1.4
    """
    of = readings.of
    count, mean, squares = of.count.copy(), of.mean_g.copy(), of.squares.copy()
    for j in dropped:
        s, left = int(of.at[j]), float(count[of.at[j]]) - 1
        off = float(of.grams[j] - mean[s])
        squares[s] = max(squares[s] - off**2 * (left + 1) / left, 0.0) if left else 0.0
        mean[s] -= off / left if left else 0.0
        count[s] = left
    about = float((squares / of.noise).sum())
    more = count > 1
    widths = (count - 1) * np.log(2 * np.pi * of.noise) + np.log(np.maximum(count, 1))
    return -0.5 * (about + float(widths[more].sum()))


def gap_of(readings: Readings, settled: Settled, j: int) -> tuple[float, float]:
    """How far reading ``j``, which did not settle with the rest, is from what they predict [g], and
    one sigma of that prediction with the scale's noise.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> log = (Weighing("r", datetime(2026, 3, 7, tzinfo=UTC), "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> told = settle(readings, readings.of.mean_g, np.array([np.inf]))
    >>> [round(value, 1) for value in gap_of(readings, told, 0)]
    [3.0, 3.0]
    """
    s = int(readings.of.at[j])
    noise = float(readings.of.noise[s])
    off = float(1 + settled.error[int(readings.of.scale[s])])
    gap = float(readings.of.grams[j]) - off * float(settled.load[s])
    return gap, (noise + load_variance(readings, settled, s)) ** 0.5


def predicted(
    build: Build, after: Posterior, pan: Pan, scale_id: str, reading_g: float, recorded: bool
) -> Prediction:
    """What a posterior that does not have a reading says of it.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),))
    >>> pan = Pan((Load("b"),))
    >>> told = predicted(build, solve(build), pan, "s", 112.0, recorded=False)
    >>> round(told.expected_g, 1), bool(told.gap > 3)
    (40.0, True)
    """
    k = next(k for k, scale in enumerate(build.scales) if scale.id == scale_id)
    scale = build.scales[k]
    error = float(after.mean[after.scales][k])
    row = np.zeros(len(after.mean))
    row[: after.parts.stop] = pan_row(build, pan)
    load = float(row @ after.mean) + pan.known_g
    row *= 1 + error
    row[after.scales.start + k] = load
    spread = after.cov @ row
    noise = reading_doubt(scale) ** 2
    variance = noise + max(float(spread @ row), 0.0)
    return Prediction(
        reading_g=reading_g,
        pan=pan,
        expected_g=(1 + error) * load,
        variance=variance,
        noise=noise,
        error=error,
        mass=after.mass,
        mass_variance=np.diag(after.mass_cov).copy(),
        covariance=spread[after.parts],
        step_g=scale.step_g,
        recorded=recorded,
        freedom=freedom(after, row[after.parts], variance),
    )


def freedom(after: Posterior, row: Vector, variance: float) -> float:
    """With how many degrees of freedom a prediction's doubt is known: those of the part whose own
    doubt is most of it, which was learned from few; infinite where a pan told the rest.

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> after = solve(Build("b", "B", parts=(motor,)))
    >>> freedom(after, np.ones(1), 9.0)
    inf
    """
    own = (row * after.prior.own_sd) ** 2
    total = float(own.sum())
    if not LEAST_PART * variance < total < variance / LEAST_PART:
        return float("inf")
    return float(after.prior.freedom[int(own.argmax())])
