"""Doubt: which reading is wrong, and why.

Every reading is left out in turn, predicted from the rest, and compared, all from the one
factorisation that the ledger has. What stands out is tried against the slips that people make.
"""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array

from oaken_scale.core.build import Build, Pan, Weighing
from oaken_scale.core.ledger import Posterior, pan_row, solve
from oaken_scale.core.prior import Matrix, Vector
from oaken_scale.core.scale import reading_doubt
from oaken_scale.core.slips import Prediction, Slip, slips

DOUBTFUL: Final = 3.0
"""A reading this many sigma from what the rest predicts is doubtful."""

UNEASY: Final = 2.0
"""Readings nearer than this are left alone while the doubtful ones are sorted out."""

FAR: Final = 4.0
"""A reading farther off than this has bent the scale's error too: the rest is solved anew."""

ANEW: Final = 2
"""So often it is solved anew; in a muddle of many more the first step must do."""

DOUBTED_KEPT: Final = 16

MOST_DOUBTS: Final = 8
"""At most so many readings are doubted at once; beyond that the build is a muddle, not a slip."""


@dataclass(frozen=True, slots=True)
class Doubt:
    """A doubtful reading: what the rest predicts [g], one sigma, how far it is off in sigma.

    ``contradicts`` names the readings that speak against it where the data cannot say which is
    wrong; ``slips`` are the likely reasons, most likely first.
    """

    weighing: str
    expected_g: float
    sd_g: float
    t: float
    contradicts: tuple[str, ...]
    slips: tuple[Slip, ...]


@dataclass(frozen=True, slots=True, eq=False)
class LeftOut:
    """Every active reading left out and predicted from the rest, in the order of the log.

    ``residual`` (J,) [g] is from the estimate with all readings; ``t`` (J,) is
    ``(y_j - h_j . z^(-j)) / sqrt(r_j^2 + h_j' S^(-j) h_j)``. ``at`` (J,) is each reading's set, and
    ``rows`` (M, K+N+S), ``spread`` (M, K+N+S) the sets' linearised rows and their product with the
    covariance; ``fit`` (M,) ``h' S h``; ``noise`` (M,) ``r^2``.
    """

    weighings: tuple[Weighing, ...]
    at: NDArray[np.intp]
    rows: Matrix
    spread: Matrix
    fit: Vector
    noise: Vector
    residual: Vector
    t: Vector


def leave_one_out(build: Build, after: Posterior) -> LeftOut:
    """Leave out each reading in turn, all from the covariance that is there.

    With the residual ``e = y - h . z``, and ``v = h' S h`` of the estimate that has the reading,
    leaving it out gives ``y - h . z^(-j) = e r^2/(r^2 - v)`` with the variance ``r^4/(r^2 - v)``,
    so ``t = e / sqrt(r^2 - v)``. Several readings of one set are left out one at a time as well.

    Source: docs/methods.md, section 9; Cook & Weisberg, *Residuals and Influence in Regression*,
    chapter 2.

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.build import Item, Load, Pedigree, Scale
    >>> pan = Pan((Load("motor"),))
    >>> build = Build("b", "B", items=(Item("motor", "M", Pedigree.LISTING, stated_g=28.0),),
    ...     scales=(Scale("s", "S", 0.1, 0.05, 0.0),),
    ...     weighings=(Weighing("1", datetime.now(UTC), "s", 31.0, pan),))
    >>> round(float(leave_one_out(build, solve(build)).t[0]), 3)
    2.141
    """
    spoken = tuple(each for each in build.weighings if each.set_aside is None)
    at = after.at
    scales = np.array([each.scale for each in after.sets], dtype=np.intp)
    masses = after.items.stop
    known_g = np.array([each.pan.known_g for each in after.sets])
    error, load = after.error_at[scales], after.load_at
    rows = np.zeros((len(after.sets), len(after.mean)))
    rows[:, :masses] = after.rows * (1 + error)[:, None]
    rows[np.arange(len(rows)), masses + scales] = load
    predicted = rows @ after.mean + (1 + error) * known_g - error * load
    spread = csr_array(rows) @ after.cov
    fit = np.einsum("ij,ij->i", spread, rows)
    noise = np.array([reading_doubt(scale) ** 2 for scale in build.scales])[scales]
    residual = np.array([each.reading_g for each in spoken]) - predicted[at]
    left = np.maximum((noise - fit)[at], 1e-12 * noise[at])
    return LeftOut(spoken, at, rows, spread, fit, noise, residual, residual / np.sqrt(left))


def doubts(build: Build, after: Posterior) -> tuple[Doubt, ...]:
    """The doubtful readings, the most doubtful first, each with what would explain it.

    The worst one is left out and the rest looked at again, so that what it dragged along is not
    blamed. Two that are both sound once either is left out contradict each other.
    """
    known = _DOUBTED.get(id(after))
    if known is not None and known[0] is after and known[1] is build.weighings:
        return known[2]
    told = _doubts(build, after)
    _DOUBTED[id(after)] = (after, build.weighings, told)
    for stale in list(_DOUBTED)[:-DOUBTED_KEPT]:
        _DOUBTED.pop(stale, None)
    return told


# By the identity of the ledger that they are told of: a drag moves no mass and doubts nothing anew.
_DOUBTED: dict[int, tuple[Posterior, tuple[Weighing, ...], tuple[Doubt, ...]]] = {}


def _doubts(build: Build, after: Posterior) -> tuple[Doubt, ...]:
    if not after.sets:
        return ()
    out = leave_one_out(build, after)
    open_to = np.array([not each.accepted for each in out.weighings], dtype=bool)
    if not (np.abs(out.t[open_to]) > DOUBTFUL).any():
        return ()
    out = _only(out, np.flatnonzero(np.abs(out.t) > UNEASY))
    doubted = np.array([not each.accepted for each in out.weighings])
    told: list[Doubt] = []
    gone: set[str] = set()
    rest = _Rest.of(after, out)
    while len(told) < MOST_DOUBTS:
        t = np.abs(rest.t(out)) * doubted
        worst = int(t.argmax())
        if t[worst] <= DOUBTFUL:
            break
        weighing = out.weighings[worst]
        rivals = _rivals(out, rest, worst)
        rest = rest.without(out, worst)
        doubted[worst] = False
        found = rest.told(build, out, after, worst)
        if t[worst] > FAR and len(gone) < ANEW:
            gone.add(weighing.id)
            solved = solve(_less(build, gone))
            found = _told(build, solved, weighing.pan, weighing.scale, weighing.reading_g)
        told.append(_doubt(build, weighing.id, found, rivals))
    return tuple(told)


def _only(out: LeftOut, kept: NDArray[np.intp]) -> LeftOut:
    """Some of the readings, and the sets that they are of."""
    sets, at = np.unique(out.at[kept], return_inverse=True)
    return LeftOut(
        weighings=tuple(out.weighings[k] for k in kept),
        at=at.astype(np.intp),
        rows=out.rows[sets],
        spread=out.spread[sets],
        fit=out.fit[sets],
        noise=out.noise[sets],
        residual=out.residual[kept],
        t=out.t[kept],
    )


def _less(build: Build, gone: set[str]) -> Build:
    """The build without some of its readings."""
    return replace(build, weighings=tuple(w for w in build.weighings if w.id not in gone))


@dataclass(frozen=True, slots=True, eq=False)
class _Rest:
    """The estimate once some readings are left out, one rank-one step for each.

    ``mean`` and ``variance`` of the state (K+N+S,); ``spread`` (M, K+N+S) ``H S``; ``between``
    (M, M) ``H S H'``; ``residual`` (J,).
    """

    mean: Vector
    variance: Vector
    spread: Matrix
    between: Matrix
    residual: Vector

    @classmethod
    def of(cls, after: Posterior, out: LeftOut) -> "_Rest":
        """Nothing left out yet."""
        between = out.spread @ csr_array(out.rows).T
        return cls(after.mean, np.diag(after.cov).copy(), out.spread, between, out.residual)

    def spare(self, out: LeftOut, j: int) -> float:
        """What reading ``j``'s noise has over the doubt of its fit: ``r^2 - v``."""
        s = out.at[j]
        noise = float(out.noise[s])
        return max(noise - float(self.between[s, s]), 1e-12 * noise)

    def t(self, out: LeftOut) -> Vector:
        """How far each reading is from what the others predict, in sigma, shape (J,)."""
        spare = np.maximum(out.noise - np.diag(self.between), 1e-12 * out.noise)
        told: Vector = self.residual / np.sqrt(spare[out.at])
        return told

    def without(self, out: LeftOut, j: int) -> "_Rest":
        """Leave reading ``j`` out as well: ``z -= S h e/(r^2-v)``, ``S += S h h' S/(r^2-v)``."""
        s, spare = out.at[j], self.spare(out, j)
        state, column = self.spread[s], self.between[:, s]
        by = float(self.residual[j]) / spare
        return _Rest(
            mean=self.mean - state * by,
            variance=self.variance + state**2 / spare,
            spread=self.spread + np.outer(column, state) / spare,
            between=self.between + np.outer(column, column) / spare,
            residual=self.residual + column[out.at] * by,
        )

    def told(self, build: Build, out: LeftOut, after: Posterior, j: int) -> Prediction:
        """What is said of reading ``j``, which is left out."""
        s, weighing = out.at[j], out.weighings[j]
        k = next(k for k, each in enumerate(build.scales) if each.id == weighing.scale)
        noise = float(out.noise[s])
        return Prediction(
            reading_g=weighing.reading_g,
            pan=weighing.pan,
            expected_g=weighing.reading_g - float(self.residual[j]),
            variance=noise + float(self.between[s, s]),
            noise=noise,
            error=float(self.mean[after.scales][k]),
            mass=self.mean[after.items],
            mass_variance=self.variance[after.items],
            covariance=self.spread[s][after.items],
            step_g=build.scales[k].step_g,
        )


def suspect(build: Build, pan: Pan, scale_id: str, reading_g: float) -> Doubt | None:
    """A reading that is still on the pan, doubted before it is recorded; None when it is sound."""
    found = _told(build, solve(build), pan, scale_id, reading_g)
    return None if abs(found.gap) <= DOUBTFUL else _doubt(build, "", found, ())


def _rivals(out: LeftOut, rest: _Rest, worst: int) -> tuple[str, ...]:
    """The doubtful readings that, left out instead, would clear the worst one as well."""
    doubtful = [int(k) for k in np.flatnonzero(np.abs(rest.t(out)) > DOUBTFUL) if k != worst]

    def without(j: int, k: int) -> float:
        """How far reading ``k`` is off once ``j`` is left out, in sigma."""
        s, m, spare = out.at[j], out.at[k], rest.spare(out, j)
        residual = rest.residual[k] + rest.between[m, s] * rest.residual[j] / spare
        left = out.noise[m] - rest.between[m, m] - rest.between[m, s] ** 2 / spare
        return float(abs(residual) / max(float(left), 1e-12 * float(out.noise[m])) ** 0.5)

    return tuple(
        out.weighings[k].id
        for k in doubtful
        if without(worst, k) <= DOUBTFUL and without(k, worst) <= DOUBTFUL
    )


def _doubt(build: Build, weighing: str, found: Prediction, rivals: tuple[str, ...]) -> Doubt:
    return Doubt(
        weighing, found.expected_g, found.variance**0.5, found.gap, rivals, slips(build, found)
    )


def _told(build: Build, after: Posterior, pan: Pan, scale_id: str, reading_g: float) -> Prediction:
    """What a posterior that does not have a reading says of it."""
    k = next(k for k, scale in enumerate(build.scales) if scale.id == scale_id)
    scale = build.scales[k]
    error = float(after.mean[after.scales][k])
    row = np.zeros(len(after.mean))
    row[: after.items.stop] = pan_row(build, pan)
    load = float(row @ after.mean) + pan.known_g
    row *= 1 + error
    row[after.scales.start + k] = load
    spread = after.cov @ row
    noise = reading_doubt(scale) ** 2
    return Prediction(
        reading_g=reading_g,
        pan=pan,
        expected_g=(1 + error) * load,
        variance=noise + float(spread @ row),
        noise=noise,
        error=error,
        mass=after.mass,
        mass_variance=np.diag(after.mass_cov).copy(),
        covariance=spread[after.items],
        step_g=scale.step_g,
    )
