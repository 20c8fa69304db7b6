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
from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.material.materials import Trait, trade
from oaken_scale.core.material.shopping import cost
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Quality, Use
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.part_line import KNOWN_BY
from oaken_scale.core.trim.flown import drive_of

JOINING: Final = frozenset({LotKind.ADHESIVE, LotKind.TAPE})
"""What joins parts: one may be taken for the other."""

COVERING: Final = frozenset({LotKind.TAPE, LotKind.FILM, LotKind.PAINT})
"""What covers a skin, by its area."""

REPLACES: Final[dict[LotKind, tuple[LotKind, ...]]] = {
    kind: tuple(
        other
        for other in LotKind
        if other is kind
        or any({kind, other} <= those for those in (JOINING, COVERING))
        or {kind, other} <= {LotKind.ROD, LotKind.WOOD}
    )
    for kind in LotKind
}
"""What is looked at in place of what."""

SEAM_MM: Final = 12.0
"""A seam glued by area is so wide: between a bead's run and a spread adhesive's area."""

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

    ``grams`` is what they would weigh more (less, below zero), with one sigma, and ``share`` that
    of what they weigh today; ``minutes`` of work and waiting likewise; ``money`` None where a price
    or a size is missing. ``gained`` and ``given_up`` are traits, ``comes`` and ``goes`` are the
    qualities that its builder noted. ``loadouts`` are the four answers of the plane so built.
    """

    lot: Lot
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


def compare(build: Build, chosen: tuple[str, ...], lots: tuple[Lot, ...]) -> Comparison:
    """The chosen parts made from each of the lots, side by side with today's.

    Raises BuildFaultError where a part is not there, or none of them can be made from a lot.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> both, one = STARTER[0], STARTER[1]
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(both.id, 10.0),))
    >>> build = Build("b", "B", lots=(both,), parts=(side,))
    >>> (told,) = compare(build, ("s",), (one,)).alternatives
    >>> [trait.value for trait in told.given_up]
    ['stiff', 'tough']
    """
    return Comparison(
        today=_loadouts(build), alternatives=tuple(_alternative(build, chosen, lot) for lot in lots)
    )


def instead(build: Build, chosen: tuple[str, ...], lot: Lot) -> Build:
    """The build with the chosen parts made from a lot instead.

    A part that was never on a pan is made anew under its own id. One that was weighed speaks of
    what it was made of, so it retires and another takes its place.

    Raises BuildFaultError where a part is not there, or none of them can be made from the lot.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> both, one = STARTER[0], STARTER[1]
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(both.id, 10.0),))
    >>> build = Build("b", "B", lots=(both,), parts=(side,))
    >>> after = instead(build, ("s",), one)
    >>> [use.lot for use in after.parts[0].uses] == [after.lots[-1].id]
    True
    """
    known = {part.id: part for part in build.parts}
    for k, id in enumerate(chosen):
        if id not in known or known[id].retired:
            raise BuildFaultError(
                [Fault(f"parts.{k}", f'no part "{id}" on the plane; choose from its parts')]
            )
    old = {each.id: each for each in build.lots}
    lots = build.lots if lot.id in old else (*build.lots, lot)
    weighed = {load.part for each in build.weighings for load in each.pan.loads}
    parts: list[Part] = []
    made = 0
    for part in build.parts:
        fresh = _made_from(part, lot, old) if part.id in chosen else None
        if fresh is None:
            parts.append(part)
            continue
        made += 1
        if part.id in weighed:
            parts.append(replace(part, retired=True, option=False))
            fresh = replace(fresh, id=_free(f"{part.id}-anew", known))
        parts.append(fresh)
    if made == 0:
        words = f"none of them can be made from {lot.name}; choose one that is cut or run alike"
        raise BuildFaultError([Fault("lots", words)])
    gone = {part.id for part in parts if part.retired}
    loadouts = tuple(
        replace(
            each,
            carries=tuple(
                _free(f"{id}-anew", known) if id in gone and id in chosen else id
                for id in each.carries
            ),
        )
        for each in build.loadouts
    )
    return validated(replace(build, lots=lots, parts=tuple(parts), loadouts=loadouts))


def _made_from(part: Part, lot: Lot, old: dict[str, Lot]) -> Part | None:
    """The part with its first lot taken for another; None where that makes no sense."""
    if not part.uses or part.uses[0].lot == lot.id:
        return None
    was = old[part.uses[0].lot]
    alike = next((those for those in (JOINING, COVERING) if {was.kind, lot.kind} <= those), None)
    if alike is None and ({was.kind, lot.kind} & (JOINING | COVERING) or was.unit is not lot.unit):
        return None
    uses = tuple(
        Use(lot.id, _converted(use.amount, was, lot)) if use.lot == was.id else use
        for use in part.uses
    )
    pedigree = KNOWN_BY[lot.kind] if alike else part.pedigree
    return replace(part, uses=uses, pedigree=pedigree, doubt_g=None)


def _converted(amount: float, was: Lot, lot: Lot) -> float:
    """An amount of one lot as as much of another: a covering by its area, a run of tape by its
    width; a run of bead as an area of spread adhesive by the usual width of a seam.

    Raises BuildFaultError where a tape's width is not known.
    """
    covers = {was.kind, lot.kind} <= COVERING
    if was.unit is lot.unit and not (covers and LotUnit.M is lot.unit):
        return amount
    area = amount * _dm2_per_m(was, covers) if was.unit is LotUnit.M else amount
    return area / _dm2_per_m(lot, covers) if lot.unit is LotUnit.M else area


def _dm2_per_m(lot: Lot, covers: bool) -> float:
    """The area that a metre of a lot covers, or joins [dm2/m]."""
    if not covers:
        return SEAM_MM / 10
    if lot.width_mm is None:
        words = f"cannot be compared: say on the Rack how wide {lot.name} is"
        raise BuildFaultError([Fault("lots", words)])
    return lot.width_mm / 10


def minutes(part: Part, lots: dict[str, Lot]) -> float:
    """Minutes that a part's material asks for: stripping paper, laying tape, waiting for glue.

    A glued part waits once until it may be handled. Rules of thumb; docs/methods.md, section 7.

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


def _alternative(build: Build, chosen: tuple[str, ...], lot: Lot) -> Alternative:
    then = instead(build, chosen, lot)
    before = {part.id: part for part in build.parts}
    gone = [b for b in build.parts if b not in then.parts]
    come = [t for t in then.parts if before.get(t.id) != t and not t.retired]
    lots = {each.id: each for each in then.lots}
    grams, sd, today = _difference(build, then, gone, come)
    was = [lots[part.uses[0].lot] for part in gone]
    costs = [_price(part, lots) for part in (*gone, *come)]
    missing = any(each is None for each in costs)
    paid = [each or 0.0 for each in costs]
    trades = [trade(each, lot) for each in dict.fromkeys(was)]
    return Alternative(
        lot=lot,
        changed=tuple(part.id for part in gone),
        grams=grams,
        grams_sd=sd,
        share=grams / today if today > 0 else None,
        minutes=sum(minutes(part, lots) for part in come)
        - sum(minutes(part, lots) for part in gone),
        money=None if missing else sum(paid[len(gone) :]) - sum(paid[: len(gone)]),
        gained=tuple(dict.fromkeys(each for gained, _ in trades for each in gained)),
        given_up=tuple(dict.fromkeys(each for _, lost in trades for each in lost)),
        comes=tuple(q for q in Quality if q in lot.qualities and any(_lacks(w, q) for w in was)),
        goes=tuple(q for q in Quality if _lacks(lot, q) and any(q in w.qualities for w in was)),
        loadouts=_loadouts(then),
    )


def _lacks(lot: Lot, quality: Quality) -> bool:
    return quality not in lot.qualities


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


def _free(id: str, taken: dict[str, Part]) -> str:
    """An id like ``id`` that no part has."""
    numbered = (id if n == 1 else f"{id}-{n}" for n in range(1, len(taken) + 2))
    return next(each[:64] for each in numbered if each not in taken)
