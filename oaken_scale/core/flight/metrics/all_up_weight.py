"""All-up weight [g]."""

from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import (
    Metric,
    chance_over,
    untold,
    with_doubts,
    with_the_weight,
)
from oaken_scale.core.flight.verdict import Answer, Mend, Missing, judge
from oaken_scale.core.model.target import Target, TargetKind


def all_up_weight(plane: Flying) -> Answer:
    """All-up weight [g].

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> answer = all_up_weight(fly(Build("b", "B", parts=(wing,))).planes[0])
    >>> answer.value, answer.sd
    (500.0, 5.0)
    """
    target = plane.target(TargetKind.AUW)
    if not plane.has_mass:
        return untold(TargetKind.AUW, "g", target, Missing.PARTS)
    over = plane.auw_g - target.high if target and target.high is not None else 0.0
    mends = (Mend("lighter_g", over),) if over > 0 else ()
    chance = chance_over(plane, target, 1.0)
    told = judge(
        TargetKind.AUW, "g", plane.auw_g, plane.auw_sd_g, target, plane.fully_weighed, chance, mends
    )
    return with_doubts(plane, told, plane.believed_auw_g, by_load=True)


def _up_to_the_limit(plane: Flying, target: Target) -> tuple[float, float] | None:
    return None if target.high is None else (target.high, 0.0)


ALL_UP_WEIGHT: Final = Metric(
    TargetKind.AUW, "all-up weight", all_up_weight, with_the_weight, _up_to_the_limit
)
