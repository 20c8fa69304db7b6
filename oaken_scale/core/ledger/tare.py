"""What was tared away: the tray, as it should be, or something that will be missing."""

from typing import Final

from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.scale import reading_doubt, shows_unloaded
from oaken_scale.core.ledger.slips import SlipKind
from oaken_scale.core.model.build import Build, Pan

MUCH: Final = 4.0
"""A container explains what was tared when it is within so many sigma."""


def odd_at_tare(build: Build, pan: Pan, scale_id: str, shown_g: float) -> str | None:
    """What was odd about the pan when it was tared, in words; None when nothing was.

    ``pan`` is what the list says was on it, ``shown_g`` what the scale showed. A container that
    nobody listed is what taring is for.

    >>> from oaken_scale.core.model.build import Container, Scale
    >>> build = Build("b", "B", scales=(Scale("s", "S", 0.1),),
    ...     containers=(Container("t", "Tray", 31.4),))
    >>> odd_at_tare(build, Pan(), "s", 31.4)
    >>> odd_at_tare(build, Pan(), "s", 47.9)
    'The pan was not empty: 47.9 g were tared away that no container weighs.'
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
        return f"The pan was not empty: {shown_g:.1f} g were tared away that no container weighs."
    if shown_g <= 0:
        return "The scale showed nothing when it was tared: is the thing on it yet?"
    doubt = suspect(build, pan, scale_id, shown_g)
    if doubt is None or any(each.kind is SlipKind.NOT_TARED for each in doubt.slips):
        return None
    gap = shown_g - doubt.expected_g
    return (
        f"It showed {abs(gap):.1f} g {'more' if gap > 0 else 'less'} than what is on the list "
        "when it was tared. Look what lies on the pan."
    )
