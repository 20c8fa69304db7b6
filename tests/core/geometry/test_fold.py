"""Folds worked by hand, and folded up again."""

from dataclasses import replace
from math import atan2, cos, hypot, pi, radians, sin

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from shapely import Polygon

from oaken_scale.core.geometry.fold import FoldWay, opened
from oaken_scale.core.geometry.folded_box import FoldedBox, folded_box
from oaken_scale.core.geometry.folded_wing import FoldedWing, comes_out, folded_wing
from oaken_scale.core.model.faults.fault import BuildFaultError

BOX = FoldedBox(600.0, 60.0, 80.0, 5.0)
WING = FoldedWing(500.0, 190.0, 22.0, 5.0, way=FoldWay.GROOVE)


@pytest.mark.parametrize(
    ("angle", "way", "expected"),
    [
        (90.0, FoldWay.GROOVE, (10.0, 0.0, 0.0)),
        (60.0, FoldWay.GROOVE, (5.774, 0.0, 0.0)),
        (90.0, FoldWay.STRIP, (7.071, 7.071, 5.0)),
        (60.0, FoldWay.STRIP, (5.0, 5.0, 2.887)),
        (150.0, FoldWay.GROOVE, (9.659, 9.659, 18.660)),  # too far for bevels: a strip
    ],
)
def test_a_fold_is_opened_by_so_much(angle, way, expected):
    assert opened(5.0, angle, way) == pytest.approx(expected, abs=0.001)


def test_a_box_open_above_with_grooves():
    """80 + 60 + 80 mm by 600; each groove takes a triangle 10 wide and 5 deep, as much board as a
    strip 5 wide: 2 x 600 x 5 mm2 = 0.6 dm2."""
    told = folded_box(BOX)
    assert told.unfolded_mm == pytest.approx(220.0)
    assert told.part.area_dm2 == pytest.approx(13.2)
    assert told.groove_dm2 == pytest.approx(0.6)
    assert [(panel.name, panel.width_mm) for panel in told.panels] == [
        ("bottom", 60.0),
        ("right side", 80.0),
        ("left side", 80.0),
    ]
    assert (told.part.x_mm, told.part.y_mm) == (300.0, 0.0)


def test_a_closed_box_with_strips():
    """Sides lose 5 mm at each fold: floor and top 50, the right wall with folds at both its edges
    70, so the left one too; three strips of 7.07 mm: 50 + 70 + 50 + 70 + 21.21."""
    told = folded_box(replace(BOX, has_top=True, way=FoldWay.STRIP))
    assert told.unfolded_mm == pytest.approx(261.21, abs=0.01)
    assert [round(panel.width_mm, 2) for panel in told.panels] == [50.0, 70.0, 70.0, 50.0]
    assert told.groove_dm2 == pytest.approx(3 * 600 * 7.0711 / 1e4, rel=1e-4)
    assert told.part.area_dm2 == pytest.approx(600 * 261.21 / 1e4, rel=1e-4)


def test_a_box_that_tapers_to_the_rear():
    """Bottom 60 to 30 mm, sides 80 to 40 along the slanted edge, sqrt(600^2 + 15^2) = 600.19."""
    told = folded_box(replace(BOX, rear_width_mm=30.0, rear_height_mm=40.0))
    slant = hypot(600, 15)
    area = 600 * (60 + 30) / 2 + 2 * slant * (80 + 40) / 2
    assert told.part.area_dm2 * 1e4 == pytest.approx(area, rel=1e-6)
    flat = sum((a + b) / 2 for a, b in ((60, 30), (80, 40), (80, 40)))
    moment = sum(200 * (a + 2 * b) / 2 for a, b in ((60, 30), (80, 40), (80, 40)))
    assert told.part.x_mm == pytest.approx(moment / flat, rel=1e-4)
    for fold in told.folds:
        assert hypot(fold.end[0] - fold.start[0], fold.end[1] - fold.start[1]) == pytest.approx(
            slant
        )


def test_a_wing_by_hand():
    """u = 57: sqrt(57^2 + 17^2 - 25) = 59.27; 133: 133.99; slope atan(17/57) - atan(5/59.27) =
    11.785 degrees, round the nose 10 cos(5.893) = 9.947."""
    told = folded_wing(WING)
    assert [panel.width_mm for panel in told.panels] == pytest.approx(
        [190.0, 59.27, 133.99], abs=0.01
    )
    assert told.unfolded_mm == pytest.approx(190 + 9.947 + 59.27 + 133.99, abs=0.01)
    assert told.part.area_dm2 == pytest.approx(5 * told.unfolded_mm / 100)
    assert told.folds[0].angle_deg == pytest.approx(168.215, abs=0.001)
    assert told.inside_mm == pytest.approx(22 - 5 - 5 / cos(radians(11.785)), abs=0.001)
    assert (told.thickness_mm, told.thickest_at_mm) == (22.0, 57.0)
    assert told.part.x_mm == pytest.approx(250.0)


def folded_up(widths, nose_strip, slopes, board):
    """Where the inner corner of the trailing edge comes to lie, walked along the outer face: over
    the nose strip, up the front, down the rear, and through the board."""
    front, rear = slopes
    turn = pi - (pi - front) / 2  # the strip stands across the corner
    x, y = nose_strip * cos(turn), nose_strip * sin(turn)
    x, y = x + widths[1] * cos(front), y + widths[1] * sin(front)
    x, y = x + widths[2] * cos(rear), y - widths[2] * sin(rear)
    return x - board * sin(rear), y - board * cos(rear)


@given(
    chord=st.floats(80, 400),
    share=st.floats(0.06, 0.25),
    spar=st.floats(0.15, 0.6),
    board=st.floats(1.0, 6.0),
)
def test_what_is_cut_folds_up_to_the_section_that_was_asked_for(chord, share, spar, board):
    thick = max(share * chord, 2.2 * board)
    told = folded_wing(FoldedWing(500.0, chord, thick, board, spar, way=FoldWay.GROOVE))
    widths = [panel.width_mm for panel in told.panels]
    front = radians(180 - told.folds[0].angle_deg)
    rear = radians(told.folds[1].angle_deg) - front
    end = folded_up(widths, told.folds[0].opened_mm, (front, rear), board)
    assert end == pytest.approx((chord, board), abs=1e-6 * chord)
    high, at = comes_out(*widths, board)
    assert (high, at) == pytest.approx((thick, spar * chord), rel=1e-6)


def test_grooves_or_strips_on_top_of_the_spar_are_cut_as_wide_together():
    """A strip takes from each side what stands across the corner, a trifle less than it."""
    groove, strip = folded_wing(WING), folded_wing(replace(WING, way=FoldWay.STRIP))
    assert 0 < groove.unfolded_mm - strip.unfolded_mm < 0.1
    assert strip.folds[1].opened_mm == pytest.approx(groove.folds[1].opened_mm, rel=0.05)


def test_a_tapered_wing_is_cut_along_a_straight_leading_edge():
    told = folded_wing(replace(WING, thickness_mm=30.0, tip_chord_mm=120.0))
    root, tip = (
        told.unfolded_mm,
        folded_wing(FoldedWing(1.0, 120.0, 30.0 * 120 / 190, 5.0, way=FoldWay.GROOVE)).unfolded_mm,
    )
    assert told.part.area_dm2 * 1e4 == pytest.approx(500 * (root + tip) / 2, rel=1e-6)
    assert Polygon(told.part.rings[0]).is_valid
    assert told.folds[0].start[1] == pytest.approx(told.folds[0].end[1], abs=0.3)
    ratio = 120 / 190
    assert told.part.x_mm == pytest.approx(500 / 3 * (1 + 2 * ratio) / (1 + ratio))
    # Added up strip by strip: each as much board, and as far behind the edge, as its chord says.
    straight = folded_wing(replace(WING, thickness_mm=30.0))
    scale = 1 - (1 - ratio) * (np.arange(1000) + 0.5) / 1000
    middle = straight.part.y_mm * (scale**2).sum() / scale.sum()
    assert told.part.y_mm == pytest.approx(middle, rel=1e-6)


@pytest.mark.parametrize(
    ("work", "field", "words"),
    [
        (lambda: folded_box(replace(BOX, width_mm=10.0)), "width_mm", "alone take 10 mm"),
        (lambda: folded_box(replace(BOX, rear_height_mm=4.0)), "rear_height_mm", "10 mm"),
        (lambda: folded_wing(replace(WING, thickness_mm=10.0)), "thickness_mm", "over 10 mm"),
        (lambda: folded_wing(replace(WING, tip_chord_mm=80.0)), "tip_chord_mm", "over 86.36 mm"),
        (lambda: folded_wing(replace(WING, spar_at=0.95)), "spar_at", "between 0.05 and 0.9"),
        (lambda: comes_out(190.0, 60.0, 100.0, 5.0), "rear_mm", "over 129.7 mm and under 250.2 mm"),
        (lambda: comes_out(190.0, 60.0, 260.0, 5.0), "rear_mm", "under 250.2 mm"),
    ],
)
def test_what_cannot_be_folded_is_refused_with_what_would(work, field, words):
    with pytest.raises(BuildFaultError) as refused:
        work()
    assert refused.value.faults[0].field == field
    assert words in refused.value.faults[0].words


def test_just_inside_what_was_said_it_closes():
    for rear in (129.8, 250.1):
        high, at = comes_out(190.0, 60.0, rear, 5.0)
        assert high >= 5.0
        assert atan2(high - 5.0, at) >= 0


def test_sides_doubled_from_the_nose_back():
    """Between floor and open top 80 - 5 high, 200 long, 60/2 - 7.5 out; 60 - 20 clear there."""
    told = folded_box(replace(BOX, doubled_to_mm=200.0))
    (side,) = told.doublers
    assert (side.pieces, side.is_upright, side.begins_mm) == (2, True, 0.0)
    assert side.part.area_dm2 == pytest.approx(1.5)
    assert side.out_mm == pytest.approx(22.5)
    rooms = [(room.at_mm, room.width_mm, room.height_mm) for room in told.rooms]
    assert rooms == [(0.0, 40.0, 75.0), (200.0, 40.0, 75.0), (600.0, 50.0, 75.0)]
    # What is folded is as it was.
    assert told.part == folded_box(BOX).part


@given(st.floats(0, 500), st.floats(10, 100), st.floats(70, 200), st.floats(70, 200))
def test_a_doubler_in_a_tapering_box_has_its_slices(start, long, wide, high):
    box = replace(
        BOX,
        rear_width_mm=wide,
        rear_height_mm=high,
        has_top=True,
        doubled_from_mm=start,
        doubled_to_mm=min(start + long, 600.0),
    )
    (side,) = folded_box(box).doublers
    area = out = moment = 0.0
    slices = 400
    step = (box.doubled_to_mm - start) / slices
    for k in range(slices):
        x = start + (k + 0.5) * step
        tall = 80 + x / 600 * (high - 80) - 10
        slope = hypot(step, step / 600 * (wide - 60) / 2)
        area += tall * slope
        moment += tall * slope * (x - start)
        out += tall * slope * ((60 + x / 600 * (wide - 60)) / 2 - 7.5)
    assert side.part.area_dm2 == pytest.approx(area / 1e4, rel=1e-6)
    assert side.out_mm == pytest.approx(out / area, abs=0.01)
    flat = side.part.x_mm / side.part.box.right_mm * (box.doubled_to_mm - start)
    assert flat == pytest.approx(moment / area, abs=0.01)


def test_a_strip_under_the_spar_takes_its_room():
    """500 by 25 under the spar at 0.3 of 190: it begins 57 - 12.5 mm behind the leading edge."""
    plain, told = folded_wing(WING), folded_wing(replace(WING, doubler_mm=25.0))
    (strip,) = told.doublers
    assert (strip.part.area_dm2, strip.begins_mm) == (pytest.approx(1.25), pytest.approx(44.5))
    assert told.inside_mm == pytest.approx(plain.inside_mm - 5.0)


@pytest.mark.parametrize(
    ("shape", "change", "words"),
    [
        (BOX, {"doubled_to_mm": 700.0}, "at most 600 mm"),
        (BOX, {"doubled_from_mm": 300.0, "doubled_to_mm": 200.0}, "more than that"),
        (replace(BOX, width_mm=19.0), {"doubled_to_mm": 200.0}, "four walls take 20 mm"),
        (WING, {"doubler_mm": 190.0}, "must be less"),
        (replace(WING, thickness_mm=15.0), {"doubler_mm": 20.0}, "are left between the skins"),
    ],
)
def test_a_doubler_that_has_no_room(shape, change, words):
    fold = folded_box if isinstance(shape, FoldedBox) else folded_wing
    with pytest.raises(BuildFaultError, match=words):
        fold(replace(shape, **change))
