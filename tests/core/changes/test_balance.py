"""What is done about the balance: moved, checked, set aside, held to a range and its unit."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.balance import (
    Elsewhere,
    dragged,
    held_to_school,
    measured_from,
    with_balance_in,
    with_check,
    with_check_aside,
)
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind, PlanMark
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.trim.cg_ranges import SchoolKind
from oaken_scale.demo.sandpiper import sandpiper

AT = datetime(2026, 3, 7, 12, tzinfo=UTC)
NOSE, EDGE = Reference.NOSE, Reference.LEADING_EDGE
# Swept by 60 mm over 500: its mean chord of 186.7 mm begins 26.7 mm behind its leading edge.
WING = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 220), Section(260, 500, 0, 150)))


def part(id: str, x: float | None, reference: Reference = NOSE, **more) -> Part:
    station = None if x is None else Station(x, 3.0, -8.0, reference)
    return Part(id, id.title(), Pedigree.LISTING, stated_g=50.0, station=station, **more)


def plane(*parts: Part, **more) -> Build:
    return Build("b", "B", parts=parts, **{"surfaces": (WING,), **more})


def refused(act, *given) -> tuple[str, str]:
    with pytest.raises(BuildFaultError) as caught:
        act(*given)
    (fault,) = caught.value.faults
    return fault.field, fault.words


def test_what_is_dragged_keeps_what_it_is_measured_from():
    build = plane(part("motor", 10), part("pack", 40, EDGE), part("radio", 90))
    told = dragged(build, [Elsewhere("motor", 14.5, 0.0), Elsewhere("pack", 250.0, z_mm=2.0)])
    assert [each.station for each in told.parts] == [
        Station(14.5, 0.0, -8.0, NOSE),
        Station(50.0, 3.0, 2.0, EDGE),
        Station(90, 3.0, -8.0, NOSE),
    ]


def test_without_a_wing_the_leading_edge_is_at_the_nose():
    build = plane(part("pack", 40, EDGE), surfaces=())
    assert dragged(build, [Elsewhere("pack", 55.0)]).parts[0].station.x_mm == 55.0


def test_nothing_dragged_is_the_same_build():
    build = plane(part("motor", 10))
    assert dragged(build, []) is build


@pytest.mark.parametrize("id", ["radio", "gone"], ids=["not placed", "not there"])
def test_what_is_not_placed_cannot_be_dragged(id):
    build = plane(part("motor", 10), part("radio", None))
    field, problem = refused(dragged, build, [Elsewhere("motor", 1.0), Elsewhere(id, 9.0)])
    assert (field, id in problem) == ("moved.1.part", True)


CHECK = BalanceCheck("c", AT, CheckKind.SUPPORT, None, 48.0, "pegs")


@pytest.mark.parametrize(
    ("check", "x", "other"),
    [
        (CHECK, 248.0, None),
        (replace(CHECK, kind=CheckKind.SUPPORTS, x_mm=-50, other_mm=400, reading_g=90), 150, 600),
        (replace(CHECK, kind=CheckKind.HANG, z_mm=60, nose_down_deg=3), 248, None),
        (replace(CHECK, kind=CheckKind.SIDES, x_mm=-90, other_mm=90, reading_g=90), -90, 90),
    ],
    ids=["rests", "two supports", "hangs", "left and right"],
)
def test_a_check_is_kept_from_the_nose_whatever_it_was_measured_from(check, x, other):
    kept = measured_from(plane(), check, EDGE)
    assert (kept.x_mm, kept.other_mm) == (x, other)
    assert replace(kept, x_mm=check.x_mm, other_mm=check.other_mm) == check
    assert measured_from(plane(), check, NOSE) == check


def test_a_check_speaks_of_what_is_aboard_its_loadout():
    flying = (Loadout("bare", "Bare"), Loadout("film", "Film", ("camera",)))
    build = plane(part("motor", 10), part("camera", 40, EDGE, option=True), loadouts=flying)

    def stood(loadout: str, *only: str) -> list[tuple[str, float | None]]:
        told = with_check(build, replace(CHECK, loadout=loadout), only)
        return [(each.part, each.x_mm) for each in told.checks[-1].stood]

    assert stood("bare") == [("motor", 10)]
    assert stood("film") == [("motor", 10), ("camera", 240)]
    assert stood("film", "camera") == [("camera", 240)]
    on_shore = refused(with_check, build, replace(CHECK, loadout="bare"), ["camera"])
    assert on_shore[0] == "parts"


def test_a_check_is_set_aside_and_speaks_again_beside_others():
    build = plane(checks=(CHECK, replace(CHECK, id="d")))
    aside = with_check_aside(build, "d", "the pegs slipped")
    assert [each.set_aside for each in aside.checks] == [None, "the pegs slipped"]
    assert with_check_aside(aside, "d", None) == build


def test_a_school_becomes_the_target_where_it_draws_its_range():
    build = sandpiper()
    for school in assess(build).beam.schools:
        if school.low_mm is None:
            continue
        held = held_to_school(build, school.kind)
        beam = assess(held).beam
        assert (beam.low_mm, beam.high_mm) == pytest.approx(
            (school.low_mm, school.high_mm), abs=1e-3
        )
        (target,) = (each for each in held.targets if each.kind is TargetKind.BALANCE)
        assert (target.low, target.high) == pytest.approx(
            (school.low_percent, school.high_percent), abs=1e-3
        )
        assert target.source == school.kind.value
        assert len(held.targets) == len(build.targets)


def test_a_school_without_a_range_is_no_target():
    assert "draw the wing" in refused(held_to_school, plane(surfaces=()), SchoolKind.CHORD)[1]
    field, problem = refused(held_to_school, plane(), SchoolKind.MARK)
    assert (field, "chord rule" in problem) == ("school", True)
    marked = plane(plan_mark=PlanMark(255.0, 4.0))
    (target,) = held_to_school(marked, SchoolKind.MARK).targets
    # By hand: MAC 220 (2/3) (1 + t + t2) / (1 + t) = 187.2 of t = 150/220, its leading edge at
    # 200 + 60 (1 + 2t) / (3 (1 + t)) = 228.1.
    t = 150 / 220
    mac = 220 * 2 / 3 * (1 + t + t * t) / (1 + t)
    edge = 200 + 60 * (1 + 2 * t) / (3 * (1 + t))
    assert target.low == pytest.approx(100 * (251 - edge) / mac, abs=1e-4)
    assert target.high == pytest.approx(100 * (259 - edge) / mac, abs=1e-4)


@pytest.mark.parametrize("start", list(BalanceUnit))
@pytest.mark.parametrize("unit", list(BalanceUnit))
def test_in_another_unit_it_is_the_same_range(start, unit):
    t = 150 / 220
    mac = 220 * 2 / 3 * (1 + t + t * t) / (1 + t)
    mac_edge = 200 + 60 * (1 + 2 * t) / (3 * (1 + t))
    axis = {
        BalanceUnit.MM_FROM_NOSE: (0.0, 1.0),
        BalanceUnit.MM_FROM_LEADING_EDGE: (200.0, 1.0),
        BalanceUnit.PERCENT_MAC: (mac_edge, mac / 100),
    }
    origin, size = axis[start]
    low = (250.0 - origin) / size
    limit = Target(TargetKind.AUW, high=600.0)
    old = Target(TargetKind.BALANCE, low, None, "plan", start)
    told = with_balance_in(plane(targets=(old, limit)), unit)
    to, step = axis[unit]
    same, other = told.targets
    assert same == Target(TargetKind.BALANCE, same.low, None, "plan", unit)
    assert to + step * same.low == pytest.approx(250.0, abs=1e-3)
    assert other is limit


def test_a_unit_of_the_wing_waits_for_the_wing_and_any_for_a_target():
    nose = Target(TargetKind.BALANCE, 240.0, 258.0, "", BalanceUnit.MM_FROM_NOSE)
    bare = plane(targets=(nose,), surfaces=())
    assert with_balance_in(bare, BalanceUnit.MM_FROM_NOSE) == bare
    for unit in (BalanceUnit.PERCENT_MAC, BalanceUnit.MM_FROM_LEADING_EDGE):
        field, problem = refused(with_balance_in, bare, unit)
        assert (field, problem.startswith("draw the wing first")) == ("unit", True)
        back = plane(targets=(replace(nose, balance_unit=unit),), surfaces=())
        assert refused(with_balance_in, back, BalanceUnit.MM_FROM_NOSE)[0] == "unit"
    assert refused(with_balance_in, plane(), BalanceUnit.PERCENT_MAC)[0] == "unit"
