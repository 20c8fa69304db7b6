"""What explains a check that disagrees."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree, Reference
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.trim.check_reasons import Explains, Reason
from oaken_scale.core.trim.flown import fly
from tests.core.trim.checked_planes import cg_of, plane, support, thing


def reasons(build: Build) -> list[Reason]:
    return list(assess(build).beam.checks[0].reasons)


def test_one_that_agrees_needs_no_explanation():
    assert reasons(plane(support(cg_of(plane()).x_mm + 2))) == []


def test_a_disagreement_is_explained_by_the_other_pack():
    parts = (
        *plane().parts[2:],
        thing("big", 120, 60, option=True),
        thing("small", 60, 60, option=True),
    )
    loadouts = (Loadout("big", "Big pack", ("big",)), Loadout("small", "Small pack", ("small",)))
    build = replace(plane(parts=parts), loadouts=loadouts)
    there = fly(build).planes[1].cg.x_mm
    wrong = replace(support(there, by="pegs"), loadout="big")
    told = reasons(replace(build, checks=(wrong,)))
    assert told[0] == Reason(Explains.LOADOUT, loadout="small")


def test_a_station_measured_from_the_other_reference_is_found():
    """The receiver was measured from the leading edge and written down from the nose."""
    wing = Surface("w", "W", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))
    parts = (*plane().parts, thing("servos", 60, 90))
    build = replace(plane(parts=parts), surfaces=(wing,))
    true = tuple(
        replace(i, station=replace(i.station, reference=Reference.LEADING_EDGE))
        if i.id == "servos"
        else i
        for i in parts
    )
    found = cg_of(replace(build, parts=true)).x_mm
    told = reasons(replace(build, checks=(support(found, by="pegs"),)))
    assert Reason(Explains.FROM_LEADING_EDGE, part="servos") in told


def test_grams_at_the_tail_that_nobody_listed():
    x = cg_of(plane()).x_mm + 12
    told = reasons(plane(support(x, by="pegs")))
    grams = 12 * 460 / (760 - x)
    assert Reason(Explains.UNLISTED_TAIL, amount=pytest.approx(grams, abs=0.5)) in told


def test_what_is_not_aboard_and_what_has_no_place_explains_nothing():
    """The likeliest to sit elsewhere stayed at home; another thing has no place at all."""
    loose = Part("loose", "Loose", Pedigree.GUESS, stated_g=40.0)
    for carried in (True, False):
        spare = thing("spare", 300, 80, option=True)
        spare = replace(spare, station=replace(spare.station, doubt_mm=20.0))
        loadouts = (Loadout("one", "One", ("spare",) if carried else ()),)
        build = replace(plane(parts=(*plane().parts, spare, loose)), loadouts=loadouts)
        off = replace(support(cg_of(build).x_mm + 40, by="pegs"), loadout="one")
        told = reasons(replace(build, checks=(off,)))
        named = [each.part for each in told if each.part]
        assert named
        assert ("spare" in named) is carried
        assert "loose" not in named
