"""Assemblies: what is put together of parts and joints, one within another.

A part names its assembly; "Fuselage/Nose" is the nose within the fuselage.
"""

from collections.abc import Iterable, Sequence
from functools import cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.build import Build, Item
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.traits import wherever

WITHIN: Final = "/"
"""Stands between an assembly and the one within it."""


@cache
def chain(assembly: str) -> tuple[str, ...]:
    """An assembly and all that it lies within, the outermost first.

    >>> chain("Fuselage/Nose/Hatch")
    ('Fuselage', 'Fuselage/Nose', 'Fuselage/Nose/Hatch')
    >>> chain("")
    ('',)
    """
    names = [name.strip() for name in assembly.split(WITHIN)]
    kept = [name for name in names if name]
    return tuple(WITHIN.join(kept[: k + 1]) for k in range(len(kept))) or ("",)


def lies_within(item: Item, assembly: str) -> bool:
    """Whether an item is part of an assembly, or of one within it."""
    return assembly in chain(item.assembly)


def assemblies(items: Iterable[Item]) -> tuple[str, ...]:
    """Every assembly of the items, each after the one that it lies within, in their order."""
    return tuple(dict.fromkeys(name for item in items for name in chain(item.assembly)))


def membership(items: Sequence[Item]) -> tuple[tuple[str, ...], NDArray[np.bool_]]:
    """Every assembly, each after the one that it lies within, and which items (A, N) are in it.

    Items not on the plane any more are in none.

    >>> from oaken_scale.core.model.build import Pedigree
    >>> hatch = Item("h", "Hatch", Pedigree.GUESS, "Fuselage/Nose", 3.0)
    >>> membership([hatch, Item("b", "Box", Pedigree.GUESS, "Fuselage", 40.0)])[1].tolist()
    [[True, True], [True, False]]
    """
    return _membership(wherever(tuple(items)))


@recalled(keep=8)
def _membership(items: tuple[Item, ...]) -> tuple[tuple[str, ...], NDArray[np.bool_]]:
    at: dict[str, int] = {}
    rows: list[int] = []
    columns: list[int] = []
    for i, item in enumerate(items):
        if not item.retired:
            for name in chain(item.assembly):
                rows.append(at.setdefault(name, len(at)))
                columns.append(i)
    inside = np.zeros((len(at), len(items)), dtype=bool)
    inside[rows, columns] = True
    return tuple(at), inside


def outermost(item: Item) -> str:
    """The assembly that an item ends up in.

    >>> from oaken_scale.core.model.build import Pedigree
    >>> outermost(Item("h", "Hatch", Pedigree.GUESS, "Fuselage/Nose", 3.0))
    'Fuselage'
    """
    return chain(item.assembly)[0]


def done_to(build: Build, item_id: str) -> tuple[str, ...]:
    """What was done to a part and stays on it: patches, beads, what was sanded off."""
    return tuple(item.id for item in build.items if item.host == item_id and not item.retired)
