"""A whole plane from what is there: purpose and layout, sheets of the rack, things of the drawer, a
span and a chord. It is a first guess at every part, and a build that can be begun.

Source: docs/methods.md, section 7 (rules of thumb, the builder's to change).
"""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.changes.drawing import skins
from oaken_scale.core.changes.first_drawing import first_drawing
from oaken_scale.core.flight.budget import SHARES
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.material.drawer import Thing, ThingKind, fitted
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Known, Lot, LotUnit, Use
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Habit, Part, Pedigree, Slide, Station
from oaken_scale.core.model.surface import Role, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Scale

ROUND_THE_BODY: Final = 0.75
"""A fuselage is folded from a board so many root chords wide."""

INSIDE_THE_BODY: Final = 0.45
"""Doublers, bulkheads, hatch and saddle are so much more of its board."""

POD: Final = 0.35
"""What has no tail to carry is housed in so much of a fuselage."""

USUAL_PURPOSE: Final = "park"

FROM_THE_NOSE: Final[dict[ThingKind, float]] = {
    ThingKind.MOTOR: 0.02,
    ThingKind.PROPELLER: 0.0,
    ThingKind.CONTROLLER: 0.10,
    ThingKind.RECEIVER: 0.35,
    ThingKind.SERVO: 0.40,
    ThingKind.WIRING: 0.25,
    ThingKind.CAMERA: 0.32,
    ThingKind.OTHER: 0.35,
}
"""Where a thing usually sits, as a share of the plane's length; a motor behind sits at the other
end. Packs slide to where it balances."""

BAY: Final = (0.06, 0.45)
"""Between these shares of the length a pack has its bay."""


@dataclass(frozen=True, slots=True)
class Start:
    """What a plane is begun with: its sheets, the wing's with so many layers (2 for a folded wing),
    its things with one pack that rules, its thrust where it is known, and its targets."""

    purpose: str
    layout: str
    targets: tuple[Target, ...]
    wing_lot: Lot
    body_lot: Lot
    wing_layers: float = 2.0
    things: tuple[Thing, ...] = ()
    thrust_gf: float | None = None
    least_minutes: float | None = None
    """Level flight on the first pack should last as long."""
    weighed: tuple[tuple[str, Known], ...] = ()
    """What other builds found that things weigh, by their ids."""
    allowance: Known | None = None
    habits: tuple[Habit, ...] = ()


def begun_from(start: Start, span_mm: float, chord_mm: float, name: str = "Sketch") -> Build:
    """The plane of a span and a root chord [mm]: its drawing, skins, body, joining and things, the
    first pack where it balances as far as its bay allows.

    Raises BuildFaultError for an unknown purpose or layout, or a lot that is no sheet.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> board = STARTER[0]
    >>> start = Start("park", "tractor", (), board, board,
    ...     things=(Thing("m", "Motor", ThingKind.MOTOR, 40.0),))
    >>> [(part.name, round(part.uses[0].amount, 1)) for part in begun_from(start, 1000, 180).parts
    ...  if part.uses][:3]
    [('Wing, left', 18.0), ('Wing, right', 18.0), ('Tailplane, left', 2.3)]
    """
    layout = presets.layout(start.layout)
    if start.purpose:
        presets.purpose(start.purpose)
    for lot, field in ((start.wing_lot, "wing_lot"), (start.body_lot, "body_lot")):
        if lot.unit is not LotUnit.DM2:
            words = f"{lot.name} is no sheet; choose one that is counted by its area"
            raise BuildFaultError([Fault(field, words)])
    surfaces = first_drawing(layout.starting_surfaces, span_mm, chord_mm)
    lots = tuple({lot.id: lot for lot in (start.wing_lot, start.body_lot)}.values())
    build = Build(
        "sketch",
        name,
        purpose=start.purpose,
        layout=start.layout,
        lots=lots,
        surfaces=surfaces,
        scales=(Scale("scale", "My scale", step_g=0.1),),
        targets=start.targets,
        thrust=None if start.thrust_gf is None else Thrust(start.thrust_gf, source="as given"),
        allowance=start.allowance,
        habits=start.habits,
    )
    length = _length(surfaces)
    unnamed = [*_skins(build, start), _body(start, surfaces, length, chord_mm)]
    unnamed += [_joining(start, unnamed, length)]
    unnamed += _things(start, length)
    named: list[Part] = []
    for each in unnamed:
        named.append(replace(each, id=free_id(each.name, (other.id for other in named))))
    named.append(Part("still-to-come", "Still to come", Pedigree.ALLOWANCE, "Not listed"))
    carried = tuple(each.id for each in named if each.option)
    loadouts = (Loadout("first", "As begun", carried),) if carried else ()
    build = replace(build, parts=tuple(named), loadouts=loadouts)
    return _balanced(build, length)


def _length(surfaces: Iterable[Surface]) -> float:
    return max(s.x_le_mm + s.chord_mm for each in surfaces for s in each.sections)


def _skins(build: Build, start: Start) -> list[Part]:
    told: list[Part] = []
    for surface in build.surfaces:
        is_wing = surface.role is Role.WING
        lot = start.wing_lot if is_wing else start.body_lot
        told += skins(surface, lot, start.wing_layers if is_wing else 1.0)
    return told


def _body(start: Start, surfaces: Sequence[Surface], length: float, chord: float) -> Part:
    has_tail = any(each.role in (Role.TAIL, Role.CANARD) for each in surfaces)
    has_tail = has_tail or sum(each.role is Role.WING for each in surfaces) > 1
    area = length * ROUND_THE_BODY * chord * (1 + INSIDE_THE_BODY) / 1e4
    area = round(area * (1.0 if has_tail else POD), 3)
    station = Station(round(0.45 * length, 1))
    uses = (Use(start.body_lot.id, area),)
    return Part("", "Fuselage", Pedigree.CALCULATED, "Fuselage", uses=uses, station=station)


def _joining(start: Start, parts: Sequence[Part], length: float) -> Part:
    """Glue and tape, by their usual share beside foam."""
    constants = {lot.id: lot.constant for lot in (start.wing_lot, start.body_lot)}
    foam = sum(use.amount * constants[use.lot] for part in parts for use in part.uses)
    shares = SHARES.get(start.purpose) or SHARES[USUAL_PURPOSE]
    grams = round(foam * shares[1] / shares[0], 1)
    station = Station(round(0.4 * length, 1))
    return Part("", "Glue and tape", Pedigree.JOINT, "Joining", grams, station=station)


def _things(start: Start, length: float) -> list[Part]:
    is_behind = start.layout in ("pusher", "canard", "delta")
    told, weighed = [], dict(start.weighed)
    first = next((each.id for each in start.things if each.kind is ThingKind.PACK), None)
    for thing in start.things:
        share = FROM_THE_NOSE.get(thing.kind, sum(BAY) / 2)
        if is_behind and thing.kind in (ThingKind.MOTOR, ThingKind.PROPELLER):
            share = 1.0 - share
        station = Station(round(share * length, 1))
        part = replace(fitted(thing, ""), station=station, elsewhere=weighed.get(thing.id))
        if thing.kind is ThingKind.PACK:
            slide = Slide(round(BAY[0] * length, 1), round(BAY[1] * length, 1))
            part = replace(part, slide=slide, option=thing.id != first or part.option)
        told.append(part)
    return told


def _balanced(build: Build, length: float) -> Build:
    """The first pack where the middle of the balance target wants it, as far as its bay allows."""
    target = next((each for each in build.targets if each.kind is TargetKind.BALANCE), None)
    pack = next((part for part in build.parts if part.slide is not None), None)
    wing = wing_figures(build.surfaces)
    if target is None or pack is None or wing is None or not pack.stated_g:
        return build
    edges = [edge for edge in (target.low, target.high) if edge is not None]
    want = sum(edges) / len(edges)
    if target.balance_unit is BalanceUnit.PERCENT_MAC:
        want = wing.mac_le_x_mm + want / 100 * wing.mac_mm
    elif target.balance_unit is BalanceUnit.MM_FROM_LEADING_EDGE:
        want += wing.leading_edge_x_mm
    constants = {lot.id: lot.constant for lot in build.lots}
    moment = 0.0
    for part in build.parts:
        if part.station is None or part is pack:
            continue
        grams = (part.stated_g or 0.0) + sum(u.amount * constants[u.lot] for u in part.uses)
        moment += grams * (want - part.station.x_mm)
    low, high = BAY[0] * length, BAY[1] * length
    at = min(max(want + moment / pack.stated_g, low), high)
    station = Station(round(at, 1))
    return replace(
        build,
        parts=tuple(replace(i, station=station) if i is pack else i for i in build.parts),
    )
