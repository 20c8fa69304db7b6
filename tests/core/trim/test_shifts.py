"""Parts moved at once on the plan, and where the plane balances then, by hand."""

import pytest

from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.shift_line import Shift
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.trim.shifts import balances, shifted

WING = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))


def part(id: str, grams: float, at: Station | None, **more) -> Part:
    return Part(id, id.title(), Pedigree.LISTING, stated_g=grams, station=at, **more)


PLANE = Build(
    "b",
    "B",
    surfaces=(WING,),
    parts=(
        part("body", 300.0, Station(280.0, 3.0, 4.0)),
        part("pack", 100.0, Station(120.0, -2.0, 9.0), slide=Slide(80.0, 160.0)),
        part("servo", 20.0, Station(60.0, reference=Reference.LEADING_EDGE)),
        part("wire", 5.0, None),
    ),
)


@pytest.mark.parametrize(
    ("shift", "x"),
    [
        (Shift("pack", by_mm=-15.0), 105.0),
        (Shift("pack", to_mm=210.0), 210.0),
        (Shift("pack", to_mm=0.0), 0.0),
        (Shift("servo", by_mm=15.0), 75.0),
        (Shift("servo", to_mm=210.0), 10.0),  # 210 from the nose is 10 behind the leading edge
    ],
)
def test_a_part_comes_to_where_it_is_moved_and_the_rest_stays(shift, x):
    after = shifted(PLANE, [shift])
    before, now = ({each.id: each for each in build.parts} for build in (PLANE, after))
    assert now[shift.part].station.x_mm == pytest.approx(x)
    assert now[shift.part].station.y_mm == before[shift.part].station.y_mm
    assert now[shift.part].station.reference is before[shift.part].station.reference
    assert {id: each for id, each in now.items() if id != shift.part} == {
        id: each for id, each in before.items() if id != shift.part
    }


def test_its_bay_goes_with_it():
    slide = shifted(PLANE, [Shift("pack", by_mm=-15.0)]).parts[1].slide
    assert (slide.low_mm, slide.high_mm) == (65.0, 145.0)
    slide = shifted(PLANE, [Shift("pack", to_mm=130.0)]).parts[1].slide
    assert (slide.low_mm, slide.high_mm) == (90.0, 170.0)


def test_without_a_wing_the_leading_edge_is_the_nose():
    bare = Build("b", "B", parts=PLANE.parts)
    assert shifted(bare, [Shift("servo", to_mm=210.0)]).parts[2].station.x_mm == 210.0


def test_what_sits_nowhere_yet_is_named():
    with pytest.raises(BuildFaultError, match="Wire has no station yet"):
        shifted(PLANE, [Shift("wire", by_mm=5.0)])


def test_each_loadout_balances_where_its_moments_say():
    """Bare: 300 at 280, servo 20 at 260; with the pack 100 at 120, then at 105."""
    loadouts = (Loadout("bare", "Bare", ()), Loadout("full", "With pack", ("pack",)))
    parts = tuple(
        part("pack", 100.0, Station(120.0), slide=Slide(80.0, 160.0), option=True)
        if each.id == "pack"
        else each
        for each in PLANE.parts
        if each.id != "wire"
    )
    build = Build("b", "B", surfaces=(WING,), parts=parts, loadouts=loadouts)
    bare, full = balances(build, shifted(build, [Shift("pack", by_mm=-15.0)]))
    without = (300 * 280 + 20 * 260) / 320
    assert (bare.loadout, bare.name, full.name) == ("bare", "Bare", "With pack")
    assert (bare.now_mm, bare.then_mm) == (pytest.approx(without), pytest.approx(without))
    assert full.now_mm == pytest.approx((300 * 280 + 20 * 260 + 100 * 120) / 420)
    assert full.then_mm == pytest.approx((300 * 280 + 20 * 260 + 100 * 105) / 420)


def test_nothing_placed_balances_nowhere():
    build = Build("b", "B", parts=(part("wire", 5.0, None),))
    (told,) = balances(build, build)
    assert (told.now_mm, told.then_mm) == (None, None)
