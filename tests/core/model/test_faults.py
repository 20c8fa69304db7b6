from dataclasses import replace

import pytest

from oaken_scale.core.model.build import Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.faults.log import weighing_faults
from oaken_scale.core.model.faults.whole import faults, validated
from oaken_scale.core.model.lot import Use
from oaken_scale.core.model.part import Habit, Part, Pedigree
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Load
from tests.benches import case_l, reading, with_readings


def test_a_sound_build_has_none():
    assert faults(case_l((reading(1, 90.2, "wing"),))) == ()


@pytest.mark.parametrize(
    ("change", "field", "says"),
    [
        ({"parts": (Part("a", "A", Pedigree.GUESS),)}, "parts.0.stated_g", "give a mass"),
        (
            {"parts": (Part("a", "A", Pedigree.CALCULATED, uses=(Use("nix", 1.0),)),)},
            "parts.0.uses.0.lot",
            'no lot "nix" in this build; it has sheet',
        ),
        (
            {"parts": tuple(Part(i, i, Pedigree.ALLOWANCE) for i in "ab")},
            "parts.1.pedigree",
            "one allowance",
        ),
        (
            {"parts": tuple(Part("a", n, Pedigree.GUESS, stated_g=1) for n in "ab")},
            "parts.1",
            "there twice",
        ),
        ({"habits": (Habit(Pedigree.JOINT, 1.1, 0.2),)}, "habits.0.pedigree", "guess and listing"),
        ({"loadouts": (Loadout("l", "L", ("wing",)),)}, "loadouts.0.carries.0", "no option"),
        ({"targets": (Target(TargetKind.AUW),)}, "targets.0", "low or a high"),
        ({"targets": (Target(TargetKind.AUW, high=-590),)}, "targets.0.high", "more than 0"),
        (
            {"targets": (Target(TargetKind.WING_LOADING, low=0, high=30),)},
            "targets.0.low",
            "more than 0",
        ),
        (
            {"targets": (Target(TargetKind.BALANCE, low=33, high=28),)},
            "targets.0.low",
            "not below the high",
        ),
        (
            {"surfaces": (Surface("w", "W", Role.WING, (Section(0, 0, 0, 10),)),)},
            "surfaces.0.sections",
            "two sections",
        ),
        (
            {
                "surfaces": (
                    Surface("w", "W", Role.WING, (Section(0, 90, 0, 10), Section(0, 50, 0, 10))),
                )
            },
            "surfaces.0.sections.1.y_mm",
            "not farther out",
        ),
        (
            {
                "surfaces": (
                    Surface("w", "W", Role.WING, (Section(0, 0, 0, 0), Section(0, 500, 0, 0))),
                )
            },
            "surfaces.0.sections.0.chord_mm",
            "needs a chord",
        ),
        *(
            (
                {
                    "surfaces": (
                        Surface("w", "W", role, (Section(0, 0, 0, c), Section(0, y, z, c))),
                    )
                },
                "surfaces.0.sections.0.chord_mm",
                "comes to no area",
            )
            for role, y, z, c in (
                (Role.WING, 500, 0, 1e-6),
                (Role.WING, 1e-9, 500, 90),
                (Role.FIN, 500, 0.01, 99),
            )
        ),
        ({"weighings": (reading(1, 9.0, "ghost"),)}, "weighings.0.pan.loads.0.part", "no part"),
        ({"weighings": (reading(1, 9.0, {}),)}, "weighings.0.pan", "empty"),
        ({"weighings": (reading(1, 9.0, "wing", "other"),)}, "weighings.0.scale", "no scale"),
    ],
)
def test_each_fault_names_its_field_and_what_would_be_right(change, field, says):
    found = faults(replace(case_l(), **change))
    assert field in [fault.field for fault in found]
    assert any(says in fault.words for fault in found)


def test_a_square_millimetre_is_an_area():
    thread = Surface("w", "W", Role.WING, (Section(0, 0, 0, 0.002), Section(0, 500, 0, 0.002)))
    assert faults(replace(case_l(), surfaces=(thread,))) == ()


def test_check_raises_with_every_fault():
    broken = replace(case_l((reading(1, 9.0, "ghost"),)), targets=(Target(TargetKind.AUW),))
    with pytest.raises(BuildFaultError) as caught:
        validated(broken)
    assert len(caught.value.faults) == 2


def test_a_retired_part_stays_in_the_log_but_not_on_the_pan():
    parts = tuple(replace(part, retired=part.id == "wing") for part in case_l().parts)
    build = with_readings(replace(case_l(), parts=parts), reading(1, 90.2, "wing"))
    assert faults(build) == ()
    (fault,) = weighing_faults(build, reading(2, 90.2, "wing"))
    assert fault.field == "pan.loads.0.part"
    assert "retired" in fault.words


def test_a_reading_over_the_scale_is_refused():
    (fault,) = weighing_faults(case_l(), reading(1, 6000.0, "wing"))
    assert fault.field == "reading_g"
    assert "5000 g" in fault.words
    assert Load("wing") == Load("wing", 1.0)
