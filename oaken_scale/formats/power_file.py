"""A build's drive as its file and its requests have it."""

from typing import Annotated

from pydantic import Field

from oaken_scale.core.model import limits
from oaken_scale.core.model.power import Landing
from oaken_scale.formats.fields import PORT, Baud, Edge, Id, Moment, Name, TimeAsTold, Words, number

Amperes = Annotated[float, number(gt=0, le=limits.CURRENT_A)]
Kv = Annotated[float, number(ge=50, le=20_000)]
Capacity = Annotated[float, number(ge=10, le=50_000)]
Rating = Annotated[float, number(ge=0.5, le=300)]
Cells = Annotated[int, Field(strict=True, ge=1, le=14)]
Celsius = Annotated[float, number(ge=-30, le=250)]


class MotorDoc(Edge):
    """A motor as listed: Kv [rpm/V], mass [g], resistance [ohm], no-load and most current [A]."""

    kv: Kv
    mass_g: Annotated[float, number(ge=0.5, le=2_000)]
    winding_ohm: Annotated[float, number(gt=0, le=20)] | None = None
    idle_a: Annotated[float, number(gt=0, le=50)] | None = None
    most_a: Amperes | None = None


class ControllerDoc(Edge):
    """What a motor's controller stands [A], and a burst for its seconds."""

    most_a: Amperes
    burst_a: Amperes | None = None
    burst_s: Annotated[float, number(gt=0, le=600)] | None = None
    least_cells: Cells | None = None
    most_cells: Cells | None = None


class RegulatorDoc(Edge):
    """What feeds receiver and servos: the current that it stands and that they draw [A], and the
    most cells that it may hang on."""

    most_a: Amperes
    drawn_a: Annotated[float, number(ge=0, le=limits.CURRENT_A)] | None = None
    most_cells: Cells | None = None


class StandDoc(Edge):
    """A thrust stand on a cable: its port, how fast it speaks, what its lines look like."""

    port: Annotated[str, Field(min_length=1, max_length=80, pattern=PORT)]
    baud: Baud = 9600
    line: Annotated[str, Field(max_length=limits.NAME_LENGTH, pattern=r"^[\x20-\x7e]*$")] = ""


class PropellerDoc(Edge):
    """A propeller by its diameter and pitch [mm]."""

    id: Id
    name: Name
    diameter_mm: Annotated[float, number(ge=20, le=1_000)]
    pitch_mm: Annotated[float, number(ge=5, le=1_000)]


class PackDoc(Edge):
    """A pack: cells in series, what they hold [mAh], its C rating, the part that it is."""

    id: Id
    name: Name
    cells: Cells
    capacity_mah: Capacity
    c_rating: Rating | None = None
    item: Id | None = None


class PointDoc(Edge):
    """One throttle step of a run, 0 to 1; thrust [gf], current [A] and voltage [V] as read."""

    throttle: Annotated[float, number(ge=0, le=1)]
    thrust_gf: Annotated[float, number(ge=0, le=limits.THRUST_GF)] | None = None
    pack_a: Annotated[float, number(ge=0, le=limits.CURRENT_A)] | None = None
    pack_v: Annotated[float, number(ge=0, le=100)] | None = None
    drawn_mah: Annotated[float, number(ge=0, le=50_000)] = 0.0


class RunDoc(Edge):
    """Points taken with one pack and one propeller; set aside with a reason, never deleted."""

    id: Id
    at: Moment
    pack: Id
    propeller: Id
    points: Annotated[tuple[PointDoc, ...], Field(max_length=limits.POINTS)] = ()
    rest_v_per_cell: Annotated[float, number(ge=2.5, le=4.4)] = 4.2
    note: Words = ""
    set_aside: Words | None = None
    lever: Annotated[float, number(ge=0.05, le=20)] = 1.0
    lever_doubt: Annotated[float, number(ge=0, le=0.5)] = 0.0
    air_c: Celsius | None = None
    motor_c: Celsius | None = None
    controller_c: Celsius | None = None
    pack_c: Celsius | None = None


class FlightDoc(Edge):
    """A flight: its pack, minutes, what the charger put back [mAh], what the plane weighed [g]."""

    id: Id
    at: TimeAsTold
    pack: Id
    minutes: Annotated[float, number(ge=0.1, le=300)]
    put_back_mah: Annotated[float, number(gt=0, le=50_000)] | None = None
    mass_g: Annotated[float, number(gt=0, le=limits.READING_G)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    landing: Landing | None = None


class PowerDoc(Edge):
    """A drive: one motor or several alike ones, their propellers and packs, and runs of them; the
    first propeller is the fitted one."""

    motor: MotorDoc
    motors: Annotated[int, Field(strict=True, ge=1, le=8)] = 1
    controller: ControllerDoc | None = None
    propellers: Annotated[tuple[PropellerDoc, ...], Field(max_length=12)] = ()
    packs: Annotated[tuple[PackDoc, ...], Field(max_length=12)] = ()
    runs: Annotated[tuple[RunDoc, ...], Field(max_length=limits.RUNS)] = ()
    regulator: RegulatorDoc | None = None
    plug_a: Amperes | None = None
    wire_a: Amperes | None = None
    level_throttle: Annotated[float, number(gt=0, le=1)] | None = None
    full_share: Annotated[float, number(ge=0, le=1)] = 0.2
    stand: StandDoc | None = None
    flights: Annotated[tuple[FlightDoc, ...], Field(max_length=limits.FLIGHTS)] = ()
