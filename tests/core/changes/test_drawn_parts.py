"""Parts that are as the drawing has them until they are cut."""

from dataclasses import replace

import pytest

from oaken_scale.core.changes.drawing import chorded, with_parts
from oaken_scale.core.changes.drawn_parts import cut, drawn_parts, following, parts_drawn
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.weighing import Scale
from tests.benches import reading, with_readings

SHEET = Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4, thickness_mm=5.0)
ROD = Lot("rod", "Rod", LotUnit.M, 20.0, 1.0)
WING = Surface("wing", "Wing", Role.WING, (Section(100, 0, 0, 200), Section(100, 500, 0, 200)))
BODY = Body("body", "Body", BodyShape.BOX, (Frame(0, 0, 60, 80), Frame(600, 0, 60, 80)))
BOOMS = Body(
    "boom",
    "Boom",
    BodyShape.TUBE,
    (Frame(200, 0, 8, 8), Frame(700, 0, 8, 8)),
    y_mm=120.0,
    twin=True,
)


def made(*drawn, lot="a", layers=1.0):
    build = Build("b", "B", lots=(SHEET, ROD), surfaces=(WING,), bodies=(BODY, BOOMS))
    for id in drawn:
        build = with_parts(build, parts_drawn(build, id, lot, layers))
    return build


def wider(build, chord=240.0):
    return replace(build, surfaces=(chorded(WING, chord),))


def amounts(build):
    return {part.id: part.uses[0].amount for part in build.parts}


def test_twins_of_a_boom_are_runs_of_a_rod_on_either_side():
    build = made("boom", lot="rod")
    told = [(i.name, i.uses, i.station.x_mm, i.station.y_mm) for i in build.parts]
    assert told == [
        ("Boom, left", (Use("rod", 0.5),), 450.0, -120.0),
        ("Boom, right", (Use("rod", 0.5),), 450.0, 120.0),
    ]


def test_a_body_of_two_layers_off_the_middle():
    body = replace(BODY, y_mm=100.0, twin=True)
    build = replace(made(), bodies=(body,))
    parts = parts_drawn(build, "body", "a", 2.0)
    assert len(parts) == 8
    assert {p.pattern.layers for p in parts} == {2}
    sides = {p.name: p.station.y_mm for p in parts}
    assert sides["Body, right, left side"] == 72.5
    assert sides["Body, left, left side"] == -127.5
    assert sum(p.uses[0].amount for p in parts) == pytest.approx(2 * 2 * (2 * 4.8 + 2 * 3.0))


def test_parts_follow_a_moving_drawing():
    build = made("wing", "body")
    after = following(build, wider(build))
    assert amounts(after)["wing-left"] == 12.0
    assert after.parts[1].station == Station(220.0, 250.0, 0.0)
    assert after.parts[1].pattern.rings[0][2] == (500.0, 240.0)
    assert amounts(after)["body-left-side"] == 4.8
    longer = replace(BODY, frames=(*BODY.frames[:1], Frame(700, 0, 60, 80)))
    then = following(after, replace(after, bodies=(longer,)))
    assert amounts(then)["body-left-side"] == 5.6
    # As it was: the parts go back with the drawing.
    assert following(then, build) == build


def test_what_is_cut_or_weighed_stays_as_it_was():
    build = made("wing", "body")
    build = cut(build, ["wing-left"])
    build = replace(build, scales=(Scale("kitchen", "Kitchen scale", 0.1),))
    build = with_readings(build, reading(1, 48.0, "wing-right"))
    after = following(build, wider(build))
    assert amounts(after) == amounts(build)
    told = {p.part: p.is_cut for p in drawn_parts(after)}
    assert told == {
        "wing-left": True,
        "wing-right": True,
        "body-left-side": False,
        "body-right-side": False,
        "body-bottom": False,
        "body-top": False,
    }
    aside = replace(build, weighings=tuple(replace(w, set_aside="a slip") for w in build.weighings))
    assert amounts(following(aside, wider(aside)))["wing-right"] == 12.0


def test_what_was_changed_by_hand_is_left_alone():
    build = made("wing")
    left, right = build.parts
    build = replace(build, parts=(replace(left, uses=(Use("a", 9.0),)), right))
    after = following(build, wider(build))
    assert amounts(after) == {"wing-left": 9.0, "wing-right": 12.0}
    assert after.parts[0].station == Station(220.0, -250.0, 0.0)


def test_what_the_drawing_lost_stands_on_its_own():
    build = made("body")
    after = following(build, replace(build, bodies=()))
    assert amounts(after) == amounts(build)
    assert all(part.drawn is None for part in after.parts)


@pytest.mark.parametrize(
    ("drawn", "lot", "words"),
    [
        ("kite", "a", 'no "kite" on the drawing'),
        ("wing", "b", "take one from the rack"),
        ("wing", "rod", "comes by the metre"),
    ],
)
def test_what_no_parts_are_made_of(drawn, lot, words):
    with pytest.raises(BuildFaultError, match=words):
        made(drawn, lot=lot)


def test_only_a_part_can_be_cut():
    with pytest.raises(BuildFaultError, match='no part "kite"'):
        cut(made("wing"), ["kite"])


def test_where_the_new_drawing_gives_no_such_part_the_old_one_stays():
    booms = made("boom", lot="rod")
    # One boom in the middle has neither a left nor a right one.
    alone = replace(booms, bodies=(BODY, replace(BOOMS, twin=False, y_mm=0.0)))
    assert following(booms, alone).parts == booms.parts
    # A wing without area gives no panels; with its area back they follow again.
    wing = made("wing")
    flat = replace(WING, sections=tuple(replace(s, chord_mm=0.0) for s in WING.sections))
    none = following(wing, replace(wing, surfaces=(flat,)))
    assert none.parts == wing.parts
    # The lot that it is cut from is gone from the build.
    without = replace(wing, lots=(ROD,))
    assert following(without, wider(without)).parts == wing.parts


def test_a_part_of_another_lot_by_hand_takes_the_place_and_keeps_its_amount():
    build = made("wing")
    thick = replace(SHEET, id="thick", constant=6.0)
    parts = tuple(replace(each, uses=(Use("thick", 9.0),)) for each in build.parts)
    build = replace(build, lots=(*build.lots, thick), parts=parts)
    after = following(build, wider(build))
    assert [each.uses for each in after.parts] == [(Use("thick", 9.0),)] * 2
    assert after.parts[1].station == Station(220.0, 250.0, 0.0)


def test_a_drawing_that_did_not_change_moves_nothing():
    build = made("wing")
    assert following(build, build) is build
    renamed = replace(build, name="C")
    assert following(build, renamed) is renamed
