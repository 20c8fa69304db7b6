"""Every figure that ships, held to the tables of docs/figures.md."""

from pathlib import Path

import pytest

from oaken_scale.core import at_the_field
from oaken_scale.core.field import better_or_luck, controls, glide, next_setting, ready
from oaken_scale.core.ledger.prior import DOUBT, SHARED
from oaken_scale.core.ledger.slip import USUAL
from oaken_scale.core.material.drawer import LEADS_SHARE
from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.material.rack import LOT_DOUBT, PAPER_SHARE, STARTER, WASTE
from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import HANG_DOUBT_DEG, SUPPORT_DOUBT_MM
from oaken_scale.core.model.plausible import USUAL as USUAL_FIGURES
from oaken_scale.core.model.presets import LAYOUTS, PURPOSES
from oaken_scale.core.power import (
    drive_estimate,
    drive_readings,
    flight_time,
    margins,
    point_doubts,
    rules_of_thumb,
    which_run,
)
from oaken_scale.core.trim import one_more

TEXT = (Path(__file__).parent.parent / "docs" / "figures.md").read_text()


def table(heading: str) -> list[list[str]]:
    """The rows of the first table after a heading, or after any words of the text."""
    rows = TEXT.split(heading, 1)[1].split("|---", 1)[1].splitlines()[1:]
    kept = []
    for line in rows:
        if not line.startswith("|"):
            break
        kept.append([cell.strip() for cell in line.strip("|").split("|")])
    return kept


def number(cell: str) -> float | None:
    return float(cell) if cell else None


def test_the_rack():
    told = {row[0]: row[1:] for row in table("## The rack")}
    assert list(told) == [lot.id for lot in STARTER]
    for lot in STARTER:
        unit, constant, doubt, kind, *sizes, adhesive = told[lot.id]
        assert (lot.unit, lot.kind, lot.adhesive) == (unit, kind, adhesive)
        assert (lot.constant, lot.doubt) == (number(constant), number(doubt))
        assert [lot.thickness_mm, lot.length_mm, lot.width_mm] == [number(each) for each in sizes]


def test_paper_the_doubt_of_a_lot_and_of_an_angle():
    assert f"a hang angle is read to {HANG_DOUBT_DEG:g} degree" in TEXT
    assert f"{LOT_DOUBT:.0%} of its constant" in TEXT
    assert f"One face of paper is {PAPER_SHARE[0]} ± {PAPER_SHARE[1]} of a sheet" in TEXT


@pytest.mark.parametrize(
    ("heading", "figures"),
    [
        ("More than the parts' own", WASTE),
        ("## The drawer", LEADS_SHARE),
        ("## Slips", USUAL),
        ("## Checks by hand", SUPPORT_DOUBT_MM),
        ("How far a layout glides", flight_time.GLIDE_RATIO),
        ("What bears how much heat", margins.BEARS_C),
        (
            "## Power",
            {
                "duty": drive_readings.DUTY_SD,
                "stand": drive_readings.STAND_SD,
                "ammeter": drive_readings.AMMETER_SD,
                "throttle": drive_estimate.THROTTLE_SD,
                "thrust model": drive_estimate.THRUST_MODEL,
                "current model": drive_estimate.CURRENT_MODEL,
                "doubtful": point_doubts.DOUBTFUL,
                "explains": point_doubts.EXPLAINS,
                "better": point_doubts.BETTER,
                "caution": margins.CAUTION,
                "air c": margins.AIR_C,
                "heat": margins.HEAT_SD,
                "usable": flight_time.USABLE,
                "nominal v": flight_time.NOMINAL_V_PER_CELL,
                "level over stall": flight_time.LEVEL_OVER_STALL,
                "efficiency": flight_time.EFFICIENCY,
                "efficiency doubt": flight_time.EFFICIENCY_SD,
                "usual glide": flight_time.USUAL_GLIDE_RATIO,
                "glide doubt": flight_time.GLIDE_RATIO_SD,
                "held level": flight_time.HELD_LEVEL_SD,
                "share": flight_time.SHARE_SD,
                "flown": flight_time.FLOWN_SD,
                "emptied": flight_time.EMPTIED_SD,
                "fell": flight_time.FELL,
                "another wing": one_more.ANOTHER_WING,
                "after a run": which_run.AFTER_A_RUN,
            },
        ),
        (
            "## Field",
            {
                "scatter": better_or_luck.SCATTER,
                "scatter worth": better_or_luck.SCATTER_WORTH,
                "slope": better_or_luck.SLOPE,
                "top": better_or_luck.TOP,
                "bad one": better_or_luck.BAD_ONE,
                "bad falls": better_or_luck.BAD_FALLS,
                "bad width": better_or_luck.BAD_WIDTH,
                "sure": better_or_luck.SURE,
                "most more": better_or_luck.MOST_MORE,
                "first mm": next_setting.FIRST_MM,
                "reach mm": next_setting.REACH_MM,
                "step mm": next_setting.STEP_MM,
                "wrong word": next_setting.WRONG_WORD,
                "far out": next_setting.FAR_OUT,
                "most at once mm": next_setting.MOST_AT_ONCE_MM,
                "close": next_setting.CLOSE,
                "still wind m/s": glide.STILL_M_S,
                "last throws": glide.LAST,
                "outing h": ready.OUTING.total_seconds() / 3600,
                "still mm": ready.STILL_MM,
                "felt mm": at_the_field.FELT_MM,
                "longest": at_the_field.LONGEST,
                "short min": at_the_field.SHORT_MIN,
            },
        ),
        (
            "## What is too much",
            {
                name.lower().replace("_", " "): value
                for name, value in vars(limits).items()
                if name.isupper()
            },
        ),
    ],
)
def test_one_figure_each(heading, figures):
    assert {name: float(value) for name, value in table(heading)} == figures


def test_adhesives():
    assert [[row[0], *map(number, row[1:])] for row in table("## Adhesives")] == [
        [each.id, each.close_after_s, each.close_by_s, each.handle_after_s, each.strong_after_s]
        for each in ADHESIVES
    ]


def test_what_is_asked_about():
    assert [[row[0], *map(number, row[1:])] for row in table("## What is asked about")] == [
        [measure, *ends] for measure, ends in USUAL_FIGURES.items()
    ]


def test_purposes():
    assert [[row[0], *map(number, row[1:])] for row in table("## Purposes")] == [
        [each.id, each.wing_loading_high, each.thrust_to_weight_low] for each in PURPOSES
    ]


def test_layouts_and_their_first_drawings():
    told = {row[0]: row[1:] for row in table("## Layouts")}
    assert list(told) == [each.id for each in LAYOUTS]
    for each in LAYOUTS:
        low, high, surfaces = told[each.id]
        assert each.chord_rule == (None if not low else (number(low), number(high)))
        drawn = []
        for surface in each.starting_surfaces:
            sections = [
                f"{s.x_le_mm:g}, {s.y_mm:g}, {s.z_mm:g}, {s.chord_mm:g}" for s in surface.sections
            ]
            twice = " twice" if surface.twin else ""
            drawn.append(f"{surface.role}{twice} {' / '.join(sections)}")
        assert "; ".join(drawn) == surfaces


def test_pedigrees():
    told = {row[0]: (number(row[1]), number(row[2])) for row in table("## How a mass is known")}
    assert told == {pedigree: (doubt, SHARED.get(pedigree)) for pedigree, doubt in DOUBT.items()}


def test_named_slips_are_all_that_have_a_name():
    assert sum(USUAL.values()) == pytest.approx(1.0)


def test_what_is_usual_by_purpose():
    told = {row[0]: [number(cell) for cell in row[1:]] for row in table("Usual by purpose")}
    assert told == {
        purpose: [*ratio, *rules_of_thumb.USUAL_WATTS_PER_KG[purpose]]
        for purpose, ratio in rules_of_thumb.USUAL_RATIO.items()
    }
    assert set(told) <= {purpose.id for purpose in PURPOSES}


def test_usual_shares_of_the_chord():
    rows = table("Usual shares of the chord")
    assert {name: (float(low), float(high)) for name, low, high in rows} == {
        kind.value: usual for kind, usual in controls.USUAL_SHARE.items()
    }
