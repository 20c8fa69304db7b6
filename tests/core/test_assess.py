"""All of it together: figures that only the whole tells, worked by hand."""

from dataclasses import replace

import numpy as np
import pytest

from oaken_scale.core.assess import assess, expect
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model import presets
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Known, Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Load, Pan, Sample, Scale
from oaken_scale.core.trim.beam import Outside
from tests.benches import MORNING, reading, with_readings

SHEET = Lot("sheet", "Sheet", LotUnit.DM2, 4.0, 0.4)
TAPE = Lot("tape", "Tape", LotUnit.M, 2.0, 0.2)
WING = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 200), Section(200, 500, 0, 200)))


def listed(id: str, grams: float, x: float | None = None, **more) -> Part:
    at = None if x is None else Station(x, more.pop("y", 0.0), more.pop("z", 0.0))
    return Part(id, id.title(), Pedigree.LISTING, stated_g=grams, station=at, **more)


def bare(*parts: Part, **more) -> Build:
    return Build("b", "B", parts=parts, scales=(Scale("kitchen", "K", 0.1),), **more)


def test_progress_of_the_plan_in_fifths():
    assert assess(Build("b", "B")).progress.plan == 0.0
    steps = bare(listed("motor", 30.0))
    assert assess(steps).progress.plan == pytest.approx(1 / 5)
    steps = replace(steps, targets=(Target(TargetKind.AUW, high=500.0),))
    assert assess(steps).progress.plan == pytest.approx(2 / 5)
    steps = replace(steps, thrust=Thrust(300.0), surfaces=(WING,))
    assert assess(steps).progress.plan == pytest.approx(4 / 5)
    assert assess(replace(steps, parts=(listed("motor", 30.0, 40.0),))).progress.plan == 1.0


def test_progress_of_the_stock_and_the_bench():
    cut = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("sheet", 5.0), Use("tape", 1.0)))
    build = bare(cut, listed("motor", 30.0), lots=(SHEET, TAPE))
    before = assess(build).progress
    assert (before.stock, before.bench) == (0.0, 0.0)
    square = replace(reading(1, 4.1, "motor"), pan=Pan((), (Sample("sheet", 1.0),)))
    sampled = replace(build, weighings=(square,))
    assert assess(sampled).progress.stock == pytest.approx(1 / 2)
    learned = replace(sampled, lots=(SHEET, replace(TAPE, elsewhere=Known(2.1, 0.05))))
    assert assess(learned).progress.stock == 1.0
    told = assess(with_readings(build, reading(1, 30.0, "motor")))
    grams = {part.id: part.mass_g for part in told.parts}
    assert told.progress.bench == pytest.approx(grams["motor"] / sum(grams.values()), rel=1e-6)
    off = replace(build, parts=(replace(cut, retired=True), build.parts[1]))
    assert assess(with_readings(off, reading(1, 30.0, "motor"))).progress.bench == 1.0


def test_progress_of_the_balance_by_loadout():
    parts = (listed("body", 300.0, 250.0), listed("pack", 90.0, 100.0, option=True))
    loadouts = (Loadout("l", "Light"), Loadout("p", "Pack", ("pack",)))
    build = bare(*parts, loadouts=loadouts)
    assert assess(build).progress.balance == 0.0
    check = BalanceCheck("c", MORNING, CheckKind.SUPPORT, "p", 215.0, doubt=3.0)
    assert assess(replace(build, checks=(check,))).progress.balance == 0.5


def test_the_scales_error_counts_in_what_the_bench_expects():
    """A known weight of 200 g that reads 201 says so of everything on that scale."""
    known = replace(reading(1, 201.0, "motor"), pan=Pan(known_g=200.0))
    build = bare(listed("motor", 100.0, doubt_g=0.0), weighings=(known,))
    error = assess(build).scales[0].error
    r2 = 0.1**2 / 12 + 0.05**2
    gain = 200 * 0.003**2 / (200**2 * 0.003**2 + r2)
    assert error == pytest.approx(gain * 1.0, rel=1e-3)
    told = expect(build, Pan((Load("motor"),)), "kitchen")
    assert told.reading_g == pytest.approx(100 * (1 + error), abs=1e-6)
    assert told.reading_g > 100.4


def test_nothing_is_expected_of_what_nobody_knows_until_it_was_weighed():
    hatch = replace(listed("hatch", 1.0), stated_g=None)
    build = bare(listed("motor", 30.0), hatch)
    both = Pan((Load("hatch"), Load("motor")))
    assert expect(build, both, "kitchen") is None
    assert expect(build, Pan((Load("motor"),)), "kitchen").reading_g == pytest.approx(30.0)
    weighed = with_readings(build, reading(1, 4.2, "hatch"))
    assert expect(weighed, both, "kitchen").reading_g == pytest.approx(34.2, abs=0.05)
    away = replace(weighed, weighings=(replace(weighed.weighings[0], set_aside="slip"),))
    assert expect(away, both, "kitchen") is None


def test_stations_from_the_nose_and_from_the_leading_edge():
    parts = (
        listed("motor", 30.0, 40.0),
        replace(listed("servo", 9.0, 60.0), station=Station(60.0, 0, 0, Reference.LEADING_EDGE)),
        listed("wires", 5.0),
    )
    told = {part.id: part for part in assess(bare(*parts, surfaces=(WING,))).parts}
    assert (told["motor"].x_from_nose_mm, told["motor"].x_from_leading_edge_mm) == (40.0, -160.0)
    assert (told["servo"].x_from_nose_mm, told["servo"].x_from_leading_edge_mm) == (260.0, 60.0)
    assert told["wires"].x_from_nose_mm is None
    undrawn = assess(bare(parts[0])).parts[0]
    assert (undrawn.x_from_nose_mm, undrawn.x_from_leading_edge_mm) == (40.0, None)


def test_the_centre_of_gravity_on_all_three_axes():
    parts = (
        listed("motor", 40.0, 30.0, y=-6.0, z=12.0),
        listed("pack", 60.0, 180.0, y=4.0, z=-8.0),
    )
    cg = assess(bare(*parts)).loadouts[0].cg
    assert (cg.x_mm, cg.y_mm, cg.z_mm) == pytest.approx((120.0, 0.0, 0.0))
    parts = (parts[0], replace(parts[1], station=Station(180.0)))
    cg = assess(bare(*parts)).loadouts[0].cg
    assert (cg.y_mm, cg.z_mm) == pytest.approx((-2.4, 4.8))


@pytest.mark.parametrize("factor", [1.01, 1.04, 0.98])
def test_a_strained_scale_is_told_only_past_three_times_its_doubt(factor):
    """Two exact figures that both read off by as much: the scale's own error, and how far."""
    parts = tuple(replace(listed(f"i{k}", 100.0), doubt_g=0.001) for k in range(3))
    build = bare(*parts)
    log = [replace(reading(k, 100.0 * factor, f"i{k}"), accepted=True) for k in range(3)]
    told = assess(with_readings(build, *log))
    off = abs(told.scales[0].error)
    assert off == pytest.approx(abs(factor - 1), rel=0.05)
    codes = [notice.code for notice in told.notices]
    assert ("strained_scale" in codes) == (off > 3 * 0.003)


def test_a_canard_that_has_no_area_yet_takes_nothing_down():
    flat = Surface("c", "Canard", Role.CANARD, (Section(0, 0, 0, 100), Section(0, 0, 0, 100)))
    build = bare(
        listed("body", 300.0, 280.0),
        surfaces=(WING, flat),
        targets=(Target(TargetKind.BALANCE, low=25.0, high=33.0),),
    )
    assert assess(build).beam.loadouts[0].outside is Outside.BEHIND_NEUTRAL
    ahead = assess(replace(build, parts=(listed("body", 300.0, 20.0),)))
    assert ahead.beam.loadouts[0].outside is not Outside.BEHIND_NEUTRAL


def test_assemblies_within_assemblies_and_their_doubt():
    parts = (
        replace(listed("hatch", 10.0), assembly="Fuselage/Nose", doubt_g=0.6),
        replace(listed("box", 40.0), assembly="Fuselage", doubt_g=0.8),
        replace(listed("old", 70.0), assembly="Fuselage", retired=True),
    )
    told = {each.name: each for each in assess(bare(*parts)).assemblies}
    assert (told["Fuselage"].mass_g, told["Fuselage"].sd_g) == pytest.approx((50.0, 1.0))
    assert (told["Fuselage/Nose"].mass_g, told["Fuselage/Nose"].sd_g) == pytest.approx((10.0, 0.6))


def test_the_wing_that_all_figures_use_is_the_drawn_one():
    told = assess(bare(listed("body", 300.0), surfaces=(WING,)))
    assert told.wing == wing_figures((WING,))
    assert told.loadouts[0].answers[1].value == pytest.approx(300.0 / 20.0)
    assert np.isclose(told.outlines[0].area_dm2, 20.0)


def test_a_surface_is_as_it_came_until_somebody_draws_it_or_weighs():
    laid = presets.layout("tractor").starting_surfaces
    build = bare(listed("motor", 30.0, 40.0), layout="tractor", surfaces=laid)

    def untouched(build: Build) -> dict[str, bool]:
        return {each.id: each.untouched for each in assess(build).outlines}

    assert untouched(build) == {"wing": True, "tail": True, "fin": True}
    wing, tail, fin = laid
    root = replace(tail.sections[0], chord_mm=tail.sections[0].chord_mm + 5)
    mine = replace(build, surfaces=(wing, replace(tail, sections=(root, *tail.sections[1:])), fin))
    assert untouched(mine) == {"wing": True, "tail": False, "fin": True}
    weighed = with_readings(build, reading(1, 30.0, "motor"))
    assert untouched(weighed) == {"wing": False, "tail": False, "fin": False}


def test_a_surface_is_told_by_its_corners_its_area_and_its_panels():
    """A wing of 1000 mm with 40 mm of dihedral outboard of 300, and two fins of 120 mm."""
    wing = replace(
        WING,
        sections=(Section(200, 0, 0, 200), Section(200, 300, 0, 200), Section(220, 500, 40, 150)),
    )
    fin = Surface("fin", "Fin", Role.FIN, (Section(700, 60, 0, 100), Section(740, 60, 120, 60)))
    build = bare(listed("motor", 30.0, 40.0), surfaces=(wing, replace(fin, twin=True)))
    told = assess(build).outlines
    assert [(each.id, each.is_port) for each in told] == [
        ("wing", False),
        ("fin", False),
        ("fin", True),
    ]
    drawn = {each.id: each for each in told if not each.is_port}
    # 2 x (300 x 200 + 200 x 175) mm2; the panel climbs 40 over 200.
    assert drawn["wing"].area_dm2 == pytest.approx(19.0)
    assert drawn["wing"].span_mm == pytest.approx(1000.0)
    assert drawn["wing"].chord_mm == pytest.approx(200.0)
    assert drawn["wing"].tip_mm == pytest.approx((200**2 + 40**2) ** 0.5)
    assert {y for _, y in drawn["wing"].corners} == {-500, -300, 0, 300, 500}
    assert {x for x, _ in drawn["wing"].corners} == {200, 220, 370, 400}
    assert drawn["fin"].span_mm == pytest.approx(120.0)
    assert {y for _, y in drawn["fin"].corners} == {60}
    assert {y for _, y in told[2].corners} == {-60}
    assert drawn["fin"].side == told[2].side
    assert {z for _, z in drawn["fin"].side} == {0, 120}
    assert not any(each.untouched for each in drawn.values())


def test_an_allowance_counts_as_what_finished_builds_had_and_says_so():
    """A part of 200 g and what is still to come: 4 % of it, or the 6.5 % that was learned."""
    parts = (
        Part("body", "Body", Pedigree.GUESS, stated_g=200.0),
        Part("rest", "Still to come", Pedigree.ALLOWANCE),
    )
    for learned, share in ((None, 0.04), (Known(0.065, 0.01, "finished builds"), 0.065)):
        told = assess(Build("b", "B", parts=parts, allowance=learned))
        assert told.allowance_share == share
        assert told.parts[1].mass_g == pytest.approx(share * 200.0)
