"""The branches of what is told: each one way that it may be, and all of them together."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.readings import Readings, pan_row
from oaken_scale.core.ledger.slip import Slip
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing

LEAST_SHARE: Final = 1e-6
"""A branch with a smaller share is left out of the mixture."""

MOST_BRANCHES: Final = 40
"""So many branches are kept at most."""


@dataclass(frozen=True, slots=True, eq=False)
class Branch:
    """One way that it may be: its ``share``, the readings it does not believe, each with the slip
    that puts it right (None: left out), and the state's ``mean`` and ``cov``."""

    share: float
    disbelieves: tuple[tuple[str, Slip | None], ...]
    mean: Vector
    cov: Matrix


def put_right(
    build: Build,
    readings: Readings,
    after: Posterior,
    branch: Branch,
    slip: Slip,
    weighing: Weighing,
) -> Branch:
    """The state with a reading as it would have been: ``z += S h (y - h z)/(h' S h + r^2)``.

    >>> from dataclasses import replace
    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.ledger.prior import prior
    >>> from oaken_scale.core.ledger.readings import gathered
    >>> from oaken_scale.core.ledger.slip import SlipKind
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),))
    >>> after = solve(build)
    >>> swapped = Weighing("r", datetime(2026, 3, 7, tzinfo=UTC), "s", 36.0, Pan((Load("m"),)))
    >>> build = replace(build, weighings=(swapped,))
    >>> slip = Slip(SlipKind.DIGITS, None, 63.0, swapped.pan, 1.0, 0.9)
    >>> branch = Branch(1.0, (("r", slip),), after.mean, after.cov)
    >>> readings = Readings(prior(build), gathered(build))
    >>> there = put_right(build, readings, after, branch, slip, swapped)
    >>> round(float(there.mean[after.parts][0]), 1)
    63.0
    """
    k = next(k for k, scale in enumerate(build.scales) if scale.id == weighing.scale)
    error = float(after.mean[after.scales][k])
    row = np.zeros(len(after.mean))
    row[: after.parts.stop] = pan_row(build, slip.pan)
    load = float(row @ after.mean) + slip.pan.known_g
    row *= 1 + error
    row[after.scales.start + k] = load
    spread = after.cov @ row
    noise = float(readings.of.noise[readings.of.scale == k][0])
    if slip.subject is not None:
        noise += sum(c.doubt_g**2 for c in build.containers if c.id == slip.subject)
    gain = spread / (float(spread @ row) + noise)
    return replace(
        branch,
        mean=after.mean + gain * (slip.reading_g - (1 + error) * load),
        cov=after.cov - np.outer(gain, spread),
    )


def shared(leaves: Sequence[tuple[float, Branch]]) -> tuple[Branch, ...]:
    """The branches with their shares, likeliest first; those that hardly count are left out.

    >>> one = Branch(1.0, (), np.zeros(1), np.eye(1))
    >>> [round(each.share, 2) for each in shared([(0.0, one), (np.log(3.0), one), (-40.0, one)])]
    [0.75, 0.25]
    """
    logs = np.array([weight for weight, _ in leaves])
    weights = np.exp(logs - logs.max())
    weights /= weights.sum()
    order = np.argsort(-weights, kind="stable")[:MOST_BRANCHES]
    kept = [k for k in order if weights[k] >= LEAST_SHARE]
    total = float(weights[kept].sum())
    return tuple(replace(leaves[k][1], share=float(weights[k]) / total) for k in kept)


def mixed(believing: Posterior, branches: Sequence[Branch], rest: Posterior) -> Posterior:
    """The mixture's mean and its whole variance, between branches too.

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> after = solve(Build("b", "B", parts=(motor,)))
    >>> ways = [Branch(0.5, (), after.mean + by * after.sd, after.cov) for by in (-1.0, 1.0)]
    >>> told = mixed(after, ways, after)
    >>> round(float(told.mass[0]), 1), round(float(told.sd[-1] / after.sd[-1]), 2)  # sqrt(1 + 1)
    (60.0, 1.41)
    """
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
