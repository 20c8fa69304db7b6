"""The order of the day as its builder made it: what was moved, what was done, and how long it
took."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import Id, Length, Minutes, Moment, Name, StepId


class StepKind(StrEnum):
    """What is done in a step, in the order of the work."""

    CUT = "cut"
    WEIGH = "weigh"
    JOIN = "join"
    COVER = "cover"
    FIT = "fit"
    STRAIGHT = "straight"
    BALANCE = "balance"
    OWN = "own"


@dataclass(frozen=True, slots=True)
class Done:
    """A step that was done, and when; how long it took, and how long it was usually thought to
    take [min], where somebody looked at the clock."""

    step: StepId
    kind: StepKind
    at: Moment
    minutes: Minutes | None = None
    usual_min: Minutes | None = None


@dataclass(frozen=True, slots=True)
class OwnStep:
    """A step of the builder's own, and how long it takes [min]."""

    id: Id
    name: Name
    minutes: Minutes


@dataclass(frozen=True, slots=True)
class Day:
    """Steps by their ids in the order that the builder wants them, those that were done, and the
    builder's own."""

    order: Annotated[tuple[StepId, ...], Length(limits.PARTS)] = ()
    done: Annotated[tuple[Done, ...], Length(limits.PARTS)] = ()
    own: Annotated[tuple[OwnStep, ...], Length(100)] = ()


NO_DAY = Day()
