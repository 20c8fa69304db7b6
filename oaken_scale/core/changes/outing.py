"""What comes home from the field: throws, flights, ticks, notes, and what was set.

Everything has an id that its sender gave it. What comes a second time is known and changes
nothing; what comes under the id of something else is refused. The order is that of arrival: clocks
of phones are wrong now and then, and the times stay as they were told.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Final, TypeVar

from oaken_scale.core.field.ready import stance
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.field import (
    FieldLog,
    Note,
    OwnLine,
    Setting,
    Stance,
    Throw,
    Tick,
)
from oaken_scale.core.model.power import Flight


@dataclass(frozen=True, slots=True)
class Bent:
    """Controls and tabs set anew, no throw made."""

    settings: tuple[Setting, ...]


@dataclass(frozen=True, slots=True)
class SetAside:
    """A throw or a flight set aside with a reason, or (None) taken back in; a note that is done; a
    line of one's own taken off the list."""

    id: str
    reason: str | None


Entry = Throw | Flight | Tick | Note | OwnLine | Bent | SetAside


_MOST: Final = {
    "throw": limits.THROWS,
    "flight": limits.FLIGHTS,
    "line": limits.OWN_LINES,
}
"""How many of each a plane keeps, where it is not as many as of all that is written down."""

Kept = TypeVar("Kept", bound="Throw | Tick | Note | OwnLine | Flight")


def came_home(build: Build, entry: Entry) -> tuple[Build, bool]:
    """The build with one entry, and whether it is new.

    Raises BuildFaultError where it cannot stand: its id belongs to something else, a flight was
    made with a pack that the plane does not have.

    >>> from datetime import UTC, datetime
    >>> throw = Throw("t", datetime(2026, 2, 14, tzinfo=UTC), distance_m=9.5)
    >>> once, is_new = came_home(Build("b", "B"), throw)
    >>> is_new, came_home(once, throw)[1], len(once.field.throws)
    (True, False, 1)
    """
    if isinstance(entry, Bent):
        return _bent(build, entry.settings), True
    if isinstance(entry, SetAside):
        return _set_aside(build, entry)
    if isinstance(entry, Flight):
        return _flew(build, entry)
    return _logged(build, entry)


def _logged(build: Build, entry: Throw | Tick | Note | OwnLine) -> tuple[Build, bool]:
    log = build.field
    if isinstance(entry, Throw):
        throws, new = _added(log.throws, entry, "throw")
        build = _bent(build, entry.settings) if new else build
        return _with(build, replace(build.field, throws=throws)), new
    if isinstance(entry, Tick):
        ticks, new = _added(log.ticks, entry, "tick")
        stances = _seen(build, entry) if new else log.stances
        return _with(build, replace(log, ticks=ticks, stances=stances)), new
    if isinstance(entry, Note):
        notes, new = _added(log.notes, entry, "note")
        return _with(build, replace(log, notes=notes)), new
    lines, new = _added(log.own_lines, entry, "line")
    return _with(build, replace(log, own_lines=lines)), new


def with_lines_of(build: Build, others: Iterable[Build]) -> Build:
    """A build that has the lines of their own of earlier ones of its layout, each once; of more
    than one list holds, its own and those of the latest.

    >>> with_lines_of(Build("b", "B"), []) == Build("b", "B")
    True
    """
    lines = {each.words: each for each in build.field.own_lines}
    for other in others:
        if other.layout == build.layout and other.layout:
            for each in other.field.own_lines:
                lines.setdefault(each.words, each)
    named = {line.id: line for line in lines.values()}
    own = len(build.field.own_lines)
    told = [*named.values()]
    latest = told[own:][-(limits.OWN_LINES - own) :] if own < limits.OWN_LINES else []
    return _with(build, replace(build.field, own_lines=(*told[:own], *latest)))


def next_version(log: FieldLog) -> FieldLog:
    """What the next version takes over: its controls as they were set, the lines of the list, and
    the wishes; what was thrown, ticked and noted stays with this one.

    >>> next_version(FieldLog()).throws
    ()
    """
    wishes = tuple(each for each in log.notes if each.kind.value in ("wish", "reminder"))
    return FieldLog(controls=log.controls, own_lines=log.own_lines, notes=wishes)


def _with(build: Build, log: FieldLog) -> Build:
    return replace(build, field=log)


def _added(there: tuple[Kept, ...], entry: Kept, what: str) -> tuple[tuple[Kept, ...], bool]:
    known = next((each for each in there if each.id == entry.id), None)
    if known is None:
        most = _MOST.get(what, limits.ENTRIES)
        if len(there) >= most:
            words = f"there are {most:,} already, the most that one plane keeps"
            raise BuildFaultError([Fault(what, words)])
        return (*there, entry), True
    if _as_told(known) != _as_told(entry):
        raise BuildFaultError([Fault("id", f'"{entry.id}" is another {what} already')])
    return there, False


def _as_told(
    entry: Throw | Tick | Note | OwnLine | Flight,
) -> Throw | Tick | Note | OwnLine | Flight:
    """An entry without what may have become of it since it first came."""
    if isinstance(entry, Throw):
        return replace(entry, set_aside=None, auw_g=None, cg_mm=None)
    if isinstance(entry, Flight):
        return replace(entry, set_aside=None)
    return replace(entry, done=False) if isinstance(entry, Note) else entry


def _bent(build: Build, settings: tuple[Setting, ...]) -> Build:
    at = {each.control: each.mm for each in settings}
    controls = tuple(
        replace(each, set_mm=at[each.id]) if each.id in at else each
        for each in build.field.controls
    )
    return _with(build, replace(build.field, controls=controls))


def _seen(build: Build, tick: Tick) -> tuple[Stance, ...]:
    """The stances that are kept, with that of a tick where it is how the plane stands now."""
    there = build.field.stances
    if any(each.id == tick.stance for each in there):
        return there
    names = [each.id for each in build.loadouts]
    now = stance(build, tick.loadout if tick.loadout in names else None)
    return (*there, now) if now.id == tick.stance else there


def _flew(build: Build, flight: Flight) -> tuple[Build, bool]:
    power = build.power
    if power is None:
        words = "no drive is listed on Power; a flight is made with one of its packs"
        raise BuildFaultError([Fault("pack", words)])
    if flight.pack not in [each.id for each in power.packs]:
        names = ", ".join(each.id for each in power.packs) or "none"
        raise BuildFaultError([Fault("pack", f'no pack "{flight.pack}"; there is {names}')])
    flights, new = _added(power.flights, flight, "flight")
    return replace(build, power=replace(power, flights=flights)), new


def _set_aside(build: Build, aside: SetAside) -> tuple[Build, bool]:
    log, power = build.field, build.power
    throws = tuple(
        replace(each, set_aside=aside.reason) if each.id == aside.id else each
        for each in log.throws
    )
    notes = tuple(
        replace(each, done=aside.reason is not None) if each.id == aside.id else each
        for each in log.notes
    )
    lines = tuple(each for each in log.own_lines if each.id != aside.id)
    after = _with(build, replace(log, throws=throws, notes=notes, own_lines=lines))
    if power is not None:
        flights = tuple(
            replace(each, set_aside=aside.reason) if each.id == aside.id else each
            for each in power.flights
        )
        after = replace(after, power=replace(power, flights=flights))
    known = {each.id for each in log.throws} | {each.id for each in log.notes}
    known |= {each.id for each in log.own_lines}
    known |= {each.id for each in power.flights} if power else set()
    if aside.id not in known:
        raise BuildFaultError([Fault("id", f'nothing here is called "{aside.id}"')])
    return after, after != build
