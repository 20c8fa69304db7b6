"""Which span and chord meet the targets with what is there: every point of the map is a build that
can be begun, and is told by what is told of any build.

Source: docs/methods.md, section 7.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from itertools import combinations, product
from math import inf, log
from typing import Final

from oaken_scale.core.changes.sketch import Start, begun_from
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.flight.metrics.registry import answers_of
from oaken_scale.core.flight.verdict import chance_below
from oaken_scale.core.geometry.proportions import (
    THICKNESS,
    sheet_gives,
    stall_of,
    usual_aspect,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.material.drawer import ThingKind
from oaken_scale.core.model.power import Pack
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.power.flight_time import level_power, usable_wh
from oaken_scale.core.trim.flown import fly

AS_LIKELY: Final = 0.95
"""Of points nearly as likely as the likeliest, and of a usual aspect ratio where there are such,
the slowest flyer is the best."""

LIKELY: Final = 0.5
"""A target is met where it is likelier so than not."""


class Want(StrEnum):
    """What a plane on the map is wanted to be: a build's targets, and minutes."""

    AUW = "auw"
    WING_LOADING = "wing_loading"
    THRUST_TO_WEIGHT = "thrust_to_weight"
    POWER_LOADING = "power_loading"
    BALANCE = "balance"
    MINUTES = "minutes"


@dataclass(frozen=True, slots=True)
class Chance:
    """A want's figure at a point, in its own unit, and the chance that it is met; None where
    something is missing to tell it."""

    kind: Want
    value: float | None
    chance: float | None


class Likely(StrEnum):
    """How likely a plane meets its targets."""

    SURE = "sure"
    LIKELY = "likely"
    NOT = "not"


SURE: Final = 0.9
"""A plane that meets each of its targets with this chance is drawn as sure."""

EVEN: Final = 0.5
"""One that meets them rather than not is drawn as likely."""


@dataclass(frozen=True, slots=True)
class MapPoint:
    """One plane: its span and chord [mm], what is told of it, the least of its targets' chances,
    its stall speed [m/s] and minutes from its pack."""

    span_mm: float
    chord_mm: float
    auw_g: float
    chances: tuple[Chance, ...]
    chance: float
    stall_m_s: float | None
    minutes: float | None
    likely: Likely = field(init=False, default=Likely.NOT)

    def __post_init__(self) -> None:
        """How likely it meets them all."""
        likely = Likely.LIKELY if self.chance >= EVEN else Likely.NOT
        object.__setattr__(self, "likely", Likely.SURE if self.chance >= SURE else likely)


@dataclass(frozen=True, slots=True)
class Line:
    """A span or a chord that something at hand gives [mm]."""

    is_span: bool
    at_mm: float
    why: str
    of: str


@dataclass(frozen=True, slots=True)
class Quarrel:
    """Two targets that no point meets together, or (``other`` None) one that none meets; where it
    comes nearest: that point's chance of it."""

    kind: Want
    other: Want | None
    best: float


@dataclass(frozen=True, slots=True)
class SpanChordMap:
    """The points, span by span, the best of them, the lines of what is at hand, and which
    targets quarrel where no point meets all."""

    spans_mm: tuple[float, ...]
    chords_mm: tuple[float, ...]
    points: tuple[MapPoint, ...]
    best: int
    lines: tuple[Line, ...]
    quarrels: tuple[Quarrel, ...]


def map_point(start: Start, span_mm: float, chord_mm: float) -> MapPoint:
    """What is told of the plane of a span and a chord.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.target import Target
    >>> limit = Target(TargetKind.WING_LOADING, high=20.0)
    >>> point = map_point(Start("park", "tractor", (limit,), STARTER[0], STARTER[0]), 1000, 180)
    >>> [(each.kind.value, each.chance > 0.5) for each in point.chances]
    [('wing_loading', True)]
    """
    build = begun_from(start, span_mm, chord_mm)
    plane = fly(build).planes[0]
    answers = answers_of(plane)
    chances = tuple(
        Chance(
            Want(each.kind),
            each.value,
            _balances(plane) if each.kind is TargetKind.BALANCE else each.probability,
        )
        for each in answers
        if each.low is not None or each.high is not None
    )
    auw = next((each.value for each in answers if each.kind is TargetKind.AUW), None) or 0.0
    stall = stall_of(build, wing_figures(build.surfaces), auw)
    minutes, sd = _minutes(start, auw, stall)
    if start.least_minutes is not None:
        chance = None if minutes is None else _lasts(minutes, sd, start.least_minutes)
        chances = (*chances, Chance(Want.MINUTES, minutes, chance))
    known = [each.chance for each in chances if each.chance is not None]
    least = min(known, default=0.0 if chances else 1.0)
    return MapPoint(span_mm, chord_mm, auw, chances, least, stall, minutes)


def span_chord_map(
    start: Start,
    spans_mm: Sequence[float],
    chords_mm: Sequence[float],
    wing_thickness_mm: float | None = None,
) -> SpanChordMap:
    """The map over some spans and chords [mm], with the lines of what is at hand; a wing of a given
    thickness says between which chords it is 8 to 12 % thick.

    >>> from oaken_scale.core.material.rack import STARTER
    >>> from oaken_scale.core.model.target import Target, TargetKind
    >>> limit = Target(TargetKind.AUW, high=590.0)
    >>> start = Start("park", "tractor", (limit,), STARTER[0], STARTER[0])
    >>> told = span_chord_map(start, (900.0, 1100.0), (170.0, 190.0))
    >>> [round(point.auw_g) for point in told.points], told.best
    ([289, 333, 338, 386], 2)
    """
    points = tuple(map_point(start, *at) for at in product(spans_mm, chords_mm))
    most = max(point.chance for point in points)
    likely = [k for k, point in enumerate(points) if point.chance >= AS_LIKELY * most]
    low, high = usual_aspect(start.purpose, start.layout) or (0.0, inf)
    usual = [k for k in likely if low <= points[k].span_mm / points[k].chord_mm <= high]
    best = min(usual or likely, key=lambda k: points[k].stall_m_s or inf)
    return SpanChordMap(
        tuple(spans_mm),
        tuple(chords_mm),
        points,
        best,
        tuple(_lines(start, wing_thickness_mm)),
        _quarrels(points),
    )


def _balances(plane: Flying) -> float | None:
    """The chance that the pack can slide to where the plane balances; None without a pack that
    slides: of a bare airframe nobody knows what will balance it.

    The CG comes into its range where it lies between ``lo - d_hi m/M`` and ``hi - d_lo m/M``, ``d``
    what is left of the bay either way.
    """
    target, cg = plane.target(TargetKind.BALANCE), plane.cg
    packs = [k for k, part in enumerate(plane.build.parts) if part.slide is not None]
    if target is None or cg is None or not packs:
        return None
    pack = plane.build.parts[packs[0]]
    if pack.station is None or pack.slide is None:
        return None
    origin, size = balance_axis(target.balance_unit, plane.wing)
    moves = float(plane.after.mass[packs[0]]) / plane.placed_g
    low = -inf if target.low is None else origin + size * target.low
    high = inf if target.high is None else origin + size * target.high
    low -= moves * (pack.slide.high_mm - pack.station.x_mm)
    high += moves * (pack.station.x_mm - pack.slide.low_mm)
    return chance_below(high, cg.x_mm, cg.x_sd_mm) - chance_below(low, cg.x_mm, cg.x_sd_mm)


def _lines(start: Start, thickness_mm: float | None) -> Iterator[Line]:
    gives = sheet_gives(start.wing_lot)
    if gives is not None:
        name = start.wing_lot.name
        yield Line(True, gives.span_mm, "one sheet", name)
        yield Line(True, gives.two_halves_mm, "two halves", name)
        is_folded = start.wing_layers > 1.5
        chord = gives.folded_chord_mm if is_folded else gives.single_chord_mm
        yield Line(False, chord, "folded from one" if is_folded else "one sheet deep", name)
    if thickness_mm is not None:
        for share, why in ((THICKNESS[1], "thickest"), (THICKNESS[0], "thinnest")):
            yield Line(False, thickness_mm / share, why, "")


def _minutes(start: Start, auw_g: float, stall_m_s: float | None) -> tuple[float | None, float]:
    """Level flight on the first pack [min], and one sigma of its logarithm."""
    thing = next((each for each in start.things if each.kind is ThingKind.PACK), None)
    if thing is None or not thing.cells or not thing.capacity_mah or not stall_m_s:
        return None, 0.0
    pack = Pack(thing.id, thing.name, thing.cells, thing.capacity_mah)
    level = level_power(start.layout, auw_g, stall_m_s)
    return 60 * usable_wh(pack) / level.watts, level.sd


def _lasts(minutes: float, sd: float, least: float) -> float:
    """The chance that a flight told so long lasts as long as wanted, both in the logarithm."""
    return 1.0 - chance_below(log(least), log(minutes), sd)


def _quarrels(points: Sequence[MapPoint]) -> tuple[Quarrel, ...]:
    """Why no point meets all targets; nothing where one does."""
    if any(point.chance >= LIKELY for point in points):
        return ()
    table = [
        {each.kind: each.chance for each in point.chances if each.chance is not None}
        for point in points
    ]
    kinds = sorted({kind for row in table for kind in row}, key=list(Want).index)

    def best(*wanted: Want) -> float:
        return max(min(row.get(kind, 0.0) for kind in wanted) for row in table)

    alone = [Quarrel(kind, None, best(kind)) for kind in kinds if best(kind) < LIKELY]
    if alone:
        return tuple(alone)
    pairs = ((a, b, best(a, b)) for a, b in combinations(kinds, 2))
    return tuple(Quarrel(a, b, chance) for a, b, chance in pairs if chance < LIKELY)
