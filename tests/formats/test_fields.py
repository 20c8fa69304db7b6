"""Single values as files and requests carry them: what is nothing is nothing everywhere."""

from math import nextafter
from typing import Annotated

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import TypeAdapter, ValidationError

from oaken_scale.formats.fields import NOTHING, number
from tests.api.asking import problem

SIGNED = TypeAdapter(Annotated[float, number(ge=-5, le=5)])
ABOVE = TypeAdapter(Annotated[float, number(gt=0, le=5)])


@given(st.floats(-5, 5))
def test_a_figure_stays_as_it_is_unless_it_is_nothing(given_):
    kept = SIGNED.validate_python(given_)
    assert kept == (given_ if abs(given_) >= NOTHING else 0.0)


@pytest.mark.parametrize("nothing", [5e-324, 1e-300, nextafter(NOTHING, 0), 0.0, -1e-12])
def test_nothing_is_refused_where_nought_is(nothing):
    with pytest.raises(ValidationError, match="greater than 0"):
        ABOVE.validate_python(nothing)
    assert ABOVE.validate_python(NOTHING) == NOTHING


@pytest.mark.parametrize("wrong", ["1", True, None, float("nan"), float("inf"), 5.1, -5.1])
def test_the_range_of_a_plain_finite_number(wrong):
    with pytest.raises(ValidationError):
        SIGNED.validate_python(wrong)
    assert SIGNED.json_schema() == {"type": "number", "minimum": -5, "maximum": 5}


def test_a_lot_that_weighs_nothing_is_refused_by_its_field(demo):
    at = "/api/v1/builds/dunlin"
    asked = demo.get(at)
    lots = asked.json()["build"]["lots"]
    lots[0]["constant"] = 5e-324
    match = {"If-Match": asked.headers["etag"]}
    kept = demo.patch(at, json={"lots": lots}, headers=match)
    assert problem(kept, "lots.0.constant", "more than 0")
    assert demo.get(f"{at}/forecast").status_code == 200
