from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.material.instead import Way, instead, less_paper
from oaken_scale.core.material.materials import Trait, trade, traits
from oaken_scale.core.material.rack import STARTER, stripped
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Quality, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.trim.alternatives import compare, minutes
from oaken_scale.demo.sandpiper import sandpiper
from tests.benches import reading, with_readings

RACK = {lot.id: lot for lot in STARTER}


def lot(build: Build, id: str) -> Lot:
    return next(each for each in build.lots if each.id == id)


def auw(build: Build) -> float:
    return assess(build).loadouts[0].answers[0].value


def test_grams_are_what_all_up_weight_changes_by():
    # Without the reading that has the tray in it: how many things it might have been is no matter.
    log = tuple(each for each in sandpiper().weighings if each.id != "reading-03")
    build = replace(sandpiper(), weighings=log)
    told = compare(build, ("fuselage-box", "tailplane"), (Way(RACK["board-none"]),)).alternatives[0]
    then = instead(build, ("fuselage-box", "tailplane"), Way(RACK["board-none"]))
    assert auw(then) - auw(build) == pytest.approx(told.grams, abs=1e-6)
    assert told.loadouts[0].answers[0].value == pytest.approx(auw(then))
    assert compare(build, ("hatch",), ()).today[0].answers[0].value == auw(build)


def test_the_doubt_of_the_difference_by_hand():
    """Two parts of one sheet, made of a surer one: the old doubts fall away with the old parts."""
    old = Lot("old", "Old", LotUnit.DM2, 4.0, 0.4, kind=LotKind.FOAM)
    new = Lot("new", "New", LotUnit.DM2, 3.0, 0.1, kind=LotKind.FOAM)
    part = Part("p", "P", Pedigree.CALCULATED, uses=(Use("old", 10.0),))
    told = compare(Build("b", "B", lots=(old,), parts=(part,)), ("p",), (Way(new),)).alternatives[0]
    assert told.grams == pytest.approx(-10.0)
    assert told.grams_sd == pytest.approx((4.0**2 + 1.2**2 + 1.0**2 + 0.9**2) ** 0.5)


def test_what_else_a_way_changes_its_share_the_stall_and_what_is_left_to_add():
    build = sandpiper()
    told = compare(build, ("hatch", "saddle"), (Way(RACK["board-none"]),))
    (way,) = told.alternatives
    now = {each.id: each.mass_g for each in assess(build).parts}
    assert way.share == pytest.approx(way.grams / (now["hatch"] + now["saddle"]), rel=1e-6)
    for each in (told.today[0], way.loadouts[0]):
        weight = each.answers[0].value
        area = 2 * (400 * 190 + 140 * 190) / 1e4
        by_hand = (2 * weight / 1000 * 9.80665 / (1.225 * area / 100 * 1.15)) ** 0.5
        assert each.stall_m_s == pytest.approx(by_hand, rel=1e-4)
    assert way.loadouts[0].left_g - told.today[0].left_g == pytest.approx(-way.grams, abs=1e-6)


def test_a_weighed_sheet_makes_the_difference_sure():
    build = sandpiper()
    sheet = lot(build, "sheet-a")
    bare = stripped(sheet, Faces.NONE)
    before = compare(build, ("fuselage-box",), (Way(bare),)).alternatives[0]
    weighed = with_readings(build, reading(90, 46.3, "fuselage-box"))
    after = compare(weighed, ("fuselage-box",), (Way(bare),)).alternatives[0]
    assert after.grams_sd < before.grams_sd


def test_tape_for_glue_is_a_covering_and_can_be_undone():
    build = sandpiper()
    told = compare(build, ("body-glue",), (Way(lot(build, "packing-tape")),)).alternatives[0]
    assert Trait.UNDONE in told.gained
    assert told.given_up == (Trait.STRONG,)
    # 3 m of tape at a minute and a half, for a minute of hot glue.
    assert told.minutes == pytest.approx(4.5 - 1.0)
    then = instead(build, ("body-glue",), Way(lot(build, "packing-tape")))
    fresh = next(part for part in then.parts if part.id == "body-glue")
    assert fresh.pedigree is Pedigree.COVERING


def test_money_is_the_share_of_a_sheet_with_its_waste():
    cheap = replace(RACK["xps-3"], price=5.0)
    build = sandpiper()
    told = compare(build, ("hatch",), (Way(cheap), Way(RACK["xps-6"]))).alternatives
    sheet = lot(build, "sheet-a")
    expected = 0.8 * 1.25 * (5.0 / cheap.size - sheet.price / sheet.size)
    assert told[0].money == pytest.approx(expected)
    assert told[1].money is None


def test_stripping_paper_takes_time():
    both, one, none = (RACK[f"board-{faces}"] for faces in ("both", "one", "none"))
    for sheet, faces in ((both, 0), (one, 1), (none, 2)):
        part = Part("w", "W", Pedigree.CALCULATED, uses=(Use(sheet.id, 12.0),))
        assert minutes(part, {sheet.id: sheet}) == pytest.approx(faces * 6.0)


def test_what_paper_gives_and_takes():
    both, none = RACK["board-both"], RACK["board-none"]
    gained, lost = trade(both, none)
    assert gained == (Trait.DRY,)
    assert Trait.STIFF in lost
    back = trade(none, both)
    assert back[1] == (Trait.DRY,)
    assert trade(both, both) == ((), ())
    assert traits(RACK["contact"]) != traits(RACK["epoxy"])


def test_film_against_tape_against_paint():
    """3 m of tape 48 mm wide cover 14.4 dm2: of film as much, and of tape 12 mm wide four times the
    run."""
    tape = Lot(
        "tape",
        "Tape",
        LotUnit.M,
        2.1,
        0.0,
        kind=LotKind.TAPE,
        width_mm=48.0,
        qualities=(Quality.SHRINKS,),
    )
    film = Lot("film", "Film", LotUnit.DM2, 0.55, 0.0, kind=LotKind.FILM)
    paint = Lot(
        "paint", "Paint", LotUnit.DM2, 0.35, 0.0, kind=LotKind.PAINT, qualities=(Quality.BRITTLE,)
    )
    narrow = Lot("narrow", "Narrow", LotUnit.M, 0.53, 0.0, kind=LotKind.TAPE, width_mm=12.0)
    stripe = Part("stripe", "Stripe", Pedigree.COVERING, uses=(Use("tape", 3.0),))
    build = Build("b", "B", lots=(tape, film, paint, narrow), parts=(stripe,))
    ways = (Way(film), Way(paint), Way(narrow))
    by_film, by_paint, by_narrow = compare(build, ("stripe",), ways).alternatives
    assert by_film.grams == pytest.approx(14.4 * 0.55 - 3.0 * 2.1)
    assert by_paint.grams == pytest.approx(14.4 * 0.35 - 3.0 * 2.1)
    assert by_narrow.grams == pytest.approx(12.0 * 0.53 - 3.0 * 2.1)
    assert (by_paint.comes, by_paint.goes) == ((Quality.BRITTLE,), (Quality.SHRINKS,))
    assert (by_film.comes, by_film.goes) == ((), (Quality.SHRINKS,))
    back = instead(instead(build, ("stripe",), Way(film)), ("stripe",), Way(tape)).parts[0]
    assert back.uses == (Use("tape", pytest.approx(3.0)),)
    assert back.pedigree is Pedigree.COVERING


def test_a_tape_of_no_known_width_is_not_compared_with_film():
    tape = Lot("tape", "Tape", LotUnit.M, 2.1, 0.0, kind=LotKind.TAPE)
    film = Lot("film", "Film", LotUnit.DM2, 0.55, 0.0, kind=LotKind.FILM)
    stripe = Part("stripe", "Stripe", Pedigree.COVERING, uses=(Use("tape", 3.0),))
    build = Build("b", "B", lots=(tape, film), parts=(stripe,))
    with pytest.raises(BuildFaultError, match="how wide Tape is"):
        compare(build, ("stripe",), (Way(film),))


def test_each_part_without_its_paper_is_cut_from_its_own_sheet():
    """Two sheets of one board, one heavier: each is bared by its own figure, 28 % a face."""
    light, heavy = (
        Lot(id, id.title(), LotUnit.DM2, constant, 0.0, kind=LotKind.FOAM, faces=faces)
        for id, constant, faces in (("light", 4.0, Faces.BOTH), ("heavy", 6.0, Faces.ONE))
    )
    parts = tuple(
        Part(id, id.title(), Pedigree.CALCULATED, uses=(Use(sheet.id, 10.0),))
        for id, sheet in (("wing", light), ("body", heavy))
    )
    build = Build("b", "B", lots=(light, heavy), parts=parts)
    bare = less_paper(build, ("wing", "body"), Faces.NONE, solve(build))
    (way,) = compare(build, ("wing", "body"), (bare,)).alternatives
    assert [each.name for each in way.lots] == ["Light, both papers off", "Heavy, both papers off"]
    by_hand = 40.0 * (1 - 0.56) + 60.0 * (1 - 0.56) / (1 - 0.28)
    assert way.grams == pytest.approx(by_hand - 100.0)
    then = instead(build, ("wing", "body"), bare)
    assert [part.uses[0].lot for part in then.parts] == ["light-none", "heavy-none"]
    # With one face off, the heavy one is as it was.
    one = less_paper(build, ("wing", "body"), Faces.ONE, solve(build))
    (way,) = compare(build, ("wing", "body"), (one,)).alternatives
    assert way.changed == ("wing",)
    assert way.grams == pytest.approx(-40.0 * 0.28)
