from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.budget import (
    SHARES,
    budget_of,
    group_of,
    guessed_groups,
    preset_budget,
)
from oaken_scale.core.flight.verdict import Word
from oaken_scale.core.material.drawer import GROUPS, Thing, ThingKind, expected, fitted
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.presets import PURPOSES
from oaken_scale.core.model.target import Allotment, Budget, Target, TargetKind
from oaken_scale.demo.sandpiper import sandpiper

LOTS = {kind: Lot(kind.value, kind.value, LotUnit.DM2, 4.0, 0.4, kind=kind) for kind in LotKind}


@pytest.mark.parametrize(
    ("kind", "group"),
    [
        ("foam", "foam"),
        ("rod", "foam"),
        ("plywood", "foam"),
        ("adhesive", "joining"),
        ("tape", "joining"),
        ("paint", "rest"),
        ("film", "rest"),
    ],
)
def test_material_says_which_group(kind, group):
    part = Part("i", "I", Pedigree.CALCULATED, uses=(Use(kind, 1.0),))
    assert group_of(part, {lot.id: lot for lot in LOTS.values()}) == group


def test_the_builder_has_the_last_word():
    part = Part("i", "I", Pedigree.CALCULATED, uses=(Use("foam", 1.0),), group=Group.PAYLOAD)
    assert group_of(part, {"foam": LOTS[LotKind.FOAM]}) is Group.PAYLOAD


def test_lines_by_hand():
    """40 g of foam with 2 g doubt against 44 g: two sigma in hand."""
    build = Build(
        "b",
        "B",
        parts=(
            Part("wing", "Wing", Pedigree.GUESS, stated_g=40.0, doubt_g=2.0, group=Group.FOAM),
            Part("pack", "Pack", Pedigree.LISTING, stated_g=50.0, option=True, group=Group.POWER),
            Part("big", "Big", Pedigree.LISTING, stated_g=90.0, option=True, group=Group.POWER),
        ),
        loadouts=(Loadout("l", "L", ("pack",)),),
        budget=Budget((Allotment(Group.FOAM, 44.0), Allotment(Group.CONTROL, 20.0))),
    )
    lines = {line.group: line for line in assess(build).budget}
    assert lines[Group.FOAM].probability == pytest.approx(0.97725, abs=1e-5)
    assert lines[Group.POWER].mass_g == 50.0
    assert lines[Group.POWER].allotted_g is None
    assert lines[Group.CONTROL].mass_g == 0
    assert set(lines) == {Group.FOAM, Group.POWER, Group.CONTROL}
    assert (lines[Group.FOAM].left_g, lines[Group.POWER].left_g) == (pytest.approx(4.0), None)
    assert (lines[Group.FOAM].word, lines[Group.POWER].word) == (Word.ON_COURSE, None)


@pytest.mark.parametrize(
    ("allotted", "word"),
    [
        (40 + 2 * 0.85, Word.ON_COURSE),  # 0.8416 sigma: four in five
        (40 + 2 * 0.83, Word.TOO_CLOSE),
        (40 - 2 * 0.83, Word.TOO_CLOSE),
        (40 - 2 * 0.85, Word.OFF_COURSE),
        (80.0, Word.ON_COURSE),
        (1.0, Word.OFF_COURSE),
    ],
)
def test_a_group_stands_by_the_words_of_a_target(allotted, word):
    part = Part("wing", "Wing", Pedigree.GUESS, stated_g=40.0, doubt_g=2.0, group=Group.FOAM)
    build = Build("b", "B", parts=(part,), budget=Budget((Allotment(Group.FOAM, allotted),)))
    (line,) = assess(build).budget
    assert (line.word, line.left_g) == (word, pytest.approx(allotted - 40))


def test_the_groups_share_out_all_up_weight():
    told = assess(sandpiper())
    auw = told.loadouts[0].answers[0].value
    assert sum(line.mass_g for line in told.budget) == pytest.approx(auw)


def test_usual_shares_of_the_limit():
    limit = (Target(TargetKind.AUW, high=600.0),)
    budget = preset_budget(Build("b", "B", purpose="camera", targets=limit))
    assert sum(each.grams for each in budget.allotments) == pytest.approx(600.0, abs=0.5)
    with pytest.raises(BuildFaultError, match="limit to share out"):
        preset_budget(Build("b", "B", purpose="camera"))
    with pytest.raises(BuildFaultError, match="usual shares"):
        preset_budget(Build("b", "B", targets=limit))


def test_every_purpose_has_shares_that_add_up():
    assert set(SHARES) == {purpose.id for purpose in PURPOSES}
    for shares in SHARES.values():
        assert sum(shares) == pytest.approx(1.0)


def test_an_earlier_build_is_a_budget():
    budget = budget_of(assess(sandpiper()).budget, "Sandpiper")
    assert budget.source == "as Sandpiper came out"
    fresh = replace(sandpiper(), budget=budget)
    for line in assess(fresh).budget:
        assert line.allotted_g == pytest.approx(line.mass_g, abs=0.06)


def test_a_group_is_allotted_once():
    twice = Budget((Allotment(Group.FOAM, 44.0), Allotment(Group.FOAM, 20.0)))
    assert faults(Build("b", "B", budget=twice))[0].field == "budget.allotments.1"


def test_a_listing_without_leads_expects_them():
    servo = Thing("s", "Servo", ThingKind.SERVO, 10.0, leads_included=False)
    mass, doubt = expected(servo)
    assert mass == pytest.approx(11.0)
    assert doubt == pytest.approx((0.5**2 + 0.5**2) ** 0.5)
    assert expected(Thing("m", "Magnet", ThingKind.OTHER, 1.0)) == (1.0, 0.2)


def test_a_fitted_thing_is_a_listed_part_of_its_group():
    for kind in ThingKind:
        part = fitted(Thing("t", "Thing", kind, 20.0, price=3.0), "t-2")
        assert (part.thing, part.group, part.price) == ("t", GROUPS[kind], 3.0)
        assert part.option == (kind in (ThingKind.PACK, ThingKind.CAMERA))


def test_what_nobody_sorted_counts_where_its_name_says():
    def plain(name: str, **more) -> Part:
        return Part(name, name, more.pop("pedigree", Pedigree.LISTING), stated_g=10.0, **more)

    build = Build(
        "b",
        "B",
        parts=(
            plain("Motor"),
            plain("Servo", pedigree=Pedigree.GUESS),
            plain("Wire legs"),
            plain("Wing, left", pedigree=Pedigree.GUESS),
            plain("Hinge tape", pedigree=Pedigree.GUESS),
            plain("Camera", group=Group.REST),
            plain("Motor glue", pedigree=Pedigree.JOINT),
            plain("Pack", retired=True),
        ),
    )
    assert [(each.part, each.group) for each in guessed_groups(build)] == [
        ("Motor", Group.POWER),
        ("Servo", Group.CONTROL),
        ("Wire legs", Group.REST),
        ("Wing, left", Group.FOAM),
        ("Hinge tape", Group.JOINING),
    ]
    where = {part.name: group_of(part, {}) for part in build.parts}
    assert where["Camera"] is Group.REST  # its builder says so
    assert where["Motor glue"] is Group.JOINING  # how its mass is known says so
