"""Where a tab flies best, and what to throw next."""

import math

import numpy as np
import pytest
from scipy.stats import norm

from oaken_scale.core.field.next_setting import Thrown, best_setting, by_the_word
from oaken_scale.core.model.field import Seen

F2 = (
    Thrown(0, Seen.STALLS, 9.4),
    Thrown(-2, Seen.STALLS, 12.9),
    Thrown(-3, Seen.DIVES, 11.8),
    Thrown(-2, Seen.GOOD, 14.1),
)


def test_the_reference_search_comes_out_as_it_is_written():
    """docs/methods.md, reference F2."""
    told = best_setting(F2)
    assert (told.best_mm, told.next_mm) == (-2.0, -3.0)
    assert told.close == pytest.approx(0.785, abs=5e-4)
    assert told.loss == pytest.approx(0.0327, abs=5e-5)
    assert told.mean_mm == pytest.approx(-2.401, abs=5e-4)
    assert told.sd_mm == pytest.approx(1.014, abs=5e-4)
    assert told.median_mm == pytest.approx(-2.247, abs=5e-4)
    assert told.low_mm == pytest.approx(-3.77, abs=6e-3)
    assert told.high_mm == pytest.approx(-1.37, abs=6e-3)


def test_it_is_the_sum_over_the_grid_written_out():
    """One cell after the other, by the formulas of docs/methods.md."""
    total = first = 0.0
    for c in np.arange(-6, 6.01, 0.25):
        for w in (1.5, 2.5, 4.0, 6.0):
            chance = norm.pdf(c, 0, 3)
            left = []
            for each in F2:
                u = (each.mm - c) / w
                stalls, dives = norm.cdf((u - 0.5) / 0.5), norm.cdf((-u - 0.5) / 0.5)
                said = {Seen.STALLS: stalls, Seen.DIVES: dives, Seen.GOOD: 1 - stalls - dives}
                chance *= 0.9 * max(said[each.seen], 0.0) + 0.1 / 3
                left.append(math.log(each.distance_m) + 0.5 * u * u)
            middle = sorted(left)
            middle = (middle[1] + middle[2]) / 2
            left = [min(max(each, middle - 0.55), middle + 0.55) for each in left]
            squares = sum((each - sum(left) / 4) ** 2 for each in left)
            chance *= (4 * 0.22**2 + squares) ** (-(4 + 4 - 1) / 2)
            total += chance
            first += chance * c
    assert best_setting(F2).mean_mm == pytest.approx(first / total, abs=1e-9)


def test_up_and_down_are_alike():
    turned = {Seen.STALLS: Seen.DIVES, Seen.DIVES: Seen.STALLS, Seen.GOOD: Seen.GOOD}
    mirrored = best_setting([Thrown(-e.mm, turned[e.seen], e.distance_m) for e in F2])
    assert mirrored.mean_mm == pytest.approx(-best_setting(F2).mean_mm, abs=1e-9)
    assert mirrored.next_mm == 3.0


@pytest.mark.parametrize(("word", "goes"), [(Seen.STALLS, -1), (Seen.DIVES, 1)])
def test_one_word_is_enough_to_begin_and_no_change_is_over_three_mm(word, goes):
    told = best_setting([Thrown(0, word)])
    assert 0 < goes * told.next_mm <= 3


def test_a_caution_is_never_overstepped():
    free = best_setting([Thrown(0, Seen.DIVES)] * 3)
    assert free.next_mm > 1
    assert best_setting([Thrown(0, Seen.DIVES)] * 3, most_mm=1.0).next_mm == 1.0


def test_one_bad_throw_does_not_turn_the_search():
    good = [Thrown(0, Seen.STALLS, 9), Thrown(-2, Seen.GOOD, 14), Thrown(-2, Seen.GOOD, 13.5)]
    slipped = [*good, Thrown(-2, Seen.GOOD, 4.0)]
    assert abs(best_setting(slipped).best_mm - best_setting(good).best_mm) <= 0.5


def test_by_the_word_alone_the_change_is_halved_when_it_turns_over():
    throws = [Thrown(0, Seen.STALLS)]
    assert by_the_word(throws) == -2
    throws.append(Thrown(-2, Seen.DIVES))
    assert by_the_word(throws) == -1
    throws.append(Thrown(-1, Seen.STALLS))
    assert by_the_word(throws) == -1.5
    throws.append(Thrown(-1.5, Seen.DIVES))
    assert by_the_word(throws) == -1
    throws.append(Thrown(-1, Seen.GOOD))
    assert by_the_word(throws) == -1


def test_nothing_thrown_nothing_told():
    with pytest.raises(ValueError, match="throw it once"):
        best_setting([])
