"""Remedies: what would bring the balance into its range. Moves first, ballast last, and the least.

Every loadout that is to fly must balance. The range narrowed by its doubt is a wish, not a wall:
where pieces or places step over it, the plan with the best chance is told with that chance. Where
nothing works, what would make it work is tried, one thing at a time.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import lever_arms, stations
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.obstacles import Limit, Obstacle, in_the_way, sideways
from oaken_scale.core.trim.remedy import Balanceable, Placed, Remedy, comes_to
from oaken_scale.core.trim.remedy_program import (
    FAR_MM,
    SURE_ENOUGH,
    chance_of,
    solve,
    solve_least,
)
from oaken_scale.core.trim.remedy_rows import SLACK_G
from oaken_scale.core.trim.unplaced import unplaced

BALLAST: Final = "Ballast"
"""The assembly of what was put in to balance."""

NARROWED: Final = 1.0
"""The range is narrowed by so many sigma of the CG at each end, so that it holds."""

STILL_FINE: Final = 0.7
"""What lies inside the range narrowed by so many sigma needs no remedy: what was done once is done,
though what was moved is a little less sure than before."""

LEAST_BAND: Final = 0.2
"""But no more than leaves so much of it."""

FINE_MM: Final = 0.5
"""A CG no farther than this outside its narrowed range needs no remedy [mm]."""

ROUNDS: Final = 4
"""So often a remedy is looked for anew with the doubt as it will be then."""

NO_DEEPER: Final = 0.1
"""Of two plans for the best chance, one this many sigma deeper in its range is not worth doing."""


class Outcome(StrEnum):
    """How the search for a remedy ended: every loadout is in its range as it is; there is a remedy;
    nothing moves it farther in; something stands in the way; or there is no balance target, or
    nothing to balance yet, without parts with stations."""

    FINE = "fine"
    FOUND = "found"
    NO_FARTHER = "no_farther"
    IN_THE_WAY = "in_the_way"
    NO_TARGET = "no_target"
    NOTHING_YET = "nothing_yet"


@dataclass(frozen=True, slots=True)
class Remedies:
    """The best remedy first, and other ways; or what stands in the way of all, and what might be
    allowed. ``unsure_part`` is what to weigh to be surer, where the best is not ``sure`` enough;
    ``sideways`` what pulls a loadout to one side, where that is left as it is."""

    outcome: Outcome
    best: Remedy | None = None
    others: tuple[Remedy, ...] = ()
    in_the_way: Obstacle | None = None
    offers: tuple[Remedy, ...] = ()
    unsure_part: str | None = None
    sure: bool = True
    sideways: Obstacle | None = None


def balanceable(build: Build, planes: Sequence[Flying], names: Sequence[str]) -> Balanceable | None:
    """Set a plane up to be balanced; None without a balance target, stations or mass.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> target = Target(TargetKind.BALANCE, 85.0, 95.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=tuple(ends), targets=(target,))
    >>> ready = balanceable(build, fly(build).planes, ["all"])
    >>> ready.lowest, ready.highest, bool(ready.u[0] > 0)
    (85.0, 95.0, True)
    """
    target = planes[0].target(TargetKind.BALANCE)
    if target is None or any(plane.cg is None for plane in planes):
        return None
    wing: WingFigures | None = planes[0].wing
    origin, size = balance_axis(target.balance_unit, wing)
    where, after = planes[0].where, planes[0].after
    far = FAR_MM
    low0 = -far if target.low is None else origin + size * target.low
    high0 = far if target.high is None else origin + size * target.high
    sigma = np.array([plane.cg.x_sd_mm for plane in planes if plane.cg])
    u = np.minimum(NARROWED * sigma, (1 - LEAST_BAND) / 2 * (high0 - low0))
    movable = tuple(
        i
        for i, part in enumerate(build.parts)
        if part.slide is not None and part.station is not None and not part.retired
    )
    edge = wing.leading_edge_x_mm if wing else 0.0
    # Where it sits is known a little otherwise than written down once a check was made.
    shift = where.xyz[:, 0] - stations(build, wing).xyz[:, 0]
    slide = np.array([_range(build.parts[i], edge) for i in movable]).reshape(-1, 2)
    slide = slide + shift[list(movable)][:, None]
    limits = [t.high for t in build.targets if t.kind is TargetKind.AUW]
    all_aboard = np.array([plane.aboard for plane in planes])
    return Balanceable(
        build=build,
        names=tuple(names),
        mass=after.mass,
        x=where.xyz[:, 0],
        y=where.xyz[:, 1],
        aboard=all_aboard * where.placed,
        all_aboard=all_aboard,
        low=low0 + u if target.low is not None else np.full(len(u), low0),
        high=high0 - u if target.high is not None else np.full(len(u), high0),
        lowest=low0,
        highest=high0,
        u=np.maximum(sigma, 1e-9),
        most_g=limits[0] if limits else None,
        movable=movable,
        slide=slide,
        spots=tuple(_with_room(spot, build, after.mass) for spot in build.ballast.spots),
        pieces=build.ballast.pieces,
    )


def _with_room(spot: BallastSpot, build: Build, mass: np.ndarray) -> BallastSpot:
    """A spot with what it still takes, less the ballast that lies there."""
    held = {1.0: 0.0, -1.0: 0.0}
    for part, grams in zip(build.parts, mass, strict=True):
        at = part.station
        if part.assembly != BALLAST or part.retired or at is None or at.x_mm != spot.x_mm:
            continue
        for side in held:
            held[side] += float(grams) if at.y_mm == side * spot.y_mm else 0.0
    return replace(spot, most_g=max(spot.most_g - max(held.values()), 0.0))


def _range(part: Part, edge_mm: float) -> tuple[float, float]:
    """How far a thing may be moved, from the nose [mm]; where it is now is always allowed."""
    if part.slide is None or part.station is None:
        raise ValueError(f"{part.name} has no range")
    add = edge_mm if part.station.reference is Reference.LEADING_EDGE else 0.0
    return part.slide.low_mm + add, part.slide.high_mm + add


def remedies(ready: Balanceable, planes: Sequence[Flying]) -> Remedies:
    """The least that brings every loadout into its range, and other ways to do it; or what stands
    in the way. Lengthways comes first: what hangs to one side, with no spot to hold it at, stands
    in the way of nothing, and is told beside. Where things have no place yet, and one that they may
    have would do, nothing else is offered.

    Source: docs/methods.md, section 5a; SciPy's ``milp`` (HiGHS).

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> target = Target(TargetKind.BALANCE, 85.0, 95.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=tuple(ends), targets=(target,))
    >>> planes = fly(build).planes
    >>> remedies(balanceable(build, planes, ["all"]), planes).outcome.value  # nothing may move
    'in_the_way'
    """
    stay = tuple(comes_to(ready, ready.x, (), k) for k in range(len(ready.names)))
    over = sideways(ready, stay)
    if _is_fine_lengthways(ready):
        if over is None:
            return Remedies(Outcome.FINE, Remedy((), (), 0.0, stay))
        if not ready.is_one_sided:
            unsure = _unsure(ready, planes)
            return Remedies(Outcome.IN_THE_WAY, in_the_way=over, unsure_part=unsure)
        best = solve(ready)
    else:
        best = solve(ready)
        if best is None and ready.is_one_sided:
            middle = tuple(spot for spot in ready.spots if spot.pair or not spot.y_mm)
            ready = replace(ready, across=False, spots=middle)
            best = solve(ready)
    here = _depth(ready, ready.x)
    if best is not None and best.chance < SURE_ENOUGH and here > 0:
        chance, unsure = chance_of(ready, stay), _unsure(ready, planes)
        if chance > best.chance - NO_DEEPER / 4:
            stays = Remedy((), (), 0.0, stay, chance)
            return Remedies(
                Outcome.NO_FARTHER, stays, unsure_part=unsure, sure=False, sideways=over
            )
    if best is None:
        loose = _placed_would_do(ready, planes)
        obstacle, offers = (loose, ()) if loose else in_the_way(ready)
        if obstacle.limit is Limit.RANGE and over is not None:
            obstacle, over = over, None
        unsure = _unsure(ready, planes)
        return Remedies(
            Outcome.IN_THE_WAY, None, (), obstacle, offers, unsure_part=unsure, sideways=over
        )
    sure = best.chance >= SURE_ENOUGH
    return Remedies(
        Outcome.FOUND,
        best,
        tuple(_other_ways(ready, best)),
        unsure_part=None if sure else _unsure(ready, planes),
        sure=sure,
        sideways=sideways(ready, best.loadouts),
    )


def what_would_fix(build: Build) -> Remedies | None:
    """What would bring every loadout of a build into its range; None without a balance target,
    stations or mass.

    What is moved and put in changes how sure the balance is: the range is narrowed by the doubt as
    it will be then, so that what was done once is done.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.part import Slide
    >>> from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
    >>> sure = {"pedigree": Pedigree.GUESS, "stated_g": 50.0, "doubt_g": 0.1}
    >>> motor = Part("m", "Motor", **sure, station=Station(0.0))
    >>> pack = Part("p", "Pack", **sure, station=Station(200.0), slide=Slide(150.0, 220.0))
    >>> target = Target(TargetKind.BALANCE, 85.0, 95.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> told = what_would_fix(Build("b", "B", parts=(motor, pack), targets=(target,)))
    >>> (slide,) = told.best.slides
    >>> told.outcome.value, slide.part, slide.from_mm, 165 < slide.to_mm < 190
    ('found', 'p', 200.0, True)
    """
    flown = fly(build)
    names = [id for id, _ in flown.names]
    ready = balanceable(build, flown.planes, names)
    if ready is None:
        return None
    found = remedies(ready, flown.planes)
    for _ in range(ROUNDS):
        u = ready.u
        for way in (found.best,) if found.best else found.offers:
            done = applied(build, way)
            then = balanceable(done, fly(done).planes, names)
            if then is not None and not _is_fine_lengthways(then):
                u = np.maximum(u, then.u)
        if not (u > ready.u * (1 + 1e-3)).any():
            return found
        ready = _narrowed(ready, u)
        found = remedies(ready, flown.planes)
    return found


def _narrowed(ready: Balanceable, u: np.ndarray) -> Balanceable:
    """The same with a range narrowed by another doubt of the CG (L,) [mm]."""
    most = (1 - LEAST_BAND) / 2 * (ready.highest - ready.lowest)
    by = np.minimum(NARROWED * u, most)
    low = ready.lowest + by if ready.lowest > -FAR_MM else ready.low
    high = ready.highest - by if ready.highest < FAR_MM else ready.high
    return replace(ready, low=low, high=high, u=u)


def _other_ways(ready: Balanceable, best: Remedy) -> list[Remedy]:
    """Ballast instead of moving, and moving something else."""
    others = []
    if best.slides:
        still = solve_least(replace(ready, movable=(), slide=ready.slide[:0]))
        if still is not None:
            others.append(still)
        elif ready.most_g is not None:
            free = solve_least(replace(ready, movable=(), slide=ready.slide[:0], most_g=None))
            if free is not None:
                others.append(replace(free, breaks_limit=True))
    for slid in best.slides if len(best.slides) == 1 else ():
        k = next(k for k, i in enumerate(ready.movable) if ready.build.parts[i].id == slid.part)
        kept = [j for j in range(len(ready.movable)) if j != k]
        other = solve_least(
            replace(ready, movable=tuple(ready.movable[j] for j in kept), slide=ready.slide[kept])
        )
        if other is not None and other.slides and other.ballast_g <= best.ballast_g + SLACK_G:
            others.append(other)
    return others


def _depth(ready: Balanceable, x: np.ndarray) -> float:
    """How deep inside its range the worst loadout lies [sigma]; negative outside."""
    at = np.array([comes_to(ready, x, (), k).x_mm for k in range(len(ready.names))])
    return float((np.minimum(at - ready.lowest, ready.highest - at) / ready.u).min())


def fine_range(ready: Balanceable, k: int) -> tuple[float, float]:
    """Where a loadout's CG may stay [mm from the nose]: its narrowed range, and a little beyond.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.model.target import BalanceUnit, Target
    >>> from oaken_scale.core.trim.flown import fly
    >>> part = Part("p", "P", Pedigree.GUESS, stated_g=50.0, doubt_g=0.1, station=Station(90.0))
    >>> target = Target(TargetKind.BALANCE, 80.0, 100.0, balance_unit=BalanceUnit.MM_FROM_NOSE)
    >>> build = Build("b", "B", parts=(part,), targets=(target,))
    >>> ready = balanceable(build, fly(build).planes, ["all"])
    >>> low, high = fine_range(ready, 0)
    >>> 80 < low < ready.low[0] and ready.high[0] < high < 100
    True
    """
    low = ready.lowest + STILL_FINE * (float(ready.low[k]) - ready.lowest)
    high = ready.highest - STILL_FINE * (ready.highest - float(ready.high[k]))
    return low - FINE_MM, high + FINE_MM


def _is_fine_lengthways(ready: Balanceable) -> bool:
    """Whether everything may stay: a millimetre at the edge of a narrowed range is none."""
    return not _outside(ready)


def _outside(ready: Balanceable) -> list[int]:
    """The loadouts, by their place, that may not stay where they balance."""
    outside = []
    for k in range(len(ready.names)):
        at = comes_to(ready, ready.x, (), k)
        low, high = fine_range(ready, k)
        if not low <= at.x_mm <= high:
            outside.append(k)
    return outside


def _placed_would_do(ready: Balanceable, planes: Sequence[Flying]) -> Obstacle | None:
    """What nobody said the place of yet, where saying it may be all that is wanted: each loadout
    outside its range has a place for it that would bring it in."""
    found = [unplaced(planes[k], ready.lowest, ready.highest) for k in _outside(ready)]
    masses = [each.mass_g for each in found if each is not None and each.from_mm is not None]
    if not masses or len(masses) < len(found):
        return None
    return Obstacle(Limit.UNPLACED, None, max(masses))


def _unsure(ready: Balanceable, planes: Sequence[Flying]) -> str | None:
    """The thing whose mass, not weighed yet, makes the worst loadout's balance least sure."""
    plane = max(planes, key=lambda each: each.cg.x_sd_mm if each.cg else 0.0)
    if plane.cg is None:
        return None
    arms = lever_arms(plane.after.mass, plane.where, plane.aboard, plane.cg.x_mm)
    share = arms * (plane.after.mass_cov @ arms) * (plane.after.told < 0.5)
    at = int(share.argmax())
    return ready.build.parts[at].id if share[at] > 0.04 * plane.cg.x_sd_mm**2 else None


def way_out(found: Remedies, which: int) -> Remedy:
    """One of the remedies by its place: the best is 0, then the others in their order; where there
    is none, what might be allowed. Raises BuildFaultError for a place that none has.

    >>> found = Remedies(Outcome.FOUND, best=Remedy((), (), 0.0, ()))
    >>> way_out(found, 0) is found.best
    True
    """
    ways = (found.best, *found.others) if found.best else found.offers
    if which >= len(ways):
        many = f"there are {len(ways)} ways" if ways else "there is nothing to be done"
        raise BuildFaultError([Fault("which", f"is {which}; {many}, from 0 on")])
    return ways[which]


def applied(build: Build, remedy: Remedy, at: datetime | None = None) -> Build:
    """The build with a remedy done: stations moved, ballast aboard from ``at`` on as parts of their
    own, its pieces at hand no more. What an offer needs is allowed with it: slides, and spots for
    ballast.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.trim.remedy import Slid
    >>> pack = Part("p", "Pack", Pedigree.GUESS, stated_g=50.0, station=Station(200.0))
    >>> remedy = Remedy((Slid("p", 200.0, 180.0),), (), 0.0, ())
    >>> applied(Build("b", "B", parts=(pack,)), remedy).parts[0].station.x_mm
    180.0
    """
    by = {each.part: each.to_mm - each.from_mm for each in remedy.slides}
    parts = list(build.parts)
    for i, part in enumerate(parts):
        if part.id in by and part.station is not None:
            x = round(part.station.x_mm + by[part.id], 1)
            slide = part.slide or Slide(min(x, part.station.x_mm), max(x, part.station.x_mm))
            parts[i] = replace(part, station=replace(part.station, x_mm=x), slide=slide)
    known = {spot.id for spot in build.ballast.spots}
    more = tuple(spot for spot in remedy.spots if spot.id not in known)
    spots = (*build.ballast.spots, *more)
    used = list[float]()
    taken = {part.id for part in parts}
    for each in remedy.ballast:
        spot = next(spot for spot in spots if spot.id == each.spot)
        used += each.pieces * (2 if spot.pair else 1)
        for side in (1.0, -1.0) if spot.pair else (1.0,):
            parts.append(replace(_ballast_part(spot, each, side, taken), added_at=at))
            taken.add(parts[-1].id)
    ballast = replace(build.ballast, spots=spots, pieces=_left(build.ballast.pieces, used))
    return replace(build, parts=tuple(parts), ballast=ballast)


def _left(pieces: Sequence[float], used: Sequence[float]) -> tuple[float, ...]:
    """The pieces at hand without those that are aboard now, which are known to a microgram."""
    left = list(pieces)
    for grams in used:
        left.remove(min(left, key=lambda each: abs(each - grams)))
    return tuple(left)


def _ballast_part(spot: BallastSpot, placed: Placed, side: float, taken: set[str]) -> Part:
    stem = f"ballast-{spot.id}"[:50] + ("" if not spot.pair else "-right" if side > 0 else "-left")
    id, number = stem, 2
    while id in taken:
        id, number = f"{stem}-{number}", number + 1
    where = "" if not spot.pair else ", right" if side > 0 else ", left"
    return Part(
        id=id,
        name=f"Ballast, {spot.name.lower()}{where}"[:80],
        pedigree=Pedigree.LISTING,
        doubt_g=0.0 if placed.pieces else None,
        assembly=BALLAST,
        stated_g=round(placed.grams, 2),
        station=Station(spot.x_mm, side * spot.y_mm, spot.z_mm),
    )
