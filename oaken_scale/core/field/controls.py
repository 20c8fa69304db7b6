"""Control surfaces and tabs as they lie on the drawing: corners, area, travel, direction."""

import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.geometry.wing import spanwise
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.field import Control, ControlKind
from oaken_scale.core.model.surface import Role, Surface

USUAL_SHARE: Final = {
    ControlKind.ELEVATOR: (0.25, 0.40),
    ControlKind.AILERON: (0.20, 0.30),
    ControlKind.ELEVON: (0.15, 0.25),
    ControlKind.RUDDER: (0.30, 0.50),
    ControlKind.RUDDERVATOR: (0.25, 0.40),
    ControlKind.FLAP: (0.20, 0.30),
    ControlKind.TAB: (0.05, 0.20),
}
"""Which shares of the chord are usual. Rules of thumb: docs/methods.md, "Controls"."""

MOST_DEG: Final = 45.0
"""A control that travels further is rather a slip of the pen [degrees]."""


class Stick(StrEnum):
    """What the pilot does."""

    BACK = "back"
    RIGHT = "right"
    RUDDER_RIGHT = "rudder_right"
    FLAP = "flap"


class Goes(StrEnum):
    """Which way a trailing edge goes then. For halves: the right one and the left one."""

    UP = "up"
    DOWN = "down"
    RIGHT = "right"
    RIGHT_UP = "right_up"
    RIGHT_DOWN = "right_down"


@dataclass(frozen=True, slots=True)
class Motion:
    """What a control must do when the stick is moved."""

    stick: Stick
    goes: Goes


@dataclass(frozen=True, slots=True)
class ControlTold:
    """A control as drawn: each half's corners from above (of a fin: from the side) [mm], area of
    all its halves [dm2], its mean chord [mm], its travel up and down (or right and left) [degrees],
    how the horn reduces the arm's way, the usual shares of the chord and whether its own is one
    of them, and what it must do."""

    id: str
    corners: tuple[tuple[tuple[float, float], ...], ...]
    area_dm2: float
    chord_mm: float
    up_deg: float | None
    down_deg: float | None
    ratio: float | None
    usual_low: float
    usual_high: float
    is_usual: bool
    motions: tuple[Motion, ...]


def travel_deg(travel_mm: float, chord_mm: float) -> float:
    """How many degrees a trailing edge that moves so far has turned [degrees].

    ``asin(mm / chord)``: the trailing edge's height above where it was, hinge to edge the chord.
    Raises ValueError for a travel that no such chord can make.

    >>> round(travel_deg(12, 40), 2)
    17.46
    """
    if abs(travel_mm) >= chord_mm:
        raise ValueError(f"{travel_mm:g} mm is more than the {chord_mm:.0f} mm of the control")
    return math.degrees(math.asin(travel_mm / chord_mm))


def travel_mm(degrees: float, chord_mm: float) -> float:
    """How far a trailing edge moves when its control turns by so many degrees [mm].

    >>> round(travel_mm(17.46, 40), 2)
    12.0
    """
    return chord_mm * math.sin(math.radians(degrees))


def shim_incidence_deg(shim_mm: float, chord_mm: float) -> float:
    """The incidence that a shim under the leading edge gives a surface of such a chord [degrees].

    >>> round(shim_incidence_deg(3, 120), 2)
    1.43
    """
    return math.degrees(math.asin(max(-1.0, min(1.0, shim_mm / chord_mm))))


def incidence_difference_deg(build: Build) -> float | None:
    """The first wing's incidence less the tail's [degrees]; None without both.

    >>> incidence_difference_deg(Build("b", "B")) is None
    True
    """
    wing = next((each for each in build.surfaces if each.role is Role.WING), None)
    tail = next((each for each in build.surfaces if each.role in (Role.TAIL, Role.CANARD)), None)
    return None if wing is None or tail is None else wing.incidence_deg - tail.incidence_deg


def drawn_controls(build: Build) -> tuple[Control, ...]:
    """The controls whose surface is drawn.

    >>> drawn_controls(Build("b", "B"))
    ()
    """
    drawn = {surface.id for surface in build.surfaces}
    return tuple(each for each in build.field.controls if each.surface in drawn)


def surface_faults(
    build: Build, before: Iterable[Control], after: Iterable[Control]
) -> Iterator[Fault]:
    """Controls put on surfaces that are not drawn; one that lay there before may wait for it.

    >>> build = Build("b", "B")
    >>> flap = Control("f", "Flap", ControlKind.FLAP, "gone")
    >>> [fault.field for fault in surface_faults(build, (), [flap])]
    ['controls.0.surface']
    """
    drawn = {surface.id for surface in build.surfaces}
    waiting = {(each.id, each.surface) for each in before}
    for k, control in enumerate(after):
        if control.surface not in drawn and (control.id, control.surface) not in waiting:
            names = ", ".join(sorted(drawn)) or "none"
            words = f'no surface "{control.surface}" is drawn; there is {names}'
            yield Fault(f"controls.{k}.surface", words)


def control_told(build: Build, control: Control) -> ControlTold:
    """A control as the drawing has it. Raises BuildFaultError where its surface is not drawn.

    >>> from oaken_scale.core.model.surface import Role, Section
    >>> wing = Surface("w", "Wing", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 200)))
    >>> build = Build("b", "B", surfaces=(wing,))
    >>> aileron = Control("a", "Aileron", ControlKind.AILERON, "w", 0.5, 1.0, 0.25)
    >>> told = control_told(build, aileron)
    >>> round(told.chord_mm, 1)
    50.0
    """
    surface = _surface_of(build, control)
    inner, outer = (_edge(surface, share) for share in (control.from_share, control.to_share))
    chords = inner[2] * control.chord_share, outer[2] * control.chord_share
    along = abs(outer[1] - inner[1])
    corners = (
        (inner[0] + inner[2] - chords[0], inner[1]),
        (outer[0] + outer[2] - chords[1], outer[1]),
        (outer[0] + outer[2], outer[1]),
        (inner[0] + inner[2], inner[1]),
    )
    mirrored = surface.role is not Role.FIN
    halves = (corners, tuple((x, -y) for x, y in corners)) if mirrored else (corners,)
    chord = (chords[0] + chords[1]) / 2
    area = along * chord * (2 if mirrored or surface.twin else 1) / 1e4
    horn, arm = control.horn_mm, control.arm_mm
    low, high = USUAL_SHARE[control.kind]
    return ControlTold(
        id=control.id,
        corners=halves,
        area_dm2=area,
        chord_mm=chord,
        up_deg=_degrees(control.up_mm, chord),
        down_deg=_degrees(control.down_mm, chord),
        ratio=arm / horn if horn and arm else None,
        usual_low=low,
        usual_high=high,
        is_usual=low <= control.chord_share <= high,
        motions=tuple(motions(control, surface.role)),
    )


def motions(control: Control, role: Role) -> Iterator[Motion]:
    """What a control must do, seen from behind, for each way that the stick is moved.

    An elevator ahead of the wing lifts the nose with its trailing edge down.

    >>> elevator = Control("e", "Elevator", ControlKind.ELEVATOR, "canard")
    >>> [(each.stick.value, each.goes.value) for each in motions(elevator, Role.CANARD)]
    [('back', 'down')]
    """
    back = Goes.DOWN if role is Role.CANARD else Goes.UP
    kind = control.kind
    if kind in (ControlKind.ELEVATOR, ControlKind.ELEVON, ControlKind.RUDDERVATOR):
        yield Motion(Stick.BACK, back)
    if kind in (ControlKind.AILERON, ControlKind.ELEVON):
        yield Motion(Stick.RIGHT, Goes.RIGHT_UP)
    if kind is ControlKind.RUDDER:
        yield Motion(Stick.RUDDER_RIGHT, Goes.RIGHT)
        if control.with_aileron:
            yield Motion(Stick.RIGHT, Goes.RIGHT)
    if kind is ControlKind.RUDDERVATOR:
        yield Motion(Stick.RUDDER_RIGHT, Goes.RIGHT_DOWN)
    if kind is ControlKind.FLAP:
        yield Motion(Stick.FLAP, Goes.DOWN)


def travel_faults(build: Build, controls: Iterable[Control]) -> Iterator[Fault]:
    """Travels that controls of their chord cannot make, each with what would be right.

    >>> from oaken_scale.core.model.surface import Role, Section
    >>> wing = Surface("w", "Wing", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 200)))
    >>> build = Build("b", "B", surfaces=(wing,))
    >>> aileron = Control("a", "Aileron", ControlKind.AILERON, "w", 0.5, 1.0, 0.25, up_mm=45.0)
    >>> next(travel_faults(build, [aileron])).words
    'is 45 mm; a control 50 mm deep goes 35.36 mm at most'
    """
    drawn = {surface.id for surface in build.surfaces}
    for k, control in enumerate(controls):
        if control.surface not in drawn:
            continue
        chord = control_told(build, control).chord_mm
        most = travel_mm(MOST_DEG, chord)
        for name, value in (("up_mm", control.up_mm), ("down_mm", control.down_mm)):
            if value is not None and value > most:
                words = "is {}; a control {} deep goes {} at most"
                yield Fault(f"controls.{k}.{name}", words, (mm(value), mm(chord), mm(most)))


def _degrees(travel: float | None, chord: float) -> float | None:
    return None if travel is None or travel >= chord else travel_deg(travel, chord)


def _surface_of(build: Build, control: Control) -> Surface:
    found = next((each for each in build.surfaces if each.id == control.surface), None)
    if found is None:
        raise BuildFaultError([Fault("surface", f'no surface "{control.surface}" is drawn')])
    return found


def _edge(surface: Surface, share: float) -> tuple[float, float, float]:
    """Leading edge x, distance along the span and chord at a share of the half span [mm]."""
    along = [spanwise(surface, each) for each in surface.sections]
    at = along[0] + share * (along[-1] - along[0])
    for (low, inner), (high, outer) in zip(
        zip(along[:-1], surface.sections[:-1], strict=True),
        zip(along[1:], surface.sections[1:], strict=True),
        strict=True,
    ):
        if min(low, high) - 1e-9 <= at <= max(low, high) + 1e-9:
            part = 0.0 if high == low else (at - low) / (high - low)
            x = inner.x_le_mm + part * (outer.x_le_mm - inner.x_le_mm)
            return x, at, inner.chord_mm + part * (outer.chord_mm - inner.chord_mm)
    last = surface.sections[-1]
    return last.x_le_mm, along[-1], last.chord_mm
