"""How a plane glides: the glide ratio and the sink, from throws that were measured."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.field.better_or_luck import SCATTER, SCATTER_WORTH
from oaken_scale.core.model.field import Throw

STILL_M_S: Final = 1.0
"""Wind over this carries more than the plane glides [m/s]."""

LAST: Final = 8
"""The latest throws tell how it glides as it is now."""


@dataclass(frozen=True, slots=True)
class Glide:
    """A figure of the glide, one sigma, and the number of throws that it is from."""

    value: float
    sd: float
    throws: int


def glide_ratio(throws: Sequence[Throw]) -> Glide | None:
    """Distance over height, of the latest throws in still air; None where none has both.

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 2, 14, tzinfo=UTC)
    >>> told = glide_ratio([Throw("a", at, distance_m=9.6, height_m=1.6)])
    >>> round(told.value, 2), told.throws
    (6.0, 1)
    """
    return _typical(
        each.distance_m / each.height_m
        for each in _still(throws)
        if each.distance_m and each.height_m
    )


def sink_m_s(throws: Sequence[Throw]) -> Glide | None:
    """Height over seconds [m/s], of the latest throws in still air; None where none has both.

    >>> sink_m_s([])
    """
    return _typical(
        each.height_m / each.seconds for each in _still(throws) if each.height_m and each.seconds
    )


def _still(throws: Sequence[Throw]) -> list[Throw]:
    return [
        each
        for each in throws
        if each.set_aside is None and (each.wind_m_s is None or each.wind_m_s <= STILL_M_S)
    ]


def _typical(figures: Iterable[float]) -> Glide | None:
    """The geometric mean of the latest figures, its doubt from their scatter and the usual one."""
    logs = np.log(np.array(list(figures)[-LAST:], dtype=float))
    if not len(logs):
        return None
    squares = float(((logs - logs.mean()) ** 2).sum())
    degrees = SCATTER_WORTH + len(logs) - 1
    variance = (SCATTER_WORTH * SCATTER**2 + squares) / degrees
    value = math.exp(float(logs.mean()))
    return Glide(value, value * math.sqrt(variance / len(logs)), len(logs))
