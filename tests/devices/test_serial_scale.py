"""A scale on a cable, read over a pseudo-terminal with the stand-in at its other end."""

import threading
import time

import pytest

from oaken_scale.devices import serial_lines
from oaken_scale.devices.line_pattern import LONGEST, line_pattern
from oaken_scale.devices.scale_line import ScaleLine
from oaken_scale.devices.serial_scale import SerialScale
from oaken_scale.devices.simulated_port import SimulatedPort
from oaken_scale.devices.simulated_scale import SimulatedScale


def steady(grams: float) -> ScaleLine:
    return ScaleLine(grams, steady=True)


@pytest.mark.parametrize(
    ("pattern", "line", "told"),
    [
        ("", "steady 46.3 g\r\n", steady(46.3)),
        ("", "moving 46.3 g", ScaleLine(46.3, steady=False)),
        ("", "over", ScaleLine(0.0, steady=False, over=True)),
        ("ST,GS,{reading} g", "ST,GS,+  46.3 g", steady(46.3)),
        ("ST,GS,{reading} g", "ST,GS,-0012.4g", steady(-12.4)),
        ("{state},{any},{reading}{unit}", "US,NT,0.44oz", ScaleLine(12.473790, steady=False)),
        ("{state},{any},{reading}{unit}", "OL,NT,9999g", ScaleLine(0.0, steady=False, over=True)),
        ("{reading}", "12,4", steady(12.4)),
        ("{reading} {unit}", "0.0463 kg", steady(46.3)),
        ("[{reading}]", "[46.3]", steady(46.3)),
        ("W:{any}N:{reading}", "W: 77 N: 46.3", steady(46.3)),
        ("ST,GS,{reading} g", "US,GS,46.3 g", None),
        ("{reading}", "hello", None),
        ("{reading}", "", None),
        ("{any}{reading}", "x" * (LONGEST + 1) + "1", None),
    ],
)
def test_lines_are_read_as_they_were_written_down(pattern, line, told):
    assert line_pattern(pattern).read(line) == told


@pytest.mark.parametrize(
    ("pattern", "says"),
    [("{weight}", "none of"), ("{reading}{reading}", "twice"), ("ST,GS", "where the figure is")],
)
def test_a_pattern_that_cannot_be_says_what_would_be_right(pattern, says):
    with pytest.raises(ValueError, match=says):
        line_pattern(pattern)


def test_no_line_takes_long_however_it_is_made():
    """Nothing in a pattern repeats over something that repeats."""
    pattern = line_pattern("{any}:{state}{any2}".replace("{any2}", "") + " {reading} {unit}")
    begun = time.perf_counter()
    for _ in range(200):
        pattern.read(("1 " * 60)[:LONGEST])
    assert time.perf_counter() - begun < 2.0


def wait_for(scale: SerialScale, wanted, seconds: float = 15.0) -> ScaleLine:
    deadline = time.monotonic() + seconds
    while time.monotonic() < deadline:
        line = scale.line(time.monotonic())
        if wanted(line):
            return line
        time.sleep(0.02)
    raise AssertionError(f"it did not come; the last line was {line}")


@pytest.fixture
def cable():
    """A stand-in on a cable and its reader, whatever becomes of them."""
    opened = []

    def plug(dress=str, line="", capacity=500.0):
        port = SimulatedPort(SimulatedScale(0.1, capacity), lines_per_s=25, dress=dress)
        reader = SerialScale(port.port, line)
        opened.extend([reader.close, port.unplug])
        return port, reader

    yield plug
    for close in opened:
        close()


def test_what_lies_on_it_arrives(cable):
    port, reader = cable()
    port.device.put(46.3)
    reader.put(0.0)
    line = wait_for(reader, lambda line: line.steady and line.reading_g > 40)
    assert line.reading_g == pytest.approx(46.3, abs=0.25)


def test_a_scale_that_never_says_steady_is_watched_until_it_is(cable):
    port, reader = cable(lambda line: line.split()[1] + "\r\n", "{reading}")
    port.device.put(120.0)
    reader.put(0.0)
    assert not reader.line(time.monotonic()).steady
    line = wait_for(reader, lambda line: line.steady and line.reading_g > 100)
    assert line.reading_g == pytest.approx(120.0, abs=0.25)


def test_too_much_is_over_and_taring_here_needs_no_button_there(cable):
    port, reader = cable(capacity=200.0)
    port.device.put(300.0)
    wait_for(reader, lambda line: line.over)
    port.device.put(31.4)
    wait_for(reader, lambda line: line.steady and line.reading_g > 30)
    reader.tare()
    port.device.put(31.4 + 12.0)
    line = wait_for(reader, lambda line: line.steady and line.reading_g > 11)
    assert line.reading_g == pytest.approx(12.0, abs=0.3)


def test_a_second_reader_of_one_cable_gets_nothing_and_takes_nothing_away(cable):
    """Each would get pieces of lines, and pieces of two make a reading that nobody weighed."""
    port, reader = cable()
    wait_for(reader, lambda line: not line.gone)
    second = SerialScale(port.port)
    loads, seen = [0.0], set()

    def lies_there(grams: float):
        def is_read(line: ScaleLine) -> bool:
            seen.update([line.reading_g] if line.steady else [])
            return line.steady and abs(line.reading_g - grams) < 0.25

        return is_read

    try:
        for grams in (46.3, 12.4, 88.8):
            port.device.put(grams)
            loads.append(grams)
            wait_for(reader, lies_there(grams))
            assert second.line(time.monotonic()).gone
        assert [each for each in seen if min(abs(each - load) for load in loads) > 0.25] == []
        reader.close()
        wait_for(second, lambda line: line.steady and line.reading_g > 80)
    finally:
        second.close()


class Cable:
    """What a port gives, piece by piece, and then nothing more."""

    in_waiting = 0

    def __init__(self, pieces):
        self.pieces = list(pieces)

    def __enter__(self):
        return self

    def __exit__(self, *_):
        pass

    def read(self, _size):
        return self.pieces.pop(0) if self.pieces else time.sleep(0.01) or b""


def test_the_end_of_a_line_that_was_on_its_way_is_no_reading(monkeypatch):
    """A scale begins to be listened to in the middle of "moving 40.2 g"."""
    pieces = [b"ing 40.", b"2 g\r\nmov", b"ing 41.0 g\r", b"\nsteady 46.3 g\r\n"]
    monkeypatch.setattr(serial_lines.serial, "Serial", lambda *_, **__: Cable(pieces))
    read: list[str] = []
    lines = serial_lines.SerialLines("/dev/ttyUSB0", 9600, read.append, lambda: None)
    deadline = time.monotonic() + 15
    while "steady 46.3 g" not in read and time.monotonic() < deadline:
        time.sleep(0.01)
    lines.close()
    assert [line for line in read if line] == ["moving 41.0 g", "steady 46.3 g"]


def test_who_looks_for_an_unplugged_scale_does_not_find_another_one_in_its_place(cable):
    """The system gives the name of its terminal to the next that is plugged in."""
    gone_port, reader = cable()
    wait_for(reader, lambda line: not line.gone)
    gone_port.unplug()
    wait_for(reader, lambda line: line.gone)
    _, other = cable()
    wait_for(other, lambda line: not line.gone)
    time.sleep(2 * serial_lines.AGAIN_S)
    assert reader.line(time.monotonic()).gone
    wait_for(other, lambda line: not line.gone)


def test_things_are_put_on_a_scale_while_it_is_read():
    scale = SimulatedScale(0.1, 500.0)
    failed = []

    def read():
        try:
            for step in range(20_000):
                scale.line(step / 1000)
        except RuntimeError as wrong:
            failed.append(wrong)

    reading = threading.Thread(target=read)
    reading.start()
    while reading.is_alive():
        scale.put(46.3)
        scale.tare()
    assert failed == []


def test_an_unplugged_scale_is_gone_at_once_and_found_again(tmp_path):
    """By the name that it has each time, as a scale on a real cable has."""
    name = tmp_path / "scale"
    port = SimulatedPort(SimulatedScale(0.1, 500.0), lines_per_s=25, name=name)
    reader = SerialScale(port.port)
    try:
        wait_for(reader, lambda line: not line.gone)
        port.unplug()
        wait_for(reader, lambda line: line.gone)
        again = SimulatedPort(SimulatedScale(0.1, 500.0), lines_per_s=25, name=name)
        try:
            wait_for(reader, lambda line: not line.gone)
        finally:
            again.unplug()
    finally:
        reader.close()
