"""What is aboard and nobody said where: it keeps the balance open, and may be what mends it."""

from dataclasses import dataclass

import numpy as np

from oaken_scale.core.flight.flying import Flying


@dataclass(frozen=True, slots=True)
class Unplaced:
    """Parts aboard that lie in one place each and have none yet, and what they weigh together.

    With all of them between ``from_mm`` and ``to_mm`` from the nose the plane would balance in its
    range; None where there is no range, or no place from nose to tail would do.
    """

    parts: tuple[str, ...]
    mass_g: float
    from_mm: float | None = None
    to_mm: float | None = None


def unplaced(plane: Flying, low_mm: float | None, high_mm: float | None) -> Unplaced | None:
    """What has no place yet aboard, and where it would bring the CG between ``low_mm`` and
    ``high_mm``; None where everything has its place, or nothing has.

    ``(m_p + m) x_cg = m_p x_p + m x`` with ``m_p`` placed at ``x_p`` and ``m`` not; what lies all
    over the plane moves with the rest. Source: docs/methods.md, section 5a.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.trim.flown import fly
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, stated_g=90.0, station=Station(200.0)),
    ...     Part("c", "Clay", Pedigree.GUESS, stated_g=10.0))
    >>> plane = fly(Build("b", "B", parts=parts)).planes[0]
    >>> unplaced(plane, 185.0, 190.0)  # (100 * 185 - 90 * 200) / 10
    Unplaced(parts=('c',), mass_g=10.0, from_mm=50.0, to_mm=100.0)
    >>> unplaced(plane, 150.0, 160.0).from_mm is None
    True
    """
    where, mass = plane.where, plane.after.mass
    loose = (plane.aboard > 0) & ~where.placed & (mass > 0)
    if where.lumps is not None:
        loose &= where.lumps
    here = mass * plane.aboard * where.placed
    grams, placed_g = float(mass[loose].sum()), float(here.sum())
    if grams <= 0 or placed_g <= 0:
        return None
    parts = tuple(plane.build.parts[k].id for k in np.flatnonzero(loose).tolist())
    if low_mm is None and high_mm is None:
        return Unplaced(parts, grams)
    moment, total = float(here @ where.xyz[:, 0]), placed_g + grams
    nose, tail = where.ends
    first = nose if low_mm is None else max(nose, (low_mm * total - moment) / grams)
    last = tail if high_mm is None else min(tail, (high_mm * total - moment) / grams)
    return Unplaced(parts, grams, *((first, last) if first <= last else ()))
