"""The slips that people make at a scale, each tried on a reading that does not fit the rest."""

from collections.abc import Iterator
from dataclasses import replace
from math import erfc, log
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.ledger.readings import gathered
from oaken_scale.core.ledger.slip import (
    NAMED,
    USUAL,
    Prediction,
    Slip,
    SlipKind,
    Tried,
    log_density,
)
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.quantity import OUNCE_G
from oaken_scale.core.model.traits import traits
from oaken_scale.core.model.weighing import Load, Pan

UNSTEADY_BELOW: Final = (0.04, 0.45)
"""A reading taken before it was steady lies below the load by between these shares of it."""


GLUED_ABOVE: Final = (0.005, 0.25)
"""What glue adds to something weighed before, as shares of it."""


def tried(build: Build, told: Prediction) -> list[Tried]:
    """Every slip that people make, tried on a reading.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),))
    >>> told = Prediction(112.0, Pan((Load("b"),)), 40.0, 81.0, 0.01, 0.0,
    ...     np.array([60.0, 40.0]), np.array([9.0, 81.0]), np.array([0.0, 81.0]), 0.1)
    >>> max(tried(build, told), key=lambda each: each.log_weight).slip.kind.value
    'left on'
    """
    return [
        each
        for some in (
            _containers(build, told),
            _left_on_or_off(build, told),
            _misread(told),
            _wrong_part(build, told),
            _unsteady(told),
            _glued(build, told),
            _pieces(build, told),
        )
        for each in some
        if each.log_weight > LEAST_LOG
    ]


LEAST_LOG: Final = -200.0
"""What is less likely than this is not looked at, as a logarithm."""


LEAST_CHANCE: Final = 1e-80
"""A slip that is less likely than this is not looked at."""


SEVERAL: Final = 10.0
"""One reading in ten is of something that comes in several pieces: there that slip is so many times
as usual as among all."""


def _weight(kind: SlipKind, t: float, variance: float, among: int, stretch: float = 1.0) -> float:
    """Logarithm of a kind's usual share over what it could have been, times the density."""
    return log(NAMED * USUAL[kind] / max(among, 1) * stretch) + log_density(t, variance)


def _containers(build: Build, told: Prediction) -> Iterator[Tried]:
    """A container that was on the pan and not tared, or tared away and then taken off."""
    for container in build.containers:
        variance = told.variance + container.doubt_g**2
        for kind, sign in ((SlipKind.NOT_TARED, -1.0), (SlipKind.TARED_TWICE, 1.0)):
            right = told.reading_g + sign * container.mass_g
            if right <= 0:
                continue
            t = told.t(right, told.expected_g, variance)
            weight = _weight(kind, t, variance, len(build.containers))
            yield Tried(Slip(kind, container.id, right, told.pan, t, 0.0), weight)


def _left_on_or_off(build: Build, told: Prediction) -> Iterator[Tried]:
    """One thing on the pan that was not said to be, or said to be and was not.

    Glue goes on with what it joins: that slip has a name of its own.
    """
    loads = {load.part: load.count for load in told.pan.loads}
    samples = {sample.lot: sample.amount for sample in told.pan.samples}
    several = len(loads) + len(samples) > 1
    trait = traits(build.parts)
    count = np.zeros(len(build.parts))
    for id, on_pan in loads.items():
        count[trait.at[id]] = on_pan
    there, glue = trait.there | (count > 0), trait.joint
    off = (count == 0) & there
    among = {SlipKind.LEFT_ON: int(off.sum()), SlipKind.LEFT_OFF: int((count > 0).sum())}
    by = (1 + told.error) * np.where(off, 1.0, -count)
    chosen = np.flatnonzero((off & ~glue) | ((count > 0) & several))
    for i, t, variance in _besides(told, by, chosen):
        id, on = build.parts[i].id, bool(off[i])
        kind = SlipKind.LEFT_ON if on else SlipKind.LEFT_OFF
        weight = _weight(kind, t, variance, among[kind])
        put = {**loads, id: 1.0} if on else {k: v for k, v in loads.items() if k != id}
        pan = Pan.of(put, samples, told.pan.known_g)
        yield Tried(Slip(kind, id, told.reading_g, pan, t, 0.0), weight)


def _besides(
    told: Prediction, by: Vector, chosen: NDArray[np.intp]
) -> Iterator[tuple[int, float, float]]:
    """The chosen parts that, ``by`` so many of them more on the pan (N,), might have given the
    reading: which, how far it is from it then, in sigma, and that variance [g2]."""
    expected = told.expected_g + by * told.mass
    variance = told.variance + 2 * by * told.covariance + by * by * told.mass_variance
    variance = np.maximum(variance, told.noise)
    t = (told.reading_g - expected) / np.sqrt(variance)
    density = -t * t / 2 - 0.5 * np.log(variance)
    least = density[chosen].max(initial=-np.inf) - NEAR_BEST
    for i in chosen[(density[chosen] >= least) & (np.abs(t[chosen]) < FAR_OFF)]:
        yield int(i), float(t[i]), float(variance[i])


NEAR_BEST: Final = 10.0
"""A thing less likely than the likeliest by more than this (in logarithms) is not looked at."""


FAR_OFF: Final = 12.0
"""Nor one that leaves the reading farther off than so many sigma."""


def _misread(told: Prediction) -> Iterator[Tried]:
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
        yield Tried(Slip(kind, None, right, told.pan, t, 0.0), weight)


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


def _wrong_part(build: Build, told: Prediction) -> Iterator[Tried]:
    """Another thing on the pan than the one that was recorded."""
    if len(told.pan.loads) != 1 or told.pan.samples:
        return
    (load,) = told.pan.loads
    trait = traits(build.parts)
    others = np.flatnonzero(trait.there)
    others = others[others != trait.at[load.part]]
    alone = replace(
        told,
        expected_g=(1 + told.error) * told.pan.known_g,
        variance=told.noise,
        covariance=np.zeros_like(told.covariance),
    )
    by = np.full(len(build.parts), 1 + told.error)
    for i, t, variance in _besides(alone, by, others):
        id = build.parts[i].id
        weight = _weight(SlipKind.WRONG_PART, t, variance, len(others))
        pan = Pan((Load(id),), (), told.pan.known_g)
        yield Tried(Slip(SlipKind.WRONG_PART, id, told.reading_g, pan, t, 0.0), weight)


def _unsteady(told: Prediction) -> Iterator[Tried]:
    """Read before it was steady: below the load by an even chance of 4 to 45 %."""
    low, high = UNSTEADY_BELOW
    y, expected = told.reading_g, told.expected_g
    chance = _even(y / (1 - low), y / (1 - high), expected, told.variance)
    if expected > 0 and chance > LEAST_CHANCE:
        weight = log(NAMED * USUAL[SlipKind.UNSTEADY] / ((high - low) * expected)) + log(chance)
        yield _again(SlipKind.UNSTEADY, None, told, weight)


def _glued(build: Build, told: Prediction) -> Iterator[Tried]:
    """Weighed again after glue was added: the listed glue that is not on the pan, or glue that
    nobody listed, on something that was weighed before."""
    here = {load.part for load in told.pan.loads}
    trait, parts = traits(build.parts), build.parts
    groups = {parts[trait.at[id]].assembly for id in here}
    beads = [
        (i, parts[i])
        for i in trait.joints
        if parts[i].id not in here and parts[i].assembly in groups
    ]
    for i, part in beads:
        by = 1 + told.error
        expected = told.expected_g + by * float(told.mass[i])
        variance = max(
            told.variance
            + 2 * by * float(told.covariance[i])
            + by * by * float(told.mass_variance[i]),
            told.noise,
        )
        t = told.t(told.reading_g, expected, variance)
        put = {**{load.part: load.count for load in told.pan.loads}, part.id: 1.0}
        samples = {sample.lot: sample.amount for sample in told.pan.samples}
        weight = _weight(SlipKind.GLUED, t, variance, 2 * len(beads))
        pan = Pan.of(put, samples, told.pan.known_g)
        yield Tried(Slip(SlipKind.GLUED, part.id, told.reading_g, pan, t, 0.0), weight)
    weighed = gathered(build).readings_of(told.pan)
    low, high = GLUED_ABOVE
    y, expected = told.reading_g, told.expected_g
    if weighed < (2 if told.recorded else 1) or expected <= 0:
        return
    chance = _even(y / (1 + high), y / (1 + low), expected, told.variance)
    if chance > LEAST_CHANCE:
        weight = log(NAMED * USUAL[SlipKind.GLUED] / 2 / ((high - low) * expected)) + log(chance)
        yield _again(SlipKind.GLUED, None, told, weight)


def _pieces(build: Build, told: Prediction) -> Iterator[Tried]:
    """The figure of all pieces recorded for one of them, or of one for all."""
    if len(told.pan.loads) != 1 or told.pan.samples or told.pan.known_g:
        return
    (load,) = told.pan.loads
    part = build.parts[traits(build.parts).at[load.part]]
    counts = [each for each in (1.0, 1 / part.pieces) if abs(each - load.count) > 1e-9]
    counts = counts if part.pieces > 1 else []
    for count in counts:
        by = count / load.count
        expected = told.expected_g * by
        variance = told.noise + (told.variance - told.noise) * by * by
        t = told.t(told.reading_g, expected, variance)
        weight = _weight(SlipKind.PIECES, t, variance, len(counts), SEVERAL)
        pan = Pan((Load(part.id, count),))
        yield Tried(Slip(SlipKind.PIECES, part.id, told.reading_g, pan, t, 0.0), weight)


def _again(kind: SlipKind, subject: str | None, told: Prediction, weight: float) -> Tried:
    """A slip that does not say what the reading would have been: weigh it again."""
    return Tried(Slip(kind, subject, told.expected_g, told.pan, 0.0, 0.0, repair=False), weight)


def _even(low: float, high: float, mean: float, variance: float) -> float:
    """The chance that a normal value lies between two."""
    sd = variance**0.5
    return 0.5 * (erfc((low - mean) / sd / 2**0.5) - erfc((high - mean) / sd / 2**0.5))
