"""Parts on and off the list, joints on and off the clock, controls anew: what else changes."""

import math
from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.changes.controls import AS_MEASURED, Turned, shimmed, with_controls
from oaken_scale.core.changes.joints import spread, with_joint
from oaken_scale.core.changes.parts import (
    BoundBy,
    bound_by,
    with_part,
    with_part_changed,
    without,
)
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind, Stood
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.field import Control, ControlKind
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.power import Motor, Pack, Power
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.weighing import Load, Pan, Weighing

AT = datetime(2026, 3, 7, 12, tzinfo=UTC)
LATER = datetime(2026, 3, 8, 12, tzinfo=UTC)


def part(id: str, **more) -> Part:
    return Part(id, id.title(), Pedigree.LISTING, stated_g=50.0, **more)


PACK = Pack("s3", "3 cells", 3, 1300, part="pack")
PLANE = Build(
    "b",
    "B",
    parts=(part("box"), part("pack", option=True), part("camera", option=True)),
    loadouts=(Loadout("bare", "Bare", ("pack",)), Loadout("film", "Film", ("pack", "camera"))),
    power=Power(Motor(1400, 60, 0.06, 1.2), packs=(PACK,)),
)


def carries(build: Build) -> list[tuple[str, ...]]:
    return [each.carries for each in build.loadouts]


def test_a_part_comes_last_on_the_list():
    told = with_part(PLANE, part("hook"))
    assert [each.id for each in told.parts] == ["box", "pack", "camera", "hook"]


def test_an_option_that_is_none_any_more_is_carried_by_nobody():
    told = with_part_changed(PLANE, part("camera"), AT)
    assert carries(told) == [("pack",), ("pack",)]
    assert told.parts[2].option is False
    heavier = replace(PLANE.parts[2], stated_g=61.0)
    assert carries(with_part_changed(PLANE, heavier, AT)) == carries(PLANE)


def test_a_part_retires_when_it_does_and_once():
    told = with_part_changed(PLANE, replace(PLANE.parts[0], retired=True), AT)
    assert told.parts[0].retired_at == AT
    again = with_part_changed(told, replace(told.parts[0], name="Old box"), LATER)
    assert (again.parts[0].name, again.parts[0].retired_at) == ("Old box", AT)
    back = with_part_changed(again, replace(again.parts[0], retired=False), LATER)
    assert back.parts[0].retired_at is None


def test_what_leaves_the_list_leaves_its_loadouts_and_the_drive():
    told = without(PLANE, "pack")
    assert [each.id for each in told.parts] == ["box", "camera"]
    assert carries(told) == [(), ("camera",)]
    assert told.power.packs == (replace(PACK, part=None),)
    assert without(PLANE, "box").power == PLANE.power


def test_what_was_weighed_or_balanced_is_bound():
    check = BalanceCheck("c", AT, CheckKind.SUPPORT, None, 48.0, stood=(Stood("box", 10.0),))
    log = (Weighing("w", AT, "s", 90.0, Pan((Load("box"), Load("pack")))),)
    both = replace(PLANE, checks=(check,), weighings=log)
    assert [bound_by(both, each.id) for each in both.parts] == [
        BoundBy.BALANCED,
        BoundBy.WEIGHED,
        None,
    ]
    aside = replace(both, checks=(), weighings=(replace(log[0], set_aside="tray"),))
    assert bound_by(aside, "box") is BoundBy.WEIGHED  # the log is never rewritten


GLUE = Lot("glue", "Glue", LotUnit.M, 2.4, 0.6, kind=LotKind.ADHESIVE)
FIN = Joint("j", "Fin", "hot-glue", AT, 0, 40, 60, 600, parts=("fin", "tail"))
TAIL = Build(
    "b",
    "B",
    lots=(GLUE,),
    parts=(part("fin", station=Station(740.0)), part("tail", station=Station(760.0))),
)


def test_a_joint_without_a_bead_is_a_clock_and_no_part():
    told = spread(TAIL, FIN)
    assert (told.joints, told.parts) == ((FIN,), TAIL.parts)


def test_the_glue_of_a_joint_is_a_part_between_what_it_joins_and_goes_with_it():
    told = spread(spread(TAIL, replace(FIN, id="before")), FIN, ("glue", 0.5))
    glue = told.parts[-1]
    assert (glue.id, glue.pedigree, glue.station.x_mm) == ("fin-2", Pedigree.JOINT, 750.0)
    assert [(use.lot, use.amount) for use in glue.uses] == [("glue", 0.5)]
    assert told.joints[1].parts == ("fin", "tail", "fin-2")
    with pytest.raises(BuildFaultError):
        spread(TAIL, FIN, ("tape", 0.5))


def test_one_joint_changes_and_the_others_stay():
    two = replace(TAIL, joints=(FIN, replace(FIN, id="k")))
    told = with_joint(two, "k", lambda joint: replace(joint, cleared=True))
    assert [each.cleared for each in told.joints] == [False, True]


STABILISER = Surface("tail", "Tail", Role.TAIL, (Section(700, 0, 0, 120), Section(700, 200, 0, 80)))
DRAWN = Build("b", "B", surfaces=(STABILISER,))
ELEVATOR = Control("e", "Elevator", ControlKind.ELEVATOR, "tail", up_mm=9.0, down_mm=6.0)


def test_travel_is_kept_in_mm_at_the_chord_of_the_control():
    mean = 0.25 * (120 + 80) / 2  # a quarter of the mean chord
    both = [ELEVATOR, replace(ELEVATOR, id="f")]
    told = with_controls(DRAWN, both, [Turned(20.0), Turned(None, 14.0)])
    up, down = told.field.controls
    assert up.up_mm == pytest.approx(mean * math.sin(math.radians(20)), abs=0.06)
    assert up.down_mm == 6.0
    assert down.down_mm == pytest.approx(mean * math.sin(math.radians(14)), abs=0.06)
    assert down.up_mm == 9.0


def test_travel_in_mm_is_kept_as_it_is():
    assert with_controls(DRAWN, [ELEVATOR]).field.controls == (ELEVATOR,)
    assert with_controls(DRAWN, [ELEVATOR], [AS_MEASURED]).field.controls == (ELEVATOR,)


@pytest.mark.parametrize(
    "control",
    [replace(ELEVATOR, surface="canard"), replace(ELEVATOR, up_mm=26.0)],
    ids=["of no surface", "farther than its chord"],
)
def test_a_control_that_cannot_be_is_refused(control):
    with pytest.raises(BuildFaultError):
        with_controls(DRAWN, [control])


@pytest.mark.parametrize("shim", [3.0, -3.0, 30.0, 0.0])
def test_a_shim_tilts_its_surface_and_no_other(shim):
    other = replace(STABILISER, id="canard", incidence_deg=1.5)
    told = shimmed(replace(DRAWN, surfaces=(other, STABILISER)), "tail", shim)
    assert told.surfaces[0] == other
    assert told.surfaces[1].incidence_deg == pytest.approx(
        math.degrees(math.asin(shim / 120)), abs=0.006
    )


@pytest.mark.parametrize(
    ("surface", "shim", "field"), [("fin", 3.0, "surface"), ("tail", -30.1, "shim_mm")]
)
def test_a_shim_that_cannot_be_names_its_field(surface, shim, field):
    with pytest.raises(BuildFaultError) as caught:
        shimmed(DRAWN, surface, shim)
    assert [each.field for each in caught.value.faults] == [field]
