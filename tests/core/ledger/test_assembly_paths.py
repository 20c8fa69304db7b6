"""An assembly is one, however its path was typed."""

from dataclasses import replace

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.core.changes.balance import held_alone
from oaken_scale.core.changes.listed import with_listed_parts
from oaken_scale.core.changes.typed_part import TypedPart, with_typed_part
from oaken_scale.core.ledger.assembly import lies_within
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.formats import build_file
from tests.benches import MORNING


def part(id: str, assembly: str, **more) -> Part:
    return Part(id, id.title(), Pedigree.GUESS, assembly, 10.0, **more)


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("Fuselage / Nose", "Fuselage/Nose"),
        (" Fuselage/Nose ", "Fuselage/Nose"),
        ("Fuselage//Nose/", "Fuselage/Nose"),
        ("Fuse lage", "Fuse lage"),
        (" / ", ""),
        ("", ""),
    ],
)
def test_an_assembly_is_kept_in_one_spelling_through_every_door(typed, kept):
    one = part("hatch", typed)
    assert one.assembly == kept
    assert replace(part("x", "Wing"), assembly=typed).assembly == kept
    build = Build("b", "B", parts=(one,))
    again = build_file.load(build_file.dump(build).encode())
    assert again.parts[0].assembly == kept
    listed = with_listed_parts(build, [replace(one, id="", name="HATCH", assembly=typed)])
    assert listed == build  # the same part of the same assembly
    line = TypedPart(f"Keel 5 g in {typed}" if typed.strip(" /") else "Keel 5 g", "")
    assert with_typed_part(build, line, (), MORNING).parts[-1].assembly == kept


def test_parts_of_one_assembly_are_added_up_together():
    parts = (part("a", "Fuselage/Nose"), part("b", "Fuselage / Nose"), part("c", "Fuselage "))
    told = {each.name: each.mass_g for each in assess(Build("b", "B", parts=parts)).assemblies}
    assert told == pytest.approx({"Fuselage": 30.0, "Fuselage/Nose": 20.0})
    assert [lies_within(each, " Fuselage / Nose") for each in parts] == [True, True, False]


def test_an_assembly_that_is_held_has_all_that_lies_in_it_and_flies():
    parts = (
        part("box", "Fuselage"),
        part("nose", "Fuselage/Nose"),
        part("old", "Fuselage/Nose", retired=True),
        part("camera", "Fuselage/Nose", option=True),
        part("wing", "Wing"),
    )
    build = Build("b", "B", parts=parts, loadouts=(Loadout("light", "Light"),))
    assert held_alone(build, "light", ("Fuselage",)) == ("box", "nose")
    assert held_alone(build, None, ("Fuselage/Nose", "Wing")) == ("nose", "camera", "wing")
    assert held_alone(build, None, ()) == ()
    with pytest.raises(BuildFaultError, match="aboard"):
        held_alone(build, None, ("Tail",))


@pytest.mark.parametrize(
    ("line", "assembly", "kept"),
    [
        ("Hatch 4 g in the nose", "", "Nose"),
        ("Hatch 4 g in the FUSELAGE", "", "Fuselage"),
        ("Hatch 4 g", "fuselage / bay", "Fuselage/Bay"),
        ("Hatch 4 g in fuselage/Tail", "", "Fuselage/Tail"),
        ("Hatch 4 g in bay", "", "bay"),
        ("Hatch 4 g", "", ""),
    ],
)
def test_a_line_joins_the_assembly_that_is_there_however_its_letters_are(line, assembly, kept):
    build = Build("b", "B", parts=(part("tray", "Fuselage/Bay"), part("old", "Nose", retired=True)))
    told = with_typed_part(build, TypedPart(line, assembly), (), MORNING)
    assert told.parts[-1].assembly == kept
