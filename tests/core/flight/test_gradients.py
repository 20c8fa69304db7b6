"""What every metric moves by with a gram of every thing: its gradient against the metric itself."""

from dataclasses import replace

import pytest

from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.target import BalanceUnit, TargetKind
from oaken_scale.core.trim.flown import fly
from oaken_scale.demo.sandpiper import sandpiper

GRAM = 0.01
PLAN = replace(sandpiper(), weighings=(), checks=())
STATED = [k for k, part in enumerate(PLAN.parts) if part.stated_g]


def balanced_in(unit: BalanceUnit) -> Build:
    targets = (
        replace(each, balance_unit=unit) if each.kind is TargetKind.BALANCE else each
        for each in PLAN.targets
    )
    return replace(PLAN, targets=tuple(targets))


def heavier(build: Build, k: int, grams: float) -> Build:
    parts = list(build.parts)
    parts[k] = replace(parts[k], stated_g=parts[k].stated_g + grams)
    return replace(build, parts=tuple(parts))


@pytest.mark.parametrize("unit", BalanceUnit)
@pytest.mark.parametrize("loadout", range(len(PLAN.loadouts)))
def test_a_gram_moves_each_answer_as_its_gradient_says(unit, loadout):
    build = balanced_in(unit)
    plane = fly(build).planes[loadout]
    for metric in METRICS.values():
        slope = metric.gradient(plane, metric.evaluate(plane))
        for k in STATED:
            up, down = (
                metric.evaluate(fly(heavier(build, k, grams)).planes[loadout]).value
                for grams in (GRAM, -GRAM)
            )
            assert slope[k] == pytest.approx((up - down) / (2 * GRAM), rel=1e-5, abs=1e-9)
