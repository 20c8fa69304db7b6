"""What is done to a plane's drive."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from datetime import datetime
from itertools import count
from typing import Final, TypeVar

from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.material.drawer import Thing, ThingKind, fitted, pack_of
from oaken_scale.core.model.build import Build, Loadout, loadout_meant
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.kind_named import (
    names_a_controller,
    names_a_drive_pack,
    names_a_motor,
    names_a_propeller,
)
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.power import Controller, Motor, Pack, Power, Propeller, Run
from oaken_scale.core.model.quantity import INCH_MM
from oaken_scale.core.power.as_named import (
    amperes_named,
    capacity_named,
    cells_named,
    kv_named,
    rating_named,
    size_named,
)
from oaken_scale.core.power.drive_aboard import pack_aboard

USUAL_MOTOR_G: Final = 30.0
"""What a motor weighs that is on no list [g]."""

MOST_MOTORS: Final = 8
MOST_PACKS: Final = 12
"""So many motors and packs a drive has at most."""


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


def with_drawer_pack(build: Build, loadout_id: str | None, thing: Thing, at: datetime) -> Build:
    """The build with a pack of the drawer as a loadout of its own, see :func:`adopted_pack`.

    Raises BuildFaultError (``thing``) too where that does not say what it holds.

    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> own = Part("pack", "Pack", Pedigree.LISTING, stated_g=106.0, station=Station(210.0))
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "1300", 3, 1300, part="pack"),))
    >>> other = Thing("t", "850", ThingKind.PACK, 60.0, cells=2, capacity_mah=850.0)
    >>> build = Build("b", "B", parts=(own,), power=drive)
    >>> with_drawer_pack(build, None, other, datetime(2026, 5, 1)).parts[1].thing
    't'
    """
    beside, pack = loadout_meant(build, loadout_id), pack_of(thing)
    if pack is None:
        words = f"{thing.name} does not say its cells and what it holds; say so in the drawer"
        raise BuildFaultError([Fault("thing", words)])
    part = fitted(thing, free_id(thing.name, (part.id for part in build.parts)))
    return adopted_pack(build, beside, pack, part, at)


def with_listed_pack(
    build: Build, loadout_id: str | None, pack: Pack, mass_g: float, at: datetime
) -> Build:
    """The build with a pack as a shop lists it, and its mass [g], as a loadout of its own; see
    :func:`adopted_pack`.

    >>> from oaken_scale.core.model.part import Station
    >>> own = Part("pack", "Pack", Pedigree.LISTING, stated_g=106.0, station=Station(210.0))
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "1300", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(own,), power=drive)
    >>> more = with_listed_pack(build, None, Pack("x", "850", 2, 850), 60.0, datetime(2026, 5, 1))
    >>> more.parts[1].stated_g, more.parts[1].option
    (60.0, True)
    """
    part = Part(
        free_id(pack.name, (part.id for part in build.parts)),
        pack.name,
        Pedigree.LISTING,
        assembly="Power and control",
        stated_g=mass_g,
        option=True,
        group=Group.POWER,
    )
    return adopted_pack(build, loadout_meant(build, loadout_id), pack, part, at)


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


def drive_begun(build: Build, drawer: Iterable[Thing]) -> Build:
    """The build with a drive made of what its parts say: motors by their masses, a controller,
    packs and a propeller; what they are in the drawer first, then what their names say. A pack of
    which neither tells the cells and what they hold, or a propeller without a size, is left for
    its builder to say, so that nothing is told of figures that nobody gave.

    Raises BuildFaultError where the build has a drive.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> parts = (Part("m", "Motor 1900 rpm/V", Pedigree.LISTING, stated_g=24.0, pieces=2),
    ...     Part("p", "Pack, 2-cell 850", Pedigree.LISTING, stated_g=52.0))
    >>> drive = drive_begun(Build("b", "B", parts=parts), ()).power
    >>> drive.motors, drive.motor.kv, drive.motor.mass_g, drive.packs[0].cells
    (2, 1900.0, 12.0, 2)
    """
    if build.power is not None:
        raise BuildFaultError([Fault("power", "is listed already; change what is said of it")])
    things = {thing.id: thing for thing in drawer}
    aboard = [part for part in build.parts if not part.retired]
    motors = [part for part in aboard if _is(part, ThingKind.MOTOR, things)]
    packs = [part for part in aboard if _is(part, ThingKind.PACK, things)][:MOST_PACKS]
    blades = [part for part in aboard if _is(part, ThingKind.PROPELLER, things)]
    steered = [part for part in aboard if _is(part, ThingKind.CONTROLLER, things)]
    turning = min(sum(part.pieces for part in motors), MOST_MOTORS)
    return replace(
        build,
        power=Power(
            _motor_of(build, motors, things),
            motors=max(turning, 1),
            controller=next(_present(_controller_of(part, things) for part in steered), None),
            propellers=tuple(_present(_propeller_of(part) for part in blades))[:1],
            packs=tuple(_present(_pack_of(part, things) for part in packs)),
        ),
    )


def _is(part: Part, kind: ThingKind, things: Mapping[str, Thing]) -> bool:
    """Whether a part is of a kind: by what it is in the drawer, or by its name."""
    thing = things.get(part.thing or "")
    if thing is not None:
        return thing.kind is kind
    if kind is ThingKind.PACK:
        return names_a_drive_pack(part.name)
    if kind is ThingKind.MOTOR:
        return names_a_motor(part.name)
    if kind is ThingKind.CONTROLLER:
        return names_a_controller(part.name)
    return names_a_propeller(part.name)


_T = TypeVar("_T")


def _present(those: Iterable[_T | None]) -> Iterator[_T]:
    """Those that are something."""
    return (each for each in those if each is not None)


def _motor_of(build: Build, motors: list[Part], things: Mapping[str, Thing]) -> Motor:
    """One of the motors, by what all of them weigh together."""
    if not motors:
        return Motor(None, USUAL_MOTOR_G)
    first = motors[0]
    thing = things.get(first.thing or "")
    at = {part.id: i for i, part in enumerate(build.parts)}
    masses = solve(build).mass
    each = sum(float(masses[at[part.id]]) for part in motors) / sum(part.pieces for part in motors)
    kv = (thing.kv if thing else None) or kv_named(first.name)
    mass_g = round(each, 1) if each >= 1 else USUAL_MOTOR_G
    return Motor(kv, mass_g, most_a=thing.most_a if thing else None)


def _controller_of(part: Part, things: Mapping[str, Thing]) -> Controller | None:
    thing = things.get(part.thing or "")
    stands_a = (thing.most_a if thing else None) or amperes_named(part.name)
    return None if stands_a is None else Controller(stands_a)


def _pack_of(part: Part, things: Mapping[str, Thing]) -> Pack | None:
    thing = things.get(part.thing or "")
    cells = (thing.cells if thing else None) or cells_named(part.name)
    holds_mah = (thing.capacity_mah if thing else None) or capacity_named(part.name)
    if cells is None or holds_mah is None:
        return None
    c_rating = (thing.c_rating if thing else None) or rating_named(part.name)
    return Pack(part.id, part.name, cells, holds_mah, c_rating, part.id)


def _propeller_of(part: Part) -> Propeller | None:
    size = size_named(part.name)
    if size is None:
        return None
    inches = (f"{mm / INCH_MM:.4g}" for mm in size)
    name = " x ".join(inches)
    return Propeller(free_id(f"prop {name}", ()), name, *size)
