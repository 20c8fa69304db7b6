"""What nobody lists: how much of it finished builds turned out to have, for the next one."""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean, stdev
from typing import Final

import numpy as np

from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Pedigree

ENOUGH: Final = 3
"""So many finished builds tell how much is usually left out."""

LEAST_DOUBT: Final = 0.005
"""The share is never known better than this, as a fraction: no two builds are alike."""


@dataclass(frozen=True, slots=True)
class LeftOut:
    """What share of the listed parts' mass a finished build had in things nobody listed."""

    build: str
    share: float


def left_out(build: Build) -> LeftOut | None:
    """What a finished build left out of its list; None for one that is not finished, has no
    allowance, or whose weighings never told of it.

    The allowance's own prior is taken out again, as for a lot that two builds share.

    >>> left_out(Build("b", "B")) is None  # nothing allowed for, nothing left out
    True
    """
    at = [
        i
        for i, part in enumerate(build.parts)
        if part.pedigree is Pedigree.ALLOWANCE and not part.retired
    ]
    if build.finished_at is None or not at:
        return None
    after = solve(build)
    told = _told_by_weighing(after, at[0])
    listed = np.array([not part.retired and not part.option for part in build.parts], dtype=float)
    listed[at[0]] = 0.0
    rest = float(listed @ after.mass)
    if told is None or rest <= 0:
        return None
    return LeftOut(build.name, max(told / rest, 0.0))


def _told_by_weighing(after: Posterior, at: int) -> float | None:
    """The allowance as the weighings alone have it [g]; None where they say next to nothing."""
    mean0, sd0 = float(after.prior.mass[at]), float(after.prior.mass_sd[at])
    sd = float(after.sd[after.parts][at])
    if sd0 <= 0 or sd > sd0 / 2:
        return None
    before, now = sd0**-2, max(sd, 1e-6) ** -2
    return (float(after.mass[at]) * now - mean0 * before) / (now - before)


def usual_share(found: Sequence[LeftOut]) -> Known | None:
    """What the next build will leave out: the mean share, and how far one more build may be off.

    ``s sqrt(1 + 1/n)`` is the spread of one more of a normal lot of ``n``. None with fewer than
    three. Source: docs/methods.md, section 1.

    >>> told = usual_share([LeftOut("a", 0.05), LeftOut("b", 0.07), LeftOut("c", 0.06)])
    >>> round(told.value, 3), round(told.doubt, 5), told.source
    (0.06, 0.01155, 'a, b, c')
    """
    if len(found) < ENOUGH:
        return None
    shares = [each.share for each in found]
    doubt = stdev(shares) * (1 + 1 / len(shares)) ** 0.5
    names = ", ".join(each.build for each in found[:3]) + (" ..." if len(found) > 3 else "")
    return Known(min(fmean(shares), 1.0), min(max(doubt, LEAST_DOUBT), 1.0), names)
