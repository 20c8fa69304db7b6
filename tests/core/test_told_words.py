"""What is told of a figure beside the figure, to both sides of where it turns."""

from datetime import UTC, datetime

import numpy as np
import pytest

from oaken_scale.core.assess import assess, expect
from oaken_scale.core.ledger.habit import HabitFound
from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.moisture import Damp, Moisture
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Load, Pan, Scale
from oaken_scale.core.span_chord_map import Likely, MapPoint
from oaken_scale.core.trim.checks import CheckTold
from oaken_scale.core.trim.feel import Feel
from tests.benches import reading, with_readings

MORNING = datetime(2026, 3, 7, 9, tzinfo=UTC)
SCALES = (Scale("s", "S", 0.1),)


def check(found: float, t: float, feel: Feel | None = None) -> CheckTold:
    return CheckTold("c", MORNING, None, False, found, 1.0, 240.0, 2.0, t, (), feel=feel)


@pytest.mark.parametrize(
    ("told", "agrees", "disagrees"),
    [
        (check(240.49, 0.2), True, False),
        (check(239.51, -0.2), True, False),
        (check(240.5, 0.2), False, False),
        (check(239.5, -0.2), False, False),
        (check(244.4, 2.0), False, False),
        (check(244.6, 2.01), False, True),
        (check(235.0, -2.01), False, True),
        # Of what is felt only the surprise counts, however far apart they are.
        (check(260.0, 1.0, Feel.TAIL_DROPS), True, False),
        (check(260.0, -1.01, Feel.TAIL_DROPS), False, False),
        (check(240.0, 2.5, Feel.NOSE_DROPS), False, True),
    ],
)
def test_a_check_agrees_or_disagrees_or_neither(told, agrees, disagrees):
    assert (told.agrees, told.disagrees) == (agrees, disagrees)


@pytest.mark.parametrize(
    ("gain", "sd", "became", "sure"),
    [
        (0.0099, 0.001, Moisture.AS_IT_WAS, False),
        (-0.0099, 0.001, Moisture.AS_IT_WAS, False),
        (0.01, 0.001, Moisture.DAMP, True),
        (-0.01, 0.001, Moisture.DRIED, True),
        (0.1, 0.05, Moisture.DAMP, False),
        (-0.1, 0.0499, Moisture.DRIED, True),
    ],
)
def test_a_lot_is_damp_or_dry_and_surely_so_or_not(gain, sd, became, sure):
    told = Damp("a", gain, sd, ())
    assert (told.became, told.sure) == (became, sure)


@pytest.mark.parametrize(
    ("chance", "likely"),
    [
        (1.0, Likely.SURE),
        (0.9, Likely.SURE),
        (0.899, Likely.LIKELY),
        (0.5, Likely.LIKELY),
        (0.499, Likely.NOT),
        (0.0, Likely.NOT),
    ],
)
def test_a_plane_is_sure_likely_or_not(chance, likely):
    assert MapPoint(1000.0, 200.0, 500.0, (), chance, None, None).likely is likely


def test_a_habit_is_wide_beyond_a_third():
    wide = [HabitFound(Pedigree.GUESS, 1.0, 0.1, w, 9, 5, 0.0).is_wide for w in (1.0, 1.3, 1.31)]
    assert wide == [False, False, True]


def test_a_part_is_far_where_it_came_out_two_sigma_off():
    """Each believed to 90 +- 9 g, and weighed alone."""
    grams = [90.0, 107.0, 109.0, 73.0, 71.0]
    parts = tuple(
        Part(f"p{k}", f"P{k}", Pedigree.GUESS, stated_g=90.0, doubt_g=9.0) for k in range(5)
    )
    log = [reading(k, g, f"p{k}", scale="s") for k, g in enumerate(grams)]
    build = with_readings(Build("b", "B", parts=parts, scales=SCALES), *log)
    told = assess(build).parts
    off = np.array([(each.mass_g - 90.0) / 9.0 for each in told])
    assert [each.is_far for each in told] == (abs(off) > 2).tolist()
    assert [each.is_far for each in told] == [False, False, True, False, True]


def test_a_reading_is_asked_about_outside_of_what_is_expected():
    build = Build(
        "b",
        "B",
        parts=(Part("w", "Wing", Pedigree.GUESS, stated_g=90.0, doubt_g=9.0),),
        scales=SCALES,
    )
    pan = Pan((Load("w"),))
    told = expect(build, pan, "s")
    assert told.most_g - told.reading_g == pytest.approx(3 * told.sd_g)
    assert told.reading_g - told.least_g == pytest.approx(3 * told.sd_g)
    for at, doubted in (
        (told.least_g - 0.1, True),
        (told.least_g + 0.1, False),
        (told.most_g - 0.1, False),
        (told.most_g + 0.1, True),
    ):
        assert (suspect(build, pan, "s", at) is not None) is doubted
