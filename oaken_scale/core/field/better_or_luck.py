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
from collections.abc import Sequence
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
class _Branches:
    """Every hypothesis, shape (2, n + 1): next to nothing or something, and no throw bad or which.

    Log weight, the difference and its width, and the scatter's variance; all have the same degrees
    of freedom.
    """

    weight: Matrix
    difference: Matrix
    width: Matrix
    variance: Matrix


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
    of = _branches(logs, who)
    weights = np.exp(of.weight - of.weight.max())
    weights /= weights.sum()
    degrees = SCATTER_WORTH + len(logs)
    better = float((weights * stdtr(degrees, of.difference / of.width)).sum())
    difference = float((weights * of.difference).sum())
    spread = of.width**2 * degrees / (degrees - 2)
    second_moment = float((weights * (of.difference**2 + spread)).sum())
    doubtful = tuple(int(k) for k in np.flatnonzero(weights[:, 1:].sum(axis=0) > 0.5))
    sound = np.array([k not in doubtful for k in range(len(logs))])
    of_first = sound & ~who if (sound & ~who).any() else ~who
    first = float(np.exp(logs[of_first].mean()))
    told = Compared(
        better=better,
        difference=difference,
        difference_sd=math.sqrt(max(second_moment - difference**2, 0.0)),
        scatter=(scatter := float((weights * np.sqrt(of.variance)).sum())),
        does_something=float(weights[1].sum()),
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


def _branches(logs: Vector, who: Flags) -> _Branches:
    """Every hypothesis. One bad throw is one more on the diagonal of the covariance: all of them
    follow from one inverse (Sherman and Morrison)."""
    count = len(logs)
    order = np.arange(count) - (count - 1) / 2
    design = np.stack([~who, who], axis=1).astype(float)
    always = np.eye(count) + SLOPE**2 * np.outer(order, order) + TOP**2
    z = logs - logs.mean()
    rows = [_with_any_bad(z, design, always, apart) for _, apart in (NOTHING, SOMETHING)]
    none = count * math.log(1 - BAD_ONE)
    one = math.log(BAD_ONE) + (count - 1) * math.log(1 - BAD_ONE)
    chance = np.array([none, *[one] * count])
    often = np.log([[NOTHING[0]], [SOMETHING[0]]])
    evidence, difference, width, variance = (np.stack(each) for each in zip(*rows, strict=True))
    return _Branches(evidence + chance + often, difference, width, variance)


def _with_any_bad(
    z: Vector, design: Matrix, always: Matrix, apart: float
) -> tuple[Vector, Vector, Vector, Vector]:
    """Log evidence, difference, its width and the scatter's variance, with no throw bad and with
    each of them, shape (n + 1,); two settings differ by ``apart`` scatters."""
    prior = apart**2 / 2
    covariance = always + prior * (design @ design.T)
    inverse = np.linalg.inv(covariance)
    contrast = inverse @ (design[:, 1] - design[:, 0])
    # The first of each is no bad throw; it takes nothing off and adds nothing.
    own = np.concatenate([[0.0], np.diag(inverse)])
    solved, felt = inverse @ z, np.concatenate([[0.0], contrast])
    falls, wider = np.r_[0.0, [BAD_FALLS] * len(z)], np.r_[0.0, [BAD_WIDTH**2] * len(z)]
    taken = wider / (1 + wider * own)
    along = np.concatenate([[0.0], solved]) + falls * own
    squares = z @ solved + 2 * falls * np.concatenate([[0.0], solved]) + falls**2 * own
    settled = SCATTER_WORTH * SCATTER**2 + squares - taken * along**2
    degrees = SCATTER_WORTH + len(z)
    difference = prior * (contrast @ z + falls * felt - taken * felt * along)
    own_spread = (design[:, 1] - design[:, 0]) @ contrast - taken * felt**2
    variance = settled / degrees
    width = np.sqrt(np.maximum(2 * prior - prior**2 * own_spread, 1e-12) * variance)
    log_det = np.linalg.slogdet(covariance)[1] + np.log1p(wider * own)
    return -0.5 * log_det - degrees / 2 * np.log(settled), difference, width, variance
