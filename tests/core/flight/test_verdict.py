from math import inf

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.flight.verdict import (
    Answer,
    Mend,
    Word,
    chance_below,
    chance_within,
    judge,
    margin,
    normal_cdf,
    word,
    worst,
)
from oaken_scale.core.model.target import Target, TargetKind

NUMBERS = st.floats(-1e4, 1e4)
DOUBTS = st.floats(0.01, 1e3)


@pytest.mark.parametrize(
    ("probability", "weighed", "verdict"),
    [
        (1.0, True, Word.MET),
        (0.975, True, Word.MET),
        (0.9749, True, Word.ON_COURSE),
        (1.0, False, Word.ON_COURSE),
        (0.8, True, Word.ON_COURSE),
        (0.8, False, Word.ON_COURSE),
        (0.7999, False, Word.TOO_CLOSE),
        (0.5, True, Word.TOO_CLOSE),
        (0.2001, False, Word.TOO_CLOSE),
        (0.2, False, Word.OFF_COURSE),
        (0.0251, True, Word.OFF_COURSE),
        (0.025, True, Word.MISSED),
        (0.0, True, Word.MISSED),
        (0.0, False, Word.OFF_COURSE),
    ],
)
def test_the_table_of_verdicts(probability, weighed, verdict):
    assert word(probability, weighed) is verdict


@pytest.mark.parametrize(
    ("t", "p"),
    [(0.0, 0.5), (1.0, 0.8413447), (-1.959964, 0.025), (1.959964, 0.975), (8.0, 1.0), (-40.0, 0.0)],
)
def test_the_normal_distribution(t, p):
    assert normal_cdf(t) == pytest.approx(p, abs=1e-7)


@pytest.mark.parametrize(
    ("low", "high", "value", "sd", "p"),
    [
        (None, 590, 580, 10, 0.8413447),
        (None, 590, 590, 10, 0.5),
        (0.7, None, 0.8, 0.1, 0.8413447),
        (28, 33, 30.5, 2.5, 0.6826895),
        (28, 33, 33, 1e-9, 0.5),
        (28, 33, 28, 0, 1.0),
        (28, 33, 27.999, 0, 0.0),
        (None, 590, 590, 0, 1.0),
        (None, 590, 590.001, 0, 0.0),
        (None, None, 3, 1, 1.0),
    ],
)
def test_the_chance_of_a_limit_or_a_band(low, high, value, sd, p):
    assert chance_within(low, high, value, sd) == pytest.approx(p, abs=1e-6)


@given(NUMBERS, NUMBERS, DOUBTS)
def test_above_and_below_a_limit_make_one(limit, value, sd):
    below = chance_within(None, limit, value, sd)
    above = chance_within(limit, None, value, sd)
    assert below + above == pytest.approx(1.0)


@given(NUMBERS, st.floats(0, 100), NUMBERS, DOUBTS)
def test_a_wider_band_is_never_less_likely(low, width, value, sd):
    narrow = chance_within(low, low + width, value, sd)
    wide = chance_within(low - 1, low + width + 1, value, sd)
    assert 0 <= narrow <= wide + 1e-12 <= 1 + 1e-9


@given(NUMBERS, NUMBERS, DOUBTS)
def test_a_lighter_plane_is_never_less_likely_under_its_limit(limit, value, sd):
    assert chance_below(limit, value - 1, sd) >= chance_below(limit, value, sd)


@given(NUMBERS, st.floats(0.1, 100), NUMBERS)
def test_the_margin_is_positive_just_inside(low, width, value):
    in_hand = margin(low, low + width, value)
    assert (in_hand >= 0) == (low <= value <= low + width)
    assert in_hand <= width / 2 + 1e-9


def test_a_verdict_needs_a_target_and_a_mend_a_miss():
    mends = (Mend("lighter_g", 20.0),)
    bare = judge(TargetKind.AUW, "g", 600, 5, None, True, mends=mends)
    assert (bare.word, bare.probability, bare.margin, bare.mends) == (None, None, None, ())
    over = judge(TargetKind.AUW, "g", 600, 5, Target(TargetKind.AUW, high=580), True, mends=mends)
    assert over.mends == mends
    inside = judge(TargetKind.AUW, "g", 600, 5, Target(TargetKind.AUW, high=620), True, mends=mends)
    assert inside.mends == ()


def test_a_chance_known_better_than_from_the_value_is_used():
    target = Target(TargetKind.THRUST_TO_WEIGHT, low=0.7)
    told = judge(TargetKind.THRUST_TO_WEIGHT, "ratio", 0.8, 0.1, target, False, probability=0.1)
    assert told.probability == 0.1
    assert told.word is Word.OFF_COURSE


def test_the_worst_of_several_is_told():
    def answer(verdict):
        return Answer(TargetKind.AUW, "g", word=verdict)

    assert worst((answer(Word.MET), answer(Word.TOO_CLOSE), answer(None))) is Word.TOO_CLOSE
    assert worst((answer(Word.OFF_COURSE), answer(Word.MISSED))) is Word.MISSED
    assert worst((answer(None),)) is None
    assert margin(None, inf, 1.0) == inf
