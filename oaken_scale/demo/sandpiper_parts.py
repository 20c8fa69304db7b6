"""What the Sandpiper is made of: its sheets, its parts with what each truly weighs, the drawer."""

from dataclasses import dataclass
from typing import Final

from oaken_scale.core.material.drawer import GROUPS, Thing, ThingKind
from oaken_scale.core.model.fitting import Fit, FitRole
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Colour, Group, Part, Pedigree, Reference, Slide, Station
from oaken_scale.core.model.pattern import Grain, Pattern

Corners = tuple[tuple[float, float], ...]

TRAY_G: Final = 31.4
"""The tray that was on the pan and not tared in one reading [g]."""


LOTS: Final = (
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


def _box(long_mm: float, wide_mm: float) -> Corners:
    return (0.0, 0.0), (long_mm, 0.0), (long_mm, wide_mm), (0.0, wide_mm)


_TAPERED: Final = ((0.0, 12.0), (210.0, 0.0), (420.0, 12.0), (420.0, 86.95), (0.0, 86.95))


_UPRIGHT: Final = ((0.0, 0.0), (160.0, 48.0), (160.0, 135.5), (0.0, 150.0))


PATTERNS: Final = {
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

THINGS: Final = (
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


BELONGS: Final = {
    **{thing.id: GROUPS[thing.kind] for thing in DRAWER},
    **dict.fromkeys(("aileron-servos", "wiring", "pushrods"), Group.CONTROL),
    "screws": Group.POWER,
}


PRICES: Final = {thing.id: thing.price for thing in DRAWER} | {"aileron-servos": 9.0}


SLIDES: Final = {
    "pack-1300": Slide(130.0, 240.0),
    "pack-850": Slide(130.0, 240.0),
    "camera": Slide(250.0, 290.0),
    "receiver": Slide(250.0, 340.0),
}


FITS: Final = {
    "pack-1300": Fit(75.0, 35.0, 24.0, 190.0, "controller", "pack-bay"),
    "pack-850": Fit(58.0, 30.0, 20.0, 150.0, "controller", "pack-bay"),
    "controller": Fit(50.0, 25.0, 9.0, 310.0, "receiver"),
    "receiver": Fit(42.0, 24.0, 12.0, role=FitRole.RECEIVER),
    "elevator-servo": Fit(23.0, 12.0, 24.0, 150.0, "receiver"),
    "propeller": Fit(8.0, 152.4, 152.4, plugs_into="motor", role=FitRole.PROPELLER),
}


COLOURS: Final = {
    "left-aileron": Colour.ORANGE,
    "right-aileron": Colour.ORANGE,
    "elevator": Colour.ORANGE,
    "hatch": Colour.GREY,
}
