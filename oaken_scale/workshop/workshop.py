"""The workshop: all builds of one database, and the one way to change them."""

import sqlite3
import threading
import uuid
from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from pathlib import Path

from oaken_scale.core.changes.drawn_parts import following
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.day import Done
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.weighing import Pan
from oaken_scale.store import builds, truth
from oaken_scale.store import rack as rack_rows
from oaken_scale.store.database import Database
from oaken_scale.store.day import read_done
from oaken_scale.store.rescue import read_note
from oaken_scale.store.rows import now
from oaken_scale.store.tags import read_tags
from oaken_scale.workshop import tags
from oaken_scale.workshop.broadcast import Broadcast
from oaken_scale.workshop.doorkeeper import Doorkeeper
from oaken_scale.workshop.held import Held, assessed, exportable, still_at, untold
from oaken_scale.workshop.history import History
from oaken_scale.workshop.logs import Logs
from oaken_scale.workshop.outings import Outings
from oaken_scale.workshop.readings import Readings
from oaken_scale.workshop.refused import NoSuchError
from oaken_scale.workshop.sharing import Sharing
from oaken_scale.workshop.stock import Drawer, Rack, Wants
from oaken_scale.workshop.written import keep_tag, write

Change = Callable[[Build], Build]
"""A build made into another."""

Verb = Callable[[Mapping[str, Build]], Mapping[str, Build]]
"""Builds by their ids made into others; those that it leaves out stay as they are."""


class Workshop:
    """All builds of one database. Every write raises the build's revision by one."""

    def __init__(self, path: Path) -> None:
        """Open the database at ``path``."""
        self.database = Database(path)
        self.broadcast = Broadcast()
        self._held: dict[str, Held] = {}
        self.pans: dict[str, dict[Pan, Pan]] = {}
        self.logs = Logs()
        self.turn = threading.RLock()
        self.readings, self.rack, self.drawer = Readings(self), Rack(self), Drawer(self)
        self.wants = Wants(self)
        self.outings = Outings(self)
        self.door = Doorkeeper(self)
        self.history = History(self)
        self.sharing = Sharing(self)
        with self.database.transaction() as connection:
            if not rack_rows.read_rack(connection):
                for lot in STARTER:
                    rack_rows.write_rack_lot(connection, lot)

    def close(self) -> None:
        """Close the database."""
        self.database.close()

    def rows(self) -> list[builds.Shelved]:
        """Every build on the shelf, in the order they were begun."""
        with self.database.reading() as connection:
            return builds.shelf(connection)

    def shelf(self) -> list[tuple[builds.Shelved, tags.Tag]]:
        """Every build with its tag, in the order they were begun: as it was worked out when the
        build was written last, or now where nothing holds any more. One that nothing can be told
        of takes no other down."""
        with self.turn:
            with self.database.reading() as connection:
                rows = builds.shelf(connection)
                kept = read_tags(connection, tags.reckoning())
            known = {id: tag for id, says in kept.items() if (tag := tags.read(says)) is not None}
            missing = {row.id: self.held(row.id) for row in rows if row.id not in known}
            known |= {id: tags.tag_of(held) for id, held in missing.items()}
            if missing:
                with self.database.transaction() as connection:
                    for held in missing.values():
                        keep_tag(connection, held)
            return [(row, known[row.id]) for row in rows]

    def files(self, which: Callable[[builds.Shelved], bool] = lambda _: True) -> list[Build]:
        """Builds as they are in the database, nothing worked out of them."""
        with self.turn, self.database.reading() as connection:
            rows = [row for row in builds.shelf(connection) if which(row)]
            found = [self._at_hand(row) or builds.read_build(connection, row.id) for row in rows]
        return [build for build in found if build is not None]

    def _at_hand(self, row: builds.Shelved) -> Build | None:
        held = self._held.get(row.id)
        return held.build if held is not None and held.revision == row.revision else None

    def held(self, build_id: str) -> Held:
        """A build as it is now. Raises NoSuchError when there is none."""
        with self.turn, self.database.reading() as connection:
            return self.held_by(connection, build_id)

    def held_by(self, connection: sqlite3.Connection, build_id: str) -> Held:
        """A build as a connection sees it: within a transaction nobody can come between."""
        number = builds.revision(connection, build_id)
        if number is None:
            raise NoSuchError("build", build_id)
        held = self._held.get(build_id)
        if held is not None and held.revision == number:
            return held
        build = builds.read_build(connection, build_id)
        if build is None:
            raise NoSuchError("build", build_id)
        try:
            held = assessed(number, build)
        except BuildFaultError as error:
            held = Held(number, build, untold(build, error), planned=number)
        return self.hold(held)

    def add(
        self,
        build: Build,
        hidden: tuple[dict[str, float], dict[str, float]] | None = None,
        is_of_here: bool = False,
    ) -> Held:
        """Put a build on the shelf under an id of its own; one of the same id stays as it is.

        Its lots and things are its own until they are put on the rack: what a file learned
        elsewhere must not be counted here a second time. One that ``is_of_here`` was made of this
        rack and this drawer, and shares them. ``hidden`` are the true masses by part and constants
        by lot that its simulated scale knows.
        """
        with self.turn:
            fresh = replace(build, id=str(uuid.uuid4()))
            if not is_of_here:
                fresh = replace(
                    fresh,
                    lots=tuple(replace(lot, rack=None) for lot in build.lots),
                    parts=tuple(replace(part, thing=None) for part in build.parts),
                )
            held = assessed(1, exportable(fresh))
            with self.database.transaction() as connection:
                builds.add_build(connection, fresh, now())
                keep_tag(connection, held)
                if hidden is not None:
                    truth.write_truth(connection, fresh.id, *hidden)
            return self.hold(held)

    def change(
        self,
        build_id: str,
        revision: int | None,
        change: Change,
        away: str | None = None,
        is_exact: bool = False,
        unless: Callable[[Build], bool] | None = None,
    ) -> Held:
        """Change a build that is still at ``revision``, or (None) wherever it is; see
        :meth:`change_together`. ``unless`` says that it was done already: then it stays."""

        def of_one(builds: Mapping[str, Build]) -> Mapping[str, Build]:
            build = builds[build_id]
            return {} if unless is not None and unless(build) else {build_id: change(build)}

        return self.change_together(
            build_id, revision, lambda: (), of_one, away=away, is_exact=is_exact
        )

    def change_together(
        self,
        build_id: str,
        revision: int | None,
        others: Callable[[], Iterable[str]],
        verb: Verb,
        hung: str | None = None,
        away: str | None = None,
        back: str | None = None,
        is_remembered: bool = True,
        is_exact: bool = False,
    ) -> Held:
        """Change builds in one transaction: one that is still at ``revision``, or (None) wherever
        it is, and ``others``, asked for inside it; a lot of its own (``hung``) is put on the rack,
        and another build ``away``, or ``back`` on the shelf.

        The revision is read, the verb applied and everything told of what it makes worked out
        inside that transaction, and only then written: two servers on one database never overwrite
        each other, and a build that cannot be assessed is never kept. Readings that a verb adds
        come after those that are there.
        ``is_remembered``: it can be taken back. ``is_exact``: not even a reading may have come
        between, for the change was worked out from them all.
        A verb that makes nothing of anything was done already: nothing is written.
        Raises OutOfDateError when it has moved on, BuildFaultError when the change cannot stand.
        """
        with self.turn:
            with self.database.transaction() as connection:
                held = self.held_by(connection, build_id)
                still_at(held, revision, is_exact)
                all_of_them = tuple(dict.fromkeys((*others(), build_id)))
                before = {id: self._standing(connection, id) for id in all_of_them}
                after = verb({id: build for id, (_, build) in before.items()})
                if not after:
                    return held
                touched = (build_id, *(id for id in after if id != build_id))
                steps = [(*before[id], after[id]) for id in touched]
                fresh = [assessed(at + 1, _kept(was, build)) for at, was, build in steps]
                described = self.sharing.described_anew(connection, held, fresh[0].build, hung)
                for lot in described:
                    rack_rows.write_rack_lot(connection, replace(lot, id=lot.rack or lot.id))
                for (_, was, _), each in zip(steps, fresh, strict=True):
                    write(connection, was, each)
                fresh += self.sharing.spread(connection, described, besides=build_id)
                if away is not None:
                    builds.put_away(connection, away, now())
                if back is not None:
                    builds.put_away(connection, back, None)
            if is_remembered:
                pairs = ((was, each.build) for (_, was, _), each in zip(steps, fresh, strict=False))
                self.history.kept(*pairs, away=away, made=fresh[0].revision)
            told = [self.tell(self.hold(each)) for each in fresh]
            return told[0]

    def _standing(self, connection: sqlite3.Connection, build_id: str) -> tuple[int, Build]:
        """A build and its revision as a connection sees it, nothing worked out of it."""
        number = builds.revision(connection, build_id)
        held = self._held.get(build_id)
        if held is not None and held.revision == number:
            return held.revision, held.build
        build = builds.read_build(connection, build_id)
        if number is None or build is None:
            raise NoSuchError("build", build_id)
        return number, build

    def put_away(self, build_id: str, away: bool) -> None:
        """Take a build off the shelf, or put it back; nothing is deleted."""
        with self.turn:
            self.held(build_id)
            with self.database.transaction() as connection:
                builds.put_away(connection, build_id, now() if away else None)

    def rescued(self) -> str | None:
        """What was saved when the workshop's file had been damaged; None where it never was."""
        with self.database.reading() as connection:
            return read_note(connection)

    def timed_steps(self, besides: str) -> tuple[Done, ...]:
        """The steps of the other builds that somebody timed."""
        with self.database.reading() as connection:
            return read_done(connection, besides)

    def truth(self, build_id: str) -> tuple[dict[str, float], dict[str, float]]:
        """What the simulated scale knows: true masses by part, constants by lot."""
        with self.database.reading() as connection:
            return truth.read_truth(connection, build_id)

    def hold(self, held: Held) -> Held:
        """Keep a build at hand as it is on disk now."""
        build = held.build
        if build.id not in self.pans:
            self.pans[build.id] = {each.pan: each.pan for each in build.weighings}
        self._held[build.id] = held
        return held

    def tell(self, held: Held) -> Held:
        """Let every page of a build know that it changed."""
        self.broadcast.tell(held.build.id, "changed", {"revision": held.revision})
        return held


def _kept(before: Build, after: Build) -> Build:
    """A build as it may be kept: what follows from its drawing follows, and it is whole."""
    return exportable(validated(following(before, after)), before)
