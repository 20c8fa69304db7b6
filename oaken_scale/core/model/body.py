"""What a plane has that does not lift: its body, its pods and its booms, along the datum."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model.declared import Coordinate, Id, Label, Length, Name, Side


class BodyShape(StrEnum):
    """A box of four sides, or a tube."""

    BOX = "box"
    TUBE = "tube"


@dataclass(frozen=True, slots=True)
class Frame:
    """A body's outer size at one station: ``z_mm`` is the height of its middle [mm]."""

    x_mm: Coordinate
    z_mm: Coordinate
    width_mm: Side
    height_mm: Side


@dataclass(frozen=True, slots=True)
class Body:
    """A row of frames from the front aft, straight between them.

    Its middle is ``y_mm`` to starboard; a ``twin`` has the like of it to port. A box without
    ``has_top`` is open above.
    """

    id: Id
    name: Name
    shape: BodyShape
    frames: Annotated[tuple[Frame, ...], Length(50)]
    y_mm: Coordinate = 0.0
    twin: bool = False
    has_top: bool = True


@dataclass(frozen=True, slots=True)
class Drawn:
    """Which surface or body of the drawing a part follows until it ``is_cut``, and as which panel
    of it."""

    of: Id
    panel: Label = ""
    is_cut: bool = False
