"""What is done to a plane's drive."""

from dataclasses import replace
from datetime import datetime
from itertools import count

from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.power import Pack, Power, Run
from oaken_scale.core.power.drive_aboard import pack_aboard


def runs_stay(before: Power | None, after: Power | None) -> None:
    """Raise BuildFaultError where a run that was taken, or a flight, would be gone or read
    otherwise: it may be set aside, and what was read stays as it was read.

    >>> from oaken_scale.core.model.power import Motor
    >>> runs_stay(None, Power(Motor(1400, 60)))  # nothing was taken away
    """
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


def adopted_pack(
    build: Build, loadout: Loadout | None, pack: Pack, part: Part, at: datetime
) -> Build:
    """The build with a pack that flies as a loadout of its own, beside another whose pack's place
    it takes: ``part`` is the part that it becomes, not placed yet, under an id that is free.

    Where there were no loadouts, what flew until now is one of them. Raises BuildFaultError where
    the build has no drive, or the loadout no pack of it.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> from oaken_scale.core.model.power import Motor
    >>> own = Part("pack", "Pack", Pedigree.LISTING, stated_g=106.0, station=Station(210.0))
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "1300", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(own,), power=drive)
    >>> large = Part("large", "Pack 2200", Pedigree.LISTING, stated_g=170.0)
    >>> at = datetime(2026, 5, 1, tzinfo=UTC)
    >>> after = adopted_pack(build, None, Pack("x", "2200", 3, 2200), large, at)
    >>> [(each.name, each.carries) for each in after.loadouts], after.parts[1].station.x_mm
    ([('Pack', ('pack',)), ('Pack 2200', ('large',))], 210.0)
    """
    now, power = pack_aboard(build, loadout), build.power
    if power is None or now is None or now.part is None:
        words = "no pack of the drive flies with it; say on Power which part is its pack"
        raise BuildFaultError([Fault("loadout", words)])
    old = next(each for each in build.parts if each.id == now.part)
    new = replace(part, station=old.station, slide=old.slide, option=True, added_at=at)
    parts = tuple(replace(each, option=True) if each.id == old.id else each for each in build.parts)
    before = build.loadouts or (Loadout("as-built", old.name[:80], (old.id,)),)
    beside = loadout if loadout is not None else before[0]
    carries = (*(id for id in beside.carries if id != old.id), new.id)
    taken = {each.id for each in before} | {each.id for each in power.packs}
    id = next(name for k in count(1) if (name := f"{new.id[:58]}-{k}") not in taken)
    name = beside.name.replace(old.name, new.name) if old.name in beside.name else new.name
    if name in [each.name for each in before]:
        name = f"{beside.name[: 77 - len(new.name)]}, {new.name}"
    fresh = replace(pack, id=id, name=pack.name, part=new.id)
    return replace(
        build,
        parts=(*parts, new),
        loadouts=(*before, Loadout(id, name[:80], carries)),
        power=replace(power, packs=(*power.packs, fresh)),
    )


def _as_read(run: Run) -> Run:
    """A run without what may be written down after it."""
    return replace(
        run, set_aside=None, note="", air_c=None, motor_c=None, controller_c=None, pack_c=None
    )


def without_part(build: Build, id: str) -> Build:
    """The build whose drive has no pack that is that part; the pack itself stays with its runs.

    >>> without_part(Build("b", "B"), "pack").power is None
    True
    """
    power = build.power
    if power is None or all(pack.part != id for pack in power.packs):
        return build
    packs = tuple(replace(each, part=None) if each.part == id else each for each in power.packs)
    return replace(build, power=replace(power, packs=packs))
