"""Copies of a workshop: made under load, checked, put back, rolled, refused."""

import sqlite3
import threading
from contextlib import closing
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.cli import main
from oaken_scale.demo.workshop import load_demo
from oaken_scale.store import copies
from oaken_scale.store.copies import CopyError, back_up, folder_of, kept_of, restore, roll
from oaken_scale.store.database import Database, DatabaseRefusedError
from oaken_scale.workshop import Workshop
from tests.http import HTTP

NOON = datetime(2026, 3, 9, 12, tzinfo=UTC)


@pytest.fixture
def shop(tmp_path) -> Path:
    """A whole workshop that nobody serves."""
    path = tmp_path / "shop.sqlite"
    load_demo(path)
    return path


def contents(path: Path) -> list[str]:
    with closing(sqlite3.connect(path)) as connection:
        return list(connection.iterdump())


def test_a_copy_is_the_whole_workshop_and_comes_back(shop, tmp_path):
    copy, whole = tmp_path / "copy.sqlite", contents(shop)
    back_up(shop, copy)
    assert contents(copy) == whole
    opened = Workshop(shop)
    hidden = opened.truth("sandpiper")
    opened.put_away("mayfly", away=True)
    opened.close()
    changed = contents(shop)
    assert changed != whole
    kept = restore(copy, shop, NOON)
    assert contents(shop) == whole
    opened = Workshop(shop)
    assert opened.truth("sandpiper") == hidden
    assert len(hidden[0]) > 20
    opened.close()
    assert contents(kept) == changed
    assert kept.parent == folder_of(shop)


def test_a_copy_made_while_readings_come_in_is_of_one_moment(served, tmp_path):
    told = HTTP.post(f"{served.url}/api/v1/builds", json={"name": "Curlew"}).json()
    at = f"{served.url}/api/v1/builds/{told['build']['id']}"
    HTTP.post(
        f"{at}/parts",
        json={"name": "Motor", "pedigree": "guess", "stated_g": 60},
        headers={"If-Match": '"1"'},
    ).raise_for_status()
    stop, answered = threading.Event(), []

    def weigh() -> None:
        while not stop.is_set():
            sent = {
                "id": f"r{len(answered)}",
                "scale": "scale",
                "reading_g": 61.0,
                "pan": {"loads": [{"part": "motor"}]},
            }
            if HTTP.post(f"{at}/weighings", json=sent).status_code == 201:
                answered.append(sent["id"])

    hand = threading.Thread(target=weigh)
    hand.start()
    try:
        for n in range(5):
            before = len(answered)
            copy = tmp_path / f"copy-{n}.sqlite"
            assert main(["backup", str(copy), "--database", str(served.database)]) == 0
            with closing(sqlite3.connect(copy)) as connection:
                (many,) = connection.execute("SELECT count(*) FROM weighing").fetchone()
                (revision,) = connection.execute("SELECT revision FROM build").fetchone()
            assert many >= before
            assert revision == 2 + many
    finally:
        stop.set()
        hand.join()


def test_the_command_line_copies_and_puts_back(shop, tmp_path, capsys):
    copy, own = tmp_path / "copy.sqlite", tmp_path / "new" / "own.sqlite"
    assert main(["backup", str(copy), "--database", str(shop)]) == 0
    assert main(["restore", str(copy), "--database", str(own)]) == 0
    assert contents(own) == contents(shop)
    assert "kept as" not in capsys.readouterr().out
    assert main(["restore", str(copy), "--database", str(own)]) == 0
    assert "What stood there before is kept as" in capsys.readouterr().out


def test_a_served_workshop_is_not_put_back_under_its_feet(served, shop, capsys):
    assert main(["restore", str(shop), "--database", str(served.database)]) == 2
    assert "is being served already" in capsys.readouterr().err
    assert main(["serve", "--port", "18017", "--database", str(served.database)]) == 2
    assert "is being served already" in capsys.readouterr().err


@pytest.mark.parametrize("damage", ["cut", "bits", "foreign", "nothing", "words"])
def test_what_is_no_whole_copy_is_refused_and_nothing_changed(shop, tmp_path, damage, capsys):
    copy, whole = tmp_path / "copy.sqlite", contents(shop)
    back_up(shop, copy)
    if damage == "cut":
        copy.write_bytes(copy.read_bytes()[:-9000])
    elif damage == "bits":
        page = bytearray(copy.read_bytes())
        page[8192 : 8192 + 3000] = b"\xff" * 3000
        copy.write_bytes(page)
    elif damage == "foreign":
        copy.unlink()
        with closing(sqlite3.connect(copy)) as other:
            other.execute("CREATE TABLE of_somebody (word TEXT)")
    elif damage == "nothing":
        copy.unlink()
    else:
        copy.write_text("this is a letter")
    assert main(["restore", str(copy), "--database", str(shop)]) == 2
    assert str(copy) in capsys.readouterr().err
    assert contents(shop) == whole


def test_what_cannot_be_written_leaves_nothing_behind(shop, tmp_path, monkeypatch):
    blocked = tmp_path / "file"
    blocked.write_text("in the way")
    with pytest.raises(CopyError, match="cannot be written"):
        back_up(shop, blocked / "copy.sqlite")
    with pytest.raises(CopyError, match="the workshop itself"):
        back_up(shop, shop)
    with pytest.raises(CopyError, match="no workshop"):
        back_up(tmp_path / "none.sqlite", tmp_path / "copy.sqlite")

    def broken(_: Path) -> None:
        raise sqlite3.DatabaseError("page 3 is torn")

    monkeypatch.setattr(copies, "_check", broken)
    folder = tmp_path / "there"
    with pytest.raises(CopyError, match="page 3 is torn"):
        back_up(shop, folder / "copy.sqlite")
    assert list(folder.iterdir()) == []


def test_a_copy_of_each_day_that_it_was_changed(shop):
    first = roll(shop, date(2026, 3, 9))
    assert first == folder_of(shop) / "2026-03-09.sqlite"
    assert roll(shop, date(2026, 3, 9)) is None
    assert roll(shop, date(2026, 3, 10)) is None
    opened = Workshop(shop)
    opened.put_away("mayfly", away=True)
    opened.close()
    begun = folder_of(shop) / ".2026-03-10.sqlite-x8s1"
    begun.write_text("killed in the middle")
    assert roll(shop, date(2026, 3, 11)).name == "2026-03-11.sqlite"
    names = [each.name for each in sorted(folder_of(shop).iterdir())]
    assert names == ["2026-03-09.sqlite", "2026-03-11.sqlite"]


@given(st.sets(st.integers(0, 120), min_size=1, max_size=60))
def test_seven_days_and_four_weeks_are_kept(ages):
    today = date(2026, 6, 30)
    days = sorted(today - timedelta(age) for age in ages)
    kept = kept_of([Path(f"{day}.sqlite") for day in days], today)
    names = [date.fromisoformat(each.stem) for each in kept]
    assert names[-7:] == days[-7:]
    older = names[:-7]
    assert all((today - day).days <= 28 for day in older)
    assert len({day.isocalendar()[:2] for day in older}) == len(older)
    for day in days[:-7]:
        if (today - day).days <= 28:
            assert any(each.isocalendar()[:2] == day.isocalendar()[:2] for each in older)


def test_an_older_workshop_is_copied_before_it_is_brought_up_to_date(tmp_path):
    path = tmp_path / "own.sqlite"
    newest = copies.migrations()
    with closing(sqlite3.connect(path, isolation_level=None)) as old:
        for number, script in newest[:3]:
            old.executescript(f"{script}\nPRAGMA user_version = {number};")
        old.execute("PRAGMA application_id = 172711073")
        old.execute(f"PRAGMA application_id = {0x0A4B5CA1}")
    before = contents(path)
    kept = copies.copy_before_migration(path)
    assert contents(kept) == before
    Database(path).close()
    assert copies.copy_before_migration(path) is None


def test_a_newer_workshop_is_not_copied_over(shop, tmp_path):
    with closing(sqlite3.connect(shop)) as connection:
        connection.execute("PRAGMA user_version = 9999")
    with pytest.raises(DatabaseRefusedError, match="newer"):
        back_up(shop, tmp_path / "copy.sqlite")
