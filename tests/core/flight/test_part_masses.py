"""Each part's mass, mark and station: how it is known by what a pan has felt of it."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.forecast import Mark
from oaken_scale.core.flight.part_masses import been_on_pan, part_masses
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.mixture import suspect
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.weighing import Load, Pan, Scale
from tests.benches import reading, with_readings

SCALE = Scale("kitchen", "Kitchen scale", 0.1, 0.05, 0.0)
WING = Surface("wing", "Wing", Role.WING, (Section(186, 0, 0, 190), Section(186, 500, 0, 190)))


def part(id: str, grams: float | None, pedigree: Pedigree = Pedigree.LISTING, **more) -> Part:
    return Part(id, id.title(), pedigree, stated_g=grams, **more)


def told(build: Build) -> dict:
    after = solve(build)
    wing = wing_figures(build.surfaces)
    return {each.id: each for each in part_masses(build, after, wing, been_on_pan(build, after))}


def test_each_way_of_knowing_has_its_mark():
    """A motor alone on the pan is weighed, its screws beside it are known by difference; what no
    pan has felt is a listing or a guess."""
    parts = (part("motor", 60.0), part("screws", 2.4, Pedigree.GUESS), part("servo", 9.0))
    parts = (*parts, part("brace", 4.0, Pedigree.GUESS))
    log = (reading(1, 62.3, "motor"), reading(2, 64.7, {"motor": 1.0, "screws": 1.0}))
    masses = told(with_readings(Build("b", "B", parts=parts, scales=(SCALE,)), *log))
    assert {id: each.mark for id, each in masses.items()} == {
        "motor": Mark.WEIGHED,
        "screws": Mark.DIFFERENCE,
        "servo": Mark.LISTED,
        "brace": Mark.GUESS,
    }
    assert masses["motor"].mass_g == pytest.approx(62.3, abs=0.05)
    assert masses["screws"].mass_g == pytest.approx(2.4, abs=0.05)
    assert masses["motor"].estimate_g == 60.0
    assert masses["motor"].estimate_sd_g == pytest.approx(3.0)
    assert masses["servo"].sd_g < masses["servo"].estimate_sd_g  # what listings share is learned


def test_what_a_pan_felt_without_telling_is_no_better_known():
    """Three of 50 +- 10 g on one pan: together they are known, each by itself to 10 sqrt(2/3)."""
    parts = tuple(part(id, 50.0, Pedigree.GUESS, doubt_g=10.0) for id in ("one", "two", "three"))
    all_three = reading(1, 156.0, {"one": 1.0, "two": 1.0, "three": 1.0})
    build = with_readings(Build("b", "B", parts=parts, scales=(SCALE,)), all_three)
    masses = told(build)
    assert {each.mark for each in masses.values()} == {Mark.GUESS}
    assert been_on_pan(build, solve(build)).tolist() == [1.0, 1.0, 1.0]
    assert masses["one"].mass_g == pytest.approx(52.0, abs=0.01)
    assert masses["one"].sd_g == pytest.approx(10 * (2 / 3) ** 0.5, rel=1e-3)


def test_a_doubt_without_a_figure_holds_no_reading_back():
    box = part("box", None, Pedigree.GUESS, doubt_g=2.0)
    build = Build("b", "B", parts=(part("wing", 200.0), box), scales=(SCALE,))
    assert told(build)["box"].sd_g == pytest.approx(2.0)
    weighed = with_readings(build, reading(1, 100.0, "box"))
    assert told(weighed)["box"].mass_g == pytest.approx(100.0, abs=0.03)
    assert assess(weighed).doubts == ()


@pytest.mark.parametrize("grams", [3.0, 45.0, 100.0, 640.0])
def test_what_nobody_knew_weighs_what_the_pan_shows(grams):
    """With no figure it is no surprise, however heavy; what was planned with stays as it was: 4 %
    of the rest, at least 5 g."""
    parts = (part("wing", 200.0), part("box", None, Pedigree.GUESS))
    build = Build("b", "B", parts=parts, scales=(SCALE,))
    masses = told(build)
    assert (masses["box"].mass_g, masses["box"].sd_g) == (pytest.approx(8.0), pytest.approx(8.0))
    weighed = with_readings(build, reading(1, grams, "box"))
    box = told(weighed)["box"]
    assert box.mass_g == pytest.approx(grams, abs=0.05)
    assert box.sd_g < 0.1
    assert box.mark is Mark.WEIGHED
    assert (box.estimate_g, box.estimate_sd_g) == (pytest.approx(8.0), pytest.approx(8.0))
    assert suspect(build, Pan((Load("box"),)), "kitchen", grams) is None
    assert assess(weighed).doubts == ()
    # A second reading that says otherwise is doubted as any other is.
    assert suspect(weighed, Pan((Load("box"),)), "kitchen", grams + 31.4) is not None


def test_of_two_that_nobody_knew_only_both_together_are_known():
    """On one pan with 104 g each may be anything from nothing to all of it."""
    parts = (part("left", None, Pedigree.GUESS), part("right", None, Pedigree.GUESS))
    both = reading(1, 104.0, {"left": 1.0, "right": 1.0})
    build = with_readings(Build("b", "B", parts=parts, scales=(SCALE,)), both)
    masses = told(build)
    assert masses["left"].mass_g == pytest.approx(52.0, abs=0.1)
    assert masses["left"].sd_g == pytest.approx(52 / 2**0.5, rel=1e-2)
    total, sd = solve(build).total(np.ones(2))
    assert (total, sd) == (pytest.approx(104.0, abs=0.01), pytest.approx(0.06, abs=0.01))
    then = with_readings(build, both, reading(2, 30.0, "left"))
    assert told(then)["right"].mass_g == pytest.approx(74.0, abs=0.1)


@pytest.mark.parametrize(("doubt", "mark"), [(0.44, Mark.WEIGHED), (0.46, Mark.LISTED)])
def test_what_another_build_weighed_is_weighed_where_that_is_better_than_its_listing(doubt, mark):
    """A listing of 9 g is known to 0.45 g."""
    servo = part("servo", 9.0, elsewhere=Known(9.4, doubt))
    build = Build("b", "B", parts=(servo,))
    assert told(build)["servo"].mark is mark
    assert been_on_pan(build, solve(build)).tolist() == [float(mark is Mark.WEIGHED)]


def test_stations_by_both_references():
    at_edge = Station(80.0, reference=Reference.LEADING_EDGE)
    parts = (
        part("motor", 60.0, station=Station(12.0)),
        part("spar", 20.0, station=at_edge),
        part("glue", 9.0, Pedigree.JOINT),
    )
    drawn = Build("b", "B", parts=parts, surfaces=(WING,))
    masses = told(drawn)
    both = {id: (each.x_from_nose_mm, each.x_from_leading_edge_mm) for id, each in masses.items()}
    assert both == {
        "motor": (pytest.approx(12.0), pytest.approx(-174.0)),
        "spar": (pytest.approx(266.0), pytest.approx(80.0)),
        "glue": (None, None),
    }
    bare = told(replace(drawn, surfaces=()))
    assert bare["motor"].x_from_nose_mm == pytest.approx(12.0)
    assert bare["motor"].x_from_leading_edge_mm is None
