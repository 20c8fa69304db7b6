"""What may move, and what may be put in: slides, spots for ballast, and its pieces at hand."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Final

from oaken_scale.core.changes.balance import with_slide
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Slide
from oaken_scale.core.model.pieces_line import pieces_of_line

FREE_MM: Final = 20.0
"""How far either way a part may slide before its builder says how far [mm]."""


def let_slide(build: Build, part_id: str) -> Build:
    """The build with a part that may slide a little either way of where it sits.

    Raises BuildFaultError (``part``) for what sits nowhere yet.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> pack = Part("p", "Pack", Pedigree.LISTING, station=Station(150.0))
    >>> let_slide(Build("b", "B", parts=(pack,)), "p").parts[0].slide
    Slide(low_mm=130.0, high_mm=170.0)
    """
    station = next((each.station for each in build.parts if each.id == part_id), None)
    if station is None:
        words = f'no placed part "{part_id}" in this build; give it a station first'
        raise BuildFaultError([Fault("part", words)])
    x = station.x_mm
    return with_slide(build, part_id, Slide(x - FREE_MM, x + FREE_MM))


def with_one_more_spot(build: Build) -> Build:
    """The build with one more spot for ballast: at the nose, until its builder says where.

    >>> [each.name for each in with_one_more_spot(Build("b", "B")).ballast.spots]
    ['Spot 1']
    """
    spots = build.ballast.spots
    there = {each.id for each in spots}
    number = len(spots) + 1
    while f"spot-{number}" in there:
        number += 1
    spot = BallastSpot(f"spot-{number}", f"Spot {number}", 0.0)
    return replace(build, ballast=replace(build.ballast, spots=(*spots, spot)))


def with_pieces(
    build: Build, line: str, unit: str = "g", shown: Mapping[str, Sequence[float]] | None = None
) -> Build:
    """The build with those pieces of ballast at hand that a line names, ``shown`` as exact as they
    were (:func:`~oaken_scale.core.model.pieces_line.pieces_of_line`).

    Raises BuildFaultError (``line``).

    >>> with_pieces(Build("b", "B"), "5; 2 x 2.4").ballast.pieces
    (5.0, 2.4, 2.4)
    """
    pieces = pieces_of_line(line, unit, shown)
    return replace(build, ballast=replace(build.ballast, pieces=pieces))
