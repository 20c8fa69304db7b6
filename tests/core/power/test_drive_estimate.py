"""What runs tell of a drive: case P2, made-up drive trains, and points that went wrong."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.power import Motor, Propeller, Run, RunPoint
from oaken_scale.core.power import drive_estimate
from oaken_scale.core.power.drive_estimate import HowKnown, estimate_drive, one_of_them
from oaken_scale.core.power.drive_readings import (
    Beliefs,
    Stated,
    asked,
    beliefs,
    gathered,
    predicted,
    rest_v,
    shown_by,
    train_of,
)
from oaken_scale.core.power.drive_train import running
from oaken_scale.core.power.point_doubts import OUNCE_G, PointSlip, Quantity
from study.drive_trains import DAY, DRIVE, Truth, predictions


def test_reference_case_p2(monkeypatch):
    monkeypatch.setattr(drive_estimate, "THRUST_MODEL", 0.0)
    monkeypatch.setattr(drive_estimate, "CURRENT_MODEL", 0.0)
    drive = replace(DRIVE, propellers=DRIVE.propellers[:1])
    usual = beliefs(drive)
    means = {0: 2300, 1: 0.12, 2: 0.70, 3: 0.010, 7: 0.030, 9: 0.020, 11: 0.092, 12: 0.0384}
    sds = {0: 0.05, 1: 0.40, 2: 0.35, 5: 0.02, 6: 0.03, 7: 0.40, 9: 0.40, 11: 0.18, 12: 0.30}
    mean, cov = np.zeros(13), np.zeros((13, 13))
    for k, value in means.items():
        mean[k] = np.log(value)
    for k, sd in sds.items():
        cov[k, k] = sd**2
    cov[11, 12] = cov[12, 11] = 0.0486
    read = zip(
        (0.3, 0.45, 0.6, 0.75, 0.9, 1.0),
        (66, 141, 229, 325, 431, 502),
        (1.0, 2.4, 4.6, 7.8, 12.3, 16.0),
        (11.38, 11.31, 11.26, 11.12, 10.98, 10.85),
        strict=True,
    )
    run = Run("r", DAY, "big", "six", tuple(RunPoint(*each) for each in read), 3.8)
    told = estimate_drive(
        replace(drive, runs=(run,)), Beliefs(mean, cov, usual.packs, usual.propellers), 0.0
    )
    sd = np.sqrt(np.diag(told.cov))
    assert not told.doubts
    for k, value, doubt in (
        (0, 2288, 0.04418),
        (1, 0.1987, 0.08253),
        (2, 1.109, 0.1686),
        (11, 0.08894, 0.09681),
        (12, 0.04457, 0.1377),
        (7, 0.03469, 0.07156),
    ):
        assert np.exp(told.mean[k]) == pytest.approx(value, rel=5e-4)
        assert sd[k] == pytest.approx(doubt, rel=5e-4)
    assert told.mean[5:7] == pytest.approx([-0.007484, 0.009997], abs=3e-6)
    assert sd[5:7] == pytest.approx([0.01951, 0.02907], abs=1e-5)
    full, two = told.predict("big", "six", 1.0, 3.8), told.predict("small", "six", 1.0, 3.8)
    assert (full.thrust_gf, full.thrust_sd_gf) == pytest.approx((505.5, 10.55), rel=5e-4)
    assert (full.pack_a, full.pack_sd_a) == pytest.approx((15.54, 0.4831), rel=5e-4)
    assert (two.thrust_gf, two.thrust_sd_gf) == pytest.approx((271.0, 6.908), rel=5e-4)
    assert (two.pack_a, two.pack_sd_a) == pytest.approx((8.848, 0.2937), rel=5e-4)
    assert (full.known, two.known) == (HowKnown.RUN, HowKnown.CALCULATED)


@pytest.mark.parametrize(
    ("pack", "propeller", "runs", "thrust_off", "current_off"),
    [
        ("small", "six", True, 0.04, 0.05),
        ("big", "seven", True, 0.12, 0.18),
        ("big", "six", False, 0.18, 0.24),
    ],
    ids=["another pack", "another propeller", "no run"],
)
def test_made_up_drives_come_out_as_doubtful_as_told(
    pack, propeller, runs, thrust_off, current_off
):
    told = predictions(range(120), pack, propeller, runs)
    assert told.thrust_within == pytest.approx(0.95, abs=0.05)
    assert told.current_within == pytest.approx(0.95, abs=0.05)
    assert told.thrust_off < thrust_off
    assert told.current_off < current_off


@pytest.mark.parametrize(
    ("pack", "runs", "thrust_off", "current_off"),
    [("small", True, 0.05, 0.06), ("big", False, 0.45, 0.65)],
    ids=["another pack", "no run"],
)
def test_a_motor_of_no_kv_is_told_as_widely_as_it_is_off(pack, runs, thrust_off, current_off):
    """A run makes up for the listing; without one most is open, and told so."""
    unsaid = replace(DRIVE, motor=Motor(None, 28.0))
    told = predictions(range(120), pack, "six", runs, unsaid)
    assert told.thrust_within == pytest.approx(0.95, abs=0.05)
    assert told.current_within == pytest.approx(0.95, abs=0.05)
    assert told.thrust_off < thrust_off
    assert told.current_off < current_off


def test_a_run_sharpens_and_says_how_it_is_known():
    truth = Truth(3)
    guess, told = estimate_drive(DRIVE), estimate_drive(replace(DRIVE, runs=(truth.run(),)))
    for pack, propeller, known in (
        ("big", "six", HowKnown.RUN),
        ("small", "six", HowKnown.CALCULATED),
        ("big", "seven", HowKnown.CALCULATED),
    ):
        before, after = guess.predict(pack, propeller), told.predict(pack, propeller)
        assert before.known is HowKnown.GUESS
        assert after.known is known
        assert after.thrust_sd_gf / after.thrust_gf < before.thrust_sd_gf / before.thrust_gf


def test_a_run_that_is_set_aside_says_nothing():
    run = replace(Truth(3).run(), set_aside="wrong propeller")
    told, guess = estimate_drive(replace(DRIVE, runs=(run,))), estimate_drive(DRIVE)
    assert told.predict("big", "six") == guess.predict("big", "six")


def test_a_thrust_read_in_ounces_is_seen_through():
    for seed in range(8):
        truth = Truth(seed)
        run = truth.run()
        right = estimate_drive(replace(DRIVE, runs=(run,))).predict("big", "six")
        points = list(run.points)
        points[5] = replace(points[5], thrust_gf=points[5].thrust_gf / OUNCE_G)
        told = estimate_drive(replace(DRIVE, runs=(replace(run, points=tuple(points)),)))
        (doubt,) = told.doubts
        assert (doubt.point, doubt.quantity) == (5, Quantity.THRUST)
        assert doubt.slip is PointSlip.OUNCES
        assert doubt.would_be == pytest.approx(run.points[5].thrust_gf)
        assert doubt.t < -5
        found = told.predict("big", "six")
        assert abs(found.thrust_gf - right.thrust_gf) < 0.5 * right.thrust_sd_gf


def test_a_point_at_another_throttle_is_left_out_whole():
    run = Truth(5).run()
    points = list(run.points)
    points[2] = replace(points[6], throttle=points[2].throttle)  # half throttle written for 90 %
    told = estimate_drive(replace(DRIVE, runs=(replace(run, points=tuple(points)),)))
    assert [each.point for each in told.doubts] == [2]
    assert told.doubts[0].slip is PointSlip.OTHER_THROTTLE
    assert told.doubts[0].would_be == pytest.approx(0.9, abs=0.06)


def test_sound_runs_are_not_doubted():
    doubted = [
        len(estimate_drive(replace(DRIVE, runs=(Truth(s).run(),))).doubts) for s in range(40)
    ]
    assert sum(doubted) <= 2


def test_twins_on_one_pack_are_less_than_twice_one():
    one, two = estimate_drive(DRIVE), estimate_drive(replace(DRIVE, motors=2))
    single, pair = one.predict("big", "six"), two.predict("big", "six")
    assert 1.5 * single.thrust_gf < pair.thrust_gf < 2 * single.thrust_gf


def test_what_was_drawn_lowers_the_rest_voltage():
    pack = DRIVE.packs[0]
    assert rest_v(4.2, pack, 0.0) == 4.2
    assert rest_v(4.2, pack, 1300.0) == pytest.approx(3.5)
    assert rest_v(4.2, pack, 99_999.0) == 3.0
    run = Truth(4).run()
    drawn = replace(run, points=tuple(replace(p, drawn_mah=400.0) for p in run.points))
    fresh = estimate_drive(replace(DRIVE, runs=(run,))).predict("big", "six")
    used = estimate_drive(replace(DRIVE, runs=(drawn,))).predict("big", "six")
    assert used.thrust_gf > fresh.thrust_gf  # the same thrust from a lower voltage


def test_a_point_with_little_read_still_tells():
    bare = Run("r", DAY, "big", "six", (RunPoint(1.0, 480.0),))
    told, guess = estimate_drive(replace(DRIVE, runs=(bare,))), estimate_drive(DRIVE)
    found, before = told.predict("big", "six", 1.0, 4.2), guess.predict("big", "six", 1.0, 4.2)
    assert found.thrust_gf == pytest.approx(480, rel=0.05)
    assert found.thrust_sd_gf < 0.3 * before.thrust_sd_gf
    nothing = Run("r", DAY, "big", "six", ())
    assert estimate_drive(replace(DRIVE, runs=(nothing,))).predict("big", "six").known == "guess"


def test_what_is_not_there_is_named():
    with pytest.raises(BuildFaultError, match='no pack "huge" in this drive; it has big, small'):
        estimate_drive(DRIVE).predict("huge", "six")
    with pytest.raises(BuildFaultError, match=r"propeller\.pitch_mm: is 0; it must be more than 0"):
        beliefs(replace(DRIVE, propellers=(Propeller("flat", "flat", 150.0, 0.0),)))


def test_a_run_with_another_propeller_is_told_and_a_right_one_is_not():
    named, accused = 0, 0
    for seed in range(12):
        run = Truth(seed).run(propeller="seven")
        wrong = estimate_drive(replace(DRIVE, runs=(replace(run, propeller="six"),)))
        named += [(each.run, each.propeller) for each in wrong.others] == [("r", "seven")]
        accused += len(estimate_drive(replace(DRIVE, runs=(run,))).others)
    assert named >= 5
    assert accused == 0


def test_two_points_say_nothing_of_the_propeller():
    run = Truth(0).run(propeller="seven")
    few = replace(run, propeller="six", points=run.points[:2])
    assert estimate_drive(replace(DRIVE, runs=(few,))).others == ()


def test_a_stated_thrust_is_one_more_reading():
    stated = Stated(430.0, 20.0)
    told, guess = estimate_drive(DRIVE, stated=stated), estimate_drive(DRIVE)
    found = told.predict("big", "six")
    assert found.known is HowKnown.STATED
    assert told.predict("small", "six").known is HowKnown.CALCULATED
    # Two figures of one thing, each by its own doubt; the stand that it was read on is 2 % off, and
    # the throttle 1.5 %, which moves a thrust by about twice as much.
    before = guess.predict("big", "six")
    own = 20**2 + (0.02 * 430) ** 2 + (0.03 * 430) ** 2
    sharp = 1 / own + 1 / (before.thrust_sd_gf**2 - (0.02 * before.thrust_gf) ** 2)
    mean = (430 / own + (sharp - 1 / own) * before.thrust_gf) / sharp
    assert found.thrust_gf == pytest.approx(mean, rel=0.02)
    assert found.thrust_sd_gf == pytest.approx((1 / sharp + (0.02 * mean) ** 2) ** 0.5, rel=0.1)
    assert told.predict("big", "seven").thrust_sd_gf < guess.predict("big", "seven").thrust_sd_gf


def test_a_stated_thrust_that_runs_contradict_is_told_and_left_out():
    run = Truth(3).run()
    alone = estimate_drive(replace(DRIVE, runs=(run,)))
    right = alone.predict("big", "six")
    off = estimate_drive(replace(DRIVE, runs=(run,)), stated=Stated(2 * right.thrust_gf, 15.0))
    assert [each.run for each in off.doubts] == ["stated"]
    assert off.predict("big", "six").thrust_gf == pytest.approx(right.thrust_gf, rel=1e-4)
    assert off.predict("big", "six").known is HowKnown.RUN


def test_slopes_are_those_by_each_unknown_alone():
    believed = beliefs(DRIVE)
    runs = (Truth(2).run(), Truth(3).run("small", "seven", "s"))
    rows = gathered(DRIVE, believed, runs)
    shown, slope, by_throttle = predicted(DRIVE, believed, rows, believed.mean, as_read=True)
    again = shown_by(DRIVE, rows, believed.mean[None], rows.throttle, True)[0]
    np.testing.assert_allclose(shown, again)
    for k in range(len(believed.mean)):
        moved = np.zeros(len(believed.mean))
        moved[k] = 1e-4
        both = np.stack([believed.mean + moved, believed.mean - moved])
        up, down = shown_by(DRIVE, rows, both, rows.throttle, True)
        np.testing.assert_allclose(slope[:, :, k], (up - down) / 2e-4, rtol=1e-4, atol=1e-3)
    near = np.stack([rows.throttle + 1e-4, rows.throttle - 1e-4])
    up, down = (shown_by(DRIVE, rows, believed.mean[None], each, True)[0] for each in near)
    np.testing.assert_allclose(by_throttle, (up - down) / 2e-4, rtol=1e-3, atol=1e-2)


def test_a_lever_multiplies_what_the_scale_shows():
    run = Truth(2).run()
    halved = replace(
        run,
        lever=2.0,
        points=tuple(
            replace(p, thrust_gf=None if p.thrust_gf is None else p.thrust_gf / 2)
            for p in run.points
        ),
    )
    straight, over = (estimate_drive(replace(DRIVE, runs=(each,))) for each in (run, halved))
    one, other = (each.predict("big", "six") for each in (straight, over))
    assert other.thrust_gf == pytest.approx(one.thrust_gf, rel=0.01)
    assert other.pack_a == pytest.approx(one.pack_a, rel=0.01)


def test_the_doubt_of_a_lever_does_not_average_out():
    run = Truth(2).run()
    sure, unsure = (
        estimate_drive(replace(DRIVE, runs=(replace(run, lever_doubt=doubt),)))
        for doubt in (0.0, 0.10)
    )
    one, other = (each.predict("big", "six") for each in (sure, unsure))
    assert other.thrust_sd_gf > 2 * one.thrust_sd_gf
    assert other.pack_sd_a == pytest.approx(one.pack_sd_a, rel=0.1)
    # Another run, straight off the scale, says how far the lever was off.
    second = Truth(2).run(id="s")
    both = (replace(run, lever=1.1, lever_doubt=0.10), second)
    told = estimate_drive(replace(DRIVE, runs=both))
    at = told.beliefs.lever_at("r")
    assert told.beliefs.lever_at("s") == -1
    assert told.mean[at] == pytest.approx(0.1, abs=0.03)
    assert told.cov[at, at] ** 0.5 < 0.05


def test_each_reading_is_told_beside_what_an_estimate_without_it_says():
    run = Truth(6).run()
    told = estimate_drive(replace(DRIVE, runs=(run,)))
    assert len(told.fits) == 3 * len(run.points)
    for k in (0, 3):
        (fit,) = [f for f in told.fits if (f.point, f.quantity) == (k, Quantity.CURRENT)]
        assert fit.read == run.points[k].pack_a
        without = tuple(replace(p, pack_a=None) if j == k else p for j, p in enumerate(run.points))
        alone = estimate_drive(replace(DRIVE, runs=(replace(run, points=without),)))
        rows = gathered(DRIVE, alone.beliefs, alone.runs)
        shown, _, by_throttle = predicted(DRIVE, alone.beliefs, rows, alone.mean, as_read=True)
        # the point's own throttle is told by its other readings too
        assert fit.expected == pytest.approx(shown[k, 1], abs=3 * abs(by_throttle[k, 1]) * 0.015)
        assert abs(fit.t) < 4.0


def test_a_reading_that_is_not_believed_has_no_distance():
    run = Truth(1).run()
    points = list(run.points)
    points[2] = replace(points[2], thrust_gf=round(points[2].thrust_gf / OUNCE_G, 1))
    told = estimate_drive(replace(DRIVE, runs=(replace(run, points=tuple(points)),)))
    (fit,) = [f for f in told.fits if (f.point, f.quantity) == (2, Quantity.THRUST)]
    assert fit.t is None
    assert fit.expected == pytest.approx(run.points[2].thrust_gf, rel=0.1)


def test_one_drive_of_those_that_are_possible_lies_within_what_is_told():
    told = estimate_drive(replace(DRIVE, runs=(Truth(2).run(),)))
    sure = told.predict("big", "six", 1.0, 4.2)
    off = []
    for seed in range(60):
        train = one_of_them(told, "big", "six", 4.2, seed)
        off.append((running(train, 1.0).thrust_gf - sure.thrust_gf) / sure.thrust_sd_gf)
    assert np.abs(off).max() < 4
    assert 0.3 < np.std(off) < 1.3
    assert one_of_them(told, "big", "six", 4.2, 1) == one_of_them(told, "big", "six", 4.2, 1)


def test_many_are_predicted_as_one_after_the_other():
    told = estimate_drive(replace(DRIVE, runs=(Truth(2).run(),)))
    asks = [("big", "six", 0.5, 4.2), ("small", "seven", 1.0, 3.85)]
    assert told.predict_all(asks) == tuple(told.predict(*each) for each in asks)


def test_what_many_unknowns_show_at_once_is_what_each_train_shows():
    """Drawn from what is believed before any run, each pack's rest voltage with its own error."""
    told = beliefs(DRIVE)
    rng = np.random.default_rng(5)
    unknowns = rng.multivariate_normal(told.mean, told.cov, size=6)
    pack, propeller = DRIVE.packs[-1].id, DRIVE.propellers[-1].id
    rows = asked(DRIVE, told, [(pack, propeller, throttle, 4.1) for throttle in (0.5, 1.0)])
    shown = shown_by(DRIVE, rows, unknowns, rows.throttle, as_read=False)
    for m, one in enumerate(unknowns):
        train = train_of(DRIVE, told, one, pack, propeller, 4.1)
        for r, throttle in enumerate((0.5, 1.0)):
            alone = running(train, throttle)
            by_itself = (alone.thrust_gf, alone.pack_a, alone.pack_v)
            assert shown[m, r] == pytest.approx(by_itself, rel=1e-6)
    cells, offset = DRIVE.packs[-1].cells, told.pack_at(pack) + 1
    up = told.mean.copy()
    up[offset] += 0.05
    trains = (train_of(DRIVE, told, each, pack, propeller, 4.1) for each in (told.mean, up))
    plain, higher = (each.rest_v for each in trains)
    assert (plain, higher - plain) == (pytest.approx(4.1 * cells), pytest.approx(0.05 * cells))


def test_thrust_for_its_power_has_the_doubt_of_all_three():
    """Against draws: thrust, current and voltage that go up and down together in part."""
    shown = np.array([480.0, 11.0, 10.8])
    roots = np.array([[14.0, 0.0, 0.0], [0.12, 0.2, 0.0], [-0.03, -0.04, 0.05]])
    cov = roots @ roots.T
    draws = np.random.default_rng(3).multivariate_normal(shown, cov, size=200_000)
    drawn = draws[:, 0] / (draws[:, 1] * draws[:, 2])
    ratio, sd = drive_estimate._per_watt(shown, cov)
    assert ratio == pytest.approx(480 / 118.8)
    assert sd == pytest.approx(float(drawn.std()), rel=0.02)
    assert drive_estimate._per_watt(np.array([0.0, 11.0, 10.8]), cov) == (0.0, 0.0)
    assert drive_estimate._per_watt(np.array([480.0, 0.0, 10.8]), cov) == (0.0, 0.0)
