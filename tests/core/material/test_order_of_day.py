"""The order of the day: by hand, and by laws that any order keeps."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.material.order_of_day import (
    Step,
    in_order,
    order_of_day,
    paces,
    step_done,
    step_undone,
    steps,
)
from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.day import Day, Done, OwnStep, StepKind
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Curing, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Scale
from oaken_scale.demo.fleet import fleet
from tests.benches import reading, with_readings

NOW = datetime(2026, 3, 7, 14, 0, tzinfo=UTC)
SHEET = Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM)
SLOW = Lot(
    "slow",
    "Slow glue",
    LotUnit.M,
    2.0,
    0.5,
    kind=LotKind.ADHESIVE,
    curing=Curing(0.0, None, 3600.0, 7200.0),
)
TAPE = Lot("tape", "Tape", LotUnit.M, 2.0, 0.5, kind=LotKind.TAPE)


def part(id, assembly, lot, amount, **more):
    return Part(id, id, Pedigree.CALCULATED, assembly, uses=(Use(lot, amount),), **more)


BUILD = Build(
    "b",
    "B",
    lots=(SHEET, SLOW, TAPE),
    scales=(Scale("kitchen", "Scale", 0.1),),
    parts=(
        part("panel", "Wing", "sheet", 10.0),
        part("wing-glue", "Wing", "slow", 1.0),
        part("tail", "Tail", "sheet", 4.0),
        part("stripe", "Tail", "tape", 2.0),
        Part("motor", "motor", Pedigree.LISTING, "Power", 60.0),
    ),
)


def told(build=BUILD, **more):
    return order_of_day(build, NOW, **more)


def ids(slots):
    return [slot.step.id for slot in slots]


def test_the_day_of_a_small_plane_by_hand():
    """Wing: cut 4 + 5, weigh 0.7, glue 4 + 2, sets an hour: the longest way, so it is first. While
    it sets: tail cut 4 + 2, weighed 0.7, covered 2 + 3; the motor weighed 0.7 and fitted 5. Then
    straight 4 and balance 6."""
    day = told()
    assert ids(day.slots) == [
        "cut:Wing",
        "weigh:Wing",
        "join:wing-glue",
        "cut:Tail",
        "weigh:Tail",
        "weigh:Power",
        "cover:stripe",
        "fit:Power",
        "straight",
        "balance:",
    ]
    assert [slot.minutes for slot in day.slots] == pytest.approx(
        [9.0, 0.7, 6.0, 6.0, 0.7, 0.7, 5.0, 5.0, 4.0, 6.0]
    )
    glued = 9.0 + 0.7 + 6.0
    straight = next(slot for slot in day.slots if slot.step.id == "straight")
    assert straight.start_min == pytest.approx(glued + 60.0)
    assert day.idle_min == pytest.approx(60.0 - (6.0 + 0.7 + 0.7 + 5.0 + 5.0))
    assert day.total_min == pytest.approx(glued + 60.0 + 10.0)
    assert [slot.meanwhile for slot in day.slots[3:8]] == [True] * 5


def test_what_now_with_twenty_minutes_left():
    short = told(minutes=20.0).now
    assert ids(short) == ["cut:Wing", "weigh:Wing", "join:wing-glue", "weigh:Power"]
    assert all(slot.end_min <= 20.0 for slot in short)
    assert ids(told(minutes=1.0).now) == ["weigh:Power"]
    assert told(minutes=0.5).now == ()


def test_what_is_done_and_what_is_on_a_pan_is_left_out():
    build = with_readings(BUILD, reading(1, 46.0, "panel"), reading(2, 2.0, "wing-glue"))
    build = replace(
        build,
        parts=(
            *build.parts[:2],
            replace(build.parts[2], drawn=Drawn("tail", "", is_cut=True)),
            *build.parts[3:],
        ),
    )
    assert {step.id for step in steps(build)} == {
        "weigh:Tail",
        "cover:stripe",
        "weigh:Power",
        "fit:Power",
        "straight",
        "balance:",
    }
    done = step_done(build, "weigh:Tail", NOW, 3.0)
    assert "weigh:Tail" not in {step.id for step in steps(done)}
    assert done.day.done[0] == Done("weigh:Tail", StepKind.WEIGH, NOW, 3.0, 0.7)
    assert step_undone(done, "weigh:Tail") == build
    for act in (lambda: step_done(done, "weigh:Tail", NOW, None), lambda: step_undone(build, "x")):
        with pytest.raises(BuildFaultError, match=r"is left to do|was not done"):
            act()


def test_a_joint_that_sets_holds_its_parts():
    joint = Joint(
        "j", "Wing", "slow", NOW - timedelta(minutes=20), 0, None, 3600, 7200, ("wing-glue", "tail")
    )
    day = told(replace(BUILD, joints=(joint,)))
    assert [(each.joint, each.minutes) for each in day.setting] == [("j", 40.0)]
    tail = next(slot for slot in day.slots if slot.step.id == "cut:Tail")
    assert tail.start_min == pytest.approx(40.0)
    assert "join:wing-glue" not in ids(day.slots)
    assert told(replace(BUILD, joints=(replace(joint, cleared=True),))).setting == ()


def test_moved_by_hand_as_far_as_it_may_be():
    moved = replace(BUILD, day=Day(order=("weigh:Tail", "fit:Power", "cut:Tail")))
    # The tail cannot be weighed before it is cut, nor the motor fixed before it was weighed: what
    # is wanted early draws those ahead.
    assert ids(told(moved).slots)[:5] == [
        "cut:Tail",
        "weigh:Tail",
        "weigh:Power",
        "fit:Power",
        "cut:Wing",
    ]


def test_steps_of_ones_own_and_loadouts_to_balance():
    build = replace(
        BUILD,
        loadouts=(Loadout("light", "Light"), Loadout("far", "Far")),
        day=Day(own=(OwnStep("own", "Sand the nose", 12.0),)),
    )
    by_id = {slot.step.id: slot for slot in told(build).slots}
    assert by_id["own"].minutes == 12.0
    assert {"balance:light", "balance:far"} <= by_id.keys()
    placed = replace(build, parts=(*build.parts[:4], replace(build.parts[4], station=Station(9))))
    assert "fit:Power" not in {slot.step.id for slot in told(placed).slots}


def test_minutes_are_ones_own_after_a_while():
    """Three cuttings at 1.5 times the usual, the usual counted twice: 1.5^(3/5)."""
    timed = [Done("cut:x", StepKind.CUT, NOW, 15.0, 10.0)] * 3
    (pace,) = paces(timed)
    assert (pace.factor, pace.times) == (pytest.approx(1.5**0.6), 3)
    day = told(earlier=timed)
    assert day.slots[0].minutes == pytest.approx(9.0 * 1.5**0.6)
    assert paces([Done("cut:x", StepKind.CUT, NOW)]) == ()


STEPS = st.lists(
    st.tuples(st.floats(0.5, 30), st.floats(0, 90), st.sets(st.integers(0, 7))),
    min_size=1,
    max_size=8,
)


@given(STEPS, st.floats(1, 200), st.permutations(range(8)))
def test_no_order_breaks_what_waits_for_what(drawn, minutes, wanted):
    """Whatever hangs on what, by hand or not: each step once, one at a time, none before what it
    needs has set; and the short list ends within its minutes."""
    from oaken_scale.core.material import order_of_day as module  # noqa: PLC0415

    made = tuple(
        Step(
            str(k), StepKind.OWN, "", (), work, wait, tuple(str(n) for n in sorted(needs) if n < k)
        )
        for k, (work, wait, needs) in enumerate(drawn)
    )
    takes = {step.id: step.usual_min for step in made}
    held = dict.fromkeys(takes, 0.0)
    for order in ((), tuple(str(k) for k in wanted)):
        ranked = in_order(made, takes, order)
        slots = list(module._schedule(ranked, takes, held))
        assert sorted(ids(slots)) == sorted(takes)
        ready = {slot.step.id: slot.ready_min for slot in slots}
        clock = 0.0
        for slot in slots:
            assert slot.start_min >= clock - 1e-9
            assert all(slot.start_min >= ready[id] - 1e-9 for id in slot.step.needs)
            clock = slot.end_min
        # No longer than one step after the other, each with its wait.
        assert clock <= sum(step.usual_min + step.wait_min for step in made) + 1e-6
        short = list(module._schedule(ranked, takes, held, minutes))
        assert all(slot.end_min <= minutes + 1e-9 for slot in short)


def test_every_demo_plane_has_a_day():
    for plane in fleet():
        day = order_of_day(plane.build, NOW, 20.0)
        assert len(set(ids(day.slots))) == len(day.slots)
        assert day.total_min >= day.idle_min >= 0.0


def test_a_joint_of_no_known_glue_sets_as_long_as_the_usual_one():
    """Nobody said which glue it is: the first of the usual ones stands in."""
    seam = Part("seam", "seam", Pedigree.JOINT, "Wing", stated_g=3.0)
    build = replace(BUILD, parts=(BUILD.parts[0], seam))
    waits = {step.id: step.wait_min for step in steps(build) if step.kind is StepKind.JOIN}
    assert list(waits.values()) == [ADHESIVES[0].handle_after_s / 60]
    slow = {step.id: step.wait_min for step in steps(BUILD) if step.kind is StepKind.JOIN}
    assert list(slow.values()) == [60.0]  # its glue's own hour


def test_in_the_minutes_that_there_are_only_what_is_done_in_them_is_proposed():
    whole = order_of_day(BUILD, NOW)
    for minutes in (1.0, whole.slots[0].end_min, whole.slots[3].end_min, 10_000.0):
        told = order_of_day(BUILD, NOW, minutes)
        assert told.slots == whole.slots
        assert all(slot.end_min <= minutes for slot in told.now)
    assert order_of_day(BUILD, NOW, 10_000.0).now == whole.slots
    assert order_of_day(BUILD, NOW, whole.slots[0].minutes).now != ()
    assert order_of_day(BUILD, NOW, 0.01).now == ()


def test_what_has_no_time_for_a_step_that_waits_is_done_before_it_sets():
    """Nothing is proposed that would begin after the minutes are over."""
    for minutes in range(5, 300, 5):
        now = order_of_day(BUILD, NOW, float(minutes)).now
        assert all(slot.start_min <= slot.end_min <= minutes for slot in now)
        starts = [slot.start_min for slot in now]
        assert starts == sorted(starts)
