from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.lateral_pairs import twins
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.demo.sandpiper import sandpiper

WING = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 180), Section(200, 500, 0, 180)))


def panel(name: str, grams: float, y: float | None, doubt: float = 0.1) -> Part:
    at = None if y is None else Station(200.0, y)
    return Part(name, name, Pedigree.LISTING, stated_g=grams, doubt_g=doubt, station=at)


def pair(*parts: Part) -> Build:
    return Build("b", "B", parts=parts, surfaces=(WING,))


def test_the_cure_by_hand():
    """Two grams more at 250 mm: a gram at the other tip, 500 mm out."""
    build = pair(panel("Left panel", 41.0, -250.0), panel("Right panel", 43.0, 250.0))
    (told,) = twins(build, solve(build))
    assert (told.left, told.right) == ("Left panel", "Right panel")
    assert told.heavier_g == pytest.approx(2.0)
    assert told.heavier_sd_g == pytest.approx(0.1 * 2**0.5)
    assert told.moment_gmm == pytest.approx(500.0)
    assert told.moment_sd_gmm == pytest.approx(25.0 * 2**0.5)
    assert told.cure_g == pytest.approx(1.0)


def test_equal_weights_at_unequal_stations_are_a_moment():
    build = pair(panel("Servo, left", 9.0, -200.0), panel("Servo, right", 9.0, 300.0))
    (told,) = twins(build, solve(build))
    assert told.heavier_g == 0
    assert told.moment_gmm == pytest.approx(900.0)
    assert told.cure_g == pytest.approx(1.8)


def test_nothing_is_cured_that_is_not_sure():
    build = pair(panel("Left panel", 41.0, -250.0, 2.0), panel("Right panel", 43.0, 250.0, 2.0))
    assert twins(build, solve(build))[0].cure_g is None


@pytest.mark.parametrize(
    ("right_g", "at_mm", "doubt", "is_sure"),
    [
        (43.0, 250.0, 0.70, True),  # 2.00 g more, 2 sigma are 1.98
        (43.0, 250.0, 0.72, False),  # ... 2.04
        (39.0, 250.0, 0.70, True),
        (41.0, 250.0, 0.10, False),
        (41.3, 250.0, 0.10, True),  # 0.30 g more, 2 sigma are 0.28, and nothing worth curing
        (41.25, 250.0, 0.10, False),
        (41.0, 300.0, 0.10, True),  # no heavier, and a moment of 2050 gmm: 4.1 g at the tip
    ],
)
def test_a_pair_is_told_where_it_differs_for_sure(right_g, at_mm, doubt, is_sure):
    build = pair(
        panel("Left panel", 41.0, -250.0, doubt), panel("Right panel", right_g, at_mm, doubt)
    )
    assert twins(build, solve(build))[0].is_sure is is_sure


@pytest.mark.parametrize(
    "other",
    [
        panel("Right panel", 43.0, None),
        panel("Rear panel", 43.0, 250.0),
        replace(panel("Right panel", 43.0, 250.0), retired=True),
    ],
)
def test_a_part_without_its_twin_is_no_pair(other):
    build = pair(panel("Left panel", 41.0, -250.0), other)
    assert twins(build, solve(build)) == ()


def test_the_demos_wings_and_ailerons_are_pairs():
    told = {twin.left: twin for twin in assess(sandpiper()).twins}
    assert set(told) == {"left-panel", "left-aileron"}
    assert told["left-aileron"].heavier_g == pytest.approx(0.3, abs=0.15)


def test_port_and_starboard_are_sides_too():
    build = pair(panel("Port float", 20.0, -100.0), panel("Starboard float", 20.0, 100.0))
    assert len(twins(build, solve(build))) == 1
