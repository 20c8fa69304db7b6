"""What stands in the way of every remedy, and what would make it work: cases worked by hand."""

from dataclasses import replace

import pytest

from oaken_scale.core.model.balancing import Ballast, BallastSpot
from oaken_scale.core.model.build import Loadout
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.trim.obstacles import Limit, Tip, sideways
from oaken_scale.core.trim.remedies import Outcome, applied, what_would_fix
from oaken_scale.core.trim.remedy import Comes
from tests.core.trim.planes import BODY, NOSE, plane, ready, remedies, spot, thing


def replace_y(part, y):
    return replace(part, station=replace(part.station, y_mm=y))


@pytest.mark.parametrize(
    ("build", "limit"),
    [
        (plane(*BODY, most=345.0, ballast=NOSE), Limit.WEIGHT),
        (plane(*BODY, thing("pack", 100, 190, (180, 240))), Limit.SLIDES),
        (
            plane(
                thing("body", 300, 290),
                ballast=Ballast((BallastSpot("nose", "Nose", 0.0, most_g=5.0),)),
            ),
            Limit.BALLAST,
        ),
        (
            plane(thing("body", 300, 250, y=50.0), thing("pack", 10, 250, (240, 260))),
            Limit.SIDEWAYS,
        ),
    ],
)
def test_what_stands_in_the_way_is_named(build, limit):
    told = remedies(ready(build))
    assert told.best is None
    assert told.in_the_way.limit is limit


def test_with_no_permission_at_all_the_pack_and_the_nose_are_offered():
    parts = (*BODY, thing("pack", 100, 190))
    told = remedies(ready(plane(*parts)))
    assert told.best is None
    assert told.in_the_way.limit is Limit.PERMISSION
    assert not told.in_the_way.may_move
    slide, nose = told.offers
    assert slide.offer
    assert [each.part for each in slide.slides] == ["pack"]
    assert nose.offer
    assert nose.spots[0].x_mm == 0.0
    done = applied(plane(*parts), slide)
    pack = next(part for part in done.parts if part.id == "pack")
    assert pack.slide.low_mm == pytest.approx(pack.station.x_mm)
    assert pack.slide.high_mm == 190.0


LIGHT_PACK = (*BODY, thing("pack", 20, 300))
"""118000 g mm in 360 g, at 327.8: with the pack in the nose it would be at 311.1."""


def test_where_neither_alone_would_do_the_pack_and_the_nose_are_offered_together():
    told = remedies(ready(plane(*LIGHT_PACK, most=450.0)))
    assert told.in_the_way.limit is Limit.PERMISSION
    (both,) = told.offers
    (slid,) = both.slides
    assert (slid.part, slid.to_mm) == ("pack", pytest.approx(0.0, abs=1e-3))
    assert both.ballast_g == pytest.approx(300 * 280 / 255 + 40 * 700 / 255 - 360, abs=0.01)
    assert not both.breaks_limit
    assert [each.x_mm for each in both.loadouts] == [pytest.approx(255.0, abs=1e-3)]


def test_where_the_pack_alone_does_not_reach_it_is_moved_before_the_ballast_that_would_do_alone():
    both, nose = remedies(ready(plane(*LIGHT_PACK))).offers
    assert [each.part for each in both.slides] == ["pack"]
    assert both.ballast_g == pytest.approx(112_000 / 255 - 360, abs=0.01)
    assert nose.slides == ()
    assert nose.ballast_g == pytest.approx(118_000 / 255 - 360, abs=0.01)
    assert [each.breaks_limit for each in (both, nose)] == [False, False]


@pytest.mark.parametrize("most", [400.0, 300.0])
def test_over_the_weight_limit_what_would_do_is_offered_and_says_so(most):
    """Also where the plane is over it as it is: its balance is no better for that."""
    told = remedies(ready(plane(*LIGHT_PACK, most=most)))
    assert told.in_the_way.limit is Limit.PERMISSION
    both, nose = told.offers
    assert (both.breaks_limit, nose.breaks_limit) == (True, True)
    assert both.ballast_g == pytest.approx(112_000 / 255 - 360, abs=0.01)
    assert nose.slides == ()
    assert nose.ballast_g == pytest.approx(118_000 / 255 - 360, abs=0.01)


def test_how_much_longer_the_bay_would_have_to_be():
    parts = (*BODY, thing("pack", 100, 190, (30, 240)))
    moment = 300 * 280 + 40 * 700
    needs = 255 * 440 - moment
    told = remedies(ready(plane(*parts)))
    assert told.in_the_way.limit is Limit.SLIDES
    assert told.in_the_way.subject == "pack"
    assert told.in_the_way.amount == pytest.approx(30 - needs / 100, abs=0.6)


def test_what_pulls_it_over_and_the_grams_at_the_other_tip():
    wing = Surface("w", "W", Role.WING, (Section(200, 0, 0, 190), Section(200, 500, 0, 190)))
    parts = (
        thing("body", 300, 250),
        thing("left", 60, 250, y=-250.0),
        thing("right", 60, 250, y=250.0),
        thing("camera", 50, 250, y=80.0),
    )
    told = remedies(ready(plane(*parts, surfaces=(wing,), ballast=spot())))
    assert told.in_the_way.limit is Limit.SIDEWAYS
    assert told.in_the_way.subject == "camera"
    assert told.in_the_way.amount == pytest.approx((50 * 80 - 3 * 470) / 503)
    assert told.in_the_way.tip is Tip.LEFT


def test_what_pulls_one_loadout_over_is_looked_for_aboard_it_alone():
    parts = (
        thing("body", 300, 250),
        thing("lamp", 30, 250, y=-90.0, option=True),
        thing("camera", 50, 250, y=80.0, option=True),
    )
    loadouts = (Loadout("l", "Lamp", ("lamp",)), Loadout("c", "Camera", ("camera",)))
    told = remedies(ready(plane(*parts, loadouts=loadouts, ballast=spot())))
    assert told.in_the_way.subject == "camera"
    # No wing is drawn: the tips are taken to be where the farthest part sits.
    assert told.in_the_way.amount == pytest.approx((50 * 80 - 3 * 350) / (90 + 3))
    assert told.in_the_way.tip is Tip.LEFT


LOPSIDED = thing("camera", 30, 250, y=120.0)
"""3600 g mm to the right; 470 g may lie 3 mm off, which is 1410."""


@pytest.mark.parametrize(
    "ballast", [NOSE, Ballast(NOSE.spots, (5.0,) * 30)], ids=["by the gram", "in pieces"]
)
def test_lengthways_is_mended_while_it_hangs_to_one_side(ballast):
    """Ballast on the middle line makes it heavier, and so hang less: no reason for it."""
    pack = thing("pack", 100, 190, (-200, 240))
    level = remedies(ready(plane(*BODY, replace_y(LOPSIDED, 0.0), pack, ballast=ballast)))
    told = remedies(ready(plane(*BODY, LOPSIDED, pack, ballast=ballast)))
    assert told.outcome is Outcome.FOUND
    assert (told.best.slides, told.best.ballast_g) == (level.best.slides, level.best.ballast_g)
    assert level.sideways is None
    assert (told.sideways.limit, told.sideways.subject) == (Limit.SIDEWAYS, "camera")
    assert told.sideways.tip is Tip.LEFT
    assert told.sideways.amount == pytest.approx((3600 - 3 * 470) / (120 + 3))


def test_what_is_offered_does_not_hang_on_the_balance_sideways():
    parts = (*BODY, thing("pack", 100, 190))
    level = remedies(ready(plane(*parts, replace_y(LOPSIDED, 0.0))))
    told = remedies(ready(plane(*parts, LOPSIDED)))
    assert [(each.slides, each.ballast_g) for each in told.offers] == [
        (each.slides, each.ballast_g) for each in level.offers
    ]
    assert told.in_the_way.limit is Limit.PERMISSION
    assert told.sideways.subject == "camera"


def test_a_tip_without_room_for_what_would_hold_it_leaves_the_slide():
    tip = Ballast((BallastSpot("tip", "Left tip", 250.0, -500.0, most_g=1.0),))
    pack = thing("pack", 100, 190, (-200, 240))
    told = remedies(ready(plane(*BODY, LOPSIDED, pack, ballast=tip)))
    assert [each.part for each in told.best.slides] == ["pack"]
    assert told.sideways.subject == "camera"
    roomy = Ballast((replace(tip.spots[0], most_g=10.0),))
    held = remedies(ready(plane(*BODY, LOPSIDED, pack, ballast=roomy)))
    assert held.sideways is None
    assert [each.spot for each in held.best.ballast] == ["tip"]
    assert abs(held.best.loadouts[0].y_mm) <= 3.0 + 1e-6


def test_weight_for_the_balance_lengthways_goes_to_no_tip():
    """There is room at the tip to mend it lengthways, and it would hang the more for it."""
    tips = BallastSpot("tip", "Right tip", 0.0, 500.0, most_g=150.0)
    told = remedies(ready(plane(*BODY, LOPSIDED, ballast=Ballast((tips,)))))
    assert told.best is None
    assert told.sideways.tip is Tip.LEFT
    both = remedies(ready(plane(*BODY, LOPSIDED, ballast=Ballast((tips, *NOSE.spots)))))
    assert [each.spot for each in both.best.ballast] == ["nose"]


def test_a_spot_takes_no_more_than_it_has_room_for_in_all():
    """What lies there already is counted when it is asked again."""
    build = plane(*BODY, ballast=Ballast((BallastSpot("nose", "Nose", 0.0, most_g=30.0),)))
    lies = thing("lies", 20, 0.0, assembly="Ballast")
    told = remedies(ready(replace(build, parts=(*build.parts, lies))))
    assert told.in_the_way.limit is Limit.BALLAST
    assert told.in_the_way.room_g == pytest.approx(10.0)


@pytest.mark.parametrize(("body", "at"), [(200.0, 700.0), (300.0, 0.0)], ids=["tail", "nose"])
def test_ballast_by_the_gram_that_is_in_is_enough_at_either_end(body, at):
    """Ballast of so many grams is listed, and has its doubt, where all else is known."""
    ballast = Ballast((BallastSpot("spot", "Spot", at, most_g=200.0),))
    build = plane(thing("body", 300, body), ballast=ballast)
    told = what_would_fix(build)
    assert told.best.ballast_g > 20.0
    assert what_would_fix(applied(build, told.best)).outcome is Outcome.FINE


@pytest.mark.parametrize(("off_mm", "is_held"), [(3.0, True), (-3.04, True), (3.06, False)])
def test_a_hundredth_of_a_gram_at_a_tip_is_not_asked_for(off_mm, is_held):
    comes = Comes("as-built", 250.0, off_mm, 370.0)
    assert (sideways(ready(plane(*BODY, LOPSIDED)), [comes]) is None) is is_held


def test_what_is_offered_and_done_is_done():
    """A plane whose masses are all known, and ballast by the gram, which is not."""
    for parts in ((*BODY, thing("pack", 100, 190)), LIGHT_PACK):
        for offer in (told := what_would_fix(plane(*parts))).offers:
            assert told.in_the_way.limit is Limit.PERMISSION
            assert what_would_fix(applied(plane(*parts), offer)).outcome is Outcome.FINE


def test_what_hangs_to_one_side_alone_is_not_answered_by_weight_in_the_nose():
    told = remedies(ready(plane(thing("body", 300, 250, y=50.0), thing("pack", 10, 250))))
    assert (told.in_the_way.limit, told.offers, told.sideways) == (Limit.SIDEWAYS, (), None)


def test_two_loadouts_that_lie_farther_apart_than_the_range_is_wide():
    parts = (
        thing("body", 300, 250),
        thing("ahead", 60, 100, option=True),
        thing("aft", 60, 400, option=True),
    )
    loadouts = (Loadout("a", "Ahead", ("ahead",)), Loadout("b", "Aft", ("aft",)))
    told = remedies(ready(plane(*parts, ballast=NOSE, loadouts=loadouts)))
    assert (told.outcome, told.in_the_way.limit) == (Outcome.IN_THE_WAY, Limit.RANGE)
    assert told.offers == ()


def test_a_limit_that_would_be_broken_even_with_room_for_all_the_ballast():
    """35 mm too far aft take 300 35 / 255 grams in the nose; there is room for five of them, and
    for ten under the limit."""
    body = thing("body", 300, 290)
    ballast = Ballast((BallastSpot("nose", "Nose", 0.0, most_g=5.0),))
    told = remedies(ready(plane(body, most=310.0, ballast=ballast)))
    need = 300 * 35 / 255
    assert told.in_the_way.limit is Limit.WEIGHT
    assert told.in_the_way.amount == pytest.approx(need - 10, abs=0.01)
    assert told.in_the_way.way.ballast_g == pytest.approx(need, abs=0.01)
    # Without a limit it is the room that lacks.
    told = remedies(ready(plane(body, ballast=ballast)))
    assert told.in_the_way.limit is Limit.BALLAST
    assert told.in_the_way.subject == "nose"
    assert (told.in_the_way.amount, told.in_the_way.room_g) == (
        pytest.approx(need - 5, abs=0.01),
        5.0,
    )
    # With pieces it is those that there are.
    few = replace(ballast, spots=(replace(ballast.spots[0], most_g=100.0),), pieces=(8.0, 9.0))
    told = remedies(ready(plane(body, ballast=few)))
    assert (told.in_the_way.amount, told.in_the_way.room_g) == (
        pytest.approx(need - 17, abs=0.01),
        17.0,
    )


def test_a_bay_that_no_length_makes_long_enough_is_not_what_stands_in_the_way():
    """Two grams of receiver balance nothing, 400 mm forward neither."""
    parts = (*BODY, thing("receiver", 2, 100, (90, 110)))
    told = remedies(ready(plane(*parts)))
    assert told.in_the_way.limit is not Limit.SLIDES
    told = remedies(ready(plane(*parts, ballast=NOSE)))
    assert told.outcome is Outcome.FOUND
    assert told.best.ballast


def test_a_pack_that_is_not_aboard_is_not_offered():
    spare = thing("spare pack", 100, 190, option=True)
    body = thing("body", 300, 290)
    loadouts = (Loadout("a", "Without", ()),)
    told = remedies(ready(plane(body, spare, loadouts=loadouts)))
    assert [each.slides for each in told.offers] == [()]  # the nose spot alone


WING = Surface("w", "W", Role.WING, (Section(200, 0, 0, 190), Section(210, 500, 0, 150)))


def test_a_pack_is_offered_no_place_behind_the_wing_which_is_mended_by_weight_at_the_tail():
    """80 g at 100 and 300 g at 230 balance at 202.6, 42.4 short of 245: for that the pack would lie
    at 301.3, were the range not narrowed; the wing ends at 390 or, drawn farther ahead, at 290."""
    parts = (thing("body", 300, 230), thing("pack", 80, 100), thing("tail", 1, 700))
    (slide, tail) = remedies(ready(plane(*parts, surfaces=(WING,)))).offers
    assert slide.slides[0].part == "pack"
    assert 295.0 < slide.slides[0].to_mm < 310.0
    assert (tail.slides, tail.spots[0].name, tail.spots[0].x_mm) == ((), "Tail", 700.0)
    moment = 300 * 230 + 80 * 100 + 700
    assert tail.ballast_g == pytest.approx((245 * 381 - moment) / (700 - 245), abs=0.01)

    ahead = replace(WING, sections=tuple(replace(s, x_le_mm=100) for s in WING.sections))
    both, tail = remedies(ready(plane(*parts, surfaces=(ahead,)))).offers
    assert both.slides[0].to_mm == pytest.approx(290.0, abs=1e-3)
    assert both.ballast_g == pytest.approx((245 * 381 - moment - 80 * 190) / 455, abs=0.01)
    assert tail.ballast_g > both.ballast_g


def test_a_pack_behind_the_wing_goes_no_farther_ahead_than_it_must():
    """The wing ends at 390; 800 g mm too much are ten millimetres of its 80 g."""
    body = (381 * 255 + 800 - 80 * 420 - 700) / 300
    parts = (thing("body", 300, body), thing("pack", 80, 420), thing("tail", 1, 700))
    (slide, _) = remedies(ready(plane(*parts, surfaces=(WING,)))).offers
    assert (slide.slides[0].from_mm, slide.slides[0].to_mm) == pytest.approx((420.0, 410.0))


def test_what_has_no_place_and_would_mend_it_is_placed_before_anything_else_is_offered():
    """100 g that have none, of 400 g: (400 * 250 - 300 * 200) / 100 = 400 mm is on the plane."""
    parts = (thing("body", 290, 207), thing("pack", 10, 0), thing("tail", 0.1, 700))
    loose = replace(thing("wing", 100, 0), station=None)
    told = remedies(ready(plane(*parts, loose)))
    assert (told.in_the_way.limit, told.offers) == (Limit.UNPLACED, ())
    assert told.in_the_way.amount == pytest.approx(100.0)
    # A crumb is not what it wants, wherever it lies.
    told = remedies(ready(plane(*parts, replace(loose, stated_g=1.0))))
    assert told.in_the_way.limit is Limit.PERMISSION
    # Where every loadout has its wing's place but one, it is not all that is wanted.
    extra = thing("camera", 400, 0, option=True)
    loadouts = (Loadout("a", "Bare", ()), Loadout("b", "Camera", ("camera",)))
    told = remedies(ready(plane(*parts, loose, extra, loadouts=loadouts)))
    assert told.in_the_way.limit is not Limit.UNPLACED


def test_a_bay_is_made_no_longer_than_to_where_the_wing_ends():
    """80 g that slide to 200 would have to lie at 303 or so: the wing ends at 390, or at 290."""
    parts = (thing("body", 300, 230), thing("pack", 80, 100, (60, 200)), thing("tail", 1, 700))
    told = remedies(ready(plane(*parts, surfaces=(WING,)))).in_the_way
    assert (told.limit, told.subject) == (Limit.SLIDES, "pack")
    assert told.amount == pytest.approx((245 * 381 - 300 * 230 - 700) / 80 - 200, abs=1.0)

    ahead = replace(WING, sections=tuple(replace(s, x_le_mm=100) for s in WING.sections))
    told = remedies(ready(plane(*parts, surfaces=(ahead,))))
    assert told.in_the_way.limit is Limit.PERMISSION
    assert [each.spots[0].name for each in told.offers] == ["Tail"]


def test_a_bay_that_reaches_behind_the_wing_is_no_shorter_for_that():
    """The one behind is full at 430, so the one ahead takes 30 mm more: 98000 g mm in all."""
    ahead, behind = thing("ahead", 50, 110, (100, 120)), thing("behind", 50, 300, (300, 430))
    parts = (thing("body", 300, 230), ahead, behind)
    told = remedies(ready(plane(*parts, surfaces=(WING,)))).in_the_way
    assert (told.limit, told.subject) == (Limit.SLIDES, "ahead")
    assert told.amount == pytest.approx(30.0, abs=0.6)


def test_a_bay_is_not_made_longer_than_to_the_nose():
    """At -50 its 100 g would do."""
    parts = (thing("body", 300, (255 * 400 + 5000) / 300), thing("pack", 100, 80, (60, 100)))
    told = remedies(ready(plane(*parts)))
    assert told.in_the_way.limit is Limit.PERMISSION
    assert [each.spots[0].x_mm for each in told.offers] == [0.0]


@pytest.mark.parametrize(("needs", "limit"), [(190, Limit.SLIDES), (210, Limit.PERMISSION)])
def test_a_bay_is_made_no_longer_than_a_hand(needs, limit):
    """Where nothing is drawn that would end it: 100 g in 400, to be moved aft by so much."""
    moment = 245 * 400 - 100 * (120 + needs) - 700
    parts = (thing("body", 299, moment / 299), thing("pack", 100, 120, (100, 120)))
    told = remedies(ready(plane(*parts, thing("tail", 1, 700))))
    assert told.in_the_way.limit is limit
