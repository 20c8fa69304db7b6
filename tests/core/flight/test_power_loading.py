"""Power loading: watts of a fresh pack at full throttle for each kilogram, where it is wanted."""

from dataclasses import replace
from statistics import NormalDist

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.headroom import headroom
from oaken_scale.core.flight.metrics.power_loading import power_loading
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.flight.verdict import Mend, Missing, Word
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.power.drive_aboard import power_of
from oaken_scale.core.trim.flown import fly
from oaken_scale.demo.sandpiper import sandpiper

KIND = TargetKind.POWER_LOADING
WANTED = Target(KIND, low=150.0, source="a habit")
HALF_KILO = Build(
    "b",
    "B",
    parts=(Part("p", "P", Pedigree.LISTING, stated_g=500.0, doubt_g=10.0),),
    targets=(WANTED,),
)


def driven(watts: float = 80.0, sd: float = 4.0, **changes):
    return replace(fly(replace(HALF_KILO, **changes)).planes[0], power=(watts, sd))


def test_by_hand():
    told = power_loading(driven())
    assert (told.value, told.unit) == (pytest.approx(160.0), "W/kg")
    # 80/0.5 with 4 W and 10 g of doubt: sqrt((4/0.5)^2 + (160 x 10/500)^2)
    assert told.sd == pytest.approx((8.0**2 + 3.2**2) ** 0.5)
    # P(80 - 150 M >= 0) of a normal: 5 W of 4 W and 1.5 W
    assert told.probability == pytest.approx(1 - NormalDist(5.0, (16 + 2.25) ** 0.5).cdf(0.0))
    assert told.word is Word.ON_COURSE
    assert told.margin == pytest.approx(10.0)


def test_what_alone_would_bring_it_back_does():
    short = driven(60.0, 3.0)
    told = power_loading(short)
    assert told.mends == (
        Mend("more_power_w", pytest.approx(15.0)),
        Mend("lighter_g", pytest.approx(100.0)),
    )
    assert power_loading(driven(75.0, 3.0)).value == pytest.approx(150.0)
    assert power_loading(replace(short, auw_g=400.0)).value == pytest.approx(150.0)


def test_what_is_left_to_add_until_it_breaks():
    (left,) = headroom(driven())
    assert (left.kind, left.grams) == (KIND, pytest.approx(80 / 0.15 - 500))
    assert left.sd_g == pytest.approx(((4 / 0.15) ** 2 + 10**2) ** 0.5)
    assert power_loading(replace(driven(), auw_g=500 + left.grams)).value == pytest.approx(150.0)


def test_it_moves_with_each_gram_as_its_gradient_says():
    told = power_loading(driven())
    (slope,) = METRICS[KIND].gradient(driven(), told)
    heavier = power_loading(replace(driven(), auw_g=500.001)).value
    assert slope == pytest.approx((heavier - told.value) / 0.001, rel=1e-4)


def test_it_is_told_where_it_is_a_target_and_of_the_pack_that_flies():
    build = sandpiper()
    assert KIND not in {each.kind for each in assess(build).loadouts[0].answers}
    wanted = replace(build, targets=(*build.targets, WANTED))
    for loadout, told in zip(wanted.loadouts, assess(wanted).loadouts, strict=True):
        (answer,) = [each for each in told.answers if each.kind is KIND]
        watts, _ = power_of(wanted, loadout)
        auw = next(each.value for each in told.answers if each.kind is TargetKind.AUW)
        assert answer.value == pytest.approx(1000 * watts / auw)
    at = {each.loadout: each.fresh.power_w for each in assess(build).power.loadouts}
    assert at == {each.id: power_of(build, each)[0] for each in build.loadouts}


def test_without_a_drive_it_says_what_is_missing():
    (told,) = [each for each in assess(HALF_KILO).loadouts[0].answers if each.kind is KIND]
    assert (told.value, told.low, told.missing) == (None, 150.0, Missing.DRIVE)
