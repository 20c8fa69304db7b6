"""What the drive does for each loadout: ladders, minutes, what is left, what nothing beats."""

from dataclasses import replace
from datetime import UTC, datetime
from math import pi

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.verdict import Missing
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Station
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
from oaken_scale.core.model.target import Target, TargetKind, Thrust
from oaken_scale.core.power.drive_aboard import drive_estimate, pack_aboard, thrust_of
from oaken_scale.core.power.drive_estimate import HowKnown, Predicted
from oaken_scale.core.power.drive_train import DriveTrain, running
from oaken_scale.core.power.flight_time import level_power
from oaken_scale.core.power.listings import pack_ohm
from oaken_scale.core.power.loadout_power import LoadoutPower, _unbeaten, power_told
from oaken_scale.core.power.rules_of_thumb import Rule

BIG = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack-big")
SMALL = Pack("small", "2-cell 850", 2, 850.0, None, "pack-small")
DRIVE = Power(
    Motor(2300.0, 28.0, most_a=14.0),
    controller=Controller(12.0, 15.0, 10.0),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2), Propeller("five", "5 x 4", 127.0, 101.6)),
    packs=(BIG, SMALL),
)


def part(id: str, grams: float, option: bool = False) -> Part:
    return Part(id, id, Pedigree.LISTING, stated_g=grams, option=option, station=Station(200.0))


PLANE = Build(
    "b",
    "B",
    parts=(part("wing", 300.0), part("pack-big", 105.0, True), part("pack-small", 60.0, True)),
    loadouts=(
        Loadout("l-big", "Big", ("pack-big",)),
        Loadout("l-small", "Small", ("pack-small",)),
        Loadout("glide", "Without", ()),
    ),
    thrust=Thrust(400.0, 20.0, "stated", 12.0),
    power=DRIVE,
)


@pytest.mark.parametrize(
    ("drive", "missing"),
    [
        (DRIVE, [("glide", Missing.PACK_ABOARD)]),
        (
            replace(DRIVE, propellers=()),
            [(each, Missing.PROPELLER) for each in ("l-big", "l-small", "glide")],
        ),
        (
            replace(DRIVE, packs=()),
            [(each, Missing.PACK) for each in ("l-big", "l-small", "glide")],
        ),
        (
            replace(DRIVE, packs=(), propellers=()),
            [(each, Missing.DRIVEN) for each in ("l-big", "l-small", "glide")],
        ),
    ],
)
def test_a_loadout_whose_drive_is_not_told_says_for_want_of_what(drive, missing):
    kinds = (TargetKind.THRUST_TO_WEIGHT, TargetKind.POWER_LOADING)
    asked = tuple(Target(kind, 0.1) for kind in kinds)
    assessment = assess(replace(PLANE, thrust=None, power=drive, targets=asked))
    assert [(each.loadout, each.missing) for each in assessment.power.untold] == missing
    for kind in kinds:
        answers = [(each.id, one) for each in assessment.loadouts for one in each.answers]
        of_kind = [(id, one.missing) for id, one in answers if one.kind is kind and one.missing]
        assert of_kind == missing


def fresh(amps: float, sd: float = 0.5) -> Predicted:
    return Predicted(500.0, 10.0, amps, sd, 11.0, 0.1, 11.0 * amps, 5.0, HowKnown.RUN)


def test_the_pack_that_flies_is_the_loadouts_own():
    aboard = [pack_aboard(PLANE, each) for each in PLANE.loadouts]
    assert aboard == [BIG, SMALL, None]
    assert pack_aboard(replace(PLANE, power=None), PLANE.loadouts[0]) is None
    assert pack_aboard(PLANE, None) == BIG  # of all that is aboard, the first
    gone = tuple(replace(each, retired=True) for each in PLANE.parts)
    assert pack_aboard(replace(PLANE, parts=gone), PLANE.loadouts[0]) is None


def test_thrust_is_the_packs_own_or_the_stated_one():
    alone = replace(PLANE, thrust=None)
    big, small, none = (thrust_of(alone, each) for each in PLANE.loadouts)
    assert none is None
    assert thrust_of(PLANE, PLANE.loadouts[2]) == PLANE.thrust
    for found, pack in ((big, BIG), (small, SMALL)):
        train = DriveTrain(
            2300.0, 0.12, 0.70, 0.092, 0.0384, 152.4, pack_ohm(pack), 0.010, 3.85 * pack.cells
        )
        assert found.thrust_gf == pytest.approx(running(train, 1.0).thrust_gf, rel=2e-3)
        assert found.line_z_mm is None
        assert found.source == f"{pack.name}: guess"
    assert thrust_of(replace(PLANE, power=replace(DRIVE, propellers=())), None) == PLANE.thrust
    with_both = thrust_of(PLANE, PLANE.loadouts[0])
    assert with_both.source == "3-cell 1300: stated"
    assert with_both.line_z_mm == 12.0
    assert 400.0 < with_both.thrust_gf < big.thrust_gf
    assert with_both.doubt_gf < big.doubt_gf / 2


def test_the_fitted_propeller_is_the_first():
    swapped = replace(PLANE, power=replace(DRIVE, propellers=DRIVE.propellers[::-1]))
    assert thrust_of(swapped, None).thrust_gf != thrust_of(PLANE, None).thrust_gf
    (told, *_) = power_told(
        swapped, [("l-big", 405.0), ("l-small", 360.0), ("g", 300.0)], 6
    ).loadouts
    assert told.propeller == "five"


def test_stalls_go_with_the_root_of_the_mass():
    told = power_told(PLANE, [("l-big", 400.0), ("l-small", 100.0), ("glide", 300.0)], 8.0)
    big, small = told.loadouts
    assert big.level_w == pytest.approx(level_power("", 400.0, 8.0).watts)
    assert small.level_w == pytest.approx(level_power("", 100.0, 4.0).watts)
    assert big.watts_per_kg == pytest.approx(big.fresh.power_w / 0.4)


def test_without_a_wing_or_a_mass_there_are_no_minutes():
    told = power_told(PLANE, [("l-big", 400.0), ("l-small", 0.0), ("glide", 300.0)], None)
    assert [each.minutes for each in told.loadouts] == [None, None]
    assert told.loadouts[1].watts_per_kg is None
    assert not any(each.unbeaten for each in told.loadouts)
    assert power_told(replace(PLANE, power=None), [("all", 400.0)], 6.0) is None


def lasting(minutes: float | None) -> LoadoutPower:
    some = fresh(10.0)
    ladders = ((), (), (), ())
    return LoadoutPower("l", "p", "q", some, some, None, *ladders, minutes, None, None, 0, (), ())


def test_nothing_beats_what_is_lighter_or_lasts_longer():
    light, heavy, worst = (300.0, lasting(5.0)), (400.0, lasting(9.0)), (400.0, lasting(4.0))
    all = [light, heavy, worst, (350.0, lasting(None))]
    assert [_unbeaten(mass, each, all) for mass, each in all] == [True, True, False, False]
    assert not _unbeaten(300.0, light[1], [light])  # alone there is nothing to beat
    twins = [(300.0, lasting(5.0)), (300.0, lasting(5.0))]
    assert [_unbeaten(*each, twins) for each in twins] == [True, True]
    longer = [(300.0, lasting(5.0)), (300.0, lasting(6.0))]
    assert [_unbeaten(*each, longer) for each in longer] == [False, True]
    lighter = [(300.0, lasting(5.0)), (290.0, lasting(5.0))]
    assert [_unbeaten(*each, lighter) for each in lighter] == [False, True]


def test_curves_run_from_nothing_to_full_throttle():
    told = assess(PLANE).power.loadouts[0]
    for curve, at in ((told.curve, told.half), (told.fresh_curve, told.fresh)):
        assert [point.throttle for point in curve] == pytest.approx([k / 10 for k in range(11)])
        assert curve[0].thrust_gf == curve[0].pack_a == 0.0
        assert (curve[-1].thrust_gf, curve[-1].pack_a) == (at.thrust_gf, at.pack_a)
        thrusts = [point.thrust_gf for point in curve]
        assert thrusts == sorted(thrusts)


def test_constants_are_told_as_believed_and_as_found():
    told = {each.name: each for each in assess(replace(PLANE, thrust=None)).power.constants}
    assert set(told) == {
        "kv",
        "winding_ohm",
        "idle_a",
        "pack_ohm big",
        "pack_ohm small",
        "thrust_coefficient six",
        "power_coefficient six",
        "thrust_coefficient five",
        "power_coefficient five",
    }
    assert told["kv"].believed == pytest.approx(2300)
    assert told["kv"].sd == pytest.approx(0.05 * 2300, rel=1e-6)
    assert told["pack_ohm big"].believed == pytest.approx(pack_ohm(BIG))
    assert told["winding_ohm"].believed_sd == pytest.approx(0.4 * 0.12, rel=1e-6)
    for name, pitch in (("six", 76.2 / 152.4), ("five", 101.6 / 127.0)):
        thrust = 0.092 * (2 * pitch) ** 0.45
        power = thrust**1.5 * (2 / pi) ** 0.5 / (0.58 - 0.32 * (pitch - 0.5))
        assert told[f"thrust_coefficient {name}"].believed == pytest.approx(thrust)
        assert told[f"power_coefficient {name}"].believed == pytest.approx(power)


def test_flights_and_ratings_leave_the_estimate_as_it_was():
    flight = Flight("f", datetime(2026, 5, 1, tzinfo=UTC), "big", 9.0, 900.0)
    rated = replace(DRIVE, plug_a=20.0, flights=(flight,), full_share=0.5)
    assert drive_estimate(rated, None) is drive_estimate(DRIVE, None)
    other = replace(DRIVE, motor=Motor(2000.0, 28.0))
    assert drive_estimate(other, None) is not drive_estimate(DRIVE, None)


def test_flights_and_the_throttle_that_held_level_move_the_minutes():
    at = datetime(2026, 5, 1, tzinfo=UTC)
    masses = [("l-big", 405.0), ("l-small", 360.0), ("g", 300.0)]

    def minutes(**more):
        told = power_told(replace(PLANE, power=replace(DRIVE, **more)), masses, 6.0)
        return [each.minutes for each in told.loadouts]

    plain = minutes()
    short = tuple(Flight(f"f{k}", at, "big", 5.0, 1000.0) for k in range(4))
    flown = minutes(flights=short)
    assert all(now < before for now, before in zip(flown, plain, strict=True))
    held = minutes(level_throttle=0.9)
    assert held[0] < plain[0]
    assert minutes(level_throttle=0.01) == plain  # at which nothing turns
    assert minutes(full_share=0.0)[0] > plain[0] > minutes(full_share=1.0)[0]


def test_the_last_run_that_was_felt_warms_every_loadout():
    at = datetime(2026, 5, 1, tzinfo=UTC)
    run = Run("r", at, "small", "six", (RunPoint(1.0, 350.0, 9.0),), motor_c=40.0, air_c=20.0)
    told = power_told(
        replace(PLANE, power=replace(DRIVE, runs=(run,))),
        [("l-big", 405.0), ("l-small", 360.0), ("g", 300.0)],
        6.0,
    )
    for each in told.loadouts:
        (heat,) = each.heat
        assert heat.celsius == pytest.approx(20 + 20 * (each.fresh.pack_a / 9.0) ** 2)
    unread = replace(run, points=(RunPoint(1.0, 350.0),))
    told = power_told(
        replace(PLANE, power=replace(DRIVE, runs=(unread,))),
        [("l-big", 405.0), ("l-small", 360.0), ("g", 300.0)],
        6.0,
    )
    small = told.loadouts[1]
    assert small.heat[0].felt_a == pytest.approx(small.fresh.pack_a, rel=1e-6)


def test_the_thrust_that_a_target_asks_for_is_its_share_of_the_weight():
    wanted = Target(TargetKind.THRUST_TO_WEIGHT, low=0.8)
    masses = [("l-big", 400.0), ("l-small", 360.0), ("glide", 300.0)]
    trainer = replace(PLANE, purpose="park", targets=(wanted,))
    told = power_told(trainer, masses, 6.0).loadouts
    assert [each.asked_gf for each in told] == [pytest.approx(320.0), pytest.approx(288.0)]
    for each, (_, mass) in zip(told, masses, strict=False):
        ratio = next(one for one in each.rules if one.rule is Rule.THRUST_TO_WEIGHT)
        assert ratio.value == pytest.approx(each.half.thrust_gf / mass)
    others = (Target(TargetKind.AUW, high=500.0), replace(wanted, low=None, high=1.5))
    told = power_told(replace(PLANE, targets=others), masses, 6.0).loadouts
    assert [each.asked_gf for each in told] == [None, None]
    weightless = power_told(trainer, [("l-big", 0.0), ("l-small", 0.0), ("glide", 0.0)], 6.0)
    assert all(
        each.watts_per_kg is None and Rule.THRUST_TO_WEIGHT not in {one.rule for one in each.rules}
        for each in weightless.loadouts
    )
