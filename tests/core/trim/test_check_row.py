"""A balance check by hand as one equation: each kind of check, its balance point and its doubt
worked from the statics of two masses."""

from dataclasses import replace
from math import cos, radians, tan

import pytest

from oaken_scale.core.flight.centre_of_gravity import stations
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.trim.check_row import row_of
from tests.benches import MORNING

SCALE = Scale("kitchen", "Kitchen scale", 0.1, 0.05, 0.002)
# 150 g at 40 mm and 250 g at 360 mm: 400 g that balance at 240 mm, 8 mm up, 5 mm to starboard.
PARTS = (
    Part("nose", "Nose", Pedigree.LISTING, stated_g=150.0, station=Station(40.0, 0.0, -12.0)),
    Part("tail", "Tail", Pedigree.LISTING, stated_g=250.0, station=Station(360.0, 8.0, 20.0)),
)


def row(check: BalanceCheck, parts: tuple[Part, ...] = PARTS, **more):
    build = Build("b", "B", parts=parts, scales=(SCALE,), checks=(check,), **more)
    return row_of(build, solve(build), stations(build, None), check)


def made(kind: CheckKind, x_mm: float, by: str = "", **more) -> BalanceCheck:
    return BalanceCheck("c", MORNING, kind, None, x_mm, by, **more)


@pytest.mark.parametrize(
    ("by", "given", "doubt"),
    [
        ("fingertips", None, 3.0),
        ("pegs", None, 1.0),
        ("string", None, 2.0),
        ("anything", None, 3.0),
        ("pegs", 0.4, 0.4),
    ],
)
def test_level_on_a_support_is_where_it_rests(by, given, doubt):
    told = row(made(CheckKind.SUPPORT, 236.0, by, doubt=given))
    assert (told.found_mm, told.found_sd_mm) == (236.0, doubt)
    assert told.lever.tolist() == [40.0 - 236.0, 360.0 - 236.0]
    assert (told.moment, told.axis) == (0.0, 0)
    assert told.noise == pytest.approx(400.0 * doubt)


def test_on_two_supports_the_reading_says_how_far_behind_the_first():
    """240 g on the second of two supports 150 and 300 mm back: 150 + 240/400 of 150 = 240 mm."""
    told = row(made(CheckKind.SUPPORTS, 150.0, other_mm=300.0, reading_g=240.0, scale="kitchen"))
    assert told.found_mm == pytest.approx(240.0)
    reading_sd = (0.1**2 / 12 + 0.05**2 + (0.002 * 240) ** 2) ** 0.5
    assert told.noise == pytest.approx(((reading_sd * 150) ** 2 + (400 * 1.0) ** 2) ** 0.5)
    assert told.found_sd_mm == pytest.approx(told.noise / 400)
    assert told.moment == pytest.approx(240 * 150)
    assert told.lever.tolist() == [-110.0, 210.0]


def test_across_two_supports_the_lever_is_sideways():
    """206.25 g on the right of supports 200 mm either side: -200 + 206.25/400 of 400 = 6.25 mm."""
    told = row(made(CheckKind.SIDES, -200.0, other_mm=200.0, reading_g=206.25, scale="kitchen"))
    assert told.axis == 1
    assert told.found_mm == pytest.approx(6.25)
    assert told.lever.tolist() == [200.0, 208.0]


@pytest.mark.parametrize("lacks", [{"other_mm": None}, {"reading_g": None}])
def test_half_a_check_is_none(lacks):
    whole = made(CheckKind.SUPPORTS, 150.0, other_mm=300.0, reading_g=240.0)
    assert row(replace(whole, **lacks)) is None


@pytest.mark.parametrize("angle", [0.0, 12.0, -12.0])
def test_hung_by_its_wing_it_comes_to_rest_under_the_pivot(angle):
    """From a pivot 58 mm over the datum, 50 over the CG: nose down, the CG lies so much ahead."""
    told = row(made(CheckKind.HANG, 250.0, z_mm=58.0, nose_down_deg=angle))
    slope = tan(radians(angle))
    assert told.found_mm == pytest.approx(250.0 - 50 * slope)
    doubt = radians(1.0) * 50 / cos(radians(angle)) ** 2
    assert told.found_sd_mm == pytest.approx((doubt**2 + 1) ** 0.5)
    assert told.lever.tolist() == pytest.approx(
        [40 - 250 + (58 + 12) * slope, 360 - 250 + (58 - 20) * slope]
    )
    sharper = row(made(CheckKind.HANG, 250.0, z_mm=58.0, nose_down_deg=angle, doubt=0.2))
    assert sharper.found_sd_mm < told.found_sd_mm


def test_what_has_no_place_lies_about_the_rest_give_or_take_their_spread():
    adrift = Part("glue", "Glue", Pedigree.JOINT, stated_g=20.0)
    told = row(made(CheckKind.SUPPORT, 236.0, "pegs"), parts=(*PARTS, adrift))
    middle = (150 * 40 + 250 * 360) / 400
    assert told.lever[2] == pytest.approx(middle - 236)
    spread = (150 * (40 - middle) ** 2 + 250 * (360 - middle) ** 2) / 400
    assert told.adrift[0] == pytest.approx(spread)
    assert told.adrift[1] == pytest.approx((150 * 5**2 + 250 * 3**2) / 400)
    assert told.noise == pytest.approx(420.0 * 1.0)


def test_with_nothing_placed_aboard_there_is_no_equation():
    nowhere = tuple(replace(part, station=None) for part in PARTS)
    assert row(made(CheckKind.SUPPORT, 236.0, "pegs"), parts=nowhere) is None


def test_the_scale_that_is_not_named_is_the_first_and_without_one_a_gram():
    check = made(CheckKind.SUPPORTS, 150.0, other_mm=300.0, reading_g=240.0)
    named = replace(check, scale="kitchen")
    assert row(check).noise == pytest.approx(row(named).noise)
    build = Build("b", "B", parts=PARTS, checks=(check,))
    bare = row_of(build, solve(build), stations(build, None), check)
    assert bare.noise == pytest.approx(((1.0 * 150) ** 2 + 400**2) ** 0.5)
