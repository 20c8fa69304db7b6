import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.weigh_next import Because, reduction
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.readings import pan_row
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Sample
from tests.benches import case_l, reading

GLUED = {"wing": 1, "tail": 1, "fuselage": 1, "glue": 1}


def taken(build, pan: Pan) -> float:
    after = solve(build)
    masses = slice(0, after.parts.stop)
    goal = np.zeros(after.parts.stop)
    goal[after.parts] = 1.0
    cov = after.cov[masses, masses]
    return reduction(cov, goal, pan_row(build, pan), reading_doubt(build.scales[0]))


@pytest.mark.parametrize(
    ("pan", "variance"),
    [
        (Pan((Load("wing"),)), 218.9),
        (Pan((Load("fuselage"),)), 216.4),
        (Pan(samples=(Sample("sheet", 1.0),)), 214.6),
        (Pan((Load("tail"),)), 209.5),
        (Pan((Load("motor"),)), 2.0),
    ],
)
def test_reference_case_l_first_weighing(pan, variance):
    assert taken(case_l(), pan) == pytest.approx(variance, abs=0.06)


@pytest.mark.parametrize(("part", "variance"), [("fuselage", 4.3), ("tail", 2.1), ("motor", 2.0)])
def test_reference_case_l_once_the_wing_is_known(part, variance):
    build = case_l((reading(1, 90.2, "wing"),))
    assert taken(build, Pan((Load(part),))) == pytest.approx(variance, abs=0.06)


def test_ranking_follows_the_reductions():
    told = assess(case_l()).weigh_next
    assert [each.part or each.lot for each in told] == ["wing", "fuselage", "sheet", "tail"]
    assert told[0].share == pytest.approx(218.9 / 234.5, abs=0.001)


def test_after_the_glued_airframe_only_the_motor_matters():
    build = case_l((reading(1, 90.2, "wing"), reading(2, 197.4, GLUED)))
    told = assess(build).weigh_next
    assert told[0].part == "motor"
    assert told[0].share > 0.99
    assert "tail" not in [each.part for each in told]


def test_the_reason_names_the_share_and_why():
    first = assess(case_l()).weigh_next[0]
    assert (round(first.share, 2), first.goal) == (0.93, TargetKind.AUW)
    assert (first.because, first.lots) == (Because.TELLS_OF, ("sheet",))


def test_a_sheet_says_how_many_parts_are_cut_from_it():
    told = {each.lot: each for each in assess(case_l()).weigh_next if each.lot}
    assert told["sheet"].made_of_it == 3
    assert told["sheet"].because is Because.PARTS_OF
