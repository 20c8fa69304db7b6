"""A damaged workshop is opened as far as it can be read, and the damaged file is kept."""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from oaken_scale.demo.workshop import load_demo
from oaken_scale.store.copies import back_up, folder_of
from oaken_scale.store.database import DatabaseRefusedError
from oaken_scale.store.rescue import is_sound, keep_note, rescue_if_damaged
from oaken_scale.workshop import Workshop

NOON = datetime(2026, 3, 9, 12, tzinfo=UTC)
PAGE = 4096


@pytest.fixture(scope="module")
def whole(tmp_path_factory) -> bytes:
    """The demo workshop, as one file."""
    path = tmp_path_factory.mktemp("whole") / "w.sqlite"
    load_demo(path)
    with closing(sqlite3.connect(path)) as connection:
        connection.execute("PRAGMA journal_mode = DELETE")
    return path.read_bytes()


def root_of(whole: bytes, table: str, folder: Path) -> int:
    """The number of a table's first page, from 0."""
    path = folder / "look.sqlite"
    path.write_bytes(whole)
    with closing(sqlite3.connect(path)) as connection:
        (page,) = connection.execute(
            "SELECT rootpage FROM sqlite_master WHERE name = ?", (table,)
        ).fetchone()
    return int(page) - 1


def damaged(whole: bytes, path: Path, pages, what: bytes = b"\xa5") -> Path:
    data = bytearray(whole)
    for page in pages:
        data[page * PAGE : (page + 1) * PAGE] = what * PAGE
    path.write_bytes(bytes(data))
    return path


def counted(path: Path) -> dict[str, int]:
    with closing(sqlite3.connect(path)) as connection:
        names = [
            name
            for (name,) in connection.execute(
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'"
            )
        ]
        return {
            name: connection.execute(f"SELECT count(*) FROM {name}").fetchone()[0] for name in names
        }


def test_a_sound_workshop_is_left_alone(whole, tmp_path):
    path = damaged(whole, tmp_path / "w.sqlite", ())
    assert is_sound(path)
    assert rescue_if_damaged(path, NOON) is None
    assert path.read_bytes() == whole


def test_a_lost_page_of_one_table_costs_that_table_only(whole, tmp_path):
    path = damaged(whole, tmp_path / "w.sqlite", [root_of(whole, "target", tmp_path)])
    before = tmp_path / "before.sqlite"
    before.write_bytes(whole)
    assert not is_sound(path)
    spoilt = path.read_bytes()
    told = rescue_if_damaged(path, NOON)
    assert is_sound(path)
    assert "target" in told.broken
    assert set(told.builds) == {"Sandpiper", "Night Heron", "Avocet", "Mayfly", "Dunlin"}
    assert told.damaged.read_bytes() == spoilt
    was, now = counted(before), counted(path)
    assert now["target"] == 0 < was["target"]
    assert {name: count for name, count in now.items() if "target" not in name} == {
        name: count for name, count in was.items() if "target" not in name
    }
    shop = Workshop(path)
    assert len(shop.shelf()) == 5
    assert shop.held("sandpiper").assessment.loadouts[0].answers[0].value > 500
    shop.close()


def test_builds_whose_own_rows_are_lost_come_back_with_what_hangs_on_them(whole, tmp_path):
    path = damaged(whole, tmp_path / "w.sqlite", [root_of(whole, "build", tmp_path)])
    told = rescue_if_damaged(path, NOON)
    assert told.builds
    assert set(told.builds) == {"Saved build"}
    assert told.readings > 20
    shop = Workshop(path)
    assert shop.held("sandpiper").assessment.loadouts[0].answers[0].value > 500
    shop.close()


@settings(max_examples=12, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(data=st.data())
def test_whatever_pages_are_lost_what_is_left_can_be_worked_with(whole, tmp_path, data):
    last = len(whole) // PAGE - 1
    pages = data.draw(st.sets(st.integers(1, last), min_size=1, max_size=6))
    what = data.draw(st.sampled_from([b"\0", b"\xff", b"\xa5"]))
    folder = tmp_path / f"{abs(hash((tuple(sorted(pages)), what)))}"
    folder.mkdir(exist_ok=True)
    path = damaged(whole, folder / "w.sqlite", pages, what)
    rescue_if_damaged(path, NOON)
    assert is_sound(path)
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA foreign_key_check").fetchone() is None
    shop = Workshop(path)
    for row, _ in shop.shelf():
        shop.held(row.id)
    shop.close()


def test_the_newest_copy_is_named_and_the_shed_says_what_was_saved(whole, tmp_path):
    good = damaged(whole, tmp_path / "w.sqlite", ())
    copy = back_up(good, folder_of(good) / "2026-03-08.sqlite")
    path = damaged(whole, good, [root_of(whole, "target", tmp_path)])
    told = rescue_if_damaged(path, NOON)
    assert told.newest_copy == copy
    assert str(copy) in told.words
    keep_note(path, told, NOON)
    shop = Workshop(path)
    assert shop.rescued() == told.words
    shop.close()


def test_what_is_no_database_any_more_is_refused_and_left(tmp_path, whole):
    path = damaged(whole, tmp_path / "w.sqlite", [0])
    spoilt = path.read_bytes()
    with pytest.raises(DatabaseRefusedError):
        rescue_if_damaged(path, NOON)
    assert path.read_bytes() == spoilt


def test_one_that_cannot_be_opened_now_is_not_called_damaged(whole, tmp_path):
    path = damaged(whole, tmp_path / "w.sqlite", ())
    with closing(sqlite3.connect(path)) as other:
        other.execute("PRAGMA locking_mode = EXCLUSIVE")
        other.execute("BEGIN EXCLUSIVE")
        assert is_sound(path)
        with pytest.raises(DatabaseRefusedError, match="locked"):
            rescue_if_damaged(path, NOON)
    assert path.read_bytes() == whole
    assert not folder_of(path).exists()
