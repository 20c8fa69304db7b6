"""How far one machine goes: `make load`.

So many benches at once, each with a build of its own and a person at it: a reading every few
seconds, a part dragged along the beam in between, the next step as soon as the last was answered
and no sooner than a hand moves. What is counted is how many answers come within a frame.
"""

import argparse
import asyncio
import os
import random
import tempfile
import time
from dataclasses import dataclass, field
from pathlib import Path

import httpx

from benchmarks.builds import made_up_build
from benchmarks.servers import free_port, started
from oaken_scale.core.model.build import Build
from oaken_scale.formats.build_file import dump, with_shared_pans

FRAME_MS = 16.0
PARTS, WEIGHINGS = 60, 90
BENCHES = (1, 2, 4, 8, 16, 32, 64)
LASTS_S = 12.0
READS_EVERY_S = 4.0
"""So long a person takes from one reading to the next: something off the pan, something on."""

DRAGS_FOR_S = 1.0
STEP_S = 1 / 30


@dataclass
class Answers:
    """How long answers took [ms]."""

    readings: list[float] = field(default_factory=list)
    drags: list[float] = field(default_factory=list)


async def person(
    client: httpx.AsyncClient, id: str, build: Build, seed: int, until: float
) -> Answers:
    """One bench, until the time is over."""
    dice, told, number = random.Random(seed), Answers(), 0
    await asyncio.sleep(dice.uniform(0, READS_EVERY_S))
    while time.perf_counter() < until:
        one = build.weighings[number % len(build.weighings)]
        pan = {"loads": [{"part": on.part, "count": on.count} for on in one.pan.loads]}
        sent = {
            "id": f"{seed}-{number}",
            "scale": one.scale,
            "reading_g": one.reading_g,
            "pan": pan,
        }
        start = time.perf_counter()
        (await client.post(f"/api/v1/builds/{id}/weighings", json=sent)).raise_for_status()
        told.readings.append((time.perf_counter() - start) * 1e3)
        number += 1
        ends = time.perf_counter() + DRAGS_FOR_S
        x = dice.uniform(100, 300)
        while time.perf_counter() < min(ends, until):
            x += dice.uniform(-3, 3)
            start = time.perf_counter()
            moved = {"moved": [{"part": "i0", "x_mm": x}]}
            (await client.post(f"/api/v1/builds/{id}/what-if", json=moved)).raise_for_status()
            taken = time.perf_counter() - start
            told.drags.append(taken * 1e3)
            await asyncio.sleep(max(STEP_S - taken, 0))
        await asyncio.sleep(dice.uniform(0.5, 1.5) * (READS_EVERY_S - DRAGS_FOR_S))
    return told


async def many(url: str, ids: list[str], build: Build, seed: int) -> Answers:
    """So many benches at once."""
    limits = httpx.Limits(max_connections=len(ids) + 4)
    async with httpx.AsyncClient(base_url=url, timeout=60, limits=limits) as client:
        until = time.perf_counter() + LASTS_S
        people = (person(client, id, build, seed * 1000 + k, until) for k, id in enumerate(ids))
        each = await asyncio.gather(*people)
    whole = Answers()
    for one in each:
        whole.readings += one.readings
        whole.drags += one.drags
    return whole


def row(benches: int, told: Answers, used: float) -> str:
    """A line of the table."""

    def within(taken: list[float], frames: int) -> str:
        share = sum(each <= frames * FRAME_MS for each in taken) / max(len(taken), 1)
        return f"{100 * share:3.0f} %"

    def high(taken: list[float]) -> str:
        return f"{sorted(taken)[int(0.95 * (len(taken) - 1))]:.0f} ms" if taken else "none"

    cells = [
        f"{benches}",
        f"{(len(told.readings) + len(told.drags)) / LASTS_S:.0f}",
        within(told.readings, 1),
        high(told.readings),
        within(told.drags, 1),
        within(told.drags, 6),
        high(told.drags),
        f"{100 * used:.0f} %",
    ]
    return "| " + " | ".join(cells) + " |"


def processor_seconds(pid: int) -> float:
    """What a process has used of processors so far [s]."""
    fields = Path(f"/proc/{pid}/stat").read_text().rsplit(") ", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / float(os.sysconf("SC_CLK_TCK"))


def main() -> None:
    """Print the table."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--benches", type=int, nargs="*", default=list(BENCHES))
    given = parser.parse_args()
    build = with_shared_pans(made_up_build(PARTS, WEIGHINGS))
    print(f"A build of {PARTS} parts and {WEIGHINGS} readings on each bench, {LASTS_S:.0f} s a row")
    print(
        "| benches | answers a second | readings in a frame | readings p95 | drags in a frame "
        "| drags in 0.1 s | drags p95 | of one processor |"
    )
    print("| --- | --- | --- | --- | --- | --- | --- | --- |")
    with tempfile.TemporaryDirectory() as folder:
        port = free_port()
        url = f"http://127.0.0.1:{port}"
        where = ["--port", str(port), "--database", str(Path(folder) / "load.sqlite")]
        server = started(["-m", "oaken_scale.cli", "serve", *where], f"{url}/api/v1/door")
        try:
            file, ids = dump(build), []
            for _ in range(max(given.benches)):
                told = httpx.post(f"{url}/api/v1/builds/import", content=file, timeout=60)
                ids.append(told.raise_for_status().json()["build"]["id"])
            for seed, benches in enumerate(given.benches):
                used = processor_seconds(server.pid)
                answers = asyncio.run(many(url, ids[:benches], build, seed))
                used = (processor_seconds(server.pid) - used) / LASTS_S
                print(row(benches, answers, used), flush=True)
        finally:
            server.kill()


if __name__ == "__main__":
    main()
