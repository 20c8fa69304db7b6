"""Points of a run that the others contradict, and what may have gone wrong with them."""

from dataclasses import dataclass, replace
from enum import StrEnum
from math import log
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.power import Power, Run
from oaken_scale.core.power.drive_readings import Beliefs, Rows, predicted, propeller_of, shown_by
from oaken_scale.core.power.drive_settling import settled, sharpness, spread_about

OUNCE_G: Final = 28.349523125
DOUBTFUL: Final = 4.0
"""A reading is doubted where it is so many sigma from what the others predict."""

EXPLAINS: Final = 3.0
"""A slip explains a reading where it brings it within so many sigma."""

FEWEST: Final = 3
"""A run of fewer points says nothing of which propeller it was."""

MOST_TRIED: Final = 24
"""So many other propellers are tried on runs; with more of both nobody waits for it."""

HOPELESS: Final = 30.0
"""What seems less likely by so much, in the logarithm, at a glance is not looked at again."""

BETTER: Final = 20.0
"""Another propeller is told of where it explains a run so many times better."""


class Quantity(StrEnum):
    """What a point reads."""

    THRUST = "thrust"
    CURRENT = "current"
    VOLTAGE = "voltage"


class PointSlip(StrEnum):
    """What may have gone wrong with a point."""

    OUNCES = "ounces"
    OTHER_THROTTLE = "other_throttle"
    UNNAMED = "unnamed"


@dataclass(frozen=True, slots=True)
class PointDoubt:
    """A point that the others contradict: which reading of which run, how far off in sigma, what
    would explain it, and the throttle or reading that it would be then."""

    run: str
    point: int
    quantity: Quantity
    t: float
    slip: PointSlip
    would_be: float | None


@dataclass(frozen=True, slots=True)
class OtherPropeller:
    """A run that another propeller of the drive explains so many ``times`` better than the one that
    was written down."""

    run: str
    propeller: str
    times: float


def worst(t: Matrix) -> tuple[int, int] | None:
    """The reading farthest from what all others predict, by its row and column; None where none is
    doubtful. ``t`` (R, 3) as of :func:`left_out`.

    >>> worst(np.array([[0.3, -5.2, 1.1]])), worst(np.array([[0.3, 2.0, 1.1]]))
    ((0, 1), None)
    """
    r, c = np.unravel_index(int(np.abs(t).argmax()), t.shape) if t.size else (0, 0)
    if not t.size or abs(t[r, c]) <= DOUBTFUL:
        return None
    return int(r), int(c)


def left_out(
    drive: Power,
    believed: Beliefs,
    rows: Rows,
    kept: NDArray[np.bool_],
    mean: Vector,
    cov: Matrix,
    throttle_sd: float,
) -> tuple[Matrix, Matrix]:
    """What all others predict of each reading (R, 3), and how far it lies from that, in sigma; of
    what is not kept, what those that are kept predict, and 0.

    One factorisation for all, as docs/methods.md, section 2, has it for the ledger.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> points = (RunPoint(0.5, 240.0), RunPoint(0.75, 430.0), RunPoint(1.0, 22.6))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", points)
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> kept = np.isfinite(rows.read)
    >>> mean, cov, _ = settled(drive, told, rows, kept, 0.02)
    >>> expected, t = left_out(drive, told, rows, kept, mean, cov, 0.02)
    >>> expected.shape, worst(t)
    ((3, 3), (2, 0))
    """
    shown, slope, by_throttle = predicted(drive, believed, rows, mean, as_read=True)
    weight, _ = sharpness(rows, by_throttle, throttle_sd, kept)
    gap = np.where(kept, rows.read - shown, 0.0)
    slope = np.where(kept[:, :, None], slope, 0.0)
    # A point's readings share its throttle: each is left out of all others, those of its own point
    # among them.
    sharp = weight - weight @ (slope @ cov @ np.swapaxes(slope, 1, 2)) @ weight
    own = np.maximum(np.einsum("rii->ri", sharp), 1e-300)
    pull = np.einsum("rij,rj->ri", weight, gap)
    expected = np.where(kept, np.nan_to_num(rows.read) - pull / own, shown)
    return expected, np.where(kept, pull / np.sqrt(own), 0.0)


@dataclass(frozen=True, slots=True)
class PointFit:
    """A reading beside what all others predict of it, and how far off in sigma; a reading that is
    not believed has no ``t``."""

    run: str
    point: int
    quantity: Quantity
    read: float
    expected: float
    t: float | None


def fits(rows: Rows, kept: NDArray[np.bool_], expected: Matrix, t: Matrix) -> tuple[PointFit, ...]:
    """Every reading of every run beside what the others say.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> points = (RunPoint(0.5, 240.0), RunPoint(0.75, 430.0), RunPoint(1.0, 22.6))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", points)
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> kept = np.isfinite(rows.read)
    >>> mean, cov, _ = settled(drive, told, rows, kept, 0.02)
    >>> told = fits(rows, kept, *left_out(drive, told, rows, kept, mean, cov, 0.02))
    >>> [(fit.point, fit.quantity.value, fit.read) for fit in told]
    [(0, 'thrust', 240.0), (1, 'thrust', 430.0), (2, 'thrust', 22.6)]
    """
    there = np.isfinite(rows.read)
    return tuple(
        PointFit(
            *rows.where[r],
            tuple(Quantity)[c],
            float(rows.read[r, c]),
            float(expected[r, c]),
            float(t[r, c]) if kept[r, c] else None,
        )
        for r, c in np.argwhere(there).tolist()
    )


def explained(
    drive: Power,
    believed: Beliefs,
    rows: Rows,
    r: int,
    c: int,
    mean: Vector,
    cov: Matrix,
    throttle_sd: float,
) -> tuple[PointDoubt, bool]:
    """What would explain a reading, by the estimate without it, and whether its whole point is to
    be left out.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> points = (RunPoint(0.5, 240.0), RunPoint(0.75, 430.0), RunPoint(1.0, 22.6))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", points)
    >>> told = beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> kept = np.isfinite(rows.read)
    >>> kept[2] = False
    >>> mean, cov, _ = settled(drive, told, rows, kept, 0.02)
    >>> doubt, whole = explained(drive, told, rows, 2, 0, mean, cov, 0.02)
    >>> doubt.slip.value, round(doubt.would_be), whole
    ('ounces', 641, False)
    """
    shown, slope, by_throttle = predicted(drive, believed, rows, mean, as_read=True)
    every = np.ones_like(rows.read, dtype=bool)
    spread = spread_about(rows, by_throttle, throttle_sd, every)[r] + slope[r] @ cov @ slope[r].T
    sd = float(spread[c, c] ** 0.5)
    gap = float(rows.read[r, c] - shown[r, c])
    run, point = rows.where[r]
    quantity = tuple(Quantity)[c]

    def doubt(slip: PointSlip, would_be: float | None) -> PointDoubt:
        return PointDoubt(run, point, quantity, gap / sd, slip, would_be)

    grams = rows.read[r, c] * OUNCE_G
    if quantity is Quantity.THRUST and abs(grams - shown[r, c]) < EXPLAINS * sd:
        return doubt(PointSlip.OUNCES, float(grams)), False
    tried = np.linspace(0.0, 1.0, 101)
    there = np.isfinite(rows.read[r])
    at_throttle = shown_by(drive, _row(rows, r), mean[None], tried[:, None], True)
    gaps = ((rows.read[r] - at_throttle.reshape(len(tried), 3)) / np.sqrt(np.diag(spread)))[
        :, there
    ]
    far = np.abs(gaps).max(axis=1)
    best = int(far.argmin())
    if there.sum() > 1 and far[best] < EXPLAINS:
        return doubt(PointSlip.OTHER_THROTTLE, float(tried[best])), True
    return doubt(PointSlip.UNNAMED, None), False


def _row(rows: Rows, r: int) -> Rows:
    one = slice(r, r + 1)
    return Rows(
        rows.throttle[one],
        rows.pack[one],
        rows.propeller[one],
        rows.cells[one],
        rows.rest_v[one],
        rows.diameter_mm[one],
        rows.lever[one],
        rows.read[one],
        rows.noise[one],
        rows.where[one],
    )


def other_propellers(
    drive: Power,
    believed: Beliefs,
    runs: tuple[Run, ...],
    rows: Rows,
    kept: NDArray[np.bool_],
    mean: Vector,
    evidence: float,
    throttle_sd: float,
) -> tuple[OtherPropeller, ...]:
    """The runs that were rather taken with another propeller, by the evidence for either. What a
    glance says to be far less likely is not settled.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller, RunPoint
    >>> from oaken_scale.core.power.drive_readings import beliefs, gathered
    >>> small, large = Propeller("p7", "7 by 4", 178, 102), Propeller("p9", "9 by 5", 229, 127)
    >>> pack = Pack("s3", "3 cells", 3, 1300)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(small, large), packs=(pack,))
    >>> read = ((0.5, 560.0), (0.75, 1010.0), (1.0, 1390.0))
    >>> points = tuple(RunPoint(throttle, thrust) for throttle, thrust in read)
    >>> run, told = Run("r", datetime(2026, 3, 7), "s3", "p7", points), beliefs(drive)
    >>> rows = gathered(drive, told, (run,))
    >>> kept = np.isfinite(rows.read)
    >>> mean, _, evidence = settled(drive, told, rows, kept, 0.02)
    >>> others = other_propellers(drive, told, (run,), rows, kept, mean, evidence, 0.02)
    >>> [(each.run, each.propeller) for each in others]
    [('r', 'p9')]
    """
    told: list[OtherPropeller] = []
    if len(runs) * (len(believed.propellers) - 1) > MOST_TRIED:
        return ()
    for run in runs:
        tried = []
        for other in believed.propellers:
            if other == run.propeller or len(run.points) < FEWEST:
                continue
            swapped = _with_propeller(drive, believed, rows, run.id, other)
            seen = settled(drive, believed, swapped, kept, throttle_sd, mean, glance=True)[2]
            if seen > evidence - HOPELESS:
                tried.append((settled(drive, believed, swapped, kept, throttle_sd)[2], other))
        best, other = max(tried, default=(-np.inf, ""))
        if best - evidence > log(BETTER):
            told.append(OtherPropeller(run.id, other, float(np.exp(min(best - evidence, 20)))))
    return tuple(told)


def _with_propeller(drive: Power, believed: Beliefs, rows: Rows, run: str, propeller: str) -> Rows:
    """The rows with those of one run taken with another propeller."""
    its = np.array([where == run for where, _ in rows.where])
    return replace(
        rows,
        propeller=np.where(its, believed.propeller_at(propeller), rows.propeller),
        diameter_mm=np.where(its, propeller_of(drive, propeller).diameter_mm, rows.diameter_mm),
    )
