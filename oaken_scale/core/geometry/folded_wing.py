"""Half a wing folded over its spar from one board."""

from dataclasses import dataclass
from math import atan2, cos, degrees, hypot, sin, sqrt
from typing import Final

from shapely import Polygon

from oaken_scale.core.geometry.fold import (
    Doubler,
    Folded,
    FoldLine,
    FoldWay,
    Panel,
    cut_part,
    opened,
    taken_out,
)
from oaken_scale.core.geometry.outline import Box, Corner
from oaken_scale.core.model.amount import mm
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

MOST_FORWARD: Final = 0.05
MOST_AFT: Final = 0.9
"""Where a spar stands, as a share of the chord."""


@dataclass(frozen=True, slots=True)
class FoldedWing:
    """A half wing folded about its leading edge over a spar: root chord, thickness over all, where
    the spar stands as a share of the chord; ``tip_chord_mm`` with the same shares. A strip
    of board ``doubler_mm`` wide lies under the spar, None for no such strip."""

    span_mm: float
    chord_mm: float
    thickness_mm: float
    board_mm: float
    spar_at: float = 0.3
    tip_chord_mm: float | None = None
    way: FoldWay = FoldWay.STRIP
    doubler_mm: float | None = None


def folded_wing(wing: FoldedWing, name: str = "Wing half") -> Folded:
    """A half wing unfolded about its leading edge: the lower skin flat, the upper one folded back,
    up to the top of the spar and down to the trailing edge, where it lies on the lower one.

    At the leading edge the inner edges meet, so the nose is as blunt as two boards. With the top of
    the spar ``s`` over the table and ``u = p c`` behind the edge, the outer sides are ``c``,
    ``sqrt(u^2 + (s - t)^2 - t^2)`` and ``sqrt((c - u)^2 + (s - t)^2 - t^2)``, and they slope by
    ``atan((s - t)/u) - atan(t/side)``; round the nose go ``2 t cos(slope/2)``.

    Raises BuildFaultError where the board leaves no room for a spar.

    >>> told = folded_wing(FoldedWing(540.0, 190.0, 22.0, 5.0, way=FoldWay.GROOVE))
    >>> [round(panel.width_mm, 2) for panel in told.panels], round(told.unfolded_mm, 2)
    ([190.0, 59.27, 133.99], 393.21)
    """
    t, ratio = wing.board_mm, _taper(wing)
    _must_hold_a_spar(wing)
    root = _skins(wing.chord_mm, wing.thickness_mm, wing.spar_at, t, wing.way)
    tip = _skins(wing.chord_mm * ratio, wing.thickness_mm * ratio, wing.spar_at, t, wing.way)
    span, flat = wing.span_mm, _unfolded(wing.span_mm, root, tip)
    out = span / 3 * (1 + 2 * ratio) / (1 + ratio)
    behind = _middle_of_section(root, wing) * (1 + ratio + ratio**2) / (1.5 * (1 + ratio))
    return Folded(
        part=cut_part(name, flat.outline, out, behind, Box(0.0, 0.0, span, wing.chord_mm)),
        panels=flat.panels,
        folds=flat.folds,
        unfolded_mm=flat.root_mm,
        groove_dm2=sum(taken_out(fold, wing.way) for fold in flat.folds) / 1e4,
        section=_section(root, wing),
        chord_mm=wing.chord_mm + t * (sin(root.slopes[0]) + sin(root.slopes[1])),
        thickness_mm=wing.thickness_mm,
        thickest_at_mm=wing.spar_at * wing.chord_mm,
        inside_mm=_inside(wing, root),
        doublers=_spar_strip(wing, name, ratio),
    )


def _taper(wing: FoldedWing) -> float:
    """The chord at the tip over that at the root."""
    return (wing.tip_chord_mm or wing.chord_mm) / wing.chord_mm


def _must_hold_a_spar(wing: FoldedWing) -> None:
    """Raises BuildFaultError where the spar stands off the chord, or the skins leave it no room."""
    t, ratio = wing.board_mm, _taper(wing)
    if not MOST_FORWARD <= wing.spar_at <= MOST_AFT:
        ends = f"{MOST_FORWARD:g} and {MOST_AFT:g}"
        words = f"is {wing.spar_at:g}; it stands between {ends} of the chord"
        raise BuildFaultError([Fault("spar_at", words)])
    if wing.thickness_mm <= 2 * t:
        words = (
            "is {}; two skins of {} leave nothing for a spar, so it must be over {}, "
            "or the board thinner"
        )
        facts = (mm(wing.thickness_mm), mm(t), mm(2 * t))
        raise BuildFaultError([Fault("thickness_mm", words, facts)])
    if wing.thickness_mm * ratio <= 2 * t:
        least = 2 * t / wing.thickness_mm * wing.chord_mm
        words = "is {}, so the tip would be thinner than two skins of {}; it must be over {}"
        facts = (mm(wing.chord_mm * ratio), mm(t), mm(least))
        raise BuildFaultError([Fault("tip_chord_mm", words, facts)])


@dataclass(frozen=True, slots=True)
class _Flat:
    """The board as it is cut: x from the root, y from the middle of the leading edge [mm]."""

    panels: tuple[Panel, ...]
    folds: tuple[FoldLine, ...]
    outline: Polygon
    root_mm: float
    """From edge to edge at the root."""


def _unfolded(span: float, root: "_Skins", tip: "_Skins") -> _Flat:
    """The lower skin flat, and over its leading edge the upper one in two, each after its fold."""
    low = ((0.0, 0.0), (span, 0.0), (span, -tip.sides[0]), (0.0, -root.sides[0]))
    panels, folds = [Panel("lower skin", low, root.sides[0])], []
    y_root = y_tip = 0.0
    for k, called in ((1, "upper skin, front"), (2, "upper skin, rear")):
        (_, wide_root), (_, wide_tip) = root.folds[k - 1], tip.folds[k - 1]
        along = ((0.0, y_root + wide_root / 2), (span, y_tip + wide_tip / 2))
        folds.append(FoldLine(*along, root.angles[k - 1], root.folds[k - 1][0]))
        y_root, y_tip = y_root + wide_root, y_tip + wide_tip
        ends = (y_root + root.sides[k], y_tip + tip.sides[k])
        corners = ((0.0, y_root), (span, y_tip), (span, ends[1]), (0.0, ends[0]))
        panels.append(Panel(called, corners, root.sides[k]))
        y_root, y_tip = ends
    outline = Polygon([(0.0, -root.sides[0]), (span, -tip.sides[0]), (span, y_tip), (0.0, y_root)])
    return _Flat(tuple(panels), tuple(folds), outline, y_root + root.sides[0])


def _inside(wing: FoldedWing, root: "_Skins") -> float:
    """The height that is left for a spar at the root [mm], over a doubler if there is one.

    Raises BuildFaultError where a doubler leaves nothing.
    """
    t = wing.board_mm
    left = wing.thickness_mm - t - t / cos(max(root.slopes))
    if wing.doubler_mm is None:
        return left
    if left <= t:
        words = (
            "cannot go in: {} are left between the skins and it takes {}; make the wing thicker, "
            "or the board thinner"
        )
        raise BuildFaultError([Fault("doubler_mm", words, (mm(left), mm(t)))])
    return left - t


def _spar_strip(wing: FoldedWing, name: str, ratio: float) -> tuple[Doubler, ...]:
    """The strip of board along the spar, on the lower skin."""
    wide = wing.doubler_mm
    if wide is None:
        return ()
    if wide >= wing.chord_mm * ratio:
        words = "is {}; the chord is {} at the tip, so it must be less"
        facts = (mm(wide), mm(wing.chord_mm * ratio))
        raise BuildFaultError([Fault("doubler_mm", words, facts)])
    ring = ((0.0, 0.0), (wing.span_mm, 0.0), (wing.span_mm, wide), (0.0, wide))
    part = cut_part(
        f"{name}, doubler",
        Polygon(ring),
        wing.span_mm / 2,
        wide / 2,
        Box(0.0, 0.0, wing.span_mm, wide),
    )
    begins = wing.spar_at * wing.chord_mm * (1 + ratio) / 2 - wide / 2
    return (Doubler(part, 1, begins, None, is_upright=False),)


def comes_out(
    lower_mm: float, front_mm: float, rear_mm: float, board_mm: float
) -> tuple[float, float]:
    """The section that three outer sides fold up to: how high the top of its spar is over the
    table, and how far behind the leading edge [mm].

    With the board's thickness each upper side spans ``sqrt(side^2 + t^2)`` from the edge's inner
    corner to the top: a triangle over the lower one. Raises BuildFaultError where it does not
    close.

    >>> [round(mm, 2) for mm in comes_out(190.0, 59.27, 133.99, 5.0)]
    [22.0, 57.0]
    """
    ahead, behind = hypot(front_mm, board_mm), hypot(rear_mm, board_mm)
    if ahead + behind <= lower_mm or abs(ahead - behind) >= lower_mm:
        least = sqrt(max((lower_mm - ahead) ** 2 - board_mm**2, 0.0))
        most = sqrt((lower_mm + ahead) ** 2 - board_mm**2)
        words = (
            "is {}: with {} ahead of the spar it does not close over {}; it must be over {} "
            "and under {}"
        )
        facts = (mm(rear_mm), mm(front_mm), mm(lower_mm), mm(least), mm(most))
        raise BuildFaultError([Fault("rear_mm", words, facts)])
    at = (ahead**2 - behind**2 + lower_mm**2) / (2 * lower_mm)
    return board_mm + sqrt(max(ahead**2 - at**2, 0.0)), at


@dataclass(frozen=True, slots=True)
class _Skins:
    """The outer sides of a section as they are cut, how its upper skins slope ahead of the spar and
    behind it, and its folds at the nose and the top: opened and round the corner, and by what angle
    [degrees]."""

    sides: tuple[float, float, float]
    slopes: tuple[float, float]
    folds: tuple[tuple[float, float], tuple[float, float]]
    angles: tuple[float, float]


def _skins(chord: float, thick: float, spar_at: float, board: float, way: FoldWay) -> _Skins:
    ahead, behind, rise = spar_at * chord, (1 - spar_at) * chord, thick - board
    sides, slopes = [], []
    for reach in (ahead, behind):
        side = sqrt(reach**2 + rise**2 - board**2)
        sides.append(side)
        slopes.append(atan2(rise, reach) - atan2(board, side))
    angles = (180 - degrees(slopes[0]), degrees(sum(slopes)))
    nose, _, _ = opened(board, angles[0], FoldWay.STRIP)
    top_open, top_strip, back = opened(board, angles[1], way)
    return _Skins(
        (chord, sides[0] - back, sides[1] - back),
        (slopes[0], slopes[1]),
        ((nose, nose), (top_open, top_strip)),
        angles,
    )


def _section(skins: _Skins, wing: FoldedWing) -> tuple[Corner, ...]:
    c, t, (front, rear) = wing.chord_mm, wing.board_mm, skins.slopes
    nose = (-t * sin(front), t + t * cos(front))
    tail = (c + t * sin(rear), t + t * cos(rear))
    top = (wing.spar_at * c, wing.thickness_mm)
    return (0.0, 0.0), (c, 0.0), tail, top, nose, (0.0, 0.0)


def _middle_of_section(skins: _Skins, wing: FoldedWing) -> float:
    """Where the middle of the three skins is behind the leading edge at the root [mm]."""
    c, p = wing.chord_mm, wing.spar_at
    middles = (c / 2, p * c / 2, (1 + p) * c / 2)
    return sum(w * x for w, x in zip(skins.sides, middles, strict=True)) / sum(skins.sides)
