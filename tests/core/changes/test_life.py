"""The life of parts: what was weighed before a change speaks of the part as it was."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.as_of import as_of
from oaken_scale.core.changes.life import repaired, replaced, retired, trimmed
from oaken_scale.core.changes.moved import copied, moved
from oaken_scale.core.ledger.allowance import LeftOut, left_out, usual_share
from oaken_scale.core.ledger.posterior import solve
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.diary import DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.whole import faults
from oaken_scale.core.model.part import Group, Part, Pedigree, Slide, Station
from oaken_scale.core.model.weighing import Scale
from oaken_scale.core.trim.unchecked import unchecked_since
from tests.benches import MORNING, reading

LATER = MORNING + timedelta(days=3)
ACT = Act(LATER, "the nose came off in the reeds")


def thing(id: str, grams: float, x: float = 0.0, **more) -> Part:
    # Each with a doubt of its own: what one weighs says nothing of the others.
    return Part(
        id,
        id.title(),
        Pedigree.GUESS,
        more.pop("assembly", "Fuselage"),
        grams,
        station=Station(x),
        doubt_g=grams / 4,
        **more,
    )


def plane() -> Build:
    return Build(
        "b",
        "Night Heron",
        parts=(
            thing("nose", 20.0, 40.0),
            thing("wing", 100.0, 200.0),
            thing("camera", 60.0, 90.0, option=True),
        ),
        scales=(Scale("kitchen", "Kitchen", 0.1, 0.05, 0.0),),
        loadouts=(Loadout("l", "With camera", ("camera",)),),
        weighings=(reading(1, 22.0, "nose"), reading(2, 95.0, "wing")),
    )


def mass(build: Build, id: str) -> float:
    at = next(i for i, part in enumerate(build.parts) if part.id == id)
    return float(solve(build).mass[at])


def total(build: Build) -> float:
    return assess(build).loadouts[0].answers[0].value


def weighed(build: Build, number: int, grams: float, *parts: str) -> Build:
    fresh = replace(reading(number, grams, dict.fromkeys(parts, 1.0)), at=LATER)
    return replace(build, weighings=(*build.weighings, fresh))


def test_a_repair_stays_on_its_part_and_is_found_by_weighing():
    after = repaired(plane(), ACT, "nose", [thing("patch", 3.0), thing("glue", 2.0)])
    assert faults(after) == ()
    assert total(after) == pytest.approx(total(plane()) + 5.0, abs=1e-6)
    assert mass(after, "nose") == pytest.approx(22.0, abs=0.01)
    found = weighed(after, 3, 29.0, "nose", "patch", "glue")
    assert mass(found, "patch") + mass(found, "glue") == pytest.approx(7.0, abs=0.1)
    patch = next(part for part in found.parts if part.id == "patch")
    assert (patch.host, patch.assembly, patch.station.x_mm) == ("nose", "Fuselage", 0.0)
    assert found.diary[0].kind is DiaryKind.REPAIR
    assert found.diary[0].parts == ("nose", "patch", "glue")


def test_what_is_repaired_once_more_is_done_to_the_same_part():
    once = repaired(plane(), ACT, "nose", [thing("patch", 3.0)])
    twice = repaired(once, ACT, "patch", [thing("tape", 1.0)])
    assert next(part for part in twice.parts if part.id == "tape").host == "nose"
    assert faults(twice) == ()


def test_sanding_takes_off_and_readings_of_before_speak_of_before():
    after = trimmed(plane(), ACT, "wing", 4.0)
    assert faults(after) == ()
    assert total(after) == pytest.approx(total(plane()) - 4.0, abs=1e-6)
    assert mass(after, "wing") == pytest.approx(95.0, abs=0.01)
    found = weighed(after, 3, 89.0, "wing", "off-wing")
    assert mass(found, "off-wing") == pytest.approx(-6.0, abs=0.1)
    assert total(found) == pytest.approx(total(plane()) - 6.0, abs=0.1)
    assert not [each for each in assess(found).notices if each.code == "negative_mass"]


@pytest.mark.parametrize("grams", [0.0, -1.0, 95.5])
def test_no_more_can_be_sanded_off_than_there_is(grams):
    with pytest.raises(BuildFaultError, match="grams"):
        trimmed(plane(), ACT, "wing", grams)


def test_a_replacement_takes_the_place_the_loadouts_and_the_station():
    after = replaced(plane(), ACT, "camera", Part("eye", "Eye", Pedigree.LISTING, stated_g=45.0))
    assert faults(after) == ()
    assert after.loadouts[0].carries == ("camera", "eye")
    new = next(part for part in after.parts if part.id == "eye")
    assert (new.option, new.station.x_mm, new.replaces) == (True, 90.0, "camera")
    assert total(after) == pytest.approx(total(plane()) - 15.0, abs=1e-6)
    assert [part.id for part in after.parts if part.retired] == ["camera"]


def test_what_was_done_to_a_part_goes_with_it():
    after = retired(repaired(plane(), ACT, "nose", [thing("patch", 3.0)]), ACT, "nose")
    assert {part.id for part in after.parts if part.retired} == {"nose", "patch"}
    assert mass(after, "nose") == pytest.approx(22.0, abs=0.01)


def test_a_part_that_moves_keeps_what_it_was_found_to_weigh():
    other = Build("o", "Dunlin", parts=(thing("body", 50.0),))
    here, there = moved(plane(), other, ACT, ("wing",))
    assert next(part for part in here.parts if part.id == "wing").retired
    came = next(part for part in there.parts if part.id == "wing")
    assert came.stated_g == pytest.approx(95.0, abs=0.01)
    assert came.doubt_g == pytest.approx(0.058, abs=0.003)
    assert [each.kind for each in (*here.diary, *there.diary)] == [
        DiaryKind.MOVE,
        DiaryKind.MOVE,
    ]


def test_a_thing_of_the_drawer_takes_its_listing_and_not_its_weighing_along():
    """The drawer tells the other build what was found here; counted here too it were twice."""
    build = plane()
    parts = tuple(replace(i, thing="t") if i.id == "nose" else i for i in build.parts)
    _, there = moved(replace(build, parts=parts), Build("o", "Dunlin"), ACT, ("nose",))
    (came,) = there.parts
    assert (came.stated_g, came.doubt_g, came.thing) == (20, 5.0, "t")


def test_the_plane_as_it_was_on_a_day():
    after = replaced(plane(), ACT, "nose", Part("cone", "Cone", Pedigree.GUESS, stated_g=9.0))
    after = repaired(after, ACT, "wing", [thing("patch", 3.0)])
    after = weighed(after, 3, 99.0, "wing", "patch")
    before = as_of(after, LATER - timedelta(hours=1))
    assert faults(before) == ()
    assert assess(before).parts == assess(plane()).parts
    assert before.diary == ()
    assert as_of(after, LATER) == after
    first = as_of(after, MORNING + timedelta(minutes=1))
    assert [each.id for each in first.weighings] == ["r1"]


def test_since_a_repair_the_balance_counts_as_not_checked():
    checked = BalanceCheck("c", MORNING, CheckKind.SUPPORT, "l", 120.0)
    build = replace(plane(), checks=(checked,))
    assert unchecked_since(build, "l") is None
    after = repaired(build, ACT, "nose", [thing("patch", 3.0)])
    assert unchecked_since(after, "l").words == ACT.words
    told = assess(after).unchecked
    assert [(each.loadout, each.since.words) for each in told] == [("l", ACT.words)]
    again = BalanceCheck("d", LATER + timedelta(hours=1), CheckKind.SUPPORT, "l", 121.0)
    assert unchecked_since(replace(after, checks=(checked, again)), "l") is None
    aside = replace(again, set_aside="with the wrong pack")
    assert unchecked_since(replace(after, checks=(checked, aside)), "l") is not None
    other = replace(again, loadout=None)
    assert unchecked_since(replace(after, checks=(checked, other)), "l") is not None


def test_nothing_is_done_to_what_is_not_there():
    for act in (
        lambda: retired(plane(), ACT, "keel"),
        lambda: repaired(plane(), ACT, "keel", [thing("patch", 1.0)]),
        lambda: replaced(plane(), ACT, "keel", thing("new", 1.0)),
        lambda: trimmed(plane(), ACT, "keel", 1.0),
        lambda: moved(plane(), Build("o", "Dunlin"), ACT, ("keel",)),
    ):
        with pytest.raises(BuildFaultError, match="keel"):
            act()
    with pytest.raises(BuildFaultError, match="added"):
        repaired(plane(), ACT, "nose", [])


def test_what_comes_back_twice_comes_back_twice():
    """Each coming stands in the diary of the build that it comes to, from wherever it comes."""
    here, other = plane(), Build("o", "Dunlin")
    _, there = moved(here, other, Act(LATER), ("nose",))
    there = retired(there, Act(LATER), "nose")
    back, there = moved(replace(here, id="c", name="Curlew"), there, Act(LATER), ("nose",))
    assert faults(there) == faults(back) == ()
    assert [each.words for each in there.diary] == [
        "Nose came from Night Heron",
        "Nose taken off",
        "Nose came from Curlew",
    ]
    assert [part.id for part in there.parts] == ["nose", "nose-2"]
    assert back.diary[-1].words == "Nose moved to Dunlin"


def test_the_like_of_parts_goes_to_another_build_and_they_stay():
    here, other = plane(), Build("o", "Dunlin", parts=(thing("nose", 5.0),))
    there = copied(here, other, Act(LATER), ("nose", "wing", "nose"))
    assert [part.id for part in there.parts] == ["nose", "nose-2", "wing"]
    assert [part.stated_g for part in there.parts[1:]] == pytest.approx([22.0, 95.0], abs=0.01)
    (entry,) = there.diary
    assert (entry.words, entry.parts) == ("2 parts copied from Night Heron", ("nose-2", "wing"))
    for many, words in ((("nose",), "it is on"), (("nose", "wing"), "they are on")):
        with pytest.raises(BuildFaultError, match=words):
            moved(here, here, ACT, many)


def finished(name: str, extra: float) -> Build:
    """A build of 200 g listed, which weighs ``extra`` more when all of it is on the scale."""
    parts = (
        Part("a", "A", Pedigree.LISTING, stated_g=120.0),
        Part("b", "B", Pedigree.LISTING, stated_g=80.0),
        Part("rest", "Still to come", Pedigree.ALLOWANCE),
    )
    scales = (Scale("kitchen", "Kitchen", 0.1, 0.05, 0.0),)
    log = (
        reading(1, 120.0, "a"),
        reading(2, 80.0, "b"),
        reading(3, 200.0 + extra, {"a": 1, "b": 1, "rest": 1}),
    )
    return Build(name, name, parts=parts, scales=scales, weighings=log, finished_at=LATER)


def test_three_finished_builds_teach_the_next_what_is_left_out():
    found = [left_out(finished(n, g)) for n, g in (("A", 12.0), ("B", 16.0), ("C", 20.0))]
    assert [each.share for each in found] == pytest.approx([0.06, 0.08, 0.10], abs=1e-3)
    usual = usual_share(found)
    assert usual.value == pytest.approx(0.08, abs=1e-3)
    assert usual.doubt == pytest.approx(0.02 * (4 / 3) ** 0.5, rel=0.02)
    fresh = replace(finished("D", 0.0), weighings=(), finished_at=None, allowance=usual)
    after = solve(fresh)
    assert after.mass[2] == pytest.approx(200 * usual.value)
    assert after.sd[after.parts][2] == pytest.approx(200 * usual.doubt)
    assert solve(replace(fresh, allowance=None)).mass[2] == pytest.approx(8.0)


def test_what_is_not_finished_or_never_weighed_whole_teaches_nothing():
    assert left_out(replace(finished("A", 12.0), finished_at=None)) is None
    whole = finished("A", 12.0)
    assert left_out(replace(whole, weighings=whole.weighings[:2])) is None
    assert left_out(replace(whole, parts=whole.parts[:2], weighings=whole.weighings[:2])) is None
    assert usual_share([LeftOut("a", 0.1), LeftOut("b", 0.1)]) is None
    assert usual_share([LeftOut(n, 0.1) for n in "abc"]).doubt == pytest.approx(0.005)


@pytest.mark.parametrize("own", [False, True], ids=["as the old one", "as said of itself"])
def test_a_replacement_sits_slides_and_counts_as_the_old_one_unless_it_says_otherwise(own):
    before = plane()
    slides = tuple(
        replace(each, slide=Slide(60.0, 120.0), group=Group.PAYLOAD)
        if each.id == "camera"
        else each
        for each in before.parts
    )
    given = {"slide": Slide(70.0, 80.0), "group": Group.CONTROL, "station": Station(75.0)}
    eye = Part("eye", "Eye", Pedigree.LISTING, stated_g=45.0, **(given if own else {}))
    after = replaced(replace(before, parts=slides), ACT, "camera", eye)
    new = next(each for each in after.parts if each.id == "eye")
    assert (new.slide, new.group, new.station.x_mm) == (
        (Slide(70.0, 80.0), Group.CONTROL, 75.0)
        if own
        else (Slide(60.0, 120.0), Group.PAYLOAD, 90.0)
    )
