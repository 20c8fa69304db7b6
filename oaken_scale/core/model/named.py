"""What is meant by a piece of a name, as people type it."""

import re
from collections.abc import Iterable, Sequence
from typing import Final, Protocol, TypeVar

from oaken_scale.core.model.faults.fault import BuildFaultError, Fault

SHOWN: Final = 4
"""So many are named where a piece of a name may mean several."""


class Named(Protocol):
    """Something with an id and a name."""

    @property
    def id(self) -> str:
        """Its id."""
        ...

    @property
    def name(self) -> str:
        """Its name."""
        ...


Thing = TypeVar("Thing", bound=Named)


def named(text: str, things: Sequence[Thing], field: str) -> Thing | None:
    """The one thing that a text names: whole, by how it begins, or by any piece of its name; None
    where it names none.

    Raises BuildFaultError on ``field`` where it may mean several.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> lots = [Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4), Lot("t", "Tape", LotUnit.M, 2.1, 0.1)]
    >>> named("sheet", lots, "line").id, named("foil", lots, "line")
    ('a', None)
    """
    wanted = text.lower()
    for those in (
        [each for each in things if wanted in (each.name.lower(), each.id.lower())],
        [each for each in things if each.name.lower().startswith(wanted)],
        [each for each in things if wanted in each.name.lower()],
    ):
        if len(those) == 1:
            return those[0]
        if those:
            names = "; ".join(each.name for each in those[:SHOWN])
            words = f'"{text}" may be {names}: write more of its name'
            raise BuildFaultError([Fault(field, words)])
    return None


def by_id(things: Iterable[Thing], id: str, field: str) -> Thing:
    """The one thing of an id. Raises BuildFaultError on ``field``, with the ids that there are.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> by_id([Lot("t", "Tape", LotUnit.M, 2.1, 0.1)], "t", "lot").name
    'Tape'
    """
    there = {each.id: each for each in things}
    if id not in there:
        words = f'no {field} "{id}" here; there is {", ".join(there) or "none"}'
        raise BuildFaultError([Fault(field, words)])
    return there[id]


def free_id(name: str, taken: Iterable[str]) -> str:
    """An id made from a name, unlike all that are taken.

    >>> free_id("Sheet A, both papers", ()), free_id("Fin", ("fin", "fin-2"))
    ('sheet-a-both-papers', 'fin-3')
    """
    stem = re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:48] or "part"
    used = set(taken)
    if stem not in used:
        return stem
    return next(id for number in range(2, len(used) + 3) if (id := f"{stem}-{number}") not in used)
