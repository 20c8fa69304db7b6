"""Ladders: what full throttle draws beside what each part stands, and how warm it gets."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from oaken_scale.core.flight.verdict import chance_below
from oaken_scale.core.model.power import Pack, Power, Run
from oaken_scale.core.power.drive_estimate import Predicted

CAUTION: Final = 0.8
"""From this share of what a part stands on, there is little in hand."""

AIR_C: Final = 20.0
"""Air is so warm where nobody said [Celsius]."""

HEAT_SD: Final = 0.25
"""One sigma of how much warmer a part gets, as a fraction, where it was not felt just so."""


class Rated(StrEnum):
    """What a current runs through."""

    MOTOR = "motor"
    CONTROLLER = "controller"
    BURST = "burst"
    PACK = "pack"
    PLUG = "plug"
    WIRE = "wire"
    REGULATOR = "regulator"


BEARS_C: Final = {Rated.MOTOR: 80.0, Rated.CONTROLLER: 80.0, Rated.PACK: 55.0}
"""Warmer than this [Celsius] is too warm to go on with, where the maker says nothing else."""


class Rung(StrEnum):
    """Where something stands on its ladder."""

    IN_HAND = "in hand"
    CAUTION = "little in hand"
    OVER = "over"


@dataclass(frozen=True, slots=True)
class Margin:
    """A current at full throttle beside what a part stands [A], the ``share`` of it, the rung that
    it stands on, and the chance that the part stands it; ``seconds`` that a burst may last."""

    part: Rated
    current_a: float
    current_sd_a: float
    most_a: float
    share: float
    rung: Rung
    holds: float
    seconds: float | None = None


@dataclass(frozen=True, slots=True)
class CellMargin:
    """A pack's cells beside those that a part is made for; None where nobody said."""

    part: Rated
    cells: int
    least: int | None
    most: int | None
    rung: Rung


@dataclass(frozen=True, slots=True)
class Heat:
    """How warm a part gets at full throttle [Celsius], one sigma, by what was felt after a run of
    so many amperes; the rung by what such parts bear."""

    part: Rated
    celsius: float
    sd_c: float
    bears_c: float
    rung: Rung
    run: str
    felt_c: float
    felt_a: float


def rung(share: float) -> Rung:
    """The rung of a share of what a part stands: over 0.8 caution, over 1 warning.

    Source: docs/methods.md, section 10.

    >>> rung(0.79), rung(0.81), rung(1.01)
    (<Rung.IN_HAND: 'in hand'>, <Rung.CAUTION: 'little in hand'>, <Rung.OVER: 'over'>)
    """
    return Rung.OVER if share > 1 else Rung.CAUTION if share > CAUTION else Rung.IN_HAND


def margins(power: Power, pack: Pack, fresh: Predicted) -> tuple[Margin, ...]:
    """Full throttle on a fresh pack beside what each part stands; the regulator's own load beside
    what that stands. A motor and its controller carry their own share of the pack's current.

    Source: docs/methods.md, section 10.

    >>> from oaken_scale.core.model.power import Motor, Propeller
    >>> from oaken_scale.core.power.drive_estimate import estimate_drive
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, 30.0),), plug_a=30.0)
    >>> fresh = estimate_drive(drive).predict("s3", "p8", 1.0, 4.2)
    >>> told = margins(drive, drive.packs[0], fresh)
    >>> [(each.part.value, each.most_a, each.rung.value) for each in told]
    [('pack', 39.0, 'in hand'), ('plug', 30.0, 'in hand')]
    """
    return tuple(_margins(power, pack, fresh))


def _margins(power: Power, pack: Pack, fresh: Predicted) -> Iterator[Margin]:
    each_a, each_sd = fresh.pack_a / power.motors, fresh.pack_sd_a / power.motors
    motor, controller, regulator = power.motor, power.controller, power.regulator
    if motor.most_a is not None:
        yield _margin(Rated.MOTOR, each_a, each_sd, motor.most_a)
    if controller is not None:
        yield _margin(Rated.CONTROLLER, each_a, each_sd, controller.most_a)
        if controller.burst_a is not None:
            burst = (controller.burst_a, controller.burst_s)
            yield _margin(Rated.BURST, each_a, each_sd, *burst)
    if pack.c_rating is not None:
        most = pack.c_rating * pack.capacity_mah / 1000
        yield _margin(Rated.PACK, fresh.pack_a, fresh.pack_sd_a, most)
    if power.plug_a is not None:
        yield _margin(Rated.PLUG, fresh.pack_a, fresh.pack_sd_a, power.plug_a)
    if power.wire_a is not None:
        yield _margin(Rated.WIRE, fresh.pack_a, fresh.pack_sd_a, power.wire_a)
    if regulator is not None and regulator.drawn_a is not None:
        yield _margin(Rated.REGULATOR, regulator.drawn_a, 0.0, regulator.most_a)


def _margin(
    part: Rated, current: float, sd: float, most: float, seconds: float | None = None
) -> Margin:
    share = current / most
    holds = chance_below(most, current, sd)
    return Margin(part, current, sd, most, share, rung(share), holds, seconds)


def cell_margins(power: Power, pack: Pack) -> tuple[CellMargin, ...]:
    """A pack's cells beside those that controller and regulator are made for.

    >>> from oaken_scale.core.model.power import Controller, Motor
    >>> drive = Power(Motor(2000, 30), controller=Controller(20, least_cells=2, most_cells=3))
    >>> [each.rung.value for each in cell_margins(drive, Pack("p", "P", 4, 850))]
    ['over']
    """
    controller, regulator = power.controller, power.regulator
    told = []
    if controller is not None and (controller.least_cells or controller.most_cells):
        least, most = controller.least_cells, controller.most_cells
        told.append(_cells(Rated.CONTROLLER, pack.cells, least, most))
    if regulator is not None and regulator.most_cells is not None:
        told.append(_cells(Rated.REGULATOR, pack.cells, None, regulator.most_cells))
    return tuple(told)


def _cells(part: Rated, cells: int, least: int | None, most: int | None) -> CellMargin:
    fits = (least or 0) <= cells <= (cells if most is None else most)
    return CellMargin(part, cells, least, most, Rung.IN_HAND if fits else Rung.OVER)


def heats(
    power: Power, pack: Pack, fresh: Predicted, currents: dict[str, float]
) -> tuple[Heat, ...]:
    """How warm motor, controller and pack get at full throttle on a fresh pack, by the last run
    after which each was felt; ``currents`` are the runs' largest [A].

    What is lost in windings and cells goes with the square of the current, and so does how much
    warmer than the air they get: ``c = air + (felt - air) (I/I_run)^2``. A pack's own figure holds
    for that pack alone.

    >>> from datetime import datetime
    >>> from oaken_scale.core.model.power import Motor, Propeller, Run
    >>> from oaken_scale.core.power.drive_estimate import estimate_drive
    >>> run = Run("r", datetime(2026, 3, 7), "s3", "p8", motor_c=60.0, air_c=20.0)
    >>> pack = Pack("s3", "3 cells", 3, 1300)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), packs=(pack,), runs=(run,),
    ...     propellers=(Propeller("p8", "8 by 4", 203, 102),))
    >>> fresh = estimate_drive(drive).predict("s3", "p8", 1.0, 4.2)
    >>> (motor,) = heats(drive, pack, fresh, {"r": fresh.pack_a})
    >>> round(motor.celsius)  # as warm as it was at that current
    60
    """
    told = []
    for part, felt in _felt(power, pack).items():
        run, celsius = felt
        drawn = currents.get(run.id, 0.0)
        if drawn <= 0:
            continue
        air = AIR_C if run.air_c is None else run.air_c
        more = (celsius - air) * (fresh.pack_a / drawn) ** 2
        near = HEAT_SD * abs(1 - min(drawn / max(fresh.pack_a, 1e-9), 1.0))
        spread = abs(more) * ((2 * fresh.pack_sd_a / max(fresh.pack_a, 1e-9)) ** 2 + near**2) ** 0.5
        bears = BEARS_C[part]
        share = (air + more) / bears
        told.append(
            Heat(part, air + more, spread + 1.0, bears, rung(share), run.id, celsius, drawn)
        )
    return tuple(told)


def _felt(power: Power, pack: Pack) -> dict[Rated, tuple[Run, float]]:
    """The last run after which each part was felt, and how warm it was then [Celsius]."""
    last: dict[Rated, tuple[Run, float]] = {}
    for run in power.runs:
        if run.set_aside is not None:
            continue
        if run.motor_c is not None:
            last[Rated.MOTOR] = (run, run.motor_c)
        if run.controller_c is not None:
            last[Rated.CONTROLLER] = (run, run.controller_c)
        if run.pack_c is not None and run.pack == pack.id:
            last[Rated.PACK] = (run, run.pack_c)
    return last
