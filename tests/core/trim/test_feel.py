"""What a hand feels of the balance, against moments integrated numerically and a hand's slope."""

from math import hypot, isinf

import numpy as np
import pytest
from scipy.stats import norm

from oaken_scale.core.model.balancing import Feel
from oaken_scale.core.trim.feel import felt, surprise

FINGERTIPS_MM = 3.0


def cut_off(side: float, x: float, mean: float, sd: float) -> tuple[float, float]:
    """Mean and sigma of a normal CG, given that the plane dropped on a side of fingers that stand
    three millimetres about ``x``: integrated over a fine grid."""
    at = np.linspace(mean - 12 * sd, mean + 12 * sd, 200_001)
    weight = norm.pdf(at, mean, sd) * norm.cdf(side * (at - x) / FINGERTIPS_MM)
    weight /= weight.sum()
    middle = float(weight @ at)
    return middle, float(weight @ (at - middle) ** 2) ** 0.5


@pytest.mark.parametrize("feel", [Feel.TAIL_DROPS, Feel.NOSE_DROPS])
@pytest.mark.parametrize(("x", "mean", "sd"), [(210, 205, 4), (210, 210, 8), (200, 204, 2.5)])
def test_a_side_is_worth_what_it_cuts_off(feel, x, mean, sd):
    """What is told is an observation beside the sum: together they have the moments of the cut."""
    side = 1.0 if feel is Feel.TAIL_DROPS else -1.0
    at, doubt = felt(feel, x, mean, sd, 0.0, 800.0)
    precision = 1 / sd**2 + 1 / doubt**2
    together = (mean / sd**2 + at / doubt**2) / precision
    middle, spread = cut_off(side, x, mean, sd)
    assert together == pytest.approx(middle, abs=1e-3)
    assert precision**-0.5 == pytest.approx(spread, rel=1e-4)
    assert side * (together - mean) > 0


def test_a_side_that_was_sure_already_tells_nothing():
    at, doubt = felt(Feel.TAIL_DROPS, 100.0, 210.0, 4.0, 0.0, 800.0)
    assert at == 210.0
    assert isinf(doubt)


@pytest.mark.parametrize(
    ("feel", "reach", "sign"),
    [(Feel.NOSE_HAND_LOW, 240.0, -1.0), (Feel.TAIL_HAND_LOW, 560.0, 1.0)],
)
def test_a_hand_low_is_a_slope_times_how_high_it_is_held(feel, reach, sign):
    """Held 20 +- 10 mm over its CG at 240, nose at 0 and tail at 800: 90 mm over the reach."""
    at, doubt = felt(feel, 240.0, 250.0, 6.0, 0.0, 800.0)
    assert at == pytest.approx(240.0 + sign * 20 * 90 / reach)
    assert doubt == pytest.approx(hypot(10 * 90 / reach, FINGERTIPS_MM))


def test_no_hand_hangs_lower_than_upright():
    """With the nose 30 mm ahead of the fingers a hand is no longer than the slope of one."""
    at, _ = felt(Feel.NOSE_HAND_LOW, 30.0, 40.0, 6.0, 0.0, 800.0)
    assert at == pytest.approx(30.0 - 20.0)


def test_level_by_feel_is_twice_as_doubtful_as_by_eye():
    assert felt(Feel.LEVEL, 231.0, 250.0, 6.0, 0.0, 800.0) == (231.0, 6.0)


@pytest.mark.parametrize(
    ("feel", "x", "expected"),
    [
        (Feel.TAIL_DROPS, 210.0, 10 / 5),
        (Feel.TAIL_DROPS, 190.0, 0.0),
        (Feel.NOSE_DROPS, 190.0, -10 / 5),
        (Feel.NOSE_DROPS, 210.0, 0.0),
        (Feel.LEVEL, 190.0, None),
        (Feel.NOSE_HAND_LOW, 190.0, None),
    ],
)
def test_how_far_on_the_wrong_side_the_sum_is(feel, x, expected):
    """Of a sum at 200 known to 4 mm, on fingers to 3 mm: 5 mm together."""
    told = surprise(feel, x, 200.0, 4.0)
    assert told == (expected if expected is None else pytest.approx(expected))
