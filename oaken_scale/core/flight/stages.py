"""How much so far: a running total, stage by stage, beside the budget and the last version."""

from dataclasses import dataclass

import numpy as np

from oaken_scale.core.ledger.assembly import membership
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import WITHIN
from oaken_scale.core.model.reference_build import ReferenceBuild, ReferencePart
from oaken_scale.core.model.target import TargetKind


@dataclass(frozen=True, slots=True)
class Stage:
    """One assembly in the order of the parts list: its forecast [g], one sigma, how much of it
    has been on a pan, and the running totals of both; ``reference_g`` and
    ``reference_running_g`` are those of the build that it is measured by, None where that has no
    such assembly."""

    assembly: str
    mass_g: float
    sd_g: float
    been_g: float
    running_g: float
    running_sd_g: float
    reference_g: float | None
    reference_running_g: float | None


@dataclass(frozen=True, slots=True)
class SoFar:
    """The running total: what has been on a pan [g] (``been_g``), what is forecast, one sigma,
    and what it is held against: the limit, the whole budget, the earlier build."""

    stages: tuple[Stage, ...]
    been_g: float
    forecast_g: float
    forecast_sd_g: float
    limit_g: float | None
    budget_g: float | None
    reference: str | None
    reference_g: float | None


def so_far(build: Build, after: Posterior, aboard: Vector, been: Vector) -> SoFar:
    """Sum up stage by stage. ``aboard`` and ``been`` (on a pan; both 0 or 1) have shape (N,).

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> old = ReferenceBuild("Old", (ReferencePart("Wing", 100.0),))
    >>> build = Build("b", "B", reference_build=old, parts=(
    ...     Part("w", "W", Pedigree.GUESS, "Wing", 90.0), Part("t", "T", Pedigree.GUESS, "Tail", 30)
    ... ))
    >>> told = so_far(build, solve(build), np.ones(2), np.array([1.0, 0.0]))
    >>> [(s.assembly, s.running_g, s.reference_running_g) for s in told.stages], told.been_g
    ([('Wing', 90.0, 100.0), ('Tail', 120.0, None)], 90.0)
    """
    names, members = membership(build.parts)
    outer = [k for k, name in enumerate(names) if WITHIN not in name]
    inside = aboard * members[outer]
    sums = after.totals(np.vstack([inside, np.cumsum(inside, axis=0)]))
    been_g = (inside @ (been * after.mass)).tolist()
    earlier = build.reference_build
    was = {part.assembly: part.grams for part in earlier.parts} if earlier else {}
    reference_running: float | None = 0.0 if earlier else None
    stages: list[Stage] = []
    for k, total, running in zip(outer, sums, sums[len(outer) :], strict=False):
        name = names[k]
        before = was.get(name)
        if before is None or reference_running is None:
            reference_running = None
        else:
            reference_running += before
        stages.append(Stage(name, *total, been_g[len(stages)], *running, before, reference_running))
    limits = [t.high for t in build.targets if t.kind is TargetKind.AUW]
    forecast, forecast_sd = after.total(aboard)
    return SoFar(
        stages=tuple(stages),
        been_g=float((aboard * been) @ after.mass),
        forecast_g=forecast,
        forecast_sd_g=forecast_sd,
        limit_g=limits[0] if limits else None,
        budget_g=sum(each.grams for each in build.budget.allotments) if build.budget else None,
        reference=earlier.name if earlier else None,
        reference_g=earlier.auw_g if earlier else None,
    )


def reference_of(told: SoFar, name: str) -> ReferenceBuild:
    """A build as it stands, for another one to be measured by.

    >>> told = SoFar((), 0.0, 580.0, 8.0, None, None, None, None)
    >>> reference_of(told, "Sandpiper").name
    'Sandpiper'
    """
    return ReferenceBuild(
        name, tuple(ReferencePart(each.assembly, round(each.mass_g, 1)) for each in told.stages)
    )
