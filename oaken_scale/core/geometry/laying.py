"""One part after another laid on a sheet, as far left and as far down as it goes.

Where a part is free of those that lie there is found for all places of a grid at once, by the
product of their transforms; from the first such place it slides until it touches, so that no cell
of the grid is lost. Parts are grown by half the kerf, so that what touches is a kerf apart.

Source: Bennell & Oliveira (2008), *The geometry of nesting problems: a tutorial*, 3 (raster,
trigonometry).
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import ceil
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.fft import irfft2, next_fast_len, rfft2
from shapely import MultiPolygon, Polygon, affinity, contains_xy, prepare
from shapely.geometry.polygon import orient

from oaken_scale.core.geometry.blanks import SAME_MM, Blank, Sheet, ways
from oaken_scale.core.model.arrays import Flags, Matrix, Vector

CELLS: Final = 256
"""So many cells lie along a sheet's longer side: 2.7 mm on one of 700 mm."""

INWARD_MM: Final = 1e-4
"""What touches a cell by no more than this does not touch it [mm]."""

SLIDES: Final = 4
"""So often a part slides left and down in turn."""

TRIES: Final = 6
"""So many places are looked at exactly before a sheet counts as full for a part."""


@dataclass(frozen=True, slots=True)
class Grid:
    """Cells over the room of a sheet and ``pad_mm`` around it, where grown parts stick out.

    >>> from shapely.geometry import box
    >>> grid = Grid.over(Sheet(700.0, 500.0), 0.5)
    >>> bool(grid.touched(box(0, 0, 50, 50), 100.0, 0.0).any())
    True
    """

    room: Sheet
    pad_mm: float
    cell_mm: float
    shape: tuple[int, int]

    @classmethod
    def over(cls, room: Sheet, kerf_mm: float) -> "Grid":
        """A grid for a room and a kerf."""
        length, width = room.length_mm + 2 * kerf_mm, room.width_mm + 2 * kerf_mm
        cell = max(length, width) / CELLS
        sides = next_fast_len(ceil(length / cell) + 1), next_fast_len(ceil(width / cell) + 1)
        return cls(room, kerf_mm, cell, sides)

    def touched(self, shape: Polygon, x_mm: float = 0.0, y_mm: float = 0.0) -> Flags:
        """The cells that a shape moved by ``x_mm``, ``y_mm`` touches, shape as the grid's."""
        cells: Flags = np.zeros(self.shape, bool)
        inner = shape.buffer(-INWARD_MM, join_style="mitre")
        moved = affinity.translate(inner, x_mm + self.pad_mm, y_mm + self.pad_mm)
        if moved.is_empty:
            return cells
        left, low, right, top = (int(edge // self.cell_mm) for edge in moved.bounds)
        left, low = max(left, 0), max(low, 0)
        xs = (np.arange(left, min(right + 1, self.shape[0])) + 0.5) * self.cell_mm
        ys = (np.arange(low, min(top + 1, self.shape[1])) + 0.5) * self.cell_mm
        prepare(moved)
        inside = contains_xy(moved, *np.meshgrid(xs, ys, indexing="ij"))
        cells[left : left + len(xs), low : low + len(ys)] = inside
        edge = _along(moved, self.cell_mm / 8) // self.cell_mm
        edge = edge[(edge >= 0).all(axis=1) & (edge < self.shape).all(axis=1)].astype(int)
        cells[edge[:, 0], edge[:, 1]] = True
        return cells


def _rings(shape: Polygon) -> list[Matrix]:
    parts = shape.geoms if isinstance(shape, MultiPolygon) else (shape,)
    return [
        np.asarray(ring.coords)[:, :2]
        for part in parts
        for ring in (part.exterior, *part.interiors)
    ]


def _along(shape: Polygon, step_mm: float) -> Matrix:
    """Points along the edges of a shape, no farther apart than a step, shape (n, 2)."""
    told = []
    for ring in _rings(shape):
        lengths = np.hypot(*np.diff(ring, axis=0).T)
        run = np.concatenate([[0.0], np.cumsum(lengths)])
        at = np.union1d(run, np.arange(0.0, run[-1], step_mm))
        told.append(np.column_stack([np.interp(at, run, ring[:, k]) for k in (0, 1)]))
    return np.vstack(told)


@dataclass(frozen=True, slots=True, eq=False)
class Edges:
    """Edges of shapes that face one way: where they start and end, shape (n, 2), the first column
    along the way that they face.

    >>> wall = Edges(np.array([[100.0, 0.0]]), np.array([[100.0, 50.0]]))
    >>> wall.moved((5.0, 1.0)).ends.tolist()
    [[105.0, 51.0]]
    >>> wall.and_more(Edges.none()).starts.tolist()
    [[100.0, 0.0]]
    """

    starts: Matrix
    ends: Matrix

    @classmethod
    def none(cls) -> "Edges":
        """No edge."""
        return cls(np.zeros((0, 2)), np.zeros((0, 2)))

    def moved(self, by: tuple[float, float]) -> "Edges":
        """The same edges elsewhere."""
        return Edges(self.starts + by, self.ends + by)

    def and_more(self, more: "Edges") -> "Edges":
        """These and others."""
        return Edges(np.vstack([self.starts, more.starts]), np.vstack([self.ends, more.ends]))


def gap(front: Edges, back: Edges) -> float:
    """How far edges ``front`` may go down their first axis before one of them meets an edge of
    ``back`` [mm]; infinite where none is in the way.

    A gap between two edges is least where one of them ends.

    >>> wall = Edges(np.array([[100.0, 0.0]]), np.array([[100.0, 50.0]]))
    >>> nose = Edges(np.array([[130.0, 10.0]]), np.array([[130.0, 20.0]]))
    >>> float(gap(nose, wall))
    30.0
    """
    return min(_gaps(front, back, 1.0), _gaps(back, front, -1.0))


def _gaps(ends_of: Edges, edges: Edges, sign: float) -> float:
    """The least gap between the ends of some edges, a trifle inward, and other edges."""
    if not len(ends_of.starts) or not len(edges.starts):
        return np.inf
    step = np.sign(ends_of.ends[:, 1] - ends_of.starts[:, 1]) * SAME_MM
    across = np.concatenate([ends_of.starts[:, 1] + step, ends_of.ends[:, 1] - step])
    along = np.concatenate([ends_of.starts[:, 0], ends_of.ends[:, 0]])
    a, b = edges.starts, edges.ends
    share = (across[:, None] - a[:, 1]) / (b[:, 1] - a[:, 1])
    met = a[:, 0] + share * (b[:, 0] - a[:, 0])
    free = sign * (along[:, None] - met)
    is_met = (share > 0) & (share < 1) & (free > -10 * SAME_MM)
    return float(np.min(free, where=is_met, initial=np.inf))


class Way:
    """One way in which a part may lie: its outline, the corner of its box at 0, 0, grown by half a
    kerf.

    >>> from shapely.geometry import box
    >>> grid = Grid.over(Sheet(700.0, 500.0), 0.5)
    >>> way = Way(grid, 0, False, box(0, 0, 400, 300), 0.5)
    >>> way.is_at_home(), Way(grid, 90, False, box(0, 0, 300, 600), 0.5).is_at_home()
    (True, False)
    >>> way.spectrum.shape[0] == grid.shape[0], min(way.last) > 0
    (True, True)
    """

    def __init__(
        self, grid: Grid, turn_deg: int, is_flipped: bool, shape: Polygon, kerf_mm: float
    ) -> None:
        """A part's outline, turned already."""
        self.grid, self.turn_deg, self.is_flipped = grid, turn_deg, is_flipped
        self.length_mm, self.width_mm = float(shape.bounds[2]), float(shape.bounds[3])
        grown = shape.buffer(kerf_mm / 2, join_style="mitre", mitre_limit=2.0) if kerf_mm else shape
        self.grown = orient(grown)
        rings = _rings(self.grown)
        starts = np.vstack([ring[:-1] for ring in rings])
        ends = np.vstack([ring[1:] for ring in rings])
        across, along = (ends - starts).T
        self.left = Edges(starts[along < 0], ends[along < 0])
        self.right = Edges(starts[along > 0], ends[along > 0])
        self.low = Edges(starts[across > 0][:, ::-1], ends[across > 0][:, ::-1])
        self.top = Edges(starts[across < 0][:, ::-1], ends[across < 0][:, ::-1])

    @cached_property
    def spectrum(self) -> NDArray[np.complex64]:
        """The conjugate transform of the cells it touches."""
        cells = self.grid.touched(self.grown).astype(np.float32)
        return np.asarray(np.conj(rfft2(cells)), dtype=np.complex64)

    @property
    def last(self) -> tuple[int, int]:
        """The last place of the grid at which its outline is in the room."""
        return tuple(
            int((room - own + SAME_MM) // self.grid.cell_mm)
            for room, own in (
                (self.grid.room.length_mm, self.length_mm),
                (self.grid.room.width_mm, self.width_mm),
            )
        )  # type: ignore[return-value]

    def is_at_home(self) -> bool:
        """Whether it fits into an empty room."""
        return min(self.last) >= 0


def ways_of(blank: Blank, grid: Grid, kerf_mm: float) -> tuple[Way, ...]:
    """Those ways in which a part fits into an empty room.

    >>> from shapely.geometry import box
    >>> from oaken_scale.core.geometry.blanks import Sheet
    >>> grid = Grid.over(Sheet(700.0, 100.0), 1.0)
    >>> long = Blank("long", box(0, 0, 600, 40))
    >>> len(ways_of(long, grid, 1.0))  # it lies along the sheet, either way round
    2
    """
    every = (Way(grid, *each, kerf_mm) for each in ways(blank))
    return tuple(each for each in every if each.is_at_home())


class OnSheet:
    """What lies on one sheet so far.

    >>> from shapely.geometry import box
    >>> grid = Grid.over(Sheet(700.0, 500.0), 0.5)
    >>> way = Way(grid, 0, False, box(0, 0, 400, 300), 0.5)
    >>> sheet = OnSheet(grid)
    >>> sheet.lay(way, (0.0, 0.0))
    >>> small = Way(grid, 0, False, box(0, 0, 200, 300), 0.5)
    >>> x, y = sheet.place(small)
    >>> round(x, 1), round(y, 1), sheet.place(way)
    (400.5, 0.0, None)
    """

    def __init__(self, grid: Grid) -> None:
        """Nothing."""
        self.grid = grid
        self.cells: Flags = np.zeros(grid.shape, bool)
        self.free_mm2 = grid.room.length_mm * grid.room.width_mm
        self.right, self.top = Edges.none(), Edges.none()
        self.shapes: list[Polygon] = []
        self._spectrum: NDArray[np.complex64] | None = None

    def place(self, way: Way) -> tuple[float, float] | None:
        """Where a part comes to lie in one way [mm]; None where it does not go on."""
        if not self.shapes:
            return 0.0, 0.0
        free = self._free(way)
        for index in np.flatnonzero(free)[:TRIES]:
            i, j = divmod(int(index), free.shape[1])
            at = (i * self.grid.cell_mm, j * self.grid.cell_mm)
            if not self._is_free(way, at):
                continue
            slid = self._slid(way, at)
            return slid if self._is_free(way, slid) else at
        return None

    def lay(self, way: Way, at: tuple[float, float]) -> None:
        """Lay a part down."""
        self.cells |= self.grid.touched(way.grown, *at)
        self.shapes.append(affinity.translate(way.grown, *at))
        self.right = self.right.and_more(way.right.moved(at))
        self.top = self.top.and_more(way.top.moved((at[1], at[0])))
        self.free_mm2 -= way.grown.area
        self._spectrum = None

    def _free(self, way: Way) -> Flags:
        """The places of the grid at which a part touches no taken cell, row by row from the left;
        (i, j) is ``i`` cells from the sheet's end and ``j`` from its side."""
        if self._spectrum is None:
            self._spectrum = rfft2(self.cells.astype(np.float32))
        taken = irfft2(self._spectrum * way.spectrum, s=self.grid.shape)
        i, j = way.last
        return np.asarray(taken[: i + 1, : j + 1] < 0.5)

    def _is_free(self, way: Way, at: tuple[float, float]) -> bool:
        moved = affinity.translate(way.grown, *at).buffer(-2 * INWARD_MM, join_style="mitre")
        return not any(moved.intersects(each) for each in self.shapes)

    def _slid(self, way: Way, at: tuple[float, float]) -> tuple[float, float]:
        """As far left and down as a part goes from a place where it is free."""
        x, y = at
        for _ in range(SLIDES):
            left = min(x, gap(way.left.moved((x, y)), self.right))
            x -= max(left, 0.0)
            down = min(y, gap(way.low.moved((y, x)), self.top))
            y -= max(down, 0.0)
            if max(left, down) < SAME_MM:
                break
        return x, y


def is_apart(shapes: Sequence[Polygon], least_mm: float) -> bool:
    """Whether shapes keep a distance from one another, or do not overlap where it is 0.

    >>> square = Polygon([(0, 0), (9, 0), (9, 9), (0, 9)])
    >>> is_apart([square, affinity.translate(square, 9, 0)], 0.0)
    True
    >>> is_apart([square, affinity.translate(square, 10, 0)], 2.0)
    False
    """
    return all(
        one.distance(other) >= least_mm - 0.001
        and one.intersection(other).area <= 0.001 * max(one.length, 1.0)
        for k, one in enumerate(shapes)
        for other in shapes[:k]
    )


def middle_of(shape: Polygon) -> Vector:
    """A point inside a shape, for its name [mm].

    >>> from shapely.geometry import box
    >>> middle_of(box(0, 0, 40, 20)).tolist()
    [20.0, 10.0]
    """
    inner = shape.representative_point()
    return np.array([inner.x, inner.y])
