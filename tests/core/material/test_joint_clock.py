from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.weigh_next import Because, Suggestion
from oaken_scale.core.material.joint_clock import (
    ADHESIVES,
    JointStage,
    adhesive,
    joint_times,
    meanwhile,
    moments,
    own_adhesives,
    setting,
)
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Curing, Lot, LotKind, LotUnit
from oaken_scale.core.model.target import TargetKind
from tests.benches import case_l, reading

SPREAD = datetime(2026, 3, 7, 14, 0, tzinfo=UTC)


def joint(glue: str = "contact", *parts: str, **changes) -> Joint:
    usual = adhesive(glue)
    made = Joint(
        "j",
        "Spar",
        glue,
        SPREAD,
        usual.close_after_s,
        usual.close_by_s,
        usual.handle_after_s,
        usual.strong_after_s,
        parts,
    )
    return replace(made, **changes)


def after(minutes: float) -> datetime:
    return SPREAD + timedelta(minutes=minutes)


@pytest.mark.parametrize("glue", ADHESIVES, ids=lambda each: each.id)
def test_every_adhesive_comes_to_its_stages_in_order(glue):
    made = joint(glue.id)
    assert faults(replace(case_l(), joints=(made,))) == ()
    told = {moment.stage: moment.at for moment in moments(made)}
    assert told[JointStage.HANDLE] <= told[JointStage.STRONG]
    assert told.get(JointStage.CLOSE, SPREAD) <= told[JointStage.HANDLE]
    if glue.close_by_s is not None:
        assert told.get(JointStage.CLOSE, SPREAD) < told[JointStage.CLOSE_BY]


def test_a_contact_joint_waits_a_quarter_of_an_hour():
    told = {moment.stage: moment.at for moment in moments(joint())}
    assert told[JointStage.CLOSE] == after(15)
    assert JointStage.CLOSE not in [moment.stage for moment in moments(joint("hot-melt"))]


@given(st.floats(1, 1e5), st.floats(0, 1e5), st.floats(0, 1e5))
def test_moments_come_in_the_order_of_the_clock(close, handle, strong):
    made = joint(
        close_after_s=close,
        close_by_s=close + 5,
        handle_after_s=close + handle,
        strong_after_s=close + handle + strong,
    )
    times = [moment.at for moment in moments(made)]
    assert times == sorted(times)
    assert len(times) == 4


def test_parts_are_free_once_their_joint_may_be_handled():
    build = replace(case_l(), joints=(joint("epoxy", "wing", "tail"),))
    assert setting(build, after(19.9)) == {"wing", "tail"}
    assert setting(build, after(20)) == frozenset()
    cleared = replace(build, joints=(joint("epoxy", "wing", cleared=True),))
    assert setting(cleared, after(1)) == frozenset()
    assert joint_times(cleared) == ()


def test_meanwhile_names_what_is_free_most_telling_first():
    build = replace(case_l(), joints=(joint("epoxy", "wing"),))
    suggestions = assess(build).weigh_next
    told = meanwhile(build, suggestions, after(5))
    assert told.suggestions[0].part == "fuselage"
    assert not any("wing" in (each.part, *each.parts) for each in told.suggestions)
    assert "wing" not in told.parts
    assert meanwhile(build, suggestions, after(25)).suggestions[0].part == "wing"
    assert "glue" not in meanwhile(build, (), after(5), most=9).parts


def test_nothing_that_holds_a_setting_part_is_named_meanwhile():
    build = replace(case_l(), joints=(joint("epoxy", "wing"),))
    whole = Suggestion(None, None, 0.9, TargetKind.AUW, Because.JOINED, ("wing", "tail"))
    tail = Suggestion("tail", None, 0.5, TargetKind.AUW, Because.GUESS)
    assert meanwhile(build, (whole, tail), after(5)).suggestions == (tail,)
    assert meanwhile(build, (whole, tail), after(25)).suggestions == (whole, tail)
    few = meanwhile(build, (whole, tail), after(25), most=1)
    assert (few.suggestions, few.parts) == ((whole,), ())


def test_what_was_weighed_is_not_named_again():
    build = case_l((reading(1, 90.2, "wing"),))
    assert "wing" not in meanwhile(build, (), after(5), most=9).parts


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"close_by_s": 900.0}, "joints.0.close_by_s"),
        ({"handle_after_s": 60.0}, "joints.0.handle_after_s"),
        ({"strong_after_s": 900.0}, "joints.0.strong_after_s"),
        ({"parts": ("ghost",)}, "joints.0.parts.0"),
    ],
)
def test_times_out_of_order_are_named(change, field):
    found = faults(replace(case_l(), joints=(joint(**change),)))
    assert [fault.field for fault in found] == [field]


def test_an_adhesive_of_another_kind_goes_by_its_name():
    build = replace(case_l(), joints=(replace(joint(), adhesive="fish-glue"),))
    assert assess(build).joints[0].adhesive == "fish-glue"
    with pytest.raises(BuildFaultError, match="should be one of hot-melt"):
        adhesive("fish-glue")


def test_a_glue_with_times_of_its_own_has_its_own_clock():
    slow = Lot(
        "slow",
        "Slow epoxy",
        LotUnit.M,
        1.5,
        0.5,
        kind=LotKind.ADHESIVE,
        adhesive="epoxy",
        curing=Curing(60.0, 1800.0, 14400.0, 172800.0),
    )
    plain = replace(slow, id="plain", curing=None)
    build = Build("b", "B", lots=(slow, plain))
    (own,) = own_adhesives(build)
    assert (own.id, own.close_by_s, own.handle_after_s) == ("slow", 1800.0, 14400.0)
    assert adhesive("slow", own_adhesives(build)) is not None
    spread = datetime(2026, 3, 7, 14, 0, tzinfo=UTC)
    joint = Joint("j", "Spar", "slow", spread, 60.0, 1800.0, 14400.0, 172800.0)
    (told,) = joint_times(replace(build, joints=(joint,)))
    assert told.adhesive == "Slow epoxy"


@pytest.mark.parametrize(
    ("curing", "field"),
    [
        (Curing(60.0, 30.0, 90.0, 100.0), "close_by_s"),
        (Curing(60.0, None, 30.0, 100.0), "handle_after_s"),
        (Curing(60.0, None, 90.0, 80.0), "strong_after_s"),
    ],
)
def test_times_that_do_not_follow_one_another(curing, field):
    slow = Lot("slow", "Slow", LotUnit.M, 1.5, 0.5, kind=LotKind.ADHESIVE, curing=curing)
    (fault,) = faults(Build("b", "B", lots=(slow,)))
    assert fault.field == f"lots.0.curing.{field}"
