import sqlite3
from dataclasses import replace

import pytest

from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.demo.workshop import load_demo
from oaken_scale.store import database
from oaken_scale.store.builds import add_build, read_build, write_changes
from oaken_scale.store.database import Database, DatabaseRefusedError, migrations
from tests.benches import MORNING, random_build

NEXT = len(migrations()) + 1
"""The number of a migration that is not there yet."""


@pytest.fixture
def store(tmp_path):
    opened = Database(tmp_path / "workshop.sqlite")
    yield opened
    opened.close()


def kept(store, build):
    with store.transaction() as connection:
        add_build(connection, build, MORNING)
    with store.reading() as connection:
        return read_build(connection, build.id)


@pytest.mark.parametrize("build", [sandpiper(), random_build(3)], ids=["demo", "random"])
def test_a_build_read_back_is_the_same_value(store, build):
    assert kept(store, build) == build


def test_equal_pans_are_one_object(store):
    build = kept(store, random_build(1, parts=4, readings=60))
    by_value = {}
    for weighing in build.weighings:
        assert by_value.setdefault(weighing.pan, weighing.pan) is weighing.pan


def test_migrations_are_numbered_without_a_gap():
    assert [number for number, _ in migrations()] == list(range(1, len(migrations()) + 1))


def test_an_older_database_is_brought_forward_with_its_builds(store, monkeypatch):
    kept(store, sandpiper())
    store.close()
    newer = (NEXT, "ALTER TABLE build ADD COLUMN colour TEXT;")
    monkeypatch.setattr(database, "migrations", lambda: [*migrations(), newer])
    again = Database(store.path)
    with again.reading() as connection:
        assert read_build(connection, "sandpiper") == sandpiper()
        assert connection.execute("PRAGMA user_version").fetchone() == (NEXT,)
        assert connection.execute("SELECT colour FROM build").fetchall() == [(None,)]
    again.close()


def test_a_migration_that_fails_leaves_the_file_as_it_was(store, monkeypatch):
    kept(store, sandpiper())
    store.close()
    broken = (NEXT, "ALTER TABLE build ADD COLUMN colour TEXT; SELECT no_such_column FROM build;")
    monkeypatch.setattr(database, "migrations", lambda: [*migrations(), broken])
    with pytest.raises(DatabaseRefusedError, match="cannot be opened to write"):
        Database(store.path)
    monkeypatch.undo()
    again = Database(store.path)
    with again.reading() as connection:
        assert read_build(connection, "sandpiper") == sandpiper()
    again.close()


def test_a_newer_database_is_refused_untouched(store):
    store.close()
    with sqlite3.connect(store.path) as connection:
        connection.execute("PRAGMA user_version = 99")
    connection.close()
    before = store.path.read_bytes()
    with pytest.raises(DatabaseRefusedError, match=r"newer Oaken Scale \(version 99"):
        Database(store.path)
    with pytest.raises(DatabaseRefusedError):
        load_demo(store.path)
    assert store.path.read_bytes() == before


@pytest.mark.parametrize("content", [b"not a database, only words", None], ids=["text", "foreign"])
def test_a_file_of_another_program_is_refused_untouched(tmp_path, content):
    path = tmp_path / "other.sqlite"
    if content is None:
        with sqlite3.connect(path) as connection:
            connection.execute("CREATE TABLE recipes (name TEXT)")
        connection.close()
    else:
        path.write_bytes(content)
    before = path.read_bytes()
    with pytest.raises(DatabaseRefusedError, match="name another file"):
        Database(path)
    assert path.read_bytes() == before


@pytest.mark.parametrize("table", ["weighing", "weighing_load", "weighing_sample"])
def test_the_log_takes_no_change_and_no_deletion(store, table):
    kept(store, sandpiper())
    for statement in (f"DELETE FROM {table}", f"UPDATE {table} SET build_id = build_id"):
        with pytest.raises(sqlite3.IntegrityError, match="append-only"), store.transaction() as c:
            c.execute(statement)


def test_a_transaction_that_fails_leaves_nothing_half_written(store):
    build = kept(store, sandpiper())
    fewer = replace(build, name="Changed", parts=build.parts[1:])
    with pytest.raises(sqlite3.IntegrityError), store.transaction() as connection:
        write_changes(connection, build, fewer)
    with store.reading() as connection:
        assert read_build(connection, build.id) == build


def test_commits_are_durable(store):
    with store.reading() as connection:
        assert connection.execute("PRAGMA journal_mode").fetchone() == ("wal",)
        assert connection.execute("PRAGMA synchronous").fetchone() == (2,)
        assert connection.execute("PRAGMA foreign_keys").fetchone() == (1,)


def test_a_file_of_the_first_version_opens_with_what_it_held(tmp_path):
    path = tmp_path / "first.sqlite"
    connection = sqlite3.connect(path)
    connection.executescript(migrations()[0][1])
    connection.executescript(
        f"""
        PRAGMA user_version = 1;
        PRAGMA application_id = {database.APPLICATION_ID};
        INSERT INTO build (id, name, created_at) VALUES ('old', 'Old', '2026-01-02T10:00:00+00:00');
        INSERT INTO scale VALUES ('old', 'kitchen', 0, 'Kitchen', 0.1, NULL, 0.003, 3000, 0);
        INSERT INTO item (build_id, id, place, name, pedigree, stated_g)
          VALUES ('old', 'wing', 0, 'Wing', 'guess', 90);
        INSERT INTO weighing (build_id, id, at, scale_id, reading_g, known_g)
          VALUES ('old', 'r1', '2026-01-02T11:00:00+00:00', 'kitchen', 88.4, 0);
        INSERT INTO weighing_load VALUES (1, 'old', 'wing', 1);
        """
    )
    connection.close()
    store = Database(path)
    with store.reading() as reading:
        build = read_build(reading, "old")
        assert reading.execute("PRAGMA user_version").fetchone() == (NEXT - 1,)
    store.close()
    assert build.parts[0].stated_g == 90
    assert build.weighings[0].reading_g == 88.4
    assert build.joints == ()
