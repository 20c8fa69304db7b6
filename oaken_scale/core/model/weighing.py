"""A reading of a scale: what lay on its pan, and what it showed."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Baud,
    Count,
    Doubt,
    Id,
    Label,
    Length,
    Line,
    Moment,
    Name,
    Port,
    Range,
    Reading,
    ReadingOrNothing,
    SampleAmount,
    SomeMass,
    Words,
)


@dataclass(frozen=True, slots=True)
class Scale:
    """A scale: display step, repeatability (one sigma), calibration doubt (a fraction), capacity.

    ``repeatability_g`` None means half a step. A scale on a cable sends its lines to ``port``, each
    of them like ``line``, which has a number where the reading is.
    """

    id: Id
    name: Name
    step_g: Annotated[float, Range(ge=0.0001, le=100)]
    repeatability_g: Annotated[float, Range(ge=0, le=100)] | None = None
    calibration_doubt: Annotated[float, Range(ge=0, le=0.5)] = 0.003
    capacity_g: Reading = 5_000.0
    simulated: bool = False
    port: Port = ""
    line: Line = ""
    baud: Baud = 9600


@dataclass(frozen=True, slots=True, order=True)
class Load:
    """How many of a part are on the pan (10 screws of which 4 are fitted: 2.5)."""

    part: Id
    count: Count = 1.0


@dataclass(frozen=True, slots=True, order=True)
class Sample:
    """How much of a lot is on the pan, in the lot's unit."""

    lot: Id
    amount: SampleAmount


@dataclass(frozen=True, slots=True)
class Pan:
    """Everything on the pan in one reading; ``known_g`` is a check weight of known mass."""

    loads: Annotated[tuple[Load, ...], Length(limits.PARTS)] = ()
    samples: Annotated[tuple[Sample, ...], Length(50)] = ()
    known_g: ReadingOrNothing = 0.0

    @classmethod
    def of(
        cls, loads: Mapping[str, float], samples: Mapping[str, float], known_g: float = 0.0
    ) -> "Pan":
        """A pan in its one order: counts by part, amounts by lot.

        >>> Pan.of({"wing": 1, "tail": 1}, {}) == Pan.of({"tail": 1, "wing": 1}, {})
        True
        """
        return cls(
            tuple(Load(part, loads[part]) for part in sorted(loads)),
            tuple(Sample(lot, samples[lot]) for lot in sorted(samples)),
            known_g,
        )


@dataclass(frozen=True, slots=True)
class Container:
    """A tray or a cup that things are weighed in: its mass and doubt (one sigma) [g]."""

    id: Id
    name: Name
    mass_g: SomeMass
    doubt_g: Doubt = 0.1


@dataclass(frozen=True, slots=True)
class Weighing:
    """One reading, and what was on the pan, frozen. Set aside, it no longer speaks.

    ``corrects`` is the reading that it was recorded in place of; an ``accepted`` one is not doubted
    any more.
    """

    id: Id
    at: Moment
    scale: Id
    reading_g: Reading
    pan: Pan
    typed: Label = ""
    note: Words = ""
    set_aside: Words | None = None
    corrects: Id | None = None
    accepted: bool = False
