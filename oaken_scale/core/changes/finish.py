"""A build that is finished teaches those that are not: what gets left off, how guesses run."""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime

from oaken_scale.core.ledger.allowance import left_out, usual_share
from oaken_scale.core.ledger.learned import habits_of
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Habit


@dataclass(frozen=True, slots=True)
class Learned:
    """What a workshop's finished builds teach: the share of the rest that nobody had listed (None
    where none says), and how guesses and listings ran."""

    allowance: Known | None
    habits: tuple[Habit, ...]


def learned_of(builds: Iterable[Build]) -> Learned:
    """What these builds teach; those that are not finished teach nothing of what is left off.

    >>> learned_of([Build("b", "B")])
    Learned(allowance=None, habits=())
    """
    counted = tuple(builds)
    return Learned(
        usual_share([found for each in counted if (found := left_out(each))]), habits_of(counted)
    )


def with_lessons(build: Build, learned: Learned) -> Build:
    """A build that is still being built, as it expects what the finished ones teach.

    >>> with_lessons(Build("b", "B"), Learned(None, ())) == Build("b", "B")
    True
    """
    return replace(build, allowance=learned.allowance, habits=learned.habits)


def finished(build: Build, at: datetime | None, learned: Learned) -> Build:
    """The build finished ``at``, with what it had expected; or (None) taken up again, and it learns
    from the others once more.

    >>> finished(Build("b", "B"), datetime(2026, 5, 30), Learned(None, ())).finished_at.day
    30
    """
    fresh = replace(build, finished_at=at)
    return fresh if at else with_lessons(fresh, learned)
