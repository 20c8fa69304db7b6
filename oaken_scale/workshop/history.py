"""What was changed while the workshop is open, step by step: to take back, to make again."""

from __future__ import annotations

from collections import deque
from collections.abc import Mapping
from dataclasses import dataclass
from functools import partial
from typing import TYPE_CHECKING, Final

from oaken_scale.core.changes.taken_back import Touched, taken_back, touched
from oaken_scale.core.model.build import Build
from oaken_scale.store.rows import now
from oaken_scale.workshop.held import Held, still_at
from oaken_scale.workshop.refused import NothingLeftError

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop

MOST_STEPS: Final = 300
"""So many are kept of all builds together; they share what they did not change."""


MOST_READINGS: Final = 2_000_000
"""So many places of readings are held by the steps together: fewer steps back of a long log."""


@dataclass(frozen=True, slots=True, eq=False)
class Step:
    """One change: the builds that it touched, before and after it, the one that it was made in
    first, how many readings they held, the build that it put away from the shelf, and the revision
    that it made of the first one, where it may be asked for by it."""

    pairs: tuple[tuple[Build, Build], ...]
    readings: int
    away: str | None = None
    made: int | None = None

    def concerns(self, build_id: str, made: int | None = None) -> bool:
        """Whether it touched a build, or made a revision of it."""
        if made is not None:
            return self.pairs[0][0].id == build_id and self.made == made
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

    def kept(
        self, *pairs: tuple[Build, Build], away: str | None = None, made: int | None = None
    ) -> None:
        """Remember a change that is on disk now, and the revision that it ``made`` of the first."""
        if away is None and all(before == after for before, after in pairs):
            return
        readings = sum(len(before.weighings) for before, _ in pairs)
        self._done.append(Step(pairs, readings, away, made))
        held = sum(step.readings for step in self._done)
        while len(self._done) > 1 and held > MOST_READINGS:
            held -= self._done.popleft().readings
        for before, _ in pairs:
            self._undone = deque(
                (each for each in self._undone if not each.concerns(before.id)), MOST_STEPS
            )

    def undo(self, build_id: str, revision: int | None, made: int | None = None) -> Undone:
        """Take the last change of a build back, if the build is still at a revision; or the one
        that ``made`` a revision of it, whatever came since.

        Raises NoSuchError, NothingLeftError, OutOfDateError, or BuildFaultError where what came
        later does not let it.
        """
        return self._taken(build_id, revision, self._done, self._undone, True, made)

    def redo(self, build_id: str, revision: int | None) -> Undone:
        """Make the change again that was taken back last; raises as :meth:`undo` does."""
        return self._taken(build_id, revision, self._undone, self._done, False, None)

    def _taken(
        self,
        build_id: str,
        revision: int | None,
        those: deque[Step],
        others: deque[Step],
        is_undoing: bool,
        made: int | None,
    ) -> Undone:
        with self._shop.turn:
            still_at(self._shop.held(build_id), revision, is_exact=True)
            step = next((each for each in reversed(those) if each.concerns(build_id, made)), None)
            if step is None:
                raise NothingLeftError(is_undoing, made)
            at = now()
            acts = {
                before.id: partial(
                    taken_back,
                    before=before if is_undoing else after,
                    after=after if is_undoing else before,
                    at=at,
                )
                for before, after in step.pairs
            }

            def turned(builds: Mapping[str, Build]) -> Mapping[str, Build]:
                return {id: acts[id](build) for id, build in builds.items()}

            held = self._shop.change_together(
                build_id,
                revision,
                lambda: acts,
                turned,
                away=None if is_undoing else step.away,
                back=step.away if is_undoing else None,
                is_remembered=False,
                is_exact=True,
            )
            those.remove(step)
            others.append(step)
            own = next(pair for pair in step.pairs if pair[0].id == build_id)
            return Undone(held, touched(*own))
