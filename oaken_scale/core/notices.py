"""What is told beside the figures: contradictions, gaps, strained scales, damp lots, drift."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.ledger.drift import drifts
from oaken_scale.core.ledger.moisture import Damp
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.build import Build

STRAINED: Final = 3.0
"""A scale error of more than this many times its doubt is not the scale's."""


class NoticeCode(StrEnum):
    """What a builder should know: that weighings contradict each other, so that a part would weigh
    less than nothing; that the readings only agree if a scale is off by
    more than it can be; that a lot gained or lost weight; that a scale reads a known weight
    otherwise than before; that nothing can be told of the build at all."""

    NEGATIVE_MASS = "negative_mass"
    STRAINED_SCALE = "strained_scale"
    DAMP = "damp"
    DRIFT = "drift"
    CANNOT_BE_ASSESSED = "cannot_be_assessed"


@dataclass(frozen=True, slots=True)
class Notice:
    """Something the builder should know, and which parts, lot or scale it is about.

    ``amount`` is what a part would weigh, or how much more a scale reads of ``known_g`` [g]; or by
    which share a scale reads high, or a lot weighs more. ``fault`` is why nothing can be told.
    """

    code: NoticeCode
    parts: tuple[str, ...] = ()
    lot: str | None = None
    scale: str | None = None
    amount: float | None = None
    known_g: float | None = None
    fault: str = ""


def notices(
    build: Build, after: Posterior, is_doubted: bool, gained: tuple[Damp, ...]
) -> tuple[Notice, ...]:
    """All that is told beside the figures; ``is_doubted``: a reading is doubted already, so a scale
    that it strains is not told of as well. ``gained`` are the lots whose weight changed.

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> build = Build("b", "B")
    >>> notices(build, solve(build), False, ())
    ()
    """
    return (
        *_notices(build, after),
        *(() if is_doubted else _strained(build, after)),
        *_damp_notices(gained),
        *_drift_notices(build),
    )


def _notices(build: Build, after: Posterior) -> tuple[Notice, ...]:
    """Contradictions and gaps. A negative mass is told, never clipped."""
    told = []
    mass = after.mass
    impossible = (mass < -after.sd[after.parts]) & (after.prior.mass >= 0)
    for i in np.flatnonzero(impossible):
        part = build.parts[i]
        if not part.retired:
            grams = float(mass[i])
            told.append(Notice(NoticeCode.NEGATIVE_MASS, (part.id,), amount=grams))
    return tuple(told)


def _strained(build: Build, after: Posterior) -> tuple[Notice, ...]:
    """Scales that would have to be off by more than they can be for the readings to agree."""
    return tuple(
        Notice(NoticeCode.STRAINED_SCALE, scale=scale.id, amount=float(error))
        for scale, error in zip(build.scales, after.mean[after.scales], strict=True)
        if abs(error) > STRAINED * scale.calibration_doubt > 0
    )


def _damp_notices(gained: tuple[Damp, ...]) -> tuple[Notice, ...]:
    """Lots whose weight changed in storage by more than the scale's doubt."""
    return tuple(
        Notice(NoticeCode.DAMP, lot=each.lot, amount=each.gain) for each in gained if each.sure
    )


def _drift_notices(build: Build) -> tuple[Notice, ...]:
    """Scales that read a known weight otherwise than they did before."""
    return tuple(
        Notice(NoticeCode.DRIFT, scale=each.scale, amount=each.by_g, known_g=each.known_g)
        for each in drifts(build)
    )
