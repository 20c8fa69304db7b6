"""What is done to a drive: runs and flights stay, packs are taken as loadouts."""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.drive import (
    MOST_PACKS,
    USUAL_MOTOR_G,
    adopted_pack,
    drive_begun,
    runs_stay,
    without_part,
)
from oaken_scale.core.changes.variants import adopted_variant
from oaken_scale.core.flight.verdict import Missing
from oaken_scale.core.material.drawer import Thing, ThingKind, fitted
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.power import (
    Controller,
    Flight,
    Motor,
    Pack,
    Power,
    Propeller,
    Run,
    RunPoint,
)
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.power.drive_estimate import estimate_drive
from oaken_scale.core.power.listings import motor_belief
from oaken_scale.core.power.loadout_power import UnlistedPack

DAY = datetime(2026, 5, 1, tzinfo=UTC)
BIG = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack")
RUN = Run("run-1", DAY, "big", "six", (RunPoint(1.0, 500.0),))
FLIGHT = Flight("f-1", DAY, "big", 9.0, 900.0)
DRIVE = Power(
    Motor(2300.0, 28.0),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2),),
    packs=(BIG,),
    runs=(RUN,),
    flights=(FLIGHT,),
)


def pack_part(id: str, **more) -> Part:
    return Part(id, "3-cell 1300", Pedigree.LISTING, stated_g=105.0, **more)


PLANE = Build(
    "b",
    "B",
    parts=(
        Part("camera", "Camera", Pedigree.LISTING, stated_g=38.0, option=True),
        pack_part("pack", option=True, station=Station(120.0), slide=Slide(90.0, 150.0)),
    ),
    loadouts=(
        Loadout("l-1", "Camera, 3-cell 1300", ("camera", "pack")),
        Loadout("l-2", "Bare", ("pack",)),
    ),
    power=DRIVE,
)
NEW = Part("new", "2-cell 850", Pedigree.LISTING, stated_g=52.0)
SMALL = Pack("listed", "2-cell 850", 2, 850.0)


def test_a_pack_becomes_a_loadout_beside_the_one_whose_place_it_takes():
    told = adopted_pack(PLANE, PLANE.loadouts[0], SMALL, NEW, DAY)
    part, loadout, pack = told.parts[-1], told.loadouts[-1], told.power.packs[-1]
    assert (part.station, part.slide, part.option) == (Station(120.0), Slide(90.0, 150.0), True)
    assert part.added_at == DAY
    assert loadout.carries == ("camera", "new")
    assert loadout.name == "Camera, 2-cell 850"
    assert (pack.part, pack.cells) == ("new", 2)
    assert told.loadouts[:2] == PLANE.loadouts
    assert told.power.runs == (RUN,)
    assert list(faults(told)) == []
    again = adopted_pack(told, told.loadouts[0], SMALL, replace(NEW, id="new-2"), DAY)
    assert len({each.name for each in again.loadouts}) == 4
    assert list(faults(again)) == []


def test_what_flew_without_loadouts_becomes_one():
    bare = replace(PLANE, loadouts=(), parts=(pack_part("pack", station=Station(120.0)),))
    told = adopted_pack(bare, None, SMALL, NEW, DAY)
    assert [each.carries for each in told.loadouts] == [("pack",), ("new",)]
    assert all(each.option for each in told.parts)
    assert list(faults(told)) == []


def test_a_loadout_without_a_pack_of_the_drive_has_no_place_for_another():
    glider = replace(PLANE, loadouts=(Loadout("g", "Glider"),))
    with pytest.raises(BuildFaultError, match="say on Power which part is its pack"):
        adopted_pack(glider, glider.loadouts[0], SMALL, NEW, DAY)
    with pytest.raises(BuildFaultError):
        adopted_pack(replace(PLANE, power=None), PLANE.loadouts[0], SMALL, NEW, DAY)


def test_what_was_felt_and_noted_after_a_run_may_be_written_down():
    felt = replace(RUN, motor_c=52.0, air_c=18.0, note="warm", set_aside="windy")
    runs_stay(DRIVE, replace(DRIVE, runs=(felt,)))
    with pytest.raises(BuildFaultError, match="stays as it was read"):
        runs_stay(DRIVE, replace(DRIVE, runs=(replace(RUN, lever=2.0),)))


@pytest.mark.parametrize(
    "flights", [(), (replace(FLIGHT, minutes=8.0),), (replace(FLIGHT, put_back_mah=None),)]
)
def test_a_flight_stays_as_it_was(flights):
    with pytest.raises(BuildFaultError, match="set it aside with a reason"):
        runs_stay(DRIVE, replace(DRIVE, flights=flights))
    aside = replace(FLIGHT, set_aside="wrong", note="rain")
    runs_stay(DRIVE, replace(DRIVE, flights=(aside,)))


@pytest.mark.parametrize(
    ("flight", "field", "says"),
    [
        (replace(FLIGHT, pack="gone"), "power.flights.0.pack", "gone"),
        (replace(FLIGHT, put_back_mah=1700.0), "power.flights.0.put_back_mah", "holds 1300"),
    ],
)
def test_a_flight_that_cannot_be_is_refused_in_words(flight, field, says):
    (found,) = faults(replace(PLANE, power=replace(DRIVE, flights=(flight,))))
    assert found.field == field
    assert says in found.words


def test_an_adopted_variant_loses_nothing_that_the_build_was_told_meanwhile():
    variant = replace(PLANE, id="v", name="Variant", variant_of="b")
    check = BalanceCheck("c", DAY, CheckKind.SUPPORT, "l-1", 120.0)
    later = replace(
        PLANE,
        checks=(check,),
        power=replace(
            DRIVE, runs=(RUN, replace(RUN, id="run-2")), flights=(FLIGHT, replace(FLIGHT, id="f-2"))
        ),
    )
    of_its_own = replace(
        variant,
        power=replace(
            DRIVE, motor=Motor(1800.0, 40.0), runs=(RUN, replace(RUN, id="run-3")), plug_a=20.0
        ),
    )
    told = adopted_variant(later, of_its_own, DAY)
    assert (told.id, told.name, told.variant_of) == ("b", "B", None)
    assert told.checks == (check,)
    assert [each.id for each in told.power.runs] == ["run-1", "run-2", "run-3"]
    assert [each.id for each in told.power.flights] == ["f-1", "f-2"]
    assert (told.power.motor.kv, told.power.plug_a) == (1800.0, 20.0)
    assert adopted_variant(later, replace(variant, power=None), DAY).power == later.power
    assert list(faults(told)) == []


def test_a_run_that_was_taken_stays():
    with pytest.raises(BuildFaultError, match='the run "run-1" was taken and stays'):
        runs_stay(DRIVE, replace(DRIVE, runs=()))
    with pytest.raises(BuildFaultError, match='the run "run-1" was taken and stays'):
        runs_stay(DRIVE, None)
    more = replace(RUN, id="run-2", points=(RunPoint(0.5, 200.0),))
    runs_stay(DRIVE, replace(DRIVE, runs=(more, RUN)))
    runs_stay(None, DRIVE)


def test_a_pack_whose_part_goes_keeps_its_runs():
    both = replace(PLANE, power=replace(DRIVE, packs=(BIG, replace(SMALL, part="new"))))
    told = without_part(both, "pack").power
    assert [(each.id, each.part) for each in told.packs] == [("big", None), ("listed", "new")]
    assert told.runs == (RUN,)
    assert without_part(both, "camera") is both
    assert without_part(replace(PLANE, power=None), "pack").power is None


def listed(id: str, name: str, grams: float, **more) -> Part:
    return Part(id, name, Pedigree.LISTING, stated_g=grams, **more)


def test_a_drive_is_begun_from_what_its_parts_say():
    """The plate is no motor, what was taken off flies no more, and two motors are two."""
    parts = (
        listed("plate", "Motor plate, plywood", 4.0),
        listed("esc", "Motor controller 20 A", 22.0),
        listed("left", "Motor, left, 2300 kv", 12.0),
        listed("right", "Motor, right, 2300 kv", 13.0),
        listed("old", "Motor, old", 60.0, retired=True),
        listed("pack", "3-cell 850 20C", 70.0),
        listed("prop", "Propeller 5 x 3", 3.0),
    )
    drive = drive_begun(Build("b", "B", parts=parts), ()).power
    assert (drive.motor, drive.motors) == (Motor(2300.0, 12.5), 2)
    assert drive.packs == (Pack("pack", "3-cell 850 20C", 3, 850.0, 20.0, "pack"),)
    assert [(each.name, each.diameter_mm, each.pitch_mm) for each in drive.propellers] == [
        ("5 x 3", 127.0, 76.2)
    ]
    assert drive.controller == Controller(20.0)


def test_what_nobody_said_of_a_drive_is_left_to_be_said():
    assert drive_begun(Build("b", "B"), ()).power == Power(Motor(None, USUAL_MOTOR_G))
    parts = (
        listed("m", "Motor", 74.0),
        listed("esc", "Speed controller", 22.0),
        listed("fc", "Flight controller 5 A", 8.0),
        listed("p", "Pack", 80.0),
        listed("cells", "Pack, 3-cell", 80.0),
        listed("holds", "Pack 1300", 80.0),
        listed("rx", "Receiver pack, 4-cell 700", 60.0),
        listed("prop", "Propeller", 3.0),
    )
    plain = Build("b", "B", parts=parts)
    begun = drive_begun(plain, ())
    assert begun.power == Power(Motor(None, 74.0))
    assert assess(begun).power.unlisted == (
        UnlistedPack("p", None, None),
        UnlistedPack("cells", 3, None),
        UnlistedPack("holds", None, 1300.0),
    )
    asked = (Target(TargetKind.THRUST_TO_WEIGHT, 0.7), Target(TargetKind.POWER_LOADING, 100.0))
    for build, lacks in (
        (begun, [Missing.DRIVEN, Missing.DRIVEN]),
        (plain, [Missing.THRUST, Missing.DRIVE]),
    ):
        (flown,) = assess(replace(build, targets=asked)).loadouts
        kinds = [target.kind for target in asked]
        assert [one.missing for one in flown.answers if one.kind in kinds] == lacks
    said = Pack("p", "Pack", 3, 1300.0, None, "p")
    listed_one = replace(begun, power=replace(begun.power, packs=(said,)))
    assert [each.part for each in assess(listed_one).power.unlisted] == ["cells", "holds"]


def test_a_motor_of_no_kv_is_a_wide_guess_by_its_mass():
    """ln T goes with 2 ln Kv and less, so its doubt is several times that of a listed one."""
    propeller = Propeller("prop", "8 x 4", 203.2, 101.6)
    pack = Pack("p", "Pack", 3, 1300.0, None, "p")
    sized = [
        estimate_drive(Power(Motor(kv, 74.0), propellers=(propeller,), packs=(pack,))).predict(
            "p", "prop"
        )
        for kv in (None, 2300 * (28 / 74) ** 0.75)
    ]
    unsaid, said = sized
    assert unsaid.thrust_gf == pytest.approx(said.thrust_gf)
    assert unsaid.thrust_sd_gf > 2.5 * said.thrust_sd_gf
    assert unsaid.known is said.known


def test_the_doubt_of_a_kv_nobody_said_is_in_what_follows_from_it():
    """R_m = 0.12 (2300/Kv)^1.5 ..., I_0 = 0.70 (Kv/2300)^0.8 ...: by the sums of methods 10."""
    cov = motor_belief(Motor(None, 74.0)).cov
    assert np.sqrt(np.diag(cov)) == pytest.approx(
        [0.40, np.hypot(0.40, 1.5 * 0.40), np.hypot(0.35, 0.8 * 0.40)]
    )
    assert cov[0, 1] == pytest.approx(-1.5 * 0.16)
    assert cov[1, 2] == pytest.approx(-1.5 * 0.8 * 0.16)
    listed_too = motor_belief(Motor(None, 74.0, 0.05, 1.0)).cov
    assert listed_too == pytest.approx(np.diag([0.16, 0.04, 0.04]))


def test_what_lies_in_the_drawer_says_more_than_a_name():
    things = (
        Thing("m", "Outrunner", ThingKind.MOTOR, 28.0, kv=1650.0, most_a=14.0),
        Thing("b", "Long one", ThingKind.PACK, 105.0, cells=4, capacity_mah=1500.0, c_rating=30.0),
        Thing("w", "Motor lead", ThingKind.WIRING, 5.0),
    )
    parts = tuple(fitted(thing, f"of-{thing.id}") for thing in things)
    drive = drive_begun(Build("b", "B", parts=parts), things).power
    assert drive.motor == Motor(1650.0, 28.0, most_a=14.0)
    assert drive.packs == (Pack("of-b", "Long one", 4, 1500.0, 30.0, "of-b"),)
    weighed = replace(parts[0], stated_g=31.4, pieces=2)
    both = drive_begun(Build("b", "B", parts=(weighed,)), things).power
    assert (both.motor.mass_g, both.motors) == (15.7, 2)


def test_a_drive_that_is_there_is_not_begun_again():
    with pytest.raises(BuildFaultError, match="listed already"):
        drive_begun(replace(PLANE, power=DRIVE), ())
    faulty = drive_begun(
        Build("b", "B", parts=tuple(listed(f"p{k}", f"{k}, 3S 850", 50.0) for k in range(15))), ()
    )
    assert len(faulty.power.packs) == MOST_PACKS
    assert list(faults(faulty)) == []
