"""Loadouts from packs and payloads in one step, and a list of entries added at once."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.changes.listed import with_list
from oaken_scale.core.changes.ways_of_flying import flown_with
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack, Power, Propeller, Run
from tests.benches import MORNING, reading


def part(id: str, **more) -> Part:
    return Part(id, id.capitalize(), Pedigree.LISTING, stated_g=50.0, **more)


PLANE = Build(
    "b",
    "B",
    parts=(part("small"), part("large"), part("camera"), part("lamp"), part("old", retired=True)),
)


def carried(build: Build) -> list[tuple[str, tuple[str, ...]]]:
    return [(each.name, each.carries) for each in build.loadouts]


def test_each_pack_flies_plain_and_with_each_payload():
    told = flown_with(PLANE, ["small", "large"], ["camera", "lamp"])
    assert carried(told) == [
        ("Small", ("small",)),
        ("Small, Camera", ("small", "camera")),
        ("Small, Lamp", ("small", "lamp")),
        ("Large", ("large",)),
        ("Large, Camera", ("large", "camera")),
        ("Large, Lamp", ("large", "lamp")),
    ]
    assert [each.option for each in told.parts] == [True, True, True, True, False]
    assert len({each.id for each in told.loadouts}) == 6


def test_without_a_pack_it_flies_plain_and_with_each_payload():
    told = flown_with(PLANE, [], ["camera"])
    assert carried(told) == [("Plain", ()), ("Camera", ("camera",))]
    assert [each.id for each in told.parts if each.option] == ["camera"]


def test_a_loadout_that_carries_the_same_keeps_its_name_and_others_stay():
    named = Loadout("mine", "For the count", ("camera", "small"))
    other = Loadout("way-1", "Lamp alone", ("lamp",))
    half = Loadout("half", "Two packs", ("small", "large"))
    build = replace(PLANE, loadouts=(named, other, half))
    told = flown_with(build, ["small"], ["camera"])
    assert carried(told) == [
        ("For the count", ("camera", "small")),
        ("Lamp alone", ("lamp",)),
        ("Small", ("small",)),
    ]
    assert told.loadouts[2].id == "way-2"


@pytest.mark.parametrize(
    ("packs", "payloads", "field", "says"),
    [
        (["small", "small"], [], "packs", "Small is named twice"),
        (["small"], ["small"], "packs", "Small is named twice"),
        (["old"], [], "packs", 'no part "old"'),
        ([], ["kite"], "payloads", 'no part "kite"'),
        ([], [], "packs", "say which packs"),
    ],
)
def test_what_is_no_way_of_flying_is_refused(packs, payloads, field, says):
    with pytest.raises(BuildFaultError, match=says) as refused:
        flown_with(PLANE, packs, payloads)
    assert refused.value.faults[0].field == field


def test_a_name_is_no_longer_than_a_name_may_be():
    wide = Build("b", "B", parts=tuple(replace(part(id), name=id * 45) for id in "ab"))
    told = flown_with(wide, ["a"], ["b"])
    assert [len(each.name) for each in told.loadouts] == [45, 80]


def test_entries_of_a_list_are_added_behind_what_is_there_readings_by_their_times():
    drive = Power(
        Motor(1400, 60, 0.06, 1.2),
        propellers=(Propeller("p8", "8 by 4", 203, 102),),
        packs=(Pack("s3", "3 cells", 3, 1300),),
    )
    there = replace(PLANE, weighings=(reading(5, 50.0, "small"),), power=drive)
    late, early = reading(9, 50.2, "small"), reading(2, 50.1, "small")
    throw = Throw("t", MORNING + timedelta(days=1), distance_m=9.0)
    run = Run("run", MORNING, "s3", "p8", ())
    told = with_list(there, [late, throw, Loadout("l", "L"), run, early])
    assert [each.id for each in told.weighings] == ["r5", "r2", "r9"]
    assert [each.id for each in told.field.throws] == ["t"]
    assert [each.id for each in told.loadouts] == ["l"]
    assert [each.id for each in told.power.runs] == ["run"]
    # A plane without a drive has nothing that could have run.
    assert with_list(PLANE, [run]).power is None
