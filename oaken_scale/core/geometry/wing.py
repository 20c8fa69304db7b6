"""Lifting surfaces from their sections: area, mean aerodynamic chord, aspect ratio."""

from collections.abc import Iterable
from dataclasses import dataclass
from itertools import pairwise

from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role, Section, Surface


@dataclass(frozen=True, slots=True)
class WingFigures:
    """What the main wings come to together.

    ``leading_edge_x_mm`` is the root leading edge that stations are measured from, that of the
    first wing drawn; ``mac_le_x_mm`` is where the mean aerodynamic chord begins.
    ``aspect_ratio_alone`` is that of the largest wing by itself, of which rules of thumb speak: a
    biplane's two together come to half of it.
    """

    area_dm2: float
    span_mm: float
    mac_mm: float
    mac_le_x_mm: float
    aspect_ratio: float
    leading_edge_x_mm: float
    aspect_ratio_alone: float


def spanwise(surface: Surface, section: Section) -> float:
    """The coordinate that a surface's area is taken along [mm]: z for a fin, y otherwise.

    >>> from oaken_scale.core.model.surface import Section
    >>> tip = Section(700, 0, 120, 80)
    >>> spanwise(Surface("f", "Fin", Role.FIN, (tip,)), tip)
    120
    """
    return section.z_mm if surface.role is Role.FIN else section.y_mm


def chord_integrals(surface: Surface) -> tuple[float, float, float]:
    """Integrals of c, c^2 and x_le c along the surface [mm2, mm3, mm3], both halves.

    Exact for chords and leading edges that are straight between sections.

    >>> from oaken_scale.core.model.surface import Section
    >>> plate = Surface("w", "W", Role.WING, (Section(100, 0, 0, 200), Section(100, 500, 0, 200)))
    >>> [round(each) for each in chord_integrals(plate)]
    [200000, 40000000, 20000000]
    """
    area = square = moment = 0.0
    for inner, outer in pairwise(surface.sections):
        step = abs(spanwise(surface, outer) - spanwise(surface, inner))
        c1, c2 = inner.chord_mm, outer.chord_mm
        x1, x2 = inner.x_le_mm, outer.x_le_mm
        area += step * (c1 + c2) / 2
        square += step * (c1 * c1 + c1 * c2 + c2 * c2) / 3
        moment += step * (2 * x1 * c1 + x1 * c2 + x2 * c1 + 2 * x2 * c2) / 6
    halves = 1 if surface.role is Role.FIN else 2
    return halves * area, halves * square, halves * moment


def area_dm2(surface: Surface) -> float:
    """Projected area of a surface, both halves [dm2].

    >>> area_dm2(Surface("w", "Wing", Role.WING,
    ...     (Section(0, 0, 0, 190), Section(0, 540, 0, 190))))
    20.52
    """
    return chord_integrals(surface)[0] / 1e4


def wing_figures(surfaces: Iterable[Surface]) -> WingFigures | None:
    """Area, MAC and aspect ratio of all main wings together; None when no wing has any area.

    ``S = 2 int c dy``, ``MAC = 2/S int c^2 dy``, ``x_leMAC = 2/S int x_le c dy``, ``AR = b^2/S``.
    Source: Anderson, *Aircraft Performance and Design*, section 2.5; docs/methods.md, section 5.

    A wing that tapers from 200 to 100 mm, its leading edge swept back 50 mm at the tip:

    >>> wing = Surface("w", "Wing", Role.WING,
    ...     (Section(0, 0, 0, 200), Section(50, 500, 0, 100)))
    >>> figures = wing_figures([wing])
    >>> round(figures.area_dm2, 3), round(figures.mac_mm, 3), round(figures.mac_le_x_mm, 3)
    (15.0, 155.556, 22.222)
    >>> round(figures.aspect_ratio, 3), round(wing_figures([wing, wing]).aspect_ratio, 3)
    (6.667, 3.333)
    >>> round(wing_figures([wing, wing]).aspect_ratio_alone, 3)
    6.667
    """
    return _wing_figures(tuple(surfaces))


@recalled(keep=8)
def _wing_figures(surfaces: tuple[Surface, ...]) -> WingFigures | None:
    wings = [surface for surface in surfaces if surface.role is Role.WING]
    totals = [chord_integrals(wing) for wing in wings]
    area, square, moment = (sum(total[k] for total in totals) for k in range(3))
    if area <= 0:
        return None
    span = max(_span(wing) for wing in wings)
    largest, own = max(zip(wings, totals, strict=True), key=lambda each: each[1][0])
    return WingFigures(
        area_dm2=area / 1e4,
        span_mm=span,
        mac_mm=square / area,
        mac_le_x_mm=moment / area,
        aspect_ratio=span * span / area,
        leading_edge_x_mm=wings[0].sections[0].x_le_mm,
        aspect_ratio_alone=_span(largest) * _span(largest) / own[0],
    )


def _span(wing: Surface) -> float:
    return 2 * max(abs(section.y_mm) for section in wing.sections)


def side_outline(surface: Surface) -> tuple[tuple[float, float], ...]:
    """Corners (x, z) of a surface seen from the port side [mm]: along the leading edges out, and
    back along the trailing edges.

    >>> side_outline(Surface("f", "F", Role.FIN, (Section(5, 0, 0, 20), Section(9, 0, 50, 10))))
    ((5, 0), (9, 50), (19, 50), (25, 0))
    """
    leading = [(s.x_le_mm, s.z_mm) for s in surface.sections]
    trailing = [(s.x_le_mm + s.chord_mm, s.z_mm) for s in reversed(surface.sections)]
    return tuple(leading + trailing)


def plan_outline(surface: Surface) -> tuple[tuple[float, float], ...]:
    """Corners (x, y) of a surface seen from above, starboard tip round to port [mm].

    >>> plan_outline(Surface("w", "W", Role.WING, (Section(5, 0, 0, 20), Section(5, 50, 0, 20))))
    ((5, 0), (5, 50), (25, 50), (25, 0), (25, -50), (5, -50))
    """
    leading = [(s.x_le_mm, s.y_mm) for s in surface.sections]
    trailing = [(s.x_le_mm + s.chord_mm, s.y_mm) for s in reversed(surface.sections)]
    half = leading + trailing
    if surface.role is Role.FIN:
        return tuple(half)
    port = [(x, -y) for x, y in reversed(half)]
    corners: list[tuple[float, float]] = []
    for corner in half + port:
        if corner not in corners:
            corners.append(corner)
    return tuple(corners)
