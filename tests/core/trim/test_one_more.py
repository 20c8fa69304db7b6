"""What one more thing costs, against the plane that really has it."""

from dataclasses import replace
from datetime import UTC, datetime
from math import erf

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.one_more import one_more
from tests.core.trim.test_which_pack import PLANE


def test_as_it_is_it_is_what_the_rods_tell():
    now, _ = one_more(PLANE, PLANE.loadouts[0], 60.0)
    told = assess(PLANE)
    four = {each.kind: each.value for each in told.loadouts[0].answers}
    power = told.power.loadouts[0]
    assert now.auw_g == pytest.approx(four["auw"])
    assert now.wing_loading == pytest.approx(four["wing_loading"])
    assert now.thrust_to_weight == pytest.approx(four["thrust_to_weight"])
    assert now.minutes == pytest.approx(power.minutes)
    assert now.watts_per_kg == pytest.approx(power.watts_per_kg)
    assert now.headroom == told.loadouts[0].headroom


def test_sixty_grams_more_come_out_as_on_the_plane_that_carries_them():
    _, then = one_more(PLANE, PLANE.loadouts[0], 60.0)
    camera = Part(
        "c", "Camera", Pedigree.LISTING, stated_g=60.0, doubt_g=0.0, station=Station(250.0)
    )
    told = assess(replace(PLANE, parts=(*PLANE.parts, camera)))
    four = {each.kind: each.value for each in told.loadouts[0].answers}
    assert then.auw_g == pytest.approx(four["auw"])
    assert then.wing_loading == pytest.approx(four["wing_loading"])
    assert then.thrust_to_weight == pytest.approx(four["thrust_to_weight"])
    assert then.minutes == pytest.approx(told.power.loadouts[0].minutes, rel=1e-6)
    room = {each.kind: each for each in told.loadouts[0].headroom}
    assert {each.kind for each in then.headroom} == set(room)
    for each in then.headroom:
        assert each.grams == pytest.approx(room[each.kind].grams)


def test_another_wing_carries_more_and_glides_less_far():
    now, then = one_more(PLANE, PLANE.loadouts[0], 90.0, 20.0)
    assert then.wing_loading == pytest.approx((now.auw_g + 90) / 40)
    assert then.wing_loading < now.wing_loading
    _, without = one_more(PLANE, PLANE.loadouts[0], 90.0)
    power = assess(PLANE).power.loadouts[0]
    level = power.level_w * ((now.auw_g + 90) / now.auw_g) ** 1.5
    held = 60 * 0.8 * 1.3 * 3 * 3.7
    slower = level * 0.5**0.5 / 0.85
    assert without.minutes == pytest.approx(held / (0.8 * level + 0.2 * power.half.power_w))
    assert then.minutes == pytest.approx(held / (0.8 * slower + 0.2 * power.half.power_w))


def test_a_chance_falls_with_every_gram():
    chances = [
        {each.kind: each.chance for each in one_more(PLANE, PLANE.loadouts[0], g)[1].headroom}
        for g in (0.0, 15.0, 30.0, 60.0)
    ]
    auw = [each[TargetKind.AUW] for each in chances]
    assert auw == sorted(auw, reverse=True)
    assert auw[0] > 0.97
    assert auw[-1] < 0.01


def test_what_is_doubted_is_carried_too():
    """The airframe showed much, perhaps with the pack on it: the chance that a limit holds is
    shared out among what may have happened, each of them that much heavier."""
    scale = Scale("s", "Scale", 0.1)
    shown = Weighing("w", datetime(2026, 3, 7, tzinfo=UTC), "s", 335.0, Pan((Load("airframe"),)))
    loose = replace(PLANE.parts[0], doubt_g=24.0)
    build = replace(PLANE, parts=(loose, *PLANE.parts[1:]), scales=(scale,), weighings=(shown,))
    assert len(fly(build).planes[0].forms) > 1
    _, then = one_more(build, build.loadouts[0], 60.0)
    forms = fly(build).planes[0].forms
    limit = next(each.high for each in build.targets if each.kind is TargetKind.AUW)
    held = sum(
        share * 0.5 * (1 + erf((limit - mass - 60.0) / (sd * 2**0.5))) for share, mass, sd in forms
    )
    chances = {each.kind: each.chance for each in then.headroom}
    assert chances[TargetKind.AUW] == pytest.approx(held, abs=1e-6)
