"""Curves of a drawing, flattened to their corners."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]

FLAT: Final = 1e-4
"""Curves are flattened to this share of their size: areas come out within 0.02 %."""

MOST_CHORDS: Final = 400
"""A curve is cut into no more than so many chords."""


@dataclass(frozen=True, slots=True, eq=False)
class Curve:
    """One curve of a drawing, flattened: ``points`` shape (n, 2), in the drawing's unit."""

    points: Points
    closed: bool
    name: str = ""
    layer: str = ""


def bezier(nodes: Points) -> Points:
    """A cubic Bezier flattened to a share of its size, shape (n, 2); ``nodes`` shape (4, 2).

    With the largest second difference d of its nodes, n chords stray at most ``0.75 d / n^2``.
    Source: Filip, Magedson & Markot (1986), *Surface algorithms using bounds on derivatives*.

    >>> bezier(np.array([[0, 0], [1, 0], [2, 0], [3, 0]], float)).tolist()
    [[0.0, 0.0], [3.0, 0.0]]
    """
    bend = float(np.hypot(*np.diff(nodes, n=2, axis=0).T).max())
    size = float((nodes.max(axis=0) - nodes.min(axis=0)).max())
    if not np.isfinite(bend) or bend <= FLAT * size:
        return nodes[[0, 3]]
    steps = int(min(np.ceil((0.75 * bend / (FLAT * size)) ** 0.5), MOST_CHORDS))
    t = np.linspace(0, 1, steps + 1)[:, None]
    s = 1 - t
    curve: Points = (
        s**3 * nodes[0] + 3 * s**2 * t * nodes[1] + 3 * s * t**2 * nodes[2] + t**3 * nodes[3]
    )
    return curve
