"""The next version of a plane: its plan again, with what this one taught, nothing of its life."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.field import FieldLog, Throw
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Flight, Motor, Pack, Power, Propeller, Run
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.next_version import next_version
from tests.benches import MORNING, reading

SCALE = Scale("kitchen", "Kitchen scale", 0.1, 0.05, 0.0)


def part(id: str, grams: float | None, pedigree: Pedigree = Pedigree.LISTING, **more) -> Part:
    return Part(id, id.title(), pedigree, "Fuselage", stated_g=grams, **more)


@pytest.fixture
def flown() -> Build:
    return Build(
        "b",
        "Curlew",
        parts=(
            part("motor", 60.0, added_at=MORNING),
            part("box", None),
            part("never", None, Pedigree.GUESS),
            part("patch", 3.0, host="box"),
            part("old", 9.0, retired=True),
            part("servo", 9.0, replaces="old", added_at=MORNING),
            part("camera", 40.0, option=True),
            part("rest", 6.0, Pedigree.ALLOWANCE),
        ),
        scales=(SCALE,),
        loadouts=(
            Loadout("cam", "With camera", ("camera", "patch", "old")),
            Loadout("bare", "Bare"),
        ),
        weighings=(
            reading(1, 62.34, "motor"),
            reading(2, 45.0, "box"),
            reading(3, 9.5, "servo"),
        ),
        checks=(BalanceCheck("c", MORNING, CheckKind.SUPPORT, None, 240.0, "pegs"),),
        diary=(DiaryEntry("d", MORNING, DiaryKind.REPAIR, "cracked", ("patch",)),),
        field=FieldLog(throws=(Throw("t", MORNING),)),
        power=Power(
            Motor(1400, 60, 0.06, 1.2),
            propellers=(Propeller("p8", "8 by 4", 203, 102),),
            packs=(Pack("s3", "3 cells", 3, 1300),),
            runs=(Run("run", MORNING, "s3", "p8", ()),),
            flights=(Flight("f", MORNING, "s3", None, 8.0, 700.0),),
        ),
        finished_at=MORNING + timedelta(days=9),
        variant_of="a",
    )


@pytest.fixture
def following(flown) -> Build:
    return next_version(flown, assess(flown), "Curlew 2")


def test_what_was_found_to_weigh_is_what_the_next_is_planned_with(following):
    stated = {each.id: each.stated_g for each in following.parts}
    assert stated["motor"] == pytest.approx(62.34, abs=0.03)
    assert stated["box"] == pytest.approx(45.0, abs=0.03)  # no figure before, and weighed
    assert stated["never"] is None  # no figure before, and never weighed
    assert stated["rest"] == 6.0  # what nobody lists is allowed for anew
    figures = [each.stated_g for each in following.parts if each.stated_g is not None]
    assert figures == [round(each, 2) for each in figures]


def test_repairs_and_what_was_taken_off_are_left_behind(following):
    here = [each.id for each in following.parts]
    assert here == ["motor", "box", "never", "servo", "camera", "rest"]
    assert {each.added_at for each in following.parts} == {None}
    assert {each.replaces for each in following.parts} == {None}
    assert [each.carries for each in following.loadouts] == [("camera",), ()]


def test_nothing_of_its_life_comes_along_but_what_it_taught(flown, following):
    assert (following.name, following.finished_at, following.variant_of) == ("Curlew 2", None, None)
    assert following.weighings == following.checks == following.diary == following.joints == ()
    assert following.field.throws == ()
    assert following.power.runs == flown.power.runs
    assert following.power.flights == ()


def test_it_is_measured_by_the_one_before(flown, following):
    reference = following.reference_build
    assert reference.name == "Curlew"
    came_out = {each.assembly: each.mass_g for each in assess(flown).so_far.stages}
    assert {each.assembly: each.grams for each in reference.parts} == {
        assembly: round(grams, 1) for assembly, grams in came_out.items()
    }
    assert reference.auw_g > 62 + 45 + 9


def test_a_plane_without_a_drive_goes_on_without_one(flown):
    bare = replace(flown, power=None)
    assert next_version(bare, assess(bare), "Curlew 2").power is None
