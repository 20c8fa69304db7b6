"""Drift: a scale that reads a known weight otherwise than it did before."""

from collections import defaultdict
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.ledger.readings import gathered
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing

NOTICED: Final = 3.0
"""A change over so many times its doubt is drift."""


@dataclass(frozen=True, slots=True)
class Drift:
    """How much more a scale read of a known weight the last time than before [g], one sigma."""

    scale: str
    known_g: float
    by_g: float
    sd_g: float


def drifts(build: Build) -> tuple[Drift, ...]:
    """The last reading of each check weight beside the mean of those before it, on one scale.

    The scale's calibration is in both and falls out: ``u^2 = r^2 (1 + 1/n)``.

    >>> from datetime import datetime, timedelta, UTC
    >>> from oaken_scale.core.model.weighing import Pan, Scale
    >>> build = Build("b", "B", scales=(Scale("s", "S", 0.1),), weighings=tuple(
    ...     Weighing(str(k), datetime(2026, 3, 7, 9, k, tzinfo=UTC), "s", grams, Pan(known_g=200.0))
    ...     for k, grams in enumerate((200.1, 200.0, 201.0))))
    >>> [(each.scale, round(each.by_g, 2)) for each in drifts(build)]
    [('s', 0.95)]
    """
    checked: dict[tuple[str, float], list[Weighing]] = defaultdict(list)
    of = gathered(build)
    for j in np.flatnonzero(of.loading.empty[of.at]).tolist():
        each = of.spoken[j]
        if not each.pan.loads and not each.pan.samples:
            checked[each.scale, each.pan.known_g].append(each)
    doubt = {scale.id: reading_doubt(scale) for scale in build.scales}
    told = []
    for (scale, known_g), found in checked.items():
        *before, last = sorted(found, key=lambda each: each.at)
        if not before:
            continue
        by = last.reading_g - sum(each.reading_g for each in before) / len(before)
        sd = doubt[scale] * (1 + 1 / len(before)) ** 0.5
        if abs(by) > NOTICED * sd:
            told.append(Drift(scale, known_g, by, sd))
    return tuple(told)
