"""How a large workshop answers: a long shelf, and a build that was weighed and weighed."""

import time
from dataclasses import replace
from pathlib import Path

import httpx

from benchmarks.builds import made_up_build
from benchmarks.servers import free_port, started
from oaken_scale.core.model.build import Build
from oaken_scale.formats.build_file import with_shared_pans
from oaken_scale.workshop import Workshop

BUILDS = 200
READINGS = 50_000


def long_shelf(folder: Path) -> tuple[float, float]:
    """How long a shelf of 200 builds of 150 parts takes a server that just began, and the second
    time [ms]."""
    database = folder / "shelf.sqlite"
    shop = Workshop(database)
    build = with_shared_pans(made_up_build(150, 300))
    for number in range(BUILDS):
        shop.add(replace(build, name=f"Plane {number}"))
    shop.close()
    with Served(database) as client:
        taken = []
        for _ in range(2):
            start = time.perf_counter()
            assert len(client.get("/api/v1/builds").raise_for_status().json()) == BUILDS
            taken.append((time.perf_counter() - start) * 1e3)
    return taken[0], taken[1]


def long_log(folder: Path) -> list[float]:
    """How long readings take where there are 50,000 of 150 parts in 300 different sets, and none
    of them is in doubt [ms]."""
    build = with_shared_pans(made_up_build(150, READINGS, most_sets=300))
    database = folder / "log.sqlite"
    shop = Workshop(database)
    id = shop.add(build).build.id
    shop.close()
    with Served(database) as client:
        told = client.get(f"/api/v1/builds/{id}", timeout=60).raise_for_status().json()
        for doubt in told["assessment"]["doubts"]:
            path = f"/api/v1/builds/{id}/weighings/{doubt['weighing']}/accepted"
            client.put(path, json={"accepted": True}).raise_for_status()
        return sorted(_reading(client, id, build, number) for number in range(60))


def _reading(client: httpx.Client, id: str, build: Build, number: int) -> float:
    from_before = build.weighings[number]
    sent = {
        "id": f"again-{number}",
        "scale": from_before.scale,
        "reading_g": from_before.reading_g,
        "pan": {"loads": [{"part": on.part, "count": on.count} for on in from_before.pan.loads]},
    }
    start = time.perf_counter()
    client.post(f"/api/v1/builds/{id}/weighings", json=sent).raise_for_status()
    return (time.perf_counter() - start) * 1e3


class Served:
    """A server over a database, and a client of it, for as long as the block lasts."""

    def __init__(self, database: Path) -> None:
        self.database = database

    def __enter__(self) -> httpx.Client:
        port = free_port()
        where = ["--port", str(port), "--database", str(self.database)]
        # Asked for something that works nothing out: what is measured has to be cold.
        url = f"http://127.0.0.1:{port}"
        self.server = started(
            ["-m", "oaken_scale.cli", "serve", *where], f"{url}/api/v1/beginnings"
        )
        self.client = httpx.Client(base_url=url, timeout=60)
        return self.client

    def __exit__(self, *_: object) -> None:
        self.client.close()
        self.server.kill()
        self.server.wait()
