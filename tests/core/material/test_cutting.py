"""What is cut from which lot, what is larger than a sheet, and what a plan says of it."""

import csv
import re
from dataclasses import replace
from io import StringIO
from itertools import pairwise

import ezdxf
import pytest
from shapely import LineString, Polygon
from shapely.ops import unary_union

from oaken_scale.core.changes.drawing import pattern_of, skins
from oaken_scale.core.geometry.blanks import Knife, least_sheets
from oaken_scale.core.geometry.placing import Cut, parts_from
from oaken_scale.core.material.cutting import cut_steps, jobs
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.pattern import CORNERS, Grain, Pattern, shape_of, to_cut, turned_over
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.cut_files import cut_dxf, cut_list, cut_svg

SHEET = Lot(
    "board",
    "Board",
    LotUnit.DM2,
    4.5,
    0.4,
    kind=LotKind.FOAM,
    faces=Faces.BOTH,
    length_mm=700.0,
    width_mm=500.0,
    price=3.0,
    stock=1.0,
)


def square(long, high):
    return ((0.0, 0.0), (long, 0.0), (long, high), (0.0, high))


def cut_from(lot, *parts):
    return Build("b", "B", lots=(lot,), parts=parts)


def part(id, long, high, pieces=1, **how):
    pattern = Pattern((square(long, high),), **how)
    area = long * high * pattern.layers * pieces / 1e4
    return Part(
        id,
        id.title(),
        Pedigree.CALCULATED,
        uses=(Use("board", area),),
        pieces=pieces,
        pattern=pattern,
    )


def plans(build, knife=Knife(), seconds=0.5, only=None):  # noqa: B008
    to_lay, _ = jobs(build, knife, only)
    best = {}
    for step in cut_steps(to_lay, knife, seconds):
        if step.plan is not None:
            best[step.plan.lot] = step.plan
    assert step.gone == 1.0
    return best


def test_each_piece_of_each_layer_is_cut_once():
    build = cut_from(SHEET, part("rib", 180, 20, pieces=4), part("doubler", 90, 40, layers=2))
    plan = plans(build)["board"]
    told = sorted((each.part, each.number, each.of) for each in plan.pieces)
    assert told == [("doubler", 1, 2), ("doubler", 2, 2)] + [("rib", k, 4) for k in range(1, 5)]
    assert not any(each.is_supposed for each in plan.pieces)
    share = (4 * 180 * 20 + 2 * 90 * 40) / (700 * 500)
    assert plan.used_share == pytest.approx(share)


def test_what_is_at_hand_what_is_to_buy_and_for_how_much():
    build = cut_from(SHEET, part("panel", 600, 450, pieces=3))
    plan = plans(build)["board"]
    assert (plan.sheets, plan.least, plan.at_hand, plan.to_buy) == (3, 3, 1.0, 2)
    assert plan.cost_to_buy == 6.0
    enough = cut_from(replace(SHEET, stock=3.0, price=None), part("panel", 600, 450, pieces=3))
    assert (plans(enough)["board"].to_buy, plans(enough)["board"].cost_to_buy) == (0, None)


def test_a_part_without_an_outline_is_supposed_a_rectangle_of_its_area():
    wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("board", 10.0),), pieces=2)
    plan = plans(cut_from(SHEET, wing))["board"]
    assert [each.is_supposed for each in plan.pieces] == [True, True]
    for each in plan.pieces:
        shape = Polygon(each.rings[0])
        assert shape.area == pytest.approx(5.0 * 1e4, rel=1e-4)
        long, high = sorted((shape.bounds[2] - shape.bounds[0], shape.bounds[3] - shape.bounds[1]))
        assert high / long == pytest.approx(2.0, rel=1e-3)


def test_retired_parts_pockets_rods_and_those_not_asked_for_are_not_laid():
    gone = replace(part("old", 90, 90), retired=True)
    pocket = Part("pocket", "Pocket", Pedigree.CALCULATED, uses=(Use("board", -1.0),))
    build = cut_from(SHEET, part("new", 90, 90), part("other", 80, 80), gone, pocket)
    assert {each.part for each in plans(build)["board"].pieces} == {"new", "other"}
    assert {each.part for each in plans(build, only={"other"})["board"].pieces} == {"other"}


def test_a_lot_without_a_size_names_its_parts():
    build = cut_from(replace(SHEET, width_mm=None), part("rib", 90, 20))
    to_lay, unlaid = jobs(build, Knife())
    assert to_lay == ()
    assert [(each.part, each.lot) for each in unlaid] == [("rib", "Board")]


@pytest.mark.parametrize(
    ("long", "high", "xs", "ys"),
    [
        (1000, 100, (500.0,), ()),  # one cut: both halves lie along the sheet
        (1500, 100, (500.0, 1000.0), ()),
        (600, 600, (300.0,), ()),  # free: halves of 300 by 600
        (1300, 900, (650.0,), (450.0,)),
    ],
)
def test_a_part_larger_than_any_sheet_is_laid_in_as_few_pieces_as_fit(long, high, xs, ys):
    build = cut_from(SHEET, part("spar", long, high))
    plan = plans(build)["board"]
    (join,) = plan.joins
    assert (join.part, join.length_mm, join.width_mm) == ("spar", long, high)
    assert (join.at_x_mm, join.at_y_mm) == (xs, ys)
    many = (len(xs) + 1) * (len(ys) + 1)
    assert sorted(each.joined for each in plan.pieces) == list(range(1, many + 1))
    assert {each.joined_of for each in plan.pieces} == {many}
    area = sum(Polygon(each.rings[0]).area for each in plan.pieces)
    assert area == pytest.approx(long * high, rel=1e-6)


def test_a_sheet_as_small_as_a_stamp_is_told_and_not_cut_for_ever():
    stamp = replace(SHEET, length_mm=10.0, width_mm=10.0)
    with pytest.raises(BuildFaultError, match="how large the sheet is"):
        jobs(cut_from(stamp, part("wing", 5000, 2000)), Knife())


def test_the_grain_says_how_a_part_lies():
    along = part("along", 400, 50, grain=Grain.ALONG)
    across = part("across", 400, 50, grain=Grain.ACROSS)
    for each in plans(cut_from(SHEET, along, across))["board"].pieces:
        left, low, right, top = Polygon(each.rings[0]).bounds
        assert (right - left > top - low) == (each.part == "along")


def test_a_sheet_with_one_paper_off_is_not_turned_over():
    ring = ((0.0, 0.0), (400.0, 0.0), (400.0, 100.0))
    part = Part("a", "A", Pedigree.CALCULATED, uses=(Use("board", 2.0),), pattern=Pattern((ring,)))
    for faces, may in ((Faces.ONE, False), (Faces.NONE, True), (Faces.BOTH, True)):
        (job,), _ = jobs(cut_from(replace(SHEET, faces=faces), part), Knife())
        assert job.pieces[0].blank.may_flip is may


@pytest.mark.parametrize(
    ("knife", "field", "words"),
    [
        (Knife(kerf_mm=20.0), "kerf_mm", "no narrower than Rib"),
        (Knife(margin_mm=250.0), "margin_mm", "less than 250 mm"),
    ],
)
def test_a_knife_that_leaves_nothing_is_refused_in_words(knife, field, words):
    with pytest.raises(BuildFaultError) as refused:
        jobs(cut_from(SHEET, part("rib", 180, 20)), knife)
    assert refused.value.faults[0].field == field
    assert words in refused.value.faults[0].words


def test_an_outline_that_does_not_agree_with_what_is_counted_is_told():
    odd = replace(part("rib", 200, 100), uses=(Use("board", 3.0),))
    (job,), _ = jobs(cut_from(SHEET, odd, part("hatch", 100, 100)), Knife())
    assert [(each.part, each.cut_dm2, each.counted_dm2) for each in job.odd] == [("rib", 2.0, 3.0)]


def test_more_pieces_than_can_be_laid_are_refused():
    with pytest.raises(BuildFaultError, match="some of them at a time"):
        jobs(cut_from(SHEET, part("rib", 20, 20, pieces=401)), Knife())


DEMO = (sandpiper(), *(plane.build for plane in fleet()))


@pytest.mark.parametrize("build", DEMO, ids=lambda build: build.id)
def test_no_demo_plane_takes_more_than_one_sheet_above_its_area(build):
    for plan in plans(build, Knife(0.5, 5.0), 1.0).values():
        assert plan.sheets <= plan.least + 1
        assert not plan.odd


def test_the_parts_of_a_drawing_keep_their_outline_and_their_twin_its_mirror_image():
    ring = tuple((float(x), float(y)) for x, y in ((10, 10), (210, 10), (210, 60), (10, 110)))
    cut = Cut("Half", 1.5, 90.0, 45.0, None, "board", 2, True, rings=((*ring, ring[0]),))
    one, other = parts_from(replace(cut, placing=None), ("a", "b"), 4.5)
    assert one.pattern == Pattern((ring,), Grain.FREE, 2)
    assert shape_of(other.pattern).area == pytest.approx(shape_of(one.pattern).area)
    assert turned_over(other.pattern) == one.pattern


def test_the_skins_of_a_surface_are_as_large_as_what_is_counted():
    wing = Surface(
        "w",
        "Wing",
        Role.WING,
        (Section(100, 0, 0, 190), Section(100, 400, 14, 190), Section(130, 540, 60, 120)),
    )
    for layers in (1.0, 2.0):
        for skin in skins(wing, SHEET, layers):
            flat = skin.uses[0].amount
            cut = shape_of(skin.pattern).area * skin.pattern.layers / 1e4
            assert flat <= cut <= 1.06 * flat  # the slope is longer than what is seen from above
    assert pattern_of(wing).rings[0][:3] == ((0.0, 0.0), (400.24, 0.0), (547.61, 30.0))


def test_crossing_outlines_and_holes_outside_are_faults():
    bow = Pattern((((0.0, 0.0), (60.0, 9.0), (60.0, 0.0), (0.0, 9.0)),))
    out = Pattern((square(60.0, 9.0), ((50.0, 1.0), (70.0, 1.0), (70.0, 5.0))))
    for pattern in (bow, out):
        (fault,) = faults(cut_from(SHEET, replace(part("rib", 9, 9), pattern=pattern)))
        assert fault.field == "parts.0.pattern"
        assert "corners in order" in fault.words


def test_an_outline_is_kept_as_truly_as_a_knife_cuts():
    dense = [(100 + 60 * (k % 7) / 700, k / 10) for k in range(5000)] + [(0, 500), (0, 0)]
    (ring,) = to_cut([dense])
    assert len(ring) <= CORNERS
    assert Polygon(ring).symmetric_difference(Polygon(dense)).area < 0.2 * Polygon(dense).length


def test_the_files_hold_every_piece_where_it_lies():
    build = cut_from(SHEET, part("rib", 180, 20, pieces=3), part("spar", 1000, 60))
    told = list(plans(build, Knife(1.0, 5.0)).values())
    shapes = [Polygon(piece.rings[0]) for piece in told[0].pieces]

    drawing = ezdxf.read(StringIO(cut_dxf(told)))
    cuts = [
        Polygon([(x, -y) for x, y in line.get_points("xy")])
        for line in drawing.modelspace().query('LWPOLYLINE[layer=="CUT"]')
    ]
    assert unary_union(cuts).symmetric_difference(unary_union(shapes)).area < 1.0

    svg = cut_svg(told)
    paths = re.findall(r'd="M([^"]+) Z"', svg)
    drawn = [Polygon([tuple(map(float, at.split(","))) for at in p.split(" L")]) for p in paths]
    assert unary_union(drawn).symmetric_difference(unary_union(shapes)).area < 1.0
    assert 'width="700mm"' in svg

    rows = list(csv.DictReader(StringIO(cut_list(told))))
    assert len(rows) == len(shapes) == 5
    assert {row["part"] for row in rows} == {"Rib", "Spar"}
    assert [(row["joined"], row["joined of"]) for row in rows if row["part"] == "Spar"] in (
        [("1", "2"), ("2", "2")],
        [("2", "2"), ("1", "2")],
    )
    for row, shape in zip(rows, shapes, strict=True):
        assert float(row["x, mm"]) == pytest.approx(shape.bounds[0], abs=0.06)
        assert float(row["length, mm"]) == pytest.approx(
            shape.bounds[2] - shape.bounds[0], abs=0.11
        )


def test_the_least_is_by_area():
    build = cut_from(SHEET, part("panel", 350, 250, pieces=5))
    (job,), _ = jobs(build, Knife())
    assert job.least == least_sheets([piece.blank for piece in job.pieces], job.sheet) == 2


def test_folds_are_marked_where_the_part_lies():
    """A strip 300 by 100 with a fold 20 from its lower edge, and one larger than a sheet."""
    fold = ((0.0, 80.0), (300.0, 80.0))
    strip = Pattern((square(300.0, 100.0),), folds=(fold,))
    long = Pattern((square(1000.0, 100.0),), folds=(((0.0, 50.0), (1000.0, 50.0)),))
    build = cut_from(
        SHEET,
        replace(part("box", 300, 100), pattern=strip),
        replace(part("spar", 1000, 100), pattern=long),
    )
    told = list(plans(build, Knife(1.0, 5.0)).values())
    for piece in told[0].pieces:
        shape = Polygon(piece.rings[0])
        (line,) = piece.folds
        drawn = LineString(line)
        assert shape.buffer(0.02).contains(drawn)
        # From edge to edge, and as far from its near side as it was drawn.
        assert drawn.length == pytest.approx(300 if piece.part == "box" else 500, abs=0.05)
        near = 20 if piece.part == "box" else 50
        sides = [LineString(pair) for pair in pairwise((*piece.rings[0], piece.rings[0][0]))]
        along = [side for side in sides if side.length > 250]
        assert min(side.distance(drawn) for side in along) == pytest.approx(near, abs=0.05)
    lines = ezdxf.read(StringIO(cut_dxf(told))).modelspace().query('LWPOLYLINE[layer=="FOLD"]')
    assert sorted(round(LineString(each.get_points("xy")).length) for each in lines) == [
        300,
        500,
        500,
    ]
    assert cut_svg(told).count("stroke-dasharray") == 3


def test_the_folds_of_a_twin_are_turned_over_with_it():
    strip = Pattern((square(300.0, 100.0),), folds=(((0.0, 80.0), (300.0, 80.0)),))
    assert turned_over(strip).folds == (((0.0, 20.0), (300.0, 20.0)),)
