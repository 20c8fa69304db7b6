"""What goes out as a list comes in again, once; and a builder's own list does."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.listed import with_list
from oaken_scale.core.model.build import Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.field import Control, ControlKind, Setting, Throw
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Power
from oaken_scale.core.model.weighing import Load, Pan, Weighing
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.lists_in import ListName, read_list
from oaken_scale.formats.parts_list import cells
from oaken_scale.formats.tables import as_csv, as_xlsx, tables
from oaken_scale.workshop.held import exportable

MOTOR = next(each.name for each in sandpiper().parts if each.id == "motor")
BUILDS = {each.id: each for each in (sandpiper(), *(plane.build for plane in fleet()))}


def emptied(build):
    """The same plan, without what its lists hold."""
    power = build.power and replace(build.power, runs=())
    return replace(
        build,
        weighings=(),
        loadouts=(),
        checks=(),
        power=power,
        field=replace(build.field, throws=()),
    )


def out(build, what, comma=False):
    table = next(t for t in tables(build, assess(build)) if t.name == what.value)
    return cells(as_csv(table, comma))


def why_not(line):
    """Why a line is left out, as it is said in grams and millimetres."""
    return f"{line.why_not.field} {line.why_not.words}".strip()


@pytest.mark.parametrize("name", BUILDS)
@pytest.mark.parametrize("comma", [False, True])
def test_everything_that_goes_out_comes_in_again(name, comma):
    build = BUILDS[name]
    bare = emptied(build)
    for what in (ListName.LOADOUTS, ListName.WEIGHINGS, ListName.THROWS, ListName.RUNS):
        if what is ListName.LOADOUTS and not build.loadouts:
            continue
        rows = out(build, what, comma)
        told, entries = read_list(what, rows, bare)
        assert [each.why_not for each in told.lines if each.why_not] == []
        bare = with_list(bare, entries)
    validated(bare)
    assert len(bare.weighings) == len(build.weighings)
    before = {each.id: each for each in build.weighings}
    for each in bare.weighings:
        was = before[each.id]
        assert each.reading_g == pytest.approx(was.reading_g, abs=1e-4)
        assert (each.pan, each.scale) == (was.pan, was.scale)
        assert (each.set_aside, each.accepted) == (was.set_aside, was.accepted)
    assert {(e.name, e.carries) for e in bare.loadouts} == {
        (e.name, e.carries) for e in build.loadouts
    }
    assert len(bare.field.throws) == len(build.field.throws)
    for one, two in zip(bare.field.throws, build.field.throws, strict=True):
        assert (one.id, one.seen, one.settings) == (two.id, two.seen, two.settings)
        assert one.distance_m == pytest.approx(two.distance_m)
    if build.power:
        assert [len(e.points) for e in bare.power.runs] == [len(e.points) for e in build.power.runs]
        for one, two in zip(bare.power.runs, build.power.runs, strict=True):
            assert (one.id, one.pack, one.propeller) == (two.id, two.pack, two.propeller)
            assert one.points == two.points


@pytest.mark.parametrize("name", BUILDS)
@pytest.mark.parametrize("what", ListName)
def test_a_second_time_adds_nothing(name, what):
    build = BUILDS[name]
    if what is ListName.LOADOUTS and not build.loadouts:
        return
    told, entries = read_list(what, out(build, what), build)
    assert entries == ()
    assert told.fresh == 0
    assert all(each.is_known for each in told.lines)


def test_each_list_is_found_on_its_sheet_of_the_spreadsheet():
    build = sandpiper()
    book = as_xlsx(tables(build, assess(build)))
    _, entries = read_list(ListName.WEIGHINGS, cells(book, "weighings"), emptied(build))
    assert len(entries) == len(build.weighings)


OWN = f"""Datum;Bauteile;Gewicht (oz);Notiz
07.03.2026 09:15;{MOTOR};2,20;morgens
7.3.2026;{MOTOR.lower()};2,2;
7.3.2026;{MOTOR.upper()};2,2;noch einmal
;Propeller nobody has;1,0;
8.3.2026;{MOTOR};;
9.3.2026;{MOTOR};-3;
"""


def test_a_builders_own_log_in_german_and_ounces():
    build = replace(sandpiper(), weighings=())
    told, entries = read_list(ListName.WEIGHINGS, cells(OWN.encode()), build)
    assert [round(each.reading_g, 2) for each in entries] == [62.37, 62.37, 62.37]
    assert entries[0].at == datetime(2026, 3, 7, 9, 15, tzinfo=UTC)
    assert all(each.pan == Pan((Load("motor"),)) for each in entries)
    why = [why_not(each) for each in told.lines[3:6]]
    assert 'no part "Propeller nobody has"' in why[0]
    assert why[1] == "has no reading"
    assert "below zero" in why[2]
    again, more = read_list(ListName.WEIGHINGS, cells(OWN.encode()), with_list(build, entries))
    assert more == ()
    assert again.fresh == 0


@pytest.mark.parametrize(
    ("what", "text", "says"),
    [
        (ListName.WEIGHINGS, "reading;pan;scale\n12;Motor;Nobody's", "no scale"),
        (ListName.WEIGHINGS, f"reading;pan;time\n12;{MOTOR};yesterday", "cannot be read"),
        (ListName.WEIGHINGS, f"reading;pan\n90000;{MOTOR}", "at most"),
        (ListName.WEIGHINGS, "reading;pan\n12;Motor x nine", "no part"),
        (ListName.THROWS, "distance;settings\n12;Flap 3 mm", "no control"),
        (ListName.THROWS, "distance;what it did\n12;flew", "write one of"),
        (ListName.THROWS, "distance\n99999", "distance is 99999.0; it should be at most 300"),
        (ListName.THROWS, "distance;wind\n12;90", "wind is 90.0; it should be at most"),
        (ListName.THROWS, "distance\n0", "distance is 0.0; it should be more than 0"),
        (ListName.THROWS, "distance;seconds\n12;-1", "seconds is -1.0; it should be more than 0"),
        (ListName.THROWS, "distance;time\n12;1000-01-01", "time must be a date between 1970"),
        (ListName.THROWS, f"distance;note\n12;{'x' * 2001}", "note "),
        (ListName.WEIGHINGS, f"reading;pan\n12;{MOTOR} x 0", "on the pan is 0.0"),
        (ListName.WEIGHINGS, f"reading;pan\n12;{MOTOR} x 99999", "on the pan is 99999.0"),
        (ListName.WEIGHINGS, f"reading;pan;time\n12;{MOTOR};0001-01-01", "time must be a date"),
        (ListName.WEIGHINGS, f"reading;pan;time\n12;{MOTOR};9999-12-31 23:59", "between 2000"),
        (ListName.WEIGHINGS, "reading;pan\n12;", "the pan is empty"),
        (ListName.LOADOUTS, "loadout;carries\n;Anvil", "has no name"),
        (ListName.RUNS, "pack;propeller;throttle\nNone;Such;0.5", "no pack"),
        (ListName.LOADOUTS, "loadout;carries\nHeavy;Anvil", "no option"),
    ],
)
def test_a_line_that_cannot_be_taken_says_why(what, text, says):
    build = sandpiper()
    if what is ListName.RUNS and build.power is None:
        build = replace(build, power=Power())
    told, entries = read_list(what, cells(text.encode()), build)
    assert entries == ()
    assert says in why_not(told.lines[0])


def test_a_file_without_the_columns_is_refused_in_words():
    with pytest.raises(BuildFaultError, match='the headings "reading" and "pan"'):
        read_list(ListName.WEIGHINGS, cells(b"a;b\n1;2"), sandpiper())


def test_through_the_api_it_is_looked_at_and_then_kept_once(demo):
    at = "/api/v1/builds/sandpiper"
    csv = demo.get(f"{at}/tables/weighings.csv").content.decode("utf-8-sig")
    fresh = csv.replace("\r\n", "\n").strip() + f'\n2026-03-08T09:00:00,62.4,"{MOTOR}"\n'
    sent = {"content": fresh.encode(), "headers": {"Content-Type": "application/octet-stream"}}
    told = demo.post(f"{at}/lists/weighings/preview", **sent).json()
    assert told["fresh"] == 1
    before = demo.get(at).json()
    for revision, count in ((before["revision"], 1), (before["revision"] + 1, 1)):
        headers = {**sent["headers"], "If-Match": f'"{revision}"'}
        kept = demo.post(f"{at}/lists/weighings", content=sent["content"], headers=headers)
        assert kept.status_code == 201, kept.text
        now = len(kept.json()["build"]["weighings"])
        assert now == len(before["build"]["weighings"]) + count


def test_a_list_that_was_kept_is_taken_back_in_one_step(demo):
    at = "/api/v1/builds/sandpiper"
    csv = f'reading g,on the pan,time\n62.4,"{MOTOR}",2026-03-08T09:00:00\n'.encode()
    before = demo.get(at).json()
    headers = {
        "Content-Type": "application/octet-stream",
        "If-Match": f'"{before["revision"]}"',
    }
    kept = demo.post(f"{at}/lists/weighings", content=csv, headers=headers).json()
    assert kept["build"]["weighings"][-1]["set_aside"] is None
    undone = demo.post(f"{at}/undo", headers={"If-Match": f'"{kept["revision"]}"'})
    assert undone.status_code == 200, undone.text
    told = demo.get(at).json()
    assert told["build"]["weighings"][-1]["set_aside"]
    assert told["assessment"]["loadouts"][0]["answers"][0]["value"] == pytest.approx(
        before["assessment"]["loadouts"][0]["answers"][0]["value"], abs=1e-6
    )


def of_a_drive(rows: str):
    """A list of runs, read into the Sandpiper with its own drive: its first pack and propeller."""
    build = sandpiper()
    named = f"{build.power.packs[0].name};{build.power.propellers[0].name}"
    text = "pack;propeller;throttle;thrust;amps;volts\n" + rows.replace("{}", named)
    return read_list(ListName.RUNS, cells(text.encode()), build)


@pytest.mark.parametrize(
    ("row", "says"),
    [
        ("{};1;99999999;12;11", "thrust is 1e+08 gf; it should be at most"),
        ("{};1;500;-5;11", "amps is -5.0; it should be at least 0"),
        ("{};1;500;12;99", "volts is 99 V, more than 3 cells have"),
        ("{};1;500;12;3", "volts is 3 V, less than 3 cells have"),
        ("{};101;500;12;11", "the throttle goes from 0 to 1"),
        ("{};;500;12;11", "the throttle goes from 0 to 1"),
        ("Nothing;6 x 3;1;500;12;11", 'there is no pack "Nothing"'),
    ],
)
def test_a_point_that_cannot_be_says_why_and_the_others_come_in(row, says):
    told, (run,) = of_a_drive(f"{{}};50;200;5;11.4\n{row}\n{{}};1;520;12,5;11,0\n")
    assert [bool(each.why_not) for each in told.lines] == [False, True, False]
    assert says in why_not(told.lines[1])
    assert [(each.throttle, each.thrust_gf) for each in run.points] == [(0.5, 200.0), (1.0, 520.0)]


def test_what_cannot_be_kept_takes_nothing_else_down_and_the_build_goes_out_as_a_file(demo):
    """A reading of the year 1 came in once, and no file went out any more."""
    at = "/api/v1/builds/sandpiper"
    csv = (
        f'reading,on the pan,time\n62.4,"{MOTOR}",2026-03-08T09:00:00\n'
        f'62.5,"{MOTOR}",0001-01-01T00:00:00\n62.6,"{MOTOR} x 0",2026-03-08T09:01:00\n'
    )
    before = demo.get(at).json()
    headers = {
        "Content-Type": "application/octet-stream",
        "If-Match": f'"{before["revision"]}"',
    }
    kept = demo.post(f"{at}/lists/weighings", content=csv.encode(), headers=headers)
    assert kept.status_code == 201, kept.text
    assert len(kept.json()["build"]["weighings"]) == len(before["build"]["weighings"]) + 1
    file = demo.get(f"{at}/file")
    assert file.status_code == 200
    again = demo.post("/api/v1/builds/import", content=file.content)
    assert again.status_code in (200, 201), again.text


def test_nothing_is_kept_that_no_file_could_hold():
    """By whatever door it comes: a reading that is new is looked at, those that were there not."""
    build = sandpiper()
    old = replace(build.weighings[0], id="old", at=datetime(1, 1, 1, tzinfo=UTC))
    there = replace(build, weighings=(old, *build.weighings))
    with pytest.raises(BuildFaultError, match="must be a date between 2000 and 2199"):
        exportable(there, build)
    assert exportable(there, there) is there
    assert exportable(replace(there, name="Other"), there).name == "Other"
    assert exportable(build) is build


def test_a_whole_plane_of_many_parts_on_the_pan_goes_out_and_comes_in():
    """200 names of 40 letters in one cell."""
    parts = tuple(
        Part(
            f"p{k}",
            f"{k:03} {'a part with a long name ' * 2}"[:40].strip(),
            Pedigree.GUESS,
            stated_g=3.0,
        )
        for k in range(200)
    )
    build = replace(emptied(sandpiper()), parts=parts)
    whole = Pan(tuple(sorted(Load(each.id) for each in parts)))
    reading = Weighing("all", datetime(2026, 3, 8, tzinfo=UTC), build.scales[0].id, 600.0, whole)
    rows = out(replace(build, weighings=(reading,)), ListName.WEIGHINGS)
    told, (entry,) = read_list(ListName.WEIGHINGS, rows, build)
    assert told.lines[0].why_not is None
    assert entry.pan == whole


@pytest.mark.parametrize("between", [",", ";", "\t"])
def test_what_stands_in_quotes_divides_no_columns_and_breaks_no_line(between):
    """Most of the semicolons and commas are within the cells."""
    many = "; ".join(["Left wing panel", "Right wing panel, outer", 'Rod 8"'] * 4).replace(
        '"', '""'
    )
    rows = [
        ["reading", "on the pan", "note"],
        ["12.5", f'"{many}"', '"first line\nsecond line"'],
        ["13", "Motor", ""],
    ]
    text = "\r\n".join(between.join(row) for row in rows)
    assert cells(text.encode()) == [
        ["reading", "on the pan", "note"],
        ["12.5", many.replace('""', '"'), "first line second line"],
        ["13", "Motor", ""],
    ]


ODD_NAMES = (
    "Rod; carbon",
    "Rod",
    "carbon",
    "Screws x 4",
    "Screws",
    "12 g known",
    "2 dm2 of Sheet A",
    'Propeller 8" x 4"',
    "=SUM(A1)",
    "'quoted'",
    "Müller, left",
    "A; b; c",
    "-3 mm",
)


@pytest.mark.parametrize("comma", [False, True])
def test_whatever_a_part_is_called_its_readings_come_in_again(comma):
    base = emptied(sandpiper())
    parts = tuple(
        Part(f"p{k}", name, Pedigree.GUESS, stated_g=3.0, option=True)
        for k, name in enumerate(ODD_NAMES)
    )
    controls = tuple(
        Control(f"c{k}", name, ControlKind.TAB, base.surfaces[0].id)
        for k, name in enumerate(ODD_NAMES)
    )
    bare = replace(
        base,
        parts=parts,
        loadouts=(),
        field=replace(base.field, controls=controls, throws=(), ticks=(), stances=()),
    )
    at = datetime(2026, 3, 8, tzinfo=UTC)
    pans = [Pan((Load(each.id),)) for each in parts]
    pans += [Pan((Load(each.id, 2.5),)) for each in parts]
    pans.append(
        Pan(tuple(sorted(Load(each.id, 1.0 + k) for k, each in enumerate(parts))), known_g=5.0)
    )
    full = replace(
        bare,
        weighings=tuple(
            Weighing(f"r{k}", at, base.scales[0].id, 10.0 + k, pan) for k, pan in enumerate(pans)
        ),
        loadouts=tuple(
            Loadout(f"l{k}", f"Loadout {each.name}", (each.id, parts[0].id) if k else (each.id,))
            for k, each in enumerate(parts)
        ),
    )
    thrown = tuple(
        Throw(f"t{k}", at, settings=(Setting(each.id, -1.5),), distance_m=9.0)
        for k, each in enumerate(controls)
    )
    full = replace(full, field=replace(full.field, throws=thrown))
    for what in (ListName.LOADOUTS, ListName.WEIGHINGS, ListName.THROWS):
        told, entries = read_list(what, out(full, what, comma), bare)
        assert [each.why_not for each in told.lines if each.why_not] == []
        bare = with_list(bare, entries)
    assert [each.pan for each in bare.weighings] == pans
    assert [set(each.carries) for each in bare.loadouts] == [set(e.carries) for e in full.loadouts]
    assert [each.settings for each in bare.field.throws] == [each.settings for each in thrown]
