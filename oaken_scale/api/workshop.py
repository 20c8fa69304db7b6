"""The workshop behind the API: builds held in memory as they are on disk, one write path."""

import sqlite3
import threading
import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from pathlib import Path

from pydantic import ValidationError

from oaken_scale.api.events import Broadcast
from oaken_scale.api.problems import ProblemError, no_such
from oaken_scale.core.assess import Assessment, Notice, assess
from oaken_scale.core.ledger.learned import Learned, elsewhere, learned
from oaken_scale.core.material.drawer import Thing
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build, Pan, Weighing
from oaken_scale.core.model.faults import BuildFaultError, Fault, check, weighing_faults
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.reading_effects import News, news
from oaken_scale.formats import build_file
from oaken_scale.formats.wording import field_faults
from oaken_scale.store import builds, drawer, log, rack, truth
from oaken_scale.store.database import Database


@dataclass(frozen=True, slots=True)
class Held:
    """A build at a revision, and what is told about it."""

    revision: int
    build: Build
    assessment: Assessment


@dataclass(frozen=True, slots=True)
class Kept:
    """A reading as it was kept, the build with it, and what it moved elsewhere."""

    held: Held
    weighing: Weighing
    moved: tuple[News, ...]
    is_new: bool


Change = Callable[[Build], Build]
"""A build made into another."""


class Workshop:
    """All builds of one database. Every write raises the build's revision by one."""

    def __init__(self, path: Path) -> None:
        """Open the database at ``path``."""
        self.database = Database(path)
        self.broadcast = Broadcast()
        self._held: dict[str, Held] = {}
        self._pans: dict[str, dict[Pan, Pan]] = {}
        self._learned: dict[str, tuple[int, Learned]] = {}
        self._turn = threading.RLock()
        with self.database.transaction() as connection:
            if not rack.read_rack(connection):
                for lot in STARTER:
                    rack.write_rack_lot(connection, lot)

    def close(self) -> None:
        """Close the database."""
        self.database.close()

    def shelf(self) -> list[tuple[builds.Shelved, Held]]:
        """Every build, in the order they were begun. One that nothing can be told of stands there
        with a word about it: it takes no other down."""
        with self._turn:
            with self.database.reading() as connection:
                rows = builds.shelf(connection)
            return [(row, self.held(row.id)) for row in rows]

    def files(self) -> list[Build]:
        """Every build as it is in the database, nothing worked out of it."""
        with self._turn, self.database.reading() as connection:
            found = [builds.read_build(connection, row.id) for row in builds.shelf(connection)]
        return [build for build in found if build is not None]

    def held(self, build_id: str) -> Held:
        """A build as it is now. Raises a 404 problem when there is none."""
        with self._turn, self.database.reading() as connection:
            return self._held_by(connection, build_id)

    def _held_by(self, connection: sqlite3.Connection, build_id: str) -> Held:
        """A build as a connection sees it: within a transaction nobody can come between."""
        number = builds.revision(connection, build_id)
        if number is None:
            raise no_such("build", build_id)
        held = self._held.get(build_id)
        if held is not None and held.revision == number:
            return held
        build = builds.read_build(connection, build_id)
        if build is None:
            raise no_such("build", build_id)
        try:
            held = assessed(number, build)
        except BuildFaultError as error:
            held = Held(number, build, _untold(build, error))
        return self._hold(held)

    def add(
        self, build: Build, hidden: tuple[dict[str, float], dict[str, float]] | None = None
    ) -> Held:
        """Put a build on the shelf under an id of its own; one of the same id stays as it is.

        Its lots and things are its own until they are put on the rack: what a file learned
        elsewhere must not be counted here a second time. ``hidden`` are the true masses by item
        and constants by lot that its simulated scale knows.
        """
        with self._turn:
            fresh = replace(
                build,
                id=str(uuid.uuid4()),
                lots=tuple(replace(lot, rack=None) for lot in build.lots),
                items=tuple(replace(item, thing=None) for item in build.items),
            )
            held = assessed(1, exportable(fresh))
            with self.database.transaction() as connection:
                builds.add_build(connection, fresh, _now())
                if hidden is not None:
                    truth.write_truth(connection, fresh.id, *hidden)
            return self._hold(held)

    def change(
        self,
        build_id: str,
        revision: int | None,
        change: Change,
        others: Mapping[str, Change] | None = None,
        hung: Lot | None = None,
        away: str | None = None,
    ) -> Held:
        """Change a build that is still at ``revision``, or (None) wherever it is.

        In the same transaction ``others`` change too, a lot is ``hung`` on the rack, and another
        build is put ``away``. The revision is read, the change applied and everything told of it
        worked out inside that transaction, and only then written: two servers on one database
        never overwrite each other, and a build that cannot be assessed is never kept. Readings
        that a change adds come after those that are there.
        Raises a 412 problem when it has moved on, BuildFaultError when the change cannot stand.
        """
        with self._turn:
            with self.database.transaction() as connection:
                held = self._held_by(connection, build_id)
                _still_at(held, revision)
                steps = [(held, change)]
                steps += [(self._held_by(connection, id), do) for id, do in (others or {}).items()]
                fresh = [
                    assessed(before.revision + 1, exportable(check(do(before.build))))
                    for before, do in steps
                ]
                described = self._described_anew(connection, held, fresh[0].build, hung)
                if hung is not None:
                    rack.write_rack_lot(connection, hung)
                for lot in described:
                    rack.write_rack_lot(connection, replace(lot, id=lot.rack or lot.id))
                for (before, _), after in zip(steps, fresh, strict=True):
                    _write(connection, before.build, after)
                fresh += self._spread(connection, described, besides=build_id)
                if away is not None:
                    builds.put_away(connection, away, _now())
            told = [self._tell(self._hold(each)) for each in fresh]
            return told[0]

    def record(self, build_id: str, weighing: Weighing) -> Kept:
        """Append a reading.

        A reading sent again under its id is answered as the first time and recorded once.
        Raises a 409 problem when the id belongs to another reading.
        """
        with self._turn:
            with self.database.transaction() as connection:
                held = self._held_by(connection, build_id)
                known = next((w for w in held.build.weighings if w.id == weighing.id), None)
                if known is not None:
                    if _same_reading(known, weighing):
                        return Kept(held, known, (), is_new=False)
                    raise _taken(weighing.id)
                found = tuple(weighing_faults(held.build, weighing))
                if found:
                    raise BuildFaultError(found)
                pans = self._pans.setdefault(build_id, {})
                pan = pans.setdefault(weighing.pan, weighing.pan)
                weighing = replace(weighing, pan=pan)
                after = replace(held.build, weighings=(*held.build.weighings, weighing))
                fresh = assessed(held.revision + 1, after)
                log.append_weighing(connection, build_id, weighing)
                builds.raise_revision(connection, build_id)
            self._tell(self._hold(fresh))
            moved = news(after, weighing.pan, held.assessment, fresh.assessment)
            return Kept(fresh, weighing, moved, is_new=True)

    def set_aside(
        self, build_id: str, weighing_id: str, reason: str | None, restore: bool = False
    ) -> Held:
        """Set a reading aside with a reason, or (None) let it speak again.

        With ``restore`` the reading that it corrects speaks again in its place.
        """
        with self._turn:
            with self.database.transaction() as connection:
                held = self._held_by(connection, build_id)
                weighing = _reading(held, weighing_id)
                fates: dict[str, str | None] = {}
                if weighing.set_aside != reason:
                    fates[weighing_id] = reason
                if restore and weighing.corrects is not None:
                    fates[_reading(held, weighing.corrects).id] = None
                if not fates:
                    return held
                fresh = assessed(held.revision + 1, _with_fates(held.build, fates))
                for id, why in fates.items():
                    log.set_aside(connection, build_id, id, why, _now())
                builds.raise_revision(connection, build_id)
            return self._tell(self._hold(fresh))

    def accept(self, build_id: str, weighing_id: str, accepted: bool) -> Held:
        """Accept a doubtful reading as it is, or doubt it again."""
        with self._turn:
            with self.database.transaction() as connection:
                held = self._held_by(connection, build_id)
                if _reading(held, weighing_id).accepted == accepted:
                    return held
                after = replace(
                    held.build,
                    weighings=tuple(
                        replace(each, accepted=accepted) if each.id == weighing_id else each
                        for each in held.build.weighings
                    ),
                )
                fresh = assessed(held.revision + 1, after)
                log.accept(connection, build_id, weighing_id, accepted, _now())
                builds.raise_revision(connection, build_id)
            return self._tell(self._hold(fresh))

    def correct(self, build_id: str, wrong: Weighing, fresh: Weighing, reason: str) -> Held:
        """Record a reading in place of another, which is set aside: both, or neither.

        Sent again under its id it is done once. Raises a 409 problem when the id belongs to another
        reading, BuildFaultError when the new row cannot stand.
        """
        with self._turn:
            with self.database.transaction() as connection:
                held = self._held_by(connection, build_id)
                known = next((each for each in held.build.weighings if each.id == fresh.id), None)
                if known is not None:
                    if _same_reading(known, fresh):
                        return held
                    raise _taken(fresh.id)
                found = tuple(weighing_faults(held.build, fresh))
                if found:
                    raise BuildFaultError(found)
                aside = _with_fates(held.build, {wrong.id: reason})
                after = replace(aside, weighings=(*aside.weighings, fresh))
                put_right = assessed(held.revision + 1, after)
                log.set_aside(connection, build_id, wrong.id, reason, _now())
                log.append_weighing(connection, build_id, fresh)
                builds.raise_revision(connection, build_id)
            return self._tell(self._hold(put_right))

    def reading(self, build_id: str, weighing_id: str) -> Weighing:
        """One reading of a build. Raises a 404 problem when there is none."""
        return _reading(self.held(build_id), weighing_id)

    def rack(self) -> tuple[Lot, ...]:
        """The lots on the rack."""
        with self._turn, self.database.reading() as connection:
            return rack.read_rack(connection)

    def rack_lot(self, rack_id: str) -> Lot:
        """One lot of the rack. Raises a 404 problem when there is none."""
        found = next((lot for lot in self.rack() if lot.id == rack_id), None)
        if found is None:
            raise no_such("lot on the rack", rack_id)
        return found

    def using(self, rack_id: str) -> list[str]:
        """The builds that use a lot of the rack."""
        with self._turn, self.database.reading() as connection:
            return rack.using_lot(connection, rack_id)

    def hang(self, lot: Lot) -> None:
        """Hang a lot on the rack, or change what is said of it, here and in every build."""
        with self._turn:
            shelved = replace(lot, rack=lot.id, elsewhere=None)
            with self.database.transaction() as connection:
                spread = self._spread(connection, (shelved,))
                rack.write_rack_lot(connection, shelved)
            for each in spread:
                self._tell(self._hold(each))

    def take_down(self, rack_id: str) -> None:
        """Take a lot off the rack. Raises a 409 problem while a build uses it."""
        with self._turn:
            lot = self.rack_lot(rack_id)
            names = [self.held(id).build.name for id in self.using(rack_id)]
            if names:
                raise _in_use(lot.name, names, "lot_id")
            with self.database.transaction() as connection:
                rack.take_off_rack(connection, rack_id)

    def drawer(self) -> list[tuple[Thing, list[tuple[str, str]]]]:
        """The things in the drawer, and where each sits now: build and item."""
        with self._turn, self.database.reading() as connection:
            things = drawer.read_drawer(connection)
            return [(thing, drawer.holding(connection, thing.id)) for thing in things]

    def thing(self, thing_id: str) -> Thing:
        """One thing of the drawer. Raises a 404 problem when there is none."""
        found = next((thing for thing, _ in self.drawer() if thing.id == thing_id), None)
        if found is None:
            raise no_such("thing in the drawer", thing_id)
        return found

    def lay(self, thing: Thing) -> None:
        """Lay a thing into the drawer, or change what is said of it."""
        with self._turn, self.database.transaction() as connection:
            drawer.write_thing(connection, thing)

    def take_out(self, thing_id: str) -> None:
        """Take a thing out of the drawer for good. Raises a 409 problem while a build holds it."""
        with self._turn:
            thing = self.thing(thing_id)
            with self.database.reading() as connection:
                where = drawer.holding(connection, thing_id)
            if where:
                names = [self.held(build_id).build.name for build_id, _ in where]
                raise _in_use(thing.name, names, "thing_id")
            with self.database.transaction() as connection:
                drawer.take_out_of_drawer(connection, thing_id)

    def learned(self, build_id: str) -> Learned:
        """What a build's own weighings say of what it shares; kept until it changes."""
        with self._turn:
            held = self.held(build_id)
            known = self._learned.get(build_id)
            if known is None or known[0] != held.revision:
                known = self._learned[build_id] = (held.revision, learned(held.build))
            return known[1]

    def share(self, build_id: str) -> None:
        """Let the builds that share a lot or a thing with this one know what it learned, and it
        what they did. Each that this moves counts a revision."""
        with self._turn:
            build = self.held(build_id).build
            if not any(lot.rack for lot in build.lots) and not any(i.thing for i in build.items):
                return
            with self.database.reading() as connection:
                around = rack.sharing(connection, build_id)
            for id in (build_id, *around):
                with self.database.reading() as connection:
                    others = rack.sharing(connection, id)
                self._take_in(id, others)

    def _take_in(self, build_id: str, others: list[str]) -> None:
        told = [(self.held(id).build.name, self.learned(id)) for id in others]
        with self.database.transaction() as connection:
            held = self._held_by(connection, build_id)
            after = elsewhere(held.build, told)
            if (after.lots, after.items) == (held.build.lots, held.build.items):
                return
            fresh = assessed(held.revision + 1, after)
            _write(connection, held.build, fresh)
        self._tell(self._hold(fresh))

    def _described_anew(
        self, connection: sqlite3.Connection, held: Held, after: Build, hung: Lot | None
    ) -> tuple[Lot, ...]:
        """The lots of the rack whose description a change alters. Raises BuildFaultError when a
        lot names one that is not on the rack."""
        if held.build.lots is after.lots:
            return ()
        was = {lot.id: lot for lot in held.build.lots}
        on_rack = {lot.id for lot in (*rack.read_rack(connection), *((hung,) if hung else ()))}
        for k, lot in enumerate(after.lots):
            if lot.rack is not None and lot.rack not in on_rack:
                words = f'no lot "{lot.rack}" on the rack; leave it out, or hang it up first'
                raise BuildFaultError([Fault(f"lots.{k}.rack", words)])
        return tuple(
            lot
            for lot in after.lots
            if lot.rack is not None
            and (old := was.get(lot.id)) is not None
            and old.rack == lot.rack
            and replace(old, elsewhere=lot.elsewhere) != lot
        )

    def _spread(
        self, connection: sqlite3.Connection, lots: tuple[Lot, ...], besides: str | None = None
    ) -> list[Held]:
        """Write what is said of lots of the rack into the other builds that use them."""
        fresh = {lot.rack: lot for lot in lots}
        ids = {id for lot in lots for id in rack.using_lot(connection, lot.rack or "")}
        moved = []
        for id in sorted(ids - {besides}):
            before = self._held_by(connection, id)
            after = replace(
                before.build,
                lots=tuple(
                    replace(fresh[lot.rack], id=lot.id, elsewhere=lot.elsewhere)
                    if lot.rack in fresh
                    else lot
                    for lot in before.build.lots
                ),
            )
            held = assessed(before.revision + 1, after)
            _write(connection, before.build, held)
            moved.append(held)
        return moved

    def put_away(self, build_id: str, away: bool) -> None:
        """Take a build off the shelf, or put it back; nothing is deleted."""
        with self._turn:
            self.held(build_id)
            with self.database.transaction() as connection:
                builds.put_away(connection, build_id, _now() if away else None)

    def truth(self, build_id: str) -> tuple[dict[str, float], dict[str, float]]:
        """What the simulated scale knows: true masses by item, constants by lot."""
        with self.database.reading() as connection:
            return truth.read_truth(connection, build_id)

    def _hold(self, held: Held) -> Held:
        build = held.build
        if build.id not in self._pans:
            self._pans[build.id] = {each.pan: each.pan for each in build.weighings}
        self._held[build.id] = held
        return held

    def _tell(self, held: Held) -> Held:
        self.broadcast.tell(held.build.id, "changed", {"revision": held.revision})
        return held


def assessed(revision: int, build: Build) -> Held:
    """A build with all that is told about it. Raises BuildFaultError where nothing can be told."""
    try:
        return Held(revision, build, assess(build))
    except BuildFaultError:
        raise
    except (ArithmeticError, ValueError, LookupError, TypeError, AttributeError) as error:
        words = (
            "cannot be worked out as it would be then; look at masses below zero, pockets larger "
            f"than what they are cut from, and figures far off ({type(error).__name__})"
        )
        raise BuildFaultError([Fault("build", words)]) from error


def exportable(build: Build) -> Build:
    """The build, if its file can be written: what may be kept may be exported, always.

    Raises BuildFaultError naming what is over its limit.
    """
    try:
        build_file.BuildDoc.model_validate(replace(build, weighings=()))
    except ValidationError as error:
        raise BuildFaultError(field_faults(error.errors())) from error
    if len(build.weighings) > limits.WEIGHINGS:
        words = f"there are {len(build.weighings)}; a build holds at most {limits.WEIGHINGS}"
        raise BuildFaultError([Fault("weighings", words)])
    return build


def _untold(build: Build, error: BuildFaultError) -> Assessment:
    """What stands in for all that cannot be told of a build, and why."""
    empty = assess(Build(build.id, build.name, scales=build.scales))
    words = f"Nothing can be told about this build as it is: {error}. Take back what was done last."
    notice = Notice("cannot_be_assessed", words)
    return replace(empty, notices=(notice,))


def _write(connection: sqlite3.Connection, before: Build, after: Held) -> None:
    """Write what differs, readings that were added, and the next revision."""
    builds.write_changes(connection, before, after.build)
    for weighing in after.build.weighings[len(before.weighings) :]:
        builds.add_reading(connection, after.build.id, weighing, _now())
    builds.raise_revision(connection, after.build.id)


def _still_at(held: Held, revision: int | None) -> None:
    """Raise a 412 problem when a build has moved on."""
    if revision is not None and held.revision != revision:
        raise ProblemError(
            412,
            "This page is out of date",
            f"the change was made to revision {revision}, the build is at "
            f"{held.revision} now; nothing was changed, look again and repeat it",
            "If-Match",
        )


def _same_reading(known: Weighing, again: Weighing) -> bool:
    """Whether a reading sent again is the one that was kept, its time and fate apart."""
    fated = replace(again, at=known.at, set_aside=known.set_aside, accepted=known.accepted)
    return fated == known


def _reading(held: Held, weighing_id: str) -> Weighing:
    found = next((each for each in held.build.weighings if each.id == weighing_id), None)
    if found is None:
        raise no_such("reading", weighing_id)
    return found


def _with_fates(build: Build, fates: Mapping[str, str | None]) -> Build:
    """The build with some of its readings set aside, or speaking again."""
    return replace(
        build,
        weighings=tuple(
            replace(each, set_aside=fates[each.id]) if each.id in fates else each
            for each in build.weighings
        ),
    )


def _taken(id: str) -> ProblemError:
    words = f'a different reading already has the id "{id}"; give a new one'
    return ProblemError(409, "That id is taken", words, "id")


def _in_use(name: str, builds_using: list[str], field: str) -> ProblemError:
    where = ", ".join(builds_using[:4])
    return ProblemError(
        409, "It is in use", f"{name} is in {where}; take it out of there first", field
    )


def _now() -> datetime:
    return datetime.now(UTC)
