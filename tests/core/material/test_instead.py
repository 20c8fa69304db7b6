from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.material.instead import (
    SEAM_MM,
    Way,
    instead,
    less_paper,
    replacements,
)
from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import reading, with_readings

RACK = {lot.id: lot for lot in STARTER}


def lot(build: Build, id: str) -> Lot:
    return next(each for each in build.lots if each.id == id)


def test_a_part_not_weighed_is_made_anew_under_its_own_id():
    build = sandpiper()
    then = instead(build, ("hatch",), Way(RACK["xps-3"]))
    hatch = next(part for part in then.parts if part.id == "hatch")
    assert [use.lot for use in hatch.uses] == ["xps-3"]
    assert not hatch.retired
    assert len(then.parts) == len(build.parts)


def test_a_weighed_part_retires_and_its_reading_speaks_on():
    build = sandpiper()
    then = instead(build, ("tailplane",), Way(RACK["xps-3"]))
    old = next(part for part in then.parts if part.id == "tailplane")
    new = next(part for part in then.parts if part.id == "tailplane-anew")
    assert old.retired
    assert new.station == old.station
    assert then.weighings == build.weighings
    masses = {part.id: part.mass_g for part in assess(then).parts}
    assert masses["tailplane-anew"] == pytest.approx(3.4 * 1.15, rel=0.01)
    assert masses["tailplane"] == pytest.approx(16.9, abs=0.2)


def test_glue_spread_on_a_seam_becomes_an_area_and_back():
    build = sandpiper()
    then = instead(build, ("tail-glue",), Way(RACK["contact"]))
    (use,) = next(part for part in then.parts if part.id == "tail-glue-anew").uses
    assert use.amount == pytest.approx(1.4 * SEAM_MM / 10)
    back = instead(then, ("tail-glue-anew",), Way(lot(build, "hot-glue")))
    again = next(part for part in back.parts if part.id == "tail-glue-anew")
    assert again.uses[0].amount == pytest.approx(1.4)
    assert again.pedigree is Pedigree.JOINT


@pytest.mark.parametrize(
    ("chosen", "into", "words"),
    [
        (("hatch",), "packing-tape", "none of them can be made"),
        (("motor",), "xps-3", "none of them can be made"),
        (("wing-tape",), "xps-3", "none of them can be made"),
        (("hatch",), "film", "none of them can be made"),
        (("spar",), "plywood-3", "none of them can be made"),
        (("ghost",), "xps-3", 'no part "ghost"'),
    ],
)
def test_what_cannot_be_made_of_it_is_said(chosen, into, words):
    with pytest.raises(BuildFaultError, match=words):
        instead(sandpiper(), chosen, Way(RACK[into]))


def test_an_option_keeps_its_loadouts_when_it_is_made_anew():
    build = sandpiper()
    hatch = replace(next(i for i in build.parts if i.id == "hatch"), option=True)
    build = replace(
        build,
        parts=tuple(hatch if i.id == "hatch" else i for i in build.parts),
        loadouts=(replace(build.loadouts[0], carries=(*build.loadouts[0].carries, "hatch")),),
    )
    build = with_readings(build, reading(90, 3.9, "hatch"))
    then = instead(build, ("hatch",), Way(RACK["xps-3"]))
    assert "hatch-anew" in then.loadouts[0].carries
    assert "hatch" not in then.loadouts[0].carries


def made_of(*lots: Lot) -> Build:
    """A part of each lot, called after it."""
    parts = (
        Part(f"of-{lot.id}", lot.name, Pedigree.GUESS, uses=(Use(lot.id, 1.0),)) for lot in lots
    )
    return Build("b", "B", lots=lots, parts=tuple(parts))


@pytest.mark.parametrize(
    ("of", "stand_ins"),
    [
        ("board-both", {"board-one", "board-none", "xps-3", "epp-6"}),
        ("hot-melt", {"epoxy", "contact", "foam-tape", "packing-tape"}),
        ("packing-tape", {"film", "paint", "hot-melt", "strapping-tape"}),
        ("film", {"paint", "packing-tape"}),
        ("tube-4", {"skewer", "wood-5"}),
    ],
)
def test_what_may_stand_in_for_what(of, stand_ins):
    build = made_of(RACK[of])
    told = {each.id for each in replacements(build, (f"of-{of}",), STARTER).lots}
    assert stand_ins <= told
    assert of not in told
    for each in told:
        then = instead(build, (f"of-{of}",), Way(RACK[each]))
        assert then.parts[0].uses[0].lot == each
    # And nothing that could is left out.
    for each in set(RACK) - told - {of}:
        if RACK[each].kind is not RACK[of].kind:
            continue
        with pytest.raises(BuildFaultError, match="none of them can be made"):
            instead(build, (f"of-{of}",), Way(RACK[each]))


def test_a_lot_once_taken_from_the_rack_is_not_offered_twice():
    taken = replace(RACK["board-one"], id="mine", rack="board-one")
    build = made_of(RACK["board-both"], taken)
    told = [each.id for each in replacements(build, ("of-board-both",), STARTER).lots]
    assert "mine" in told
    assert "board-one" not in told
    assert replacements(build, (), STARTER).lots == ()


@pytest.mark.parametrize(
    ("has", "left"),
    [
        (Faces.BOTH, (Faces.ONE, Faces.NONE)),
        (Faces.ONE, (Faces.NONE,)),
        (Faces.NONE, ()),
        (None, ()),
    ],
)
def test_only_paper_that_is_there_comes_off(has, left):
    sheet = Lot("s", "S", LotUnit.DM2, 4.0, 0.4, kind=LotKind.FOAM, faces=has)
    build = made_of(sheet)
    assert replacements(build, ("of-s",), ()).faces == left
    for faces in Faces:
        way = less_paper(build, ("of-s",), faces, solve(build))
        if faces in left:
            assert instead(build, ("of-s",), way).lots[-1].faces is faces
        else:
            with pytest.raises(BuildFaultError, match="no more paper than that"):
                instead(build, ("of-s",), way)


def test_a_bared_sheet_takes_an_id_of_its_own():
    sheet = Lot("s", "S", LotUnit.DM2, 4.0, 0.4, kind=LotKind.FOAM, faces=Faces.BOTH)
    build = made_of(sheet, replace(sheet, id="s-none"))
    way = less_paper(build, ("of-s", "of-s-none"), Faces.NONE, solve(build))
    assert [lot.id for _, lot in way.sheets] == ["s-none-2", "s-none-none"]


def test_a_long_id_made_anew_is_an_id_still():
    long = Part("p" * 64, "P", Pedigree.CALCULATED, uses=(Use("board-both", 5.0),))
    build = Build("b", "B", lots=(RACK["board-both"],), parts=(long,), scales=sandpiper().scales)
    build = with_readings(build, reading(1, 23.0, long.id))
    then = instead(build, (long.id,), Way(RACK["xps-3"]))
    assert [part.retired for part in then.parts] == [True, False]
