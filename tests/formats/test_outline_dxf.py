"""DXF drawings as other programs write them, against areas worked by hand."""

from io import BytesIO, StringIO
from itertools import pairwise
from math import cos, pi, sin

import ezdxf
import pytest

from oaken_scale.core.geometry.outline import outlines
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.formats.drawing import read_drawing


def drawing(draw, unit: int = 4, version: str = "R2010") -> bytes:
    document = ezdxf.new(version)
    document.header["$INSUNITS"] = unit
    draw(document.modelspace(), document)
    text = StringIO()
    document.write(text)
    return text.getvalue().encode("utf-8")


def offered(draw, unit: int = 4, version: str = "R2010", **more):
    return outlines(read_drawing(drawing(draw, unit, version)), **more)


def box(space, x=0, y=0, w=60, h=40, **attributes):
    space.add_lwpolyline(
        [(x, y), (x + w, y), (x + w, y + h), (x, y + h)], close=True, dxfattribs=attributes
    )


def spline_circle(space, _):
    """A circle of 30 as a rational quadratic spline: nine control points, exact."""
    half = 0.5**0.5
    around = [(1, 0), (1, 1), (0, 1), (-1, 1), (-1, 0), (-1, -1), (0, -1), (1, -1), (1, 0)]
    space.add_rational_spline(
        [(30 * x, 30 * y) for x, y in around],
        [1, half] * 4 + [1],
        degree=2,
        knots=[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4],
    )


def nested_blocks(space, document):
    rib = document.blocks.new("RIB")
    box(rib)
    rib.add_circle((30, 20), 10)
    pair = document.blocks.new("PAIR")
    pair.add_blockref("RIB", (0, 0))
    pair.add_blockref("RIB", (100, 0), dxfattribs={"rotation": 90, "xscale": 2, "yscale": 0.5})
    space.add_blockref("PAIR", (10, 10), dxfattribs={"xscale": -1})


CURVES = {
    "circle": (lambda s, _: s.add_circle((50, 40), 20), [400 * pi], (50, -40)),
    "ellipse": (lambda s, _: s.add_ellipse((50, 40), (30, 0), 0.4), [900 * 0.4 * pi], (50, -40)),
    "bulges": (
        lambda s, _: s.add_lwpolyline(
            [(0, 0, 0), (60, 0, 1), (60, 40, 0), (0, 40, 1)], format="xyb", close=True
        ),
        [2400 + 400 * pi],
        (30, -20),
    ),
    "rational spline": (spline_circle, [900 * pi], (0, 0)),
    "lines and an arc": (
        lambda s, _: (
            s.add_line((0, 0), (60, 0)),
            s.add_arc((60, 20), 20, -90, 90),
            s.add_line((60, 40), (0, 40)),
            s.add_line((0, 40), (0, 0)),
        ),
        [2400 + 200 * pi],
        None,
    ),
    "hole": (lambda s, _: (box(s), s.add_circle((30, 20), 10)), [2400 - 100 * pi], (30, -20)),
    "old polyline": (
        lambda s, _: s.add_polyline2d([(0, 0), (60, 0), (60, 40), (0, 40)], close=True),
        [2400],
        (30, -20),
    ),
    "nested blocks": (nested_blocks, [2400 - 100 * pi] * 2, None),
    "upside down": (
        lambda s, _: s.add_circle((-50, 40), 20, dxfattribs={"extrusion": (0, 0, -1)}),
        [400 * pi],
        (50, -40),
    ),
}


@pytest.mark.parametrize("name", CURVES)
def test_areas_and_centroids_are_those_of_the_curve(name):
    draw, areas, centroid = CURVES[name]
    parts = offered(draw).parts
    assert [part.area_dm2 * 1e4 for part in parts] == pytest.approx(areas, rel=1e-3)
    if centroid:
        assert (parts[0].x_mm, parts[0].y_mm) == pytest.approx(centroid, abs=0.1)


def test_a_fitted_spline_agrees_with_its_own_fine_polygon():
    points = [(100 * cos(t), 60 * sin(t)) for t in (2 * pi * k / 9 for k in range(10))]
    document = ezdxf.new()
    spline = document.modelspace().add_spline(points)
    fine = [(p.x, p.y) for p in spline.flattening(1e-5)]
    twice = sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(fine))
    (part,) = offered(lambda s, _: s.add_spline(points)).parts
    assert part.area_dm2 * 1e4 == pytest.approx(abs(twice) / 2, rel=1e-3)


@pytest.mark.parametrize(
    ("unit", "millimetres"), [(1, 25.4), (2, 304.8), (4, 1.0), (5, 10.0), (6, 1000.0)]
)
def test_the_headers_unit_holds(unit, millimetres):
    (part,) = offered(lambda s, _: box(s, w=2, h=2), unit).parts
    assert part.area_dm2 * 1e4 == pytest.approx(4 * millimetres**2)


@pytest.mark.parametrize("version", ["R12", "R2000", "R2004", "R2007", "R2010", "R2018"])
def test_every_usual_version_is_read(version):
    told = offered(lambda s, _: s.add_circle((0, 0), 10), 4, version)
    assert told.parts[0].area_dm2 * 1e4 == pytest.approx(100 * pi, rel=1e-3)


def test_a_version_nobody_knows_is_read_where_it_can_be():
    told = outlines(read_drawing(WHOLE.replace(b"AC1024", b"AC1002")))
    assert told.parts[0].area_dm2 == pytest.approx(0.24)


def test_without_a_unit_one_length_is_wanted():
    assert offered(lambda s, _: box(s), 0).mm_per_unit is None
    bare = b"0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\nCUT\n10\n5\n20\n5\n40\n3\n0\nENDSEC\n0\nEOF\n"
    told = outlines(read_drawing(bare))
    assert told.mm_per_unit is None
    assert told.parts[0].layer == "CUT"
    scaled = outlines(read_drawing(bare), mm_per_unit=10.0)
    assert scaled.parts[0].area_dm2 * 1e4 == pytest.approx(900 * pi, rel=1e-3)


def test_blocks_and_words_name_parts():
    def draw(space, document):
        rib = document.blocks.new("RIB_3")
        box(rib)
        space.add_blockref("RIB_3", (0, 0))
        box(space, x=200)
        space.add_text("Tail", dxfattribs={"insert": (210, 10)})
        space.add_mtext("Hatch", dxfattribs={"insert": (310, 10)})
        box(space, x=300)

    assert {part.name for part in offered(draw).parts} == {"RIB 3", "Tail", "Hatch"}


def test_layers_that_are_off_are_not_cut():
    def draw(space, document):
        document.layers.add("NOTES").off()
        document.layers.add("CUT")
        box(space, layer="CUT")
        box(space, x=100, layer="NOTES")

    (part,) = offered(draw).parts
    assert part.layer == "CUT"


def endless(space, document):
    loop = document.blocks.new("LOOP")
    box(loop)
    loop.add_blockref("LOOP", (5, 5))
    space.add_blockref("LOOP", (0, 0))


def bomb(space, document):
    box(document.blocks.new("B0"))
    for n in range(1, 9):
        block = document.blocks.new(f"B{n}")
        for k in range(10):
            block.add_blockref(f"B{n - 1}", (k * 100, 0))
    space.add_blockref("B8", (0, 0))


def array(space, document):
    box(document.blocks.new("B"))
    many = {"row_count": 3000, "column_count": 3000, "row_spacing": 50, "column_spacing": 70}
    space.add_blockref("B", (0, 0), dxfattribs=many)


def binary() -> bytes:
    document = ezdxf.new(units=4)
    document.modelspace().add_circle((0, 0), 10)
    out = BytesIO()
    document.write(out, fmt="bin")
    return out.getvalue()


WHOLE = drawing(lambda s, _: box(s))

REFUSED = {
    "archive": (lambda: b"PK\x03\x04" + WHOLE, "is an archive"),
    "another binary": (lambda: b"AC1032" + b"\x00" * 100, "is a binary drawing"),
    "no drawing": (lambda: b"hello\nworld\n", "neither an SVG nor a DXF"),
    "endless blocks": (lambda: drawing(endless), "insert themselves"),
    "swelling blocks": (lambda: drawing(bomb), "more than 50,000 things"),
    "swelling array": (lambda: drawing(array), "more than 50,000 things"),
    "too long": (lambda: WHOLE + b"0\nLINE\n" * 700_000, "more than 200,000 points"),
    "not numbers": (lambda: WHOLE.replace(b"60.0", b"nan"), "broken"),
}


def test_a_binary_file_reads_as_its_text_does():
    told = outlines(read_drawing(binary())).parts
    assert len(told) == 1
    assert told[0].area_dm2 * 1e4 == pytest.approx(pi * 100, rel=5e-4)


def test_a_binary_file_cut_short_is_said():
    told = outlines(read_drawing(binary()[:-300]))
    assert "ends before its end" in " ".join(told.notes)


def test_a_hatch_counts_by_its_boundaries():
    def hatched(space, _):
        hatch = space.add_hatch()
        hatch.paths.add_polyline_path([(0, 0), (100, 0), (100, 50), (0, 50)], is_closed=True)
        hatch.paths.add_polyline_path([(10, 10), (30, 10), (30, 30), (10, 30)], is_closed=True)

    (part,) = outlines(read_drawing(drawing(hatched))).parts
    assert part.holes == 1
    assert part.area_dm2 * 1e4 == pytest.approx(5000 - 400)


def test_a_hatch_in_its_own_outline_is_one_part():
    def both(space, _):
        space.add_lwpolyline([(0, 0), (100, 0), (100, 50), (0, 50)], close=True)
        hatch = space.add_hatch()
        hatch.paths.add_polyline_path([(0, 0), (100, 0), (100, 50), (0, 50)], is_closed=True)

    told = outlines(read_drawing(drawing(both)))
    assert len(told.parts) == 1


def test_paper_sheets_are_read_where_the_model_is_empty():
    document = ezdxf.new(units=4)
    document.layout("Layout1").add_lwpolyline([(0, 0), (40, 0), (40, 20), (0, 20)], close=True)
    out = StringIO()
    document.write(out)
    told = outlines(read_drawing(out.getvalue().encode()))
    assert [round(each.area_dm2 * 1e4) for each in told.parts] == [800]
    assert "paper sheets are read instead" in " ".join(told.notes)


@pytest.mark.parametrize("name", REFUSED)
def test_what_cannot_be_read_is_refused_in_words(name):
    make, words = REFUSED[name]
    with pytest.raises(BuildFaultError, match=words) as refused:
        read_drawing(make())
    assert refused.value.faults[0].field == "file"


def test_a_drawing_cut_short_is_read_as_far_as_it_goes_or_refused():
    """Wherever it is cut, words or parts: nothing else."""
    for share in range(1, 12):
        try:
            told = outlines(read_drawing(WHOLE[: len(WHOLE) * share // 12]))
        except BuildFaultError:
            continue
        assert len(told.parts) <= 1


def periodic(control, weights=None):
    """A cubic spline that closes on itself: its first three control points come again at its end,
    and its knots are uniform."""

    def draw(space, _):
        around = [*control, *control[:3]]
        spline = space.add_spline(degree=3, dxfattribs={"flags": 2 | 8})
        spline.control_points = [(x, y, 0) for x, y in around]
        spline.knots = list(range(len(around) + 4))
        if weights:
            spline.weights = [*weights, *weights[:3]]

    return draw


def cubic_area(control, weights=None, steps=400):
    """Area of a uniform periodic rational cubic from its basis written out:
    ``((1-t)^3, 3t^3-6t^2+4, -3t^3+3t^2+3t+1, t^3)/6``."""
    size, heavy = len(control), weights or [1.0] * len(control)
    points = []
    for k in range(size):
        four = [(k + j) % size for j in range(4)]
        for n in range(steps):
            t = n / steps
            basis = ((1 - t) ** 3, 3 * t**3 - 6 * t**2 + 4, -3 * t**3 + 3 * t**2 + 3 * t + 1, t**3)
            share = [b * heavy[i] for b, i in zip(basis, four, strict=True)]
            x, y = (
                sum(w * control[i][axis] for w, i in zip(share, four, strict=True)) / sum(share)
                for axis in (0, 1)
            )
            points.append((x, y))
    turned = [*points[1:], points[0]]
    return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(points, turned, strict=True))) / 2


SQUARE = [(0, 0), (80, 0), (80, 60), (0, 60)]
WING_LIKE = [(0, 0), (60, -4), (140, 6), (150, 20), (60, 26), (8, 24)]


@pytest.mark.parametrize("control", [SQUARE, WING_LIKE])
def test_a_spline_that_closes_on_itself_is_the_curve_and_not_its_control_points(control):
    (part,) = offered(periodic(control)).parts
    assert part.area_dm2 * 1e4 == pytest.approx(cubic_area(control), rel=2e-3)
    heavy = [1.0, 5.0] + [1.0] * (len(control) - 2)
    (drawn,) = offered(periodic(control, heavy)).parts
    assert drawn.area_dm2 * 1e4 == pytest.approx(cubic_area(control, heavy), rel=5e-3)
    assert drawn.area_dm2 != pytest.approx(part.area_dm2, rel=0.03)


def test_an_array_of_blocks_is_as_many_parts():
    def rows(space, document):
        box(document.blocks.new("RIB"))
        spread = {"row_count": 2, "column_count": 3, "row_spacing": 50, "column_spacing": 70}
        space.add_blockref("RIB", (10, 20), dxfattribs=spread)

    parts = offered(rows).parts
    assert len(parts) == 6
    assert {round(part.area_dm2 * 1e4) for part in parts} == {2400}
    assert sorted({round(part.x_mm) for part in parts}) == [40, 110, 180]
    assert sorted({round(part.y_mm) for part in parts}) == [-90, -40]


def test_what_is_no_outline_is_counted_and_named():
    def mixed(space, _):
        box(space)
        space.add_solid([(0, 0), (5, 0), (0, 5), (5, 5)])
        space.add_solid([(0, 0), (6, 0), (0, 6), (6, 6)])
        space.add_3dface([(0, 0, 0), (5, 0, 0), (5, 5, 1)])
        space.add_point((3, 3))  # nobody takes it for a part
        space.add_polymesh((3, 3))
        space.add_ray((0, 0), (1, 0))

    told = offered(mixed)
    assert len(told.parts) == 1
    notes = " ".join(told.notes)
    assert "2 filled areas left out: only their outlines make parts" in notes
    assert "1 faces in space left out" in notes
    assert "1 things of the kind ray left out" in notes
    assert "point" not in notes


def test_what_cannot_be_seen_is_not_cut():
    def hidden(space, document):
        document.layers.add("COLD").freeze()
        document.layers.add("DARK").off()
        box(space, layer="COLD")
        box(space, x=100, layer="DARK")
        box(space, x=200, invisible=1)
        box(space, x=300)

    (part,) = offered(hidden).parts
    assert part.x_mm == pytest.approx(330)


def test_a_block_on_no_layer_of_its_own_takes_the_layer_that_it_stands_on():
    def draw(space, document):
        document.layers.add("CUT")
        document.layers.add("OFF").off()
        box(document.blocks.new("RIB"))
        space.add_blockref("RIB", (0, 0), dxfattribs={"layer": "CUT"})
        space.add_blockref("RIB", (200, 0), dxfattribs={"layer": "OFF"})

    (part,) = offered(draw).parts
    assert (part.layer, part.name) == ("CUT", "RIB")


def test_what_has_no_length_is_no_part_and_breaks_nothing():
    def draw(space, _):
        space.add_line((5, 5), (5, 5))
        space.add_lwpolyline([(7, 7)])
        space.add_lwpolyline([])
        space.add_hatch()
        box(space)

    assert len(offered(draw).parts) == 1


def test_an_old_file_in_the_letters_of_its_time_is_read():
    def draw(space, document):
        document.layers.add("FLÜGEL")
        box(space, layer="FLÜGEL")

    whole = drawing(draw, version="R2000").decode("utf-8").encode("cp1252")
    (part,) = outlines(read_drawing(whole)).parts
    assert part.layer == "FLÜGEL"


def test_what_lies_on_paper_sheets_beside_a_model_is_counted():
    document = ezdxf.new(units=4)
    box(document.modelspace())
    box(document.layout("Layout1"), w=20, h=20)
    out = StringIO()
    document.write(out)
    told = outlines(read_drawing(out.getvalue().encode()))
    assert [round(each.area_dm2 * 1e4) for each in told.parts] == [2400]
    assert "1 things on its paper sheets left out: only the model is read" in told.notes
