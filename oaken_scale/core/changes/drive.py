"""What is done to a plane's drive."""

from dataclasses import replace

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults import BuildFaultError, Fault
from oaken_scale.core.model.power import Power, Run


def runs_stay(before: Power | None, after: Power | None) -> None:
    """Raise BuildFaultError where a run that was taken, or a flight, would be gone or read
    otherwise: it may be set aside, and what was read stays as it was read."""
    there = {run.id: run for run in after.runs} if after else {}
    for run in before.runs if before else ():
        now = there.get(run.id)
        if now is None:
            words = f'the run "{run.id}" was taken and stays; set it aside with a reason'
            raise BuildFaultError([Fault("power.runs", words)])
        if _as_read(now) != _as_read(run):
            words = f'the run "{run.id}" stays as it was read; set it aside and take another one'
            raise BuildFaultError([Fault("power.runs", words)])

    flown = {flight.id: flight for flight in after.flights} if after else {}
    for flight in before.flights if before else ():
        kept = flown.get(flight.id)
        if kept is None or replace(kept, set_aside=flight.set_aside, note=flight.note) != flight:
            words = f'the flight "{flight.id}" stays as it was; set it aside with a reason'
            raise BuildFaultError([Fault("power.flights", words)])


def _as_read(run: Run) -> Run:
    """A run without what may be written down after it."""
    return replace(
        run, set_aside=None, note="", air_c=None, motor_c=None, controller_c=None, pack_c=None
    )


def without_part(build: Build, id: str) -> Build:
    """The build whose drive has no pack that is that part; the pack itself stays with its runs."""
    power = build.power
    if power is None or all(pack.item != id for pack in power.packs):
        return build
    packs = tuple(replace(each, item=None) if each.item == id else each for each in power.packs)
    return replace(build, power=replace(power, packs=packs))
