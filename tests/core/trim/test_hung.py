"""What hangs on the beam: which by itself, which with its assembly, and that nothing is lost."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Part, Pedigree, Reference, Slide, Station, Use
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.hung import OWN_SHARE, Hung, hung
from oaken_scale.demo.fleet import fleet
from oaken_scale.demo.sandpiper import sandpiper

WING = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 190), Section(200, 540, 0, 190)))
FOAM = Lot("foam", "Foam", LotUnit.DM2, 4.0, 0.1, kind=LotKind.FOAM)


def thing(id: str, grams: float, x: float | None, assembly: str = "", **more) -> Part:
    station = None if x is None else Station(x)
    known = {"pedigree": Pedigree.LISTING, "stated_g": grams, "station": station, **more}
    return Part(id, id.title(), assembly=assembly, **known)


def hanging(*parts: Part, loadout: int = 0, **more) -> tuple[Hung, ...]:
    build = Build("b", "B", parts=parts, surfaces=(WING,), lots=(FOAM,), **more)
    return hung(fly(build).planes[loadout])


def alone(*parts: Part, **more) -> list[str]:
    return [each.part for each in hanging(*parts, **more) if each.part is not None]


def test_the_heavy_hangs_by_itself_and_trifles_where_their_assembly_balances():
    least = OWN_SHARE * 200
    told = hanging(
        thing("pack", 200 - least - 6, 100, "Nose/Bay"),
        thing("just", least, 50, "Nose"),
        thing("nut", 4, 10, "Nose/Motor"),
        thing("hook", 2, 70, "Nose"),
    )
    assert [(each.part, each.assembly) for each in told] == [
        ("pack", "Nose"),
        ("just", "Nose"),
        (None, "Nose"),
    ]
    assert (told[2].mass_g, told[2].x_mm) == (pytest.approx(6), pytest.approx(30))
    assert told[2].parts == ("nut", "hook")


GUESSED = {"pedigree": Pedigree.GUESS}
CUT = {"stated_g": None, "uses": (Use("foam", 15.0),), "pedigree": Pedigree.CALCULATED}


@pytest.mark.parametrize("how", [GUESSED, CUT], ids=["guessed", "cut"])
def test_what_is_guessed_or_cut_hangs_with_its_assembly_however_heavy(how):
    parts = (thing("box", 60, 150, "Fuselage", **how), thing("motor", 60, 0, "Nose"))
    assert alone(*parts) == ["motor"]
    movable = replace(parts[0], slide=Slide(100, 200))
    assert alone(movable, parts[1]) == ["box", "motor"]


@pytest.mark.parametrize("how", [GUESSED, CUT], ids=["guessed", "cut"])
def test_what_lies_in_no_assembly_hangs_by_itself(how):
    glue = thing("hot glue", 30, 120, pedigree=Pedigree.JOINT)
    told = hanging(thing("wing", 60, 150, **how), glue, thing("motor", 60, 0), thing("nut", 1, 9))
    assert [each.part for each in told] == ["wing", "motor", None]
    assert told[2].parts == ("hot glue", "nut")


def test_a_trifle_that_may_be_moved_hangs_by_itself_between_its_ends():
    measured = Station(20, reference=Reference.LEADING_EDGE)
    parts = (
        thing("motor", 300, 0),
        thing("ball", 1, 40, slide=Slide(10, 90)),
        thing("tail", 2, None, station=measured, slide=Slide(-30, 45)),
    )
    ends = {each.part: (each.x_mm, each.low_mm, each.high_mm) for each in hanging(*parts)}
    assert ends == {
        "motor": (0, None, None),
        "ball": (40, 10, 90),
        "tail": (220, 170, 245),  # the leading edge is 200 mm from the nose
    }


def test_what_has_no_place_or_is_not_aboard_does_not_hang():
    parts = (
        thing("motor", 60, 0),
        thing("radio", 20, None),
        thing("old", 30, 90, retired=True),
        thing("camera", 50, 40, option=True),
    )
    flying = (Loadout("bare", "Bare"), Loadout("film", "Film", ("camera",)))
    assert alone(*parts, loadouts=flying) == ["motor"]
    assert alone(*parts, loadouts=flying, loadout=1) == ["motor", "camera"]
    assert alone(*parts) == ["motor", "camera"]


def test_what_weighs_nothing_together_does_not_hang():
    told = hanging(thing("motor", 60, 0, "Nose"), thing("gone", 0, 90, "Tail"))
    assert [each.part for each in told] == ["motor"]


@pytest.mark.parametrize(
    "build", [sandpiper(), *(each.build for each in fleet())], ids=lambda b: b.id
)
def test_what_hangs_is_what_flies_and_balances_where_it_does(build):
    """Of the demo: each placed part of a loadout hangs once, and their moments are the
    CG's."""
    told = assess(build)
    for flown, balance in zip(told.loadouts, told.beam.loadouts, strict=True):
        hangs = [id for each in balance.hung for id in each.parts]
        placed = {part.id for part in build.parts if part.station is not None}
        assert sorted(hangs) == sorted(placed & set(flown.aboard))
        if flown.cg is not None:
            mass = sum(each.mass_g for each in balance.hung)
            moment = sum(each.mass_g * each.x_mm for each in balance.hung)
            assert moment / mass == pytest.approx(flown.cg.x_mm, abs=1e-6)
