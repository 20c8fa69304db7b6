"""The order of the day as its builder made it: what was moved, what was done, and how long it
took."""

from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum


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

    step: str
    kind: StepKind
    at: datetime
    minutes: float | None = None
    usual_min: float | None = None


@dataclass(frozen=True, slots=True)
class OwnStep:
    """A step of the builder's own, and how long it takes [min]."""

    id: str
    name: str
    minutes: float


@dataclass(frozen=True, slots=True)
class Day:
    """Steps by their ids in the order that the builder wants them, those that were done, and the
    builder's own."""

    order: tuple[str, ...] = ()
    done: tuple[Done, ...] = ()
    own: tuple[OwnStep, ...] = ()


NO_DAY = Day()
