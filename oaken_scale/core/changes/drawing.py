"""What is done to a surface of a drawing: made to a span, an area, a chord, its tip to a length
along the slope; and the parts that a surface is made of."""

from collections.abc import Callable, Iterable
from dataclasses import replace
from math import hypot, sqrt

from oaken_scale.core.geometry.wing import area_dm2, chord_integrals, spanwise
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, Use
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.pattern import Grain, Pattern, turned_over
from oaken_scale.core.model.surface import Profile, Role, Section, Surface


def spanned(surface: Surface, span_mm: float) -> Surface:
    """A surface at another span, or a fin at another height [mm]: everything out of its root moves
    out alike, chords stay.

    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(20, 500, 30, 100)))
    >>> spanned(wing, 1200.0).sections[1]
    Section(x_le_mm=24.0, y_mm=600.0, z_mm=36.0, chord_mm=100)
    """
    root, tip = surface.sections[0], surface.sections[-1]
    if surface.role is Role.FIN:
        by = span_mm / abs(spanwise(surface, tip) - spanwise(surface, root))
    else:
        by = span_mm / (2 * abs(tip.y_mm))

    def out(s: Section) -> Section:
        return replace(
            s,
            x_le_mm=round(root.x_le_mm + by * (s.x_le_mm - root.x_le_mm), 1),
            y_mm=round(s.y_mm if surface.role is Role.FIN else by * s.y_mm, 1),
            z_mm=round(root.z_mm + by * (s.z_mm - root.z_mm), 1),
        )

    return replace(surface, sections=tuple(out(s) for s in surface.sections))


def chorded(surface: Surface, chord_mm: float) -> Surface:
    """A surface with another chord at its root [mm]; the others keep their share of it.

    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 100)))
    >>> [s.chord_mm for s in chorded(wing, 220.0).sections]
    [220.0, 110.0]
    """
    by = chord_mm / surface.sections[0].chord_mm
    sections = (replace(s, chord_mm=round(by * s.chord_mm, 1)) for s in surface.sections)
    return replace(surface, sections=tuple(sections))


def of_area(surface: Surface, area: float) -> Surface:
    """A surface of another area [dm2], by its chords.

    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 200)))
    >>> [s.chord_mm for s in of_area(wing, 18.0).sections]
    [180.0, 180.0]
    """
    return chorded(surface, surface.sections[0].chord_mm * area / area_dm2(surface))


def along_the_slope(surface: Surface, length_mm: float) -> Surface:
    """A surface whose last panel is so long along its slope [mm]: its tip stays as high over the
    section before it, and comes ``sqrt(length^2 - rise^2)`` out from it.

    Raises BuildFaultError where the panel would be shorter than it rises.

    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 400, 0, 190),
    ...     Section(0, 500, 60, 190)))
    >>> along_the_slope(wing, 100.0).sections[-1].y_mm
    480.0
    """
    inner, tip = surface.sections[-2:]
    upright = surface.role is Role.FIN
    rise = tip.y_mm - inner.y_mm if upright else tip.z_mm - inner.z_mm
    if length_mm <= abs(rise):
        words = "is {}; the tip rises {}, so it is longer than that"
        raise BuildFaultError([Fault("tip_mm", words, (mm(length_mm), mm(abs(rise))))])
    out = round(sqrt(length_mm**2 - rise**2), 1)
    if upright:
        moved = replace(tip, z_mm=round(inner.z_mm + out, 1))
    else:
        moved = replace(tip, y_mm=round(inner.y_mm + out, 1))
    return replace(surface, sections=(*surface.sections[:-1], moved))


def span_of(surface: Surface) -> float:
    """A surface's span from tip to tip, or a fin's height [mm].

    >>> span_of(Surface("w", "W", Role.WING, (Section(0, 0, 0, 90), Section(0, 80, 60, 90))))
    160
    """
    if surface.role is Role.FIN:
        along = [spanwise(surface, each) for each in surface.sections]
        return max(along) - min(along)
    return 2 * max(abs(each.y_mm) for each in surface.sections)


def slope_of(surface: Surface) -> float:
    """How long a surface's last panel is along its slope [mm].

    >>> slope_of(Surface("w", "W", Role.WING, (Section(0, 0, 0, 90), Section(0, 80, 60, 90))))
    100.0
    """
    inner, tip = surface.sections[-2:]
    return sqrt((tip.y_mm - inner.y_mm) ** 2 + (tip.z_mm - inner.z_mm) ** 2)


def reshaped(build: Build, surface_id: str, shape: Callable[[Surface], Surface]) -> Build:
    """The build with one of its surfaces shaped otherwise. Raises BuildFaultError when there is no
    such surface, or when it has no span or chord to begin from.

    >>> from oaken_scale.core.model.surface import Section
    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 540, 0, 190)))
    >>> build = Build("b", "B", surfaces=(wing,))
    >>> after = reshaped(build, "w", lambda surface: replace(surface, name="Main wing"))
    >>> after.surfaces[0].name
    'Main wing'
    """
    if not any(each.id == surface_id for each in build.surfaces):
        raise BuildFaultError([Fault("surface", f'there is no surface "{surface_id}"')])
    try:
        surfaces = tuple(shape(each) if each.id == surface_id else each for each in build.surfaces)
    except ZeroDivisionError as error:
        words = "it has no span or no chord yet; type its sections first"
        raise BuildFaultError([Fault("surface", words)]) from error
    return replace(build, surfaces=surfaces)


def made_to(
    surface: Surface,
    span_mm: float | None = None,
    chord_mm: float | None = None,
    area_dm2: float | None = None,
    tip_mm: float | None = None,
) -> Surface:
    """A surface made to a span, then a chord, then an area, and its tip to a length along the
    slope; as far as they are given. Raises BuildFaultError where none is.

    >>> from oaken_scale.core.model.surface import Section
    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 190), Section(0, 540, 0, 190)))
    >>> made_to(wing, span_mm=1200.0).sections[-1].y_mm
    600.0
    """
    given = (
        (spanned, span_mm),
        (chorded, chord_mm),
        (of_area, area_dm2),
        (along_the_slope, tip_mm),
    )
    if all(value is None for _, value in given):
        raise BuildFaultError([Fault("span_mm", "give a span, a chord, an area or a tip")])
    for way, value in given:
        if value is not None:
            surface = way(surface, value)
    return surface


def layers_of(surface: Surface) -> int:
    """How many layers of a sheet a surface is made of: two of a wing that is folded over, as one is
    taken to be whose shape nobody said; else one.

    >>> wing = Surface("w", "Wing", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 200)))
    >>> layers_of(wing), layers_of(replace(wing, profile=Profile.FLAT))
    (2, 1)
    """
    is_wing = surface.role is Role.WING
    return 2 if is_wing and surface.profile in (None, Profile.FOLDED) else 1


def skins(surface: Surface, lot: Lot, layers: float) -> tuple[Part, ...]:
    """The panels that a surface is cut of, left and right, or the one of a fin, as parts of a lot:
    their area with so many ``layers`` (2 for a folded wing), and their station where the area's
    middle is. They have no ids yet (``""``).

    ``x = (int x_le c + c^2/2)/int c`` along half the surface.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> wing = Surface("w", "Wing", Role.WING, (Section(0, 0, 0, 200), Section(0, 500, 0, 200)))
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4)
    >>> [(p.name, p.uses[0].amount, p.station.x_mm, p.station.y_mm)
    ...  for p in skins(wing, sheet, 2.0)]
    [('Wing, left', 20.0, 100.0, -250.0), ('Wing, right', 20.0, 100.0, 250.0)]
    """
    area, square, moment = chord_integrals(surface)
    if area <= 0:
        raise BuildFaultError([Fault("surface", f"{surface.name} has no area yet")])
    x = round((moment + square / 2) / area, 1)
    out, up = _middle(surface)
    twin = surface.role is not Role.FIN or surface.twin
    each = (area / 2 if surface.role is not Role.FIN else area) / 1e4 * layers
    use = Use(lot.id, round(each, 3))

    pattern = pattern_of(surface, max(round(layers), 1))

    def skin(panel: str, side: float, pattern: Pattern) -> Part:
        return Part(
            "",
            f"{surface.name}, {panel}" if panel else surface.name,
            Pedigree.CALCULATED,
            surface.name,
            uses=(use,),
            station=Station(x, round(side, 1), round(up, 1)),
            pattern=pattern,
            drawn=Drawn(surface.id, panel),
        )

    if not twin:
        return (skin("", out, pattern),)
    return skin("left", -out, turned_over(pattern)), skin("right", out, pattern)


def pattern_of(surface: Surface, layers: int = 1) -> Pattern:
    """What is cut for half a surface, or for a fin: along its slope from the root on, its chord
    down the sheet, so that its span lies along the grain.

    >>> wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 200), Section(20, 400, 300, 100)))
    >>> pattern_of(wing).rings
    (((0.0, 0.0), (500.0, 20.0), (500.0, 120.0), (0.0, 200.0)),)
    """
    first = surface.sections[0]
    along = [0.0]
    for inner, outer in zip(surface.sections, surface.sections[1:], strict=False):
        along.append(along[-1] + hypot(outer.y_mm - inner.y_mm, outer.z_mm - inner.z_mm))
    at = tuple(zip(along, surface.sections, strict=True))
    front = [(s, each.x_le_mm - first.x_le_mm) for s, each in at]
    back = [(s, each.x_le_mm - first.x_le_mm + each.chord_mm) for s, each in at]
    corners = [(round(s, 2), round(x, 2)) for s, x in (*front, *reversed(back))]
    ring = tuple(dict.fromkeys((float(s), float(x)) for s, x in corners))
    return Pattern((ring,), Grain.ALONG, layers)


def _middle(surface: Surface) -> tuple[float, float]:
    """Where the middle of a half surface's area is, out and up [mm]."""
    total = out = up = 0.0
    for inner, outer in zip(surface.sections, surface.sections[1:], strict=False):
        step = abs(spanwise(surface, outer) - spanwise(surface, inner))
        c1, c2 = inner.chord_mm, outer.chord_mm
        total += step * (c1 + c2) / 2
        out += step * (c1 * (2 * inner.y_mm + outer.y_mm) + c2 * (inner.y_mm + 2 * outer.y_mm)) / 6
        up += step * (c1 * (2 * inner.z_mm + outer.z_mm) + c2 * (inner.z_mm + 2 * outer.z_mm)) / 6
    return out / total, up / total


def with_parts(build: Build, parts: Iterable[Part]) -> Build:
    """The build with parts more, each under an id made from its name.

    >>> fin = Part("", "Fin", Pedigree.GUESS, stated_g=9.0)
    >>> [part.id for part in with_parts(Build("b", "B"), [fin, fin]).parts]
    ['fin', 'fin-2']
    """
    for each in parts:
        id = free_id(each.name, (part.id for part in build.parts))
        build = replace(build, parts=(*build.parts, replace(each, id=id)))
    return build
