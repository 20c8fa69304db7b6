"""What is done to a plane's drive."""

from dataclasses import replace

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults import BuildFaultError, Fault
from oaken_scale.core.model.power import Power


def runs_stay(before: Power | None, after: Power | None) -> None:
    """Raise BuildFaultError where a run that was taken would be gone, or read otherwise: it may be
    set aside, and what it read stays as it was read."""
    there = {run.id: run for run in after.runs} if after else {}
    for run in before.runs if before else ():
        now = there.get(run.id)
        if now is None:
            words = f'the run "{run.id}" was taken and stays; set it aside with a reason'
            raise BuildFaultError([Fault("power.runs", words)])
        if replace(now, set_aside=run.set_aside, note=run.note) != run:
            words = f'the run "{run.id}" stays as it was read; set it aside and take another one'
            raise BuildFaultError([Fault("power.runs", words)])


def without_part(build: Build, id: str) -> Build:
    """The build whose drive has no pack that is that part; the pack itself stays with its runs."""
    power = build.power
    if power is None or all(pack.item != id for pack in power.packs):
        return build
    packs = tuple(replace(each, item=None) if each.item == id else each for each in power.packs)
    return replace(build, power=replace(power, packs=packs))
