"""Paper on or off, glue or tape: the same parts from another lot, beside today's."""

from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.flight.flying import Flying, flying
from oaken_scale.core.flight.headroom import headroom
from oaken_scale.core.flight.metrics.registry import answers_of
from oaken_scale.core.flight.part_masses import been_on_pan
from oaken_scale.core.flight.verdict import Answer
from oaken_scale.core.geometry.proportions import stall_of
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.material.instead import Way, instead
from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.material.materials import Trait, trade
from oaken_scale.core.material.shopping import cost
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Faces, Lot, LotKind, Quality
from oaken_scale.core.model.part import Part
from oaken_scale.core.trim.flown import drive_of

STRIP_MIN_PER_DM2: Final = 0.5
"""Minutes to strip one face of paper off a square decimetre."""

TAPE_MIN_PER_M: Final = 1.5
"""Minutes to lay a metre of tape."""


@dataclass(frozen=True, slots=True)
class LoadoutAnswer:
    """The four answers of one loadout, its stall speed [m/s], and what is left to add until the
    first target breaks [g]."""

    id: str
    name: str
    answers: tuple[Answer, ...]
    stall_m_s: float | None = None
    left_g: float | None = None


@dataclass(frozen=True, slots=True)
class Alternative:
    """One way of making the chosen parts, against today's.

    ``lots`` are what they would be made from. ``grams`` is what they would weigh more (less, below
    zero), with one sigma, and ``share`` that of what they weigh today; ``minutes`` of work and
    waiting likewise; ``money`` None where a price or a size is missing. ``gained`` and ``given_up``
    are traits, ``comes`` and ``goes`` are the qualities that its builder noted. ``loadouts`` are
    the four answers of the plane so built.
    """

    lots: tuple[Lot, ...]
    changed: tuple[str, ...]
    grams: float
    grams_sd: float
    share: float | None
    minutes: float
    money: float | None
    gained: tuple[Trait, ...]
    given_up: tuple[Trait, ...]
    comes: tuple[Quality, ...]
    goes: tuple[Quality, ...]
    loadouts: tuple[LoadoutAnswer, ...]


@dataclass(frozen=True, slots=True)
class Comparison:
    """Today's answers, and those of every alternative."""

    today: tuple[LoadoutAnswer, ...]
    alternatives: tuple[Alternative, ...]


def compare(build: Build, chosen: tuple[str, ...], ways: tuple[Way, ...]) -> Comparison:
    """The chosen parts made in each of the ways, side by side with today's.

    Raises BuildFaultError where a part is not there, or none of them can be made in a way.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.lot import Use
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> both, one = STARTER[0], STARTER[1]
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(both.id, 10.0),))
    >>> build = Build("b", "B", lots=(both,), parts=(side,))
    >>> (told,) = compare(build, ("s",), (Way(one),)).alternatives
    >>> [trait.value for trait in told.given_up]
    ['stiff', 'tough']
    """
    return Comparison(
        today=_loadouts(build), alternatives=tuple(_alternative(build, chosen, way) for way in ways)
    )


def minutes(part: Part, lots: dict[str, Lot]) -> float:
    """Minutes that a part's material asks for: stripping paper, laying tape, waiting for glue.

    A glued part waits once until it may be handled. Rules of thumb; docs/methods.md, section 7.

    >>> from oaken_scale.core.model.lot import LotUnit, Use
    >>> from oaken_scale.core.model.part import Pedigree
    >>> glue = Lot("e", "Epoxy", LotUnit.M, 1.5, 0.5, kind=LotKind.ADHESIVE, adhesive="epoxy")
    >>> minutes(Part("j", "Joint", Pedigree.JOINT, uses=(Use("e", 0.4),)), {"e": glue})
    20.0
    """
    total = 0.0
    for use in part.uses:
        lot = lots[use.lot]
        if lot.kind is LotKind.FOAM and use.amount > 0:
            faces = {Faces.BOTH: 0, Faces.ONE: 1, Faces.NONE: 2}[lot.faces] if lot.faces else 0
            total += faces * use.amount * STRIP_MIN_PER_DM2
        elif lot.kind is LotKind.TAPE:
            total += use.amount * TAPE_MIN_PER_M
        elif lot.kind is LotKind.ADHESIVE:
            usual = lot.curing or next((a for a in ADHESIVES if a.id == lot.adhesive), None)
            total += usual.handle_after_s / 60 if usual else 0.0
    return total


def _alternative(build: Build, chosen: tuple[str, ...], way: Way) -> Alternative:
    then = instead(build, chosen, way)
    before = {part.id: part for part in build.parts}
    gone = [b for b in build.parts if b not in then.parts]
    come = [t for t in then.parts if before.get(t.id) != t and not t.retired]
    lots = {each.id: each for each in then.lots}
    grams, sd, today = _difference(build, then, gone, come)
    had = {each.id: each for each in build.lots}
    taken = way.taken([had[part.uses[0].lot] for part in gone])
    costs = [_price(part, lots) for part in (*gone, *come)]
    missing = any(each is None for each in costs)
    paid = [each or 0.0 for each in costs]
    trades = [trade(was, lot) for was, lot in taken]
    return Alternative(
        lots=tuple(dict.fromkeys(lot for _, lot in taken)),
        changed=tuple(part.id for part in gone),
        grams=grams,
        grams_sd=sd,
        share=grams / today if today > 0 else None,
        minutes=sum(minutes(part, lots) for part in come)
        - sum(minutes(part, lots) for part in gone),
        money=None if missing else sum(paid[len(gone) :]) - sum(paid[: len(gone)]),
        gained=tuple(dict.fromkeys(each for gained, _ in trades for each in gained)),
        given_up=tuple(dict.fromkeys(each for _, lost in trades for each in lost)),
        comes=tuple(q for q in Quality if any(_gains(lot, was, q) for was, lot in taken)),
        goes=tuple(q for q in Quality if any(_gains(was, lot, q) for was, lot in taken)),
        loadouts=_loadouts(then),
    )


def _gains(lot: Lot, was: Lot, quality: Quality) -> bool:
    return quality in lot.qualities and quality not in was.qualities


def _difference(
    build: Build, then: Build, gone: list[Part], come: list[Part]
) -> tuple[float, float, float]:
    """What the parts would weigh more, its doubt, and what they weigh today: both kinds in one
    ledger, so that what they share is not doubted twice."""
    here = {part.id for part in build.parts}
    anew = [replace(part, id=f"{part.id}--anew") if part.id in here else part for part in come]
    both = replace(build, lots=then.lots, parts=(*build.parts, *anew), loadouts=())
    after = solve(both)
    weight = np.zeros(len(both.parts))
    going, coming = {part.id for part in gone}, {part.id for part in anew}
    for i, part in enumerate(both.parts):
        weight[i] = (part.id in coming) - float(part.id in going)
    today, _ = after.total((weight < 0).astype(float))
    return (*after.total(weight), today)


def _price(part: Part, lots: dict[str, Lot]) -> float | None:
    costs = [cost(lots[use.lot], max(use.amount, 0.0)) for use in part.uses]
    return None if any(each is None for each in costs) else sum(each or 0.0 for each in costs)


def _loadouts(build: Build) -> tuple[LoadoutAnswer, ...]:
    """The four answers for every loadout."""
    after, wing = solve(build), wing_figures(build.surfaces)
    where, been = stations(build, wing), been_on_pan(build, after)
    told = []
    for loadout in build.loadouts or (None,):
        plane: Flying = flying(
            build, loadout, after, where, wing, been, None, *drive_of(build, loadout)
        )
        name = (loadout.id, loadout.name) if loadout else ("as-built", "As built")
        first = next(iter(headroom(plane)), None)
        stall = stall_of(build, wing, plane.auw_g)
        left = None if first is None else first.grams
        told.append(LoadoutAnswer(*name, answers_of(plane), stall, left))
    return tuple(told)
