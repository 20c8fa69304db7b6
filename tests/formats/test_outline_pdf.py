"""Plans in PDF, drawn by another library, read into outlines."""

from io import BytesIO
from math import pi

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from reportlab.lib.units import mm
from reportlab.pdfgen import canvas

from oaken_scale.core.geometry.outline import outlines
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.formats.drawing import read_drawing

A4 = (210 * mm, 297 * mm)


def plan(*pages, size=A4, **options) -> bytes:
    out = BytesIO()
    paper = canvas.Canvas(out, pagesize=size, **options)
    for draw in pages:
        draw(paper)
        paper.showPage()
    paper.save()
    return out.getvalue()


def told(*pages, columns=None, overlap_mm=0.0, close=0.0, **options):
    return outlines(read_drawing(plan(*pages, **options), columns, overlap_mm), close)


def rib(paper):
    """A plate of 100 by 40 mm with a hole of 10 mm across, and its name on it."""
    paper.rect(20 * mm, 200 * mm, 100 * mm, 40 * mm)
    paper.circle(50 * mm, 220 * mm, 5 * mm)
    paper.drawString(90 * mm, 215 * mm, "Rib 3")


def test_a_plate_with_a_hole_comes_out_in_its_size_and_place():
    found = told(rib)
    (part,) = found.parts
    assert part.name == "Rib 3"
    assert part.holes == 1
    assert part.area_dm2 * 1e4 == pytest.approx(4000 - pi * 25, rel=2e-4)
    assert part.x_mm == pytest.approx((70 * 4000 - 50 * pi * 25) / (4000 - pi * 25), abs=0.01)
    assert part.box.top_mm == pytest.approx(297 - 240, abs=0.01)
    assert found.mm_per_unit == 1.0
    assert found.pages == 1


def test_scaling_turning_and_nested_forms_are_followed():
    def turned(paper):
        paper.saveState()
        paper.translate(100 * mm, 100 * mm)
        paper.rotate(30)
        paper.scale(2, 2)
        paper.rect(0, 0, 20 * mm, 10 * mm)
        paper.restoreState()
        paper.beginForm("part")
        paper.rect(0, 0, 15 * mm, 15 * mm)
        paper.endForm()
        paper.translate(20 * mm, 20 * mm)
        paper.doForm("part")

    areas = sorted(each.area_dm2 * 1e4 for each in told(turned).parts)
    assert areas == pytest.approx([225, 800], rel=1e-6)


def test_a_known_length_gives_the_scale_of_a_plan_that_is_not_full_size():
    drawing = read_drawing(plan(rib))
    (part,) = outlines(drawing, mm_per_unit=5.0).parts
    assert part.area_dm2 * 1e4 == pytest.approx(25 * (4000 - pi * 25), rel=2e-4)


def test_white_grounds_and_page_frames_are_no_parts():
    def framed(paper):
        paper.setFillColorRGB(1, 1, 1)
        paper.rect(0, 0, *A4, stroke=0, fill=1)
        paper.rect(0, 0, *A4, stroke=1, fill=0)
        paper.setFillColorRGB(0.5, 0.5, 0.5)
        paper.rect(20 * mm, 20 * mm, 30 * mm, 30 * mm, stroke=0, fill=1)

    assert [round(each.area_dm2 * 1e4) for each in told(framed).parts] == [900]


def test_parts_on_several_pages_all_come():
    def other(paper):
        paper.rect(20 * mm, 200 * mm, 50 * mm, 20 * mm)

    found = told(rib, other)
    assert found.pages == 2
    assert len(found.parts) == 2


def test_a_plan_repeated_on_every_tile_counts_once():
    def tile(dx, dy):
        def draw(paper):
            paper.translate(-dx * mm, -dy * mm)
            paper.rect(20 * mm, 20 * mm, 300 * mm, 100 * mm)

        return draw

    for columns in (None, 2):
        found = told(tile(0, 0), tile(190, 0), columns=columns, overlap_mm=20)
        assert [round(each.area_dm2 * 1e4) for each in found.parts] == [30_000]


@pytest.mark.parametrize("overlap", [0.0, 10.0])
def test_tiles_are_put_together_and_cut_in_what_they_share(overlap):
    """A wing of 500 by 150 mm over three sheets of 200 by 250, each drawn by what falls on it."""
    wide, high, step = 200.0, 250.0, 200.0 - overlap

    def tile(column):
        left = column * step

        def draw(paper):
            inside = [max(30.0, left), min(530.0, left + wide)]
            x = [(each - left) * mm for each in inside]
            for y in (50.0, 200.0):
                paper.line(x[0], y * mm, x[1], y * mm)
            if left <= 30.0 <= left + wide:
                paper.line((30 - left) * mm, 50 * mm, (30 - left) * mm, 200 * mm)
            if left <= 530.0 <= left + wide:
                paper.line((530 - left) * mm, 50 * mm, (530 - left) * mm, 200 * mm)

        return draw

    pages = [tile(column) for column in range(3)]
    found = told(*pages, size=(wide * mm, high * mm), columns=3, overlap_mm=overlap)
    assert [round(each.area_dm2 * 1e4) for each in found.parts] == [75_000]
    assert found.open == ()
    apart = told(*pages, size=(wide * mm, high * mm))
    assert apart.parts == ()


@pytest.mark.parametrize(
    ("make", "says"),
    [
        (lambda: plan(lambda paper: None), "no lines"),
        (lambda: plan(rib)[:400], "broken|no page"),
        (lambda: b"%PDF-1.4\n" + b"x" * 500, "broken|no page"),
        (lambda: plan(rib, encrypt="secret"), "locked"),
        (lambda: plan(*[rib] * 61), "more than 60 pages"),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(make, says):
    with pytest.raises(BuildFaultError, match=says) as refused:
        outlines(read_drawing(make()))
    assert refused.value.faults[0].field == "file"


def test_tiles_that_overlap_by_a_page_are_refused():
    with pytest.raises(BuildFaultError, match="as wide as a page"):
        told(rib, lambda paper: paper.rect(1, 1, 50, 50), columns=2, overlap_mm=400)


WHOLE = plan(rib, lambda paper: paper.rect(1, 1, 50, 50), pageCompression=0)


@settings(max_examples=60)
@given(
    at=st.integers(0, len(WHOLE) - 1),
    gone=st.integers(0, 60),
    put=st.binary(max_size=40) | st.sampled_from([b"/Kids [1 0 R]", b"q " * 400, b"1e308 "]),
)
def test_a_spoilt_plan_is_read_or_refused(at, gone, put):
    field = "file"
    try:
        outlines(read_drawing(WHOLE[:at] + put + WHOLE[at + gone :]))
    except BuildFaultError as refused:
        field = refused.faults[0].field
    assert field == "file"


def test_curves_are_as_round_as_they_were_drawn():
    def rounded(paper):
        paper.ellipse(20 * mm, 20 * mm, 100 * mm, 60 * mm)
        path = paper.beginPath()
        path.moveTo(120 * mm, 100 * mm)
        path.curveTo(150 * mm, 160 * mm, 180 * mm, 160 * mm, 190 * mm, 100 * mm)
        path.close()
        paper.drawPath(path)

    ellipse, bowl = sorted(told(rounded).parts, key=lambda each: each.box.left_mm)
    assert ellipse.area_dm2 * 1e4 == pytest.approx(pi * 40 * 20, rel=3e-4)
    # Under a cubic from 0 to 70: 3/10 of the middle ordinates' share, from its own integral.
    t = [k / 2000 for k in range(2001)]
    x = [3 * (1 - s) ** 2 * s * 30 + 3 * (1 - s) * s**2 * 60 + s**3 * 70 for s in t]
    y = [3 * (1 - s) ** 2 * s * 60 + 3 * (1 - s) * s**2 * 60 for s in t]
    under = sum((x[k + 1] - x[k]) * (y[k + 1] + y[k]) / 2 for k in range(2000))
    assert bowl.area_dm2 * 1e4 == pytest.approx(under, rel=1e-3)


@pytest.mark.parametrize(
    ("colour", "parts"),
    [
        (("setFillColorRGB", 1, 1, 1), 0),
        (("setFillColorRGB", 0.98, 0.99, 1), 0),
        (("setFillColorRGB", 0.9, 0.9, 0.9), 1),
        (("setFillGray", 1.0), 0),
        (("setFillGray", 0.5), 1),
        (("setFillColorCMYK", 0, 0, 0, 0), 0),
        (("setFillColorCMYK", 0, 0, 0, 0.6), 1),
        (("setFillColorCMYK", 0.4, 0, 0, 0), 1),
    ],
)
def test_what_is_filled_in_white_is_ground_and_in_any_colour_a_part(colour, parts):
    def filled(paper):
        getattr(paper, colour[0])(*colour[1:])
        paper.rect(20 * mm, 20 * mm, 30 * mm, 30 * mm, stroke=0, fill=1)
        paper.rect(100 * mm, 100 * mm, 20 * mm, 20 * mm)

    areas = sorted(round(each.area_dm2 * 1e4) for each in told(filled).parts)
    assert areas == ([400] if parts == 0 else [400, 900])


def test_what_is_drawn_without_ink_or_without_length_is_nothing():
    def unseen(paper):
        paper.rect(20 * mm, 20 * mm, 30 * mm, 30 * mm, stroke=0, fill=0)
        paper.line(60 * mm, 60 * mm, 60 * mm, 60 * mm)
        paper.rect(100 * mm, 100 * mm, 20 * mm, 20 * mm)

    found = told(unseen)
    assert [round(each.area_dm2 * 1e4) for each in found.parts] == [400]


def test_frames_and_pictures_are_counted():
    from PIL import Image  # noqa: PLC0415

    def framed(paper):
        paper.rect(5 * mm, 5 * mm, 200 * mm, 287 * mm)
        paper.rect(100 * mm, 100 * mm, 20 * mm, 20 * mm)
        paper.drawInlineImage(Image.new("RGB", (4, 4)), 10 * mm, 10 * mm, 20 * mm, 20 * mm)

    found = told(framed)
    assert len(found.parts) == 1
    notes = " ".join(found.notes)
    assert "1 frame of a page is left out" in notes
    assert "1 picture left out" in notes
    with pytest.raises(BuildFaultError, match="only pictures"):
        told(lambda paper: paper.drawInlineImage(Image.new("RGB", (4, 4)), 10, 10, 50, 50))
