"""What is printed, read and measured by another program."""

import math
import re
from dataclasses import replace
from io import BytesIO
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from oaken_scale.core.assess import assess
from oaken_scale.core.model.body import Body, BodyShape, Frame
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.paper import plane
from oaken_scale.paper.balance_mark import Strip, mark_strip
from oaken_scale.paper.drawing import (
    BAND,
    PAPERS,
    Page,
    Stroke,
    Words,
    fitted,
    folded,
    pdf,
    svg,
    wide,
)
from oaken_scale.paper.full_size import (
    EDGE,
    FOOT,
    HEAD,
    OVERLAP,
    balance_marks,
    outline_sheets,
    sheets_taken,
    tiles,
)
from oaken_scale.paper.labels import GRIDS, cards, free_grid, labels
from oaken_scale.paper.sheet import Subject, sheet, state_of
from oaken_scale.paper.shown import AreaUnit, DecimalMark, LengthUnit, MassUnit, Shown

MM = 72 / 25.4
METRIC = Shown()
PLANES = {"sandpiper": sandpiper(), **{each.build.id: each.build for each in fleet()}}
INCHES = Shown(MassUnit.OZ, LengthUnit.IN, AreaUnit.FT2, DecimalMark.COMMA)


def page_of(build: Build, paper: str = "a4", shown: Shown = METRIC) -> Page:
    told = assess(build)
    front = told.loadouts[0] if told.loadouts else None
    return sheet(Subject(build, told, front), PAPERS[paper], shown)


def read(page: Page | list[Page]) -> PdfReader:
    pages = page if isinstance(page, list) else [page]
    return PdfReader(BytesIO(pdf(pages, "A title")))


def lines(reader: PdfReader, at: int = 0) -> list[tuple[float, float, float, float]]:
    """The straight lines of a page as its file has them [mm from the lower left corner]."""
    text = reader.pages[at].get_contents().get_data().decode("latin-1")
    figure = r"(-?[\d.]+)"
    found = re.findall(rf"{figure} {figure} m\s+{figure} {figure} l\s+(?:S|n)", text)
    return [tuple(float(each) / MM for each in line) for line in found]


@pytest.mark.parametrize("paper", PAPERS)
def test_the_sheet_is_one_page_of_its_size_with_vectors_and_our_type(paper):
    reader = read(page_of(sandpiper(), paper))
    (page,) = reader.pages
    size = PAPERS[paper]
    assert float(page.mediabox.width) == pytest.approx(size.width * MM, abs=0.1)
    assert float(page.mediabox.height) == pytest.approx(size.height * MM, abs=0.1)
    assert not page.images
    fonts = {font["/BaseFont"] for font in page["/Resources"]["/Font"].values()}
    shipped = {name for name in fonts if "AtkinsonHyperlegible" in name.replace(" ", "")}
    assert len(shipped) >= 3
    assert reader.metadata.title == "A title"


def test_the_sheet_says_what_the_bench_says():
    build = sandpiper()
    told = assess(build)
    text = read(page_of(build)).pages[0].extract_text()
    for loadout in told.loadouts:
        auw = next(each for each in loadout.answers if each.kind.value == "auw")
        assert f"{auw.value:.0f} ±{2 * auw.sd:.0f}" in text
        assert f"{loadout.cg.x_mm:.0f}" in text
        assert loadout.name in text
    for assembly in told.assemblies:
        assert assembly.name in text
    assert f"neutral point {told.beam.neutral.x_mm:.0f}" in text
    assert "local authority" in " ".join(text.split())


def test_the_sheet_names_what_has_no_place():
    build = sandpiper()
    clay = Part("clay", "Clay", Pedigree.GUESS, stated_g=8.0)
    says = "Without a place yet, counted where the rest balances: Clay."
    text = read(page_of(replace(build, parts=(*build.parts, clay)))).pages[0].extract_text()
    assert says in " ".join(text.split())
    assert "Without a place" not in read(page_of(build)).pages[0].extract_text()


def test_in_ounces_and_inches_with_a_comma_nothing_is_metric():
    text = read(page_of(sandpiper(), "letter", INCHES)).pages[0].extract_text()
    auw = assess(sandpiper()).loadouts[0].answers[0]
    assert f"{auw.value / 28.349523125:.1f}".replace(".", ",") in text
    assert not re.search(r"\d ?(g|mm|g/dm²)\b", text)
    assert not re.search(r"\d\.\d", text)


@pytest.mark.parametrize("plane", PLANES)
@pytest.mark.parametrize("paper", PAPERS)
def test_no_words_leave_the_paper_or_lie_on_others(plane, paper):
    build = PLANES[plane]
    page = page_of(build, paper)
    boxes = []
    for mark in page.marks:
        if not isinstance(mark, Words):
            continue
        long = wide(mark.text, mark.size, mark.cut)
        left = mark.at[0] - {"start": 0.0, "middle": long / 2, "end": long}[mark.anchor]
        high = mark.size * 0.3528 * 0.7
        boxes.append((left, mark.at[1] - high, left + long, mark.at[1], mark.text))
    for left, top, right, bottom, text in boxes:
        assert left >= 5, text
        assert right <= page.width - 5, text
        assert top >= 5, text
        assert bottom <= page.height - 3, text
    for k, one in enumerate(boxes):
        for other in boxes[k + 1 :]:
            across = min(one[2], other[2]) - max(one[0], other[0])
            down = min(one[3], other[3]) - max(one[1], other[1])
            assert across < 0.3 or down < 0.3, (one[4], other[4])


def test_a_build_of_nothing_and_one_of_everything_have_a_sheet():
    assert len(read(page_of(Build("b", "B"))).pages) == 1
    parts = tuple(
        Part(f"i{k}", f"Part {k} " + "x" * 60, Pedigree.GUESS, f"Assembly {k} " + "y" * 50, 5.0)
        for k in range(60)
    )
    crowded = replace(sandpiper(), name="W" * 80, parts=(*sandpiper().parts, *parts))
    page = page_of(crowded)
    assert "more" in read(page).pages[0].extract_text()
    assert max(mark.at[1] for mark in page.marks if isinstance(mark, Words)) < page.height


def test_screen_and_paper_are_one_drawing():
    page = page_of(sandpiper())
    drawn = ElementTree.fromstring(svg(page, "<A & B>"))
    words = [each.text for each in drawn.iter() if each.tag.endswith("text")]
    assert words == [mark.text for mark in (*page.marks, *page.clipped) if isinstance(mark, Words)]
    assert drawn.attrib["viewBox"] == "0 0 210 297"


def test_a_name_cannot_break_out_of_the_drawing():
    evil = replace(sandpiper(), name='<script>alert("x")</script>')
    text = svg(page_of(evil), evil.name)
    assert "<script" not in text
    ElementTree.fromstring(text)


def test_the_same_build_is_the_same_file():
    assert pdf([page_of(sandpiper())], "S") == pdf([page_of(sandpiper())], "S")


def test_the_balance_mark_is_full_size_and_where_it_must_be():
    build, told = sandpiper(), assess(sandpiper())
    reader = read(balance_marks(told, told.loadouts[0], PAPERS["a4"], Shown()))
    hundred = [x2 - x1 for x1, y1, x2, y2 in lines(reader) if y1 == y2 and abs(x2 - x1) > 90]
    assert hundred
    assert all(long == pytest.approx(100.0, abs=0.05) for long in hundred)
    strip = mark_strip(told, told.loadouts[0], Shown())
    band = next(each for each in strip.marks if isinstance(each, Stroke) and each.fill)
    root = next(each for each in build.surfaces if each.role.value == "wing").sections[0]
    low, high = (
        told.wing.mac_le_x_mm + share * told.wing.mac_mm - root.x_le_mm for share in (0.28, 0.33)
    )
    assert band.points[0][0] == pytest.approx(low, abs=0.01)
    assert band.points[1][0] == pytest.approx(high, abs=0.01)
    assert strip.long == root.chord_mm


def test_a_mark_ahead_of_the_leading_edge_is_on_the_strip():
    told = assess(PLANES["avocet"])
    strip = mark_strip(told, told.loadouts[0], Shown())
    band = next(each for each in strip.marks if isinstance(each, Stroke) and each.fill)
    assert min(x for x, _ in band.points) >= 0
    texts = [mark.text for mark in strip.marks if isinstance(mark, Words)]
    assert any("ahead of the leading edge" in text for text in texts)


@given(st.floats(20, 1500), st.floats(20, 1500), st.sampled_from(sorted(PAPERS)))
def test_tiles_cover_a_drawing_and_their_crosses_meet(long, high, paper):
    size = PAPERS[paper]
    corner = Stroke(((long - 1, high - 1), (long, high)))
    pages = tiles(Strip(long, high, [corner]), size, "T", Shown())
    wide_, high_ = size.width - 2 * EDGE, size.height - HEAD - FOOT
    across = math.ceil(max(long - OVERLAP, 1e-9) / (wide_ - OVERLAP))
    down = math.ceil(max(high - OVERLAP, 1e-9) / (high_ - OVERLAP))
    assert len(pages) == across * down
    last = pages[-1]
    x, y = last.clipped[0].points[1]
    assert last.window[0] - 0.01 <= x <= last.window[2] + 0.01
    assert last.window[1] - 0.01 <= y <= last.window[3] + 0.01
    if across > 1:
        # The cross of a seam lies at the right of one tile where it lies at the left of the next.
        seam = wide_ - OVERLAP / 2
        for page, there in ((pages[0], EDGE + seam), (pages[1], EDGE + OVERLAP / 2)):
            crosses = [mark for mark in page.clipped[1:] if isinstance(mark, Stroke)]
            middles = {round(sum(x for x, _ in mark.points) / 2, 3) for mark in crosses}
            assert any(abs(each - there) < 0.01 for each in middles)


def test_outlines_at_full_size_measure_as_drawn():
    told = assess(sandpiper())
    wing = next(each for each in told.outlines if each.role.value == "wing")
    pages = outline_sheets([wing], told, PAPERS["a4"], Shown())
    assert len(pages) == sheets_taken([wing], PAPERS["a4"])
    shape = next(
        mark
        for mark in pages[0].clipped
        if isinstance(mark, Stroke) and mark.is_closed and not mark.fill
    )
    xs, ys = [x for x, _ in shape.points], [y for _, y in shape.points]
    assert max(xs) - min(xs) == pytest.approx(wing.chord_mm, abs=0.01)
    assert max(ys) - min(ys) == pytest.approx(wing.span_mm / 2, abs=0.01)


@pytest.mark.parametrize("name", GRIDS)
def test_labels_lie_on_their_sheet_and_hold_what_they_say(name):
    grid = GRIDS[name]
    assert grid.left + (grid.across - 1) * grid.step_x + grid.wide <= grid.paper.width + 0.01
    assert grid.top + (grid.down - 1) * grid.step_y + grid.high <= grid.paper.height + 0.6
    build, told = sandpiper(), assess(sandpiper())
    made = cards(build, told, Shown())
    pages = labels(made, grid, 2)
    assert len(pages) == math.ceil((len(made) + 2) / (grid.across * grid.down))
    text = "".join(page.extract_text() for page in read(pages).pages)
    motor = next(each for each in told.parts if each.id == "motor")
    assert f"{motor.mass_g:.1f} g" in text
    assert f"±{2 * motor.sd_g:.1f}" in text
    for page in pages:
        for mark in page.marks:
            if isinstance(mark, Words):
                column = (mark.at[0] - grid.left) // grid.step_x
                right = grid.left + column * grid.step_x + grid.wide
                assert mark.at[0] + wide(mark.text, mark.size, mark.cut) <= right + 0.5, mark.text


def test_a_free_grid_fills_the_paper():
    grid = free_grid(PAPERS["letter"], 4, 6)
    assert grid.across * grid.wide == pytest.approx(215.9 - 16)
    assert grid.down * grid.high == pytest.approx(279.4 - 16)


@given(st.text(max_size=60), st.floats(5, 80))
def test_what_is_fitted_fits(text, most):
    assert wide(fitted(text, most)) <= max(most, wide("…")) + 1e-6
    for line in folded(text, most):
        assert wide(line) <= max(most, wide("…")) + 1e-6


def stands(build: Build) -> str:
    told = assess(build)
    return state_of(Subject(build, told, told.loadouts[0]))


def test_balanced_is_only_what_was_checked_as_it_flies_now():
    dunlin = PLANES["dunlin"]
    (check,) = dunlin.checks
    assert stands(dunlin) == "weighed and balanced"
    unchecked = "weighed, balance not checked"
    assert stands(replace(dunlin, checks=())) == unchecked
    assert stands(replace(dunlin, checks=(replace(check, set_aside="slipped"),))) == unchecked
    far = replace(check, x_mm=check.x_mm + 40)
    assert stands(replace(dunlin, checks=(far,))) == "weighed, its check disagrees"
    assert stands(PLANES["night-heron"]) != "weighed and balanced"
    assert stands(sandpiper()) == "not all weighed yet"


def test_a_doubted_reading_is_told_on_paper_too():
    answer = assess(sandpiper()).loadouts[0].answers[0]
    text = " ".join(read(page_of(sandpiper())).pages[0].extract_text().split())
    assert f"{answer.believing:.0f} g if a doubted reading is right" in text


def test_a_body_is_drawn_where_it_lies_on_the_plane():
    """Twin booms of the Mayfly 60 mm out: two shapes, as far apart as 120 mm of the plane."""
    build = PLANES["mayfly"]
    frames = (Frame(100.0, 0.0, 8.0, 8.0), Frame(300.0, 0.0, 8.0, 8.0))
    booms = Body("boom", "Boom", BodyShape.TUBE, frames, y_mm=60.0, twin=True)
    told = assess(replace(build, bodies=(booms,)))
    page, bare = Page(210.0, 297.0), Page(210.0, 297.0)
    frame = plane.Frame(10.0, 10.0, 180.0, 120.0)
    per_mm = plane.plane(page, told, None, frame, METRIC)
    plane.plane(bare, assess(build), None, frame, METRIC)
    drawn = [m for m in page.marks if isinstance(m, Stroke) and m.fill == BAND]
    assert len(drawn) - sum(isinstance(m, Stroke) and m.fill == BAND for m in bare.marks) == 2
    middles = [sum(y for _, y in mark.points) / 4 for mark in drawn[:2]]
    assert abs(middles[0] - middles[1]) * per_mm == pytest.approx(120.0, rel=1e-6)
    long = max(x for x, _ in drawn[0].points) - min(x for x, _ in drawn[0].points)
    assert long * per_mm == pytest.approx(200.0, rel=1e-6)


def test_what_is_thrown_is_told_of_no_pack_and_no_propeller():
    """The last column before the foot minds what a plane carries, and nothing else."""
    thrown = read(page_of(PLANES["dunlin"])).pages[0].extract_text().replace("\n", " ")
    assert "Propeller" not in thrown
    assert "pack" not in thrown
    assert "thrown: it has no" in thrown
    unchecked = replace(PLANES["dunlin"], checks=())
    assert "hold it at both marks." in read(page_of(unchecked)).pages[0].extract_text()
    driven = read(page_of(sandpiper())).pages[0].extract_text().replace("\n", " ")
    assert "Propeller off while" in driven
    assert "with the pack in" in driven
