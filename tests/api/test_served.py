"""The server as users run it: events between pages, and a kill in a stream of readings."""

import contextlib
import json
import threading
import time

import httpx
import pytest

from tests.api.asking import begin, part, reading
from tests.http import HTTP
from tests.server import Server


class Page:
    """A page that listens to a build's events."""

    def __init__(self, url: str, build: str) -> None:
        self.seen: list[tuple[str, dict]] = []
        self._stop = False
        self._thread = threading.Thread(target=self._listen, args=(url, build), daemon=True)
        self._thread.start()

    def _listen(self, url: str, build: str) -> None:
        with (
            contextlib.suppress(httpx.HTTPError),  # the server is killed when the tests are done
            httpx.Client(verify=False, timeout=20) as client,
            client.stream("GET", f"{url}/api/v1/builds/{build}/events") as stream,
        ):
            event = ""
            for line in stream.iter_lines():
                if line.startswith("event: "):
                    event = line[7:]
                elif line.startswith("data: "):
                    self.seen.append((event, json.loads(line[6:])))
                if self._stop:
                    return

    def wait_for(self, wanted, seconds: float = 20.0) -> dict:
        deadline = time.monotonic() + seconds
        while time.monotonic() < deadline:
            found = next((data for event, data in self.seen if wanted(event, data)), None)
            if found is not None:
                return found
            time.sleep(0.02)
        raise AssertionError(f"it did not come; seen: {self.seen[-5:]}")


def test_what_one_page_does_the_other_hears(demo_served):
    page = Page(demo_served.url, "sandpiper")
    page.wait_for(lambda event, data: event == "changed" and data["revision"] == 1)
    at = f"{demo_served.url}/api/v1/builds/sandpiper"
    HTTP.put(f"{at}/pan", json={"loads": [{"part": "fuselage-box"}]})
    page.wait_for(lambda event, data: event == "pan" and len(data["loads"]["loads"]) == 1)
    settled = page.wait_for(
        lambda event, data: (
            event == "scale" and data["state"] == "steady" and data["reading_g"] > 40
        )
    )
    assert settled["reading_g"] == pytest.approx(46.3, abs=0.4)
    HTTP.post(f"{at}/weighings", json=reading("a1", settled["reading_g"], fuselage_box=1))
    page.wait_for(lambda event, data: event == "changed" and data["revision"] == 2)
    page.wait_for(lambda event, data: event == "scale" and data["reading_g"] == 0)


def test_a_typed_build_streams_no_scale(served):
    told = begin(httpx.Client(verify=False, base_url=served.url))
    page = Page(served.url, told["build"]["id"])
    page.wait_for(lambda event, data: event == "pan" and data["simulated"] is False)
    time.sleep(0.4)
    assert "scale" not in [event for event, _ in page.seen]


def test_every_acknowledged_reading_survives_a_kill(tmp_path):
    server = Server("serve", tmp_path / "own.sqlite").start()
    client = httpx.Client(verify=False, base_url=server.url)
    told = part(client, begin(client), name="Wing", stated_g=90)
    id = told["build"]["id"]
    acknowledged = []
    killer = threading.Timer(0.1, server.process.kill)
    for number in range(10_000):
        sent = {
            "id": f"r{number}",
            "scale": "scale",
            "reading_g": 80 + number / 100,
            "pan": {"loads": [{"part": "wing"}]},
        }
        try:
            answer = client.post(f"/api/v1/builds/{id}/weighings", json=sent)
        except httpx.HTTPError:
            break
        assert answer.status_code == 201
        acknowledged.append((sent["id"], sent["reading_g"]))
        if len(acknowledged) == 20:
            killer.start()
    server.process.join()
    again = Server("serve", tmp_path / "own.sqlite").start()
    try:
        kept = HTTP.get(f"{again.url}/api/v1/builds/{id}").json()
    finally:
        again.kill()
    readings = [(each["id"], each["reading_g"]) for each in kept["build"]["weighings"]]
    assert readings[: len(acknowledged)] == acknowledged
    assert len(readings) <= len(acknowledged) + 1  # one may have been kept and not answered
    assert kept["revision"] == len(readings) + 2
