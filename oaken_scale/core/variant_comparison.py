"""A build beside its variants: the four answers of each, and what is changed, in words."""

from dataclasses import dataclass
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.core.geometry.proportions import stall_of
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.target import TargetKind

MOST_CHANGES: Final = 12
_WEIGHT: Final = TargetKind.AUW


@dataclass(frozen=True, slots=True)
class Beside:
    """One of a family of variants: its loadouts' answers, the stall speed of its first one [m/s],
    and how it differs from the first: by what share its answers are higher there, in their order
    (None where either is missing), and in words."""

    build: str
    name: str
    loadouts: tuple[LoadoutAnswers, ...]
    stall_m_s: float | None
    shares: tuple[float | None, ...]
    changes: tuple[str, ...]


def beside(origin: Build, variant: Build, told: Assessment, first: Assessment) -> Beside:
    """A variant, and what is ``told`` of it, beside the build that it is one of, of which ``first``
    is told; the build itself has no changes."""
    mass = next((each.value for each in told.loadouts[0].answers if each.kind is _WEIGHT), None)
    stall = stall_of(variant, wing_figures(variant.surfaces), mass or 0.0)
    changes = () if variant.id == origin.id else changed(origin, variant)
    return Beside(variant.id, variant.name, told.loadouts, stall, _shares(told, first), changes)


def _shares(told: Assessment, first: Assessment) -> tuple[float | None, ...]:
    was = {each.kind: each.value for each in first.loadouts[0].answers}
    shares = []
    for each in told.loadouts[0].answers:
        before = was.get(each.kind)
        shares.append(each.value / before - 1 if before and each.value is not None else None)
    return tuple(shares)


def changed(origin: Build, variant: Build) -> tuple[str, ...]:
    """What is different about a variant, in words, the drawing first.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=28.0)
    >>> changed(Build("b", "B", parts=(motor,)), Build("v", "V"))
    ('without Motor',)
    """
    said = []
    before, after = wing_figures(origin.surfaces), wing_figures(variant.surfaces)
    if origin.surfaces != variant.surfaces:
        if before and after and abs(before.span_mm - after.span_mm) > 0.5:
            said.append(f"span {before.span_mm:g} to {after.span_mm:g} mm")
        if before and after and abs(before.area_dm2 - after.area_dm2) > 0.005:
            said.append(f"wing {before.area_dm2:.1f} to {after.area_dm2:.1f} dm2")
        said = said or ["another drawing"]
    was = {part.id: part for part in origin.parts if not part.retired}
    now = {part.id: part for part in variant.parts if not part.retired}
    said += [f"without {was[id].name}" for id in was if id not in now]
    said += [f"with {now[id].name}" for id in now if id not in was]
    said += [words for id in now if id in was and (words := _other(was[id], now[id]))]
    if origin.targets != variant.targets:
        said.append("other targets")
    if origin.thrust != variant.thrust:
        said.append("another thrust")
    if origin.power != variant.power:
        said.append("another drive")
    if origin.loadouts != variant.loadouts:
        said.append("other loadouts")
    if len(said) > MOST_CHANGES:
        said = [*said[:MOST_CHANGES], f"and {len(said) - MOST_CHANGES} more"]
    return tuple(said)


def _other(before: Part, after: Part) -> str:
    """How a part differs, in a few words; empty when it does not."""
    if (before.stated_g, before.uses) != (after.stated_g, after.uses):
        return f"{after.name} made otherwise"
    if before.station != after.station and before.station and after.station:
        by = after.station.x_mm - before.station.x_mm
        if abs(by) >= 0.5 and before.station.reference == after.station.reference:
            return f"{after.name} {abs(by):.0f} mm {'aft' if by > 0 else 'forward'}"
        return f"{after.name} placed otherwise"
    return f"{after.name} placed" if before.station != after.station else ""
