"""Grams in hand until a target breaks."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.headroom import headroom
from oaken_scale.core.model.build import (
    Build,
    Item,
    Pedigree,
    Role,
    Section,
    Station,
    Surface,
    Target,
    TargetKind,
    Thrust,
)
from oaken_scale.core.trim.flown import fly

WING = Surface("w", "W", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
PLANE = Build(
    "b",
    "B",
    items=(Item("p", "P", Pedigree.LISTING, stated_g=500.0, doubt_g=10.0, station=Station(250.0)),),
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
