r"""Whether one setting is better than another, or was lucky: a small mixture, in closed form.

The scatter of throws is a share of them, so logarithms are compared: of throw i with setting s,

    y_i = top + u_s + slope (i - mean i) + e_i,   e_i ~ N(0, \sigma^2)

with ``\sigma^2`` scaled inverse chi-square (:data:`SCATTER`, :data:`SCATTER_WORTH` degrees of
freedom), ``slope ~ N(0, (.1 \sigma)^2)`` for wind and tired arms, and ``u`` such that the
difference of two settings has standard deviation ``.15 \sigma`` where the change does next to
nothing (one in three) and ``\sigma`` where it does something. At most one throw is a bad one, which
falls :data:`BAD_FALLS` short. Each of these hypotheses is a conjugate linear model; they are
weighed by their marginal likelihood, and the difference is a mixture of Student's t.

Source: docs/methods.md, "Better, or luck"; Gelman and others, *Bayesian Data Analysis*, ch. 14.
"""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from scipy.special import stdtr, stdtrit

from oaken_scale.core.model.arrays import Matrix, Vector

Flags = np.ndarray[tuple[int], np.dtype[np.bool_]]

SCATTER: Final = 0.22
"""What throws of one setting scatter by before any was made, as a share."""

SCATTER_WORTH: Final = 4.0
"""How many degrees of freedom that is worth."""

SLOPE: Final = 0.10
"""Standard deviation of the trend a throw, in scatters."""

TOP: Final = 5.0
"""Standard deviation of the general level about the throws' mean, in scatters: next to nothing is
known of it."""

NOTHING: Final = (1 / 3, 0.15)
"""How often a change does next to nothing, and how far apart it then sets two settings
[scatters]."""

SOMETHING: Final = (2 / 3, 1.0)
"""The same of a change that does something."""

BAD_ONE: Final = 0.04
"""How often a throw is a bad one."""

BAD_FALLS: Final = 0.8
"""How far the logarithm of a bad throw falls short."""

BAD_WIDTH: Final = 0.45
"""How far that scatters, in scatters."""

SURE: Final = 0.90
"""From here on a setting is told as better."""

MOST_MORE: Final = 24
"""No larger number of throws is worth throwing."""


@dataclass(frozen=True, slots=True)
class Compared:
    """Two settings compared.

    ``better`` is the chance that the second goes further; ``difference`` of the logarithms and
    ``difference_sd``; ``scatter`` the share by which throws of one setting scatter;
    ``does_something`` the chance that the change does. ``first`` and ``second`` are how far each
    goes, in the throws' own unit. ``more`` throws would tell, in turns; None where no number worth
    throwing would. ``bad`` are the throws more likely bad than not, by their place.
    """

    better: float
    difference: float
    difference_sd: float
    scatter: float
    does_something: float
    first: float
    second: float
    more: int | None
    bad: tuple[int, ...]


@dataclass(frozen=True, slots=True)
class _Branch:
    """One hypothesis: its log weight, the difference and its width, its degrees of freedom."""

    weight: float
    difference: float
    width: float
    degrees: float
    variance: float
    something: bool
    bad: int | None


def compared(values: Sequence[float], second: Sequence[bool]) -> Compared:
    """Compare two settings by throws in the order they were thrown.

    ``values`` are distances, heights or seconds, all above 0 and in one unit; ``second`` says for
    each whether it was thrown with the second setting. Raises ValueError where one of the two was
    never thrown.

    >>> metres = (9.6, 14.9, 12.4, 12.3, 10.2, 16.8, 13.7, 11.4)
    >>> told = compared(metres, [letter == "B" for letter in "ABBAABBA"])
    >>> round(told.better, 2), round(told.difference, 2), told.more
    (0.92, 0.16, 0)
    """
    logs, who = np.log(np.asarray(values, dtype=float)), np.asarray(second, dtype=bool)
    if who.all() or not who.any():
        raise ValueError("throw both settings, each at least once")
    branches = list(_branches(logs, who))
    weights = np.exp([each.weight - max(one.weight for one in branches) for each in branches])
    weights /= weights.sum()
    better, difference, second_moment, scatter, something = 0.0, 0.0, 0.0, 0.0, 0.0
    bad = np.zeros(len(logs))
    for weight, each in zip(weights.tolist(), branches, strict=True):
        better += weight * float(stdtr(each.degrees, each.difference / each.width))
        difference += weight * each.difference
        spread = each.width**2 * each.degrees / (each.degrees - 2)
        second_moment += weight * (each.difference**2 + spread)
        scatter += weight * math.sqrt(each.variance)
        something += weight * each.something
        if each.bad is not None:
            bad[each.bad] += weight
    doubtful = tuple(int(k) for k in np.flatnonzero(bad > 0.5))
    sound = np.array([k not in doubtful for k in range(len(logs))])
    of_first = sound & ~who if (sound & ~who).any() else ~who
    first = float(np.exp(logs[of_first].mean()))
    told = Compared(
        better=better,
        difference=difference,
        difference_sd=math.sqrt(max(second_moment - difference**2, 0.0)),
        scatter=scatter,
        does_something=something,
        first=first,
        second=first * math.exp(difference),
        more=0,
        bad=doubtful,
    )
    if SURE > better > 1 - SURE:
        more = how_many_more(difference, scatter, int((~who).sum()), int(who.sum()))
        return replace(told, more=more)
    return told


def how_many_more(difference: float, scatter: float, first: int, second: int) -> int | None:
    """How many more throws, in turns, would tell two settings apart if they stay as they seem.

    ``difference`` of the logarithms and ``scatter`` as a share, ``first`` and ``second`` how many
    throws each has. None where more than :data:`MOST_MORE` would be needed.

    >>> how_many_more(0.1511, 0.186, 3, 3)
    6
    """
    for more in range(1, MOST_MORE + 1):
        if first <= second:
            first += 1
        else:
            second += 1
        t = abs(difference) / (scatter * math.sqrt(1 / first + 1 / second))
        if t >= stdtrit(SCATTER_WORTH + first + second - 2, SURE):
            return more
    return None


def _branches(logs: Vector, who: Flags) -> Iterator[_Branch]:
    """Every hypothesis: which throw was bad, if any, and whether the change does something."""
    count = len(logs)
    order = np.arange(count) - (count - 1) / 2
    design = np.stack([~who, who], axis=1).astype(float)
    always = np.eye(count) + SLOPE**2 * np.outer(order, order) + TOP**2
    for often, apart in (NOTHING, SOMETHING):
        shared = always + apart**2 / 2 * (design @ design.T)
        for bad in (None, *range(count)):
            chance = (
                (1 - BAD_ONE) ** count if bad is None else BAD_ONE * (1 - BAD_ONE) ** (count - 1)
            )
            yield _branch(logs, design, shared, apart, math.log(often * chance), bad)


def _branch(
    logs: Vector, design: Matrix, shared: Matrix, apart: float, weight: float, bad: int | None
) -> _Branch:
    covariance, z = shared, logs - logs.mean()
    if bad is not None:
        covariance, z = shared.copy(), z.copy()
        covariance[bad, bad] += BAD_WIDTH**2
        z[bad] += BAD_FALLS
    solved = np.linalg.solve(covariance, np.column_stack([z, design]))
    squares = float(z @ solved[:, 0])
    degrees = SCATTER_WORTH + len(logs)
    settled = SCATTER_WORTH * SCATTER**2 + squares
    prior = apart**2 / 2
    at = prior * (design.T @ solved[:, 0])
    spread = prior * np.eye(2) - prior**2 * (design.T @ solved[:, 1:])
    variance = settled / degrees
    width = spread[0, 0] + spread[1, 1] - 2 * spread[0, 1]
    evidence = -0.5 * np.linalg.slogdet(covariance)[1] - degrees / 2 * math.log(settled)
    return _Branch(
        weight + float(evidence),
        float(at[1] - at[0]),
        math.sqrt(max(width, 1e-12) * variance),
        degrees,
        variance,
        apart == SOMETHING[1],
        bad,
    )
