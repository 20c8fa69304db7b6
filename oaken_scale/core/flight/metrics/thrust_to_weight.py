"""Static thrust over all-up weight."""

from typing import Final

from oaken_scale.core.flight.equipment import drive_lacks, is_thrown
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.metric import Metric, untold
from oaken_scale.core.flight.metrics.over_the_weight import against_the_weight, over_the_weight
from oaken_scale.core.flight.verdict import Answer, Missing
from oaken_scale.core.model.target import Target, TargetKind


def thrust_to_weight(plane: Flying) -> Answer:
    """Static thrust over all-up weight: ``T/M``.

    ``u^2 = (u_T/M)^2 + (T u_M/M^2)^2``. The chance that ``T >= r M`` is that of the normal
    ``T - r M``, which needs no linearisation. What is thrown by hand has none, and lacks nothing.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> from oaken_scale.core.model.target import Thrust
    >>> build = Build("b", "B", parts=(wing,), thrust=Thrust(400.0))
    >>> answer = thrust_to_weight(fly(build).planes[0])
    >>> round(answer.value, 2), round(answer.sd, 3)
    (0.8, 0.08)
    """
    kind, unit = TargetKind.THRUST_TO_WEIGHT, "ratio"
    if plane.thrust is None:
        return untold(kind, unit, plane.target(kind), _missing(plane))
    return over_the_weight(
        plane, kind, unit, plane.thrust.thrust_gf, plane.thrust_sd_gf, "more_thrust_gf"
    )


def _missing(plane: Flying) -> Missing | None:
    if is_thrown(plane.build):
        return Missing.MOTOR
    return Missing.THRUST if plane.build.power is None else drive_lacks(plane.build, plane.aboard)


def _as_the_thrust_bears(plane: Flying, target: Target) -> tuple[float, float] | None:
    if not target.low or plane.thrust is None:
        return None
    return plane.thrust.thrust_gf / target.low, plane.thrust_sd_gf / target.low


THRUST_TO_WEIGHT: Final = Metric(
    TargetKind.THRUST_TO_WEIGHT,
    "thrust-to-weight",
    thrust_to_weight,
    against_the_weight,
    _as_the_thrust_bears,
)
