"""Checks of the balance by hand, against the whole joint Gaussian written out."""

from dataclasses import replace
from math import radians, tan

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.special import ndtr

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.centre_of_gravity import centre_of_gravity, stations
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.balancing import SUPPORT_DOUBT_MM, BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.trim.as_it_stood import as_it_stands
from oaken_scale.core.trim.beam import Checked
from oaken_scale.core.trim.checks import HangFlaw, checked
from oaken_scale.core.trim.flown import fly
from tests.benches import MORNING
from tests.core.trim.checked_planes import cg_of, plane, support, sure, thing


def test_fingertips_pull_the_sum_to_them_as_far_as_each_is_trusted():
    before = cg_of(plane())
    after = cg_of(plane(support(before.x_mm + 6)))
    weight = before.x_sd_mm**2 / (before.x_sd_mm**2 + 3.0**2)
    assert after.x_mm == pytest.approx(before.x_mm + weight * 6, abs=0.05)
    assert after.x_sd_mm == pytest.approx(before.x_sd_mm * (1 - weight) ** 0.5, rel=0.01)


def on_a_grid(mean, sd, weight):
    """Mean and sd of a Gaussian times a weight, by sums over a fine grid."""
    at = np.linspace(mean - 12 * sd, mean + 12 * sd, 200_001)
    share = np.exp(-0.5 * ((at - mean) / sd) ** 2) * weight(at)
    share /= share.sum()
    told = float(share @ at)
    return told, float(share @ (at - told) ** 2) ** 0.5


@pytest.mark.parametrize("off", [-12.0, -3.0, 0.0, 4.0, 15.0])
@pytest.mark.parametrize(("feel", "side"), [("tail drops", 1), ("nose drops", -1)])
def test_that_an_end_drops_cuts_off_what_is_believed_on_the_other_side(off, feel, side):
    before = cg_of(plane())
    x = before.x_mm + off
    held = SUPPORT_DOUBT_MM["fingertips"]
    expected = on_a_grid(before.x_mm, before.x_sd_mm, lambda at: ndtr(side * (at - x) / held))
    after = cg_of(plane(support(x, by=feel)))
    # The CG is a ratio of sums; the ledger is linear in both.
    assert after.x_mm == pytest.approx(expected[0], abs=0.1)
    assert after.x_sd_mm == pytest.approx(expected[1], rel=0.02)


def test_what_everybody_knew_already_tells_nothing():
    before = cg_of(plane())
    after = cg_of(plane(support(before.x_mm - 100, by="tail drops")))
    assert (after.x_mm, after.x_sd_mm) == pytest.approx((before.x_mm, before.x_sd_mm), abs=1e-6)


def test_level_by_feel_is_half_as_sure_as_by_looking():
    x = cg_of(plane()).x_mm + 6
    before = cg_of(plane())
    weight = before.x_sd_mm**2 / (before.x_sd_mm**2 + 6.0**2)
    after = cg_of(plane(support(x, by="level by feel")))
    assert after.x_mm == pytest.approx(before.x_mm + weight * 6, abs=0.05)


@pytest.mark.parametrize(("feel", "ahead"), [("nose a hand low", True), ("tail a hand low", False)])
def test_a_hand_low_is_so_many_millimetres(feel, ahead):
    """Held 20 mm above its CG: 20 times a hand over the way to that end, 90/(225 - 10) at the
    nose, 90/(760 - 225) at the tail."""
    told = fly(plane(support(225.0, by=feel))).checks[0]
    by = 20 * 90 / (225 - 10) if ahead else -20 * 90 / (760 - 225)
    assert told.found_mm == pytest.approx(225 - by)
    slope = abs(by) / 20
    assert told.found_sd_mm == pytest.approx((3.0**2 + (10 * slope) ** 2) ** 0.5)


def test_a_feel_that_contradicts_the_sum_is_told_by_how_far():
    cg = cg_of(plane())
    spread = (cg.x_sd_mm**2 + 3.0**2) ** 0.5
    wrong = fly(plane(support(cg.x_mm + 3 * spread, by="tail drops"))).checks[0]
    assert wrong.t == pytest.approx(3.0)
    assert wrong.reasons
    right = fly(plane(support(cg.x_mm - 9, by="tail drops"))).checks[0]
    assert (right.t, right.reasons, right.feel) == (0.0, (), "tail drops")


@pytest.mark.parametrize(
    ("by", "counts"), [("tail drops", False), ("nose a hand low", False), ("level by feel", True)]
)
def test_an_end_that_drops_is_no_check_of_where_the_plane_balances(by, counts):
    (told,) = assess(plane(support(cg_of(plane()).x_mm, by=by))).beam.loadouts
    assert (told.checked.how is not Checked.NEVER) is counts


def test_a_fuselage_alone_speaks_of_what_is_in_it_and_is_no_check_of_the_plane():
    held = ("motor", "pack", "body", "tail")
    build = plane()
    alone = replace(build, parts=tuple(each for each in build.parts if each.id in held))
    x = cg_of(alone).x_mm + 12
    stood_then = as_it_stands(build, None, held)
    assert {each.part for each in stood_then} == set(held)
    check = support(x, by="pegs", held_alone="Fuselage, loaded", stood=stood_then)
    joint = cg_of(replace(alone, checks=(replace(check, held_alone=""),)))
    told = fly(replace(build, checks=(check,)))
    there = np.array([float(part.id in held) for part in build.parts])
    seen = centre_of_gravity(told.after.mass, told.after.mass_cov, told.where, there)
    assert seen.x_mm == pytest.approx(joint.x_mm, abs=1e-6)
    assert told.checks[0].held_alone == "Fuselage, loaded"
    assert told.planes[0].cg.x_mm > cg_of(build).x_mm + 4  # the wing hangs on as it was
    beam = assess(replace(build, checks=(check,))).beam
    assert beam.loadouts[0].checked.how is Checked.NEVER


def test_pegs_are_trusted_more_than_fingertips():
    x = cg_of(plane()).x_mm + 5
    pegs, fingers = (cg_of(plane(support(x, by=by))) for by in ("pegs", "fingertips"))
    assert abs(pegs.x_mm - x) < abs(fingers.x_mm - x)
    assert pegs.x_sd_mm < fingers.x_sd_mm


def test_reaction_on_one_scale_is_where_the_moments_say():
    """Supports at 100 and 500 mm; the aft one reads M (x - 100)/400."""
    build = plane()
    total = sum(part.stated_g for part in build.parts)
    x = cg_of(build).x_mm + 4
    check = BalanceCheck(
        "c",
        MORNING,
        CheckKind.SUPPORTS,
        None,
        100.0,
        other_mm=500.0,
        reading_g=total * (x - 100) / 400,
        scale="k",
    )
    (told,) = assess(plane(check)).beam.checks
    assert told.found_mm == pytest.approx(x, abs=1e-6)
    assert cg_of(sure(check)).x_mm == pytest.approx(x, abs=1.2)
    assert cg_of(sure(check)).x_sd_mm < 1.1


def test_a_hang_angle_by_hand():
    build = plane()
    cg = cg_of(build)
    check = BalanceCheck(
        "c", MORNING, CheckKind.HANG, None, cg.x_mm + 5, z_mm=cg.z_mm + 80, nose_down_deg=4.0
    )
    (told,) = assess(plane(check)).beam.checks
    assert told.found_mm == pytest.approx(cg.x_mm + 5 - 80 * tan(radians(4)), abs=1e-6)


def test_left_and_right_speak_of_the_middle_line():
    build = plane()
    total = sum(part.stated_g for part in build.parts)
    check = BalanceCheck(
        "c",
        MORNING,
        CheckKind.SIDES,
        None,
        -300.0,
        other_mm=300.0,
        reading_g=total * (300 + 4) / 600,
        scale="k",
    )
    told = assess(plane(check))
    assert told.beam.checks[0].across
    assert told.beam.checks[0].found_mm == pytest.approx(4.0)
    assert 2.0 < cg_of(sure(check)).y_mm < 4.0
    assert cg_of(sure(check)).x_mm == pytest.approx(cg_of(build).x_mm, abs=0.01)


def joint(build: Build):
    """Masses and x stations as one Gaussian, conditioned on every check: two Gauss-Newton steps
    with the full matrices."""
    after, where = solve(build), stations(build, None)
    n = len(build.parts)
    mean = np.concatenate([after.mass, np.zeros(n)])
    prior = np.zeros((2 * n, 2 * n))
    prior[:n, :n] = after.mass_cov
    prior[n:, n:] = np.diag(where.doubt**2)
    total = after.mass.sum()
    z = mean
    for _ in range(2):
        m, shift = z[:n], z[n:]
        rows = np.array(
            [np.concatenate([where.xyz[:, 0] + shift - c.x_mm, m]) for c in build.checks]
        )
        said = np.array([(where.xyz[:, 0] + shift - c.x_mm) @ m for c in build.checks])
        noise = np.diag([(total * (c.doubt or 3.0)) ** 2 for c in build.checks])
        gain = prior @ rows.T @ np.linalg.inv(rows @ prior @ rows.T + noise)
        z = mean + gain @ (-said + rows @ (z - mean))
    return z, prior - gain @ rows @ prior


@given(st.lists(st.tuples(st.floats(220, 330), st.floats(0.5, 6)), min_size=1, max_size=3))
@settings(deadline=None, max_examples=25)
def test_any_checks_agree_with_the_joint_gaussian_written_out(given_checks):
    checks = tuple(
        replace(support(x, doubt=doubt), id=f"c{k}") for k, (x, doubt) in enumerate(given_checks)
    )
    build = plane(*checks)
    z, cov = joint(build)
    after, where, _ = checked(build, solve(build), stations(build, None))
    n = len(build.parts)
    assert after.mass == pytest.approx(z[:n], rel=1e-8)
    assert after.mass_cov == pytest.approx(cov[:n, :n], rel=1e-6, abs=1e-8)
    x = stations(build, None).xyz[:, 0] + z[n:]
    assert where.xyz[:, 0] == pytest.approx(x, rel=1e-9)
    total = z[:n].sum()
    centre = float(z[:n] @ x / total)
    gradient = np.concatenate([(x - centre) / total, z[:n] / total])
    cg = centre_of_gravity(after.mass, after.mass_cov, where, np.ones(n))
    assert cg.x_mm == pytest.approx(centre, abs=1e-6)
    assert cg.x_sd_mm == pytest.approx(float(gradient @ cov @ gradient) ** 0.5, rel=1e-6)


def test_set_aside_it_speaks_no_more_and_is_still_told():
    check = replace(support(300.0), set_aside="held it wrong")
    told = assess(plane(check))
    assert told.parts == assess(plane()).parts
    assert told.beam.checks[0].found_mm == 300.0
    assert told.beam.loadouts[0].checked.how is Checked.NEVER


@pytest.mark.parametrize(("above", "flaw"), [(1.0, None), (-1.0, HangFlaw.TIPS_OVER)])
def test_hung_from_below_its_cg_a_plane_tips_over_and_tells_nothing(above, flaw):
    cg = cg_of(plane())
    check = BalanceCheck(
        "c", MORNING, CheckKind.HANG, None, cg.x_mm, z_mm=cg.z_mm + above, nose_down_deg=0.0
    )
    (told,) = assess(plane(check)).beam.checks
    assert told.flaw is flaw


def test_hung_where_nobody_said_how_high_anything_is_it_is_said():
    parts = (thing("motor", 50, 10), thing("pack", 100, 180), thing("body", 120, 350, 4.0))
    check = BalanceCheck("c", MORNING, CheckKind.HANG, None, 220.0, z_mm=80.0, nose_down_deg=4.0)
    (told,) = assess(plane(check, parts=parts)).beam.checks
    assert told.flaw is HangFlaw.NO_HEIGHTS
    # A check of another kind has no such flaw.
    (told,) = assess(plane(support(220.0), parts=parts)).beam.checks
    assert told.flaw is None
