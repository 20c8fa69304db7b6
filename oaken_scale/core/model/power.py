"""A plane's drive as its builder lists it, and the runs that were taken of it."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Amperes,
    Baud,
    Capacity,
    Cells,
    Celsius,
    Current,
    Diameter,
    Id,
    Kv,
    Length,
    Line,
    Moment,
    Name,
    Pitch,
    Port,
    Range,
    Rating,
    Reading,
    Share,
    ThrustRead,
    TimeAsTold,
    Words,
)

FULL_V_PER_CELL: Final = 4.2
"""The rest voltage of a fresh cell [V]."""


@dataclass(frozen=True, slots=True)
class Motor:
    """A motor as listed: ``kv`` [rpm/V], its mass [g]; resistance of its windings [ohm], no-load
    current [A] and the current that it stands [A]: what the listing does not tell is None."""

    kv: Kv | None
    mass_g: Annotated[float, Range(ge=0.5, le=2_000)]
    winding_ohm: Annotated[float, Range(gt=0, le=20)] | None = None
    idle_a: Annotated[float, Range(gt=0, le=50)] | None = None
    most_a: Amperes | None = None


@dataclass(frozen=True, slots=True)
class Controller:
    """What a motor's controller stands: continuous current [A], a burst for its seconds, and the
    cells that it is made for, from ``least_cells`` to ``most_cells``."""

    most_a: Amperes
    burst_a: Amperes | None = None
    burst_s: Annotated[float, Range(gt=0, le=600)] | None = None
    least_cells: Cells | None = None
    most_cells: Cells | None = None


@dataclass(frozen=True, slots=True)
class Regulator:
    """What feeds receiver and servos: the current that it stands [A], what they draw of it at most,
    and the most cells that it may hang on."""

    most_a: Amperes
    drawn_a: Current | None = None
    most_cells: Cells | None = None


@dataclass(frozen=True, slots=True)
class Stand:
    """A thrust stand on a cable: its serial port, how fast it speaks [baud], and what its lines
    look like."""

    port: Annotated[Port, Length(80, least=1)]
    baud: Baud = 9600
    line: Line = ""


@dataclass(frozen=True, slots=True)
class Propeller:
    """A propeller by its diameter and pitch [mm]."""

    id: Id
    name: Name
    diameter_mm: Diameter
    pitch_mm: Pitch


@dataclass(frozen=True, slots=True)
class Pack:
    """A pack by its cells in series, what they hold [mAh], and how many times that it may give in
    an hour; ``part`` is the part of the build that it is, None where it is none."""

    id: Id
    name: Name
    cells: Cells
    capacity_mah: Capacity
    c_rating: Rating | None = None
    part: Id | None = None


@dataclass(frozen=True, slots=True)
class RunPoint:
    """One throttle step of a run, 0 to 1: thrust [gf] of all motors, current [A] and voltage [V] at
    the pack as read, any of them not, and what the run had drawn until then [mAh]."""

    throttle: Share
    thrust_gf: ThrustRead | None = None
    pack_a: Current | None = None
    pack_v: Annotated[float, Range(ge=0, le=100)] | None = None
    drawn_mah: Annotated[float, Range(ge=0, le=50_000)] = 0.0


@dataclass(frozen=True, slots=True)
class Run:
    """Points taken with one pack and one propeller, by their ids, the pack rested at so many volts
    a cell. A run that is set aside says nothing; none is ever deleted.

    The thrust was read over a ``lever``: so many times the reading is the thrust, that in doubt by
    ``lever_doubt`` as a fraction. Motor, controller and pack were so warm after it [Celsius], in
    air of ``air_c``.
    """

    id: Id
    at: Moment
    pack: Id
    propeller: Id
    points: Annotated[tuple[RunPoint, ...], Length(limits.POINTS)] = ()
    rest_v_per_cell: Annotated[float, Range(ge=2.5, le=4.4)] = FULL_V_PER_CELL
    note: Words = ""
    set_aside: Words | None = None
    lever: Annotated[float, Range(ge=0.05, le=20)] = 1.0
    lever_doubt: Annotated[float, Range(ge=0, le=0.5)] = 0.0
    air_c: Celsius | None = None
    motor_c: Celsius | None = None
    controller_c: Celsius | None = None
    pack_c: Celsius | None = None


class Landing(StrEnum):
    """How a flight ended."""

    SOFT = "soft"
    HARD = "hard"
    CRASH = "crash"


@dataclass(frozen=True, slots=True)
class Flight:
    """A flight with one pack: how many minutes, what the charger put back [mAh], what the plane
    weighed [g], how it landed, as far as somebody knows. One that is set aside says nothing."""

    id: Id
    at: TimeAsTold
    pack: Id
    minutes: Annotated[float, Range(ge=0.1, le=300)]
    put_back_mah: Annotated[float, Range(gt=0, le=50_000)] | None = None
    mass_g: Reading | None = None
    note: Words = ""
    set_aside: Words | None = None
    landing: Landing | None = None


@dataclass(frozen=True, slots=True)
class Power:
    """One motor, or several alike ones on one pack; the first propeller is the fitted one.

    What plug and wire of the pack stand [A]; the throttle that held level, 0 to 1; the share of a
    flight that is flown at full throttle.
    """

    motor: Motor
    motors: Annotated[int, Range(ge=1, le=8)] = 1
    controller: Controller | None = None
    propellers: Annotated[tuple[Propeller, ...], Length(12)] = ()
    packs: Annotated[tuple[Pack, ...], Length(12)] = ()
    runs: Annotated[tuple[Run, ...], Length(limits.RUNS)] = ()
    regulator: Regulator | None = None
    plug_a: Amperes | None = None
    wire_a: Amperes | None = None
    level_throttle: Annotated[float, Range(gt=0, le=1)] | None = None
    full_share: Share = 0.2
    stand: Stand | None = None
    flights: Annotated[tuple[Flight, ...], Length(limits.FLIGHTS)] = ()
