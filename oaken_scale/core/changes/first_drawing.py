"""A layout's drawing to one's own span and chord: the first drawing of a plane, and which of it is
still as it came."""

from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Final

from oaken_scale.core.geometry.proportions import SAME_HEIGHT_MM
from oaken_scale.core.geometry.wing import area_dm2, chord_integrals, wing_figures
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role, Section, Surface

SAME_MM: Final = 0.51
"""Two drawings that differ by less than this are one [mm]: figures are rounded to a millimetre."""

LEAST: Final = 1e-9
"""A share of a size at which every figure that is kept is 0 [1]."""


def first_drawing(
    surfaces: tuple[Surface, ...],
    span_mm: float,
    chord_mm: float | None = None,
    area: float | None = None,
) -> tuple[Surface, ...]:
    """A layout's drawing made to a span [mm], and a root chord [mm] or an area of the main wings
    [dm2].

    Every surface takes the span ``s`` and the chord ``c``, fins ``s`` both ways; all arms and the
    gap between two wings grow with ``c``: so the volumes ``Vh = Sh l/(S MAC)`` and
    ``Vv = Sv l/(S b)``, the tail's share of the span and the fin's of the tail stay what they were.
    A fin that stands on a wing goes with it: its height with ``s``, its chords with ``c``, at its
    share of the wing's chord.

    Raises BuildFaultError without a wing that has a span and a chord at its root, with neither a
    chord nor an area, and for a size at which a surface is nothing: figures are kept to 0.1 mm.

    >>> told = first_drawing(presets.layout("tractor").starting_surfaces, 1200.0, 200.0)
    >>> [(round(s.y_mm), round(s.chord_mm)) for s in told[0].sections]
    [(0, 200), (600, 200)]
    """
    wings = [each for each in surfaces if each.role is Role.WING]
    if not wings:
        raise BuildFaultError([Fault("surfaces", "draw a wing first")])
    half = max(abs(section.y_mm) for wing in wings for section in wing.sections)
    root = wings[0].sections[0]
    if not half or not root.chord_mm:
        words = "the first wing needs a span, and a chord at its root; type its sections first"
        raise BuildFaultError([Fault("surfaces", words)])
    across = span_mm / (2 * half)
    if chord_mm is not None:
        given, along = "chord_mm", chord_mm / root.chord_mm
    elif area is not None:
        across = max(across, LEAST)
        given, along = "area_dm2", area / (sum(area_dm2(wing) for wing in wings) * across)
    else:
        raise BuildFaultError([Fault("chord_mm", "give the chord at the root, or the wing's area")])

    at = _quarter_of(wings)
    carried = {each.id: wing for each in surfaces if (wing := _under(each, wings))}
    grown = tuple(
        _with_its_wing(each, carried[each.id], across, along)
        if each.id in carried
        else _grown(each, across, along)
        for each in surfaces
    )
    for old, new in zip(surfaces, grown, strict=True):
        if area_dm2(old) and not area_dm2(new):
            words = f'is so small that "{new.name}" comes to nothing; give a larger one'
            raise BuildFaultError([Fault("span_mm" if across < along else given, words)])
    new_at = _quarter_of([each for each in grown if each.role is Role.WING])
    return tuple(
        new
        if new.role is Role.WING or not area_dm2(old) or new.id in carried
        else _shifted(new, new_at + along * (_quarter_of([old]) - at) - _quarter_of([new]))
        for old, new in zip(surfaces, grown, strict=True)
    )


@dataclass(frozen=True, slots=True)
class _Growth:
    """How a surface grows [1]: its ``root`` aft and up, what is beyond it back, out and up, and its
    chords."""

    root: Section
    aft: float
    lift: float
    back: float
    out: float
    up: float
    deep: float

    def of(self, s: Section) -> Section:
        """Where a section comes."""
        root = self.root
        return Section(
            self.aft * root.x_le_mm + self.back * (s.x_le_mm - root.x_le_mm),
            self.out * s.y_mm,
            self.lift * root.z_mm + self.up * (s.z_mm - root.z_mm),
            self.deep * s.chord_mm,
        )


def _growth(surface: Surface, across: float, along: float) -> _Growth:
    """Swept surfaces keep their sweep; where the trailing edge runs straight out, as a delta's
    does, it goes on to."""
    root, tip = surface.sections[0], surface.sections[-1]
    if surface.role is Role.FIN:
        return _Growth(root, along, across, across, across, across, across)
    straight = root.x_le_mm + root.chord_mm - tip.x_le_mm - tip.chord_mm
    back = along if abs(straight) < SAME_MM else across
    return _Growth(root, along, along, back, across, across, along)


def _grown(surface: Surface, across: float, along: float) -> Surface:
    growth = _growth(surface, across, along)
    return replace(surface, sections=tuple(_to_a_tenth(growth.of(s)) for s in surface.sections))


def _to_a_tenth(s: Section) -> Section:
    return Section(*(round(each, 1) for each in (s.x_le_mm, s.y_mm, s.z_mm, s.chord_mm)))


def _under(surface: Surface, wings: Iterable[Surface]) -> tuple[Surface, Section] | None:
    """The wing that a fin stands on, and its section under the fin: a wing at the height of the
    fin's root, with the middle of it on its chord."""
    if surface.role is not Role.FIN:
        return None
    root = surface.sections[0]
    for wing in wings:
        at = _section_at(wing, abs(root.y_mm))
        if at is None or abs(at.z_mm - root.z_mm) >= SAME_HEIGHT_MM:
            continue
        if at.x_le_mm <= root.x_le_mm + root.chord_mm / 2 <= at.x_le_mm + at.chord_mm:
            return wing, at
    return None


def _section_at(wing: Surface, y_mm: float) -> Section | None:
    """A wing's section so far out, straight between those drawn; None off the wing."""
    for inner, outer in pairwise(wing.sections):
        step = outer.y_mm - inner.y_mm
        if step and 0.0 <= (share := (y_mm - inner.y_mm) / step) <= 1.0:
            return Section(
                *(
                    getattr(inner, name) + share * (getattr(outer, name) - getattr(inner, name))
                    for name in ("x_le_mm", "y_mm", "z_mm", "chord_mm")
                )
            )
    return None


def _with_its_wing(
    fin: Surface, under: tuple[Surface, Section], across: float, along: float
) -> Surface:
    """A fin at the same share of its wing's chord once that has grown, as deep as that."""
    wing, at = under
    foot = _growth(wing, across, along).of(at)
    sections = (
        Section(
            foot.x_le_mm + along * (s.x_le_mm - at.x_le_mm),
            across * s.y_mm,
            foot.z_mm + across * (s.z_mm - at.z_mm),
            along * s.chord_mm,
        )
        for s in fin.sections
    )
    return replace(fin, sections=tuple(_to_a_tenth(s) for s in sections))


def _shifted(surface: Surface, aft_mm: float) -> Surface:
    sections = (replace(s, x_le_mm=round(s.x_le_mm + aft_mm, 1)) for s in surface.sections)
    return replace(surface, sections=tuple(sections))


def _quarter_of(surfaces: Iterable[Surface]) -> float:
    """Where the quarter of the mean chord of some surfaces together is [mm]."""
    integrals = [chord_integrals(each) for each in surfaces]
    area, square, moment = (sum(each[k] for each in integrals) for k in range(3))
    return (moment + square / 4) / area


def with_first_drawing(
    build: Build, span_mm: float, chord_mm: float | None = None, area: float | None = None
) -> Build:
    """The build with its layout's drawing, to its own span and chord or area.

    >>> drawn = with_first_drawing(Build("b", "B", layout="tractor"), 1080.0, 190.0)
    >>> wing = next(each for each in drawn.surfaces if each.role is Role.WING)
    >>> wing.sections[0].chord_mm, wing.sections[-1].y_mm
    (190.0, 540.0)
    """
    laid = presets.layout(build.layout) if build.layout else None
    start = laid.starting_surfaces if laid else build.surfaces
    return replace(build, surfaces=first_drawing(start, span_mm, chord_mm, area))


def redrawn(build: Build, layout: str) -> Build:
    """The build as another layout, drawn to the span and the chord at the root that its wings have;
    one whose wings have none yet keeps its drawing.

    Raises BuildFaultError on ``layout`` where there is no such one.

    >>> drawn = with_first_drawing(Build("b", "B", layout="tractor"), 1080.0, 190.0)
    >>> canard = redrawn(drawn, "canard")
    >>> canard.layout, sorted(each.role.value for each in canard.surfaces)
    ('canard', ['canard', 'fin', 'wing'])
    >>> round(max(s.y_mm for each in canard.surfaces for s in each.sections))
    540
    """
    presets.layout(layout)
    anew = replace(build, layout=layout)
    wing = wing_figures(build.surfaces)
    root = next((w.sections[0].chord_mm for w in build.surfaces if w.role is Role.WING), 0.0)
    return with_first_drawing(anew, wing.span_mm, root) if wing and root else anew


@recalled(keep=8)
def untouched(layout: str, surfaces: tuple[Surface, ...]) -> frozenset[str]:
    """The surfaces that are still as their layout brought them, by their ids: nobody's yet. A wing
    counts as drawn once its span or chord is the builder's own.

    >>> laid = presets.layout("tractor").starting_surfaces
    >>> sorted(untouched("tractor", laid))
    ['fin', 'tail', 'wing']
    >>> sorted(untouched("tractor", first_drawing(laid, 1200.0, 200.0)))
    ['fin', 'tail']
    """
    start = next((each.starting_surfaces for each in presets.LAYOUTS if each.id == layout), ())
    wings = [each for each in surfaces if each.role is Role.WING]
    as_it_came = [(each.id, each) for each in start]
    if wings and any(each.role is Role.WING for each in start):
        half = max(abs(section.y_mm) for wing in wings for section in wing.sections)
        chord = wings[0].sections[0].chord_mm
        # A wing that is nothing yet makes no tail to compare with.
        with suppress(BuildFaultError):
            grown = first_drawing(start, 2 * half, chord)
            as_it_came += [(each.id, each) for each in grown if each.role is not Role.WING]
    return frozenset(
        each.id
        for each in surfaces
        if any(id == each.id and _alike(each, other) for id, other in as_it_came)
    )


def _alike(one: Surface, other: Surface) -> bool:
    if len(one.sections) != len(other.sections) or one.role is not other.role:
        return False
    return all(
        abs(getattr(a, name) - getattr(b, name)) < SAME_MM
        for a, b in zip(one.sections, other.sections, strict=True)
        for name in ("x_le_mm", "y_mm", "z_mm", "chord_mm")
    )
