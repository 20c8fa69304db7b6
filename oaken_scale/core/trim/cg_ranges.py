"""Where the CG belongs, by each school that builders follow, all on one ruler.

Schools disagree and all are in daily use: each says where it applies, and where two do not overlap
that is told, with the safer first flight.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import combinations
from math import radians, tan
from typing import Final

from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity
from oaken_scale.core.geometry.neutral_point import NeutralPoint
from oaken_scale.core.geometry.wing import WingFigures, chord_integrals
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role, Surface

CHORD_WITH_TAIL: Final = (0.25, 0.33)
CHORD_FLYING_WING: Final = (0.15, 0.20)
"""The chord rule, as fractions of the MAC."""

STEADY: Final = (0.10, 0.18)
LIVELY: Final = (0.04, 0.10)
MARGIN_FLYING_WING: Final = (0.05, 0.10)
"""How far ahead of the neutral point, as fractions of the MAC."""

NOSE_DOWN_DEG: Final = (2.0, 5.0)
"""How far the nose hangs down on the fingertips where builders want it to."""

APART_MM: Final = 1.0
"""Schools that miss each other by less agree [mm]."""

SHORT_WING: Final = 2.5
"""Below this aspect ratio the quarter-chord rules are unsafe."""


class Arrangement(StrEnum):
    """How the surfaces that lift stand to one another."""

    TAILED = "tailed"
    FLYING_WING = "flying wing"
    CANARD = "canard"
    TANDEM = "tandem"


class SchoolKind(StrEnum):
    """Who says where it balances."""

    CHORD = "chord rule"
    STEADY = "static margin, steady"
    LIVELY = "static margin, lively"
    MARK = "plan's mark"
    HANG = "nose down"


class Basis(StrEnum):
    """What a school's range rests on, or why it has none here."""

    TAILED = "tailed"
    FLYING_WING = "flying_wing"
    AHEAD_OF_NEUTRAL = "ahead_of_neutral"
    AS_PLANNED = "as_planned"
    HELD = "held"
    NO_RULE_FOR_CANARD = "no_rule_for_canard"
    NO_RULE_FOR_TANDEM = "no_rule_for_tandem"
    NOTHING_LIFTS = "nothing_lifts"
    NO_MARK = "no_mark"
    NO_PLACE_TO_HOLD = "no_place_to_hold"
    NO_HEIGHTS = "no_heights"
    CG_ABOVE_WING = "cg_above_wing"


@dataclass(frozen=True, slots=True)
class School:
    """One school's range [mm from the nose]; None where it is not offered, and ``basis`` why.

    ``least`` and ``most`` are what the rule asks for: fractions of the MAC, or degrees nose down
    when held at ``held_mm`` from the nose, ``above_mm`` above the CG. ``unsafe`` tells that it is
    offered with a warning. ``low_percent`` and ``high_percent`` are its range in % of the MAC.
    """

    kind: SchoolKind
    low_mm: float | None
    high_mm: float | None
    basis: Basis
    least: float | None = None
    most: float | None = None
    held_mm: float | None = None
    above_mm: float | None = None
    unsafe: bool = False
    low_percent: float | None = None
    high_percent: float | None = None


@dataclass(frozen=True, slots=True)
class Quarrel:
    """Two schools that do not overlap, and the one that makes the safer first flight."""

    safer: SchoolKind
    other: SchoolKind
    apart_mm: float


def arrangement(surfaces: Sequence[Surface]) -> Arrangement | None:
    """How a drawn plane is laid out; None before a wing is drawn.

    A tail in front of every wing is a canard, whatever it is called.

    >>> from oaken_scale.core.model.surface import Section
    >>> def plate(role, x):
    ...     return Surface(role, role, role, (Section(x, 0, 0, 100), Section(x, 300, 0, 100)))
    >>> arrangement([plate(Role.WING, 0), plate(Role.WING, 400)]).value
    'tandem'
    >>> arrangement([plate(Role.WING, 300), plate(Role.TAIL, 0)]).value
    'canard'
    """
    middles = {
        role: [_middle_x(each) for each in surfaces if each.role is role and _lifts(each)]
        for role in Role
    }
    wings = middles[Role.WING]
    if not wings:
        return None
    ahead = [x for x in middles[Role.TAIL] if x < min(wings)]
    if middles[Role.CANARD] or ahead:
        return Arrangement.CANARD
    if _apart([each for each in surfaces if each.role is Role.WING and _lifts(each)]):
        return Arrangement.TANDEM
    return Arrangement.TAILED if middles[Role.TAIL] else Arrangement.FLYING_WING


def schools(
    build: Build,
    wing: WingFigures | None,
    neutral: NeutralPoint | None,
    cg: CentreOfGravity | None,
) -> tuple[School, ...]:
    """Every school's range for a plane, the chord rule first.

    Source: docs/methods.md, section 5a.

    >>> from oaken_scale.core.geometry.wing import wing_figures
    >>> from oaken_scale.core.model.surface import Section
    >>> plate = Surface("w", "W", Role.WING, (Section(100, 0, 0, 200), Section(100, 500, 0, 200)))
    >>> build = Build("b", "B", surfaces=(plate,))
    >>> chord, *_ = schools(build, wing_figures(build.surfaces), None, None)
    >>> chord.kind.value, chord.basis.value, chord.low_mm, chord.high_mm
    ('chord rule', 'flying_wing', 130.0, 140.0)
    >>> chord.low_percent, chord.high_percent
    (15.0, 20.0)
    """
    laid = arrangement(build.surfaces)
    if wing is None or laid is None:
        return ()
    chord = _chord_rule(wing, laid)
    told = [chord, *_margins(wing, laid, neutral)]
    mark = build.plan_mark
    if mark is not None:
        low, high = mark.x_mm - mark.tolerance_mm, mark.x_mm + mark.tolerance_mm
        told.append(School(SchoolKind.MARK, low, high, Basis.AS_PLANNED))
    else:
        told.append(School(SchoolKind.MARK, None, None, Basis.NO_MARK))
    told.append(_hang(build, told, cg))
    return tuple(_along_the_chord(each, wing) for each in told)


def _along_the_chord(school: School, wing: WingFigures) -> School:
    """A school with its range in % of the MAC too."""
    if school.low_mm is None or school.high_mm is None:
        return school
    low, high = (
        100 * (x - wing.mac_le_x_mm) / wing.mac_mm for x in (school.low_mm, school.high_mm)
    )
    return replace(school, low_percent=low, high_percent=high)


def quarrels(told: Sequence[School]) -> tuple[Quarrel, ...]:
    """Pairs of schools whose ranges do not overlap; the forward one is the safer first flight.

    The two margins are one school with two tempers and do not quarrel; a wish for how the nose
    hangs follows another school's mark.

    >>> told = quarrels([School(SchoolKind.CHORD, 250, 266, Basis.TAILED),
    ...                  School(SchoolKind.MARK, 270, 276, Basis.AS_PLANNED)])
    >>> told[0].safer.value, told[0].apart_mm
    ('chord rule', 4)
    """
    found = []
    ranged = [e for e in told if e.low_mm is not None and e.kind is not SchoolKind.HANG]
    for one, two in combinations(ranged, 2):
        if {one.kind, two.kind} == {SchoolKind.STEADY, SchoolKind.LIVELY}:
            continue
        first, second = sorted((one, two), key=lambda each: each.low_mm or 0.0)
        apart = (second.low_mm or 0.0) - (first.high_mm or 0.0)
        if apart >= APART_MM:
            found.append(Quarrel(first.kind, second.kind, apart))
    return tuple(found)


def nose_down_mm(height_mm: float, degrees: float) -> float:
    """How far ahead of its support the CG lies when the nose hangs down [mm].

    ``height_mm`` is how far the support is above the CG: ``(z_s - z_cg) tan phi``.

    >>> round(nose_down_mm(40.0, 3.0), 2)
    2.1
    """
    return height_mm * tan(radians(degrees))


def _lifts(surface: Surface) -> bool:
    return surface.role is not Role.FIN and chord_integrals(surface)[0] > 0


def _middle_x(surface: Surface) -> float:
    """Where the quarter of a surface's mean chord is [mm]."""
    area, square, moment = chord_integrals(surface)
    return (moment + square / 4) / area


def _apart(wings: Sequence[Surface]) -> bool:
    """Whether two wings stand one behind the other and not one above the other."""
    spans = []
    for each in wings:
        root = each.sections[0]
        spans.append((root.x_le_mm, root.x_le_mm + root.chord_mm))
    return any(a[1] <= b[0] or b[1] <= a[0] for a, b in combinations(spans, 2))


def heights_known(build: Build) -> bool:
    """Whether anybody said how high anything is: a plane of which all lies at 0 has no heights yet.

    >>> heights_known(Build("b", "B"))
    False
    """
    return _heights_of(build.parts) or _heights_drawn(build.surfaces)


@recalled(keep=16)
def _heights_of(parts: tuple[Part, ...]) -> bool:
    return any(
        part.station is not None and part.station.z_mm != 0 and not part.retired for part in parts
    )


def _heights_drawn(surfaces: tuple[Surface, ...]) -> bool:
    standing = [each for each in surfaces if each.role is not Role.FIN]
    return any(section.z_mm for each in standing for section in each.sections)


def _chord_rule(wing: WingFigures, laid: Arrangement) -> School:
    """The quarter-chord rule; it would put the CG of a canard or a tandem too far aft."""
    if laid is Arrangement.CANARD:
        return School(SchoolKind.CHORD, None, None, Basis.NO_RULE_FOR_CANARD)
    if laid is Arrangement.TANDEM:
        return School(SchoolKind.CHORD, None, None, Basis.NO_RULE_FOR_TANDEM)
    basis, share = Basis.FLYING_WING, CHORD_FLYING_WING
    if laid is Arrangement.TAILED:
        basis, share = Basis.TAILED, CHORD_WITH_TAIL
    low, high = (wing.mac_le_x_mm + each * wing.mac_mm for each in share)
    unsafe = wing.aspect_ratio_alone < SHORT_WING
    return School(SchoolKind.CHORD, low, high, basis, *share, unsafe=unsafe)


def _margins(
    wing: WingFigures, laid: Arrangement, neutral: NeutralPoint | None
) -> tuple[School, ...]:
    bands = {SchoolKind.STEADY: STEADY, SchoolKind.LIVELY: LIVELY}
    if laid is Arrangement.FLYING_WING:
        bands = {SchoolKind.STEADY: MARGIN_FLYING_WING}
    if neutral is None:
        return tuple(School(kind, None, None, Basis.NOTHING_LIFTS) for kind in bands)
    return tuple(
        School(
            kind,
            neutral.x_mm - far * wing.mac_mm,
            neutral.x_mm - near * wing.mac_mm,
            Basis.AHEAD_OF_NEUTRAL,
            near,
            far,
        )
        for kind, (near, far) in bands.items()
    )


def _hang(build: Build, told: Sequence[School], cg: CentreOfGravity | None) -> School:
    """The wish for a nose that hangs down on the fingertips, from the first school's middle."""
    kind = SchoolKind.HANG
    first = next((each for each in reversed(told) if each.kind is SchoolKind.MARK), None)
    if first is None or first.low_mm is None:
        first = next((each for each in told if each.low_mm is not None), None)
    if first is None or first.low_mm is None or first.high_mm is None or cg is None:
        return School(kind, None, None, Basis.NO_PLACE_TO_HOLD)
    if not heights_known(build):
        return School(kind, None, None, Basis.NO_HEIGHTS)
    wings = [each for each in build.surfaces if each.role is Role.WING]
    height = wings[0].sections[0].z_mm - cg.z_mm
    if height <= 0:
        return School(kind, None, None, Basis.CG_ABOVE_WING)
    mark = (first.low_mm + first.high_mm) / 2
    low, high = (mark - nose_down_mm(height, each) for each in reversed(NOSE_DOWN_DEG))
    return School(kind, low, high, Basis.HELD, *NOSE_DOWN_DEG, held_mm=mark, above_mm=height)
