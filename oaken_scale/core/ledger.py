"""The ledger: one estimate from every weighing.

A builder may weigh anything, in any order. Every reading is one linear equation in the same
unknown masses, so one calculation takes them all; glue is what makes the equations agree.
"""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_solve, cholesky
from scipy.linalg.blas import dsyrk
from scipy.linalg.lapack import dpotri

from oaken_scale.core.build import Build, Item, Pan
from oaken_scale.core.prior import Matrix, Prior, Vector, prior
from oaken_scale.core.scale import reading_doubt

SOLVED_KEPT: Final = 16
"""How many ledgers are remembered: a what-if that moves no mass need not solve them again."""


@dataclass(frozen=True, slots=True)
class WeighedSet:
    """All active readings of one set of things on one scale: as good as their mean."""

    scale: int
    pan: Pan
    mean_g: float
    readings: int


@dataclass(frozen=True, slots=True, eq=False)
class Posterior:
    """The masses after all weighings, with their covariance.

    The state is ``(lot constants (K), item masses (N), scale errors (S))``; ``mean`` has shape
    (K+N+S,), ``cov`` (K+N+S, K+N+S).
    """

    prior: Prior
    sets: tuple[WeighedSet, ...]
    at: NDArray[np.intp]
    """Which set each active reading is of, in the order of the log, shape (J,)."""
    rows: Matrix
    """How each set loads the lots and items, shape (M, K+N)."""
    mean: Vector
    cov: Matrix
    error_at: Vector
    """The scale errors (S,) about which the product with the load was linearised."""
    load_at: Vector
    """The sets' loads (M,) about which it was [g]."""

    @property
    def lots(self) -> slice:
        """Where the lot constants stand in the state."""
        return slice(0, len(self.prior.lot_mean))

    @property
    def items(self) -> slice:
        """Where the item masses stand in the state."""
        first = len(self.prior.lot_mean)
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
        """Doubt of the whole state, shape (K+N+S,)."""
        deviation: Vector = np.sqrt(np.maximum(np.diag(self.cov), 0.0))
        return deviation

    def total(self, weight: Vector) -> tuple[float, float]:
        """Mass of a weighted sum of items and its doubt [g]; ``weight`` has shape (N,)."""
        variance = float(weight @ self.mass_cov @ weight)
        return float(weight @ self.mass), max(variance, 0.0) ** 0.5


# Kept by the identity of the parts that it is a function of; holding them keeps identities true.
_SOLVED: dict[tuple[int, ...], tuple[tuple[object, ...], Posterior]] = {}


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
    """How a pan loads the lots and items: the ``h`` of ``y = h . z``, shape (K+N,)."""
    row: Vector = _rows(build, (pan,))[0]
    return row


def solve(build: Build) -> Posterior:
    """Condition the prior on every active weighing.

    ``y_j = (1 + gamma) (h_j . z + known_j) + e_j``, ``e_j ~ N(0, r_j)``, with ``gamma ~ N(0, c)``
    a state of the scale, linearised at the reading itself and once more at the estimate. Solved
    in the information form over the independent deviations ``u ~ N(0, I)``, where the matrix to
    factor, ``I + B'B``, stays well conditioned however often a set is weighed.

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
    spoken = (build.lots, build.items, build.scales, build.weighings, build.allowance)
    key = tuple(id(part) for part in spoken)
    known = _SOLVED.get(key) or _alike(build)
    if known is None:
        known = _SOLVED[key] = (spoken, _solve(build))
        for stale in list(_SOLVED)[:-SOLVED_KEPT]:
            _SOLVED.pop(stale, None)
    return known[1]


def _alike(build: Build) -> tuple[tuple[object, ...], Posterior] | None:
    """The ledger of a build whose things weigh alike and only sit elsewhere: a drag moves no
    mass. Looked for among the few last ones."""
    for spoken, posterior in reversed(_SOLVED.values()):
        lots, items, scales, weighings, allowance = spoken
        if (
            lots is build.lots
            and scales is build.scales
            and weighings is build.weighings
            and allowance is build.allowance
            and isinstance(items, tuple)
            and len(items) == len(build.items)
            and all(map(_weigh_alike, items, build.items))
        ):
            return spoken, posterior
    return None


def _weigh_alike(one: Item, other: Item) -> bool:
    """Whether the ledger believes the same of two things before anything is weighed."""
    return one is other or (
        one.id == other.id
        and one.pedigree is other.pedigree
        and one.stated_g == other.stated_g
        and one.uses == other.uses
        and one.doubt_g == other.doubt_g
        and one.elsewhere == other.elsewhere
        and one.option == other.option
        and one.retired == other.retired
    )


def _solve(build: Build) -> Posterior:
    believed = prior(build)
    sets, at = _gathered(build)
    rows = _rows(build, tuple(each.pan for each in sets))
    if not sets:
        mean = _prior_mean(believed)
        cov = _spread(believed, _spread(believed, np.eye(len(mean))).T)
        none = np.zeros(len(build.scales))
        return Posterior(believed, sets, at, rows, mean, cov, none, np.zeros(0))
    readings = _readings(build, believed, sets, rows)
    error, load = np.zeros(len(build.scales)), readings.mean_g
    mean, factor = _condition(believed, readings, error, load)
    if believed.scale_sd.any():
        error, load = mean[rows.shape[1] :], rows @ mean[: rows.shape[1]] + readings.known_g
        mean, factor = _condition(believed, readings, error, load)
    inverse, _ = dpotri(factor, lower=1)
    inverse += np.tril(inverse, -1).T
    cov = _spread(believed, _spread(believed, inverse).T)
    return Posterior(believed, sets, at, rows, mean, cov, error, load)


@dataclass(frozen=True, slots=True, eq=False)
class _Readings:
    """The weighed sets as arrays.

    ``rows`` shape (M, K+N); ``whitened`` the same over unit deviations and doubts;
    the rest (M,): which scale, known mass and mean [g], and one over the doubt of the mean.
    """

    rows: Matrix
    whitened: Matrix
    scale: NDArray[np.intp]
    known_g: Vector
    mean_g: Vector
    sharpness: Vector


def _readings(
    build: Build, believed: Prior, sets: tuple[WeighedSet, ...], rows: Matrix
) -> _Readings:
    scale = np.array([each.scale for each in sets], dtype=np.intp)
    doubt = np.array([reading_doubt(each) for each in build.scales])[scale]
    sharpness = np.sqrt([each.readings for each in sets]) / doubt
    lots = len(believed.lot_sd)
    whitened = rows * sharpness[:, None]
    whitened[:, :lots] += whitened[:, lots:] @ believed.uses
    whitened[:, :lots] *= believed.lot_sd
    whitened[:, lots:] *= believed.own_sd
    return _Readings(
        rows=rows,
        whitened=whitened,
        scale=scale,
        known_g=np.array([each.pan.known_g for each in sets]),
        mean_g=np.array([each.mean_g for each in sets]),
        sharpness=sharpness,
    )


def _prior_mean(believed: Prior) -> Vector:
    """Prior mean of the whole state, shape (K+N+S,)."""
    return np.concatenate([believed.lot_mean, believed.mass, np.zeros(len(believed.scale_sd))])


def _spread(believed: Prior, unit: Matrix) -> Matrix:
    """Turn unit deviations into deviations of the state: ``D unit``, with ``D D'`` the prior.

    ``unit`` has shape (K+N+S, any); D is diagonal but for the parts' share in their lots.
    """
    lots, items = len(believed.lot_sd), len(believed.own_sd)
    lot = believed.lot_sd[:, None] * unit[:lots]
    own = believed.own_sd[:, None] * unit[lots : lots + items]
    error = believed.scale_sd[:, None] * unit[lots + items :]
    return np.vstack([lot, believed.uses @ lot + own, error])


def _condition(
    believed: Prior, readings: _Readings, error: Vector, load: Vector
) -> tuple[Vector, Matrix]:
    """One linearised step about scale errors (S,) and loads (M,) [g].

    Returns the new mean and the lower Cholesky factor of ``I + B'B``.
    """
    count, masses = readings.rows.shape
    off = error[readings.scale]
    whitened = np.zeros((count, masses + len(error)))
    np.multiply(readings.whitened, (1 + off)[:, None], out=whitened[:, :masses])
    gamma = believed.scale_sd[readings.scale] * load * readings.sharpness
    whitened[np.arange(count), masses + readings.scale] = gamma
    mean = _prior_mean(believed)
    predicted = (1 + off) * (readings.rows @ mean[:masses] + readings.known_g) - off * load

    information = dsyrk(1.0, whitened.T, lower=1)
    information[np.diag_indices_from(information)] += 1.0
    factor = cholesky(information, lower=True, check_finite=False, overwrite_a=True)
    push = whitened.T @ (readings.sharpness * (readings.mean_g - predicted))
    step = cho_solve((factor, True), push, check_finite=False)
    return mean + _spread(believed, step[:, None])[:, 0], factor


def _rows(build: Build, pans: tuple[Pan, ...]) -> Matrix:
    """Stack the pans' rows, shape (M, K+N)."""
    lots = len(build.lots)
    lot_index = {lot.id: k for k, lot in enumerate(build.lots)}
    item_index = {item.id: lots + i for i, item in enumerate(build.items)}
    rows = np.zeros((len(pans), lots + len(build.items)))
    for j, pan in enumerate(pans):
        for load in pan.loads:
            rows[j, item_index[load.item]] += load.count
        for sample in pan.samples:
            rows[j, lot_index[sample.lot]] += sample.amount
    return rows
