"""Parts from outlines: the closed curves of a drawing, with their holes, areas and centroids.

Curves come flattened, x to the right and y down as on the sheet. What lies inside a part is cut out
of it; what lies inside a hole is a part again.
"""

import re
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass, replace
from enum import StrEnum
from math import dist
from typing import Final

import numpy as np
from shapely import STRtree
from shapely.geometry import Point as ShapelyPoint
from shapely.geometry import Polygon
from shapely.validation import explain_validity

from oaken_scale.core.geometry.curves import Curve, Points
from oaken_scale.core.geometry.outline_rings import SAME_MM, chained

Corner = tuple[float, float]


LEAST_MM2: Final = 1.0
"""A closed curve around less than this is a dot or a line drawn there and back."""


TO_CUT_MM: Final = 0.15
"""A ring is never farther off than a knife would be [mm]."""


PICTURE_STEPS: Final = 400
"""A picture is true to its size over this."""


@dataclass(frozen=True, slots=True)
class Label:
    """Words on a drawing, and where they stand."""

    text: str
    x: float
    y: float


@dataclass(frozen=True, slots=True, eq=False)
class Drawing:
    """What a file draws. ``mm_per_unit`` is None where the file does not say its scale."""

    curves: tuple[Curve, ...]
    labels: tuple[Label, ...] = ()
    mm_per_unit: float | None = 1.0
    notes: tuple[str, ...] = ()
    pages: int = 1


@dataclass(frozen=True, slots=True)
class Box:
    """The edges of something on the drawing [mm], y down."""

    left_mm: float
    top_mm: float
    right_mm: float
    bottom_mm: float


class FlawKind(StrEnum):
    """Why a part that a drawing offers cannot be kept as it is."""

    CROSSES_ITSELF = "crosses_itself"
    HOLES_LEAVE_NOTHING = "holes_leave_nothing"


@dataclass(frozen=True, slots=True)
class OutlineFlaw:
    """Why, and near which point of the drawing [mm]; None where that is not known."""

    kind: FlawKind
    x_mm: float | None = None
    y_mm: float | None = None


@dataclass(frozen=True, slots=True)
class Candidate:
    """A part that a drawing offers.

    ``area_dm2`` less its holes; centroid ``x_mm``, ``y_mm`` [mm] and ``box`` on the drawing;
    ``rings`` for its picture, the outer one first. ``flaw`` says why it cannot be kept as it is.
    """

    name: str
    layer: str
    area_dm2: float
    x_mm: float
    y_mm: float
    box: Box
    holes: int
    rings: tuple[tuple[Corner, ...], ...]
    flaw: OutlineFlaw | None = None


@dataclass(frozen=True, slots=True)
class OpenPath:
    """A curve that does not close: the gap between its ends [mm]."""

    name: str
    layer: str
    gap_mm: float
    length_mm: float


class OutlineOddity(StrEnum):
    """What was set right in a drawing, or left out."""

    SHARED_EDGES = "shared_edges"
    ENCLOSES_NOTHING = "encloses_nothing"
    DRAWN_TWICE = "drawn_twice"


@dataclass(frozen=True, slots=True)
class OddOutline:
    """What was odd, and how many times."""

    kind: OutlineOddity
    count: int


@dataclass(frozen=True, slots=True)
class Outlines:
    """The parts that a drawing offers, the paths left open, what was odd, and what its reader left
    out, in ``notes``.

    ``mm_per_unit`` is None where the drawing has no scale: then sizes are in its own unit, as if
    mm, until one true length is known.
    """

    parts: tuple[Candidate, ...]
    open: tuple[OpenPath, ...]
    odd: tuple[OddOutline, ...]
    notes: tuple[str, ...]
    mm_per_unit: float | None
    width_mm: float
    height_mm: float
    pages: int = 1
    """How many pages the file has; tiles of one plan are put together on demand."""


def outlines(
    drawing: Drawing,
    close_within_mm: float = 0.0,
    mm_per_unit: float | None = None,
    is_to_cut: bool = False,
) -> Outlines:
    """The parts that a drawing offers, largest first.

    ``close_within_mm`` closes gaps up to so much; ``mm_per_unit`` is the scale where the drawing
    has none of its own. ``is_to_cut``: the rings are as true as the drawing, and not only fine
    enough for a picture. Area and centroid are those of the flattened polygon (shoelace formula).

    >>> square = Curve(np.array([[0, 0], [100, 0], [100, 100], [0, 100]], float), True, "Plate")
    >>> hole = Curve(square.points / 2 + 25, True)
    >>> plate = outlines(Drawing((square, hole))).parts[0]
    >>> plate.name, plate.area_dm2, plate.holes, plate.x_mm
    ('Plate', 0.75, 1, 50.0)
    """
    scale = drawing.mm_per_unit if mm_per_unit is None else mm_per_unit
    curves = [replace(each, points=each.points * (scale or 1.0)) for each in drawing.curves]
    odd: list[OddOutline] = []
    closed = [each for each in curves if each.closed]
    loops, left, shared = chained([each for each in curves if not each.closed], close_within_mm)
    if shared:
        odd.append(OddOutline(OutlineOddity.SHARED_EDGES, shared))
    rings, flawed = _polygons([*closed, *loops], odd)
    parts = _nested(rings, is_to_cut)
    named = _named(parts, drawing.labels, scale or 1.0)
    everything = np.vstack([each.points for each in curves]) if curves else np.zeros((1, 2))
    size = everything.max(axis=0) - everything.min(axis=0)
    return Outlines(
        parts=(*named, *flawed),
        open=tuple(
            OpenPath(each.name, each.layer, dist(each.points[0], each.points[-1]), _length(each))
            for each in left
        ),
        odd=tuple(odd),
        notes=drawing.notes,
        mm_per_unit=scale,
        width_mm=float(size[0]),
        height_mm=float(size[1]),
        pages=drawing.pages,
    )


@dataclass(slots=True, eq=False)
class _Ring:
    """A closed curve as a polygon, and the holes found in it."""

    curve: Curve
    shape: Polygon
    holes: list[Polygon]


def _length(curve: Curve) -> float:
    return float(np.hypot(*np.diff(curve.points, axis=0).T).sum())


def _polygons(curves: list[Curve], odd: list[OddOutline]) -> tuple[list[_Ring], list[Candidate]]:
    """Closed curves as polygons; what crosses itself comes back as a flawed candidate."""
    rings: list[_Ring] = []
    flawed: list[Candidate] = []
    empty = twice = 0
    seen: dict[tuple[int, int, int], list[Polygon]] = defaultdict(list)
    for curve in curves:
        points = curve.points
        if len(points) < 3 or not np.isfinite(points).all():
            empty += 1
            continue
        shape = Polygon(points)
        if not shape.is_valid:
            if _length(curve) > 0 and shape.convex_hull.area >= LEAST_MM2:
                flawed.append(_crossing(curve, shape))
            else:
                empty += 1
            continue
        if shape.area < LEAST_MM2:
            empty += 1
            continue
        middle = shape.centroid
        key = (round(middle.x), round(middle.y), round(shape.length))
        around = [
            other
            for dx in (-1, 0, 1)
            for dy in (-1, 0, 1)
            for dl in (-1, 0, 1)
            for other in seen.get((key[0] + dx, key[1] + dy, key[2] + dl), ())
        ]
        if any(_same(shape, other) for other in around):
            twice += 1
            continue
        seen[key].append(shape)
        rings.append(_Ring(curve, shape, []))
    if empty:
        odd.append(OddOutline(OutlineOddity.ENCLOSES_NOTHING, empty))
    if twice:
        odd.append(OddOutline(OutlineOddity.DRAWN_TWICE, twice))
    return rings, flawed


def _same(one: Polygon, other: Polygon) -> bool:
    return bool(
        abs(one.area - other.area) <= SAME_MM * one.length
        and one.exterior.hausdorff_distance(other.exterior) <= SAME_MM
    )


def _crossing(curve: Curve, shape: Polygon) -> Candidate:
    where = re.search(r"\[(-?[\d.e+]+) (-?[\d.e+]+)", explain_validity(shape))
    at = (float(where[1]), float(where[2])) if where else (None, None)
    hull = shape.convex_hull
    return Candidate(
        name=_plain_name(curve.name),
        layer=curve.layer,
        area_dm2=0.0,
        x_mm=hull.centroid.x,
        y_mm=hull.centroid.y,
        box=_box(hull),
        holes=0,
        rings=(_picture(curve.points),),
        flaw=OutlineFlaw(FlawKind.CROSSES_ITSELF, *at),
    )


def _nested(rings: list[_Ring], is_to_cut: bool) -> list[Candidate]:
    """Sort rings into parts and their holes by how deep they lie, largest part first."""
    if not rings:
        return []
    shapes = [ring.shape for ring in rings]
    inner, outer = STRtree(shapes).query(shapes, predicate="within")
    around: dict[int, list[int]] = defaultdict(list)
    for a, b in zip(inner.tolist(), outer.tolist(), strict=True):
        if a != b:
            around[a].append(b)
    for k, containers in around.items():
        if len(containers) % 2 == 1:
            parent = min(containers, key=lambda b: shapes[b].area)
            rings[parent].holes.append(shapes[k])
    parts = [_part(ring, is_to_cut) for k, ring in enumerate(rings) if len(around[k]) % 2 == 0]
    return sorted(parts, key=lambda part: -part.area_dm2)


def _part(ring: _Ring, is_to_cut: bool) -> Candidate:
    area = ring.shape.area - sum(hole.area for hole in ring.holes)
    moment_x = ring.shape.centroid.x * ring.shape.area
    moment_y = ring.shape.centroid.y * ring.shape.area
    for hole in ring.holes:
        moment_x -= hole.centroid.x * hole.area
        moment_y -= hole.centroid.y * hole.area
    curves = [ring.curve.points, *(np.array(hole.exterior.coords) for hole in ring.holes)]
    return Candidate(
        name=_plain_name(ring.curve.name),
        layer=ring.curve.layer,
        area_dm2=area / 1e4,
        x_mm=moment_x / area,
        y_mm=moment_y / area,
        box=_box(ring.shape),
        holes=len(ring.holes),
        rings=tuple(_true(each) if is_to_cut else _picture(each) for each in curves),
        flaw=None if area >= LEAST_MM2 else OutlineFlaw(FlawKind.HOLES_LEAVE_NOTHING),
    )


def _box(shape: Polygon) -> Box:
    return Box(*(float(edge) for edge in shape.bounds))


def _true(points: Points) -> tuple[Corner, ...]:
    return tuple((float(x), float(y)) for x, y in points)


def _picture(points: Points) -> tuple[Corner, ...]:
    """A ring fine enough to be looked at, and to be cut by."""
    size = float((points.max(axis=0) - points.min(axis=0)).max())
    within = min(size / PICTURE_STEPS, TO_CUT_MM)
    simple = Polygon(points).exterior.simplify(within, preserve_topology=False)
    coords = simple.coords if len(simple.coords) > 2 else points
    return tuple((round(float(x), 2), round(float(y), 2)) for x, y in coords)


_MADE_UP = re.compile(
    r"(path|rect|polygon|polyline|circle|ellipse|g|use|shape|svg|layer|object|spline|line)"
    r"[-_ ]?[\d-]*",
    re.IGNORECASE,
)


def _plain_name(name: str) -> str:
    """A name that somebody gave; empty for those that programs make up."""
    words = re.sub(r"_x([0-9A-Fa-f]{2})_", lambda m: chr(int(m[1], 16)), name)
    words = re.sub(r"[\x00-\x1f\x7f]+", " ", words).replace("_", " ").strip()[:60]
    return "" if _MADE_UP.fullmatch(words) else words


def _named(parts: list[Candidate], labels: Iterable[Label], scale: float) -> list[Candidate]:
    """Parts by their own name, else by the words written on them, else by number."""
    written: dict[int, str] = {}
    if any(not part.name for part in parts):
        shapes = [Polygon(part.rings[0]) for part in parts]
        tree = STRtree(shapes)
        for label in labels:
            point = ShapelyPoint(label.x * scale, label.y * scale)
            around = [int(k) for k in tree.query(point) if shapes[int(k)].contains(point)]
            if around:
                smallest = min(around, key=lambda k: shapes[k].area)
                written.setdefault(smallest, _plain_name(label.text))
    told, numbers = [], 0
    for k, part in enumerate(parts):
        name = part.name or written.get(k, "")
        if not name:
            numbers += 1
            name = f"Part {numbers}"
        told.append(replace(part, name=name))
    return told
