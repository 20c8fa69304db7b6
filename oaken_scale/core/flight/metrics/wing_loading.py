"""Wing loading [g/dm2]."""

from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import Metric, chance_over, untold, with_doubts
from oaken_scale.core.flight.verdict import Answer, Mend, Missing, judge
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.target import Target, TargetKind


def wing_loading(plane: Flying) -> Answer:
    """Mass over the projected area of all main wings [g/dm2]: ``M/S``.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> sections = (Section(0, 0, 0, 200), Section(0, 500, 0, 200))
    >>> plate = Surface("p", "P", Role.WING, sections)
    >>> plane = fly(Build("b", "B", surfaces=(plate,), parts=(wing,))).planes[0]
    >>> answer = wing_loading(plane)
    >>> answer.value, answer.sd
    (25.0, 0.25)
    """
    kind, unit = TargetKind.WING_LOADING, "g/dm2"
    target = plane.target(kind)
    if plane.wing is None:
        return untold(kind, unit, target, Missing.WING)
    if not plane.has_mass:
        return untold(kind, unit, target, Missing.PARTS)
    area = plane.wing.area_dm2
    mends: tuple[Mend, ...] = ()
    if target and target.high is not None and plane.auw_g > target.high * area:
        mends = (
            Mend("lighter_g", plane.auw_g - target.high * area),
            Mend("more_wing_dm2", plane.auw_g / target.high - area),
        )
    loading, doubt = plane.auw_g / area, plane.auw_sd_g / area
    chance = chance_over(plane, target, 1 / area)
    told = judge(kind, unit, loading, doubt, target, plane.fully_weighed, chance, mends)
    believing = plane.believed_auw_g
    return with_doubts(plane, told, None if believing is None else believing / area, by_load=True)


def _over_the_area(plane: Flying, answer: Answer) -> Vector:
    return plane.aboard / plane.wing.area_dm2 if plane.wing else plane.aboard


def _up_to_the_loading(plane: Flying, target: Target) -> tuple[float, float] | None:
    if target.high is None or plane.wing is None:
        return None
    return target.high * plane.wing.area_dm2, 0.0


WING_LOADING: Final = Metric(
    TargetKind.WING_LOADING, "wing loading", wing_loading, _over_the_area, _up_to_the_loading
)
