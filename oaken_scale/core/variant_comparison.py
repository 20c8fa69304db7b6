"""A build beside its variants: the four answers of each, and what is changed."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.assess import Assessment, LoadoutAnswers
from oaken_scale.core.geometry.proportions import stall_of
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Colour, Part
from oaken_scale.core.model.target import TargetKind

MOST_CHANGES: Final = 12
SAME_SPAN_MM: Final = 0.5
SAME_AREA_DM2: Final = 0.005
SAME_PLACE_MM: Final = 0.5
"""Less than these is no change."""

_WEIGHT: Final = TargetKind.AUW


class VariantChangeKind(StrEnum):
    """What is different about a variant."""

    SPAN = "span"
    AREA = "area"
    DRAWING = "drawing"
    WITHOUT = "without"
    WITH = "with"
    MADE_OTHERWISE = "made_otherwise"
    MOVED = "moved"
    PLACED_OTHERWISE = "placed_otherwise"
    PLACED = "placed"
    COLOURED = "coloured"
    TARGETS = "targets"
    THRUST = "thrust"
    DRIVE = "drive"
    LOADOUTS = "loadouts"


@dataclass(frozen=True, slots=True)
class VariantChange:
    """One difference: of the part called ``name``, which may be on neither build; ``before`` and
    ``after`` a span [mm] or an area [dm2]; ``by_mm`` aft where it moved."""

    kind: VariantChangeKind
    name: str = ""
    before: float | None = None
    after: float | None = None
    by_mm: float | None = None
    colour: Colour | None = None


@dataclass(frozen=True, slots=True)
class VariantComparison:
    """One of a family of variants: its loadouts' answers, the stall speed of its first one [m/s],
    and how it differs from the first: by what share its answers are higher there, in their order
    (None where either is missing), what is changed, and how many changes ``more``."""

    build: str
    name: str
    loadouts: tuple[LoadoutAnswers, ...]
    stall_m_s: float | None
    shares: tuple[float | None, ...]
    changes: tuple[VariantChange, ...]
    more: int = 0


def compared(
    origin: Build, variant: Build, told: Assessment, first: Assessment
) -> VariantComparison:
    """A variant, and what is ``told`` of it, beside the build that it is one of, of which ``first``
    is told; the build itself has no changes.

    >>> from dataclasses import replace
    >>> from oaken_scale.core.assess import assess
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=200.0)
    >>> origin = Build("b", "B", parts=(wing,))
    >>> variant = replace(origin, id="v", parts=(replace(wing, stated_g=180.0),))
    >>> told = compared(origin, variant, assess(variant), assess(origin))
    >>> round(told.shares[0], 2), [change.kind.value for change in told.changes]
    (-0.1, ['made_otherwise'])
    """
    mass = next((each.value for each in told.loadouts[0].answers if each.kind is _WEIGHT), None)
    stall = stall_of(variant, wing_figures(variant.surfaces), mass or 0.0)
    changes = () if variant.id == origin.id else changed(origin, variant)
    return VariantComparison(
        variant.id,
        variant.name,
        told.loadouts,
        stall,
        _shares(told, first),
        changes[:MOST_CHANGES],
        max(len(changes) - MOST_CHANGES, 0),
    )


def _shares(told: Assessment, first: Assessment) -> tuple[float | None, ...]:
    was = {each.kind: each.value for each in first.loadouts[0].answers}
    shares = []
    for each in told.loadouts[0].answers:
        before = was.get(each.kind)
        shares.append(each.value / before - 1 if before and each.value is not None else None)
    return tuple(shares)


def changed(origin: Build, variant: Build) -> tuple[VariantChange, ...]:
    """What is different about a variant, the drawing first.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=28.0)
    >>> [(each.kind.value, each.name) for each in changed(
    ...     Build("b", "B", parts=(motor,)), Build("v", "V"))]
    [('without', 'Motor')]
    """
    kind = VariantChangeKind
    was = {part.id: part for part in origin.parts if not part.retired}
    now = {part.id: part for part in variant.parts if not part.retired}
    settings = (
        (kind.TARGETS, origin.targets != variant.targets),
        (kind.THRUST, origin.thrust != variant.thrust),
        (kind.DRIVE, origin.power != variant.power),
        (kind.LOADOUTS, origin.loadouts != variant.loadouts),
    )
    return (
        *(_redrawn(origin, variant) if origin.surfaces != variant.surfaces else ()),
        *(VariantChange(kind.WITHOUT, was[id].name) for id in was if id not in now),
        *(VariantChange(kind.WITH, now[id].name) for id in now if id not in was),
        *(each for id in now if id in was for each in _other(was[id], now[id])),
        *(VariantChange(each) for each, differs in settings if differs),
    )


def _redrawn(origin: Build, variant: Build) -> tuple[VariantChange, ...]:
    """Another span, another area; or another drawing, which shows in neither."""
    before, after = wing_figures(origin.surfaces), wing_figures(variant.surfaces)
    found = []
    if before and after:
        spans, areas = (before.span_mm, after.span_mm), (before.area_dm2, after.area_dm2)
        if abs(spans[1] - spans[0]) > SAME_SPAN_MM:
            found.append(VariantChange(VariantChangeKind.SPAN, "", *spans))
        if abs(areas[1] - areas[0]) > SAME_AREA_DM2:
            found.append(VariantChange(VariantChangeKind.AREA, "", *areas))
    return tuple(found) or (VariantChange(VariantChangeKind.DRAWING),)


def _other(before: Part, after: Part) -> Iterator[VariantChange]:
    """How a part differs: what it is made of, or else where it sits; and its colour."""
    kind = VariantChangeKind
    if (before.stated_g, before.uses) != (after.stated_g, after.uses):
        yield VariantChange(kind.MADE_OTHERWISE, after.name)
    elif before.station != after.station:
        yield _elsewhere(before, after)
    if before.colour != after.colour:
        yield VariantChange(kind.COLOURED, after.name, colour=after.colour)


def _elsewhere(before: Part, after: Part) -> VariantChange:
    then, now = before.station, after.station
    if then is None or now is None:
        return VariantChange(VariantChangeKind.PLACED, after.name)
    by_mm = now.x_mm - then.x_mm
    if abs(by_mm) < SAME_PLACE_MM or then.reference != now.reference:
        return VariantChange(VariantChangeKind.PLACED_OTHERWISE, after.name)
    return VariantChange(VariantChangeKind.MOVED, after.name, by_mm=by_mm)
