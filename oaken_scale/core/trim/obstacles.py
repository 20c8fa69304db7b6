"""What stands in the way of every remedy, found by trying: what one permission, piece, millimetre
or weighing would make it work."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import is_pack
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.build import Item
from oaken_scale.core.trim.remedy_program import (
    SIDEWAYS_MM,
    Bench,
    Remedy,
    solve_best_chance,
    solve_least,
)

FARTHEST_MM: Final = 400.0
"""A bay is not made longer than by this [mm]."""

AMPLE_G: Final = 5_000.0


class Limit(StrEnum):
    """What may stand in the way of every remedy."""

    PERMISSION = "nothing may move yet"
    SLIDES = "how far things may slide"
    BALLAST = "how much ballast there is room for"
    WEIGHT = "the weight limit"
    SIDEWAYS = "the balance sideways"
    ADRIFT = "what has no place yet"
    RANGE = "the range itself"


@dataclass(frozen=True, slots=True)
class Obstacle:
    """What stands in the way: the kind of limit, the thing or spot that it is about, and how much
    more of it would do [mm or g]."""

    limit: Limit
    subject: str | None = None
    amount: float | None = None


def in_the_way(ready: Bench) -> tuple[Obstacle, str, tuple[Remedy, ...]]:
    """What stands in the way, in words, and what might be allowed instead, the least first."""
    one_by_one = [_longer_bay, _more_ballast, _weight, _sideways, _permission, _adrift]
    if not ready.movable and not ready.spots:
        one_by_one.insert(0, _permission)
    for tried in one_by_one:
        found = tried(ready)
        if found is not None:
            return found
    words = "Nothing works: the range itself stands in the way."
    return Obstacle(Limit.RANGE), words, ()


Found = tuple[Obstacle, str, tuple[Remedy, ...]]


def _solved(ready: Bench) -> Remedy | None:
    return solve_least(ready) or solve_best_chance(ready)


def _permission(ready: Bench) -> Found | None:
    """Let what is not allowed to move be moved: a pack, and a spot in the nose; each by itself."""
    named = {item.id: item.name for item in ready.build.items}
    told = []
    packs = [
        i
        for i, item in enumerate(ready.build.items)
        if i not in ready.movable and item.station is not None and is_pack(item)
        and not item.retired and ready.aboard[:, i].any()
    ]  # fmt: skip
    if packs:
        ends = _ends(ready)
        wide = np.tile(ends, (len(packs), 1))
        slide = np.vstack([ready.slide, wide]) if len(ready.slide) else wide
        way = _solved(replace(ready, movable=(*ready.movable, *packs), slide=slide, spots=()))
        if way is not None and any(named[each.item] for each in way.slides):
            told.append(replace(way, offer=True))
    if not ready.spots:
        low, _ = _ends(ready)
        spot = BallastSpot("nose-ballast", "Nose", float(low), most_g=AMPLE_G / 10)
        way = _solved(replace(ready, spots=(spot,), pieces=()))
        if way is not None and way.ballast:
            told.append(replace(way, offer=True, spots=(spot,)))
    if not told:
        return None
    may = "nothing may move yet" if not ready.movable and not ready.spots else (
        "what may move does not reach"
    )  # fmt: skip
    whose = [named[each.item].lower() for each in told[0].slides]
    let = f"let the {' and the '.join(whose)} slide" if whose else "allow ballast in the nose"
    words = f"{may[:1].upper()}{may[1:]}: {let}."
    subject = told[0].slides[0].item if told[0].slides else None
    return Obstacle(Limit.PERMISSION, subject), words, tuple(told)


def _ends(ready: Bench) -> tuple[float, float]:
    """From the nose, or what sits ahead of it, to the last thing [mm from the nose]."""
    here = ready.aboard.any(axis=0)
    return min(float(ready.x[here].min()), 0.0), float(ready.x[here].max())


def _longer_bay(ready: Bench) -> Found | None:
    """The least by which the bays would have to be longer, and which one."""
    if not len(ready.slide):
        return None

    def wider(by: float) -> Remedy | None:
        return _solved(replace(ready, slide=ready.slide + np.array([-by, by])))

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
        k = next(k for k, i in enumerate(ready.movable) if ready.build.items[i].id == each.item)
        low, high = ready.slide[k]
        over[each.item] = max(float(low) - each.to_mm, each.to_mm - float(high))
    if not over:
        return None
    item = max(over, key=lambda id: over[id])
    name = next(each.name for each in ready.build.items if each.id == item)
    words = f"The bay of the {name.lower()} is {max(over[item], 0.5):.0f} mm short."
    return Obstacle(Limit.SLIDES, item, over[item]), words, ()


def _more_ballast(ready: Bench) -> Found | None:
    """How many grams at which spot would do, were there room and pieces for them."""
    if not ready.spots:
        return None
    roomy = tuple(replace(spot, most_g=AMPLE_G) for spot in ready.spots)
    way = _solved(replace(ready, spots=roomy, pieces=()))
    if way is None or not way.ballast:
        return None
    placed = max(way.ballast, key=lambda each: each.grams)
    spot = next(each for each in ready.spots if each.id == placed.spot)
    room = min(spot.most_g, sum(ready.pieces)) if ready.pieces else spot.most_g
    words = (
        f"{placed.grams:.3g} g at the {spot.name.lower()} would do; "
        f"there is room and pieces for {room:.3g} g."
    )
    return Obstacle(Limit.BALLAST, spot.id, placed.grams - room), words, ()


def _weight(ready: Bench) -> Found | None:
    """By how much the weight limit would be broken."""
    if ready.most_g is None:
        return None
    way = _solved(replace(ready, most_g=None))
    if way is None:
        roomy = tuple(replace(spot, most_g=AMPLE_G) for spot in ready.spots)
        way = _solved(replace(ready, most_g=None, spots=roomy, pieces=()))
    if way is None:
        return None
    over = max(each.auw_g for each in way.loadouts) - ready.most_g
    words = f"{way.words[:-1]} would do, and break the weight limit by {over:.3g} g."
    return Obstacle(Limit.WEIGHT, None, over), words, ()


def _sideways(ready: Bench) -> Found | None:
    """Which part pulls it to one side, and how many grams at the other tip would hold it."""
    if _solved(replace(ready, y=np.zeros_like(ready.y))) is None:
        return None
    side = [float((ready.mass * on) @ ready.y) for on in ready.aboard]
    k = int(np.argmax(np.abs(side)))
    item, grams, tip = pulls_sideways(ready.build.items, ready.mass * ready.aboard[k], ready.y,
                                      tip_mm(ready))  # fmt: skip
    name = next(each.name.lower() for each in ready.build.items if each.id == item)
    words = (
        f"The balance sideways stands in the way: the {name} pulls it over; "
        f"{grams:.2g} g at the {tip} tip would hold it."
    )
    return Obstacle(Limit.SIDEWAYS, item, grams), words, ()


def tip_mm(ready: Bench) -> float:
    """How far out the tips are [mm]."""
    drawn = [abs(s.y_mm) for each in ready.build.surfaces for s in each.sections]
    return float(max([*drawn, *np.abs(ready.y).tolist(), 1.0]))


def pulls_sideways(
    items: Sequence[Item], mass: np.ndarray, y: np.ndarray, out_mm: float
) -> tuple[str, float, str]:
    """The part whose own moment is most like what pulls the plane over (left and right ones cancel
    each other), and the grams at which tip that bring the CG back to within its tolerance.

    ``mass`` (N,) [g] aboard, ``y`` (N,) [mm to starboard], ``out_mm`` where the tips are.

    >>> from oaken_scale.core.model.build import Item, Pedigree
    >>> two = (Item("a", "A", Pedigree.GUESS), Item("b", "B", Pedigree.GUESS))
    >>> pulls_sideways(two, np.array([300.0, 40.0]), np.array([0.0, 100.0]), 500.0)[0]
    'b'
    """
    moment = mass * y
    side, total = float(moment.sum()), float(mass.sum())
    at = int(np.argmin(np.abs(side - moment)))
    over = max(abs(side) - SIDEWAYS_MM * total, 0.0)
    return items[at].id, over / (out_mm + SIDEWAYS_MM), "left" if side > 0 else "right"


def _adrift(ready: Bench) -> Found | None:
    """What has no place yet, where its spread is what keeps the range too narrow."""
    here = ready.all_aboard.any(axis=0) & ~ready.aboard.any(axis=0)
    grams = float(np.abs(ready.mass[here]).sum())
    if grams <= 0:
        return None
    words = f"{grams:.0f} g still to come have no place: weigh the whole plane, or place them."
    return Obstacle(Limit.ADRIFT, None, grams), words, ()
