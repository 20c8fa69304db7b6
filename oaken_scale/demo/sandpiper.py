"""Sandpiper: a high-wing tractor for counting waders, half built. Made up, and consistent.

Every thing has the figure its builder goes by and a hidden true mass; the readings follow from
the true masses as a kitchen scale would have shown them. One was taken with the tray not tared.
"""

import random
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Final

from oaken_scale.core.material.drawer import GROUPS, Thing, ThingKind
from oaken_scale.core.model.balancing import Ballast, BallastSpot, PlanMark
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import Control, ControlKind, FieldLog
from oaken_scale.core.model.fitting import Bay, Fit, FitRole
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Colour, Group, Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.pattern import Grain, Pattern
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Allotment, Budget, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Container, Load, Pan, Sample, Scale, Weighing
from oaken_scale.demo.drives import sandpiper_drive

TRAY_G: Final = 31.4
"""The tray that was on the pan and not tared in one reading [g]."""

STEP_G: Final = 0.1

_LOTS: Final = (
    (
        Lot(
            "sheet-a",
            "Sheet A, both papers",
            LotUnit.DM2,
            4.6,
            0.4,
            "shop's figure",
            LotKind.FOAM,
            Faces.BOTH,
            5,
            700,
            500,
            price=3.2,
            stock=1,
        ),
        4.93,
    ),
    (
        Lot(
            "sheet-b",
            "Sheet B, one paper off",
            LotUnit.DM2,
            3.3,
            0.4,
            "half a stripped sheet",
            LotKind.FOAM,
            Faces.ONE,
            5,
            700,
            500,
            price=3.2,
            stock=2,
        ),
        3.19,
    ),
    (
        Lot(
            "hot-glue",
            "Hot glue bead",
            LotUnit.M,
            2.0,
            0.6,
            "an earlier build",
            LotKind.ADHESIVE,
            length_mm=3700,
            price=0.35,
            stock=12,
            adhesive="hot-melt",
        ),
        3.0,
    ),
    (
        Lot(
            "packing-tape",
            "Packing tape, 48 mm",
            LotUnit.M,
            2.1,
            0.15,
            "a weighed roll",
            LotKind.TAPE,
            length_mm=66_000,
            width_mm=48,
            price=2.5,
            stock=1,
        ),
        2.16,
    ),
    (
        Lot(
            "rod",
            "Carbon rod, 4 mm",
            LotUnit.M,
            22.8,
            0.8,
            "shop's figure",
            LotKind.ROD,
            length_mm=1000,
            width_mm=4,
            price=4.8,
            stock=0,
        ),
        23.5,
    ),
)

WING_LE_MM: Final = 186.0


def _le(x_mm: float, y_mm: float = 0.0, z_mm: float = 62.0) -> Station:
    return Station(x_mm, y_mm, z_mm, Reference.LEADING_EDGE)


def _nose(x_mm: float, z_mm: float = 0.0, y_mm: float = 0.0) -> Station:
    return Station(x_mm, y_mm, z_mm)


@dataclass(frozen=True, slots=True)
class _Thing:
    """A part and what it truly weighs [g]."""

    part: Part
    true_g: float


def _cut(
    id: str, name: str, group: str, lot: str, area: float, true_g: float, at: Station
) -> _Thing:
    return _Thing(
        Part(id, name, Pedigree.CALCULATED, group, uses=(Use(lot, area),), station=at), true_g
    )


def _run(
    id: str, name: str, group: str, lot: str, metres: float, true_g: float, at: Station
) -> _Thing:
    pedigree = Pedigree.JOINT if lot == "hot-glue" else Pedigree.COVERING
    pedigree = Pedigree.CALCULATED if lot == "rod" else pedigree
    return _Thing(Part(id, name, pedigree, group, uses=(Use(lot, metres),), station=at), true_g)


def _thing(
    id: str,
    name: str,
    group: str,
    known: Pedigree,
    grams: float,
    true_g: float,
    at: Station,
    pieces: int = 1,
) -> _Thing:
    return _Thing(Part(id, name, known, group, grams, pieces=pieces, station=at), true_g)


def _option(id: str, name: str, group: str, grams: float, true_g: float, at: Station) -> _Thing:
    return _Thing(Part(id, name, Pedigree.LISTING, group, grams, station=at, option=True), true_g)


Corners = tuple[tuple[float, float], ...]


def _box(long_mm: float, wide_mm: float) -> Corners:
    return (0.0, 0.0), (long_mm, 0.0), (long_mm, wide_mm), (0.0, wide_mm)


_TAPERED: Final = ((0.0, 12.0), (210.0, 0.0), (420.0, 12.0), (420.0, 86.95), (0.0, 86.95))
_UPRIGHT: Final = ((0.0, 0.0), (160.0, 48.0), (160.0, 135.5), (0.0, 150.0))

_PATTERNS: Final = {
    "left-panel": Pattern((_box(540.0, 240.74),), Grain.ALONG),
    "right-panel": Pattern((_box(540.0, 240.74),), Grain.ALONG),
    "left-aileron": Pattern((_box(450.0, 60.0),)),
    "right-aileron": Pattern((_box(450.0, 60.0),)),
    "tailplane": Pattern((_TAPERED,), Grain.ALONG),
    "elevator": Pattern((_box(420.0, 26.19),), Grain.ALONG),
    "fin": Pattern((_UPRIGHT,)),
    "fuselage-box": Pattern((_box(640.0, 143.75),), Grain.ALONG),
    "doublers": Pattern((_box(170.0, 50.0),), Grain.FREE, 2),
    "bulkheads": Pattern((_box(60.0, 50.0),), Grain.FREE, 3),
    "hatch": Pattern((_box(160.0, 50.0),)),
    "saddle": Pattern((_box(140.0, 50.0),)),
}
"""What is cut for one piece; the wing's panels fold over along their length."""

_LISTING, _GUESS = Pedigree.LISTING, Pedigree.GUESS
_WING, _TAIL, _BODY, _POWER = "Wing", "Tail", "Fuselage", "Power and control"

_THINGS: Final = (
    _cut("left-panel", "Left wing panel", _WING, "sheet-b", 13.0, 41.6, _le(80, -265)),
    _cut("right-panel", "Right wing panel", _WING, "sheet-b", 13.0, 42.7, _le(80, 265)),
    _run("spar", "Spar, 900 mm rod", _WING, "rod", 0.9, 21.2, _le(55)),
    _run("spar-glue", "Spar glue", _WING, "hot-glue", 3.0, 9.4, _le(55)),
    _cut("left-aileron", "Aileron, left", _WING, "sheet-b", 2.7, 8.5, _le(172, -330)),
    _cut("right-aileron", "Aileron, right", _WING, "sheet-b", 2.7, 8.8, _le(172, 330)),
    _run("wing-tape", "Wing tape", _WING, "packing-tape", 2.4, 5.3, _le(95)),
    _thing("brace", "Dihedral brace", _WING, _GUESS, 3.5, 3.9, _le(60)),
    _cut("tailplane", "Tailplane", _TAIL, "sheet-a", 3.4, 17.0, _nose(752, 20)),
    _cut("elevator", "Elevator", _TAIL, "sheet-a", 1.1, 5.5, _nose(802, 20)),
    _cut("fin", "Fin", _TAIL, "sheet-a", 1.9, 9.4, _nose(744, 80)),
    _run("hinge-tape", "Hinge tape", _TAIL, "packing-tape", 0.9, 2.0, _nose(784, 20)),
    _run("tail-glue", "Tail glue", _TAIL, "hot-glue", 1.4, 4.3, _nose(750, 20)),
    _cut("fuselage-box", "Fuselage box", _BODY, "sheet-a", 9.2, 46.3, _nose(356)),
    _cut("doublers", "Nose doublers", _BODY, "sheet-a", 1.7, 8.4, _nose(90)),
    _thing("motor-plate", "Motor plate, plywood", _BODY, _GUESS, 5.5, 6.1, _nose(28)),
    _run("body-glue", "Fuselage glue", _BODY, "hot-glue", 3.0, 9.2, _nose(280)),
    _cut("bulkheads", "Bulkheads, three", _BODY, "sheet-a", 0.9, 4.5, _nose(200)),
    _cut("hatch", "Hatch", _BODY, "sheet-a", 0.8, 3.9, _nose(150, 30)),
    _cut("saddle", "Wing saddle", _BODY, "sheet-a", 0.7, 3.5, _nose(275, 45)),
    _thing("wear-pads", "Wear pads", _BODY, _GUESS, 3.0, 3.4, _nose(240, -40)),
    _thing("skid", "Skid, bamboo", _BODY, _GUESS, 3.0, 2.6, _nose(230, -45)),
    _thing("motor", "Motor, leads on", _POWER, _LISTING, 60.0, 62.4, _nose(12)),
    _thing("propeller", "Propeller", _POWER, _LISTING, 8.5, 8.2, _nose(-8)),
    _thing("controller", "Speed controller", _POWER, _LISTING, 24.0, 23.3, _nose(75, -5)),
    _option("pack-1300", "Pack, 3-cell 1300", _POWER, 108.0, 105.6, _nose(212, -10)),
    _option("pack-850", "Pack, 3-cell 850", _POWER, 80.0, 82.3, _nose(212, -10)),
    _thing("aileron-servos", "Aileron servos, two", _POWER, _LISTING, 18.0, 18.9, _le(92), 2),
    _thing("elevator-servo", "Elevator servo", _POWER, _LISTING, 9.0, 9.5, _nose(330)),
    _thing("receiver", "Receiver", _POWER, _LISTING, 7.0, 7.4, _nose(300)),
    _thing("wiring", "Wires and plugs", _POWER, _GUESS, 14.0, 15.7, _nose(200)),
    _thing("pushrods", "Pushrod and horns", _POWER, _GUESS, 6.0, 5.3, _nose(560, 10)),
    _thing("screws", "Motor screws, four", _POWER, _GUESS, 2.0, 2.4, _nose(22), 4),
    _thing("hook-and-loop", "Hook-and-loop strap", _POWER, _GUESS, 4.0, 3.6, _nose(190, -25)),
    _thing("bands", "Rubber bands, four", _POWER, _GUESS, 3.5, 3.0, _nose(260, 70), 4),
    _option("camera", "Camera and strap", "Payload", 38.5, 40.1, _nose(262, -30)),
    _thing("paint", "Paint and markings", "Finish", Pedigree.JOINT, 7.0, 8.2, _nose(420, 30)),
)

DRAWER: Final = (
    Thing(
        "motor",
        "Motor, leads on",
        ThingKind.MOTOR,
        60.0,
        True,
        14.0,
        "two-metre leads cut",
        kv=1950.0,
        most_a=18.0,
    ),
    Thing("propeller", "Propeller", ThingKind.PROPELLER, 8.5, True, 2.2),
    Thing("controller", "Speed controller", ThingKind.CONTROLLER, 24.0, True, 11.0),
    Thing("pack-1300", "Pack, 3-cell 1300", ThingKind.PACK, 108.0, True, 13.5, "", 3, 1300.0, 25.0),
    Thing("pack-850", "Pack, 3-cell 850", ThingKind.PACK, 80.0, True, 10.0, "", 3, 850.0, 30.0),
    Thing("pack-2-1300", "Pack, 2-cell 1300", ThingKind.PACK, 78.0, True, 9.0, "", 2, 1300.0, 25.0),
    Thing("pack-1800", "Pack, 3-cell 1800", ThingKind.PACK, 148.0, True, 18.0, "", 3, 1800.0, 25.0),
    Thing("elevator-servo", "Elevator servo", ThingKind.SERVO, 9.0, True, 4.5),
    Thing("receiver", "Receiver", ThingKind.RECEIVER, 7.0, True, 12.0),
    Thing("camera", "Camera and strap", ThingKind.CAMERA, 38.5, True, 35.0),
    Thing(
        "spare-motor",
        "Spare motor, lighter",
        ThingKind.MOTOR,
        29.0,
        False,
        11.0,
        "never run",
        kv=2250.0,
        most_a=13.0,
    ),
    Thing("spare-servo", "Spare servo", ThingKind.SERVO, 6.0, False, 4.0),
)
"""What lies in the workshop's drawer; a thing aboard has its part's id."""

_GROUPS: Final = {
    **{thing.id: GROUPS[thing.kind] for thing in DRAWER},
    **dict.fromkeys(("aileron-servos", "wiring", "pushrods"), Group.CONTROL),
    "screws": Group.POWER,
}
_PRICES: Final = {thing.id: thing.price for thing in DRAWER} | {"aileron-servos": 9.0}

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

_SLIDES: Final = {
    "pack-1300": Slide(130.0, 240.0),
    "pack-850": Slide(130.0, 240.0),
    "camera": Slide(250.0, 290.0),
    "receiver": Slide(250.0, 340.0),
}

_BAYS: Final = (Bay("pack-bay", "Pack bay", 86.0, 196.0, 46.0, 56.0, 0.0, 0.0),)

_FITS: Final = {
    "pack-1300": Fit(75.0, 35.0, 24.0, 190.0, "controller", "pack-bay"),
    "pack-850": Fit(58.0, 30.0, 20.0, 150.0, "controller", "pack-bay"),
    "controller": Fit(50.0, 25.0, 9.0, 310.0, "receiver"),
    "receiver": Fit(42.0, 24.0, 12.0, role=FitRole.RECEIVER),
    "elevator-servo": Fit(23.0, 12.0, 24.0, 150.0, "receiver"),
    "propeller": Fit(8.0, 152.4, 152.4, plugs_into="motor", role=FitRole.PROPELLER),
}

_COLOURS: Final = {
    "left-aileron": Colour.ORANGE,
    "right-aileron": Colour.ORANGE,
    "elevator": Colour.ORANGE,
    "hatch": Colour.GREY,
}

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
    return {thing.part.id: thing.true_g for thing in _THINGS} | {_ALLOWANCE.id: 3.8}


def true_constants() -> dict[str, float]:
    """The lots' true constants [g per unit]."""
    return {lot.id: constant for lot, constant in _LOTS}


def sandpiper() -> Build:
    """Sandpiper as it lies on the bench."""
    return Build(
        id="sandpiper",
        name="Sandpiper",
        purpose="camera",
        layout="tractor",
        notes="Photographs roosting waders at the marsh edge. Folded board wing, camera inside.",
        lots=tuple(lot for lot, _ in _LOTS),
        parts=(*(_described(thing.part) for thing in _THINGS), _ALLOWANCE),
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
        group=_GROUPS.get(part.id),
        price=_PRICES.get(part.id),
        slide=_SLIDES.get(part.id),
        pattern=_PATTERNS.get(part.id),
        fit=_FITS.get(part.id),
        colour=_COLOURS.get(part.id),
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
