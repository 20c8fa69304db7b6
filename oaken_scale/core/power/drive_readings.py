"""A drive's runs as equations: the unknowns, what is believed of them, and what each point shows.

A run's points are observations of constants that all runs share.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from math import log
from typing import Final, TypeVar

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import block_diag

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller, Run, RunPoint
from oaken_scale.core.power.drive_train import (
    EMPTY_V_PER_CELL,
    HALF_V_PER_CELL,
    Constants,
    DriveTrain,
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
"""One sigma of the logarithm of the throttle's exponent, and of what a stand and an ammeter are off
by, as a share (docs/methods.md, section 10)."""


@dataclass(frozen=True, slots=True, eq=False)
class Beliefs:
    """The unknowns of a drive: their ``mean`` (U,) and ``cov`` (U, U), and where each stands.

    In order: logarithms of Kv, winding resistance, no-load current, controller resistance and the
    exponent of the duty; the errors of stand and ammeter, as fractions; of each pack the logarithm
    of its resistance and how far its rest voltage is off [V per cell]; of each propeller the
    logarithms of its coefficients of thrust and power; of each run over a lever whose arms are in
    doubt how far they are off, as a fraction.

    >>> told = Beliefs(np.zeros(14), np.eye(14), ("s2", "s3"), ("p8",), ("run",))
    >>> told.pack_at("s3"), told.propeller_at("p8"), told.lever_at("run"), told.lever_at("other")
    (9, 11, 13, -1)
    """

    mean: Vector
    cov: Matrix
    packs: tuple[str, ...]
    propellers: tuple[str, ...]
    levers: tuple[str, ...] = ()

    def pack_at(self, name: str) -> int:
        """Where a pack's resistance stands; its rest voltage follows."""
        return _SHARED + 2 * self.packs.index(name)

    def propeller_at(self, name: str) -> int:
        """Where a propeller's coefficient of thrust stands; that of power follows."""
        return _SHARED + 2 * len(self.packs) + 2 * self.propellers.index(name)

    def lever_at(self, run: str) -> int:
        """Where the error of a run's lever stands; -1 where it has none."""
        if run not in self.levers:
            return -1
        own = 2 * len(self.packs) + 2 * len(self.propellers)
        return _SHARED + own + self.levers.index(run)


_KV, _OHM, _IDLE, _CONTROLLER, _DUTY, _STAND, _AMMETER, _SHARED = range(8)


def beliefs(drive: Power) -> Beliefs:
    """What is believed of a drive before any run.

    Raises BuildFaultError for figures that no drive has, a propeller of no pitch among them.

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = beliefs(drive)
    >>> told.mean.shape, told.packs, told.propellers
    ((11,), ('s3',), ('p8',))
    >>> round(float(np.exp(told.mean[0])))
    1400
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
    levers = [run for run in drive.runs if run.lever_doubt > 0]
    means += [0.0] * len(levers)
    blocks += [np.array([[run.lever_doubt**2]]) for run in levers]
    cov = np.asarray(block_diag(*blocks), dtype=float)
    return Beliefs(
        np.array(means),
        cov,
        tuple(each.id for each in drive.packs),
        tuple(each.id for each in drive.propellers),
        tuple(run.id for run in levers),
    )


@dataclass(frozen=True, slots=True)
class Stated:
    """A static thrust that was stated, one sigma [gf]: of the first pack, half used, with the
    fitted propeller at full throttle."""

    thrust_gf: float
    doubt_gf: float


AS_STATED: Final = "stated"
"""Where a stated thrust stands among the runs."""


@dataclass(frozen=True, slots=True, eq=False)
class Rows:
    """What was read, a row a point: throttle, pack, propeller and rest voltage of each, where its
    lever's error stands (-1: it has none), and the readings (R, 3) with their noise, not-a-number
    where nothing was read. A thrust over a lever is that of the motors."""

    throttle: Vector
    pack: NDArray[np.intp]
    propeller: NDArray[np.intp]
    cells: Vector
    rest_v: Vector
    diameter_mm: Vector
    lever: NDArray[np.intp]
    read: Matrix
    noise: Matrix
    where: tuple[tuple[str, int], ...]


def pack_of(drive: Power, id: str) -> Pack:
    """One of a drive's packs. Raises BuildFaultError where there is none.

    >>> from oaken_scale.core.model.power import Motor
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> pack_of(drive, "s3").cells
    3
    """
    return _one("pack", id, drive.packs)


def propeller_of(drive: Power, id: str) -> Propeller:
    """One of a drive's propellers. Raises BuildFaultError where there is none.

    >>> from oaken_scale.core.model.power import Motor
    >>> drive = Power(Motor(1400, 60), propellers=(Propeller("p8", "8 by 4", 203, 102),))
    >>> propeller_of(drive, "p8").pitch_mm
    102
    """
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


def _read(points: Sequence[RunPoint]) -> tuple[Matrix, Matrix]:
    """What each point read of thrust [gf], amps and volts, nan for what nobody read, and one sigma
    of it; both shape (N, 3)."""
    read = np.array(
        [[np.nan if x is None else x for x in (p.thrust_gf, p.pack_a, p.pack_v)] for p in points],
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
    return read, noise


def gathered(
    drive: Power, believed: Beliefs, runs: tuple[Run, ...], stated: Stated | None = None
) -> Rows:
    """All points of some runs, a row each, with the noise of what they read; what was ``stated`` is
    the last of them.

    Source: docs/methods.md, section 10.

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", (RunPoint(1.0, 640.0, 14.2, 11.4),))
    >>> rows = gathered(drive, beliefs(drive), (run,))
    >>> rows.read.tolist(), [[round(float(sd), 2) for sd in row] for row in rows.noise]
    ([[640.0, 14.2, 11.4]], [[6.48, 0.3, 0.05]])
    >>> rows.where
    (('r', 0),)
    """
    tells = stated is not None and bool(drive.packs and drive.propellers)
    if stated is not None and tells:
        full = (RunPoint(1.0, stated.thrust_gf),)
        pack, propeller = drive.packs[0].id, drive.propellers[0].id
        runs = (*runs, Run(AS_STATED, datetime.min, pack, propeller, full, HALF_V_PER_CELL))
    points = [(run, j, point) for run in runs for j, point in enumerate(run.points)]
    read, noise = _read([point for _, _, point in points])
    lever = np.array([run.lever for run, _, _ in points], dtype=float)
    read[:, 0] *= lever
    noise[:, 0] *= lever
    if stated is not None and tells:
        noise[-1, 0] = stated.doubt_gf
    packs = [pack_of(drive, run.pack) for run, _, _ in points]
    return Rows(
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
        lever=np.array([believed.lever_at(run.id) for run, _, _ in points], dtype=np.intp),
        read=read,
        noise=noise,
        where=tuple((run.id, j) for run, j, _ in points),
    )


def asked(drive: Power, believed: Beliefs, asks: Sequence[tuple[str, str, float, float]]) -> Rows:
    """Rows that nothing was read of: of each a pack, a propeller, a throttle, and what the pack
    rested at [V per cell].

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> rows = asked(drive, beliefs(drive), [("s3", "p8", 0.5, 4.2)])
    >>> rows.throttle.tolist(), [round(float(volts), 2) for volts in rows.rest_v]
    ([0.5], [12.6])
    """
    runs = tuple(
        Run("", datetime.min, pack, propeller, (RunPoint(throttle),), per_cell)
        for pack, propeller, throttle, per_cell in asks
    )
    return gathered(drive, believed, runs)


def shown_by(
    drive: Power, rows: Rows, unknowns: Matrix, throttle: Vector, as_read: bool
) -> NDArray[np.float64]:
    """What every row shows under many unknowns (M, U), shape (M, R, 3): thrust, current, voltage;
    with the errors of stand and ammeter where ``as_read``.

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = beliefs(drive)
    >>> rows = asked(drive, told, [("s3", "p8", 1.0, 4.2)])
    >>> shown = shown_by(drive, rows, told.mean[None], rows.throttle, as_read=False)
    >>> shown.shape, [round(float(value), 1) for value in shown[0, 0]]
    ((1, 1, 3), [1129.6, 23.1, 11.9])
    """
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
        off = column[:, _STAND] + np.where(rows.lever < 0, 0.0, unknowns[:, rows.lever])
        thrust = (1 + off) * thrust
        pack_a = (1 + column[:, _AMMETER]) * pack_a
    return np.stack([thrust, pack_a, pack_v], axis=2)


def train_of(
    drive: Power,
    believed: Beliefs,
    unknowns: Vector,
    pack: str,
    propeller: str,
    rest_v_per_cell: float,
) -> DriveTrain:
    """The drive train that the unknowns (U,) stand for, with a pack and a propeller.

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = beliefs(drive)
    >>> train = train_of(drive, told, told.mean, "s3", "p8", 4.2)
    >>> round(train.kv), round(train.rest_v, 1), train.diameter_mm
    (1400, 12.6, 203)
    """
    found, prop = np.exp(unknowns), propeller_of(drive, propeller)
    at, blades = believed.pack_at(pack), believed.propeller_at(propeller)
    cells = pack_of(drive, pack).cells
    return DriveTrain(
        kv=float(found[_KV]),
        winding_ohm=float(found[_OHM]),
        idle_a=float(found[_IDLE]),
        thrust_coefficient=float(found[blades]),
        power_coefficient=float(found[blades + 1]),
        diameter_mm=prop.diameter_mm,
        pack_ohm=float(found[at]),
        controller_ohm=float(found[_CONTROLLER]),
        rest_v=cells * (rest_v_per_cell + float(unknowns[at + 1])),
        motors=drive.motors,
        duty_exponent=float(found[_DUTY]),
    )


STEP: Final = 1e-6
"""Slopes are taken over so much."""


def predicted(
    drive: Power, believed: Beliefs, rows: Rows, mean: Vector, as_read: bool = False
) -> tuple[Matrix, NDArray[np.float64], Matrix]:
    """What every row shows at the unknowns (R, 3), its slope by each of them (R, 3, U), and by the
    throttle (R, 3).

    >>> from oaken_scale.core.model.power import Motor
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = beliefs(drive)
    >>> rows = asked(drive, told, [("s3", "p8", 1.0, 4.2)])
    >>> shown, slope, by_throttle = predicted(drive, told, rows, told.mean)
    >>> shown.shape, slope.shape, by_throttle.shape
    ((1, 3), (1, 3, 11), (1, 3))
    >>> bool(slope[0, 0, 0] > 0)  # more thrust with a higher Kv
    True
    """
    # Each row hangs on what all share, its own pack and its own propeller: those of all packs are
    # moved together, and each row's answer is its own pack's.
    packs, blades = 2 * len(believed.packs), 2 * len(believed.propellers)
    steps = np.zeros((_SHARED + 5, len(mean)))
    steps[:_SHARED, :_SHARED] = np.eye(_SHARED)
    for k in range(2):
        steps[_SHARED + k, _SHARED + k : _SHARED + packs : 2] = 1.0
        steps[_SHARED + 2 + k, _SHARED + packs + k : _SHARED + packs + blades : 2] = 1.0
    steps[_SHARED + 4, _SHARED + packs + blades :] = 1.0
    steps *= STEP
    count = len(steps)
    many = np.vstack([mean, mean + steps, mean])
    throttle = np.broadcast_to(rows.throttle, (len(many), len(rows.throttle))).copy()
    throttle[-1] += STEP
    shown = shown_by(drive, rows, many, throttle, as_read)
    by_step = np.moveaxis((shown[1 : count + 1] - shown[0]) / STEP, 0, 2)
    slope = np.zeros((len(rows.throttle), 3, len(mean)))
    slope[:, :, :_SHARED] = by_step[:, :, :_SHARED]
    row = np.arange(len(rows.throttle))
    for k, own in enumerate((rows.pack, rows.pack + 1, rows.propeller, rows.propeller + 1)):
        slope[row, :, own] = by_step[:, :, _SHARED + k]
    over = rows.lever >= 0
    slope[row[over], :, rows.lever[over]] = by_step[over, :, _SHARED + 4]
    return shown[0], slope, (shown[-1] - shown[0]) / STEP
