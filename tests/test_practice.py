"""The practice bench as it is made up: one slip, a truth that the build believes possible."""

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.slip import SlipKind
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.demo.practice import PURPOSE, TRAY, practice
from oaken_scale.formats.build_file import dump, load
from study.settling import by_weigh_next, put_right, settled, settling

SEEDS = range(12)


@pytest.mark.parametrize("seed", SEEDS)
def test_it_is_a_whole_build_with_a_truth_for_everything(seed):
    made = practice(seed)
    assert validated(made.build).purpose == PURPOSE
    assert set(made.masses_g) == {part.id for part in made.build.parts}
    assert set(made.constants) == {lot.id for lot in made.build.lots}
    assert min(made.masses_g.values()) > 0
    assert load(dump(made.build).encode()) == made.build


@pytest.mark.parametrize("seed", SEEDS)
def test_only_one_reading_is_off_and_by_the_tray(seed):
    made = practice(seed)
    off = []
    for each in made.build.weighings:
        true = sum(made.masses_g[load.part] * load.count for load in each.pan.loads)
        if abs(each.reading_g - true) > 0.4:
            off.append(each.reading_g - true)
    assert off == [pytest.approx(TRAY.mass_g, abs=0.2)]


@pytest.mark.parametrize("seed", [*SEEDS, 15, 26, 69, 81, 102, 141, 150, 481, 499])
def test_its_slip_can_be_found(seed):
    """The later ones once weighed a pack of which too little is known: 27.6 g more or less."""
    made = practice(seed)
    doubt = assess(made.build).doubts[0]
    (reading,) = (each for each in made.build.weighings if each.id == doubt.weighing)
    (load,) = reading.pan.loads
    true = load.count * made.masses_g[load.part] + TRAY.mass_g
    assert reading.reading_g == pytest.approx(true, abs=0.2)
    assert SlipKind.NOT_TARED in {slip.kind for slip in doubt.slips}


def test_the_same_seed_makes_the_same_bench():
    assert practice(3) == practice(3)
    assert practice(3).build != practice(4).build


def test_two_benches_on_one_shelf_are_told_apart_by_their_names():
    assert practice(3).build.name == "Practice plane 3"
    assert practice(4).build.name == "Practice plane 4"


def test_the_truth_lies_within_what_the_build_doubts():
    """Over many benches, put right: all-up weight within 2u about 95 times in 100."""
    inside = []
    for seed in range(60):
        made = practice(seed)
        after = solve(put_right(made.build))
        mass, sd = after.total(np.ones(len(made.build.parts)))
        inside.append(abs(sum(made.masses_g.values()) - mass) <= 2 * sd)
    assert np.mean(inside) >= 0.87


@pytest.mark.parametrize("seed", range(6))
def test_n_and_space_end_with_a_true_answer(seed):
    """Whether or not every target can be settled, what is told in the end is so."""
    made = practice(seed)
    count, build = settling(made, np.random.default_rng(seed), by_weigh_next)
    assert count < 40
    told = assess(build)
    assert settled(told) or by_weigh_next(build, told) is None
    assert told.doubts == () or all(abs(each.t) < 5 for each in told.doubts)
    answer = told.loadouts[0].answers[0]
    aboard = build.aboard(build.loadouts[0])
    true = sum(made.masses_g[part.id] for part, on in zip(build.parts, aboard, strict=True) if on)
    assert abs(answer.value - true) <= 3 * answer.sd
