"""What was planned against what became of it, worked by hand."""

from dataclasses import replace
from datetime import timedelta

import pytest

from oaken_scale.core.field.looking_back import MOST_PARTS, looking_back
from oaken_scale.core.flight.forecast import Mark
from oaken_scale.core.flight.part_masses import PartMass
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from tests.benches import MORNING, reading


def part(id: str, **more) -> Part:
    return Part(id, id.title(), more.pop("pedigree", Pedigree.GUESS), stated_g=10.0, **more)


def mass(id: str, planned: float, weighs: float, sd: float = 0.1) -> PartMass:
    return PartMass(id, weighs, sd, planned, 3.0, Mark.WEIGHED, None, None, False)


def test_planned_is_the_plan_and_what_it_weighs_has_its_repairs():
    parts = (part("wing"), part("old", retired=True), part("patch", host="wing"))
    masses = (mass("wing", 100.0, 112.0), mass("old", 40.0, 44.0), mass("patch", 5.0, 6.5))
    told = looking_back(Build("b", "B", parts=parts), masses, None)
    assert told.planned_g == pytest.approx(100.0)
    assert told.weighs_g == pytest.approx(118.5)
    assert [(each.part, each.planned_g, each.weighs_g) for each in told.parts] == [
        ("wing", 100.0, 112.0)
    ]


def test_who_is_off_is_off_by_more_than_two_sigma_and_the_farthest_come_first():
    names = [f"p{k}" for k in range(8)]
    parts = (*(part(name) for name in names), part("rest", pedigree=Pedigree.ALLOWANCE))
    offs = [0.19, 0.21, -3.0, 9.0, 1.0, -2.0, 5.0, 4.0]
    masses = [mass(name, 50.0, 50.0 + off) for name, off in zip(names, offs, strict=True)]
    told = looking_back(Build("b", "B", parts=parts), (*masses, mass("rest", 6.0, 30.0)), None)
    assert [each.part for each in told.parts] == ["p3", "p6", "p7", "p2", "p5"]
    assert len(told.parts) == MOST_PARTS
    near = looking_back(Build("b", "B", parts=parts[:2]), tuple(masses[:2]), None)
    assert [each.part for each in near.parts] == ["p1"]


def test_its_targets_its_time_and_what_is_still_open():
    auw = Target(TargetKind.AUW, high=590.0)
    band = Target(TargetKind.BALANCE, 28.0, 33.0, "", BalanceUnit.PERCENT_MAC)
    log = (reading(30, 50.0, "wing"), reading(5, 50.1, "wing"))
    build = Build("b", "B", parts=(part("wing"),), targets=(auw, band), weighings=log)
    open_yet = looking_back(build, (mass("wing", 100.0, 100.0),), None)
    assert (open_yet.limit_g, open_yet.balance, open_yet.cg_mm) == (590.0, band, None)
    assert open_yet.begun_at == MORNING + timedelta(minutes=5)
    assert (open_yet.finished_at, open_yet.days) == (None, None)
    ended = replace(build, finished_at=MORNING + timedelta(days=12, minutes=5))
    assert looking_back(ended, (mass("wing", 1.0, 1.0),), None).days == pytest.approx(12.0)
    never = replace(ended, weighings=())
    assert looking_back(never, (mass("wing", 1.0, 1.0),), None).days is None
    assert looking_back(Build("b", "B"), (), None).limit_g is None


def test_repairs_add_up_in_the_order_of_their_days():
    def entry(id: str, day: int, *parts: str, kind: DiaryKind = DiaryKind.REPAIR) -> DiaryEntry:
        return DiaryEntry(id, MORNING + timedelta(days=day), kind, id, parts)

    parts = (
        part("wing"),
        part("patch", host="wing"),
        part("bead", host="wing"),
        part("gone", host="wing", retired=True),
    )
    diary = (
        entry("second", 9, "bead", "gone"),
        entry("trim", 4, "wing", kind=DiaryKind.TRIM),
        entry("first", 2, "patch"),
    )
    masses = (
        mass("wing", 100.0, 100.0),
        mass("patch", 3.0, 2.5),
        mass("bead", 2.0, 1.5),
        mass("gone", 2.0, 9.0),
    )
    told = looking_back(Build("b", "B", parts=parts, diary=diary), masses, None)
    assert [(each.words, each.added_g, each.by_then_g) for each in told.repairs] == [
        ("first", 2.5, 2.5),
        ("second", 1.5, 4.0),
    ]


def test_a_new_part_counts_by_what_it_weighs_more_and_one_crash_is_one_line():
    """A crash: the pod replaced, 12 g heavier, the wing patched with 3, the skid of 4 off for good;
    then the new pod by a lighter one. By then 100 + 30 became 100 + 3 + 35."""

    def entry(id: str, day: int, kind: DiaryKind, *parts: str) -> DiaryEntry:
        words = "met a post" if day == 2 else id
        return DiaryEntry(id, MORNING + timedelta(days=day), kind, words, parts)

    parts = (
        part("wing"),
        part("pod", retired=True),
        part("pod2", retired=True, replaces="pod"),
        part("pod3", replaces="pod2"),
        part("patch", host="wing"),
        part("skid", retired=True),
        part("camera", retired=True),
    )
    diary = (
        entry("swap", 9, DiaryKind.REPLACE, "pod2", "pod3"),
        entry("a", 2, DiaryKind.REPLACE, "pod", "pod2"),
        entry("b", 2, DiaryKind.REPAIR, "wing", "patch"),
        entry("c", 2, DiaryKind.RETIRE, "skid"),
        entry("off", 5, DiaryKind.RETIRE, "camera"),  # no repair
        entry("odd", 7, DiaryKind.REPLACE, "nobody"),
    )
    grams = {"wing": 100, "pod": 30, "pod2": 42, "pod3": 35, "patch": 3, "skid": 4, "camera": 50}
    masses = tuple(mass(id, grams[id], grams[id]) for id in grams)
    told = looking_back(Build("b", "B", parts=parts, diary=diary), masses, None)
    assert [(each.words, each.added_g, each.by_then_g) for each in told.repairs] == [
        ("met a post", 12 + 3 - 4, 11),
        ("odd", 0, 11),
        ("swap", -7, 4),
    ]
    never = replace(parts[2], retired=True), replace(parts[3], replaces=None)
    gone = (parts[0], parts[1], *never, *parts[4:])
    told = looking_back(Build("b", "B", parts=gone, diary=diary[1:2]), masses, None)
    assert told.repairs[0].added_g == -30  # what came in its place is off again
