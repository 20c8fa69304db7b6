"""What is believed of a drive before it ran: by size, or by its listing."""

import numpy as np
import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.power import Motor, Pack, Propeller
from oaken_scale.core.power.listings import motor_belief, pack_belief, pack_ohm, propeller_belief


def test_a_motor_by_its_size():
    small, large = motor_belief(Motor(2300.0, 28.0)), motor_belief(Motor(1150.0, 112.0))
    assert np.exp(small.mean) == pytest.approx([2300, 0.12, 0.70])
    assert np.exp(large.mean) == pytest.approx(
        [1150, 0.12 * 2**1.5 * 0.25**1.5, 0.70 * 0.5**0.8 * 4**0.6]
    )
    assert np.sqrt(np.diag(small.cov)) == pytest.approx([0.05, 0.40, 0.35])
    assert small.cov[0, 1] == small.cov[1, 2] == 0.0


def test_what_its_listing_tells_is_believed_more():
    listed = motor_belief(Motor(2300.0, 28.0, 0.09, 0.55))
    assert np.exp(listed.mean) == pytest.approx([2300, 0.09, 0.55])
    assert np.sqrt(np.diag(listed.cov)) == pytest.approx([0.05, 0.20, 0.20])


@pytest.mark.parametrize(
    ("diameter", "pitch", "thrust", "merit"),
    [
        (150.0, 75.0, 0.092, 0.58),
        (150.0, 150.0, 0.092 * 2**0.45, 0.42),
        (150.0, 225.0, 0.092 * 3**0.45, 0.35),  # never less
        (150.0, 37.5, 0.092 * 0.5**0.45, 0.66),
    ],
)
def test_a_propeller_by_pitch_over_diameter(diameter, pitch, thrust, merit):
    found = propeller_belief(Propeller("p", "p", diameter, pitch))
    power = thrust**1.5 * (2 / np.pi) ** 0.5 / merit
    assert np.exp(found.mean) == pytest.approx([thrust, power])
    assert found.cov == pytest.approx(
        np.array([[0.18**2, 0.0486], [0.0486, 1.5**2 * 0.18**2 + 0.13**2]])
    )


@pytest.mark.parametrize(
    ("cells", "mah", "ohm"), [(3, 1300, 0.029385), (2, 850, 0.029882), (1, 300, 0.040667)]
)
def test_a_pack_by_cells_and_capacity(cells, mah, ohm):
    pack = Pack("p", "p", cells, float(mah))
    assert pack_ohm(pack) == pytest.approx(ohm, rel=1e-4)
    found = pack_belief(pack)
    assert np.exp(found.mean) == pytest.approx([ohm], rel=1e-4)
    assert found.cov == pytest.approx(np.array([[0.16]]))


@pytest.mark.parametrize(
    ("build", "field"),
    [
        (lambda: motor_belief(Motor(0.0, 28.0)), "motor.kv"),
        (lambda: motor_belief(Motor(2300.0, -1.0)), "motor.mass_g"),
        (lambda: motor_belief(Motor(2300.0, 28.0, 0.0)), "motor.winding_ohm"),
        (lambda: motor_belief(Motor(2300.0, 28.0, None, float("nan"))), "motor.idle_a"),
        (lambda: propeller_belief(Propeller("p", "p", 0.0, 80.0)), "propeller.diameter_mm"),
        (lambda: pack_ohm(Pack("p", "p", 0, 1300.0)), "pack.cells"),
        (lambda: pack_ohm(Pack("p", "p", 3, 0.0)), "pack.capacity_mah"),
    ],
)
def test_what_no_drive_has_is_named(build, field):
    with pytest.raises(BuildFaultError) as refused:
        build()
    assert [fault.field for fault in refused.value.faults] == [field]
    assert "must be more than 0" in refused.value.faults[0].words
