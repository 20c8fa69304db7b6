"""A build that is finished teaches those that are not: what gets left off, how guesses run."""

from collections.abc import Iterable, Mapping
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


def with_finished(
    builds: Mapping[str, Build], build_id: str, at: datetime | None
) -> dict[str, Build]:
    """All builds of a workshop, of which one is finished ``at``, or (None) taken up again: that
    one, and those still being built that expect something else now. A practice build teaches
    nothing.

    >>> both = {"b": Build("b", "B"), "c": Build("c", "C")}
    >>> list(with_finished(both, "b", datetime(2026, 5, 30)))  # it taught nothing new
    ['b']
    """
    then = {**builds, build_id: replace(builds[build_id], finished_at=at)}
    learned = learned_of(each for each in then.values() if each.purpose != "practice")
    made = {build_id: finished(builds[build_id], at, learned)}
    for id, build in builds.items():
        if id != build_id and build.finished_at is None:
            expects = with_lessons(build, learned)
            if expects != build:
                made[id] = expects
    return made
