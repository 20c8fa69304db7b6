"""How many weighings settle the targets: "weigh next" against a random order."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from datetime import timedelta

import numpy as np

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Pedigree
from oaken_scale.core.model.weighing import Load, Pan, Sample
from oaken_scale.demo.practice import STEP_G, Practice, practice

MOST = 60

Chooser = Callable[[Build, Assessment], Pan | None]


def put_right(build: Build) -> Build:
    """Take the likeliest repair of every doubtful reading, as D and Enter do."""
    for _ in range(6):
        told = assess(build).doubts
        named = next((each for each in told if each.slips), None)
        if named is None:
            return build
        slip = named.slips[0]
        wrong = next(w for w in build.weighings if w.id == named.weighing)
        right = replace(wrong, id=f"{wrong.id}-c", reading_g=slip.reading_g, pan=slip.pan)
        build = replace(
            build,
            weighings=(
                *(replace(w, set_aside="slip") if w.id == wrong.id else w for w in build.weighings),
                right,
            ),
        )
    return build


def settled(told: Assessment) -> bool:
    """Whether every target of the first loadout is met or missed with 97.5 %."""
    chances = [a.probability for a in told.loadouts[0].answers if a.probability is not None]
    return all(not 0.025 < p < 0.975 for p in chances)


def settling(made: Practice, rng: np.random.Generator, choose: Chooser) -> tuple[int, Build]:
    """Weigh until the targets are settled or nothing is left; how many it took."""
    build = put_right(made.build)
    for count in range(MOST):
        told = assess(build)
        pan = None if settled(told) else choose(build, told)
        if pan is None:
            return count, build
        true = sum(made.masses_g[load.part] * load.count for load in pan.loads)
        true += sum(made.constants[on.lot] * on.amount for on in pan.samples)
        shown = round(max(true + float(rng.normal(0, STEP_G / 3)), STEP_G) / STEP_G) * STEP_G
        like = build.weighings[0]
        fresh = replace(
            like,
            id=f"n{count}",
            at=like.at + timedelta(hours=5 + count),
            pan=pan,
            reading_g=round(shown, 1),
            set_aside=None,
        )
        build = replace(build, weighings=(*build.weighings, fresh))
    return MOST, build


def by_weigh_next(build: Build, told: Assessment) -> Pan | None:
    """What N puts on the pan."""
    best = next((each for each in told.weigh_next if each.scale is None), None)
    if best is None:
        return None
    if best.parts:
        return Pan(tuple(sorted(Load(part) for part in best.parts)))
    return Pan((Load(best.part),)) if best.part else Pan((), (Sample(best.lot or "", 1.0),))


def at_random(rng: np.random.Generator) -> Chooser:
    """Single things not weighed alone yet, in any order."""

    def choose(build: Build, _: Assessment) -> Pan | None:
        done = {
            w.pan.loads[0].part
            for w in build.weighings
            if w.set_aside is None and len(w.pan.loads) == 1
        }
        left = [
            part.id
            for part in build.parts
            if part.id not in done
            and part.pedigree not in (Pedigree.JOINT, Pedigree.COVERING, Pedigree.ALLOWANCE)
        ]
        return Pan((Load(str(rng.choice(left))),)) if left else None

    return choose


@dataclass(frozen=True, slots=True)
class Settling:
    """Weigh next against a random order.

    Medians of how many weighings it took where both settled every target and there was anything to
    weigh; the shares of benches that each settled at all; and the share of true answers with weigh
    next: all-up weight of the first loadout within 2u.
    """

    by_next: float
    by_chance: float
    settled_by_next: float
    settled_by_chance: float
    true: float


def compared(seeds: range) -> Settling:
    """Both orders on the same practice benches."""
    rows, true = [], 0
    for seed in seeds:
        made = practice(seed)
        count, build = settling(made, np.random.default_rng(seed), by_weigh_next)
        rng = np.random.default_rng(seed)
        other, at_chance = settling(made, rng, at_random(rng))
        told = assess(build)
        rows.append((count, settled(told), other, settled(assess(at_chance))))
        answer = told.loadouts[0].answers[0]
        aboard = build.aboard(build.loadouts[0])
        weight = sum(
            made.masses_g[part.id] for part, on in zip(build.parts, aboard, strict=True) if on
        )
        true += abs((answer.value or 0) - weight) <= 2 * (answer.sd or 0)
    table = np.array(rows, dtype=float)
    both = (table[:, 1] == 1) & (table[:, 3] == 1) & (table[:, 2] > 0)
    return Settling(
        by_next=float(np.median(table[both, 0])),
        by_chance=float(np.median(table[both, 2])),
        settled_by_next=float(table[:, 1].mean()),
        settled_by_chance=float(table[:, 3].mean()),
        true=true / len(seeds),
    )
