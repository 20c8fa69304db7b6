"""The study's own figures, on fewer benches: the doubt is honest, slips are found and named."""

import numpy as np
import pytest

import study.__main__ as trust
from oaken_scale.core.slips import SlipKind
from study.settling import compared


@pytest.fixture(autouse=True)
def fewer(monkeypatch):
    monkeypatch.setattr(trust, "BENCHES", 80)


def test_the_stated_doubt_covers_the_truth():
    """95.4 % expected; four standard errors of 80 benches either way."""
    assert trust.coverage(np.random.default_rng(7)) > 0.86


def test_clean_benches_raise_few_alarms():
    alarms, doubted = trust.clean(np.random.default_rng(8))
    assert alarms <= 0.05
    assert doubted <= 0.01


@pytest.mark.parametrize("kind", list(SlipKind))
def test_a_planted_slip_is_found_and_mostly_named(kind):
    least = {SlipKind.LEFT_ON: 0.75, SlipKind.WRONG_ITEM: 0.75, SlipKind.DIGITS: 0.65}
    large, found, _, among = trust.planted(np.random.default_rng(9), kind)
    assert large >= 20
    assert found >= 0.97
    assert among >= least.get(kind, 0.88)


def test_weigh_next_settles_the_targets_in_fewer_weighings_and_ends_true():
    told = compared(range(24))
    assert told.by_next <= 0.7 * told.by_chance
    assert told.settled_by_next >= told.settled_by_chance
    assert told.true >= 0.8
