"""A pocket cut into a part: what is gone, where, and what goes in."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.pocket import Pocket, pocketed
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.lot import LotUnit, Use
from oaken_scale.core.model.part import Station
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import MORNING

ACT = Act(MORNING, "a pocket for the receiver")


def mass(build, id):
    return next(each.mass_g for each in assess(build).parts if each.id == id)


def test_what_is_gone_is_its_area_by_its_share_of_the_thickness():
    """60 by 40 mm, 3 of 5 mm deep: 0.24 dm2 times 0.6 = 0.144 dm2 of sheet A."""
    build = sandpiper()
    after = validated(pocketed(build, ACT, "fuselage-box", Pocket(60.0, 40.0, 3.0)))
    hole = after.parts[-1]
    assert hole.uses[0].amount == pytest.approx(-0.144)
    assert (hole.host, hole.station) == ("fuselage-box", build.parts[13].station)
    sheet = next(each.constant for each in assess(after).lots if each.id == "sheet-a")
    assert mass(after, after.parts[-1].id) == pytest.approx(-0.144 * sheet, rel=0.02)
    through = pocketed(build, ACT, "fuselage-box", Pocket(60.0, 40.0))
    assert through.parts[-1].uses[0].amount == pytest.approx(-0.24)


def test_what_goes_into_it_sits_there():
    at = Station(310.0, 0.0, -8.0)
    pocket = Pocket(60.0, 40.0, 3.0, at, "receiver")
    after = pocketed(sandpiper(), ACT, "fuselage-box", pocket)
    stations = {part.id: part.station for part in after.parts}
    assert stations["receiver"] == stations["pocket-in-fuselage-box"] == at
    assert after.diary[-1].words == "a pocket for the receiver"


@pytest.mark.parametrize(
    ("host", "pocket", "field", "words"),
    [
        ("motor", Pocket(10, 10), "host", "cut from no sheet"),
        ("hatch", Pocket(60, 40, 6.0), "depth_mm", "5 mm thick"),
        ("hatch", Pocket(200, 40), "length_mm", "what is left of Hatch, 0.8 dm2"),
        ("nobody", Pocket(10, 10), "", "nobody"),
        ("hatch", Pocket(10, 10, holds="nobody"), "", "nobody"),
    ],
)
def test_what_cannot_be_cut_is_refused_in_words(host, pocket, field, words):
    with pytest.raises(BuildFaultError) as refused:
        pocketed(sandpiper(), ACT, host, pocket)
    assert field in refused.value.faults[0].field
    assert words in str(refused.value)


def test_a_second_pocket_finds_less_left():
    build = pocketed(sandpiper(), ACT, "hatch", Pocket(100.0, 40.0))
    with pytest.raises(BuildFaultError, match=r"0\.4 dm2"):
        pocketed(build, ACT, "hatch", Pocket(100.0, 40.0))


def test_without_a_thickness_it_goes_through_or_nowhere():
    build = sandpiper()
    lots = tuple(replace(lot, thickness_mm=None) for lot in build.lots)
    build = replace(build, lots=lots)
    assert pocketed(build, ACT, "hatch", Pocket(20.0, 40.0)).parts[-1].uses
    with pytest.raises(BuildFaultError, match="how thick Sheet A"):
        pocketed(build, ACT, "hatch", Pocket(20.0, 40.0, 2.0))


def test_it_is_cut_from_the_sheet_of_a_part_that_has_tape_on_it_too():
    """Not from the tape, which comes first, nor from what was cut out before."""
    build = sandpiper()
    tape = next(lot.id for lot in build.lots if lot.unit is LotUnit.M)
    taped = tuple(
        replace(part, uses=(Use(tape, 0.5), Use("sheet-a", -0.1), *part.uses))
        if part.id == "fuselage-box"
        else part
        for part in build.parts
    )
    after = pocketed(replace(build, parts=taped), ACT, "fuselage-box", Pocket(60.0, 40.0))
    assert after.parts[-1].uses == (Use("sheet-a", pytest.approx(-0.24)),)
