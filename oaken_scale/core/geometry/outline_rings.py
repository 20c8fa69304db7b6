"""Curves of a drawing joined end to end into rings, and what stays open."""

from collections import defaultdict
from dataclasses import replace
from math import dist
from typing import Final

import numpy as np
from scipy.spatial import cKDTree

from oaken_scale.core.geometry.curves import Curve, Points
from oaken_scale.core.geometry.shared_edges import faces

JOIN_MM: Final = 0.05
"""Ends as close as this meet; drawing programs round."""


SAME_MM: Final = 0.05
"""Curves that stay this close all along are one curve drawn twice."""


def chained(curves: list[Curve], close_within_mm: float) -> tuple[list[Curve], list[Curve], int]:
    """Join open curves of one layer end to end: the loops that close, what stays open, and how
    many loops have edges in common.

    >>> legs = [((0, 0), (40, 0)), ((40, 0), (40, 30)), ((40, 30.02), (0, 0))]
    >>> curves = [Curve(np.array(leg, float), closed=False) for leg in legs]
    >>> closed, left, shared = chained(curves, 0.0)
    >>> len(closed), len(left), shared
    (1, 0, 0)
    """
    sharing = 0
    loops: list[Curve] = []
    left: list[Curve] = []
    by_layer: dict[str, list[Curve]] = defaultdict(list)
    for curve in _once(curves):
        by_layer[curve.layer].append(curve)
    reach = max(JOIN_MM, close_within_mm)
    for group in by_layer.values():
        closed, apart, shared = faces(group, JOIN_MM)
        loops.extend(closed)
        sharing += shared
        closed, apart = _chain(apart, JOIN_MM)
        loops.extend(closed)
        if reach > JOIN_MM:
            closed, apart = _chain(apart, reach)
            loops.extend(closed)
        left.extend(apart)
    return loops, left, sharing


def _once(curves: list[Curve]) -> list[Curve]:
    """Open curves without those that were drawn twice, in either direction."""
    seen: set[tuple[object, ...]] = set()
    kept = []
    for curve in curves:
        ends = sorted(
            (round(float(x), 2), round(float(y), 2)) for x, y in (curve.points[0], curve.points[-1])
        )
        middle = curve.points.mean(axis=0)
        key = (*ends, round(float(middle[0]), 1), round(float(middle[1]), 1), curve.layer)
        if key not in seen:
            seen.add(key)
            kept.append(curve)
    return kept


def _chain(curves: list[Curve], tolerance: float) -> tuple[list[Curve], list[Curve]]:
    """Walk from end to nearest end within ``tolerance`` [mm]; loops, and chains left open."""
    if not curves:
        return [], []
    ends = np.array([point for each in curves for point in (each.points[0], each.points[-1])])
    tree = cKDTree(ends)
    free = [True] * len(curves)
    loops, left = [], []

    def following(at: Points) -> tuple[int, bool] | None:
        near = tree.query_ball_point(at, tolerance)
        usable = [k for k in near if free[k // 2]]
        if not usable:
            return None
        best = min(usable, key=lambda k: dist(ends[k], at))
        return best // 2, best % 2 == 1

    for start, curve in enumerate(curves):
        if not free[start]:
            continue
        free[start] = False
        chain = [curve.points]
        for turn in (False, True):
            if turn:
                chain = [piece[::-1] for piece in reversed(chain)]
            while dist(chain[0][0], chain[-1][-1]) > tolerance or len(chain) == 1:
                found = following(chain[-1][-1])
                if found is None:
                    break
                index, backward = found
                free[index] = False
                piece = curves[index].points
                chain.append((piece[::-1] if backward else piece)[1:])
        whole = replace(curve, points=np.vstack(chain))
        gap = dist(whole.points[0], whole.points[-1])
        if len(whole.points) > 3 and gap <= tolerance:
            points = whole.points[:-1] if gap <= JOIN_MM else whole.points
            loops.append(replace(whole, points=points, closed=True))
        else:
            left.append(whole)
    return loops, left
