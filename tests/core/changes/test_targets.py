"""One end of a target after the other, as it is typed: what goes along, what stays."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.changes.targets import OWN, End, with_target_end, with_thrust
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust

BAND = Target(TargetKind.BALANCE, 240.0, 258.0, "the plan", BalanceUnit.MM_FROM_NOSE)


def ends(build: Build, kind: TargetKind = TargetKind.BALANCE) -> tuple:
    (found,) = [each for each in build.targets if each.kind is kind]
    return found.low, found.high


@pytest.mark.parametrize(
    ("was", "end", "value", "then"),
    [
        ((240.0, 258.0), End.LOW, 244.0, (244.0, 258.0)),
        ((240.0, 258.0), End.HIGH, 250.0, (240.0, 250.0)),
        ((240.0, 258.0), End.LOW, 258.0, (258.0, 276.0)),
        ((240.0, 258.0), End.LOW, 300.0, (300.0, 318.0)),
        ((240.0, 258.0), End.HIGH, 240.0, (222.0, 240.0)),
        ((240.0, 258.0), End.HIGH, None, (240.0, None)),
        ((240.0, None), End.HIGH, 239.0, (None, 239.0)),
        ((None, 258.0), End.LOW, 260.0, (260.0, None)),
        ((None, 258.0), End.LOW, 250.0, (250.0, 258.0)),
        ((None, None), End.LOW, 0.0, (0.0, None)),
    ],
)
def test_an_end_beyond_the_other_takes_it_along(was, end, value, then):
    target = replace(BAND, low=was[0], high=was[1])
    build = Build("b", "B", targets=(target,) if was != (None, None) else ())
    after = with_target_end(build, TargetKind.BALANCE, end, value)
    assert ends(after) == then
    assert after.targets[0].source == OWN
    if was != (None, None):
        assert after.targets[0].balance_unit is BalanceUnit.MM_FROM_NOSE


def test_a_target_without_an_end_is_none():
    build = Build("b", "B", targets=(Target(TargetKind.AUW, high=590.0), BAND))
    after = with_target_end(build, TargetKind.AUW, End.HIGH, None)
    assert after.targets == (BAND,)
    assert with_target_end(after, TargetKind.AUW, End.LOW, None) == after


@given(st.permutations(list(TargetKind)))
def test_they_stand_in_one_order_whatever_was_typed_first(kinds):
    build = Build("b", "B")
    for n, kind in enumerate(kinds):
        build = with_target_end(build, kind, End.LOW, float(n), f"line {n}")
    assert [each.kind for each in build.targets] == list(TargetKind)
    assert {each.kind: each.source for each in build.targets} == {
        kind: f"line {n}" for n, kind in enumerate(kinds)
    }


def test_another_thrust_is_another_source():
    was = Thrust(440.0, 22.0, "a listing", 12.0, -3.0)
    build = Build("b", "B", thrust=was)
    assert with_thrust(build, 470.0).thrust == Thrust(470.0, None, OWN, 12.0, -3.0)
    assert with_thrust(build, 440.0) == build
    assert with_thrust(build, None).thrust is None
    assert with_thrust(Build("b", "B"), 300.0).thrust == Thrust(300.0)
    assert with_thrust(Build("b", "B"), None).thrust is None
