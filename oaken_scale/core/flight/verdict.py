"""Verdicts: will this build meet its targets, how surely, and with how much in hand."""

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.target import Target, TargetKind


class Word(StrEnum):
    """A verdict in words, best first."""

    MET = "met"
    ON_COURSE = "on course"
    TOO_CLOSE = "too close to call"
    OFF_COURSE = "off course"
    MISSED = "missed"


class Missing(StrEnum):
    """What a metric cannot be told without. Of a drive's figures: ``DRIVEN``, what its motor is
    driven with and drives, a pack and a propeller; ``PACK_ABOARD``, one of the packs that it has.
    """

    PARTS = "parts"
    WING = "wing"
    STATIONS = "stations"
    THRUST = "thrust"
    DRIVE = "drive"
    DRIVEN = "driven"
    PACK = "pack"
    PACK_ABOARD = "pack_aboard"
    PROPELLER = "propeller"
    MOTOR = "motor"


WORST_FIRST: Final = (
    Word.MISSED,
    Word.OFF_COURSE,
    Word.TOO_CLOSE,
    Word.ON_COURSE,
    Word.MET,
)


@dataclass(frozen=True, slots=True)
class Mend:
    """What alone would bring an answer back inside: by what means, and how much of it.

    ``by`` is ``lighter_g``, ``more_thrust_gf``, ``more_power_w``, ``more_wing_dm2`` or
    ``slide_forward_mm`` (of ``part``; negative slides it aft). A mend that the build cannot take is
    not offered.
    """

    by: str
    amount: float
    part: str | None = None


@dataclass(frozen=True, slots=True)
class Answer:
    """One of the four answers for one loadout.

    ``value`` and ``sd`` (one sigma) are in ``unit``; ``margin`` is what is in hand, in the same
    unit, negative when outside. Without a value, ``missing`` says what it takes to tell it.
    Where it matters, ``disbelieving`` names the readings that it does not believe, and
    ``believing`` is the value if they are right; ``unchecked_scale`` is the scale that no known
    weight was on, where the margin is thinner than what such a scale may be off.
    """

    kind: TargetKind
    unit: str
    value: float | None = None
    sd: float | None = None
    low: float | None = None
    high: float | None = None
    source: str = ""
    probability: float | None = None
    word: Word | None = None
    margin: float | None = None
    mends: tuple[Mend, ...] = ()
    missing: Missing | None = None
    disbelieving: tuple[str, ...] = ()
    believing: float | None = None
    unchecked_scale: str | None = None


def normal_cdf(t: float) -> float:
    """Standard normal distribution function.

    >>> round(normal_cdf(1.0), 6)
    0.841345
    """
    return 0.5 * math.erfc(-t / math.sqrt(2.0))


def chance_below(limit: float, value: float, sd: float) -> float:
    """Probability that ``N(value, sd)`` is at most ``limit``; without doubt it is 0 or 1.

    >>> chance_below(590.0, 590.0, 5.0), chance_below(590.0, 600.0, 0.0)
    (0.5, 0.0)
    """
    if sd <= 0:
        return 1.0 if value <= limit else 0.0
    return normal_cdf((limit - value) / sd)


def chance_within(low: float | None, high: float | None, value: float, sd: float) -> float:
    """Probability that ``N(value, sd)`` lies within a limit or a band.

    >>> round(chance_within(None, 590.0, 588.0, 5.5), 3)
    0.642
    >>> round(chance_within(28.0, 33.0, 30.5, 2.5), 4)
    0.6827
    """
    below_high = 1.0 if high is None else chance_below(high, value, sd)
    if low is None:
        return below_high
    if sd <= 0:
        return below_high if value >= low else 0.0
    return max(below_high - normal_cdf((low - value) / sd), 0.0)


def margin(low: float | None, high: float | None, value: float) -> float | None:
    """What is in hand before the nearer edge; negative when outside; None without an edge.

    >>> margin(None, 590.0, 588.0), margin(28.0, 33.0, 38.0), margin(None, None, 1.0)
    (2.0, -5.0, None)
    """
    edges = []
    if high is not None:
        edges.append(high - value)
    if low is not None:
        edges.append(value - low)
    return min(edges) if edges else None


def word(probability: float, fully_weighed: bool) -> Word:
    """Put a probability into a word. ``met`` and ``missed`` are for a plane fully weighed.

    Source: docs/methods.md, section 4.

    >>> word(0.98, True), word(0.98, False), word(0.5, True), word(0.2, False), word(0.02, True)
    (<Word.MET: 'met'>, <Word.ON_COURSE: 'on course'>, <Word.TOO_CLOSE: 'too close to call'>, \
<Word.OFF_COURSE: 'off course'>, <Word.MISSED: 'missed'>)
    """
    if fully_weighed and probability >= 0.975:
        return Word.MET
    if fully_weighed and probability <= 0.025:
        return Word.MISSED
    if probability >= 0.8:
        return Word.ON_COURSE
    return Word.OFF_COURSE if probability <= 0.2 else Word.TOO_CLOSE


def judge(
    kind: TargetKind,
    unit: str,
    value: float,
    sd: float,
    target: Target | None,
    fully_weighed: bool,
    probability: float | None = None,
    mends: tuple[Mend, ...] = (),
) -> Answer:
    """Answer with a value, and with a verdict when there is a target.

    ``probability`` is for an answer whose chance is known better than from a normal ``value``.

    >>> answer = judge(TargetKind.AUW, "g", 580.0, 9.0, Target(TargetKind.AUW, high=590.0), False)
    >>> answer.word.value, answer.margin, round(answer.probability, 3)
    ('on course', 10.0, 0.867)
    """
    if target is None:
        return Answer(kind, unit, value, sd)
    chance = chance_within(target.low, target.high, value, sd)
    if probability is not None:
        chance = probability
    in_hand = margin(target.low, target.high, value)
    return Answer(
        kind,
        unit,
        value,
        sd,
        low=target.low,
        high=target.high,
        source=target.source,
        probability=chance,
        word=word(chance, fully_weighed),
        margin=in_hand,
        mends=mends if in_hand is not None and in_hand < 0 else (),
    )


def worst(answers: tuple[Answer, ...]) -> Word | None:
    """The worst verdict among answers; None when no target could be judged.

    >>> met = judge(TargetKind.AUW, "g", 500.0, 2.0, Target(TargetKind.AUW, high=590.0), True)
    >>> over = judge(TargetKind.AUW, "g", 620.0, 2.0, Target(TargetKind.AUW, high=590.0), True)
    >>> worst((met, over)).value
    'missed'
    """
    words = {answer.word for answer in answers}
    return next((each for each in WORST_FIRST if each in words), None)
