"""The list before flight: what closes a line, and ten happenings that open it again."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.crash import Damage, mended
from oaken_scale.core.changes.life import repaired, replaced, retired
from oaken_scale.core.field.ready import BenchSays, Why, ready_list, stance
from oaken_scale.core.flight.verdict import Answer, Word
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import Control, ControlKind, FieldLog, OwnLine, Tick
from oaken_scale.core.model.part import Group, Part, Pedigree, Station
from oaken_scale.core.model.power import Flight, Landing, Motor, Pack, Power
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind, Thrust
from oaken_scale.core.trim.unchecked import Since

MORNING = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
NOON = MORNING + timedelta(hours=3)


def part(id: str, group: Group, x: float, option: bool = False, assembly: str = "") -> Part:
    return Part(
        id,
        id.title(),
        Pedigree.LISTING,
        assembly,
        20.0,
        group=group,
        station=Station(x),
        option=option,
    )


PLANE = Build(
    "b",
    "B",
    parts=(
        part("wing", Group.FOAM, 200),
        part("motor", Group.POWER, 20),
        part("servo", Group.CONTROL, 300),
        part("big", Group.POWER, 90, option=True),
        part("small", Group.POWER, 80, option=True),
        part("lead", Group.REST, 10, assembly="Ballast"),
    ),
    surfaces=(
        Surface("tail", "Tail", Role.TAIL, (Section(600, 0, 0, 100), Section(600, 200, 0, 100))),
    ),
    loadouts=(Loadout("big", "Big pack", ("big",)), Loadout("small", "Small", ("small",))),
    targets=(Target(TargetKind.AUW, high=500.0), Target(TargetKind.BALANCE, 25.0, 33.0)),
    power=Power(Motor(1400, 30), packs=(Pack("p", "P", 3, 1300.0, part="big"),)),
    field=FieldLog(
        controls=(Control("e", "Elevator", ControlKind.ELEVATOR, "tail", 0, 1, 0.3, 12, 10),),
        own_lines=(OwnLine("dry", "Dry the nose"),),
    ),
)
WELL = BenchSays(
    answers=(
        Answer(TargetKind.AUW, "g", word=Word.MET),
        Answer(TargetKind.BALANCE, "percent_mac", word=Word.ON_COURSE),
    ),
    checked=True,
)


def ticked(build: Build, loadout: str | None = "big", at: datetime = MORNING) -> Build:
    """Every line ticked, as the plane stands."""
    here = stance(build, loadout)
    log = build.field
    ticks = tuple(
        Tick(f"{line.id}-{at.isoformat()}", at, line.id, loadout, True, here.id, line.about)
        for line in ready_list(build, loadout, WELL, at).lines
        if line.by_thumb
    )
    stances = (*(each for each in log.stances if each.id != here.id), here)
    return replace(build, field=replace(log, ticks=(*log.ticks, *ticks), stances=stances))


def opened(build: Build, loadout: str | None = "big", bench: BenchSays = WELL, now=NOON) -> dict:
    told = ready_list(build, loadout, bench, now)
    assert told.ready == all(line.reason is None for line in told.lines)
    return {line.id: line.reason for line in told.lines if line.reason is not None}


def whys(found: dict) -> dict[str, Why]:
    return {id: reason.why for id, reason in found.items()}


def test_the_list_is_made_from_the_plane():
    lines = [line.id for line in ready_list(PLANE, "big", WELL, MORNING).lines]
    assert lines == [
        "weight",
        "balance",
        "straight",
        "fixed",
        "ballast",
        "leads",
        "control-e",
        "own-dry",
        "propeller",
        "pack",
        "range",
        "wind",
        "people",
        "place",
    ]
    glider = replace(PLANE, power=None, parts=(PLANE.parts[0],), field=FieldLog(), targets=())
    lines = [line.id for line in ready_list(glider, None, BenchSays(), MORNING).lines]
    assert lines == ["balance", "straight", "fixed", "wind", "people", "place"]


@pytest.mark.parametrize(
    ("answer", "why"),
    [
        (Answer(TargetKind.BALANCE, "percent_mac", 30.0, 2.0), Why.NO_TARGET),
        (Answer(TargetKind.BALANCE, "percent_mac", low=25.0, high=33.0), Why.NOT_TOLD),
        (None, Why.NOT_TOLD),
    ],
)
def test_every_plane_is_asked_whether_it_balances(answer, why):
    """It is open where nobody said where it is to balance: that is not to be forgotten."""
    bench = BenchSays(() if answer is None else (answer,), checked=True)
    (line,) = (
        each
        for each in ready_list(replace(PLANE, targets=()), None, bench, NOON).lines
        if each.kind.value == "balance"
    )
    assert line.reason.why is why


@pytest.mark.parametrize(
    ("role", "steered_by"), [(Role.TAIL, "tail"), (Role.CANARD, "canard"), (Role.FIN, "elevons")]
)
def test_a_plane_whose_controls_nobody_drew_is_still_asked_which_way_they_go(role, steered_by):
    drawn = (replace(PLANE.surfaces[0], role=role),)
    bare = replace(PLANE, field=FieldLog(), surfaces=drawn)
    lines = {line.id: line for line in ready_list(bare, "big", WELL, MORNING).lines}
    assert lines["controls"].subject == steered_by
    assert "range" in lines
    done = ticked(bare)
    assert opened(done) == {}
    assert opened(glue(done))["controls"].why is Why.HAPPENED
    assert opened(done, now=MORNING + timedelta(hours=13))["controls"].why is Why.ANOTHER_DAY


def test_all_ticked_is_ready_and_says_when_and_with_what():
    told = ready_list(ticked(PLANE), "big", WELL, NOON)
    assert told.ready
    signed = [(line.closed_at, line.closed_with) for line in told.lines if line.by_thumb]
    assert set(signed) == {(MORNING, "big")}


def glue(build: Build) -> Build:
    added = (Part("glue", "Glue", Pedigree.JOINT, stated_g=2.0),)
    return repaired(build, Act(NOON, "nose glued"), "wing", added)


def test_1_a_repair_opens_what_it_may_have_bent():
    found = opened(glue(ticked(PLANE)))
    assert set(found) == {"straight", "fixed", "ballast", "control-e"}
    assert {each.why for each in found.values()} == {Why.HAPPENED}
    assert found["straight"].words == "nose glued"


def test_2_another_pack_opens_what_was_ticked_for_this_one():
    found = opened(ticked(PLANE), "small")
    assert set(found) == {"fixed", "ballast", "leads", "pack"}
    assert {(r.why, r.subject) for r in found.values()} == {(Why.OTHER_LOADOUT, "Big pack")}


def test_3_a_part_that_moved_is_named_with_how_far():
    build = ticked(PLANE)
    parts = tuple(
        replace(each, station=Station(108.0)) if each.id == "big" else each for each in build.parts
    )
    found = opened(replace(build, parts=parts))
    assert set(found) == {"fixed", "leads"}
    assert (found["fixed"].why, found["fixed"].subject) == (Why.MOVED, "Big")
    assert found["fixed"].amount == pytest.approx(18.0)


def test_4_a_part_added_or_taken_off_opens_what_speaks_of_it():
    build = ticked(PLANE)
    camera = part("camera", Group.PAYLOAD, 150)
    found = opened(replace(build, parts=(*build.parts, camera)))
    assert whys(found) == {"fixed": Why.ADDED, "leads": Why.ADDED}
    less = replace(build, parts=tuple(e for e in build.parts if e.id != "lead"))
    assert whys(opened(less)) == {}  # what is no part any more names nobody
    off = retired(build, Act(NOON, "lead off"), "lead")
    assert opened(off)["fixed"].why is Why.HAPPENED


def test_5_a_doubtful_reading_opens_a_line_of_its_own():
    found = opened(ticked(PLANE), bench=replace(WELL, doubted=2))
    assert whys(found) == {"doubt": Why.DOUBTFUL}
    assert found["doubt"].amount == 2


@pytest.mark.parametrize("word", [Word.OFF_COURSE, Word.MISSED, Word.TOO_CLOSE])
def test_6_a_verdict_that_turns_opens_weight_or_balance(word):
    heavy = replace(WELL, answers=(replace(WELL.answers[0], word=word), WELL.answers[1]))
    found = opened(ticked(PLANE), bench=heavy)
    assert {id: (r.why, r.subject) for id, r in found.items()} == {
        "weight": (Why.VERDICT, word.value)
    }


@pytest.mark.parametrize(
    ("kind", "unit", "value", "low", "high", "beyond"),
    [
        (TargetKind.AUW, "g", 612.0, None, 590.0, 22.0),
        (TargetKind.AUW, "g", 588.0, None, 590.0, None),
        (TargetKind.BALANCE, "percent_mac", 52.0, 25.0, 33.0, 19.0),
        (TargetKind.BALANCE, "percent_mac", 20.0, 25.0, 33.0, -5.0),
        (TargetKind.BALANCE, "mm_from_nose", 30.0, 25.0, 33.0, None),
    ],
)
def test_6_it_says_how_far_beyond_its_range_there_are_no_rods_at_the_field(
    kind, unit, value, low, high, beyond
):
    told = Answer(kind, unit, value, 2.0, low, high, word=Word.TOO_CLOSE)
    others = tuple(each for each in WELL.answers if each.kind is not kind)
    (reason,) = opened(ticked(PLANE), bench=replace(WELL, answers=(told, *others))).values()
    assert (reason.why, reason.unit) == (Why.VERDICT, unit)
    assert reason.amount == (None if beyond is None else pytest.approx(beyond))


def test_7_a_balance_not_checked_since_opens_and_no_tick_closes_it():
    since = replace(WELL, unchecked=Since(NOON, "nose glued"))
    found = opened(ticked(PLANE), bench=since)
    assert whys(found) == {"balance": Why.NOT_CHECKED_SINCE}
    assert (found["balance"].words, found["balance"].at) == ("nose glued", NOON)
    never = opened(ticked(PLANE), bench=replace(WELL, checked=False))
    assert whys(never) == {"balance": Why.NOT_CHECKED}


def test_8_a_hard_landing_opens_what_it_may_have_hurt():
    build = ticked(PLANE)
    flight = Flight("f", MORNING + timedelta(hours=1), "p", 8.0, landing=Landing.HARD)
    hard = replace(build, power=replace(build.power, flights=(flight,)))
    found = opened(hard)
    assert set(found) == {"straight", "fixed", "ballast", "control-e", "propeller"}
    assert {each.why for each in found.values()} == {Why.LANDED_HARD}
    soft = replace(build, power=replace(build.power, flights=(replace(flight, landing=None),)))
    assert opened(soft) == {}


def test_9_another_day_opens_what_is_looked_at_on_every_outing():
    found = opened(ticked(PLANE), now=MORNING + timedelta(hours=13))
    assert set(found) == {"control-e", "propeller", "pack", "range", "wind", "people", "place"}
    assert {each.why for each in found.values()} == {Why.ANOTHER_DAY}


def test_10_another_travel_is_another_question():
    build = ticked(PLANE)
    (elevator,) = build.field.controls
    less = replace(build.field, controls=(replace(elevator, up_mm=8.0),))
    assert whys(opened(replace(build, field=less))) == {"control-e": Why.ASKS_OTHERWISE}


def test_11_a_replaced_servo_opens_its_controls_and_leads():
    build = ticked(PLANE)
    new = Part("servo-2", "New servo", Pedigree.LISTING, stated_g=9.0)
    found = opened(replaced(build, Act(NOON, "servo replaced"), "servo", new))
    assert found["control-e"].why is Why.HAPPENED
    assert found["leads"].why is Why.ADDED


def test_12_a_tick_of_a_plane_that_nobody_here_saw_closes_nothing_that_parts_open():
    build = ticked(PLANE)
    strange = tuple(replace(each, stance="0123456789abcdef") for each in build.field.ticks)
    found = opened(replace(build, field=replace(build.field, ticks=strange)))
    assert {each.why for each in found.values()} == {Why.SEEN_NOWHERE}
    assert "wind" not in found


def test_opened_by_hand_and_ticked_again():
    build = ticked(PLANE)
    away = Tick("open", NOON, "wind", "big", done=False)
    build = replace(build, field=replace(build.field, ticks=(*build.field.ticks, away)))
    assert whys(opened(build)) == {"wind": Why.UNTICKED}
    again = ticked(build, at=NOON)
    assert opened(again) == {}


def test_a_clock_that_was_ahead_does_not_keep_a_line_closed_for_ever():
    ahead = ticked(PLANE, at=MORNING + timedelta(days=300))
    assert opened(ahead, now=NOON) == {}
    assert opened(ahead, now=MORNING + timedelta(days=301))["wind"].why is Why.ANOTHER_DAY


def test_two_planes_that_stand_alike_have_one_name_and_others_another():
    assert stance(PLANE, "big").id == stance(replace(PLANE, name="C"), "big").id
    assert stance(PLANE, "big").id != stance(PLANE, "small").id


def test_a_crash_mended_in_one_act_is_all_of_it_or_nothing():
    act = Act(NOON, "fence post")
    patch = Part("patch", "Patch", Pedigree.GUESS, stated_g=3.0)
    new = Part("motor-2", "Motor again", Pedigree.LISTING, stated_g=21.0)
    after = mended(
        PLANE, act, (Damage("wing", (patch,)), Damage("motor", replaced=new), Damage("lead"))
    )
    assert {each.words for each in after.diary} == {"fence post"}
    assert len({each.id for each in after.diary}) == 3
    here = {each.id for each in after.parts if not each.retired}
    assert {"patch", "motor-2"} <= here
    assert not here & {"motor", "lead"}
    with pytest.raises(ValueError, match="no part"):
        mended(PLANE, act, (Damage("wing", (patch,)), Damage("nowhere")))
    with pytest.raises(ValueError, match="both mended and replaced"):
        mended(PLANE, act, (Damage("motor", (patch,), new),))
    with pytest.raises(ValueError, match="say what broke"):
        mended(PLANE, act, ())


def test_a_tick_whose_stance_nobody_kept_is_asked_for_again():
    build = ticked(PLANE)
    lost = replace(build, field=replace(build.field, stances=()))
    moved = replace(lost, parts=(*lost.parts[:1], part("motor", Group.POWER, 21), *lost.parts[2:]))
    found = opened(moved)
    assert whys(found)["fixed"] is Why.SEEN_NOWHERE
    assert found["fixed"].at == MORNING


def test_half_a_millimetre_is_no_move_and_what_had_no_place_did_not_move():
    build = ticked(PLANE)

    def with_motor(x: float | None) -> Build:
        motor = part("motor", Group.POWER, 20)
        motor = replace(motor, station=None if x is None else Station(x))
        return replace(build, parts=(build.parts[0], motor, *build.parts[2:]))

    assert "fixed" not in opened(with_motor(20.5))
    assert opened(with_motor(20.6))["fixed"].why is Why.MOVED
    reason = opened(with_motor(23.0))["fixed"]
    assert (reason.why, reason.subject, reason.amount) == (Why.MOVED, "Motor", pytest.approx(3.0))
    assert "fixed" not in opened(with_motor(None))


def test_a_move_in_any_direction_is_measured_straight():
    build = ticked(PLANE)
    motor = replace(part("motor", Group.POWER, 20), station=Station(22.0, 3.0, 6.0))
    reason = opened(replace(build, parts=(build.parts[0], motor, *build.parts[2:])))["fixed"]
    assert reason.amount == pytest.approx(7.0)


def test_what_is_to_drive_it_is_asked_about_before_there_is_a_drive():
    """A plane with a motor on its list, and nothing said of the drive."""
    lines = [each.id for each in ready_list(replace(PLANE, power=None), "big", WELL, NOON).lines]
    assert {"propeller", "pack"} <= set(lines)
    thrust = replace(PLANE, power=None, thrust=Thrust(400.0, 20.0), parts=PLANE.parts[:1])
    bare = replace(thrust, loadouts=())
    assert {"propeller", "pack"} <= {each.id for each in ready_list(bare, None, WELL, NOON).lines}


@pytest.mark.parametrize(
    ("control", "asked"),
    [
        (Control("t", "Tab", ControlKind.TAB, "tail", 0.2, 0.4, 0.1), "t:0"),
        (Control("r", "Rudder", ControlKind.RUDDER, "tail", 0, 1, 0.3, 9, 9, set_mm=1.5), "r:1.5"),
        (Control("r", "Rudder", ControlKind.RUDDER, "tail", 0, 1, 0.3, 9, 9), None),
    ],
)
def test_tabs_and_what_is_set_off_centre_are_looked_at(control, asked):
    lines = ready_list(replace(PLANE, field=FieldLog((control,))), "big", WELL, NOON).lines
    assert [each.about for each in lines if each.id == "tabs"] == ([asked] if asked else [])


def test_what_is_thrown_is_asked_for_no_propeller_and_no_pack_that_is_not_aboard():
    glider = Build(
        "g",
        "G",
        purpose="glider",
        parts=(part("wing", Group.FOAM, 200),),
        targets=(Target(TargetKind.BALANCE, 25.0, 33.0),),
    )
    bare = {line.kind.value: line for line in ready_list(glider, None, WELL, NOON).lines}
    assert bare["balance"].subject == bare["fixed"].subject == ""
    assert not bare.keys() & {"propeller", "pack", "leads", "range", "controls"}
    steered = replace(glider, parts=(*glider.parts, part("battery", Group.POWER, 20)))
    told = {line.kind.value: line for line in ready_list(steered, None, WELL, NOON).lines}
    assert (told["balance"].subject, told["fixed"].subject) == ("pack", "controls")
    assert told.keys() - bare.keys() == {"pack", "leads", "range", "controls"}
    driven = replace(steered, purpose="park")
    assert "propeller" in {line.kind.value for line in ready_list(driven, None, WELL, NOON).lines}
