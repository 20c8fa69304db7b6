"""Every way in which the things of a build may not fit together: the field, and what is said."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.model.balancing import BalanceCheck, CheckKind, Stood
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.faults.log import pan_faults
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.field import Control, ControlKind, FieldLog
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Curing, Lot, LotKind, LotUnit
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
    Stand,
)
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Sample, Scale, Weighing
from tests.benches import MORNING

WING = Part("wing", "Wing", Pedigree.LISTING, stated_g=90.0, station=Station(210.0))
SCALE = Scale("kitchen", "Kitchen scale", 0.1, port="/dev/ttyUSB0")
PLANE = Build("b", "B", parts=(WING,), scales=(SCALE,))
DRIVE = Power(
    Motor(1400, 60),
    propellers=(Propeller("p8", "8 x 4", 203.0, 102.0),),
    packs=(Pack("s3", "1300", 3, 1300.0),),
)


def said(build: Build) -> dict[str, str]:
    return {fault.field: fault.words for fault in faults(build)}


def pan(*loads: Load, **more) -> Build:
    return replace(PLANE, weighings=(Weighing("r1", MORNING, "kitchen", 9.0, Pan(loads, **more)),))


def check(kind: CheckKind, **more) -> Build:
    told = BalanceCheck("c", MORNING, kind, more.pop("loadout", None), 100.0, **more)
    return replace(PLANE, checks=(told,))


def joint(close: float, by: float | None, handle: float, strong: float, *parts: str) -> Build:
    return replace(
        PLANE, joints=(Joint("j", "J", "epoxy", MORNING, close, by, handle, strong, parts),)
    )


def cured(*times: float | None) -> Build:
    glue = Lot("g", "Glue", LotUnit.M, 1.5, 0.5, kind=LotKind.ADHESIVE, curing=Curing(*times))
    return replace(PLANE, lots=(glue,))


def run(pack_v: float | None, pack: str = "s3", propeller: str = "p8") -> Build:
    points = (RunPoint(1.0, 600.0, 12.0, pack_v),)
    return replace(PLANE, power=replace(DRIVE, runs=(Run("r", MORNING, pack, propeller, points),)))


def flown(pack: str, back: float | None = None) -> Build:
    flight = Flight("f", MORNING, pack, 8.0, put_back_mah=back)
    return replace(PLANE, power=replace(DRIVE, flights=(flight,)))


def hosted(*hosts: str | None) -> Build:
    made = [replace(WING, id=f"p{k}", host=host) for k, host in enumerate(hosts)]
    return replace(PLANE, parts=tuple(made))


@pytest.mark.parametrize(
    ("build", "field", "says"),
    [
        (pan(Load("wing"), Load("wing")), "weighings.0.pan.loads.1", "there twice"),
        (
            pan(samples=(Sample("foam", 1.0),)),
            "weighings.0.pan.samples.0.lot",
            'no lot "foam" in this build; it has none',
        ),
        (
            check(CheckKind.SUPPORT, loadout="spare"),
            "checks.0.loadout",
            'no loadout "spare" in this build; it has none',
        ),
        (
            check(CheckKind.SUPPORTS, scale="shop", other_mm=400.0, reading_g=9.0),
            "checks.0.scale",
            'no scale "shop" in this build; it has kitchen',
        ),
        (check(CheckKind.SUPPORTS, reading_g=9.0), "checks.0.other_mm", "say where"),
        (check(CheckKind.SIDES, other_mm=400.0), "checks.0.reading_g", "say what the scale"),
        (
            check(CheckKind.SUPPORTS, other_mm=119.9, reading_g=9.0),
            "checks.0.other_mm",
            "119.9 mm is not behind the first support at 100 mm",
        ),
        (check(CheckKind.HANG, nose_down_deg=3.0), "checks.0.z_mm", "say how high"),
        (check(CheckKind.HANG, z_mm=40.0), "checks.0.nose_down_deg", "say how far the nose"),
        (
            check(CheckKind.SUPPORT, stood=(Stood("wing", 210.0), Stood("wing", 211.0))),
            "checks.0.stood.1",
            "there twice",
        ),
        (
            check(CheckKind.SUPPORT, stood=(Stood("tail", 210.0),)),
            "checks.0.stood.0.part",
            'no part "tail" in this build; it has wing',
        ),
        (joint(300, 300, 900, 1800), "joints.0.close_by_s", "300 s is not after it may be closed"),
        (joint(300, None, 299, 1800), "joints.0.handle_after_s", "before it may be closed"),
        (joint(300, None, 900, 899), "joints.0.strong_after_s", "before it may be handled"),
        (joint(300, None, 900, 1800, "tail"), "joints.0.parts.0", 'no part "tail"'),
        (cured(300, 299, 900, 1800), "lots.0.curing.close_by_s", "before it may be closed"),
        (cured(300, None, 299, 1800), "lots.0.curing.handle_after_s", "before it may be closed"),
        (cured(300, None, 900, 899), "lots.0.curing.strong_after_s", "before it may be handled"),
        (run(11.0, pack="s4"), "power.runs.0.pack", 'no pack "s4" in this build; it has s3'),
        (run(11.0, propeller="p9"), "power.runs.0.propeller", 'no propeller "p9"'),
        (run(7.4), "power.runs.0.points.0.pack_v", "is 7.4 V, less than 3 cells have"),
        (run(13.3), "power.runs.0.points.0.pack_v", "is 13.3 V, more than 3 cells have"),
        (flown("s4"), "power.flights.0.pack", 'no pack "s4" in this build; it has s3'),
        (
            flown("s3", 1691.0),
            "power.flights.0.put_back_mah",
            "is 1691 mAh, and the pack holds 1300",
        ),
        (
            replace(PLANE, power=replace(DRIVE, packs=(Pack("s3", "S", 3, 1300.0, part="box"),))),
            "power.packs.0.part",
            'no part "box" in this build; it has wing',
        ),
        (
            replace(PLANE, power=replace(DRIVE, packs=DRIVE.packs * 2)),
            "power.packs.1",
            "there twice",
        ),
        (
            replace(PLANE, power=replace(DRIVE, stand=Stand("/dev/ttyUSB0"))),
            "power.stand.port",
            "is where Kitchen scale is read",
        ),
        (
            replace(PLANE, power=replace(DRIVE, controller=Controller(30.0, None, None, 4, 3))),
            "power.controller.least_cells",
            "is 4, over the most of 3",
        ),
        (hosted(None, "p9"), "parts.1.host", 'no part "p9" in this build; it has p0, p1'),
        (hosted(None, "p1"), "parts.1.host", "stands by itself"),
        (hosted(None, "p0", "p1"), "parts.2.host", "stands by itself"),
        (
            replace(PLANE, parts=(replace(WING, slide=Slide(60.0, 60.0)),)),
            "parts.0.slide.low_mm",
            "60 mm is not below 60 mm",
        ),
        (
            replace(PLANE, parts=(replace(WING, stated_g=-0.1),)),
            "parts.0.stated_g",
            "unless it was taken off a host",
        ),
        (
            replace(
                PLANE, diary=(DiaryEntry("d", MORNING, DiaryKind.REPAIR, "Nose glued", ("tail",)),)
            ),
            "diary.0.parts.0",
            'no part "tail" in this build; it has wing',
        ),
        (
            replace(PLANE, bodies=(Body("o", "Body", BodyShape.BOX, (Frame(0, 0, 60, 80),)),)),
            "bodies.0.frames",
            "at least two frames",
        ),
        (
            replace(PLANE, bodies=(Body("o", "Body", BodyShape.BOX, (Frame(0, 0, 60, 80),) * 2),)),
            "bodies.0.frames.1.x_mm",
            "0 mm is not aft of the frame before it, 0 mm",
        ),
        (
            replace(
                PLANE,
                surfaces=(
                    Surface("w", "W", Role.WING, (Section(0, -1, 0, 90), Section(0, 500, 0, 90))),
                ),
            ),
            "surfaces.0.sections.0.y_mm",
            "starboard half",
        ),
        (
            replace(
                PLANE,
                field=FieldLog(controls=(Control("f", "F", ControlKind.FLAP, "w", 0.5, 0.5),)),
            ),
            "field.controls.0.from_share",
            "is 0.5; it should be under where it ends, 0.5",
        ),
    ],
)
def test_what_does_not_fit_names_its_field(build, field, says):
    found = said(build)
    assert list(found) == [field]
    assert says in found[field]


@pytest.mark.parametrize(
    "build",
    [
        PLANE,
        pan(Load("wing")),
        check(CheckKind.SUPPORTS, other_mm=120.0, reading_g=9.0, scale="kitchen"),
        check(CheckKind.HANG, z_mm=0.0, nose_down_deg=-3.0),
        joint(300, 301, 300, 300, "wing"),
        cured(300, 300, 300, 300),
        run(None),
        run(7.5),  # 2.5 V a cell
        run(13.23),  # 1.05 times 4.2 V a cell
        flown("s3", 1690.0),  # 1.3 times what it holds
        replace(PLANE, power=replace(DRIVE, controller=Controller(30.0, None, None, 3, 3))),
        replace(PLANE, power=replace(DRIVE, stand=Stand("/dev/ttyUSB1"))),
        hosted(None, "p0", "p0"),
        replace(
            hosted(None, "p0"), parts=(WING, replace(WING, id="cut", host="wing", stated_g=-3.0))
        ),
        replace(PLANE, parts=(replace(WING, slide=Slide(60.0, 60.1)),)),
    ],
)
def test_what_just_fits_is_no_fault(build):
    assert faults(build) == ()


@pytest.mark.parametrize(
    ("unit", "kind", "shown"),
    [
        (BalanceUnit.PERCENT_MAC, TargetKind.BALANCE, ""),
        (BalanceUnit.MM_FROM_NOSE, TargetKind.BALANCE, "mm"),
        (BalanceUnit.MM_FROM_LEADING_EDGE, TargetKind.BALANCE, "mm"),
        (BalanceUnit.PERCENT_MAC, TargetKind.AUW, "g"),
    ],
)
def test_a_range_the_wrong_way_round_is_said_in_its_own_unit(unit, kind, shown):
    target = Target(kind, 33.0, 28.0, balance_unit=unit)
    (fault,) = faults(replace(PLANE, targets=(target,)))
    assert fault.field == "targets.0.low"
    assert [(amount.value, amount.unit) for amount in fault.facts] == [(33.0, shown), (28.0, shown)]


def test_a_scale_that_is_not_there_weighs_nothing():
    (fault,) = pan_faults(PLANE, Pan((Load("wing"),)), "shop")
    assert (fault.field, fault.words) == ("scale", 'no scale "shop" in this build; it has kitchen')
    assert not list(pan_faults(PLANE, Pan((Load("wing"),)), None))


def test_one_pan_weighed_often_is_looked_at_once_and_each_scale_every_time():
    shared = Pan((Load("wing"),))
    log = tuple(
        Weighing(f"r{k}", MORNING + timedelta(minutes=k), scale, 9.0, shared)
        for k, scale in enumerate(("kitchen", "shop", "kitchen"))
    )
    (fault,) = faults(replace(PLANE, weighings=log))
    assert fault.field == "weighings.1.scale"
