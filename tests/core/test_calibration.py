"""Is the stated doubt honest? Made-up builds, forecast before cutting, against their truth."""

import numpy as np
import pytest

from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Pan, Sample, Scale, Weighing
from tests.benches import MORNING

BUILDS = 400


def planned(rng: np.random.Generator) -> tuple[Build, dict[str, float]]:
    """A plan nobody has cut yet, and the true constants of its lots.

    The world draws its truth in its own order: lots within their stated ranges, then each part
    about what it is cut from, glue generous or sparing, listings off, something always forgotten.
    """
    foam = [lot for lot in STARTER if lot.kind is LotKind.FOAM]
    lots = [
        foam[int(rng.integers(len(foam)))],
        *(lot for lot in STARTER if lot.id in ("hot-melt", "packing-tape", "rod-2")),
    ]
    parts = [
        Part(
            f"panel-{k}",
            "Panel",
            Pedigree.CALCULATED,
            uses=(Use(lots[0].id, float(rng.uniform(1, 14))),),
        )
        for k in range(int(rng.integers(4, 10)))
    ]
    parts += [
        Part(f"seam-{k}", "Seam", Pedigree.JOINT, uses=(Use("hot-melt", float(rng.uniform(1, 4))),))
        for k in range(3)
    ]
    parts += [
        Part("tape", "Tape", Pedigree.COVERING, uses=(Use("packing-tape", 3.0),)),
        Part("spar", "Spar", Pedigree.CALCULATED, uses=(Use("rod-2", 0.9),)),
        Part("motor", "Motor", Pedigree.LISTING, stated_g=float(rng.uniform(15, 60))),
        Part("pack", "Pack", Pedigree.LISTING, stated_g=float(rng.uniform(30, 120))),
        Part("rods", "Rods", Pedigree.GUESS, stated_g=6.0),
        Part("rest", "Rest", Pedigree.ALLOWANCE),
    ]
    build = Build("b", "B", lots=tuple(lots), parts=tuple(parts), scales=(Scale("s", "S", 0.1),))
    return build, {lot.id: float(rng.normal(lot.constant, lot.doubt)) for lot in lots}


def truth(build: Build, constants: dict[str, float], rng: np.random.Generator) -> float:
    """What the plane comes to [g]."""
    spread = {"guess": 0.25, "listing": 0.05, "calculated": 0.03, "joint": 0.4, "covering": 0.1}
    stated = {lot.id: lot.constant for lot in build.lots}
    known = total = 0.0
    for part in build.parts:
        if part.pedigree is Pedigree.ALLOWANCE:
            continue
        estimate = (part.stated_g or 0) + sum(u.amount * stated[u.lot] for u in part.uses)
        mean = (part.stated_g or 0) + sum(u.amount * constants[u.lot] for u in part.uses)
        known += estimate
        total += mean + spread[part.pedigree] * estimate * float(rng.normal())
    return total + 0.04 * known * (1 + float(rng.normal()))


def sample(build: Build, lot: Lot, constant: float, rng: np.random.Generator) -> Weighing:
    """A square or a metre of a lot on a scale of 0.1 g steps, a little off."""
    error = 1 + float(rng.normal(0, 0.003))
    shown = round((constant * 2.0 * error + float(rng.normal(0, 0.05))) / 0.1) * 0.1
    return Weighing(f"w-{lot.id}", MORNING, "s", max(shown, 0.1), Pan((), (Sample(lot.id, 2.0),)))


@pytest.mark.parametrize("sampled", [False, True], ids=["before", "after-sampling"])
def test_the_true_weight_lies_within_two_sigma_about_95_times_in_100(sampled):
    rng = np.random.default_rng(20261125)
    pulls = []
    for _ in range(BUILDS):
        build, constants = planned(rng)
        came_to = truth(build, constants, rng)
        if sampled:
            weighings = tuple(sample(build, lot, constants[lot.id], rng) for lot in build.lots)
            build = Build(
                build.id,
                build.name,
                lots=build.lots,
                parts=build.parts,
                scales=build.scales,
                weighings=weighings,
            )
        mass, sd = solve(build).total(np.ones(len(build.parts)))
        pulls.append((came_to - mass) / sd)
    inside = np.mean(np.abs(pulls) <= 2)
    # 95.4 % expected; four standard errors of 400 builds either way.
    assert 0.912 <= inside <= 0.996
    assert abs(np.mean(pulls)) < 4 / BUILDS**0.5
    assert 0.85 < np.std(pulls) < 1.15


def test_one_square_sharpens_the_whole_forecast():
    build = Build(
        "b",
        "B",
        lots=(Lot("a", "A", LotUnit.DM2, 4.5, 0.7),),
        scales=(Scale("s", "S", 0.1),),
        parts=(Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 25.0),)),),
    )
    square = Weighing("w", MORNING, "s", 4.9, Pan((), (Sample("a", 1.0),)))
    before = solve(build).total(np.ones(1))
    weighed = Build(
        "b", "B", lots=build.lots, parts=build.parts, scales=build.scales, weighings=(square,)
    )
    after = solve(weighed).total(np.ones(1))
    assert before[0] == pytest.approx(112.5)
    assert after[0] == pytest.approx(25 * 4.9, rel=0.01)
    assert after[1] < before[1] / 4
