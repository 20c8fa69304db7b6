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
    """The one thing that a text names: whole, by how it begins, by any piece of its name, or by how
    some of its words begin, in any order; None where it names none.

    Raises BuildFaultError on ``field`` where it may mean several.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> lots = [Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4), Lot("t", "Tape", LotUnit.M, 2.1, 0.1)]
    >>> named("sheet", lots, "line").id, named("foil", lots, "line")
    ('a', None)
    >>> glue = Lot("g", "Hot-melt glue, bead", LotUnit.M, 2.4, 0.9)
    >>> named("hot glue", [*lots, glue], "line").id
    'g'
    """
    wanted = text.lower()
    for those in (
        [each for each in things if is_wholly(text, each)],
        [each for each in things if each.name.lower().startswith(wanted)],
        [each for each in things if wanted in each.name.lower()],
        [each for each in things if _has_words_like(each, _words(wanted))],
    ):
        if len(those) == 1:
            return those[0]
        if those:
            names = "; ".join(each.name for each in those[:SHOWN])
            words = f'"{text}" may be {names}: write more of its name'
            raise BuildFaultError([Fault(field, words)])
    return None


def alike(text: str, things: Sequence[Thing]) -> list[Thing]:
    """Things as they stand, those first that have most of a text's words.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> lots = [Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.1),
    ...     Lot("t", "Carbon tube", LotUnit.M, 2.1, 0.1)]
    >>> [lot.id for lot in alike("carbon rod", lots)]
    ['t', 'a']
    """
    wanted = set(_words(text.lower()))
    return sorted(things, key=lambda each: -len(wanted & set(_words(each.name.lower()))))


def is_wholly(text: str, thing: Named) -> bool:
    """Whether a text is the whole name of a thing, or its id; commas and case aside.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> foam = Lot("f", "Foam board 5 mm, both papers off", LotUnit.DM2, 1.9, 0.5)
    >>> is_wholly("foam board 5mm both papers off", foam), is_wholly("foam board", foam)
    (True, False)
    """
    words = _words(text)
    is_it = text.lower() in (thing.name.lower(), thing.id.lower())
    return is_it or (words != [] and words == _words(thing.name))


def _words(text: str) -> list[str]:
    """Its words and its figures: "5mm board" has three."""
    return re.findall(r"\d+(?:[.,]\d+)?|[^\W\d_]+", text.lower())


def _has_words_like(thing: Named, wanted: Sequence[str]) -> bool:
    """Whether each of some words begins one of a thing's own, or is it of several: "skewers". Its
    id's count too: "3 mm xps"."""
    have = [*_words(thing.name), *_words(thing.id)]
    return bool(wanted) and all(
        any(
            own == word if word[0].isdigit() else own.startswith(word.removesuffix("s") or word)
            for own in have
        )
        for word in wanted
    )


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
