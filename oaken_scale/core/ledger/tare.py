"""What was tared away: the tray, as it should be, or something that will be missing."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.scale import reading_doubt, shows_unloaded
from oaken_scale.core.ledger.slip import SlipKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Pan

MUCH: Final = 4.0
"""A container explains what was tared when it is within so many sigma."""


class Odd(StrEnum):
    """What may be odd about a pan when it is tared: it was not empty, though nothing was listed;
    the scale showed nothing, though something was; it showed more or less than what was listed."""

    NOT_EMPTY = "not_empty"
    NOTHING_YET = "nothing_yet"
    MORE = "more"
    LESS = "less"


@dataclass(frozen=True, slots=True)
class OddTare:
    """What was odd when a pan was tared, and by how many grams."""

    odd: Odd
    grams: float


def odd_at_tare(build: Build, pan: Pan, scale_id: str, shown_g: float) -> OddTare | None:
    """What was odd about the pan when it was tared; None when nothing was.

    ``pan`` is what the list says was on it, ``shown_g`` what the scale showed. A container that
    nobody listed is what taring is for.

    >>> from oaken_scale.core.model.weighing import Container, Scale
    >>> build = Build("b", "B", scales=(Scale("s", "S", 0.1),),
    ...     containers=(Container("t", "Tray", 31.4),))
    >>> odd_at_tare(build, Pan(), "s", 31.4)
    >>> odd_at_tare(build, Pan(), "s", 47.9)
    OddTare(odd=<Odd.NOT_EMPTY: 'not_empty'>, grams=47.9)
    """
    scale = next(each for each in build.scales if each.id == scale_id)
    if pan == Pan():
        if not shows_unloaded(scale, shown_g):
            return None
        near = (
            abs(shown_g - each.mass_g) <= MUCH * (each.doubt_g + reading_doubt(scale))
            for each in build.containers
        )
        if any(near):
            return None
        return OddTare(Odd.NOT_EMPTY, shown_g)
    if shown_g <= 0:
        return OddTare(Odd.NOTHING_YET, 0.0)
    doubt = suspect(build, pan, scale_id, shown_g)
    if doubt is None or any(each.kind is SlipKind.NOT_TARED for each in doubt.slips):
        return None
    gap = shown_g - doubt.expected_g
    return OddTare(Odd.MORE if gap > 0 else Odd.LESS, abs(gap))
