import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.target import TargetKind, Thrust


@pytest.mark.parametrize("layout", presets.LAYOUTS, ids=lambda each: each.id)
@pytest.mark.parametrize("purpose", presets.PURPOSES, ids=lambda each: each.id)
def test_every_beginning_is_a_sound_build(purpose, layout):
    targets = presets.starting_targets(purpose, layout)
    build = Build(
        "b", "B", surfaces=layout.starting_surfaces, targets=targets, thrust=Thrust(300.0)
    )
    assert faults(build) == ()
    told = assess(build)
    assert told.wing is not None
    assert 5 < told.wing.area_dm2 < 60
    assert 1 < told.wing.aspect_ratio < 12
    assert all(target.source for target in targets)
    four = {"auw", "wing_loading", "thrust_to_weight", "balance"}
    assert {answer.kind for answer in told.loadouts[0].answers} == four


@pytest.mark.parametrize(
    ("layout", "rule"),
    [("tractor", (25, 33)), ("flying-wing", (15, 20)), ("canard", None), ("tandem", None)],
)
def test_the_chord_rule_is_offered_only_where_it_applies(layout, rule):
    assert presets.layout(layout).chord_rule == rule


def test_no_preset_sets_a_weight_limit():
    for purpose in presets.PURPOSES:
        targets = presets.starting_targets(purpose, presets.LAYOUTS[0])
        assert TargetKind.AUW not in [target.kind for target in targets]


def test_a_hand_thrown_glider_is_asked_for_no_thrust():
    targets = presets.starting_targets(presets.purpose("glider"), presets.layout("glider"))
    assert TargetKind.THRUST_TO_WEIGHT not in [target.kind for target in targets]


@pytest.mark.parametrize("find", [presets.purpose, presets.layout])
def test_what_is_none_is_refused_with_what_there_is(find):
    with pytest.raises(BuildFaultError, match="should be one of"):
        find("zeppelin")
