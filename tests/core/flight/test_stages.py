"""Assemblies within assemblies, running totals, and what is offered to weigh of them."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.stages import reference_of
from oaken_scale.core.flight.weigh_next import Together
from oaken_scale.core.ledger.assembly import assemblies, chain, done_to
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.reference_build import ReferenceBuild, ReferencePart
from oaken_scale.core.model.target import Allotment, Budget, Target, TargetKind
from oaken_scale.core.model.weighing import Scale
from tests.benches import reading


def part(id: str, assembly: str, grams: float, **more) -> Part:
    return Part(id, id.title(), Pedigree.GUESS, assembly, grams, doubt_g=grams / 4, **more)


def plane(**more) -> Build:
    parts = (
        part("panel", "Wing", 90.0),
        part("spar", "Wing", 20.0),
        part("hatch", "Fuselage/Nose", 6.0),
        part("box", "Fuselage", 50.0),
        part("plate", "Fuselage/Nose", 4.0),
        part("old", "Fuselage/Nose", 99.0, retired=True),
    )
    return Build("b", "B", parts=parts, scales=(Scale("kitchen", "K", 0.1, 0.05, 0.0),), **more)


@pytest.mark.parametrize(
    ("path", "names"),
    [(" Fuselage / Nose ", ("Fuselage", "Fuselage/Nose")), ("/", ("",)), ("//Tail//", ("Tail",))],
)
def test_a_path_is_read_leniently(path, names):
    assert chain(path) == names


def test_an_assembly_counts_what_lies_within_it():
    assert assemblies(plane().parts) == ("Wing", "Fuselage", "Fuselage/Nose")
    told = {each.name: each.mass_g for each in assess(plane()).assemblies}
    assert told == pytest.approx({"Wing": 110.0, "Fuselage": 60.0, "Fuselage/Nose": 10.0})


def test_the_running_total_goes_stage_by_stage_beside_what_it_is_held_against():
    build = plane(
        weighings=(reading(1, 96.0, "panel"), reading(2, 51.0, "box")),
        targets=(Target(TargetKind.AUW, high=200.0),),
        budget=Budget((Allotment(Group.FOAM, 120.0), Allotment(Group.POWER, 60.0))),
        reference_build=ReferenceBuild(
            "Old one", (ReferencePart("Wing", 104.0), ReferencePart("Fuselage", 71.0))
        ),
    )
    told = assess(build).so_far
    assert [each.assembly for each in told.stages] == ["Wing", "Fuselage"]
    assert [each.mass_g for each in told.stages] == pytest.approx([116.0, 61.0], abs=0.05)
    assert told.stages[-1].running_g == pytest.approx(told.forecast_g)
    assert told.stages[-1].running_sd_g == pytest.approx(told.forecast_sd_g)
    assert [each.been_g for each in told.stages] == pytest.approx([96.0, 51.0], abs=0.05)
    assert told.been_g == pytest.approx(147.0, abs=0.1)
    assert [each.reference_running_g for each in told.stages] == [104.0, 175.0]
    assert (told.limit_g, told.budget_g, told.reference, told.reference_g) == (
        200.0,
        180.0,
        "Old one",
        175.0,
    )


def test_an_assembly_that_the_earlier_build_had_not_ends_the_comparison():
    build = plane(reference_build=ReferenceBuild("Old one", (ReferencePart("Fuselage", 71.0),)))
    told = assess(build).so_far
    assert [each.reference_running_g for each in told.stages] == [None, None]
    assert [each.reference_g for each in told.stages] == [None, 71.0]


def test_a_build_becomes_the_measure_of_the_next():
    told = reference_of(assess(plane()).so_far, "B")
    assert told == ReferenceBuild(
        "B", (ReferencePart("Wing", 110.0), ReferencePart("Fuselage", 60.0))
    )
    assert told.auw_g == 170.0


def test_weigh_next_takes_a_repaired_part_as_it_is_now():
    """The part was weighed alone before; now only the two together can be put on the pan."""
    build = plane(weighings=(reading(1, 96.0, "panel"),))
    patched = replace(build, parts=(*build.parts, part("patch", "Wing", 8.0, host="panel")))
    assert done_to(patched, "panel") == ("patch",)
    offered = assess(patched).weigh_next
    assert all(each.part not in ("panel", "patch") for each in offered)
    whole = next(each for each in offered if set(each.parts) == {"panel", "patch"})
    assert (whole.together, whole.called) == (Together.AS_IT_IS, "Panel")


def test_an_assembly_within_another_is_offered_by_its_own_name():
    """Its parts have been weighed; what joins them never was, and cannot be by itself."""
    bead = Part("bead", "Bead", Pedigree.JOINT, "Fuselage/Nose", 3.0, doubt_g=3.0)
    nose = (*(part for part in plane().parts if part.assembly == "Fuselage/Nose"), bead)
    build = plane(weighings=(reading(1, 5.0, "hatch"), reading(2, 4.5, "plate")))
    offered = assess(replace(build, parts=nose[:2] + nose[3:])).weigh_next
    assert len(offered) == 1, "the same things are offered once"
    assert set(offered[0].parts) == {"hatch", "plate", "bead"}
