"""Laws of doubt: the order of the log is nothing, and a sound reading does no harm."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.ledger.mixture import doubts
from oaken_scale.core.ledger.outliers import leave_one_out
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.demo.practice import practice
from tests.benches import random_build


def flagged(build):
    return {(each.weighing, round(each.t, 6)) for each in doubts(build)}


@given(st.integers(0, 400), st.randoms(use_true_random=False))
@settings(max_examples=25, deadline=None)
def test_the_order_of_the_log_is_nothing(seed, shuffle):
    build = practice(seed).build
    log = list(build.weighings)
    shuffle.shuffle(log)
    again = replace(build, weighings=tuple(log))
    names = {name for name, _ in flagged(build)}
    assert {name for name, _ in flagged(again)} == names


@given(st.integers(0, 400))
@settings(max_examples=20, deadline=None)
def test_every_practice_bench_hides_a_slip_that_is_found(seed):
    made = practice(seed)
    told = doubts(made.build)
    wrong = [
        each.id
        for each in made.build.weighings
        if each.reading_g - sum(made.masses_g[on.part] * on.count for on in each.pan.loads) > 20
    ]
    assert len(wrong) == 1
    assert any(wrong[0] in (each.weighing, *each.contradicts) for each in told)


@pytest.mark.parametrize("seed", range(4))
def test_leaving_out_what_is_doubted_leaves_nothing_to_doubt(seed):
    """Or fewer than there were, where more are doubtful than are told at once."""
    build = random_build(seed)
    gone = {each.weighing for each in doubts(build)}
    rest = replace(build, weighings=tuple(w for w in build.weighings if w.id not in gone))
    assert len(doubts(rest)) < max(len(gone), 1)


@pytest.mark.parametrize("seed", range(4))
def test_every_t_is_finite_and_every_variance_above_zero(seed):
    build = random_build(seed)
    out = leave_one_out(build)
    assert np.isfinite(out.t).all()
    noise = [reading_doubt(next(s for s in build.scales if s.id == w.scale)) for w in out.weighings]
    assert (out.sd_g > noise).all()
    off = [w.reading_g for w in out.weighings] - out.expected_g
    np.testing.assert_allclose(off / out.sd_g, out.t, rtol=1e-9)
