"""What comes home from the field into the log of a build, each once and in its order."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from oaken_scale.core.at_the_field import flight_faults, taken_now
from oaken_scale.core.changes.outing import Entry, came_home
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.power import Flight
from oaken_scale.workshop.held import Held, assessed
from oaken_scale.workshop.written import write

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop


@dataclass(frozen=True, slots=True)
class Home:
    """A build after an entry came home, and whether the entry is new."""

    held: Held
    is_new: bool


class Outings:
    """The entries of a workshop's builds."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop

    def come_home(self, build_id: str, entry: Entry) -> Home:
        """Keep an entry. One that is there already changes nothing.

        Raises NoSuchError for no such build, BuildFaultError where the entry cannot stand.
        """
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                held = self._shop.held_by(connection, build_id)
                if isinstance(entry, Throw):
                    entry = taken_now(held.build, held.assessment, entry)
                if isinstance(entry, Flight):
                    found = tuple(flight_faults(held.build, held.assessment, entry))
                    if found:
                        raise BuildFaultError(found)
                after, is_new = came_home(held.build, entry)
                if not is_new:
                    return Home(held, is_new=False)
                if after.power == held.build.power:
                    # Nothing that is told on the rods reads what was thrown, ticked or noted.
                    number = held.revision + 1
                    fresh = replace(held, revision=number, build=after, planned=number)
                else:
                    fresh = assessed(held.revision + 1, validated(after))
                write(connection, held.build, fresh)
            self._shop.history.kept((held.build, after))
            return Home(self._shop.tell(self._shop.hold(fresh)), is_new=True)
