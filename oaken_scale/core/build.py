"""A build as one immutable value: everything the product tells is a function of it."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from enum import StrEnum


class Pedigree(StrEnum):
    """How a mass is known before anything was weighed."""

    GUESS = "guess"
    LISTING = "listing"
    CALCULATED = "calculated"
    JOINT = "joint"
    COVERING = "covering"
    ALLOWANCE = "allowance"


class LotUnit(StrEnum):
    """What a lot's constant is counted by: g per dm2, per m, or per piece."""

    DM2 = "dm2"
    M = "m"
    PIECE = "piece"


class LotKind(StrEnum):
    """What hangs on the rack."""

    FOAM = "foam"
    TAPE = "tape"
    ADHESIVE = "adhesive"
    ROD = "rod"
    FILM = "film"
    PAINT = "paint"
    PLYWOOD = "plywood"
    CARD = "card"
    OTHER = "other"


class Faces(StrEnum):
    """How many faces of a foam sheet still wear their paper."""

    BOTH = "both"
    ONE = "one"
    NONE = "none"


class Group(StrEnum):
    """What a weight budget allots grams to."""

    FOAM = "foam"
    JOINING = "joining"
    POWER = "power"
    CONTROL = "control"
    PAYLOAD = "payload"
    REST = "rest"


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
    """The four answers that a builder wants all the way through the build."""

    AUW = "auw"
    WING_LOADING = "wing_loading"
    THRUST_TO_WEIGHT = "thrust_to_weight"
    BALANCE = "balance"


class BalanceUnit(StrEnum):
    """How a balance target is stated."""

    PERCENT_MAC = "percent_mac"
    MM_FROM_NOSE = "mm_from_nose"
    MM_FROM_LEADING_EDGE = "mm_from_leading_edge"


@dataclass(frozen=True, slots=True)
class Known:
    """What the workshop's other builds tell of a lot's constant or a thing's mass.

    It counts as one reading of it: ``value`` with ``doubt`` (one sigma), in the same unit.
    """

    value: float
    doubt: float
    source: str = ""


@dataclass(frozen=True, slots=True)
class Lot:
    """One sheet, box, roll or bottle: things cut from it share its constant.

    ``constant`` and ``doubt`` (one sigma) are in g per ``unit``. One sheet is ``length_mm`` by
    ``width_mm``, one roll or rod ``length_mm`` long; ``price`` buys one, ``stock`` of them are at
    hand, and cutting wastes so much that ``waste`` times the area or run is wanted. ``adhesive`` is
    its entry on the joint clock. ``rack`` is its id on the workshop's rack, None for a lot of this
    build alone; ``elsewhere`` is what other builds found of it.
    """

    id: str
    name: str
    unit: LotUnit
    constant: float
    doubt: float
    source: str = ""
    kind: LotKind = LotKind.OTHER
    faces: Faces | None = None
    thickness_mm: float | None = None
    length_mm: float | None = None
    width_mm: float | None = None
    price: float | None = None
    stock: float | None = None
    waste: float | None = None
    adhesive: str = ""
    rack: str | None = None
    elsewhere: Known | None = None

    @property
    def size(self) -> float | None:
        """How much is in one sheet [dm2], roll or rod [m], or piece; None where nobody said.

        >>> Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500).size
        35.0
        """
        if self.unit is LotUnit.PIECE:
            return 1.0
        if self.length_mm is None or (self.unit is LotUnit.DM2 and self.width_mm is None):
            return None
        if self.unit is LotUnit.M:
            return self.length_mm / 1000
        return self.length_mm * (self.width_mm or 0.0) / 1e4


@dataclass(frozen=True, slots=True)
class Use:
    """How much of a lot an item uses, in the lot's unit; negative for a pocket cut out."""

    lot: str
    amount: float


@dataclass(frozen=True, slots=True)
class Station:
    """Where an item's own CG sits.

    ``x_mm`` is measured from ``reference``; ``doubt_mm`` is one sigma along x, y and z alike, or
    None for the default (:func:`oaken_scale.core.balance.station_doubt`).
    """

    x_mm: float
    y_mm: float = 0.0
    z_mm: float = 0.0
    reference: Reference = Reference.NOSE
    doubt_mm: float | None = None


@dataclass(frozen=True, slots=True)
class Item:
    """One thing aboard, as it sits on the plane (four screws are one item of four pieces).

    ``stated_g`` is the builder's or maker's figure for the whole item; ``uses`` adds what is cut
    from lots. ``doubt_g`` replaces the pedigree's own doubt (one sigma). An ``option`` flies only
    with the loadouts that carry it. ``thing`` is its id in the workshop's drawer, and ``elsewhere``
    what other builds found that it weighs; ``group`` is its place in the weight budget, None where
    its material says it; ``price`` is for all its pieces.
    """

    id: str
    name: str
    pedigree: Pedigree
    assembly: str = ""
    stated_g: float | None = None
    uses: tuple[Use, ...] = ()
    doubt_g: float | None = None
    pieces: int = 1
    station: Station | None = None
    option: bool = False
    retired: bool = False
    thing: str | None = None
    elsewhere: Known | None = None
    group: Group | None = None
    price: float | None = None


@dataclass(frozen=True, slots=True)
class Section:
    """One station of a surface: leading edge x, y, z and chord [mm]."""

    x_le_mm: float
    y_mm: float
    z_mm: float
    chord_mm: float


@dataclass(frozen=True, slots=True)
class Surface:
    """A row of sections, root first; mirrored to port unless it is a fin."""

    id: str
    name: str
    role: Role
    sections: tuple[Section, ...]


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale: display step, repeatability (one sigma), calibration doubt (a fraction), capacity.

    ``repeatability_g`` None means half a step.
    """

    id: str
    name: str
    step_g: float
    repeatability_g: float | None = None
    calibration_doubt: float = 0.003
    capacity_g: float = 5_000.0
    simulated: bool = False


@dataclass(frozen=True, slots=True, order=True)
class Load:
    """How many of an item are on the pan (10 screws of which 4 are fitted: 2.5)."""

    item: str
    count: float = 1.0


@dataclass(frozen=True, slots=True, order=True)
class Sample:
    """How much of a lot is on the pan, in the lot's unit."""

    lot: str
    amount: float


@dataclass(frozen=True, slots=True)
class Pan:
    """Everything on the pan in one reading; ``known_g`` is a check weight of known mass."""

    loads: tuple[Load, ...] = ()
    samples: tuple[Sample, ...] = ()
    known_g: float = 0.0

    @classmethod
    def of(
        cls, loads: Mapping[str, float], samples: Mapping[str, float], known_g: float = 0.0
    ) -> "Pan":
        """A pan in its one order: counts by item, amounts by lot.

        >>> Pan.of({"wing": 1, "tail": 1}, {}) == Pan.of({"tail": 1, "wing": 1}, {})
        True
        """
        return cls(
            tuple(Load(item, loads[item]) for item in sorted(loads)),
            tuple(Sample(lot, samples[lot]) for lot in sorted(samples)),
            known_g,
        )


@dataclass(frozen=True, slots=True)
class Container:
    """A tray or a cup that things are weighed in: its mass and doubt (one sigma) [g]."""

    id: str
    name: str
    mass_g: float
    doubt_g: float = 0.1


@dataclass(frozen=True, slots=True)
class Weighing:
    """One reading, and what was on the pan, frozen. Set aside, it no longer speaks.

    ``corrects`` is the reading that it was recorded in place of; an ``accepted`` one is not doubted
    any more.
    """

    id: str
    at: datetime
    scale: str
    reading_g: float
    pan: Pan
    typed: str = ""
    note: str = ""
    set_aside: str | None = None
    corrects: str | None = None
    accepted: bool = False


@dataclass(frozen=True, slots=True)
class Loadout:
    """A way of flying: the options it carries, besides all that is always aboard."""

    id: str
    name: str
    carries: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Target:
    """A limit (one of ``low``, ``high``) or a band (both), and where the figure comes from.

    AUW in g, wing loading in g/dm2, thrust-to-weight a ratio, balance in ``balance_unit``.
    """

    kind: TargetKind
    low: float | None = None
    high: float | None = None
    source: str = ""
    balance_unit: BalanceUnit = BalanceUnit.PERCENT_MAC


@dataclass(frozen=True, slots=True)
class Thrust:
    """Static thrust [gf] as stated, its doubt (one sigma; None for 10 %), and its source."""

    thrust_gf: float
    doubt_gf: float | None = None
    source: str = ""


@dataclass(frozen=True, slots=True)
class Allotment:
    """What one group of a weight budget may weigh [g]."""

    group: Group
    grams: float


@dataclass(frozen=True, slots=True)
class Budget:
    """A weight budget, and where its figures come from."""

    allotments: tuple[Allotment, ...]
    source: str = ""


@dataclass(frozen=True, slots=True)
class Joint:
    """A joint on the clock: when it was spread, its times from then [s], and the parts in it."""

    id: str
    name: str
    adhesive: str
    spread_at: datetime
    close_after_s: float
    close_by_s: float | None
    handle_after_s: float
    strong_after_s: float
    items: tuple[str, ...] = ()
    cleared: bool = False


@dataclass(frozen=True, slots=True)
class Build:
    """A whole build."""

    id: str
    name: str
    purpose: str = ""
    layout: str = ""
    notes: str = ""
    lots: tuple[Lot, ...] = ()
    items: tuple[Item, ...] = ()
    surfaces: tuple[Surface, ...] = ()
    scales: tuple[Scale, ...] = ()
    containers: tuple[Container, ...] = ()
    loadouts: tuple[Loadout, ...] = ()
    targets: tuple[Target, ...] = ()
    thrust: Thrust | None = None
    budget: Budget | None = None
    joints: tuple[Joint, ...] = ()
    weighings: tuple[Weighing, ...] = field(default=(), repr=False)

    def aboard(self, loadout: Loadout | None) -> tuple[bool, ...]:
        """Say for each item whether it flies with ``loadout`` (None: everything not retired).

        >>> build = Build("b", "B", items=(
        ...     Item("wing", "Wing", Pedigree.GUESS, stated_g=90.0),
        ...     Item("camera", "Camera", Pedigree.LISTING, stated_g=62.0, option=True)))
        >>> build.aboard(Loadout("light", "Light"))
        (True, False)
        """
        return tuple(
            not item.retired and (loadout is None or not item.option or item.id in loadout.carries)
            for item in self.items
        )
