"""What comes from the rack and the drawer, and what a finished build teaches the others."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.changes.finish import Learned, finished, learned_of, with_lessons
from oaken_scale.core.changes.shelf import (
    taken_lot,
    with_lot,
    with_lot_hung,
    with_thing,
    with_thing_moved,
)
from oaken_scale.core.material.drawer import Thing, ThingKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Lot, LotUnit
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing

AT = datetime(2026, 3, 7, 12, tzinfo=UTC)
SHEET = Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2)
RADIO = Thing("rx", "Receiver", ThingKind.RECEIVER, 7.0)


def test_a_lot_of_the_rack_keeps_its_place_there_under_an_id_that_is_free_here():
    here = Build("b", "B", lots=(replace(SHEET, name="Another"),))
    told = with_lot(here, SHEET)
    assert [(each.id, each.rack, each.name) for each in told.lots] == [
        ("sheet", None, "Another"),
        ("sheet-2", "sheet", "Sheet"),
    ]
    assert taken_lot(Build("b", "B"), SHEET) == replace(SHEET, rack="sheet")


def test_one_lot_is_hung_up_and_the_others_are_not():
    build = Build("b", "B", lots=(SHEET, replace(SHEET, id="other")))
    told = with_lot_hung(build, "other", ("sheet", "sheet-2"))
    assert [each.rack for each in told.lots] == [None, "sheet-3"]


def test_a_thing_is_fitted_where_it_is_said_and_twice_if_asked():
    once = with_thing(Build("b", "B"), RADIO, Station(120.0, 5.0), AT)
    twice = with_thing(once, RADIO, None, AT)
    assert [(each.id, each.thing, each.station, each.added_at) for each in twice.parts] == [
        ("receiver", "rx", Station(120.0, 5.0), AT),
        ("receiver-2", "rx", None, AT),
    ]
    assert [each.stated_g for each in twice.parts] == [7.0, 7.0]


def test_a_thing_that_left_retires_and_each_leaving_stands_in_the_diary():
    twice = with_thing(with_thing(Build("b", "B"), RADIO, None, AT), RADIO, None, AT)
    builds = {"b": twice, "c": Build("c", "C"), "d": Build("d", "D")}
    made = with_thing_moved(builds, "c", RADIO, Station(90.0), AT)
    assert [each.retired_at for each in made["b"].parts] == [AT, AT]
    assert [each.words for each in made["b"].diary] == ["Receiver moved to C"] * 2
    assert len({each.id for each in made["b"].diary}) == 2
    assert [(each.thing, each.station.x_mm) for each in made["c"].parts] == [("rx", 90.0)]
    assert "d" not in made


def built(id: str, extra_g: float, done: bool = True) -> Build:
    """A plane of four listed things of 100 g each and what nobody listed, read once."""
    parts = (
        *(Part(f"p{k}", f"P{k}", Pedigree.LISTING, stated_g=100.0, doubt_g=0.1) for k in range(4)),
        Part("more", "Still to come", Pedigree.ALLOWANCE, stated_g=20.0, doubt_g=20.0),
    )
    pan = Pan(tuple(Load(each.id) for each in parts))
    log = (Weighing("w", AT, "s", 400.0 + extra_g, pan),)
    scales = (Scale("s", "Scale", 0.1),)
    done_at = AT if done else None
    return Build(id, id, parts=parts, scales=scales, weighings=log, finished_at=done_at)


def test_only_finished_builds_teach_what_gets_left_off():
    three = [built("a", 20.0), built("b", 24.0), built("c", 28.0)]
    told = learned_of([*three, built("d", 90.0, done=False)]).allowance
    assert told.value == pytest.approx((0.05 + 0.06 + 0.07) / 3, abs=1e-3)
    assert told.source == "a, b, c"
    assert learned_of([*three[:2], built("c", 28.0, done=False)]).allowance is None


@pytest.mark.parametrize("at", [AT, None], ids=["finished", "taken up again"])
def test_a_build_keeps_what_it_expected_when_it_is_finished(at):
    old, new = Known(0.05, 0.01, "one build"), Known(0.08, 0.02, "two builds")
    build = replace(built("b", 0.0, done=False), allowance=old)
    told = finished(build, at, Learned(new, ()))
    assert told.finished_at == at
    assert told.allowance == (old if at else new)
    assert with_lessons(build, Learned(new, ())).allowance == new
