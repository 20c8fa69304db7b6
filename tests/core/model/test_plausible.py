"""Which figures are asked about, and what was likely meant: each slip in each unit."""

import pytest

from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.plausible import USUAL, FigureOf, asked_about, asked_of_part
from oaken_scale.core.model.surface import Role, Section, Surface

TAIL = Surface("t", "Tail", Role.TAIL, (Section(700, 0, 0, 100), Section(720, 200, 0, 80)))


@pytest.mark.parametrize("figure", FigureOf)
def test_both_ends_of_what_is_usual_are_usual_and_what_lies_beyond_is_asked(figure):
    low, high = USUAL[figure]
    assert asked_about(low, figure) is None
    assert asked_about(high, figure) is None
    assert asked_about(high * 1.001, figure) is not None
    under = low * 1.001 if low < 0 else low * 0.999
    assert asked_about(under, figure) is not None


@pytest.mark.parametrize(
    ("value", "figure", "meant"),
    [
        (108.0, FigureOf.SPAN, 1080.0),  # cm
        (42.5, FigureOf.SPAN, 425.0),
        (10800.0, FigureOf.SPAN, 1080.0),  # a decimal
        (7.5, FigureOf.CHORD, 75.0),  # cm before inches
        (1.5, FigureOf.CHORD, 38.1),  # 15 would be no chord; an inch and a half is
        (0.5, FigureOf.CHORD, 50.0),  # half a decimetre, neither 5 nor 12.7
        (5000.0, FigureOf.STATION, 500.0),
        (3000.0, FigureOf.HEIGHT, 300.0),
        (0.0095, FigureOf.MASS, 9.5),  # kg for g
        (9500.0, FigureOf.MASS, 9.5),  # mg
        (45.0, FigureOf.RUN, 0.45),  # cm
        (450.0, FigureOf.RUN, 0.45),  # mm
        (600.0, FigureOf.AREA, 6.0),  # cm2
        (60000.0, FigureOf.AREA, 6.0),  # mm2
        (1e9, FigureOf.SPAN, None),  # nothing explains it
        (-20.0, FigureOf.SPAN, None),
    ],
)
def test_what_was_likely_meant(value, figure, meant):
    told = asked_about(value, figure)
    assert told.value == value
    assert told.instead == (meant if meant is None else pytest.approx(meant))


def test_nothing_at_all_is_no_absurd_figure():
    assert all(asked_about(0.0, figure) is None for figure in FigureOf)


def test_a_station_is_held_against_the_plane_that_is_drawn():
    """The drawing ends at 800; up to 1.3 times that and a hand's width nothing is asked."""
    assert asked_about(1090.0, FigureOf.STATION, [TAIL]) is None
    assert asked_about(1091.0, FigureOf.STATION, [TAIL]).instead == pytest.approx(109.1)
    assert asked_about(1091.0, FigureOf.STATION) is None
    assert asked_about(-401.0, FigureOf.STATION, [TAIL]).instead == pytest.approx(-40.1)
    # A chord has nothing to do with how long the plane is.
    assert asked_about(899.0, FigureOf.CHORD, [TAIL]) is None


LOTS = (
    Lot("rod", "Rod", LotUnit.M, 5.9, 0.3),
    Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4),
    Lot("screw", "Screw", LotUnit.PIECE, 0.3, 0.05),
)


def made_of(*uses: Use, **more) -> Part:
    return Part("p", "P", Pedigree.CALCULATED, uses=uses, **more)


@pytest.mark.parametrize(
    ("part", "figure", "instead"),
    [
        (made_of(Use("rod", 45.0)), FigureOf.RUN, 0.45),
        (made_of(Use("sheet", 600.0)), FigureOf.AREA, 6.0),
        (made_of(Use("rod", 0.45), Use("sheet", 600.0)), FigureOf.AREA, 6.0),
        (made_of(Use("sheet", 6.0), station=Station(5000.0)), FigureOf.STATION, 500.0),
        (Part("p", "P", Pedigree.LISTING, stated_g=9500.0), FigureOf.MASS, 9.5),
        # What is absurd of one is not of three hundred, and the other way round.
        (Part("p", "P", Pedigree.LISTING, stated_g=0.03, pieces=10), FigureOf.MASS, 3.0),
    ],
)
def test_the_first_absurd_figure_of_a_part(part, figure, instead):
    of, asked = asked_of_part(part, LOTS, ())
    assert (of, asked.instead) == (figure, pytest.approx(instead))


@pytest.mark.parametrize(
    "part",
    [
        made_of(Use("screw", 400.0)),  # so many pieces as one likes
        made_of(Use("rod", 0.45), Use("sheet", 6.0), station=Station(500.0)),
        # Where the leading edge is may change: a station from it is not asked about.
        made_of(station=Station(5000.0, reference=Reference.LEADING_EDGE)),
        Part("p", "P", Pedigree.LISTING, stated_g=3000.0, pieces=2),
    ],
)
def test_parts_about_which_nothing_is_asked(part):
    assert asked_of_part(part, LOTS, ()) is None
