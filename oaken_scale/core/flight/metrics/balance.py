"""Where the centre of gravity lies along x: % MAC, or mm from nose or leading edge."""

from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import is_pack, lever_arms
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import Metric, untold, with_doubts
from oaken_scale.core.flight.verdict import Answer, Mend, Missing, judge
from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.model.arrays import Flags, Vector
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind


def balance(plane: Flying) -> Answer:
    """The CG along x, in the unit of its target: % MAC, or mm from nose or leading edge.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> from oaken_scale.core.trim.flown import fly
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...         (("nose", 0.0), ("tail", 300.0))]
    >>> answer = balance(fly(Build("b", "B", parts=tuple(ends))).planes[0])
    >>> round(answer.value, 1), answer.unit.value
    (150.0, 'mm_from_nose')
    """
    kind = TargetKind.BALANCE
    target = plane.target(kind)
    default = BalanceUnit.PERCENT_MAC if plane.wing else BalanceUnit.MM_FROM_NOSE
    unit = target.balance_unit if target else default
    if plane.cg is None:
        return untold(kind, unit, target, Missing.STATIONS)
    if plane.wing is None and unit is not BalanceUnit.MM_FROM_NOSE:
        return untold(kind, unit, target, Missing.WING)
    origin, size = balance_axis(unit, plane.wing)
    value, sd = (plane.cg.x_mm - origin) / size, plane.cg.x_sd_mm / size
    mends = _slide(plane, target, value, size)
    told = judge(kind, unit, value, sd, target, plane.fully_weighed, mends=mends)
    believing = plane.believed_x_mm
    other = None if believing is None else (believing - origin) / size
    return with_doubts(plane, told, other, by_load=False)


def balance_axis(unit: BalanceUnit, wing: WingFigures | None) -> tuple[float, float]:
    """Origin [mm from the nose] and size [mm] of one unit of a balance scale.

    >>> wing = WingFigures(20.5, 1080, 190, 200, 5.7, 195, 5.7)
    >>> balance_axis(BalanceUnit.PERCENT_MAC, wing)
    (200, 1.9)
    """
    if wing is None or unit is BalanceUnit.MM_FROM_NOSE:
        return 0.0, 1.0
    if unit is BalanceUnit.MM_FROM_LEADING_EDGE:
        return wing.leading_edge_x_mm, 1.0
    return wing.mac_le_x_mm, wing.mac_mm / 100


def _slide(plane: Flying, target: Target | None, value: float, size: float) -> tuple[Mend, ...]:
    """How far the heaviest thing that may slide, or else a pack, would have to, to reach the range;
    nothing else is ever proposed to move."""
    if target is None or plane.cg is None:
        return ()
    if target.high is not None and value > target.high:
        forward_mm = (value - target.high) * size
    elif target.low is not None and value < target.low:
        forward_mm = (value - target.low) * size
    else:
        return ()
    heaviest, mass = _heaviest(plane)
    if mass <= 0:
        return ()
    placed = float(plane.after.mass @ (plane.aboard * plane.where.placed))
    return (Mend("slide_forward_mm", forward_mm * placed / mass, plane.build.parts[heaviest].id),)


def _heaviest(plane: Flying) -> tuple[int, float]:
    """The place of the heaviest thing aboard that may slide, or else of the heaviest pack, and its
    mass [g]; 0 g where there is none."""
    mass = plane.after.mass * plane.aboard
    for may in _may_move(plane.build.parts):
        here = np.where(may, mass, 0.0)
        if (here > 0).any():
            return int(here.argmax()), float(here.max())
    return 0, 0.0


@recalled(keep=8)
def _may_move(parts: tuple[Part, ...]) -> tuple[Flags, Flags]:
    """Which things with a station may slide, and which are packs, shape (N,) each."""
    placed = [part.station is not None for part in parts]
    slide = [part.slide is not None for part in parts]
    packs = [is_pack(part) for part in parts]
    return (
        np.array(placed, dtype=bool) & np.array(slide, dtype=bool),
        np.array(placed, dtype=bool) & np.array(packs, dtype=bool),
    )


def _along_the_beam(plane: Flying, answer: Answer) -> Vector:
    if plane.cg is None or not answer.sd:
        return plane.aboard
    per_mm = answer.sd / plane.cg.x_sd_mm
    return lever_arms(plane.after.mass, plane.where, plane.aboard, plane.cg.x_mm) * per_mm


def _anything(plane: Flying, target: Target) -> tuple[float, float] | None:
    return None


BALANCE: Final = Metric(TargetKind.BALANCE, "balance", balance, _along_the_beam, _anything)
