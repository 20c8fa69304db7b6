"""Controls on the drawing: area, travel, and which way they must go."""

import math
from datetime import UTC, datetime

import pytest

from oaken_scale.core.field.controls import (
    control_told,
    drawn_controls,
    incidence_difference_deg,
    motions,
    shim_incidence_deg,
    surface_faults,
    travel_deg,
    travel_faults,
    travel_mm,
)
from oaken_scale.core.field.ready import BenchSays, ready_list
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.field import Control, ControlKind, FieldLog
from oaken_scale.core.model.surface import Role, Section, Surface

MORNING = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
WING = Surface("wing", "Wing", Role.WING, (Section(0, 0, 0, 200), Section(40, 500, 0, 100)))
TAIL = Surface("tail", "Tail", Role.TAIL, (Section(600, 0, 0, 100), Section(600, 200, 0, 100)))
FIN = Surface("fin", "Fin", Role.FIN, (Section(600, 0, 0, 120), Section(640, 0, 150, 80)))
PLANE = Build("b", "B", surfaces=(WING, TAIL, FIN))


def with_controls(*controls: Control) -> Build:
    return Build("b", "B", surfaces=(WING, TAIL, FIN), field=FieldLog(controls=controls))


def test_an_aileron_by_hand():
    """The outer half of a wing that tapers from 200 to 100: chords 150 and 100, a quarter."""
    aileron = Control("a", "Aileron", ControlKind.AILERON, "wing", 0.5, 1.0, 0.25, 10, 8)
    told = control_told(PLANE, aileron)
    assert told.chord_mm == pytest.approx((37.5 + 25) / 2)
    assert told.area_dm2 == pytest.approx(2 * 250 * 31.25 / 1e4)
    right, left = told.corners
    assert right[0] == (pytest.approx(20 + 150 - 37.5), 250)
    assert left[2] == (pytest.approx(140), -500)
    assert told.up_deg == pytest.approx(math.degrees(math.asin(10 / 31.25)))


def test_a_rudder_has_one_half_and_an_elevator_two():
    rudder = control_told(PLANE, Control("r", "Rudder", ControlKind.RUDDER, "fin", 0, 1, 0.4))
    assert len(rudder.corners) == 1
    assert rudder.area_dm2 == pytest.approx(150 * 40 / 1e4)
    elevator = control_told(PLANE, Control("e", "E", ControlKind.ELEVATOR, "tail", 0, 1, 0.3))
    assert elevator.area_dm2 == pytest.approx(400 * 30 / 1e4)


@pytest.mark.parametrize("kind", ControlKind)
def test_a_share_of_the_chord_is_usual_to_both_ends_of_the_range(kind):
    surface = "fin" if kind is ControlKind.RUDDER else "wing"
    told = control_told(PLANE, Control("c", "C", kind, surface))
    for share, usual in (
        (told.usual_low, True),
        (told.usual_high, True),
        (told.usual_low - 1e-9, False),
        (told.usual_high + 1e-9, False),
    ):
        control = Control("c", "C", kind, surface, chord_share=share)
        assert control_told(PLANE, control).is_usual is usual


def test_degrees_and_mm_are_one_travel():
    for degrees in (0, 5, 20, 45):
        assert travel_deg(travel_mm(degrees, 37), 37) == pytest.approx(degrees)
    with pytest.raises(ValueError, match="more than the 30 mm"):
        travel_deg(31, 30)


@pytest.mark.parametrize(
    ("kind", "role", "goes"),
    [
        (ControlKind.ELEVATOR, Role.TAIL, [("back", "up")]),
        (ControlKind.ELEVATOR, Role.CANARD, [("back", "down")]),
        (ControlKind.AILERON, Role.WING, [("right", "right_up")]),
        (ControlKind.ELEVON, Role.WING, [("back", "up"), ("right", "right_up")]),
        (ControlKind.RUDDER, Role.FIN, [("rudder_right", "right")]),
        (ControlKind.RUDDERVATOR, Role.TAIL, [("back", "up"), ("rudder_right", "right_down")]),
        (ControlKind.FLAP, Role.WING, [("flap", "down")]),
        (ControlKind.TAB, Role.FIN, []),
    ],
)
def test_which_way_each_must_go(kind, role, goes):
    found = motions(Control("c", "C", kind, "s"), role)
    assert [(each.stick.value, each.goes.value) for each in found] == goes


def test_a_rudder_mixed_with_the_ailerons_goes_with_both_sticks():
    mixed = Control("r", "Rudder", ControlKind.RUDDER, "fin", with_aileron=True)
    assert [each.stick.value for each in motions(mixed, Role.FIN)] == ["rudder_right", "right"]


def test_a_travel_that_no_such_control_makes_is_refused_in_words():
    far = Control("e", "Elevator", ControlKind.ELEVATOR, "tail", 0, 1, 0.3, 40, 10)
    (fault,) = travel_faults(PLANE, (far,))
    assert fault.field == "controls.0.up_mm"
    assert "30 mm deep goes 21.21 mm at most" in fault.words


def test_a_control_begins_before_it_ends():
    turned = faults(with_controls(Control("c", "C", ControlKind.FLAP, "wing", 0.8, 0.2)))
    assert [each.field for each in turned] == ["field.controls.0.from_share"]


def test_a_control_waits_for_its_surface_and_no_new_one_goes_on_what_is_not_drawn():
    """A surface that is taken off, or another layout, does not take the controls with it."""
    flap, lost = (Control(id, "C", ControlKind.FLAP, id) for id in ("wing", "gone"))
    build = with_controls(flap, lost)
    assert faults(build) == ()
    assert drawn_controls(build) == (flap,)
    assert list(surface_faults(build, (flap, lost), (lost,))) == []
    (fault,) = surface_faults(build, (flap,), (flap, lost))
    assert fault.field == "controls.1.surface"
    assert "there is fin, tail, wing" in fault.words
    lines = [each.id for each in ready_list(build, None, BenchSays(), MORNING).lines]
    assert "control-wing" in lines
    assert "control-gone" not in lines


def test_incidence_by_shims():
    assert shim_incidence_deg(3, 120) == pytest.approx(1.432, abs=1e-3)
    tilted = Surface("wing", "Wing", Role.WING, WING.sections, incidence_deg=2.5)
    low = Surface("tail", "Tail", Role.TAIL, TAIL.sections, incidence_deg=-0.5)
    assert incidence_difference_deg(Build("b", "B", surfaces=(tilted, low))) == 3.0


def test_a_control_on_what_is_not_drawn_any_more_is_no_fault_of_its_travel():
    gone = Control("a", "Aileron", ControlKind.AILERON, "canard", 0.0, 1.0, 0.25, up_mm=500.0)
    assert list(travel_faults(PLANE, [gone])) == []
    with pytest.raises(BuildFaultError, match='no surface "canard" is drawn'):
        control_told(PLANE, gone)


@pytest.mark.parametrize("name", ["up_mm", "down_mm"])
def test_each_way_a_control_goes_no_farther_than_its_depth_lets_it(name):
    """A quarter of 100 at 45 degrees is 25 sin 45."""
    most = 25 * math.sin(math.radians(45))
    for travel, faulty in ((most - 0.01, False), (most + 0.01, True)):
        elevator = Control("e", "E", ControlKind.ELEVATOR, "tail", 0.0, 1.0, 0.25, **{name: travel})
        found = [each.field for each in travel_faults(PLANE, [elevator])]
        assert found == ([f"controls.0.{name}"] if faulty else [])
        told = control_told(PLANE, elevator)
        assert getattr(told, name.replace("mm", "deg")) == pytest.approx(45.0, abs=0.05)


def test_a_control_lies_over_a_step_in_the_drawing():
    """Out to 250 the wing is 200 deep, from there on 100: what begins on the step takes the depth
    of the part that it lies on, and ends at the tip."""
    stepped = Surface(
        "step",
        "Step",
        Role.WING,
        (
            Section(0, 0, 0, 200),
            Section(0, 250, 0, 200),
            Section(100, 250.1, 0, 100),
            Section(100, 500, 0, 100),
        ),
    )
    build = Build("b", "B", surfaces=(stepped,))
    told = control_told(build, Control("a", "A", ControlKind.AILERON, "step", 0.6, 1.0, 0.5))
    assert told.area_dm2 == pytest.approx(2 * 200 * 50 / 1e4)
    whole = control_told(build, Control("a", "A", ControlKind.AILERON, "step", 0.0, 0.5, 0.5))
    assert whole.area_dm2 == pytest.approx(2 * 250 * 100 / 1e4)
