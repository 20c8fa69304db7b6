from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.weighing import Pan
from oaken_scale.core.reading_effects import news
from tests.benches import case_l, reading, with_readings


def told(build, weighing):
    return news(build, weighing.pan, assess(build), assess(with_readings(build, weighing)))


def test_a_weighed_wing_moves_its_sheet_and_all_cut_from_it():
    (lot,) = told(case_l(), reading(1, 90.2, "wing"))
    assert (lot.lot, lot.made_of_it) == ("sheet", 3)
    assert (lot.before, lot.after) == (4.6, pytest.approx(4.992, abs=5e-4))


def test_a_glued_airframe_tells_about_the_glue():
    build = case_l(
        tuple(
            reading(n, g, i)
            for n, (g, i) in enumerate(((90.2, "wing"), (25.2, "tail"), (70.8, "fuselage")))
        )
    )
    airframe = reading(9, 199.0, {"wing": 1, "tail": 1, "fuselage": 1, "glue": 1})
    first, *_ = told(build, airframe)
    assert first.part == "glue"
    assert (first.before, first.after) == (9.0, pytest.approx(12.8, abs=0.1))


def test_what_was_alone_on_the_pan_is_no_news():
    assert told(case_l(), reading(1, 33.0, "motor")) == ()


def test_a_reading_as_expected_is_no_news():
    assert told(case_l(), reading(1, 82.8, "wing")) == ()


def test_a_lot_that_nothing_is_cut_from_is_no_news():
    build = replace(case_l(), parts=case_l().parts[3:])
    sample = reading(1, 5.4, {}, samples={"sheet": 1.0})
    assert told(build, sample) == ()
    assert news(build, Pan(), assess(build), assess(build)) == ()
