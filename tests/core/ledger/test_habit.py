"""The builder's own habit: guesses that run heavy move those still to be weighed."""

from dataclasses import replace
from datetime import timedelta

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.habit import RUNS, WIDE, HabitFound, tells, widths
from oaken_scale.core.ledger.learned import habits_of
from oaken_scale.core.ledger.mixture import estimate
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Habit, Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Scale
from tests.benches import MORNING, reading

SCALE = Scale("s", "S", 0.1, None, 0.0)


def guesses(count: int, weighed: int, runs: float, pedigree=Pedigree.GUESS, **more) -> Build:
    """So many guesses of 10 to 40 g, the first of them weighed at ``runs`` times their figure."""
    stated = [10.0 + 30.0 * k / count for k in range(count)]
    parts = tuple(
        Part(f"i{k}", f"Thing {k}", pedigree, stated_g=grams) for k, grams in enumerate(stated)
    )
    log = tuple(reading(k, round(runs * stated[k], 1), f"i{k}", "s") for k in range(weighed))
    return Build("b", "B", parts=parts, scales=(SCALE,), weighings=log, **more)


def test_weighed_guesses_move_those_still_to_be_weighed():
    """Fifteen of twenty come out 40 % heavy: the other five are heavy as well, by hand.

    Each weighed one reads the factor with sigma 0.20 tau; the prior is 1 +- 0.15.
    """
    build = guesses(20, 15, 1.4, targets=(Target(TargetKind.AUW, high=560.0),))
    told = assess(build)
    (habit,) = told.habits
    t = 0.4 / np.hypot(0.2, 0.15)  # about what each is off, before the others are heard
    assert habit.width < (8 + 15 * t**2) ** 0.5 / 23**0.5
    precision = 15 / (0.2 * habit.width) ** 2
    factor = (0.15**-2 + 1.4 * precision) / (0.15**-2 + precision)
    assert habit.factor == pytest.approx(factor, abs=0.002)
    assert (habit.weighed, habit.left) == (15, 5)
    left = sum(part.stated_g for part in build.parts[15:])
    assert habit.moved_g == pytest.approx((habit.factor - 1) * left, rel=1e-6)
    truth = 1.4 * sum(part.stated_g for part in build.parts)
    answer = told.loadouts[0].answers[0]
    assert abs(answer.value - truth) < 2 * answer.sd
    assert answer.probability < 0.2


def test_before_anything_is_weighed_a_guess_is_as_unsure_as_it_was():
    told = assess(guesses(1, 0, 1.0))
    assert told.parts[0].sd_g == pytest.approx(0.25 * 10.0)
    assert told.habits == ()


def test_a_figure_with_a_doubt_of_its_own_is_beyond_the_habit():
    build = guesses(4, 3, 1.4)
    fixed = replace(build.parts[3], doubt_g=2.0)
    told = assess(replace(build, parts=(*build.parts[:3], fixed)))
    assert told.parts[3].mass_g == pytest.approx(fixed.stated_g)
    assert told.parts[3].sd_g == pytest.approx(2.0)


def test_listings_a_tenth_off_name_no_slip():
    """Ten listings off by a tenth and more, up and down: none of their readings is wrong."""
    build = guesses(14, 0, 1.0, Pedigree.LISTING)
    off = [1.1, 0.9, 1.12, 0.88, 1.1, 0.9, 1.08, 0.92, 1.11, 0.89]
    log = tuple(
        reading(k, round(build.parts[k].stated_g * by, 1), f"i{k}", "s") for k, by in enumerate(off)
    )
    told = assess(replace(build, weighings=log))
    assert not any(each.slips for each in told.doubts)
    (habit,) = told.habits
    assert habit.width > 1.3
    assert told.parts[13].sd_g > 1.4 * 0.05 * build.parts[13].stated_g


def test_one_slip_does_not_widen_them_all():
    build = guesses(12, 10, 1.0, Pedigree.LISTING)
    log = (replace(build.weighings[0], reading_g=100.0), *build.weighings[1:])
    wrong = estimate(replace(build, weighings=log))
    assert [each.weighing for each in wrong.doubts] == ["r0"]
    assert wrong.after.sd[wrong.after.parts][11] == pytest.approx(
        estimate(build).after.sd[wrong.after.parts][11], rel=0.1
    )


def test_a_width_by_hand_and_clipped():
    build = guesses(3, 0, 1.0)
    usual, told = np.ones(3, bool), np.ones(3)
    far = widths(build, usual, np.array([1.0, -2.0, 0.0]), told)[Pedigree.GUESS]
    assert far.times == pytest.approx(((8 + 5) / 11) ** 0.5)
    assert far.freedom == 11
    wild = widths(build, usual, np.array([1.0, -2.0, 500.0]), told)[Pedigree.GUESS]
    assert wild.times == pytest.approx(((8 + 5) / (11 - 6.25)) ** 0.5, rel=1e-6)
    half = widths(build, usual, np.array([1.0, -2.0, 9.0]), np.array([1.0, 1.0, 0.0]))
    assert half[Pedigree.GUESS].times == pytest.approx(((8 + 5) / 10) ** 0.5)


def test_what_was_learned_from_few_is_taken_wider():
    build = guesses(3, 0, 1.0)
    far = widths(build, np.ones(3, bool), np.array([1.0, -2.0, 0.0]), np.ones(3))[Pedigree.GUESS]
    assert far.taken == pytest.approx((13 / 11 * 11 / 9) ** 0.5)  # the variance of a Student's t
    none = widths(build, np.ones(3, bool), np.zeros(3), np.zeros(3))[Pedigree.GUESS]
    assert none.taken == none.times == 1.0


def test_other_pedigrees_far_off_widen_one_that_was_not_weighed():
    far = (Pedigree.LISTING,) * 4 + (Pedigree.GUESS,)
    build = Build(
        "b", "B", parts=tuple(Part(str(k), "x", p, stated_g=9.0) for k, p in enumerate(far))
    )
    off, told = np.array([2.0, -2.0, 2.0, -2.0, 0.0]), np.array([1.0, 1.0, 1.0, 1.0, 0.0])
    wide = widths(build, np.ones(5, bool), off, told)
    assert wide[Pedigree.GUESS].times == 1.0
    assert wide[Pedigree.GUESS].taken == pytest.approx(((4 + 16) / (4 + 4)) ** 0.5)
    near = widths(build, np.ones(5, bool), off / 10, told)
    assert near[Pedigree.GUESS].taken == 1.0  # never surer than the table for that


def finished(runs: float, name: str) -> Build:
    at = MORNING + timedelta(days=9)
    return replace(guesses(8, 8, runs), name=name, finished_at=at)


def test_what_finished_builds_found_is_the_next_ones_prior():
    habits = habits_of([finished(1.3, "a"), finished(1.3, "b"), guesses(8, 8, 2.0)])
    (habit,) = habits
    assert habit.pedigree is Pedigree.GUESS
    assert 1.2 < habit.factor < 1.3
    assert habit.doubt == pytest.approx(0.075)  # no less than half of 0.15
    assert habit.weighed == 16
    told = assess(replace(guesses(4, 0, 1.0), habits=habits))
    assert told.parts[0].mass_g == pytest.approx(10.0 * habit.factor)
    assert told.parts[0].sd_g < 2.5
    assert habits_of([guesses(8, 8, 1.3)]) == ()


def test_a_habit_heard_widens_what_is_believed():
    wide = Habit(Pedigree.GUESS, 1.0, 0.15, squares=160.0, weighed=40)
    told = assess(replace(guesses(1, 0, 1.0), habits=(wide,)))
    times = ((8 + 160) / 48 * 48 / 46) ** 0.5  # Student's t of 48 degrees: nu / (nu - 2)
    assert told.parts[0].sd_g == pytest.approx(10.0 * np.hypot(0.15, 0.2 * times))


@pytest.mark.parametrize(
    ("factor", "sd", "width", "is_told"),
    [
        (1 + RUNS + 0.001, 0.01, 1.0, True),
        (1 + RUNS - 0.001, 0.01, 1.0, False),
        (1 - RUNS - 0.001, 0.01, 1.0, True),
        (1 - RUNS + 0.001, 0.01, 1.0, False),
        (1.3, 0.16, 1.0, False),  # far off, and not surely
        (0.7, 0.16, 1.0, False),
        (1.3, 0.14, 1.0, True),
        (1.0, 0.01, WIDE + 0.01, True),
        (1.0, 0.01, WIDE, False),
    ],
)
def test_a_habit_is_told_where_it_runs_surely_or_is_wide(factor, sd, width, is_told):
    assert tells(HabitFound(Pedigree.GUESS, factor, sd, width, 9, 5, 0.0)) is is_told
