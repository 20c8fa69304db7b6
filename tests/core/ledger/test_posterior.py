from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.mixture import estimate
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.prior import prior
from oaken_scale.core.ledger.readings import weighed_sets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Load, Pan, Scale
from tests.benches import case_l, random_build, reading, reckon, with_readings

GLUED = {"wing": 1, "tail": 1, "fuselage": 1, "glue": 1}
WING = reading(1, 90.2, "wing")
AIRFRAME = reading(2, 197.4, GLUED)


@pytest.mark.parametrize(
    ("weighings", "auw", "u", "lot", "tail", "fuselage", "glue", "cg", "u_cg"),
    [
        ((), 207.200, 15.313, 4.600, 23.000, 64.400, 9.000, 290.251, 3.958),
        ((WING,), 222.043, 3.954, 4.992, 24.959, 69.884, 9.000, 292.702, 2.751),
        ((WING, AIRFRAME), 225.399, 1.401, 5.027, 25.196, 70.792, 11.210, 294.396, 1.976),
    ],
)
def test_reference_case_l(weighings, auw, u, lot, tail, fuselage, glue, cg, u_cg):
    told = assess(case_l(weighings))
    mass = {part.id: part.mass_g for part in told.parts}
    weight = told.loadouts[0].answers[0]
    assert weight.value == pytest.approx(auw, abs=6e-4)
    assert weight.sd == pytest.approx(u, abs=6e-4)
    assert told.lots[0].constant == pytest.approx(lot, abs=6e-4)
    assert mass["tail"] == pytest.approx(tail, abs=6e-4)
    assert mass["fuselage"] == pytest.approx(fuselage, abs=6e-4)
    assert mass["glue"] == pytest.approx(glue, abs=6e-4)
    assert told.loadouts[0].cg.x_mm == pytest.approx(cg, abs=6e-4)
    assert told.loadouts[0].cg.x_sd_mm == pytest.approx(u_cg, abs=6e-4)


@pytest.mark.parametrize("seed", range(6))
def test_agrees_with_one_reading_at_a_time(seed):
    build = random_build(seed)
    after = solve(build)
    mean, cov = reckon(build)
    np.testing.assert_allclose(after.mean, mean, rtol=1e-4, atol=1e-5)
    np.testing.assert_allclose(after.cov, cov, rtol=2e-3, atol=1e-5)


@given(seed=st.integers(0, 50), shuffled=st.randoms(use_true_random=False))
@settings(max_examples=25, deadline=None)
def test_order_of_weighings_does_not_matter(seed, shuffled):
    build = random_build(seed)
    log = list(build.weighings)
    shuffled.shuffle(log)
    one, other = solve(build), solve(replace(build, weighings=tuple(log)))
    np.testing.assert_allclose(one.mean, other.mean, rtol=1e-9, atol=1e-9)
    np.testing.assert_allclose(one.cov, other.cov, rtol=1e-7, atol=1e-9)


@given(seed=st.integers(0, 50), n=st.integers(0, 19))
@settings(max_examples=25, deadline=None)
def test_a_weighing_never_adds_doubt(seed, n):
    build = random_build(seed)
    fewer = replace(build, weighings=build.weighings[:n])
    more = replace(build, weighings=build.weighings[: n + 1])
    before, after = solve(fewer), solve(more)
    parts = np.ones(len(build.parts))
    assert after.total(parts)[1] <= before.total(parts)[1] * 1.01


def test_repeats_collapse_to_one_set_and_average():
    build = case_l(tuple(reading(n, 90.2 + 0.1 * (n % 2), "wing") for n in range(100)))
    sets = weighed_sets(build)
    assert len(sets) == 1
    assert sets[0].readings == 100
    after = solve(build)
    assert after.mass[0] == pytest.approx(90.25, abs=1e-3)
    r = (0.1**2 / 12 + 0.05**2) ** 0.5
    assert after.sd[after.parts][0] == pytest.approx(r / 10, rel=1e-3)


def test_a_reading_set_aside_no_longer_speaks():
    aside = replace(reading(1, 900.0, "wing"), set_aside="tray on")
    assert solve(case_l((aside,))).mass[0] == pytest.approx(82.8)


def test_a_weighed_wing_tells_about_the_tail_of_the_same_sheet():
    told = {part.id: part for part in assess(case_l((WING,))).parts}
    assert told["tail"].estimate_g == pytest.approx(23.0)
    assert told["tail"].mass_g > 24.5
    assert told["tail"].sd_g < told["tail"].estimate_sd_g / 3
    assert told["motor"].mass_g == 28.0


def test_ten_screws_of_which_four_are_fitted():
    screws = Part("screws", "Screws", Pedigree.GUESS, stated_g=2.0, pieces=4)
    scale = Scale("kitchen", "Kitchen", 0.1, 0.05, 0.0)
    build = Build("b", "B", parts=(screws,), scales=(scale,))
    weighed = with_readings(build, reading(1, 6.0, {"screws": 2.5}))
    assert solve(weighed).mass[0] == pytest.approx(2.4, abs=0.01)


def test_a_square_of_the_sheet_moves_every_part_cut_from_it():
    build = with_readings(case_l(), reading(1, 5.0, samples={"sheet": 1.0}))
    after = solve(build)
    assert after.mean[0] == pytest.approx(4.9917, abs=2e-4)  # (4.6/.16 + 5/.003333)/(1/.16+300)
    assert after.mass[1] == pytest.approx(5 * after.mean[0], abs=1e-9)


def test_a_check_weight_narrows_and_corrects_the_scale():
    build = replace(case_l(), scales=(Scale("kitchen", "K", 0.1, 0.05, 0.01),))
    off = tuple(reading(n, 202.0, known_g=200.0) for n in range(5))
    before = solve(with_readings(build, reading(9, 90.9, "wing")))
    after = solve(with_readings(build, *off, reading(9, 90.9, "wing")))
    assert after.mean[-1] == pytest.approx(0.01, abs=3e-4)
    assert after.sd[-1] < 0.0003
    assert after.mass[0] == pytest.approx(90.0, abs=0.05)
    assert before.sd[before.parts][0] > 3 * after.sd[after.parts][0]


def test_calibration_doubt_does_not_average_out():
    scale = Scale("kitchen", "K", 0.1, 0.05, 0.003)
    build = replace(case_l(), scales=(scale,))
    many = with_readings(build, *(reading(n, 90.2, "wing") for n in range(400)))
    after = solve(many)
    assert after.sd[after.parts][0] == pytest.approx(0.003 * 90.2, rel=0.05)


def test_the_allowance_is_four_per_cent_and_a_whole_plane_settles_it():
    allowance = Part("more", "Still to come", Pedigree.ALLOWANCE)
    build = replace(case_l(), parts=(*case_l().parts, allowance))
    believed = prior(build)
    assert believed.mass[-1] == pytest.approx(0.04 * 207.2)
    assert believed.own_sd[-1] == pytest.approx(0.04 * 207.2)
    everything = {part.id: 1 for part in build.parts}
    after = solve(with_readings(build, reading(1, 214.0, everything)))
    assert after.total(np.ones(6))[0] == pytest.approx(214.0, abs=0.02)
    assert after.total(np.ones(6))[1] < 0.06


def test_an_allowance_with_a_figure_keeps_it():
    allowance = Part("more", "Still to come", Pedigree.ALLOWANCE, stated_g=12.0)
    believed = prior(replace(case_l(), parts=(*case_l().parts, allowance)))
    assert believed.mass[-1] == 12.0
    assert believed.own_sd[-1] == 12.0


def test_contradicting_weighings_are_said_not_clipped():
    both = (WING, reading(2, 60.0, {"wing": 1, "motor": 1}))
    build = case_l(tuple(replace(each, accepted=True) for each in both))
    told = assess(build)
    motor = next(part for part in told.parts if part.id == "motor")
    assert motor.mass_g < 0
    notice = next(notice for notice in told.notices if notice.code == "negative_mass")
    assert notice.parts == ("motor",)
    assert notice.amount < 0


def test_a_pan_in_another_order_is_the_same_set():
    a, b = Load("wing"), Load("tail")
    assert Pan(tuple(sorted((a, b)))) == Pan(tuple(sorted((b, a))))
    build = case_l(
        (reading(1, 113.0, {"wing": 1, "tail": 1}), reading(2, 113.2, {"tail": 1, "wing": 1}))
    )
    assert len(weighed_sets(build)) == 1


def test_a_remembered_estimate_is_the_one_that_would_be_worked_out():
    build = random_build(5)
    remembered = estimate(replace(build, name="what if")).after
    assert remembered is estimate(build).after
    afresh = estimate(replace(build, weighings=(*build.weighings,))).after
    np.testing.assert_array_equal(afresh.cov, remembered.cov)
    for _ in range(40):  # more than are remembered, each its own
        seed = random_build(6)
        np.testing.assert_allclose(solve(seed).mean, reckon(seed)[0], rtol=1e-4, atol=1e-5)
    assert solve(replace(build, parts=build.parts[:5], weighings=())).mass.shape == (5,)


CHANGES = {
    "stated_g": lambda part: replace(part, stated_g=(part.stated_g or 0) * 2 + 1),
    "uses": lambda part: replace(part, uses=(Use("lot0", 4.0),)),
    "doubt_g": lambda part: replace(part, doubt_g=3.3),
    "pedigree": lambda part: replace(part, pedigree=Pedigree.COVERING),
    "elsewhere": lambda part: replace(part, elsewhere=Known(90.0, 0.1)),
    "pieces": lambda part: replace(part, pieces=4),
    "retired": lambda part: replace(part, retired=True),
    "option": lambda part: replace(part, option=True),
    "assembly": lambda part: replace(part, assembly="elsewhere"),
}


@pytest.mark.parametrize("field", CHANGES)
def test_whatever_weighs_otherwise_is_worked_out_anew(field):
    build = random_build(5)
    estimate(build)
    changed = replace(build, parts=(CHANGES[field](build.parts[0]), *build.parts[1:]))
    told = estimate(changed)
    assert told is not estimate(build)
    own = replace(changed, weighings=(*changed.weighings,))
    np.testing.assert_array_equal(told.after.mean, estimate(own).after.mean)
