"""What is wrong with surfaces and bodies as they are drawn."""

from collections.abc import Iterator
from itertools import pairwise

from oaken_scale.core.model import limits
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.body import Body
from oaken_scale.core.model.faults.fault import Fault
from oaken_scale.core.model.surface import Role, Surface


def body_faults(k: int, body: Body) -> Iterator[Fault]:
    """A body needs two frames, each aft of the last.

    >>> from oaken_scale.core.model.body import BodyShape, Frame
    >>> frames = (Frame(200, 0, 60, 80), Frame(0, 0, 60, 80))
    >>> next(body_faults(0, Body("b", "Body", BodyShape.BOX, frames))).words
    '0 mm is not aft of the frame before it, 200 mm'
    """
    path = f"bodies.{k}.frames"
    if len(body.frames) < 2:
        yield Fault(path, "a body needs at least two frames, the front one first")
    for j, (ahead, behind) in enumerate(pairwise(body.frames), start=1):
        if behind.x_mm <= ahead.x_mm:
            facts = (mm(behind.x_mm), mm(ahead.x_mm))
            words = "{} is not aft of the frame before it, {}"
            yield Fault(f"{path}.{j}.x_mm", words, facts)


def surface_faults(k: int, surface: Surface) -> Iterator[Fault]:
    """A surface needs two sections, each farther out than the last, and some area.

    >>> from oaken_scale.core.model.surface import Section
    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 0, 0, 190)))
    >>> next(surface_faults(0, wing)).words
    '0 mm is not farther out than the section before it (0 mm)'
    """
    path = f"surfaces.{k}.sections"
    if len(surface.sections) < 2:
        yield Fault(path, "a surface needs at least two sections, root first")
    axis = "z_mm" if surface.role is Role.FIN else "y_mm"
    for j, (inner, outer) in enumerate(pairwise(surface.sections), start=1):
        here, there = getattr(inner, axis), getattr(outer, axis)
        if there <= here:
            words = "{} is not farther out than the section before it ({})"
            yield Fault(f"{path}.{j}.{axis}", words, (mm(there), mm(here)))
    if surface.role is not Role.FIN and surface.sections and surface.sections[0].y_mm < 0:
        yield Fault(f"{path}.0.y_mm", "draw the starboard half: y from 0 outward")
    if not any(section.chord_mm > 0 for section in surface.sections):
        words = "at least one section needs a chord above {}"
        yield Fault(f"{path}.0.chord_mm", words, (mm(0),))
    elif _half_area_mm2(surface, axis) < limits.LEAST_AREA_MM2:
        yield Fault(f"{path}.0.chord_mm", "comes to no area; give it a chord and a span")


def _half_area_mm2(surface: Surface, axis: str) -> float:
    area = 0.0
    for inner, outer in pairwise(surface.sections):
        step = abs(getattr(outer, axis) - getattr(inner, axis))
        area += step * (inner.chord_mm + outer.chord_mm) / 2
    return area
