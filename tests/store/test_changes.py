"""Whatever changes in a build, what is written is what is read."""

import sqlite3
import tempfile
from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.balancing import BalanceCheck, Stood
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.diary import DiaryEntry
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Known, Lot, LotUnit, Use
from oaken_scale.core.model.part import HABITUAL, Habit, Part, Pedigree
from oaken_scale.core.model.power import Flight, Pack, Power, Propeller, Run
from oaken_scale.core.model.target import Allotment, Budget, Target
from oaken_scale.core.model.weighing import Scale
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
from tests.declared import values


def unique(things):
    return tuple({thing.id: thing for thing in things}.values())


def of(things) -> st.SearchStrategy:
    """The id of one of them, where there are any."""
    return st.sampled_from([thing.id for thing in things] or ["none"])


def some(things) -> st.SearchStrategy:
    """The ids of some of them, each once."""
    return st.lists(of(things), unique=True, max_size=5 if things else 0).map(tuple)


def several(each, most=3) -> st.SearchStrategy:
    return st.lists(each, max_size=most).map(unique)


def one_of_a_kind(each, kind) -> st.SearchStrategy:
    return st.lists(each, max_size=4, unique_by=kind).map(tuple)


@st.composite
def drives(draw, parts) -> Power:
    """A drive whose packs may be parts, with runs of what it has."""
    packs = draw(several(values(Pack, part=(st.none() | of(parts)) if parts else st.none())))
    propellers = draw(several(values(Propeller)))
    run = values(Run, pack=of(packs), propeller=of(propellers))
    flight = values(Flight, pack=of(packs))
    return draw(
        values(
            Power,
            packs=st.just(packs),
            propellers=st.just(propellers),
            runs=several(run, most=3 if packs and propellers else 0),
            flights=several(flight, most=3 if packs else 0),
        )
    )


@st.composite
def targets(draw) -> Target:
    """A target whose low end is below its high one."""
    target = draw(values(Target))
    ends = sorted({each for each in (target.low, target.high) if each is not None})
    if len(ends) == 2:
        return replace(target, low=ends[0], high=ends[1])
    return replace(target, low=None, high=ends[0] if ends else 1.0)


@st.composite
def builds(draw) -> Build:
    """A build of any shape that holds together, without readings: whatever is declared of its
    fields, and what names another part of it names one that is there."""
    lots = draw(several(values(Lot)))
    use = values(Use, lot=of(lots))
    parts = draw(
        several(values(Part, uses=st.lists(use, max_size=2 if lots else 0).map(tuple)), most=5)
    )
    options = [each for each in parts if each.option]
    build = values(
        Build,
        id=st.just("b"),
        lots=st.just(lots),
        parts=st.just(parts),
        loadouts=several(values(Loadout, carries=some(options))),
        targets=one_of_a_kind(targets(), lambda each: each.kind),
        budget=st.none()
        | values(Budget, allotments=one_of_a_kind(values(Allotment), lambda each: each.group)),
        joints=several(values(Joint, parts=some(parts))),
        diary=several(values(DiaryEntry, parts=some(parts))),
        checks=several(
            values(
                BalanceCheck,
                stood=one_of_a_kind(values(Stood, part=of(parts)), lambda each: each.part)
                if parts
                else st.just(()),
            )
        ),
        habits=one_of_a_kind(
            values(Habit, pedigree=st.sampled_from(HABITUAL)), lambda each: each.pedigree
        ),
        allowance=st.none() | values(Known, value=st.floats(0, 1), doubt=st.floats(0.001, 1)),
        power=st.none() | drives(parts),
        weighings=st.just(()),
    )
    return draw(build)


@cache
def migrated() -> bytes:
    """An empty database, brought up to date once."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "w.sqlite"
        Database(path).close()
        return path.read_bytes()


@given(builds(), builds())
@settings(max_examples=40, deadline=None)
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
    motor = Part("m", "Motor", Pedigree.LISTING, stated_g=44.0, thing="motor")
    gone = replace(motor, id="old", retired=True)
    made = (
        Build("one", "One", lots=(sheet,), parts=(motor,)),
        Build("two", "Two", lots=(sheet,)),
        Build("three", "Three", parts=(motor, gone)),
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
    wing = Part("wing", "Wing", Pedigree.GUESS, stated_g=90)
    with opened.transaction() as connection:
        add_build(
            connection,
            Build("b", "B", parts=(wing,), scales=(Scale("kitchen", "K", 0.1),)),
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


def test_the_truth_goes_with_its_part(store):
    with store.transaction() as connection:
        write_truth(connection, "b", {"wing": 88.0}, {})
        assert read_truth(connection, "b") == ({"wing": 88.0}, {})
        build = read_build(connection, "b")
        write_changes(connection, build, replace(build, parts=()))
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
