"""What is told at the field of every plane of the workshop: the same as everywhere else."""

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.at_the_field import field_told
from oaken_scale.core.model.target import BalanceUnit, TargetKind
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import MORNING

BUILDS = (sandpiper(), *(plane.build for plane in fleet()))


@pytest.mark.parametrize("build", BUILDS, ids=lambda build: build.id)
def test_weight_and_balance_are_those_of_the_bench(build):
    assessment = assess(build)
    told = field_told(build, assessment, MORNING)
    assert [each.id for each in told.loadouts] == [each.id for each in assessment.loadouts]
    for here, there in zip(told.loadouts, assessment.loadouts, strict=True):
        answers = {each.kind: each for each in there.answers}
        assert here.auw_g == answers[TargetKind.AUW].value
        assert here.cg_mm == there.cg.x_mm
        wing = assessment.wing
        by_hand = 100 * (there.cg.x_mm - wing.mac_le_x_mm) / wing.mac_mm
        assert here.cg_percent == pytest.approx(by_hand)
        balance = answers[TargetKind.BALANCE]
        if balance.unit == BalanceUnit.PERCENT_MAC:
            assert here.cg_percent == pytest.approx(balance.value)
