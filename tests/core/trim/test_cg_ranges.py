"""Where it belongs, by each school, worked by hand."""

from math import radians, tan

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity
from oaken_scale.core.geometry.neutral_point import NeutralPoint
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.balancing import PlanMark
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.trim.cg_ranges import (
    Arrangement,
    Basis,
    SchoolKind,
    arrangement,
    quarrels,
    schools,
)


def plate(role: Role, x: float, half: float, chord: float, z: float = 0.0, id: str = "") -> Surface:
    sections = (Section(x, 0, z, chord), Section(x, half, z, chord))
    return Surface(id or role, id or role, role, sections)


WING = plate(Role.WING, 200, 540, 190, 60)
TAIL = plate(Role.TAIL, 700, 210, 110)
AT_REST = CentreOfGravity(255.0, 0.0, 20.0, 2.0, 1.0, 2.0)
NEUTRAL = NeutralPoint(300.0, 4.5, 20.52)


def told(*surfaces, mark=None, cg=AT_REST, neutral=NEUTRAL):
    build = Build("b", "B", surfaces=surfaces, plan_mark=mark)
    wing = wing_figures(surfaces)
    return {each.kind: each for each in schools(build, wing, neutral, cg)}


@pytest.mark.parametrize(
    ("surfaces", "laid"),
    [
        ((WING, TAIL), Arrangement.TAILED),
        ((WING,), Arrangement.FLYING_WING),
        ((plate(Role.WING, 560, 575, 185), plate(Role.CANARD, 60, 260, 120)), Arrangement.CANARD),
        ((WING, plate(Role.TAIL, 0, 200, 100)), Arrangement.CANARD),
        ((WING, plate(Role.WING, 180, 500, 150, 150, "upper"), TAIL), Arrangement.TAILED),
        ((WING, plate(Role.WING, 600, 500, 150, 0, "rear")), Arrangement.TANDEM),
        ((TAIL,), None),
    ],
)
def test_how_it_is_laid_out(surfaces, laid):
    assert arrangement(surfaces) is laid


def test_every_school_in_millimetres_from_the_nose():
    by = told(WING, TAIL, mark=PlanMark(250.0, 4.0))
    assert (by[SchoolKind.CHORD].low_mm, by[SchoolKind.CHORD].high_mm) == pytest.approx(
        (200 + 0.25 * 190, 200 + 0.33 * 190)
    )
    assert (by[SchoolKind.STEADY].low_mm, by[SchoolKind.STEADY].high_mm) == pytest.approx(
        (300 - 0.18 * 190, 300 - 0.10 * 190)
    )
    assert (by[SchoolKind.LIVELY].low_mm, by[SchoolKind.LIVELY].high_mm) == pytest.approx(
        (300 - 0.10 * 190, 300 - 0.04 * 190)
    )
    assert (by[SchoolKind.MARK].low_mm, by[SchoolKind.MARK].high_mm) == (246.0, 254.0)
    hang = by[SchoolKind.HANG]
    assert hang.low_mm == pytest.approx(250 - 40 * tan(radians(5)))
    assert hang.high_mm == pytest.approx(250 - 40 * tan(radians(2)))
    assert (hang.least, hang.most, hang.held_mm, hang.above_mm) == (2.0, 5.0, 250.0, 40.0)


def test_a_flying_wing_wants_its_own_figures():
    by = told(WING)
    assert by[SchoolKind.CHORD].high_mm == pytest.approx(200 + 0.20 * 190)
    assert by[SchoolKind.STEADY].low_mm == pytest.approx(300 - 0.10 * 190)
    assert SchoolKind.LIVELY not in by


def test_a_canard_has_no_chord_rule_and_says_why():
    by = told(plate(Role.WING, 560, 575, 185), plate(Role.CANARD, 60, 260, 120))
    assert by[SchoolKind.CHORD].low_mm is None
    assert by[SchoolKind.CHORD].basis is Basis.NO_RULE_FOR_CANARD
    assert by[SchoolKind.STEADY].low_mm is not None


def test_the_chord_rule_warns_on_a_plain_sheet():
    by = told(plate(Role.WING, 0, 140, 200), TAIL)
    assert by[SchoolKind.CHORD].unsafe
    assert by[SchoolKind.CHORD].basis is Basis.TAILED
    assert not told(WING, TAIL)[SchoolKind.CHORD].unsafe


def test_two_slender_wings_are_no_short_one():
    """Each 800 mm on 180: 4.4, the two together 2.2."""
    lower = plate(Role.WING, 200, 400, 180)
    upper = plate(Role.WING, 170, 400, 180, 180, id="upper")
    assert wing_figures((lower, upper)).aspect_ratio < 2.5
    assert not told(lower, upper, TAIL)[SchoolKind.CHORD].unsafe


def test_held_below_the_cg_it_tips_over():
    by = told(WING, TAIL, cg=CentreOfGravity(255.0, 0, 75.0, 2, 1, 2))
    assert by[SchoolKind.HANG].low_mm is None
    assert by[SchoolKind.HANG].basis is Basis.CG_ABOVE_WING


def test_two_that_do_not_overlap_are_told_with_the_forward_one_first():
    by = told(WING, TAIL, neutral=NeutralPoint(320.0, 4.5, 20.52))
    found = quarrels(tuple(by.values()))
    chord = next(q for q in found if q.other is SchoolKind.STEADY and q.safer is SchoolKind.CHORD)
    assert chord.apart_mm == pytest.approx(320 - 0.18 * 190 - (200 + 0.33 * 190))
    assert not any({q.safer, q.other} == {SchoolKind.STEADY, SchoolKind.LIVELY} for q in found)


def test_nothing_is_told_before_a_wing_is_drawn():
    assert assess(Build("b", "B")).beam.schools == ()
    assert assess(Build("b", "B", surfaces=(TAIL,))).beam.arrangement is None


def test_without_any_height_a_hang_angle_claims_nothing():
    wing = plate(Role.WING, 200, 540, 190)
    build = Build("b", "B", surfaces=(wing, TAIL))
    figures = wing_figures(build.surfaces)
    flat = CentreOfGravity(255.0, 0, 0.0, 2, 1, 2)
    by = {each.kind: each for each in schools(build, figures, NeutralPoint(300, 4, 20), flat)}
    hang = by[SchoolKind.HANG]
    assert (hang.low_mm, hang.high_mm) == (None, None)
    assert hang.basis is Basis.NO_HEIGHTS
