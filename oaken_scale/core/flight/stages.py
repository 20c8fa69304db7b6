"""How much so far: a running total, stage by stage, beside the budget and the last version."""

from dataclasses import dataclass

import numpy as np

from oaken_scale.core.ledger.assembly import WITHIN, membership
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build, TargetKind
from oaken_scale.core.model.reference_build import Past, PastPart


@dataclass(frozen=True, slots=True)
class Stage:
    """One assembly in the order of the parts list: its forecast [g], one sigma, how much of it
    has been on a pan, and the running totals of both; ``past_g`` and ``past_running_g`` are those
    of the build that it is measured by, None where that has no such assembly."""

    assembly: str
    mass_g: float
    sd_g: float
    been_g: float
    running_g: float
    running_sd_g: float
    past_g: float | None
    past_running_g: float | None


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
    past: str | None
    past_g: float | None


def so_far(build: Build, after: Posterior, aboard: Vector, been: Vector) -> SoFar:
    """Sum up stage by stage. ``aboard`` and ``been`` (on a pan; both 0 or 1) have shape (N,).

    >>> from oaken_scale.core.model.build import Item, Pedigree
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> build = Build("b", "B", past=Past("Old", (PastPart("Wing", 100.0),)), items=(
    ...     Item("w", "W", Pedigree.GUESS, "Wing", 90.0), Item("t", "T", Pedigree.GUESS, "Tail", 30)
    ... ))
    >>> told = so_far(build, solve(build), np.ones(2), np.array([1.0, 0.0]))
    >>> [(s.assembly, s.running_g, s.past_running_g) for s in told.stages], told.been_g
    ([('Wing', 90.0, 100.0), ('Tail', 120.0, None)], 90.0)
    """
    names, members = membership(build.items)
    outer = [k for k, name in enumerate(names) if WITHIN not in name]
    inside = aboard * members[outer]
    sums = after.totals(np.vstack([inside, np.cumsum(inside, axis=0)]))
    been_g = (inside @ (been * after.mass)).tolist()
    past = {part.assembly: part.grams for part in build.past.parts} if build.past else {}
    past_running: float | None = 0.0 if build.past else None
    stages: list[Stage] = []
    for k, total, running in zip(outer, sums, sums[len(outer) :], strict=False):
        name = names[k]
        before = past.get(name)
        if before is None or past_running is None:
            past_running = None
        else:
            past_running += before
        stages.append(Stage(name, *total, been_g[len(stages)], *running, before, past_running))
    limits = [t.high for t in build.targets if t.kind is TargetKind.AUW]
    forecast, forecast_sd = after.total(aboard)
    return SoFar(
        stages=tuple(stages),
        been_g=float((aboard * been) @ after.mass),
        forecast_g=forecast,
        forecast_sd_g=forecast_sd,
        limit_g=limits[0] if limits else None,
        budget_g=sum(each.grams for each in build.budget.allotments) if build.budget else None,
        past=build.past.name if build.past else None,
        past_g=build.past.auw_g if build.past else None,
    )


def past_of(told: SoFar, name: str) -> Past:
    """A build as it stands, for another one to be measured by."""
    return Past(name, tuple(PastPart(each.assembly, round(each.mass_g, 1)) for each in told.stages))
