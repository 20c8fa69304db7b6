"""What the plane is steered by: its controls anew, and a surface's incidence by its shim."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from oaken_scale.core.field.controls import (
    control_told,
    shim_incidence_deg,
    surface_faults,
    travel_faults,
    travel_mm,
)
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.field import Control


@dataclass(frozen=True, slots=True)
class Turned:
    """A control's travels where they were measured as angles [degrees]; None where in mm."""

    up_deg: float | None = None
    down_deg: float | None = None


AS_MEASURED = Turned()
"""Travels that were measured in mm."""


def with_controls(
    build: Build, controls: Sequence[Control], turned: Sequence[Turned] | None = None
) -> Build:
    """The build with all its controls anew; travels in degrees are kept as mm of the trailing edge,
    at the control's own chord.

    Raises BuildFaultError for a control of no surface, or one that turns too far.

    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> from oaken_scale.core.model.field import ControlKind
    >>> ends = (Section(700, 0, 0, 120), Section(700, 200, 0, 120))
    >>> build = Build("b", "B", surfaces=(Surface("tail", "Tail", Role.TAIL, ends),))
    >>> elevator = Control("e", "Elevator", ControlKind.ELEVATOR, "tail", chord_share=0.25)
    >>> with_controls(build, [elevator], [Turned(up_deg=15.0)]).field.controls[0].up_mm
    7.76
    """
    lost = tuple(surface_faults(build, build.field.controls, controls))
    if lost:
        raise BuildFaultError(lost)
    after = validated(replace(build, field=replace(build.field, controls=tuple(controls))))
    angles = turned or [AS_MEASURED] * len(controls)
    measured = tuple(_in_mm(after, *each) for each in zip(controls, angles, strict=True))
    found = tuple(travel_faults(after, measured))
    if found:
        raise BuildFaultError(found)
    return replace(after, field=replace(after.field, controls=measured))


def _in_mm(build: Build, control: Control, turned: Turned) -> Control:
    if turned == AS_MEASURED:
        return control
    chord = control_told(build, control).chord_mm
    up, down = turned.up_deg, turned.down_deg
    return replace(
        control,
        up_mm=control.up_mm if up is None else round(travel_mm(up, chord), 2),
        down_mm=control.down_mm if down is None else round(travel_mm(down, chord), 2),
    )


def shimmed(build: Build, surface_id: str, shim_mm: float) -> Build:
    """The build with a surface set at the incidence that a shim [mm] under its leading edge, at the
    root, gives it; below 0 the shim is under its trailing edge.

    Raises BuildFaultError where no such surface is drawn, or for a shim over a quarter of its
    chord.

    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> wing = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))
    >>> shimmed(Build("b", "B", surfaces=(wing,)), "w", 7.0).surfaces[0].incidence_deg
    2.01
    """
    surface = next((each for each in build.surfaces if each.id == surface_id), None)
    if surface is None:
        raise BuildFaultError([Fault("surface", f'no surface "{surface_id}" is drawn')])
    chord = surface.sections[0].chord_mm
    if abs(shim_mm) > chord / 4:
        words = "is {} under a chord of {}; it is a quarter at most"
        raise BuildFaultError([Fault("shim_mm", words, (mm(shim_mm), mm(chord)))])
    tilted = replace(surface, incidence_deg=round(shim_incidence_deg(shim_mm, chord), 2))
    surfaces = tuple(tilted if each.id == surface_id else each for each in build.surfaces)
    return replace(build, surfaces=surfaces)
