"""What a validator found, said by the field that was sent and what would be right."""

import pytest
from pydantic import ValidationError

from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.formats.documents import ThrowDoc, over_limits
from oaken_scale.formats.wording import field_faults, unit_of


def found(*path, kind="greater_than", given=0, **context):
    return {"loc": path, "type": kind, "input": given, "ctx": context, "msg": "Value error, Odd"}


@pytest.mark.parametrize(
    ("path", "field"),
    [
        (("body", "throw", "distance_m"), "distance_m"),
        (("body", "note", "words"), "words"),
        (("body", "set_aside", "reason"), "reason"),
        (("body", "set_aside"), "set_aside"),  # a field of that name
        (("body", "box", "length_mm"), "length_mm"),
        (("body", "shape", "rectangle", "width_mm"), "shape.width_mm"),
        (("body", "cut_outs", 2, "shape", "ellipse", "width_mm"), "cut_outs.2.shape.width_mm"),
        (("body", "cuts", 0, "box", "left_mm"), "cuts.0.box.left_mm"),  # a field of that name
        (("body", "station", "nullable", "x_mm"), "station.x_mm"),
        (("body", "parts", 3, "function-after[odd(), Part]", "name"), "parts.3.name"),
        (("body",), "body"),
        ((), "body"),
    ],
)
def test_a_fault_names_the_field_as_it_was_sent(path, field):
    (fault,) = field_faults([found(*path, gt=0)], drop=("body",))
    assert fault.field == field


@pytest.mark.parametrize(
    ("kind", "given", "context", "says"),
    [
        ("greater_than", -1, {"gt": 0}, "is -1 mm; it should be more than 0 mm"),
        ("greater_than_equal", -1, {"ge": 5}, "is -1 mm; it should be at least 5 mm"),
        ("less_than_equal", 700, {"le": 600}, "is 700 mm; it should be at most 600 mm"),
        ("less_than", 700, {"lt": 600}, "is 700 mm; it should be less than 600 mm"),
        ("missing", None, {}, "is missing; it has to be given"),
        ("float_type", "wide", {}, "is 'wide'; it should be a plain number in mm"),
        ("int_type", 1.5, {}, "is 1.5 mm; it should be a whole number"),
        ("string_too_long", "x", {"max_length": 80}, "is too long; at most 80 characters"),
        ("too_long", [], {"max_length": 9}, "is too long; at most 9 entries"),
        ("extra_forbidden", 1, {}, "is not a field here; leave it out, or check its spelling"),
        ("value_error", 1, {}, "odd"),
        ("greater_than", 1e12, {"gt": 0}, "is 1000000000000.0; it should be more than 0 mm"),
        ("greater_than", True, {"gt": 0}, "is True; it should be more than 0 mm"),
    ],
)
def test_every_kind_of_fault_says_what_was_wrong_and_what_is_right(kind, given, context, says):
    (fault,) = field_faults([found("width_mm", kind=kind, given=given, **context)])
    assert fault.words == says


def test_a_figure_without_a_unit_stands_alone():
    (fault,) = field_faults([found("count", given=-2.5, gt=0)])
    assert fault.words == "is -2.5; it should be more than 0"
    assert [unit_of(each) for each in ("area_dm2", "x_mm", "thrust_gf", "stated_g", "name")] == [
        "dm2",
        "mm",
        "gf",
        "g",
        "",
    ]


def test_what_is_sent_at_length_is_not_said_at_length():
    (fault,) = field_faults([found("name", kind="string_pattern_mismatch", given="x" * 500)])
    assert len(fault.words) < 220


def test_what_is_over_its_limits_is_found_whichever_way_it_came():
    assert over_limits(Part("p", "Part", Pedigree.GUESS, stated_g=5000.0)) == ()
    (fault,) = over_limits(Part("p", "Part", Pedigree.GUESS, stated_g=5000.5))
    assert (fault.field, fault.words) == ("stated_g", "is 5000.5 g; it should be at most 5000 g")
    (fault,) = over_limits(Part("no id", "Part", Pedigree.GUESS))
    assert fault.field == "id"
    with pytest.raises(ValidationError):
        ThrowDoc.model_validate({"id": "t", "at": "2026-03-07T09:00:00Z", "distance_m": 301})
