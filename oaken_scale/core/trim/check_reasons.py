"""What would explain a balance check that disagrees with the sum."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import (
    CentreOfGravity,
    Stations,
    centre_of_gravity,
)
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.build import Build
from oaken_scale.core.trim.check_row import CheckRow

EXPLAINS: Final = 1.5
"""What brings a check within so many sigma explains it."""

MOST_REASONS: Final = 3
"""So many reasons are told, the likeliest first."""


class Explains(StrEnum):
    """What would explain a check that disagrees: another loadout was aboard; a part was measured
    from the nose or the leading edge, and written down from the other; it sits elsewhere than
    written down; something at the nose or the tail is on no list (glue, paint, a repair)."""

    LOADOUT = "loadout"
    FROM_NOSE = "from_nose"
    FROM_LEADING_EDGE = "from_leading_edge"
    ELSEWHERE = "elsewhere"
    UNLISTED_NOSE = "unlisted_nose"
    UNLISTED_TAIL = "unlisted_tail"


@dataclass(frozen=True, slots=True)
class Reason:
    """What would explain a check that disagrees, whom it concerns, and how much of it: mm aft of
    where a part was written down, or g that nobody listed."""

    kind: Explains
    part: str | None = None
    loadout: str | None = None
    amount: float | None = None


def reasons_for(
    build: Build,
    after: Posterior,
    where: Stations,
    row: CheckRow,
    cg: CentreOfGravity,
    doubt_mm: float,
) -> tuple[Reason, ...]:
    """What would bring the sum to the check: another loadout aboard, a station measured from the
    other reference, one thing that sits elsewhere, something at an end that is on no list.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.trim.check_row import row_of
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 200.0))]
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> pegs = BalanceCheck("c", at, CheckKind.SUPPORT, None, 110.0, "pegs")
    >>> build = Build("b", "B", parts=tuple(ends), checks=(pegs,))
    >>> after, where = solve(build), stations(build, None)
    >>> row = row_of(build, after, where, pegs)
    >>> cg = centre_of_gravity(after.mass, after.mass_cov, where, row.aboard)
    >>> told = reasons_for(build, after, where, row, cg, 2.0)
    >>> [each.kind.value for each in told]
    ['unlisted_tail', 'elsewhere', 'elsewhere']
    """
    gap = row.found_mm - cg.x_mm
    total = float(after.mass @ (row.aboard * where.placed))
    found: list[tuple[float, Reason]] = []
    for other in build.loadouts:
        if other.id == row.check.loadout:
            continue
        carried = np.array(build.aboard(other), dtype=float) * where.placed
        there = centre_of_gravity(after.mass, after.mass_cov, where, carried)
        if there and abs(row.found_mm - there.x_mm) < EXPLAINS * doubt_mm:
            found.append((0.5, Reason(Explains.LOADOUT, loadout=other.id)))
    found += _misplaced(build, after, where, row, gap, total, doubt_mm)
    ends = where.xyz[(row.aboard > 0) & where.placed, 0]
    end, unlisted = (
        (ends.max(), Explains.UNLISTED_TAIL) if gap > 0 else (ends.min(), Explains.UNLISTED_NOSE)
    )
    reach = float(end) - row.found_mm
    if abs(reach) > 1:
        grams = gap * total / reach
        if 0 < grams < 0.2 * total:
            found.append((2.0, Reason(unlisted, amount=grams)))
    found.sort(key=lambda each: each[0])
    return tuple(reason for _, reason in found[:MOST_REASONS])


def _misplaced(
    build: Build,
    after: Posterior,
    where: Stations,
    row: CheckRow,
    gap_mm: float,
    total_g: float,
    doubt_mm: float,
) -> list[tuple[float, Reason]]:
    """Things whose station, measured from the other reference, or off by a likely amount, would
    do it; each with how unlikely it is."""
    edge = _edge(build)
    found = []
    for i, part in enumerate(build.parts):
        if not row.aboard[i] or not where.placed[i] or after.mass[i] <= 0 or part.station is None:
            continue
        by = gap_mm * total_g / float(after.mass[i])
        if edge:
            sign = 1.0 if part.station.reference.value == "nose" else -1.0
            left = gap_mm - sign * edge * float(after.mass[i]) / total_g
            if abs(left) < EXPLAINS * doubt_mm and abs(by) > EXPLAINS * float(where.doubt[i]):
                other = Explains.FROM_LEADING_EDGE if sign > 0 else Explains.FROM_NOSE
                found.append((1.0 + abs(left) / doubt_mm, Reason(other, part=part.id)))
        odds = abs(by) / max(float(where.doubt[i]), 1.0)
        found.append((odds, Reason(Explains.ELSEWHERE, part=part.id, amount=by)))
    return found


def _edge(build: Build) -> float:
    wing = wing_figures(build.surfaces)
    return wing.leading_edge_x_mm if wing else 0.0
