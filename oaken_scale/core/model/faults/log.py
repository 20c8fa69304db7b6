"""What is wrong with pans and the readings in the log."""

from collections.abc import Iterator
from dataclasses import dataclass

from oaken_scale.core.model.amount import grams
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault, twice, unknown
from oaken_scale.core.model.weighing import Pan, Weighing


def pan_faults(build: Build, pan: Pan, scale_id: str | None) -> Iterator[Fault]:
    """What speaks against having something on the pan now; an empty pan is fine.

    >>> from oaken_scale.core.model.weighing import Load
    >>> next(pan_faults(Build("b", "B"), Pan((Load("wing"),)), None)).field
    'pan.loads.0.part'
    """
    if pan != Pan():
        yield from _pan_faults(_Known.of(build), "pan", pan)
    retired = {part.id for part in build.parts if part.retired}
    for k, load in enumerate(pan.loads):
        if load.part in retired:
            yield Fault(
                f"pan.loads.{k}.part",
                f'"{load.part}" is retired and off the plane; weigh what replaced it',
            )
    scales = [scale.id for scale in build.scales]
    if scale_id is not None and scale_id not in scales:
        yield Fault("scale", unknown("scale", scale_id, scales))


def weighing_faults(build: Build, weighing: Weighing) -> Iterator[Fault]:
    """What speaks against adding a new reading to a build.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.weighing import Scale
    >>> build = Build("b", "B", scales=(Scale("s", "kitchen scale", 1.0, capacity_g=200.0),))
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> heavy = Weighing("r", noon, "s", 250.0, Pan(known_g=100.0))
    >>> next(weighing_faults(build, heavy)).words
    '250 g is over what the kitchen scale can weigh; it must be at most 200 g'
    """
    if weighing.pan == Pan():
        yield from _pan_faults(_Known.of(build), "pan", weighing.pan)
    yield from pan_faults(build, weighing.pan, weighing.scale)
    scale = next((scale for scale in build.scales if scale.id == weighing.scale), None)
    if scale is not None and weighing.reading_g > scale.capacity_g:
        yield Fault(
            "reading_g",
            "{} is over what the {} can weigh; it must be at most {}",
            (grams(weighing.reading_g), scale.name, grams(scale.capacity_g)),
        )


@dataclass(frozen=True, slots=True)
class _Known:
    """The ids that a pan may speak of."""

    parts: frozenset[str]
    lots: frozenset[str]

    @classmethod
    def of(cls, build: Build) -> "_Known":
        return cls(frozenset(i.id for i in build.parts), frozenset(lot.id for lot in build.lots))


def _pan_faults(known: _Known, path: str, pan: Pan) -> Iterator[Fault]:
    if not pan.loads and not pan.samples and pan.known_g <= 0:
        yield Fault(path, "the pan is empty; put on at least one thing, a sample or a check weight")
    yield from twice(f"{path}.loads", [load.part for load in pan.loads])
    yield from twice(f"{path}.samples", [sample.lot for sample in pan.samples])
    for k, load in enumerate(pan.loads):
        if load.part not in known.parts:
            yield Fault(
                f"{path}.loads.{k}.part",
                f'no part "{load.part}" in this build; use the id of one of its parts',
            )
    for k, sample in enumerate(pan.samples):
        if sample.lot not in known.lots:
            lots = sorted(known.lots)
            yield Fault(f"{path}.samples.{k}.lot", unknown("lot", sample.lot, lots))


def log_faults(build: Build) -> Iterator[Fault]:
    """What is wrong with readings already in the log; their parts may have retired since.

    Each pan is looked at once, however often it was weighed.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.weighing import Load
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> log = (Weighing("r", noon, "s", 12.0, Pan((Load("ghost"),))),)
    >>> [fault.field for fault in log_faults(Build("b", "B", weighings=log))]
    ['weighings.0.pan.loads.0.part', 'weighings.0.scale']
    """
    known = _Known.of(build)
    scales = [scale.id for scale in build.scales]
    sound: set[int] = set()
    for k, weighing in enumerate(build.weighings):
        if id(weighing.pan) not in sound:
            found = tuple(_pan_faults(known, f"weighings.{k}.pan", weighing.pan))
            yield from found
            if not found:
                sound.add(id(weighing.pan))
        if weighing.scale not in scales:
            yield Fault(f"weighings.{k}.scale", unknown("scale", weighing.scale, scales))
