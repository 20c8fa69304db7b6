"""The neutral point: where the lift due to angle of attack acts, over all surfaces at once.

A vortex lattice: horseshoe vortices on the quarter chord of each panel, the flow tangent to the
plate at its three-quarter chord, a flat wake along x. Linear, so incidence does not matter.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise
from typing import Final

import numpy as np
from scipy.linalg import lu_factor, lu_solve

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.surface import Role, Section, Surface

CHORDWISE: Final = 8
SPANWISE: Final = 24
"""Panels of each half of a surface."""

WAKE_CORE: Final = 1e-3
"""Trailing legs of another surface have a core of so much of their strip's chord: next to none.
Surfaces that pass over one another are cut alike, so that no leg runs through a control point.
"""

SAME_MM: Final = 0.5
"""Stations nearer to one another than this are one cut [mm]."""

MOST_PANELS: Final = 800
"""A plane with many surfaces gets a coarser lattice."""

AT_ONCE: Final = 96
"""Points looked at together: their figures then stay near the processor."""

BAND: Final = 0.03
"""How far the neutral point may lie off what is told, as a fraction of the MAC (one sigma is half
of it): body, propeller, hinges and low Reynolds numbers are left out."""


@dataclass(frozen=True, slots=True)
class NeutralPoint:
    """Where the lift due to angle of attack acts [mm from the nose], and the lift slope
    [per rad], on ``area_dm2``."""

    x_mm: float
    lift_slope: float
    area_dm2: float


@dataclass(frozen=True, slots=True, eq=False)
class _Lattice:
    """One half of a surface as horseshoes. ``nodes`` (C, S+1, 3) on the quarter chords, ``at``
    (C, S, 3) the control points, ``normal`` (C, S, 3), ``width`` (S,) along y [mm], ``core``
    (S+1,) [mm]."""

    nodes: np.ndarray
    at: np.ndarray
    normal: np.ndarray
    width: Vector
    core: Vector


def neutral_point(
    surfaces: Sequence[Surface], chordwise: int = CHORDWISE, spanwise: int = SPANWISE
) -> NeutralPoint | None:
    """The neutral point of a plane; None when nothing is drawn that lifts.

    ``CL_alpha = 4 sum G dy / S`` and ``x_np = sum G dy x / sum G dy`` over the starboard half, with
    the circulations ``G`` per unit of angle. Fins lift nothing. ``S`` is the area of the wings, or
    of all that lifts where there is none.

    Source: Katz & Plotkin, *Low-Speed Aerodynamics*, section 12.3; Bertin & Cummings,
    *Aerodynamics for Engineers*, section 7.5, whose swept wing has 3.443 per rad on 1 x 4 panels:

    >>> swept = Surface("w", "Wing", Role.WING,
    ...     (Section(0, 0, 0, 200), Section(500, 500, 0, 200)))
    >>> told = neutral_point([swept], 1, 4)
    >>> round(told.lift_slope, 3), round(told.x_mm / 200, 3)
    (3.444, 1.48)
    """
    lifting = tuple(each for each in surfaces if each.role is not Role.FIN)
    return _solved(tuple((each.role, each.sections) for each in lifting), chordwise, spanwise)


@lru_cache(maxsize=256)
def _solved(
    shape: tuple[tuple[Role, tuple[Section, ...]], ...], chordwise: int, spanwise: int
) -> NeutralPoint | None:
    while len(shape) * chordwise * spanwise > MOST_PANELS and chordwise > 2:
        chordwise, spanwise = chordwise - 1, max(spanwise - 3, 6)
    shared = _shared_cuts([sections for _, sections in shape], spanwise)
    cut = (_lattice(sections, chordwise, spanwise, shared) for _, sections in shape)
    lattices = [each for each in cut if each is not None]
    if not lattices:
        return None
    influence = _influences(lattices)
    normal_z = np.concatenate([each.normal[..., 2].ravel() for each in lattices])
    try:
        circulation = lu_solve(lu_factor(influence, check_finite=False), -normal_z)
    except (ValueError, np.linalg.LinAlgError):
        return None
    width = np.concatenate([np.tile(each.width, len(each.nodes)) for each in lattices])
    bound_x = np.concatenate(
        [((each.nodes[:, 1:, 0] + each.nodes[:, :-1, 0]) / 2).ravel() for each in lattices]
    )
    lift = circulation * width
    total = float(lift.sum())
    if not np.isfinite(total) or total <= 0:
        return None
    of = [k for k, (role, _) in enumerate(shape) if role is Role.WING] or list(range(len(shape)))
    area = sum(_area(shape[k][1]) for k in of)
    x = float(lift @ bound_x) / total
    return NeutralPoint(x, 4 * total / area, area / 1e4) if area > 0 else None


def _area(sections: Sequence[Section]) -> float:
    """Projected area of both halves [mm2]."""
    return sum(
        abs(outer.y_mm - inner.y_mm) * (inner.chord_mm + outer.chord_mm)
        for inner, outer in pairwise(sections)
    )


def _lattice(
    sections: Sequence[Section], chordwise: int, spanwise: int, shared: Vector
) -> _Lattice | None:
    """Cut one half of a surface into panels, at its own sections and at the ``shared`` cuts (y) of
    all surfaces; None where it has no span or no chord."""
    rows = np.array([(s.x_le_mm, s.y_mm, s.z_mm, s.chord_mm) for s in sections])
    step = np.hypot(np.diff(rows[:, 1]), np.diff(rows[:, 2]))
    along = np.concatenate([[0.0], np.cumsum(step)])
    if len(rows) < 2 or along[-1] <= 0 or rows[:, 3].max() <= 0:
        return None
    span = _cuts(rows[:, 1], along, shared, spanwise)
    x_le, y, z, chord = (np.interp(span, along, column) for column in rows.T)
    mid_le, mid_y, mid_z, mid_chord = ((a[1:] + a[:-1]) / 2 for a in (x_le, y, z, chord))
    quarter = (np.arange(chordwise) + 0.25) / chordwise
    aft = (np.arange(chordwise) + 0.75) / chordwise

    def placed(share: Vector, le: Vector, c: Vector, y: Vector, z: Vector) -> np.ndarray:
        x = le + share[:, None] * c
        return np.stack([x, np.broadcast_to(y, x.shape), np.broadcast_to(z, x.shape)], axis=-1)

    at = placed(aft, mid_le, mid_chord, mid_y, mid_z)
    rise, run = np.diff(z), np.diff(y)
    long = np.maximum(np.hypot(rise, run), 1e-9)
    flat = np.stack([np.zeros_like(run), -rise / long, run / long], axis=-1)
    return _Lattice(
        nodes=placed(quarter, x_le, chord, y, z),
        at=at,
        normal=np.broadcast_to(flat, at.shape),
        width=run,
        core=WAKE_CORE * np.maximum(chord, chord.max() / 4),
    )


def _shared_cuts(halves: Sequence[Sequence[Section]], spanwise: int) -> Vector:
    """Where every surface is cut, from the middle out [mm]: at the sections of all, and between
    them as finely as the one that is cut finest there."""
    ends: list[float] = []
    for y in sorted({section.y_mm for sections in halves for section in sections}):
        if not ends or y - ends[-1] > SAME_MM:
            ends.append(y)
    cuts = [np.array(ends[:1])]
    for start, end in pairwise(ends):
        finest = 1
        for sections in halves:
            inner = min(section.y_mm for section in sections)
            outer = max(section.y_mm for section in sections)
            if inner - SAME_MM <= start and end <= outer + SAME_MM and outer > inner:
                finest = max(finest, round(spanwise * (end - start) / (outer - inner)))
        cuts.append(start + (end - start) * np.arange(1, finest + 1) / finest)
    return np.concatenate(cuts)


def _cuts(y: Vector, along: Vector, shared: Vector, spanwise: int) -> Vector:
    """Where one half is cut, along it: at its sections, and where it passes the shared cuts. What
    goes straight up is cut by its length."""
    cuts = [float(each) for each in along]
    for (y0, y1), (a0, a1) in zip(pairwise(y), pairwise(along), strict=True):
        if y1 - y0 > SAME_MM:
            inside = shared[(shared > y0 + SAME_MM) & (shared < y1 - SAME_MM)]
            cuts += [float(a0 + (a1 - a0) * (each - y0) / (y1 - y0)) for each in inside]
        elif a1 - a0 > SAME_MM:
            count = max(1, round(spanwise * (a1 - a0) / along[-1]))
            cuts += [float(a0 + (a1 - a0) * k / count) for k in range(1, count)]
    return np.array(sorted(set(cuts)))


def _influences(lattices: Sequence[_Lattice]) -> Matrix:
    """Normal velocity at every control point per unit circulation, image in the middle plane
    included, shape (P, P)."""
    blocks = []
    for here in lattices:
        points, normals = here.at.reshape(-1, 3), here.normal.reshape(-1, 3)
        mirror = np.array([1.0, -1.0, 1.0])
        both = np.concatenate([points, points * mirror])
        facing = np.concatenate([normals, normals * mirror])
        row = []
        for there in lattices:
            some = [slice(k, k + AT_ONCE) for k in range(0, len(both), AT_ONCE)]
            other = there is not here
            told = np.concatenate([_influence(both[k], facing[k], there, other) for k in some])
            row.append(told[: len(points)] + told[len(points) :])
        blocks.append(np.concatenate(row, axis=1))
    return np.concatenate(blocks, axis=0)


def _influence(points: Matrix, normals: Matrix, there: _Lattice, other: bool) -> Matrix:
    """Velocity along ``normals`` (P, 3) at ``points`` (P, 3) by each horseshoe of a lattice, shape
    (P, C*S). The legs run from the nodes along x for ever; those of another surface have a core.

    A segment from A to B gives ``(|a|+|b|)/(|a||b|(|a||b|+a.b)) a x b / 4 pi``.
    """
    nodes = there.nodes
    # A post's height and side are the same in every row: they are worked out once.
    rx = points[:, None, None, 0] - nodes[None, :, :, 0]
    ry = points[:, None, None, 1] - nodes[None, :1, :, 1]
    rz = points[:, None, None, 2] - nodes[None, :1, :, 2]
    ny, nz = normals[:, 1, None, None], normals[:, 2, None, None]
    level = not normals[:, 1].any()
    square = ry * ry + rz * rz
    far = rx * rx
    far += square
    np.sqrt(far, out=far)
    soft = there.core if other else np.full_like(there.core, 1e-6)
    aside = (nz * ry if level else nz * ry - ny * rz) / (square + np.square(soft))
    leg = rx / far
    leg += 1
    leg *= aside
    told = leg[:, :, 1:] - leg[:, :, :-1]

    bx, by, bz = (np.diff(nodes[:, :, k], axis=1)[None] for k in range(3))
    ax, ay, az = rx[:, :, :-1], ry[:, :, :-1], rz[:, :, :-1]
    # a x b with b = a - (B - A): its part along the normal is (B - A) x a . n.
    cross = bx * ay
    cross -= by * ax
    cross *= nz
    if not level:
        cross += ny * (bz * ax - bx * az)
    near, next_ = far[:, :, :-1], far[:, :, 1:]
    both = near * next_
    along = ax * rx[:, :, 1:]
    along += ay * ry[:, :, 1:] + az * rz[:, :, 1:]
    along += both
    np.maximum(along, 1e-9 * both, out=along)
    along *= both
    cross *= near + next_
    cross /= along
    told += cross
    flat: Matrix = told.reshape(len(points), -1) / (4 * np.pi)
    return flat
