"""What builds that share a lot or a thing learn from one another."""

from __future__ import annotations

import sqlite3
from dataclasses import replace
from typing import TYPE_CHECKING

from oaken_scale.core.ledger.learned import Learned, elsewhere, learned
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot
from oaken_scale.store import rack
from oaken_scale.workshop.held import Held, assessed
from oaken_scale.workshop.written import write

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop


def shares(build: Build) -> bool:
    """Whether a build has a lot from the rack, or a thing from the drawer."""
    return any(lot.rack for lot in build.lots) or any(part.thing for part in build.parts)


class Sharing:
    """What a workshop's builds tell one another."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop
        self._known: dict[str, tuple[int, Learned]] = {}

    def learned(self, build_id: str) -> Learned:
        """What a build's own weighings say of what it shares; kept until it changes."""
        with self._shop.turn:
            held = self._shop.held(build_id)
            known = self._known.get(build_id)
            if known is None or known[0] != held.revision:
                known = self._known[build_id] = (held.revision, learned(held.build))
            return known[1]

    def share(self, build_id: str) -> None:
        """Let the builds that share a lot or a thing with this one know what it learned, and it
        what they did. Each that this moves counts a revision."""
        with self._shop.turn:
            build = self._shop.held(build_id).build
            if not shares(build):
                return
            with self._shop.database.reading() as connection:
                around = rack.sharing(connection, build_id)
            for id in (build_id, *around):
                with self._shop.database.reading() as connection:
                    others = rack.sharing(connection, id)
                self._take_in(id, others)

    def _take_in(self, build_id: str, others: list[str]) -> None:
        told = [(self._shop.held(id).build.name, self.learned(id)) for id in others]
        with self._shop.database.transaction() as connection:
            held = self._shop.held_by(connection, build_id)
            after = elsewhere(held.build, told)
            if (after.lots, after.parts) == (held.build.lots, held.build.parts):
                return
            fresh = assessed(held.revision + 1, after)
            write(connection, held.build, fresh)
        self._shop.tell(self._shop.hold(fresh))

    def described_anew(
        self, connection: sqlite3.Connection, held: Held, after: Build, hung: str | None
    ) -> tuple[Lot, ...]:
        """The lots of the rack whose description a change alters, and the build's own that is
        ``hung`` there now. Raises BuildFaultError when a lot names one that is not on the rack."""
        if held.build.lots is after.lots:
            return ()
        was = {lot.id: lot for lot in held.build.lots}
        on_rack = {lot.id for lot in rack.read_rack(connection)}
        for k, lot in enumerate(after.lots):
            if lot.rack is not None and lot.rack not in on_rack and lot.id != hung:
                words = f'no lot "{lot.rack}" on the rack; leave it out, or hang it up first'
                raise BuildFaultError([Fault(f"lots.{k}.rack", words)])
        return tuple(
            replace(lot, elsewhere=None) if lot.id == hung else lot
            for lot in after.lots
            if lot.rack is not None
            and (old := was.get(lot.id)) is not None
            and (old.rack == lot.rack or lot.id == hung)
            and replace(old, elsewhere=lot.elsewhere) != lot
        )

    def spread(
        self, connection: sqlite3.Connection, lots: tuple[Lot, ...], besides: str | None = None
    ) -> list[Held]:
        """Write what is said of lots of the rack into the other builds that use them."""
        fresh = {lot.rack: lot for lot in lots}
        ids = {id for lot in lots for id in rack.using_lot(connection, lot.rack or "")}
        moved = []
        for id in sorted(ids - {besides}):
            before = self._shop.held_by(connection, id)
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
            write(connection, before.build, held)
            moved.append(held)
        return moved
