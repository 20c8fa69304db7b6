"""How far the ledger can be trusted, on made-up benches with known truths: `make study`.

Prints the tables of docs/study.md. Everything hangs on the seed.
"""

import sys
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta

import numpy as np

import oaken_scale  # noqa: F401  (sets the linear algebra to one thread before numpy loads)
from oaken_scale.core.build import Build, Container, Item, Load, Pan, Pedigree, Scale, Weighing
from oaken_scale.core.doubt import leave_one_out
from oaken_scale.core.mixture import doubts, solve
from oaken_scale.core.lot import Lot, LotUnit, Use
from oaken_scale.core.prior import DOUBT
from oaken_scale.core.slips import SlipKind
from study.settling import compared

SEED = 1080
BENCHES = 500
TRAY = Container("tray", "Tray", 31.4)
CUP = Container("cup", "Cup", 12.8)
START = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
STEP_G = 0.1


@dataclass(frozen=True, slots=True)
class Bench:
    """A made-up build, half weighed, and what its things truly weigh [g]."""

    build: Build
    truth: dict[str, float]


def bench(rng: np.random.Generator, readings: int = 22) -> Bench:
    """A build whose truth is drawn as its builder believes, some of it weighed without a slip."""
    lots = (
        Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4),
        Lot("b", "Sheet B", LotUnit.DM2, 3.2, 0.3),
        Lot("glue", "Glue", LotUnit.M, 2.4, 0.6),
    )
    theta = {lot.id: float(rng.normal(lot.constant, lot.doubt)) for lot in lots}
    items, truth = [], {}
    for k in range(30):
        id = f"i{k}"
        if k < 12:
            use = Use("ab"[k % 2], float(rng.uniform(1, 13)))
            item = Item(id, id, Pedigree.CALCULATED, f"g{k % 4}", uses=(use,))
        elif k < 16:
            use = Use("glue", float(rng.uniform(1, 3)))
            item = Item(id, id, Pedigree.JOINT, f"g{k % 4}", uses=(use,))
        else:
            known = Pedigree.LISTING if k < 25 else Pedigree.GUESS
            item = Item(id, id, known, "power", stated_g=float(rng.uniform(4, 90)))
        items.append(item)
        cut = sum(use.amount * theta[use.lot] for use in item.uses)
        estimate = (item.stated_g or 0) + sum(
            use.amount * next(lot.constant for lot in lots if lot.id == use.lot)
            for use in item.uses
        )
        own = max(DOUBT[item.pedigree] * estimate, 0.2 if item.pedigree is Pedigree.LISTING else 0)
        truth[id] = max((item.stated_g or 0) + cut + own * float(rng.normal()), 0.3)
    build = Build("b", "B", lots=lots, items=tuple(items), containers=(TRAY, CUP),
                  scales=(Scale("s", "S", STEP_G, None, 0.002),))  # fmt: skip
    gamma = float(rng.normal(0, 0.002))
    log = []
    alone = rng.permutation(30)
    for n in range(readings):
        if n % 4 == 3:
            group = [i for i in items if i.assembly == f"g{n // 4 % 4}"]
            pan = Pan(tuple(sorted(Load(i.id) for i in group)))
        else:
            pan = Pan((Load(items[int(alone[n])].id),))
        log.append(weighed(rng, f"r{n}", n, pan, truth, gamma))
    return Bench(replace(build, weighings=tuple(log)), truth)


def weighed(
    rng: np.random.Generator, id: str, n: int, pan: Pan, truth: dict[str, float], gamma: float
) -> Weighing:
    """What the scale shows of a pan."""
    load = (1 + gamma) * sum(truth[each.item] * each.count for each in pan.loads)
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


def _slip(  # noqa: PLR0911 (one return for each slip)
    rng: np.random.Generator, made: Bench, w: Weighing, kind: SlipKind
) -> tuple[Weighing, str | None] | None:
    y, on = w.reading_g, {load.item for load in w.pan.loads}
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
    others = [item.id for item in made.build.items if item.id not in on]
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


def coverage(rng: np.random.Generator) -> float:
    """Share of benches whose true total lies within two sigma."""
    inside = 0
    for _ in range(BENCHES):
        made = bench(rng)
        mass, sd = solve(made.build).total(np.ones(30))
        inside += abs(sum(made.truth.values()) - mass) <= 2 * sd
    return inside / BENCHES


def clean(rng: np.random.Generator) -> tuple[float, float]:
    """Shares of clean benches with a false alarm, and of clean readings doubted."""
    alarms = doubted = readings = 0
    for _ in range(BENCHES):
        made = bench(rng)
        found = doubts(made.build)
        alarms += any(each.slips for each in found)
        doubted += len(found)
        readings += len(made.build.weighings)
    return alarms / BENCHES, doubted / readings


def planted(rng: np.random.Generator, kind: SlipKind) -> tuple[int, float, float, float]:
    """Of benches with one slip over six sigma: how many, found, named first, among the named."""
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
        names = [(slip.kind, slip.subject) for slip in told.slips]
        first += bool(names) and names[0] == (kind, subject)
        among += (kind, subject) in names
    return large, found / large, first / large, among / large


def main() -> None:
    """Print the study."""
    rng = np.random.default_rng(SEED)
    print(f"seed {SEED}, {BENCHES} benches a row; 30 things, 22 readings, steps of {STEP_G} g\n")
    print(f"true total within 2u: {100 * coverage(rng):.1f} % (93 to 97)")
    alarms, doubted = clean(rng)
    print(f"clean benches with a slip named: {100 * alarms:.1f} %")
    print(f"clean readings doubted: {100 * doubted:.2f} % (under 2)\n")
    told = compared(range(120))
    print("120 practice benches, N and Space alone:")
    print(f"  weighings to settle the targets: {told.by_next:.0f}, "
          f"in a random order {told.by_chance:.0f} (medians)")  # fmt: skip
    print(f"  benches settled: {100 * told.settled_by_next:.0f} %, "
          f"in a random order {100 * told.settled_by_chance:.0f} %")  # fmt: skip
    print(f"  true all-up weight within 2u: {100 * told.true:.0f} %\n")
    print("| slip | over 6 sigma | found | named first | among those named |")
    print("|---|---|---|---|---|")
    for kind in SlipKind:
        large, found, first, among = planted(rng, kind)
        print(f"| {kind} | {large} | {100 * found:.1f} % | {100 * first:.1f} % "
              f"| {100 * among:.1f} % |")  # fmt: skip
        sys.stdout.flush()


if __name__ == "__main__":
    main()
