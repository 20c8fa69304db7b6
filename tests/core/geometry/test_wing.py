import numpy as np
import pytest

from oaken_scale.core.geometry.wing import area_dm2, plan_outline, wing_figures
from oaken_scale.core.model.surface import Role, Section, Surface


def by_quadrature(surface: Surface) -> tuple[float, float, float]:
    """Area, MAC and its leading edge by summing 200,000 thin strips."""
    y = np.linspace(surface.sections[0].y_mm, surface.sections[-1].y_mm, 200_001)
    y = (y[1:] + y[:-1]) / 2
    at = [s.y_mm for s in surface.sections]
    c = np.interp(y, at, [s.chord_mm for s in surface.sections])
    x = np.interp(y, at, [s.x_le_mm for s in surface.sections])
    step = (at[-1] - at[0]) / len(y)
    area = 2 * (c * step).sum()
    return area / 1e4, 2 * (c * c * step).sum() / area, 2 * (x * c * step).sum() / area


POLYHEDRAL = Surface(
    "w",
    "Wing",
    Role.WING,
    (
        Section(150, 0, 0, 210),
        Section(150, 300, 10, 205),
        Section(185, 520, 60, 120),
        Section(230, 600, 90, 0),
    ),
)


def test_area_and_mac_agree_with_thin_strips():
    figures = wing_figures([POLYHEDRAL])
    area, mac, leading = by_quadrature(POLYHEDRAL)
    assert figures.area_dm2 == pytest.approx(area, rel=1e-8)
    assert figures.mac_mm == pytest.approx(mac, rel=1e-8)
    assert figures.mac_le_x_mm == pytest.approx(leading, rel=1e-8)
    assert figures.aspect_ratio == pytest.approx(1.2**2 * 100 / area)


def test_a_second_wing_counts_and_a_tail_does_not():
    upper = Surface("u", "Upper", Role.WING, (Section(0, 0, 90, 100), Section(0, 500, 90, 100)))
    lower = Surface("l", "Lower", Role.WING, (Section(50, 0, 0, 100), Section(50, 500, 0, 100)))
    tail = Surface("t", "Tail", Role.TAIL, (Section(600, 0, 0, 90), Section(600, 200, 0, 90)))
    figures = wing_figures([upper, lower, tail])
    assert figures.area_dm2 == pytest.approx(20.0)
    assert figures.mac_mm == pytest.approx(100.0)
    assert figures.mac_le_x_mm == pytest.approx(25.0)


def test_a_fin_stands_up_and_is_not_mirrored():
    fin = Surface("f", "Fin", Role.FIN, (Section(700, 0, 0, 120), Section(740, 0, 150, 80)))
    assert area_dm2(fin) == pytest.approx(1.5)
    assert wing_figures([fin]) is None


def test_outline_closes_round_both_halves():
    corners = plan_outline(POLYHEDRAL)
    assert (150, 0) in corners
    assert (230, 600) in corners
    assert (185, -520) in corners
    assert len(corners) == len(set(corners))
