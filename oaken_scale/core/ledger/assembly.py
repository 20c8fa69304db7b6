"""Assemblies: what is put together of parts and joints, one within another.

A part names its assembly; "Fuselage/Nose" is the nose within the fuselage.
"""

from collections.abc import Iterable, Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import WITHIN, Part, assembly_path
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.traits import wherever


@cache
def chain(assembly: str) -> tuple[str, ...]:
    """An assembly and all that it lies within, the outermost first.

    >>> chain("Fuselage/Nose/Hatch")
    ('Fuselage', 'Fuselage/Nose', 'Fuselage/Nose/Hatch')
    >>> chain("")
    ('',)
    """
    names = assembly_path(assembly).split(WITHIN)
    return tuple(WITHIN.join(names[: k + 1]) for k in range(len(names)))


def lies_within(part: Part, assembly: str) -> bool:
    """Whether a part is part of an assembly, or of one within it.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> hatch = Part("h", "Hatch", Pedigree.GUESS, "Fuselage/Nose", stated_g=4.0)
    >>> lies_within(hatch, "Fuselage"), lies_within(hatch, "Wing")
    (True, False)
    """
    return assembly_path(assembly) in chain(part.assembly)


def assemblies(parts: Iterable[Part]) -> tuple[str, ...]:
    """Every assembly of the parts, each after the one that it lies within, in their order.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> parts = [Part(k, k, Pedigree.GUESS, k, stated_g=4.0) for k in ("Fuselage/Nose", "Wing")]
    >>> assemblies(parts)
    ('Fuselage', 'Fuselage/Nose', 'Wing')
    """
    return tuple(dict.fromkeys(name for part in parts for name in chain(part.assembly)))


def membership(parts: Sequence[Part]) -> tuple[tuple[str, ...], NDArray[np.bool_]]:
    """Every assembly, each after the one that it lies within, and which parts (A, N) are in it.

    Parts not on the plane any more are in none.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> hatch = Part("h", "Hatch", Pedigree.GUESS, "Fuselage/Nose", 3.0)
    >>> membership([hatch, Part("b", "Box", Pedigree.GUESS, "Fuselage", 40.0)])[1].tolist()
    [[True, True], [True, False]]
    """
    return _membership(wherever(tuple(parts)))


@recalled(keep=8)
def _membership(parts: tuple[Part, ...]) -> tuple[tuple[str, ...], NDArray[np.bool_]]:
    at: dict[str, int] = {}
    rows: list[int] = []
    columns: list[int] = []
    for i, part in enumerate(parts):
        if not part.retired:
            for name in chain(part.assembly):
                rows.append(at.setdefault(name, len(at)))
                columns.append(i)
    inside = np.zeros((len(at), len(parts)), dtype=bool)
    inside[rows, columns] = True
    return tuple(at), inside


def outermost(part: Part) -> str:
    """The assembly that a part ends up in.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> outermost(Part("h", "Hatch", Pedigree.GUESS, "Fuselage/Nose", 3.0))
    'Fuselage'
    """
    return chain(part.assembly)[0]


def done_to(build: Build, part_id: str) -> tuple[str, ...]:
    """What was done to a part and stays on it: patches, beads, what was sanded off.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> patch = Part("patch", "Patch", Pedigree.GUESS, stated_g=1.0, host="fin")
    >>> done_to(Build("b", "B", parts=(fin, patch)), "fin")
    ('patch',)
    """
    return tuple(part.id for part in build.parts if part.host == part_id and not part.retired)
