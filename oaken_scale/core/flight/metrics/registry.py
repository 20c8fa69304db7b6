"""Every metric that a plane is judged by. What asks about targets goes through :data:`METRICS`."""

from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.all_up_weight import ALL_UP_WEIGHT
from oaken_scale.core.flight.metrics.balance import BALANCE
from oaken_scale.core.flight.metrics.metric import Metric
from oaken_scale.core.flight.metrics.power_loading import POWER_LOADING
from oaken_scale.core.flight.metrics.thrust_to_weight import THRUST_TO_WEIGHT
from oaken_scale.core.flight.metrics.wing_loading import WING_LOADING
from oaken_scale.core.flight.verdict import Answer
from oaken_scale.core.model.target import TargetKind

METRICS: Final[dict[TargetKind, Metric]] = {
    each.kind: each
    for each in (ALL_UP_WEIGHT, WING_LOADING, THRUST_TO_WEIGHT, POWER_LOADING, BALANCE)
}
"""Every metric, in the order that they are told."""


def answers_of(plane: Flying) -> tuple[Answer, ...]:
    """What every metric comes to for one loadout.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> plane = fly(Build("b", "B", parts=(wing,))).planes[0]
    >>> [answer.kind.value for answer in answers_of(plane)]
    ['auw', 'wing_loading', 'thrust_to_weight', 'balance']
    """
    return tuple(
        metric.evaluate(plane)
        for kind, metric in METRICS.items()
        if metric.is_always_told or plane.target(kind) is not None
    )
