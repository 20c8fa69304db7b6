"""What each part weighs, before and after the weighings, and how that is known."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.flight.centre_of_gravity import Stations, stations
from oaken_scale.core.flight.forecast import Mark, mark_of
from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import is_unknown, own_doubt, planned
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.columns import from_columns
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.traits import traits, wherever

FAR: Final = 2.0
"""A part that came out this many sigma from what was believed of it is far from it."""


@dataclass(frozen=True, slots=True)
class PartMass:
    """One part's mass before and after the weighings [g], one sigma each, and its mark.

    ``x_from_nose_mm`` and ``x_from_leading_edge_mm`` are the same station by both references;
    None for a part without a station, the second also without a wing. It ``is_far`` where it came
    out farther from what was believed than its doubt explains.
    """

    id: str
    mass_g: float
    sd_g: float
    estimate_g: float
    estimate_sd_g: float
    mark: Mark
    x_from_nose_mm: float | None
    x_from_leading_edge_mm: float | None
    is_far: bool


def part_masses(
    build: Build, after: Posterior, wing: WingFigures | None, been: Vector
) -> tuple[PartMass, ...]:
    """Every part's mass, mark and station; ``been`` (N,) says what has been on a pan, 0 or 1.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> build = Build("b", "B", parts=(Part("m", "M", Pedigree.LISTING, stated_g=28.0),))
    >>> (motor,) = part_masses(build, solve(build), None, np.zeros(1))
    >>> motor.mass_g, round(motor.sd_g, 6), motor.mark.value
    (28.0, 1.4, 'listed')
    """
    sd, believed, doubt = after.sd[after.parts], after.prior.mass, after.prior.mass_sd
    unknown = _unknown(wherever(build.parts))
    if unknown.any():
        before = planned(build)
        believed = np.where(unknown, before.mass, believed)
        doubt = np.where(unknown, before.mass_sd, doubt)
    alone = after.of.loading.felt_alone[after.parts] | _weighed_elsewhere(wherever(build.parts))
    sharper = (been > 0) & (sd**2 <= doubt**2 / 2)
    which = (2 * alone + sharper).tolist()
    return from_columns(
        PartMass,
        len(build.parts),
        traits(build.parts).at,
        after.mass.tolist(),
        sd.tolist(),
        believed.tolist(),
        doubt.tolist(),
        [marks[k] for marks, k in zip(_marks(wherever(build.parts)), which, strict=True)],
        *_where(build, wing),
        (np.abs(after.mass - believed) > FAR * doubt).tolist(),
    )


def _where(
    build: Build, wing: WingFigures | None
) -> tuple[tuple[float | None, ...], tuple[float | None, ...]]:
    """Each part's station as placed, from the nose and from the leading edge [mm]."""
    return _placed(stations(build, wing), wing)


@recalled(keep=8)
def _placed(
    where: Stations, wing: WingFigures | None
) -> tuple[tuple[float | None, ...], tuple[float | None, ...]]:
    edge = wing.leading_edge_x_mm if wing else None
    placed = zip(where.xyz[:, 0].tolist(), where.placed.tolist(), strict=True)
    nose = tuple(x if here else None for x, here in placed)
    if edge is None:
        return nose, (None,) * len(nose)
    return nose, tuple(None if x is None else x - edge for x in nose)


@recalled(keep=8)
def _marks(parts: tuple[Part, ...]) -> tuple[tuple[Mark, ...], ...]:
    """Each part's mark as stated, by difference, and (twice) weighed alone."""
    ways = ((False, False), (False, True), (True, False), (True, True))
    return tuple(tuple(mark_of(part.pedigree, *way) for way in ways) for part in parts)


def been_on_pan(build: Build, after: Posterior) -> Vector:
    """How often, at most once, each part was on a pan, here or in another build, shape (N,).

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> parts = tuple(Part(id, id, Pedigree.GUESS, stated_g=50.0) for id in ("motor", "box"))
    >>> log = (Weighing("r", datetime(2026, 3, 7, tzinfo=UTC), "s", 48.0, Pan((Load("motor"),))),)
    >>> build = Build("b", "B", parts=parts, scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> been_on_pan(build, solve(build)).tolist()
    [1.0, 0.0]
    """
    felt = after.of.loading.felt[after.parts] | _weighed_elsewhere(wherever(build.parts))
    return felt.astype(float)


@recalled(keep=8)
def _unknown(parts: tuple[Part, ...]) -> NDArray[np.bool_]:
    """Whose mass nobody has said, shape (N,)."""
    return np.array([is_unknown(part) for part in parts], dtype=bool)


@recalled(keep=8)
def _weighed_elsewhere(parts: tuple[Part, ...]) -> NDArray[np.bool_]:
    """Which things another build knows better than their listings do, shape (N,)."""
    known = [
        part.elsewhere is not None and part.elsewhere.doubt <= own_doubt(part, part.stated_g or 0.0)
        for part in parts
    ]
    return np.array(known, dtype=bool)
