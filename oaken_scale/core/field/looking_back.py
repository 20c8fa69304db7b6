"""Looking back: what was planned against what became of it, and what repairs added over time."""

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity
from oaken_scale.core.flight.part_masses import PartMass
from oaken_scale.core.material.shopping import shopping
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryKind
from oaken_scale.core.model.part import Pedigree
from oaken_scale.core.model.target import Target, TargetKind

MOST_PARTS: Final = 5
"""So many parts are told, those farthest from their figure."""


@dataclass(frozen=True, slots=True)
class PartOff:
    """A part that came out otherwise than planned [g]."""

    part: str
    name: str
    planned_g: float
    weighs_g: float


@dataclass(frozen=True, slots=True)
class Repaired:
    """A repair: when, in its words, what it added, and what all repairs have added by then [g]."""

    at: datetime
    words: str
    added_g: float
    by_then_g: float


@dataclass(frozen=True, slots=True)
class LookingBack:
    """A build as it was planned and as it became.

    ``planned_g`` are the figures of all that is aboard before anything was weighed, the allowance
    among them; ``weighs_g`` what it comes to; ``limit_g`` its target. ``balance_low`` and
    ``balance_high`` are the balance it was to have, in the target's unit, ``cg_mm`` where it is.
    ``cost`` is what its priced things and sheets cost. Begun and finished by the first reading and
    by the builder's word; ``days`` between them.
    """

    planned_g: float
    weighs_g: float
    limit_g: float | None
    balance: Target | None
    cg_mm: float | None
    cost: float
    unpriced: int
    begun_at: datetime | None
    finished_at: datetime | None
    days: float | None
    parts: tuple[PartOff, ...]
    repairs: tuple[Repaired, ...]


def looking_back(
    build: Build, masses: tuple[PartMass, ...], cg: CentreOfGravity | None
) -> LookingBack:
    """A build as it was planned and as it became, from the masses of its parts in their order.

    >>> looking_back(Build("b", "B"), (), None).repairs
    ()
    """
    here = [
        (part, mass)
        for part, mass in zip(build.parts, masses, strict=True)
        if not part.retired and part.host is None
    ]
    limits = {each.kind: each for each in build.targets}
    auw = limits.get(TargetKind.AUW)
    bought = shopping(build)
    begun = min((each.at for each in build.weighings), default=None)
    ended = build.finished_at
    off = [
        PartOff(part.id, part.name, mass.estimate_g, mass.mass_g)
        for part, mass in here
        if part.pedigree is not Pedigree.ALLOWANCE
        and abs(mass.mass_g - mass.estimate_g) > 2 * mass.sd_g
    ]
    off.sort(key=lambda each: -abs(each.weighs_g - each.planned_g))
    return LookingBack(
        planned_g=sum(mass.estimate_g for _, mass in here),
        weighs_g=sum(
            mass.mass_g for part, mass in zip(build.parts, masses, strict=True) if not part.retired
        ),
        limit_g=auw.high if auw else None,
        balance=limits.get(TargetKind.BALANCE),
        cg_mm=cg.x_mm if cg else None,
        cost=bought.everything_cost,
        unpriced=len(bought.unpriced),
        begun_at=begun,
        finished_at=ended,
        days=(ended - begun).total_seconds() / 86_400 if begun and ended else None,
        parts=tuple(off[:MOST_PARTS]),
        repairs=_repairs(build, masses),
    )


def _repairs(build: Build, masses: tuple[PartMass, ...]) -> tuple[Repaired, ...]:
    """Every repair in its time, with what it left on the plane."""
    weighs = {
        part.id: mass.mass_g
        for part, mass in zip(build.parts, masses, strict=True)
        if part.host is not None and not part.retired
    }
    told, total = [], 0.0
    for each in sorted(build.diary, key=lambda each: each.at):
        if each.kind is DiaryKind.REPAIR:
            added = sum(weighs.get(id, 0.0) for id in each.parts)
            total += added
            told.append(Repaired(each.at, each.words, added, total))
    return tuple(told)
