"""What fits where: bays and pods with their inner sizes, and what a part takes up in them."""

from dataclasses import dataclass
from enum import StrEnum


@dataclass(frozen=True, slots=True)
class Bay:
    """A bay or a pod by its inner size: its front from the nose, its middle to starboard and up
    [mm]."""

    id: str
    name: str
    x_mm: float
    length_mm: float
    width_mm: float
    height_mm: float
    y_mm: float = 0.0
    z_mm: float = 0.0


class FitRole(StrEnum):
    """What a part must keep away from, or be kept away from."""

    RECEIVER = "receiver"
    TRANSMITTER = "transmitter"
    PROPELLER = "propeller"


@dataclass(frozen=True, slots=True)
class Fit:
    """What a part takes up: along, across and up [mm], of a propeller its diameter across; how long
    its lead is and which part it plugs into; the bay that it sits in. None where nobody said."""

    length_mm: float | None = None
    width_mm: float | None = None
    height_mm: float | None = None
    lead_mm: float | None = None
    plugs_into: str | None = None
    bay: str | None = None
    role: FitRole | None = None
