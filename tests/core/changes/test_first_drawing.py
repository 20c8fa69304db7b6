"""A layout's drawing to one's own span and chord: volumes by sums of their own, and no layout that
our own rules of thumb would warn of."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.drawing import chorded, span_of, spanned
from oaken_scale.core.changes.first_drawing import first_drawing, untouched
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.proportions import Oddity, fin_volume, tail_volume
from oaken_scale.core.geometry.wing import area_dm2, wing_figures
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.surface import Role, Section, Surface

WITH_WING = [
    layout
    for layout in presets.LAYOUTS
    if any(each.role is Role.WING for each in layout.starting_surfaces)
]
TAPERED = Surface("w", "Wing", Role.WING, (Section(100, 0, 0, 200), Section(150, 500, 60, 100)))


@pytest.mark.parametrize("layout", WITH_WING, ids=lambda each: each.id)
@given(st.floats(300, 2500), st.floats(60, 500))
def test_a_first_drawing_has_its_span_its_chord_and_the_layouts_volumes(layout, span, chord):
    start = layout.starting_surfaces
    drawn = first_drawing(start, span, chord)
    was, wing = wing_figures(start), wing_figures(drawn)
    assert wing.span_mm == pytest.approx(span, abs=0.2)
    root = next(each for each in drawn if each.role is Role.WING).sections[0]
    assert root.chord_mm == pytest.approx(chord, abs=0.05 + 1e-9)  # to a tenth
    tailed = any(each.role is Role.TAIL for each in start)
    for role, volume in ((Role.TAIL, tail_volume), (Role.FIN, fin_volume)):
        old, new = ([s for s in those if s.role is role] for those in (start, drawn))
        if old and tailed:
            assert volume(wing, new) == pytest.approx(volume(was, old), rel=0.01)
        elif old:  # it stands on a wing, and keeps its share of that
            share = area_dm2(old[0]) / was.area_dm2
            assert area_dm2(new[0]) / wing.area_dm2 == pytest.approx(share, rel=0.01)


def chord_share(fin, wing):
    """Where a fin's foot ends on the chord of its wing [1], by a line from root to tip."""
    (root, tip), foot = (wing.sections[0], wing.sections[-1]), fin.sections[0]
    out = foot.y_mm / tip.y_mm
    chord = root.chord_mm + out * (tip.chord_mm - root.chord_mm)
    leading = root.x_le_mm + out * (tip.x_le_mm - root.x_le_mm)
    return (foot.x_le_mm + foot.chord_mm - leading) / chord


@pytest.mark.parametrize(
    ("layout", "under"),
    [("flying-wing", "wing"), ("delta", "wing"), ("canard", "wing"), ("tandem", "rear-wing")],
)
@pytest.mark.parametrize(("span", "chord"), [(1500.0, 300.0), (900.0, 420.0), (1300.0, 120.0)])
def test_a_fin_on_a_wing_stays_on_it(layout, under, span, chord):
    start = presets.layout(layout).starting_surfaces
    drawn = first_drawing(start, span, chord)
    (fin, wing), (new, grown) = (
        (next(s for s in those if s.id == id) for id in ("fin", under)) for those in (start, drawn)
    )
    assert chord_share(new, grown) == pytest.approx(chord_share(fin, wing), abs=0.003)
    tall, taller = (each.sections[1].z_mm for each in (fin, new))
    assert taller / tall == pytest.approx(span_of(grown) / span_of(wing), rel=0.01)


def test_two_wings_are_a_chord_apart_whatever_the_span():
    for span, chord in ((800.0, 150.0), (914.4, 165.1), (1400.0, 120.0)):
        lower, upper, *_ = first_drawing(presets.layout("biplane").starting_surfaces, span, chord)
        assert {s.z_mm for s in lower.sections} == {0.0}
        for section in upper.sections:
            assert section.z_mm == pytest.approx(chord, abs=0.05)
        ahead = lower.sections[0].x_le_mm - upper.sections[0].x_le_mm
        assert ahead == pytest.approx(chord / 5, abs=0.1)


def test_the_trailing_edge_of_a_delta_stays_straight():
    wing, _ = first_drawing(presets.layout("delta").starting_surfaces, 900.0, 480.0)
    assert {round(s.x_le_mm + s.chord_mm, 1) for s in wing.sections} == {480.0}


@pytest.mark.parametrize("layout", presets.LAYOUTS, ids=lambda each: each.id)
@pytest.mark.parametrize(
    ("wider", "deeper"), [(0.6, 0.6), (1.0, 1.0), (1.4, 1.4), (1.3, 1.0), (0.95, 1.15), (2.4, 1.0)]
)
def test_nothing_about_our_own_first_drawings_is_odd(layout, wider, deeper):
    """As the layout is, and to a size of the builder's own; a wing more or less slender
    than the layout's is told as that, and a fin that stands on one keeps its foot on the chord: on
    one of more than twice the slenderness it may be too small."""
    start = layout.starting_surfaces
    wing = next(each for each in start if each.role is Role.WING)
    own = first_drawing(start, wider * span_of(wing), deeper * wing.sections[0].chord_mm)
    for surfaces in (start, own):
        build = Build("b", "B", purpose="park", layout=layout.id, surfaces=surfaces)
        odd = {each.kind for each in assess(build).proportions.odd}
        tailed = any(each.role is Role.TAIL for each in surfaces)
        told = {Oddity.ASPECT_RATIO} if wider != deeper else set()
        if wider > 2 * deeper and not tailed:
            told.add(Oddity.FIN_VOLUME)
        assert odd <= told


@pytest.mark.parametrize("layout", presets.LAYOUTS, ids=lambda each: each.id)
def test_where_a_layouts_rule_balances_it_the_neutral_point_is_behind(layout):
    if layout.chord_rule is None:
        return
    start = layout.starting_surfaces
    wing, neutral = wing_figures(start), neutral_point(start)
    aft = wing.mac_le_x_mm + layout.chord_rule[1] / 100 * wing.mac_mm
    assert neutral.x_mm - aft > 0.03 * wing.mac_mm


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
