"""Looking back: what was planned against what became of it, and what repairs and new parts added
over time."""

from dataclasses import dataclass
from datetime import datetime
from typing import Final

from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity
from oaken_scale.core.flight.part_masses import PartMass
from oaken_scale.core.material.shopping import shopping
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.part import Pedigree
from oaken_scale.core.model.target import Target, TargetKind

MENDING: Final = (DiaryKind.REPAIR, DiaryKind.REPLACE)
"""What is a repair, or a part in place of another."""

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
    """A repair or a replacement: when, in its words, what it added, and what all of them have added
    by then [g]."""

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
    """Every repair and replacement in its time, with what it left on the plane.

    What was mended and replaced at once is one; what came off for good with it counts as well.
    """
    weighs = {mass.id: mass.mass_g for mass in masses}
    acts: dict[datetime, list[DiaryEntry]] = {}
    for each in sorted(build.diary, key=lambda each: each.at):
        acts.setdefault(each.at, []).append(each)
    told, total = [], 0.0
    for at, entries in acts.items():
        if any(each.kind in MENDING for each in entries):
            added = sum(_left(build, each, weighs) for each in entries)
            total += added
            words = dict.fromkeys(each.words for each in entries)
            told.append(Repaired(at, "; ".join(words), added, total))
    return tuple(told)


def _left(build: Build, entry: DiaryEntry, weighs: dict[str, float]) -> float:
    """What one entry left on the plane [g]: what was added and is still on it; a part in another's
    place, and in whose place it came; less what came off for good."""
    here = {part.id for part in build.parts if not part.retired}
    if entry.kind is DiaryKind.REPAIR:
        hosted = {part.id for part in build.parts if part.host is not None}
        return sum(weighs[id] for id in entry.parts if id in here & hosted)
    if entry.kind is DiaryKind.REPLACE:
        there = here | {part.replaces for part in build.parts}
        came = sum(weighs.get(id, 0.0) for id in entry.parts[1:] if id in there)
        return came - sum(weighs.get(id, 0.0) for id in entry.parts[:1])
    if entry.kind is DiaryKind.RETIRE:
        return -sum(weighs.get(id, 0.0) for id in entry.parts)
    return 0.0
