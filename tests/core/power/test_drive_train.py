"""A drive train running: reference case P1, and laws that hold for any."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.power.drive_train import DriveTrain, running

P1 = DriveTrain(2300, 0.12, 0.70, 0.092, 0.0384, 152.4, 0.030, 0.010, 11.4)
TWO_CELLS = replace(P1, rest_v=7.6, pack_ohm=0.020)
TWINS = replace(P1, motors=2)


@pytest.mark.parametrize(
    ("train", "throttle", "turns", "thrust", "pack_a", "motor_a", "pack_v"),
    [
        (P1, 1.0, 332.3, 684.6, 17.07, 17.07, 10.89),
        (P1, 0.6, 219.8, 299.4, 4.716, 7.860, 11.26),
        (P1, 0.3, 117.2, 85.13, 0.8207, 2.736, 11.38),
        (TWO_CELLS, 1.0, 238.7, 353.3, 9.149, 9.149, 7.417),
        (TWINS, 1.0, 320.8, 1276.0, 31.91, 15.95, 10.44),
    ],
)
def test_reference_case_p1(train, throttle, turns, thrust, pack_a, motor_a, pack_v):
    found = running(train, throttle)
    assert found.turns_per_s == pytest.approx(turns, rel=3e-4)
    assert found.thrust_gf == pytest.approx(thrust, rel=3e-4)
    assert found.pack_a == pytest.approx(pack_a, rel=5e-4)
    assert found.motor_a == pytest.approx(motor_a, rel=5e-4)
    assert found.pack_v == pytest.approx(pack_v, rel=5e-4)
    assert found.power_w == pytest.approx(found.pack_a * found.pack_v)
    assert found.gf_per_w == pytest.approx(found.thrust_gf / found.power_w)


def test_where_the_duty_is_too_little_nothing_turns():
    limit = 0.70 * (0.12 + 0.010) / 11.4  # all of it falls over the windings (the pack's is small)
    still, creeping = running(P1, 0.99 * limit), running(P1, 1.2 * limit)
    assert (still.thrust_gf, still.pack_a, still.motor_a) == (0.0, 0.0, 0.0)
    assert still.pack_v == 11.4
    assert still.gf_per_w == 0.0
    assert creeping.thrust_gf > 0


trains = st.builds(
    DriveTrain,
    kv=st.floats(400, 6000),
    winding_ohm=st.floats(0.01, 1.0),
    idle_a=st.floats(0.05, 3.0),
    thrust_coefficient=st.floats(0.04, 0.15),
    power_coefficient=st.floats(0.015, 0.09),
    diameter_mm=st.floats(60, 330),
    pack_ohm=st.floats(0.002, 0.2),
    controller_ohm=st.floats(0.002, 0.05),
    rest_v=st.floats(3.3, 17.0),
    motors=st.integers(1, 4),
    duty_exponent=st.floats(0.8, 1.25),
)


@given(trains, st.floats(0.05, 1.0))
@settings(max_examples=80, deadline=None)
def test_volts_currents_and_powers_add_up(train, throttle):
    found = running(train, throttle)
    if found.turns_per_s == 0:
        return
    duty = throttle**train.duty_exponent
    over = found.motor_a * (train.winding_ohm + train.controller_ohm)
    back = duty * found.pack_v - over
    assert found.turns_per_s == pytest.approx(train.kv / 60 * back, rel=1e-9)
    assert found.pack_a == pytest.approx(train.motors * duty * found.motor_a)
    assert found.pack_v == pytest.approx(train.rest_v - found.pack_a * train.pack_ohm)
    # What the propellers take is what is left of what the packs give.
    size = train.diameter_mm / 1000
    shaft = train.motors * train.power_coefficient * 1.225 * found.turns_per_s**3 * size**5
    lost = train.motors * found.motor_a * over
    idle = train.motors * train.idle_a * found.turns_per_s * 60 / train.kv
    assert found.power_w == pytest.approx(shaft + lost + idle, rel=1e-6)


@given(trains, st.floats(0.1, 0.95))
@settings(max_examples=50, deadline=None)
def test_more_throttle_pulls_more_until_the_pack_is_drawn_down_to_half(train, throttle):
    more, less = running(train, throttle + 0.05), running(train, throttle)
    if more.pack_v > 0.55 * train.rest_v:
        assert more.thrust_gf >= less.thrust_gf - 1e-9


def test_thinner_air_pulls_less_and_draws_less():
    high = replace(P1, density=1.0)
    assert running(high, 1).thrust_gf < running(P1, 1).thrust_gf
    assert running(high, 1).pack_a < running(P1, 1).pack_a
    assert running(high, 1).turns_per_s > running(P1, 1).turns_per_s
