"""What a metric of a loadout is, and what all of them share: an answer that cannot be told yet, the
chance over all that may be wrong, and what else an answer would be."""

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.verdict import Answer, Missing, chance_within
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.target import Target, TargetKind

UNCHECKED: Final = 0.01
"""How far a scale may read off that no known weight was ever on, as a fraction of the load."""

MATTERS: Final = 0.25
"""Another value matters from so many sigma away."""

Gradient = Callable[[Flying, Answer], Vector]
"""How an answer moves with each part's mass, shape (N,) [answer's unit per g]."""

Bears = Callable[[Flying, Target], tuple[float, float] | None]
"""The all-up weight at which more of it breaks a target, one sigma [g]; None where none does."""


@dataclass(frozen=True, slots=True)
class Metric:
    """One thing that a plane is judged by: what it is called, what it comes to for a loadout, how
    that moves with each part's mass, and how heavy a plane may be until it breaks. The words of its
    verdict are :mod:`oaken_scale.core.flight.verdict`'s, for all alike."""

    kind: TargetKind
    name: str
    evaluate: Callable[[Flying], Answer]
    gradient: Gradient
    bears: Bears
    is_always_told: bool = True
    """Else it is told of a build that has a target for it."""


def untold(kind: TargetKind, unit: str, target: Target | None, needs: Missing | None) -> Answer:
    """An answer that cannot be told yet.

    >>> untold(TargetKind.AUW, "g", Target(TargetKind.AUW, high=590.0), Missing.PARTS).high
    590.0
    """
    if target is None:
        return Answer(kind, unit, missing=needs)
    return Answer(kind, unit, low=target.low, high=target.high, source=target.source, missing=needs)


def chance_over(plane: Flying, target: Target | None, per_gram: float) -> float | None:
    """The chance that a target on what goes with the mass is met, over all that may be wrong;
    ``per_gram`` of its unit. None where nothing is doubted.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> chance_over(plane, None, 1.0) is None  # no reading is doubted: one bell is all there is
    True
    """
    if target is None or not plane.forms:
        return None
    return sum(
        share * chance_within(target.low, target.high, grams * per_gram, sd * per_gram)
        for share, grams, sd in plane.forms
    )


def with_doubts(plane: Flying, answer: Answer, believing: float | None, by_load: bool) -> Answer:
    """The answer with what it is if the readings that it does not believe are right, and with the
    scale that no known weight was on, each where it matters. ``by_load``: it moves with the load.

    >>> from oaken_scale.core.flight.metrics.all_up_weight import all_up_weight
    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> with_doubts(plane, all_up_weight(plane), 540.0, by_load=True).believing
    540.0
    """
    value = answer.value
    if value is None or answer.sd is None:
        return answer
    if believing is not None and abs(believing - value) > MATTERS * answer.sd:
        answer = replace(answer, disbelieving=plane.disbelieving, believing=believing)
    if by_load and answer.margin is not None and abs(answer.margin) < UNCHECKED * abs(value):
        answer = replace(answer, unchecked_scale=plane.unchecked_scale)
    return answer


def with_the_weight(plane: Flying, answer: Answer) -> Vector:
    """The gradient of what is the weight itself: 1 for what is aboard, shape (N,).

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> from oaken_scale.core.flight.metrics.all_up_weight import all_up_weight
    >>> with_the_weight(plane, all_up_weight(plane)).tolist()
    [1.0]
    """
    return plane.aboard
