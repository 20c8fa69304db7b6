"""The arrays that the core reckons with."""

import numpy as np
from numpy.typing import NDArray

Vector = NDArray[np.float64]
Matrix = NDArray[np.float64]
Flags = NDArray[np.bool_]
