"""Where a drive's runs and listings agree best, and how likely the readings are there."""

from math import log
from typing import Any, Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.power import Power
from oaken_scale.core.power.drive_readings import Beliefs, Rows, predicted, shown_by

ROUNDS: Final = 20
"""So many rounds at most, from each start."""


SETTLED: Final = 3e-4
"""A step so short is the last one; what it leaves is shorter by far."""


def spread_about(
    rows: Rows, by_throttle: Matrix, throttle_sd: float, kept: NDArray[np.bool_]
) -> NDArray[np.float64]:
    """The covariance of what each row reads about the model, shape (R, 3, 3): the noise of each
    reading, and a throttle that is known so well; what is not kept stands by itself.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, Run, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", (RunPoint(1.0, 640.0, 14.2, 11.4),))
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> _, _, by_throttle = predicted(drive, told, rows, told.mean)
    >>> kept = np.isfinite(rows.read)
    >>> spread = spread_about(rows, by_throttle, 0.02, kept)
    >>> spread.shape, bool(spread[0, 0, 0] > rows.noise[0, 0] ** 2)
    ((1, 3, 3), True)
    """
    noise = np.where(kept, np.nan_to_num(rows.noise, nan=1.0), 1.0)
    off = by_throttle * throttle_sd * kept
    spread: NDArray[np.float64] = noise[:, :, None] ** 2 * np.eye(3)
    return spread + off[:, :, None] * off[:, None, :]


def sharpness(
    rows: Rows, by_throttle: Matrix, throttle_sd: float, kept: NDArray[np.bool_]
) -> tuple[NDArray[np.float64], float]:
    """The inverse of :func:`spread_about`, shape (R, 3, 3), and the logarithm of its determinant,
    by Sherman and Morrison: the noise of three readings, and one throttle that moves them all.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, Run, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", (RunPoint(1.0, 640.0, 14.2, 11.4),))
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> _, _, by_throttle = predicted(drive, told, rows, told.mean)
    >>> kept = np.isfinite(rows.read)
    >>> weight, spread = sharpness(rows, by_throttle, 0.02, kept)
    >>> about = spread_about(rows, by_throttle, 0.02, kept)
    >>> bool(np.allclose(weight @ about, np.eye(3)))
    True
    >>> bool(np.isclose(spread, np.linalg.slogdet(about)[1].sum()))
    True
    """
    noise = np.where(kept, rows.noise, 1.0)
    sharp = noise**-2.0
    off = by_throttle * throttle_sd * kept
    pulled = sharp * off
    more = 1 + (off * pulled).sum(axis=1)
    weight = sharp[:, :, None] * _EYE - pulled[:, :, None] * (pulled / more[:, None])[:, None, :]
    return weight, float(2 * np.log(noise).sum() + np.log(more).sum())


_EYE: Final = np.eye(3)


def settled(
    drive: Power,
    believed: Beliefs,
    rows: Rows,
    kept: NDArray[np.bool_],
    throttle_sd: float,
    start: Vector | None = None,
    glance: bool = False,
) -> tuple[Vector, Matrix, float]:
    """The most probable unknowns, their covariance, and the logarithm of how likely the readings
    are, by Laplace's method. What a throttle's doubt adds is taken where it stands; steps are
    halved until they help. A ``glance`` from a ``start`` is one step, and how likely the readings
    are where that is believed to lead.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, Run, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", (RunPoint(1.0, 640.0, 14.2, 11.4),))
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> mean, cov, evidence = settled(drive, told, rows, np.isfinite(rows.read), 0.02)
    >>> shown, _, _ = predicted(drive, told, rows, mean)
    >>> [round(float(value), 1) for value in shown[0]]
    [663.9, 14.5, 11.4]
    >>> bool(cov[0, 0] < told.cov[0, 0])
    True
    """
    free = np.diag(believed.cov) > 0
    prior = np.linalg.inv(believed.cov[np.ix_(free, free)])
    read = np.where(kept, rows.read, 0.0)

    def cost(mean: Vector, shown: Matrix, weight: Any) -> float:
        gap, off = np.where(kept, read - shown, 0.0), (mean - believed.mean)[free]
        return float(np.einsum("ri,rij,rj->", gap, weight, gap) + off @ prior @ off)

    mean = believed.mean.copy() if start is None else start.copy()
    for _ in range(ROUNDS):
        shown, slope, by_throttle = predicted(drive, believed, rows, mean, as_read=True)
        weight, spread = sharpness(rows, by_throttle, throttle_sd, kept)
        slope = np.where(kept[:, :, None], slope, 0.0)[:, :, free]
        pulled = (weight @ np.where(kept, read - shown, 0.0)[:, :, None]).ravel()
        weighted = (weight @ slope).reshape(-1, int(free.sum()))
        slope = slope.reshape(-1, int(free.sum()))
        tells = prior + slope.T @ weighted
        pull = pulled @ slope - prior @ (mean - believed.mean)[free]
        step = np.zeros(len(mean))
        step[free] = np.clip(np.linalg.solve(tells, pull), -1.0, 1.0)
        least = cost(mean, shown, weight)
        if glance:
            least -= float(pull @ step[free])
            break
        if np.abs(step).max(initial=0.0) < SETTLED:
            mean = mean + step
            break
        while np.abs(step).max(initial=0.0) > SETTLED:
            tried = shown_by(drive, rows, (mean + step)[None], rows.throttle, True)[0]
            if cost(mean + step, tried, weight) <= least * (1 + 1e-9) + 1e-12:
                break
            step = step / 2
        mean = mean + step
    cov = np.zeros_like(believed.cov)
    cov[np.ix_(free, free)] = np.linalg.inv(tells)
    evidence = -0.5 * (least + int(kept.sum()) * log(2 * np.pi))
    evidence -= 0.5 * spread
    evidence -= 0.5 * float(np.linalg.slogdet(tells)[1] - np.linalg.slogdet(prior)[1])
    return mean, cov, evidence
