from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.moisture import damp, sampled_alone, sittings
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Pan, Sample, Scale, Weighing
from tests.benches import MORNING


def weighed(*readings: tuple[float, float, float]) -> Build:
    """A build with samples of its sheet: days after the first, dm2, and what the scale showed."""
    return Build(
        "b",
        "B",
        lots=(Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4),),
        parts=(Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 18.0),)),),
        scales=(Scale("s", "S", 0.1),),
        weighings=tuple(
            Weighing(
                f"r{k}",
                MORNING + timedelta(days=days),
                "s",
                shown,
                Pan(samples=(Sample("a", amount),)),
            )
            for k, (days, amount, shown) in enumerate(readings)
        ),
    )


def test_a_lot_weighed_again_after_storage_shows_its_gain():
    (gain,) = damp(weighed((0, 35.0, 161.0), (180, 35.0, 170.7)))
    assert gain.gain == pytest.approx(170.7 / 161.0 - 1)
    # By hand: r = 0.1 sqrt(1/12 + 1/4) = 0.0577 g in each reading.
    assert gain.gain_sd == pytest.approx(170.7 / 161 * 0.057735 * (161**-2 + 170.7**-2) ** 0.5)
    assert gain.sure


def test_samples_of_one_day_tell_of_the_scale_not_of_the_weather():
    build = weighed((0, 1.0, 4.6), (0.1, 1.0, 4.8), (0.2, 2.0, 9.4))
    assert damp(build) == ()
    (day,) = sittings(build, sampled_alone(build)["a"])
    # By precision: the double square counts four times as much.
    assert day.constant == pytest.approx((4.6 + 4.8 + 4 * 4.7) / 6)
    assert len(day.weighings) == 3


def test_a_gain_within_the_scales_doubt_is_no_notice():
    build = weighed((0, 1.0, 4.6), (90, 1.0, 4.7))
    assert not damp(build)[0].sure
    assert not any(notice.code == "damp" for notice in assess(build).notices)


def test_damp_is_said_until_one_reading_goes_aside():
    build = weighed((0, 35.0, 161.0), (180, 35.0, 170.7))
    (told,) = [notice for notice in assess(build).notices if notice.code == "damp"]
    assert (told.lot, told.amount) == (build.lots[0].id, pytest.approx(170.7 / 161.0 - 1))
    aside = replace(
        build, weighings=(build.weighings[0], replace(build.weighings[1], set_aside="damp"))
    )
    assert assess(aside).damp == ()
    assert assess(aside).lots[0].constant == pytest.approx(4.6, abs=0.002)


def test_drying_is_a_loss():
    (gain,) = damp(weighed((0, 35.0, 170.7), (30, 35.0, 161.0)))
    assert gain.gain < 0
    notices = assess(weighed((0, 35.0, 170.7), (30, 35.0, 161.0))).notices
    assert [each.amount for each in notices if each.code == "damp"] == [gain.gain]


def test_samples_weighed_with_parts_are_no_sitting():
    build = weighed((0, 35.0, 161.0))
    mixed = Weighing(
        "m", MORNING + timedelta(days=9), "s", 170.0, Pan.of({"wing": 1.0}, {"a": 1.0})
    )
    assert damp(replace(build, weighings=(*build.weighings, mixed))) == ()


def test_a_sample_on_a_known_plate_is_what_it_adds():
    build = weighed((0, 35.0, 161.0), (180, 35.0, 170.7))
    plate = tuple(
        replace(each, reading_g=each.reading_g + 52.0, pan=replace(each.pan, known_g=52.0))
        for each in build.weighings
    )
    (bare,) = damp(build)
    (on_it,) = damp(replace(build, weighings=plate))
    assert on_it.gain == pytest.approx(bare.gain)
    assert on_it.gain_sd == pytest.approx(bare.gain_sd)
