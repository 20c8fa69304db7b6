r"""Where a tab flies best, and what to throw next.

One tab at a time. The logarithm of the distance falls from the best setting c as

    -0.5 ((x - c) / w)^2

with ``c ~ N(first setting, 3 mm)`` and w one of :data:`WIDTHS_MM`, all alike, on a grid. Each word
multiplies what is believed: with ``u = (x - c) / w`` it stalls with chance ``Phi((u - .5) / .5)``,
dives with ``Phi((-u - .5) / .5)`` and is good else; one word in ten is wrong. Distances multiply
it by ``(4 .22^2 + SS)^(-(4 + n - 1) / 2)``, SS the squares about their mean of what is left after
the curve, none counted further from the median than 2.5 scatters.

Source: docs/methods.md, "What to throw next".
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.special import ndtr

from oaken_scale.core.field.better_or_luck import SCATTER, SCATTER_WORTH
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.field import Seen

FIRST_MM: Final = 3.0
"""How far the best setting may lie from the first, one sigma [mm]."""

WIDTHS_MM: Final = (1.5, 2.5, 4.0, 6.0)
"""How far a tab may be off before a fifth of the way and more is lost [mm]."""

REACH_MM: Final = 6.0
"""How far from the first setting the best is looked for [mm]; further, where more was thrown."""

STEP_MM: Final = 0.25
WRONG_WORD: Final = 0.1
"""How often the word is the wrong one of the three."""

FAR_OUT: Final = 2.5
"""No throw counts as further from the others than so many scatters."""

HALF_MM: Final = 0.5
"""Nobody bends a tab finer [mm]."""

MOST_AT_ONCE_MM: Final = 3.0
"""No change is larger [mm]."""

CLOSE: Final = 0.05
"""A setting this share short of the best is as good as the best."""

OWN_CHANGE_MM: Final = 2.0
"""The first change of who goes by the word alone [mm]."""


@dataclass(frozen=True, slots=True)
class Thrown:
    """A throw as the search takes it: the tab's setting [mm, up or nose-up positive], what it did
    (:attr:`Seen.STALLS`, :attr:`Seen.DIVES`, :attr:`Seen.GOOD` or None), how far [m] or None."""

    mm: float
    seen: Seen | None = None
    distance_m: float | None = None


@dataclass(frozen=True, slots=True)
class BestSetting:
    """Where a tab flies best [mm]: ``best`` among half millimetres, how far it is expected to fall
    short of the best of all, and the chance that it is within 5 % of it; where that lies, and the
    ``next`` setting to throw."""

    best_mm: float
    loss: float
    close: float
    mean_mm: float
    sd_mm: float
    median_mm: float
    low_mm: float
    high_mm: float
    next_mm: float


def best_setting(throws: Sequence[Thrown], most_mm: float | None = None) -> BestSetting:
    """Where the tab flies best, from throws in their order, the last one last; at least one.

    ``most_mm`` is the furthest that the next may go up: a caution (CG behind its range) forbids
    more. Raises ValueError for no throws.

    >>> told = best_setting([
    ...     Thrown(0, Seen.STALLS, 9.4), Thrown(-2, Seen.STALLS, 12.9),
    ...     Thrown(-3, Seen.DIVES, 11.8), Thrown(-2, Seen.GOOD, 14.1)])
    >>> told.best_mm, round(told.close, 3), round(told.mean_mm, 3), told.next_mm
    (-2.0, 0.785, -2.401, -3.0)
    """
    if not throws:
        raise ValueError("throw it once; then there is something to go by")
    x = np.array([each.mm for each in throws])
    low, high = min(x.min(), x[0] - REACH_MM), max(x.max(), x[0] + REACH_MM)
    at = x[0] + np.arange(math.floor((low - x[0]) / STEP_MM), (high - x[0]) / STEP_MM + 1) * STEP_MM
    believed = _believed(throws, at)
    by_place = believed.sum(axis=1)
    mean = float(by_place @ at)
    settings = np.arange(math.ceil(at[0] / HALF_MM), math.floor(at[-1] / HALF_MM) + 1) * HALF_MM
    off = (settings[:, None, None] - at[:, None]) / np.array(WIDTHS_MM)
    short = -np.expm1(-0.5 * off**2)
    losses = np.einsum("scw,cw->s", short, believed)
    k = int(losses.argmin())
    below = np.cumsum(by_place) - by_place / 2
    median = float(np.interp(0.5, below, at))
    best = float(settings[k])
    return BestSetting(
        best_mm=best,
        loss=float(losses[k]),
        close=float(believed[short[k] <= CLOSE].sum()),
        mean_mm=mean,
        sd_mm=math.sqrt(max(float(by_place @ (at - mean) ** 2), 0.0)),
        median_mm=median,
        low_mm=float(np.interp(0.1, below, at)),
        high_mm=float(np.interp(0.9, below, at)),
        next_mm=_next(float(x[-1]), best, median, most_mm),
    )


def _next(last: float, best: float, median: float, most_mm: float | None) -> float:
    """The best so far, or, where that was just thrown, 1 mm towards the median of what is left."""
    wanted = best if best != last else best + math.copysign(1.0, median - best)
    wanted = min(max(wanted, last - MOST_AT_ONCE_MM), last + MOST_AT_ONCE_MM)
    return wanted if most_mm is None else min(wanted, most_mm)


def _believed(throws: Sequence[Thrown], at: Vector) -> Matrix:
    """What is believed of best setting and width after the throws, shape (C, W), sum 1."""
    off = (np.array([each.mm for each in throws]) - at[:, None, None]) / np.array(WIDTHS_MM)[
        None, :, None
    ]
    log = np.broadcast_to(
        -0.5 * ((at - throws[0].mm) / FIRST_MM)[:, None] ** 2, (len(at), len(WIDTHS_MM))
    ).copy()
    for k, each in enumerate(throws):
        if each.seen in (Seen.STALLS, Seen.DIVES, Seen.GOOD):
            u = off[:, :, k]
            stalls, dives = ndtr((u - 0.5) / 0.5), ndtr((-u - 0.5) / 0.5)
            good = np.clip(1 - stalls - dives, 0.0, 1.0)
            said = {Seen.STALLS: stalls, Seen.DIVES: dives, Seen.GOOD: good}[each.seen]
            log += np.log((1 - WRONG_WORD) * said + WRONG_WORD / 3)
    far = [k for k, each in enumerate(throws) if each.distance_m is not None]
    if far:
        logs = np.log([throws[k].distance_m or 1.0 for k in far])
        left = logs + 0.5 * off[:, :, far] ** 2
        middle = np.median(left, axis=-1, keepdims=True)
        left = np.clip(left, middle - FAR_OUT * SCATTER, middle + FAR_OUT * SCATTER)
        squares = ((left - left.mean(axis=-1, keepdims=True)) ** 2).sum(axis=-1)
        degrees = SCATTER_WORTH + len(far) - 1
        log -= degrees / 2 * np.log(SCATTER_WORTH * SCATTER**2 + squares)
    believed: Matrix = np.exp(log - log.max())
    believed /= believed.sum()
    return believed


def by_the_word(throws: Sequence[Thrown]) -> float:
    """The next setting [mm] by the words alone: 2 mm down where it stalls, up where it dives; when
    the word turns over the last change is halved, not under half a millimetre; good stays.

    >>> by_the_word([Thrown(0, Seen.STALLS)]), by_the_word(
    ...     [Thrown(0, Seen.STALLS), Thrown(-2, Seen.DIVES)])
    (-2.0, -1.0)
    """
    step, before, at = OWN_CHANGE_MM, None, throws[0].mm
    for each in throws:
        at = each.mm
        if each.seen not in (Seen.STALLS, Seen.DIVES):
            continue
        if before is not None and each.seen is not before:
            step = max(step / 2, HALF_MM)
        before = each.seen
    last = throws[-1].seen
    if last is Seen.STALLS:
        return at - step
    return at + step if last is Seen.DIVES else at
