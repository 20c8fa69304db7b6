"""Laws that hold for any drive: more of one thing never gives less of what follows from it."""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.model.power import (
    Controller,
    Flight,
    Motor,
    Pack,
    Power,
    Propeller,
    Run,
    RunPoint,
)
from oaken_scale.core.power.drive_estimate import HowKnown, Predicted, estimate_drive
from oaken_scale.core.power.drive_readings import beliefs, gathered, predicted
from oaken_scale.core.power.drive_settling import sharpness, spread_about
from oaken_scale.core.power.flight_time import (
    FlownPower,
    LevelPower,
    endurance,
    flown_power,
    held_level,
    tired_packs,
)
from oaken_scale.core.power.margins import Rung, heats, margins, rung

DAY = datetime(2026, 5, 1, tzinfo=UTC)
BIG = Pack("big", "3-cell 1300", 3, 1300.0, 25.0)
DRIVE = Power(
    Motor(2000.0, 40.0, most_a=20.0),
    controller=Controller(20.0, 30.0, 10.0),
    propellers=(Propeller("prop", "7 x 4", 177.8, 101.6), Propeller("old", "6 x 3", 152.4, 76.2)),
    packs=(BIG, Pack("four", "4-cell 850", 4, 850.0)),
)
sizes = st.floats(20.0, 2000.0)
grams = st.floats(100.0, 2000.0)
watts = st.floats(5.0, 200.0)
shares = st.floats(0.0, 0.5)


def shows(amps: float, sd: float = 0.4) -> Predicted:
    return Predicted(500.0, 20.0, amps, sd, 11.0, 0.1, 11.0 * amps, 5.0, HowKnown.RUN)


def points(scale: float) -> tuple[RunPoint, ...]:
    read = ((0.4, 110.0, 1.5, 12.4), (0.7, 330.0, 6.0, 12.1), (1.0, 610.0, 15.0, 11.7))
    return tuple(RunPoint(k, scale * t, scale * a, v) for k, t, a, v in read)


@settings(deadline=None, max_examples=20)
@given(st.floats(0.1, 0.9), st.sampled_from(["big", "four"]), st.sampled_from(["prop", "old"]))
def test_more_throttle_gives_more_of_all_and_less_for_each_watt(throttle, pack, propeller):
    told = estimate_drive(DRIVE)
    less, more = (told.predict(pack, propeller, throttle * share) for share in (0.9, 1.0))
    assert more.thrust_gf > less.thrust_gf
    assert more.pack_a > less.pack_a
    assert more.pack_v < less.pack_v
    assert more.power_w > less.power_w
    assert more.thrust_sd_gf > less.thrust_sd_gf > 0


@settings(deadline=None, max_examples=15)
@given(st.floats(0.8, 1.2), st.integers(0, 2))
def test_one_more_point_never_makes_a_prediction_less_sure(scale, without):
    whole = points(scale)
    fewer = tuple(each for k, each in enumerate(whole) if k != without)
    some, all = (
        estimate_drive(replace(DRIVE, runs=(Run("r", DAY, "big", "prop", these),)))
        for these in (fewer, whole)
    )
    if some.doubts or all.doubts:
        return
    one, other = some.predict("big", "prop"), all.predict("big", "prop")
    assert other.thrust_sd_gf / other.thrust_gf <= 1.02 * one.thrust_sd_gf / one.thrust_gf
    assert other.pack_sd_a / other.pack_a <= 1.02 * one.pack_sd_a / one.pack_a


@settings(deadline=None, max_examples=10)
@given(st.floats(0.85, 1.15))
def test_two_runs_tell_the_same_in_either_order(scale):
    one = Run("a", DAY, "big", "prop", points(scale))
    other = Run("b", DAY, "big", "prop", points(1.0))
    told = [
        estimate_drive(replace(DRIVE, runs=runs)).predict("four", "old")
        for runs in ((one, other), (other, one))
    ]
    assert told[0].thrust_gf == pytest.approx(told[1].thrust_gf, rel=1e-4)
    assert told[0].pack_sd_a == pytest.approx(told[1].pack_sd_a, rel=1e-3)


def test_a_run_that_is_set_aside_says_nothing():
    run = Run("r", DAY, "big", "prop", points(1.0), set_aside="windy")
    before, after = estimate_drive(DRIVE), estimate_drive(replace(DRIVE, runs=(run,)))
    assert after.predict("big", "prop") == before.predict("big", "prop")
    assert after.fits == ()


def test_one_throttles_inverse_is_that_of_the_whole_spread():
    believed = beliefs(DRIVE)
    rows = gathered(DRIVE, believed, (Run("r", DAY, "big", "prop", points(1.0)),))
    _, _, by_throttle = predicted(DRIVE, believed, rows, believed.mean, as_read=True)
    for kept in (np.ones((3, 3), dtype=bool), np.array([[True, False, True]] * 3)):
        spread = spread_about(rows, by_throttle, 0.015, kept)
        weight, logdet = sharpness(rows, by_throttle, 0.015, kept)
        np.testing.assert_allclose(weight, np.linalg.inv(spread), rtol=1e-9, atol=1e-12)
        assert logdet == pytest.approx(float(np.linalg.slogdet(spread)[1].sum()))


@given(st.floats(0.1, 60.0), st.floats(1.01, 3.0))
def test_a_larger_current_stands_no_lower_on_any_ladder(amps, times):
    order = list(Rung)
    low, high = margins(DRIVE, BIG, shows(amps)), margins(DRIVE, BIG, shows(amps * times))
    for one, other in zip(low, high, strict=True):
        assert other.share == pytest.approx(times * one.share)
        assert order.index(other.rung) >= order.index(one.rung)
        assert one.rung is rung(one.current_a / one.most_a)


@given(st.floats(1.0, 40.0), st.floats(1.05, 2.0), st.floats(-5.0, 35.0), st.floats(40.0, 70.0))
def test_heat_never_falls_below_the_air_and_rises_with_the_current(amps, times, air, felt):
    run = Run("r", DAY, "big", "prop", points(1.0), motor_c=felt, air_c=air)
    drive = replace(DRIVE, runs=(run,))
    (one,), (other,) = (heats(drive, BIG, shows(a), {"r": 15.0}) for a in (amps, amps * times))
    assert air < one.celsius < other.celsius
    assert (other.celsius - air) / (one.celsius - air) == pytest.approx(times**2)
    assert heats(drive, BIG, shows(15.0), {"r": 15.0})[0].celsius == pytest.approx(felt)


@given(grams, watts, watts, shares)
def test_minutes_go_with_the_capacity_and_against_the_mass(mass, level_w, full_w, share):
    level = LevelPower(level_w, 0.2, mass)
    full, unflown = (full_w, 0.05 * full_w), FlownPower(0.0, 0.2, 0)
    once = endurance(BIG, mass, level, full, share, unflown)
    twice = endurance(replace(BIG, capacity_mah=2600.0), mass, level, full, share, unflown)
    heavier = endurance(BIG, 1.3 * mass, level, full, share, unflown)
    assert twice.minutes == pytest.approx(2 * once.minutes)
    assert heavier.minutes < once.minutes
    assert 0 < once.minutes_sd < 0.6 * once.minutes


@given(grams, watts, watts, shares, st.floats(2.0, 20.0), st.floats(100.0, 1600.0))
def test_a_flight_brings_the_minutes_towards_what_it_took(mass, level_w, full_w, share, long, back):
    level, full = LevelPower(level_w, 0.2, mass), {"big": (full_w, 0.05 * full_w)}
    flight = Flight("f", DAY, "big", long, back)
    before = endurance(BIG, mass, level, full["big"], share, FlownPower(0.0, 0.2, 0))
    flown = flown_power([flight], {"big": BIG}, level, full, share)
    after = endurance(BIG, mass, level, full["big"], share, flown)
    took = 60 * 0.8 * 1.3 * 3 * 3.7 / (back / 1000 * 3 * 3.7 * 60 / long)
    assert min(before.minutes, took) * 0.999 <= after.minutes <= max(before.minutes, took) * 1.001
    assert flown.sd < 0.1


@given(watts, watts, st.floats(0.0, 5.0))
def test_the_throttle_that_held_level_lies_between_and_is_surer(level_w, seen_w, sd):
    level = LevelPower(level_w, 0.2, 500.0)
    told = held_level(level, seen_w, sd)
    low, high = sorted((level_w, seen_w))
    assert low * 0.999 <= told.watts <= high * 1.001
    assert told.sd < level.sd


@given(st.lists(st.floats(5.0, 12.0), min_size=4, max_size=12))
def test_a_pack_is_tired_one_way_only(minutes):
    flights = [Flight(str(k), DAY, "big", m) for k, m in enumerate(minutes)]
    forth, back = tired_packs(flights), tired_packs(flights[::-1])
    assert not (forth and back)
    for told in (*forth, *back):
        assert 0.1 < told.fell < 1
