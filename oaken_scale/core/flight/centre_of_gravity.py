"""Where the plane balances: its centre of gravity, and how far that can be trusted."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.model.arrays import Flags, Matrix, Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.kind_named import lies_all_over, names_a_pack
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part import ALL_OVER, Part, Reference
from oaken_scale.core.model.plausible import drawn_length
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Surface

PLACED_DOUBT_MM: Final = 2.0
"""How well a thing is placed, one sigma [mm]."""

FOAM_DOUBT_MM: Final = 4.0
"""How well the CG of a big foam part is known, one sigma [mm]."""

BIG_FOAM_DM2: Final = 2.0
"""A part cut from at least this much sheet is a big foam part [dm2]."""


@dataclass(frozen=True, slots=True, eq=False)
class Told:
    """What checks of the balance took away from the doubt of masses and stations together.

    The joint covariance is that of before less ``W' W``; ``mass``, ``x`` and ``y`` (C, N) are the
    parts of ``W`` at the masses, and at the stations along x and y.
    """

    mass: Matrix
    x: Matrix
    y: Matrix


@dataclass(frozen=True, slots=True, eq=False)
class Stations:
    """Where the parts are: ``xyz`` shape (N, 3) and ``doubt`` shape (N,) [mm], ``placed`` (N,).

    ``told`` is what checks of the balance say of them (:mod:`oaken_scale.core.trim.checks`),
    ``adrift`` (2, N) how far along x and y from the CG of the rest a thing without a place lies by
    them [mm].
    """

    xyz: Matrix
    doubt: Vector
    placed: np.ndarray
    told: Told | None = None
    adrift: Matrix | None = None
    lumps: Flags | None = None
    """Which lie in one place, wherever that is, (N,)."""
    ends: tuple[float, float] = (0.0, 0.0)
    """From the nose, or what sits ahead of it, to the last that is drawn or placed [mm]."""


@dataclass(frozen=True, slots=True)
class CentreOfGravity:
    """The CG from the datum, each axis with its doubt (one sigma) [mm]."""

    x_mm: float
    y_mm: float
    z_mm: float
    x_sd_mm: float
    y_sd_mm: float
    z_sd_mm: float


def is_pack(part: Part) -> bool:
    """Whether a thing is a flight pack, by its name: what builders move first.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> is_pack(Part("p", "Pack, 3-cell 1300", Pedigree.LISTING))
    True
    """
    return names_a_pack(part.name)


def station_doubt(part: Part, big_foam: bool) -> float:
    """One sigma of a part's station [mm]: as stated, else 4 mm for big foam parts, else 2 mm.

    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> servo = Part("s", "Servo", Pedigree.LISTING, stated_g=9.0, station=Station(290.0))
    >>> station_doubt(servo, big_foam=False), station_doubt(servo, big_foam=True)
    (2.0, 4.0)
    """
    if part.station is not None and part.station.doubt_mm is not None:
        return part.station.doubt_mm
    return FOAM_DOUBT_MM if big_foam else PLACED_DOUBT_MM


def x_from_nose(x_mm: float, reference: Reference, wing: WingFigures | None) -> float:
    """A station's x from the nose [mm], whatever it was measured from.

    Without a drawn wing the leading edge is taken to be at the nose.

    >>> wing = WingFigures(20.5, 1080, 190, 200, 5.7, 195, 5.7)
    >>> x_from_nose(10.0, Reference.LEADING_EDGE, wing), x_from_nose(10.0, Reference.NOSE, wing)
    (205.0, 10.0)
    """
    offset = wing.leading_edge_x_mm if wing and reference is Reference.LEADING_EDGE else 0.0
    return x_mm + offset


def stations(build: Build, wing: WingFigures | None) -> Stations:
    """Resolve every part's station; a part without one is not placed.

    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> motor = Part("m", "Motor", Pedigree.GUESS, stated_g=50.0, station=Station(20.0))
    >>> told = stations(Build("b", "B", parts=(motor,)), None)
    >>> told.xyz.tolist(), told.placed.tolist()
    ([[20.0, 0.0, 0.0]], [True])
    """
    return _stations(build.parts, build.lots, build.surfaces, wing)


@recalled(keep=8)
def _stations(
    parts: tuple[Part, ...],
    lots: tuple[Lot, ...],
    surfaces: tuple[Surface, ...],
    wing: WingFigures | None,
) -> Stations:
    sheets = {lot.id for lot in lots if lot.unit is LotUnit.DM2}
    rows = []
    for part in parts:
        area = sum([abs(use.amount) for use in part.uses if use.lot in sheets])
        doubt, at = station_doubt(part, area >= BIG_FOAM_DM2), part.station
        if at is None:
            rows.append((0.0, 0.0, 0.0, doubt, 0.0))
        else:
            x = x_from_nose(at.x_mm, at.reference, wing)
            rows.append((x, at.y_mm, at.z_mm, doubt, 1.0))
    table = np.array(rows, dtype=float).reshape(-1, 5)
    placed = table[:, 4] > 0
    lumps = np.array([is_lump(each) for each in parts], bool)
    x = table[placed, 0].tolist()
    ends = min([0.0, *x]), max([drawn_length(surfaces), *x])
    return Stations(table[:, :3], table[:, 3], placed, lumps=lumps, ends=ends)


def is_lump(part: Part) -> bool:
    """Whether a part lies in one place, not all over the plane nor on what it was done to.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> parts = (Part("m", "Motor", Pedigree.LISTING), Part("g", "Glue", Pedigree.JOINT))
    >>> [is_lump(part) for part in parts]
    [True, False]
    """
    smeared = part.pedigree in ALL_OVER or lies_all_over(part.name)
    return not smeared and part.host is None


def spread_without_place(here: Vector, where: Stations, centre: Vector) -> Matrix:
    """The variance of where each part lies if it has no place, about the CG of the rest, along
    x, y and z, shape (N, 3) [mm2].

    What lies all over the plane (glue, tape, what nobody listed) and what was done to another part
    has the spread of the rest. What lies in one place may be anywhere from nose to tail:
    ``(a^2 + a b + b^2)/3`` of the distances to both. ``here`` (N,) is the mass placed aboard [g],
    ``centre`` its CG [mm].

    Source: docs/methods.md, section 2.

    >>> where = Stations(np.zeros((2, 3)), np.zeros(2), np.array([True, False]),
    ...     lumps=np.array([True, True]), ends=(-100.0, 200.0))
    >>> spread_without_place(np.array([50.0, 0.0]), where, np.zeros(3))[1].tolist()
    [10000.0, 0.0, 0.0]
    """
    rest = np.maximum(here @ (where.xyz - centre) ** 2 / float(here.sum()), 0.0)
    variance: Matrix = np.tile(rest, (len(here), 1))
    if where.lumps is not None:
        ahead, behind = where.ends[0] - centre[0], where.ends[1] - centre[0]
        anywhere = (ahead**2 + ahead * behind + behind**2) / 3
        variance[where.lumps, 0] = max(rest[0], anywhere)
    return variance


def centre_of_gravity(
    mass: Vector, mass_cov: Matrix, where: Stations, aboard: Vector
) -> CentreOfGravity | None:
    """The CG of what is aboard, with first-order doubt; None while nothing placed has mass.

    ``xcg = sum m x / sum m``; ``d xcg/d m_i = (x_i - xcg)/M``, ``d xcg/d x_i = m_i/M``, with the
    ledger's covariance ``mass_cov`` (N, N) [g2]. ``mass`` and ``aboard`` (0 or 1) have shape (N,).
    What has no station yet is taken to lie at the CG of the rest, give or take what
    spread_without_place says: it moves nothing and adds its doubt.

    Source: docs/methods.md, section 5a; JCGM 100:2008, 5.2.

    >>> where = Stations(np.array([[100.0, 0, 0], [300.0, 0, 0]]), np.zeros(2),
    ...     np.array([True, True]))
    >>> cg = centre_of_gravity(np.array([50.0, 150.0]), np.diag([1.0, 4.0]), where, np.ones(2))
    >>> cg.x_mm, round(cg.x_sd_mm, 4)
    (250.0, 0.9014)
    """
    flying = mass * aboard
    here = flying * where.placed
    placed_mass, total = float(here.sum()), float(flying.sum())
    if placed_mass <= 0 or total <= 0:
        return None
    centre = here @ where.xyz / placed_mass
    lever = (where.xyz - centre) * (aboard * where.placed)[:, None] / placed_mass
    mass_variance = (lever * (mass_cov @ lever)).sum(axis=0)
    station_variance = float(((here / placed_mass * where.doubt) ** 2).sum())
    adrift = flying * ~where.placed / total
    variance = mass_variance + station_variance
    if adrift.any():
        variance = variance + adrift**2 @ spread_without_place(here, where, centre)
    if where.told is not None:
        variance = variance - _taken_away(where.told, lever, here / placed_mass + adrift)
    if where.adrift is not None:
        centre = centre + np.append(where.adrift @ adrift, 0.0)
    sd = np.sqrt(np.maximum(variance, 0.0))
    return CentreOfGravity(*(float(c) for c in centre), *(float(s) for s in sd))


def _taken_away(told: Told, lever: Matrix, share: Vector) -> Vector:
    """How much less the CG's variance is along each axis for what checks say of masses and
    stations together; the masses' own part is in their covariance already. Shape (3,)."""
    by_mass = told.mass @ lever
    by_station = np.column_stack([told.x @ share, told.y @ share, np.zeros(len(told.x))])
    less: Vector = ((by_mass + by_station) ** 2).sum(axis=0) - (by_mass**2).sum(axis=0)
    return less


def lever_arms(mass: Vector, where: Stations, aboard: Vector, x_cg_mm: float) -> Vector:
    """``d xcg/d m_i`` along x for every part, shape (N,) [mm/g].

    >>> xyz = np.array([[0.0, 0.0, 0.0], [100.0, 0.0, 0.0]])
    >>> where = Stations(xyz, np.zeros(2), np.array([True, True]))
    >>> lever_arms(np.array([60.0, 40.0]), where, np.ones(2), 40.0).tolist()
    [-0.4, 0.6]
    """
    here = aboard * where.placed
    arms: Vector = (where.xyz[:, 0] - x_cg_mm) * here / float(mass @ here)
    return arms
