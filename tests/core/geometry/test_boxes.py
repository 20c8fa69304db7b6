"""Boxes in a bay: by hand, and against what was cut apart."""

from itertools import combinations

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from oaken_scale.core.geometry.boxes import clearance_mm, how_many, together

BAY = (120.0, 40.0, 60.0)


@pytest.mark.parametrize(
    ("thing", "room", "many"),
    [
        ((110.0, 38.0, 28.0), 10.0, 2),  # 28 across, 38 up; flat, two lie over one another
        ((28.0, 110.0, 38.0), 10.0, 2),  # however it is given
        ((60.0, 40.0, 30.0), 10.0, 4),
        ((121.0, 10.0, 10.0), -1.0, 0),
        ((70.0, 41.0, 30.0), 10.0, 1),  # 41 stands up in 60: 30 across, 70 along
    ],
)
def test_how_many_packs_go_into_a_bay(thing, room, many):
    assert clearance_mm(BAY, thing) == pytest.approx(room)
    assert how_many(BAY, thing) == many


CUT = st.lists(st.tuples(st.integers(0, 2), st.floats(0.3, 0.7)), min_size=1, max_size=3)


@given(CUT)
@example([(1, 0.30078125), (0, 0.375), (1, 0.3046875)])  # the largest lies off its wall
def test_what_was_cut_out_of_a_bay_goes_back_into_it(cuts):
    """A bay is cut apart, the largest piece each time; the pieces go back, apart from one another
    and inside."""
    pieces = [BAY]
    for axis, share in cuts:
        largest = pieces.pop(pieces.index(max(pieces, key=lambda p: p[0] * p[1] * p[2])))
        for part in (share, 1 - share):
            pieces.append(tuple(s * part if k == axis else s for k, s in enumerate(largest)))
    told = together(BAY, pieces)
    assert told is not None
    for (at, sides), piece in zip(told, pieces, strict=True):
        assert sorted(sides) == pytest.approx(sorted(piece))
        assert all(at[k] >= 0 and at[k] + sides[k] <= BAY[k] + 1e-5 for k in range(3))
    for (a, p), (b, q) in combinations(told, 2):
        gaps = [max(b[k] - a[k] - p[k], a[k] - b[k] - q[k]) for k in range(3)]
        assert max(gaps) > -1e-5


def test_what_does_not_go_in_together():
    assert together(BAY, [(110.0, 38.0, 28.0)] * 3) is None
    assert together(BAY, [(100.0, 30.0, 50.0), (90.0, 25.0, 30.0)]) is None
    assert together(BAY, [(110.0, 38.0, 28.0)] * 2) is not None
