"""What is believed of a drive train before it ran: by what its listing says, or by its size.

All are positive, so all are believed in their logarithm.
"""

from dataclasses import dataclass
from math import log, pi, sqrt
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.power import Motor, Pack, Propeller

KV_SD: Final = 0.05
UNLISTED_KV_SD: Final = 0.40
UNLISTED_OHM_SD: Final = 0.40
LISTED_OHM_SD: Final = 0.20
UNLISTED_IDLE_SD: Final = 0.35
LISTED_IDLE_SD: Final = 0.20
THRUST_SD: Final = 0.18
MERIT_SD: Final = 0.13
PACK_OHM_SD: Final = 0.40
CONTROLLER_OHM: Final = 0.010
CONTROLLER_OHM_SD: Final = 0.40
REST_SD_V_PER_CELL: Final = 0.03
"""Source of all: docs/methods.md, section 10."""


@dataclass(frozen=True, slots=True, eq=False)
class Belief:
    """Logarithms that are believed together: their means (U,) and covariance (U, U)."""

    mean: Vector
    cov: Matrix


def usual_kv(mass_g: float) -> float:
    """How fast a motor of a mass [g] turns that lists no Kv [rpm/V]: ``2300 (28 g/m)^0.75``, the
    larger the slower.

    Source: docs/methods.md, section 10.

    >>> usual_kv(28.0), round(usual_kv(74.0))
    (2300.0, 1110)
    """
    slower: float = (28 / mass_g) ** 0.75
    return 2300 * slower


def motor_belief(motor: Motor) -> Belief:
    """Logarithms of Kv [rpm/V], winding resistance [ohm] and no-load current [A]. What is not
    listed follows from Kv and mass; where Kv is not listed either, its doubt is theirs too.

    Raises BuildFaultError for what is not more than nothing.

    >>> round(float(np.exp(motor_belief(Motor(2300, 28.0)).mean[1])), 3)
    0.12
    """
    _positive("motor", kv=motor.kv, mass_g=motor.mass_g)
    _positive("motor", winding_ohm=motor.winding_ohm, idle_a=motor.idle_a)
    kv = motor.kv or usual_kv(motor.mass_g)
    by_kv, by_mass = kv / 2300, motor.mass_g / 28
    ohm = motor.winding_ohm or 0.12 * by_kv**-1.5 * by_mass**-1.5
    idle = motor.idle_a or 0.70 * by_kv**0.8 * by_mass**0.6
    by = np.array([1.0, 0.0, 0.0])
    if motor.kv is None:
        by[1] = 0.0 if motor.winding_ohm else -1.5
        by[2] = 0.0 if motor.idle_a else 0.8
    kv_sd = UNLISTED_KV_SD if motor.kv is None else KV_SD
    own = [
        0.0,
        UNLISTED_OHM_SD if motor.winding_ohm is None else LISTED_OHM_SD,
        UNLISTED_IDLE_SD if motor.idle_a is None else LISTED_IDLE_SD,
    ]
    return Belief(np.log([kv, ohm, idle]), kv_sd**2 * np.outer(by, by) + np.diag(np.square(own)))


def propeller_belief(propeller: Propeller) -> Belief:
    """Logarithms of the coefficients of thrust and power: ``C_P = C_T^1.5 sqrt(2/pi)/FM``, so that
    what is wrong with one is wrong with the other too.

    Raises BuildFaultError for a propeller without size or pitch.

    >>> found = propeller_belief(Propeller("p", "6 x 3", 152.4, 76.2))
    >>> np.exp(found.mean).round(4).tolist()
    [0.092, 0.0384]
    >>> (np.diag(found.cov) ** 0.5).round(2).tolist(), round(float(found.cov[0, 1]), 4)
    ([0.18, 0.3], 0.0486)
    """
    _positive("propeller", diameter_mm=propeller.diameter_mm, pitch_mm=propeller.pitch_mm)
    ratio = propeller.pitch_mm / propeller.diameter_mm
    thrust = 0.092 * (2 * ratio) ** 0.45
    merit = max(0.58 - 0.32 * (ratio - 0.5), 0.35)
    power = thrust**1.5 * sqrt(2 / pi) / merit
    spread = np.array([[1.0, 0.0], [1.5, 1.0]]) * (THRUST_SD, MERIT_SD)
    return Belief(np.log([thrust, power]), spread @ spread.T)


def pack_ohm(pack: Pack) -> float:
    """The resistance to be expected of a pack with its plug [ohm].

    Raises BuildFaultError for a pack without cells or capacity.

    >>> round(pack_ohm(Pack("p", "Pack", 3, 1300)), 4)
    0.0294
    """
    _positive("pack", cells=pack.cells, capacity_mah=pack.capacity_mah)
    return pack.cells * 0.011 * 1000 / pack.capacity_mah + 0.004


def pack_belief(pack: Pack) -> Belief:
    """The logarithm of a pack's resistance [ohm].

    >>> from math import exp
    >>> small, large = (pack_belief(Pack("p", "P", 3, mah, 25.0)) for mah in (1300.0, 2600.0))
    >>> round(exp(small.mean[0] - large.mean[0]), 2)
    1.76
    """
    return Belief(np.array([log(pack_ohm(pack))]), np.array([[PACK_OHM_SD**2]]))


def _positive(what: str, **figures: float | None) -> None:
    for name, figure in figures.items():
        if figure is not None and not 0 < figure < float("inf"):
            raise BuildFaultError(
                [Fault(f"{what}.{name}", f"is {figure:g}; it must be more than 0")]
            )
