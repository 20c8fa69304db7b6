"""What was recorded, as files and requests have it: scales and readings, joints, checks, diary."""

from typing import Annotated

from pydantic import Field

from oaken_scale.core.model import balancing, limits
from oaken_scale.core.model import build as core
from oaken_scale.core.model import diary as happening
from oaken_scale.core.model.day import StepKind
from oaken_scale.formats.fields import (
    PORT,
    Baud,
    Coordinate,
    Count,
    Doubt,
    Edge,
    Id,
    Label,
    Moment,
    Name,
    Reading,
    SampleAmount,
    Words,
    number,
)

Seconds = Annotated[float, number(ge=0, le=limits.JOINT_S)]


class ScaleDoc(Edge):
    """A scale. ``repeatability_g`` null means half a step.

    One on a cable has a ``port`` (a serial device's name), and ``line`` says how its lines read.
    """

    id: Id
    name: Name
    step_g: Annotated[float, number(ge=0.0001, le=100)]
    repeatability_g: Annotated[float, number(ge=0, le=100)] | None = None
    calibration_doubt: Annotated[float, number(ge=0, le=0.5)] = 0.003
    capacity_g: Annotated[float, number(gt=0, le=limits.READING_G)] = 5000.0
    simulated: bool = False
    port: Annotated[str, Field(max_length=80, pattern=PORT)] = ""
    line: Annotated[str, Field(max_length=limits.NAME_LENGTH, pattern=r"^[\x20-\x7e]*$")] = ""
    baud: Baud = 9600


class ContainerDoc(Edge):
    """A tray or a cup that things are weighed in."""

    id: Id
    name: Name
    mass_g: Annotated[float, number(gt=0, le=limits.ITEM_MASS_G)]
    doubt_g: Doubt = 0.1


class LoadDoc(Edge):
    """An item on the pan; ``count`` 2.5 means ten screws of which four are fitted."""

    item: Id
    count: Count = 1.0


class SampleDoc(Edge):
    """A piece of a lot on the pan, in the lot's unit."""

    lot: Id
    amount: SampleAmount


class PanDoc(Edge):
    """Everything on the pan in one reading."""

    loads: Annotated[tuple[LoadDoc, ...], Field(max_length=limits.ITEMS)] = ()
    samples: Annotated[tuple[SampleDoc, ...], Field(max_length=50)] = ()
    known_g: Annotated[float, number(ge=0, le=limits.READING_G)] = 0.0

    def value(self) -> core.Pan:
        """The pan as the core has it, in one order whatever order it was given in."""
        loads = tuple(sorted(core.Load(load.item, load.count) for load in self.loads))
        samples = tuple(sorted(core.Sample(each.lot, each.amount) for each in self.samples))
        return core.Pan(loads, samples, self.known_g)


class WeighingDoc(Edge):
    """A reading and what was on the pan. ``set_aside`` holds the reason once it was set aside.

    ``corrects`` is the reading that it was recorded in place of; ``accepted`` says that it was
    doubtful and the builder let it stand.
    """

    id: Id
    at: Moment
    scale: Id
    reading_g: Reading
    pan: PanDoc
    typed: Label = ""
    note: Words = ""
    set_aside: Words | None = None
    corrects: Id | None = None
    accepted: bool = False


class JointTimesDoc(Edge):
    """A joint's times after spreading [s]; ``close_by_s`` null where there is no hurry."""

    close_after_s: Seconds
    close_by_s: Annotated[float, number(gt=0, le=limits.JOINT_S)] | None
    handle_after_s: Seconds
    strong_after_s: Seconds


class JointDoc(JointTimesDoc):
    """A joint on the clock: spread when, with which adhesive, and the parts in it."""

    id: Id
    name: Name
    adhesive: Id
    spread_at: Moment
    items: Annotated[tuple[Id, ...], Field(max_length=limits.ITEMS)] = ()
    cleared: bool = False


StepId = Annotated[str, Field(min_length=1, max_length=120, pattern=r"^[^\x00-\x1f\x7f]+$")]
Minutes = Annotated[float, number(gt=0, le=100_000)]


class DoneDoc(Edge):
    """A step that was done, when, and in how many minutes; how many are usual."""

    step: StepId
    kind: StepKind
    at: Moment
    minutes: Minutes | None = None
    usual_min: Minutes | None = None


class OwnStepDoc(Edge):
    """A step of the builder's own, and how long it takes [min]."""

    id: Id
    name: Name
    minutes: Minutes


class DayDoc(Edge):
    """The order of the day: steps as they were moved by hand, those that were done, own steps."""

    order: Annotated[tuple[StepId, ...], Field(max_length=limits.ITEMS)] = ()
    done: Annotated[tuple[DoneDoc, ...], Field(max_length=limits.ITEMS)] = ()
    own: Annotated[tuple[OwnStepDoc, ...], Field(max_length=100)] = ()


class HappeningDoc(Edge):
    """What happened to the plane, when, and to which parts."""

    id: Id
    at: Moment
    kind: happening.HappeningKind
    words: Words
    items: Annotated[tuple[Id, ...], Field(max_length=limits.ITEMS)] = ()


class StoodDoc(Edge):
    """What was aboard when a check was made, and where it sat [mm]; null where nobody had said."""

    item: Id
    x_mm: Coordinate | None = None
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


class BalanceCheckDoc(Edge):
    """A check of the balance by hand [mm from the nose, or across for ``sides``; g; degrees].

    ``stood`` is the plane as it was then: what was aboard, and where it sat.
    """

    id: Id
    at: Moment
    kind: balancing.CheckKind
    loadout: Id | None = None
    x_mm: Coordinate
    by: Label = ""
    other_mm: Coordinate | None = None
    reading_g: Annotated[float, number(ge=0, le=limits.READING_G)] | None = None
    scale: Id | None = None
    z_mm: Coordinate | None = None
    nose_down_deg: Annotated[float, number(ge=-80, le=80)] | None = None
    doubt: Annotated[float, number(gt=0, le=100)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    stood: Annotated[tuple[StoodDoc, ...], Field(max_length=limits.ITEMS)] = ()
    part: Label = ""
