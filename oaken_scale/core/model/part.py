"""A part of a build: what it is made of, how its mass is known, where it sits."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.declared import (
    Coordinate,
    Doubt,
    Id,
    Label,
    Length,
    MassOrLess,
    Moment,
    Name,
    Price,
    Range,
)
from oaken_scale.core.model.fitting import Fit
from oaken_scale.core.model.lot import Known, Use
from oaken_scale.core.model.pattern import Pattern


class Pedigree(StrEnum):
    """How a mass is known before anything was weighed."""

    GUESS = "guess"
    LISTING = "listing"
    CALCULATED = "calculated"
    JOINT = "joint"
    COVERING = "covering"
    ALLOWANCE = "allowance"


ALL_OVER: Final = (Pedigree.JOINT, Pedigree.COVERING, Pedigree.ALLOWANCE)
"""Glue, tape and what nobody listed lie all over the plane, and cannot be put on the pan by
themselves."""


class Group(StrEnum):
    """What a weight budget allots grams to."""

    FOAM = "foam"
    JOINING = "joining"
    POWER = "power"
    CONTROL = "control"
    PAYLOAD = "payload"
    REST = "rest"


class Colour(StrEnum):
    """What a part is painted or covered in."""

    WHITE = "white"
    BLACK = "black"
    GREY = "grey"
    BROWN = "brown"
    RED = "red"
    ORANGE = "orange"
    YELLOW = "yellow"
    GREEN = "green"
    BLUE = "blue"
    VIOLET = "violet"
    PINK = "pink"


class Reference(StrEnum):
    """What a station was measured from."""

    NOSE = "nose"
    LEADING_EDGE = "leading_edge"


@dataclass(frozen=True, slots=True)
class Station:
    """Where a part's own CG sits.

    ``x_mm`` is measured from ``reference``; ``doubt_mm`` is one sigma along x, y and z alike, or
    None for the usual one: 4 mm of a big foam part, else 2 mm.
    """

    x_mm: Coordinate
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0
    reference: Reference = Reference.NOSE
    doubt_mm: Annotated[float, Range(ge=0, le=limits.STATION_MM)] | None = None


@dataclass(frozen=True, slots=True)
class Slide:
    """How far a thing may be moved along x, from the same reference as its station [mm]."""

    low_mm: Coordinate
    high_mm: Coordinate


WITHIN: Final = "/"
"""Stands between an assembly and the one within it."""


def assembly_path(text: str) -> str:
    """An assembly as it is kept, however it was typed: the outermost first, without spaces about
    what stands between.

    >>> assembly_path(" Fuselage / Nose"), assembly_path("Wing//"), assembly_path("/")
    ('Fuselage/Nose', 'Wing', '')
    """
    names = (name.strip() for name in text.split(WITHIN))
    return WITHIN.join(name for name in names if name)


@dataclass(frozen=True, slots=True)
class Part:
    """One thing aboard, as it sits on the plane (four screws are one part of four pieces).

    ``stated_g`` is the builder's or maker's figure for the whole part; ``uses`` adds what is cut
    from lots. ``doubt_g`` replaces the pedigree's own doubt (one sigma). An ``option`` flies only
    with the loadouts that carry it. ``thing`` is its id in the workshop's drawer, and ``elsewhere``
    what other builds found that it weighs; ``group`` is its place in the weight budget, None where
    its material says it; ``price`` is for all its pieces. ``host`` is the part that it was done to:
    a patch, a bead, or (with a negative figure) what was sanded off, and it goes on the pan with
    it. ``replaces`` is the part whose place it took. ``slide`` says where it may be moved to,
    ``pattern`` what is cut out of a sheet for one piece of it; until it is cut it is as it is
    ``drawn``. ``fit`` is what it takes up, ``colour`` what it is painted or covered in.
    ``assembly`` is its path, the outermost first: "Fuselage/Nose".
    """

    id: Id
    name: Name
    pedigree: Pedigree
    assembly: Label = ""
    stated_g: MassOrLess | None = None
    uses: Annotated[tuple[Use, ...], Length(20)] = ()
    doubt_g: Doubt | None = None
    pieces: Annotated[int, Range(ge=1, le=limits.PIECES)] = 1
    station: Station | None = None
    option: bool = False
    retired: bool = False
    thing: Id | None = None
    elsewhere: Known | None = None
    group: Group | None = None
    price: Price | None = None
    host: Id | None = None
    replaces: Id | None = None
    added_at: Moment | None = None
    retired_at: Moment | None = None
    slide: Slide | None = None
    pattern: Pattern | None = None
    drawn: Drawn | None = None
    fit: Fit | None = None
    colour: Colour | None = None

    def __post_init__(self) -> None:
        """Keep the assembly's path as all have it."""
        if self.assembly and (path := assembly_path(self.assembly)) != self.assembly:
            object.__setattr__(self, "assembly", path)


HABITUAL: Final = (Pedigree.GUESS, Pedigree.LISTING)
"""What runs heavy or light by habit; all else is worked out of lots."""


@dataclass(frozen=True, slots=True)
class Habit:
    """How the workshop's finished builds found one pedigree's figures to run.

    ``factor`` is by how much they run heavy (1.1: a tenth heavier than stated), ``doubt`` one
    sigma of it; ``squares`` is the sum of squares of how far ``weighed`` of them lay from what was
    believed, in sigma: it widens or narrows what is believed of the next.
    """

    pedigree: Pedigree
    factor: Annotated[float, Range(gt=0, le=20)]
    doubt: Annotated[float, Range(gt=0, le=1)]
    squares: Annotated[float, Range(ge=0, le=1e6)] = 0.0
    weighed: Annotated[int, Range(ge=0, le=100_000)] = 0
