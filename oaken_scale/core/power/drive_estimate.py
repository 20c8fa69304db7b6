"""What runs on a stand tell of a drive train: motor, propellers and packs in one estimate.

A run with one pack sharpens what another pack or propeller will do; without any run it is what the
listings say, wide, and told so.
"""

from dataclasses import dataclass, field, replace
from datetime import datetime
from enum import StrEnum
from math import log
from typing import Any, Final, TypeVar

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import block_diag

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.faults import BuildFaultError, Fault
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller, Run, RunPoint
from oaken_scale.core.power.drive_train import (
    EMPTY_V_PER_CELL,
    HALF_V_PER_CELL,
    Constants,
    run_at,
)
from oaken_scale.core.power.listings import (
    CONTROLLER_OHM,
    CONTROLLER_OHM_SD,
    REST_SD_V_PER_CELL,
    motor_belief,
    pack_belief,
    propeller_belief,
)

DUTY_SD: Final = 0.10
STAND_SD: Final = 0.02
AMMETER_SD: Final = 0.03
THROTTLE_SD: Final = 0.015
THRUST_MODEL: Final = 0.02
CURRENT_MODEL: Final = 0.03
"""What the model leaves out of a prediction, as fractions: warm windings, small propellers.
Source of all: docs/methods.md, section 8."""

OUNCE_G: Final = 28.349523125
ROUNDS: Final = 40
SETTLED: Final = 1e-6
DOUBTFUL: Final = 4.0
"""A reading is doubted where it is so many sigma from what the others predict."""

EXPLAINS: Final = 3.0
"""A slip explains a reading where it brings it within so many sigma."""

MOST_DOUBTS: Final = 6

FEWEST: Final = 3
"""A run of fewer points says nothing of which propeller it was."""

BETTER: Final = 20.0
"""Another propeller is told of where it explains a run so many times better."""


class HowKnown(StrEnum):
    """How a prediction is known: run just so, calculated from other runs, or guessed."""

    RUN = "run"
    CALCULATED = "calculated"
    GUESS = "guess"


@dataclass(frozen=True, slots=True)
class Predicted:
    """What a drive train will do: each figure with one sigma."""

    thrust_gf: float
    thrust_sd_gf: float
    pack_a: float
    pack_sd_a: float
    pack_v: float
    pack_sd_v: float
    power_w: float
    power_sd_w: float
    known: HowKnown


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


@dataclass(frozen=True, slots=True, eq=False)
class Beliefs:
    """The unknowns of a drive: their ``mean`` (U,) and ``cov`` (U, U), and where each stands.

    In order: logarithms of Kv, winding resistance, no-load current, controller resistance and the
    exponent of the duty; the errors of stand and ammeter, as fractions; of each pack the logarithm
    of its resistance and how far its rest voltage is off [V per cell]; of each propeller the
    logarithms of its coefficients of thrust and power.
    """

    mean: Vector
    cov: Matrix
    packs: tuple[str, ...]
    propellers: tuple[str, ...]

    def pack_at(self, name: str) -> int:
        """Where a pack's resistance stands; its rest voltage follows."""
        return _SHARED + 2 * self.packs.index(name)

    def propeller_at(self, name: str) -> int:
        """Where a propeller's coefficient of thrust stands; that of power follows."""
        return _SHARED + 2 * len(self.packs) + 2 * self.propellers.index(name)


_KV, _OHM, _IDLE, _CONTROLLER, _DUTY, _STAND, _AMMETER, _SHARED = range(8)


def beliefs(drive: Power) -> Beliefs:
    """What is believed of a drive before any run.

    Raises BuildFaultError for figures that no drive has, a propeller of no pitch among them.
    """
    motor = motor_belief(drive.motor)
    packs = [pack_belief(each) for each in drive.packs]
    propellers = [propeller_belief(each) for each in drive.propellers]
    means = [*motor.mean, log(CONTROLLER_OHM), 0.0, 0.0, 0.0]
    blocks = [motor.cov, np.diag(np.square([CONTROLLER_OHM_SD, DUTY_SD, STAND_SD, AMMETER_SD]))]
    for pack in packs:
        means += [float(pack.mean[0]), 0.0]
        blocks += [pack.cov, np.array([[REST_SD_V_PER_CELL**2]])]
    for propeller in propellers:
        means += propeller.mean.tolist()
        blocks.append(propeller.cov)
    cov = np.asarray(block_diag(*blocks), dtype=float)
    return Beliefs(
        np.array(means),
        cov,
        tuple(each.id for each in drive.packs),
        tuple(each.id for each in drive.propellers),
    )


@dataclass(frozen=True, slots=True, eq=False)
class _Rows:
    """What was read, a row a point: throttle, pack, propeller and rest voltage of each, and the
    readings (R, 3) with their noise, not-a-number where nothing was read."""

    throttle: Vector
    pack: NDArray[np.intp]
    propeller: NDArray[np.intp]
    cells: Vector
    rest_v: Vector
    diameter_mm: Vector
    read: Matrix
    noise: Matrix
    where: tuple[tuple[str, int], ...]


@dataclass(frozen=True, slots=True, eq=False)
class DriveEstimate:
    """A drive as runs and listings tell it together: ``mean`` (U,) and ``cov`` (U, U) of the
    unknowns of :class:`Beliefs`, and which pairs of pack and propeller were run."""

    drive: Power
    beliefs: Beliefs
    mean: Vector
    cov: Matrix
    log_evidence: float
    runs: tuple[Run, ...]
    doubts: tuple[PointDoubt, ...] = field(default=())
    others: tuple[OtherPropeller, ...] = field(default=())

    def predict(
        self,
        pack: str,
        propeller: str,
        throttle: float = 1.0,
        rest_v_per_cell: float = HALF_V_PER_CELL,
    ) -> Predicted:
        """What the drive does with a pack and a propeller at a throttle, 0 to 1, the pack rested at
        so many volts a cell.

        Raises BuildFaultError for a pack or a propeller that is not in the drive.
        """
        pack_of(self.drive, pack), propeller_of(self.drive, propeller)
        rows = _asked(self.drive, self.beliefs, pack, propeller, throttle, rest_v_per_cell)
        found, slope, _ = _predicted(self.drive, self.beliefs, rows, self.mean)
        (thrust, amps, volts), by = found[0], slope[0]
        cov = by @ self.cov @ by.T
        cov[0, 0] += (THRUST_MODEL * thrust) ** 2
        cov[1, 1] += (CURRENT_MODEL * amps) ** 2
        power_by = np.array([0.0, volts, amps])
        sd = np.sqrt(np.maximum(np.diag(cov), 0.0))
        return Predicted(
            float(thrust),
            float(sd[0]),
            float(amps),
            float(sd[1]),
            float(volts),
            float(sd[2]),
            float(amps * volts),
            float(max(power_by @ cov @ power_by, 0.0) ** 0.5),
            self._known(pack, propeller),
        )

    def _known(self, pack: str, propeller: str) -> HowKnown:
        taken = [each for each in self.runs if each.points]
        if any((each.pack, each.propeller) == (pack, propeller) for each in taken):
            return HowKnown.RUN
        return HowKnown.CALCULATED if taken else HowKnown.GUESS


def estimate_drive(
    drive: Power,
    believed: Beliefs | None = None,
    throttle_sd: float = THROTTLE_SD,
) -> DriveEstimate:
    """What runs and listings tell of a drive together, by Gauss-Newton to convergence.

    A thrust is read as ``(1 + stand) T``, a current as ``(1 + ammeter) I_b``; a point's throttle is
    known to ``throttle_sd``, which moves all that it read together. A point that the others
    contradict is left out, and told of, one after another.

    Source: docs/methods.md, section 8, reference case P2; JCGM 100:2008. Raises BuildFaultError for
    points that cannot be.
    """
    believed = beliefs(drive) if believed is None else believed
    runs = tuple(run for run in drive.runs if run.set_aside is None)
    rows = _gathered(drive, believed, runs)
    kept = np.isfinite(rows.read)
    doubts: list[PointDoubt] = []
    while True:
        mean, cov, evidence = _settled(drive, believed, rows, kept, throttle_sd)
        worst = _worst(drive, believed, rows, kept, mean, cov, throttle_sd)
        if worst is None or len(doubts) >= MOST_DOUBTS:
            break
        r, c, _ = worst
        out = kept.copy()
        out[r, c] = False
        alone = _settled(drive, believed, rows, out, throttle_sd)
        doubt, whole = _named(drive, believed, rows, r, c, alone[0], alone[1], throttle_sd)
        kept = out
        if whole:
            kept[r] = False
        doubts.append(doubt)
    others = _other_propellers(drive, believed, runs, kept, evidence, throttle_sd)
    return DriveEstimate(drive, believed, mean, cov, evidence, runs, tuple(doubts), others)


def _other_propellers(
    drive: Power,
    believed: Beliefs,
    runs: tuple[Run, ...],
    kept: NDArray[np.bool_],
    evidence: float,
    throttle_sd: float,
) -> tuple[OtherPropeller, ...]:
    """The runs that were rather taken with another propeller, by the evidence for either."""
    told = []
    for k, run in enumerate(runs):
        tried = []
        for other in believed.propellers:
            if other != run.propeller and len(run.points) >= FEWEST:
                swapped = (*runs[:k], replace(run, propeller=other), *runs[k + 1 :])
                rows = _gathered(drive, believed, swapped)
                tried.append((_settled(drive, believed, rows, kept, throttle_sd)[2], other))
        best, other = max(tried, default=(-np.inf, ""))
        if best - evidence > log(BETTER):
            told.append(OtherPropeller(run.id, other, float(np.exp(min(best - evidence, 20)))))
    return tuple(told)


def pack_of(drive: Power, id: str) -> Pack:
    """One of a drive's packs. Raises BuildFaultError where there is none."""
    return _one("pack", id, drive.packs)


def propeller_of(drive: Power, id: str) -> Propeller:
    """One of a drive's propellers. Raises BuildFaultError where there is none."""
    return _one("propeller", id, drive.propellers)


Thing = TypeVar("Thing", Pack, Propeller)


def _one(what: str, id: str, there: tuple[Thing, ...]) -> Thing:
    for each in there:
        if each.id == id:
            return each
    names = ", ".join(each.id for each in there) or "none"
    raise BuildFaultError([Fault(what, f'no {what} "{id}" in this drive; it has {names}')])


def rest_v(per_cell: float, pack: Pack, drawn_mah: float) -> float:
    """The rest voltage of a pack that something was drawn from, for each cell [V]: half of what
    it holds takes 0.35 V, however full it was.

    >>> rest_v(4.2, Pack("p", "Pack", 3, 1300), 650.0)
    3.85
    """
    fall = 2 * (FULL_V_PER_CELL - HALF_V_PER_CELL) * drawn_mah / pack.capacity_mah
    return max(per_cell - fall, EMPTY_V_PER_CELL - 0.5)


def _gathered(drive: Power, believed: Beliefs, runs: tuple[Run, ...]) -> _Rows:
    points = [(run, j, point) for run in runs for j, point in enumerate(run.points)]
    nan = float("nan")
    read = np.array(
        [
            [nan if x is None else x for x in (p.thrust_gf, p.pack_a, p.pack_v)]
            for _, _, p in points
        ],
        dtype=float,
    ).reshape(-1, 3)
    noise = np.stack(
        [
            np.sqrt(1 + (0.01 * read[:, 0]) ** 2),
            np.sqrt(0.1**2 + (0.02 * read[:, 1]) ** 2),
            np.full(len(read), 0.05),
        ],
        axis=1,
    )
    packs = [pack_of(drive, run.pack) for run, _, _ in points]
    return _Rows(
        throttle=np.array([p.throttle for _, _, p in points], dtype=float),
        pack=np.array([believed.pack_at(run.pack) for run, _, _ in points], dtype=np.intp),
        propeller=np.array(
            [believed.propeller_at(run.propeller) for run, _, _ in points], dtype=np.intp
        ),
        cells=np.array([pack.cells for pack in packs], dtype=float),
        rest_v=np.array(
            [
                pack.cells * rest_v(run.rest_v_per_cell, pack, p.drawn_mah)
                for (run, _, p), pack in zip(points, packs, strict=True)
            ],
            dtype=float,
        ),
        diameter_mm=np.array(
            [propeller_of(drive, run.propeller).diameter_mm for run, _, _ in points], dtype=float
        ),
        read=read,
        noise=noise,
        where=tuple((run.id, j) for run, j, _ in points),
    )


def _asked(
    drive: Power, believed: Beliefs, pack: str, propeller: str, throttle: float, per_cell: float
) -> _Rows:
    run = Run("", datetime.min, pack, propeller, (RunPoint(throttle),), per_cell)
    return _gathered(drive, believed, (run,))


def _read(
    drive: Power, rows: _Rows, unknowns: Matrix, throttle: Vector, as_read: bool
) -> NDArray[np.float64]:
    """What every row shows under many unknowns (M, U), shape (M, R, 3): thrust, current, voltage;
    with the errors of stand and ammeter where ``as_read``."""
    column = unknowns[:, :, None]
    found = run_at(
        Constants(
            kv=np.exp(column[:, _KV]),
            winding_ohm=np.exp(column[:, _OHM]),
            idle_a=np.exp(column[:, _IDLE]),
            thrust=np.exp(unknowns[:, rows.propeller]),
            power=np.exp(unknowns[:, rows.propeller + 1]),
            pack_ohm=np.exp(unknowns[:, rows.pack]),
            controller_ohm=np.exp(column[:, _CONTROLLER]),
            rest_v=rows.rest_v + rows.cells * unknowns[:, rows.pack + 1],
            duty_exponent=np.exp(column[:, _DUTY]),
        ),
        throttle,
        rows.diameter_mm,
        np.array(drive.motors),
    )
    _, thrust, pack_a, _, pack_v = found
    if as_read:
        thrust = (1 + column[:, _STAND]) * thrust
        pack_a = (1 + column[:, _AMMETER]) * pack_a
    return np.stack([thrust, pack_a, pack_v], axis=2)


STEP: Final = 1e-5
"""Slopes are taken over so much on either side."""


def _predicted(
    drive: Power, believed: Beliefs, rows: _Rows, mean: Vector, as_read: bool = False
) -> tuple[Matrix, NDArray[np.float64], Matrix]:
    """What every row shows at the unknowns (R, 3), its slope by each of them (R, 3, U), and by the
    throttle (R, 3)."""
    count = len(mean)
    steps = STEP * np.eye(count)
    many = np.vstack([mean, mean + steps, mean - steps, mean, mean])
    throttle = np.broadcast_to(rows.throttle, (len(many), len(rows.throttle))).copy()
    throttle[-2] += STEP
    throttle[-1] = np.maximum(throttle[-1] - STEP, 0.0)
    shown = _read(drive, rows, many, throttle, as_read)
    slope = (shown[1 : count + 1] - shown[count + 1 : -2]) / (2 * STEP)
    by_throttle = (shown[-2] - shown[-1]) / (throttle[-2] - throttle[-1])[:, None]
    return shown[0], np.moveaxis(slope, 0, 2), by_throttle


def _spread(
    rows: _Rows, by_throttle: Matrix, throttle_sd: float, kept: NDArray[np.bool_]
) -> NDArray[np.float64]:
    """The covariance of what each row reads about the model, shape (R, 3, 3): the noise of each
    reading, and a throttle that is known so well; what is not kept stands by itself."""
    noise = np.where(kept, np.nan_to_num(rows.noise, nan=1.0), 1.0)
    off = by_throttle * throttle_sd * kept
    spread: NDArray[np.float64] = noise[:, :, None] ** 2 * np.eye(3)
    return spread + off[:, :, None] * off[:, None, :]


def _settled(
    drive: Power,
    believed: Beliefs,
    rows: _Rows,
    kept: NDArray[np.bool_],
    throttle_sd: float,
) -> tuple[Vector, Matrix, float]:
    """The most probable unknowns, their covariance, and the logarithm of how likely the readings
    are, by Laplace's method. What a throttle's doubt adds is taken where it stands; steps are
    halved until they help."""
    free = np.diag(believed.cov) > 0
    prior = np.linalg.inv(believed.cov[np.ix_(free, free)])
    read = np.where(kept, rows.read, 0.0)

    def cost(mean: Vector, shown: Matrix, weight: Any) -> float:
        gap, off = np.where(kept, read - shown, 0.0), (mean - believed.mean)[free]
        return float(np.einsum("ri,rij,rj->", gap, weight, gap) + off @ prior @ off)

    mean = believed.mean.copy()
    for _ in range(ROUNDS):
        shown, slope, by_throttle = _predicted(drive, believed, rows, mean, as_read=True)
        spread = _spread(rows, by_throttle, throttle_sd, kept)
        weight = np.linalg.inv(spread)
        slope = np.where(kept[:, :, None], slope, 0.0)[:, :, free]
        pulled = np.einsum("rij,rj->ri", weight, np.where(kept, read - shown, 0.0))
        weighted = np.einsum("rij,rju->riu", weight, slope).reshape(-1, int(free.sum()))
        tells = prior + slope.reshape(-1, int(free.sum())).T @ weighted
        pull = np.einsum("riu,ri->u", slope, pulled) - prior @ (mean - believed.mean)[free]
        step = np.zeros(len(mean))
        step[free] = np.clip(np.linalg.solve(tells, pull), -1.0, 1.0)
        least = cost(mean, shown, weight)
        if np.abs(step).max(initial=0.0) < SETTLED:
            break
        while np.abs(step).max(initial=0.0) > SETTLED:
            tried = _read(drive, rows, (mean + step)[None], rows.throttle, True)[0]
            if cost(mean + step, tried, weight) <= least * (1 + 1e-9) + 1e-12:
                break
            step = step / 2
        mean = mean + step
    cov = np.zeros_like(believed.cov)
    cov[np.ix_(free, free)] = np.linalg.inv(tells)
    evidence = -0.5 * (least + int(kept.sum()) * log(2 * np.pi))
    evidence -= 0.5 * float(np.linalg.slogdet(spread)[1].sum())
    evidence -= 0.5 * float(np.linalg.slogdet(tells)[1] - np.linalg.slogdet(prior)[1])
    return mean, cov, evidence


def _worst(
    drive: Power,
    believed: Beliefs,
    rows: _Rows,
    kept: NDArray[np.bool_],
    mean: Vector,
    cov: Matrix,
    throttle_sd: float,
) -> tuple[int, int, float] | None:
    """The reading farthest from what all others predict, its row, column and distance in sigma;
    None where none is doubtful."""
    if kept.sum() < 2:
        return None
    shown, slope, by_throttle = _predicted(drive, believed, rows, mean, as_read=True)
    weight = np.linalg.inv(_spread(rows, by_throttle, throttle_sd, kept))
    gap = np.where(kept, rows.read - shown, 0.0)
    slope = np.where(kept[:, :, None], slope, 0.0)
    # A point's readings share its throttle: each is left out of all others, those of its own point
    # among them.
    sharp = weight - weight @ (slope @ cov @ np.swapaxes(slope, 1, 2)) @ weight
    pull = np.einsum("rij,rj->ri", weight, gap)
    t = np.where(kept, pull / np.sqrt(np.maximum(np.einsum("rii->ri", sharp), 1e-300)), 0.0)
    r, c = np.unravel_index(int(np.abs(t).argmax()), t.shape)
    if abs(t[r, c]) <= DOUBTFUL:
        return None
    return int(r), int(c), float(t[r, c])


def _named(
    drive: Power,
    believed: Beliefs,
    rows: _Rows,
    r: int,
    c: int,
    mean: Vector,
    cov: Matrix,
    throttle_sd: float,
) -> tuple[PointDoubt, bool]:
    """What would explain a reading, by the estimate without it, and whether its whole point is to
    be left out."""
    shown, slope, by_throttle = _predicted(drive, believed, rows, mean, as_read=True)
    every = np.ones_like(rows.read, dtype=bool)
    spread = _spread(rows, by_throttle, throttle_sd, every)[r] + slope[r] @ cov @ slope[r].T
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
    at_throttle = _read(drive, _row(rows, r), mean[None], tried[:, None], True)
    gaps = ((rows.read[r] - at_throttle.reshape(len(tried), 3)) / np.sqrt(np.diag(spread)))[
        :, there
    ]
    far = np.abs(gaps).max(axis=1)
    best = int(far.argmin())
    if there.sum() > 1 and far[best] < EXPLAINS:
        return doubt(PointSlip.OTHER_THROTTLE, float(tried[best])), True
    return doubt(PointSlip.UNNAMED, None), False


def _row(rows: _Rows, r: int) -> _Rows:
    one = slice(r, r + 1)
    return _Rows(
        rows.throttle[one],
        rows.pack[one],
        rows.propeller[one],
        rows.cells[one],
        rows.rest_v[one],
        rows.diameter_mm[one],
        rows.read[one],
        rows.noise[one],
        rows.where[one],
    )
