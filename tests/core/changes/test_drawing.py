"""Drawings made to a figure: areas, volumes and lengths by sums of their own."""

from dataclasses import replace
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.changes.drawing import (
    along_the_slope,
    chorded,
    first_drawing,
    of_area,
    reshaped,
    skins,
    span_of,
    spanned,
    untouched,
)
from oaken_scale.core.geometry.proportions import fin_volume, tail_volume
from oaken_scale.core.geometry.wing import area_dm2, wing_figures
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.surface import Role, Section, Surface

WITH_WING = [
    layout
    for layout in presets.LAYOUTS
    if any(each.role is Role.WING for each in layout.starting_surfaces)
]
TAPERED = Surface(
    "w",
    "Wing",
    Role.WING,
    (Section(100, 0, 0, 200), Section(110, 300, 10, 180), Section(150, 500, 60, 100)),
)
SHEET = Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4)


@pytest.mark.parametrize("layout", WITH_WING, ids=lambda each: each.id)
@given(st.floats(300, 2500), st.floats(60, 500))
def test_a_first_drawing_has_its_span_its_chord_and_the_layouts_volumes(layout, span, chord):
    start = layout.starting_surfaces
    drawn = first_drawing(start, span, chord)
    was, wing = wing_figures(start), wing_figures(drawn)
    assert wing.span_mm == pytest.approx(span, abs=0.2)
    root = next(each for each in drawn if each.role is Role.WING).sections[0]
    assert root.chord_mm == pytest.approx(chord, abs=0.05 + 1e-9)  # to a tenth
    for role, volume in ((Role.TAIL, tail_volume), (Role.FIN, fin_volume)):
        old, new = ([s for s in those if s.role is role] for those in (start, drawn))
        if old:
            assert volume(wing, new) == pytest.approx(volume(was, old), rel=0.01)


@pytest.mark.parametrize("layout", WITH_WING, ids=lambda each: each.id)
def test_a_first_drawing_by_its_area(layout):
    drawn = first_drawing(layout.starting_surfaces, 1000.0, area=22.0)
    assert wing_figures(drawn).area_dm2 == pytest.approx(22.0, rel=2e-3)


def test_a_first_drawing_needs_a_wing_and_a_chord():
    for surfaces, words in (((), "draw a wing first"), ((TAPERED,), "chord at the root")):
        with pytest.raises(BuildFaultError, match=words):
            first_drawing(surfaces, 1000.0)


SIZES = st.floats(5e-324, 20_000.0)


@given(layout=st.sampled_from(WITH_WING), span=SIZES, size=SIZES, by_area=st.booleans())
def test_whatever_the_size_it_is_drawn_or_refused_by_the_fields_name(layout, span, size, by_area):
    made = {"area": size} if by_area else {"chord_mm": size}
    refusals = []
    try:
        drawn = first_drawing(layout.starting_surfaces, span, **made)
        assert all(area_dm2(each) for each in drawn)
    except BuildFaultError as refused:
        refusals += refused.faults
    for refusal in refusals:
        assert min(span, size) < 50.0
        assert refusal.field in {"span_mm", "area_dm2" if by_area else "chord_mm"}
        assert "give a larger one" in refusal.words
    hair = tuple(chorded(each, min(size, 2.0)) for each in layout.starting_surfaces)
    assert "wing" not in untouched(layout.id, hair)


def test_a_wing_without_a_chord_at_its_root_is_no_beginning():
    pointed = replace(TAPERED, sections=(Section(0, 0, 0, 0), *TAPERED.sections[1:]))
    with pytest.raises(BuildFaultError, match="a chord at its root"):
        first_drawing((pointed,), 1000.0, 200.0)


@pytest.mark.parametrize("layout", presets.LAYOUTS, ids=lambda each: each.id)
def test_what_came_with_the_layout_is_nobodys_until_it_is_touched(layout):
    start = layout.starting_surfaces
    assert untouched(layout.id, start) == {each.id for each in start}
    own = first_drawing(start, 1234.0, 211.0)
    left = {each.id for each in start if each.role is not Role.WING}
    assert untouched(layout.id, own) == left
    moved = tuple(spanned(each, span_of(each) + 20.0) for each in own)
    assert untouched(layout.id, moved) == set()
    assert untouched("", start) == untouched("none such", start) == set()


def test_a_surface_to_a_span_an_area_a_chord():
    assert span_of(spanned(TAPERED, 1300.0)) == pytest.approx(1300.0)
    assert area_dm2(of_area(TAPERED, 20.0)) == pytest.approx(20.0, rel=2e-3)
    assert chorded(TAPERED, 240.0).sections[0].chord_mm == 240.0
    fin = Surface("f", "Fin", Role.FIN, (Section(600, 0, 20, 100), Section(640, 0, 140, 60)))
    assert span_of(fin) == 120
    assert span_of(spanned(fin, 150.0)) == 150
    assert spanned(fin, 150.0).sections[0] == fin.sections[0]


@given(st.floats(52, 900))
def test_a_tip_along_its_slope_is_so_long(length):
    inner, tip = along_the_slope(TAPERED, length).sections[-2:]
    assert hypot(tip.y_mm - inner.y_mm, tip.z_mm - inner.z_mm) == pytest.approx(length, abs=0.4)
    assert tip.z_mm == 60


def test_a_tip_shorter_than_it_rises_is_refused():
    with pytest.raises(BuildFaultError, match="the tip rises 50 mm"):
        along_the_slope(TAPERED, 40.0)


def test_a_surface_without_span_is_refused_in_words():
    flat = Surface("w", "W", Role.WING, (Section(0, 0, 0, 0), Section(0, 0, 0, 0)))
    build = Build("b", "B", surfaces=(flat,))
    for shape in (lambda s: spanned(s, 900.0), lambda s: chorded(s, 90.0)):
        with pytest.raises(BuildFaultError, match="no span or no chord yet"):
            reshaped(build, "w", shape)


def test_skins_are_where_the_area_is():
    """Against a sum over thin strips."""
    left, right = skins(TAPERED, SHEET, 2.0)
    total = x = y = z = 0.0
    strips = 20_000
    for inner, outer in zip(TAPERED.sections, TAPERED.sections[1:], strict=False):
        for k in range(strips):
            t = (k + 0.5) / strips
            at = [
                a + t * (b - a)
                for a, b in zip(
                    (inner.x_le_mm, inner.y_mm, inner.z_mm, inner.chord_mm),
                    (outer.x_le_mm, outer.y_mm, outer.z_mm, outer.chord_mm),
                    strict=True,
                )
            ]
            area = at[3] * (outer.y_mm - inner.y_mm) / strips
            total, x = total + area, x + area * (at[0] + at[3] / 2)
            y, z = y + area * at[1], z + area * at[2]
    assert right.uses[0].amount == pytest.approx(2 * total / 1e4, rel=1e-4)
    assert right.station.x_mm == pytest.approx(x / total, abs=0.06)
    assert right.station.y_mm == pytest.approx(y / total, abs=0.06)
    assert right.station.z_mm == pytest.approx(z / total, abs=0.06)
    assert left.station.y_mm == -right.station.y_mm
    assert left.uses == right.uses


def test_a_surface_of_another_build_up_or_role_is_the_builders_own():
    laid = presets.layout("tractor").starting_surfaces
    tail = next(each for each in laid if each.role is Role.TAIL)
    root, tip = tail.sections[0], tail.sections[-1]
    middle = replace(root, y_mm=(root.y_mm + tip.y_mm) / 2)
    broken = replace(tail, sections=(root, middle, tip))
    turned = replace(tail, role=Role.CANARD)
    for own in (broken, turned):
        surfaces = tuple(own if each is tail else each for each in laid)
        assert untouched("tractor", surfaces) == {each.id for each in laid} - {tail.id}
