"""Which run on the stand would tell most."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.weigh_next import Because, Suggestion
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.power import Motor, Pack, Power, Propeller, Run, RunPoint
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.power.which_run import in_their_order
from study.drive_trains import DAY

PACKS = (
    Pack("big", "3-cell 1300", 3, 1300.0, 25.0, "pack-big"),
    Pack("small", "2-cell 850", 2, 850.0, None, "pack-small"),
)
DRIVE = Power(
    Motor(2300.0, 28.0),
    propellers=(Propeller("six", "6 x 3", 152.4, 76.2),),
    packs=PACKS,
)


def part(id: str, grams: float, option: bool = False) -> Part:
    return Part(id, id, Pedigree.LISTING, stated_g=grams, option=option, station=Station(200.0))


PLANE = Build(
    "b",
    "B",
    parts=(part("rest", 500.0), part("pack-big", 105.0, True), part("pack-small", 60.0, True)),
    loadouts=(Loadout("l-big", "Big", ("pack-big",)), Loadout("l-small", "Small", ("pack-small",))),
    power=DRIVE,
)


def asking(low: float, build: Build = PLANE) -> list[Suggestion]:
    asked = replace(build, targets=(Target(TargetKind.THRUST_TO_WEIGHT, low=low),))
    return [each for each in assess(asked).weigh_next if each.run]


def test_the_pack_whose_verdict_is_open_is_run():
    told = assess(PLANE).loadouts
    ratio = [next(a.value for a in each.answers if a.kind == "thrust_to_weight") for each in told]
    (found,) = asking(ratio[0])
    assert (found.run, found.goal) == ("big", TargetKind.THRUST_TO_WEIGHT)
    assert found.because is Because.NEVER_RUN
    (other,) = asking(ratio[1])
    assert other.run == "small"


def test_its_share_by_hand():
    told = assess(PLANE)
    thrust = told.power.loadouts[0].half
    four = {each.kind: each for each in told.loadouts[0].answers}
    auw, answer = four["auw"].value, four["thrust_to_weight"]
    (found,) = asking(answer.value)
    taken = (thrust.thrust_sd_gf**2 - (0.03 * thrust.thrust_gf) ** 2) / auw**2
    assert found.share == pytest.approx(taken / answer.sd**2)


def test_what_was_run_is_run_no_more_and_the_other_is_named():
    run = Run("r", DAY, "big", "six", (RunPoint(0.5, 190.0), RunPoint(1.0, 640.0)))
    build = replace(PLANE, power=replace(DRIVE, runs=(run,)))
    small = assess(build).loadouts[1]
    ratio = next(a.value for a in small.answers if a.kind == "thrust_to_weight")
    (found,) = asking(ratio, build)
    assert found.run == "small"
    assert found.because is Because.NOT_WITH_THIS_PACK


def test_a_settled_verdict_asks_for_no_run():
    assert asking(0.01) == []
    assert [each for each in assess(PLANE).weigh_next if each.run] == []
    assert asking(0.5, replace(PLANE, power=None)) == []


def test_a_run_stands_before_what_tells_less():
    def one(name: str, share: float) -> Suggestion:
        return Suggestion(None, None, share, TargetKind.AUW, Because.GUESS, called=name)

    weighings = (one("a", 0.6), one("b", 0.2))
    for share, order in ((0.9, "rab"), (0.4, "arb"), (0.1, "abr")):
        told = in_their_order(weighings, (one("r", share),))
        assert "".join(each.called for each in told) == order
