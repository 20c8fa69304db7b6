"""Several moves asked as one: "pack and servos both 15 mm forward, receiver to 210"."""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import named
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.quantity import QuantityError, figures_as_typed, parse

FIELD: Final = "line"
MOST: Final = 20
"""So many parts are moved by one line."""

# A comma between two digits is a decimal one.
_CLAUSES: Final = re.compile(r"\s*(?:;|,(?!\d)|(?<!\d),)\s*")
_NAMES: Final = re.compile(r"\s+(?:and|&)\s+", re.IGNORECASE)
_FAR: Final = r"[\d.,/]+(?:\s+\d+/\d+)?\s*[a-z\"']*"
_BY: Final = re.compile(
    rf"^(?P<names>.+?)\s+(?:(?:both|all|by)\s+)*(?P<far>{_FAR})\s+"
    r"(?P<way>forward|fwd|ahead|aft|back|backward)$",
    re.IGNORECASE,
)
_TO: Final = re.compile(
    rf"^(?P<names>.+?)\s+(?:(?:both|all)\s+)*to\s+(?P<far>[-−]?{_FAR})$", re.IGNORECASE
)
_FORWARD: Final = frozenset({"forward", "fwd", "ahead"})


@dataclass(frozen=True, slots=True)
class Shift:
    """One part moved: ``by_mm`` along x (aft positive), or ``to_mm`` from the nose; one is None."""

    part: str
    by_mm: float | None = None
    to_mm: float | None = None


def shifts_of_line(line: str, parts: Sequence[Part], unit: str = "mm") -> tuple[Shift, ...]:
    """The moves that a line asks for; parts are named by any piece of their name that no other has.

    Raises BuildFaultError on ``line``, in words that say what was not understood.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> parts = [Part("p", "Pack, 3-cell", Pedigree.GUESS), Part("s", "Servos", Pedigree.GUESS)]
    >>> shifts_of_line("pack and servos both 15 mm forward", parts)
    (Shift(part='p', by_mm=-15.0, to_mm=None), Shift(part='s', by_mm=-15.0, to_mm=None))
    >>> shifts_of_line("servos to 21 cm", parts)
    (Shift(part='s', by_mm=None, to_mm=210.0),)
    """
    found: list[Shift] = []
    for clause in filter(None, _CLAUSES.split(figures_as_typed(line).strip())):
        by, to = _BY.match(clause), _TO.match(clause)
        told = to or by
        if told is None:
            words = f'"{clause}" is not understood; write "pack 15 mm forward", or "pack to 210"'
            raise BuildFaultError([Fault(FIELD, words)])
        try:
            far = parse(told["far"], "station", unit).value
        except QuantityError as error:
            raise BuildFaultError([Fault(FIELD, str(error))]) from error
        for name in _NAMES.split(told["names"]):
            part = _named(name.strip(), parts)
            if any(each.part == part.id for each in found):
                raise BuildFaultError([Fault(FIELD, f"{part.name} is moved twice; say it once")])
            if to is not None:
                found.append(Shift(part.id, to_mm=far))
            else:
                way = -1.0 if by is not None and by["way"].lower() in _FORWARD else 1.0
                found.append(Shift(part.id, by_mm=way * far))
    if not 0 < len(found) <= MOST:
        words = f'say what moves, up to {MOST} parts: "pack and servos both 15 mm forward"'
        raise BuildFaultError([Fault(FIELD, words)])
    return tuple(found)


def _named(name: str, parts: Sequence[Part]) -> Part:
    wanted = re.sub(r"^(the|bay of the|bay of)\s+", "", name, flags=re.IGNORECASE)
    found = named(wanted, [part for part in parts if not part.retired], FIELD)
    if found is None:
        raise BuildFaultError([Fault(FIELD, f'no part "{name}" on the plane')])
    return found
