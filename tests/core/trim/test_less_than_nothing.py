"""While its readings contradict each other a plane may weigh less than nothing: nothing is told of
how it would fly, and all else is."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.trim.one_more import one_more
from oaken_scale.core.trim.which_pack import which_pack
from oaken_scale.demo.sandpiper import sandpiper


def lighter_by(grams: float):
    """The Sandpiper with so much sanded off."""
    whole = sandpiper()
    off = Part(
        "sanded",
        "Sanded off",
        Pedigree.LISTING,
        stated_g=-grams,
        doubt_g=1.0,
        station=Station(300.0),
        host="fuselage-box",
    )
    build = replace(whole, parts=(*whole.parts, off))
    assert faults(build) == ()
    return build


@pytest.mark.parametrize("grams", [500.0, 560.0, 575.0, 640.0, 2000.0])
def test_how_it_flies_is_told_of_what_weighs_something(grams):
    build = lighter_by(grams)
    told = assess(build)
    masses = {each.id: each.answers[0].value for each in told.loadouts}
    for each in told.power.loadouts:
        weighs = masses[each.loadout]
        assert (each.minutes is None) == (weighs is None or weighs <= 0)
    for loadout in build.loadouts:
        assert all(each.auw_g > 0 for each in which_pack(build, loadout, []))
        now, then = one_more(build, loadout, 60.0, 0.0)
        assert (now.minutes is None) == (now.auw_g <= 0)
        assert then.auw_g > 0 or then.minutes is None
