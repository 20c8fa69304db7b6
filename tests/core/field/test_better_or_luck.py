"""Whether a change helped: the reference outing, the plain t beside it, and laws."""

import math
from random import Random

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.integrate import quad
from scipy.stats import t, ttest_ind

from oaken_scale.core.field import better_or_luck as rules
from oaken_scale.core.field.better_or_luck import compared, how_many_more

METRES = (9.6, 14.9, 12.4, 12.3, 10.2, 16.8, 13.7, 11.4)
IS_B = tuple(letter == "B" for letter in "ABBAABBA")


def test_the_reference_outing_comes_out_as_it_is_written():
    """docs/methods.md, reference F1."""
    logs, second = np.log(METRES), np.array(IS_B)
    plain = ttest_ind(logs[second], logs[~second])
    assert (plain.statistic, plain.df) == (pytest.approx(3.325, abs=5e-4), 6)
    told = compared(METRES, IS_B)
    assert told.better == pytest.approx(0.9174, abs=1e-3)
    assert told.difference == pytest.approx(0.1612, abs=1e-3)
    assert told.scatter == pytest.approx(0.1695, abs=5e-4)
    assert told.does_something == pytest.approx(0.849, abs=1.5e-3)
    assert told.first == pytest.approx(10.82, abs=0.01)
    assert told.second - told.first == pytest.approx(1.89, abs=0.02)
    assert (told.more, told.bad) == (0, ())


def test_after_six_throws_it_is_not_told_yet():
    told = compared(METRES[:6], IS_B[:6])
    assert told.better == pytest.approx(0.8700, abs=1e-3)
    assert told.difference == pytest.approx(0.1511, abs=1e-3)
    assert told.scatter == pytest.approx(0.1860, abs=6e-4)
    assert told.more == 6


def by_quadrature(logs, second) -> float:
    """P(B better) with one slope, no bad throw and a change that does something, by integrating
    over the scatter: what the closed form must come to."""
    n = len(logs)
    order = np.arange(n) - (n - 1) / 2
    design = np.stack([~second, second], axis=1).astype(float)
    shape = np.eye(n) + 0.01 * np.outer(order, order) + 25.0 + 0.5 * design @ design.T
    z = logs - logs.mean()
    solved = np.linalg.solve(shape, np.column_stack([z, design]))
    at = 0.5 * design.T @ solved[:, 0]
    spread = 0.5 * np.eye(2) - 0.25 * design.T @ solved[:, 1:]
    width = math.sqrt(spread[0, 0] + spread[1, 1] - 2 * spread[0, 1])

    def density(s: float) -> float:
        prior = s ** -(4 + 1) * math.exp(-4 * 0.22**2 / (2 * s * s))
        return prior * s**-n * math.exp(-float(z @ solved[:, 0]) / (2 * s * s))

    def below(s: float) -> float:
        return density(s) * 0.5 * math.erfc(-(at[1] - at[0]) / (width * s) / math.sqrt(2))

    return quad(below, 0.01, 3)[0] / quad(density, 0.01, 3)[0]


def test_the_closed_form_is_the_integral_over_the_scatter(monkeypatch):
    monkeypatch.setattr(rules, "NOTHING", (1e-12, 0.15))
    monkeypatch.setattr(rules, "BAD_ONE", 1e-12)
    logs, second = np.log(METRES), np.array(IS_B)
    assert compared(METRES, IS_B).better == pytest.approx(by_quadrature(logs, second), abs=1e-6)


def test_one_bad_throw_is_named_and_bends_nothing():
    metres = (12.0, 12.6, 12.2, 11.8, 12.4, 4.1, 12.5, 12.1)
    told = compared(metres, IS_B)
    assert told.bad == (5,)
    assert abs(told.difference) < 0.06
    without = compared(metres[:5] + metres[6:], IS_B[:5] + IS_B[6:])
    assert told.difference == pytest.approx(without.difference, abs=0.05)


@pytest.mark.parametrize("second", [[True, True], [False, False]])
def test_both_settings_must_have_been_thrown(second):
    with pytest.raises(ValueError, match="both settings"):
        compared([9.0, 10.0], second)


throws = st.lists(st.tuples(st.floats(3, 40), st.booleans()), min_size=3, max_size=14).filter(
    lambda all: len({is_b for _, is_b in all}) == 2
)


@settings(max_examples=60, deadline=None)
@given(throws, st.floats(0.1, 10))
def test_the_unit_makes_no_difference_and_the_names_turn_it_round(all_throws, unit):
    values, second = zip(*all_throws, strict=True)
    told = compared(values, second)
    scaled = compared([unit * each for each in values], second)
    assert scaled.better == pytest.approx(told.better, abs=1e-7)
    turned = compared(values, [not each for each in second])
    assert turned.better == pytest.approx(1 - told.better, abs=1e-7)
    assert turned.difference == pytest.approx(-told.difference, abs=1e-7)
    assert 0 <= told.does_something <= 1


def test_how_many_more_is_the_first_number_that_passes():
    found = how_many_more(0.1511, 0.186, 3, 3)
    assert found == 6

    def passes(first: int, second: int) -> bool:
        ratio = 0.1511 / (0.186 * math.sqrt(1 / first + 1 / second))
        return ratio >= t.ppf(0.9, 4 + first + second - 2)

    assert passes(6, 6)
    assert not passes(6, 5)
    assert how_many_more(0.01, 0.25, 4, 4) is None


def test_a_long_day_of_throws_is_told_too():
    """Eight hundred of them: what each hypothesis weighs is far below the least number there is."""
    random = Random(3)
    second = [k % 4 in (1, 2) for k in range(800)]
    metres = [12.0 * (1.1 if b else 1.0) * math.exp(random.gauss(0, 0.2)) for b in second]
    told = compared(metres, second)
    assert told.better > 0.99
    assert told.difference == pytest.approx(0.095, abs=0.04)


@given(throws, st.floats(0.1, 2.0))
@settings(max_examples=40, deadline=None)
def test_a_bad_throw_is_one_that_falls_short_with_a_spread_of_its_own(all_throws, apart):
    """Each hypothesis at once, against that throw lifted by what it fell short, with its own
    spread on the diagonal, worked out alone."""
    values, second = zip(*all_throws, strict=True)
    z = np.log(values) - np.log(values).mean()
    who = np.array(second)
    design = np.stack([~who, who], axis=1).astype(float)
    always = np.eye(len(z)) + 25.0
    at_once = rules._with_any_bad(z, design, always, apart)
    for k in range(len(z)):
        one = np.zeros(len(z))
        one[k] = 1.0
        spread = always + rules.BAD_WIDTH**2 * np.outer(one, one)
        alone = rules._with_any_bad(z + rules.BAD_FALLS * one, design, spread, apart)
        for name, together, by_itself in zip(
            ("evidence", "difference", "width", "variance"), at_once, alone, strict=True
        ):
            assert together[k + 1] == pytest.approx(by_itself[0], rel=1e-6, abs=1e-9), name
