"""Drawings made to a figure: areas, volumes and lengths by sums of their own."""

from dataclasses import replace
from math import hypot

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.changes.drawing import (
    along_the_slope,
    chorded,
    of_area,
    reshaped,
    skins,
    span_of,
    spanned,
)
from oaken_scale.core.changes.first_drawing import untouched
from oaken_scale.core.geometry.wing import area_dm2
from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.surface import Role, Section, Surface

TAPERED = Surface(
    "w",
    "Wing",
    Role.WING,
    (Section(100, 0, 0, 200), Section(110, 300, 10, 180), Section(150, 500, 60, 100)),
)
SHEET = Lot("a", "Sheet A", LotUnit.DM2, 4.6, 0.4)


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
