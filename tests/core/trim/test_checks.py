"""Checks of the balance by hand, against the whole joint Gaussian written out."""

from dataclasses import replace
from datetime import timedelta
from math import radians, tan

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.special import ndtr

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.flight.centre_of_gravity import centre_of_gravity, stations
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.balancing import SUPPORT_DOUBT_MM, BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.trim.as_it_stood import ChangeKind, as_it_stands, changed_since
from oaken_scale.core.trim.beam import Checked
from oaken_scale.core.trim.check_reasons import Explains, Reason
from oaken_scale.core.trim.checks import HangFlaw, checked
from oaken_scale.core.trim.flown import fly
from tests.benches import MORNING


def thing(id: str, grams: float, x: float, sd: float = 2.0, y=0.0, z=0.0, **more) -> Part:
    more = {"doubt_g": 0.05 * grams, **more}
    return Part(
        id,
        id.title(),
        Pedigree.LISTING,
        stated_g=grams,
        station=Station(x, y, z, doubt_mm=sd),
        **more,
    )


def plane(*checks: BalanceCheck, parts=None) -> Build:
    parts = parts or (
        thing("motor", 50, 10),
        thing("pack", 100, 180),
        thing("wing", 150, 280, 4.0, z=60),
        thing("tail", 40, 760, 4.0),
        thing("body", 120, 350, 4.0),
    )
    return Build("b", "B", parts=parts, scales=(Scale("k", "K", 0.1, 0.05, 0.0),), checks=checks)


def sure(*checks: BalanceCheck) -> Build:
    """The plane with its masses known: a reaction then tells of the balance alone."""
    parts = tuple(replace(part, doubt_g=0.01) for part in plane().parts)
    return plane(*checks, parts=parts)


def support(x: float, **more) -> BalanceCheck:
    return BalanceCheck("c", MORNING, CheckKind.SUPPORT, None, x, **more)


def cg_of(build: Build):
    return fly(build).planes[0].cg


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


def reasons(build: Build) -> list[Reason]:
    return list(assess(build).beam.checks[0].reasons)


def test_one_that_agrees_needs_no_explanation():
    assert reasons(plane(support(cg_of(plane()).x_mm + 2))) == []


def test_a_disagreement_is_explained_by_the_other_pack():
    parts = (
        *plane().parts[2:],
        thing("big", 120, 60, option=True),
        thing("small", 60, 60, option=True),
    )
    loadouts = (Loadout("big", "Big pack", ("big",)), Loadout("small", "Small pack", ("small",)))
    build = replace(plane(parts=parts), loadouts=loadouts)
    there = fly(build).planes[1].cg.x_mm
    wrong = replace(support(there, by="pegs"), loadout="big")
    told = reasons(replace(build, checks=(wrong,)))
    assert told[0] == Reason(Explains.LOADOUT, loadout="small")


def test_a_station_measured_from_the_other_reference_is_found():
    """The receiver was measured from the leading edge and written down from the nose."""
    wing = Surface("w", "W", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))
    parts = (*plane().parts, thing("servos", 60, 90))
    build = replace(plane(parts=parts), surfaces=(wing,))
    true = tuple(
        replace(i, station=replace(i.station, reference=Reference.LEADING_EDGE))
        if i.id == "servos"
        else i
        for i in parts
    )
    found = cg_of(replace(build, parts=true)).x_mm
    told = reasons(replace(build, checks=(support(found, by="pegs"),)))
    assert Reason(Explains.FROM_LEADING_EDGE, part="servos") in told


def test_grams_at_the_tail_that_nobody_listed():
    x = cg_of(plane()).x_mm + 12
    told = reasons(plane(support(x, by="pegs")))
    grams = 12 * 460 / (760 - x)
    assert Reason(Explains.UNLISTED_TAIL, amount=pytest.approx(grams, abs=0.5)) in told


def test_checked_with_another_pack_only():
    parts = (*plane().parts, thing("cam", 30, 200, option=True))
    loadouts = (Loadout("with", "With", ("cam",)), Loadout("without", "Without"))
    one = replace(support(300.0), loadout="with")
    build = replace(plane(parts=parts), loadouts=loadouts, checks=(one,))
    with_it, without = assess(build).beam.loadouts
    assert with_it.checked.how is Checked.CHECKED
    assert (without.checked.how, without.checked.loadout) == (Checked.ANOTHER_LOADOUT, "with")
    later = replace(one, id="d", loadout="without", at=MORNING + timedelta(days=1))
    assert assess(replace(build, checks=(one, later))).progress.balance == 1.0


# A check has its time.


def stood(build: Build, x: float, loadout=None) -> Build:
    """The build with an agreeing peg check of how it stands now."""
    check = BalanceCheck(
        f"c{len(build.checks)}",
        MORNING,
        CheckKind.SUPPORT,
        loadout,
        x,
        "pegs",
        stood=as_it_stands(build, loadout),
    )
    return replace(build, checks=(*build.checks, check))


def since_of(told: Assessment) -> list[tuple[str, ChangeKind]]:
    """What sits otherwise since the last check of the first loadout."""
    checked = told.beam.loadouts[0].checked
    assert checked.how is Checked.NOT_SINCE
    return [(each.part, each.kind) for each in checked.since.changed]


def shifted(build: Build, id: str, by: float) -> Build:
    return replace(
        build,
        parts=tuple(
            replace(i, station=replace(i.station, x_mm=i.station.x_mm + by)) if i.id == id else i
            for i in build.parts
        ),
    )


def test_a_move_after_a_check_moves_the_cg_by_all_of_it():
    """100 g of 460 slid 40 mm: 8.70 mm, with a check before it or without."""
    without = cg_of(shifted(plane(), "pack", -40.0)).x_mm - cg_of(plane()).x_mm
    build = stood(plane(), cg_of(plane()).x_mm + 0.5)
    after = shifted(build, "pack", -40.0)
    assert without == pytest.approx(-40 * 100 / 460)
    assert cg_of(after).x_mm - cg_of(build).x_mm == pytest.approx(without, abs=0.15)
    told = assess(after)
    assert abs(told.beam.checks[0].t) < 0.5
    assert told.loadouts[0].answers[0].value == pytest.approx(
        assess(build).loadouts[0].answers[0].value, abs=1e-9
    )
    assert since_of(told) == [("pack", ChangeKind.MOVED)]


def test_what_was_moved_is_a_little_less_sure_than_before():
    build = stood(plane(), cg_of(plane()).x_mm)
    before, after = cg_of(build).x_sd_mm, cg_of(shifted(build, "pack", -40.0)).x_sd_mm
    still = cg_of(shifted(replace(build, checks=()), "pack", -40.0)).x_sd_mm
    assert before < after < still / 2, "what the check told of the rest is not forgotten"


def test_what_is_added_or_taken_off_leaves_the_check_as_it_was():
    build = stood(plane(), cg_of(plane()).x_mm)
    ballast = thing("lead", 20, 0, 0.0)
    more = replace(build, parts=(*build.parts, ballast))
    told = assess(more)
    assert abs(told.beam.checks[0].t) < 0.01
    assert since_of(told) == [("lead", ChangeKind.ADDED)]
    expected = (460 * cg_of(build).x_mm) / 480
    assert cg_of(more).x_mm == pytest.approx(expected, abs=0.05)
    off = replace(
        build,
        parts=tuple(
            replace(i, retired=True, retired_at=MORNING) if i.id == "tail" else i
            for i in build.parts
        ),
    )
    assert since_of(assess(off)) == [("tail", ChangeKind.TAKEN_OFF)]
    assert abs(assess(off).beam.checks[0].t) < 0.01


def test_a_check_of_one_loadout_moves_the_other_only_by_what_both_have():
    parts = tuple(replace(i, option=i.id == "pack") for i in plane().parts)
    loadouts = (Loadout("with", "With", ("pack",)), Loadout("bare", "Bare"))
    build = replace(plane(parts=parts), loadouts=loadouts)
    checked_ = stood(build, cg_of(build).x_mm, "with")
    moved = shifted(checked_, "pack", -60.0)
    bare = [fly(each).planes[1].cg.x_mm for each in (checked_, moved)]
    assert bare[0] == pytest.approx(bare[1], abs=1e-9)


def test_an_old_check_without_a_record_speaks_by_dates():
    check = support(280.0)
    assert assess(plane(check)).beam.checks[0].found_mm == 280.0
    assert changed_since(plane(check), check) == ()


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


def test_what_is_not_aboard_and_what_has_no_place_explains_nothing():
    """The likeliest to sit elsewhere stayed at home; another thing has no place at all."""
    loose = Part("loose", "Loose", Pedigree.GUESS, stated_g=40.0)
    for carried in (True, False):
        spare = thing("spare", 300, 80, option=True)
        spare = replace(spare, station=replace(spare.station, doubt_mm=20.0))
        loadouts = (Loadout("one", "One", ("spare",) if carried else ()),)
        build = replace(plane(parts=(*plane().parts, spare, loose)), loadouts=loadouts)
        off = replace(support(cg_of(build).x_mm + 40, by="pegs"), loadout="one")
        told = reasons(replace(build, checks=(off,)))
        named = [each.part for each in told if each.part]
        assert named
        assert ("spare" in named) is carried
        assert "loose" not in named
