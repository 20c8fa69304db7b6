"""What a build is held against: its targets, its thrust, its budget."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Coordinate,
    Length,
    Range,
    ReadingOrNothing,
    ThrustRead,
    Words,
)
from oaken_scale.core.model.part import Group


class TargetKind(StrEnum):
    """The four answers that a builder wants all the way through the build, and what else a plane
    may be judged by: power loading, from the pack at full throttle."""

    AUW = "auw"
    WING_LOADING = "wing_loading"
    THRUST_TO_WEIGHT = "thrust_to_weight"
    POWER_LOADING = "power_loading"
    BALANCE = "balance"


UNIT_OF: Final = {
    TargetKind.AUW: "g",
    TargetKind.WING_LOADING: "g/dm2",
    TargetKind.POWER_LOADING: "W/kg",
}
"""Of those that have one and the same unit always."""


class BalanceUnit(StrEnum):
    """How a balance target is stated."""

    PERCENT_MAC = "percent_mac"
    MM_FROM_NOSE = "mm_from_nose"
    MM_FROM_LEADING_EDGE = "mm_from_leading_edge"


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
