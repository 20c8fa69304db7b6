"""A build's drive as its file and its requests have it."""

from typing import Annotated

from pydantic import Field

from oaken_scale.core.model import limits
from oaken_scale.formats.fields import Edge, Id, Moment, Name, Words, number

Amperes = Annotated[float, number(gt=0, le=limits.CURRENT_A)]


class MotorDoc(Edge):
    """A motor as listed: Kv [rpm/V], mass [g], resistance [ohm], no-load and most current [A]."""

    kv: Annotated[float, number(ge=50, le=20_000)]
    mass_g: Annotated[float, number(ge=0.5, le=2_000)]
    winding_ohm: Annotated[float, number(gt=0, le=20)] | None = None
    idle_a: Annotated[float, number(gt=0, le=50)] | None = None
    most_a: Amperes | None = None


class ControllerDoc(Edge):
    """What a motor's controller stands [A], and a burst for its seconds."""

    most_a: Amperes
    burst_a: Amperes | None = None
    burst_s: Annotated[float, number(gt=0, le=600)] | None = None


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
    cells: Annotated[int, Field(strict=True, ge=1, le=14)]
    capacity_mah: Annotated[float, number(ge=10, le=50_000)]
    c_rating: Annotated[float, number(ge=0.5, le=300)] | None = None
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


class PowerDoc(Edge):
    """A drive: one motor or several alike ones, their propellers and packs, and runs of them; the
    first propeller is the fitted one."""

    motor: MotorDoc
    motors: Annotated[int, Field(strict=True, ge=1, le=8)] = 1
    controller: ControllerDoc | None = None
    propellers: Annotated[tuple[PropellerDoc, ...], Field(max_length=12)] = ()
    packs: Annotated[tuple[PackDoc, ...], Field(max_length=12)] = ()
    runs: Annotated[tuple[RunDoc, ...], Field(max_length=limits.RUNS)] = ()
