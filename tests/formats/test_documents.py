"""Documents follow from the core's dataclasses: one declaration a field, whatever the field is."""

import typing
from dataclasses import dataclass, fields, is_dataclass
from datetime import datetime, timezone
from typing import Annotated

import pytest
from hypothesis import given, settings
from pydantic import TypeAdapter, ValidationError

from oaken_scale.core.model.balancing import BalanceCheck
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.declared import Id, Length, Moment, Name, Range
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Run
from oaken_scale.core.model.surface import Surface
from oaken_scale.core.model.weighing import Scale
from oaken_scale.formats import build_file
from oaken_scale.formats.fields import Document, document
from tests.declared import values


@dataclass(frozen=True, slots=True)
class Colour:
    """A colour, and how strong it is."""

    name: Name
    share: Annotated[float, Range(ge=0, le=1)] = 1.0


@dataclass(frozen=True, slots=True)
class Panel:
    """What is painted, and where to."""

    id: Id
    colour: Colour
    to_mm: tuple[float, float] = (0.0, 0.0)
    coats: Annotated[int, Range(ge=1, le=9)] = 1
    seen: Annotated[tuple[Id, ...], Length(2)] = ()
    at: Moment | None = None
    under: Colour = Colour("primer")


class PanelDoc(Document, of=Panel):
    pass


class PanelPatch(Document, of=Panel, only=("colour", "coats"), partial=True):
    pass


PANEL = {"id": "tip", "colour": {"name": "red"}}


def faults(document, **said):
    with pytest.raises(ValidationError) as error:
        document.model_validate({**PANEL, **said} if document is PanelDoc else said)
    return {".".join(map(str, each["loc"])): each["type"] for each in error.value.errors()}


def test_what_may_stand_in_a_field_is_what_its_dataclass_says():
    assert faults(PanelDoc, coats=0) == {"coats": "greater_than_equal"}
    assert faults(PanelDoc, coats=1.5) == {"coats": "int_type"}
    assert faults(PanelDoc, coats="2") == {"coats": "int_type"}
    assert faults(PanelDoc, colour={"name": "red", "share": 1.1}) == {
        "colour.share": "less_than_equal"
    }
    assert faults(PanelDoc, colour={"name": " "}) == {"colour.name": "string_pattern_mismatch"}
    assert faults(PanelDoc, seen=["a", "b", "c"]) == {"seen": "too_long"}
    assert faults(PanelDoc, to_mm=[1.0]) == {"to_mm": "too_short"}
    assert faults(PanelDoc, at="2026-05-01T10:00:00") == {"at": "timezone_aware"}
    assert faults(PanelDoc, at="1999-05-01T10:00:00Z") == {"at": "value_error"}
    assert faults(PanelDoc, paint="red") == {"paint": "extra_forbidden"}
    assert faults(PanelDoc, id=None) == {"id": "string_type"}


def test_it_reads_what_the_core_has_and_gives_it_back():
    panel = Panel("tip", Colour("red", 0.5), (1.0, 2.0), 2, ("a",), under=Colour("grey"))
    told = PanelDoc.model_validate(panel).model_dump()
    assert Panel(**{**told, "colour": Colour(**told["colour"]), "under": panel.under}) == panel
    assert PanelDoc.model_validate(PANEL).under.name == "primer"
    berlin = PanelDoc.model_validate({**PANEL, "at": "2026-05-01T10:00:00+02:00"})
    assert berlin.at == datetime(2026, 5, 1, 8, tzinfo=timezone.utc)  # noqa: UP017


def test_a_patch_has_the_fields_that_may_be_changed_and_none_is_wanted():
    assert PanelPatch.model_validate({"coats": 3}).model_fields_set == {"coats"}
    assert faults(PanelPatch, coats=10) == {"coats": "less_than_equal"}
    assert faults(PanelPatch, id="nose") == {"id": "extra_forbidden"}


def test_a_document_is_told_by_its_dataclass_and_stands_once():
    assert PanelDoc.__doc__ == "What is painted, and where to."
    assert document(Panel) is PanelDoc
    with pytest.raises(TypeError, match="has its document already"):

        class Again(Document, of=Panel):
            pass


def dataclasses_within(kind, known):
    """A dataclass, and all that its fields are made of."""
    if not (isinstance(kind, type) and is_dataclass(kind)) or kind in known:
        for inner in typing.get_args(kind):
            dataclasses_within(inner, known)
        return known
    known.append(kind)
    for hint in typing.get_type_hints(kind, include_extras=True).values():
        dataclasses_within(hint, known)
    return known


@pytest.mark.parametrize("kind", dataclasses_within(Build, []), ids=lambda kind: kind.__name__)
def test_every_field_of_a_build_is_in_its_file(kind):
    made_of = build_file.BuildDoc if kind is Build else document(kind)
    assert list(made_of.model_fields) == [each.name for each in fields(kind)]
    for name, field in made_of.model_fields.items():
        if field.annotation in (float, int, str):
            assert field.metadata, f"{kind.__name__}.{name} says nothing of what may stand in it"


@pytest.mark.parametrize("kind", [Part, Lot, Surface, Scale, BalanceCheck, Run, Throw, Joint])
def test_whatever_is_declared_passes_its_document_and_comes_back(kind):
    @given(values(kind))
    @settings(max_examples=25, deadline=None)
    def law(value):
        text = document(kind).model_validate(value).model_dump_json()
        again = document(kind).model_validate_json(text)
        assert TypeAdapter(kind).validate_python(again.model_dump()) == value

    law()


def test_a_part_is_refused_by_the_range_that_its_dataclass_has():
    said = {"id": "wing", "name": "Wing", "pedigree": "guess", "pieces": 1001}
    with pytest.raises(ValidationError, match="less than or equal to 1000"):
        document(Part).model_validate(said)
    assert document(Part).model_validate({**said, "pieces": 4}).pedigree is Pedigree.GUESS
