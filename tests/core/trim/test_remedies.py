"""Remedies against exhaustive search, and cases worked by hand."""

from dataclasses import replace
from itertools import product
from statistics import NormalDist

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.assess import assess
from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.as_it_stood import as_it_stands
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.obstacles import Limit
from oaken_scale.core.trim.remedies import Outcome, applied, what_would_fix
from oaken_scale.core.trim.remedy_program import solve_least
from oaken_scale.core.trim.remedy_rows import SIDEWAYS_MM
from tests.benches import MORNING
from tests.core.trim.planes import BODY, NOSE, best, plane, ready, remedies, spot, thing


def test_a_plane_in_its_range_is_left_alone():
    told = remedies(ready(plane(thing("body", 300, 250))))
    assert told.outcome is Outcome.FINE
    assert told.best.slides == ()


def test_the_pack_moves_before_any_ballast_goes_in():
    """300 at 280, 40 at 700, pack 100 at 190: 299.5; to 255 the pack goes to 30.4 less."""
    parts = (*BODY, thing("pack", 100, 190, (-200, 240)))
    told = remedies(ready(plane(*parts, ballast=NOSE)))
    moment = 300 * 280 + 40 * 700 + 100 * 190
    to = 190 - (moment - 255 * 440) / 100
    assert told.best.ballast == ()
    assert told.best.slides[0].to_mm == pytest.approx(to, abs=0.01)
    assert told.outcome is Outcome.FOUND
    assert told.best.loadouts[0].x_mm == pytest.approx(255.0, abs=1e-3)


def test_what_the_slide_leaves_is_made_up_with_the_least_ballast():
    parts = (*BODY, thing("pack", 100, 190, (120, 240)))
    told = best(plane(*parts, ballast=NOSE))
    need = (300 * 280 + 40 * 700 + 100 * 120 - 255 * 440) / 255
    assert told.slides[0].to_mm == pytest.approx(120.0)
    assert told.ballast_g == pytest.approx(need, abs=1e-3)


def test_the_lightest_pack_rules_and_the_heavy_one_slides_back():
    """Both packs sit in the same bay; the light one needs ballast, then the heavy one is aft."""
    parts = (
        *BODY,
        thing("light", 60, 100, (100, 260), option=True),
        thing("heavy", 130, 100, (100, 260), option=True),
    )
    loadouts = (Loadout("l", "Light", ("light",)), Loadout("h", "Heavy", ("heavy",)))
    told = best(plane(*parts, ballast=NOSE, loadouts=loadouts))
    need = (300 * 280 + 40 * 700 + 60 * 100 - 255 * 400) / 255
    assert told.ballast_g == pytest.approx(need, abs=1e-3)
    assert [each.part for each in told.slides] == ["heavy"]
    assert all(245 - 1e-3 <= each.x_mm <= 255 + 1e-3 for each in told.loadouts)


def test_pieces_are_used_whole_and_pairs_on_both_sides():
    spots = (BallastSpot("tips", "Tips", 100.0, 400.0, pair=True),)
    ballast = Ballast(spots, (4.0, 4.0, 6.0, 9.0, 9.0))
    told = best(plane(thing("body", 300, 262), ballast=ballast))
    need = 300 * (262 - 255) / (255 - 100)
    options = [2 * a for a in (4.0, 9.0, 13.0) if 2 * a >= need]
    assert told.ballast_g == min(options)
    assert told.ballast[0].pieces == (9.0,)


def test_a_piece_that_is_aboard_is_at_hand_no_more():
    """A pair takes one on each side; half an ounce is known to the microgram by the search."""
    half_ounce = 14.1747615625
    spots = (BallastSpot("tips", "Tips", 100.0, 400.0, pair=True),)
    ballast = Ballast(spots, (half_ounce, 4.0, half_ounce, half_ounce))
    build = plane(thing("body", 300, 267), ballast=ballast)
    assert best(build).ballast[0].pieces == pytest.approx((half_ounce,))
    done = applied(build, best(build))
    assert done.ballast.pieces == (4.0, half_ounce)
    assert [part.stated_g for part in done.parts[1:]] == [14.17, 14.17]
    assert done.ballast.spots == spots


def test_the_heavy_wing_is_answered_at_the_other_tip():
    spots = (
        BallastSpot("left", "Left tip", 250.0, -500.0),
        BallastSpot("right", "Right tip", 250.0, 500.0),
    )
    parts = (thing("body", 300, 250), thing("panel", 100, 250, y=30.0))
    told = best(plane(*parts, ballast=Ballast(spots)))
    # 500 b - 3 b >= 3000 - 3 * 400
    assert [each.spot for each in told.ballast] == ["left"]
    assert told.ballast_g == pytest.approx(
        (3000 - SIDEWAYS_MM * 400) / (500 + SIDEWAYS_MM), abs=0.01
    )


def test_ballast_that_breaks_the_limit_is_told_beside_the_slide():
    parts = (*BODY, thing("pack", 100, 190, (-200, 240)))
    told = remedies(ready(plane(*parts, most=445.0, ballast=NOSE)))
    assert [each.breaks_limit for each in told.others] == [True]


def test_a_thing_outside_its_slide_moves_into_it_or_not_at_all():
    pack = thing("pack", 100, 300, (240, 260))
    stays = best(plane(thing("body", 300, 250), pack, low=200.0, high=300.0))
    assert stays.slides == ()
    # 300 at 250 and 100 at 300 balance at 262.5; at 260 and below there is room.
    moves = best(plane(thing("body", 300, 250), pack, low=200.0, high=254.0))
    assert moves.slides[0].to_mm == pytest.approx(260.0)
    far = best(plane(thing("body", 300, 250), pack, low=200.0, high=249.0))
    assert far.slides[0].to_mm == pytest.approx(246.0)
    # It may not be pushed farther out: a nose-heavy plane is not answered by 340.
    told = remedies(ready(plane(thing("body", 300, 240), pack, low=258.0, high=262.0)))
    assert told.best is None


def test_pieces_that_step_over_the_narrowed_range_are_told_with_their_chance():
    """Twenty-four pieces of 2.4 g, and a range so narrow beside its doubt that none is sure."""
    vague = replace(thing("body", 500, 262), station=Station(262.0, doubt_mm=3.0))
    ballast = replace(spot(8.0), pieces=(2.4,) * 24)
    build = plane(vague, low=238.0, high=241.0, ballast=ballast)
    told = remedies(ready(build))
    (placed,) = told.best.ballast
    assert set(placed.pieces) == {2.4}
    at = told.best.loadouts[0].x_mm
    assert 238.0 <= at <= 241.0
    sigma = fly(build).planes[0].cg.x_sd_mm
    normal = NormalDist(at, sigma)
    assert told.best.chance == pytest.approx(normal.cdf(241.001) - normal.cdf(237.999), abs=1e-4)
    assert not told.sure
    # No other number of pieces has a better chance.
    for count in range(1, 25):
        x = (500 * 262 + 2.4 * count * 8) / (500 + 2.4 * count)
        other = NormalDist(x, sigma)
        assert other.cdf(241) - other.cdf(238) <= told.best.chance + 2e-3


@pytest.mark.parametrize("pull", [150.0, 205.0, 215.0, 225.0, 235.0])
def test_with_two_loadouts_the_worse_chance_is_made_the_best(pull):
    """No number of pieces gives the loadout that is worse off a better chance."""
    vague = replace(thing("body", 300, 262), station=Station(262.0, doubt_mm=3.0))
    parts = (vague, thing("light", 20, 250, option=True), thing("heavy", 220, pull, option=True))
    loadouts = (Loadout("l", "Light", ("light",)), Loadout("h", "Heavy", ("heavy",)))
    ballast = replace(spot(8.0), pieces=(2.4,) * 24)
    build = plane(*parts, low=245.0, high=248.0, ballast=ballast, loadouts=loadouts)
    told = remedies(ready(build)).best
    sigma = [each.cg.x_sd_mm for each in fly(build).planes]

    def worst(count: int) -> float:
        """How many sigma inside the range the worse of them is."""
        added, inside = 2.4 * count, []
        for (grams, x), sd in zip(((20, 250.0), (220, pull)), sigma, strict=True):
            at = (300 * 262 + grams * x + added * 8) / (300 + grams + added)
            inside.append(min(at - 245.0, 248.0 - at) / sd)
        return min(inside)

    most = max(worst(count) for count in range(25))
    if told is None:
        assert most < 0  # none brings both of them into the range
    else:
        assert worst(sum(len(each.pieces) for each in told.ballast)) >= most - 0.05


def test_what_would_make_it_surer_is_said():
    heavy = Part("body", "Body", Pedigree.GUESS, stated_g=300.0, station=Station(255.0))
    tail = Part("tail", "Tail boom", Pedigree.GUESS, stated_g=60.0, station=Station(700.0))
    build = plane(heavy, tail, thing("pack", 100, 190, (-300, 240)), low=248.0, high=252.0)
    told = remedies(ready(build))
    assert told.best.chance < 0.84
    assert told.unsure_part == "tail"


def test_a_pair_counts_twice_against_the_weight_limit():
    spots = (BallastSpot("tips", "Tips", 0.0, 400.0, pair=True),)
    need = 300 * (262 - 255) / 255
    parts = (thing("body", 300, 262),)
    fits = plane(*parts, ballast=Ballast(spots), most=300 + need + 0.1)
    assert best(fits).ballast_g == pytest.approx(need, abs=1e-3)
    assert best(fits).ballast[0].grams == pytest.approx(need / 2, abs=1e-3)
    told = remedies(ready(replace(fits, targets=plane(*parts, most=300 + need - 1).targets)))
    assert told.best is None
    assert told.in_the_way.limit is Limit.WEIGHT
    assert told.in_the_way.amount == pytest.approx(1.0, abs=0.01)


def test_done_once_is_done():
    """Nothing more is asked for, whatever was moved and put in."""
    for body_x in (272.0, 280.0, 290.0):
        vague = Part("body", "Body", Pedigree.GUESS, stated_g=300.0, station=Station(body_x))
        pack = Part(
            "pack",
            "Pack",
            Pedigree.LISTING,
            stated_g=100.0,
            station=Station(220.0),
            slide=Slide(200.0, 230.0),
        )
        build = plane(vague, pack, ballast=spot(), low=225.0, high=255.0)
        told = what_would_fix(build)
        assert told.best.slides or told.best.ballast
        done = applied(build, told.best)
        again = what_would_fix(done)
        assert (again.best.slides, again.best.ballast) == ((), ()), body_x


def test_after_a_check_a_remedy_ends_in_nothing_to_fix():
    """The check keeps the plane as it stood: what is moved afterwards moves the CG by all of it."""
    parts = (thing("body", 300, 268), thing("pack", 100, 240, (120, 260)))
    parts = tuple(replace(i, station=replace(i.station, doubt_mm=4.0)) for i in parts)
    build = plane(*parts)
    here = fly(build).planes[0].cg.x_mm
    check = BalanceCheck(
        "c", MORNING, CheckKind.SUPPORT, None, here + 1.0, "pegs", stood=as_it_stands(build, None)
    )
    build = replace(build, checks=(check,))
    told = remedies(ready(build))
    done = applied(build, told.best)
    assert fly(done).planes[0].cg.x_mm == pytest.approx(told.best.loadouts[0].x_mm, abs=0.06)
    assert remedies(ready(done)).best.slides == ()
    (checked,) = assess(done).beam.checks
    assert checked.found_mm == pytest.approx(here + 1.0)
    assert abs(checked.t) < 1


def test_the_range_is_narrowed_by_the_doubt_of_the_balance():
    vague = replace(thing("body", 300, 254), station=Station(254.0, doubt_mm=4.0))
    told = best(plane(vague, thing("pack", 100, 254, (100, 400))))
    cg = fly(plane(vague, thing("pack", 100, 254))).planes[0].cg
    assert told.loadouts[0].x_mm == pytest.approx(255 - cg.x_sd_mm, abs=1e-3)


def test_done_for_real_every_loadout_is_where_it_was_promised():
    wing = Surface("w", "W", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))
    from_edge = Station(-10.0, reference=Reference.LEADING_EDGE, doubt_mm=0.0)
    pack = replace(thing("pack", 100, 0, (-80, 40)), station=from_edge)
    build = plane(*BODY, pack, ballast=NOSE, surfaces=(wing,))
    told = best(build)
    done = applied(build, told)
    assert fly(done).planes[0].cg.x_mm == pytest.approx(told.loadouts[0].x_mm, abs=0.05)
    assert any(part.name == "Ballast, nose" for part in done.parts)
    assert assess(done).beam.loadouts[0].off_mm == pytest.approx(0.0, abs=0.05)


def searched(build: Build, step: float = 5.0) -> float | None:
    """The least ballast by trying everything: slides on a grid, every use of the pieces."""
    flown, on = fly(build), build.ballast
    sliding = [i for i, part in enumerate(build.parts) if part.slide]
    grids = [
        np.arange(build.parts[i].slide.low_mm, build.parts[i].slide.high_mm + 0.1, step)
        for i in sliding
    ]
    most = next((t.high for t in build.targets if t.kind is TargetKind.AUW), np.inf)
    low, high = build.targets[0].low, build.targets[0].high
    least = None
    for use in product(range(len(on.spots) + 1), repeat=len(on.pieces)):
        grams = [
            sum(p for p, u in zip(on.pieces, use, strict=True) if u == s + 1)
            for s in range(len(on.spots))
        ]
        if any(g > s.most_g for g, s in zip(grams, on.spots, strict=True)):
            continue
        total = sum(grams)
        if least is not None and total >= least:
            continue
        pull = sum(g * s.x_mm for g, s in zip(grams, on.spots, strict=True))
        for to in product(*grids):
            fits = True
            for plane_ in flown.planes:
                mass = plane_.after.mass * plane_.aboard
                x = plane_.where.xyz[:, 0].copy()
                x[sliding] = to
                weighs = mass.sum() + total
                at = (mass @ x + pull) / weighs
                if not low - 1e-9 <= at <= high + 1e-9 or weighs > most:
                    fits = False
                    break
            if fits:
                least = total
                break
    return least


@given(
    st.floats(255, 300),
    st.floats(20, 80),
    st.floats(20, 120),
    st.lists(st.sampled_from([2.0, 5.0, 8.0, 12.0]), max_size=4),
    st.booleans(),
)
@settings(deadline=None, max_examples=30)
def test_no_search_finds_less_ballast(body_x, light, heavy, pieces, limited):
    parts = (
        thing("body", 300, body_x),
        thing("receiver", 20, 240, (220, 260)),
        thing("light", light, 180, (160, 200), option=True),
        thing("heavy", heavy, 180, (160, 200), option=True),
    )
    spots = (BallastSpot("nose", "Nose", 0.0, most_g=18.0), BallastSpot("bay", "Bay", 100.0))
    build = plane(
        *parts,
        low=240.0,
        high=256.0,
        most=450.0 if limited else None,
        ballast=Ballast(spots, tuple(pieces)),
        loadouts=(Loadout("l", "L", ("light",)), Loadout("h", "H", ("heavy",))),
    )
    found, tried = solve_least(ready(build)), searched(build)
    if tried is not None:
        assert found is not None
        assert found.ballast_g <= tried + 1e-6
    if found is not None:
        assert all(240 - 1e-3 <= each.x_mm <= 256 + 1e-3 for each in found.loadouts)
        assert not limited or all(each.auw_g <= 450 + 1e-3 for each in found.loadouts)
        for each in found.ballast:
            spot = next(s for s in spots if s.id == each.spot)
            assert each.grams <= spot.most_g + 1e-6
            assert sum(each.pieces) == pytest.approx(each.grams) or not pieces


def inside(x: float, sd: float, low: float, high: float) -> float:
    normal = NormalDist(x, sd)
    return normal.cdf(high) - normal.cdf(low)


def test_where_nothing_brings_it_farther_in_it_stays_and_is_told_with_its_chance():
    """254 of 245 to 255, in doubt by 4: sure is no place near the edge, and the receiver in its
    two millimetres moves the CG by a fifteenth of one."""
    vague = replace(thing("body", 300, 254), station=Station(254.0, doubt_mm=4.0))
    build = plane(vague, thing("receiver", 10, 254, (253, 255)))
    told = remedies(ready(build))
    assert told.outcome is Outcome.NO_FARTHER
    assert (told.best.slides, told.best.ballast, told.others) == ((), (), ())
    cg = fly(build).planes[0].cg
    assert told.best.chance == pytest.approx(inside(254.0, cg.x_sd_mm, 244.999, 255.001))
    assert not told.sure
    # With a bay worth the name it moves.
    roomy = plane(vague, thing("receiver", 10, 254, (100, 255)))
    assert remedies(ready(roomy)).outcome is Outcome.FOUND


def test_no_move_is_proposed_that_helps_one_loadout_as_much_as_it_hurts_another():
    vague = replace(thing("body", 300, 250), station=Station(250.0, doubt_mm=3.0))
    parts = (
        vague,
        thing("receiver", 30, 250, (150, 350)),
        thing("ahead", 20, 201.8, option=True),
        thing("aft", 20, 298.2, option=True),
    )
    loadouts = (Loadout("a", "Ahead", ("ahead",)), Loadout("b", "Aft", ("aft",)))
    build = plane(*parts, low=246.0, high=254.0, loadouts=loadouts)
    told = remedies(ready(build))
    assert told.outcome is Outcome.NO_FARTHER
    at = [(300 * 250 + 30 * 250 + 20 * x) / 350 for x in (201.8, 298.2)]
    assert [each.x_mm for each in told.best.loadouts] == pytest.approx(at)


def test_ballast_of_a_pair_is_two_parts_with_names_that_are_free():
    spots = (BallastSpot("tips", "Tips", 0.0, 400.0, pair=True),)
    build = plane(thing("body", 300, 262), ballast=Ballast(spots))
    told = best(build)
    done = applied(build, told, MORNING)
    right, left = done.parts[1:]
    assert [(each.id, each.name) for each in (right, left)] == [
        ("ballast-tips-right", "Ballast, tips, right"),
        ("ballast-tips-left", "Ballast, tips, left"),
    ]
    assert [each.station.y_mm for each in (right, left)] == [400.0, -400.0]
    assert {each.added_at for each in (right, left)} == {MORNING}
    assert right.stated_g + left.stated_g == pytest.approx(told.ballast_g, abs=0.02)
    again = applied(done, told)
    assert [each.id for each in again.parts[3:]] == ["ballast-tips-right-2", "ballast-tips-left-2"]


def test_pieces_that_weigh_nothing_balance_nothing_and_break_nothing():
    body = thing("body", 300, 262)
    told = remedies(ready(plane(body, ballast=Ballast(spot().spots, (1e-9, 2e-7)))))
    assert told.best is None
    assert told.in_the_way.limit is Limit.BALLAST
    # Beside one that weighs something it is that one which goes in.
    told = remedies(ready(plane(body, ballast=Ballast(spot().spots, (1e-9, 12.0)))))
    assert told.best.ballast_g == pytest.approx(12.0, abs=1e-5)


@pytest.mark.parametrize("side", [1.0, -1.0], ids=["right wing heavy", "left wing heavy"])
def test_what_hangs_to_one_side_is_held_at_the_other_tip(side):
    """By hand: 300 g lie 12 mm off the middle, and 3 are felt by nobody. A gram at 400 mm takes
    away its moment, and the plane that it makes heavier may lie that much farther off."""
    tip = Ballast((BallastSpot("tip", "Tip", 250.0, -400.0 * side, most_g=50.0),))
    told = best(plane(thing("body", 300, 262, y=12.0 * side), low=200.0, high=261.9, ballast=tip))
    assert told.ballast_g == pytest.approx(300 * (12.0 - SIDEWAYS_MM) / (400.0 + SIDEWAYS_MM))


def test_where_the_doubt_is_as_wide_as_the_range_no_ballast_is_spent_on_its_middle():
    """A heavy pack that nobody weighed has a doubt wider than half the range: to hold it and the
    camera to the middle fifth would take more than a hundred grams, and make it no surer. The
    light pack, which is known, keeps its sigma from the edge."""
    body = thing("body", 520, 310)
    body = replace(body, station=replace(body.station, doubt_mm=3.0))
    light = thing("light", 74, 165, (0, 840), option=True)
    heavy = replace(thing("heavy", 108, 89, (0, 840), option=True), doubt_g=27.0)
    heavy = replace(heavy, station=replace(heavy.station, doubt_mm=30.0))
    camera = thing("camera", 62, 228, option=True)
    ways = {"a": ("light",), "b": ("light", "camera"), "c": ("heavy",), "d": ("heavy", "camera")}
    loadouts = tuple(Loadout(id, id, aboard) for id, aboard in ways.items())
    build = plane(
        body, light, heavy, camera, low=256.0, high=269.0, loadouts=loadouts, ballast=spot(most=500)
    )
    held = ready(build)
    strict, told = solve_least(held), best(build)
    assert told.ballast_g < strict.ballast_g / 2
    assert told.chance > strict.chance - 0.021
    assert held.u[:2].min() > 2.0
    for k, each in enumerate(told.loadouts[:2]):
        assert each.x_mm <= 269.0 - held.u[k] + 1e-3
