"""The slips that people make at a scale, tried on a reading that does not fit the rest."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum
from math import exp, log, pi
from typing import Final

import numpy as np

from oaken_scale.core.build import Build, Load, Pan
from oaken_scale.core.prior import Vector
from oaken_scale.core.quantity import OUNCE_G

EXPLAINED: Final = 2.5
"""A slip explains a reading that it brings within so many sigma: put right, one in eight would lie
outside 1.5, and one in eighty outside 2.5."""

NO_SLIP: Final = 30.0
"""So many readings are taken without a slip for one with: a reading a little over three sigma is
more often chance than a slip, and then no slip is named."""

MOST_SLIPS: Final = 6
"""So many are offered at most: of thirty things several weigh about as much as the gap."""


class SlipKind(StrEnum):
    """The slips that people make at a scale."""

    NOT_TARED = "not tared"
    TARED_TWICE = "tared twice"
    LEFT_ON = "left on"
    LEFT_OFF = "left off"
    OUNCES = "ounces"
    GRAMS = "grams"
    DECIMAL = "decimal"
    DIGITS = "digits"
    WRONG_ITEM = "wrong item"


USUAL: Final[dict[SlipKind, float]] = {
    SlipKind.NOT_TARED: 0.25,
    SlipKind.TARED_TWICE: 0.08,
    SlipKind.LEFT_ON: 0.17,
    SlipKind.LEFT_OFF: 0.17,
    SlipKind.OUNCES: 0.07,
    SlipKind.GRAMS: 0.03,
    SlipKind.DECIMAL: 0.09,
    SlipKind.DIGITS: 0.07,
    SlipKind.WRONG_ITEM: 0.07,
}
"""How often each slip is made among all slips; a kind's share is spread over all that it could
have been: every container, every thing."""


@dataclass(frozen=True, slots=True)
class Slip:
    """One slip that would explain a reading, and the reading put right.

    ``subject`` is the container or the item; ``reading_g`` and ``pan`` what would have been
    recorded without the slip; ``t`` how far that is from what the rest predicts, in sigma;
    ``share`` its chance among the slips that were tried.
    """

    kind: SlipKind
    subject: str | None
    reading_g: float
    pan: Pan
    t: float
    share: float


@dataclass(frozen=True, slots=True, eq=False)
class Prediction:
    """A reading, and what the rest of the ledger says of it and of every item.

    ``variance`` is that of the prediction, the scale's noise included; ``mass``,
    ``mass_variance`` and ``covariance`` (of each item with the pan's row) have shape (N,).
    """

    reading_g: float
    pan: Pan
    expected_g: float
    variance: float
    noise: float
    error: float
    mass: Vector
    mass_variance: Vector
    covariance: Vector
    step_g: float

    @property
    def gap(self) -> float:
        """How far the reading is from what is expected, in sigma."""
        return self.t(self.reading_g, self.expected_g, self.variance)

    def t(self, reading_g: float, expected_g: float, variance: float) -> float:
        """How far a reading is from what is expected, in sigma."""
        return float((reading_g - expected_g) / variance**0.5)


@dataclass(frozen=True, slots=True)
class _Tried:
    """A slip that was tried: how likely the reading is, had it been made."""

    slip: Slip
    weight: float


def slips(build: Build, told: Prediction) -> tuple[Slip, ...]:
    """The slips that explain a reading, most likely first.

    A kind's usual share is spread over all that it could have been; the reading's density under it
    does the rest, so that a gap which fits the tray is the tray before it is one of forty things
    that weigh about as much.
    """
    tried = [each for each in _tried(build, told) if each.weight > 0]
    chance = NO_SLIP * _density(told.gap, told.variance)
    total = chance + sum(each.weight for each in tried)
    if total <= 0 or chance > total / 2:
        return ()
    explained = [each for each in tried if abs(each.slip.t) <= EXPLAINED]
    explained.sort(key=lambda each: -each.weight)
    return tuple(replace(each.slip, share=each.weight / total) for each in explained[:MOST_SLIPS])


def _tried(build: Build, told: Prediction) -> Iterator[_Tried]:
    yield from _containers(build, told)
    yield from _left_on_or_off(build, told)
    yield from _misread(told)
    yield from _wrong_item(build, told)


def _weight(kind: SlipKind, t: float, variance: float, among: int, stretch: float = 1.0) -> float:
    """A kind's usual share over what it could have been, times the reading's density."""
    return USUAL[kind] / max(among, 1) * _density(t, variance) * stretch


def _density(t: float, variance: float) -> float:
    """The normal density at ``t`` sigma."""
    return exp(-t * t / 2 - 0.5 * log(2 * pi * variance)) if abs(t) < 30 else 0.0


def _containers(build: Build, told: Prediction) -> Iterator[_Tried]:
    """A container that was on the pan and not tared, or tared away and then taken off."""
    for container in build.containers:
        variance = told.variance + container.doubt_g**2
        for kind, sign in ((SlipKind.NOT_TARED, -1.0), (SlipKind.TARED_TWICE, 1.0)):
            right = told.reading_g + sign * container.mass_g
            if right <= 0:
                continue
            t = told.t(right, told.expected_g, variance)
            weight = _weight(kind, t, variance, len(build.containers))
            yield _Tried(Slip(kind, container.id, right, told.pan, t, 0.0), weight)


def _left_on_or_off(build: Build, told: Prediction) -> Iterator[_Tried]:
    """One thing on the pan that was not said to be, or said to be and was not."""
    loads = {load.item: load.count for load in told.pan.loads}
    samples = {sample.lot: sample.amount for sample in told.pan.samples}
    counts = [
        (i, item.id, loads.get(item.id, 0.0))
        for i, item in enumerate(build.items)
        if item.id in loads or not item.retired
    ]
    several = len(loads) + len(samples) > 1
    off = sum(1 for *_, count in counts if count == 0)
    among = {SlipKind.LEFT_ON: off, SlipKind.LEFT_OFF: len(counts) - off}
    for i, id, count in counts:
        on = count == 0
        if not on and not several:
            continue
        kind = SlipKind.LEFT_ON if on else SlipKind.LEFT_OFF
        by = (1 + told.error) * (1.0 if on else -count)
        expected = told.expected_g + by * float(told.mass[i])
        variance = (
            told.variance
            + 2 * by * float(told.covariance[i])
            + by * by * float(told.mass_variance[i])
        )
        variance = max(variance, told.noise)
        t = told.t(told.reading_g, expected, variance)
        weight = _weight(kind, t, variance, among[kind])
        if weight > 0:
            put = {**loads, id: 1.0} if on else {k: v for k, v in loads.items() if k != id}
            pan = Pan.of(put, samples, told.pan.known_g)
            yield _Tried(Slip(kind, id, told.reading_g, pan, t, 0.0), weight)


def _misread(told: Prediction) -> Iterator[_Tried]:
    """The unit mixed up, the decimal slipped, two digits swapped."""
    y = told.reading_g
    stretched = [
        (SlipKind.OUNCES, y * OUNCE_G, OUNCE_G, 1),
        (SlipKind.GRAMS, y / OUNCE_G, 1 / OUNCE_G, 1),
        (SlipKind.DECIMAL, y * 10, 10.0, 2),
        (SlipKind.DECIMAL, y / 10, 0.1, 2),
    ]
    swapped = list(_swapped(y, told.step_g))
    stretched += [(SlipKind.DIGITS, right, 1.0, len(swapped)) for right in swapped]
    for kind, right, stretch, among in stretched:
        t = told.t(right, told.expected_g, told.variance)
        weight = _weight(kind, t, told.variance, among, stretch)
        yield _Tried(Slip(kind, None, right, told.pan, t, 0.0), weight)


def _swapped(reading_g: float, step_g: float) -> Iterator[float]:
    """The reading with two neighbouring digits swapped, as the display shows it.

    A zero that came to the front in the swap is gone from the reading, and is put back.

    >>> list(_swapped(46.3, 0.1)), list(_swapped(9.3, 0.1))
    ([406.3, 64.3, 43.6], [90.3, 3.9])
    """
    places = max(0, -int(np.floor(np.log10(step_g) + 1e-9)))
    digits = f"{round(reading_g * 10**places):d}"
    if digits[0] != "0":
        yield float(round(int(f"{digits[0]}0{digits[1:]}") / 10**places, places))
    for k in range(len(digits) - 1):
        if digits[k] != digits[k + 1]:
            turned = digits[:k] + digits[k + 1] + digits[k] + digits[k + 2 :]
            if int(turned) > 0:
                yield round(int(turned) / 10**places, places)


def _wrong_item(build: Build, told: Prediction) -> Iterator[_Tried]:
    """Another thing on the pan than the one that was recorded."""
    if len(told.pan.loads) != 1 or told.pan.samples:
        return
    (load,) = told.pan.loads
    others = [
        (i, item.id)
        for i, item in enumerate(build.items)
        if item.id != load.item and not item.retired
    ]
    for i, id in others:
        expected = (1 + told.error) * float(told.mass[i]) + told.pan.known_g
        variance = told.noise + float(told.mass_variance[i])
        t = told.t(told.reading_g, expected, variance)
        weight = _weight(SlipKind.WRONG_ITEM, t, variance, len(others))
        if weight > 0:
            pan = Pan((Load(id),), (), told.pan.known_g)
            yield _Tried(Slip(SlipKind.WRONG_ITEM, id, told.reading_g, pan, t, 0.0), weight)
