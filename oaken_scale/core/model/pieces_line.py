"""Pieces of ballast as they are typed: "5; 14.2; 6 x 2.4", "two 5 g coins and 3 of 2.4"."""

import re
from collections.abc import Mapping, Sequence
from typing import Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.quantity import (
    COUNTS,
    NUMBER,
    QuantityError,
    figures_as_typed,
    parse,
    spellings_of,
)

FIELD: Final = "line"
_SHOWN: Final = 40

_UNIT: Final = "|".join(sorted(spellings_of("mass"), key=len, reverse=True))
_COUNT: Final = rf"(?P<count>\d{{1,4}}|{'|'.join(COUNTS)})"
_WITH_UNIT: Final = rf"(?:{NUMBER})\s*(?:{_UNIT})"
_FIGURE: Final = rf"(?P<figure>{_WITH_UNIT}|(?:{NUMBER}))"
_EACH: Final = r"(?:\s+(?:each|apiece))?"
_CALLED: Final = r"(?:\s+(?!(?:each|apiece|x)\b)[a-z][a-z-]*){0,3}"  # "5 g stick-on strips"

# A comma between two digits is a decimal one; what several have in common is said once.
_BETWEEN: Final = re.compile(r"\s*(?:[;\n]|,(?!\d)|(?<!\d),)\s*|\s*\+\s*|\s+(?:and|&)\s+", re.I)
_WAYS: Final = tuple(
    re.compile(rf"^{way}$", re.IGNORECASE)
    for way in (
        rf"(?:(?:an?|one)\s+)?{_FIGURE}{_CALLED}{_EACH}",
        rf"{_COUNT}\s*[x×*]\s*{_FIGURE}{_CALLED}{_EACH}",
        rf"{_COUNT}{_CALLED}\s+(?:of|at)\s+{_FIGURE}{_EACH}",
        rf"{_FIGURE}{_CALLED}\s*[x×*]\s*{_COUNT}",
        rf"{_COUNT}\s+(?P<figure>{_WITH_UNIT}){_CALLED}{_EACH}",
        rf"(?P<count>{'|'.join(COUNTS)})\s+{_FIGURE}{_EACH}",
        rf"(?!(?:{'|'.join(COUNTS)})\b)[a-z][a-z-]*{_CALLED},?\s+{_FIGURE}",
    )
)
"""How a piece is said, or several alike: "5 5" is neither; it may be two pieces, or five."""


def pieces_of_line(
    line: str, unit: str = "g", shown: Mapping[str, Sequence[float]] | None = None
) -> tuple[float, ...]:
    """The pieces that a line names [g], one by one; ``unit`` is meant where it names none. What
    stands in ``shown`` as it is typed is those pieces, as exact as they were.

    Raises BuildFaultError on ``line``, in words that say what was not understood.

    >>> pieces_of_line("5; 14.2; 3 x 2.4")
    (5.0, 14.2, 2.4, 2.4, 2.4)
    >>> pieces_of_line("two 5 g coins, 2 of 2,4 and 10")
    (5.0, 5.0, 2.4, 2.4, 10.0)
    >>> pieces_of_line("0.18; 1", "oz", {"0.18": [5.0]})[0]
    5.0
    """
    told: list[float] = []
    for given in _BETWEEN.split(figures_as_typed(line)):
        if not given.strip():
            continue
        known = (shown or {}).get(given.strip())
        told += known if known is not None else _alike(given.strip(), unit)
        if len(told) > limits.BALLAST_PIECES:
            raise _fault(f"names more than {limits.BALLAST_PIECES} pieces; leave some out")
    return tuple(told)


def _alike(given: str, unit: str) -> list[float]:
    """So many pieces of one mass [g]."""
    found = next((match for way in _WAYS if (match := way.match(given))), None)
    if found is None:
        words = "write pieces like 5 g; 12.4 g, and several alike like 6 x 2.4 g"
        raise _fault(f'says "{given[:_SHOWN]}"; {words}')
    said = found.groupdict().get("count") or "1"
    count = COUNTS.get(said.lower()) or int(said)
    if not 1 <= count <= limits.BALLAST_PIECES:
        raise _fault(f"says {said} pieces; it should be 1 to {limits.BALLAST_PIECES}")
    try:
        grams = parse(found["figure"], "mass", unit).value
    except QuantityError as error:
        raise _fault(f"is not understood: {error}") from None
    if not 0 < grams <= limits.PART_MASS_G:
        most = f"a piece weighs above 0 and at most {limits.PART_MASS_G:,.0f} g"
        raise _fault(f'says "{given[:_SHOWN]}"; {most}')
    return [grams] * count


def _fault(words: str) -> BuildFaultError:
    return BuildFaultError([Fault(FIELD, words)])
