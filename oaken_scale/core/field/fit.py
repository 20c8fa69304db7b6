"""Does it fit: what goes into its bay, whether a lead reaches, and what keeps clear of what.

Facts only; a thing's box stands about its station. Source: docs/methods.md, section 7.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from math import hypot
from typing import Final

from shapely import Polygon, box

from oaken_scale.core.field.controls import control_told, drawn_controls
from oaken_scale.core.flight.centre_of_gravity import x_from_nose
from oaken_scale.core.geometry.boxes import Sides, clearance_mm, how_many, together
from oaken_scale.core.geometry.wing import WingFigures, wing_figures
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import FieldLog
from oaken_scale.core.model.fitting import Bay, Fit, FitRole
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Surface

APART_MM: Final = 100.0
"""A receiver and a transmitter are kept so far apart, at least [mm]; docs of their makers rule."""

CLEAR_MM: Final = 15.0
"""What stands nearer to a propeller's disc than this may touch it [mm]."""

LOOSE: Final = 1.1
"""A lead runs along walls and lies loose: it takes so many times the way along, across and up."""

NEAR_HINGE_MM: Final = 20.0
"""So far over or under a control something is in its way [mm]."""


class Misfit(StrEnum):
    """What does not fit."""

    TOO_LARGE = "too_large"
    NOT_TOGETHER = "not_together"
    OUTSIDE = "outside"
    SLIDES_OUT = "slides_out"
    LEAD_SHORT = "lead_short"
    TOO_NEAR = "too_near"
    IN_DISC = "in_disc"
    AT_CONTROL = "at_control"


@dataclass(frozen=True, slots=True)
class FitNote:
    """Something that does not fit: the part, what it is in the way of (a part, a bay or a control
    by its id), and by how much [mm]; None where no length says it."""

    kind: Misfit
    part: str
    other: str
    by_mm: float | None = None


@dataclass(frozen=True, slots=True)
class InBay:
    """A part in its bay: the room on its tightest side [mm], and how many of it would go in."""

    part: str
    bay: str
    clearance_mm: float
    how_many: int


@dataclass(frozen=True, slots=True)
class Reach:
    """A lead: how much of it is wanted from where both its ends sit [mm], at most over what they
    slide, and how long it is."""

    part: str
    other: str
    wanted_mm: float
    most_mm: float
    lead_mm: float


@dataclass(frozen=True, slots=True)
class FitTold:
    """All that is told of what fits."""

    in_bays: tuple[InBay, ...]
    reaches: tuple[Reach, ...]
    notes: tuple[FitNote, ...]


@dataclass(frozen=True, slots=True)
class _Placed:
    """A part with its place from the nose, and what it takes up."""

    part: Part
    fit: Fit
    at: tuple[float, float, float] | None

    @property
    def sides(self) -> Sides | None:
        fit = self.fit
        if fit.length_mm is None or fit.width_mm is None or fit.height_mm is None:
            return None
        return fit.length_mm, fit.width_mm, fit.height_mm

    @property
    def slide(self) -> tuple[float, float]:
        """How far it may move forward and aft of where it is [mm], the first not above zero."""
        part = self.part
        if part.slide is None or part.station is None:
            return 0.0, 0.0
        low, high = (end - part.station.x_mm for end in (part.slide.low_mm, part.slide.high_mm))
        return min(low, 0.0), max(high, 0.0)


def fit_told(build: Build) -> FitTold:
    """What is told of a build's bays, leads and clearances.

    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> pack = Part("pack", "Pack", Pedigree.LISTING, stated_g=74.0, station=Station(100.0),
    ...     fit=Fit(80.0, 35.0, 28.0, bay="bay"))
    >>> told = fit_told(Build("b", "B", parts=(pack,),
    ...     bays=(Bay("bay", "Bay", 40.0, 120.0, 40.0, 60.0),)))
    >>> told.in_bays[0].clearance_mm, told.in_bays[0].how_many, told.notes
    (12.0, 2, ())
    """
    return _told(build.parts, build.bays, build.surfaces, build.loadouts, build.field)


@recalled(keep=8)
def _told(
    parts: tuple[Part, ...],
    bays_: tuple[Bay, ...],
    surfaces: tuple[Surface, ...],
    loadouts: tuple[Loadout, ...],
    field: FieldLog,
) -> FitTold:
    if not bays_ and all(part.fit is None for part in parts):
        return FitTold((), (), ())
    build = Build(
        "", "", parts=parts, bays=bays_, surfaces=surfaces, loadouts=loadouts, field=field
    )
    placed = _placed(build)
    bays = {bay.id: bay for bay in build.bays}
    reaches = tuple(_reaches(placed))
    notes = [
        *_in_bays(placed, bays),
        *_not_together(build, placed, bays),
        *(
            FitNote(Misfit.LEAD_SHORT, each.part, each.other, each.most_mm - each.lead_mm)
            for each in reaches
            if each.most_mm > each.lead_mm
        ),
        *_too_near(placed),
        *_in_disc(placed),
        *_at_controls(build, placed),
    ]
    return FitTold(tuple(_rooms(placed, bays)), reaches, tuple(notes))


def _placed(build: Build) -> dict[str, _Placed]:
    wing = wing_figures(build.surfaces)
    return {
        part.id: _Placed(part, part.fit or Fit(), _at(part, wing))
        for part in build.parts
        if not part.retired and (part.fit is not None or part.station is not None)
    }


def _at(part: Part, wing: WingFigures | None) -> tuple[float, float, float] | None:
    if part.station is None:
        return None
    x = x_from_nose(part.station.x_mm, part.station.reference, wing)
    return x, part.station.y_mm, part.station.z_mm


def _rooms(placed: dict[str, _Placed], bays: dict[str, Bay]) -> Iterator[InBay]:
    for each in placed.values():
        bay, sides = bays.get(each.fit.bay or ""), each.sides
        if bay is not None and sides is not None:
            room = _inner(bay)
            yield InBay(each.part.id, bay.id, clearance_mm(room, sides), how_many(room, sides))


def _inner(bay: Bay) -> Sides:
    return bay.length_mm, bay.width_mm, bay.height_mm


def _in_bays(placed: dict[str, _Placed], bays: dict[str, Bay]) -> Iterator[FitNote]:
    """What is too large for its bay, or sits or slides out of it."""
    for each in placed.values():
        bay, sides = bays.get(each.fit.bay or ""), each.sides
        if bay is None or sides is None:
            continue
        room = clearance_mm(_inner(bay), sides)
        if room < 0:
            yield FitNote(Misfit.TOO_LARGE, each.part.id, bay.id, -room)
            continue
        if each.at is None:
            continue
        out = _out_of(bay, each.at[0], sides[0])
        if out > 0:
            yield FitNote(Misfit.OUTSIDE, each.part.id, bay.id, out)
            continue
        ends = [_out_of(bay, each.at[0] + by, sides[0]) for by in each.slide]
        if max(ends) > 0:
            yield FitNote(Misfit.SLIDES_OUT, each.part.id, bay.id, max(ends))


def _out_of(bay: Bay, x: float, length: float) -> float:
    """By how much a thing sticks out of its bay at the front or the rear [mm]."""
    ahead = bay.x_mm - (x - length / 2)
    behind = x + length / 2 - (bay.x_mm + bay.length_mm)
    return max(ahead, behind, 0.0)


def _not_together(
    build: Build, placed: dict[str, _Placed], bays: dict[str, Bay]
) -> Iterator[FitNote]:
    """What goes into a bay alone, and not together with what else flies in it."""
    told: set[tuple[str, ...]] = set()
    loadouts: Sequence[Loadout | None] = build.loadouts or (None,)
    for loadout in loadouts:
        aboard = {
            i.id for i, flies in zip(build.parts, build.aboard(loadout), strict=True) if flies
        }
        for bay in bays.values():
            inside = [
                (each, each.sides)
                for each in placed.values()
                if each.fit.bay == bay.id and each.part.id in aboard
            ]
            sized = [(each, sides) for each, sides in inside if sides is not None]
            key = (bay.id, *(each.part.id for each, _ in sized))
            alone = all(clearance_mm(_inner(bay), sides) >= 0 for _, sides in sized)
            if len(sized) < 2 or not alone or key in told:
                continue
            told.add(key)
            if together(_inner(bay), [sides for _, sides in sized]) is None:
                last = min(sized, key=lambda one: one[1][0] * one[1][1] * one[1][2])
                yield FitNote(Misfit.NOT_TOGETHER, last[0].part.id, bay.id)


def _reaches(placed: dict[str, _Placed]) -> Iterator[Reach]:
    for each in placed.values():
        other = placed.get(each.fit.plugs_into or "")
        if each.fit.lead_mm is None or other is None or each.at is None or other.at is None:
            continue
        x, y, z = (a - b for a, b in zip(each.at, other.at, strict=True))
        moves = [a - b for a in (0.0, *each.slide) for b in (0.0, *other.slide)]
        ways = [LOOSE * (abs(x + by) + abs(y) + abs(z)) for by in moves]
        yield Reach(each.part.id, other.part.id, ways[0], max(ways), each.fit.lead_mm)


def _of_role(placed: dict[str, _Placed], role: FitRole) -> list[_Placed]:
    return [each for each in placed.values() if each.fit.role is role]


def _too_near(placed: dict[str, _Placed]) -> Iterator[FitNote]:
    """Receivers near transmitters."""
    for receiver in _of_role(placed, FitRole.RECEIVER):
        for other in _of_role(placed, FitRole.TRANSMITTER):
            if receiver.at is None or other.at is None:
                continue
            gaps = (a - b for a, b in zip(receiver.at, other.at, strict=True))
            apart = sum(gap**2 for gap in gaps) ** 0.5
            if apart < APART_MM:
                yield FitNote(Misfit.TOO_NEAR, receiver.part.id, other.part.id, APART_MM - apart)


def _in_disc(placed: dict[str, _Placed]) -> Iterator[FitNote]:
    """What stands in or close to a propeller's disc, as far as its own box reaches; not the motor
    that it sits on."""
    for propeller in _of_role(placed, FitRole.PROPELLER):
        across = propeller.fit.width_mm
        if propeller.at is None or across is None:
            continue
        thick = (propeller.fit.length_mm or 0.0) / 2
        x, y, z = propeller.at
        for each in placed.values():
            sides = each.sides
            if each is propeller or each.at is None or sides is None:
                continue
            ahead = abs(each.at[0] - x) - sides[0] / 2 - thick
            # The nearest of its box to the shaft, seen from the front.
            out = max(abs(each.at[1] - y) - sides[1] / 2, 0.0)
            up = max(abs(each.at[2] - z) - sides[2] / 2, 0.0)
            is_near = ahead < CLEAR_MM and hypot(out, up) < across / 2 + CLEAR_MM
            if is_near and propeller.fit.plugs_into != each.part.id:
                yield FitNote(Misfit.IN_DISC, each.part.id, propeller.part.id, CLEAR_MM - ahead)


def _at_controls(build: Build, placed: dict[str, _Placed]) -> Iterator[FitNote]:
    """What lies over or under a control behind its hinge, where it would stop it."""
    heights = {
        surface.id: [section.z_mm for section in surface.sections] for surface in build.surfaces
    }
    upright = {s.id for s in build.surfaces if s.role.value == "fin"}
    for control in drawn_controls(build):
        if control.surface in upright:
            continue
        halves = [Polygon(corners) for corners in control_told(build, control).corners]
        low, high = min(heights[control.surface]), max(heights[control.surface])
        for each in placed.values():
            sides = each.sides
            if each.at is None or sides is None:
                continue
            x, y, z = each.at
            foot = box(x - sides[0] / 2, y - sides[1] / 2, x + sides[0] / 2, y + sides[1] / 2)
            near = max(low - (z + sides[2] / 2), (z - sides[2] / 2) - high) < NEAR_HINGE_MM
            if near and _covers(halves, foot):
                yield FitNote(Misfit.AT_CONTROL, each.part.id, control.id)


def _covers(halves: Iterable[Polygon], foot: Polygon) -> bool:
    return any(half.is_valid and half.intersection(foot).area > 1.0 for half in halves)
