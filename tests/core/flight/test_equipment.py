"""What a plane carries besides its airframe: thrown or driven, with a pack or without."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.flight.equipment import Equipment, equipment, is_thrown, packs_at_once
from oaken_scale.core.flight.verdict import Missing
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.power import Motor, Power
from oaken_scale.core.model.target import Target, TargetKind, Thrust

THROWN = Build("b", "B", purpose="glider")


def part(group: Group) -> Part:
    return Part(group.value, group.value, Pedigree.LISTING, stated_g=10.0, group=group)


@pytest.mark.parametrize(
    ("groups", "carries"),
    [
        ((), Equipment(thrown=True, drive=False, pack=False, controls=False)),
        ((Group.FOAM,), Equipment(thrown=True, drive=False, pack=False, controls=False)),
        ((Group.CONTROL,), Equipment(thrown=True, drive=False, pack=False, controls=True)),
        # A receiver's battery drives nothing, and is a pack.
        ((Group.POWER,), Equipment(thrown=True, drive=True, pack=True, controls=True)),
    ],
)
def test_what_is_thrown_carries_what_is_aboard(groups, carries):
    assert equipment(THROWN, [part(group) for group in groups]) == carries


@pytest.mark.parametrize(
    ("parts", "drive", "controls"), [((), False, False), ((Group.CONTROL,), False, True)]
)
def test_any_other_plane_is_to_fly_with_a_pack(parts, drive, controls):
    carries = equipment(replace(THROWN, purpose="park"), [part(group) for group in parts])
    assert carries == Equipment(thrown=False, drive=drive, pack=True, controls=controls)


@pytest.mark.parametrize(
    "said",
    [
        {"purpose": "sailplane"},
        {"purpose": ""},
        {"thrust": Thrust(60.0)},
        {"power": Power(Motor(1400.0, 30.0))},
        {"targets": (Target(TargetKind.THRUST_TO_WEIGHT, low=0.3),)},
        {"parts": (Part("m", "Motor, 10 g", Pedigree.LISTING, stated_g=10.0),)},
        {"targets": (Target(TargetKind.POWER_LOADING, low=60.0),)},
    ],
)
def test_a_motor_that_is_meant_is_a_motor(said):
    assert is_thrown(THROWN)
    assert is_thrown(replace(THROWN, targets=(Target(TargetKind.AUW, high=60.0),)))
    gone = Part("m", "Motor", Pedigree.LISTING, stated_g=10.0, retired=True)
    mount = Part("p", "Motor mount", Pedigree.LISTING, stated_g=2.0)
    assert is_thrown(replace(THROWN, parts=(gone, mount)))
    assert not is_thrown(replace(THROWN, **said))


@pytest.mark.parametrize(("purpose", "missing"), [("glider", "motor"), ("park", "thrust")])
def test_what_has_no_motor_lacks_no_thrust(purpose, missing):
    told = assess(replace(THROWN, purpose=purpose, parts=(part(Group.FOAM),)))
    (answer,) = (
        each for each in told.loadouts[0].answers if each.kind is TargetKind.THRUST_TO_WEIGHT
    )
    assert answer.missing is Missing(missing)
    assert told.carries == equipment(replace(THROWN, purpose=purpose), [part(Group.FOAM)])


def test_a_hurt_propeller_or_pack_is_never_mended():
    names = ("Prop 5 x 3", "Pack, 2-cell 300", "Motor", "Pack tray", "Wing")
    parts = tuple(Part(name, name, Pedigree.GUESS, stated_g=5.0) for name in names)
    told = assess(replace(THROWN, parts=parts))
    assert told.never_mended == names[:2]


def packs(*names: str, **more) -> tuple[Part, ...]:
    return tuple(Part(name, name, Pedigree.LISTING, stated_g=90.0, **more) for name in names)


@pytest.mark.parametrize(
    ("parts", "loadouts", "at_once"),
    [
        (packs("3S 1300", "3S 850", "Motor"), (), ("3S 1300", "3S 850")),
        (packs("3S 1300", "Receiver pack", "Pack tray"), (), ()),
        (packs("Left pack", "Right pack"), (), ()),
        (packs("Left pack", "Right pack", "Middle pack"), (), ("Left pack", "Middle pack")),
        ((*packs("3S 1300"), *packs("3S 850", retired=True)), (), ()),
        (packs("3S 1300", "3S 850", option=True), (Loadout("a", "A", ("3S 850",)),), ()),
        (
            (*packs("3S 1300"), *packs("3S 850", option=True)),
            (Loadout("a", "A"), Loadout("b", "B", ("3S 850",))),
            ("3S 1300", "3S 850"),
        ),
    ],
)
def test_packs_that_fly_at_once_are_named_but_for_twins(parts, loadouts, at_once):
    build = Build("b", "B", parts=parts, loadouts=loadouts)
    assert assess(build).packs_at_once == packs_at_once(build) == at_once
