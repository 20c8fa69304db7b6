"""Parts that share an edge: lines that branch, as the faces that they enclose.

Where every end of a line meets one other end, lines are walked around to loops. Where three or more
meet, or one ends on the middle of another, two parts have an edge in common that is drawn once.
"""

from collections import defaultdict
from dataclasses import replace

import numpy as np
import shapely
from scipy.spatial import cKDTree
from shapely.geometry import LineString

from oaken_scale.core.geometry.curves import Curve


def faces(curves: list[Curve], tolerance: float) -> tuple[list[Curve], list[Curve], int]:
    """Of open curves: the faces that branching ones enclose, as closed curves; the curves that do
    not branch, as they came, with what dangles of those that do; and how many faces there are.

    ``tolerance`` [mm] is how near ends meet. Source: polygonization of a noded linework
    (*Computational Geometry*, de Berg et al., chapter 2, the doubly-connected edge list).

    >>> def line(*corners):
    ...     return Curve(np.array(corners, float), False)
    >>> frame = line((0, 0), (20, 0), (20, 10), (0, 10), (0, 0.0))
    >>> two, rest, count = faces([line((0, 0), (20, 0), (20, 10)), line((20, 10), (0, 10), (0, 0)),
    ...     line((10, 0), (10, 10))], 0.05)
    >>> [len(each.points) for each in two], rest, count
    ([4, 4], [], 2)
    """
    if len(curves) < 3:
        return [], curves, 0
    met = _snapped(curves, tolerance)
    groups = _together(met, tolerance)
    closed: list[Curve] = []
    open_ones: list[Curve] = []
    for members, branches in groups:
        if not branches:
            open_ones += [curves[k] for k in members]
            continue
        lines = shapely.union_all([LineString(met[k]) for k in members])
        polygons, cuts, dangles, _ = shapely.polygonize_full([lines])
        if shapely.is_empty(polygons):
            open_ones += [curves[k] for k in members]
            continue
        like = max((curves[k] for k in members), key=lambda each: len(each.points))
        for face in polygons.geoms:
            points = np.array(face.exterior.coords)[:-1]
            closed.append(replace(like, points=points, closed=True, name=""))
        for left in (*cuts.geoms, *dangles.geoms):
            open_ones.append(replace(like, points=np.array(left.coords)))
    return closed, open_ones, len(closed)


def _snapped(curves: list[Curve], tolerance: float) -> list[np.ndarray]:
    """The curves with ends that meet at the very same point, and a corner where another one ends
    on their middle."""
    points = [each.points.copy() for each in curves]
    ends = np.array([end for each in points for end in (each[0], each[-1])])
    tree = cKDTree(ends)
    root = list(range(len(ends)))
    for a, b in tree.query_pairs(tolerance):
        root[_root(root, a)] = _root(root, b)
    for k in range(len(ends)):
        points[k // 2][-(k % 2)] = ends[_root(root, k)]
    ends = np.array([end for each in points for end in (each[0], each[-1])])
    lines = [LineString(each) for each in points]
    index = shapely.STRtree(lines)
    for k, end in enumerate(ends):
        spot = shapely.Point(end)
        for j in index.query(spot, "dwithin", tolerance).tolist():
            if j == k // 2 or np.hypot(*(points[j] - end).T).min() <= tolerance:
                continue
            points[j] = _with_corner(points[j], end)
    return points


def _root(root: list[int], k: int) -> int:
    while root[k] != k:
        root[k] = root[root[k]]
        k = root[k]
    return k


def _with_corner(points: np.ndarray, at: np.ndarray) -> np.ndarray:
    """A polyline with one corner more, where another line ends on it."""
    ahead = points[1:] - points[:-1]
    along = ((at - points[:-1]) * ahead).sum(axis=1) / np.maximum((ahead**2).sum(axis=1), 1e-18)
    foot = points[:-1] + np.clip(along, 0, 1)[:, None] * ahead
    segment = int(np.hypot(*(foot - at).T).argmin())
    return np.insert(points, segment + 1, at, axis=0)


def _together(lines: list[np.ndarray], tolerance: float) -> list[tuple[list[int], bool]]:
    """Lines that hang together, and whether three or more of their ends meet somewhere."""
    at: dict[tuple[float, float], set[int]] = defaultdict(set)
    meets: dict[tuple[float, float], int] = defaultdict(int)
    corners: dict[tuple[float, float], set[int]] = defaultdict(set)
    for k, points in enumerate(lines):
        for x, y in points[1:-1]:
            corners[float(x), float(y)].add(k)
        for x, y in (points[0], points[-1]):
            at[float(x), float(y)].add(k)
            meets[float(x), float(y)] += 1
    root = list(range(len(lines)))
    for spot, members in at.items():
        through = corners.get(spot, set())
        meets[spot] += 2 * len(through - members)
        first, *rest = sorted(members | through)
        for each in rest:
            root[_root(root, each)] = _root(root, first)
    groups: dict[int, list[int]] = defaultdict(list)
    for k in range(len(lines)):
        groups[_root(root, k)].append(k)
    branching = {_root(root, k) for spot, members in at.items() if meets[spot] > 2 for k in members}
    return [(members, k in branching) for k, members in groups.items()]
