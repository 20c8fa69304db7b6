import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.devices.scale_line import ScaleLine, read_line
from oaken_scale.devices.simulated_scale import SimulatedScale


def watch(scale: SimulatedScale, seconds: float, start: float = 0.0, rate: float = 12.0):
    """What the scale shows for a while, read at a steady rate."""
    frames = int(seconds * rate)
    return [read_line(scale.line(start + k / rate)) for k in range(1, frames + 1)]


def rest(load: float, step: float = 0.1, seed: int = 1, **kind) -> tuple[SimulatedScale, ScaleLine]:
    scale = SimulatedScale(step, 3000.0, seed=seed, **kind)
    watch(scale, 1.0)
    scale.put(load)
    return scale, watch(scale, 4.0, start=1.0)[-1]


@pytest.mark.parametrize("load", [2.4, 46.3, 590.0, 2400.0])
def test_it_settles_near_the_load_on_its_steps(load):
    _, shown = rest(load)
    assert shown.steady
    assert shown.reading_g == pytest.approx(load, abs=0.21)
    assert shown.reading_g * 10 == pytest.approx(round(shown.reading_g * 10))


def test_it_moves_before_it_is_steady():
    scale = SimulatedScale(0.1, 3000.0, seed=1)
    watch(scale, 1.0)
    scale.put(100.0)
    seen = watch(scale, 3.0, start=1.0)
    assert not seen[0].steady
    assert seen[0].reading_g < 99.0
    steady = [k for k, line in enumerate(seen) if line.steady]
    assert 6 <= steady[0] <= 24
    assert all(abs(seen[k].reading_g - 100.0) < 0.3 for k in steady)


def test_readings_repeat_within_their_noise_and_not_exactly():
    shown = [rest(57.03, seed=seed)[1].reading_g for seed in range(40)]
    assert len(set(shown)) > 1
    assert max(shown) - min(shown) <= 0.4


def test_tare_takes_the_load_for_zero():
    scale, _ = rest(31.4)
    scale.tare()
    scale.put(31.4 + 6.1)
    assert watch(scale, 4.0, start=5.0)[-1].reading_g == pytest.approx(6.1, abs=0.21)


def test_overload_shows_no_number():
    _, shown = rest(3100.0)
    assert shown.over
    assert not shown.steady


def test_the_dead_zone_swallows_a_tiny_addition():
    scale = SimulatedScale(1.0, 3000.0, seed=2)
    watch(scale, 1.0)
    scale.put(0.4)
    assert watch(scale, 3.0, start=1.0)[-1].reading_g == 0.0
    scale.put(0.8)
    assert watch(scale, 3.0, start=4.0)[-1].reading_g == 0.0


def test_a_hidden_error_shows_in_every_reading():
    _, shown = rest(1000.0, error=0.01)
    assert shown.reading_g == pytest.approx(1010.0, abs=0.5)


@given(st.floats(-999, 99999).map(lambda x: round(x, 1)), st.booleans())
@settings(max_examples=50)
def test_a_line_written_is_the_line_read(grams, steady):
    line = ScaleLine(grams + 0.0, steady)
    assert read_line(line.text(1)) == line


@pytest.mark.parametrize("text", ["", "steady", "steady g", "46.3 g", "steady 46,3 g", "over 3 kg"])
def test_a_line_of_something_else_is_refused(text):
    with pytest.raises(ValueError, match="not a line of the scale"):
        read_line(text)
