"""A plane's drive as its builder lists it, and the runs that were taken of it."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import Final

FULL_V_PER_CELL: Final = 4.2
"""The rest voltage of a fresh cell [V]."""


@dataclass(frozen=True, slots=True)
class Motor:
    """A motor as listed: ``kv`` [rpm/V], its mass [g]; resistance of its windings [ohm], no-load
    current [A] and the current that it stands [A] where the listing tells them."""

    kv: float
    mass_g: float
    winding_ohm: float | None = None
    idle_a: float | None = None
    most_a: float | None = None


@dataclass(frozen=True, slots=True)
class Controller:
    """What a motor's controller stands: continuous current [A], a burst for its seconds, and the
    cells that it is made for, from ``least_cells`` to ``most_cells``."""

    most_a: float
    burst_a: float | None = None
    burst_s: float | None = None
    least_cells: int | None = None
    most_cells: int | None = None


@dataclass(frozen=True, slots=True)
class Regulator:
    """What feeds receiver and servos: the current that it stands [A], what they draw of it at most,
    and the most cells that it may hang on."""

    most_a: float
    drawn_a: float | None = None
    most_cells: int | None = None


@dataclass(frozen=True, slots=True)
class Stand:
    """A thrust stand on a cable: its serial port, how fast it speaks [baud], and what its lines
    look like."""

    port: str
    baud: int = 9600
    line: str = ""


@dataclass(frozen=True, slots=True)
class Propeller:
    """A propeller by its diameter and pitch [mm]."""

    id: str
    name: str
    diameter_mm: float
    pitch_mm: float


@dataclass(frozen=True, slots=True)
class Pack:
    """A pack by its cells in series, what they hold [mAh], and how many times that it may give in
    an hour; ``item`` is the part of the build that it is, None where it is none."""

    id: str
    name: str
    cells: int
    capacity_mah: float
    c_rating: float | None = None
    item: str | None = None


@dataclass(frozen=True, slots=True)
class RunPoint:
    """One throttle step of a run, 0 to 1: thrust [gf] of all motors, current [A] and voltage [V] at
    the pack as read, any of them not, and what the run had drawn until then [mAh]."""

    throttle: float
    thrust_gf: float | None = None
    pack_a: float | None = None
    pack_v: float | None = None
    drawn_mah: float = 0.0


@dataclass(frozen=True, slots=True)
class Run:
    """Points taken with one pack and one propeller, by their ids, the pack rested at so many volts
    a cell. A run that is set aside says nothing; none is ever deleted.

    The thrust was read over a ``lever``: so many times the reading is the thrust, that in doubt by
    ``lever_doubt`` as a fraction. Motor, controller and pack were so warm after it [Celsius], in
    air of ``air_c``.
    """

    id: str
    at: datetime
    pack: str
    propeller: str
    points: tuple[RunPoint, ...]
    rest_v_per_cell: float = FULL_V_PER_CELL
    note: str = ""
    set_aside: str | None = None
    lever: float = 1.0
    lever_doubt: float = 0.0
    air_c: float | None = None
    motor_c: float | None = None
    controller_c: float | None = None
    pack_c: float | None = None


class Landing(StrEnum):
    """How a flight ended."""

    SOFT = "soft"
    HARD = "hard"
    CRASH = "crash"


@dataclass(frozen=True, slots=True)
class Flight:
    """A flight with one pack: how many minutes, what the charger put back [mAh], what the plane
    weighed [g], how it landed, as far as somebody knows. One that is set aside says nothing."""

    id: str
    at: datetime
    pack: str
    minutes: float
    put_back_mah: float | None = None
    mass_g: float | None = None
    note: str = ""
    set_aside: str | None = None
    landing: Landing | None = None


@dataclass(frozen=True, slots=True)
class Power:
    """One motor, or several alike ones on one pack; the first propeller is the fitted one.

    What plug and wire of the pack stand [A]; the throttle that held level, 0 to 1; the share of a
    flight that is flown at full throttle.
    """

    motor: Motor
    motors: int = 1
    controller: Controller | None = None
    propellers: tuple[Propeller, ...] = ()
    packs: tuple[Pack, ...] = ()
    runs: tuple[Run, ...] = ()
    regulator: Regulator | None = None
    plug_a: float | None = None
    wire_a: float | None = None
    level_throttle: float | None = None
    full_share: float = 0.2
    stand: Stand | None = None
    flights: tuple[Flight, ...] = ()
