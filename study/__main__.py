"""How far the ledger can be trusted, on made-up benches with known truths: `make study`.

Prints the tables of docs/study.md. Everything hangs on the seed.
"""

import sys
from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta

import numpy as np

import oaken_scale  # noqa: F401  (sets the linear algebra to one thread before numpy loads)
from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.mixture import doubts, estimate
from oaken_scale.core.ledger.outliers import leave_one_out
from oaken_scale.core.ledger.prior import DOUBT, SHARED
from oaken_scale.core.ledger.slip import SlipKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Container, Load, Pan, Scale, Weighing
from study.drive_trains import print_table
from study.flights import print_flights
from study.outings import show as show_outings
from study.settling import compared

SEED = 1080
BENCHES = 300
TRAY = Container("tray", "Tray", 31.4)
CUP = Container("cup", "Cup", 12.8)
FIGURES = 12
"""From this on things have a figure: nine a listing, nine a guess, about as in the demo."""

START = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
STEP_G = 0.1


@dataclass(frozen=True, slots=True)
class Bench:
    """A made-up build, half weighed, and what its things truly weigh [g]."""

    build: Build
    truth: dict[str, float]


@dataclass(frozen=True, slots=True)
class World:
    """How the world differs from what the builder believes of it.

    ``guess`` and ``listing`` are factors on all of them, ``spread`` on how far each of both lies
    off, ``glue`` on the bead, ``sheet`` on one of the sheets, ``scale`` the scale's error.
    """

    guess: float = 1.0
    listing: float = 1.0
    spread: float = 1.0
    glue: float = 1.0
    sheet: float = 1.0
    scale: float | None = None


WORLDS = {
    "as believed": World(),
    "guesses 40 % heavy": World(guess=1.4),
    "guesses 25 % light": World(guess=0.75),
    "listings 10 % heavy": World(listing=1.1),
    "guesses and listings twice as far off": World(spread=2.0),
    "glue twice as heavy": World(glue=2.0),
    "a sheet 20 % heavy": World(sheet=1.2),
    "the scale 1 % off": World(scale=0.01),
}


def bench(
    rng: np.random.Generator, readings: int = 22, world: World = WORLDS["as believed"]
) -> Bench:
    """A build whose truth is drawn as its builder believes, or as another ``world`` has it; some of
    it weighed without a slip, the whole of it where there are 31 readings."""
    lots = (
        Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4),
        Lot("b", "Sheet B", LotUnit.DM2, 3.2, 0.3),
        Lot("glue", "Glue", LotUnit.M, 2.4, 0.6),
    )
    off = {"a": world.sheet, "b": 1.0, "glue": world.glue}
    theta = {
        lot.id: max(float(rng.normal(lot.constant, lot.doubt)) * off[lot.id], 0.3) for lot in lots
    }
    runs = {
        Pedigree.GUESS: world.guess + SHARED[Pedigree.GUESS] * float(rng.normal()),
        Pedigree.LISTING: world.listing + SHARED[Pedigree.LISTING] * float(rng.normal()),
    }
    parts, truth = [], {}
    for k in range(30):
        id = f"i{k}"
        if k < 9:
            use = Use("ab"[k % 2], float(rng.uniform(1, 13)))
            part = Part(id, id, Pedigree.CALCULATED, f"g{k % 4}", uses=(use,))
        elif k < FIGURES:
            use = Use("glue", float(rng.uniform(1, 3)))
            part = Part(id, id, Pedigree.JOINT, f"g{k % 4}", uses=(use,))
        else:
            known = Pedigree.LISTING if k < 21 else Pedigree.GUESS
            pieces = 4 if k in (14, 23, 27) else 1
            stated = float(rng.uniform(4, 90))
            part = Part(id, id, known, "power", stated_g=stated, pieces=pieces)
        parts.append(part)
        cut = sum(use.amount * theta[use.lot] for use in part.uses)
        stated, known_by_figure = part.stated_g or 0.0, k >= FIGURES
        estimate = stated + sum(
            use.amount * next(lot.constant for lot in lots if lot.id == use.lot)
            for use in part.uses
        )
        total = max(DOUBT[part.pedigree] * estimate, 0.2 if known_by_figure else 0)
        own = max(total**2 - (SHARED.get(part.pedigree, 0.0) * stated) ** 2, 0.0) ** 0.5
        own *= world.spread if known_by_figure else 1.0
        mean = stated * runs.get(part.pedigree, 1.0) + cut
        truth[id] = max(mean + own * float(rng.normal()), 0.3)
    build = Build(
        "b",
        "B",
        lots=lots,
        parts=tuple(parts),
        containers=(TRAY, CUP),
        scales=(Scale("s", "S", STEP_G, None, 0.002),),
    )
    gamma = float(rng.normal(0, 0.002)) if world.scale is None else world.scale
    log = []
    alone = [int(k) for k in rng.permutation(30) if not 9 <= k < FIGURES]
    for n in range(min(readings, 30)):
        if n % 4 == 3:
            group = [i for i in parts if i.assembly == f"g{n // 4 % 4}"]
            pan = Pan(tuple(sorted(Load(i.id) for i in group)))
        else:
            pan = Pan((Load(parts[alone[n % len(alone)]].id),))
        log.append(weighed(rng, f"r{n}", n, pan, truth, gamma))
    if readings > 30:
        whole = Pan(tuple(sorted(Load(part.id) for part in parts)))
        log.append(weighed(rng, "whole", 31, whole, truth, gamma))
    return Bench(replace(build, weighings=tuple(log)), truth)


def weighed(
    rng: np.random.Generator, id: str, n: int, pan: Pan, truth: dict[str, float], gamma: float
) -> Weighing:
    """What the scale shows of a pan."""
    load = (1 + gamma) * sum(truth[each.part] * each.count for each in pan.loads)
    shown = round(max(load + float(rng.normal(0, STEP_G / 2)), STEP_G) / STEP_G) * STEP_G
    return Weighing(id, START + timedelta(minutes=3 * n), "s", round(shown, 1), pan)


def slipped(
    rng: np.random.Generator, made: Bench, kind: SlipKind
) -> tuple[Build, str, str | None] | None:
    """The bench with one slip of a kind; the reading it is in, and whose; None where it cannot."""
    log = list(made.build.weighings)
    order = rng.permutation(len(log))
    for k in order:
        w = log[int(k)]
        got = _slip(rng, made, w, kind)
        if got is not None and got[0].reading_g > 0:
            log[int(k)] = got[0]
            return replace(made.build, weighings=tuple(log)), w.id, got[1]
    return None


def _slip(  # noqa: PLR0911, PLR0912 (one return for each slip)
    rng: np.random.Generator, made: Bench, w: Weighing, kind: SlipKind
) -> tuple[Weighing, str | None] | None:
    y, on = w.reading_g, {load.part for load in w.pan.loads}
    if kind is SlipKind.NOT_TARED:
        return replace(w, reading_g=round(y + TRAY.mass_g, 1)), TRAY.id
    if kind is SlipKind.TARED_TWICE:
        return replace(w, reading_g=round(y - CUP.mass_g, 1)), CUP.id
    if kind is SlipKind.OUNCES:
        return replace(w, reading_g=round(y / 28.349523125, 2)), None
    if kind is SlipKind.GRAMS:
        return replace(w, reading_g=round(y * 28.349523125, 1)), None
    if kind is SlipKind.DECIMAL:
        return replace(w, reading_g=round(y * 10, 1)), None
    if kind is SlipKind.DIGITS:
        digits = f"{round(y * 10):d}"
        turns = [k for k in range(len(digits) - 1) if digits[k] != digits[k + 1]]
        if not turns:
            return None
        k = int(rng.choice(turns))
        turned = digits[:k] + digits[k + 1] + digits[k] + digits[k + 2 :]
        return replace(w, reading_g=int(turned) / 10), None
    if kind is SlipKind.UNSTEADY:
        return replace(w, reading_g=round(y * (1 - float(rng.uniform(0.04, 0.45))), 1)), None
    if kind is SlipKind.PIECES:
        part = next((i for i in made.build.parts if len(on) == 1 and i.id in on), None)
        if part is None or part.pieces == 1:
            return None
        return replace(w, reading_g=round(y / part.pieces, 1)), part.id
    if kind is SlipKind.GLUED:
        groups = {part.assembly for part in made.build.parts if part.id in on}
        beads = [
            i.id
            for i in made.build.parts
            if i.pedigree is Pedigree.JOINT and i.assembly in groups and i.id not in on
        ]
        if not beads:
            return None
        bead = str(rng.choice(beads))
        return replace(w, reading_g=round(y + made.truth[bead], 1)), bead
    others = [
        part.id
        for part in made.build.parts
        if part.id not in on and not (kind is SlipKind.LEFT_ON and part.pedigree is Pedigree.JOINT)
    ]
    if not others:
        return None
    other = str(rng.choice(others))
    if kind is SlipKind.LEFT_ON:
        return replace(w, reading_g=round(y + made.truth[other], 1)), other
    if kind is SlipKind.LEFT_OFF:
        if len(on) < 2:
            return None
        gone = str(rng.choice(sorted(on)))
        return replace(w, reading_g=round(y - made.truth[gone], 1)), gone
    if len(on) > 1:
        return None
    return replace(w, reading_g=round(made.truth[other], 1)), other


def size_of(build: Build, reading: str, right_g: float) -> float:
    """The slip's gap over the doubt of its leave-one-out prediction."""
    out = leave_one_out(build)
    j = next(k for k, each in enumerate(out.weighings) if each.id == reading)
    return abs(out.weighings[j].reading_g - right_g) / float(out.sd_g[j])


@dataclass(frozen=True, slots=True)
class Trust:
    """How a kind of bench came out, as shares: the true total within 2u of what is told, and within
    2u of the plain settled estimate; benches in which a sound reading was doubted, and in which a
    slip was named of one; the median error of what is told and of the plain estimate [g]."""

    told: float
    plain: float
    innocent: float
    named: float
    error_g: float
    plain_error_g: float


def trust(made: Iterable[tuple[Build, dict[str, float], str | None]]) -> Trust:
    """Benches, each with its truth and the reading that a slip is in (None for none)."""
    rows = []
    for build, truth, wrong in made:
        told, total = estimate(build), sum(truth.values())
        weight = np.ones(len(build.parts))
        row: list[float] = []
        for after in (told.after, told.believing):
            mass, sd = after.total(weight)
            row += [abs(total - mass) <= 2 * sd, abs(total - mass)]
        blamed = [each for each in told.doubts if each.weighing != wrong]
        rows.append([*row, bool(blamed), any(each.slips for each in blamed)])
    table = np.array(rows, dtype=float)
    share, middle = table.mean(axis=0), np.median(table, axis=0)
    return Trust(
        told=float(share[0]),
        plain=float(share[2]),
        innocent=float(share[4]),
        named=float(share[5]),
        error_g=float(middle[1]),
        plain_error_g=float(middle[3]),
    )


def with_slips(rng: np.random.Generator, kind: SlipKind, readings: int) -> Trust:
    """Benches with one slip of a kind planted, so many readings in."""
    made = (bench(rng, readings) for _ in range(BENCHES))
    wrong = ((each, slipped(rng, each, kind)) for each in made)
    return trust((got[0], each.truth, got[1]) for each, got in wrong if got is not None)


def without_slips(rng: np.random.Generator, world: World, readings: int) -> Trust:
    """Clean benches of a world, so many readings in."""
    made = (bench(rng, readings, world) for _ in range(BENCHES))
    return trust((each.build, each.truth, None) for each in made)


def warned(rng: np.random.Generator) -> float:
    """Of whole planes on a scale 1 % off, whose limit lies between what it reads and the truth,
    the share in which the verdict says that no known weight was ever on it."""
    said = 0
    for _ in range(BENCHES):
        made = bench(rng, 31, WORLDS["the scale 1 % off"])
        limit = 1.005 * sum(made.truth.values())
        target = Target(TargetKind.AUW, high=limit)
        answer = assess(replace(made.build, targets=(target,))).loadouts[0].answers[0]
        said += answer.unchecked_scale is not None
    return said / BENCHES


def planted(rng: np.random.Generator, kind: SlipKind) -> tuple[int, float, float, float]:
    """Of benches with one slip over six sigma: how many, found, named first, among the named.

    Glue that is on the pan is named where any glue of that assembly, or glue at large, is.
    """
    large = found = first = among = 0
    for _ in range(BENCHES):
        made = bench(rng)
        got = slipped(rng, made, kind)
        if got is None:
            continue
        build, reading, subject = got
        right = next(w.reading_g for w in made.build.weighings if w.id == reading)
        if size_of(build, reading, right) < 6:
            continue
        large += 1
        doubted = doubts(build)
        found += any(reading in (each.weighing, *each.contradicts) for each in doubted)
        told = next((each for each in doubted if each.weighing == reading), None)
        if told is None:
            continue
        whose = kind is not SlipKind.GLUED
        names = [(slip.kind, slip.subject if whose else None) for slip in told.slips]
        first += bool(names) and names[0] == (kind, subject if whose else None)
        among += (kind, subject if whose else None) in names
    return large, found / large, first / large, among / large


def main() -> None:
    """Print the study."""
    rng = np.random.default_rng(SEED)
    print(f"seed {SEED}, {BENCHES} benches a row; 30 things, steps of {STEP_G} g\n")
    print("clean benches:")
    print("| the world | readings | within 2u | a reading doubted | a slip named | off by |")
    print("|---|---|---|---|---|---|")
    for name, world in WORLDS.items():
        for readings in (22, 31):
            got = without_slips(rng, world, readings)
            print(
                f"| {name} | {readings} | {100 * got.told:.1f} % | {100 * got.innocent:.1f} % | "
                f"{100 * got.named:.1f} % | {got.error_g:.1f} g |"
            )
            sys.stdout.flush()
    print(f"the scale 1 % off, said where it decides: {100 * warned(rng):.0f} %\n")
    print("one slip in each bench:")
    print("| slip | readings | within 2u | plain | a sound reading doubted | off by | plain |")
    print("|---|---|---|---|---|---|---|")
    for kind in SlipKind:
        for readings in (22, 31):
            got = with_slips(rng, kind, readings)
            print(
                f"| {kind} | {readings} | {100 * got.told:.1f} % | {100 * got.plain:.1f} % | "
                f"{100 * got.innocent:.1f} % | {got.error_g:.1f} g | {got.plain_error_g:.1f} g |"
            )
            sys.stdout.flush()
    told = compared(range(120))
    print("\n120 practice benches, N and Space alone:")
    print(
        f"  weighings to settle the targets: {told.by_next:.0f}, "
        f"in a random order {told.by_chance:.0f} (medians)"
    )
    print(
        f"  benches settled: {100 * told.settled_by_next:.0f} %, "
        f"in a random order {100 * told.settled_by_chance:.0f} %"
    )
    print(f"  true all-up weight within 2u: {100 * told.true:.0f} %\n")
    print("| slip | over 6 sigma | found | named first | among those named |")
    print("|---|---|---|---|---|")
    for kind in SlipKind:
        large, found, first, among = planted(rng, kind)
        print(
            f"| {kind} | {large} | {100 * found:.1f} % | {100 * first:.1f} % "
            f"| {100 * among:.1f} % |"
        )
        sys.stdout.flush()
    print_table(1000)
    print_flights(1000)
    show_outings(1080)


if __name__ == "__main__":
    main()
