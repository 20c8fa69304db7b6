"""The field in the database: any change is read back as it was written, and what grew is added."""

from dataclasses import replace
from datetime import UTC, date, datetime

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.model.balancing import Stood
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import (
    Control,
    ControlKind,
    FieldLog,
    Note,
    NoteKind,
    OwnLine,
    Seen,
    Setting,
    Stance,
    Throw,
    Tick,
)
from oaken_scale.store.builds import add_build, read_build, write_changes
from oaken_scale.store.database import Database

AT = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)


@pytest.fixture(scope="module")
def store(tmp_path_factory):
    opened = Database(tmp_path_factory.mktemp("field") / "own.sqlite")
    yield opened
    opened.close()


def unique(each):
    return st.lists(each, max_size=5, unique_by=lambda one: one.id).map(tuple)


ids = st.sampled_from(["a", "b", "c", "d", "e", "f"])
mm = st.floats(-20, 20).map(lambda value: round(value, 2))
figure = st.none() | st.floats(0.1, 100).map(lambda value: round(value, 2))
controls = st.builds(
    Control,
    ids,
    st.just("Tab"),
    st.sampled_from(ControlKind),
    st.just("wing"),
    up_mm=figure,
    horn_mm=figure,
    with_aileron=st.booleans(),
    set_mm=mm,
)
throws = st.builds(
    Throw,
    ids,
    st.just(AT),
    st.none() | st.just("big"),
    st.lists(st.builds(Setting, ids, mm), max_size=3).map(tuple),
    st.none() | st.sampled_from(Seen),
    figure,
    figure,
    figure,
    set_aside=st.none() | st.just("post"),
    cg_mm=figure,
)
ticks = st.builds(Tick, ids, st.just(AT), st.just("wind"), done=st.booleans(), stance=ids)
stances = st.builds(
    Stance,
    ids,
    st.lists(st.builds(Stood, ids, figure, mm, mm), max_size=3).map(tuple),
)
notes = st.builds(
    Note,
    ids,
    st.just(AT),
    st.sampled_from(NoteKind),
    st.just("words"),
    st.none() | st.just(date(2026, 10, 1)),
    st.booleans(),
)
logs = st.builds(
    FieldLog,
    unique(controls),
    unique(throws),
    unique(ticks),
    unique(stances),
    unique(st.builds(OwnLine, ids, st.just("line"))),
    unique(notes),
)


@given(logs, logs)
def test_any_change_is_read_back_as_it_was_written(store, before, after):
    with store.transaction() as connection:
        connection.execute("DELETE FROM build")
        add_build(connection, Build("b", "B", field=before), AT)
        assert read_build(connection, "b").field == before
        changed = Build("b", "B", field=after)
        write_changes(connection, Build("b", "B", field=before), changed)
        assert read_build(connection, "b").field == after


def test_what_grew_is_added_and_nothing_else_is_written(store):
    throw = Throw("t0", AT, settings=(Setting("tab", -1.0),), distance_m=9.0)
    one = Build("b", "B", field=FieldLog(throws=(throw,)))
    two = replace(one, field=FieldLog(throws=(throw, replace(throw, id="t1"))))
    with store.transaction() as connection:
        connection.execute("DELETE FROM build")
        add_build(connection, one, AT)
        said: list[str] = []
        connection.set_trace_callback(said.append)
        write_changes(connection, one, two)
        connection.set_trace_callback(None)
        assert read_build(connection, "b") == two
    assert not any(each.startswith("DELETE") for each in said)
    assert sum(each.startswith("INSERT INTO throw (") for each in said) == 1
