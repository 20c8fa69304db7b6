"""What is told while a reading may be a slip: a mixture over what may have gone wrong.

One wrong reading must not bend the answers with a tight doubt. Each reading is a slip with a small
chance: some slips say what the reading would have been, the rest are off by any amount. Every
branch leaves its reading out, or puts it right; what is told is the branches' mean and their whole
variance. No reading is changed.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.ledger.branches import Branch, mixed, shared
from oaken_scale.core.ledger.first_look import first_look
from oaken_scale.core.ledger.habit import USUAL_WIDTH, Width, widening, widths
from oaken_scale.core.ledger.outliers import (
    DOUBTFUL,
    Doubt,
    gap_of,
    left_out,
    predicted,
)
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import nobody_knows, prior
from oaken_scale.core.ledger.readings import Readings, gathered
from oaken_scale.core.ledger.settling import Point
from oaken_scale.core.ledger.slips import slips
from oaken_scale.core.ledger.suspects import Node, Suspects
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Lot
from oaken_scale.core.model.part import Habit, Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.traits import wherever
from oaken_scale.core.model.weighing import Container, Pan, Scale, Weighing

MOST_DOUBTS: Final = 8
"""At most so many readings are doubted at once; beyond that the build is a muddle, not a slip."""

RIVALS: Final = 0.05
"""One that may be wrong instead, at least this likely beside the likeliest, contradicts it."""

BEGUN: Final = 5
"""So many of the readings farthest off are tried as the first one put aside, where several are."""

CHANGED: Final = 0.05
"""Widths that change by more once the slips are out are learned anew."""

KEPT: Final = 16
"""So many estimates are remembered: a what-if that moves no mass need not be worked out again."""


@dataclass(frozen=True, slots=True, eq=False)
class Estimate:
    """What is told of a build's masses.

    ``after`` has the mixture's mean and covariance; ``believing`` is the settled estimate with
    every reading believed; ``branches`` the mixture, likeliest first; ``doubts`` the doubtful
    readings, the likeliest slip first; ``wide`` how wide each pedigree's own doubt came out.
    """

    after: Posterior
    believing: Posterior
    branches: tuple[Branch, ...]
    doubts: tuple[Doubt, ...]
    wide: dict[Pedigree, Width]

    @property
    def disbelieving(self) -> tuple[str, ...]:
        """The readings that are more likely wrong than not; where none is, those that contradict
        each other."""
        likely = tuple(each.weighing for each in self.doubts if each.disbelieved >= 0.5)
        return likely or tuple(
            id for each in self.doubts[:1] for id in (each.weighing, *each.contradicts)
        )


def estimate(build: Build) -> Estimate:
    """What is told of a build's masses, slips allowed for; remembered while nothing weighs
    otherwise.

    A tail of 33 g weighed alone, and with 4 g of glue at 68.4 g because a tray was not tared:

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Scale, Weighing
    >>> def part(id, known, grams):
    ...     return Part(id, id, known, stated_g=grams)
    >>> def read(id, grams, *on):
    ...     pan = Pan(tuple(sorted(Load(each) for each in on)))
    ...     return Weighing(id, datetime.now(UTC), "s", grams, pan)
    >>> build = Build("m", "M", scales=(Scale("s", "S", 0.1),), parts=(
    ...     part("tail", Pedigree.LISTING, 33.0), part("glue", Pedigree.JOINT, 4.0),
    ...     part("rest", Pedigree.GUESS, 450.0)), weighings=(
    ...     read("A", 33.0, "tail"), read("B", 68.4, "tail", "glue"), read("C", 450.0, "rest"),
    ...     read("D", 487.0, "tail", "glue", "rest")))
    >>> told = estimate(build)
    >>> [round(x, 1) for x in told.after.total(np.ones(3))]
    [487.0, 1.5]
    >>> [each.weighing for each in told.doubts], round(told.believing.total(np.ones(3))[0])
    (['B'], 497)
    """
    return _remembered(
        build.lots,
        wherever(build.parts),
        build.scales,
        build.weighings,
        build.containers,
        build.allowance,
        build.habits,
    )


def solve(build: Build) -> Posterior:
    """The masses as they are told: :func:`estimate` without what is behind it.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> after = solve(Build("b", "B", parts=(Part("w", "Wing", Pedigree.GUESS, stated_g=90.0),)))
    >>> after.mass.tolist()
    [90.0]
    """
    return estimate(build).after


@recalled(keep=KEPT)
def _remembered(
    lots: tuple[Lot, ...],
    parts: tuple[Part, ...],
    scales: tuple[Scale, ...],
    weighings: tuple[Weighing, ...],
    containers: tuple[Container, ...],
    allowance: Known | None,
    habits: tuple[Habit, ...],
) -> Estimate:
    return _estimate(
        Build(
            "",
            "",
            lots=lots,
            parts=parts,
            scales=scales,
            weighings=weighings,
            containers=containers,
            allowance=allowance,
            habits=habits,
        )
    )


def _estimate(build: Build) -> Estimate:
    readings = Readings(prior(build), gathered(build))
    seen = first_look(readings).rounded()
    wide = widths(build, readings.prior.usual, seen.own, seen.told)
    points = {frozenset[int](): seen.point}
    look = _Look(build, _widened(build, readings, wide), points, wide)
    told = look.told()
    if told.doubts:
        seen = first_look(readings, sorted(look.doubted)).rounded()
        again = widths(build, readings.prior.usual, seen.own, seen.told)
        if any(
            abs(again.get(p, USUAL_WIDTH).taken / wide.get(p, USUAL_WIDTH).taken - 1) > CHANGED
            for p in {*again, *wide}
        ):
            told = _Look(build, _widened(build, readings, again), points, again).told()
    return told


def _widened(build: Build, readings: Readings, wide: dict[Pedigree, Width]) -> Readings:
    by, freedom = widening(build, readings.prior, wide)
    return Readings(readings.prior.widened(by, freedom), readings.of)


@dataclass(frozen=True, slots=True, eq=False)
class _Way:
    """One way through the readings: where it ends, the mixture's leaves with the logarithms of
    their weights beside believing everything, which readings may be wrong instead of each that is
    put aside, and the logarithm of the way's own weight."""

    node: Node
    leaves: list[tuple[float, Branch]]
    rivals: dict[int, tuple[str, ...]]
    log_weight: float


class _Look(Suspects):
    """One look at a build's readings under one prior."""

    def __init__(
        self,
        build: Build,
        readings: Readings,
        points: dict[frozenset[int], Point],
        wide: dict[Pedigree, Width],
    ) -> None:
        """``wide`` is how wide each pedigree's own doubt was taken."""
        super().__init__(build, readings, points)
        self.wide = wide
        self.doubted: tuple[int, ...] = ()

    def told(self) -> Estimate:
        """The mixture, and the doubts.

        Where two or more are put aside, the one that looked worst at first may be sound: ways that
        begin with another of the doubtful ones are gone as well, and the likeliest is told.
        """
        first = self.node(())
        way = self._way(first, ())
        if len(way.node.gone) > 1:
            off = np.abs(left_out(self.readings, first.settled).t) * self.open
            some = np.flatnonzero(off > self.doubtful)
            begin = some[np.argsort(-off[some], kind="stable")].tolist()
            others = [self._way(first, (j,)) for j in begin[:BEGUN] if j != way.node.gone[0]]
            way = max([way, *others], key=lambda each: each.log_weight)
        self.doubted, rest = self._tested_anew(way.node.gone)
        branches = shared(way.leaves)
        told = mixed(first.after, branches, way.node.after)
        doubts = self._doubts(self.doubted, rest, way, branches) if rest is not None else ()
        return Estimate(told, first.after, branches, doubts, self.wide)

    def _way(self, first: Node, begin: tuple[int, ...]) -> _Way:
        """One reading after another: where leaving one out, or putting it right, is likelier than
        all else together, one more is looked for without it. It begins with ``begin``."""
        node, base, mixing, story = first, 0.0, True, 0.0
        leaves: list[tuple[float, Branch]] = []
        quiet = [(0.0, Branch(1.0, (), first.after.mean, first.after.cov))]
        rivals: dict[int, tuple[str, ...]] = {}
        while True:
            wanted = begin[len(node.gone)] if len(node.gone) < len(begin) else None
            groups = self.groups(node, wanted)
            doubtful = [group for group in groups if abs(group.t) > self.doubtful]
            best = max(doubtful, key=lambda group: group.log_weight, default=None)
            if wanted is not None:
                best = next((group for group in groups if group.j == wanted), None)
            last = best is None or len(node.gone) + 1 >= MOST_DOUBTS
            goes_on = mixing and best is not None and not last
            if best is not None and wanted is None:
                total = np.logaddexp.reduce([0.0, *(group.log_weight for group in groups)])
                goes_on = goes_on and bool(best.log_weight - total > np.log(0.5))
            if mixing:
                leaves += [(base + w, branch) for w, branch in quiet]
                leaves += [
                    (base + w, branch)
                    for group in groups
                    if not (goes_on and group is best)
                    for w, branch in group.branches
                ]
            if best is None:
                break
            story += best.log_weight
            rivals[best.j] = tuple(
                self.spoken[group.j].id
                for group in doubtful
                if group is not best and group.log_weight - best.log_weight > np.log(RIVALS)
            )
            if goes_on:
                base += best.log_weight
                quiet = [(w - best.log_weight, branch) for w, branch in best.branches]
            mixing = goes_on
            node = self.node((*node.gone, best.j))
            if last:
                break
        return _Way(node, leaves, rivals, story)

    def _tested_anew(self, gone: tuple[int, ...]) -> tuple[tuple[int, ...], Posterior | None]:
        """Those of the readings put aside that are doubtful with all of them out, and the rest."""
        kept = list(gone)
        while kept:
            rest = self.node(tuple(kept))
            off = {j: abs(float(np.divide(*gap_of(self.readings, rest.settled, j)))) for j in kept}
            least = min(kept, key=lambda j: off[j])
            if off[least] > self.doubtful:
                return tuple(kept), rest.after
            kept.remove(least)
        return (), None

    def _doubts(
        self, gone: Sequence[int], after: Posterior, way: _Way, branches: Sequence[Branch]
    ) -> tuple[Doubt, ...]:
        """The doubtful readings as the rest sees them."""
        told = []
        for j in gone:
            weighing = self.spoken[j]
            found = self.prediction(after, weighing)
            told.append(
                Doubt(
                    weighing.id,
                    found.expected_g,
                    found.variance**0.5,
                    found.gap,
                    way.rivals.get(j, ()),
                    slips(self.build, found),
                    sum(b.share for b in branches if weighing.id in dict(b.disbelieves)),
                )
            )
        return tuple(told)


def suspect(build: Build, pan: Pan, scale_id: str, reading_g: float) -> Doubt | None:
    """A reading that is still on the pan, doubted before it is recorded; None when it is sound.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> told = suspect(build, Pan((Load("b"),)), "s", 112.0)
    >>> told.slips[0].kind.value
    'left on'
    """
    found = predicted(build, solve(build), pan, scale_id, reading_g, recorded=False)
    if abs(found.gap) <= DOUBTFUL or nobody_knows(build, pan):
        return None
    return Doubt("", found.expected_g, found.variance**0.5, found.gap, (), slips(build, found))


def doubts(build: Build) -> tuple[Doubt, ...]:
    """The doubtful readings, the likeliest slip first, each with what would explain it.

    >>> doubts(Build("b", "B"))
    ()
    """
    return estimate(build).doubts
