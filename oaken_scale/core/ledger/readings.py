"""A build's readings as equations: gathered into sets, and what is believed of their loads."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache
from threading import Lock
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.ledger.loading import Loading
from oaken_scale.core.ledger.prior import HABITUAL, Prior
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.grown import begins_with
from oaken_scale.core.model.weighing import Pan, Scale, Weighing


@dataclass(frozen=True, slots=True)
class WeighedSet:
    """All active readings of one set of things on one scale: as good as their mean."""

    scale: int
    pan: Pan
    mean_g: float
    readings: int


class Line:
    """Logs that grew from one another, reading by reading; the readings of the longest."""

    def __init__(self) -> None:
        """None yet."""
        self.spoken: list[Weighing] = []


@dataclass(frozen=True, eq=False)
class Gathered:
    """A build's active readings, gathered into sets of the same things on the same scale.

    Readings of one set have one equation, so their mean with ``r^2/n`` tells all that they tell:
    the ledger's cost grows with the things weighed, not with the log. Of the sets: ``loading``
    (M rows), ``scale`` (M,), ``known_g`` (M,), ``mean_g`` (M,) and ``count`` (M,) of their
    readings, ``noise`` (M,) ``r^2`` of one reading [g2]. ``at`` (J,) is each reading's set and
    ``grams`` (J,) what it read, in the order of the log, ``accepted`` (J,) those that were accepted
    however doubtful. ``spoken`` are the active readings, in
    that order (a longer log of the same line may have more behind them), and ``sets`` gives each
    set's place by its pan and scale. ``line`` is the same for logs that grew from one another.

    >>> from dataclasses import replace
    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> motor = Pan((Load("m"),))
    >>> log = tuple(Weighing(f"{g}", noon, "s", g, motor) for g in (63.0, 63.4))
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> told = gathered(build)
    >>> told.mean_g.tolist(), told.count.tolist(), told.squares.round(3).tolist()
    ([63.2], [2.0], [0.08])
    >>> told.variance.round(4).tolist(), told.readings_of(motor), told.rows.tolist()
    ([0.0017], 2, [[0.0, 0.0, 1.0, 0.0]])
    >>> told.without((1,))[0].round(3).tolist()
    [63.0]
    >>> told.products_of(np.array([2.0]))[0].diagonal().tolist()
    [0.0, 0.0, 2.0, 0.0]
    >>> more = gathered(replace(build, weighings=(*log, replace(log[0], id="again"))))
    >>> more.begins_with(told), told.begins_with(more)
    (True, False)
    """

    line: "Line"
    spoken: Sequence[Weighing]
    sets: dict[tuple[Pan, int], int]
    at: NDArray[np.intp]
    grams: Vector
    accepted: NDArray[np.bool_]
    loading: Loading
    scale: NDArray[np.intp]
    scales: int
    """How many scales there are."""
    known_g: Vector
    mean_g: Vector
    count: Vector
    noise: Vector

    def begins_with(self, before: "Gathered") -> bool:
        """Whether the log is another one and readings more."""
        return self.line is before.line and len(before.at) <= len(self.at)

    @cached_property
    def squares(self) -> Vector:
        """How far the readings of each set are from their mean, squared and summed, (M,) [g2]."""
        apart = self.grams - self.mean_g[self.at]
        return np.bincount(self.at, apart**2, len(self.sets)).astype(float)

    @cached_property
    def variance(self) -> Vector:
        """The variance of each set's mean reading, shape (M,) [g2]."""
        return self.noise / self.count

    def products_of(self, weight: Vector) -> list[Matrix]:
        """``H' W H`` of the sets on each scale, (K+P+N square); ``weight`` (M,) [1/g2]."""
        return [
            self.loading.product(
                weight if self.scales == 1 else np.where(self.scale == k, weight, 0.0)
            )
            for k in range(self.scales)
        ]

    @property
    def rows(self) -> Matrix:
        """How each set loads lots, factors and parts, shape (M, K+P+N)."""
        return self.loading.rows

    def readings_of(self, pan: Pan) -> int:
        """How many active readings there are of what is on a pan, on any scale."""
        places = [self.sets[pan, k] for k in range(self.scales) if (pan, k) in self.sets]
        return int(self.count[places].sum())

    def without(self, dropped: Sequence[int]) -> tuple[Vector, Vector]:
        """The sets' means [g] and the variances of those means [g2], some readings left out;
        the variance is infinite where none is left."""
        if not dropped:
            return self.mean_g, self.variance
        count, total = self.count.copy(), self.mean_g * self.count
        for j in dropped:
            count[self.at[j]] -= 1
            total[self.at[j]] -= self.grams[j]
        some = np.maximum(count, 1)
        return (
            np.where(count > 0, total / some, self.mean_g),
            np.where(count > 0, self.noise / some, np.inf),
        )


def gathered(build: Build) -> Gathered:
    """Gather a build's active readings by what was on the pan and which scale it was.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> told = gathered(build)
    >>> told.rows.tolist()
    [[0.0, 0.0, 1.0, 0.0]]
    """
    gatherer = _gatherer(
        build.scales,
        tuple([part.id for part in build.parts]),
        tuple([lot.id for lot in build.lots]),
    )
    return gatherer.gather(build.weighings)


def weighed_sets(build: Build) -> tuple[WeighedSet, ...]:
    """The different sets of things that were weighed, each on its scale.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> [(one.scale, one.mean_g, one.readings) for one in weighed_sets(build)]
    [(0, 63.0, 1)]
    """
    of = gathered(build)
    figures = zip(of.mean_g.tolist(), of.count.astype(int).tolist(), strict=True)
    return tuple(WeighedSet(k, pan, *each) for (pan, k), each in zip(of.sets, figures, strict=True))


class _Gatherer:
    """Gathers readings of one list of parts, wherever those sit and whatever is believed of them.
    A log that is the last one and a reading more is not gone through again."""

    def __init__(
        self, scales: tuple[Scale, ...], parts: tuple[str, ...], lots: tuple[str, ...]
    ) -> None:
        self.parts, self.lots = parts, lots
        self.scale_at = {scale.id: k for k, scale in enumerate(scales)}
        self.noise = np.array([reading_doubt(each) ** 2 for each in scales], dtype=float)
        self.last: tuple[tuple[Weighing, ...], Gathered] | None = None
        self.turn = Lock()

    def gather(self, weighings: tuple[Weighing, ...]) -> Gathered:
        """The readings of a log."""
        with self.turn:
            return self._gathered(weighings)

    def _gathered(self, weighings: tuple[Weighing, ...]) -> Gathered:
        last, done = self.last, 0
        if last is not None and last[0] is weighings:
            return last[1]
        if last is not None:
            done = len(last[0])
            if not begins_with(weighings, last[0]):
                last, done = None, 0
        found = self._with(last[1] if last else None, weighings[done:])
        self.last = (weighings, found)
        return found

    def _with(self, before: Gathered | None, weighings: Sequence[Weighing]) -> Gathered:
        """So many readings more; all of them, in the order of the log, give the same figures."""
        sets = dict(before.sets) if before else {}
        seen: dict[tuple[int, str], int] = {}
        at, grams, accepted, spoken = [], [], [], []
        for each in weighings:
            if each.set_aside is None:
                spoken.append(each)
                same = (id(each.pan), each.scale)
                number = seen.get(same)
                if number is None:
                    kind = (each.pan, self.scale_at[each.scale])
                    number = seen[same] = sets.setdefault(kind, len(sets))
                at.append(number)
                grams.append(each.reading_g)
                accepted.append(each.accepted)
        if before is not None and not at:
            return before
        line = before.line if before and len(before.line.spoken) == len(before.at) else Line()
        if before is not None and line is not before.line:
            line.spoken += before.spoken[: len(before.at)]
        line.spoken += spoken
        where, read = np.array(at, dtype=np.intp), np.array(grams, dtype=float)
        taken = np.array(accepted, dtype=bool)
        fresh = list(sets)[len(before.sets) if before else 0 :]
        rows = _rows(self.parts, self.lots, [pan for pan, _ in fresh])
        loading = Loading(rows)
        scale = np.array([k for _, k in fresh], dtype=np.intp)
        known = np.array([pan.known_g for pan, _ in fresh], dtype=float)
        if before is not None:
            where, read = np.append(before.at, where), np.append(before.grams, read)
            taken = np.append(before.accepted, taken)
            loading = Loading(np.vstack([before.rows, rows])) if fresh else before.loading
            scale = np.append(before.scale, scale)
            known = np.append(before.known_g, known)
        count = np.bincount(where, minlength=len(sets)).astype(float)
        return Gathered(
            line=line,
            spoken=line.spoken,
            sets=sets,
            at=where,
            grams=read,
            accepted=taken,
            loading=loading,
            scale=scale,
            scales=len(self.noise),
            known_g=known,
            mean_g=np.bincount(where, read, len(sets)) / np.maximum(count, 1),
            count=count,
            noise=self.noise[scale] if len(scale) else np.zeros(0),
        )


@lru_cache(maxsize=16)
def _gatherer(
    scales: tuple[Scale, ...], parts: tuple[str, ...], lots: tuple[str, ...]
) -> _Gatherer:
    return _Gatherer(scales, parts, lots)


COMMON: Final = len(HABITUAL)
"""How many shared factors stand between the lots and the parts in the state."""


def pan_row(build: Build, pan: Pan) -> Vector:
    """How a pan loads lots, factors and parts: the ``h`` of ``y = h . z``, shape (K+P+N,).

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> pan_row(Build("x", "X", parts=parts), Pan((Load("b", 2.0),))).tolist()
    [0.0, 0.0, 0.0, 2.0]
    """
    parts, lots = [part.id for part in build.parts], [lot.id for lot in build.lots]
    row: Vector = _rows(tuple(parts), tuple(lots), [pan])[0]
    return row


def _rows(parts: tuple[str, ...], lots: tuple[str, ...], pans: Sequence[Pan]) -> Matrix:
    """The pans' rows over parts and lots by their ids, shape (M, K+P+N)."""
    part_at, lot_at = _columns(parts, lots)
    rows = np.zeros((len(pans), len(lots) + COMMON + len(parts)))
    loads = [
        (j, part_at[load.part], load.count) for j, pan in enumerate(pans) for load in pan.loads
    ]
    loads += [(j, lot_at[on.lot], on.amount) for j, pan in enumerate(pans) for on in pan.samples]
    if loads:
        row, column, amount = zip(*loads, strict=True)
        np.add.at(rows, (row, column), amount)
    return rows


@lru_cache(maxsize=16)
def _columns(
    parts: tuple[str, ...], lots: tuple[str, ...]
) -> tuple[dict[str, int], dict[str, int]]:
    """Which column of a pan's row each part has, and each lot, by their ids."""
    start = len(lots) + COMMON
    return (
        {id: start + i for i, id in enumerate(parts)},
        {id: k for k, id in enumerate(lots)},
    )


@dataclass(frozen=True, eq=False)
class Readings:
    """A build's readings as equations ``y = (1 + gamma) load + e``, under a prior.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> readings = Readings(prior(build), gathered(build))
    >>> readings.unknowns, readings.load.tolist()
    (5, [60.0])
    >>> readings.spread.round(3).tolist()  # 3 % that listings share, 4 % its own
    [[0.0, 1.8, 2.4, 0.0]]
    >>> readings.between.round(3).tolist()
    [[9.0]]
    """

    prior: Prior
    of: Gathered

    @property
    def unknowns(self) -> int:
        """How many numbers the readings tell of: lots, factors, parts and scales."""
        return int(self.of.rows.shape[1] + len(self.prior.scale_sd))

    @cached_property
    def load(self) -> Vector:
        """The prior mean of each set's load, shape (M,) [g]."""
        mean = np.concatenate([self.prior.common_mean, self.prior.mass])
        load: Vector = self.of.known_g + self.of.loading.loads(mean)
        return load

    @cached_property
    def spread(self) -> Matrix:
        """The loads over unit deviations of the prior, shape (M, K+P+N) [g]."""
        start = len(self.prior.common_mean)
        spread = self.of.rows.copy()
        spread[:, :start] += self.of.rows[:, start:] @ self.prior.shares
        spread[:, :start] *= self.prior.common_sd
        spread[:, start:] *= self.prior.own_sd
        return spread

    @cached_property
    def between(self) -> Matrix:
        """The prior covariance of the loads, shape (M, M) [g2]."""
        between: Matrix = self.spread @ self.spread.T
        return between
