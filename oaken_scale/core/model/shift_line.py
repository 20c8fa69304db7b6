"""Several moves asked as one: "pack and servos both 15 mm forward, receiver to 210"."""

import re
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import named
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.quantity import QuantityError, figures_as_typed, parse

FIELD: Final = "line"
MOST: Final = 20
"""So many parts are moved by one line."""

LONGEST_NAME: Final = 5
"""A part's name has two commas or "and" in it at most: so many pieces and what is between."""

# A comma between two digits is a decimal one.
_BETWEEN: Final = re.compile(r"(\s*(?:;|,(?!\d)|(?<!\d),)\s*|\s+(?:and|&)\s+)", re.IGNORECASE)
_VERB: Final = re.compile(r"^(?:move|slide|shift|push|pull|bring|put|set)\s+", re.IGNORECASE)
_FAR: Final = r"(?P<far>[\d.,/]+(?:\s+\d+/\d+)?(?:\s*(?:[a-z]{1,12}|[\"']))?)"
_AHEAD: Final = r"forwards?|fwd|ahead|(?:to|towards?)\s+(?:the\s+)?(?:nose|front)"
_WAY: Final = (
    rf"(?:(?P<ahead>{_AHEAD})|aft|back|(?:back|rear)wards?"
    r"|(?:to|towards?)\s+(?:the\s+)?(?:tail|rear|back))"
)
_OF: Final = r"^(?P<names>.+?)\s+(?:(?:both|all|each|by)\s+)*"
_BY: Final = (
    re.compile(rf"{_OF}{_FAR}\s+{_WAY}$", re.IGNORECASE),
    re.compile(rf"{_OF}{_WAY}\s+(?:by\s+)?{_FAR}$", re.IGNORECASE),
)
_FROM_NOSE: Final = r"(?:\s+(?:from|behind)\s+(?:the\s+)?nose)?"
_TO: Final = re.compile(
    rf"{_OF}(?:to|at)\s+(?:(?P<nose>the\s+nose|nose)|(?P<sign>[-−]?){_FAR}{_FROM_NOSE})$",
    re.IGNORECASE,
)


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
    names = ""
    # What stands between two moves are names: "pack, servos and receiver 15 mm forward".
    for piece in _BETWEEN.split(figures_as_typed(line).strip()):
        told = _TO.match(piece) or next(filter(None, (by.match(piece) for by in _BY)), None)
        if told is None:
            names += piece if names or not _BETWEEN.fullmatch(piece) else ""
            continue
        moves = _named(_VERB.sub("", names + told["names"]), parts)
        names = ""
        for part in moves:
            if any(each.part == part.id for each in found):
                raise BuildFaultError([Fault(FIELD, f"{part.name} is moved twice; say it once")])
            found.append(_shift(part, told, unit))
    left = _BETWEEN.sub(" ", names).strip()
    if left:
        words = f'"{left}" is not understood; write "pack 15 mm forward", or "pack to 210"'
        raise BuildFaultError([Fault(FIELD, words)])
    if not 0 < len(found) <= MOST:
        words = f'say what moves, up to {MOST} parts: "pack and servos both 15 mm forward"'
        raise BuildFaultError([Fault(FIELD, words)])
    return tuple(found)


def _shift(part: Part, told: re.Match[str], unit: str) -> Shift:
    said = told.groupdict()
    if said.get("nose"):
        return Shift(part.id, to_mm=0.0)
    try:
        far = parse(f"{said.get('sign') or ''}{told['far']}", "station", unit).value
    except QuantityError as error:
        raise BuildFaultError([Fault(FIELD, str(error))]) from error
    if told.re is _TO:
        return Shift(part.id, to_mm=far)
    return Shift(part.id, by_mm=-far if said["ahead"] else far)


def _named(names: str, parts: Sequence[Part]) -> list[Part]:
    """The parts of some names; of "Camera and strap" the one that is called so."""
    aboard = [part for part in parts if not part.retired]
    pieces, found = _BETWEEN.split(names), list[Part]()
    at = 0
    while at < len(pieces):
        for end in range(min(at + LONGEST_NAME, len(pieces)), at, -2):
            part = _called("".join(pieces[at:end]), aboard, is_one=end == at + 1)
            if part is not None:
                found.append(part)
                break
        at = end + 1
    return found


def _called(name: str, aboard: Sequence[Part], is_one: bool) -> Part | None:
    """The part of a name; None where several pieces are none together."""
    if not is_one:
        with suppress(BuildFaultError):
            return named(_bare(name), aboard, FIELD)
        return None
    part = named(_bare(name), aboard, FIELD)
    if part is None:
        raise BuildFaultError([Fault(FIELD, f'no part "{name}" on the plane')])
    return part


def _bare(name: str) -> str:
    return re.sub(r"^(the|bay of the|bay of)\s+", "", name.strip(), flags=re.IGNORECASE)
