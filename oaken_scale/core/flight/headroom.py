"""Grams in hand: how much heavier a loadout may get until the first target breaks."""

from dataclasses import dataclass
from enum import StrEnum
from math import inf

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.flight.verdict import chance_below
from oaken_scale.core.model.target import TargetKind


class End(StrEnum):
    """The end of the plane that grams are put on."""

    NOSE = "nose"
    TAIL = "tail"


@dataclass(frozen=True, slots=True)
class Headroom:
    """What a loadout may gain until a target breaks [g], one sigma; less than nothing where it is
    broken already. ``chance`` that there is anything left; ``at`` which end, for the balance."""

    kind: TargetKind
    grams: float
    sd_g: float
    chance: float
    at: End | None = None


def headroom(plane: Flying) -> tuple[Headroom, ...]:
    """What a loadout may gain for each target that its weight can break, the first to break first.

    ``min(AUW_max, WL_max S, T/TW_min) - M``; the chance that a limit holds is the one its verdict
    goes by, doubted readings included. Source: docs/methods.md, section 10.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.target import Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> limit = Target(TargetKind.AUW, high=590.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,), targets=(limit,))).planes
    >>> [(each.kind.value, each.grams) for each in headroom(plane)]
    [('auw', 90.0)]
    """
    told = []
    for target in plane.build.targets:
        bears = METRICS[target.kind].bears(plane, target)
        if bears is not None:
            most, sd = bears
            doubt = (sd**2 + plane.auw_sd_g**2) ** 0.5
            told.append(Headroom(target.kind, most - plane.auw_g, doubt, _chance(plane, most, sd)))
    return tuple(sorted(told, key=lambda each: each.grams))


def _chance(plane: Flying, most_g: float, sd_g: float) -> float:
    """The chance that it weighs less than ``most_g``, over all that may be wrong with its
    readings."""
    forms = plane.forms or ((1.0, plane.auw_g, plane.auw_sd_g),)
    return sum(
        share * (1 - chance_below(0.0, most_g - grams, (sd_g**2 + sd**2) ** 0.5))
        for share, grams, sd in forms
    )


def at_the_ends(plane: Flying) -> tuple[Headroom, ...]:
    """What the foremost and the rearmost thing's place bear until the CG leaves its range.

    ``g = M (x_hi - x_cg)/(x_tail - x_hi)``, and likewise at the nose.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=100.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> target = Target(TargetKind.BALANCE, 90.0, 110.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> (plane,) = fly(Build("b", "B", parts=tuple(ends), targets=(target,))).planes
    >>> [round(each.grams, 1) for each in at_the_ends(plane)]  # 200 (110 - 100) / (200 - 110)
    [22.2, 22.2]
    """
    target, cg = plane.target(TargetKind.BALANCE), plane.cg
    if target is None or cg is None:
        return ()
    origin, size = balance_axis(target.balance_unit, plane.wing)
    there = (plane.aboard > 0) & plane.where.placed.astype(bool)
    nose = float(plane.where.xyz[there, 0].min(initial=inf))
    tail = float(plane.where.xyz[there, 0].max(initial=-inf))
    told = []
    for at, end, limit in ((End.NOSE, nose, target.low), (End.TAIL, tail, target.high)):
        edge = None if limit is None else origin + size * limit
        if edge is None or (end - edge) * (1 if at is End.TAIL else -1) <= 0:
            continue
        per_mm = plane.placed_g / abs(end - edge)
        inside = edge - cg.x_mm if at is End.TAIL else cg.x_mm - edge
        grams, sd = per_mm * inside, per_mm * cg.x_sd_mm
        told.append(Headroom(target.kind, grams, sd, 1 - chance_below(0.0, grams, sd), at))
    return tuple(told)
