"""Laws of taking back: what a change did goes, what came after it stays, and a log keeps all."""

from dataclasses import replace
from datetime import UTC, datetime
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.changes.taken_back import TAKEN_BACK, taken_back, touched
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing

AT = datetime(2026, 5, 1, 12, tzinfo=UTC)
NAMES = ("wing", "tail", "pack", "camera", "motor")


def part(id: str, grams: float) -> Part:
    return Part(id, id.capitalize(), Pedigree.GUESS, stated_g=grams)


START = Build(
    "b",
    "B",
    parts=tuple(part(id, 10.0 * k + 10) for k, id in enumerate(NAMES[:3])),
    scales=(Scale("s", "Scale", 0.1),),
    loadouts=(Loadout("one", "One", ("pack",)),),
    targets=(Target(TargetKind.AUW, high=590.0),),
)


def heavier(build: Build, id: str, grams: float) -> Build:
    if id not in [each.id for each in build.parts]:
        return replace(build, parts=(*build.parts, part(id, grams)))
    parts = (replace(each, stated_g=grams) if each.id == id else each for each in build.parts)
    return replace(build, parts=tuple(parts))


def without(build: Build, id: str) -> Build:
    loadouts = tuple(
        replace(each, carries=tuple(one for one in each.carries if one != id))
        for each in build.loadouts
    )
    parts = tuple(each for each in build.parts if each.id != id)
    return replace(build, parts=parts, loadouts=loadouts)


CHANGES = st.one_of(
    st.tuples(st.sampled_from(NAMES), st.integers(1, 99)).map(
        lambda told: lambda build: heavier(build, told[0], float(told[1]))
    ),
    st.sampled_from(NAMES).map(lambda id: lambda build: without(build, id)),
    st.sampled_from("XYZ").map(lambda name: lambda build: replace(build, name=name)),
    st.integers(400, 700).map(
        lambda g: lambda build: replace(build, targets=(Target(TargetKind.AUW, high=float(g)),))
    ),
    st.just(lambda build: replace(build, targets=())),
)


@given(st.lists(CHANGES, min_size=1, max_size=8))
def test_all_changes_taken_back_and_made_again(changes):
    values = [START]
    for change in changes:
        values.append(change(values[-1]))
    now = values[-1]
    for before, after in zip(reversed(values[:-1]), reversed(values[1:]), strict=True):
        now = taken_back(now, before, after, AT)
        assert now == before
    for before, after in pairwise(values):
        now = taken_back(now, after, before, AT)
        assert now == after


@given(CHANGES, st.integers(1, 99))
def test_what_came_after_stays(change, grams):
    after = change(START)
    later = replace(after, notes=f"{grams} g of tape")
    told = taken_back(later, START, after, AT)
    assert told == replace(START, notes=later.notes)


@given(CHANGES)
def test_what_was_touched_is_told_unless_nothing_was(change):
    after = change(START)
    assert bool(touched(START, after)) == (after != START)


def test_a_log_keeps_all_that_was_written_into_it():
    reading = Weighing("r", AT, "s", 31.0, Pan((Load("tail"),)))
    weighed = replace(START, weighings=(reading,))
    told = taken_back(weighed, START, weighed, AT)
    assert told.weighings == (replace(reading, set_aside=TAKEN_BACK),)
    assert taken_back(told, weighed, START, AT) == weighed


def test_a_part_that_stands_in_the_log_retires_and_comes_back():
    with_motor = heavier(START, "motor", 60.0)
    reading = Weighing("r", AT, "s", 61.0, Pan((Load("motor"),)))
    now = replace(with_motor, weighings=(reading,))
    told = taken_back(now, START, with_motor, AT)
    assert told.parts[-1] == replace(with_motor.parts[-1], retired=True, retired_at=AT)
    again = taken_back(told, with_motor, START, AT)
    assert again == now
