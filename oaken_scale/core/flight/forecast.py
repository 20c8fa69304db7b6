"""The forecast: what a figure and its doubt are made of, and how it narrowed over the build."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import Stations, centre_of_gravity, lever_arms
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Pedigree
from oaken_scale.core.model.target import BalanceUnit, TargetKind

POINTS: Final = 60
"""A curve has at most so many points."""

SOURCES: Final = 4
"""So many sources of doubt are named, the largest first."""

RUNS: Final = 0.10
"""A lot that comes out this far from its figure is told."""


class Mark(StrEnum):
    """How a mass is known now."""

    GUESS = "guess"
    LISTED = "listed"
    DIFFERENCE = "difference"
    WEIGHED = "weighed"


@dataclass(frozen=True, slots=True)
class Makeup:
    """What is known in one way: its grams, and its share of all-up weight's variance."""

    mark: Mark
    mass_g: float
    doubt_share: float


@dataclass(frozen=True, slots=True)
class Source:
    """One thing's share of a figure's variance."""

    part: str
    share: float


@dataclass(frozen=True, slots=True)
class Behind:
    """What is behind one loadout's figures.

    ``makeup`` of its all-up weight by mark; the largest sources of the doubt of all-up weight and
    of the balance, shares of the variance, most first.
    """

    makeup: tuple[Makeup, ...]
    auw_sources: tuple[Source, ...]
    balance_sources: tuple[Source, ...]


@dataclass(frozen=True, slots=True)
class Lesson:
    """A lot that the weighings say runs otherwise than its figure: by this factor, one sigma."""

    lot: str
    factor: float
    sd: float


@dataclass(frozen=True, slots=True)
class Point:
    """The forecast after so many readings: all-up weight [g] and the CG from the nose [mm], one
    sigma each, and the balance in the unit of its target; None before anything has a station and a
    mass."""

    readings: int
    at: datetime | None
    auw_g: float
    auw_sd_g: float
    x_mm: float | None
    x_sd_mm: float | None
    balance: float | None
    balance_sd: float | None


def behind(
    build: Build, after: Posterior, where: Stations, aboard: Vector, marks: Sequence[Mark]
) -> Behind:
    """What one loadout's figures and their doubts are made of.

    A thing's share of the variance of ``g . m`` is ``g_i (S g)_i / g' S g``: shares sum to one, and
    one below zero takes away from the rest's.

    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.model.part import Part
    >>> build = Build("b", "B", parts=(Part("a", "A", Pedigree.GUESS, stated_g=40.0),
    ...     Part("m", "M", Pedigree.LISTING, stated_g=40.0)))
    >>> told = behind(build, solve(build), stations(build, None), np.ones(2),
    ...     (Mark.GUESS, Mark.LISTED))
    >>> [(part.mark.value, part.mass_g, round(part.doubt_share, 3)) for part in told.makeup]
    [('guess', 40.0, 0.962), ('listed', 40.0, 0.038)]
    """
    share = _shares(after, aboard)
    makeup = []
    order = {mark: k for k, mark in enumerate(Mark)}
    known = np.array([order[mark] for mark in marks], dtype=np.intp)
    for mark, k in order.items():
        of = aboard * (known == k)
        if of.any():
            makeup.append(Makeup(mark, float(of @ after.mass), float(of @ share)))
    mass = float(aboard @ (after.mass * where.placed))
    if mass <= 0:
        return Behind(tuple(makeup), _sources(build, share), ())
    x_cg = float((aboard * where.placed * after.mass) @ where.xyz[:, 0]) / mass
    arms = lever_arms(after.mass, where, aboard, x_cg)
    spread = arms * (after.mass_cov @ arms)
    spread = spread + (aboard * where.placed * after.mass / mass * where.doubt) ** 2
    total = float(spread.sum())
    return Behind(
        tuple(makeup),
        _sources(build, share),
        _sources(build, spread / total) if total > 0 else (),
    )


def _shares(after: Posterior, gradient: Vector) -> Vector:
    """Each part's share of the variance of ``gradient . m``, shape (N,)."""
    spread: Vector = gradient * (after.mass_cov @ gradient)
    total = float(spread.sum())
    return spread / total if total > 0 else spread


def _sources(build: Build, share: Vector) -> tuple[Source, ...]:
    order = np.argsort(-share, kind="stable")[:SOURCES]
    return tuple(Source(build.parts[i].id, float(share[i])) for i in order if share[i] > 0.01)


def lessons(build: Build, after: Posterior) -> tuple[Lesson, ...]:
    """Lots that come out otherwise than stated, surely and by a tenth: "your glue runs 1.6 times
    the estimate".

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> build = Build("b", "B")
    >>> lessons(build, solve(build))
    ()
    """
    told = []
    for k, lot in enumerate(build.lots):
        factor = float(after.mean[k]) / lot.constant
        sd = float(after.sd[k]) / lot.constant
        if abs(factor - 1) >= RUNS and abs(factor - 1) > 2 * sd:
            told.append(Lesson(lot.id, factor, sd))
    return tuple(told)


def narrowing(build: Build, loadout: Loadout | None, where: Stations) -> tuple[Point, ...]:
    """The forecast after each reading, as the parts list is now: a curve that narrows.

    With more readings than ``POINTS`` it is told after evenly many of them, the first and the last
    among these.

    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> build = Build("b", "B")
    >>> [point.readings for point in narrowing(build, None, stations(build, None))]
    [0]
    """
    spoken = [each for each in build.weighings if each.set_aside is None]
    steps = np.unique(np.linspace(0, len(spoken), min(len(spoken) + 1, POINTS)).round().astype(int))
    aboard = np.array(build.aboard(loadout), dtype=float)
    wing = wing_figures(build.surfaces)
    target = next((t for t in build.targets if t.kind is TargetKind.BALANCE), None)
    usual = BalanceUnit.PERCENT_MAC if wing else BalanceUnit.MM_FROM_NOSE
    origin, size = balance_axis(target.balance_unit if target else usual, wing)
    told = []
    for count in steps.tolist():
        after = solve(replace(build, weighings=tuple(spoken[:count])))
        auw, sd = after.total(aboard)
        cg = centre_of_gravity(after.mass, after.mass_cov, where, aboard)
        at = spoken[count - 1].at if count else None
        if cg is None:
            told.append(Point(count, at, auw, sd, None, None, None, None))
            continue
        stands = ((cg.x_mm - origin) / size, cg.x_sd_mm / size)
        told.append(Point(count, at, auw, sd, cg.x_mm, cg.x_sd_mm, *stands))
    return tuple(told)


def mark_of(pedigree: Pedigree, alone: bool, sharpened: bool) -> Mark:
    """Weighed alone; by difference once pans tell more than the estimate did; else as stated.

    >>> mark_of(Pedigree.GUESS, False, False).value
    'guess'
    """
    if alone:
        return Mark.WEIGHED
    if sharpened:
        return Mark.DIFFERENCE
    return Mark.GUESS if pedigree in (Pedigree.GUESS, Pedigree.ALLOWANCE) else Mark.LISTED
