"""What to change next, and whether the last change helped."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from oaken_scale.core.field.advice import (
    Cause,
    Do,
    Trim,
    advice,
    changes,
    last_change,
    planned_setting,
)
from oaken_scale.core.field.glide import glide_ratio, sink_m_s
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import (
    Control,
    ControlKind,
    FieldLog,
    Seen,
    Setting,
    Throw,
)
from oaken_scale.core.model.surface import Role, Section, Surface

MORNING = datetime(2026, 2, 14, 10, 0, tzinfo=UTC)
PITCH = Control("pitch", "Tail tab", ControlKind.TAB, "tail")
TURN = Control("turn", "Fin tab", ControlKind.TAB, "fin")
SURFACES = (
    Surface("tail", "Tail", Role.TAIL, (Section(500, 0, 0, 60), Section(500, 100, 0, 60))),
    Surface("fin", "Fin", Role.FIN, (Section(500, 0, 0, 60), Section(500, 0, 80, 60))),
)
GLIDER = Build("b", "B", surfaces=SURFACES, field=FieldLog(controls=(PITCH, TURN)))
BARE = replace(GLIDER, field=FieldLog())


def thrown(*rows: tuple, control: str = "pitch") -> list[Throw]:
    """Throws (mm, what it did, how far) with one tab set."""
    return [
        Throw(
            f"t{k}",
            MORNING + timedelta(minutes=k),
            settings=(Setting(control, mm),),
            seen=seen,
            distance_m=far,
        )
        for k, (mm, seen, far) in enumerate(rows)
    ]


def test_out_of_its_range_the_balance_comes_before_any_tab():
    told = advice(GLIDER, thrown((0, Seen.STALLS, 9.0)), Trim(off_mm=4.2))
    assert (told.cause, told.do, told.amount) == (Cause.CG_BEHIND, Do.CG_FORWARD, 4.2)
    told = advice(GLIDER, thrown((0, Seen.DIVES, 9.0)), Trim(off_mm=-3.0))
    assert (told.cause, told.do, told.amount) == (Cause.CG_AHEAD, Do.CG_AFT, 3.0)


def test_what_nobody_looked_along_is_looked_along_first():
    told = advice(GLIDER, thrown((0, Seen.TURNS_LEFT, 9.0)), Trim(straight=False))
    assert (told.cause, told.do) == (Cause.NOT_STRAIGHT, Do.LOOK_STRAIGHT)


@pytest.mark.parametrize(("seen", "sign"), [(Seen.STALLS, -1), (Seen.DIVES, 1)])
def test_in_its_range_a_tab_goes_a_little_against_the_word(seen, sign):
    told = advice(GLIDER, thrown((0, seen, 9.0)), Trim(off_mm=0.0))
    assert (told.do, told.control, told.from_mm, told.halved) == (Do.SET, "pitch", 0, False)
    assert 0 < sign * told.to_mm <= 3


def test_over_correction_is_said_and_the_change_is_smaller():
    told = advice(GLIDER, thrown((0, Seen.STALLS, 9.0), (-2, Seen.DIVES, 9.5)), Trim())
    assert told.halved
    assert -2 < told.to_mm < 0


def test_without_a_tab_the_word_alone_says_which_way():
    told = advice(BARE, thrown((0, Seen.STALLS, 9.0)), Trim())
    assert (told.do, told.side) == (Do.BEND_A_TAB, "down")


def test_a_turn_is_the_heavy_side_first_and_then_half_as_far_back_each_time():
    heavy = Trim(light_side="right", tip_g=1.5)
    told = advice(GLIDER, thrown((0, Seen.TURNS_LEFT, 9.0), control="turn"), heavy)
    assert (told.do, told.amount, told.side) == (Do.BALANCE_SIDEWAYS, 1.5, "right")
    told = advice(GLIDER, thrown((0, Seen.TURNS_RIGHT, 9.0), control="turn"), heavy)
    assert (told.do, told.control, told.to_mm) == (Do.SET, "turn", -1.0)
    both = thrown((0, Seen.TURNS_LEFT, 9.0), (1, Seen.TURNS_RIGHT, 9.0), control="turn")
    told = advice(GLIDER, both, Trim())
    assert (told.to_mm, told.halved) == (0.5, True)


@pytest.mark.parametrize(
    ("seen", "cause", "do", "side"),
    [
        (Seen.TWITCHY, Cause.CG_TOO_FAR_AFT, Do.STOP, None),
        (Seen.LEFT_UNDER_POWER, Cause.SIDE_THRUST, Do.MOTOR_LINE, "right"),
        (Seen.RIGHT_UNDER_POWER, Cause.SIDE_THRUST, Do.MOTOR_LINE, "left"),
        (Seen.UP_WITH_THROTTLE, Cause.THRUST_LINE_LOW, Do.MOTOR_LINE, "down"),
        (Seen.WALLOWS, Cause.LITTLE_FIN, Do.MORE_FIN, None),
        (Seen.GOOD, Cause.IN_TRIM, Do.LEAVE, None),
    ],
)
def test_every_other_word_has_its_cause(seen, cause, do, side):
    told = advice(GLIDER, thrown((0, seen, 9.0)), Trim())
    assert (told.cause, told.do, told.side) == (cause, do, side)


def test_nothing_seen_says_throw():
    assert advice(GLIDER, [], Trim()).do is Do.THROW
    assert advice(GLIDER, thrown((0, None, 9.0)), Trim()).do is Do.THROW


def abba(a: float, b: float, first: list[float], second: list[float]) -> list[Throw]:
    rows, turn = [], [a, b, b, a]
    left = {a: list(first), b: list(second)}
    for k in range(len(first) + len(second)):
        at = turn[k % 4]
        rows.append((at, Seen.GOOD, left[at].pop(0)))
    return thrown(*rows)


def test_the_last_change_is_compared_whenever_its_throws_were_thrown():
    throws = abba(0, -1, [9.6, 12.3, 10.2, 11.4], [14.9, 12.4, 16.8, 13.7])
    told = last_change(throws)
    # The last throw was at 0, so the change is told from -1 to it.
    assert (told.from_mm, told.to_mm, told.throws) == (-1, 0, 8)
    assert told.compared.better == pytest.approx(1 - 0.9174, abs=1e-3)
    (once,) = changes(throws)
    assert (once.from_mm, once.to_mm) == (0, -1)
    assert once.compared.better == pytest.approx(0.9174, abs=1e-3)


def test_a_bad_throw_is_named_by_its_id_and_those_of_other_settings_are_not_counted():
    """The throw before them differs in the other tab too: places in the page are no places here."""
    rows = [
        (0, 12.0),
        (-1, 12.6),
        (-1, 12.2),
        (0, 11.8),
        (0, 12.4),
        (-1, 4.1),
        (-1, 12.5),
        (0, 12.1),
    ]
    compared_ones = thrown(*((mm, Seen.GOOD, far) for mm, far in rows))
    compared_ones = [
        replace(each, settings=(*each.settings, Setting("turn", 0.0))) for each in compared_ones
    ]
    other = replace(
        compared_ones[0], id="other", settings=(Setting("pitch", 0.0), Setting("turn", 2.0))
    )
    (change,) = [each for each in changes([other, *compared_ones]) if each.control == "pitch"]
    assert change.bad == ("t5",)
    assert change.throws == 8


def test_whose_turn_it_is():
    told = last_change(abba(0, -1, [10.0], [11.0, 10.5]))
    assert told.next_mm == 0  # A B B, and then A


def test_seconds_serve_where_no_distance_was_taken():
    throws = [
        replace(each, distance_m=None, seconds=each.distance_m)
        for each in abba(0, -1, [2.0, 2.1], [3.0, 3.2])
    ]
    assert last_change(throws).measure == "seconds"


def test_no_change_no_comparison():
    assert last_change(thrown((0, Seen.GOOD, 9.0), (0, Seen.GOOD, 9.5))) is None
    assert last_change([]) is None


def test_the_search_takes_only_throws_that_differ_in_its_tab():
    throws = thrown((0, Seen.STALLS, 9.0), (-1, Seen.GOOD, 12.0))
    other = replace(
        throws[0], id="x", settings=(Setting("pitch", -3), Setting("turn", 2)), distance_m=30.0
    )
    with_it = planned_setting(PITCH, [other, *throws])
    assert with_it == planned_setting(PITCH, throws)


def test_glide_and_sink_by_hand():
    throws = [
        Throw("a", MORNING, distance_m=8.0, height_m=1.6, seconds=2.0),
        Throw("b", MORNING, distance_m=12.5, height_m=1.6, seconds=3.2, wind_m_s=0.5),
        Throw("c", MORNING, distance_m=40.0, height_m=1.6, seconds=9.0, wind_m_s=4.0),
        Throw("d", MORNING, distance_m=9.0, set_aside="hit a post"),
    ]
    glide, sink = glide_ratio(throws), sink_m_s(throws)
    assert glide.value == pytest.approx((5.0 * 7.8125) ** 0.5)
    assert glide.throws == 2
    assert sink.value == pytest.approx((0.8 * 0.5) ** 0.5)
    assert glide_ratio([throws[3]]) is None


def test_the_word_of_the_last_throw_is_never_gone_against():
    """Two millimetres up go half as far again; then one throw at none stalls."""
    for sign, seen in ((1, Seen.STALLS), (-1, Seen.DIVES)):
        page = thrown(
            (0, Seen.GOOD, 9.0),
            *((2.0 * sign, Seen.GOOD, 15.0),) * 4,
            (0, seen, 9.0),
        )
        assert planned_setting(PITCH, page).best.next_mm * sign > 0
        told = advice(GLIDER, page, Trim(off_mm=0.0))
        assert (told.from_mm, told.to_mm) == (0.0, -0.5 * sign)


@pytest.mark.parametrize(("seen", "side"), [(Seen.TURNS_LEFT, "right"), (Seen.TURNS_RIGHT, "left")])
def test_without_a_tab_of_its_own_a_turn_is_bent_away_on_the_other_side(seen, side):
    told = advice(BARE, thrown((0, seen, 9.0)), Trim())
    assert (told.cause, told.do, told.side) == (Cause.WARP_OR_FIN, Do.BEND_A_TAB, side)


def test_a_turn_that_stays_is_not_halved_and_one_that_turns_over_is_down_to_half_a_millimetre():
    same = thrown(*((0, Seen.TURNS_LEFT, 9.0),) * 3, control="turn")
    first = advice(GLIDER, same, Trim())
    assert not first.halved
    assert first.to_mm > 0
    over = [Seen.TURNS_LEFT, Seen.TURNS_RIGHT] * 6
    page = thrown(*((0, seen, 9.0) for seen in over), control="turn")
    told = advice(GLIDER, page, Trim())
    assert (told.from_mm, told.to_mm, told.halved) == (0.0, -0.5, True)


def test_a_change_of_which_one_side_has_no_figure_is_not_judged():
    assert last_change(thrown((0, Seen.GOOD, 9.0), (1, Seen.GOOD, None))) is None
    assert last_change(thrown((0, Seen.GOOD, None), (1, Seen.GOOD, 9.0))) is None
    assert changes(thrown((0, Seen.GOOD, None), (1, Seen.GOOD, 9.0))) == ()
    # By the clock where nobody paced it.
    page = [
        replace(each, seconds=seconds)
        for each, seconds in zip(
            thrown((0, Seen.GOOD, None), (1, Seen.GOOD, 9.0)), (2.0, 2.6), strict=True
        )
    ]
    assert last_change(page).measure == "seconds"
