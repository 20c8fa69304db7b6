"""Where a part that was drawn sits on the plane, and what it becomes there."""

from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from oaken_scale.core.geometry.outline import Box
from oaken_scale.core.model.lot import Use
from oaken_scale.core.model.part import Part, Pedigree, Reference, Station
from oaken_scale.core.model.pattern import Grain, Pattern, Ring, to_cut, turned_over


class Aft(StrEnum):
    """Which way on the drawing is aft on the plane."""

    RIGHT = "right"
    DOWN = "down"
    LEFT = "left"
    UP = "up"


class Lie(StrEnum):
    """How a part lies on the plane: flat as a wing, or upright as a fin or a fuselage side."""

    FLAT = "flat"
    UPRIGHT = "upright"


class Datum(StrEnum):
    """The point of the drawing that the station speaks of.

    The middle of the part's front edge; the front corner on its port (or lower) side; or the
    drawing's own origin.
    """

    FRONT_MIDDLE = "front_middle"
    FRONT_CORNER = "front_corner"
    ORIGIN = "origin"


@dataclass(frozen=True, slots=True)
class Placing:
    """Where a part's datum sits on the plane [mm], and how the drawing is turned there."""

    x_mm: float
    y_mm: float = 0.0
    z_mm: float = 0.0
    reference: Reference = Reference.NOSE
    aft: Aft = Aft.RIGHT
    lie: Lie = Lie.FLAT
    datum: Datum = Datum.FRONT_MIDDLE


@dataclass(frozen=True, slots=True)
class Cut:
    """A part to be cut: its area [dm2], centroid and box on the drawing [mm], from which lot and in
    how many layers, whether it has a mirrored twin, and where it goes; its rings on the drawing,
    the outer one first, and how it lies to the grain of the sheet."""

    name: str
    area_dm2: float
    x_mm: float
    y_mm: float
    box: Box
    lot: str
    layers: int = 1
    twin: bool = False
    assembly: str = ""
    placing: Placing | None = None
    doubt_dm2: float | None = None
    rings: tuple[Ring, ...] = ()
    grain: Grain = Grain.FREE
    folds: tuple[Ring, ...] = ()


_AFT: Final[dict[Aft, tuple[int, int]]] = {
    Aft.RIGHT: (1, 0),
    Aft.DOWN: (0, 1),
    Aft.LEFT: (-1, 0),
    Aft.UP: (0, -1),
}
_ACROSS: Final[dict[tuple[Lie, Aft], tuple[int, int]]] = {
    (Lie.FLAT, Aft.RIGHT): (0, -1),
    (Lie.FLAT, Aft.DOWN): (1, 0),
    (Lie.FLAT, Aft.LEFT): (0, 1),
    (Lie.FLAT, Aft.UP): (-1, 0),
    (Lie.UPRIGHT, Aft.RIGHT): (0, -1),
    (Lie.UPRIGHT, Aft.DOWN): (1, 0),
    (Lie.UPRIGHT, Aft.LEFT): (0, -1),
    (Lie.UPRIGHT, Aft.UP): (-1, 0),
}
"""Which way on the drawing (x right, y down) is starboard, or up, once the nose points where it
points: seen from above with the nose to the left, starboard is up the sheet."""


def station(cut: Cut) -> Station | None:
    """Where the part's centroid sits on the plane; None for a part that is not placed.

    >>> half = Cut("Wing", 10, 90, 130, Box(0, 0, 190, 540), "a",
    ...     placing=Placing(186.0, aft=Aft.RIGHT, datum=Datum.FRONT_CORNER))
    >>> at = station(half)
    >>> at.x_mm, at.y_mm
    (276.0, 410.0)
    """
    placing = cut.placing
    if placing is None:
        return None
    aft, across = _AFT[placing.aft], _ACROSS[placing.lie, placing.aft]

    def along(way: tuple[int, int], x: float, y: float) -> float:
        return way[0] * x + way[1] * y

    box = cut.box
    corners = [(x, y) for x in (box.left_mm, box.right_mm) for y in (box.top_mm, box.bottom_mm)]
    front = min(along(aft, *corner) for corner in corners)
    sides = [along(across, *corner) for corner in corners]
    side = min(sides) if placing.datum is Datum.FRONT_CORNER else (min(sides) + max(sides)) / 2
    if placing.datum is Datum.ORIGIN:
        front = side = 0.0
    x = placing.x_mm + along(aft, cut.x_mm, cut.y_mm) - front
    off = along(across, cut.x_mm, cut.y_mm) - side
    if placing.lie is Lie.FLAT:
        return Station(x, placing.y_mm + off, placing.z_mm, placing.reference)
    return Station(x, placing.y_mm, placing.z_mm + off, placing.reference)


def parts_from(cut: Cut, ids: tuple[str, ...], lot_constant: float) -> tuple[Part, ...]:
    """The cut as one part of a build, or as two where it has a mirrored twin.

    ``ids`` are one or two; ``lot_constant`` [g/dm2] turns a doubt of area into one of mass.

    >>> cut = Cut("Aileron", 2.0, 0.0, 0.0, Box(0.0, 0.0, 400.0, 50.0), "board", twin=True)
    >>> [(part.name, part.uses[0].amount) for part in parts_from(cut, ("r", "l"), 4.6)]
    [('Aileron, right', 2.0), ('Aileron, left', 2.0)]
    """
    at = station(cut)
    doubt = None if cut.doubt_dm2 is None else cut.doubt_dm2 * cut.layers * lot_constant

    rings = to_cut(cut.rings)
    pattern = Pattern(rings, cut.grain, cut.layers, cut.folds) if rings else None

    def part(id: str, name: str, where: Station | None, pattern: Pattern | None) -> Part:
        return Part(
            id=id,
            name=name,
            pedigree=Pedigree.CALCULATED,
            assembly=cut.assembly,
            uses=(Use(cut.lot, cut.area_dm2 * cut.layers),),
            doubt_g=doubt,
            station=where,
            pattern=pattern,
        )

    if not cut.twin:
        return (part(ids[0], cut.name, at, pattern),)
    mirrored = None if at is None else replace(at, y_mm=-at.y_mm)
    right_first = at is None or at.y_mm >= 0
    names = [f"{cut.name}, right", f"{cut.name}, left"]
    first, second = names if right_first else names[::-1]
    other = None if pattern is None else turned_over(pattern)
    return part(ids[0], first, at, pattern), part(ids[1], second, mirrored, other)
