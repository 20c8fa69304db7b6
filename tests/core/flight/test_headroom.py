"""Grams in hand until a target breaks."""

from dataclasses import replace
from statistics import NormalDist

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.headroom import End, at_the_ends, headroom
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind, Thrust
from oaken_scale.core.trim.flown import fly
from oaken_scale.demo.practice import practice

WING = Surface("w", "W", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
PLANE = Build(
    "b",
    "B",
    parts=(Part("p", "P", Pedigree.LISTING, stated_g=500.0, doubt_g=10.0, station=Station(250.0)),),
    surfaces=(WING,),
    targets=(
        Target(TargetKind.AUW, high=590.0),
        Target(TargetKind.WING_LOADING, high=30.0),
        Target(TargetKind.THRUST_TO_WEIGHT, low=0.5),
        Target(TargetKind.BALANCE, low=25.0, high=33.0),
    ),
    thrust=Thrust(240.0, 8.0),
)


def room(build: Build):
    return {each.kind: each for each in headroom(fly(build).planes[0])}


def test_by_hand_the_first_to_break_first():
    told = headroom(fly(PLANE).planes[0])
    assert [(each.kind, each.grams) for each in told] == [
        (TargetKind.THRUST_TO_WEIGHT, pytest.approx(240 / 0.5 - 500)),
        (TargetKind.AUW, pytest.approx(90)),
        (TargetKind.WING_LOADING, pytest.approx(30 * 20 - 500)),
    ]
    assert [each.sd_g for each in told] == pytest.approx([(16**2 + 10**2) ** 0.5, 10, 10])
    assert assess(PLANE).loadouts[0].headroom == told
    sigmas = [-20 / (16**2 + 10**2) ** 0.5, 9.0, 10.0]
    assert [each.chance for each in told] == pytest.approx([NormalDist().cdf(s) for s in sigmas])


def test_a_thrust_without_a_doubt_has_a_tenth():
    told = room(replace(PLANE, thrust=Thrust(240.0)))
    assert told[TargetKind.THRUST_TO_WEIGHT].sd_g == pytest.approx((48**2 + 10**2) ** 0.5)


def test_what_weight_cannot_break_is_not_told():
    assert TargetKind.BALANCE not in room(PLANE)
    assert TargetKind.THRUST_TO_WEIGHT not in room(replace(PLANE, thrust=None))
    assert TargetKind.WING_LOADING not in room(replace(PLANE, surfaces=()))
    bands = (
        Target(TargetKind.AUW, low=300.0),
        Target(TargetKind.WING_LOADING, low=10.0),
        Target(TargetKind.THRUST_TO_WEIGHT, high=0.9),
    )
    assert room(replace(PLANE, targets=bands)) == {}


def two(at: float) -> Build:
    """500 g at 250 mm and a fuselage from nose to tail that weighs next to nothing."""
    light = [
        Part(id, id, Pedigree.GUESS, stated_g=0.001, station=Station(x))
        for id, x in (("nose", 20.0), ("tail", 900.0))
    ]
    heavy = replace(PLANE.parts[0], station=Station(at))
    return replace(PLANE, parts=(heavy, *light))


def test_nose_and_tail_bear_so_much_until_the_balance_leaves_its_range():
    nose, tail = at_the_ends(fly(two(255.0)).planes[0])
    assert (nose.at, tail.at) == (End.NOSE, End.TAIL)
    # the range runs from 250 to 266 mm: 30 g at the nose bring the CG to 250
    assert nose.grams == pytest.approx(500 * 5 / 230, rel=1e-3)
    assert tail.grams == pytest.approx(500 * 11 / 634, rel=1e-3)
    moment = 500 * 255 + nose.grams * 20
    assert moment / (500 + nose.grams) == pytest.approx(250, abs=0.01)
    moment = 500 * 255 + tail.grams * 900
    assert moment / (500 + tail.grams) == pytest.approx(266, abs=0.01)
    assert nose.chance > 0.5 < tail.chance


def test_behind_its_range_the_tail_bears_less_than_nothing():
    nose, tail = at_the_ends(fly(two(280.0)).planes[0])
    assert tail.grams < 0 < nose.grams
    assert tail.chance < 0.5


def test_without_a_balance_target_or_a_place_nothing_is_told_of_the_ends():
    bare = replace(PLANE, targets=PLANE.targets[:3])
    assert at_the_ends(fly(bare).planes[0]) == ()
    adrift = replace(PLANE, parts=(replace(PLANE.parts[0], station=None),))
    assert at_the_ends(fly(adrift).planes[0]) == ()
    only_high = replace(two(255.0), targets=(Target(TargetKind.BALANCE, high=33.0),))
    assert [each.at for each in at_the_ends(fly(only_high).planes[0])] == [End.TAIL]


@pytest.mark.parametrize("seed", range(8))
def test_the_chance_that_anything_is_left_is_the_chance_that_the_limit_holds(seed):
    """With a doubted reading in the log too, where the weight is several bells and not one."""
    build = replace(practice(seed).build, thrust=Thrust(480.0, 20.0))
    plane = fly(build).planes[0]
    assert len(plane.forms) > 1
    chances = {each.kind: each.chance for each in headroom(plane)}
    assert set(chances) == {TargetKind.AUW, TargetKind.WING_LOADING, TargetKind.THRUST_TO_WEIGHT}
    for kind, chance in chances.items():
        assert chance == pytest.approx(METRICS[kind].evaluate(plane).probability, abs=1e-9)


@pytest.mark.parametrize(("grams", "loose"), [(400.0, 0.0), (400.0, 120.0), (60.0, 300.0)])
def test_what_an_end_bears_put_there_brings_it_to_the_edge(grams, loose):
    """By putting it there, with things aboard that have no place yet."""
    nose, tail = (
        Part(name, name, Pedigree.LISTING, stated_g=grams / 2, station=Station(x))
        for name, x in (("nose", 60.0), ("tail", 455.0))
    )
    sand = Part("sand", "Sand", Pedigree.LISTING, stated_g=loose)
    build = replace(PLANE, parts=(nose, tail, *((sand,) if loose else ())))
    told = {each.at: each.grams for each in at_the_ends(fly(build).planes[0])}
    for end, x, edge in ((End.NOSE, 60.0, 250.0), (End.TAIL, 455.0, 266.0)):
        more = Part("more", "More", Pedigree.LISTING, stated_g=told[end], station=Station(x))
        there = fly(replace(build, parts=(*build.parts, more))).planes[0]
        assert there.cg.x_mm == pytest.approx(edge, abs=1e-6)
