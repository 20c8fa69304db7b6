"""Figures that are absurd for their kind: asked about once, never refused."""

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.build import Surface
from oaken_scale.core.model.quantity import INCH_MM


class LengthOf(StrEnum):
    """What a typed length is of."""

    SPAN = "span"
    CHORD = "chord"
    STATION = "station"
    HEIGHT = "height"


USUAL_MM: Final = {
    LengthOf.SPAN: (180.0, 4000.0),
    LengthOf.CHORD: (25.0, 900.0),
    LengthOf.STATION: (-400.0, 2500.0),
    LengthOf.HEIGHT: (-600.0, 600.0),
}
"""What foam board planes are built to [mm]; outside of it a figure is asked about."""

BEYOND: Final = 1.3
"""A station farther aft than so many times the drawn length lies off the plane."""

SLIPS: Final = (10.0, 0.1, INCH_MM, 1 / INCH_MM, 100.0, 0.01)
"""How a figure is often off: cm for mm, a decimal, inches for mm."""


@dataclass(frozen=True, slots=True)
class Asked:
    """A length that is absurd for its kind [mm], and what may have been meant; None where no usual
    slip explains it."""

    value_mm: float
    instead_mm: float | None


def drawn_length(surfaces: Sequence[Surface]) -> float:
    """How far aft of the nose the drawing reaches [mm]; 0 where nothing is drawn.

    >>> from oaken_scale.core.model.build import Role, Section
    >>> drawn_length([Surface("t", "T", Role.TAIL, (Section(700, 0, 0, 110),))])
    810
    """
    return max((s.x_le_mm + s.chord_mm for each in surfaces for s in each.sections), default=0.0)


def asked_about(value_mm: float, measure: LengthOf, surfaces: Sequence[Surface]) -> Asked | None:
    """What to ask about a length [mm] that a builder typed; None where it can well be.

    >>> asked_about(86.0, LengthOf.SPAN, ())
    Asked(value_mm=86.0, instead_mm=860.0)
    >>> asked_about(860.0, LengthOf.SPAN, ()) is None
    True
    >>> asked_about(4000.0, LengthOf.STATION, ())
    Asked(value_mm=4000.0, instead_mm=400.0)
    """
    low, high = USUAL_MM[measure]
    length = drawn_length(surfaces)
    if measure is LengthOf.STATION and length > 0:
        high = min(high, BEYOND * length + 50.0)
    if value_mm == 0 or low <= value_mm <= high:
        return None
    likely = (round(value_mm * slip, 3) for slip in SLIPS)
    return Asked(value_mm, next((each for each in likely if low <= each <= high), None))
