"""What stands in the way of every remedy, found by trying: what one permission, piece, millimetre
or weighing would make it work."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import is_pack
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.surface import Role
from oaken_scale.core.trim.remedy import Balanceable, Comes, Remedy, comes_to
from oaken_scale.core.trim.remedy_program import solve
from oaken_scale.core.trim.remedy_rows import SIDEWAYS_MM

FARTHEST_MM: Final = 200.0
"""A bay is not made longer than by this [mm]."""

ROUNDED_MM: Final = 0.05
"""So far beyond the middle's tolerance is within it [mm]: ballast is put down to 0.01 g."""

AMPLE_G: Final = 5_000.0
"""A spot that is given so much has room enough [g]."""


class Limit(StrEnum):
    """What may stand in the way of every remedy: that nothing may move, how far things may slide,
    how much ballast there is room for, the weight limit, the balance sideways, that nobody said yet
    where things are which may mend it by that, what has no place, or the range itself."""

    PERMISSION = "permission"
    SLIDES = "slides"
    BALLAST = "ballast"
    WEIGHT = "weight"
    SIDEWAYS = "sideways"
    UNPLACED = "unplaced"
    ADRIFT = "adrift"
    RANGE = "range"


class Tip(StrEnum):
    """A tip of the wing."""

    LEFT = "left"
    RIGHT = "right"


@dataclass(frozen=True, slots=True)
class Obstacle:
    """What stands in the way: the kind of limit, the thing or spot that it is about, and how much
    more of it would do [mm or g]: of the balance sideways at the ``tip``.

    ``may_move``: something is allowed to move or to go in already. Ballast has ``room_g`` there.
    Over the weight limit there would be a ``way``.
    """

    limit: Limit
    subject: str | None = None
    amount: float | None = None
    may_move: bool = True
    room_g: float | None = None
    tip: Tip | None = None
    way: Remedy | None = None


def in_the_way(ready: Balanceable) -> tuple[Obstacle, tuple[Remedy, ...]]:
    """What stands in the way, and what might be allowed instead, the least first.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
    >>> from oaken_scale.core.trim.flown import fly
    >>> from oaken_scale.core.trim.remedies import balanceable
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> target = Target(TargetKind.BALANCE, 85.0, 95.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=tuple(ends), targets=(target,))
    >>> ready = balanceable(build, fly(build).planes, ["all"])
    >>> obstacle, offers = in_the_way(ready)
    >>> obstacle.limit.value, len(offers)
    ('permission', 1)
    """
    one_by_one = [_longer_bay, _more_ballast, _weight, _permission, _adrift]
    if not ready.movable and not ready.spots:
        one_by_one.insert(0, _permission)
    for tried in one_by_one:
        found = tried(ready)
        if found is not None:
            return found
    return Obstacle(Limit.RANGE), ()


Found = tuple[Obstacle, tuple[Remedy, ...]]


def _permission(ready: Balanceable) -> Found | None:
    """Let what is not allowed to move be moved: a pack, else it and a spot at one end, which takes
    less there then; and the spot by itself; else over the weight limit, which is said."""
    packs = _with_packs(ready)
    end = _with_a_spot_at_one_end(ready)
    both = None if packs is None or end is None else _with_a_spot_at_one_end(packs)
    slid = _offers(ready, [packs])
    told = [*(slid or _offers(ready, [both])), *_offers(ready, [end])]
    if not told and ready.most_g is not None:
        told = _offers(ready, [both, packs, end], is_over=True)
    if len(told) > 1 and not told[0].slides:
        told = told[:1]  # With the pack where it is: the end alone, once.
    if not told:
        return None
    subject = told[0].slides[0].part if told[0].slides else None
    may_move = bool(ready.movable or ready.spots)
    return Obstacle(Limit.PERMISSION, subject, may_move=may_move), tuple(told)


def _offers(
    ready: Balanceable, offered: Sequence[Balanceable | None], is_over: bool = False
) -> list[Remedy]:
    """What would do with what is offered, also where that ``is_over`` the weight limit."""
    told = []
    for each in filter(None, offered):
        way = solve(replace(each, most_g=None) if is_over else each)
        if way is None:
            continue
        if way.ballast or any(slid.part in _ids(each, ready) for slid in way.slides):
            spots = each.spots if way.ballast else ()
            told.append(replace(way, offer=True, spots=spots, breaks_limit=is_over))
    return told


def _ids(offered: Balanceable, ready: Balanceable) -> set[str]:
    """What may move in one and not in the other, by their ids."""
    return {ready.build.parts[i].id for i in offered.movable if i not in ready.movable}


def _with_packs(ready: Balanceable) -> Balanceable | None:
    """The same with all packs free to move from the nose to where the wing ends, or to where they
    are, and no ballast; None where they may move already, or none is aboard. Where no wing is
    drawn they may go as far aft as anything is."""
    packs = [
        i
        for i, part in enumerate(ready.build.parts)
        if i not in ready.movable
        and part.station is not None
        and is_pack(part)
        and not part.retired
        and ready.aboard[:, i].any()
    ]
    if not packs:
        return None
    low, high = _ends(ready)
    aft = min(high, _wing_ends_mm(ready))
    wide = np.array([(low, max(aft, float(ready.x[i]))) for i in packs])
    slide = np.vstack([ready.slide, wide]) if len(ready.slide) else wide
    return replace(ready, movable=(*ready.movable, *packs), slide=slide, spots=())


def _wing_ends_mm(ready: Balanceable) -> float:
    """Where the root of the aftmost wing ends [mm from the nose]; infinite where none is drawn."""
    wings = [each for each in ready.build.surfaces if each.role is Role.WING]
    roots = [min(each.sections, key=lambda section: abs(section.y_mm)) for each in wings]
    return max((root.x_le_mm + root.chord_mm for root in roots), default=math.inf)


def _with_a_spot_at_one_end(ready: Balanceable) -> Balanceable | None:
    """The same with a spot for any ballast in the nose, or at the tail where the loadout that is
    farthest outside its range is nose-heavy; None where ballast has its spots."""
    if ready.spots:
        return None
    nose, tail = _ends(ready)
    at = [comes_to(ready, ready.x, (), k).x_mm for k in range(len(ready.names))]
    is_ahead = max(ready.low - at) > max(at - ready.high)
    spot = ("tail-ballast", "Tail", tail) if is_ahead else ("nose-ballast", "Nose", nose)
    return replace(ready, spots=(BallastSpot(*spot, most_g=AMPLE_G / 10),), pieces=())


def _ends(ready: Balanceable) -> tuple[float, float]:
    """From the nose, or what sits ahead of it, to the last thing [mm from the nose]."""
    here = ready.aboard.any(axis=0)
    return min(float(ready.x[here].min()), 0.0), float(ready.x[here].max())


def _longer_bay(ready: Balanceable) -> Found | None:
    """The least by which the bays would have to be longer, and which one: none reaches beyond the
    nose, or where the wing ends, that did not."""
    if not len(ready.slide):
        return None
    nose, _ = _ends(ready)
    first = np.minimum(ready.slide[:, 0], nose)
    last = np.maximum(ready.slide[:, 1], _wing_ends_mm(ready))

    def wider(by: float) -> Remedy | None:
        low, high = ready.slide[:, 0] - by, ready.slide[:, 1] + by
        slide = np.column_stack([np.maximum(low, first), np.minimum(high, last)])
        return solve(replace(ready, slide=slide))

    if wider(FARTHEST_MM) is None:
        return None
    least, enough = 0.0, FARTHEST_MM
    while enough - least > 0.5:
        middle = (least + enough) / 2
        least, enough = (least, middle) if wider(middle) else (middle, enough)
    way = wider(enough)
    if way is None:
        return None
    over = {}
    for each in way.slides:
        k = next(k for k, i in enumerate(ready.movable) if ready.build.parts[i].id == each.part)
        low, high = ready.slide[k]
        over[each.part] = max(float(low) - each.to_mm, each.to_mm - float(high))
    if not over:
        return None
    part = max(over, key=lambda id: over[id])
    return Obstacle(Limit.SLIDES, part, over[part]), ()


def _more_ballast(ready: Balanceable) -> Found | None:
    """How many grams at which spot would do, were there room and pieces for them."""
    if not ready.spots:
        return None
    roomy = tuple(replace(spot, most_g=AMPLE_G) for spot in ready.spots)
    way = solve(replace(ready, spots=roomy, pieces=()))
    if way is None or not way.ballast:
        return None
    placed = max(way.ballast, key=lambda each: each.grams)
    spot = next(each for each in ready.spots if each.id == placed.spot)
    room = min(spot.most_g, sum(ready.pieces)) if ready.pieces else spot.most_g
    return Obstacle(Limit.BALLAST, spot.id, placed.grams - room, room_g=room), ()


def _weight(ready: Balanceable) -> Found | None:
    """By how much the weight limit would be broken."""
    if ready.most_g is None:
        return None
    way = solve(replace(ready, most_g=None))
    if way is None:
        roomy = tuple(replace(spot, most_g=AMPLE_G) for spot in ready.spots)
        way = solve(replace(ready, most_g=None, spots=roomy, pieces=()))
    if way is None:
        return None
    over = max(each.auw_g for each in way.loadouts) - ready.most_g
    return Obstacle(Limit.WEIGHT, None, over, way=way), ()


def sideways(ready: Balanceable, loadouts: Sequence[Comes]) -> Obstacle | None:
    """Which part pulls the worst loadout to one side, and how many grams at the other tip would
    hold it; None where all come near enough to the middle.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
    >>> from oaken_scale.core.trim.flown import fly
    >>> from oaken_scale.core.trim.remedies import balanceable
    >>> camera = Part("c", "Camera", Pedigree.GUESS, stated_g=50.0, station=Station(60.0, 40.0))
    >>> target = Target(TargetKind.BALANCE, 40.0, 80.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=(camera,), targets=(target,))
    >>> told = sideways(balanceable(build, fly(build).planes, ["all"]), [Comes("all", 60, 40, 50)])
    >>> told.subject, told.tip.value
    ('c', 'left')
    """
    k = int(np.argmax([abs(each.y_mm) for each in loadouts]))
    if abs(loadouts[k].y_mm) <= SIDEWAYS_MM + ROUNDED_MM:
        return None
    aboard = ready.mass * ready.aboard[k]
    part, grams, tip = pulls_sideways(ready.build.parts, aboard, ready.y, tip_mm(ready))
    return Obstacle(Limit.SIDEWAYS, part, grams, tip=tip)


def tip_mm(ready: Balanceable) -> float:
    """How far out the tips are [mm].

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
    >>> from oaken_scale.core.trim.flown import fly
    >>> from oaken_scale.core.trim.remedies import balanceable
    >>> from oaken_scale.core.model.build import Build
    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 540, 0, 190)))
    >>> part = Part("p", "Pack", Pedigree.LISTING, stated_g=100.0, station=Station(60.0))
    >>> target = Target(TargetKind.BALANCE, 40.0, 50.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=(part,), surfaces=(wing,), targets=(target,))
    >>> tip_mm(balanceable(build, fly(build).planes, ["all"]))
    540.0
    """
    drawn = [abs(s.y_mm) for each in ready.build.surfaces for s in each.sections]
    return float(max([*drawn, *np.abs(ready.y).tolist(), 1.0]))


def pulls_sideways(
    parts: Sequence[Part], mass: np.ndarray, y: np.ndarray, out_mm: float
) -> tuple[str, float, Tip]:
    """The part whose own moment is most like what pulls the plane over (left and right ones cancel
    each other), and the grams at which tip that bring the CG back to within its tolerance.

    ``mass`` (N,) [g] aboard, ``y`` (N,) [mm to starboard], ``out_mm`` where the tips are.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> two = (Part("a", "A", Pedigree.GUESS), Part("b", "B", Pedigree.GUESS))
    >>> pulls_sideways(two, np.array([300.0, 40.0]), np.array([0.0, 100.0]), 500.0)[0]
    'b'
    """
    moment = mass * y
    side, total = float(moment.sum()), float(mass.sum())
    at = int(np.argmin(np.abs(side - moment)))
    over = max(abs(side) - SIDEWAYS_MM * total, 0.0)
    return parts[at].id, over / (out_mm + SIDEWAYS_MM), Tip.LEFT if side > 0 else Tip.RIGHT


def _adrift(ready: Balanceable) -> Found | None:
    """What has no place yet, where its spread is what keeps the range too narrow."""
    here = ready.all_aboard.any(axis=0) & ~ready.aboard.any(axis=0)
    grams = float(np.abs(ready.mass[here]).sum())
    if grams <= 0:
        return None
    return Obstacle(Limit.ADRIFT, None, grams), ()
