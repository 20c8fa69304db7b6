"""What a material gives, and what is given up with it: paper on or off, glue or tape."""

from enum import StrEnum
from typing import Final

from oaken_scale.core.model.lot import Faces, Lot, LotKind


class Trait(StrEnum):
    """What a builder likes of a material: stiffness; a paper that folds as a hinge; no paper to
    drink water; a skin against dents; time to shift it; no fumes; that it can be undone, or handled
    within minutes; a joint as strong as the foam."""

    STIFF = "stiff"
    HINGE = "hinge"
    DRY = "dry"
    TOUGH = "tough"
    SHIFTS = "shifts"
    NO_FUMES = "no fumes"
    UNDONE = "undone"
    QUICK = "quick"
    STRONG = "strong"


_ADHESIVES: Final[dict[str, frozenset[Trait]]] = {
    "hot-melt": frozenset({Trait.QUICK, Trait.STRONG, Trait.NO_FUMES}),
    "epoxy": frozenset({Trait.STRONG, Trait.SHIFTS}),
    "contact": frozenset({Trait.STRONG, Trait.QUICK}),
    "cyanoacrylate": frozenset({Trait.STRONG, Trait.QUICK}),
    "polyurethane": frozenset({Trait.STRONG, Trait.SHIFTS}),
    "white": frozenset({Trait.SHIFTS, Trait.NO_FUMES, Trait.STRONG}),
}
_FACES: Final[dict[Faces, frozenset[Trait]]] = {
    Faces.BOTH: frozenset({Trait.STIFF, Trait.HINGE, Trait.TOUGH}),
    Faces.ONE: frozenset({Trait.HINGE}),
    Faces.NONE: frozenset({Trait.DRY}),
}
_KINDS: Final[dict[LotKind, frozenset[Trait]]] = {
    LotKind.TAPE: frozenset({Trait.UNDONE, Trait.QUICK, Trait.NO_FUMES, Trait.SHIFTS}),
    LotKind.FILM: frozenset({Trait.DRY, Trait.STIFF}),
    LotKind.ROD: frozenset({Trait.STIFF}),
    LotKind.PLYWOOD: frozenset({Trait.STIFF, Trait.TOUGH}),
    LotKind.WOOD: frozenset({Trait.STIFF}),
    LotKind.PAINT: frozenset({Trait.SHIFTS}),
    LotKind.CARD: frozenset({Trait.DRY, Trait.TOUGH}),
}


def traits(lot: Lot) -> frozenset[Trait]:
    """What a lot's material gives, from its kind, its faces and its adhesive.

    Source: docs/methods.md, section 7: habits of the craft, where builders disagree.

    >>> from oaken_scale.core.model.lot import Faces, LotUnit
    >>> sheet = Lot("a", "A", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM, faces=Faces.BOTH)
    >>> sorted(each.value for each in traits(sheet))
    ['hinge', 'stiff', 'tough']
    """
    if lot.kind is LotKind.FOAM:
        return _FACES[lot.faces or Faces.NONE]
    if lot.kind is LotKind.ADHESIVE:
        return _ADHESIVES.get(lot.adhesive, frozenset({Trait.STRONG}))
    return _KINDS.get(lot.kind, frozenset())


def trade(before: Lot, after: Lot) -> tuple[tuple[Trait, ...], tuple[Trait, ...]]:
    """What is gained and what is given up by taking one lot for another.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> both, one = STARTER[0], STARTER[1]
    >>> [trait.value for trait in trade(both, one)[1]]
    ['stiff', 'tough']
    """
    had, has = traits(before), traits(after)
    gained = tuple(trait for trait in Trait if trait in has - had)
    return gained, tuple(trait for trait in Trait if trait in had - has)
