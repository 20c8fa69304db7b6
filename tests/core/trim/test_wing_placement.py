"""Where the wing belongs, and that the plane balances there once it is moved."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.model.body import Drawn
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.trim.beam import Heavy, Outside
from oaken_scale.core.trim.cg_ranges import SchoolKind
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.wing_placement import (
    WingGroups,
    WingPlace,
    of_the_wings,
    wing_place,
    with_wing_at,
)


def thing(id, grams, x, assembly="Fuselage", reference=Reference.NOSE) -> Part:
    station = Station(x, reference=reference, doubt_mm=0.0)
    return Part(id, id.title(), Pedigree.LISTING, assembly, grams, station=station)


def surface(role, x, half, chord) -> Surface:
    return Surface(role, role, role, (Section(x, 0, 0, chord), Section(x, half, 0, chord)))


def plane(unit=BalanceUnit.PERCENT_MAC, low=25.0, high=33.0, canard=False) -> Build:
    surfaces = [surface(Role.WING, 200, 540, 190)]
    surfaces.append(
        surface(Role.CANARD, 0, 260, 120) if canard else surface(Role.TAIL, 700, 210, 110)
    )
    return Build(
        "b",
        "B",
        parts=(
            thing("panel", 90, 85, "Wing", Reference.LEADING_EDGE),
            thing("spar", 20, 260, "Wing"),
            thing("body", 300, 260),
            thing("servo", 18, 100, reference=Reference.LEADING_EDGE),
        ),
        surfaces=tuple(surfaces),
        targets=(Target(TargetKind.BALANCE, low, high, "", unit),),
    )


def test_by_hand():
    """Body 300 at 260 and servo 18 at 300: 318 at 262.26; wing 110, its CG 81.4 back; to 55.1."""
    told = wing_place(plane(), None, "Wing")
    fuselage_x = (300 * 260 + 18 * 300) / 318
    back = (90 * 85 + 20 * 60) / 110
    target = 0.29 * 190
    assert told.edge_mm == pytest.approx(fuselage_x + (110 * back - 428 * target) / 318)
    assert (told.fuselage_g, told.wing_g, told.now_mm) == pytest.approx((318, 110, 200))


@pytest.mark.parametrize(
    "build",
    [
        plane(),
        plane(BalanceUnit.MM_FROM_LEADING_EDGE, 50.0, 60.0),
    ],
)
def test_moved_there_it_balances_in_the_middle_of_its_range(build):
    moved = with_wing_at(build, wing_place(build, None, "Wing"), "Wing")
    answer = assess(moved).loadouts[0].answers[3]
    assert answer.value == pytest.approx((answer.low + answer.high) / 2, abs=0.15)
    servo = next(part for part in fly(moved).planes[0].build.parts if part.id == "servo")
    wing = assess(moved).wing.leading_edge_x_mm
    assert wing + servo.station.x_mm == pytest.approx(300.0, abs=0.11), "the servo stays put"


def test_on_a_canard_the_margin_is_kept_as_the_neutral_point_moves():
    build = plane(BalanceUnit.MM_FROM_LEADING_EDGE, -80.0, -60.0, canard=True)
    mac = 190.0
    margin = (neutral_point(build.surfaces).x_mm - 130.0) / mac
    moved = with_wing_at(build, wing_place(build, None, "Wing"), "Wing")
    x = fly(moved).planes[0].cg.x_mm
    assert (neutral_point(moved.surfaces).x_mm - x) / mac == pytest.approx(margin, abs=0.005)


@pytest.mark.parametrize(
    ("change", "field"),
    [({"targets": ()}, "targets"), ({"surfaces": ()}, "targets"), ({"parts": ()}, "assembly")],
)
def test_what_is_missing_is_named(change, field):
    with pytest.raises(BuildFaultError) as raised:
        wing_place(replace(plane(), **change), None, "Wing")
    assert raised.value.faults[0].field == field
    with pytest.raises(BuildFaultError, match="assembly"):
        wing_place(plane(), None, "Keel")


def test_a_range_fixed_to_the_nose_asks_which_school_is_meant():
    build = plane(BalanceUnit.MM_FROM_NOSE, 140.0, 150.0)
    with pytest.raises(BuildFaultError, match="chord rule") as raised:
        wing_place(build, None, "Wing")
    assert raised.value.faults[0].field == "school"
    with pytest.raises(BuildFaultError, match="school"):
        wing_place(build, None, "Wing", SchoolKind.MARK)
    place = wing_place(build, None, "Wing", SchoolKind.CHORD)
    assert place.edge_mm == pytest.approx(wing_place(plane(), None, "Wing").edge_mm)
    moved = with_wing_at(build, place, "Wing")
    assert assess(moved).wing.leading_edge_x_mm < fly(moved).planes[0].cg.x_mm


@pytest.mark.parametrize(
    ("x", "low", "outside"),
    [
        (250.0, 245.0, None),
        (150.0, 140.0, Outside.AHEAD_OF_EDGE),
        (330.0, 325.0, Outside.BEHIND_NEUTRAL),
        (215.0, 210.0, Outside.EVERY_RANGE),
    ],
)
def test_a_cg_outside_every_range_is_said_whatever_the_target(x, low, outside):
    """The target's own range has it inside every time."""
    build = plane(BalanceUnit.MM_FROM_NOSE, low, low + 12.0)
    build = replace(build, parts=(thing("all", 300, x),))
    (told,) = assess(build).beam.loadouts
    assert told.heavy is Heavy.NEITHER
    assert told.outside is outside


@pytest.mark.parametrize(
    ("named", "groups", "wing"),
    [
        (("Fuselage", "Main Wing", "Tail"), ("Fuselage", "Main Wing", "Tail"), "Main Wing"),
        (("Fuselage/Wing saddle", "Wing"), ("Fuselage", "Fuselage/Wing saddle", "Wing"), "Wing"),
        (("F/Wing saddle",), ("F", "F/Wing saddle"), "F/Wing saddle"),
        ((":Stick", "Body", "Tail"), ("Body", "Tail", "Stick"), None),
        ((":Stick", ":Left wing", "Tail"), ("Tail", "Stick", "Left wing"), "Left wing"),
        ((":Left wing", "Wing"), ("Wing", "Left wing"), "Wing"),
        ((":Wing servo", ":Wing"), ("Wing servo", "Wing"), "Wing"),
        ((":Wing glue", ":Stick"), ("Wing glue", "Stick"), None),
        ((), (), None),
    ],
)
def test_the_wing_is_told_by_its_name(named, groups, wing):
    """A name after a colon is a part's that lies in no assembly."""
    parts = [
        Part(f"p{k}", each.removeprefix(":"), Pedigree.GUESS, stated_g=10.0)
        if each.startswith(":")
        else Part(f"p{k}", "P", Pedigree.GUESS, each, 10.0)
        for k, each in enumerate(named)
    ]
    nobodys = (
        Part("rest", "Still to come", Pedigree.ALLOWANCE, "Not listed"),
        Part("glue", "Wing glue", Pedigree.JOINT, stated_g=1.0),
        Part("old", "Old wing", Pedigree.GUESS, stated_g=1.0, retired=True),
        Part("patch", "Wing patch", Pedigree.GUESS, stated_g=1.0, host="p0"),
    )
    parts = tuple(parts) + (nobodys if parts else nobodys[:1])
    assert assess(Build("b", "B", parts=parts)).wing_groups == WingGroups(groups, wing)


def test_a_left_and_a_right_wing_move_together():
    parts = tuple(thing(k, 20.0, 85.0, "") for k in ("left wing", "right wing", "stick"))
    build = Build("b", "B", parts=parts)
    for name in ("Left Wing", "Right Wing"):
        assert of_the_wings(build, name) == [True, True, False]
    assert of_the_wings(build, "Stick") == [False, False, True]


def test_a_wing_in_one_piece_needs_no_assembly():
    """Body 30 g at 130 and wing 20 g at 85 with its edge at 65, to 30 % of 60 mm."""
    span = (Section(65, 0, 0, 60), Section(65, 150, 0, 60))
    parts = (
        Part("w", "Foam wing", Pedigree.GUESS, stated_g=20.0, station=Station(85.0)),
        Part("f", "Stick", Pedigree.GUESS, stated_g=30.0, station=Station(130.0)),
    )
    target = Target(TargetKind.BALANCE, 28.0, 32.0, balance_unit=BalanceUnit.PERCENT_MAC)
    build = Build(
        "b", "B", parts=parts, surfaces=(Surface("w", "W", Role.WING, span),), targets=(target,)
    )
    place = wing_place(build, None, "Foam wing")
    rack = replace(parts[0], id="r", assembly="Body", stated_g=5.0)
    assert of_the_wings(replace(build, parts=(*parts, rack)), "Foam wing") == [True, False, False]
    # 20 (e + 20) + 30 130 = 50 (e + 18)
    assert place.edge_mm == pytest.approx((400 + 3900 - 900) / 30)
    moved = with_wing_at(build, place, "Foam wing")
    assert [part.station.x_mm for part in moved.parts] == [pytest.approx(133.3), 130.0]
    balance = assess(moved).loadouts[0].answers[-1]
    assert balance.value == pytest.approx(30.0, abs=0.1)


def test_both_wings_of_a_biplane_move_and_both_count():
    """Lower 60 g at 290 and upper 50 g at 260, body 300 at 260 and servo 18 at 300, to 29 % MAC."""
    lower = surface(Role.WING, 200, 400, 190)
    upper = replace(
        lower,
        id="upper",
        name="Upper wing",
        sections=tuple(replace(s, x_le_mm=170, z_mm=190) for s in lower.sections),
    )
    parts = (
        thing("low", 60, 290, "Lower"),
        thing("high", 50, 260, "Upper wing"),
        replace(thing("rib", 10, 265, "Odds and ends"), drawn=Drawn("upper", "left")),
        thing("body", 300, 260),
        thing("servo", 18, 300),
    )
    build = replace(plane(), surfaces=(lower, upper), parts=parts)
    told = wing_place(build, None, "Lower")
    back = (60 * 290 + 50 * 260 + 10 * 265) / 120 - 200
    target = 185 + 0.29 * 190 - 200  # the mean chord begins between the two, at 185
    fuselage_x = (300 * 260 + 18 * 300) / 318
    assert (told.wing_g, told.fuselage_g) == pytest.approx((120, 318))
    assert told.edge_mm == pytest.approx(fuselage_x + (120 * back - 438 * target) / 318)
    after = with_wing_at(build, told, "Lower")
    moved = [
        part.station.x_mm - was.station.x_mm for part, was in zip(after.parts, parts, strict=True)
    ]
    by = round(told.by_mm, 1)
    assert moved == pytest.approx([by, by, by, 0.0, 0.0])
    (loadout,) = assess(after).beam.loadouts
    assert loadout.heavy is Heavy.NEITHER


@pytest.mark.parametrize(("to", "is_there"), [(200.4, True), (199.6, True), (200.6, False)])
def test_a_wing_that_would_hardly_move_is_there(to, is_there):
    place = WingPlace(to, 200.0, 300.0, 220.0, 100.0)
    assert (place.by_mm, place.is_there) == (pytest.approx(to - 200.0), is_there)
