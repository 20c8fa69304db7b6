from dataclasses import replace
from math import erf, sqrt

import numpy as np
import pytest

from oaken_scale.core.assess import Mark, assess, expect
from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.flight.metrics.all_up_weight import all_up_weight
from oaken_scale.core.flight.metrics.metric import with_doubts
from oaken_scale.core.flight.verdict import Word
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.scale import Unfit
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Load, Pan, Scale
from oaken_scale.core.trim.flown import fly
from tests.benches import case_l, random_build, reading, with_readings

WING = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))


def plane(**changes) -> Build:
    """A motor, a pack and a wing of known masses, with all four targets."""
    parts = (
        Part("motor", "Motor", Pedigree.LISTING, stated_g=54, doubt_g=0, station=Station(20)),
        Part("wing", "Wing", Pedigree.GUESS, stated_g=300, doubt_g=6, station=Station(290)),
        Part("pack", "Pack", Pedigree.LISTING, stated_g=112, doubt_g=0, station=Station(190)),
        Part(
            "camera",
            "Camera",
            Pedigree.LISTING,
            stated_g=62,
            doubt_g=0,
            station=Station(260),
            option=True,
        ),
    )
    targets = (
        Target(TargetKind.AUW, high=540.0),
        Target(TargetKind.WING_LOADING, high=30.0),
        Target(TargetKind.THRUST_TO_WEIGHT, low=0.8),
        Target(TargetKind.BALANCE, low=28.0, high=33.0),
    )
    build = Build(
        "p",
        "P",
        parts=parts,
        surfaces=(WING,),
        targets=targets,
        thrust=Thrust(440.0, 22.0),
        scales=(Scale("kitchen", "K", 0.1),),
        loadouts=(Loadout("full", "With camera", ("camera",)), Loadout("bare", "Bare")),
    )
    return replace(build, **changes)


def answers(build: Build, loadout: int = 0):
    return {answer.kind: answer for answer in assess(build).loadouts[loadout].answers}


def phi(t: float) -> float:
    return 0.5 * (1 + erf(t / sqrt(2)))


def test_the_four_answers_by_hand():
    told = answers(plane())
    mass = 54 + 300 + 112 + 62
    weight = told[TargetKind.AUW]
    assert (weight.value, weight.sd) == (pytest.approx(mass), pytest.approx(6.0))
    assert weight.margin == pytest.approx(12.0)
    assert weight.probability == pytest.approx(phi(2.0))
    assert weight.word is Word.ON_COURSE

    loading = told[TargetKind.WING_LOADING]
    assert loading.value == pytest.approx(mass / 20.52)
    assert loading.margin == pytest.approx(30 - mass / 20.52)

    ratio = told[TargetKind.THRUST_TO_WEIGHT]
    assert ratio.value == pytest.approx(440 / mass)
    assert ratio.sd == pytest.approx(sqrt((22 / mass) ** 2 + (440 * 6 / mass**2) ** 2))
    assert ratio.probability == pytest.approx(
        phi((440 - 0.8 * mass) / sqrt(22**2 + (0.8 * 6) ** 2))
    )

    x = (54 * 20 + 300 * 290 + 112 * 190 + 62 * 260) / mass
    balance = told[TargetKind.BALANCE]
    assert balance.value == pytest.approx((x - 200) / 1.9)
    stations = sum((m * 2 / mass) ** 2 for m in (54, 300, 112, 62))
    assert balance.sd == pytest.approx(sqrt((6 * (290 - x) / mass) ** 2 + stations) / 1.9)


def test_a_loadout_carries_only_its_options():
    assert answers(plane(), 1)[TargetKind.AUW].value == pytest.approx(466.0)


def test_probability_of_thrust_agrees_with_drawing_it_at_random():
    rng = np.random.default_rng(4)
    mass, thrust = rng.normal(528, 6, 400_000), rng.normal(440, 22, 400_000)
    drawn = float((thrust / mass >= 0.8).mean())
    assert answers(plane())[TargetKind.THRUST_TO_WEIGHT].probability == pytest.approx(
        drawn, abs=0.003
    )


def test_balance_in_the_unit_of_its_target():
    told = {}
    for unit in BalanceUnit:
        target = Target(TargetKind.BALANCE, low=1.0, high=600.0, balance_unit=unit)
        told[unit] = answers(plane(targets=(target,)))[TargetKind.BALANCE].value
    assert told[BalanceUnit.MM_FROM_NOSE] - 200 == pytest.approx(
        told[BalanceUnit.MM_FROM_LEADING_EDGE]
    )
    assert told[BalanceUnit.PERCENT_MAC] * 1.9 == pytest.approx(
        told[BalanceUnit.MM_FROM_LEADING_EDGE]
    )


def test_met_and_missed_need_everything_to_have_been_on_a_pan():
    build = plane(targets=(Target(TargetKind.AUW, high=500.0),))
    assert answers(build)[TargetKind.AUW].word is Word.OFF_COURSE
    everything = {part.id: 1 for part in build.parts}
    weighed = with_readings(build, reading(1, 530.0, everything))
    missed = answers(weighed)[TargetKind.AUW]
    assert missed.word is Word.MISSED
    assert missed.mends[0].amount == pytest.approx(30.0, abs=0.3)
    easier = replace(weighed, targets=(Target(TargetKind.AUW, high=540.0),))
    assert answers(easier)[TargetKind.AUW].word is Word.MET


def test_what_would_bring_it_back():
    heavy = plane(
        targets=(
            Target(TargetKind.WING_LOADING, high=25.0),
            Target(TargetKind.THRUST_TO_WEIGHT, low=0.9),
            Target(TargetKind.BALANCE, low=10.0, high=15.0),
        )
    )
    told = answers(heavy)
    lighter, wing = told[TargetKind.WING_LOADING].mends
    assert lighter.amount == pytest.approx(528 - 25 * 20.52)
    assert 528 / (20.52 + wing.amount) == pytest.approx(25.0)
    thrust, lighter = told[TargetKind.THRUST_TO_WEIGHT].mends
    assert (440 + thrust.amount) / 528 == pytest.approx(0.9)
    assert 440 / (528 - lighter.amount) == pytest.approx(0.9)
    (slide,) = told[TargetKind.BALANCE].mends
    moved = replace(
        heavy,
        parts=tuple(
            replace(part, station=Station(part.station.x_mm - slide.amount))
            if part.id == slide.part
            else part
            for part in heavy.parts
        ),
    )
    assert answers(moved)[TargetKind.BALANCE].value == pytest.approx(15.0)


def test_a_missing_piece_is_named_not_guessed():
    bare = Build("b", "B", targets=(Target(TargetKind.WING_LOADING, high=30.0),))
    told = answers(bare)
    assert "wing" in told[TargetKind.WING_LOADING].missing
    assert "thrust" in told[TargetKind.THRUST_TO_WEIGHT].missing
    assert "station" in told[TargetKind.BALANCE].missing
    assert told[TargetKind.AUW].value is None
    assert "parts" in told[TargetKind.AUW].missing


def test_stations_by_either_reference_are_the_same_place():
    nose = Part("a", "A", Pedigree.GUESS, stated_g=10, station=Station(260))
    edge = Part(
        "b", "B", Pedigree.GUESS, stated_g=10, station=Station(60, reference=Reference.LEADING_EDGE)
    )
    told = assess(Build("b", "B", parts=(nose, edge), surfaces=(WING,)))
    assert [part.x_from_nose_mm for part in told.parts] == [260, 260]
    assert [part.x_from_leading_edge_mm for part in told.parts] == [60, 60]


def test_what_has_no_station_moves_nothing_and_adds_its_doubt():
    base = plane(loadouts=())
    loose = Part("loose", "Loose", Pedigree.GUESS, stated_g=50, doubt_g=0)
    before = assess(base)
    after = assess(replace(base, parts=(*base.parts, loose)))
    assert after.loadouts[0].cg.x_mm == pytest.approx(before.loadouts[0].cg.x_mm)
    assert after.loadouts[0].cg.x_sd_mm > before.loadouts[0].cg.x_sd_mm + 1
    assert after.beam.loadouts[0].unplaced.parts == ("loose",)


def test_cg_doubt_agrees_with_drawing_masses_and_stations_at_random():
    build = random_build(3)
    told = assess(build).loadouts[0].cg
    after, where = solve(build), stations(build, None)
    rng = np.random.default_rng(0)
    mass = rng.multivariate_normal(after.mass, after.mass_cov, 60_000)
    x = where.xyz[:, 0] + rng.normal(size=mass.shape) * where.doubt
    drawn = (mass * x).sum(axis=1) / mass.sum(axis=1)
    assert told.x_mm == pytest.approx(drawn.mean(), abs=0.05)
    assert told.x_sd_mm == pytest.approx(drawn.std(), rel=0.02)


def test_marks_follow_what_the_pan_has_felt():
    glued = {"wing": 1, "tail": 1, "fuselage": 1, "glue": 1}
    told = assess(case_l((reading(1, 90.2, "wing"), reading(2, 197.4, glued))))
    marks = {part.id: part.mark for part in told.parts}
    assert marks["wing"] is Mark.WEIGHED
    assert marks["glue"] is Mark.DIFFERENCE
    assert marks["motor"] is Mark.LISTED


def test_expected_reading_covers_mass_scale_and_noise():
    build = replace(case_l(), scales=(Scale("kitchen", "K", 1.0, 0.5, 0.01),))
    told = expect(build, Pan((Load("wing"), Load("motor"))), "kitchen")
    assert told.reading_g == pytest.approx(110.8)
    variance = 18**2 * 0.16 + 1.6**2 + 1.4**2 + 1 / 12 + 0.25 + (0.01 * 110.8) ** 2
    assert told.sd_g == pytest.approx(sqrt(variance))
    assert told.warning is None
    screw = expect(build, Pan((Load("glue"),)), "kitchen")
    assert screw.warning is Unfit.TOO_LIGHT


@pytest.mark.parametrize(
    ("off", "matters"), [(0.2, False), (-0.2, False), (3.0, True), (-3.0, True)]
)
def test_what_a_doubted_reading_would_change_is_told_where_it_matters(off, matters):
    """In sigmas of the answer, over it or under."""
    (flown, *_) = fly(plane()).planes
    answer = all_up_weight(flown)
    believing = answer.value + off * answer.sd
    told = with_doubts(flown, answer, believing, by_load=False)
    assert told.believing == (believing if matters else None)
