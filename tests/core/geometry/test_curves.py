"""Bezier curves flattened: held against the curve itself, and against its own area."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.geometry.curves import FLAT, MOST_CHORDS, bezier

NODES = st.lists(st.tuples(st.floats(-500, 500), st.floats(-500, 500)), min_size=4, max_size=4)


def on(nodes: np.ndarray, t: float) -> np.ndarray:
    """The point at ``t``, by halving the sides of its polygon (de Casteljau)."""
    while len(nodes) > 1:
        nodes = (1 - t) * nodes[:-1] + t * nodes[1:]
    return nodes[0]


def away(point: np.ndarray, corners: np.ndarray) -> float:
    """How far a point is from the nearest of some chords."""
    a, b = corners[:-1], corners[1:]
    along = b - a
    long = np.maximum((along**2).sum(axis=1), 1e-30)
    share = np.clip(((point - a) * along).sum(axis=1) / long, 0, 1)
    return float(np.hypot(*(a + share[:, None] * along - point).T).min())


@given(NODES)
def test_no_point_of_the_curve_is_farther_off_than_its_share_of_the_size(nodes):
    nodes = np.array(nodes)
    told = bezier(nodes)
    size = float((nodes.max(axis=0) - nodes.min(axis=0)).max())
    assert told[0] == pytest.approx(nodes[0])
    assert told[-1] == pytest.approx(nodes[3])
    assert len(told) <= MOST_CHORDS + 1
    for t in (0.03, 0.21, 0.5, 0.77, 0.96):
        assert away(on(nodes, t), told) <= FLAT * size + 1e-9


def test_a_quarter_of_a_circle_has_its_area():
    """The usual nodes at 4/3 (sqrt(2) - 1) come to pi/4 within 0.03 % by themselves."""
    k = 4 / 3 * (2**0.5 - 1)
    told = bezier(100 * np.array([[1, 0], [1, k], [k, 1], [0, 1]]))
    corners = np.vstack([told, [[0, 0]]])
    x, y = corners.T
    area = abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1))) / 2
    exact = 1e4 * (0.5 + k * (12 - 3 * k) / 20)
    assert area == pytest.approx(exact, rel=2e-4)
    assert area < exact


def test_a_straight_one_is_a_line_and_a_point_is_a_point():
    assert bezier(np.array([[0, 0], [1, 2], [2, 4], [3, 6]], float)).tolist() == [[0, 0], [3, 6]]
    assert bezier(np.zeros((4, 2))).tolist() == [[0, 0], [0, 0]]
    assert len(bezier(np.array([[0, 0], [np.inf, 0], [0, 0], [1, 0]]))) == 2
