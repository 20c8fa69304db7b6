"""Sandpiper: a high-wing tractor for counting waders, half built. Made up, and consistent.

Every thing has the figure its builder goes by and a hidden true mass; the readings follow from
the true masses as a kitchen scale would have shown them. One was taken with the tray not tared.
"""

import random
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Final

from oaken_scale.core.model.balancing import Ballast, BallastSpot, PlanMark
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import Control, ControlKind, FieldLog
from oaken_scale.core.model.fitting import Bay
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Allotment, Budget, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Container, Load, Pan, Sample, Scale, Weighing
from oaken_scale.demo.drives import sandpiper_drive
from oaken_scale.demo.sandpiper_parts import (
    BELONGS,
    COLOURS,
    DRAWER,
    FITS,
    LOTS,
    PATTERNS,
    PRICES,
    SLIDES,
    THINGS,
    TRAY_G,
    WING_LE_MM,
)

STEP_G: Final = 0.1


_BUDGET: Final = Budget(
    (
        Allotment(Group.FOAM, 232.0),
        Allotment(Group.JOINING, 30.0),
        Allotment(Group.POWER, 190.0),
        Allotment(Group.CONTROL, 62.0),
        Allotment(Group.PAYLOAD, 40.0),
        Allotment(Group.REST, 36.0),
    ),
    "the last camera plane, less ten grams",
)


_BAYS: Final = (Bay("pack-bay", "Pack bay", 86.0, 196.0, 46.0, 56.0, 0.0, 0.0),)


_BALLAST: Final = Ballast(
    (BallastSpot("nose", "Nose", 8.0, 0.0, -10.0, 30.0),), (5.0, 5.0, 10.0, 20.0)
)


_ALLOWANCE: Final = Part("still-to-come", "Still to come", Pedigree.ALLOWANCE, "Not listed", 6.0)


_BODIES: Final = (
    Body(
        "fuselage",
        "Fuselage",
        BodyShape.BOX,
        (
            Frame(12, 20, 52, 66),
            Frame(120, 20, 56, 84),
            Frame(330, 20, 56, 84),
            Frame(652, 14, 30, 36),
        ),
    ),
)


_SURFACES: Final = (
    Surface(
        "wing",
        "Wing",
        Role.WING,
        (
            Section(WING_LE_MM, 0, 62, 190),
            Section(WING_LE_MM, 400, 76, 190),
            Section(WING_LE_MM, 540, 110, 190),
        ),
    ),
    Surface(
        "tailplane", "Tailplane", Role.TAIL, (Section(700, 0, 20, 112), Section(712, 210, 20, 100))
    ),
    Surface("fin", "Fin", Role.FIN, (Section(690, 0, 20, 130), Section(738, 0, 160, 82))),
)


_CONTROLS: Final = (
    Control(
        "elevator", "Elevator", ControlKind.ELEVATOR, "tailplane", 0.05, 1.0, 0.3, 12, 10, 14, 10
    ),
    Control("rudder", "Rudder", ControlKind.RUDDER, "fin", 0.0, 1.0, 0.4, 20, 20, 14, 10),
)


_TARGETS: Final = (
    Target(TargetKind.AUW, high=590.0, source="the count's own limit, camera aboard"),
    Target(TargetKind.WING_LOADING, high=30.0, source="slow enough to read leg rings"),
    Target(
        TargetKind.THRUST_TO_WEIGHT, low=0.7, source="rule of thumb: 0.5 to 0.8 flies a trainer"
    ),
    Target(TargetKind.BALANCE, low=28.0, high=33.0, source="chord rule, aft half left out"),
)


_PLANE_PARTS: Final = {
    "tail": ("tailplane", "elevator", "fin", "hinge-tape", "tail-glue"),
    "left": ("left-panel", "spar", "spar-glue"),
}


_MORNING: Final = datetime(2026, 3, 7, 13, 40, tzinfo=UTC)


_READINGS: Final[tuple[tuple[int, str | tuple[str, ...], float], ...]] = (
    (0, "sheet-a", 1.0),
    (12, "motor", 1.0),
    (18, "motor-plate", 1.0),
    (20, "aileron-servos", 1.0),
    (22, "elevator-servo", 1.0),
    (25, "screws", 2.5),
    (31, "tailplane", 1.0),
    (33, "fin", 1.0),
    (35, "elevator", 1.0),
    (52, _PLANE_PARTS["tail"], 1.0),
    (58, "doublers", 1.0),
    (61, "spar", 1.0),
    (64, "left-panel", 1.0),
    (66, "left-aileron", 1.0),
    (67, "right-aileron", 1.0),
    (83, _PLANE_PARTS["left"], 1.0),
    (90, "pack-1300", 1.0),
    (92, "pack-850", 1.0),
    (95, "camera", 1.0),
    (99, "receiver", 1.0),
)
"""Minutes after the first, what was on the pan, and how many of it (or dm2 of a sheet)."""


def true_masses() -> dict[str, float]:
    """What each thing truly weighs [g]; what is still to come turns out to be 3.8 g."""
    return {thing.part.id: thing.true_g for thing in THINGS} | {_ALLOWANCE.id: 3.8}


def true_constants() -> dict[str, float]:
    """The lots' true constants [g per unit]."""
    return {lot.id: constant for lot, constant in LOTS}


def sandpiper() -> Build:
    """Sandpiper as it lies on the bench."""
    return Build(
        id="sandpiper",
        name="Sandpiper",
        purpose="camera",
        layout="tractor",
        notes="Photographs roosting waders at the marsh edge. Folded board wing, camera inside.",
        lots=tuple(lot for lot, _ in LOTS),
        parts=(*(_described(thing.part) for thing in THINGS), _ALLOWANCE),
        surfaces=_SURFACES,
        bodies=_BODIES,
        bays=_BAYS,
        scales=(Scale("kitchen", "Kitchen scale", STEP_G, None, 0.002, 3000.0, simulated=True),),
        containers=(Container("tray", "Tray", TRAY_G), Container("cup", "Screw cup", 12.8)),
        loadouts=(
            Loadout("camera-1300", "With camera, 3-cell 1300", ("camera", "pack-1300")),
            Loadout("camera-850", "With camera, 3-cell 850", ("camera", "pack-850")),
            Loadout("scout-850", "No camera, 3-cell 850", ("pack-850",)),
        ),
        targets=_TARGETS,
        thrust=Thrust(478.0, 24.0, "an earlier plane with this motor", 0.0),
        power=sandpiper_drive(_MORNING),
        field=FieldLog(controls=_CONTROLS),
        ballast=_BALLAST,
        plan_mark=PlanMark(243.0, 4.0),
        budget=_BUDGET,
        weighings=_weighings(),
    )


def on_the_shelf() -> Build:
    """Sandpiper with its lots on the workshop's rack and its electronics in the drawer."""
    build, laid = sandpiper(), {thing.id for thing in DRAWER}
    return replace(
        build,
        lots=tuple(replace(lot, rack=lot.id) for lot in build.lots),
        parts=tuple(
            replace(part, thing=part.id) if part.id in laid else part for part in build.parts
        ),
    )


def _described(part: Part) -> Part:
    """The part with its place in the budget, its price, and how far it may slide."""
    return replace(
        part,
        group=BELONGS.get(part.id),
        price=PRICES.get(part.id),
        slide=SLIDES.get(part.id),
        pattern=PATTERNS.get(part.id),
        fit=FITS.get(part.id),
        colour=COLOURS.get(part.id),
    )


def _weighings() -> tuple[Weighing, ...]:
    truth, constants = true_masses(), true_constants()
    shake = random.Random(1080)
    told = []
    for number, (minutes, what, count) in enumerate(_READINGS, start=1):
        if isinstance(what, str) and what in constants:
            pan, load = Pan(samples=(Sample(what, count),)), constants[what] * count
        else:
            names = (what,) if isinstance(what, str) else what
            pan = Pan(tuple(sorted(Load(name, count) for name in names)))
            load = sum(truth[name] for name in names) * count
        load += TRAY_G if what == "motor-plate" else 0.0
        shown = round(round((load + shake.gauss(0, STEP_G / 3)) / STEP_G) * STEP_G, 1)
        at = _MORNING + timedelta(minutes=minutes)
        told.append(Weighing(f"reading-{number:02d}", at, "kitchen", shown, pan))
    return tuple(told)
