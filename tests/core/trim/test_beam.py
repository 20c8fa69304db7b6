"""What the beam tells of a loadout: which way it tips, whether it may fly, what throttle does."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.trim.beam import Flies, Heavy, Outside


def thing(id: str, grams: float, x: float, y: float = 0.0, z: float = 0.0, **more) -> Part:
    return Part(
        id,
        id.title(),
        Pedigree.LISTING,
        stated_g=grams,
        doubt_g=0.1,
        station=Station(x, y, z, doubt_mm=0.2),
        **more,
    )


WING = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))
TAIL = Surface("tail", "Tail", Role.TAIL, (Section(700, 0, 0, 110), Section(700, 210, 0, 110)))
BAND = Target(TargetKind.BALANCE, 240.0, 260.0, "", BalanceUnit.MM_FROM_NOSE)


def plane(*parts: Part, **more) -> Build:
    return Build("b", "B", parts=parts, surfaces=(WING,), targets=(BAND,), **more)


def told(build: Build, k: int = 0):
    return assess(build).beam.loadouts[k]


@pytest.mark.parametrize(
    ("x", "heavy", "off", "flies"),
    [
        (250.0, Heavy.NEITHER, 0.0, Flies.YES),
        (275.0, Heavy.TAIL, 15.0, Flies.NO),
        (230.0, Heavy.NOSE, -10.0, Flies.NO),
        (260.0, Heavy.NEITHER, 0.0, Flies.UNSURE),
    ],
)
def test_which_way_it_tips_and_how_far(x, heavy, off, flies):
    of = told(replace(plane(thing("all", 300, x)), surfaces=(WING, TAIL)))
    assert of.heavy is heavy
    assert of.off_mm == pytest.approx(off, abs=1e-6)
    assert of.flies is flies
    assert of.why == (() if flies is Flies.YES else (TargetKind.BALANCE,))


@pytest.mark.parametrize(
    ("x", "targets", "flies"),
    [
        # Nobody said where it is to balance: a wing alone is neutral at about a quarter, 245.3.
        (290.0, (), Flies.NO),
        (246.0, (), Flies.UNSURE),
        (230.0, (), Flies.UNSURE),
        (230.0, (Target(TargetKind.AUW, high=500.0),), Flies.UNSURE),
        # Its range lets it balance behind that: the range is wrong, or the tail is not drawn.
        (250.0, (BAND,), Flies.UNSURE),
        (243.0, (BAND,), Flies.YES),
        # What is over its limit is told alone.
        (250.0, (BAND, Target(TargetKind.AUW, high=200.0)), Flies.NO),
    ],
)
def test_what_nobody_knows_to_balance_may_not_fly_for_that(x, targets, flies):
    of = told(replace(plane(thing("all", 300, x)), targets=targets))
    assert of.flies is flies
    over = any(each.high == 200.0 for each in targets)
    why = (TargetKind.AUW,) if over else (TargetKind.BALANCE,)
    assert of.why == (() if flies is Flies.YES else why)


def test_the_margin_is_to_the_neutral_point():
    build = plane(thing("all", 300, 240))
    beam = assess(build).beam
    assert beam.loadouts[0].margin == pytest.approx((beam.neutral.x_mm - 240) / 190)
    assert beam.band_mm == pytest.approx(0.03 * 190)
    assert beam.loadouts[0].margin_sd >= 0.015


@pytest.mark.parametrize(("line_z", "moment"), [(40.0, 20.0), (-40.0, -20.0), (3.0, 0.0)])
def test_throttle_pitches_by_the_thrust_lines_height(line_z, moment):
    of = told(plane(thing("all", 300, 250), thrust=Thrust(500.0, line_z_mm=line_z)))
    assert of.throttle_gm == pytest.approx(moment)
    assert of.thrust_arm_mm == pytest.approx(line_z)


def test_a_lower_pack_lowers_the_cg_by_its_share():
    pack = thing("Pack, 3-cell", 100, 250)
    build = plane(thing("all", 300, 250), pack, thrust=Thrust(500.0, line_z_mm=3.0))
    of = told(build)
    assert of.lowered_arm_mm == pytest.approx(of.thrust_arm_mm + 10 * 100 / 400)
    assert of.throttle_gm == 0.0
    assert of.lowered_throttle_gm == pytest.approx(of.lowered_arm_mm * 0.5)
    # What has no place yet goes along.
    sand = replace(thing("sand", 100, 0.0), station=None)
    loose = told(replace(build, parts=(*build.parts, sand)))
    assert loose.lowered_arm_mm == pytest.approx(of.lowered_arm_mm)
    without = told(plane(thing("all", 300, 250), thrust=Thrust(500.0, line_z_mm=3.0)))
    assert (without.lowered_arm_mm, without.lowered_throttle_gm) == (None, None)


@pytest.mark.parametrize(("line_y", "swings"), [(12.0, "left"), (-12.0, "right"), (5.0, None)])
def test_throttle_swings_by_the_thrust_lines_side(line_y, swings):
    of = told(plane(thing("all", 300, 250), thrust=Thrust(500.0, line_y_mm=line_y)))
    assert of.thrust_side_mm == pytest.approx(line_y)
    assert of.swings == swings
    assert told(plane(thing("all", 300, 250), thrust=Thrust(500.0))).thrust_side_mm is None


def test_without_a_line_nothing_is_said_of_throttle():
    assert told(plane(thing("all", 300, 250), thrust=Thrust(500.0))).throttle_gm is None


def test_the_light_wing_is_named():
    parts = (thing("body", 300, 250), thing("panel", 100, 250, y=40.0))
    of = told(plane(*parts))
    assert of.sideways_mm == pytest.approx(10.0)
    assert of.light_side == "left"
    assert told(plane(thing("body", 300, 250, y=1.0))).light_side is None


def test_every_loadout_is_told_by_itself():
    parts = (thing("body", 300, 250), thing("cam", 60, 420, option=True))
    loadouts = (Loadout("with", "With", ("cam",)), Loadout("without", "Without"))
    build = plane(*parts, loadouts=loadouts)
    assert told(build, 0).heavy is Heavy.TAIL
    assert told(build, 1).heavy is Heavy.NEITHER


def test_twin_fins_are_drawn_as_two():
    sections = (Section(600, 150, 0, 80), Section(620, 150, 90, 60))
    fins = Surface("fin", "Fins", Role.FIN, sections, twin=True)
    drawn = assess(replace(plane(), surfaces=(WING, fins))).outlines
    assert [(each.id, each.is_port) for each in drawn[1:]] == [("fin", False), ("fin", True)]
    assert drawn[2].corners[0] == (600, -150)
    assert drawn[1].side[1] == (620, 90)


@pytest.mark.parametrize(("y", "line_y", "side"), [(4.0, 0.0, -4.0), (-2.0, 6.0, 8.0)])
def test_the_thrust_lines_side_and_height_are_from_the_cg(y, line_y, side):
    thrust = Thrust(500.0, line_y_mm=line_y, line_z_mm=30.0)
    of = told(plane(thing("all", 300, 250, y=y, z=12.0), thrust=thrust))
    assert of.thrust_side_mm == pytest.approx(side)
    assert of.thrust_arm_mm == pytest.approx(18.0)
    assert of.throttle_gm == pytest.approx(18.0 * 500 / 1000)


@pytest.mark.parametrize(("off", "is_told"), [(4.9, False), (5.1, True)])
@pytest.mark.parametrize("sign", [1, -1])
def test_a_line_within_five_millimetres_does_next_to_nothing(off, sign, is_told):
    thrust = Thrust(400.0, line_y_mm=sign * off, line_z_mm=sign * off)
    of = told(plane(thing("all", 300, 250), thrust=thrust))
    assert (of.swings is not None) is is_told
    assert of.throttle_gm == pytest.approx(sign * off * 0.4 if is_told else 0.0)


def test_what_pulls_to_one_side_and_what_holds_it_at_the_tip():
    """100 g 40 mm to starboard of 400 g are held within the 3 mm of what is felt by m at port:
    4000 - 540 m = 3 (400 + m)."""
    of = told(plane(thing("body", 300, 250), thing("panel", 100, 250, y=40.0)))
    assert of.pulls == "panel"
    assert of.tip_g == pytest.approx(2800 / 543, rel=1e-4)
    level = told(plane(thing("body", 300, 250)))
    assert (level.light_side, level.pulls, level.tip_g) == (None, None, None)
    port = told(plane(thing("body", 300, 250), thing("panel", 100, 250, y=-40.0)))
    assert (port.light_side, port.pulls) == ("right", "panel")
    assert port.sideways_mm == pytest.approx(-10.0)


@pytest.mark.parametrize(("y", "is_felt"), [(2.9, False), (3.2, True), (-3.2, True), (-2.9, False)])
def test_sideways_is_felt_from_three_millimetres_on(y, is_felt):
    of = told(plane(thing("all", 300, 250, y=y)))
    assert (of.light_side is not None) is is_felt


# The chord is 190 mm from 200 on, its neutral point about a quarter behind, the schools' ranges
# between 28 % or so of it and the neutral point.
@pytest.mark.parametrize(
    ("x", "outside"),
    [
        (150.0, Outside.AHEAD_OF_EDGE),
        (199.0, Outside.AHEAD_OF_EDGE),
        (205.0, Outside.EVERY_RANGE),
        (235.0, None),
        (300.0, Outside.BEHIND_NEUTRAL),
    ],
)
def test_outside_every_range_that_applies(x, outside):
    assert told(plane(thing("all", 300, x))).outside is outside


def test_a_range_that_is_a_schools_own_is_named_so():
    """The chord rule is 25 to 33 % of the chord of a conventional plane."""
    build = plane(thing("all", 300, 250))
    beam = assess(build).beam
    assert beam.chosen is None
    rule = next(each for each in beam.schools if each.low_mm is not None)
    for shift, chosen in ((0.0, rule.kind), (0.05, rule.kind), (0.2, None)):
        low, high = rule.low_mm + shift, rule.high_mm + shift
        target = replace(BAND, low=low, high=high)
        assert assess(replace(build, targets=(target,))).beam.chosen is chosen


def test_the_range_of_a_target_in_its_own_unit():
    """28 to 33 % of a chord of 190 that begins at 200; the same from the leading edge."""
    part = thing("all", 300, 250)
    for unit, low, high in (
        (BalanceUnit.PERCENT_MAC, 28.0, 33.0),
        (BalanceUnit.MM_FROM_LEADING_EDGE, 53.2, 62.7),
        (BalanceUnit.MM_FROM_NOSE, 253.2, 262.7),
    ):
        target = Target(TargetKind.BALANCE, low, high, "", unit)
        beam = assess(replace(plane(part), targets=(target,))).beam
        assert beam.low_mm == pytest.approx(253.2), unit
        assert beam.high_mm == pytest.approx(262.7), unit
        assert beam.loadouts[0].off_mm == pytest.approx(-3.2), unit


def test_one_end_of_a_range_is_enough():
    for low, high, x, heavy, off in (
        (240.0, None, 230.0, Heavy.NOSE, -10.0),
        (240.0, None, 300.0, Heavy.NEITHER, 0.0),
        (None, 260.0, 275.0, Heavy.TAIL, 15.0),
        (None, 260.0, 100.0, Heavy.NEITHER, 0.0),
    ):
        target = replace(BAND, low=low, high=high)
        of = told(replace(plane(thing("all", 300, x)), targets=(target,)))
        assert (of.heavy, of.off_mm) == (heavy, pytest.approx(off))
    nothing = told(replace(plane(thing("all", 300, 250)), targets=()))
    assert (nothing.heavy, nothing.off_mm) == (None, 0.0)


def test_the_doubt_of_the_margin_is_the_cgs_and_the_lattices():
    """One sigma: that of the CG over the chord, and half of the lattice's 3 % band."""
    build = plane(thing("all", 300, 250))
    answer = next(a for a in assess(build).loadouts[0].answers if a.kind is TargetKind.BALANCE)
    of = told(build)
    assert of.margin_sd == pytest.approx(((answer.sd / 190) ** 2 + 0.015**2) ** 0.5, rel=1e-3)
