"""Lots: the sheets, rolls, rods and bottles that parts are made of."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Amount,
    CloseBy,
    Id,
    JointTime,
    Label,
    Length,
    MassOrLess,
    Name,
    Price,
    Range,
    Reading,
    Size,
    SomeMass,
    Words,
)


class LotUnit(StrEnum):
    """What a lot's constant is counted by: g per dm2, per m, or per piece."""

    DM2 = "dm2"
    M = "m"
    PIECE = "piece"


class LotKind(StrEnum):
    """What hangs on the rack."""

    FOAM = "foam"
    TAPE = "tape"
    ADHESIVE = "adhesive"
    ROD = "rod"
    FILM = "film"
    PAINT = "paint"
    PLYWOOD = "plywood"
    WOOD = "wood"
    CARD = "card"
    OTHER = "other"


class Faces(StrEnum):
    """How many faces of a foam sheet still wear their paper."""

    BOTH = "both"
    ONE = "one"
    NONE = "none"


class Quality(StrEnum):
    """What matters when a material is chosen, beside what it weighs."""

    PAPER_PEELS = "paper_peels"
    PAPER_HOLDS = "paper_holds"
    SOFT = "soft"
    BRITTLE = "brittle"
    RUBBERY = "rubbery"
    SHRINKS = "shrinks"
    DRINKS = "drinks"


@dataclass(frozen=True, slots=True)
class Curing:
    """How long an adhesive lasts after it was spread [s]: it may be closed from ``close_after_s``
    on and must be by ``close_by_s`` (None: no hurry), then handled, then it is strong."""

    close_after_s: JointTime
    close_by_s: CloseBy | None
    handle_after_s: JointTime
    strong_after_s: JointTime


@dataclass(frozen=True, slots=True)
class Known:
    """What the workshop's other builds tell of a lot's constant or a thing's mass.

    It counts as one reading of it: ``value`` with ``doubt`` (one sigma), in the same unit.
    """

    value: MassOrLess
    doubt: SomeMass
    source: Words = ""


@dataclass(frozen=True, slots=True)
class Lot:
    """One sheet, box, roll or bottle: things cut from it share its constant.

    ``constant`` and ``doubt`` (one sigma) are in g per ``unit``. One sheet is ``length_mm`` by
    ``width_mm``, one roll or rod ``length_mm`` long; ``price`` buys one, ``stock`` of them are at
    hand, and cutting wastes so much that ``waste`` times the area or run is wanted. ``adhesive`` is
    its entry on the joint clock, and ``curing`` its own times where the label has others. One
    bottle, can or stick ``holds_g``. It is bought at ``shop``, ``lead_days`` after it is ordered.
    ``rack`` is its id on the workshop's rack, None for a lot of this
    build alone; ``elsewhere`` is what other builds found of it.
    """

    id: Id
    name: Name
    unit: LotUnit
    constant: Annotated[float, Range(gt=0, le=limits.LOT_CONSTANT)]
    doubt: Annotated[float, Range(ge=0, le=limits.LOT_CONSTANT)]
    source: Words = ""
    kind: LotKind = LotKind.OTHER
    faces: Faces | None = None
    thickness_mm: Size | None = None
    length_mm: Size | None = None
    width_mm: Size | None = None
    price: Price | None = None
    stock: Annotated[float, Range(ge=0, le=limits.STOCK)] | None = None
    waste: Annotated[float, Range(ge=1, le=limits.WASTE)] | None = None
    adhesive: Label = ""
    holds_g: Reading | None = None
    curing: Curing | None = None
    qualities: Annotated[tuple[Quality, ...], Length(len(Quality))] = ()
    shop: Label = ""
    lead_days: Annotated[float, Range(ge=0, le=365)] | None = None
    rack: Id | None = None
    elsewhere: Known | None = None

    @property
    def size(self) -> float | None:
        """How much is in one sheet [dm2], roll or rod [m], bottle or piece; None where nobody
        said.

        >>> Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500).size
        35.0
        >>> Lot("p", "Paint", LotUnit.DM2, 0.4, 0.1, holds_g=100.0).size
        250.0
        """
        if self.holds_g is not None:
            return self.holds_g / self.constant
        if self.unit is LotUnit.PIECE:
            return 1.0
        if self.length_mm is None or (self.unit is LotUnit.DM2 and self.width_mm is None):
            return None
        if self.unit is LotUnit.M:
            return self.length_mm / 1000
        return self.length_mm * (self.width_mm or 0.0) / 1e4


@dataclass(frozen=True, slots=True)
class Use:
    """How much of a lot a part uses, in the lot's unit; negative for a pocket cut out."""

    lot: Id
    amount: Amount
