"""Outlines, shapes and their place on the plane, against areas and centroids worked by hand."""

from math import hypot, pi, sqrt

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.geometry.curves import Curve
from oaken_scale.core.geometry.outline import (
    Box,
    Drawing,
    FlawKind,
    Label,
    OddOutline,
    OutlineFlaw,
    OutlineOddity,
    outlines,
)
from oaken_scale.core.geometry.placing import Aft, Cut, Datum, Lie, Placing, parts_from, station
from oaken_scale.core.geometry.shape import (
    CutOut,
    Ellipse,
    Polygon,
    Rectangle,
    Trapezoid,
    Triangle,
    area_and_centroid,
    measured,
    template_area,
)
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Reference


def rectangle(x, y, w, h, name="", layer="", closed=True):
    points = np.array([(x, y), (x + w, y), (x + w, y + h), (x, y + h)], dtype=float)
    return Curve(points, closed, name, layer)


def line(*points, layer=""):
    return Curve(np.array(points, dtype=float), False, "", layer)


def offered(*curves, **more):
    return outlines(Drawing(curves), **more)


def test_what_lies_inside_is_cut_out_and_what_lies_in_a_hole_is_a_part():
    told = offered(
        rectangle(0, 0, 100, 100, "Frame"),
        rectangle(10, 10, 80, 80),
        rectangle(30, 30, 40, 40, "Core"),
        rectangle(40, 40, 20, 20),
        rectangle(200, 0, 10, 10, "Tab"),
    )
    assert [(p.name, round(p.area_dm2 * 1e4), p.holes) for p in told.parts] == [
        ("Frame", 3600, 1),
        ("Core", 1200, 1),
        ("Tab", 100, 0),
    ]


def test_a_hole_off_the_middle_moves_the_centroid():
    """100 x 100 less 20 x 20 at (70..90, 40..60): x = (10000*50 - 400*80)/9600."""
    part = offered(rectangle(0, 0, 100, 100), rectangle(70, 40, 20, 20)).parts[0]
    assert part.x_mm == pytest.approx((10_000 * 50 - 400 * 80) / 9600)
    assert part.y_mm == pytest.approx(50.0)


def test_an_outline_drawn_twice_counts_once_whichever_way_round():
    square = rectangle(0, 0, 50, 50)
    again = Curve(np.roll(square.points[::-1], 2, axis=0) + 0.01, True)
    told = offered(square, again)
    assert [part.area_dm2 for part in told.parts] == [pytest.approx(0.25)]
    assert told.odd == (OddOutline(OutlineOddity.DRAWN_TWICE, 1),)


def test_a_loop_of_lines_closes_in_any_order_and_direction():
    told = offered(
        line((0, 0), (60, 0)),
        line((0, 40), (0, 0)),
        line((60, 40), (60, 0)),
        line((60, 40), (0, 40)),
        line((0, 0), (60, 0)),
    )
    assert told.parts[0].area_dm2 == pytest.approx(0.24)
    assert told.open == ()


def test_lines_of_two_layers_do_not_close_each_other():
    told = offered(line((0, 0), (60, 0), (60, 40)), line((60, 40), (0, 40), (0, 0), layer="fold"))
    assert told.parts == ()
    assert len(told.open) == 2


def test_an_open_path_closes_only_when_asked_and_near_enough():
    path = line((0, 0), (60, 0), (60, 40), (0, 40), (0, 3))
    assert offered(path).parts == ()
    assert offered(path).open[0].gap_mm == pytest.approx(3.0)
    assert offered(path, close_within_mm=2).parts == ()
    assert offered(path, close_within_mm=5).parts[0].area_dm2 == pytest.approx(0.24)


def test_a_crossing_is_said_where_it_is():
    bow = Curve(np.array([(0, 0), (40, 40), (40, 0), (0, 40)], dtype=float), True, "Bow")
    (part,) = offered(bow).parts
    assert part.flaw == OutlineFlaw(FlawKind.CROSSES_ITSELF, 20.0, 20.0)
    assert part.area_dm2 == 0


def test_what_encloses_nothing_is_left_out_and_said():
    flat = Curve(np.array([(0, 0), (40, 0), (20, 0)], dtype=float), True)
    told = offered(flat, rectangle(0, 0, 0.5, 0.5))
    assert told.parts == ()
    assert told.odd == (OddOutline(OutlineOddity.ENCLOSES_NOTHING, 2),)


def test_words_on_a_part_name_it_and_made_up_names_do_not():
    drawing = Drawing(
        (rectangle(0, 0, 50, 50, "path1234"), rectangle(100, 0, 40, 40, "rect-7")),
        (Label("Rib 3", 20, 20),),
    )
    assert [part.name for part in outlines(drawing).parts] == ["Rib 3", "Part 1"]


def test_one_known_length_gives_the_scale():
    drawing = Drawing((rectangle(0, 0, 10, 20),), mm_per_unit=None)
    assert outlines(drawing).mm_per_unit is None
    told = outlines(drawing, mm_per_unit=25.4)
    assert told.parts[0].area_dm2 == pytest.approx(254 * 508 / 1e4)
    assert told.width_mm == pytest.approx(254)


@given(st.floats(5, 400), st.floats(5, 400), st.floats(0, 2 * pi), st.floats(-500, 500))
def test_turning_and_moving_a_drawing_changes_no_area(w, h, turn, shift):
    square = rectangle(0, 0, w, h).points
    spin = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    (part,) = offered(Curve(square @ spin + shift, True)).parts
    assert part.area_dm2 == pytest.approx(w * h / 1e4, rel=1e-9)
    centre = np.array([w / 2, h / 2]) @ spin + shift
    assert (part.x_mm, part.y_mm) == pytest.approx(tuple(centre), abs=1e-6)


# Where a part sits: a half wing 190 wide and 540 long, drawn in each of four ways.

DRAWN = {
    # The nose points where? The root (inner edge) and the front edge, in drawing coordinates.
    Aft.RIGHT: (Box(0, 0, 190, 540), (80, 200)),
    Aft.LEFT: (Box(0, 0, 190, 540), (110, 340)),
    Aft.DOWN: (Box(0, 0, 540, 190), (340, 80)),
    Aft.UP: (Box(0, 0, 540, 190), (200, 110)),
}


@pytest.mark.parametrize("aft", list(Aft))
def test_a_part_turned_on_the_sheet_lands_in_one_place(aft):
    """Seen from above with the nose to the left, starboard is up the sheet; so turned each way."""
    box, (x, y) = DRAWN[aft]
    cut = Cut(
        "Half",
        10.26,
        x,
        y,
        box,
        "a",
        placing=Placing(186, 0, 62, aft=aft, datum=Datum.FRONT_CORNER),
    )
    at = station(cut)
    assert (at.x_mm, at.y_mm, at.z_mm) == pytest.approx((186 + 80, 340, 62))


def test_an_upright_part_rises_from_its_lower_edge():
    upright = Placing(
        690, 5, 20, Reference.LEADING_EDGE, Aft.RIGHT, Lie.UPRIGHT, Datum.FRONT_CORNER
    )
    fin = Cut("Fin", 1.0, 60, 30, Box(0, 0, 130, 90), "a", placing=upright)
    at = station(fin)
    assert (at.x_mm, at.y_mm, at.z_mm) == (750, 5, 80)
    assert at.reference is Reference.LEADING_EDGE


def test_the_middle_of_the_front_edge_and_the_origin_are_datums_too():
    plate = Cut("Plate", 1.0, 40, 30, Box(10, 0, 110, 60), "a", placing=Placing(300))
    assert (station(plate).x_mm, station(plate).y_mm) == (330, 0)
    origin = Cut(
        "Plate", 1.0, 40, 30, Box(10, 0, 110, 60), "a", placing=Placing(300, datum=Datum.ORIGIN)
    )
    assert (station(origin).x_mm, station(origin).y_mm) == (340, -30)


def test_a_twin_is_mirrored_and_layers_weigh():
    cut = Cut(
        "Tip",
        2.0,
        50,
        -80,
        Box(0, -100, 100, -60),
        "a",
        layers=2,
        twin=True,
        assembly="Wing",
        placing=Placing(200, datum=Datum.ORIGIN),
    )
    right, left = parts_from(cut, ("tip", "tip-2"), 4.6)
    assert (right.name, left.name) == ("Tip, right", "Tip, left")
    assert (right.station.y_mm, left.station.y_mm) == (80, -80)
    assert right.uses[0].amount == left.uses[0].amount == 4.0
    assert right.assembly == "Wing"


def test_a_templates_doubt_becomes_the_parts():
    area, doubt = template_area(16.4, 0.058, 80.0, 2.0)
    assert area == pytest.approx(20.5)
    assert doubt == pytest.approx(20.5 * hypot(0.058 / 16.4, 2 / 80))
    (part,) = parts_from(Cut("P", area, 0, 0, Box(0, 0, 1, 1), "a", doubt_dm2=doubt), ("p",), 4.0)
    assert part.doubt_g == pytest.approx(4 * doubt)


SHAPES = {
    "rectangle": (Rectangle(190, 540), 102_600, (95, 270)),
    "right triangle": (Triangle(90, 60), 2700, (30, 20)),
    "leaning triangle": (Triangle(90, 60, 120), 2700, (70, 20)),
    # A trapezoid as a 40 x 30 rectangle and a triangle of base 20.
    "trapezoid": (
        Trapezoid(40, 60, 30),
        1500,
        ((1200 * 20 + 300 * 140 / 3) / 1500, (1200 * 15 + 300 * 20) / 1500),
    ),
    "circle": (Ellipse(50, 50), 625 * pi, (25, 25)),
    "L": (
        Polygon(((0, 0), (40, 0), (40, 10), (10, 10), (10, 30), (0, 30))),
        600,
        ((400 * 20 + 200 * 5) / 600, (400 * 5 + 200 * 20) / 600),
    ),
    "against the clock": (Polygon(((0, 0), (0, 10), (10, 10), (10, 0))), 100, (5, 5)),
}


@pytest.mark.parametrize("name", SHAPES)
def test_shapes_by_hand(name):
    shape, area, centroid = SHAPES[name]
    told = area_and_centroid(shape)
    assert told[0] == pytest.approx(area)
    assert told[1:] == pytest.approx(centroid)


def test_cut_outs_are_exact():
    """A bulkhead 60 x 50 with a round hole of 20: x = (3000*30 - 100pi*45)/(3000 - 100pi)."""
    part = measured("Bulkhead", Rectangle(60, 50), (CutOut(Ellipse(20, 20), 35, 15),))
    left = 3000 - 100 * pi
    assert part.area_dm2 == pytest.approx(left / 1e4)
    assert part.x_mm == pytest.approx((3000 * 30 - 100 * pi * 45) / left)
    assert part.y_mm == pytest.approx(25)
    assert len(part.rings) == 2


@pytest.mark.parametrize(
    ("shape", "cuts", "words"),
    [
        (Polygon(((0, 0), (40, 40), (40, 0), (0, 40))), (), "cross or enclose nothing"),
        (Rectangle(40, 40), (CutOut(Rectangle(20, 20), 30, 0),), "reaches out of the part"),
        (Rectangle(40, 40), (CutOut(Rectangle(40, 40)),), "leave nothing"),
        (
            Rectangle(40, 40),
            (CutOut(Rectangle(20, 20)), CutOut(Rectangle(20, 20), 10, 10)),
            "overlaps",
        ),
    ],
)
def test_shapes_that_cannot_be(shape, cuts, words):
    with pytest.raises(BuildFaultError, match=words):
        measured("P", shape, cuts)


def test_an_equilateral_triangle_balances_at_a_third():
    height = 60 * sqrt(3) / 2
    assert area_and_centroid(Triangle(60, height, 30))[1:] == pytest.approx((30, height / 3))


def test_parts_that_share_an_edge_drawn_once_are_both_parts():
    """Three plates in a row, of 9 lines: two outer edges, and walls between them."""
    walls = [line((x, 0), (x, 50)) for x in (0, 30, 70, 120)]
    edges = [line((a, y), (b, y)) for y in (0, 50) for a, b in ((0, 30), (30, 70), (70, 120))]
    told = outlines(Drawing((*walls, *edges)))
    assert sorted(each.area_dm2 * 1e4 for each in told.parts) == pytest.approx([1500, 2000, 2500])
    assert told.open == ()
    assert OutlineOddity.SHARED_EDGES in [each.kind for each in told.odd]


def test_a_line_that_ends_on_the_middle_of_another_parts_two():
    around = [
        line((0, 0), (100, 0)),
        line((100, 0), (100, 40)),
        line((100, 40), (0, 40.02)),
        line((0, 40), (0, 0)),
    ]
    told = outlines(Drawing((*around, line((25, 0.03), (25, 40)))))
    assert sorted(each.area_dm2 * 1e4 for each in told.parts) == pytest.approx(
        [1000, 3000], rel=1e-3
    )


def test_what_dangles_from_shared_edges_stays_open():
    square = [line((0, 0), (100, 0), (100, 100)), line((100, 100), (0, 100), (0, 0))]
    told = outlines(Drawing((*square, line((100, 100), (150, 150)))))
    assert [round(each.area_dm2 * 1e4) for each in told.parts] == [10_000]
    assert [round(each.length_mm, 1) for each in told.open] == [70.7]


def test_a_loop_without_branches_is_walked_as_before():
    pieces = (line((0, 0), (60, 0)), line((60, 40), (60, 0)), line((60, 40), (0, 40), (0, 0)))
    told = outlines(Drawing(pieces))
    assert [round(each.area_dm2 * 1e4) for each in told.parts] == [2400]
    assert told.odd == ()


def test_lines_of_other_layers_do_not_part_what_they_cross():
    square = [line((0, 0), (100, 0), (100, 100)), line((100, 100), (0, 100), (0, 0))]
    fold = line((0, 0), (100, 100), layer="folds")
    told = outlines(Drawing((*square, fold)))
    assert [round(each.area_dm2 * 1e4) for each in told.parts] == [10_000]
    assert len(told.open) == 1


@pytest.mark.parametrize("radius", [2.0, 10.0, 40.0, 400.0])
def test_a_picture_is_as_fine_as_its_part_is_small(radius):
    """A four-hundredth of its size, and never coarser than a knife cuts."""
    turn = np.linspace(0, 2 * pi, 3001)
    circle = Curve(np.column_stack([radius * np.cos(turn), radius * np.sin(turn)]), closed=True)
    (part,) = outlines(Drawing((circle,))).parts
    (ring,) = part.rings
    corners = np.array(ring) - np.array([part.x_mm, part.y_mm])
    middles = (corners + np.roll(corners, 1, axis=0)) / 2
    off = radius - min(np.hypot(*middles.T))
    fine = min(2 * radius / 400, 0.15)
    assert off <= fine + 0.01  # corners are told to a hundredth
    assert off >= fine / 4  # no finer than it is good for


@pytest.mark.parametrize(
    ("lie", "aft", "at"),
    [
        (Lie.FLAT, Aft.RIGHT, (530.0, 80.0, 60.0)),
        (Lie.FLAT, Aft.DOWN, (520.0, 130.0, 60.0)),
        (Lie.FLAT, Aft.LEFT, (470.0, 120.0, 60.0)),
        (Lie.FLAT, Aft.UP, (480.0, 70.0, 60.0)),
        (Lie.UPRIGHT, Aft.RIGHT, (530.0, 100.0, 40.0)),
        (Lie.UPRIGHT, Aft.DOWN, (520.0, 100.0, 90.0)),
        (Lie.UPRIGHT, Aft.LEFT, (470.0, 100.0, 40.0)),
        (Lie.UPRIGHT, Aft.UP, (480.0, 100.0, 30.0)),
    ],
)
def test_a_centroid_30_right_and_20_down_of_the_origin_however_it_is_turned(lie, aft, at):
    """Its origin sits at 500, 100, 60; x goes right and y down on the drawing."""
    placing = Placing(500.0, 100.0, 60.0, aft=aft, lie=lie, datum=Datum.ORIGIN)
    told = station(Cut("P", 1.0, 30.0, 20.0, Box(-9, -7, 80, 90), "a", placing=placing))
    assert (told.x_mm, told.y_mm, told.z_mm) == at
