"""How a plane glides, from throws that were measured: geometric means worked out here."""

from datetime import UTC, datetime
from math import log

import pytest

from oaken_scale.core.field.better_or_luck import SCATTER, SCATTER_WORTH
from oaken_scale.core.field.glide import glide_ratio, sink_m_s
from oaken_scale.core.model.field import Throw

AT = datetime(2026, 2, 14, 10, tzinfo=UTC)


def throw(id: int, **more) -> Throw:
    return Throw(f"t{id}", AT, **more)


def spread(figures: list[float]) -> float:
    """One sigma of their geometric mean as a fraction, the usual scatter counted in."""
    logs = [log(each) for each in figures]
    mean = sum(logs) / len(logs)
    squares = sum((each - mean) ** 2 for each in logs)
    variance = (SCATTER_WORTH * SCATTER**2 + squares) / (SCATTER_WORTH + len(logs) - 1)
    return (variance / len(logs)) ** 0.5


def test_the_ratio_is_distance_over_height():
    throws = [throw(k, distance_m=d, height_m=h) for k, (d, h) in enumerate([(12, 2), (8, 1)])]
    told = glide_ratio(throws)
    assert told.value == pytest.approx((6 * 8) ** 0.5)
    assert told.sd == pytest.approx(told.value * spread([6, 8]))
    assert told.throws == 2


def test_the_sink_is_height_over_seconds():
    throws = [throw(k, height_m=h, seconds=s) for k, (h, s) in enumerate([(1.5, 3), (1.6, 2)])]
    told = sink_m_s(throws)
    assert told.value == pytest.approx((0.5 * 0.8) ** 0.5)
    assert told.sd == pytest.approx(told.value * spread([0.5, 0.8]))


def test_only_the_last_eight_tell_how_it_glides_now():
    throws = [throw(k, distance_m=3.0, height_m=1.0) for k in range(4)]
    throws += [throw(10 + k, distance_m=7.0, height_m=1.0) for k in range(8)]
    told = glide_ratio(throws)
    assert told.throws == 8
    assert told.value == pytest.approx(7.0)


@pytest.mark.parametrize(
    "more",
    [
        {"distance_m": 9.0},
        {"height_m": 1.5},
        {"distance_m": 9.0, "height_m": 1.5, "wind_m_s": 1.1},
        {"distance_m": 9.0, "height_m": 1.5, "set_aside": "hit the hedge"},
    ],
)
def test_what_was_blown_set_aside_or_not_measured_tells_nothing(more):
    assert glide_ratio([throw(1, **more)]) is None
    counted = throw(2, distance_m=12.0, height_m=2.0, wind_m_s=1.0)
    assert glide_ratio([throw(1, **more), counted]).value == pytest.approx(6.0)


def test_without_seconds_there_is_no_sink():
    assert sink_m_s([throw(1, distance_m=9.0, height_m=1.5)]) is None
