"""What is known at first sight grows with the log, and is what all of it tells at once."""

from dataclasses import replace

import numpy as np
import pytest

from benchmarks.builds import made_up_build
from oaken_scale.core.assess import assess
from oaken_scale.core.ledger import first_look as at_first
from oaken_scale.core.ledger.first_look import first_look
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.readings import Readings, gathered
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Scale


def log_of(build: Build) -> Build:
    """On two scales, each set weighed up to three times, in another order."""
    coarse = Scale("pocket", "Pocket", 0.5, None, 0.01)
    rng = np.random.default_rng(5)
    log = [
        replace(each, id=f"{each.id}-{k}", scale="pocket" if n % 4 == 0 else each.scale)
        for k in range(3)
        for n, each in enumerate(build.weighings)
        if rng.random() < 0.7
    ]
    return replace(build, scales=(*build.scales, coarse), weighings=tuple(log))


def seen(build: Build, believed, gone=()):
    return first_look(Readings(believed, gathered(build)), gone)


def same(one, other):
    assert one.told == pytest.approx(other.told, abs=1e-9)
    assert one.own == pytest.approx(other.own, abs=1e-6)
    assert one.point.error == pytest.approx(other.point.error, abs=1e-10)
    assert one.point.load == pytest.approx(other.point.load, abs=1e-7)


@pytest.mark.parametrize("step", [1, 3, 11])
def test_a_log_that_grows_leaves_what_all_of_it_does(step):
    build = log_of(made_up_build(12, 30))
    believed = prior(build)
    growing, grown = at_first._Growing(believed), []
    for count in range(step, len(build.weighings) + 1, step):
        of = gathered(replace(build, weighings=build.weighings[:count]))
        left = growing.left_by(of)
        rows = np.array([growing._row(of, s) for s in range(len(of.mean_g))])
        wanted = np.linalg.inv(np.eye(len(left)) + rows.T @ rows)
        np.testing.assert_allclose(left, wanted, atol=1e-9)
        assert growing.left_by(of) is left
        grown.append(growing.last[2])
    assert max(grown) == {1: at_first.MOST_GROWN, 3: len(grown) - 1}.get(step, max(grown))
    if step > at_first.MOST_CHANGED:
        assert 0 in grown[1:]


def test_it_is_worked_out_afresh_now_and_then(monkeypatch):
    monkeypatch.setattr(at_first, "MOST_GROWN", 4)
    build = log_of(made_up_build(12, 30))
    growing = at_first._Growing(prior(build))
    counts = []
    for count in range(1, 13):
        growing.left_by(gathered(replace(build, weighings=build.weighings[:count])))
        counts.append(growing.last[2])
    assert counts == [0, 1, 2, 3, 4, 0, 1, 2, 3, 4, 0, 1]


def test_a_log_that_lost_a_reading_is_another_one():
    build = log_of(made_up_build(12, 30))
    believed = prior(build)
    seen(build, believed)
    log = list(build.weighings)
    log[4] = replace(log[4], set_aside="a slip")
    other = replace(build, weighings=tuple(log))
    same(seen(other, believed), seen(other, replace(believed)))
    same(seen(build, believed), seen(build, replace(believed)))


def test_readings_that_are_gone_say_nothing():
    build = log_of(made_up_build(12, 30))
    without = replace(build, weighings=(*build.weighings[:7], *build.weighings[8:]))
    found, wanted = seen(build, prior(build), gone=(7,)), seen(without, prior(build))
    assert found.told == pytest.approx(wanted.told, abs=1e-12)
    assert found.own == pytest.approx(wanted.own, abs=1e-9)
    assert found.point.error == pytest.approx(wanted.point.error, abs=1e-12)


@pytest.mark.parametrize("slip_g", [0.0, 31.4])
def test_what_is_told_hangs_on_the_build_alone_and_not_on_how_its_log_grew(slip_g):
    build = log_of(made_up_build(12, 30))
    log = list(build.weighings)
    log[9] = replace(log[9], reading_g=log[9].reading_g + slip_g)
    for count in range(3, len(log) + 1):
        grown = assess(replace(build, weighings=tuple(log[:count])))
    # The same readings as other objects, so that their log is not one that is known already.
    assert assess(replace(build, weighings=tuple(replace(each) for each in log))) == grown
