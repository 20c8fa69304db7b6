"""What may slide, where ballast may go, and the pieces of it at hand."""

from dataclasses import replace

import pytest

from oaken_scale.core.changes.ballast import let_slide, with_one_more_spot, with_pieces
from oaken_scale.core.model.balancing import Ballast, BallastSpot
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station

PACK = Part(
    "pack", "Pack", Pedigree.LISTING, station=Station(-30.0, 0, -8.0, Reference.LEADING_EDGE)
)
BARE = Part("bare", "Receiver", Pedigree.LISTING)
PLANE = Build("b", "B", parts=(PACK, BARE))


def test_a_part_may_slide_about_where_it_sits_by_what_it_is_measured_from():
    pack, bare = let_slide(PLANE, "pack").parts
    assert pack == replace(PACK, slide=Slide(-50.0, -10.0))
    assert bare == BARE


@pytest.mark.parametrize("part", ["bare", "nobody"])
def test_what_sits_nowhere_cannot_slide(part):
    with pytest.raises(BuildFaultError, match="give it a station first") as refused:
        let_slide(PLANE, part)
    assert refused.value.faults[0].field == "part"


def test_one_more_spot_takes_the_first_number_that_is_free():
    nose = BallastSpot("nose", "Nose", 8.0)
    third = BallastSpot("spot-3", "Spot 3", 90.0)
    plane = replace(PLANE, ballast=Ballast((nose, third), (5.0,)))
    told = with_one_more_spot(plane).ballast
    assert told.spots[:2] == (nose, third)
    assert told.spots[2] == BallastSpot("spot-4", "Spot 4", 0.0)
    assert told.pieces == (5.0,)


def test_the_pieces_are_those_of_the_line_and_the_spots_stay():
    nose = BallastSpot("nose", "Nose", 8.0)
    plane = replace(PLANE, ballast=Ballast((nose,), (5.0, 9.0)))
    assert with_pieces(plane, "9; 2 x 2.5").ballast == Ballast((nose,), (9.0, 2.5, 2.5))
    assert with_pieces(plane, "").ballast.pieces == ()
