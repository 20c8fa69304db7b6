"""A drive train running steadily: how fast it turns, what it pulls, and what that draws.

Pack and motor current are two things: a controller at duty ``d`` passes the motor's current for
that share of the time only.
"""

from dataclasses import dataclass
from math import pi
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Vector

DENSITY: Final = 1.225
"""Air at 15 degrees Celsius and sea level [kg/m3]."""

GF_PER_N: Final = 101.97
"""Grams-force in a newton."""

EMPTY_V_PER_CELL: Final = 3.5
HALF_V_PER_CELL: Final = 3.85
"""The rest voltage of one cell: empty for flying, and half used [V]."""


@dataclass(frozen=True, slots=True)
class DriveTrain:
    """One motor, or several alike ones on one pack, each with its propeller.

    ``kv`` [rpm/V], ``winding_ohm`` of a motor and ``controller_ohm``, ``idle_a`` the current that
    turns a motor without its propeller, ``diameter_mm`` of the propeller with its coefficients of
    thrust and power, ``rest_v`` of the pack and its ``pack_ohm``, ``density`` of the air [kg/m3].
    The duty at a throttle from 0 to 1 is the throttle to the power of ``duty_exponent``.
    """

    kv: float
    winding_ohm: float
    idle_a: float
    thrust_coefficient: float
    power_coefficient: float
    diameter_mm: float
    pack_ohm: float
    controller_ohm: float
    rest_v: float
    motors: int = 1
    duty_exponent: float = 1.0
    density: float = DENSITY


@dataclass(frozen=True, slots=True)
class Running:
    """What a drive train does at a throttle: ``turns_per_s``, ``thrust_gf`` of all motors,
    ``pack_a`` drawn from the pack and ``motor_a`` through each motor, ``pack_v`` at the pack's
    plug.

    >>> told = Running(150.0, 480.0, 12.0, 12.0, 10.0)
    >>> told.power_w, told.gf_per_w
    (120.0, 4.0)
    """

    turns_per_s: float
    thrust_gf: float
    pack_a: float
    motor_a: float
    pack_v: float

    @property
    def power_w(self) -> float:
        """What the pack gives [W]."""
        return self.pack_a * self.pack_v

    @property
    def gf_per_w(self) -> float:
        """Thrust for the power that it takes [gf/W]; 0 where it stands still."""
        return self.thrust_gf / self.power_w if self.power_w > 0 else 0.0


def running(train: DriveTrain, throttle: float) -> Running:
    """How a drive train runs at a throttle, 0 to 1. Where it does not turn all is 0 but the
    voltage.

    With duty ``d``, current ``I`` through each of ``N`` motors and ``I_b = N d I`` from the pack:
    ``V_pack = E - I_b R_pack``, ``n = Kv/60 (d V_pack - I (R_m + R_esc))``, ``T = N C_T rho n^2
    D^4``, ``Q = C_P rho n^2 D^5/(2 pi)``, ``I = I_0 + Q 2 pi Kv/60``: a quadratic in ``n``.

    Source: docs/methods.md, section 10, reference case P1; Brandt & Selig, AIAA 2011-1255 (the
    coefficients).

    >>> found = running(DriveTrain(2300, 0.12, 0.70, 0.092, 0.0384, 152.4, 0.030, 0.010, 11.4), 1)
    >>> round(found.turns_per_s, 1), round(found.thrust_gf, 1), round(found.pack_a, 2)
    (332.3, 684.6, 17.07)
    """
    found = run_at(
        Constants(
            kv=np.array(train.kv),
            winding_ohm=np.array(train.winding_ohm),
            idle_a=np.array(train.idle_a),
            thrust=np.array(train.thrust_coefficient),
            power=np.array(train.power_coefficient),
            pack_ohm=np.array(train.pack_ohm),
            controller_ohm=np.array(train.controller_ohm),
            rest_v=np.array(train.rest_v),
            duty_exponent=np.array(train.duty_exponent),
        ),
        np.array(throttle),
        np.array(train.diameter_mm),
        np.array(train.motors),
        train.density,
    )
    return Running(*(float(each) for each in found))


@dataclass(frozen=True, slots=True, eq=False)
class Constants:
    """The constants of many drive trains at once, arrays that go together in shape: as those of
    :class:`DriveTrain`."""

    kv: Vector
    winding_ohm: Vector
    idle_a: Vector
    thrust: Vector
    power: Vector
    pack_ohm: Vector
    controller_ohm: Vector
    rest_v: Vector
    duty_exponent: Vector


def run_at(
    train: Constants,
    throttle: Vector,
    diameter_mm: Vector,
    motors: Vector,
    density: float = DENSITY,
) -> tuple[Vector, Vector, Vector, Vector, Vector]:
    """Turns [1/s], thrust [gf], pack and motor current [A] and pack voltage [V] of many at once:
    :func:`running`, all arrays of shapes that go together.

    >>> one = np.ones(1)
    >>> many = Constants(1400 * one, 0.06 * one, 1.2 * one, 0.11 * one, 0.045 * one,
    ...     0.03 * one, 0.005 * one, 12.6 * one, one)
    >>> [round(float(x[0]), 1) for x in run_at(many, one, 203 * one, one)]
    [236.4, 1304.1, 26.0, 26.0, 11.8]
    """
    duty = np.clip(throttle, 0.0, None) ** train.duty_exponent
    size, per_volt = diameter_mm / 1000, train.kv / 60
    ohm = motors * duty**2 * train.pack_ohm + train.controller_ohm + train.winding_ohm
    surplus = np.maximum(duty * train.rest_v - train.idle_a * ohm, 0.0)  # below it nothing turns
    straight = per_volt * surplus
    bent = per_volt**2 * ohm * train.power * density * size**5
    turns = 2 * straight / (1 + np.sqrt(1 + 4 * straight * bent))
    torque = train.power * density * turns**2 * size**5 / (2 * pi)
    motor_a = np.where(surplus > 0, train.idle_a + torque * 2 * pi * per_volt, 0.0)
    pack_a = motors * duty * motor_a
    thrust = motors * train.thrust * density * turns**2 * size**4 * GF_PER_N
    return turns, thrust, pack_a, motor_a, train.rest_v - pack_a * train.pack_ohm
