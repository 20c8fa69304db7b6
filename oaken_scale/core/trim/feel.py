"""What a hand feels of the balance: weak checks, that say on which side the CG is, or about where.

A plane on two fingertips at ``x`` tips towards its CG. That it tips at all says only on which side
the CG is, so what is believed of it is cut off there; the moments of what is left are kept.

Source: docs/methods.md, section 5; Rasmussen & Williams, *Gaussian Processes for Machine Learning*,
3.9 (the moments of a Gaussian times a cumulative Gaussian).
"""

from math import exp, hypot, inf, pi, sqrt
from typing import Final

from scipy.special import log_ndtr

from oaken_scale.core.model.balancing import SUPPORT_DOUBT_MM, Feel

LEVEL_MM: Final = 6.0
"""What a hand calls level is so far from it, one sigma [mm]: twice that of looking at it."""

HAND_MM: Final = 90.0
"""The breadth of a hand: so much lower is the nose when it hangs a hand low [mm]."""

HUNG_MM: Final = (20.0, 10.0)
"""How far above its CG a plane is held by its wing, one sigma [mm]."""

LEAST_TOLD: Final = 1e-6
"""What takes away a smaller share of the variance tells nothing."""

_SIDE: Final = {Feel.TAIL_DROPS: 1.0, Feel.NOSE_DROPS: -1.0}


def felt(
    feel: Feel, x_mm: float, sum_mm: float, sum_sd_mm: float, nose_mm: float, tail_mm: float
) -> tuple[float, float]:
    """Where the CG is by what was felt, as an observation beside the sum, and its one sigma [mm];
    infinite where it tells nothing new.

    ``x_mm`` is where the fingers were, ``sum_mm`` and ``sum_sd_mm`` what is believed of the CG
    without it, ``nose_mm`` and ``tail_mm`` the ends of the plane.

    A hand low: ``x - h tan phi``, ``tan phi = 90/(x - nose)``, held ``h = 20 +- 10`` mm above the
    CG. On one side: with ``v = sum_sd^2 + 3^2``, ``z = side (sum - x)/sqrt(v)``,
    ``l = phi(z)/Phi(z)``, the sum moves by ``side sum_sd^2 l/sqrt(v)`` and its variance falls by
    ``sum_sd^4 l (z + l)/v``.

    >>> at, sd = felt(Feel.TAIL_DROPS, 210.0, 205.0, 4.0, 0.0, 800.0)
    >>> round(at, 1), round(sd, 1)
    (214.5, 3.9)
    >>> felt(Feel.LEVEL, 210.0, 205.0, 4.0, 0.0, 800.0)
    (210.0, 6.0)
    """
    if feel is Feel.LEVEL:
        return x_mm, LEVEL_MM
    if feel in _SIDE:
        return _on_one_side(_SIDE[feel], x_mm, sum_mm, sum_sd_mm)
    is_nose = feel is Feel.NOSE_HAND_LOW
    reach = max(abs(x_mm - nose_mm) if is_nose else abs(tail_mm - x_mm), HAND_MM)
    slope = HAND_MM / reach
    by, doubt = HUNG_MM[0] * slope, hypot(HUNG_MM[1] * slope, SUPPORT_DOUBT_MM["fingertips"])
    return x_mm + (-by if is_nose else by), doubt


def surprise(feel: Feel, x_mm: float, sum_mm: float, sum_sd_mm: float) -> float | None:
    """How far on the wrong side the sum is, in sigma, signed as a check's; 0 where it agrees, None
    for what speaks of a place and not of a side.

    >>> surprise(Feel.TAIL_DROPS, 210.0, 200.0, 4.0), surprise(Feel.TAIL_DROPS, 210.0, 220.0, 4.0)
    (2.0, 0.0)
    """
    if feel not in _SIDE:
        return None
    side = _SIDE[feel]
    z = side * (sum_mm - x_mm) / hypot(sum_sd_mm, SUPPORT_DOUBT_MM["fingertips"])
    return side * max(-z, 0.0)


def _on_one_side(side: float, x_mm: float, sum_mm: float, sd_mm: float) -> tuple[float, float]:
    spread = hypot(sd_mm, SUPPORT_DOUBT_MM["fingertips"])
    z = side * (sum_mm - x_mm) / spread
    ratio = exp(-0.5 * z * z - float(log_ndtr(z))) / sqrt(2 * pi)
    share = sd_mm**2 / spread**2 * ratio * (z + ratio)
    if not share > LEAST_TOLD:
        return sum_mm, inf
    moved = sum_mm + side * sd_mm**2 / spread * ratio
    left = sd_mm**2 * (1 - share)
    precision = 1 / left - 1 / sd_mm**2
    return (moved / left - sum_mm / sd_mm**2) / precision, sqrt(1 / precision)
