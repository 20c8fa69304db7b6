"""What the printed sheet says, word for word, in grams and millimetres and in ounces and inches."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.flight.verdict import Answer, Missing, Word
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind, Feel
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.as_it_stood import ChangedSince, ChangeKind
from oaken_scale.core.trim.checks import CheckTold
from oaken_scale.core.trim.unchecked import Since
from oaken_scale.core.trim.unplaced import Unplaced
from oaken_scale.paper import sheet_words as words
from oaken_scale.paper.shown import AreaUnit, DecimalMark, LengthUnit, MassUnit, Shown

AT = datetime(2026, 3, 7, 15, 20, tzinfo=UTC)
METRIC = Shown()
IMPERIAL = Shown(MassUnit.OZ, LengthUnit.IN, AreaUnit.FT2, DecimalMark.COMMA)


def answer(kind: TargetKind, unit: str, value: float | None, **more) -> Answer:
    return Answer(kind, unit, value, **more)


AUW = answer(TargetKind.AUW, "g", 586.0, sd=9.5, high=590.0)
LOADING = answer(TargetKind.WING_LOADING, "g/dm2", 28.6, sd=0.45, high=30.0)
THRUST = answer(TargetKind.THRUST_TO_WEIGHT, "", 0.816, sd=0.03, low=0.7)
POWER = answer(TargetKind.POWER_LOADING, "W/kg", 296.4, sd=10.0, low=120.0, high=330.0)
MAC = answer(TargetKind.BALANCE, "percent_mac", 36.14, sd=1.2, low=28.0, high=33.0)
NOSE = answer(TargetKind.BALANCE, "mm_from_nose", 254.6, sd=2.3, low=239.0, high=249.0)


@pytest.mark.parametrize(
    ("of", "shown", "now", "target"),
    [
        (AUW, METRIC, "586 ±19", "at most 590 g"),
        # As exact as its doubt lets it be, and a limit as it was stated.
        (
            answer(TargetKind.AUW, "g", 249.62, sd=0.11, high=249.5),
            METRIC,
            "249.6 ±0.2",
            "at most 249.5 g",
        ),
        (
            answer(TargetKind.AUW, "g", 249.62, sd=0.11, high=250.0),
            IMPERIAL,
            "8,81 ±0,01",
            "at most 8,82 oz",
        ),
        (AUW, IMPERIAL, "20,7 ±0,7", "at most 20,81 oz"),
        (LOADING, METRIC, "28.6 ±0.9", "at most 30.0 g/dm²"),
        (LOADING, IMPERIAL, "9,4 ±0,3", "at most 9,8 oz/ft²"),
        (THRUST, METRIC, "0.82 ±0.06", "at least 0.70"),
        (THRUST, IMPERIAL, "0,82 ±0,06", "at least 0,70"),
        (POWER, METRIC, "296 ±20", "120 to 330 W/kg"),
        (MAC, METRIC, "36.1 ±2.4", "28.0 to 33.0 % MAC"),
        (MAC, IMPERIAL, "36,1 ±2,4", "28,0 to 33,0 % MAC"),
        (NOSE, METRIC, "255 ±5", "239 to 249 mm"),
        (NOSE, IMPERIAL, "10,02 ±0,18", "9,41 to 9,80 in"),
    ],
)
def test_each_metric_in_its_unit_with_its_target(of, shown, now, target):
    assert words.as_now(of, shown) == now
    assert words.wanted(of, shown).replace("\u00a0", " ") == target


def test_where_there_is_no_figure_there_is_a_dash():
    bare = answer(TargetKind.AUW, "g", None)
    assert (words.as_now(bare, METRIC), words.as_sum(bare, METRIC)) == ("–", "–")
    assert words.wanted(bare, METRIC) == "–"
    sure = answer(TargetKind.AUW, "g", 586.0)
    assert (words.as_now(sure, METRIC), words.as_sum(sure, METRIC)) == ("586", "–")
    assert words.as_sum(AUW, METRIC) == "586 ±19"


@pytest.mark.parametrize(
    ("word", "probability", "says"),
    [
        (Word.ON_COURSE, 0.91, "on course, 91 %"),
        (Word.ON_COURSE, 0.995, "on course, over 99 %"),
        (Word.ON_COURSE, 0.99, "on course, 99 %"),
        (Word.OFF_COURSE, 0.005, "off course, under 1 %"),
        (Word.OFF_COURSE, 0.01, "off course, 1 %"),
        (Word.TOO_CLOSE, 0.634, "too close to call, 63 %"),
        (Word.MET, 1.0, "met"),
        (Word.MISSED, 0.0, "missed"),
    ],
)
def test_a_verdict_and_how_likely(word, probability, says):
    told = replace(AUW, word=word, probability=probability)
    assert words.verdict(told, METRIC).replace("\u00a0", " ") == says


def test_a_doubted_reading_is_told_with_the_weight_and_only_there():
    doubted = {"disbelieving": ("r1",), "believing": 666.4, "word": Word.MET, "probability": 1.0}
    said = words.verdict(replace(AUW, **doubted), METRIC).replace("\u00a0", " ")
    assert said == "met; 666 g if a doubted reading is right"
    said = words.verdict(replace(AUW, **doubted), IMPERIAL).replace("\u00a0", " ")
    assert said == "met; 23,5 oz if a doubted reading is right"
    assert words.verdict(replace(LOADING, **doubted), METRIC) == "met"
    assert words.verdict(replace(AUW, **{**doubted, "disbelieving": ()}), METRIC) == "met"


@pytest.mark.parametrize("missing", list(Missing))
def test_what_has_to_be_told_first_comes_before_any_verdict(missing):
    told = replace(AUW, missing=missing, word=Word.MET, probability=1.0)
    assert words.verdict(told, METRIC) == words.TO_TELL[missing]


def test_without_a_target_there_is_no_verdict():
    assert words.verdict(AUW, METRIC) == "no target set"


CHECK = BalanceCheck("c", AT, CheckKind.SUPPORT, "cam", 241.0, "pegs")
BUILD = Build(
    "b",
    "B",
    parts=(Part("pack", "Pack, 3-cell", Pedigree.LISTING, stated_g=108.0),),
    loadouts=(Loadout("cam", "With camera"),),
    checks=(CHECK,),
)


def told(found: float, sum_mm: float, **more) -> CheckTold:
    given = {"loadout": "cam", "across": False, "t": 0.0, **more}
    return CheckTold(
        id="c",
        at=AT,
        found_mm=found,
        found_sd_mm=1.0,
        sum_mm=sum_mm,
        sum_sd_mm=2.0,
        reasons=(),
        **given,
    )


@pytest.mark.parametrize(
    ("check", "shown", "says"),
    [
        (
            told(241.0, 241.4),
            METRIC,
            "7 March 2026, level on pegs, With camera: 241 ±2 mm, agrees with the sum.",
        ),
        (
            told(241.0, 236.0),
            METRIC,
            "7 March 2026, level on pegs, With camera: 241 ±2 mm, 5 mm aft of the sum.",
        ),
        (
            told(241.0, 247.0, loadout=None),
            METRIC,
            "7 March 2026, level on pegs, all aboard: 241 ±2 mm, 6 mm ahead of the sum.",
        ),
        (
            told(4.0, 1.0, across=True),
            METRIC,
            "7 March 2026, level on pegs, With camera: 4 ±2 mm, 3 mm to the right of the sum.",
        ),
        (
            told(-4.0, 1.0, across=True, held_alone="Fuselage"),
            METRIC,
            "7 March 2026, level on pegs, Fuselage: −4 ±2 mm, 5 mm to the left of the sum.",
        ),
        (
            told(241.3, 236.22),
            IMPERIAL,
            "7 March 2026, level on pegs, With camera: 9,50 ±0,08 in, 0,20 in aft of the sum.",
        ),
        (
            told(241.0, 236.0, feel=Feel.TAIL_DROPS, t=1.0),
            METRIC,
            "7 March 2026, by feel, tail drops at 241 mm, With camera: 241 ±2 mm, the sum agrees.",
        ),
        (
            told(241.0, 236.0, feel=Feel.TAIL_DROPS, t=-1.01),
            METRIC,
            "7 March 2026, by feel, tail drops at 241 mm, With camera: 241 ±2 mm, "
            "the sum says otherwise.",
        ),
    ],
)
def test_a_check_by_hand_in_one_line(check, shown, says):
    assert words.checked(check, BUILD, shown) == says


@pytest.mark.parametrize(
    ("changed", "says"),
    [
        ((), "new firewall"),
        ((ChangedSince("pack", ChangeKind.MOVED),), "Pack, 3-cell moved"),
        ((ChangedSince("pack", ChangeKind.ADDED),), "Pack, 3-cell added"),
        (
            (ChangedSince("gone", ChangeKind.TAKEN_OFF), ChangedSince("pack", ChangeKind.MOVED)),
            "gone taken off, and 1 more",
        ),
    ],
)
def test_what_was_done_since_a_check(changed, says):
    assert words.done_since(Since(AT, "new firewall", changed), BUILD) == says


def test_one_is_one_and_two_are_two():
    assert words.counted(1, "part") == "1 part"
    assert words.counted(2, "part") == "2 parts"
    assert words.counted(0, "part") == "0 parts"


@pytest.mark.parametrize(
    ("value", "digits", "says"),
    [(86.5, 0, "87"), (85.5, 0, "86"), (-86.5, 0, "−87"), (0.25, 1, "0.3"), (2.675, 2, "2.67")],
)
def test_a_half_is_rounded_as_the_pages_round_it(value, digits, says):
    """Away from zero; 2.675 lies below its half in binary, there and here."""
    assert METRIC.fixed(value, digits) == says


def test_a_chance_is_rounded_so_too():
    assert (words.percent(0.865), words.percent(0.125)) == ("87\u00a0%", "13\u00a0%")


def test_who_has_no_place_is_named_three_of_them_at_most():
    parts = tuple(Part(k, k.title(), Pedigree.GUESS, stated_g=4.0) for k in ("a", "b", "c", "d"))
    build = Build("b", "B", parts=parts)
    begins = "Without a place yet, counted where the rest balances: "
    assert words.without_place(Unplaced(("b",), 4.0), build) == f"{begins}B."
    assert words.without_place(Unplaced(("a", "b", "c"), 12.0), build) == f"{begins}A; B; C."
    told = words.without_place(Unplaced(("a", "b", "c", "d"), 16.0), build)
    assert told == f"{begins}A; B; C and 1 more."
