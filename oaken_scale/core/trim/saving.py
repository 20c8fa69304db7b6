"""What a change of the plan would save of the ballast."""

from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.remedies import Outcome, Remedies, what_would_fix

SOME_G: Final = 0.05
"""Less ballast is none [g]."""


@dataclass(frozen=True, slots=True)
class Saved:
    """The remedy as it is, with a change of the plan, and the ballast that it would save [g]: none
    where it is less than a scale shows; None where one of the two has none."""

    now: Remedies
    then: Remedies
    saves_g: float | None


def remedies_told(build: Build) -> Remedies:
    """What would fix a build; what is missing to tell it, where :func:`what_would_fix` has none.

    >>> remedies_told(Build("b", "B")).outcome.value
    'no_target'
    """
    is_aimed_for = any(each.kind is TargetKind.BALANCE for each in build.targets)
    missing = Outcome.NOTHING_YET if is_aimed_for else Outcome.NO_TARGET
    return what_would_fix(build) or Remedies(missing)


def saved(build: Build, changed: Build) -> Saved:
    """What a change of a build would save of its ballast.

    >>> saved(Build("b", "B"), Build("b", "B")).saves_g is None
    True
    """
    now, then = remedies_told(build), remedies_told(changed)
    saves = None
    if now.best is not None and then.best is not None:
        saves = now.best.ballast_g - then.best.ballast_g
        saves = saves if abs(saves) > SOME_G else 0.0
    return Saved(now, then, saves)
