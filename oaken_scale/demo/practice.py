"""The practice bench: a made-up half-built plane with hidden true masses and one planted slip.

For learning the tool and for its tests: find the slip, settle every target in as few weighings as
you can, then look at the truth beside the estimate.
"""

import random
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Final

import numpy as np

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.centre_of_gravity import centre_of_gravity, stations
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.prior import DOUBT, LISTING_FLOOR_G, prior
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Container, Pan, Weighing
from oaken_scale.demo.sandpiper import sandpiper

PURPOSE: Final = "practice"
"""What a practice build is for, and how it is told from a real one."""

TRAY: Final = Container("tray", "Tray", 27.6)
STEP_G: Final = 0.1


@dataclass(frozen=True, slots=True)
class Practice:
    """A practice bench: the build as it is found, what is true, and the slip that was planted."""

    build: Build
    masses_g: dict[str, float]
    constants: dict[str, float]
    slip: str


def practice(seed: int) -> Practice:
    """Make one up. The truth is drawn as the build believes it, and shown as a scale would.

    The slip is one that can be found: where what was planned for the slipped part is so unsure that
    the tray under it stands out of nothing, other things were weighed.
    """
    rng = random.Random(seed)
    plan = sandpiper()
    known = prior(replace(plan, weighings=()))
    constants = {lot.id: rng.gauss(lot.constant, lot.doubt) for lot in plan.lots}
    masses = {
        part.id: max(_true(rng, part, known.mass[i], constants, plan), 0.4)
        for i, part in enumerate(plan.parts)
    }
    log, slipped = _weighed(rng, plan, masses)
    while not _stands_out(plan, log):
        log, slipped = _weighed(rng, plan, masses)
    name = next(part.name for part in plan.parts if part.id == slipped)
    build = replace(
        _begun(plan, log),
        name=f"Practice plane {seed}",
        purpose=PURPOSE,
        notes="Made up, for practice. One of its readings is wrong.",
        targets=_targets(rng, plan, masses),
    )
    return Practice(build, masses, constants, f"{name} was weighed with the tray not tared")


def _weighed(
    rng: random.Random, plan: Build, masses: dict[str, float]
) -> tuple[tuple[Weighing, ...], str]:
    """Nine readings of what the plan weighs, and the part that one shows with the tray under it."""
    loads = [w.pan for w in plan.weighings if w.pan.loads and not w.pan.samples]
    pans = [loads[k] for k in sorted(rng.sample(range(len(loads)), 9))]
    wrong = rng.choice([k for k, pan in enumerate(pans) if len(pan.loads) == 1])
    start = datetime(2026, 5, 2, 9, 30, tzinfo=UTC)
    log = []
    for k, pan in enumerate(pans):
        true = sum(masses[load.part] * load.count for load in pan.loads)
        true += TRAY.mass_g if k == wrong else 0.0
        shown = round(round((true + rng.gauss(0, STEP_G / 3)) / STEP_G) * STEP_G, 1)
        at = start + timedelta(minutes=4 * k)
        log.append(_reading(f"practice-{k + 1:02d}", at, max(shown, STEP_G), pan, plan))
    return tuple(log), pans[wrong].loads[0].part


def _begun(plan: Build, log: tuple[Weighing, ...]) -> Build:
    """The plan with these readings for its log, and two containers on the bench."""
    containers = (TRAY, Container("cup", "Screw cup", 12.8))
    return replace(plan, containers=containers, budget=None, weighings=log)


def _stands_out(plan: Build, log: tuple[Weighing, ...]) -> bool:
    """Whether one of the readings is doubted, and why it may be wrong can be told."""
    return any(doubt.slips for doubt in assess(_begun(plan, log)).doubts)


def _true(
    rng: random.Random, part: Part, estimate_g: float, constants: dict[str, float], plan: Build
) -> float:
    stated = part.stated_g or (estimate_g if part.pedigree is Pedigree.ALLOWANCE else 0.0)
    mean = stated + sum(use.amount * constants[use.lot] for use in part.uses)
    own = DOUBT[part.pedigree] * abs(estimate_g)
    if part.pedigree is Pedigree.LISTING:
        own = max(own, LISTING_FLOOR_G)
    return float(mean + rng.gauss(0, own / 2 if part.pedigree is Pedigree.ALLOWANCE else own))


def _reading(id: str, at: datetime, shown: float, pan: Pan, plan: Build) -> Weighing:
    like = plan.weighings[0]
    return replace(like, id=id, at=at, reading_g=shown, pan=pan, typed="", note="")


def _targets(rng: random.Random, plan: Build, masses: dict[str, float]) -> tuple[Target, ...]:
    """Targets that weighing can settle: met or missed by more than a finished ledger doubts."""
    aboard = np.array(plan.aboard(plan.loadouts[0]), dtype=float)
    mass = np.array([masses[part.id] for part in plan.parts])
    total = float(mass @ aboard)
    wing = wing_figures(plan.surfaces)
    cg = centre_of_gravity(mass, np.zeros((len(mass),) * 2), stations(plan, wing), aboard)
    if wing is None or cg is None:
        raise ValueError("a practice bench needs a wing and placed parts to set its targets by")
    at = 100 * (cg.x_mm - wing.mac_le_x_mm) / wing.mac_mm
    off = rng.choice((0.0, 0.0, 7.0, -7.0))
    source = "made up for practice"
    limit = total * rng.choice((0.965, 1.035))
    return (
        Target(TargetKind.AUW, high=round(limit), source=source),
        Target(TargetKind.WING_LOADING, high=round(1.06 * total / wing.area_dm2, 1), source=source),
        Target(TargetKind.THRUST_TO_WEIGHT, low=0.5, source=source),
        Target(TargetKind.BALANCE, round(at + off - 3.2, 1), round(at + off + 3.2, 1), source),
    )
