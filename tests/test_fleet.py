"""The demo workshop: five made-up planes, each sound, consistent, and with its story."""

from datetime import date

import numpy as np
import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.trim.beam import Checked, Heavy
from oaken_scale.core.trim.cg_ranges import Arrangement, SchoolKind
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.remedies import what_would_fix
from oaken_scale.demo.fleet import fleet

PLANES = {plane.build.id: plane for plane in fleet()}


def told(id: str):
    return assess(PLANES[id].build)


@pytest.mark.parametrize("id", PLANES)
def test_every_plane_is_sound_and_its_readings_agree_with_its_truth(id):
    plane = PLANES[id]
    assert faults(plane.build) == ()
    assert set(plane.masses) == {part.id for part in plane.build.parts}
    assert set(plane.constants) == {lot.id for lot in plane.build.lots}
    assert assess(plane.build).doubts == ()
    flown = fly(plane.build).planes[0]
    truth = np.array([plane.masses[part.id] for part in plane.build.parts]) @ flown.aboard
    assert abs(truth - flown.auw_g) < 3 * flown.auw_sd_g


def test_night_heron_was_repaired_and_not_balanced_since():
    (balance,) = told("night-heron").beam.loadouts
    assert balance.checked.since.words == "met a fence post, nose rebuilt"
    assert told("night-heron").beam.arrangement is Arrangement.FLYING_WING
    assert abs(told("night-heron").beam.checks[0].t) < 2, "it agreed with the plane as it was"


def test_avocet_has_no_chord_rule_and_every_loadout_can_be_brought_home():
    avocet = told("avocet")
    chord = next(s for s in avocet.beam.schools if s.kind is SchoolKind.CHORD)
    assert chord.low_mm is None
    assert avocet.beam.chosen is SchoolKind.STEADY
    assert {each.heavy for each in avocet.beam.loadouts} > {Heavy.NOSE}
    found = what_would_fix(PLANES["avocet"].build)
    assert found.best is not None
    assert found.best.ballast == ()
    assert avocet.so_far.been_g == 0


def test_mayfly_has_things_that_its_scale_cannot_weigh():
    build = PLANES["mayfly"].build
    assert build.scales[0].step_g == 1.0
    assert min(PLANES["mayfly"].masses.values()) < 2.0
    assert 50 < told("mayfly").loadouts[0].answers[0].value < 60


def test_dunlin_is_checked_and_keeps_its_throws():
    dunlin = told("dunlin")
    checked = dunlin.beam.loadouts[0].checked
    assert (checked.how, checked.at.date()) == (Checked.CHECKED, date(2026, 2, 14))
    throws = PLANES["dunlin"].build.field.throws
    assert len(throws) == 11
    # The control surfaces stand as the last throw left them.
    assert [each.set_mm for each in PLANES["dunlin"].build.field.controls] == [
        each.mm for each in throws[-1].settings
    ]
    assert dunlin.beam.loadouts[0].heavy is Heavy.NEITHER
