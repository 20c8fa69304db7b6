"""A curve of a drawing, flattened to its corners."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Points = NDArray[np.float64]


@dataclass(frozen=True, slots=True, eq=False)
class Curve:
    """One curve of a drawing, flattened: ``points`` shape (n, 2), in the drawing's unit."""

    points: Points
    closed: bool
    name: str = ""
    layer: str = ""
