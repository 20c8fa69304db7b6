"""Bodies as panels: areas and middles against sums over many thin slices, and by hand."""

from dataclasses import replace
from itertools import pairwise
from math import hypot, pi

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.geometry.body import body_panels, middle, run_mm
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.pattern import is_sound, shape_of

SIZE = st.floats(20, 200)
STEPS = st.lists(
    st.tuples(st.floats(20, 300), st.floats(-40, 40), SIZE, SIZE), min_size=2, max_size=5
)


def box(steps, has_top=True, shape=BodyShape.BOX):
    x, frames = 0.0, []
    for step, z, wide, high in steps:
        x += step
        frames.append(Frame(x, z, wide, high))
    return Body("b", "Body", shape, tuple(frames), has_top=has_top)


def by_slices(body, slices=4000):
    """Area and middle of the right side, from thin slices of it."""
    area = x = y = z = 0.0
    for a, b in pairwise(body.frames):
        t = (np.arange(slices) + 0.5) / slices
        high = a.height_mm + t * (b.height_mm - a.height_mm)
        half = (a.width_mm + t * (b.width_mm - a.width_mm)) / 2
        da = high * hypot(b.x_mm - a.x_mm, (b.width_mm - a.width_mm) / 2) / slices
        area += da.sum()
        x += (da * (a.x_mm + t * (b.x_mm - a.x_mm))).sum()
        y += (da * (half - 2.5)).sum()
        z += (da * (a.z_mm + t * (b.z_mm - a.z_mm))).sum()
    return area / 1e4, x / area, y / area, z / area


@given(STEPS)
def test_a_side_has_the_area_and_the_middle_of_its_slices(steps):
    body = box(steps)
    left, right, bottom, top = body_panels(body)
    told = (right.area_dm2, right.x_mm, right.y_mm, right.z_mm)
    assert told == pytest.approx(by_slices(body), rel=1e-5, abs=1e-3)
    assert (left.area_dm2, left.y_mm) == pytest.approx((right.area_dm2, -right.y_mm))
    for panel in (left, right, bottom, top):
        # Corners are kept to a hundredth of a millimetre.
        corners = shape_of(panel.pattern)
        assert is_sound(panel.pattern)
        assert corners.area / 1e4 == pytest.approx(panel.area_dm2, abs=0.02)
    # A wall lies inside the body, half a board in from its face.
    assert bottom.z_mm < top.z_mm


@given(STEPS)
def test_an_open_box_has_no_top(steps):
    names = [panel.name for panel in body_panels(box(steps, has_top=False))]
    assert names == ["left side", "right side", "bottom"]


def test_a_round_tube_is_rolled_out_at_the_middle_of_its_board():
    (skin,) = body_panels(box([(1, 0, 65, 65), (400, 0, 65, 65)], shape=BodyShape.TUBE))
    assert skin.area_dm2 == pytest.approx(pi * 60 * 400 / 1e4, rel=1e-6)
    assert skin.x_mm == pytest.approx(201)


def test_a_cone_is_as_large_as_its_slope_times_its_mean_girth():
    (skin,) = body_panels(box([(1, 0, 85, 85), (300, 0, 25, 25)], shape=BodyShape.TUBE))
    assert skin.area_dm2 == pytest.approx(pi * 50 * hypot(300, 30) / 1e4, rel=1e-6)


def test_a_boom_that_bends():
    boom = Body(
        "b", "Boom", BodyShape.TUBE, (Frame(0, 0, 8, 8), Frame(300, 0, 8, 8), Frame(600, 400, 8, 8))
    )
    assert run_mm(boom) == 800
    assert middle(boom) == pytest.approx((337.5, 125.0))


@pytest.mark.parametrize("shape", BodyShape)
def test_walls_that_leave_nothing_between_them_are_refused(shape):
    thin = box([(1, 0, 5, 60), (100, 0, 60, 60)], shape=shape)
    with pytest.raises(BuildFaultError, match="5 mm"):
        body_panels(thin)


def test_the_frame_that_is_too_slim_for_its_walls_is_named():
    frames = (Frame(0, 0, 60, 80), Frame(300, 0, 10, 80), Frame(600, 0, 60, 80))
    with pytest.raises(BuildFaultError) as refused:
        body_panels(Body("b", "Body", BodyShape.BOX, frames), 5.0)
    (fault,) = refused.value.faults
    assert fault.field == "bodies.b.frames.1"
    assert fault.words.startswith("Body, frame 2, is 10 mm; two walls alone take 10 mm")
    slim = (*frames[:1], replace(frames[1], width_mm=10.1), *frames[2:])
    assert len(body_panels(Body("b", "Body", BodyShape.BOX, slim), 5.0)) == 4
