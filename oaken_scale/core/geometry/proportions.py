"""Proportions: tail volumes, cubic loading, stall, thickness; rules of thumb that only warn."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import combinations
from typing import Final

from shapely.geometry import Polygon

from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.wing import (
    WingFigures,
    area_dm2,
    chord_integrals,
    plan_outline,
    spanwise,
)
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotKind
from oaken_scale.core.model.plausible import drawn_length
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Profile, Role, Surface

AIR: Final = 1.225
"""Density of air at sea level [kg/m3]."""

GRAVITY: Final = 9.80665
"""[m/s2]."""

CL_MAX: Final = {Profile.FLAT: 0.7, Profile.STEPPED: 0.9, Profile.FOLDED: 1.15}
"""Greatest lift coefficient by how a foam board wing is shaped (docs/methods.md, section 5)."""

TAIL_VOLUME: Final = (0.35, 0.70)
FIN_VOLUME: Final = (0.02, 0.05)
TAIL_SPAN: Final = (0.35, 0.60)
FIN_HEIGHT: Final = (0.35, 0.75)
THICKNESS: Final = (0.08, 0.12)
ASPECT: Final = {"sailplane": (8.0, 14.0), "glider": (5.0, 12.0), "indoor": (3.5, 7.0)}
USUAL_ASPECT: Final = (4.5, 7.5)
"""What is usual: tail volumes, the tail's share of the span and the fin's of the tail, thickness
over chord, and aspect ratios by purpose, else by layout (docs/methods.md, section 5)."""

SHORT_BY_DESIGN: Final = frozenset({"delta"})
"""Layouts of which no aspect ratio is usual."""

FOLD: Final = 2.05
"""A chord folded over top and bottom takes so many times itself of the strip."""

SAME_HEIGHT_MM: Final = 8.0
"""Surfaces nearer than this in height, and over one another, run through each other [mm]."""


@dataclass(frozen=True, slots=True)
class SheetGives:
    """What one sheet gives: spans in one piece and of two halves, and chords [mm]."""

    lot: str
    span_mm: float
    two_halves_mm: float
    single_chord_mm: float
    folded_chord_mm: float


class Oddity(StrEnum):
    """What a rule of thumb warns of."""

    ASPECT_RATIO = "aspect_ratio"
    TAIL_VOLUME = "tail_volume"
    FIN_VOLUME = "fin_volume"
    THICKNESS = "thickness"
    TAIL_SPAN = "tail_span"
    FIN_HEIGHT = "fin_height"
    TAIL_IN_FRONT = "tail_in_front"
    RUN_THROUGH = "run_through"


@dataclass(frozen=True, slots=True)
class OddProportion:
    """One warning: a ratio and what is usual of it, or the ``surfaces`` that it is about."""

    kind: Oddity
    value: float | None = None
    low: float | None = None
    high: float | None = None
    surfaces: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Proportions:
    """Figures of a plan: ``Vh`` and ``Vv``, cubic loading [g/dm3], stall speed [m/s] at the
    heaviest loadout, thickness over chord, and how far the drawing reaches from the nose [mm]; None
    where something is missing. What is ``odd`` only warns."""

    tail_volume: float | None
    fin_volume: float | None
    cubic_loading: float | None
    stall_speed: float | None
    thickness: float | None
    length_mm: float | None
    sheets: tuple[SheetGives, ...]
    odd: tuple[OddProportion, ...]


def tail_volume(wing: WingFigures, tails: Sequence[Surface]) -> float:
    """``Vh = sum Sh lh/(S MAC)``, arms from quarter chord to quarter chord.

    Source: docs/methods.md, section 5.

    >>> from oaken_scale.core.model.surface import Section
    >>> wing = WingFigures(20.0, 1000, 200, 100, 5, 100, 5)
    >>> tail = Surface("t", "T", Role.TAIL, (Section(675, 0, 0, 100), Section(675, 200, 0, 100)))
    >>> round(tail_volume(wing, [tail]), 3)
    0.55
    """
    from_x = wing.mac_le_x_mm + wing.mac_mm / 4
    moment = sum(area_dm2(each) * (_quarter_x(each) - from_x) for each in tails)
    return moment / (wing.area_dm2 * wing.mac_mm)


def fin_volume(wing: WingFigures, fins: Sequence[Surface], about_mm: float | None = None) -> float:
    """``Vv = sum Sv lv/(S b)``, arms from the wing's quarter chord, or from ``about_mm`` from the
    nose; a twin fin counts twice.

    A plane with its tail in front turns well ahead of its wing: its arms are those from the neutral
    point. Source: docs/methods.md, section 5.

    >>> from oaken_scale.core.model.surface import Section
    >>> wing = WingFigures(20.0, 1000, 200, 100, 5, 100, 5)
    >>> fin = Surface("f", "F", Role.FIN, (Section(675, 0, 0, 100), Section(675, 0, 150, 100)))
    >>> round(fin_volume(wing, [fin]), 4)
    0.0413
    """
    from_x = wing.mac_le_x_mm + wing.mac_mm / 4 if about_mm is None else about_mm
    moment = sum(
        (2 if each.twin else 1) * area_dm2(each) * (_quarter_x(each) - from_x) for each in fins
    )
    return moment / (wing.area_dm2 * wing.span_mm)


def stall_speed(mass_g: float, area_dm2: float, cl_max: float) -> float:
    """``sqrt(2 m g/(rho S CLmax))`` [m/s].

    >>> round(stall_speed(590.0, 20.52, 1.15), 2)
    6.33
    """
    return float((2 * mass_g / 1000 * GRAVITY / (AIR * area_dm2 / 100 * cl_max)) ** 0.5)


def sheet_gives(lot: Lot) -> SheetGives | None:
    """Spans and chords that a sheet gives; None for what is no sheet, or of no known size.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> sheet = Lot("a", "A", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM,
    ...     length_mm=700, width_mm=500)
    >>> told = sheet_gives(sheet)
    >>> told.span_mm, told.two_halves_mm, round(told.folded_chord_mm)
    (700, 1400, 244)
    """
    if lot.kind is not LotKind.FOAM or lot.length_mm is None or lot.width_mm is None:
        return None
    long, short = max(lot.length_mm, lot.width_mm), min(lot.length_mm, lot.width_mm)
    return SheetGives(lot.id, long, 2 * long, short, short / FOLD)


def usual_aspect(purpose: str, layout: str) -> tuple[float, float] | None:
    """Between which a wing's aspect ratio usually is, by what the plane is for, else by how it is
    laid out; None for a delta, which is one by its short wing.

    >>> usual_aspect("park", "tractor"), usual_aspect("park", "sailplane")
    ((4.5, 7.5), (8.0, 14.0))
    >>> usual_aspect("park", "delta") is None
    True
    """
    if layout in SHORT_BY_DESIGN:
        return None
    return ASPECT.get(purpose) or ASPECT.get(layout, USUAL_ASPECT)


def proportions(build: Build, wing: WingFigures | None, heaviest_g: float) -> Proportions:
    """A plan's figures, and what a rule of thumb would say of them.

    >>> proportions(Build("b", "B"), None, 0.0).tail_volume is None  # nothing is drawn
    True
    """
    drawn = _as_drawn(build.surfaces, build.lots, usual_aspect(build.purpose, build.layout), wing)
    if wing is None or heaviest_g <= 0:
        return drawn
    cubic = heaviest_g / wing.area_dm2**1.5
    return replace(drawn, cubic_loading=cubic, stall_speed=stall_of(build, wing, heaviest_g))


def stall_of(build: Build, wing: WingFigures | None, mass_g: float) -> float | None:
    """The stall speed [m/s] of a plane of a mass [g], its first wing shaped as it is; None without
    a wing or a mass.

    >>> from oaken_scale.core.geometry.wing import wing_figures
    >>> from oaken_scale.core.model.surface import Section
    >>> plate = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 540, 0, 190)))
    >>> build = Build("b", "B", surfaces=(plate,))
    >>> round(stall_of(build, wing_figures(build.surfaces), 590.0), 2)
    6.33
    """
    if wing is None or mass_g <= 0:
        return None
    main = next(s for s in build.surfaces if s.role is Role.WING)
    return stall_speed(mass_g, wing.area_dm2, CL_MAX[main.profile or Profile.FOLDED])


@recalled(keep=16)
def _as_drawn(
    surfaces: tuple[Surface, ...],
    lots: tuple[Lot, ...],
    aspect: tuple[float, float] | None,
    wing: WingFigures | None,
) -> Proportions:
    """The figures that hang on the drawing alone."""
    sheets = tuple(told for lot in lots if (told := sheet_gives(lot)) is not None)
    if wing is None:
        return Proportions(None, None, None, None, None, None, sheets, ())
    tails = [s for s in surfaces if s.role is Role.TAIL and area_dm2(s) > 0]
    fins = [s for s in surfaces if s.role is Role.FIN and area_dm2(s) > 0]
    main = next(s for s in surfaces if s.role is Role.WING)
    vh = tail_volume(wing, tails) if tails else None
    neutral = neutral_point(surfaces) if _tail_first(surfaces) else None
    vv = fin_volume(wing, fins, neutral.x_mm if neutral else None) if fins else None
    thick = None if main.thickness_mm is None else main.thickness_mm / wing.mac_mm
    odd = [
        *_outside(Oddity.ASPECT_RATIO, wing.aspect_ratio_alone, aspect),
        *_outside(Oddity.TAIL_VOLUME, vh, TAIL_VOLUME),
        *_outside(Oddity.FIN_VOLUME, vv, FIN_VOLUME),
        *_outside(Oddity.THICKNESS, thick, THICKNESS),
        *_odd_spans(wing, tails, fins),
        *_odd_order(surfaces),
    ]
    return Proportions(vh, vv, None, None, thick, drawn_length(surfaces), sheets, tuple(odd))


def _tail_first(surfaces: Sequence[Surface]) -> bool:
    """Whether a plane has a canard, whatever it is called: it turns about a place well ahead of its
    wing."""
    canards = [each for each in surfaces if each.role is Role.CANARD and area_dm2(each) > 0]
    return bool(canards or _tails_in_front(surfaces))


def _tails_in_front(surfaces: Sequence[Surface]) -> list[Surface]:
    foremost = min(_quarter_x(s) for s in surfaces if s.role is Role.WING and area_dm2(s) > 0)
    return [
        each
        for each in surfaces
        if each.role is Role.TAIL and area_dm2(each) > 0 and _quarter_x(each) < foremost
    ]


def _quarter_x(surface: Surface) -> float:
    """Where the quarter of a surface's mean chord is [mm]."""
    area, square, moment = chord_integrals(surface)
    return (moment + square / 4) / area


def _outside(
    kind: Oddity, value: float | None, usual: tuple[float, float] | None
) -> tuple[OddProportion, ...]:
    if value is None or usual is None:
        return ()
    low, high = usual
    if low <= value <= high:
        return ()
    return (OddProportion(kind, value, low, high),)


def _odd_spans(
    wing: WingFigures, tails: Sequence[Surface], fins: Sequence[Surface]
) -> tuple[OddProportion, ...]:
    """The tail about half the wing's span, the fin's height about half the tail's span; of twin
    fins each is half as high."""
    if not tails:
        return ()
    half = max(abs(spanwise(each, s)) for each in tails for s in each.sections)
    odd = _outside(Oddity.TAIL_SPAN, 2 * half / wing.span_mm, TAIL_SPAN)
    if fins and half > 0:
        height = max(_height(fin) * (2 if fin.twin else 1) for fin in fins)
        odd += _outside(Oddity.FIN_HEIGHT, height / (2 * half), FIN_HEIGHT)
    return odd


def _height(fin: Surface) -> float:
    along = [section.z_mm for section in fin.sections]
    return max(along) - min(along)


def _odd_order(surfaces: Sequence[Surface]) -> tuple[OddProportion, ...]:
    """A tail in front of the wing, and surfaces that run through each other."""
    odd = [
        OddProportion(Oddity.TAIL_IN_FRONT, surfaces=(each.id,))
        for each in _tails_in_front(surfaces)
    ]
    flat = [s for s in surfaces if s.role is not Role.FIN and area_dm2(s) > 0]
    for one, other in combinations(flat, 2):
        apart = abs(one.sections[0].z_mm - other.sections[0].z_mm)
        if apart < SAME_HEIGHT_MM and _over_one_another(one, other):
            odd.append(OddProportion(Oddity.RUN_THROUGH, surfaces=(one.id, other.id)))
    return tuple(odd)


def _over_one_another(one: Surface, other: Surface) -> bool:
    shapes = [Polygon(plan_outline(each)).buffer(0) for each in (one, other)]
    return bool(shapes[0].intersection(shapes[1]).area > 1.0)
