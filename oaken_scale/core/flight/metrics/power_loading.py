"""Power over all-up weight [W/kg]."""

from typing import Final

from oaken_scale.core.flight.equipment import drive_lacks
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import Metric, untold
from oaken_scale.core.flight.metrics.over_the_weight import against_the_weight, over_the_weight
from oaken_scale.core.flight.verdict import Answer
from oaken_scale.core.model.target import Target, TargetKind

KG_PER_G: Final = 1e-3
"""[kg/g]."""


def power_loading(plane: Flying) -> Answer:
    """Power from the fresh pack at full throttle over all-up weight [W/kg]: ``P/M``, in doubt and
    by chance as thrust-to-weight is.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> power_loading(fly(Build("b", "B", parts=(wing,))).planes[0]).missing.value
    'drive'
    """
    kind, unit = TargetKind.POWER_LOADING, "W/kg"
    if plane.power is None:
        return untold(kind, unit, plane.target(kind), drive_lacks(plane.build, plane.aboard))
    watts, sd = plane.power
    return over_the_weight(plane, kind, unit, watts, sd, "more_power_w", KG_PER_G)


def _as_the_power_bears(plane: Flying, target: Target) -> tuple[float, float] | None:
    if not target.low or plane.power is None:
        return None
    watts, sd = plane.power
    return watts / target.low / KG_PER_G, sd / target.low / KG_PER_G


POWER_LOADING: Final = Metric(
    TargetKind.POWER_LOADING,
    "power loading",
    power_loading,
    against_the_weight,
    _as_the_power_bears,
    is_always_told=False,
)
