"""Whatever changes in a build, what is written is what is read."""

import sqlite3
import tempfile
from dataclasses import replace
from datetime import UTC, datetime
from functools import cache
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, CheckKind, PlanMark
from oaken_scale.core.model.body import Body, BodyShape, Drawn, Frame
from oaken_scale.core.model.build import (
    Allotment,
    BalanceUnit,
    Budget,
    Build,
    Container,
    Group,
    Item,
    Joint,
    Loadout,
    Pedigree,
    Profile,
    Reference,
    Role,
    Scale,
    Section,
    Slide,
    Station,
    Surface,
    Target,
    TargetKind,
    Thrust,
)
from oaken_scale.core.model.day import Day, Done, OwnStep, StepKind
from oaken_scale.core.model.diary import Happening, HappeningKind
from oaken_scale.core.model.fitting import Bay, Fit, FitRole
from oaken_scale.core.model.lot import Curing, Faces, Known, Lot, LotKind, LotUnit, Quality, Use
from oaken_scale.core.model.pattern import Grain, Pattern
from oaken_scale.core.model.power import (
    Controller,
    Flight,
    Motor,
    Pack,
    Power,
    Propeller,
    Regulator,
    Run,
    RunPoint,
    Stand,
)
from oaken_scale.core.model.reference_build import Past, PastPart
from oaken_scale.store.builds import (
    add_build,
    put_away,
    raise_revision,
    read_build,
    revision,
    shelf,
    write_changes,
)
from oaken_scale.store.database import Database
from oaken_scale.store.drawer import (
    holding,
    read_drawer,
    take_out_of_drawer,
    write_thing,
)
from oaken_scale.store.log import accept, append_weighing, set_aside
from oaken_scale.store.rack import (
    read_rack,
    sharing,
    take_off_rack,
    using_lot,
    write_rack_lot,
)
from oaken_scale.store.truth import read_truth, write_truth
from tests.benches import MORNING, reading

NAMES = st.text(
    st.characters(codec="utf-8", exclude_categories=["Cc", "Cs"]), min_size=1, max_size=12
)
IDS = st.sampled_from("abcdefgh")
NUMBERS = st.floats(-900, 900)
SIZES = st.floats(0.01, 900)
RINGS = st.lists(st.tuples(NUMBERS, NUMBERS), min_size=3, max_size=5).map(tuple)
PATTERNS = st.builds(
    Pattern, st.lists(RINGS, min_size=1, max_size=3).map(tuple), st.sampled_from(Grain),
    st.integers(1, 20),
)  # fmt: skip
MOMENTS = st.datetimes(datetime(2020, 1, 1), datetime(2030, 1, 1), timezones=st.just(UTC))


def unique(things):
    return tuple({thing.id: thing for thing in things}.values())


@st.composite
def drives(draw, items: list[str]) -> Power:
    """A drive whose packs may be parts, with runs of what it has."""
    maybe = st.none() | SIZES
    part = st.none() | st.sampled_from(items) if items else st.none()
    packs = unique(
        draw(
            st.lists(st.builds(Pack, IDS, NAMES, st.integers(1, 6), SIZES, maybe, part), max_size=3)
        )
    )
    propellers = unique(draw(st.lists(st.builds(Propeller, IDS, NAMES, SIZES, SIZES), max_size=2)))
    point = st.builds(RunPoint, st.floats(0, 1), maybe, maybe, maybe, SIZES)
    run = st.builds(
        Run,
        IDS,
        MOMENTS,
        st.sampled_from([each.id for each in packs] or ["none"]),
        st.sampled_from([each.id for each in propellers] or ["none"]),
        st.lists(point, max_size=3).map(tuple),
        st.floats(3, 4),
        NAMES,
        st.none() | NAMES,
        SIZES,
        st.floats(0, 0.4),
        *[st.none() | NUMBERS] * 4,
    )
    flown = st.sampled_from([each.id for each in packs] or ["none"])
    flight = st.builds(Flight, IDS, MOMENTS, flown, SIZES, maybe, maybe, NAMES, st.none() | NAMES)
    cells = st.none() | st.integers(1, 14)
    return Power(
        draw(st.builds(Motor, SIZES, SIZES, maybe, maybe, maybe)),
        draw(st.integers(1, 8)),
        draw(st.none() | st.builds(Controller, SIZES, maybe, maybe, cells, cells)),
        propellers,
        packs,
        unique(draw(st.lists(run, max_size=2 if packs and propellers else 0))),
        draw(st.none() | st.builds(Regulator, SIZES, st.none() | st.floats(0, 9), cells)),
        draw(maybe),
        draw(maybe),
        draw(st.none() | st.floats(0.01, 1)),
        draw(st.floats(0, 1)),
        draw(st.none() | st.builds(Stand, NAMES, st.integers(300, 9600), NAMES)),
        unique(draw(st.lists(flight, max_size=2 if packs else 0))),
    )  # fmt: skip


@st.composite
def builds(draw) -> Build:
    """A build of any shape that holds together, without readings."""
    maybe = st.none() | SIZES
    known = st.none() | st.builds(Known, SIZES, SIZES, NAMES)
    lots = unique(draw(st.lists(st.builds(
        Lot, IDS, NAMES, st.sampled_from(LotUnit), SIZES, SIZES, NAMES, st.sampled_from(LotKind),
        st.none() | st.sampled_from(Faces), maybe, maybe, maybe, maybe, maybe,
        st.none() | st.floats(1, 5), NAMES, maybe,
        st.none() | st.builds(Curing, SIZES, maybe, SIZES, SIZES),
        st.lists(st.sampled_from(Quality), unique=True, max_size=3).map(tuple), NAMES, maybe,
        st.none() | IDS, known), max_size=3)))  # fmt: skip
    use = st.builds(Use, st.sampled_from([lot.id for lot in lots] or ["none"]), NUMBERS)
    uses = st.lists(use, max_size=2 if lots else 0).map(tuple)
    station = st.builds(
        Station, NUMBERS, NUMBERS, NUMBERS, st.sampled_from(Reference), st.none() | SIZES
    )
    item = st.builds(
        Item, IDS, NAMES, st.sampled_from(Pedigree), NAMES, st.none() | NUMBERS,
        uses, st.none() | SIZES, st.integers(1, 9),
        st.none() | station, st.booleans(), st.booleans(),
        st.none() | IDS, known, st.none() | st.sampled_from(Group), maybe,
        st.none() | IDS, st.none() | IDS, st.none() | MOMENTS, st.none() | MOMENTS,
        st.none() | st.builds(Slide, NUMBERS, NUMBERS), st.none() | PATTERNS,
        st.none() | st.builds(Drawn, IDS, NAMES, st.booleans()),
        st.none() | st.builds(Fit, maybe, maybe, maybe, maybe, st.none() | IDS, st.none() | IDS,
            st.none() | st.sampled_from(FitRole)),
    )  # fmt: skip
    items = unique(draw(st.lists(item, max_size=5)))
    some = st.lists(
        st.sampled_from([i.id for i in items] or ["none"]), unique=True,
        max_size=5 if items else 0).map(tuple)  # fmt: skip
    options = [each.id for each in items if each.option]
    carries = st.lists(st.sampled_from(options), unique=True).map(tuple) if options else st.just(())
    section = st.builds(Section, NUMBERS, NUMBERS, NUMBERS, SIZES)
    return Build(
        id="b",
        name=draw(NAMES),
        notes=draw(NAMES),
        lots=lots,
        items=items,
        surfaces=unique(draw(st.lists(st.builds(
            Surface, IDS, NAMES, st.sampled_from(Role),
            st.lists(section, min_size=2, max_size=3).map(tuple),
            st.none() | st.sampled_from(Profile), maybe, st.floats(-9, 9), st.booleans()),
            max_size=3))),
        bodies=unique(draw(st.lists(st.builds(
            Body, IDS, NAMES, st.sampled_from(BodyShape),
            st.lists(st.builds(Frame, NUMBERS, NUMBERS, SIZES, SIZES), min_size=2,
                max_size=3).map(tuple), NUMBERS, st.booleans(), st.booleans()), max_size=2))),
        bays=unique(draw(st.lists(st.builds(
            Bay, IDS, NAMES, NUMBERS, SIZES, SIZES, SIZES, NUMBERS, NUMBERS), max_size=2))),
        scales=unique(draw(st.lists(st.builds(
            Scale, IDS, NAMES, SIZES, st.none() | SIZES, st.floats(0, 0.1), SIZES, st.booleans(),
            NAMES, NAMES, st.integers(300, 9600)), max_size=2))),
        containers=unique(draw(st.lists(
            st.builds(Container, IDS, NAMES, SIZES, SIZES), max_size=2))),
        loadouts=unique(draw(st.lists(st.builds(Loadout, IDS, NAMES, carries), max_size=3))),
        targets=tuple({t.kind: t for t in draw(st.lists(st.builds(
            Target, st.sampled_from(TargetKind), st.floats(0, 5), st.none() | st.floats(6, 9),
            NAMES, st.sampled_from(BalanceUnit)), max_size=4))}.values()),
        joints=unique(draw(st.lists(st.builds(
            Joint, IDS, NAMES, NAMES, MOMENTS, SIZES, st.none() | SIZES, SIZES, SIZES,
            some, st.booleans()), max_size=3))),
        happenings=unique(draw(st.lists(st.builds(
            Happening, IDS, MOMENTS, st.sampled_from(HappeningKind), NAMES, some), max_size=3))),
        checks=unique(draw(st.lists(st.builds(
            BalanceCheck, IDS, MOMENTS, st.sampled_from(CheckKind), st.none() | IDS, NUMBERS,
            NAMES, st.none() | NUMBERS, maybe, st.none() | IDS, st.none() | NUMBERS,
            st.none() | NUMBERS, maybe, NAMES, st.none() | NAMES), max_size=3))),
        ballast=draw(st.builds(Ballast, st.lists(st.builds(
            BallastSpot, IDS, NAMES, NUMBERS, NUMBERS, NUMBERS, SIZES, st.booleans()),
            max_size=3).map(unique), st.lists(SIZES, max_size=3).map(tuple))),
        plan_mark=draw(st.none() | st.builds(PlanMark, NUMBERS, SIZES)),
        past=draw(st.none() | st.builds(Past, NAMES, st.lists(
            st.builds(PastPart, NAMES, NUMBERS), max_size=3).map(tuple))),
        allowance=draw(known),
        power=draw(st.none() | drives([each.id for each in items])),
        day=draw(st.builds(
            Day, st.lists(NAMES, max_size=3).map(tuple),
            st.lists(st.builds(Done, NAMES, st.sampled_from(StepKind), MOMENTS, maybe, maybe),
                max_size=3).map(tuple),
            st.lists(st.builds(OwnStep, IDS, NAMES, SIZES), max_size=2).map(unique))),
        finished_at=draw(st.none() | MOMENTS),
        variant_of=draw(st.none() | IDS),
        budget=draw(st.none() | st.builds(
            Budget, st.lists(st.builds(Allotment, st.sampled_from(Group), SIZES),
                             unique_by=lambda each: each.group).map(tuple), NAMES)),
        thrust=draw(st.none() | st.builds(
            Thrust, SIZES, st.none() | SIZES, NAMES, st.none() | NUMBERS, st.none() | NUMBERS)),
    )  # fmt: skip


@cache
def migrated() -> bytes:
    """An empty database, brought up to date once."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "w.sqlite"
        Database(path).close()
        return path.read_bytes()


@given(builds(), builds())
@settings(max_examples=60, deadline=None)
def test_any_change_is_read_back_as_it_was_written(before, after):
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "w.sqlite"
        path.write_bytes(migrated())
        store = Database(path)
        with store.transaction() as connection:
            add_build(connection, before, MORNING)
            assert read_build(connection, "b") == before
        with store.transaction() as connection:
            write_changes(connection, before, after)
            raise_revision(connection, "b")
        with store.reading() as connection:
            assert read_build(connection, "b") == after
            assert revision(connection, "b") == 2
        store.close()


def test_the_rack_and_the_drawer_are_read_back_as_they_were_written(tmp_path):
    store = Database(tmp_path / "w.sqlite")
    lots = [replace(lot, rack=lot.id) for lot in STARTER]
    motor = Thing(
        "motor", "Motor", ThingKind.MOTOR, 44.0, False, 12.5, "spare", 3, 850.0, 30.0, 1950.0, 18.0
    )
    with store.transaction() as connection:
        for lot in lots:
            write_rack_lot(connection, lot)
        write_thing(connection, motor)
    dearer = replace(lots[3], price=9.0, source="bought again", stock=2.0)
    with store.transaction() as connection:
        write_rack_lot(connection, dearer)
        write_thing(connection, replace(motor, listing_g=45.0))
    with store.reading() as connection:
        assert read_rack(connection) == (*lots[:3], dearer, *lots[4:])
        assert read_drawer(connection) == (replace(motor, listing_g=45.0),)
    with store.transaction() as connection:
        take_off_rack(connection, dearer.id)
        take_out_of_drawer(connection, "motor")
    with store.reading() as connection:
        assert read_rack(connection) == (*lots[:3], *lots[4:])
        assert read_drawer(connection) == ()
    store.close()


def test_builds_share_what_they_took_from_the_rack_and_the_drawer(tmp_path):
    store = Database(tmp_path / "w.sqlite")
    sheet = Lot("a", "A", LotUnit.DM2, 4.6, 0.4, rack="sheet")
    motor = Item("m", "Motor", Pedigree.LISTING, stated_g=44.0, thing="motor")
    gone = replace(motor, id="old", retired=True)
    made = (
        Build("one", "One", lots=(sheet,), items=(motor,)),
        Build("two", "Two", lots=(sheet,)),
        Build("three", "Three", items=(motor, gone)),
        Build("four", "Four", lots=(replace(sheet, rack=None),)),
    )
    with store.transaction() as connection:
        for build in made:
            add_build(connection, build, MORNING)
    with store.reading() as connection:
        assert sorted(sharing(connection, "one")) == ["three", "two"]
        assert sharing(connection, "four") == []
        assert sorted(using_lot(connection, "sheet")) == ["one", "two"]
        assert holding(connection, "motor") == [("one", "m"), ("three", "m")]
    store.close()


@pytest.fixture
def store(tmp_path):
    opened = Database(tmp_path / "w.sqlite")
    wing = Item("wing", "Wing", Pedigree.GUESS, stated_g=90)
    with opened.transaction() as connection:
        add_build(
            connection,
            Build("b", "B", items=(wing,), scales=(Scale("kitchen", "K", 0.1),)),
            MORNING,
        )
    yield opened
    opened.close()


def test_readings_come_back_in_the_order_they_came(store):
    for n, grams in enumerate((91.0, 90.0, 92.0)):
        with store.transaction() as connection:
            append_weighing(connection, "b", replace(reading(-n, grams, "wing"), id=f"w{n}"))
    with store.reading() as connection:
        read = read_build(connection, "b").weighings
    assert [each.reading_g for each in read] == [91.0, 90.0, 92.0]


def test_the_last_word_on_a_reading_counts(store):
    with store.transaction() as connection:
        append_weighing(connection, "b", reading(1, 90.0, "wing"))
    for reason in ("bumped", None, "tray on"):
        with store.transaction() as connection:
            set_aside(connection, "b", "r1", reason, MORNING)
        with store.reading() as connection:
            assert read_build(connection, "b").weighings[0].set_aside == reason
    with store.reading() as connection:
        assert connection.execute("SELECT count(*) FROM setting_aside").fetchone() == (3,)


def test_the_shelf_keeps_what_is_put_away(store):
    with store.transaction() as connection:
        put_away(connection, "b", MORNING)
    with store.reading() as connection:
        (row,) = shelf(connection)
    assert row.put_away
    assert row.created_at == MORNING


def test_the_truth_goes_with_its_item(store):
    with store.transaction() as connection:
        write_truth(connection, "b", {"wing": 88.0}, {})
        assert read_truth(connection, "b") == ({"wing": 88.0}, {})
        build = read_build(connection, "b")
        write_changes(connection, build, replace(build, items=()))
        assert read_truth(connection, "b") == ({}, {})


def test_a_reading_remembers_what_it_corrects_and_whether_it_was_accepted(store):
    with store.transaction() as connection:
        append_weighing(connection, "b", reading(1, 120.0, "wing"))
        append_weighing(connection, "b", replace(reading(2, 90.0, "wing"), corrects="r1"))
    for accepted in (True, False, True):
        with store.transaction() as connection:
            accept(connection, "b", "r1", accepted, MORNING)
        with store.reading() as connection:
            first, second = read_build(connection, "b").weighings
        assert (first.accepted, first.corrects) == (accepted, None)
        assert (second.accepted, second.corrects) == (False, "r1")


@pytest.mark.parametrize(
    "statement",
    [
        "DELETE FROM acceptance",
        "UPDATE acceptance SET accepted = 0",
        "UPDATE weighing SET corrects = NULL",
    ],
)
def test_what_was_said_of_a_reading_is_never_rewritten(store, statement):
    with store.transaction() as connection:
        append_weighing(connection, "b", replace(reading(1, 90.0, "wing"), corrects="r0"))
        accept(connection, "b", "r1", True, MORNING)
    with (
        pytest.raises(sqlite3.IntegrityError, match="append-only"),
        store.transaction() as connection,
    ):
        connection.execute(statement)
