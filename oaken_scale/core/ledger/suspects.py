"""Which readings may be slips beside those that are gone already, and all that may be wrong with
each."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.ledger.branches import Branch, put_right
from oaken_scale.core.ledger.outliers import (
    doubtful_beyond,
    freedom,
    gap_of,
    left_out,
    predicted,
    scatter,
)
from oaken_scale.core.ledger.posterior import Posterior, posterior
from oaken_scale.core.ledger.readings import Readings, pan_row
from oaken_scale.core.ledger.settling import Point, Settled, settle
from oaken_scale.core.ledger.slip import NAMED, UNNAMED, Prediction, Slip
from oaken_scale.core.ledger.slips import log_any, log_chance
from oaken_scale.core.ledger.slips_tried import tried
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing

UNEASY: Final = 1.5
"""A reading nearer than this to what the rest predicts is believed without looking further."""

TIGHT: Final = 4.0
"""One that the rest predicts within so many times the scale's own doubt is believed up to where it
is doubtful: whether it is right moves the answer by less than the scale's doubt does."""

LOOKED_AT: Final = 6
"""So many of the readings farthest off are looked at, each settled anew without it."""

FAR: Final = 6.0
"""One farther off than this bends the scale's error: the rest is settled anew without it."""

BENT: Final = 6.0
"""A slip that bends the scale's error looks less far off than it is: leaving one out makes the rest
likelier by at most so many times what it seems to while all are believed."""

NEAR_BEST: Final = 12.0
"""One whose leaving out is less likely than the best by more than this (in logarithms) is not."""

LEAST_LOG: Final = -14.0
"""The same as a logarithm, for branches beside the likeliest of their reading."""


@dataclass(frozen=True, slots=True, eq=False)
class Group:
    """All that may be wrong with one reading: how far it is off without it, in sigma, the branches
    that leave it out or put it right, and the logarithm of their weight beside believing it."""

    j: int
    t: float
    log_weight: float
    branches: tuple[tuple[float, Branch], ...]
    """Each with the logarithm of its weight."""


@dataclass(frozen=True, slots=True, eq=False)
class Node:
    """Where the readings settle with some of them gone, and how likely they are."""

    gone: tuple[int, ...]
    settled: Settled
    after: Posterior
    log_evidence: float


class Suspects:
    """The readings of a build under one prior, looked at with some of them gone.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 91.4, Pan((Load("m"),))),)  # 31.4 g too much
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> suspects = Suspects(build, Readings(prior(build), gathered(build)), {})
    >>> node = suspects.node(())
    >>> round(float(node.after.mass[0]), 1)
    91.1
    >>> (group,) = suspects.groups(node)
    >>> group.j, round(group.t, 1)
    (0, 10.4)
    >>> without = suspects.node((0,)).after
    >>> round(suspects.prediction(without, log[0]).expected_g, 1)
    60.0
    """

    def __init__(
        self, build: Build, readings: Readings, points: dict[frozenset[int], Point]
    ) -> None:
        """``readings`` are the build's own, under the prior that they are looked at with;
        ``points`` are not far from where they settle, by which of them are gone, and are added to.
        """
        self.build, self.readings, self.points = build, readings, points
        self.spoken = readings.of.spoken
        self.open = ~readings.of.accepted
        self.doubtful = doubtful_beyond(len(self.open))
        # Several ways come by the same readings gone, in another order.
        self._nodes: dict[frozenset[int], Node] = {}
        self._near: dict[tuple[frozenset[int], int | None], list[Group]] = {}

    def node(self, gone: tuple[int, ...]) -> Node:
        """Where the readings settle with some of them gone."""
        known = self._nodes.get(frozenset(gone))
        if known is None:
            settled, likely = self._settled(gone)
            known = Node(gone, settled, posterior(self.readings, settled), likely)
            self._nodes[frozenset(gone)] = known
        return replace(known, gone=gone)

    def _settled(self, gone: tuple[int, ...], roughly: bool = False) -> tuple[Settled, float]:
        """Where the rest settles, and the logarithm of how likely that is."""
        here = frozenset(gone)
        near = self.points.get(here) or self.points.get(frozenset(gone[:-1]))
        settled = settle(self.readings, *self.readings.of.without(gone), near, roughly)
        self.points[here] = settled.point
        return settled, settled.log_evidence + scatter(self.readings, gone)

    def groups(self, node: Node, wanted: int | None = None) -> list[Group]:
        """The readings that may be slips beside those that are gone, with all that may be wrong
        with each; ``wanted`` is among them however near it is."""
        here = (frozenset(node.gone), wanted)
        known = self._near.get(here)
        if known is None:
            known = self._near[here] = self._groups(node, wanted)
        return known

    def _groups(self, node: Node, wanted: int | None) -> list[Group]:
        """One that is far off bends the scale's error: it is settled anew without it."""
        gaps = left_out(self.readings, node.settled)
        off = np.abs(gaps.t) * self.open
        off[list(node.gone)] = 0.0
        noise = np.sqrt(self.readings.of.noise)
        off[off <= np.where(gaps.set_sd < TIGHT * noise, self.doubtful, UNEASY)[gaps.at]] = 0.0
        some = np.flatnonzero(off)
        order = some[np.argsort(-off[some], kind="stable")[:LOOKED_AT]].tolist()
        if wanted is not None and wanted not in order:
            order.append(wanted)
        groups, far, top = [], [], 0.0
        for j in order:
            if off[j] > FAR:
                if j == wanted or BENT * off[j] ** 2 / 2 > top:
                    far.append((j, self._far(node, j)))
                    top = max(top, far[-1][1][2])
            else:
                sd = float(gaps.set_sd[gaps.at[j]])
                near = _Near(self.readings, node, j, float(gaps.t[j]) * sd, sd)
                told = near.prediction(self.spoken[j], self.build)
                groups.append(self._group(node, j, near.gap / near.sd, told, near.posterior))
        for j, (settled, t, likely) in far:
            if likely > top - NEAR_BEST or j == wanted:
                after = posterior(self.readings, settled)
                told = self.prediction(after, self.spoken[j])
                groups.append(self._group(node, j, t, told, _just(after), likely))
        return [group for group in groups if group.branches]

    def _far(self, node: Node, j: int) -> tuple[Settled, float, float]:
        """The rest settled without reading ``j`` as well, how far that reading is from it, and the
        logarithm of how much likelier the rest is than with it."""
        settled, likely = self._settled((*node.gone, j), roughly=True)
        gap, sd = gap_of(self.readings, settled, j)
        return settled, gap / sd, likely - node.log_evidence

    def prediction(self, after: Posterior, weighing: Weighing) -> Prediction:
        """What a posterior without a reading says of it."""
        return predicted(
            self.build, after, weighing.pan, weighing.scale, weighing.reading_g, recorded=True
        )

    def _group(
        self,
        node: Node,
        j: int,
        t: float,
        found: Prediction,
        state: Callable[[], Posterior],
        likelier: float | None = None,
    ) -> Group:
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
        top = max([any_size, *(each.log_weight for each in possible[:1])])
        worth = [each for each in possible if each.log_weight >= top + LEAST_LOG]
        worth = [each for each in worth if likely + each.log_weight >= LEAST_LOG]
        unnamed = any_size > top + LEAST_LOG
        if not worth and not unnamed:
            return Group(j, t, -np.inf, ())
        after = state()

        def left(slip: Slip | None) -> Branch:
            return Branch(1.0, (*before, (weighing.id, slip)), after.mean, after.cov)

        branches = [(likely + any_size, left(None))] if unnamed else []
        for each in worth:
            branch = left(each.slip)
            if each.slip.repair:
                branch = put_right(self.build, self.readings, after, branch, each.slip, weighing)
            branches.append((likely + each.log_weight, branch))
        total = float(np.logaddexp.reduce([weight for weight, _ in branches] or [-np.inf]))
        return Group(j, t, total, tuple(branches))


def _just(after: Posterior) -> Callable[[], Posterior]:
    """A state that is known already."""
    return lambda: after


class _Near:
    """A node's posterior with reading ``j`` left out as well, in one step.

    With ``e`` its residual and ``r^2 - v`` the noise less the variance of its fit, ``z -= S h e /
    (r^2 - v)`` and ``S += S h h' S / (r^2 - v)``; the gap is ``e r^2/(r^2 - v)`` and its variance
    ``r^4/(r^2 - v)``, both known without loss from the settled readings.
    """

    def __init__(self, readings: Readings, node: Node, j: int, gap: float, sd: float) -> None:
        """``gap`` and ``sd`` [g] are of the reading, left out."""
        self.after, self.gap, self.sd = node.after, gap, sd
        s = int(readings.of.at[j])
        self.scale = int(readings.of.scale[s])
        self.noise = float(readings.of.noise[s])
        row = np.zeros(len(self.after.mean))
        row[: self.after.parts.stop] = readings.of.rows[s] * (1 + node.settled.error[self.scale])
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
        """What the rest says of the reading, and of every part."""
        parts, more = self.after.parts, (self.sd / self.noise) ** 2
        spread = self.spread[parts]
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
            freedom=freedom(self.after, pan_row(build, weighing.pan)[parts], self.sd**2),
        )
