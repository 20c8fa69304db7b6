"""Laws of taking back: what a change did goes, what came after it stays, and a log keeps all."""

from dataclasses import replace
from datetime import UTC, datetime
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.changes.taken_back import TAKEN_BACK, How, Touched, taken_back, touched
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import FieldLog, Throw
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack, Power
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing

AT = datetime(2026, 5, 1, 12, tzinfo=UTC)
SPARE = Pack("spare", "2200", 3, 2200.0)
NAMES = ("wing", "tail", "pack", "camera", "motor")


def part(id: str, grams: float) -> Part:
    return Part(id, id.capitalize(), Pedigree.GUESS, stated_g=grams)


START = Build(
    "b",
    "B",
    parts=tuple(part(id, 10.0 * k + 10) for k, id in enumerate(NAMES[:3])),
    scales=(Scale("s", "Scale", 0.1),),
    loadouts=(Loadout("one", "One", ("pack",)),),
    targets=(Target(TargetKind.AUW, high=590.0),),
)


def heavier(build: Build, id: str, grams: float) -> Build:
    if id not in [each.id for each in build.parts]:
        return replace(build, parts=(*build.parts, part(id, grams)))
    parts = (replace(each, stated_g=grams) if each.id == id else each for each in build.parts)
    return replace(build, parts=tuple(parts))


def without(build: Build, id: str) -> Build:
    loadouts = tuple(
        replace(each, carries=tuple(one for one in each.carries if one != id))
        for each in build.loadouts
    )
    parts = tuple(each for each in build.parts if each.id != id)
    return replace(build, parts=parts, loadouts=loadouts)


CHANGES = st.one_of(
    st.tuples(st.sampled_from(NAMES), st.integers(1, 99)).map(
        lambda told: lambda build: heavier(build, told[0], float(told[1]))
    ),
    st.sampled_from(NAMES).map(lambda id: lambda build: without(build, id)),
    st.sampled_from("XYZ").map(lambda name: lambda build: replace(build, name=name)),
    st.integers(400, 700).map(
        lambda g: lambda build: replace(build, targets=(Target(TargetKind.AUW, high=float(g)),))
    ),
    st.just(lambda build: replace(build, targets=())),
)


@given(st.lists(CHANGES, min_size=1, max_size=8))
def test_all_changes_taken_back_and_made_again(changes):
    values = [START]
    for change in changes:
        values.append(change(values[-1]))
    now = values[-1]
    for before, after in zip(reversed(values[:-1]), reversed(values[1:]), strict=True):
        now = taken_back(now, before, after, AT)
        assert now == before
    for before, after in pairwise(values):
        now = taken_back(now, after, before, AT)
        assert now == after


@given(CHANGES, st.integers(1, 99))
def test_what_came_after_stays(change, grams):
    after = change(START)
    later = replace(after, notes=f"{grams} g of tape")
    told = taken_back(later, START, after, AT)
    assert told == replace(START, notes=later.notes)


@given(CHANGES)
def test_what_was_touched_is_told_unless_nothing_was(change):
    after = change(START)
    assert bool(touched(START, after)) == (after != START)


def test_a_log_keeps_all_that_was_written_into_it():
    reading = Weighing("r", AT, "s", 31.0, Pan((Load("tail"),)))
    weighed = replace(START, weighings=(reading,))
    told = taken_back(weighed, START, weighed, AT)
    assert told.weighings == (replace(reading, set_aside=TAKEN_BACK),)
    assert taken_back(told, weighed, START, AT) == weighed


def test_a_part_that_stands_in_the_log_retires_and_comes_back():
    with_motor = heavier(START, "motor", 60.0)
    reading = Weighing("r", AT, "s", 61.0, Pan((Load("motor"),)))
    now = replace(with_motor, weighings=(reading,))
    told = taken_back(now, START, with_motor, AT)
    assert told.parts[-1] == replace(with_motor.parts[-1], retired=True, retired_at=AT)
    again = taken_back(told, with_motor, START, AT)
    assert again == now


def test_a_reading_set_aside_before_keeps_its_own_reason():
    reading = Weighing("r", AT, "s", 31.0, Pan((Load("tail"),)), set_aside="the tray")
    weighed = replace(START, weighings=(reading,))
    assert taken_back(weighed, START, weighed, AT).weighings == (reading,)


def test_what_is_touched_in_the_logs_and_the_drive_is_told_one_by_one():
    """A drive that comes, a pack more in it, a throw more, a reading with its figure."""
    drive = Power(Motor(1400, 60), packs=(Pack("s3", "1300", 3, 1300.0),))
    powered = replace(START, power=drive)
    assert touched(START, powered) == (Touched("power", How.CHANGED),)
    larger = replace(powered, power=replace(drive, packs=(*drive.packs, SPARE)))
    assert touched(powered, larger) == (Touched("packs", How.ADDED, "2200"),)
    assert touched(larger, powered) == (Touched("packs", How.REMOVED, "2200"),)
    other = replace(powered, power=replace(drive, motor=Motor(1000, 60)))
    assert touched(powered, other) == (Touched("motor", How.CHANGED),)
    thrown = replace(START, field=FieldLog(throws=(Throw("t", AT),)))
    assert touched(START, thrown) == (Touched("throws", How.ADDED),)
    weighed = replace(START, weighings=(Weighing("r", AT, "s", 31.0, Pan((Load("tail"),))),))
    assert touched(START, weighed) == (Touched("weighings", How.ADDED, "", 31.0),)
    lower = replace(START, targets=(Target(TargetKind.AUW, high=500.0),))
    assert touched(START, lower) == (Touched("targets", How.CHANGED),)


def test_a_pack_that_came_later_stays_when_the_one_before_is_taken_back():
    drive = Power(Motor(1400, 60))
    one = Pack("s3", "1300", 3, 1300.0)
    before = replace(START, power=drive)
    after = replace(START, power=replace(drive, packs=(one,)))
    now = replace(START, power=replace(drive, packs=(one, SPARE)))
    assert taken_back(now, before, after, AT).power.packs == (SPARE,)
    # What was removed comes back to where it stood.
    gone = replace(START, power=replace(drive, packs=(SPARE,)))
    told = taken_back(gone, now, gone, AT)
    assert told.power.packs == (one, SPARE)


def test_a_drive_that_came_goes_whole_and_what_a_drawing_was_comes_back_whole():
    powered = replace(START, power=Power(Motor(1400, 60)))
    assert taken_back(powered, START, powered, AT).power is None
    outline = (Section(0, 0, 0, 190), Section(0, 540, 0, 190))
    wing = Surface("w", "Wing", Role.WING, outline)
    longer = replace(wing, sections=(outline[0], Section(0, 600, 0, 190)))
    before, after = replace(START, surfaces=(wing,)), replace(START, surfaces=(longer,))
    named = replace(after, surfaces=(replace(longer, name="Main wing"),))
    (told,) = taken_back(named, before, after, AT).surfaces
    assert (told.name, told.sections) == ("Main wing", outline)


def test_a_scale_that_only_a_check_was_read_on_stays_with_it():
    """Checks by feel have no scale: they keep none."""
    two = replace(START, scales=(*START.scales, Scale("two", "Two", 1.0), Scale("x", "X", 1.0)))
    on_two = BalanceCheck(
        "c", AT, CheckKind.SUPPORTS, None, 100.0, other_mm=300.0, reading_g=20.0, scale="two"
    )
    by_feel = BalanceCheck("f", AT, CheckKind.SUPPORT, None, 200.0)
    told = taken_back(replace(two, checks=(on_two, by_feel)), START, two, AT)
    assert [each.id for each in told.scales] == ["s", "two"]
