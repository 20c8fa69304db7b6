"""What such planes usually have, by hand."""

from dataclasses import replace

import pytest

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.power import Propeller
from oaken_scale.core.model.target import Thrust
from oaken_scale.core.power.rules_of_thumb import Rule, rules_of_thumb

SIX = Propeller("six", "6 x 3", 152.4, 76.2)
WHEEL = Part("w", "Wheel", Pedigree.GUESS, stated_g=5.0, station=Station(200.0, 0.0, -60.0))
PLANE = Build("b", "B", purpose="trainer", parts=(WHEEL,), thrust=Thrust(300.0, line_z_mm=20.0))


def told(build: Build = PLANE, ratio=0.65, watts=150.0, turns=220.0, stall=6.0):
    found = rules_of_thumb(build, ratio, watts, SIX, turns, stall)
    return {each.rule: each for each in found}


def test_by_hand():
    rules = told()
    assert (rules[Rule.THRUST_TO_WEIGHT].low, rules[Rule.THRUST_TO_WEIGHT].high) == (0.5, 0.8)
    assert rules[Rule.PITCH_SPEED].value == pytest.approx(220 * 0.0762 / 6)
    assert rules[Rule.PROPELLER_ROOM].value == 76.2
    assert rules[Rule.PROPELLER_ROOM].high == 80.0
    assert all(each.usual for each in rules.values())


@pytest.mark.parametrize(
    ("rule", "changed"),
    [
        (Rule.THRUST_TO_WEIGHT, {"ratio": 0.49}),
        (Rule.THRUST_TO_WEIGHT, {"ratio": 0.81}),
        (Rule.WATTS_PER_KG, {"watts": 99.0}),
        (Rule.WATTS_PER_KG, {"watts": 201.0}),
        (Rule.PITCH_SPEED, {"turns": 196.0}),
        (Rule.PITCH_SPEED, {"turns": 394.0}),
    ],
)
def test_each_end_warns(rule, changed):
    rules = told(**changed)
    assert not rules[rule].usual
    assert all(each.usual for each in rules.values() if each.rule is not rule)


def test_a_propeller_that_reaches_below_everything_is_told():
    low = replace(PLANE, thrust=Thrust(300.0, line_z_mm=15.0))
    assert not told(low)[Rule.PROPELLER_ROOM].usual


def test_what_nobody_knows_is_not_told():
    bare = replace(PLANE, purpose="", thrust=None)
    assert list(told(bare)) == [Rule.PITCH_SPEED]
    assert list(told(bare, stall=None)) == []
    assert list(told(replace(PLANE, parts=()))) == [
        Rule.THRUST_TO_WEIGHT,
        Rule.WATTS_PER_KG,
        Rule.PITCH_SPEED,
    ]
    assert Rule.WATTS_PER_KG not in told(watts=None)
