"""Laws of outlines: whatever is drawn, areas add up and stations follow."""

from itertools import pairwise
from math import dist, hypot

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LinearRing, Point

from oaken_scale.core.geometry.curves import Curve
from oaken_scale.core.geometry.outline import Box, Drawing, outlines
from oaken_scale.core.geometry.placing import Aft, Cut, Datum, Lie, Placing, parts_from, station


@st.composite
def stars(draw, around=(0.0, 0.0), reach=100.0):
    """A star-shaped polygon: it never crosses itself. Corners shape (n, 2)."""
    count = draw(st.integers(5, 24))
    radii = draw(st.lists(st.floats(0.35 * reach, reach), min_size=count, max_size=count))
    turns = np.arange(count) * 2 * np.pi / count
    return np.array(around) + np.array(radii)[:, None] * np.column_stack(
        [np.cos(turns), np.sin(turns)]
    )


def shoelace(points):
    """Area and centroid by the triangles from the first corner, one by one."""
    area = mx = my = 0.0
    x0, y0 = points[0]
    for (x1, y1), (x2, y2) in pairwise(points[1:]):
        piece = ((x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)) / 2
        area += piece
        mx += piece * (x0 + x1 + x2) / 3
        my += piece * (y0 + y1 + y2) / 3
    return abs(area), mx / area, my / area


@given(stars())
@settings(deadline=None)
def test_any_star_has_the_area_and_centroid_of_its_triangles(corners):
    (part,) = outlines(Drawing((Curve(corners, True),))).parts
    area, x, y = shoelace(corners)
    assert part.area_dm2 * 1e4 == pytest.approx(area, rel=1e-9)
    assert (part.x_mm, part.y_mm) == pytest.approx((x, y), abs=1e-6)


@given(stars(), stars(reach=30.0))
@settings(deadline=None)
def test_a_part_and_its_hole_are_the_whole(outer, inner):
    """The smaller star lies inside the larger: part plus hole is the outer ring."""
    room = LinearRing(outer).distance(Point(0, 0))
    inner = inner * (0.9 * room / np.hypot(*inner.T).max())
    (part,) = outlines(Drawing((Curve(outer, True), Curve(inner, True)))).parts
    whole, hole = shoelace(outer), shoelace(inner)
    assert part.holes == 1
    assert part.area_dm2 * 1e4 + hole[0] == pytest.approx(whole[0], rel=1e-9)
    moment = part.area_dm2 * 1e4 * part.x_mm + hole[0] * hole[1]
    assert moment == pytest.approx(whole[0] * whole[1], rel=1e-6, abs=1e-4)


@given(stars(), st.integers(0, 23), st.booleans())
@settings(deadline=None)
def test_where_a_ring_begins_and_which_way_it_runs_is_nothing(corners, start, back):
    first = outlines(Drawing((Curve(corners, True),))).parts[0]
    again = np.roll(corners[::-1] if back else corners, start, axis=0)
    second = outlines(Drawing((Curve(again, True),))).parts[0]
    assert second.area_dm2 == pytest.approx(first.area_dm2, rel=1e-9)
    assert second.x_mm == pytest.approx(first.x_mm, abs=1e-6)


@given(stars(), st.permutations(range(5)))
@settings(deadline=None)
def test_a_ring_cut_into_lines_closes_in_any_order(corners, order):
    """Cut into five runs, shuffled, every other one backwards: the same ring."""
    ring = np.vstack([corners, corners[:1]])
    at = np.linspace(0, len(corners), 6).astype(int)
    runs = [ring[a : b + 1] for a, b in pairwise(at)]
    pieces = [runs[k][::-1] if k % 2 else runs[k] for k in order]
    told = outlines(Drawing(tuple(Curve(piece, False) for piece in pieces)))
    assert told.open == ()
    assert told.parts[0].area_dm2 * 1e4 == pytest.approx(shoelace(corners)[0], rel=1e-6)


@given(st.floats(0.1, 40.0))
def test_the_scale_goes_in_squared(factor):
    corners = np.array([(0, 0), (60, 0), (60, 40), (0, 40)], dtype=float)
    told = outlines(Drawing((Curve(corners, True),), mm_per_unit=None), mm_per_unit=factor)
    assert told.parts[0].area_dm2 * 1e4 == pytest.approx(2400 * factor**2, rel=1e-9)
    assert told.width_mm == pytest.approx(60 * factor)


@given(
    st.sampled_from(Aft),
    st.sampled_from(Lie),
    st.sampled_from(Datum),
    st.floats(-50, 50),
    st.floats(-50, 50),
    st.floats(-300, 900),
)
def test_moving_the_drawing_moves_no_part_but_by_its_own_origin(aft, lie, datum, dx, dy, at):
    """Only a station of the drawing's origin depends on where the part is drawn."""

    def placed(x, y):
        box = Box(x, y, x + 120, y + 70)
        cut = Cut(
            "P",
            1.0,
            x + 50,
            y + 30,
            box,
            "a",
            placing=Placing(at, 5, 7, aft=aft, lie=lie, datum=datum),
        )
        where = station(cut)
        return where.x_mm, where.y_mm, where.z_mm

    by = hypot(dx, dy) if datum is Datum.ORIGIN else 0.0
    assert dist(placed(0, 0), placed(dx, dy)) == pytest.approx(by, abs=1e-6)


@given(st.floats(-400, 400), st.integers(1, 6), st.floats(0.1, 40))
def test_twins_weigh_alike_and_sit_across(y, layers, area):
    cut = Cut("Tip", area, 10, 10, Box(0, 0, 20, 20), "a", layers, True, placing=Placing(200, y))
    one, other = parts_from(cut, ("a", "b"), 4.6)
    assert one.uses == other.uses
    assert one.uses[0].amount == pytest.approx(area * layers)
    assert one.station.y_mm == -other.station.y_mm
    assert {one.name, other.name} == {"Tip, left", "Tip, right"}
