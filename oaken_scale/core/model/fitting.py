"""What fits where: bays and pods with their inner sizes, and what a part takes up in them."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import Coordinate, Id, Name, Range, Side


@dataclass(frozen=True, slots=True)
class Bay:
    """A bay or a pod by its inner size: its front from the nose, its middle to starboard and up
    [mm]."""

    id: Id
    name: Name
    x_mm: Coordinate
    length_mm: Side
    width_mm: Side
    height_mm: Side
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


class FitRole(StrEnum):
    """What a part must keep away from, or be kept away from."""

    RECEIVER = "receiver"
    TRANSMITTER = "transmitter"
    PROPELLER = "propeller"


@dataclass(frozen=True, slots=True)
class Fit:
    """What a part takes up: along, across and up [mm], of a propeller its diameter across; how long
    its lead is and which part it plugs into; the bay that it sits in. None where nobody said."""

    length_mm: Side | None = None
    width_mm: Side | None = None
    height_mm: Side | None = None
    lead_mm: Annotated[float, Range(ge=0, le=limits.STATION_MM)] | None = None
    plugs_into: Id | None = None
    bay: Id | None = None
    role: FitRole | None = None
