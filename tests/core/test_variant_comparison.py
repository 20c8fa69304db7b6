"""What is told of a variant beside the build that it is one of."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Colour, Part, Pedigree, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import Target, TargetKind, Thrust
from oaken_scale.core.variant_comparison import (
    MOST_CHANGES,
    VariantChange,
    VariantChangeKind,
    changed,
    compared,
)


def wing(half_mm: float, chord_mm: float) -> Surface:
    sections = (Section(100, 0, 0, chord_mm), Section(100, half_mm, 0, chord_mm))
    return Surface("wing", "Wing", Role.WING, sections)


MOTOR = Part("motor", "Motor", Pedigree.LISTING, stated_g=50.0, station=Station(20.0))
PACK = Part("pack", "Pack", Pedigree.LISTING, stated_g=100.0, station=Station(150.0))
ORIGIN = Build("b", "B", surfaces=(wing(500, 200),), parts=(MOTOR, PACK))
KIND = VariantChangeKind


def with_parts(*parts: Part) -> Build:
    return replace(ORIGIN, id="v", parts=parts)


def test_a_copy_is_not_changed():
    assert changed(ORIGIN, replace(ORIGIN, id="v", name="V")) == ()


def test_another_wing_is_told_by_its_span_and_its_area():
    told = changed(ORIGIN, replace(ORIGIN, surfaces=(wing(550, 200),)))
    assert told == (
        VariantChange(KIND.SPAN, before=1000.0, after=1100.0),
        VariantChange(KIND.AREA, before=20.0, after=22.0),
    )
    deeper = changed(ORIGIN, replace(ORIGIN, surfaces=(wing(500, 210),)))
    assert deeper == (VariantChange(KIND.AREA, before=20.0, after=21.0),)
    renamed = replace(ORIGIN, surfaces=(replace(ORIGIN.surfaces[0], name="Main wing"),))
    assert changed(ORIGIN, renamed) == (VariantChange(KIND.DRAWING),)


def test_a_part_is_there_or_not_made_otherwise_moved_placed_or_painted():
    spare = replace(MOTOR, id="spare", name="Spare motor")
    assert changed(ORIGIN, with_parts(spare, PACK)) == (
        VariantChange(KIND.WITHOUT, "Motor"),
        VariantChange(KIND.WITH, "Spare motor"),
    )
    heavier = replace(MOTOR, stated_g=60.0)
    assert changed(ORIGIN, with_parts(heavier, PACK)) == (
        VariantChange(KIND.MADE_OTHERWISE, "Motor"),
    )
    forward = replace(PACK, station=Station(138.0))
    assert changed(ORIGIN, with_parts(MOTOR, forward)) == (
        VariantChange(KIND.MOVED, "Pack", by_mm=-12.0),
    )
    higher = replace(PACK, station=Station(150.0, z_mm=20.0))
    assert changed(ORIGIN, with_parts(MOTOR, higher))[0].kind is KIND.PLACED_OTHERWISE
    nowhere = with_parts(MOTOR, replace(PACK, station=None))
    assert changed(nowhere, ORIGIN)[0].kind is KIND.PLACED
    blue = replace(MOTOR, colour=Colour.BLUE, station=Station(25.0))
    assert changed(ORIGIN, with_parts(blue, PACK)) == (
        VariantChange(KIND.MOVED, "Motor", by_mm=5.0),
        VariantChange(KIND.COLOURED, "Motor", colour=Colour.BLUE),
    )


def test_what_is_set_for_all_of_it_is_told_by_its_kind():
    other = replace(ORIGIN, targets=(Target(TargetKind.AUW, high=500.0),), thrust=Thrust(400.0))
    assert [each.kind for each in changed(ORIGIN, other)] == [KIND.TARGETS, KIND.THRUST]


def test_by_what_share_a_variant_is_more_and_how_slowly_it_flies():
    camera = replace(MOTOR, id="camera", name="Camera", stated_g=37.5)
    variant = with_parts(MOTOR, PACK, camera)
    told = compared(ORIGIN, variant, assess(variant), assess(ORIGIN))
    by_kind = dict(zip((each.kind for each in told.loadouts[0].answers), told.shares, strict=True))
    assert by_kind[TargetKind.AUW] == pytest.approx(0.25)
    assert by_kind[TargetKind.WING_LOADING] == pytest.approx(0.25)
    first = compared(ORIGIN, ORIGIN, assess(ORIGIN), assess(ORIGIN))
    assert set(first.shares) <= {0.0, None}
    assert told.stall_m_s == pytest.approx(first.stall_m_s * 1.25**0.5)


def test_a_long_list_is_cut_and_says_how_many_more():
    parts = tuple(replace(MOTOR, id=f"m{k}", name=f"M {k}") for k in range(MOST_CHANGES + 3))
    variant = with_parts(MOTOR, PACK, *parts)
    told = compared(ORIGIN, variant, assess(variant), assess(ORIGIN))
    assert (len(told.changes), told.more) == (MOST_CHANGES, 3)
    itself = compared(ORIGIN, ORIGIN, assess(ORIGIN), assess(ORIGIN))
    assert (itself.changes, itself.more) == ((), 0)
