"""What is wrong with the drive, its runs and flights, and what is noted at the field."""

from collections.abc import Iterator
from typing import Final

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault, twice, unknown
from oaken_scale.core.model.power import FULL_V_PER_CELL


def power_faults(build: Build) -> Iterator[Fault]:
    """A drive's packs are parts of the build, and its runs were taken with what it has.

    >>> from oaken_scale.core.model.power import Motor, Pack, Power
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> next(power_faults(Build("b", "B", power=drive))).field
    'power.packs.0.part'
    """
    power = build.power
    if power is None:
        return
    for name in ("propellers", "packs", "runs", "flights"):
        yield from twice(f"power.{name}", [each.id for each in getattr(power, name)])
    parts = {part.id for part in build.parts}
    packs = {pack.id: pack for pack in power.packs}
    propellers = [each.id for each in power.propellers]
    for k, pack in enumerate(power.packs):
        if pack.part is not None and pack.part not in parts:
            yield Fault(f"power.packs.{k}.part", unknown("part", pack.part, sorted(parts)))
    for k, run in enumerate(power.runs):
        if run.pack not in packs:
            yield Fault(f"power.runs.{k}.pack", unknown("pack", run.pack, list(packs)))
        if run.propeller not in propellers:
            words = unknown("propeller", run.propeller, propellers)
            yield Fault(f"power.runs.{k}.propeller", words)
        cells = packs[run.pack].cells if run.pack in packs else None
        for j, point in enumerate(run.points):
            if cells is None or point.pack_v is None:
                continue
            if not LEAST_V * cells <= point.pack_v <= MOST_V * FULL_V_PER_CELL * cells:
                than = "more" if point.pack_v > LEAST_V * cells else "less"
                words = (
                    f"is {point.pack_v:g} V, {than} than {cells} cells have; say which pack it was "
                    "run with"
                )
                yield Fault(f"power.runs.{k}.points.{j}.pack_v", words)


def flight_faults(build: Build) -> Iterator[Fault]:
    """Flights were made with packs of the drive; a controller is made for some cells.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.power import Flight, Motor, Power
    >>> noon = datetime(2026, 5, 1, 12, tzinfo=UTC)
    >>> drive = Power(Motor(1400, 60), flights=(Flight("f", noon, "s3", 8.0),))
    >>> next(flight_faults(Build("b", "B", power=drive))).field
    'power.flights.0.pack'
    """
    power = build.power
    if power is None:
        return
    packs = {pack.id: pack for pack in power.packs}
    for k, flight in enumerate(power.flights):
        if flight.pack not in packs:
            yield Fault(f"power.flights.{k}.pack", unknown("pack", flight.pack, list(packs)))
            continue
        back, held = flight.put_back_mah, packs[flight.pack].capacity_mah
        if back is not None and back > MOST_PUT_BACK * held:
            words = f"is {back:g} mAh, and the pack holds {held:g}; say which pack it was"
            yield Fault(f"power.flights.{k}.put_back_mah", words)
    scales = {scale.port: scale.name for scale in build.scales if scale.port}
    if power.stand is not None and power.stand.port in scales:
        words = f"is where {scales[power.stand.port]} is read; say the stand's own"
        yield Fault("power.stand.port", words)
    made_for = power.controller
    least = None if made_for is None else made_for.least_cells
    most = None if made_for is None else made_for.most_cells
    if least is not None and most is not None and least > most:
        yield Fault("power.controller.least_cells", f"is {least}, over the most of {most}")


def field_faults(build: Build) -> Iterator[Fault]:
    """Everything that was kept has an id of its own, and a control ends further out than it begins.

    One on a surface that is not drawn any more is no fault: it waits until that is drawn again.

    >>> from oaken_scale.core.model.field import Control, ControlKind, FieldLog
    >>> flap = Control("f", "Flap", ControlKind.FLAP, "w", from_share=0.8, to_share=0.2)
    >>> [fault.field for fault in field_faults(Build("b", "B", field=FieldLog(controls=(flap,))))]
    ['field.controls.0.from_share']
    """
    log = build.field
    for name in ("controls", "throws", "ticks", "own_lines", "notes", "stances"):
        yield from twice(f"field.{name}", [each.id for each in getattr(log, name)])
    for k, control in enumerate(log.controls):
        if control.from_share >= control.to_share:
            words = f"is {control.from_share:g}; it should be under where it ends"
            yield Fault(f"field.controls.{k}.from_share", f"{words}, {control.to_share:g}")


LEAST_V: Final = 2.5
"""No cell shows less while it runs a motor [V]."""

MOST_PUT_BACK: Final = 1.3
"""A charger puts back at most so many times what a pack is listed to hold."""

MOST_V: Final = 1.05
"""A voltmeter shows at most so many times what the cells of a pack have."""
