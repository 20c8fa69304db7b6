"""The study's own figures, on fewer benches: the doubt is honest, slips are found and named."""

import numpy as np
import pytest

import study.__main__ as trust
from oaken_scale.core.ledger.slip import SlipKind
from study.settling import compared


@pytest.fixture(autouse=True)
def fewer(monkeypatch):
    monkeypatch.setattr(trust, "BENCHES", 80)


@pytest.mark.parametrize("readings", [22, 31])
def test_the_stated_doubt_covers_the_truth(readings):
    """95.4 % expected; four standard errors of 80 benches either way."""
    told = trust.without_slips(np.random.default_rng(7), trust.WORLDS["as believed"], readings)
    assert told.told > 0.86
    assert told.named <= 0.03
    assert told.innocent <= 0.05


WRONG = [name for name in trust.WORLDS if name not in ("as believed", "the scale 1 % off")]


@pytest.mark.parametrize("world", WRONG)
def test_wrong_priors_name_no_slips_and_the_whole_plane_comes_out_right(world):
    told = trust.without_slips(np.random.default_rng(8), trust.WORLDS[world], 31)
    assert told.named <= 0.04
    assert told.told >= 0.86


def test_a_scale_that_reads_off_is_said_where_it_decides(monkeypatch):
    monkeypatch.setattr(trust, "BENCHES", 20)
    assert trust.warned(np.random.default_rng(6)) == 1.0


@pytest.mark.parametrize("kind", list(SlipKind))
def test_one_slip_bends_nothing_and_accuses_nobody(kind):
    got = trust.with_slips(np.random.default_rng(9), kind, 22)
    # A glued seam is known only within 40 %, and pieces of a guess may well be that light.
    least = {SlipKind.PIECES: 0.75, SlipKind.WRONG_PART: 0.82, SlipKind.DIGITS: 0.84}
    assert got.told >= least.get(kind, 0.84)
    assert got.innocent <= 0.05
    assert got.told >= got.plain - 0.02


@pytest.mark.parametrize("kind", list(SlipKind))
def test_a_planted_slip_is_found_and_mostly_named(kind):
    least = {
        SlipKind.LEFT_ON: 0.75,
        SlipKind.WRONG_PART: 0.75,
        SlipKind.DIGITS: 0.65,
        SlipKind.UNSTEADY: 0.8,
        SlipKind.GLUED: 0.75,
    }
    large, found, _, among = trust.planted(np.random.default_rng(9), kind)
    assert large >= 20
    assert found >= 0.95
    assert among >= least.get(kind, 0.88)


def test_weigh_next_settles_the_targets_in_fewer_weighings_and_ends_true():
    told = compared(range(24))
    assert told.by_next <= 0.7 * told.by_chance
    assert told.settled_by_next >= told.settled_by_chance
    assert told.true >= 0.8
