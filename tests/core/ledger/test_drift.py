"""Scales that drift, and pans that were not empty when they were tared."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.drift import drifts
from oaken_scale.core.ledger.scale import reading_doubt, shows_unloaded
from oaken_scale.core.ledger.tare import Odd, OddTare, odd_at_tare
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.weighing import Container, Load, Pan, Scale
from tests.benches import reading

SCALE = Scale("kitchen", "Kitchen scale", 0.1)


def bench(*readings) -> Build:
    return Build(
        "b",
        "B",
        parts=(Part("motor", "Motor", Pedigree.LISTING, stated_g=46.0, doubt_g=0.3),),
        scales=(SCALE,),
        containers=(Container("tray", "Tray", 31.4),),
        weighings=readings,
    )


def weight(number: int, grams: float, known: float = 200.0):
    return reading(number, grams, {}, known_g=known)


def test_one_check_tells_no_drift():
    assert drifts(bench(weight(1, 203.0))) == ()


def test_a_scale_that_reads_the_same_weight_otherwise_has_drifted():
    build = bench(weight(1, 200.0), weight(2, 200.2), weight(3, 201.1))
    (told,) = drifts(build)
    assert told.by_g == pytest.approx(1.0)
    assert told.sd_g == pytest.approx(reading_doubt(SCALE) * 1.5**0.5)
    (notice,) = [each for each in assess(build).notices if each.code == "drift"]
    assert (notice.scale, notice.known_g) == ("kitchen", 200.0)
    assert notice.amount == told.by_g


def test_unrest_other_weights_and_what_is_set_aside_are_no_drift():
    assert drifts(bench(weight(1, 200.0), weight(2, 200.2))) == ()
    assert drifts(bench(weight(1, 200.0), weight(2, 100.9, known=100.0))) == ()
    aside = replace(weight(2, 204.0), set_aside="draught")
    assert drifts(bench(weight(1, 200.0), aside)) == ()


def test_an_empty_pan_shows_nothing_but_its_own_unrest():
    assert not shows_unloaded(SCALE, 0.2)
    assert shows_unloaded(SCALE, 0.5)
    assert shows_unloaded(SCALE, -31.4)


@pytest.mark.parametrize(
    ("pan", "shown", "says"),
    [
        (Pan(), 0.1, None),
        (Pan(), 31.4, None),
        (Pan(), 12.4, (Odd.NOT_EMPTY, 12.4)),
        (Pan((Load("motor"),)), 46.1, None),
        (Pan((Load("motor"),)), 46.1 + 31.4, None),
        (Pan((Load("motor"),)), 55.5, (Odd.MORE, 9.5)),
        (Pan((Load("motor"),)), 30.1, (Odd.LESS, 15.9)),
        (Pan((Load("motor"),)), 0.0, (Odd.NOTHING_YET, 0.0)),
    ],
)
def test_what_is_odd_when_it_is_tared(pan, shown, says):
    told = odd_at_tare(bench(), pan, "kitchen", shown)
    assert told == (says and OddTare(says[0], pytest.approx(says[1], abs=0.06)))
