"""What parts may be made of instead: another lot, or their own sheets with fewer papers."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.material.rack import stripped
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.part_line import KNOWN_BY

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

PAPERS: Final = {Faces.BOTH: 2, Faces.ONE: 1, Faces.NONE: 0}
"""Faces of paper on a sheet."""


def papers(lot: Lot) -> int:
    """How many faces of paper a lot has to give.

    >>> papers(Lot("a", "A", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM, faces=Faces.ONE))
    1
    >>> papers(Lot("t", "T", LotUnit.M, 2.1, 0.1, kind=LotKind.TAPE))
    0
    """
    return PAPERS[lot.faces] if lot.kind is LotKind.FOAM and lot.faces else 0


@dataclass(frozen=True, slots=True)
class Way:
    """One way of making parts: all of them from ``lot``, or each from its own sheet with less
    paper, ``sheets``: pairs of the id of the sheet that it was and the sheet that it would be."""

    lot: Lot | None = None
    sheets: tuple[tuple[str, Lot], ...] = ()

    def lot_for(self, was: Lot) -> Lot | None:
        """What stands in for a lot; None where it stays.

        >>> old, new = Lot("a", "A", LotUnit.M, 1, 0.1), Lot("b", "B", LotUnit.M, 2, 0.1)
        >>> Way(new).lot_for(old).id, Way(sheets=(("c", new),)).lot_for(old)
        ('b', None)
        """
        return self.lot or dict(self.sheets).get(was.id)

    def taken(self, lots: Iterable[Lot]) -> list[tuple[Lot, Lot]]:
        """Each of the lots once, with what stands in for it.

        >>> old, new = Lot("a", "A", LotUnit.M, 1, 0.1), Lot("b", "B", LotUnit.M, 2, 0.1)
        >>> [(was.id, lot.id) for was, lot in Way(new).taken((old, old))]
        [('a', 'b')]
        """
        pairs = ((was, self.lot_for(was)) for was in dict.fromkeys(lots))
        return [(was, lot) for was, lot in pairs if lot is not None]


@dataclass(frozen=True, slots=True)
class Replacements:
    """What chosen parts might be made from: ``lots`` of the build and of the rack, and the
    ``faces`` that their sheets would be left with."""

    lots: tuple[Lot, ...]
    faces: tuple[Faces, ...]


def replacements(build: Build, chosen: Sequence[str], rack: Iterable[Lot]) -> Replacements:
    """What the chosen parts might be made from instead, of what the build has and of what hangs on
    the rack and was not taken from it yet.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(STARTER[0].id, 10.0),))
    >>> build = Build("b", "B", lots=STARTER[:1], parts=(side,))
    >>> told = replacements(build, ("s",), STARTER)
    >>> [face.value for face in told.faces], STARTER[1] in told.lots
    (['one', 'none'], True)
    """
    own = {lot.id: lot for lot in build.lots}
    taken = {lot.rack for lot in build.lots}
    parts = [part for part in build.parts if part.id in chosen and part.uses]
    made_of = dict.fromkeys(own[part.uses[0].lot] for part in parts)
    shelved = (lot for lot in rack if lot.id not in taken)
    lots = tuple(
        lot
        for lot in (*build.lots, *shelved)
        if any(lot.kind in REPLACES[was.kind] and _runs_alike(was, lot) for was in made_of)
    )
    most = max((papers(was) for was in made_of), default=0)
    return Replacements(lots, tuple(each for each in PAPERS if PAPERS[each] < most))


def less_paper(build: Build, chosen: Sequence[str], faces: Faces, now: Posterior) -> Way:
    """The way in which each chosen part is cut from its own sheet with no more than these faces of
    paper left on it; the sheets as they weigh ``now``.

    Raises BuildFaultError where no chosen part is cut from a foam sheet.

    >>> from oaken_scale.core.ledger.mixture import solve
    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(STARTER[0].id, 10.0),))
    >>> build = Build("b", "B", lots=STARTER[:1], parts=(side,))
    >>> way = less_paper(build, ("s",), Faces.NONE, solve(build))
    >>> [(was, lot.name) for was, lot in way.sheets]
    [('board-both', 'Foam board 5 mm, both papers off')]
    """
    used = {part.uses[0].lot for part in build.parts if part.id in chosen and part.uses}
    sheets = [
        replace(lot, constant=float(now.mean[k]), doubt=float(now.sd[k]))
        for k, lot in enumerate(build.lots)
        if lot.kind is LotKind.FOAM and lot.id in used
    ]
    if not sheets:
        words = "none of these parts is cut from a foam sheet; its faces cannot change"
        raise BuildFaultError([Fault("faces", words)])
    ids = [lot.id for lot in build.lots]
    bared = []
    for sheet in sheets:
        if papers(sheet) > PAPERS[faces]:
            lot = stripped(sheet, faces)
            bared.append((sheet.id, replace(lot, id=free_id(lot.id, ids))))
            ids.append(bared[-1][1].id)
    return Way(sheets=tuple(bared))


def ways(
    build: Build, chosen: Sequence[str], lots: Sequence[Lot], faces: Sequence[Faces]
) -> tuple[Way, ...]:
    """The ways that are asked for: from each of the lots, then with each of the faces of paper.
    Raises as :func:`less_paper` does.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> [way.lot.name for way in ways(Build("b", "B"), (), STARTER[:1], ())]
    ['Foam board 5 mm, both papers']
    """
    now = solve(build) if faces else None
    bare = (less_paper(build, chosen, each, now) for each in faces if now)
    return (*(Way(lot) for lot in lots), *bare)


def instead(build: Build, chosen: Sequence[str], way: Way) -> Build:
    """The build with the chosen parts made in another way.

    A part that was never on a pan is made anew under its own id. One that was weighed speaks of
    what it was made of, so it retires and another takes its place.

    Raises BuildFaultError where a part is not there, or none of them can be made so.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> both, one = STARTER[0], STARTER[1]
    >>> side = Part("s", "Side", Pedigree.CALCULATED, uses=(Use(both.id, 10.0),))
    >>> build = Build("b", "B", lots=(both,), parts=(side,))
    >>> after = instead(build, ("s",), Way(one))
    >>> [use.lot for use in after.parts[0].uses] == [after.lots[-1].id]
    True
    """
    _aboard(build, chosen)
    old = {each.id: each for each in build.lots}
    weighed = {load.part for each in build.weighings for load in each.pan.loads}
    ids = [part.id for part in build.parts]
    parts: list[Part] = []
    anew: dict[str, str] = {}
    for part in build.parts:
        fresh = _made(part, way, old) if part.id in chosen else None
        if fresh and part.id in weighed:
            parts.append(replace(part, retired=True, option=False))
            fresh = replace(fresh, id=free_id(f"{part.id} anew", ids))
            ids.append(fresh.id)
        if fresh:
            anew[part.id] = fresh.id
        parts.append(fresh or part)
    if not anew:
        raise BuildFaultError([_no_way(way)])
    loadouts = tuple(
        replace(each, carries=tuple(anew.get(id, id) for id in each.carries))
        for each in build.loadouts
    )
    come = [each for each in (way.lot, *(lot for _, lot in way.sheets)) if each]
    lots = (*build.lots, *(each for each in come if each.id not in old))
    return validated(replace(build, lots=lots, parts=tuple(parts), loadouts=loadouts))


def _aboard(build: Build, chosen: Sequence[str]) -> None:
    """Raises BuildFaultError where one of them is not on the plane."""
    there = {part.id for part in build.parts if not part.retired}
    for k, id in enumerate(chosen):
        if id not in there:
            raise BuildFaultError(
                [Fault(f"parts.{k}", f'no part "{id}" on the plane; choose from its parts')]
            )


def _no_way(way: Way) -> Fault:
    if way.lot is None:
        words = "the sheets of these parts have no more paper than that; choose other parts"
        return Fault("faces", words)
    words = f"none of them can be made from {way.lot.name}; choose one that is cut or run alike"
    return Fault("lots", words)


def _alike(was: Lot, lot: Lot) -> bool:
    """Whether both join, or both cover."""
    return any({was.kind, lot.kind} <= those for those in (JOINING, COVERING))


def _runs_alike(was: Lot, lot: Lot) -> bool:
    """Whether what is made of one lot can be made of another one."""
    if was.id == lot.id:
        return False
    apart = bool({was.kind, lot.kind} & (JOINING | COVERING)) or was.unit is not lot.unit
    return _alike(was, lot) or not apart


def _made(part: Part, way: Way, old: dict[str, Lot]) -> Part | None:
    """The part with its first lot taken for another; None where that makes no sense."""
    if not part.uses:
        return None
    was = old[part.uses[0].lot]
    lot = way.lot_for(was)
    if lot is None or not _runs_alike(was, lot):
        return None
    uses = tuple(
        Use(lot.id, _converted(use.amount, was, lot)) if use.lot == was.id else use
        for use in part.uses
    )
    pedigree = KNOWN_BY[lot.kind] if _alike(was, lot) else part.pedigree
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
