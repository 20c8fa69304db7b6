"""What the beam tells of a loadout: which way it tips, whether it may fly, what throttle does."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.trim.beam import Flies, Heavy


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
    of = told(plane(thing("all", 300, x)))
    assert of.heavy is heavy
    assert of.off_mm == pytest.approx(off, abs=1e-6)
    assert of.flies is flies
    assert of.why == (() if flies is Flies.YES else (TargetKind.BALANCE,))


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
    assert [each.id for each in drawn] == ["wing", "fin", "fin-port"]
    assert drawn[2].corners[0] == (600, -150)
    assert drawn[1].side[1] == (620, 90)
