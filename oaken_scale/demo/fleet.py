"""The workshop's other made-up planes, each with its story; Sandpiper has its own room."""

import random
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Final

from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.life import repaired
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.balancing import BalanceCheck, Ballast, BallastSpot, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.surface import Profile, Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
from oaken_scale.core.trim.cg_ranges import STEADY
from oaken_scale.demo.drives import mayfly_drive, night_heron_drive
from oaken_scale.demo.outings import dunlin_field, night_heron_field

G, L, A = Pedigree.GUESS, Pedigree.LISTING, Pedigree.ALLOWANCE

Row = tuple[str, str, str, Pedigree | str, float, float, Station]
"""Id, name, assembly, how its mass is known (or of which lot), figure, truth [g], place."""


@dataclass(frozen=True, slots=True)
class Plane:
    """A made-up plane, begun when, and what its things and lots truly weigh."""

    build: Build
    begun: datetime
    masses: dict[str, float]
    constants: dict[str, float]


def fleet() -> tuple[Plane, ...]:
    """Night Heron, Avocet, Mayfly and Dunlin."""
    return _night_heron(), _avocet(), _mayfly(), _dunlin()


def _at(x: float, y: float = 0.0, z: float = 0.0) -> Station:
    return Station(x, y, z)


def _parts(rows: Sequence[Row], options: Sequence[str] = ()) -> tuple[Part, ...]:
    made = []
    for id, name, group, known, figure, _, at in rows:
        option = id in options
        if isinstance(known, Pedigree):
            made.append(Part(id, name, known, group, figure, station=at, option=option))
        else:
            pedigree = {"glue": Pedigree.JOINT, "tape": Pedigree.COVERING}.get(known)
            uses = (Use(known, figure),)
            made.append(
                Part(id, name, pedigree or Pedigree.CALCULATED, group, uses=uses, station=at)
            )
    return tuple(made)


def _slides(parts: tuple[Part, ...], ranges: dict[str, tuple[float, float]]) -> tuple[Part, ...]:
    return tuple(
        replace(part, slide=Slide(*ranges[part.id])) if part.id in ranges else part
        for part in parts
    )


_LOTS: Final = {
    "board": Lot(
        "board",
        "Foam board, both papers",
        LotUnit.DM2,
        4.7,
        0.3,
        "box label",
        LotKind.FOAM,
        Faces.BOTH,
        5,
        700,
        500,
    ),
    "bare": Lot(
        "bare",
        "Foam board, papers off",
        LotUnit.DM2,
        1.9,
        0.25,
        "an earlier build",
        LotKind.FOAM,
        Faces.NONE,
        4.6,
        700,
        500,
    ),
    "thin": Lot(
        "thin",
        "Extruded polystyrene, 2 mm",
        LotUnit.DM2,
        0.72,
        0.08,
        "shop's figure",
        LotKind.FOAM,
        Faces.NONE,
        2,
        800,
        600,
    ),
    "glue": Lot(
        "glue",
        "Hot glue bead",
        LotUnit.M,
        2.0,
        0.6,
        "an earlier build",
        LotKind.ADHESIVE,
        adhesive="hot-melt",
    ),
    "tape": Lot(
        "tape",
        "Packing tape, 48 mm",
        LotUnit.M,
        2.1,
        0.15,
        "a weighed roll",
        LotKind.TAPE,
        length_mm=66_000,
        width_mm=48,
    ),
}
_TRUE: Final = {"board": 4.86, "bare": 2.02, "thin": 0.75, "glue": 2.7, "tape": 2.15}


def _lots(*ids: str) -> tuple[tuple[Lot, ...], dict[str, float]]:
    return tuple(_LOTS[id] for id in ids), {id: _TRUE[id] for id in ids}


def _plate(
    id: str,
    name: str,
    role: Role,
    x: float,
    half: float,
    chord: float,
    z: float = 0.0,
    profile: Profile | None = None,
) -> Surface:
    sections = (Section(x, 0, z, chord), Section(x, half, z, chord))
    return Surface(id, name, role, sections, profile)


def _log(
    rows: Sequence[Row], pans: Sequence[str | tuple[str, ...]], scale: Scale, start: datetime
) -> tuple[Weighing, ...]:
    """Readings of what truly lies there, a few minutes apart."""
    truth = {row[0]: row[5] for row in rows}
    shake = random.Random(scale.id + start.isoformat())
    told = []
    for number, on in enumerate(pans, start=1):
        names = (on,) if isinstance(on, str) else on
        load = sum(truth[name] for name in names) + shake.gauss(0, scale.step_g / 4)
        shown = round(max(round(load / scale.step_g), 1) * scale.step_g, 2)
        pan = Pan(tuple(sorted(Load(name) for name in names)))
        at = start + timedelta(minutes=4 * number)
        told.append(Weighing(f"reading-{number:02d}", at, scale.id, shown, pan))
    return tuple(told)


_KITCHEN: Final = Scale("kitchen", "Kitchen scale", 0.1, None, 0.002, 3000.0, simulated=True)
_SHOP: Final = Scale("shop", "Old shop scale", 1.0, None, 0.003, 2000.0, simulated=True)


def _night_heron() -> Plane:
    """A swept flying wing, flown 22 times, repaired once and not balanced since."""
    start = datetime(2026, 1, 17, 15, 0, tzinfo=UTC)
    rows: tuple[Row, ...] = (
        ("left-panel", "Left panel", "Wing", "board", 9.6, 47.0, _at(178, -215)),
        ("right-panel", "Right panel", "Wing", "board", 9.6, 46.5, _at(178, 215)),
        ("spar", "Spar, carbon tube", "Wing", L, 21.0, 21.6, _at(165)),
        ("left-elevon", "Elevon, left", "Wing", "board", 1.9, 9.1, _at(318, -300)),
        ("right-elevon", "Elevon, right", "Wing", "board", 1.9, 9.3, _at(318, 300)),
        ("fin", "Fin", "Wing", "board", 1.1, 5.4, _at(300, 0, 45)),
        ("leading-tape", "Leading edge tape", "Wing", "tape", 2.2, 4.8, _at(120)),
        ("wing-glue", "Glue in the wing", "Wing", "glue", 3.4, 9.6, _at(170)),
        ("pod", "Nose pod", "Pod", G, 30.0, 33.5, _at(62)),
        ("motor", "Motor, pushing", "Power", L, 36.0, 37.2, _at(272)),
        ("propeller", "Propeller", "Power", L, 6.0, 6.1, _at(292)),
        ("controller", "Speed controller", "Power", L, 22.0, 22.5, _at(150)),
        ("pack", "Pack, 3-cell 1300", "Power", L, 101.5, 99.8, _at(38)),
        ("servos", "Elevon servos, two", "Control", L, 18.0, 18.7, _at(205)),
        ("receiver", "Receiver", "Control", L, 7.0, 7.2, _at(105)),
        ("wires", "Wires and plugs", "Control", G, 12.0, 13.9, _at(150)),
        ("rest", "Still to come", "Not listed", A, 4.0, 3.1, _at(150)),
    )
    parts = _slides(_parts(rows), {"pack": (25.0, 75.0), "receiver": (80.0, 140.0)})
    hurt = datetime(2026, 2, 22, 11, 30, tzinfo=UTC)
    wing = Surface(
        "wing",
        "Wing",
        Role.WING,
        (Section(0, 0, 0, 260), Section(230, 480, 15, 150)),
        Profile.STEPPED,
    )
    fin = Surface("fin", "Fin", Role.FIN, (Section(250, 0, 0, 120), Section(310, 0, 100, 70)))
    lots, constants = _lots("board", "tape", "glue")
    whole = tuple(row[0] for row in rows)
    build = Build(
        id="night-heron",
        name="Night Heron",
        purpose="park",
        layout="flying-wing",
        notes="Dusk counts over the creek. Flown 22 times; met a fence post on the last.",
        lots=lots,
        parts=parts,
        surfaces=(wing, fin),
        scales=(_KITCHEN,),
        loadouts=(Loadout("as-flown", "As flown"),),
        targets=(
            Target(TargetKind.AUW, high=430.0, source="what it was planned for"),
            Target(TargetKind.WING_LOADING, high=24.0, source="lands in the reeds"),
            Target(TargetKind.THRUST_TO_WEIGHT, low=0.7, source="hand launch"),
            Target(TargetKind.BALANCE, 15.0, 20.0, "chord rule for a flying wing"),
        ),
        thrust=Thrust(390.0, 30.0, "bench run, this pack and propeller", 0.0),
        power=night_heron_drive(start + timedelta(days=9)),
        ballast=Ballast((BallastSpot("nose", "Nose", 15.0, most_g=30.0),), (5.0, 10.0)),
        checks=(
            BalanceCheck(
                "first", start + timedelta(hours=2), CheckKind.SUPPORT, "as-flown", 146.0, "pegs"
            ),
        ),
        finished_at=datetime(2026, 1, 24, 17, 0, tzinfo=UTC),
        weighings=_log(
            rows, ("left-panel", "right-panel", "motor", "pack", "pod", whole), _KITCHEN, start
        ),
    )
    outing = night_heron_field(build, hurt - timedelta(minutes=40))
    mended = _repaired_nose(replace(build, field=outing), hurt)
    masses = {row[0]: row[5] for row in rows} | {"nose-glue": 5.6, "nose-patch": 7.2}
    return Plane(mended, datetime(2026, 1, 10, 10, 0, tzinfo=UTC), masses, constants)


def _repaired_nose(build: Build, at: datetime) -> Build:
    added = (
        Part("nose-glue", "Glue on nose pod", Pedigree.JOINT, stated_g=4.0),
        Part("nose-patch", "Doubler on nose pod", Pedigree.GUESS, stated_g=6.0),
    )
    return repaired(build, Act(at, "met a fence post, nose rebuilt"), "pod", added)


def _avocet() -> Plane:
    """Tail first, pushed, with a camera pod: still on the plan."""
    rows: tuple[Row, ...] = (
        ("left-panel", "Left wing panel", "Wing", "board", 10.6, 51.9, _at(648, -285, 20)),
        ("right-panel", "Right wing panel", "Wing", "board", 10.6, 52.2, _at(648, 285, 20)),
        ("spar", "Spar, carbon tube", "Wing", L, 26.0, 26.4, _at(615, 0, 20)),
        ("canard", "Canard", "Canard", "board", 6.4, 31.0, _at(122)),
        ("boom", "Boom, square tube of board", "Fuselage", "board", 9.0, 43.8, _at(400)),
        ("fins", "Twin fins", "Fuselage", "board", 3.2, 15.7, _at(735, 0, 50)),
        ("glue", "Glue everywhere", "Fuselage", "glue", 7.0, 19.2, _at(480)),
        ("tape", "Tape", "Fuselage", "tape", 4.5, 9.6, _at(520)),
        ("motor", "Motor, pushing", "Power", L, 52.0, 53.0, _at(770)),
        ("propeller", "Propeller", "Power", L, 9.0, 9.2, _at(792)),
        ("controller", "Speed controller", "Power", L, 28.0, 28.8, _at(560)),
        ("pack-1300", "Pack, 3-cell 1300", "Power", L, 101.5, 100.1, _at(330)),
        ("pack-2200", "Pack, 3-cell 2200", "Power", L, 178.0, 176.4, _at(330)),
        ("pack-850", "Pack, 3-cell 850", "Power", L, 74.0, 75.6, _at(330)),
        ("servos", "Servos, three", "Control", L, 27.0, 27.9, _at(300)),
        ("receiver", "Receiver", "Control", L, 7.0, 7.1, _at(200)),
        ("wires", "Wires and plugs", "Control", G, 20.0, 22.8, _at(430)),
        ("pod", "Camera pod and camera", "Payload", L, 92.0, 94.5, _at(255, 0, -30)),
        ("rest", "Still to come", "Not listed", A, 12.0, 9.0, _at(450)),
    )
    surfaces = (
        _plate("wing", "Wing", Role.WING, 560, 575, 185, 20, Profile.FOLDED),
        _plate("canard", "Canard", Role.CANARD, 60, 260, 120, 0, Profile.FOLDED),
        Surface(
            "fin",
            "Twin fins",
            Role.FIN,
            (Section(690, 200, 0, 110), Section(715, 200, 120, 80)),
            twin=True,
        ),
    )
    wing, neutral = wing_figures(surfaces), neutral_point(surfaces)
    if wing is None or neutral is None:
        raise ValueError("the canard needs its surfaces to set its range by")
    low, high = (
        round(100 * (neutral.x_mm - far * wing.mac_mm - wing.mac_le_x_mm) / wing.mac_mm, 4)
        for far in reversed(STEADY)
    )
    ranges = dict.fromkeys(("pack-850", "pack-1300", "pack-2200"), (50.0, 420.0)) | {
        "pod": (230.0, 300.0)
    }
    lots, constants = _lots("board", "tape", "glue")
    build = Build(
        id="avocet",
        name="Avocet",
        purpose="camera",
        layout="canard",
        notes="Still on the plan. The chord rule would put its balance where it must not be.",
        lots=lots,
        parts=_slides(_parts(rows, ("pack-1300", "pack-2200", "pack-850", "pod")), ranges),
        surfaces=surfaces,
        scales=(_KITCHEN,),
        loadouts=(
            Loadout("pod-2200", "Camera pod, 3-cell 2200", ("pod", "pack-2200")),
            Loadout("pod-1300", "Camera pod, 3-cell 1300", ("pod", "pack-1300")),
            Loadout("bare-850", "No pod, 3-cell 850", ("pack-850",)),
        ),
        targets=(
            Target(TargetKind.AUW, high=800.0, source="the count's own limit for big cameras"),
            Target(TargetKind.WING_LOADING, high=40.0, source="slow over the roost"),
            Target(TargetKind.THRUST_TO_WEIGHT, low=0.6, source="rule of thumb with a payload"),
            Target(
                TargetKind.BALANCE,
                low,
                high,
                "static margin, steady: 10 to 18 %",
                BalanceUnit.PERCENT_MAC,
            ),
        ),
        thrust=Thrust(620.0, 60.0, "maker's table, another propeller", 10.0),
        ballast=Ballast((BallastSpot("nose", "Nose", 20.0, most_g=60.0),), (5.0, 10.0, 10.0, 20.0)),
    )
    return Plane(
        build, datetime(2026, 3, 5, 19, 0, tzinfo=UTC), {r[0]: r[5] for r in rows}, constants
    )


def _mayfly() -> Plane:
    """An indoor twin of 60 g, where every gram counts and the scale is too coarse for some."""
    start = datetime(2026, 3, 6, 18, 0, tzinfo=UTC)
    rows: tuple[Row, ...] = (
        ("wing-skin", "Wing, folded once", "Wing", "thin", 13.2, 10.1, _at(150)),
        ("spar", "Spar, carbon rod 1 mm", "Wing", L, 1.4, 1.5, _at(140)),
        ("tail", "Tailplane", "Tail", "thin", 2.9, 2.2, _at(398)),
        ("fin", "Fin", "Tail", "thin", 1.4, 1.1, _at(402, 0, 40)),
        ("profile", "Fuselage profile", "Fuselage", "thin", 9.5, 7.2, _at(165)),
        ("glue", "Glue", "Fuselage", "glue", 0.9, 2.4, _at(190)),
        ("tape", "Hinge tape", "Tail", "tape", 0.3, 0.6, _at(400)),
        ("motors", "Motors, two", "Power", L, 10.6, 11.2, _at(118)),
        ("propellers", "Propellers, two", "Power", L, 1.4, 1.5, _at(108)),
        ("pack", "Pack, 1-cell 240", "Power", L, 6.4, 6.6, _at(40)),
        ("brick", "Receiver brick with two servos", "Control", L, 6.2, 6.4, _at(60)),
        ("pushrods", "Pull lines and horns", "Control", G, 0.9, 1.0, _at(280)),
        ("wires", "Wires", "Control", G, 2.0, 2.4, _at(70)),
        ("legs", "Wire legs and wheels", "Fuselage", G, 2.9, 3.3, _at(128, 0, -45)),
        ("lights", "Lights on the tips", "Wing", G, 3.0, 3.1, _at(150)),
        ("rest", "Still to come", "Not listed", A, 1.5, 1.2, _at(170)),
    )
    surfaces = (
        _plate("wing", "Wing", Role.WING, 105, 260, 125, 10, Profile.FOLDED),
        _plate("tail", "Tailplane", Role.TAIL, 370, 110, 75, 0, Profile.FLAT),
        Surface("fin", "Fin", Role.FIN, (Section(365, 0, 0, 85), Section(385, 0, 85, 60))),
    )
    lots, constants = _lots("thin", "tape", "glue")
    build = Build(
        id="mayfly",
        name="Mayfly",
        purpose="indoor",
        layout="twin",
        notes="Winter evenings in the village hall. Lost above 64 g.",
        lots=lots,
        parts=_slides(_parts(rows), {"pack": (20.0, 110.0)}),
        surfaces=surfaces,
        scales=(_SHOP, _KITCHEN),
        loadouts=(Loadout("hall", "In the hall"),),
        targets=(
            Target(TargetKind.AUW, high=60.0, source="turns inside the hall"),
            Target(TargetKind.WING_LOADING, high=10.0, source="walking pace"),
            Target(TargetKind.THRUST_TO_WEIGHT, low=0.8, source="pulls out of a stall"),
            Target(TargetKind.BALANCE, 25.0, 33.0, "chord rule for a wing with a tail"),
        ),
        thrust=Thrust(54.0, 5.0, "against the kitchen scale, both motors", 0.0),
        power=mayfly_drive(start + timedelta(hours=1)),
        weighings=_log(
            rows,
            ("wing-skin", "motors", "pack", "brick", "profile", ("tail", "fin", "tape")),
            _SHOP,
            start,
        ),
    )
    return Plane(
        build, datetime(2026, 3, 4, 18, 0, tzinfo=UTC), {r[0]: r[5] for r in rows}, constants
    )


def _dunlin() -> Plane:
    """A hand-thrown glider with a page of throws."""
    start = datetime(2026, 2, 14, 10, 0, tzinfo=UTC)
    rows: tuple[Row, ...] = (
        ("wing", "Wing, bare foam", "Wing", "bare", 7.9, 16.1, _at(172)),
        ("wing-tape", "Leading edge tape", "Wing", "tape", 0.7, 1.5, _at(128)),
        ("boom", "Boom, carbon tube", "Fuselage", L, 8.5, 8.8, _at(270)),
        ("pod", "Nose pod, bare foam", "Fuselage", G, 4.0, 4.6, _at(70)),
        ("tail", "Tailplane", "Tail", "bare", 1.3, 2.7, _at(505)),
        ("fin", "Fin", "Tail", "bare", 0.7, 1.5, _at(512, 0, 40)),
        ("glue", "Glue", "Fuselage", "glue", 0.8, 2.1, _at(250)),
        ("clay", "Clay in the nose", "Ballast", L, 16.0, 16.1, _at(22)),
        ("rest", "Still to come", "Not listed", A, 0.6, 0.4, _at(200)),
    )
    wing = Surface(
        "wing",
        "Wing",
        Role.WING,
        (Section(120, 0, 10, 130), Section(125, 190, 14, 120), Section(145, 300, 55, 85)),
        Profile.FLAT,
    )
    surfaces = (
        wing,
        _plate("tail", "Tailplane", Role.TAIL, 475, 110, 65, 0, Profile.FLAT),
        Surface("fin", "Fin", Role.FIN, (Section(475, 0, 0, 75), Section(495, 0, 80, 50))),
    )
    lots, constants = _lots("bare", "tape", "glue")
    build = Build(
        id="dunlin",
        name="Dunlin",
        purpose="glider",
        layout="glider",
        notes="Thrown on the meadow behind the barn, 14 February, with 1 g more clay than planned.",
        lots=lots,
        parts=_slides(_parts(rows), {"clay": (12.0, 60.0)}),
        surfaces=surfaces,
        scales=(_KITCHEN,),
        loadouts=(Loadout("as-thrown", "As thrown"),),
        targets=(
            Target(TargetKind.WING_LOADING, high=9.0, source="floats across the barn"),
            Target(TargetKind.BALANCE, 25.0, 35.0, "chord rule, and the best throw"),
        ),
        checks=(
            BalanceCheck(
                "string",
                start + timedelta(hours=1),
                CheckKind.SUPPORT,
                "as-thrown",
                157.0,
                "string",
            ),
        ),
        weighings=_log(rows, ("wing", "boom", "clay", tuple(r[0] for r in rows)), _KITCHEN, start),
        field=dunlin_field(),
    )
    return Plane(
        build, datetime(2026, 2, 12, 20, 0, tzinfo=UTC), {r[0]: r[5] for r in rows}, constants
    )
