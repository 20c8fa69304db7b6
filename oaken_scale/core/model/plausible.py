"""Figures that are absurd for their kind: asked about once, never refused."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part import Part, Reference
from oaken_scale.core.model.quantity import INCH_MM
from oaken_scale.core.model.surface import Surface


class FigureOf(StrEnum):
    """What a typed figure is of."""

    SPAN = "span"
    CHORD = "chord"
    STATION = "station"
    HEIGHT = "height"
    MASS = "mass"
    RUN = "run"
    AREA = "area"


USUAL: Final = {
    FigureOf.SPAN: (180.0, 4000.0),
    FigureOf.CHORD: (25.0, 900.0),
    FigureOf.STATION: (-400.0, 2500.0),
    FigureOf.HEIGHT: (-600.0, 600.0),
    FigureOf.MASS: (0.01, 2000.0),
    FigureOf.RUN: (0.005, 12.0),
    FigureOf.AREA: (0.005, 120.0),
}
"""What foam board planes are built to, and what one part of them is; outside of it a figure is
asked about. Lengths [mm], mass [g], run of a rod or tape [m], area of a sheet [dm2]."""

BEYOND: Final = 1.3
"""A station farther aft than so many times the drawn length lies off the plane."""

SLIPS: Final = (10.0, 0.1, INCH_MM, 1 / INCH_MM, 100.0, 0.01)
"""How a length is often off: cm for mm, a decimal, inches for mm."""

SLIPS_OF_AMOUNT: Final = {
    FigureOf.MASS: (0.001, 1000.0, 0.1, 10.0, 0.01),
    FigureOf.RUN: (0.01, 0.001, 0.1, 10.0),
    FigureOf.AREA: (0.01, 0.0001, 0.1, 10.0, 100.0),
}
"""How an amount is often off: mg for g, cm or mm for m, cm2 or mm2 for dm2, a decimal or two."""

LIKELY: Final = {FigureOf.MASS: 15.0, FigureOf.RUN: 0.5, FigureOf.AREA: 5.0}
"""What one part is likeliest to be: of several slips the one that comes nearest was made."""


@dataclass(frozen=True, slots=True)
class Asked:
    """A figure that is absurd for its kind, in the base unit of its kind, and what may have been
    meant; None where no usual slip explains it."""

    value: float
    instead: float | None


def drawn_length(surfaces: Sequence[Surface]) -> float:
    """How far aft of the nose the drawing reaches [mm]; 0 where nothing is drawn.

    >>> from oaken_scale.core.model.surface import Role, Section
    >>> drawn_length([Surface("t", "T", Role.TAIL, (Section(700, 0, 0, 110),))])
    810
    """
    return max((s.x_le_mm + s.chord_mm for each in surfaces for s in each.sections), default=0.0)


def asked_about(value: float, figure: FigureOf, surfaces: Sequence[Surface] = ()) -> Asked | None:
    """What to ask about a figure that a builder typed, in the base unit of its kind; None where it
    can well be. A station is measured against the plane that ``surfaces`` draw.

    >>> asked_about(86.0, FigureOf.SPAN)
    Asked(value=86.0, instead=860.0)
    >>> asked_about(860.0, FigureOf.SPAN) is None
    True
    >>> asked_about(4000.0, FigureOf.STATION)
    Asked(value=4000.0, instead=400.0)
    >>> asked_about(45.0, FigureOf.RUN)
    Asked(value=45.0, instead=0.45)
    """
    low, high = USUAL[figure]
    length = drawn_length(surfaces)
    if figure is FigureOf.STATION and length > 0:
        high = min(high, BEYOND * length + 50.0)
    if value == 0 or low <= value <= high:
        return None
    likely = (round(value * slip, 4) for slip in SLIPS_OF_AMOUNT.get(figure, SLIPS))
    fitting = [each for each in likely if low <= each <= high]
    if figure in LIKELY:
        fitting.sort(key=lambda each: abs(math.log(each / LIKELY[figure])))
    return Asked(value, fitting[0] if fitting else None)


AMOUNT_OF: Final = {LotUnit.M: FigureOf.RUN, LotUnit.DM2: FigureOf.AREA}


def asked_of_part(
    part: Part, lots: Sequence[Lot], surfaces: Sequence[Surface]
) -> tuple[FigureOf, Asked] | None:
    """The first figure of a part that is absurd for its kind, and what it is of: how much of a lot
    of ``lots`` it is made of, its station from the nose, what it weighs.

    >>> rod = Lot("rod", "Rod", LotUnit.M, 5.9, 0.3)
    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.lot import Use
    >>> spar = Part("s", "Spar", Pedigree.CALCULATED, uses=(Use("rod", 45.0),))
    >>> asked_of_part(spar, (rod,), ())[1].instead
    0.45
    """

    def figures() -> Iterator[tuple[FigureOf, float]]:
        units = {lot.id: lot.unit for lot in lots}
        for use in part.uses:
            if (of := AMOUNT_OF.get(units[use.lot])) is not None:
                yield of, use.amount
        if part.station is not None and part.station.reference is Reference.NOSE:
            yield FigureOf.STATION, part.station.x_mm
        if part.stated_g is not None:
            yield FigureOf.MASS, part.stated_g / part.pieces

    for of, value in figures():
        asked = asked_about(value, of, surfaces)
        if asked is not None:
            return of, asked
    return None
