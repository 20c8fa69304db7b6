"""How fast it answers, as ratios measured in one run: `make bench`.

A ratio against a bare endpoint and a bare commit on the same machine says more than milliseconds.
"""

import gzip
import sqlite3
import statistics
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace
from io import StringIO
from math import cos, pi, sin
from pathlib import Path

import ezdxf
import httpx

import oaken_scale  # noqa: F401  (sets the linear algebra to one thread before numpy loads)
from benchmarks.builds import made_up_build, to_be_balanced
from benchmarks.drives import drive_of_four_runs, drives_to_try
from benchmarks.large import long_log, long_shelf
from benchmarks.pages import SLOWER, pages
from benchmarks.servers import free_port, started
from oaken_scale.api.app import PAGES
from oaken_scale.core.assess import assess
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.outline import outlines
from oaken_scale.core.ledger.outliers import leave_one_out
from oaken_scale.core.ledger.readings import weighed_sets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.power.drive_estimate import estimate_drive
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.remedies import balanceable, remedies
from oaken_scale.core.trim.which_pack import which_pack
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.build_file import dump, with_shared_pans
from oaken_scale.formats.drawing import read_drawing
from oaken_scale.paper.drawing import PAPERS, pdf
from oaken_scale.paper.sheet import Subject, sheet
from oaken_scale.paper.shown import Shown

FRAME_MS = 16.0


def timed(act: Callable[[], object], times: int = 30) -> list[float]:
    """Milliseconds of each call, after one to warm up."""
    act()
    taken = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        taken.append((time.perf_counter() - start) * 1e3)
    return sorted(taken)


def afresh(build: Build) -> Build:
    """The same value with a log of its own, so that nothing of its ledger is remembered."""
    return replace(build, weighings=(*build.weighings,))


def middle(taken: list[float]) -> float:
    """The median."""
    return statistics.median(taken)


def high(taken: list[float]) -> float:
    """The 95th percentile."""
    return taken[int(0.95 * (len(taken) - 1))]


def line(name: str, value: str, note: str = "") -> None:
    """One row of the report."""
    print(f"{name:<58} {value:>12}  {note}")


def assessing() -> None:
    """`assess` by parts, and by weighings alone."""
    print("\nassess(build), twice as many weighings as parts")
    first = None
    for parts in (30, 150, 600):
        build = made_up_build(parts, 2 * parts)
        taken = middle(timed(lambda build=build: assess(afresh(build)), 20 if parts < 600 else 8))
        first = first or taken
        sets = len(weighed_sets(build))
        line(
            f"{parts} parts, {2 * parts} weighings, {sets} different sets",
            f"{taken:.2f} ms",
            f"{taken / first:.1f} x the 30-part build, {taken / FRAME_MS:.2f} frames",
        )
    print("\nassess(build), 150 parts, the same 300 sets weighed over and over")
    base = None
    for weighings in (300, 1200, 4800):
        build = made_up_build(150, weighings, most_sets=300)
        taken = middle(timed(lambda build=build: assess(afresh(build)), 20))
        base = base or taken
        line(f"{weighings} weighings", f"{taken:.2f} ms", f"{taken / base:.2f} x")


def doubting() -> None:
    """Every reading left out and predicted from the rest (of 50 ms)."""
    print("\nleave-one-out of all readings")
    for parts, weighings in ((150, 300), (600, 2000)):
        build = with_shared_pans(made_up_build(parts, weighings))
        taken = middle(timed(lambda build=build: leave_one_out(build), 15))
        line(
            f"{parts} parts, {weighings} readings", f"{taken:.1f} ms", f"{taken / 50:.2f} of 50 ms"
        )


def bare_commit(folder: Path) -> float:
    """One row into SQLite, durable: the least that a kept reading can cost [ms]."""
    connection = sqlite3.connect(folder / "bare.sqlite", isolation_level=None)
    connection.execute("PRAGMA journal_mode = WAL")
    connection.execute("PRAGMA synchronous = FULL")
    connection.execute("CREATE TABLE reading (grams REAL)")

    def commit() -> None:
        connection.execute("BEGIN IMMEDIATE")
        connection.execute("INSERT INTO reading VALUES (1.0)")
        connection.execute("COMMIT")

    return middle(timed(commit, 200))


BARE = """
import sys, uvicorn
from fastapi import FastAPI
app = FastAPI()

@app.post("/bare")
def bare(body: dict) -> dict:
    return {"ok": True}

uvicorn.run(app, host="127.0.0.1", port=int(sys.argv[1]), log_level="error")
"""


def answering(folder: Path, build: Build) -> None:
    """A reading posted to the answered assessment, against a bare endpoint and a bare commit."""
    commit = bare_commit(folder)
    port = free_port()
    bare_server = started(["-c", BARE, str(port)], f"http://127.0.0.1:{port}/")
    with httpx.Client(base_url=f"http://127.0.0.1:{port}") as client:
        bare = middle(timed(lambda: client.post("/bare", json={"grams": 1.0}), 200))
    bare_server.kill()

    port = free_port()
    where = ["--port", str(port), "--database", str(folder / "own.sqlite")]
    url = f"http://127.0.0.1:{port}/api/v1/builds"
    server = started(["-m", "oaken_scale.cli", "serve", *where], url)
    with httpx.Client(base_url=url) as client:
        told = client.post("/import", content=dump(build)).json()["build"]
        shown = [{"pan": w["pan"], "reading_g": w["reading_g"]} for w in told["weighings"]]
        number = iter(range(100_000))

        def post() -> None:
            k = next(number)
            sent = {"id": f"b{k}", "scale": "kitchen", **shown[k % 300]}
            client.post(f"/{told['id']}/weighings", json=sent).raise_for_status()

        def what_if() -> None:
            patch = {"surfaces": told["surfaces"]}
            client.post(f"/{told['id']}/what-if", json=patch).raise_for_status()

        drags = iter(range(100_000))

        def drag() -> None:
            moved = [{"part": "i0", "x_mm": 100.0 + next(drags) % 200}]
            client.post(f"/{told['id']}/what-if", json={"moved": moved}).raise_for_status()

        constant = round(told["lots"][0]["constant"], 1)

        def throw() -> None:
            entry = {"entry": "throw", "id": f"t{next(number)}", "at": "2026-03-07T09:00:00Z"}
            entry |= {"seen": "good", "distance_m": 12.0}
            client.post(f"/{told['id']}/field/entries", json=entry).raise_for_status()

        def sample() -> None:
            pan = {"samples": [{"lot": told["lots"][0]["id"], "amount": 1.0}]}
            sent = {"id": f"s{next(number)}", "scale": "kitchen", "reading_g": constant, "pan": pan}
            client.post(f"/{told['id']}/weighings", json=sent).raise_for_status()

        posted, asked, sampled = timed(post, 100), timed(what_if, 100), timed(sample, 60)
        dragged, thrown = timed(drag, 200), timed(throw, 60)
    server.kill()
    print("\nthrough HTTP, 150 parts, 300 weighings (median; 95th percentile)")
    line("bare endpoint", f"{bare:.2f} ms")
    line("bare SQLite commit", f"{commit:.2f} ms")
    for name, taken, least in (
        ("POST a reading to the answered assessment", posted, bare + commit),
        ("POST a sample of a lot to the new forecast", sampled, bare + commit),
        ("a throw to what the field is told", thrown, bare + commit),
        ("what-if to the answered assessment", asked, bare),
        ("a drag step on the beam to the answered assessment", dragged, bare),
    ):
        line(
            name,
            f"{middle(taken):.2f} ms",
            f"p95 {high(taken):.2f} ms, "
            f"{middle(taken) / least:.1f} x bare, {high(taken) / FRAME_MS:.2f} frames at p95",
        )


def large(folder: Path) -> None:
    """A long shelf, a long log, and a page to print."""
    print("\na large workshop, through HTTP")
    cold, warm = long_shelf(folder)
    line("a shelf of 200 builds of 150 parts, cold", f"{cold:.0f} ms", f"{cold / 1000:.2f} of 1 s")
    line("the same again", f"{warm:.0f} ms")
    taken = long_log(folder)
    line(
        "a reading where there are 50,000",
        f"{middle(taken):.1f} ms",
        f"p95 {high(taken):.1f} ms, {high(taken) / FRAME_MS / 2:.2f} of two frames at p95",
    )
    build = sandpiper()
    told = assess(build)
    subject = Subject(build, told, told.loadouts[0])
    taken = timed(lambda: pdf([sheet(subject, PAPERS["a4"], Shown())], "Sheet"), 10)
    line("the sheet as PDF", f"{middle(taken):.0f} ms", f"{middle(taken) / 1000:.2f} of 1 s")


def drawings() -> None:
    """Outline files with 200 parts and 50,000 points, from bytes to candidates."""
    print("\noutlines: 200 parts, 50,000 points, to candidates (of 2 s)")
    turns = [2 * pi * k / 250 for k in range(250)]
    middles = [(n % 20 * 100 + 50, n // 20 * 100 + 50) for n in range(200)]
    rings = [[(x + 40 * cos(t), y + 30 * sin(t)) for t in turns] for x, y in middles]
    paths = "".join(
        f'<path d="M{" L".join(f"{x:.4f},{y:.4f}" for x, y in ring)} Z"/>' for ring in rings
    )
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" width="2000mm" height="1000mm" '
        f'viewBox="0 0 2000 1000">{paths}</svg>'
    )
    document = ezdxf.new()
    for ring in rings:
        document.modelspace().add_lwpolyline(ring, close=True)
    dxf = StringIO()
    document.write(dxf)
    for name, text in (("SVG", svg), ("DXF", dxf.getvalue())):
        data = text.encode()
        told: list[int] = []
        taken = timed(
            lambda data=data, told=told: told.append(len(outlines(read_drawing(data)).parts)), 5
        )
        line(name, f"{middle(taken):.0f} ms", f"{told[0]} parts, {middle(taken) / 2000:.2f} of 2 s")


def balancing() -> None:
    """The neutral point of three surfaces, and remedies for 6 things, 4 loadouts, 3 spots."""

    def plate(role: Role, x: float, span: float, chord: float) -> Surface:
        sections = (Section(x, 0, 0, chord), Section(x, span / 2, 0, chord))
        return Surface(role, role, role, sections)

    number = iter(range(100_000))

    def lattice() -> None:
        by = next(number) / 1000  # never the same drawing twice, so that nothing is remembered
        surfaces = (
            plate(Role.CANARD, by, 520, 120),
            plate(Role.WING, 560, 1150, 185),
            plate(Role.TAIL, 900, 420, 120),
        )
        neutral_point(surfaces)

    build = to_be_balanced()
    flown = fly(build)
    ready = balanceable(build, flown.planes, [id for id, _ in flown.names])
    assert ready is not None
    print("\nbalance")
    taken = timed(lattice, 20)
    line(
        "neutral point of three surfaces, cold",
        f"{middle(taken):.0f} ms",
        f"{middle(taken) / 80:.2f} of 80 ms",
    )
    taken = timed(lambda: remedies(ready, flown.planes), 20)
    line(
        "remedies: 6 movable, 4 loadouts, 3 ballast spots",
        f"{middle(taken):.0f} ms",
        f"{middle(taken) / 300:.2f} of 300 ms",
    )


def powering() -> None:
    """A drive from its runs, and what might fly in its place."""
    drive = drive_of_four_runs()
    print("\npower")
    taken = timed(lambda: estimate_drive(replace(drive)), 20)
    line(
        "a drive from 4 runs of 12 points",
        f"{middle(taken):.1f} ms",
        f"{middle(taken) / FRAME_MS:.2f} of a frame",
    )
    build, packs, motors = drives_to_try(drive)
    taken = timed(lambda: which_pack(replace(build), build.loadouts[0], packs, motors), 8)
    line(
        f"{len(packs)} packs and {len(motors)} motors tried, balance included",
        f"{middle(taken):.0f} ms",
        f"{middle(taken) / 500:.2f} of 500 ms",
    )


def first_load() -> None:
    """Script and style that every place together needs, gzipped, fonts apart."""
    total = sum(
        len(gzip.compress(path.read_bytes()))
        for path in PAGES.rglob("*")
        if path.suffix in (".js", ".css", ".html")
    )
    print("\npages")
    line("script and style of all places, gzipped", f"{total / 1000:.0f} kB", "of 300 kB")
    for name, taken in pages():
        note = f"{taken / 1500:.2f} of 1.5 s, a processor {SLOWER} times slower"
        line(name, f"{taken:.0f} ms", note)


def main() -> None:
    """Print the whole report."""
    assessing()
    doubting()
    with tempfile.TemporaryDirectory() as folder:
        answering(Path(folder), with_shared_pans(made_up_build(150, 300)))
        large(Path(folder))
    balancing()
    powering()
    drawings()
    first_load()


if __name__ == "__main__":
    main()
