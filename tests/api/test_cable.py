"""A bench whose scale is on a cable: the stand-in at the other end of a pseudo-terminal."""

import time
from collections.abc import Iterator

import pytest

from oaken_scale.api import bench
from oaken_scale.devices.simulated_port import SimulatedPort
from oaken_scale.devices.simulated_scale import SimulatedScale
from tests.api.test_served import Page
from tests.http import HTTP


@pytest.fixture
def port() -> Iterator[SimulatedPort]:
    plugged = SimulatedPort(SimulatedScale(0.1, 500.0), lines_per_s=25)
    yield plugged
    plugged.unplug()


def begun(url: str, scale: dict) -> str:
    told = HTTP.post(f"{url}/api/v1/builds", json={"name": "On a cable"}).json()
    at = f"{url}/api/v1/builds/{told['build']['id']}"
    sent = {"name": "Motor", "pedigree": "listing", "stated_g": 46.0}
    assert HTTP.post(f"{at}/parts", json=sent, headers={"If-Match": '"1"'}).status_code == 201
    changed = HTTP.patch(at, json={"scales": [scale]}, headers={"If-Match": '"2"'})
    assert changed.status_code == 200, changed.text
    return at


def test_a_scale_on_a_cable_is_read_tared_and_missed(served, port):
    scale = {"id": "bench", "name": "Bench scale", "step_g": 0.1, "port": port.port}
    at = begun(served.url, scale)
    state = HTTP.get(f"{at}/pan").json()
    assert (state["live"], state["simulated"]) == (True, False)
    page = Page(served.url, at.rsplit("/", 1)[1])
    page.wait_for(lambda event, data: event == "scale" and data["state"] == "steady")
    port.device.put(46.2)
    put = HTTP.put(f"{at}/pan", json={"loads": [{"part": "motor"}]}).json()
    shown = page.wait_for(
        lambda event, data: (
            event == "scale"
            and data["turn"] == put["turn"]
            and data["state"] == "steady"
            and data["reading_g"] > 40
        )
    )
    assert shown["reading_g"] == pytest.approx(46.2, abs=0.3)
    port.unplug()
    page.wait_for(lambda event, data: event == "scale" and data["state"] == "gone")
    # Nothing is lost: what is on the pan is still there, and a typed reading is taken.
    assert HTTP.get(f"{at}/pan").json()["loads"]["loads"] == [{"part": "motor", "count": 1.0}]
    sent = {
        "id": "typed",
        "scale": "bench",
        "reading_g": 46.2,
        "pan": {"loads": [{"part": "motor"}]},
    }
    assert HTTP.post(f"{at}/weighings", json=sent).status_code == 201


def test_what_lies_there_unlisted_is_told_before_and_after_taring(served, port):
    scale = {"id": "bench", "name": "Bench scale", "step_g": 0.1, "port": port.port}
    at = begun(served.url, scale)
    page = Page(served.url, at.rsplit("/", 1)[1])
    port.device.put(12.4)
    page.wait_for(lambda event, data: event == "scale" and data["astray"])
    deadline = time.monotonic() + 15
    while time.monotonic() < deadline:
        told = HTTP.post(f"{at}/tare").json()
        if told["note"]:
            break
        time.sleep(0.2)
    assert told["note"]["odd"] == "not_empty"
    assert HTTP.put(f"{at}/pan", json={"loads": [{"part": "motor"}]}).json()["note"] is None


@pytest.mark.parametrize(
    ("scale", "field", "says"),
    [
        ({"port": "/etc/passwd"}, "port", "serial port like"),
        ({"port": "/dev/ttyUSB0", "line": "{weight}"}, "line", "{reading}"),
        ({"port": "/dev/ttyUSB0", "baud": 1}, "baud", "300"),
    ],
)
def test_a_cable_that_cannot_be_is_refused_in_words(client, scale, field, says):
    client.post("/api/v1/builds", json={"name": "B"})
    id = client.get("/api/v1/builds").json()[0]["id"]
    sent = {"scales": [{"id": "s", "name": "S", "step_g": 0.1, **scale}]}
    told = client.patch(f"/api/v1/builds/{id}", json=sent, headers={"If-Match": '"1"'})
    assert told.status_code == 422
    (fault,) = told.json()["faults"]
    assert fault["field"].endswith(field)
    assert says in fault["words"]


def test_the_port_is_let_go_of_when_nobody_looks_and_taken_up_again(client, port, monkeypatch):
    told = client.post("/api/v1/builds", json={"name": "Curlew"}).json()
    at = f"/api/v1/builds/{told['build']['id']}"
    scale = {"id": "bench", "name": "Bench scale", "step_g": 0.1, "port": port.port}
    part = {"id": "motor", "name": "Motor", "pedigree": "guess", "stated_g": 46.0}
    client.post(f"{at}/parts", json=part, headers={"If-Match": '"1"'})
    client.patch(at, json={"scales": [scale]}, headers={"If-Match": '"2"'})
    benches = client.app.state.benches
    assert client.get(f"{at}/pan").json()["live"] is True
    (reader,) = benches._ports.values()
    benches.rest()
    assert not reader.ended
    client.put(f"{at}/pan", json={"loads": [{"part": "motor"}]})
    monkeypatch.setattr(bench, "UNHEARD_S", -1.0)
    benches.rest()
    assert not reader.ended  # something lies on it
    client.post(f"{at}/clear")
    benches.rest()
    assert reader.ended
    assert benches._ports == {}
    assert client.get(f"{at}/pan").json()["live"] is True
    (again,) = benches._ports.values()
    assert again is not reader
    typed = {"id": "bench", "name": "Bench scale", "step_g": 0.1}
    revision = client.get(at).headers["ETag"]
    assert client.patch(at, json={"scales": [typed]}, headers={"If-Match": revision}).is_success
    assert client.get(f"{at}/pan").json()["live"] is False
    assert again.ended
