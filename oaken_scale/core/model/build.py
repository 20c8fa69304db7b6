"""A build as one immutable value: everything the product tells is a function of it."""

import dataclasses
from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import NO_BALLAST, BalanceCheck, Ballast, PlanMark
from oaken_scale.core.model.body import Body, Drawn
from oaken_scale.core.model.day import NO_DAY, Day
from oaken_scale.core.model.declared import (
    Baud,
    CloseBy,
    Coordinate,
    Count,
    Doubt,
    Id,
    JointTime,
    Label,
    Length,
    Line,
    MassOrLess,
    Moment,
    Name,
    Port,
    Price,
    Range,
    Reading,
    ReadingOrNothing,
    SampleAmount,
    Side,
    SomeMass,
    ThrustRead,
    Words,
)
from oaken_scale.core.model.diary import DiaryEntry
from oaken_scale.core.model.field import NO_FIELD, FieldLog
from oaken_scale.core.model.fitting import Bay, Fit
from oaken_scale.core.model.lot import Known, Lot, Use
from oaken_scale.core.model.pattern import Pattern
from oaken_scale.core.model.power import Power
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.reference_build import ReferenceBuild


class Pedigree(StrEnum):
    """How a mass is known before anything was weighed."""

    GUESS = "guess"
    LISTING = "listing"
    CALCULATED = "calculated"
    JOINT = "joint"
    COVERING = "covering"
    ALLOWANCE = "allowance"


class Group(StrEnum):
    """What a weight budget allots grams to."""

    FOAM = "foam"
    JOINING = "joining"
    POWER = "power"
    CONTROL = "control"
    PAYLOAD = "payload"
    REST = "rest"


class Colour(StrEnum):
    """What a part is painted or covered in."""

    WHITE = "white"
    BLACK = "black"
    GREY = "grey"
    BROWN = "brown"
    RED = "red"
    ORANGE = "orange"
    YELLOW = "yellow"
    GREEN = "green"
    BLUE = "blue"
    VIOLET = "violet"
    PINK = "pink"


class Reference(StrEnum):
    """What a station was measured from."""

    NOSE = "nose"
    LEADING_EDGE = "leading_edge"


class Role(StrEnum):
    """What a surface is for. Only wings count in the wing area."""

    WING = "wing"
    TAIL = "tail"
    CANARD = "canard"
    FIN = "fin"


class TargetKind(StrEnum):
    """The four answers that a builder wants all the way through the build, and what else a plane
    may be judged by: power loading, from the pack at full throttle."""

    AUW = "auw"
    WING_LOADING = "wing_loading"
    THRUST_TO_WEIGHT = "thrust_to_weight"
    POWER_LOADING = "power_loading"
    BALANCE = "balance"


class BalanceUnit(StrEnum):
    """How a balance target is stated."""

    PERCENT_MAC = "percent_mac"
    MM_FROM_NOSE = "mm_from_nose"
    MM_FROM_LEADING_EDGE = "mm_from_leading_edge"


@dataclass(frozen=True, slots=True)
class Station:
    """Where a part's own CG sits.

    ``x_mm`` is measured from ``reference``; ``doubt_mm`` is one sigma along x, y and z alike, or
    None for the usual one: 4 mm of a big foam part, else 2 mm.
    """

    x_mm: Coordinate
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0
    reference: Reference = Reference.NOSE
    doubt_mm: Annotated[float, Range(ge=0, le=limits.STATION_MM)] | None = None


@dataclass(frozen=True, slots=True)
class Slide:
    """How far a thing may be moved along x, from the same reference as its station [mm]."""

    low_mm: Coordinate
    high_mm: Coordinate


@dataclass(frozen=True, slots=True)
class Part:
    """One thing aboard, as it sits on the plane (four screws are one part of four pieces).

    ``stated_g`` is the builder's or maker's figure for the whole part; ``uses`` adds what is cut
    from lots. ``doubt_g`` replaces the pedigree's own doubt (one sigma). An ``option`` flies only
    with the loadouts that carry it. ``thing`` is its id in the workshop's drawer, and ``elsewhere``
    what other builds found that it weighs; ``group`` is its place in the weight budget, None where
    its material says it; ``price`` is for all its pieces. ``host`` is the part that it was done to:
    a patch, a bead, or (with a negative figure) what was sanded off, and it goes on the pan with
    it. ``replaces`` is the part whose place it took. ``slide`` says where it may be moved to,
    ``pattern`` what is cut out of a sheet for one piece of it; until it is cut it is as it is
    ``drawn``. ``fit`` is what it takes up, ``colour`` what it is painted or covered in.
    """

    id: Id
    name: Name
    pedigree: Pedigree
    assembly: Label = ""
    stated_g: MassOrLess | None = None
    uses: Annotated[tuple[Use, ...], Length(20)] = ()
    doubt_g: Doubt | None = None
    pieces: Annotated[int, Range(ge=1, le=limits.PIECES)] = 1
    station: Station | None = None
    option: bool = False
    retired: bool = False
    thing: Id | None = None
    elsewhere: Known | None = None
    group: Group | None = None
    price: Price | None = None
    host: Id | None = None
    replaces: Id | None = None
    added_at: Moment | None = None
    retired_at: Moment | None = None
    slide: Slide | None = None
    pattern: Pattern | None = None
    drawn: Drawn | None = None
    fit: Fit | None = None
    colour: Colour | None = None


@dataclass(frozen=True, slots=True)
class Section:
    """One station of a surface: leading edge x, y, z and chord [mm]."""

    x_le_mm: Coordinate
    y_mm: Coordinate
    z_mm: Coordinate
    chord_mm: Annotated[float, Range(ge=0, le=limits.CHORD_MM)]


class Profile(StrEnum):
    """How a surface is shaped along its chord."""

    FLAT = "flat"
    STEPPED = "stepped"
    FOLDED = "folded"


@dataclass(frozen=True, slots=True)
class Surface:
    """A row of sections, root first; mirrored to port unless it is a fin.

    A fin may stand off the middle: its sections' y says where, and ``twin`` mirrors it as well.
    ``thickness_mm`` is its greatest; ``incidence_deg`` nose up against the fuselage.
    """

    id: Id
    name: Name
    role: Role
    sections: Annotated[tuple[Section, ...], Length(50)]
    profile: Profile | None = None
    thickness_mm: Side | None = None
    incidence_deg: Annotated[float, Range(ge=-30, le=30)] = 0.0
    twin: bool = False


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale: display step, repeatability (one sigma), calibration doubt (a fraction), capacity.

    ``repeatability_g`` None means half a step. A scale on a cable sends its lines to ``port``, each
    of them like ``line``, which has a number where the reading is.
    """

    id: Id
    name: Name
    step_g: Annotated[float, Range(ge=0.0001, le=100)]
    repeatability_g: Annotated[float, Range(ge=0, le=100)] | None = None
    calibration_doubt: Annotated[float, Range(ge=0, le=0.5)] = 0.003
    capacity_g: Reading = 5_000.0
    simulated: bool = False
    port: Port = ""
    line: Line = ""
    baud: Baud = 9600


@dataclass(frozen=True, slots=True, order=True)
class Load:
    """How many of a part are on the pan (10 screws of which 4 are fitted: 2.5)."""

    part: Id
    count: Count = 1.0


@dataclass(frozen=True, slots=True, order=True)
class Sample:
    """How much of a lot is on the pan, in the lot's unit."""

    lot: Id
    amount: SampleAmount


@dataclass(frozen=True, slots=True)
class Pan:
    """Everything on the pan in one reading; ``known_g`` is a check weight of known mass."""

    loads: Annotated[tuple[Load, ...], Length(limits.PARTS)] = ()
    samples: Annotated[tuple[Sample, ...], Length(50)] = ()
    known_g: ReadingOrNothing = 0.0

    @classmethod
    def of(
        cls, loads: Mapping[str, float], samples: Mapping[str, float], known_g: float = 0.0
    ) -> "Pan":
        """A pan in its one order: counts by part, amounts by lot.

        >>> Pan.of({"wing": 1, "tail": 1}, {}) == Pan.of({"tail": 1, "wing": 1}, {})
        True
        """
        return cls(
            tuple(Load(part, loads[part]) for part in sorted(loads)),
            tuple(Sample(lot, samples[lot]) for lot in sorted(samples)),
            known_g,
        )


@dataclass(frozen=True, slots=True)
class Container:
    """A tray or a cup that things are weighed in: its mass and doubt (one sigma) [g]."""

    id: Id
    name: Name
    mass_g: SomeMass
    doubt_g: Doubt = 0.1


@dataclass(frozen=True, slots=True)
class Weighing:
    """One reading, and what was on the pan, frozen. Set aside, it no longer speaks.

    ``corrects`` is the reading that it was recorded in place of; an ``accepted`` one is not doubted
    any more.
    """

    id: Id
    at: Moment
    scale: Id
    reading_g: Reading
    pan: Pan
    typed: Label = ""
    note: Words = ""
    set_aside: Words | None = None
    corrects: Id | None = None
    accepted: bool = False


@dataclass(frozen=True, slots=True)
class Loadout:
    """A way of flying: the options it carries, besides all that is always aboard."""

    id: Id
    name: Name
    carries: Annotated[tuple[Id, ...], Length(limits.PARTS)] = ()


@dataclass(frozen=True, slots=True)
class Target:
    """A limit (one of ``low``, ``high``) or a band (both), and where the figure comes from.

    AUW in g, wing loading in g/dm2, thrust-to-weight a ratio, power loading in W/kg, balance in
    ``balance_unit``.
    """

    kind: TargetKind
    low: Annotated[float, Range(ge=-limits.READING_G, le=limits.READING_G)] | None = None
    high: Annotated[float, Range(ge=-limits.READING_G, le=limits.READING_G)] | None = None
    source: Words = ""
    balance_unit: BalanceUnit = BalanceUnit.PERCENT_MAC


@dataclass(frozen=True, slots=True)
class Thrust:
    """Static thrust [gf] as stated, its doubt (one sigma; None for 10 %), and its source.

    ``line_z_mm`` is the height of the line that it pulls along, ``line_y_mm`` how far to starboard
    it lies; None where nobody said.
    """

    thrust_gf: Annotated[float, Range(gt=0, le=limits.THRUST_GF)]
    doubt_gf: ThrustRead | None = None
    source: Words = ""
    line_z_mm: Coordinate | None = None
    line_y_mm: Coordinate | None = None


@dataclass(frozen=True, slots=True)
class Allotment:
    """What one group of a weight budget may weigh [g]."""

    group: Group
    grams: ReadingOrNothing


@dataclass(frozen=True, slots=True)
class Budget:
    """A weight budget, and where its figures come from."""

    allotments: Annotated[tuple[Allotment, ...], Length(len(Group))]
    source: Words = ""


@dataclass(frozen=True, slots=True)
class Joint:
    """A joint on the clock: when it was spread, its times from then [s], and the parts in it."""

    id: Id
    name: Name
    adhesive: Id
    spread_at: Moment
    close_after_s: JointTime
    close_by_s: CloseBy | None
    handle_after_s: JointTime
    strong_after_s: JointTime
    parts: Annotated[tuple[Id, ...], Length(limits.PARTS)] = ()
    cleared: bool = False


HABITUAL: Final = (Pedigree.GUESS, Pedigree.LISTING)
"""What runs heavy or light by habit; all else is worked out of lots."""


@dataclass(frozen=True, slots=True)
class Habit:
    """How the workshop's finished builds found one pedigree's figures to run.

    ``factor`` is by how much they run heavy (1.1: a tenth heavier than stated), ``doubt`` one
    sigma of it; ``squares`` is the sum of squares of how far ``weighed`` of them lay from what was
    believed, in sigma: it widens or narrows what is believed of the next.
    """

    pedigree: Pedigree
    factor: Annotated[float, Range(gt=0, le=20)]
    doubt: Annotated[float, Range(gt=0, le=1)]
    squares: Annotated[float, Range(ge=0, le=1e6)] = 0.0
    weighed: Annotated[int, Range(ge=0, le=100_000)] = 0


@dataclass(frozen=True, slots=True)
class Build:
    """A whole build.

    ``allowance`` is the share of the rest that the workshop's finished builds had in things nobody
    listed, ``habits`` how their guesses and listings ran; ``reference_build`` the
    earlier build that this one is measured by; ``variant_of`` the build that it is a what-if of.
    """

    id: Id
    name: Name
    purpose: Label = ""
    layout: Label = ""
    notes: Words = ""
    lots: Annotated[tuple[Lot, ...], Length(200)] = ()
    parts: Annotated[tuple[Part, ...], Length(limits.PARTS)] = ()
    surfaces: Annotated[tuple[Surface, ...], Length(20)] = ()
    bodies: Annotated[tuple[Body, ...], Length(20)] = ()
    bays: Annotated[tuple[Bay, ...], Length(20)] = ()
    scales: Annotated[tuple[Scale, ...], Length(20)] = ()
    containers: Annotated[tuple[Container, ...], Length(50)] = ()
    loadouts: Annotated[tuple[Loadout, ...], Length(50)] = ()
    targets: Annotated[tuple[Target, ...], Length(len(TargetKind))] = ()
    thrust: Thrust | None = None
    budget: Budget | None = None
    joints: Annotated[tuple[Joint, ...], Length(limits.ENTRIES)] = ()
    diary: Annotated[tuple[DiaryEntry, ...], Length(limits.ENTRIES)] = ()
    checks: Annotated[tuple[BalanceCheck, ...], Length(limits.ENTRIES)] = ()
    ballast: Ballast = NO_BALLAST
    plan_mark: PlanMark | None = None
    reference_build: ReferenceBuild | None = None
    allowance: Known | None = None
    habits: Annotated[tuple[Habit, ...], Length(2)] = ()
    power: Power | None = None
    field: FieldLog = NO_FIELD
    day: Day = NO_DAY
    finished_at: Moment | None = None
    variant_of: Id | None = None
    weighings: Annotated[tuple[Weighing, ...], Length(limits.WEIGHINGS)] = dataclasses.field(
        default=(), repr=False
    )

    def aboard(self, loadout: Loadout | None) -> tuple[bool, ...]:
        """Say for each part whether it flies with ``loadout`` (None: everything not retired).

        >>> build = Build("b", "B", parts=(
        ...     Part("wing", "Wing", Pedigree.GUESS, stated_g=90.0),
        ...     Part("camera", "Camera", Pedigree.LISTING, stated_g=62.0, option=True)))
        >>> build.aboard(Loadout("light", "Light"))
        (True, False)
        """
        return _aboard(self.parts, loadout)


@recalled(keep=32)
def _aboard(parts: tuple[Part, ...], loadout: Loadout | None) -> tuple[bool, ...]:
    return tuple(
        not part.retired and (loadout is None or not part.option or part.id in loadout.carries)
        for part in parts
    )
