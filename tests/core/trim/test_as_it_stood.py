"""A check has its time: it speaks of the plane as it stood."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.assess import Assessment, assess
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.trim.as_it_stood import ChangeKind, as_it_stands, changed_since
from oaken_scale.core.trim.beam import Checked
from oaken_scale.core.trim.flown import fly
from tests.benches import MORNING
from tests.core.trim.checked_planes import cg_of, plane, support, thing


def test_checked_with_another_pack_only():
    parts = (*plane().parts, thing("cam", 30, 200, option=True))
    loadouts = (Loadout("with", "With", ("cam",)), Loadout("without", "Without"))
    one = replace(support(300.0), loadout="with")
    build = replace(plane(parts=parts), loadouts=loadouts, checks=(one,))
    with_it, without = assess(build).beam.loadouts
    assert with_it.checked.how is Checked.CHECKED
    assert (without.checked.how, without.checked.loadout) == (Checked.ANOTHER_LOADOUT, "with")
    later = replace(one, id="d", loadout="without", at=MORNING + timedelta(days=1))
    assert assess(replace(build, checks=(one, later))).progress.balance == 1.0


def stood(build: Build, x: float, loadout=None) -> Build:
    """The build with an agreeing peg check of how it stands now."""
    check = BalanceCheck(
        f"c{len(build.checks)}",
        MORNING,
        CheckKind.SUPPORT,
        loadout,
        x,
        "pegs",
        stood=as_it_stands(build, loadout),
    )
    return replace(build, checks=(*build.checks, check))


def since_of(told: Assessment) -> list[tuple[str, ChangeKind]]:
    """What sits otherwise since the last check of the first loadout."""
    checked = told.beam.loadouts[0].checked
    assert checked.how is Checked.NOT_SINCE
    return [(each.part, each.kind) for each in checked.since.changed]


def shifted(build: Build, id: str, by: float) -> Build:
    return replace(
        build,
        parts=tuple(
            replace(i, station=replace(i.station, x_mm=i.station.x_mm + by)) if i.id == id else i
            for i in build.parts
        ),
    )


def test_a_move_after_a_check_moves_the_cg_by_all_of_it():
    """100 g of 460 slid 40 mm: 8.70 mm, with a check before it or without."""
    without = cg_of(shifted(plane(), "pack", -40.0)).x_mm - cg_of(plane()).x_mm
    build = stood(plane(), cg_of(plane()).x_mm + 0.5)
    after = shifted(build, "pack", -40.0)
    assert without == pytest.approx(-40 * 100 / 460)
    assert cg_of(after).x_mm - cg_of(build).x_mm == pytest.approx(without, abs=0.15)
    told = assess(after)
    assert abs(told.beam.checks[0].t) < 0.5
    assert told.loadouts[0].answers[0].value == pytest.approx(
        assess(build).loadouts[0].answers[0].value, abs=1e-9
    )
    assert since_of(told) == [("pack", ChangeKind.MOVED)]


def test_what_was_moved_is_a_little_less_sure_than_before():
    build = stood(plane(), cg_of(plane()).x_mm)
    before, after = cg_of(build).x_sd_mm, cg_of(shifted(build, "pack", -40.0)).x_sd_mm
    still = cg_of(shifted(replace(build, checks=()), "pack", -40.0)).x_sd_mm
    assert before < after < still / 2, "what the check told of the rest is not forgotten"


def test_what_is_added_or_taken_off_leaves_the_check_as_it_was():
    build = stood(plane(), cg_of(plane()).x_mm)
    ballast = thing("lead", 20, 0, 0.0)
    more = replace(build, parts=(*build.parts, ballast))
    told = assess(more)
    assert abs(told.beam.checks[0].t) < 0.01
    assert since_of(told) == [("lead", ChangeKind.ADDED)]
    expected = (460 * cg_of(build).x_mm) / 480
    assert cg_of(more).x_mm == pytest.approx(expected, abs=0.05)
    off = replace(
        build,
        parts=tuple(
            replace(i, retired=True, retired_at=MORNING) if i.id == "tail" else i
            for i in build.parts
        ),
    )
    assert since_of(assess(off)) == [("tail", ChangeKind.TAKEN_OFF)]
    assert abs(assess(off).beam.checks[0].t) < 0.01


def test_a_check_of_one_loadout_moves_the_other_only_by_what_both_have():
    parts = tuple(replace(i, option=i.id == "pack") for i in plane().parts)
    loadouts = (Loadout("with", "With", ("pack",)), Loadout("bare", "Bare"))
    build = replace(plane(parts=parts), loadouts=loadouts)
    checked_ = stood(build, cg_of(build).x_mm, "with")
    moved = shifted(checked_, "pack", -60.0)
    bare = [fly(each).planes[1].cg.x_mm for each in (checked_, moved)]
    assert bare[0] == pytest.approx(bare[1], abs=1e-9)


def test_an_old_check_without_a_record_speaks_by_dates():
    check = support(280.0)
    assert assess(plane(check)).beam.checks[0].found_mm == 280.0
    assert changed_since(plane(check), check) == ()
