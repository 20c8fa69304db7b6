"""Killed again and again in the middle of a weigh-in: `make siege`.

Writers send acts of every kind at once; the server is killed at any moment and started again over
the same file. Whatever it had acknowledged must be there, each act once.
"""

import argparse
import multiprocessing
import os
import random
import signal
import sqlite3
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from contextlib import closing, redirect_stdout
from dataclasses import dataclass, field
from multiprocessing.process import BaseProcess
from pathlib import Path

import httpx

from benchmarks.servers import free_port
from oaken_scale.cli import main as command_line
from oaken_scale.demo.workshop import load_demo

KILLS = 500
PATIENCE_S = 5.0
"""So long so many acts are waited for before the next kill."""

REQUESTS = 30_000
GROWS = 1.1
"""What is remembered fills up at first; after that memory stays within a tenth."""

WRITERS = 4
FORKS = multiprocessing.get_context("forkserver")
FORKS.set_forkserver_preload(["oaken_scale.cli"])


def serve(arguments: list[str]) -> None:
    with Path(os.devnull).open("w") as nowhere, redirect_stdout(nowhere):
        sys.exit(command_line(arguments))


def started(database: Path, port: int) -> BaseProcess:
    arguments = ["serve", "--port", str(port), "--database", str(database)]
    server = FORKS.Process(target=serve, args=(arguments,), daemon=True)
    server.start()
    for _ in range(600):
        try:
            httpx.get(f"http://127.0.0.1:{port}/api/v1/door", timeout=1)
            return server
        except httpx.HTTPError:
            time.sleep(0.02)
    raise RuntimeError("the server did not start")


@dataclass
class Kept:
    """What the server acknowledged, by kind."""

    readings: set[str] = field(default_factory=set)
    parts: set[str] = field(default_factory=set)
    throws: set[str] = field(default_factory=set)
    builds: set[str] = field(default_factory=set)
    lots: set[str] = field(default_factory=set)
    aside: set[str] = field(default_factory=set)
    notes: list[str] = field(default_factory=list)

    def __len__(self) -> int:
        sets = (self.readings, self.parts, self.throws, self.builds, self.lots, self.aside)
        return sum(len(each) for each in sets) + len(self.notes)


class Writer:
    """Sends acts of every kind to one build, and keeps which were acknowledged."""

    def __init__(self, url: str, build: str, number: int) -> None:
        self.url, self.build, self.number = url, build, number
        self.at = f"/api/v1/builds/{build}"
        self.kept, self.count = Kept(), 0
        self.dice = random.Random(number)

    def send(self, stop: threading.Event) -> None:
        """Until told to stop, or nothing answers any more."""
        with httpx.Client(base_url=self.url, timeout=5) as client:
            while not stop.is_set():
                self.count += 1
                try:
                    self.dice.choice(self.acts())(client, f"{self.number}-{self.count}")
                except httpx.HTTPError:
                    return

    def acts(self) -> list[Callable[[httpx.Client, str], None]]:
        return [
            *[self.reading] * 6,
            *[self.throw] * 2,
            self.part,
            self.note,
            self.begun,
            self.lot,
            self.set_aside,
        ]

    def reading(self, client: httpx.Client, id: str) -> None:
        pan = {"loads": [{"part": "motor"}]}
        sent = {"id": id, "scale": "kitchen", "reading_g": 60.0, "pan": pan}
        if client.post(f"{self.at}/weighings", json=sent).status_code == 201:
            self.kept.readings.add(id)

    def throw(self, client: httpx.Client, id: str) -> None:
        sent = {"entry": "throw", "id": id, "at": "2026-03-07T09:00:00Z", "seen": "good"}
        answer = client.post(f"{self.at}/field/entries", json=sent | {"distance_m": 12.0})
        if answer.is_success:
            self.kept.throws.add(id)

    def part(self, client: httpx.Client, id: str) -> None:
        sent = {"name": f"Part {id}", "pedigree": "guess", "stated_g": 4.0}
        answer = client.post(f"{self.at}/parts", json=sent, headers=self.revision(client))
        if answer.status_code == 201:
            self.kept.parts.add(sent["name"])

    def note(self, client: httpx.Client, id: str) -> None:
        answer = client.patch(self.at, json={"notes": id}, headers=self.revision(client))
        if answer.is_success:
            self.kept.notes.append(id)

    def begun(self, client: httpx.Client, id: str) -> None:
        if self.dice.random() < 0.1:
            answer = client.post("/api/v1/builds", json={"name": f"Begun {id}"})
            if answer.status_code == 201:
                self.kept.builds.add(answer.json()["build"]["id"])

    def lot(self, client: httpx.Client, id: str) -> None:
        sent = {"name": f"Tape {id}", "unit": "m", "constant": 1.2, "doubt": 0.1}
        answer = client.post("/api/v1/rack", json=sent)
        if answer.status_code == 201:
            self.kept.lots.add(sent["name"])

    def set_aside(self, client: httpx.Client, id: str) -> None:
        if self.kept.readings:
            one = min(self.kept.readings)
            path = f"{self.at}/weighings/{one}/set-aside"
            if client.put(path, json={"reason": "slipped"}).is_success:
                self.kept.aside.add(one)

    def revision(self, client: httpx.Client) -> dict[str, str]:
        return {"If-Match": client.get(self.at).headers["ETag"]}

    def missing(self, client: httpx.Client) -> list[str]:
        """What was acknowledged and is not there, or is there twice."""
        told = client.get(self.at).json()["build"]
        field_log = told["field"]
        lots = [each["lot"]["name"] for each in client.get("/api/v1/rack").json()]
        builds = [each["id"] for each in client.get("/api/v1/builds").json()]
        there = (
            (self.kept.readings, [each["id"] for each in told["weighings"]]),
            (self.kept.parts, [each["name"] for each in told["parts"]]),
            (self.kept.throws, [each["id"] for each in field_log["throws"]]),
            (self.kept.builds, builds),
            (self.kept.lots, lots),
            (self.kept.aside, [e["id"] for e in told["weighings"] if e["set_aside"] is not None]),
        )
        lost = [one for kept, found in there for one in kept if found.count(one) != 1]
        if self.kept.notes and int(told["notes"].split("-")[1]) < int(
            self.kept.notes[-1].split("-")[1]
        ):
            lost.append(f"note {self.kept.notes[-1]}")
        return lost


def siege(database: Path, kills: int, seed: int = 1) -> tuple[int, list[str]]:
    """Kill the server so often; how many acts were acknowledged, and what of them was lost."""
    dice, port = random.Random(seed), free_port()
    url = f"http://127.0.0.1:{port}"
    server = started(database, port)
    writers = []
    for number in range(WRITERS):
        told = httpx.post(f"{url}/api/v1/builds", json={"name": f"Plane {number}"}).json()
        at = f"{url}/api/v1/builds/{told['build']['id']}"
        scale = [{"id": "kitchen", "name": "Kitchen", "step_g": 0.1}]
        part = {"id": "motor", "name": "Motor", "pedigree": "guess", "stated_g": 60.0}
        answer = httpx.patch(at, json={"scales": scale}, headers={"If-Match": '"1"'})
        answer = httpx.post(f"{at}/parts", json=part, headers={"If-Match": answer.headers["ETag"]})
        answer.raise_for_status()
        writers.append(Writer(url, told["build"]["id"], number))
    lost: list[str] = []
    for kill in range(1, kills + 1):
        stop = threading.Event()
        threads = [threading.Thread(target=each.send, args=(stop,)) for each in writers]
        for thread in threads:
            thread.start()
        wanted = sum(len(each.kept) for each in writers) + dice.randint(0, 40)
        patience = time.monotonic() + PATIENCE_S
        while sum(len(each.kept) for each in writers) < wanted and time.monotonic() < patience:
            time.sleep(0.002)
        time.sleep(dice.uniform(0, 0.02))
        os.kill(server.pid or 0, signal.SIGKILL)
        server.join()
        stop.set()
        for thread in threads:
            thread.join()
        server = started(database, port)
        with httpx.Client(base_url=url, timeout=60) as client:
            lost += [one for each in writers for one in each.missing(client)]
        if kill % 50 == 0 or kill == kills:
            acts = sum(len(each.kept) for each in writers)
            print(f"{kill} kills, {acts} acts acknowledged, {len(lost)} lost", flush=True)
    server.kill()
    server.join()
    with closing(sqlite3.connect(database)) as connection:
        (told_of,) = connection.execute("PRAGMA integrity_check").fetchone()
        if told_of != "ok":
            lost.append(str(told_of))
    return sum(len(each.kept) for each in writers), lost


def steady(database: Path, requests: int) -> list[float]:
    """Ask so much of one server; its memory [MB] after each tenth."""
    load_demo(database)
    port = free_port()
    server = started(database, port)
    at, measured = "/api/v1/builds/sandpiper", []
    try:
        with httpx.Client(base_url=f"http://127.0.0.1:{port}", timeout=60) as client:
            for number in range(1, requests + 1):
                moved = {"moved": [{"part": "pack", "x_mm": 100 + number % 50}]}
                answer = (
                    lambda: client.get(at),
                    lambda moved=moved: client.post(f"{at}/what-if", json=moved),
                    lambda: client.get("/api/v1/builds"),
                    lambda: client.put(f"{at}/pan", json={"loads": [{"part": "motor"}]}),
                    lambda: client.get("/api/v1/quantity", params={"text": "2 oz", "kind": "mass"}),
                    lambda: client.get(f"{at}/sheet.svg"),
                )[number % 6]()
                assert answer.status_code < 500, answer.text
                if number % (requests // 10) == 0:
                    measured.append(memory_mb(server.pid or 0))
    finally:
        server.kill()
        server.join()
    return measured


def memory_mb(pid: int) -> float:
    """What a process has in memory [MB]."""
    status = Path(f"/proc/{pid}/status").read_text()
    return int(status.split("VmRSS:")[1].split()[0]) / 1000


def main() -> int:
    """Run the siege; 1 where anything was lost, or memory grew."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--kills", type=int, default=KILLS)
    parser.add_argument("--requests", type=int, default=REQUESTS)
    given = parser.parse_args()
    with tempfile.TemporaryDirectory() as folder:
        measured = steady(Path(folder) / "steady.sqlite", given.requests)
        told = ", ".join(f"{each:.0f}" for each in measured)
        print(f"memory over {given.requests} requests, at each tenth [MB]: {told}", flush=True)
        acts, lost = siege(Path(folder) / "siege.sqlite", given.kills)
    print(f"{acts} acts acknowledged; lost: {', '.join(lost) or 'none'}")
    return 1 if lost or measured[-1] > GROWS * measured[1] else 0


if __name__ == "__main__":
    sys.exit(main())
