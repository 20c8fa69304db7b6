"""A list's masses, of each piece or of all of a line, as its own sums say; each by hand [g]."""

import pytest

from oaken_scale.core.model.build import Build
from oaken_scale.formats.parts_columns import Field
from oaken_scale.formats.parts_list import cells, preview

ALL, EACH = Field.MASS, Field.MASS_EACH
LISTS = {
    "a sum of each": ("Part;Qty;Weight\nServo;2;9,0\nMotor;1;28\nSumme;;46\n", EACH, [18, 28]),
    "a sum of all": ("Part;Qty;Weight\nServo;2;18,0\nMotor;1;28\nSumme;;46\n", ALL, [18, 28]),
    "a sum of neither": ("Part;Qty;Weight\nServo;2;9\nMotor;1;28\nSumme;;99\n", ALL, [9, 28]),
    "no sum": ("Part,Weight,Qty\nServo,9,2\nMotor,28,1\n", ALL, [9, 28]),
    "a sum below a second list": (
        "Part,Weight,Qty\nServo,9,2\nSubtotal,18,\nMotor,28,1\nTotal,99,\n",
        EACH,
        [18, 28],
    ),
    "a sum without pieces of which there are more": (
        "Part,Weight,Qty\nServo,9,1\nMotor,28,1\nTotal,37,\n",
        ALL,
        [9, 28],
    ),
    "rounded by who added it up": (
        "Part,Weight,Qty\nServo,8.98,4\nMotor,28.04,1\nTotal,64,\n",
        EACH,
        [35.92, 28.04],
    ),
    "rounded to a tenth": ("Part,Weight,Qty\nPin,1.23,2\nTip,2,1\nTotal,4.5,\n", EACH, [2.46, 2]),
    "a gram is missing": ("Part,Weight,Qty\nServo,9,2\nMotor,28,1\nTotal,47,\n", ALL, [9, 28]),
    "as well a sum of all": (
        "Part,Weight,Qty\nPin,0.05,2\nWing,199.9,1\nTotal,200,\n",
        ALL,
        [0.05, 199.9],
    ),
    "a second column of masses": ("Part,Weight,Qty,Grams\nServo,9,2,18\n", EACH, [18]),
    "a column of totals": ("Part,Weight,Qty,Total\nServo,9,2,18\nMotor,28,1,28\n", EACH, [18, 28]),
    "totals of another unit's name": (
        "Part,Weight (oz),Qty,Line total (oz)\nServo,0.32,2,0.64\n",
        EACH,
        [0.64 * 28.349523125],
    ),
    "totals that are not the product": (
        "Part,Weight,Qty,Total\nServo,9,2,18\nMotor,28,3,28\n",
        ALL,
        [9, 28],
    ),
    "prices": ("Part,Weight,Qty,Price\nServo,9,2,18\nMotor,28,1,28\n", ALL, [9, 28]),
    "each by its heading": ("Part,Weight each,Qty\nServo,9,2\nMotor,28,1\n", EACH, [18, 28]),
    "no figure where the total is": (
        "Part,Weight,Qty,Total\nServo,9,2,?\nMotor,28,1,28\n",
        ALL,
        [9, 28],
    ),
}


def masses(text: str, chosen=None) -> tuple[list[Field], list[float]]:
    read = preview(cells(text.encode()), Build("b", "B"), chosen)
    fields = [c.field for c in read.columns if c.field in (ALL, EACH)]
    return fields, [row.mass_g for row in read.rows if row.why_not is None]


@pytest.mark.parametrize("which", LISTS)
def test_what_adds_up_says_of_what_the_masses_are(which):
    text, field, grams = LISTS[which]
    assert masses(text) == ([field], pytest.approx(grams, abs=1e-9))


def test_what_the_builder_says_of_the_masses_stands():
    """Against the sum below them, either way."""
    text = "Part;Qty;Weight\nServo;2;9,0\nMotor;1;28\nSumme;;46\n"
    assert masses(text, {2: ALL}) == ([ALL], [9.0, 28.0])
    assert masses(text, {2: EACH}) == ([EACH], [18.0, 28.0])
    # Of another column nothing is said about the masses by it.
    assert masses(text, {1: Field.PIECES}) == ([EACH], [18.0, 28.0])


@pytest.mark.parametrize("heads", ["Unit weight,Qty,Total weight", "Weight each,Qty,Weight"])
def test_of_a_line_s_two_masses_that_of_all_counts_and_that_of_each_where_it_is_missing(heads):
    fields, grams = masses(f"Part,{heads}\nServo,9,2,18.4\nHorn,1.5,4,\n")
    assert fields == [EACH, ALL]
    assert grams == [18.4, 6.0]


def test_a_mass_of_each_that_is_not_understood_is_called_a_mass():
    (row,) = preview(cells(b"Part,Weight each,Qty\nServo,-9,2\n"), Build("b", "B")).rows
    assert (row.why_not.field, row.why_not.words) == ("mass", "is below zero")


def test_no_sum_says_of_each_what_stands_beside_a_mass_of_each():
    text = "Part,Weight each,Qty,Weight\nServo,9,2,18\nTotal,,,36\n"
    assert masses(text) == ([EACH, ALL], [18.0])
