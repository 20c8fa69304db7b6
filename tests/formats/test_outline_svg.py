"""SVG drawings as other programs write them, against areas worked by hand."""

import time
from math import cos, pi, sin
from pathlib import Path

import pytest

from oaken_scale.core.geometry.outline import Outlines, outlines
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.formats.drawing import read_drawing

EXAMPLES = Path(__file__).parents[2] / "docs" / "examples"


def svg(body: str, head: str = 'width="200mm" height="100mm" viewBox="0 0 200 100"') -> bytes:
    spaces = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
    return f'<?xml version="1.0"?><svg {spaces} {head}>{body}</svg>'.encode()


def offered(body: str, *head: str, **more) -> Outlines:
    return outlines(read_drawing(svg(body, *head)), **more)


# What is drawn, its area in mm2 and its centroid in mm.
CURVES = {
    "circle": ('<circle cx="50" cy="40" r="20"/>', 400 * pi, (50, 40)),
    "small circle": ('<circle cx="5" cy="4" r="1"/>', pi, (5, 4)),
    "ellipse": ('<ellipse cx="50" cy="40" rx="30" ry="10"/>', 300 * pi, (50, 40)),
    "rounded rectangle": (
        '<rect x="10" y="10" width="80" height="40" rx="10"/>',
        3200 - (4 - pi) * 100,
        (50, 30),
    ),
    "half disc by arc": (
        '<path d="M20 50 A30 30 0 0 1 80 50 Z"/>',
        450 * pi,
        (50, 50 - 4 * 30 / (3 * pi)),
    ),
    "arcs relative": ('<path d="m50,20 a20,20 0 1,1 -0.0001,0 z"/>', 400 * pi, (50, 40)),
    # Under a parabola (one quadratic): two thirds of the box; its centroid at 2/5 of the height.
    "parabola": ('<path d="M0 60 Q30 0 60 60 Z"/>', 2 / 3 * 60 * 30, (30, 60 - 30 * 2 / 5)),
    # Under the cubic y = 3 t (1 - t) H with x = t L: area LH/2; its centroid at 3H/10.
    "cubic": ('<path d="M0 60 C20 20 40 20 60 60 Z"/>', 60 * 40 / 2, (30, 60 - 40 * 0.3)),
    "smooth cubics": (
        '<path d="M0 50 C10 20 20 20 30 50 S50 80 60 50 L60 90 L0 90 Z"/>',
        2400,
        None,
    ),
    "H and V": ('<path d="M10 10 H60 V40 H10 Z"/>', 1500, (35, 25)),
    "closed without Z": ('<path d="M10 10 L60 10 L60 40 L10 40 L10 10"/>', 1500, (35, 25)),
    "polygon": ('<polygon points="0,0 60,0 0,60"/>', 1800, (20, 20)),
    "annulus in one path": (
        '<path fill-rule="evenodd" d="M80 50 a30 30 0 1 0 -60 0 a30 30 0 1 0 60 0 Z '
        'M60 50 a10 10 0 1 0 -20 0 a10 10 0 1 0 20 0 Z"/>',
        800 * pi,
        (50, 50),
    ),
    "turned and scaled": (
        '<g transform="translate(50 50) rotate(30)"><g transform="scale(2 0.5)">'
        '<rect x="-10" y="-10" width="20" height="20"/></g></g>',
        400,
        (50, 50),
    ),
    "skewed": ('<rect transform="skewX(30)" width="20" height="20" y="10"/>', 400, None),
    "sheared circle": (
        '<circle r="10" transform="matrix(1 .5 .2 1 50 50)"/>',
        100 * pi * (1 - 0.1),
        (50, 50),
    ),
    "used": (
        '<defs><rect id="r" width="20" height="10"/></defs><use xlink:href="#r" x="30" y="40"/>',
        200,
        (40, 45),
    ),
    "nested svg": (
        '<svg x="20" y="20" width="40" height="40" viewBox="0 0 10 10">'
        '<rect width="5" height="5"/></svg>',
        400,
        (30, 30),
    ),
}


@pytest.mark.parametrize("name", CURVES)
def test_areas_and_centroids_are_those_of_the_curve(name):
    body, area, centroid = CURVES[name]
    (part,) = offered(body).parts
    assert part.area_dm2 * 1e4 == pytest.approx(area, rel=1e-3)
    if centroid:
        assert (part.x_mm, part.y_mm) == pytest.approx(centroid, abs=0.1)


@pytest.mark.parametrize(
    ("head", "millimetres"),
    [
        ('width="200mm" height="100mm" viewBox="0 0 200 100"', 1.0),
        ('width="20cm" height="10cm" viewBox="0 0 2000 1000"', 0.1),
        ('width="4in" height="2in" viewBox="0 0 4 2"', 25.4),
        ('width="288pt" height="144pt" viewBox="0 0 288 144"', 25.4 / 72),
        ('width="200mm" height="100mm" viewBox="-50 -50 400 200"', 0.5),
    ],
)
def test_the_drawings_own_scale_holds(head, millimetres):
    told = offered('<rect width="100" height="100"/>', head)
    assert told.parts[0].area_dm2 * 1e4 == pytest.approx((100 * millimetres) ** 2, rel=1e-5)
    assert told.mm_per_unit == 1.0


@pytest.mark.parametrize(
    "head",
    [
        'width="200" height="100"',
        'viewBox="0 0 200 100"',
        'width="100%" viewBox="0 0 2 1"',
        'width="200px" height="100px" viewBox="0 0 200 100"',
        'width="200mm"',
        "",
    ],
)
def test_without_units_or_viewbox_one_length_is_wanted(head):
    body = '<rect width="50" height="20"/>'
    assert offered(body, head).mm_per_unit is None
    told = offered(body, head, mm_per_unit=2.0)
    assert told.mm_per_unit == 2.0
    width = told.parts[0].box.right_mm - told.parts[0].box.left_mm
    height = told.parts[0].box.bottom_mm - told.parts[0].box.top_mm
    assert height / width == pytest.approx(0.4)


def test_names_come_from_ids_labels_and_layers():
    told = offered(
        '<g id="cut"><rect id="Wing_x20_rib" width="50" height="20"/></g>'
        '<g xmlns:d="urn:d" d:label="Tail"><rect id="rect88" y="40" width="40" height="20"/></g>'
    )
    assert [(part.name, part.layer) for part in told.parts] == [
        ("Wing rib", "cut"),
        ("Part 1", "Tail"),
    ]


def test_what_is_not_shown_is_not_cut():
    told = offered(
        '<rect width="50" height="20" style="display:none"/>'
        '<g display="none"><rect width="60" height="20"/></g>'
        '<defs><rect width="70" height="20"/></defs>'
        '<clipPath id="c"><rect width="80" height="20"/></clipPath>'
        '<symbol id="s"><rect width="85" height="20"/></symbol>'
        '<rect visibility="hidden" width="90" height="20"/>'
        '<rect width="10" height="10"/>'
    )
    assert [part.area_dm2 for part in told.parts] == [pytest.approx(0.01, rel=1e-5)]


@pytest.mark.parametrize(
    "frame",
    [
        '<rect class="BoundingBox" fill="none" stroke="none" width="150" height="90"/>',
        '<rect style="fill:none;stroke:none" width="150" height="90"/>',
        '<style>.f{fill:none;stroke:none}</style><g class="f"><rect width="150" height="90"/></g>',
    ],
)
def test_a_frame_that_nobody_sees_is_no_part(frame):
    told = offered(f'{frame}<path fill="none" stroke="#000" d="M10 10 h20 v20 h-20 z"/>')
    assert [part.area_dm2 * 1e4 for part in told.parts] == [pytest.approx(400, rel=1e-5)]


def test_groups_turned_upside_down_and_wrappers_are_followed():
    """As CAD programs write: y up by a scale of -1, in a group of the body's name."""
    told = offered(
        '<switch><g id="Pad" transform="scale(1,-1) translate(0,-50)" fill="none" stroke="#000">'
        '<path d="M 10 10 L 30 10 A 10 10 0 0 1 30 30 L 10 30 Z"/></g></switch>'
    )
    (part,) = told.parts
    assert part.layer == "Pad"
    assert part.area_dm2 * 1e4 == pytest.approx(400 + 50 * pi, rel=1e-3)
    assert part.y_mm == pytest.approx(30, abs=0.01)


def test_the_example_reads_as_drawn():
    told = outlines(read_drawing((EXAMPLES / "tail.svg").read_bytes()))
    assert [part.name for part in told.parts] == [
        "Tailplane half",
        "Fin",
        "Bulkhead front",
        "Bulkhead rear",
    ]
    front = told.parts[2]
    assert front.area_dm2 * 1e4 == pytest.approx(48 * 60 - (4 - pi) * 16 - 121 * pi, rel=1e-3)
    assert len(told.open) == 1


def test_a_document_type_with_plain_names_is_read():
    plain = svg('<rect width="10" height="10"/>').decode()
    typed = plain.replace(
        '<?xml version="1.0"?>',
        '<?xml version="1.0"?><!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" '
        '"http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd" '
        '[<!ENTITY ns_of_a_program "http://ns.example.org/1.0/">]>',
    )
    assert len(outlines(read_drawing(typed.encode())).parts) == 1


BOMB = "".join(f'<!ENTITY e{n} "{f"&e{n - 1};" * 10}">' for n in range(1, 10))
COPIES = "".join(
    f'<g id="g{n}">{f"""<use xlink:href="#g{n - 1}"/>""" * 10}</g>' for n in range(1, 9)
)

REFUSED = {
    "external entity": (
        b'<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>'
        b"<svg><text>&x;</text></svg>",
        "reaches outside itself",
    ),
    "external parameter": (
        b'<!DOCTYPE svg [<!ENTITY % x SYSTEM "http://example.org/x">%x;]><svg/>',
        "reaches outside itself",
    ),
    "entity bomb": (
        f'<!DOCTYPE svg [<!ENTITY e0 "ha">{BOMB}]><svg>&e9;</svg>'.encode(),
        "holds an entity that grows",
    ),
    "long entity": (
        f'<!DOCTYPE svg [<!ENTITY e "{"M0 0" * 100}">]><svg>&e;</svg>'.encode(),
        "holds an entity that grows",
    ),
    "script": (svg("<script>alert(1)</script>"), "holds a script"),
    "copies of copies": (
        svg(f'<defs><rect id="g0" width="1" height="1"/>{COPIES}</defs><use xlink:href="#g8"/>'),
        "with its copies",
    ),
    "copies itself": (
        svg('<g id="a"><use xlink:href="#b"/></g><g id="b"><use xlink:href="#a"/></g>'),
        "uses itself",
    ),
    "another file": (svg('<use xlink:href="other.svg#a"/>'), "uses another file"),
    "a million points": (svg(f'<path d="M0 0{" L1 1 0 1" * 500_000}"/>'), "more than 200,000"),
    "too deep": (svg("<g>" * 200 + "</g>" * 200), "nested more than 100 deep"),
    "too many": (svg('<rect width="1" height="1"/>' * 60_000), "more than 50,000 things"),
    "broken": (b"<svg><path", "not well-formed"),
    "no drawing": (b"<html><body/></html>", "not an SVG drawing"),
    "empty": (b"  ", "is empty"),
}


@pytest.mark.parametrize("name", REFUSED)
def test_what_a_drawing_must_not_hold_is_refused_in_words_and_time(name):
    data, words = REFUSED[name]
    started = time.perf_counter()
    with pytest.raises(BuildFaultError, match=words) as refused:
        read_drawing(data)
    assert refused.value.faults[0].field == "file"
    assert str(refused.value).count("file:") == 1
    assert time.perf_counter() - started < 10


def test_numbers_that_are_none_draw_nothing():
    body = '<path d="M0 0 L nan nan Z"/><rect width="x" height="-3"/><circle r="1e999"/>'
    with pytest.raises(BuildFaultError, match="cannot be read"):
        offered(body)


def test_a_file_over_the_limit_is_refused():
    with pytest.raises(BuildFaultError, match="larger than 24 MiB"):
        read_drawing(b"<svg>" + b" " * (25 * 1024 * 1024))


def test_two_hundred_parts_of_fifty_thousand_points():
    """A large file comes out whole; how fast is `make bench`'s affair."""
    paths = []
    for n in range(200):
        x, y = n % 20 * 100 + 50, n // 20 * 100 + 50
        points = (
            f"{x + 40 * cos(2 * pi * k / 250):.4f},{y + 30 * sin(2 * pi * k / 250):.4f}"
            for k in range(250)
        )
        paths.append(f'<path id="Rib_{n:03d}" d="M{" L".join(points)} Z"/>')
    told = offered("".join(paths), 'width="2000mm" height="1000mm" viewBox="0 0 2000 1000"')
    assert len(told.parts) == 200
    polygon = 0.5 * 250 * sin(2 * pi / 250) * 40 * 30
    assert all(p.area_dm2 * 1e4 == pytest.approx(polygon, rel=1e-4) for p in told.parts)
