"""Shape calculators for parts that have no drawing, and the paper template on the scale."""

from dataclasses import dataclass
from math import cos, hypot, pi, sin
from typing import Final

from shapely.geometry import Polygon as ShapelyPolygon

from oaken_scale.core.geometry.outline import Box, Candidate, Corner
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

ROUND: Final = 96
"""Corners of an ellipse's picture; its figures are exact."""

PAPER_G_M2: Final = (80.0, 2.0)
"""Copier paper [g/m2], one sigma: weigh ten sheets of yours to know it."""


@dataclass(frozen=True, slots=True)
class Rectangle:
    """``width_mm`` to the right, ``height_mm`` down."""

    width_mm: float
    height_mm: float

    def corners(self) -> tuple[Corner, ...]:
        """Clockwise from the top left.

        >>> Rectangle(40, 20).corners()
        ((0, 0), (40, 0), (40, 20), (0, 20))
        """
        w, h = self.width_mm, self.height_mm
        return (0, 0), (w, 0), (w, h), (0, h)


@dataclass(frozen=True, slots=True)
class Trapezoid:
    """Two parallel sides ``height_mm`` apart: the lower starts ``offset_mm`` right of the upper."""

    top_mm: float
    bottom_mm: float
    height_mm: float
    offset_mm: float = 0.0

    def corners(self) -> tuple[Corner, ...]:
        """Clockwise from the top left.

        >>> Trapezoid(30, 50, 20, -10).corners()
        ((0, 0), (30, 0), (40, 20), (-10, 20))
        """
        a, b, h, o = self.top_mm, self.bottom_mm, self.height_mm, self.offset_mm
        return (0, 0), (a, 0), (o + b, h), (o, h)


@dataclass(frozen=True, slots=True)
class Triangle:
    """A base along the top; its point ``height_mm`` below, ``offset_mm`` right of the start."""

    base_mm: float
    height_mm: float
    offset_mm: float = 0.0

    def corners(self) -> tuple[Corner, ...]:
        """Clockwise from the top left.

        >>> Triangle(40, 20, 10).corners()
        ((0, 0), (40, 0), (10, 20))
        """
        return (0, 0), (self.base_mm, 0), (self.offset_mm, self.height_mm)


@dataclass(frozen=True, slots=True)
class Ellipse:
    """An ellipse, or a circle, by its width and height."""

    width_mm: float
    height_mm: float

    def corners(self) -> tuple[Corner, ...]:
        """Points around it, for its picture.

        >>> len(Ellipse(40, 20).corners()), Ellipse(40, 20).corners()[0]
        (96, (40.0, 10.0))
        """
        a, b = self.width_mm / 2, self.height_mm / 2
        turns = (2 * pi * k / ROUND for k in range(ROUND))
        return tuple((a + a * cos(t), b + b * sin(t)) for t in turns)


@dataclass(frozen=True, slots=True)
class Polygon:
    """Any corners, in order around the part; x to the right, y down [mm]."""

    points: tuple[Corner, ...]

    def corners(self) -> tuple[Corner, ...]:
        """As given.

        >>> Polygon(((0, 0), (3, 0), (0, 4))).corners()
        ((0, 0), (3, 0), (0, 4))
        """
        return self.points


Shape = Rectangle | Trapezoid | Triangle | Ellipse | Polygon


@dataclass(frozen=True, slots=True)
class CutOut:
    """A shape taken out of another, moved by ``x_mm`` and ``y_mm`` on it."""

    shape: Shape
    x_mm: float = 0.0
    y_mm: float = 0.0


def area_and_centroid(shape: Shape) -> tuple[float, float, float]:
    """Area [mm2] and centroid [mm] of a shape: the shoelace formula, and ``pi a b`` for an ellipse.

    >>> area_and_centroid(Triangle(90, 60))
    (2700.0, 30.0, 20.0)
    >>> area_and_centroid(Ellipse(20, 10))[0] == 50 * pi
    True
    """
    if isinstance(shape, Ellipse):
        return pi * shape.width_mm * shape.height_mm / 4, shape.width_mm / 2, shape.height_mm / 2
    corners = shape.corners()
    twice = mx = my = 0.0
    for (x0, y0), (x1, y1) in zip(corners, (*corners[1:], corners[0]), strict=True):
        cross = x0 * y1 - x1 * y0
        twice += cross
        mx += (x0 + x1) * cross
        my += (y0 + y1) * cross
    if twice == 0:
        return 0.0, 0.0, 0.0
    return abs(twice) / 2, mx / (3 * twice), my / (3 * twice)


def measured(name: str, shape: Shape, cut_outs: tuple[CutOut, ...] = ()) -> Candidate:
    """A part of a plain shape less its cut-outs: exact area and centroid.

    Raises BuildFaultError where corners cross, nothing is enclosed, or a cut-out leaves the part or
    overlaps another.

    >>> plate = measured("Plate", Rectangle(100, 100), (CutOut(Rectangle(50, 100), 50, 0),))
    >>> plate.area_dm2, plate.x_mm
    (0.5, 25.0)
    """
    whole = ShapelyPolygon(shape.corners())
    if not whole.is_valid or whole.area <= 0:
        words = "its sides cross or enclose nothing; give the corners in order around the part"
        raise BuildFaultError([Fault("shape", words)])
    area, x, y = area_and_centroid(shape)
    moment_x, moment_y = area * x, area * y
    rings = [shape.corners()]
    taken = ShapelyPolygon()
    slack = 0.01 * hypot(*(whole.bounds[2] - whole.bounds[0], whole.bounds[3] - whole.bounds[1]))
    for k, cut in enumerate(cut_outs):
        ring = tuple((cx + cut.x_mm, cy + cut.y_mm) for cx, cy in cut.shape.corners())
        hole = ShapelyPolygon(ring)
        if not hole.is_valid or hole.area <= 0:
            words = "its sides cross or enclose nothing"
            raise BuildFaultError([Fault(f"cut_outs.{k}", words)])
        if not whole.buffer(slack).contains(hole):
            raise BuildFaultError(
                [Fault(f"cut_outs.{k}", "reaches out of the part; move it or make it smaller")]
            )
        if taken.intersection(hole).area > slack:
            raise BuildFaultError(
                [Fault(f"cut_outs.{k}", "overlaps a cut-out before it; each is taken out once")]
            )
        taken = taken.union(hole)
        less, hx, hy = area_and_centroid(cut.shape)
        area -= less
        moment_x -= less * (hx + cut.x_mm)
        moment_y -= less * (hy + cut.y_mm)
        rings.append(ring)
    if area <= 0:
        raise BuildFaultError([Fault("cut_outs", "leave nothing of the part")])
    return Candidate(
        name=name,
        layer="",
        area_dm2=area / 1e4,
        x_mm=moment_x / area,
        y_mm=moment_y / area,
        box=Box(*whole.bounds),
        holes=len(cut_outs),
        rings=tuple(
            tuple((round(x, 2), round(y, 2)) for x, y in (*ring, ring[0])) for ring in rings
        ),
    )


def template_area(
    reading_g: float, reading_sd_g: float, paper_g_m2: float, paper_sd_g_m2: float
) -> tuple[float, float]:
    """Area of a paper template from its weight, and one sigma [dm2]: ``S = y / paper``.

    ``(u_S/S)^2 = (u_y/y)^2 + (u_p/p)^2``.

    >>> area, doubt = template_area(8.0, 0.058, 80.0, 2.0)
    >>> area, round(doubt, 3)
    (10.0, 0.26)
    """
    area = 100 * reading_g / paper_g_m2
    return area, area * hypot(reading_sd_g / reading_g, paper_sd_g_m2 / paper_g_m2)
