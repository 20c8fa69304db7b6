"""What goes wrong around the workshop: the disk, the clock, wrong command lines, many pages."""

import asyncio
import socket
import sqlite3
from datetime import UTC, datetime, timedelta
from pathlib import Path

import httpx
import pytest
from fastapi.testclient import TestClient

from oaken_scale.api.app import create_app
from oaken_scale.cli import main
from oaken_scale.demo.workshop import load_demo
from oaken_scale.store.copies import folder_of, roll
from oaken_scale.workshop import Workshop, doorkeeper
from tests.api.asking import apart, reading
from tests.http import HTTP

AT = "/api/v1/builds/sandpiper"


def full(app, is_full: bool) -> None:
    """Leave no room on the disk, or make room again."""
    with app.state.workshop.database.reading() as connection:
        (pages,) = connection.execute("PRAGMA page_count").fetchone()
        connection.execute(f"PRAGMA max_page_count = {pages if is_full else 1_000_000}")


def test_a_full_disk_refuses_and_loses_nothing(tmp_path):
    load_demo(tmp_path / "w.sqlite")
    app = create_app(tmp_path / "w.sqlite")
    with TestClient(app) as client:
        kept = client.post(f"{AT}/weighings", json=reading("r1", 62.1, motor=1))
        assert kept.status_code == 201
        full(app, True)
        before, shelf = client.get(AT).json(), client.get("/api/v1/builds").json()
        refused = client.post(f"{AT}/copy", json={"name": "Second"})
        assert refused.status_code == 503
        assert "full" in refused.json()["detail"]
        assert "nothing was changed" in refused.json()["detail"]
        assert client.get(AT).json() == before
        assert client.get("/api/v1/builds").json() == shelf
        full(app, False)
        assert client.post(f"{AT}/copy", json={"name": "Second"}).status_code == 201
        assert [each["name"] for each in client.get("/api/v1/builds").json()][-1] == "Second"


@pytest.mark.parametrize(
    ("error", "status", "says"),
    [
        (
            sqlite3.DatabaseError("database disk image is malformed"),
            503,
            "as far as it can be read",
        ),
        (sqlite3.IntegrityError("CHECK constraint failed: count > 0"), 422, "nothing was changed"),
        (sqlite3.OperationalError("database is locked"), 503, "try again"),
    ],
)
def test_what_the_database_cannot_do_is_said_as_what_it_is(tmp_path, error, status, says):
    """A damaged page, what a table refuses, a moment in which nothing can be written."""
    load_demo(tmp_path / "w.sqlite")
    app = create_app(tmp_path / "w.sqlite")
    with TestClient(app, raise_server_exceptions=False) as client:

        def broken(*_: object) -> None:
            raise error

        app.state.workshop.held = broken
        answer = client.get(AT)
        assert answer.status_code == status
        assert says in answer.json()["detail"]


def test_a_clock_set_back_keeps_the_order_and_loses_nothing(tmp_path, monkeypatch):
    path = tmp_path / "w.sqlite"
    load_demo(path)
    with TestClient(create_app(path)) as client:
        late = datetime.now(UTC) + timedelta(days=400)
        sent = reading("late", 62.1, motor=1) | {"at": late.isoformat()}
        assert client.post(f"{AT}/weighings", json=sent).status_code in (201, 422)
        for k in range(3):
            answer = client.post(f"{AT}/weighings", json=reading(f"r{k}", 62.1, motor=1))
            assert answer.status_code == 201
        order = [each["id"] for each in client.get(AT).json()["build"]["weighings"]][-3:]
        assert order == ["r0", "r1", "r2"]
        undone = client.post(
            f"{AT}/undo", headers={"If-Match": f'"{client.get(AT).json()["revision"]}"'}
        )
        assert undone.status_code == 200
    with TestClient(create_app(path)) as client:
        after = [each["id"] for each in client.get(AT).json()["build"]["weighings"]][-3:]
        assert after == order


def test_copies_of_days_still_to_come_keep_no_copy_of_today_away(tmp_path):
    path = tmp_path / "w.sqlite"
    load_demo(path)
    today = datetime(2026, 3, 9, tzinfo=UTC).date()
    assert roll(path, today + timedelta(days=30)) is not None
    shop = Workshop(path)
    shop.put_away("mayfly", away=True)
    shop.close()
    made = roll(path, today)
    assert made == folder_of(path) / "2026-03-09.sqlite"
    assert made.exists()


def a_free_port() -> int:
    with socket.socket() as tried:
        tried.bind(("127.0.0.1", 0))
        return tried.getsockname()[1]


@pytest.mark.parametrize(
    ("more", "says"),
    [
        (["--lan-port", "9000"], "give --lan as well"),
        (["--lan", "--lan-address", "a b"], "is no address"),
        ([], "cannot be listened on"),
    ],
)
def test_what_was_said_wrong_is_told_before_a_port_in_use(capsys, more, says):
    with socket.socket() as held:
        held.bind(("127.0.0.1", 0))
        held.listen()
        assert main(["serve", "--port", str(held.getsockname()[1]), *more]) == 2
    assert says in capsys.readouterr().err


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ([], "required"),
        (["weigh"], "invalid choice"),
        (["serve", "--port", "x"], '"x" is no port'),
        (["serve", "--port", "70000"], "from 1 to 65535"),
        (["serve", "--port", "-1"], "from 1 to 65535"),
        (["serve", "--host", "0.0.0.0"], "--lan instead"),
        (["serve", "--host", "nowhere.example"], "--lan instead"),
        (["serve", "--lan-port", "9000"], "give --lan as well"),
        (["serve", "--port", "18117", "--lan", "--lan-port", "18117"], "give another one"),
        (["serve", "--lan", "--lan-address", "a b"], "is no address"),
        (["serve", "--database", "{folder}", "--port", "{port}"], "is a folder"),
        (["serve", "--database", "{file}", "--port", "{port}"], "not an Oaken Scale database"),
        (["serve", "--database", "/proc/nowhere/w.sqlite", "--port", "{port}"], "cannot"),
        (["demo", "--database", "{file}", "--port", "{port}"], "not an Oaken Scale database"),
        (["export", "Curlew", "out.json", "--database", "{none}"], "no workshop at"),
        (["export", "Curlew", "/proc/out.json", "--database", "{shop}"], 'no build "Curlew"'),
        (["export", "Sandpiper", "/proc/out.json", "--database", "{shop}"], "cannot be written"),
        (["import", "{none}", "--database", "{shop}"], "cannot be read"),
        (["import", "{file}", "--database", "{shop}"], ""),
        (["import", "{folder}"], "cannot be read"),
        (["backup", "{folder}", "--database", "{shop}"], "cannot be written"),
        (["backup", "/proc/copy.sqlite", "--database", "{shop}"], "cannot be written"),
        (["backup", "copy.sqlite", "--database", "{none}"], "no workshop at"),
        (["restore", "{none}", "--database", "{shop}"], "no file"),
        (["restore", "{file}", "--database", "{shop}"], "not an Oaken Scale database"),
        (["restore", "{shop}", "--database", "{shop}"], "the workshop itself"),
        (["assess", "{file}"], ""),
        (["assess", "/proc/self/mem"], "cannot be read"),
        (["let-in", "--database", "{none}", "--lan-address", "shed.local"], "no workshop at"),
        (["let-in", "--database", "{file}", "--lan-address", "shed.local"], "not an Oaken"),
    ],
)
def test_a_wrong_command_line_is_answered_in_words(tmp_path, capsys, line, says):
    shop = tmp_path / "shop.sqlite"
    load_demo(shop)
    (tmp_path / "words.txt").write_text("Not a workshop, and no build file either.")
    names = {
        "{folder}": str(tmp_path),
        "{file}": str(tmp_path / "words.txt"),
        "{none}": str(tmp_path / "none"),
        "{shop}": str(shop),
        "{port}": str(a_free_port()),
    }
    try:
        status = main([names.get(each, each) for each in line])
    except SystemExit as stopped:
        status = stopped.code
    assert status == 2
    told = capsys.readouterr().err
    assert says in told
    assert told.strip()
    assert "Traceback" not in told


def test_fifty_pages_listen_and_a_reading_is_answered_at_once(served):
    told = HTTP.post(f"{served.url}/api/v1/builds", json={"name": "Curlew"}).json()
    at = f"{served.url}/api/v1/builds/{told['build']['id']}"

    async def listened() -> list[int]:
        async with httpx.AsyncClient(timeout=30, limits=httpx.Limits(max_connections=60)) as client:
            ready = asyncio.Barrier(51)
            tasks = [asyncio.create_task(one_page(client, ready)) for _ in range(50)]
            await ready.wait()
            headers = {"If-Match": f'"{told["revision"]}"'}
            answer = await client.patch(at, json={"notes": "heard"}, headers=headers)
            assert answer.status_code == 200
            return await asyncio.gather(*tasks)

    async def one_page(client: httpx.AsyncClient, ready: asyncio.Barrier) -> int:
        heard = 0
        async with client.stream("GET", f"{at}/events") as stream:
            async for line in stream.aiter_lines():
                if line == "event: pan" and heard == 0:
                    heard = 1
                    await ready.wait()
                if line.startswith('data: {"revision":') and heard:
                    return int(line.removeprefix('data: {"revision":').rstrip("}"))
        return -1

    assert apart(listened()) == [told["revision"] + 1] * 50


def test_a_code_is_no_good_after_the_clock_was_set_back(tmp_path, monkeypatch):
    load_demo(tmp_path / "w.sqlite")
    shop = Workshop(tmp_path / "w.sqlite")
    real = doorkeeper.now
    made = shop.door.invite(doorkeeper.DeviceRole.READER)
    monkeypatch.setattr(doorkeeper, "now", lambda: real() - timedelta(days=1))
    with pytest.raises(doorkeeper.WrongCodeError):
        shop.door.let_in(made.code, "Thumb")
    shop.close()


def test_the_workshop_keeps_only_its_own_files_beside_it(tmp_path):
    path = tmp_path / "w.sqlite"
    load_demo(path)
    Workshop(path).close()
    assert {each.name for each in Path(tmp_path).iterdir()} <= {
        "w.sqlite",
        "w.sqlite-wal",
        "w.sqlite-shm",
    }
