"""What a plane has of something for each unit that it weighs: thrust, power."""

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import untold, with_doubts
from oaken_scale.core.flight.verdict import Answer, Mend, Missing, chance_below, judge
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.target import Target, TargetKind


def over_the_weight(
    plane: Flying,
    kind: TargetKind,
    unit: str,
    of: float,
    of_sd: float,
    more: str,
    per_g: float = 1.0,
) -> Answer:
    """What a plane has of something, one sigma, for each unit that it weighs, of which a gram is
    ``per_g``; ``more`` of it is one mend.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> told = over_the_weight(plane, TargetKind.POWER_LOADING, "W/kg", 60.0, 3.0, "more_w", 0.001)
    >>> told.value, told.unit  # 60 W over 0.5 kg
    (120.0, 'W/kg')
    """
    target = plane.target(kind)
    if not plane.has_mass:
        return untold(kind, unit, target, Missing.PARTS)
    weight = plane.auw_g * per_g
    ratio = of / weight
    sd = ((of_sd / weight) ** 2 + (ratio * plane.auw_sd_g / plane.auw_g) ** 2) ** 0.5
    probability = None
    mends: tuple[Mend, ...] = ()
    if target is not None:
        probability = _chance_of_ratio(plane, of / per_g, of_sd / per_g, target)
        if target.low is not None and ratio < target.low:
            mends = (
                Mend(more, target.low * weight - of),
                Mend("lighter_g", plane.auw_g - of / target.low / per_g),
            )
    told = judge(kind, unit, ratio, sd, target, plane.fully_weighed, probability, mends)
    believing = plane.believed_auw_g
    return with_doubts(plane, told, of / (believing * per_g) if believing else None, by_load=True)


def _chance_of_ratio(plane: Flying, of: float, of_sd: float, target: Target) -> float:
    """Probability that a ratio to the weight lies within its limit or band."""

    forms = plane.forms or ((1.0, plane.auw_g, plane.auw_sd_g),)

    def chance_under(ratio: float) -> float:
        return sum(
            share * chance_below(0.0, of - ratio * grams, (of_sd**2 + (ratio * sd) ** 2) ** 0.5)
            for share, grams, sd in forms
        )

    high = 1.0 if target.high is None else chance_under(target.high)
    low = 0.0 if target.low is None else chance_under(target.low)
    return max(high - low, 0.0)


def against_the_weight(plane: Flying, answer: Answer) -> Vector:
    """How such a ratio moves with each part's mass, shape (N,) [its unit per g]: ``-r/M``.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> told = over_the_weight(plane, TargetKind.THRUST_TO_WEIGHT, "", 600.0, 30.0, "more_gf")
    >>> against_the_weight(plane, told).tolist()  # 1.2 at 500 g: a gram more takes 1.2 / 500
    [-0.0024]
    """
    if answer.value is None:
        return plane.aboard
    return -answer.value / plane.auw_g * plane.aboard
