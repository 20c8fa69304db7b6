"""Minutes from a pack: by layout, by the throttle that held level, and by what was flown."""

from dataclasses import replace
from datetime import UTC, datetime
from math import log

import pytest

from oaken_scale.core.model.power import Flight, Pack
from oaken_scale.core.power.flight_time import (
    FlownPower,
    LevelPower,
    endurance,
    flown_power,
    held_level,
    level_power,
    mixed_w,
    tired_packs,
    unflown,
    usable_wh,
)
from study.flights import flown

DAY = datetime(2026, 5, 1, tzinfo=UTC)
BIG = Pack("big", "3-cell 1300", 3, 1300.0)
SMALL = Pack("small", "2-cell 850", 2, 850.0)
PACKS = {"big": BIG, "small": SMALL}
FULL = {"big": (132.0, 5.0), "small": (60.0, 3.0)}
UNFLOWN = FlownPower(0.0, 0.2, 0)


def flight(id: str, minutes: float, back: float | None = None, pack: str = "big", **more) -> Flight:
    return Flight(id, DAY, pack, minutes, back, **more)


@pytest.mark.parametrize(
    ("layout", "glide"),
    [
        ("sailplane", 10.0),
        ("glider", 8.0),
        ("flying-wing", 7.0),
        ("tractor", 6.0),
        ("", 6.0),
        ("biplane", 5.0),
        ("delta", 4.5),
    ],
)
def test_minutes_by_hand(layout, glide):
    level = level_power(layout, 500.0, 6.0)
    told = endurance(BIG, 500.0, level, FULL["big"], 0.2, UNFLOWN)
    drag_n = 0.5 * 9.80665 / glide
    assert told.level_w == pytest.approx(drag_n * 1.4 * 6.0 / 0.42)
    mean_w = 0.8 * told.level_w + 0.2 * 132.0
    assert told.minutes == pytest.approx(60 * (0.8 * 1.3 * 3 * 3.7) / mean_w)
    level_sd = told.level_w * (0.2**2 + (0.04 / 0.42) ** 2) ** 0.5
    share_sd = 0.06 * (132.0 - told.level_w)
    mean_sd = ((0.8 * level_sd) ** 2 + (0.2 * 5.0) ** 2 + share_sd**2) ** 0.5
    assert told.minutes_sd == pytest.approx(told.minutes * mean_sd / mean_w)


def test_heavier_flies_shorter_and_a_larger_pack_longer():
    level = level_power("", 400.0, 6.0)
    light, heavy = (endurance(BIG, m, level, FULL["big"], 0.2, UNFLOWN) for m in (400.0, 700.0))
    assert heavy.level_w == pytest.approx(light.level_w * (700 / 400) ** 1.5)
    assert heavy.minutes < light.minutes
    larger = replace(BIG, capacity_mah=2600.0)
    twice = endurance(larger, 400.0, level, FULL["big"], 0.2, UNFLOWN)
    assert twice.minutes == pytest.approx(2 * light.minutes)


def test_the_share_at_full_throttle_is_the_builders():
    level = level_power("", 400.0, 6.0)
    never, always = (endurance(BIG, 400.0, level, FULL["big"], s, UNFLOWN) for s in (0.0, 1.0))
    assert never.minutes == pytest.approx(60 * usable_wh(BIG) / level.watts)
    assert always.minutes == pytest.approx(60 * usable_wh(BIG) / 132.0)


def test_the_throttle_that_held_level_is_weighed_with_the_guess():
    level = level_power("", 400.0, 6.0)
    told = held_level(level, 2 * level.watts, 0.1 * 2 * level.watts)
    seen = (0.1**2 + 0.1**2) ** 0.5
    share = level.sd**2 / (level.sd**2 + seen**2)
    assert log(told.watts / level.watts) == pytest.approx(share * log(2))
    assert told.sd == pytest.approx((1 / level.sd**2 + 1 / seen**2) ** -0.5)


def test_a_flight_moves_the_power_by_its_own_doubt():
    level = level_power("", 400.0, 6.0)
    mix = mixed_w(level, 400.0, 132.0, 0.2)
    back = 1000 * (1.5 * mix) * (8 / 60) / (3 * 3.7)  # it took half as much again
    told = flown_power([flight("f", 8.0, back)], PACKS, level, {"big": FULL["big"]}, 0.2)
    share_sd = 0.06 * (132.0 - level.watts)
    before = ((0.8 * level.watts * level.sd) ** 2 + (0.2 * 5.0) ** 2 + share_sd**2) ** 0.5 / mix
    share = before**2 / (before**2 + 0.10**2)
    assert told.log_factor == pytest.approx(share * log(1.5))
    assert told.sd == pytest.approx((1 / before**2 + 1 / 0.10**2) ** -0.5)
    assert told.flights == 1
    unread = flown_power([flight("f", 8.0)], PACKS, level, {"big": FULL["big"]}, 0.2)
    took = log(60 * usable_wh(BIG) / 8.0 / mix)
    assert unread.log_factor == pytest.approx(took * before**2 / (before**2 + 0.10**2 + 0.15**2))


def test_what_is_set_aside_or_of_no_pack_tells_nothing():
    level = level_power("", 400.0, 6.0)
    aside = flight("f", 3.0, 1200.0, set_aside="wrong")
    stray = flight("g", 3.0, 1200.0, pack="gone")
    told = flown_power([aside, stray], PACKS, level, FULL, 0.2)
    assert (told.log_factor, told.flights) == (0.0, 0)


def test_a_heavier_flight_is_held_against_its_own_weight():
    level = level_power("", 400.0, 6.0)
    mix = mixed_w(level, 600.0, 132.0, 0.2)
    back = 1000 * mix * (8 / 60) / (3 * 3.7)
    just_so = flown_power([flight("f", 8.0, back, mass_g=600.0)], PACKS, level, FULL, 0.2)
    assert just_so.log_factor == pytest.approx(0.0, abs=1e-12)


@pytest.mark.parametrize(("flights", "most"), [(0, 0.2), (1, 0.09), (5, 0.05), (10, 0.035)])
def test_made_up_planes_fly_as_long_as_told_the_surer_the_more_they_flew(flights, most):
    told = flown(400, flights)
    assert told.off < most
    assert 0.90 < told.within < 0.985


def test_a_pack_whose_minutes_fall_is_tired_and_one_that_scatters_is_not():
    falling = [flight(str(k), m) for k, m in enumerate((9.8, 9.1, 8.4, 8.1, 7.2))]
    (told,) = tired_packs(falling)
    assert (told.pack, told.flights) == ("big", 5)
    assert told.fell == pytest.approx(1 - 7.2 / 9.8, abs=0.03)
    assert tired_packs([flight(str(k), m) for k, m in enumerate((9.0, 7.5, 9.4, 8.0, 9.2))]) == ()
    assert tired_packs(falling[:3]) == ()
    assert tired_packs(falling[::-1]) == ()
    aside = [replace(each, set_aside="windy") for each in falling[-2:]]
    assert tired_packs([*falling[:3], *aside]) == ()


def test_full_throttle_of_a_motor_that_takes_nothing_tells_of_no_minutes():
    """All the way at full throttle, which takes no power: neither a factor nor minutes."""
    level, pack = LevelPower(20.0, 0.2, 590.0), Pack("p", "P", 3, 1300.0)
    flight = Flight("f", datetime(2026, 5, 1, tzinfo=UTC), "p", 12.0, put_back_mah=900.0)
    told = flown_power([flight], {"p": pack}, level, {"p": (0.0, 0.0)}, 1.0)
    assert (told.log_factor, told.flights) == (0.0, 0)
    assert endurance(pack, 590.0, level, (0.0, 0.0), 1.0, told) is None
    # With some of it flown level there are minutes again: what is flown of it at 16 W.
    some = endurance(pack, 590.0, level, (0.0, 0.0), 0.2, unflown(level))
    assert some.minutes == pytest.approx(60 * usable_wh(pack) / 16.0)
