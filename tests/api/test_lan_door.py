"""The door to the local network: in by a code, known by a cookie, out at one press."""

import shutil
from datetime import timedelta

import pytest
from fastapi.testclient import TestClient

from oaken_scale.api.app import create_app
from oaken_scale.api.lan_door import ASKS, COOKIE, LanDoor
from oaken_scale.api.routes_cutting import CutKind
from oaken_scale.api.routes_door import Network
from oaken_scale.store.door import DeviceRole
from oaken_scale.workshop import doorkeeper
from tests.api.asking import apart

AT = "/api/v1/builds/sandpiper"
ADDRESS = "https://192.168.1.20:8018"


@pytest.fixture
def app(tmp_path, demo_file):
    shutil.copy(demo_file, tmp_path / "demo.sqlite")
    made = create_app(tmp_path / "demo.sqlite", lan_hosts=("*", "shed.lan"))
    made.state.network = Network(ADDRESS, "AA:BB", "CC:DD", b"PEM")
    return made


@pytest.fixture
def bench(app):
    """The machine itself."""
    with TestClient(app) as opened:
        yield opened


@pytest.fixture
def phone(app, bench):
    return a_phone(app)


def a_phone(app) -> TestClient:
    return TestClient(LanDoor(app, app.state.workshop), base_url=ADDRESS)


def code(bench, role: str = "writer") -> str:
    answer = bench.post("/api/v1/door/codes", json={"role": role})
    assert answer.status_code == 201
    return answer.json()["code"]


def let_in(bench, phone, role: str = "writer", name: str = "Thumb") -> dict:
    answer = phone.post("/api/v1/door/entry", json={"code": code(bench, role), "name": name})
    assert answer.status_code == 201, answer.text
    return answer.json()


def test_nothing_of_the_workshop_is_read_before_the_door_was_opened(app, phone):
    paths = [
        (path, method.upper()) for path, acts in app.openapi()["paths"].items() for method in acts
    ]
    open_to_all = {
        ("/api/v1/door", "GET"),
        ("/api/v1/door/entry", "POST"),
        ("/api/v1/door/certificate.crt", "GET"),
    }
    assert len(paths) > 100
    for path, method in paths:
        if (path, method) in open_to_all:
            continue
        answer = phone.request(method, path.replace("{build_id}", "sandpiper"))
        assert answer.status_code in (401, 403), (method, path)
        assert "Sandpiper" not in answer.text
    assert phone.get("/api/v1/openapi.json").status_code == 401


def test_a_code_lets_one_device_in_once(bench, phone, app):
    made = bench.post("/api/v1/door/codes", json={"role": "writer"}).json()
    assert made["address"] == f"{ADDRESS}/let-in#{made['code']}"
    assert made["picture"].startswith("data:image/svg+xml")
    typed = made["code"].replace("-", " ").lower()
    answer = phone.post("/api/v1/door/entry", json={"code": typed, "name": "Thumb"})
    assert answer.status_code == 201
    shown = answer.headers["set-cookie"].lower()
    assert shown.startswith(COOKIE)
    for word in ("httponly", "samesite=strict", "secure", "path=/"):
        assert word in shown
    assert phone.get(AT).json()["build"]["name"] == "Sandpiper"
    told = phone.get("/api/v1/door").json()
    assert (told["here"], told["name"], told["role"]) == (False, "Thumb", "writer")
    other = a_phone(app).post("/api/v1/door/entry", json={"code": made["code"], "name": "Two"})
    assert other.status_code == 422
    assert "does not open" in other.json()["detail"]
    assert other.json()["faults"][0]["field"] == "code"


def test_the_secret_is_not_kept_and_a_made_up_one_opens_nothing(bench, phone, app):
    let_in(bench, phone)
    secret = phone.cookies[COOKIE]
    rows = app.state.workshop.database
    with rows.reading() as connection:
        kept = "".join(str(row) for row in connection.execute("SELECT * FROM door_device"))
    assert secret not in kept
    for wrong in ("", "x", secret[:-1], secret + "x", "*", "' OR 1=1 --"):
        stranger = a_phone(app)
        answer = stranger.get(AT, headers={"Cookie": f"{COOKIE}={wrong}"})
        assert answer.status_code == 401


def test_a_writer_records_and_a_reader_looks_and_asks(bench, phone, app):
    let_in(bench, phone)
    assert phone.post(f"{AT}/tare").status_code == 200
    reader = a_phone(app)
    let_in(bench, reader, "reader", "Glass")
    assert reader.get(AT).status_code == 200
    before = bench.get(AT).json()["revision"]
    refused = reader.post(f"{AT}/tare")
    assert refused.status_code == 403
    assert "Glass was let in to look" in refused.json()["detail"]
    assert reader.post(f"{AT}/what-if", json={"moved": []}).status_code == 200
    assert reader.delete(f"{AT}/parts/motor").status_code == 403
    # A part may be called like a question.
    for name in ("what-if", "preview", "alternatives"):
        assert reader.delete(f"{AT}/parts/{name}").status_code == 403
        assert reader.put(f"{AT}/parts/{name}", json={}).status_code == 403
    assert bench.get(AT).json()["revision"] == before


def test_what_a_reader_may_ask_changes_nothing(app):
    """Each of them is a route, and says itself that it needs no revision."""
    posted = {
        whole: acts["post"]
        for path, acts in app.openapi()["paths"].items()
        for whole in ([path.replace("{kind}", kind) for kind in CutKind])
        if "post" in acts and whole.endswith(ASKS)
    }
    assert {end for end in ASKS if any(path.endswith(end) for path in posted)} == set(ASKS)
    for path, act in posted.items():
        assert "If-Match" not in [each["name"] for each in act.get("parameters", [])], path


def test_who_comes_in_is_decided_on_the_bench(bench, phone):
    device = let_in(bench, phone)
    assert phone.post("/api/v1/door/codes", json={"role": "writer"}).status_code == 403
    assert phone.get("/api/v1/door/devices").status_code == 403
    assert phone.delete(f"/api/v1/door/devices/{device['id']}").status_code == 403
    (listed,) = bench.get("/api/v1/door/devices").json()
    assert (listed["name"], listed["role"]) == ("Thumb", "writer")
    assert bench.delete(f"/api/v1/door/devices/{device['id']}").status_code == 204
    assert phone.get(AT).status_code == 401
    assert bench.delete(f"/api/v1/door/devices/{device['id']}").status_code == 404
    assert bench.get("/api/v1/door/devices").json() == []


def test_a_stream_ends_when_its_device_is_shut_out(bench, app):
    device, secret = app.state.workshop.door.let_in(
        app.state.workshop.door.invite(DeviceRole.WRITER).code, "Thumb"
    )

    async def forever(scope, receive, send):
        await send({"type": "http.response.start", "status": 200, "headers": []})
        for number in range(5):
            if number == 3:
                app.state.workshop.door.shut_out(device.id)
            await send({"type": "http.response.body", "body": b"x", "more_body": True})

    sent = []

    async def keep(message):
        sent.append(message)

    scope = {
        "type": "http",
        "method": "GET",
        "path": f"{AT}/events",
        "headers": [(b"cookie", f"{COOKIE}={secret}".encode())],
    }
    apart(LanDoor(forever, app.state.workshop)(scope, None, keep))
    assert [each.get("body") for each in sent[1:]] == [b"x", b"x", b"x", b""]
    assert sent[-1]["more_body"] is False


def test_codes_run_out_and_one_from_the_future_does_not_open(bench, phone, monkeypatch):
    real = doorkeeper.now
    old, soon = code(bench), code(bench)
    monkeypatch.setattr(doorkeeper, "now", lambda: real() + timedelta(minutes=10, seconds=1))
    assert phone.post("/api/v1/door/entry", json={"code": old, "name": "A"}).status_code == 422
    monkeypatch.setattr(doorkeeper, "now", lambda: real() - timedelta(minutes=1))
    assert phone.post("/api/v1/door/entry", json={"code": soon, "name": "A"}).status_code == 422


def test_ten_wrong_codes_and_the_door_waits(bench, phone, monkeypatch):
    good = code(bench)
    for _ in range(doorkeeper.MOST_WRONG):
        answer = phone.post("/api/v1/door/entry", json={"code": "AAAA-AAAA", "name": "A"})
        assert answer.status_code == 422
    answer = phone.post("/api/v1/door/entry", json={"code": good, "name": "A"})
    assert answer.status_code == 429
    assert 0 < int(answer.headers["retry-after"]) <= doorkeeper.WHILE_S
    assert "wait" in answer.json()["detail"]
    later = doorkeeper.time.monotonic() + doorkeeper.WHILE_S + 1
    monkeypatch.setattr(doorkeeper.time, "monotonic", lambda: later)
    answer = phone.post("/api/v1/door/entry", json={"code": good, "name": "A"})
    assert answer.status_code == 201


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("192.168.1.20:8018", 200),
        ("shed.local:8018", 200),
        ("shed.lan:8018", 200),
        ("evil.example", 421),
    ],
)
def test_through_the_door_other_names_are_meant_than_on_the_machine(bench, phone, host, status):
    assert phone.get("/api/v1/door", headers={"Host": host}).status_code == status
    if "localhost" not in host:
        assert bench.get("/api/v1/door", headers={"Host": host}).status_code == 421


def test_another_site_cannot_use_a_device_that_is_in(bench, phone):
    let_in(bench, phone)
    answer = phone.post(f"{AT}/tare", headers={"Origin": "https://elsewhere.example"})
    assert answer.status_code == 403
    answer = phone.post(f"{AT}/tare", headers={"Origin": ADDRESS})
    assert answer.status_code == 200


def test_on_the_machine_itself_no_code_is_needed_and_none_is_made_behind_a_shut_door(client):
    told = client.get("/api/v1/door").json()
    assert told["here"] is True
    assert told["address"] is None
    shut = client.post("/api/v1/door/codes", json={"role": "writer"})
    assert shut.status_code == 409
    assert "--lan" in shut.json()["detail"]
    entry = client.post("/api/v1/door/entry", json={"code": "AAAA-AAAA", "name": "A"})
    assert entry.status_code == 409
    assert client.get("/api/v1/door/certificate.crt").status_code == 404


def test_every_answer_of_the_door_has_the_headers(phone):
    for path in (AT, "/api/v1/door", "/api/v1/door/devices"):
        headers = phone.get(path).headers
        assert "frame-ancestors 'none'" in headers["content-security-policy"]
        assert headers["x-content-type-options"] == "nosniff"
