"""Damp: a lot weighed again after storage shows its gain."""

from dataclasses import dataclass, field
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.ledger.readings import gathered
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Weighing

SITTING: Final = timedelta(hours=12)
"""Readings closer together than this are of one day: they tell of the scale, not of the weather."""

WORTH_TELLING: Final = 0.01
"""A gain of less than this is not told."""


@dataclass(frozen=True, slots=True)
class Sitting:
    """A lot's constant as weighed alone on one day [g per unit], one sigma, and its readings."""

    at: datetime
    constant: float
    sd: float
    weighings: tuple[str, ...]


class Moisture(StrEnum):
    """What a lot became since it was first weighed."""

    AS_IT_WAS = "as_it_was"
    DAMP = "damp"
    DRIED = "dried"


@dataclass(frozen=True, slots=True)
class Damp:
    """What a lot gained (or, drying, lost) since it was first weighed, as a fraction; one sigma.

    It is ``sure`` where that is more than the scale's doubt explains.

    >>> Damp("a", 0.06, 0.01, ()).sure, Damp("a", 0.06, 0.04, ()).sure
    (True, False)
    >>> Damp("a", -0.06, 0.04, ()).became.value, Damp("a", 0.009, 0.001, ()).became.value
    ('dried', 'as_it_was')
    """

    lot: str
    gain: float
    gain_sd: float
    sittings: tuple[Sitting, ...]
    became: Moisture = field(init=False, default=Moisture.AS_IT_WAS)
    sure: bool = field(init=False, default=False)

    def __post_init__(self) -> None:
        """What the gain is worth."""
        if abs(self.gain) < WORTH_TELLING:
            return
        object.__setattr__(self, "became", Moisture.DAMP if self.gain > 0 else Moisture.DRIED)
        object.__setattr__(self, "sure", abs(self.gain) > 2 * self.gain_sd)


def sampled_alone(build: Build) -> dict[str, list[Weighing]]:
    """The readings that held a sample of one lot and nothing else unknown, by lot.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> from oaken_scale.core.model.weighing import Pan, Sample, Scale
    >>> sheet = Lot("a", "Board", LotUnit.DM2, 4.6, 0.4)
    >>> noon = datetime(2026, 3, 7, 12)
    >>> log = (Weighing("r", noon, "s", 46.2, Pan(samples=(Sample("a", 10.0),))),)
    >>> build = Build("x", "X", lots=(sheet,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> {lot: len(readings) for lot, readings in sampled_alone(build).items()}
    {'a': 1}
    """
    alone: dict[str, list[Weighing]] = {}
    of = gathered(build)
    if not of.loading.felt[: len(build.lots)].any():
        return alone
    sampled = np.asarray(of.loading.loaded[:, : len(build.lots)].any(axis=1))
    for j in np.flatnonzero(sampled[of.at]).tolist():
        each = of.spoken[j]
        if len(each.pan.samples) == 1 and not each.pan.loads:
            alone.setdefault(each.pan.samples[0].lot, []).append(each)
    return alone


def sittings(build: Build, alone: list[Weighing]) -> tuple[Sitting, ...]:
    """The samples of one lot weighed ``alone``, gathered by the day.

    Each reading is ``y / amount +- r / amount``; those of one day are averaged by precision.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> from oaken_scale.core.model.weighing import Pan, Sample, Scale
    >>> sheet, noon = Lot("a", "Board", LotUnit.DM2, 4.6, 0.4), datetime(2026, 3, 7, 12)
    >>> log = [Weighing("r", noon, "s", 46.2, Pan(samples=(Sample("a", 10.0),)))]
    >>> build = Build("x", "X", lots=(sheet,), scales=(Scale("s", "S", 0.1),))
    >>> [(round(each.constant, 2), each.weighings) for each in sittings(build, log)]
    [(4.62, ('r',))]
    """
    scales = {scale.id: scale for scale in build.scales}
    days: list[list[tuple[datetime, float, float, str]]] = []
    for each in sorted(alone, key=lambda each: each.at):
        amount = each.pan.samples[0].amount
        found = (
            each.at,
            (each.reading_g - each.pan.known_g) / amount,
            reading_doubt(scales[each.scale]) / amount,
            each.id,
        )
        if days and each.at - days[-1][0][0] < SITTING:
            days[-1].append(found)
        else:
            days.append([found])
    told = []
    for day in days:
        precision = sum(sd**-2 for _, _, sd, _ in day)
        mean = sum(value * sd**-2 for _, value, sd, _ in day) / precision
        told.append(Sitting(day[0][0], mean, precision**-0.5, tuple(id for *_, id in day)))
    return tuple(told)


def damp(build: Build) -> tuple[Damp, ...]:
    """The gain of every lot that was weighed on more than one day: last over first, less one.

    Source: docs/methods.md, section 7.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.weighing import Pan, Sample, Scale
    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> pan = Pan(samples=(Sample("a", 10.0),))
    >>> dry, wet = datetime(2026, 3, 1, tzinfo=UTC), datetime(2026, 9, 1, tzinfo=UTC)
    >>> build = Build("b", "B", lots=(Lot("a", "A", LotUnit.DM2, 4.6, 0.4),),
    ...     scales=(Scale("s", "S", 0.1),),
    ...     weighings=(Weighing("1", dry, "s", 46.0, pan), Weighing("2", wet, "s", 48.3, pan)))
    >>> round(damp(build)[0].gain, 6), damp(build)[0].sure
    (0.05, True)
    """
    told = []
    for lot, alone in sampled_alone(build).items():
        days = sittings(build, alone)
        if len(days) > 1:
            first, last = days[0], days[-1]
            ratio = last.constant / first.constant
            spread = ((last.sd / last.constant) ** 2 + (first.sd / first.constant) ** 2) ** 0.5
            told.append(Damp(lot, ratio - 1, ratio * spread, days))
    return tuple(told)
