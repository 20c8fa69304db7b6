"""The thrust stand: a stand-in that behaves like one, its lines, and a cable that is pulled."""

import time
from collections.abc import Iterator

import pytest

from oaken_scale.core.model.power import Pack
from oaken_scale.core.power.drive_train import DriveTrain, running
from oaken_scale.devices.serial_stand import SerialStand
from oaken_scale.devices.simulated_port import SimulatedPort
from oaken_scale.devices.simulated_stand import SimulatedStand
from oaken_scale.devices.stand_line import stand_pattern

TRAIN = DriveTrain(2300, 0.12, 0.70, 0.092, 0.0384, 152.4, 0.030, 0.010, 0.0)
PACK = Pack("p", "3-cell 1300", 3, 1300.0)


def stand(seed: int = 1) -> SimulatedStand:
    return SimulatedStand(TRAIN, PACK, seed)


def run_for(device: SimulatedStand, seconds: float, start: float = 0.0):
    read = stand_pattern("").read
    return [read(device.line(start + k / 10)) for k in range(int(10 * seconds))]


def test_at_rest_it_shows_the_packs_voltage_and_nothing_else():
    last = run_for(stand(), 1.0)[-1]
    assert (last.throttle, last.thrust_gf, last.pack_a) == (0.0, 0.0, 0.0)
    assert last.pack_v == pytest.approx(12.6, abs=0.1)


def test_it_spins_up_to_what_the_hidden_motor_does():
    device = stand()
    run_for(device, 0.2)
    device.throttle(0.6)
    shown = run_for(device, 4.0, 0.2)
    assert shown[0].thrust_gf < 0.5 * shown[-1].thrust_gf
    true = running(DriveTrain(2300, 0.12, 0.70, 0.092, 0.0384, 152.4, 0.030, 0.010, 12.6), 0.6)
    settled = shown[20:]
    mean = sum(each.thrust_gf for each in settled) / len(settled)
    assert mean == pytest.approx(true.thrust_gf, rel=0.02)
    assert settled[-1].pack_a == pytest.approx(true.pack_a, rel=0.05)
    assert len({each.thrust_gf for each in settled}) > 3  # it is never quite still


def test_the_pack_sags_and_empties_while_it_runs():
    device = stand()
    run_for(device, 0.1)
    device.throttle(1.0)
    early, late = (run_for(device, 3.0, at)[-10:] for at in (0.1, 60.0))
    assert late[-1].drawn_mah > 200 > early[-1].drawn_mah
    early_v, late_v = (sum(each.pack_v for each in ten) / 10 for ten in (early, late))
    assert 12.6 > early_v > late_v + 0.1
    assert sum(e.thrust_gf for e in early) > sum(e.thrust_gf for e in late)


def test_the_throttle_stops_at_its_ends():
    device = stand()
    device.throttle(7.0)
    assert run_for(device, 3.0)[-1].throttle == 1.0
    device.throttle(-1.0)
    assert run_for(device, 3.0, 10.0)[-1].thrust_gf == pytest.approx(0.0, abs=1.0)


@pytest.mark.parametrize(
    ("pattern", "line", "told"),
    [
        ("{thrust} {unit} {amps} A {volts} V", "1.2 kg 14.5 A 11.9 V", (1200.0, 14.5, 11.9, None)),
        ("T={throttle};{thrust};{amps}", "T=45;10,5;3,2", (10.5, 3.2, None, 0.45)),
        ("{any},{thrust}{unit}", "x17,12oz", (pytest.approx(340.194, abs=1e-3), None, None, None)),
        ("{volts}", "11.4", (None, None, 11.4, None)),
        ("{thrust} {unit}", "2 N", (203.94, None, None, None)),
    ],
)
def test_lines_are_read_as_they_were_written_down(pattern, line, told):
    found = stand_pattern(pattern).read(line)
    assert (found.thrust_gf, found.pack_a, found.pack_v, found.throttle) == told
    assert stand_pattern(pattern).read("something else") is None
    assert stand_pattern(pattern).read("9" * 500) is None


@pytest.mark.parametrize(
    ("pattern", "says"),
    [("{thrust} {thrust}", "twice"), ("{watts}", "none of"), ("{throttle} %", "where a figure is")],
)
def test_a_pattern_that_cannot_be_says_what_would_be_right(pattern, says):
    with pytest.raises(ValueError, match=says):
        stand_pattern(pattern)


@pytest.fixture
def cable() -> Iterator[SimulatedPort[SimulatedStand]]:
    plugged = SimulatedPort(stand(), lines_per_s=25)
    yield plugged
    plugged.unplug()


def until(read: SerialStand, wanted, seconds: float = 10.0):
    deadline = time.monotonic() + seconds
    while time.monotonic() < deadline:
        shown = read.line(time.monotonic())
        if wanted(shown):
            return shown
        time.sleep(0.02)
    raise AssertionError(f"it did not come; last: {shown}")


def test_one_on_a_cable_is_read_and_missed(cable):
    read = SerialStand(cable.port)
    try:
        until(read, lambda shown: not shown.gone)
        cable.device.throttle(0.5)
        shown = until(read, lambda shown: shown.throttle == 0.5 and shown.thrust_gf > 100)
        assert shown.pack_v < 12.7
        cable.unplug()
        assert until(read, lambda shown: shown.gone).thrust_gf is None
    finally:
        read.close()
