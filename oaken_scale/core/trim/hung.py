"""What hangs on the beam: what is heavy or may be moved by itself, the rest with its assembly."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import is_lump, x_from_nose
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.model.part import Part, Pedigree

OWN_SHARE: Final = 0.035
"""A thing of less than this share of what is aboard hangs with its assembly."""


@dataclass(frozen=True, slots=True)
class Hung:
    """A mass as it hangs: ``mass_g`` at ``x_mm`` from the nose.

    ``part`` is the one that hangs by itself; None for what hangs together of an ``assembly`` (""
    for loose parts). ``low_mm`` and ``high_mm`` are how far it may be moved, from the nose; None
    for what stays. ``parts`` are all that it is made of.
    """

    part: str | None
    assembly: str
    x_mm: float
    mass_g: float
    low_mm: float | None
    high_mm: float | None
    parts: tuple[str, ...]


def hung(plane: Flying) -> tuple[Hung, ...]:
    """What hangs in one loadout: single things first, as they are listed, then the assemblies.

    By itself hangs what may be moved, and what was listed and is no trifle; what is cut,
    glued, taped or guessed, and all small things, hang where their assembly's own CG is. What lies
    in no assembly hangs by itself too, unless it is a trifle or lies all over the plane.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Station
    >>> from oaken_scale.core.trim.flown import fly
    >>> def part(name, grams, x):
    ...     return Part(name, name, Pedigree.LISTING, "Nose", stated_g=grams, station=Station(x))
    >>> parts = (part("motor", 97.0, 0.0), part("plate", 2.0, 10.0), part("nut", 1.0, -20.0))
    >>> for each in hung(fly(Build("b", "B", parts=parts)).planes[0]):
    ...     print(each.part, each.assembly, each.mass_g, each.x_mm, each.parts)
    motor Nose 97.0 0.0 ('motor',)
    None Nose 3.0 0.0 ('plate', 'nut')
    """
    counts = plane.aboard * plane.where.placed
    masses = (plane.after.mass * counts).tolist()
    least = OWN_SHARE * sum(masses)
    stations = plane.where.xyz[:, 0].tolist()
    alone: list[Hung] = []
    together: dict[str, list[tuple[str, float, float]]] = {}
    for k in np.flatnonzero(counts).tolist():
        part, mass, x = plane.build.parts[k], masses[k], stations[k]
        assembly = part.assembly.split("/")[0]
        if part.slide is not None:
            low, high = _ends(part, plane)
            alone.append(Hung(part.id, assembly, x, mass, low, high, (part.id,)))
        elif mass < least or (_is_of_its_assembly(part) if assembly else not is_lump(part)):
            together.setdefault(assembly, []).append((part.id, mass, x))
        else:
            alone.append(Hung(part.id, assembly, x, mass, None, None, (part.id,)))
    return (*alone, *(each for name, held in together.items() for each in _one_of(name, held)))


def _is_of_its_assembly(part: Part) -> bool:
    """Whether a part is made with its assembly, not put into it."""
    return bool(part.uses) or part.pedigree is Pedigree.GUESS


def _ends(part: Part, plane: Flying) -> tuple[float | None, float | None]:
    """How far a thing may be moved [mm from the nose]."""
    if part.slide is None or part.station is None:
        return None, None
    low, high = (
        x_from_nose(end, part.station.reference, plane.wing)
        for end in (part.slide.low_mm, part.slide.high_mm)
    )
    return low, high


def _one_of(assembly: str, held: list[tuple[str, float, float]]) -> tuple[Hung, ...]:
    """What hangs together, where it balances; nothing of what weighs nothing."""
    mass = sum(each for _, each, _ in held)
    if mass <= 0:
        return ()
    x = sum(each * at for _, each, at in held) / mass
    return (Hung(None, assembly, x, mass, None, None, tuple(id for id, _, _ in held)),)
