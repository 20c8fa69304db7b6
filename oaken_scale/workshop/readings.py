"""The log of a build: readings recorded, set aside, accepted, put right; never deleted."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.log import weighing_faults
from oaken_scale.core.model.grown import with_reading
from oaken_scale.core.model.weighing import Weighing
from oaken_scale.core.reading_effects import news
from oaken_scale.store import log
from oaken_scale.store.rows import now
from oaken_scale.workshop.held import Held, Kept, assessed
from oaken_scale.workshop.refused import NoSuchError, TakenError
from oaken_scale.workshop.written import count_up

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop


class Readings:
    """The readings of a workshop's builds."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop

    def record(self, build_id: str, weighing: Weighing) -> Kept:
        """Append a reading.

        A reading sent again under its id is answered as the first time and recorded once.
        Raises RefusedError when the id belongs to another reading.
        """
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                held = self._shop.held_by(connection, build_id)
                known = self._shop.logs.of(held.build).get(weighing.id)
                if known is not None:
                    if _same_reading(known, weighing):
                        return Kept(held, known, (), is_new=False)
                    raise TakenError(weighing.id)
                found = tuple(weighing_faults(held.build, weighing))
                if found:
                    raise BuildFaultError(found)
                pans = self._shop.pans.setdefault(build_id, {})
                pan = pans.setdefault(weighing.pan, weighing.pan)
                weighing = replace(weighing, pan=pan)
                after = replace(held.build, weighings=with_reading(held.build.weighings, weighing))
                self._shop.logs.grew(held.build, after)
                fresh = replace(assessed(held.revision + 1, after), planned=held.planned)
                log.append_weighing(connection, build_id, weighing)
                count_up(connection, fresh)
            self._shop.history.kept((held.build, after))
            self._shop.tell(self._shop.hold(fresh))
            moved = news(after, weighing.pan, held.assessment, fresh.assessment)
            return Kept(fresh, weighing, moved, is_new=True)

    def set_aside(
        self, build_id: str, ids: Sequence[str], reason: str | None, restore: bool = False
    ) -> Held:
        """Set readings aside with a reason, or (None) let them speak again: all, or none.

        With ``restore`` the readings that they correct speak again in their place.
        """
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                held = self._shop.held_by(connection, build_id)
                fates: dict[str, str | None] = {}
                for weighing in (_reading(held, id) for id in ids):
                    if weighing.set_aside != reason:
                        fates[weighing.id] = reason
                    if restore and weighing.corrects is not None:
                        fates[_reading(held, weighing.corrects).id] = None
                if not fates:
                    return held
                fresh = assessed(held.revision + 1, _with_fates(held.build, fates))
                for id, why in fates.items():
                    log.set_aside(connection, build_id, id, why, now())
                count_up(connection, fresh)
            self._shop.history.kept((held.build, fresh.build))
            return self._shop.tell(self._shop.hold(fresh))

    def accept(self, build_id: str, weighing_id: str, accepted: bool) -> Held:
        """Accept a doubtful reading as it is, or doubt it again."""
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                held = self._shop.held_by(connection, build_id)
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
                log.accept(connection, build_id, weighing_id, accepted, now())
                count_up(connection, fresh)
            self._shop.history.kept((held.build, fresh.build))
            return self._shop.tell(self._shop.hold(fresh))

    def correct(self, build_id: str, wrong: Weighing, fresh: Weighing, reason: str) -> Held:
        """Record a reading in place of another, which is set aside: both, or neither.

        Sent again under its id it is done once. Raises RefusedError when the id belongs to another
        reading, BuildFaultError when the new row cannot stand.
        """
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                held = self._shop.held_by(connection, build_id)
                known = self._shop.logs.of(held.build).get(fresh.id)
                if known is not None:
                    if _same_reading(known, fresh):
                        return held
                    raise TakenError(fresh.id)
                found = tuple(weighing_faults(held.build, fresh))
                if found:
                    raise BuildFaultError(found)
                aside = _with_fates(held.build, {wrong.id: reason})
                after = replace(aside, weighings=with_reading(aside.weighings, fresh))
                put_right = assessed(held.revision + 1, after)
                log.set_aside(connection, build_id, wrong.id, reason, now())
                log.append_weighing(connection, build_id, fresh)
                count_up(connection, put_right)
            self._shop.history.kept((held.build, after))
            return self._shop.tell(self._shop.hold(put_right))

    def one(self, build_id: str, weighing_id: str) -> Weighing:
        """One reading of a build. Raises RefusedError when there is none."""
        return _reading(self._shop.held(build_id), weighing_id)


def _same_reading(known: Weighing, again: Weighing) -> bool:
    """Whether a reading sent again is the one that was kept, its time and fate apart."""
    fated = replace(again, at=known.at, set_aside=known.set_aside, accepted=known.accepted)
    return fated == known


def _reading(held: Held, weighing_id: str) -> Weighing:
    found = next((each for each in held.build.weighings if each.id == weighing_id), None)
    if found is None:
        raise NoSuchError("reading", weighing_id)
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
