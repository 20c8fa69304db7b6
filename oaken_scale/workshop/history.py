"""What was changed while the workshop is open, step by step: to take back, to make again."""

from __future__ import annotations

from collections import deque
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import TYPE_CHECKING, Final

from oaken_scale.core.changes.taken_back import Touched, taken_back, touched
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults import check
from oaken_scale.store import builds
from oaken_scale.store.rows import now
from oaken_scale.workshop.held import Held, assessed, exportable
from oaken_scale.workshop.refused import NothingLeftError
from oaken_scale.workshop.written import write

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop

MOST_STEPS: Final = 300
"""So many are kept of all builds together; they share what they did not change."""


@dataclass(frozen=True, slots=True, eq=False)
class Step:
    """One change: the builds that it touched, before and after it, the one that it was made in
    first, and the build that it put away from the shelf."""

    pairs: tuple[tuple[Build, Build], ...]
    away: str | None = None

    def turned(self) -> Step:
        """What makes it again once it was taken back."""
        return Step(tuple((after, before) for before, after in self.pairs), self.away)

    def concerns(self, build_id: str) -> bool:
        """Whether it touched a build."""
        return any(before.id == build_id for before, _ in self.pairs)


@dataclass(frozen=True, slots=True)
class Undone:
    """A build after a step was taken back, or made again, and what that step had touched in it."""

    held: Held
    touched: tuple[Touched, ...]


class History:
    """The changes of a workshop's builds, in the order they were made."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop
        self._done: deque[Step] = deque(maxlen=MOST_STEPS)
        self._undone: deque[Step] = deque(maxlen=MOST_STEPS)

    def kept(self, *pairs: tuple[Build, Build], away: str | None = None) -> None:
        """Remember a change that is on disk now."""
        if away is None and all(before == after for before, after in pairs):
            return
        self._done.append(Step(pairs, away))
        for before, _ in pairs:
            self._undone = deque(
                (each for each in self._undone if not each.concerns(before.id)), MOST_STEPS
            )

    def undo(self, build_id: str) -> Undone:
        """Take the last change of a build back. Raises RefusedError when there is none,
        BuildFaultError where what came later does not let it."""
        return self._taken(build_id, self._done, self._undone, is_undoing=True)

    def redo(self, build_id: str) -> Undone:
        """Make the change again that was taken back last. Raises RefusedError when there is none,
        BuildFaultError where what came later does not let it."""
        return self._taken(build_id, self._undone, self._done, is_undoing=False)

    def _taken(
        self, build_id: str, those: deque[Step], others: deque[Step], is_undoing: bool
    ) -> Undone:
        with self._shop.turn:
            step = next((each for each in reversed(those) if each.concerns(build_id)), None)
            if step is None:
                raise NothingLeftError(is_undoing)
            acted = step if is_undoing else step.turned()
            fresh = []
            with self._shop.database.transaction() as connection:
                for before, after in acted.pairs:
                    held = self._shop.held_by(connection, before.id)
                    build = exportable(check(taken_back(held.build, before, after, now())))
                    told = assessed(held.revision + 1, build)
                    write(connection, held.build, told)
                    fresh.append(told)
                if step.away is not None:
                    away = None if is_undoing else datetime.now(UTC)
                    builds.put_away(connection, step.away, away)
            those.remove(step)
            others.append(step)
            for each in fresh:
                self._shop.tell(self._shop.hold(each))
            own = next(k for k, (before, _) in enumerate(step.pairs) if before.id == build_id)
            return Undone(fresh[own], touched(*step.pairs[own]))
