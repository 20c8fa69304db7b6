"""What is told while a reading may be a slip: a mixture over what may have gone wrong.

One wrong reading must not bend the answers with a tight doubt. Each reading is a slip with a small
chance: some slips say what the reading would have been, the rest are off by any amount. Every
branch leaves its reading out, or puts it right; what is told is the branches' mean and their whole
variance. No reading is changed.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.ledger.habit import USUAL_WIDTH, Width, widening, widths
from oaken_scale.core.ledger.outliers import (
    DOUBTFUL,
    Doubt,
    freedom,
    gap_of,
    left_out,
    predicted,
    scatter,
)
from oaken_scale.core.ledger.posterior import Posterior, first_look, posterior
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.readings import Readings, gathered, pan_row
from oaken_scale.core.ledger.settling import Settled, settle
from oaken_scale.core.ledger.slips import (
    NAMED,
    UNNAMED,
    Prediction,
    Slip,
    log_any,
    log_chance,
    slips,
    tried,
)
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build, Item, Pan, Pedigree, Weighing

UNEASY: Final = 1.5
"""A reading nearer than this to what the rest predicts is believed without looking further."""

TIGHT: Final = 4.0
"""One that the rest predicts within so many times the scale's own doubt is believed up to where it
is doubtful: whether it is right moves the answer by less than the scale's doubt does."""

LOOKED_AT: Final = 6
"""So many of the readings farthest off are looked at, each settled anew without it."""

FAR: Final = 6.0
"""One farther off than this bends the scale's error: the rest is settled anew without it."""

NEAR_BEST: Final = 12.0
"""One whose leaving out is less likely than the best by more than this (in logarithms) is not."""

LEAST_SHARE: Final = 1e-6
"""A branch with a smaller share is left out of the mixture."""

LEAST_LOG: Final = -14.0
"""The same as a logarithm, for branches beside the likeliest of their reading."""

MOST_DOUBTS: Final = 8
"""At most so many readings are doubted at once; beyond that the build is a muddle, not a slip."""

RIVALS: Final = 0.05
"""One that may be wrong instead, at least this likely beside the likeliest, contradicts it."""

BEGUN: Final = 5
"""So many of the readings farthest off are tried as the first one put aside, where several are."""

MOST_BRANCHES: Final = 40
"""So many branches are kept at most."""

CHANGED: Final = 0.05
"""Widths that change by more once the slips are out are learned anew."""

KEPT: Final = 16
"""So many estimates are remembered: a what-if that moves no mass need not be worked out again."""


@dataclass(frozen=True, slots=True, eq=False)
class Branch:
    """One way that it may be: its ``share``, the readings it does not believe, each with the slip
    that puts it right (None: left out), and the state's ``mean`` and ``cov``."""

    share: float
    disbelieves: tuple[tuple[str, Slip | None], ...]
    mean: Vector
    cov: Matrix


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


# Kept by the identity of what it is a function of; holding that keeps identities true.
_KEPT: dict[tuple[int, ...], tuple[tuple[object, ...], Estimate]] = {}


def estimate(build: Build) -> Estimate:
    """What is told of a build's masses, slips allowed for; remembered while nothing weighs
    otherwise.

    A tail of 33 g weighed alone, and with 4 g of glue at 68.4 g because a tray was not tared:

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.build import Load, Pedigree, Scale
    >>> def item(id, known, grams):
    ...     return Item(id, id, known, stated_g=grams)
    >>> def read(id, grams, *on):
    ...     pan = Pan(tuple(sorted(Load(each) for each in on)))
    ...     return Weighing(id, datetime.now(UTC), "s", grams, pan)
    >>> build = Build("m", "M", scales=(Scale("s", "S", 0.1),), items=(
    ...     item("tail", Pedigree.LISTING, 33.0), item("glue", Pedigree.JOINT, 4.0),
    ...     item("rest", Pedigree.GUESS, 450.0)), weighings=(
    ...     read("A", 33.0, "tail"), read("B", 68.4, "tail", "glue"), read("C", 450.0, "rest"),
    ...     read("D", 487.0, "tail", "glue", "rest")))
    >>> told = estimate(build)
    >>> [round(x, 1) for x in told.after.total(np.ones(3))]
    [487.0, 1.5]
    >>> [each.weighing for each in told.doubts], round(told.believing.total(np.ones(3))[0])
    (['B'], 497)
    """
    spoken = (
        build.lots, build.items, build.scales, build.weighings, build.containers,
        build.allowance, build.habits,
    )  # fmt: skip
    key = tuple(id(part) for part in spoken)
    known = _KEPT.get(key) or _alike(build, spoken)
    if known is None:
        known = _KEPT[key] = (spoken, _estimate(build))
        for stale in list(_KEPT)[:-KEPT]:
            _KEPT.pop(stale, None)
    return known[1]


def solve(build: Build) -> Posterior:
    """The masses as they are told: :func:`estimate` without what is behind it."""
    return estimate(build).after


def _alike(build: Build, spoken: tuple[object, ...]) -> tuple[tuple[object, ...], Estimate] | None:
    """The estimate of a build whose things weigh alike and only sit elsewhere: a drag moves no
    mass. Looked for among the few last ones."""
    for before, told in reversed(_KEPT.values()):
        items = before[1]
        same = all(a is b for k, (a, b) in enumerate(zip(before, spoken, strict=True)) if k != 1)
        if (
            same
            and isinstance(items, tuple)
            and len(items) == len(build.items)
            and all(map(_weigh_alike, items, build.items))
        ):
            return before, told
    return None


def _weigh_alike(one: Item, other: Item) -> bool:
    """Whether the ledger believes the same of two things before anything is weighed: all but
    where they sit, what they cost, and what they are grouped under elsewhere."""
    if one is other:
        return True
    return one == replace(
        other,
        name=one.name, station=one.station, group=one.group, price=one.price, slide=one.slide,
    )  # fmt: skip


def _estimate(build: Build) -> Estimate:
    readings = Readings(prior(build), gathered(build))
    nothing = np.zeros(len(build.items))
    first = first_look(readings) if len(readings.of.count) else (nothing, nothing)
    wide = widths(build, readings.prior.usual, *first)
    told = _Look(build, _widened(build, readings, wide), wide).told()
    if told.doubts:
        out = {each.weighing for each in told.doubts}
        gone = [j for j, each in enumerate(readings.of.spoken) if each.id in out]
        again = widths(build, readings.prior.usual, *first_look(readings, gone))
        if any(
            abs(again.get(p, USUAL_WIDTH).taken / wide.get(p, USUAL_WIDTH).taken - 1) > CHANGED
            for p in {*again, *wide}
        ):
            told = _Look(build, _widened(build, readings, again), again).told()
    return told


def _widened(build: Build, readings: Readings, wide: dict[Pedigree, Width]) -> Readings:
    by, freedom = widening(build, readings.prior, wide)
    return Readings(readings.prior.widened(by, freedom), readings.of)


@dataclass(frozen=True, slots=True, eq=False)
class _Group:
    """All that may be wrong with one reading: how far it is off without it, in sigma, the branches
    that leave it out or put it right, and the logarithm of their weight beside believing it."""

    j: int
    t: float
    log_weight: float
    branches: tuple[tuple[float, Branch], ...]
    """Each with the logarithm of its weight."""


@dataclass(frozen=True, slots=True, eq=False)
class _Node:
    """Where the readings settle with some of them gone, and how likely they are."""

    gone: tuple[int, ...]
    settled: Settled
    after: Posterior
    log_evidence: float


@dataclass(frozen=True, slots=True, eq=False)
class _Way:
    """One way through the readings: where it ends, the mixture's leaves with the logarithms of
    their weights beside believing everything, which readings may be wrong instead of each that is
    put aside, and the logarithm of the way's own weight."""

    node: _Node
    leaves: list[tuple[float, Branch]]
    rivals: dict[int, tuple[str, ...]]
    log_weight: float


class _Look:
    """One look at a build's readings under one prior."""

    def __init__(self, build: Build, readings: Readings, wide: dict[Pedigree, Width]) -> None:
        self.build, self.readings, self.wide = build, readings, wide
        self.spoken = readings.of.spoken
        self.open = np.array([not each.accepted for each in self.spoken], dtype=bool)
        # Several ways come by the same readings gone, in another order.
        self._nodes: dict[frozenset[int], _Node] = {}
        self._near: dict[tuple[frozenset[int], int | None], list[_Group]] = {}

    def told(self) -> Estimate:
        """The mixture, and the doubts.

        Where two or more are put aside, the one that looked worst at first may be sound: ways that
        begin with another of the doubtful ones are gone as well, and the likeliest is told.
        """
        first = self._node((), None)
        way = self._way(first, ())
        if len(way.node.gone) > 1:
            off = np.abs(left_out(self.readings, first.settled).t) * self.open
            begin = [int(j) for j in np.argsort(-off, kind="stable") if off[j] > DOUBTFUL]
            others = [self._way(first, (j,)) for j in begin[:BEGUN] if j != way.node.gone[0]]
            way = max([way, *others], key=lambda each: each.log_weight)
        kept, rest = self._tested_anew(way.node.gone)
        branches = _shared(way.leaves)
        told = _mixed(first.after, branches, way.node.after)
        doubts = self._doubts(kept, rest, way, branches) if rest is not None else ()
        return Estimate(told, first.after, branches, doubts, self.wide)

    def _way(self, first: _Node, begin: tuple[int, ...]) -> _Way:
        """One reading after another: where leaving one out, or putting it right, is likelier than
        all else together, one more is looked for without it. It begins with ``begin``."""
        node, base, mixing, story = first, 0.0, True, 0.0
        leaves: list[tuple[float, Branch]] = []
        quiet = [(0.0, Branch(1.0, (), first.after.mean, first.after.cov))]
        rivals: dict[int, tuple[str, ...]] = {}
        while True:
            wanted = begin[len(node.gone)] if len(node.gone) < len(begin) else None
            here = (frozenset(node.gone), wanted)
            groups = self._near[here] = self._near.get(here) or self._groups(node, wanted)
            doubtful = [group for group in groups if abs(group.t) > DOUBTFUL]
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
            node = self._node((*node.gone, best.j), node.settled)
            if last:
                break
        return _Way(node, leaves, rivals, story)

    def _node(self, gone: tuple[int, ...], near: Settled | None) -> _Node:
        known = self._nodes.get(frozenset(gone))
        if known is None:
            known = self._nodes[frozenset(gone)] = self._settled(gone, near)
        return replace(known, gone=gone)

    def _settled(self, gone: tuple[int, ...], near: Settled | None) -> _Node:
        settled = settle(self.readings, *self.readings.of.without(gone), near)
        likely = settled.log_evidence + scatter(self.readings, gone)
        return _Node(gone, settled, posterior(self.readings, settled), likely)

    def _groups(self, node: _Node, wanted: int | None = None) -> list[_Group]:
        """The readings that may be slips beside those that are gone, with all that may be wrong
        with each. One that is far off bends the scale's error: it is settled anew without it."""
        gaps = left_out(self.readings, node.settled)
        off = np.abs(gaps.t) * self.open
        off[list(node.gone)] = 0.0
        noise = np.sqrt(self.readings.of.noise[self.readings.of.at])
        off[off <= np.where(gaps.sd < TIGHT * noise, DOUBTFUL, UNEASY)] = 0.0
        order = [int(j) for j in np.argsort(-off, kind="stable")[:LOOKED_AT] if off[j] > 0]
        if wanted is not None and wanted not in order:
            order.append(wanted)
        groups, far = [], []
        for j in order:
            if off[j] > FAR:
                far.append((j, self._far(node, j)))
            else:
                near = _Near(self.readings, node, j, float(gaps.gap[j]), float(gaps.sd[j]))
                told = near.prediction(self.spoken[j], self.build)
                groups.append(self._group(node, j, near.gap / near.sd, told, near.posterior))
        top = max((likely for _, (_, _, likely) in far), default=0.0)
        for j, (settled, t, likely) in far:
            if likely > top - NEAR_BEST or j == wanted:
                after = posterior(self.readings, settled)
                told = self._prediction(after, self.spoken[j])
                groups.append(self._group(node, j, t, told, _just(after), likely))
        return [group for group in groups if group.branches]

    def _far(self, node: _Node, j: int) -> tuple[Settled, float, float]:
        """The rest settled without reading ``j`` as well, how far that reading is from it, and the
        logarithm of how much likelier the rest is than with it."""
        gone = (*node.gone, j)
        settled = settle(self.readings, *self.readings.of.without(gone), node.settled)
        gap, sd = gap_of(self.readings, settled, j)
        likely = settled.log_evidence + scatter(self.readings, gone) - node.log_evidence
        return settled, gap / sd, likely

    def _prediction(self, after: Posterior, weighing: Weighing) -> Prediction:
        return predicted(
            self.build, after, weighing.pan, weighing.scale, weighing.reading_g, recorded=True
        )

    def _group(
        self,
        node: _Node,
        j: int,
        t: float,
        found: Prediction,
        state: Callable[[], Posterior],
        likelier: float | None = None,
    ) -> _Group:
        """All that may be wrong with reading ``j``, as the rest predicts it; ``state`` is what the
        rest says of everything. ``likelier`` is the logarithm of how much likelier the rest is
        without it than with it believed, None where its own density says."""
        weighing = self.spoken[j]
        likely = -log_chance(found)
        if likelier is not None:
            likely = likelier - float(np.log(1 - NAMED - UNNAMED))
        capacity = self.build.scales[int(self.readings.of.scale[self.readings.of.at[j]])].capacity_g
        before = tuple((self.spoken[k].id, None) for k in node.gone)

        any_size = log_any(capacity)
        possible = sorted(tried(self.build, found), key=lambda each: -each.log_weight)
        top = max(any_size, *(each.log_weight for each in possible[:1]), any_size)
        worth = [each for each in possible if each.log_weight >= top + LEAST_LOG]
        worth = [each for each in worth if likely + each.log_weight >= LEAST_LOG]
        unnamed = any_size > top + LEAST_LOG
        if not worth and not unnamed:
            return _Group(j, t, -np.inf, ())
        after = state()

        def left(slip: Slip | None) -> Branch:
            return Branch(1.0, (*before, (weighing.id, slip)), after.mean, after.cov)

        branches = [(likely + any_size, left(None))] if unnamed else []
        for each in worth:
            branch = left(each.slip)
            if each.slip.repair:
                branch = self._put_right(after, branch, each.slip, weighing)
            branches.append((likely + each.log_weight, branch))
        total = float(np.logaddexp.reduce([weight for weight, _ in branches] or [-np.inf]))
        return _Group(j, t, total, tuple(branches))

    def _put_right(
        self, after: Posterior, branch: Branch, slip: Slip, weighing: Weighing
    ) -> Branch:
        """The state with a reading as it would have been: ``z += S h (y - h z)/(h' S h + r^2)``."""
        build = self.build
        k = next(k for k, scale in enumerate(build.scales) if scale.id == weighing.scale)
        error = float(after.mean[after.scales][k])
        row = np.zeros(len(after.mean))
        row[: after.items.stop] = pan_row(build, slip.pan)
        load = float(row @ after.mean) + slip.pan.known_g
        row *= 1 + error
        row[after.scales.start + k] = load
        spread = after.cov @ row
        noise = float(self.readings.of.noise[self.readings.of.scale == k][0])
        if slip.subject is not None:
            noise += sum(c.doubt_g**2 for c in build.containers if c.id == slip.subject)
        gain = spread / (float(spread @ row) + noise)
        return replace(
            branch,
            mean=after.mean + gain * (slip.reading_g - (1 + error) * load),
            cov=after.cov - np.outer(gain, spread),
        )

    def _tested_anew(self, gone: tuple[int, ...]) -> tuple[tuple[int, ...], Posterior | None]:
        """Those of the readings put aside that are doubtful with all of them out, and the rest."""
        kept = list(gone)
        while kept:
            rest = settle(self.readings, *self.readings.of.without(kept))
            off = {j: abs(float(np.divide(*gap_of(self.readings, rest, j)))) for j in kept}
            least = min(kept, key=lambda j: off[j])
            if off[least] > DOUBTFUL:
                return tuple(kept), posterior(self.readings, rest)
            kept.remove(least)
        return (), None

    def _doubts(
        self, gone: Sequence[int], after: Posterior, way: _Way, branches: Sequence[Branch]
    ) -> tuple[Doubt, ...]:
        """The doubtful readings as the rest sees them."""
        told = []
        for j in gone:
            weighing = self.spoken[j]
            found = self._prediction(after, weighing)
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


def _just(after: Posterior) -> Callable[[], Posterior]:
    """A state that is known already."""
    return lambda: after


class _Near:
    """A node's posterior with reading ``j`` left out as well, in one step.

    With ``e`` its residual and ``r^2 - v`` the noise less the variance of its fit, ``z -= S h e /
    (r^2 - v)`` and ``S += S h h' S / (r^2 - v)``; the gap is ``e r^2/(r^2 - v)`` and its variance
    ``r^4/(r^2 - v)``, both known without loss from the settled readings.
    """

    def __init__(self, readings: Readings, node: _Node, j: int, gap: float, sd: float) -> None:
        """``gap`` and ``sd`` [g] are of the reading, left out."""
        self.after, self.gap, self.sd = node.after, gap, sd
        s = int(readings.of.at[j])
        self.scale = int(readings.of.scale[s])
        self.noise = float(readings.of.noise[s])
        row = np.zeros(len(self.after.mean))
        row[: self.after.items.stop] = readings.of.rows[s] * (1 + node.settled.error[self.scale])
        row[self.after.scales.start + self.scale] = node.settled.load[s]
        self.spread = self.after.cov @ row
        self.own = float(self.spread @ row)

    def posterior(self) -> Posterior:
        """What the rest says of everything."""
        return replace(
            self.after,
            mean=self.after.mean - self.spread * (self.gap / self.noise),
            cov=self.after.cov + np.outer(self.spread, self.spread) * (self.sd / self.noise) ** 2,
        )

    def prediction(self, weighing: Weighing, build: Build) -> Prediction:
        """What the rest says of the reading, and of every item."""
        items, more = self.after.items, (self.sd / self.noise) ** 2
        spread = self.spread[items]
        error = self.after.scales.start + self.scale
        return Prediction(
            reading_g=weighing.reading_g,
            pan=weighing.pan,
            expected_g=weighing.reading_g - self.gap,
            variance=self.sd**2,
            noise=self.noise,
            error=float(self.after.mean[error] - self.spread[error] * self.gap / self.noise),
            mass=self.after.mass - spread * (self.gap / self.noise),
            mass_variance=np.diag(self.after.mass_cov) + spread**2 * more,
            covariance=spread * (1 + more * self.own),
            step_g=build.scales[self.scale].step_g,
            freedom=freedom(self.after, pan_row(build, weighing.pan)[items], self.sd**2),
        )


def _shared(leaves: Sequence[tuple[float, Branch]]) -> tuple[Branch, ...]:
    """The branches with their shares, likeliest first; those that hardly count are left out."""
    logs = np.array([weight for weight, _ in leaves])
    weights = np.exp(logs - logs.max())
    weights /= weights.sum()
    order = np.argsort(-weights, kind="stable")[:MOST_BRANCHES]
    kept = [k for k in order if weights[k] >= LEAST_SHARE]
    total = float(weights[kept].sum())
    return tuple(replace(leaves[k][1], share=float(weights[k]) / total) for k in kept)


def _mixed(believing: Posterior, branches: Sequence[Branch], rest: Posterior) -> Posterior:
    """The mixture's mean and its whole variance, between branches too."""
    if len(branches) == 1:
        only = branches[0]
        return replace(believing, mean=only.mean, cov=only.cov, own=rest.own, told=rest.told)
    share = np.array([each.share for each in branches])
    means = np.array([each.mean for each in branches])
    mean = share @ means
    apart = (means - mean) * np.sqrt(share)[:, None]
    cov = apart.T @ apart
    for each in branches:
        cov += each.share * each.cov
    return replace(believing, mean=mean, cov=cov, own=rest.own, told=rest.told)


def suspect(build: Build, pan: Pan, scale_id: str, reading_g: float) -> Doubt | None:
    """A reading that is still on the pan, doubted before it is recorded; None when it is sound."""
    found = predicted(build, solve(build), pan, scale_id, reading_g, recorded=False)
    if abs(found.gap) <= DOUBTFUL:
        return None
    return Doubt("", found.expected_g, found.variance**0.5, found.gap, (), slips(build, found))


def doubts(build: Build) -> tuple[Doubt, ...]:
    """The doubtful readings, the likeliest slip first, each with what would explain it."""
    return estimate(build).doubts
