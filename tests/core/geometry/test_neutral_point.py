"""The neutral point against published figures and a lattice written out panel by panel."""

from itertools import pairwise, product
from math import hypot

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.geometry.neutral_point import WAKE_CORE, neutral_point
from oaken_scale.core.model.surface import Role, Section, Surface


def plate(role: Role, x: float, span: float, chord: float, z: float = 0.0) -> Surface:
    half = span / 2
    return Surface(role, role, role, (Section(x, 0, z, chord), Section(x, half, z, chord)))


def test_the_textbook_swept_wing():
    """Untapered, aspect ratio 5, swept 45 degrees, 1 x 4 panels: 3.443 per radian."""
    wing = Surface("w", "W", Role.WING, (Section(0, 0, 0, 200), Section(500, 500, 0, 200)))
    told = neutral_point([wing], 1, 4)
    assert told.lift_slope == pytest.approx(3.444, abs=0.001)
    assert told.x_mm / 200 == pytest.approx(1.480, abs=0.001)


@pytest.mark.parametrize(("aspect", "slope", "x"), [(6.0, 4.271, 0.239), (1.4, 1.953, 0.192)])
def test_rectangles(aspect, slope, x):
    told = neutral_point([plate(Role.WING, 0, 100 * aspect, 100)])
    assert told.lift_slope == pytest.approx(slope, abs=0.001)
    assert told.x_mm / 100 == pytest.approx(x, abs=0.001)


TAILED = (plate(Role.WING, 0, 1080, 190), plate(Role.TAIL, 620, 420, 120))
CANARD = (plate(Role.CANARD, 0, 520, 120), plate(Role.WING, 560, 1150, 185, 20))


@pytest.mark.parametrize(("surfaces", "x", "within"), [(TAILED, 107.5, 2.0), (CANARD, 470.6, 3.0)])
def test_two_surfaces(surfaces, x, within):
    assert neutral_point(surfaces).x_mm == pytest.approx(x, abs=within)


PAIRS = {
    "tandem": (plate(Role.WING, 0, 800, 150), plate(Role.WING, 450, 800, 150)),
    "tail as wide as the wing": (plate(Role.WING, 0, 500, 150), plate(Role.TAIL, 300, 500, 100)),
    "canard as wide": (plate(Role.CANARD, 0, 600, 110), plate(Role.WING, 450, 600, 180)),
}


@pytest.mark.parametrize(
    ("name", "up", "x", "within"),
    [
        ("tandem", 0.0, 177.2, 0.8),
        ("tail as wide as the wing", 0.0, 91.0, 0.8),
        ("canard as wide", 0.0, 209.7, 0.9),
        ("tandem", 20.0, 191.1, 0.8),
        ("tail as wide as the wing", 20.0, 107.5, 0.8),
        ("canard as wide", 20.0, 227.0, 0.9),
    ],
)
def test_one_in_the_wake_of_another_of_equal_span(name, up, x, within):
    front, rear = PAIRS[name]
    if up and name == "tandem":
        rear = plate(Role.WING, 450, 800, 150, up)
    elif up:
        front, rear = (
            plate(
                s.role,
                s.sections[0].x_le_mm,
                2 * s.sections[1].y_mm,
                s.sections[0].chord_mm,
                up if s.role is Role.WING else 0.0,
            )
            for s in (front, rear)
        )
    for panels in ((8, 32), (12, 36), (8, 24)):
        assert neutral_point((front, rear), *panels).x_mm == pytest.approx(x, abs=within)


@pytest.mark.parametrize("surfaces", [TAILED, CANARD])
def test_a_tail_in_the_wake_settles_as_the_lattice_is_refined(surfaces):
    coarse, fine = neutral_point(surfaces), neutral_point(surfaces, 12, 36)
    mac = next(s for s in surfaces if s.role is Role.WING).sections[0].chord_mm
    assert abs(coarse.x_mm - fine.x_mm) < 0.005 * mac


def segment(p, a, b):
    """Velocity at p of a straight vortex from a to b, by the textbook formula."""
    r1, r2, r0 = p - a, p - b, b - a
    cross = np.cross(r1, r2)
    square = cross @ cross
    if square < 1e-12:
        return np.zeros(3)
    along = r0 @ (r1 / np.linalg.norm(r1) - r2 / np.linalg.norm(r2))
    return cross * along / square / (4 * np.pi)


def leg(p, a, core):
    """Velocity at p of a half-infinite vortex from a along x."""
    r = p - a
    square = r[1] ** 2 + r[2] ** 2
    size = (1 + r[0] / np.linalg.norm(r)) / (square + core**2)
    return size * np.array([0.0, -r[2], r[1]]) / (4 * np.pi)


def post(root, tip, side, share, along):
    """A point of a half, so far out and so far back, and the chord there."""
    far, near = (
        np.array([s.x_le_mm + along * s.chord_mm, side * s.y_mm, s.z_mm]) for s in (tip, root)
    )
    return near + share * (far - near), root.chord_mm + share * (tip.chord_mm - root.chord_mm)


def cut(surfaces, spanwise: int) -> list[list[float]]:
    """Where each surface is cut, as shares of its half: between the roots and tips of all, each
    stretch into as many strips as the surface that has most of them there."""
    ends = sorted({s.sections[k].y_mm for s in surfaces for k in (0, 1)})
    shares = []
    for surface in surfaces:
        half = surface.sections[1].y_mm
        edges = [0.0]
        for start, end in pairwise(ends):
            if end > half:
                continue
            count = max(
                max(1, round(spanwise * (end - start) / other.sections[1].y_mm))
                for other in surfaces
                if other.sections[1].y_mm >= end
            )
            edges += [(start + (end - start) * k / count) / half for k in range(1, count + 1)]
        shares.append(edges)
    return shares


def written_out(surfaces, chordwise: int, spanwise: int) -> float:
    """The neutral point from horseshoes on both halves, one panel at a time."""
    panels = []
    strips = cut(surfaces, spanwise)
    for number, surface in enumerate(surfaces):
        root, tip = surface.sections
        most = max(root.chord_mm, tip.chord_mm) / 4
        rise, run = tip.z_mm - root.z_mm, tip.y_mm - root.y_mm
        edges = strips[number]
        for side, k, j in product((1, -1), range(len(edges) - 1), range(chordwise)):
            start, end = edges[k], edges[k + 1]
            inner, inner_chord = post(root, tip, side, start, (j + 0.25) / chordwise)
            outer, outer_chord = post(root, tip, side, end, (j + 0.25) / chordwise)
            at, _ = post(root, tip, side, (start + end) / 2, (j + 0.75) / chordwise)
            normal = np.array([0.0, -side * rise, run]) / hypot(rise, run)
            cores = [WAKE_CORE * max(c, most) for c in (inner_chord, outer_chord)]
            ends = [(inner, cores[0]), (outer, cores[1])]
            # The bound vortex runs to starboard on both halves.
            panels.append((number, ends[::side], at, normal, run * (end - start)))
    size = len(panels)
    influence, down = np.zeros((size, size)), np.zeros(size)
    for i, (mine, _, at, normal, _) in enumerate(panels):
        down[i] = -normal[2]
        for j, (theirs, ((a, core_a), (b, core_b)), *_) in enumerate(panels):
            soft = mine != theirs
            velocity = segment(at, a, b)
            velocity = velocity + leg(at, b, core_b if soft else 0.0)
            velocity = velocity - leg(at, a, core_a if soft else 0.0)
            influence[i, j] = velocity @ normal
    lift = np.linalg.solve(influence, down) * np.array([panel[4] for panel in panels])
    x = np.array([(panel[1][0][0][0] + panel[1][1][0][0]) / 2 for panel in panels])
    return float(lift @ x / lift.sum())


def lifting(role, x):
    """Two tapered, swept sections with dihedral."""
    return st.builds(
        lambda sweep, rise, half, root, tip: Surface(
            role, role, role, (Section(x, 0, 0, root), Section(x + sweep, half, rise, tip))
        ),
        st.floats(-60, 200),
        st.floats(0, 80),
        st.floats(200, 600),
        st.floats(80, 250),
        st.floats(40, 200),
    )


@given(lifting(Role.WING, 200.0), st.none() | lifting(Role.TAIL, 900.0))
@settings(deadline=None, max_examples=12)
def test_any_layout_agrees_with_the_lattice_written_out(wing, tail):
    surfaces = [wing] if tail is None else [wing, tail]
    told = neutral_point(surfaces, 2, 5)
    assert told.x_mm == pytest.approx(written_out(surfaces, 2, 5), abs=1e-6)


def test_a_fin_lifts_nothing_and_an_empty_drawing_has_no_neutral_point():
    fin = Surface("f", "F", Role.FIN, (Section(600, 0, 0, 120), Section(640, 0, 120, 80)))
    assert neutral_point([*TAILED, fin]) == neutral_point(TAILED)
    assert neutral_point([fin]) is None
    assert neutral_point([]) is None


def test_a_delta_with_pointed_tips_has_one():
    delta = Surface("w", "W", Role.WING, (Section(0, 0, 0, 500), Section(500, 350, 0, 0)))
    told = neutral_point([delta])
    assert 0.4 < told.x_mm / 500 < 0.7


def test_where_it_is_drawn_and_how_large_changes_nothing_else():
    moved = [plate(Role.WING, 50, 1080, 190), plate(Role.TAIL, 670, 420, 120)]
    assert neutral_point(moved).x_mm == pytest.approx(neutral_point(TAILED).x_mm + 50, abs=1e-6)
    twice = [plate(Role.WING, 0, 2160, 380), plate(Role.TAIL, 1240, 840, 240)]
    assert neutral_point(twice).x_mm == pytest.approx(2 * neutral_point(TAILED).x_mm, rel=1e-9)


def test_two_wings_in_the_same_place_are_refused_or_finite():
    told = neutral_point([plate(Role.WING, 0, 800, 150), plate(Role.WING, 0, 800, 150)])
    assert told is None or np.isfinite(told.x_mm)


def test_a_winglet_holds_the_tip_as_a_little_more_span_would():
    """A wing 600 by 100 with 60 straight up at each tip: more lift than without, less than with as
    much more span; swept back, it pulls the neutral point aft."""

    def wing(*tips: Section) -> Surface:
        return Surface("w", "W", Role.WING, (Section(0, 0, 0, 100), Section(0, 300, 0, 100), *tips))

    plain, up = neutral_point([wing()]), neutral_point([wing(Section(0, 300, 60, 100))])
    flat = neutral_point([wing(Section(0, 360, 0, 100))])
    lift = [told.lift_slope * told.area_dm2 for told in (plain, up, flat)]
    assert lift == sorted(lift)
    assert lift[1] > 1.02 * lift[0]
    assert up.area_dm2 == pytest.approx(plain.area_dm2) == pytest.approx(6.0)
    swept = neutral_point([wing(Section(60, 300, 60, 60))])
    assert swept.x_mm > plain.x_mm
    assert abs(swept.x_mm - plain.x_mm) < 10
