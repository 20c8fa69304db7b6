"""What a reading on a scale is worth."""

import math
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.weighing import Scale

FEW_STEPS: Final = 20
"""A load under this many display steps is too light for the scale."""

NEAR_CAPACITY: Final = 0.95
"""A load over this share of the capacity is too near its end."""

UNREST: Final = 3.0
"""An empty pan shows no more than so many times the scale's doubt and a step."""


def reading_doubt(scale: Scale) -> float:
    """One sigma of a single reading, calibration apart [g]: ``r^2 = d^2/12 + s^2``.

    The display step d rounds evenly over one step (JCGM 100:2008, 4.3.7); s is the repeatability,
    half a step unless known.

    >>> round(reading_doubt(Scale("s", "S", step_g=0.1, repeatability_g=0.05)), 6)
    0.057735
    """
    repeatability = scale.step_g / 2 if scale.repeatability_g is None else scale.repeatability_g
    return math.sqrt(scale.step_g**2 / 12 + repeatability**2)


def shows_unloaded(scale: Scale, reading_g: float) -> bool:
    """Whether an empty pan shows more than the scale's own unrest: something lies on it, or it has
    drifted since it was tared.

    >>> scale = Scale("s", "S", step_g=0.1)
    >>> shows_unloaded(scale, 0.1), shows_unloaded(scale, -12.8)
    (False, True)
    """
    return abs(reading_g) > UNREST * reading_doubt(scale) + scale.step_g


class Unfit(StrEnum):
    """Why a scale does not weigh a load well."""

    TOO_LIGHT = "too_light"
    NEAR_ITS_END = "near_its_end"


def before_the_fact(scale: Scale, load_g: float) -> Unfit | None:
    """Warn of a load that this scale cannot weigh well [g]; None when it can.

    >>> before_the_fact(Scale("s", "S", step_g=1.0), 4.0)
    <Unfit.TOO_LIGHT: 'too_light'>
    >>> before_the_fact(Scale("s", "S", step_g=0.1, capacity_g=500.0), 490.0)
    <Unfit.NEAR_ITS_END: 'near_its_end'>
    """
    if load_g < FEW_STEPS * scale.step_g:
        return Unfit.TOO_LIGHT
    if load_g > NEAR_CAPACITY * scale.capacity_g:
        return Unfit.NEAR_ITS_END
    return None
