"""What is told beside the figures, and where exactly it begins to be told."""

from dataclasses import replace

import pytest

from oaken_scale.core.ledger.moisture import WORTH_TELLING, Damp
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.notices import STRAINED, NoticeCode, notices
from tests.benches import reading, with_readings

SCALE = Scale("kitchen", "Kitchen scale", 0.1, None, 0.002)


def part(id: str, grams: float, pedigree: Pedigree = Pedigree.LISTING, **more) -> Part:
    more = {"station": Station(100.0), **more}
    return Part(id, id.title(), pedigree, stated_g=grams, **more)


def told(build: Build, is_doubted: bool = False, gained: tuple[Damp, ...] = ()) -> dict:
    found = notices(build, solve(build), is_doubted, gained)
    return {each.code: each for each in found}


def test_less_than_nothing_is_told_with_what_it_would_weigh():
    """Both weigh 50 g together, and one alone 60: the other would weigh 10 less than nothing."""
    parts = (part("motor", 58.0), part("screws", 1.0))
    build = Build("b", "B", parts=parts, scales=(SCALE,))
    both = reading(1, 50.0, {"motor": 1.0, "screws": 1.0})
    build = with_readings(build, reading(2, 60.0, "motor"), both)
    notice = told(build)[NoticeCode.NEGATIVE_MASS]
    assert notice.parts == ("screws",)
    assert notice.amount < -1.0
    gone = replace(build, parts=(parts[0], replace(parts[1], retired=True)))
    assert NoticeCode.NEGATIVE_MASS not in told(gone)


def test_what_was_cut_away_weighs_less_than_nothing_by_right():
    parts = (part("wing", 100.0), part("pocket", -6.0, Pedigree.CALCULATED, host="wing"))
    build = with_readings(Build("b", "B", parts=parts, scales=(SCALE,)), reading(1, 100.0, "wing"))
    assert NoticeCode.NEGATIVE_MASS not in told(build)


def test_a_scale_is_strained_beyond_three_times_its_doubt_unless_a_reading_is_doubted():
    parts = (part("weight", 100.0, doubt_g=0.01),)
    scale = replace(SCALE, step_g=0.01, calibration_doubt=0.002)
    for grams, is_strained in ((100.55, False), (100.70, True), (99.30, True)):
        log = [reading(k, grams, "weight") for k in range(1, 4)]
        build = with_readings(Build("b", "B", parts=parts, scales=(scale,)), *log)
        found = told(build)
        assert (NoticeCode.STRAINED_SCALE in found) is is_strained, grams
        if is_strained:
            error = found[NoticeCode.STRAINED_SCALE].amount
            assert abs(error) > STRAINED * 0.002
            assert error == pytest.approx(grams / 100 - 1, rel=0.02)
            assert found[NoticeCode.STRAINED_SCALE].scale == "kitchen"
        assert NoticeCode.STRAINED_SCALE not in told(build, is_doubted=True)


@pytest.mark.parametrize(
    ("gain", "sd", "is_sure"),
    [
        (WORTH_TELLING * 1.01, 0.001, True),
        (WORTH_TELLING * 0.99, 0.001, False),
        (-WORTH_TELLING * 1.01, 0.001, True),
        (0.10, 0.049, True),
        (0.10, 0.051, False),
    ],
)
def test_a_lot_that_gained_is_told_where_it_is_sure_and_worth_it(gain, sd, is_sure):
    found = told(Build("b", "B"), gained=(Damp("sheet", gain, sd, ()),))
    assert (NoticeCode.DAMP in found) is is_sure
    if is_sure:
        assert (found[NoticeCode.DAMP].lot, found[NoticeCode.DAMP].amount) == ("sheet", gain)


def test_a_scale_that_drifted_is_told_with_the_known_weight():
    build = Build("b", "B", scales=(replace(SCALE, calibration_doubt=0.0),))
    log = [reading(1, 100.0, known_g=100.0), reading(2, 100.8, known_g=100.0)]
    notice = told(with_readings(build, *log))[NoticeCode.DRIFT]
    assert (notice.scale, notice.known_g) == ("kitchen", 100.0)
    assert notice.amount == pytest.approx(0.8)
    steady = [reading(1, 100.0, known_g=100.0), reading(2, 100.0, known_g=100.0)]
    assert NoticeCode.DRIFT not in told(with_readings(build, *steady))
