"""What comes home from the field: each once, in its order, nothing overwritten."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest
from pydantic import TypeAdapter

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.at_the_field import FELT_MM, counts, field_told, flight_faults, reminders
from oaken_scale.core.changes.outing import Bent, SetAside, came_home, with_lines_of
from oaken_scale.core.changes.variants import adopted_variant
from oaken_scale.core.field.advice import Cause, Do
from oaken_scale.core.field.ready import stance
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.field import (
    Control,
    ControlKind,
    FieldLog,
    Note,
    NoteKind,
    OwnLine,
    Setting,
    Throw,
    Tick,
)
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Flight, Landing, Motor, Pack, Power
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.next_version import next_version
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import reading, with_readings

MORNING = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
DUNLIN = next(each.build for each in fleet() if each.build.id == "dunlin")
HERON = next(each.build for each in fleet() if each.build.id == "night-heron")
TAB = Control("tab", "Tab", ControlKind.TAB, "tail")
PLANE = Build(
    "b",
    "B",
    layout="glider",
    field=FieldLog(controls=(TAB,)),
    power=Power(Motor(1400, 30), packs=(Pack("p", "P", 3, 1300.0),)),
)


def home(build: Build, *entries) -> Build:
    for entry in entries:
        build, _ = came_home(build, entry)
    return build


@pytest.mark.parametrize(
    "entry",
    [
        Throw("a", MORNING, distance_m=9.5),
        Flight("a", MORNING, "p", 8.0),
        Tick("a", MORNING, "wind"),
        Note("a", MORNING, NoteKind.NOTE, "gusty"),
        OwnLine("a", "Dry it"),
    ],
)
def test_an_entry_is_kept_once_and_never_overwritten(entry):
    once, new = came_home(PLANE, entry)
    assert new
    twice, new = came_home(once, entry)
    assert not new
    assert twice == once
    other = replace(
        entry,
        **{
            Throw: {"distance_m": 8.0},
            Flight: {"minutes": 7.0},
            Tick: {"line": "place"},
            Note: {"words": "calm"},
            OwnLine: {"words": "Wet it"},
        }[type(entry)],
    )
    with pytest.raises(BuildFaultError, match="already"):
        came_home(once, other)


def test_what_was_set_aside_since_is_still_the_same_throw():
    throw = Throw("a", MORNING, distance_m=9.5)
    build = home(PLANE, throw, SetAside("a", "hit a post"))
    assert build.field.throws[0].set_aside == "hit a post"
    again, new = came_home(build, throw)
    assert not new
    assert again.field.throws[0].set_aside == "hit a post"
    assert home(build, SetAside("a", None)).field.throws[0] == throw


def test_what_was_thrown_ticked_and_noted_changes_nothing_that_the_rods_tell():
    """So that an entry needs no new assessment: what is kept with it is what would be told."""
    entries = (
        Throw("x", MORNING, "as-thrown", (Setting("tail-tab", 2.0),), distance_m=9.0),
        Tick("x", MORNING, "wind", "as-thrown"),
        Note("x", MORNING, NoteKind.WISH, "longer nose"),
        OwnLine("x", "Dry it"),
        Bent((Setting("fin-tab", 1.0),)),
    )
    after = home(DUNLIN, *entries)
    assert after != DUNLIN
    assert TypeAdapter(Assessment).dump_json(assess(after)) == TypeAdapter(Assessment).dump_json(
        assess(DUNLIN)
    )


def test_times_are_kept_as_told_and_the_order_is_that_of_arrival():
    late = Throw("late", MORNING.replace(year=2031), distance_m=9.0)
    early = Throw("early", MORNING.replace(year=2021), distance_m=8.0)
    build = home(PLANE, late, early)
    assert [(each.id, each.at.year) for each in build.field.throws] == [
        ("late", 2031),
        ("early", 2021),
    ]


def test_a_throw_sets_what_it_was_thrown_with():
    build = home(PLANE, Throw("a", MORNING, settings=(Setting("tab", -1.5),)))
    assert build.field.controls[0].set_mm == -1.5
    again = home(build, Bent((Setting("tab", 2.0), Setting("no such", 1.0))))
    assert again.field.controls[0].set_mm == 2.0
    assert again.field.throws == build.field.throws


def test_a_stance_is_kept_where_it_is_how_the_plane_stands():
    here = stance(DUNLIN, "as-thrown")
    build = home(DUNLIN, Tick("a", MORNING, "straight", "as-thrown", True, here.id))
    assert build.field.stances == (here,)
    build = home(build, Tick("b", MORNING, "fixed", "as-thrown", True, here.id))
    assert build.field.stances == (here,)
    build = home(build, Tick("c", MORNING, "wind", "as-thrown", True, "ffff"))
    assert build.field.stances == (here,)


@pytest.mark.parametrize(
    ("entry", "says"),
    [
        (Flight("f", MORNING, "other", 8.0), 'no pack "other"; there is p'),
        (SetAside("nothing", "why"), 'nothing here is called "nothing"'),
    ],
)
def test_what_speaks_of_nothing_here_is_refused_in_words(entry, says):
    with pytest.raises(BuildFaultError, match=says):
        came_home(PLANE, entry)


def test_a_flight_without_a_drive_says_where_to_list_it():
    with pytest.raises(BuildFaultError, match="no drive is listed on Power"):
        came_home(replace(PLANE, power=None), Flight("f", MORNING, "p", 8.0))


def test_a_flight_longer_than_any_pack_is_refused_with_what_they_last():
    told = assess(HERON)
    assert list(flight_faults(HERON, told, Flight("f", MORNING, "pack", 12.0))) == []
    (fault,) = flight_faults(HERON, told, Flight("f", MORNING, "pack", 240.0))
    assert fault.field == "minutes"
    assert "240 min, and the packs of Night Heron last about" in fault.words


def test_what_is_more_than_a_plane_keeps_is_refused_in_words():
    lines = tuple(OwnLine(f"l{k}", f"Line {k}") for k in range(30))
    full = replace(PLANE, field=replace(PLANE.field, own_lines=lines))
    with pytest.raises(BuildFaultError, match="there are 30 already"):
        came_home(full, OwnLine("more", "One more"))
    assert came_home(full, lines[0]) == (full, False)


def test_what_was_flown_is_counted():
    flights = (
        Flight("1", MORNING, "p", 8.0),
        Flight("2", MORNING, "p", 7.5, landing=Landing.HARD),
        Flight("3", MORNING, "p", 9.0, landing=Landing.CRASH),
        Flight("4", MORNING, "p", 60.0, set_aside="slip"),
    )
    build = home(PLANE, *flights, Throw("t", MORNING), Throw("u", MORNING, set_aside="no"))
    told = counts(build)
    assert (told.throws, told.flights, told.minutes) == (1, 3, 24.5)
    assert (told.hard, told.crashes) == (1, 1)
    assert [(each.id, each.flights, each.minutes) for each in told.packs] == [("p", 3, 24.5)]


def test_reminders_are_told_from_their_day_on_until_they_are_done():
    note = Note("n", MORNING, NoteKind.REMINDER, "Renew the tape", MORNING.date())
    build = home(PLANE, note)
    assert reminders(build.field, MORNING.date()) == (note,)
    assert reminders(build.field, MORNING.date().replace(day=6)) == ()
    assert reminders(home(build, SetAside("n", "done")).field, MORNING.date()) == ()


def test_lines_of_ones_own_come_back_on_the_next_of_that_layout():
    earlier = home(PLANE, OwnLine("dry", "Dry the nose"), OwnLine("lid", "Lid taped"))
    other = home(replace(PLANE, layout="canard"), OwnLine("gear", "Wheels straight"))
    fresh = with_lines_of(Build("n", "N", layout="glider"), (earlier, earlier, other))
    assert [each.words for each in fresh.field.own_lines] == ["Dry the nose", "Lid taped"]


def test_a_variant_that_is_adopted_keeps_the_log_of_both():
    variant = home(replace(PLANE, id="v", variant_of="b"), Throw("v", MORNING))
    own = home(PLANE, Throw("o", MORNING), Note("n", MORNING, NoteKind.NOTE, "calm"))
    after = adopted_variant(own, variant, MORNING)
    assert [each.id for each in after.field.throws] == ["o", "v"]
    assert [each.id for each in after.field.notes] == ["n"]


def test_the_next_version_takes_the_weights_and_the_wishes_and_leaves_the_log():
    told = assess(DUNLIN)
    after = next_version(DUNLIN, told, "Dunlin 2")
    assert (after.weighings, after.checks, after.diary) == ((), (), ())
    assert [each.kind for each in after.field.notes] == [NoteKind.WISH, NoteKind.REMINDER]
    assert after.field.throws == ()
    assert after.field.controls == DUNLIN.field.controls
    weighs = {each.id: each.mass_g for each in told.parts}
    boom = next(each for each in after.parts if each.id == "boom")
    assert boom.stated_g == pytest.approx(weighs["boom"], abs=0.01)
    assert assess(after).so_far.reference == "Dunlin"


def test_the_demo_says_what_helped_what_was_luck_and_what_is_open():
    (dunlin,) = field_told(DUNLIN, assess(DUNLIN), MORNING).loadouts
    helped, luck = dunlin.changes
    assert (helped.control, helped.compared.better > 0.9) == ("tail-tab", True)
    assert (luck.control, 0.1 < luck.compared.better < 0.9) == ("fin-tab", True)
    heron = field_told(HERON, assess(HERON), MORNING)
    assert (heron.counts.flights, heron.counts.crashes) == (22, 1)
    open_lines = {
        line.id: line.reason.why.value
        for line in heron.loadouts[0].ready.lines
        if line.reason is not None
    }
    assert open_lines["balance"] == "not_checked_since"
    assert open_lines["straight"] == "happened"
    assert heron.looking_back.repairs[0].added_g == pytest.approx(10.4, abs=0.2)


def test_what_nobody_knew_is_known_in_the_next_version_where_it_was_weighed():
    parts = tuple(Part(id, id, Pedigree.GUESS) for id in ("hatch", "skid"))
    build = Build("b", "B", parts=parts, scales=(Scale("kitchen", "Scale", 0.1),))
    build = with_readings(build, reading(1, 12.4, "hatch"))
    hatch, skid = next_version(build, assess(build), "B 2").parts
    assert (hatch.stated_g, skid.stated_g) == (pytest.approx(12.4, abs=0.1), None)


def test_a_new_build_takes_over_the_latest_lines_and_never_more_than_a_list_holds():
    """Four planes of twelve lines each would be 48; a list holds 30."""

    def listed(name: str, ids: list[str]) -> Build:
        lines = tuple(OwnLine(id, f"Line {id}") for id in ids)
        return Build(name, name, layout="tractor", field=FieldLog(own_lines=lines))

    def lines(build: Build) -> list[str]:
        return [each.id for each in build.field.own_lines]

    ids = [[f"l{n}-{k}" for k in range(12)] for n in range(4)]
    earlier = [listed(f"b{n}", each) for n, each in enumerate(ids)]
    fresh = listed("new", [])
    assert (
        lines(with_lines_of(fresh, earlier))
        == [id for each in ids for id in each][-limits.OWN_LINES :]
    )
    assert lines(with_lines_of(fresh, earlier[:2])) == ids[0] + ids[1]
    told = lines(with_lines_of(listed("own", ["mine"]), earlier))
    assert (told[0], len(told), told[-1]) == ("mine", limits.OWN_LINES, "l3-11")
    full = listed("full", [f"m{k}" for k in range(limits.OWN_LINES)])
    assert with_lines_of(full, earlier) == full
    other = [replace(each, layout="canard") for each in earlier]
    assert lines(with_lines_of(fresh, other)) == []


def test_before_any_throw_it_is_balanced():
    plane = sandpiper()
    told = assess(plane)
    first = field_told(plane, told, MORNING).loadouts[0].advice
    off = told.beam.loadouts[0].off_mm
    assert off > FELT_MM
    assert (first.cause, first.do, first.amount) == (Cause.CG_BEHIND, Do.CG_FORWARD, off)
    empty = Build("b", "B")
    nothing = [each.advice.cause for each in field_told(empty, assess(empty), MORNING).loadouts]
    assert set(nothing) <= {Cause.NOTHING_SEEN}
