"""Remembering what was worked out of values that have not changed.

A build is a value, and a reading changes a small part of it: its parts, its drawing and its lots
are the very same objects before and after. What is a function of those alone need not be worked
out again.
"""

from collections.abc import Callable
from functools import wraps
from threading import Lock
from typing import TypeVar, TypeVarTuple

Values = TypeVarTuple("Values")
Result = TypeVar("Result")


def recalled(
    keep: int = 16,
) -> Callable[[Callable[[*Values], Result]], Callable[[*Values], Result]]:
    """Remember a pure function's last results, by which objects its arguments are.

    For functions of frozen values only, which take all that they look at as arguments. Two equal
    arguments that are not one object are worked out twice; what is remembered is held, so that no
    identity is given to another object meanwhile.

    >>> @recalled(keep=2)
    ... def long(values: tuple[int, ...]) -> list[int]:
    ...     return sorted(values)
    >>> some = (3, 1, 2)
    >>> long(some) is long(some), long((3, 1, 2)) is long(tuple([3, 1, 2]))
    (True, False)
    """

    def remembering(
        work: Callable[[*Values], Result],
    ) -> Callable[[*Values], Result]:
        known: dict[tuple[int, ...], tuple[object, Result]] = {}
        turn = Lock()

        @wraps(work)
        def again(*values: *Values) -> Result:
            key = tuple(map(id, values))
            found = known.get(key)
            if found is not None:
                return found[1]
            result = work(*values)
            with turn:
                known[key] = (values, result)
                while len(known) > keep:
                    del known[next(iter(known))]
            return result

        return again

    return remembering
