"""A log that grew by a reading, known as such without going through it."""

from collections import deque
from threading import Lock
from typing import Final

from oaken_scale.core.model.weighing import Weighing

Log = tuple[Weighing, ...]

_LAST: Final[deque[tuple[Log, Log]]] = deque(maxlen=8)
_TURN: Final = Lock()


def with_reading(log: Log, weighing: Weighing) -> Log:
    """A log with one reading more.

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.weighing import Load, Pan
    >>> first = Weighing("1", datetime.now(UTC), "s", 12.0, Pan((Load("motor"),)))
    >>> log = with_reading((), first)
    >>> begins_with(log, ()), begins_with(log, log), begins_with((), log)
    (True, True, False)
    """
    after = (*log, weighing)
    with _TURN:
        _LAST.append((after, log))
    return after


def begins_with(log: Log, before: Log) -> bool:
    """Whether a log is another one and readings more: the very same ones, in the same order.

    >>> begins_with((1, 2, 3), (1, 2)), begins_with((1, 3), (1, 2))
    (True, False)
    """
    if log is before:
        return True
    with _TURN:
        last = next((was for grown, was in _LAST if grown is log), None)
    return last is before or log[: len(before)] == before
