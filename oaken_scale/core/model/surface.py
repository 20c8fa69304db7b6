"""Wings, tails and fins as they are drawn: sections of a chord at a place."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Coordinate,
    Id,
    Length,
    Name,
    Range,
    Side,
)


class Role(StrEnum):
    """What a surface is for. Only wings count in the wing area."""

    WING = "wing"
    TAIL = "tail"
    CANARD = "canard"
    FIN = "fin"


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
