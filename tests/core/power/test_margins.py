"""Ladders: currents, cells and heat beside what each part stands."""

from dataclasses import replace
from datetime import UTC, datetime

import pytest

from oaken_scale.core.model.power import (
    Controller,
    Motor,
    Pack,
    Power,
    Propeller,
    Regulator,
    Run,
    RunPoint,
)
from oaken_scale.core.power.drive_estimate import HowKnown, Predicted
from oaken_scale.core.power.margins import Rated, Rung, cell_margins, heats, margins

BIG = Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack-big")
SMALL = Pack("small", "2-cell 850", 2, 850.0, None, "pack-small")
DRIVE = Power(
    Motor(2300.0, 28.0, most_a=14.0),
    controller=Controller(12.0, 15.0, 10.0),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2),),
    packs=(BIG, SMALL),
)


def fresh(amps: float, sd: float = 0.5) -> Predicted:
    return Predicted(500.0, 10.0, amps, sd, 11.0, 0.1, 11.0 * amps, 5.0, HowKnown.RUN)


@pytest.mark.parametrize(
    ("amps", "rung"),
    [
        (9.5, Rung.IN_HAND),
        (9.6, Rung.IN_HAND),  # just 0.8 of it
        (9.7, Rung.CAUTION),
        (12.0, Rung.CAUTION),  # just what it stands
        (12.1, Rung.OVER),
    ],
)
def test_each_rung_of_a_ladder_begins_where_it_should(amps, rung):
    (found,) = [each for each in margins(DRIVE, BIG, fresh(amps)) if each.part is Rated.CONTROLLER]
    assert found.rung is rung
    assert (found.current_a, found.current_sd_a, found.most_a) == (amps, 0.5, 12.0)
    assert found.seconds is None


def test_a_pack_is_held_against_its_rating_and_motors_share_its_current():
    told = {each.part: each for each in margins(replace(DRIVE, motors=2), BIG, fresh(20.0))}
    assert told[Rated.PACK].most_a == pytest.approx(25 * 1.3)
    assert told[Rated.PACK].current_a == 20.0
    assert told[Rated.MOTOR].current_a == 10.0
    assert told[Rated.CONTROLLER].current_sd_a == 0.25
    assert told[Rated.BURST].seconds == 10.0


def test_what_nobody_rated_has_no_ladder():
    bare = replace(DRIVE, motor=Motor(2300.0, 28.0), controller=None)
    assert margins(bare, SMALL, fresh(20.0)) == ()
    no_burst = replace(DRIVE, controller=Controller(12.0))
    assert Rated.BURST not in [each.part for each in margins(no_burst, BIG, fresh(5.0))]


def test_plug_and_wire_carry_the_packs_current_and_the_regulator_its_own():
    drive = replace(DRIVE, motors=2, plug_a=30.0, wire_a=18.0, regulator=Regulator(3.0, 3.3))
    told = {each.part: each for each in margins(drive, SMALL, fresh(20.0))}
    assert (told[Rated.PLUG].share, told[Rated.PLUG].rung) == (20 / 30, Rung.IN_HAND)
    assert (told[Rated.WIRE].current_a, told[Rated.WIRE].rung) == (20.0, Rung.OVER)
    assert (told[Rated.REGULATOR].share, told[Rated.REGULATOR].rung) == (
        pytest.approx(1.1),
        Rung.OVER,
    )
    silent = replace(drive, regulator=Regulator(3.0))
    assert Rated.REGULATOR not in [each.part for each in margins(silent, SMALL, fresh(20.0))]


@pytest.mark.parametrize(
    ("cells", "least", "most", "rung"),
    [
        (2, 2, 3, Rung.IN_HAND),
        (3, 2, 3, Rung.IN_HAND),
        (1, 2, 3, Rung.OVER),
        (4, 2, 3, Rung.OVER),
        (4, 2, None, Rung.IN_HAND),
        (1, None, 3, Rung.IN_HAND),
    ],
)
def test_cells_lie_within_what_the_controller_is_made_for(cells, least, most, rung):
    drive = replace(DRIVE, controller=Controller(12.0, least_cells=least, most_cells=most))
    (found,) = cell_margins(drive, replace(BIG, cells=cells))
    assert (found.part, found.rung) == (Rated.CONTROLLER, rung)


def test_a_regulator_hangs_on_so_many_cells_and_silence_tells_nothing():
    assert cell_margins(DRIVE, BIG) == ()
    drive = replace(DRIVE, regulator=Regulator(3.0, most_cells=2))
    assert [each.rung for each in cell_margins(drive, SMALL)] == [Rung.IN_HAND]
    assert [each.rung for each in cell_margins(drive, BIG)] == [Rung.OVER]


def run(id: str, pack: str, **felt) -> Run:
    at = datetime(2026, 5, 1, tzinfo=UTC)
    return Run(id, at, pack, "six", (RunPoint(1.0, pack_a=10.0),), **felt)


def test_heat_goes_with_the_square_of_the_current():
    drive = replace(DRIVE, runs=(run("r", "small", motor_c=45.0, air_c=15.0, pack_c=30.0),))
    (motor,) = heats(drive, BIG, fresh(14.0), {"r": 10.0})  # the small pack's figure is its own
    assert (motor.part, motor.run, motor.felt_c, motor.felt_a) == (Rated.MOTOR, "r", 45.0, 10.0)
    assert motor.celsius == pytest.approx(15 + 30 * 1.96)
    assert motor.rung is Rung.CAUTION  # 73.8 of 80
    assert motor.sd_c > 58.8 * 0.25 * (1 - 10 / 14)
    motor, pack = heats(drive, SMALL, fresh(10.0), {"r": 10.0})
    assert (motor.celsius, pack.celsius) == (pytest.approx(45.0), pytest.approx(30.0))
    assert pack.rung is Rung.IN_HAND
    hot = heats(drive, BIG, fresh(20.0), {"r": 10.0})[0]
    assert (hot.celsius, hot.rung) == (pytest.approx(135.0), Rung.OVER)


@pytest.mark.parametrize(("now", "then"), [(20.0, 10.0), (14.0, 10.0), (10.0, 10.0), (8.0, 10.0)])
def test_heat_is_the_surer_the_nearer_the_run_was(now, then):
    """By hand: twice the current's own doubt, a quarter of what was not run up to, and a degree."""
    drive = replace(DRIVE, runs=(run("r", "small", motor_c=45.0, air_c=15.0),))
    (motor,) = heats(drive, SMALL, fresh(now, 0.6), {"r": then})
    more = 30 * (now / then) ** 2
    unseen = 0.25 * max(1 - then / now, 0.0)
    assert motor.sd_c == pytest.approx(more * ((2 * 0.6 / now) ** 2 + unseen**2) ** 0.5 + 1.0)


def test_the_last_run_that_was_felt_tells_and_none_that_is_set_aside():
    first, second = run("1", "big", controller_c=40.0), run("2", "big", controller_c=50.0)
    drive = replace(DRIVE, runs=(first, second))
    amps = {"1": 10.0, "2": 10.0}
    assert [each.celsius for each in heats(drive, BIG, fresh(10.0), amps)] == [pytest.approx(50.0)]
    aside = replace(drive, runs=(first, replace(second, set_aside="wrong")))
    assert [each.run for each in heats(aside, BIG, fresh(10.0), amps)] == ["1"]
    assert heats(drive, BIG, fresh(10.0), {}) == ()


@pytest.mark.parametrize(("motors", "holds"), [(1, 0.1587), (2, 0.9987)])
def test_how_likely_it_holds_is_told_beside_the_rung(motors, holds):
    """12.5 +-0.5 A of 12: one sigma over. Of two motors each takes half, as 13.5 would: 3 under."""
    amps = 12.5 if motors == 1 else 2 * 11.25
    found = margins(replace(DRIVE, motors=motors), BIG, fresh(amps, 0.5))
    (controller,) = [each for each in found if each.part is Rated.CONTROLLER]
    assert controller.holds == pytest.approx(holds, abs=1e-4)


def test_a_load_that_is_known_holds_or_does_not():
    regulator = Regulator(5.0, 3.0, 2.0)
    (told,) = [
        each
        for each in margins(replace(DRIVE, regulator=regulator), BIG, fresh(8.0))
        if each.part is Rated.REGULATOR
    ]
    assert told.holds == 1.0
