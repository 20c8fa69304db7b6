"""Where to put the wing: the loaded fuselage's balance against the wing's place."""

from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.flight.lateral_pairs import pairs
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.geometry.neutral_point import NeutralPoint, neutral_point
from oaken_scale.core.geometry.wing import WingFigures, wing_figures
from oaken_scale.core.ledger.assembly import assemblies, lies_within
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.kind_named import place_in_budget
from oaken_scale.core.model.part import ALL_OVER, WITHIN, Group, Part, Reference
from oaken_scale.core.model.surface import Role, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.trim.cg_ranges import SchoolKind, schools

FOLLOWS_MM: Final = 0.01
"""The place is found, by the secant, when another step moves it by less [mm]."""

STAYS_MM: Final = 0.5
"""A wing that would move by less is where it belongs [mm]."""

STEPS: Final = 30
"""So many steps at most to where a canard has its margin."""


@dataclass(frozen=True, slots=True)
class WingPlace:
    """Where the wing's leading edge belongs [mm from the nose], where it is, and what the rest
    (``fuselage_g`` at ``fuselage_x_mm``) and the wing group weigh; how far it would move, aft is
    positive, and whether that is nothing to be moved.

    >>> place = WingPlace(170.0, 186.0, 300.0, 220.0, 100.0)
    >>> place.by_mm, place.is_there
    (-16.0, False)
    """

    edge_mm: float
    now_mm: float
    fuselage_g: float
    fuselage_x_mm: float
    wing_g: float
    by_mm: float = field(init=False, default=0.0)
    is_there: bool = field(init=False, default=True)

    def __post_init__(self) -> None:
        """Work out what follows."""
        object.__setattr__(self, "by_mm", self.edge_mm - self.now_mm)
        object.__setattr__(self, "is_there", abs(self.by_mm) < STAYS_MM)


@dataclass(frozen=True, slots=True)
class WingGroups:
    """What may be meant by the wing: the assemblies that hold a part, then the parts that lie in
    none; and the one of them that is taken for it where nobody says."""

    names: tuple[str, ...]
    taken: str | None


def wing_groups(build: Build) -> WingGroups:
    """What may be the wing of a build, and which of it is by what it is called: the outermost
    assembly before those within it, and before any part by itself.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> parts = (Part("w", "Moulded wing", Pedigree.GUESS, stated_g=18.0),
    ...     Part("m", "Motor", Pedigree.LISTING, "Nose", 12.0))
    >>> wing_groups(Build("b", "B", parts=parts))
    WingGroups(names=('Nose', 'Moulded wing'), taken='Moulded wing')
    """
    there = [
        part
        for part in build.parts
        if not part.retired and part.host is None and part.pedigree not in ALL_OVER
    ]
    groups = [name for name in assemblies(there) if name]
    loose = list(dict.fromkeys(part.name for part in there if not part.assembly))
    outermost = sorted(groups, key=lambda name: name.count(WITHIN))
    wings = [name for name in loose if place_in_budget(name) is Group.FOAM]
    taken = next((name for name in (*outermost, *wings) if "wing" in name.lower()), None)
    return WingGroups((*groups, *loose), taken)


def _is_of(part: Part, group: str) -> bool:
    """Whether a part is of an assembly, or is the one called so that lies in none."""
    return lies_within(part, group) or (not part.assembly and part.name == group)


def of_the_wings(build: Build, assembly: str) -> list[bool]:
    """Whether each part moves with the wings: one of the ``assembly``, or called so where it lies
    in none, or of any surface drawn as a wing. A biplane's wings move together, whichever of them
    is meant, and so do a left and a right one.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.surface import Section
    >>> two = tuple(Surface(name, name, Role.WING, (Section(0, 0, 0, 90), Section(0, 300, 0, 90)))
    ...     for name in ("Lower wing", "Upper wing"))
    >>> parts = tuple(Part(name, name, Pedigree.GUESS, name, 9.0)
    ...     for name in ("Lower wing", "Upper wing", "Body"))
    >>> of_the_wings(Build("b", "B", parts=parts, surfaces=two), "Lower wing")
    [True, True, False]
    """
    wings = [each for each in build.surfaces if each.role is Role.WING]
    names, ids = {assembly, *(each.name for each in wings)}, {each.id for each in wings}
    moves = [
        any(_is_of(part, name) for name in names)
        or (part.drawn is not None and part.drawn.of in ids)
        for part in build.parts
    ]
    for left, right in pairs(build.parts):
        moves[left] = moves[right] = moves[left] or moves[right]
    return moves


def placed_edge(
    fuselage_g: float, fuselage_x_mm: float, wing_g: float, wing_back_mm: float, target_mm: float
) -> float:
    """The leading edge at which a fuselage and a wing balance [mm from the nose].

    The wing group has its CG ``wing_back_mm`` behind its own leading edge, and the target sits
    ``target_mm`` behind it: ``X_le = x_f + (M_w d_w - (M_f + M_w) d_t)/M_f``.

    Source: docs/methods.md, section 5a. A fuselage of 300 g that balances at 220 mm, a wing of
    100 g with its CG 70 mm back, to balance 55 mm back:

    >>> round(placed_edge(300, 220, 100, 70, 55), 6)
    170.0
    >>> (300 * 220 + 100 * (170 + 70)) / 400 - 170
    55.0
    """
    both = fuselage_g + wing_g
    return fuselage_x_mm + (wing_g * wing_back_mm - both * target_mm) / fuselage_g


def wing_place(
    build: Build, loadout: Loadout | None, assembly: str, school: SchoolKind | None = None
) -> WingPlace:
    """Where the wing belongs so that a loadout balances in the middle of its target.

    ``assembly`` is the wing's, or the part that is one; it moves with the surfaces drawn as wings,
    and with all of those. A target in % MAC or from the leading edge moves along with it; one fixed
    to the nose does not say where on the wing it should balance, and a ``school`` has to. On a
    canard or a tandem the neutral point moves against the wing, and the margin of the target's
    middle is kept: solved step by step.

    Source: docs/methods.md, section 5a. Raises BuildFaultError where the target, the wing or the
    fuselage is missing, or which school is meant.

    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> wing = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, "Wing", 200.0, station=Station(300.0)),
    ...     Part("f", "Body", Pedigree.GUESS, "Body", 300.0, station=Station(200.0)))
    >>> target = Target(TargetKind.BALANCE, 24.0, 26.0, balance_unit=BalanceUnit.PERCENT_MAC)
    >>> build = Build("b", "B", parts=parts, surfaces=(wing,), targets=(target,))
    >>> place = wing_place(build, None, "Wing")
    >>> round(place.edge_mm, 1)  # 200 (e + 100) + 300 x 200 = 500 (e + 50)
    183.3
    """
    wing, target = wing_figures(build.surfaces), None
    target = next((t for t in build.targets if t.kind is TargetKind.BALANCE), None)
    if wing is None or target is None or target.low is None or target.high is None:
        words = "needs a drawn wing and a balance range on the Plan"
        raise BuildFaultError([Fault("targets", words)])
    where, mass = stations(build, wing), solve(build).mass
    aboard = np.array(build.aboard(loadout), dtype=float) * where.placed
    on_wing = np.array(of_the_wings(build, assembly), dtype=float)
    named = np.array([_is_of(part, assembly) for part in build.parts], dtype=float)
    body, group = mass * aboard * (1 - on_wing), mass * aboard * on_wing
    if (mass * aboard * named).sum() <= 0 or body.sum() <= 0:
        words = f'no wing and fuselage apart: nothing placed is in "{assembly}", or all of it is'
        raise BuildFaultError([Fault("assembly", words)])
    fuselage_g, wing_g = float(body.sum()), float(group.sum())
    fuselage_x = float(body @ where.xyz[:, 0]) / fuselage_g
    edge = wing.leading_edge_x_mm
    back = float(group @ where.xyz[:, 0]) / wing_g - edge
    neutral = neutral_point(build.surfaces)
    middle = _middle(build, target, wing, neutral, school)
    margin = None if neutral is None else (neutral.x_mm - middle) / wing.mac_mm
    canard = any(each.role is Role.CANARD for each in build.surfaces)

    def over(place: float) -> float:
        """The moment about where it should balance, with the wing's edge at a place [g mm]."""
        aim = _aim(build, wing, place - edge, middle, margin if canard else None)
        return fuselage_g * (fuselage_x - aim) + wing_g * (place + back - aim)

    before, found = edge, edge + 10.0
    moment = over(before)
    for _ in range(STEPS):
        now = over(found)
        if abs(found - before) < FOLLOWS_MM or now == moment:
            break
        before, found, moment = found, found - now * (found - before) / (now - moment), now
    return WingPlace(found, edge, fuselage_g, fuselage_x, wing_g)


def _middle(
    build: Build,
    target: Target,
    wing: WingFigures,
    neutral: NeutralPoint | None,
    school: SchoolKind | None,
) -> float:
    """Where it should balance with the wing where it is now, on a range that travels with the wing
    [mm from the nose]."""
    if school is None and target.balance_unit is not BalanceUnit.MM_FROM_NOSE:
        origin, size = balance_axis(target.balance_unit, wing)
        return origin + size * ((target.low or 0.0) + (target.high or 0.0)) / 2
    offered = {
        each.kind: (each.low_mm + each.high_mm) / 2
        for each in schools(build, wing, neutral, None)
        if each.low_mm is not None
        and each.high_mm is not None
        and each.kind not in (SchoolKind.MARK, SchoolKind.HANG)
    }
    if school in offered:
        return offered[school]
    names = ", ".join(offered) or "none: draw the plane first"
    words = (
        "the target is fixed to the nose, and does not say where on the wing it should balance; "
        f"name the one that is meant: {names}"
    )
    raise BuildFaultError([Fault("school", words)])


def _aim(
    build: Build,
    wing: WingFigures,
    by_mm: float,
    middle_mm: float,
    margin: float | None,
) -> float:
    """Where the plane has to balance with the wing moved ``by_mm`` [mm from the nose]."""
    if margin is not None:
        neutral = neutral_point(_moved(build.surfaces, by_mm))
        if neutral is not None:
            return neutral.x_mm - margin * wing.mac_mm
    return middle_mm + by_mm


def _moved(surfaces: tuple[Surface, ...], by_mm: float) -> tuple[Surface, ...]:
    """The surfaces with the wings moved aft."""
    return tuple(
        replace(
            each,
            sections=tuple(replace(s, x_le_mm=s.x_le_mm + by_mm) for s in each.sections),
        )
        if each.role is Role.WING
        else each
        for each in surfaces
    )


def with_wing_at(build: Build, place: WingPlace, assembly: str) -> Build:
    """The build with its wing group and its wings moved to a place.

    Stations measured from the leading edge move with it: those of the wing by themselves, those of
    the rest are written anew so that they stay.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> wing = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, "Wing", 200.0, station=Station(300.0)),)
    >>> build = Build("b", "B", parts=parts, surfaces=(wing,))
    >>> after = with_wing_at(build, WingPlace(183.0, 200.0, 300.0, 200.0, 200.0), "Wing")
    >>> after.surfaces[0].sections[0].x_le_mm, after.parts[0].station.x_mm
    (183.0, 283.0)
    """
    by = round(place.by_mm, 1)
    parts = []
    for part, moves in zip(build.parts, of_the_wings(build, assembly), strict=True):
        at = part.station
        if at is not None:
            follows = at.reference is Reference.LEADING_EDGE
            shift = 0.0
            if moves and not follows:
                shift = by
            elif not moves and follows:
                shift = -by
            if shift:
                at = replace(at, x_mm=round(at.x_mm + shift, 1))
        parts.append(replace(part, station=at))
    return replace(build, parts=tuple(parts), surfaces=_moved(build.surfaces, by))
