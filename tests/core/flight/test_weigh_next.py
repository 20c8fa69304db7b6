from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.weigh_next import Because, Together, reduction
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.ledger.readings import pan_row
from oaken_scale.core.ledger.scale import reading_doubt
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part import Part, Pedigree, Station, Use
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Sample, Scale
from tests.benches import case_l, reading, with_readings

KITCHEN = Scale("kitchen", "Kitchen scale", 0.1)
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


def light_plane(readings=(), step_g: float = 1.0) -> Build:
    """A glider of trifles and one thing of just twenty steps, with a scale of 1 g steps."""
    grams = {"tray": 20.0, "wing": 2.0, "stick": 3.0, "tail": 0.8, "box": 30.0}
    parts = [
        Part(k, k.title(), Pedigree.GUESS, stated_g=g, doubt_g=g / 4, station=Station(100.0))
        for k, g in grams.items()
    ]
    parts += [
        Part("bead", "Bead", Pedigree.JOINT, stated_g=1.0, station=Station(100.0)),
        Part("patch", "Patch", Pedigree.GUESS, stated_g=0.5, host="box"),
        Part("old", "Old", Pedigree.GUESS, stated_g=4.0, retired=True),
    ]
    scale = Scale("kitchen", "Kitchen scale", step_g, calibration_doubt=0.0)
    return with_readings(Build("b", "B", parts=tuple(parts), scales=(scale,)), *readings)


def test_what_is_too_light_for_the_scale_is_weighed_together():
    build = light_plane()
    told = assess(build).weigh_next
    alone = [each.part for each in told if each.part]
    assert alone == ["tray"]
    (light,) = [each for each in told if each.together is Together.LIGHT_ONES]
    assert (light.parts, light.because) == (("wing", "stick", "tail"), Because.TOO_LIGHT)
    after = solve(build)
    goal = after.of.loading.felt * 0.0
    goal[after.parts] = [not part.retired for part in build.parts]
    n = after.parts.stop
    share = taken(build, Pan(tuple(Load(part) for part in light.parts)))
    assert light.share == pytest.approx(share / (goal[:n] @ after.cov[:n, :n] @ goal[:n]), rel=0.02)


def test_a_finer_scale_takes_them_one_by_one():
    told = assess(light_plane(step_g=0.01)).weigh_next
    assert Together.LIGHT_ONES not in [each.together for each in told]
    assert {"wing", "stick"} < {each.part for each in told}


def light_ones(readings=(), *ids: str) -> list:
    build = light_plane(readings)
    kept = tuple(p for p in build.parts if p.id in ids)
    told = assess(replace(build, parts=kept)).weigh_next
    return [each.parts for each in told if each.together is Together.LIGHT_ONES]


def test_together_once_is_enough_and_one_alone_is_not_together():
    three = ("wing", "stick", "tail")
    assert light_ones((), *three) == [three]
    assert light_ones((reading(1, 6.0, dict.fromkeys(three, 1)),), *three) == []
    two = ("wing", "stick")
    assert light_ones((reading(1, 5.0, dict.fromkeys(two, 1)),), *three) == [three]
    assert light_ones((), "wing") == []


def test_a_suggestion_says_whose_answer_it_sharpens():
    """The plane with its large pack is 60 g over and settled; with the small one it is not."""
    large = Part("large", "Large pack", Pedigree.GUESS, stated_g=160.0, doubt_g=8.0, option=True)
    small = Part("small", "Small pack", Pedigree.GUESS, stated_g=90.0, doubt_g=9.0, option=True)
    body = Part("body", "Body", Pedigree.GUESS, stated_g=300.0, doubt_g=6.0)
    build = Build(
        "b",
        "B",
        parts=(body, large, small),
        targets=(Target(TargetKind.AUW, high=400.0),),
        loadouts=(Loadout("l", "Large", ("large",)), Loadout("s", "Small", ("small",))),
    )
    told = assess(build).weigh_next
    assert [(each.part, each.loadout) for each in told] == [("small", "s"), ("body", "s")]
    glued = Part("tail", "Tail", Pedigree.GUESS, "Tail", stated_g=20.0, doubt_g=4.0)
    glue = Part("glue", "Glue", Pedigree.JOINT, "Tail", doubt_g=3.0, uses=(Use("bead", 1.0),))
    bead = Lot("bead", "Bead", LotUnit.M, 3.0, 2.0)
    more = replace(build, parts=(*build.parts, glued, glue), lots=(bead,))
    more = replace(more, weighings=(reading(1, 19.0, "tail"),), scales=(KITCHEN,))
    told = {each.lot or each.called or each.part: each for each in assess(more).weigh_next}
    assert {told[each].loadout for each in ("bead", "Tail")} == {"s"}
    plain = assess(replace(build, loadouts=(), parts=(body,))).weigh_next
    assert [(each.part, each.loadout) for each in plain] == [("body", None)]
    settled = assess(replace(build, targets=())).weigh_next
    assert {each.loadout for each in settled} == {"l"}
