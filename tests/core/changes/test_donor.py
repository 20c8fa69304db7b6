"""A donor's weights as the first budget."""

import pytest

from oaken_scale.core.changes.donor import donor_parts, measured_by_donor
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Group
from oaken_scale.core.model.part_line import Units
from oaken_scale.core.model.reference_build import ReferencePart
from oaken_scale.core.model.target import Allotment

SCRAP = """
Left wing 92 g in Wing
Right wing 93,5 g in Wing

Motor 1 oz
Servos 2 x 9 g
Camera 38 g
Tape round the nose 6 g
Whatnot 4 g
Thing 3 g in control
"""


def test_a_scrap_of_cardboard_is_sorted_and_summed():
    parts = donor_parts(SCRAP)
    build = measured_by_donor(Build("b", "B"), "Old Plover", parts)
    assert build.budget.source == "as Old Plover weighs"
    assert build.budget.allotments == (
        Allotment(Group.FOAM, 185.5),
        Allotment(Group.JOINING, 6.0),
        Allotment(Group.POWER, 28.35),
        Allotment(Group.CONTROL, 21.0),
        Allotment(Group.PAYLOAD, 38.0),
        Allotment(Group.REST, 4.0),
    )
    assert build.reference_build.name == "Old Plover"
    assert build.reference_build.parts[0] == ReferencePart("Wing", 185.5)
    assert build.reference_build.auw_g == pytest.approx(sum(part.grams for part in parts), abs=0.01)
    assert [part.name for part in parts if not part.is_sorted] == ["Whatnot"]


def test_what_was_weighed_is_called_by_its_name():
    told = donor_parts("Motor 28 g weighed\n9g servo x2")
    assert [(part.name, part.grams) for part in told] == [("Motor", 28.0), ("servo x2", 18.0)]


def test_ounces_where_they_are_meant():
    (part,) = donor_parts("Motor 1 oz", Units(mass="oz"))
    assert part.grams == pytest.approx(28.3495, abs=1e-3)


@pytest.mark.parametrize(
    ("lines", "field", "words"),
    [
        ("", "lines", "write a part on each line"),
        ("Motor 28 g\nWing", "lines.2", "say what"),
        ("Motor 28 g\n\nPanel 3 dm2 of sheet a", "lines.3", "no lot"),
        ("A 1 g\n" * 201, "lines", "at most 200"),
    ],
)
def test_what_is_not_understood_names_its_line(lines, field, words):
    with pytest.raises(BuildFaultError, match=words) as refused:
        donor_parts(lines)
    assert refused.value.faults[0].field == field
