import contextlib
import json
from copy import deepcopy
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.build_file import dump, load, schema
from tests.benches import case_l, random_build, reading

DOCS = Path(__file__).parents[2] / "docs"


@given(st.integers(0, 1000))
@settings(max_examples=20, deadline=None)
def test_a_build_written_and_read_back_is_the_same(seed):
    build = random_build(seed, parts=8, readings=6)
    assert load(dump(build).encode()) == build


def test_the_demo_survives_and_fits_the_schema():
    text = dump(sandpiper())
    assert load(text.encode()) == sandpiper()
    jsonschema.validate(json.loads(text), json.loads(schema()))


def test_the_published_schema_is_the_one_in_force():
    assert (DOCS / "build.schema.json").read_text() == schema()


def test_a_file_needs_little():
    little = {
        "format": "oaken-scale/build",
        "version": 2,
        "build": {
            "name": "Little",
            "parts": [{"id": "motor", "name": "Motor", "pedigree": "listing", "stated_g": 28}],
        },
    }
    build = load(json.dumps(little).encode())
    assert build.parts[0].stated_g == 28.0
    jsonschema.validate(little, json.loads(schema()))


GOOD = json.loads(dump(case_l((reading(1, 90.2, "wing"),))))


def changed(path: str, value) -> bytes:
    """The good file with one value changed; DROP takes it away."""
    document = deepcopy(GOOD)
    *way, last = path.split(".")
    at = document
    for step in way:
        at = at[int(step) if step.isdigit() else step]
    key = int(last) if last.isdigit() else last
    if value is DROP:
        del at[key]
    else:
        at[key] = value
    return json.dumps(document).encode()


DROP = object()
PAN_LOAD = "build.weighings.0.pan.loads.0"


@pytest.mark.parametrize(
    ("path", "value", "field", "says"),
    [
        ("version", 3, "version", "newer Oaken Scale"),
        ("version", "one", "version", "should be 2"),
        ("version", True, "version", "should be 2"),
        ("format", "something-else", "format", "oaken-scale/build"),
        ("build.name", DROP, "build.name", "missing"),
        ("build.name", "", "build.name", "has to be given"),
        ("build.colour", "red", "build.colour", "not a field here"),
        ("build.parts.3.stated_g", 50_000, "build.parts.3.stated_g", "at most 5000 g"),
        ("build.parts.3.stated_g", "28 g", "build.parts.3.stated_g", "plain number in g"),
        ("build.parts.3.stated_g", float("nan"), "build.parts.3.stated_g", "finite number in g"),
        ("build.parts.3.stated_g", float("inf"), "build.parts.3.stated_g", "finite number in g"),
        ("build.parts.3.stated_g", -28, "build.parts.3.stated_g", "at least 0 g"),
        ("build.parts.3.doubt_g", -1, "build.parts.3.doubt_g", "at least 0 g"),
        ("build.parts.0.pedigree", "rumour", "build.parts.0.pedigree", "should be 'guess'"),
        ("build.parts.0.uses.0.lot", "sheet-z", "build.parts.0.uses.0.lot", "no lot"),
        ("build.parts.1.id", "wing", "build.parts.1", "there twice"),
        ("build.parts.0.id", "a b", "build.parts.0.id", "letters, digits"),
        ("build.scales.0.step_g", 0, "build.scales.0.step_g", "at least 0.0001 g"),
        ("build.weighings.0.reading_g", 0, "build.weighings.0.reading_g", "more than 0 g"),
        ("build.weighings.0.reading_g", -3.2, "build.weighings.0.reading_g", "more than 0 g"),
        ("build.weighings.0.at", "2026-03-07T09:30:00", "build.weighings.0.at", "time zone"),
        ("build.weighings.0.at", "0001-01-01T00:00:00Z", "build.weighings.0.at", "2000"),
        ("build.weighings.0.pan.loads", [], "build.weighings.0.pan", "empty"),
        (PAN_LOAD + ".part", "x", PAN_LOAD + ".part", "no part"),
        (PAN_LOAD + ".count", 0, PAN_LOAD + ".count", "more than 0"),
        ("build.lots.0.constant", 0, "build.lots.0.constant", "more than 0"),
    ],
)
def test_what_is_wrong_is_named_with_what_would_be_right(path, value, field, says):
    with pytest.raises(BuildFaultError) as caught:
        load(changed(path, value))
    named = {fault.field: fault.words for fault in caught.value.faults}
    assert field in named
    assert says in named[field]


@pytest.mark.parametrize(
    "data",
    [b"", b"\xff\xfe", b"[]", b"null", b"{", b"[" * 100_000, b'"build"', b"12"],
)
def test_what_is_no_file_is_said_so(data):
    with pytest.raises(BuildFaultError) as caught:
        load(data)
    assert caught.value.faults[0].field in ("file", "format")


@given(
    st.recursive(
        st.none() | st.booleans() | st.floats() | st.text(max_size=8),
        lambda inner: (
            st.lists(inner, max_size=3)
            | st.dictionaries(
                st.sampled_from(["name", "parts", "lots", "id", "uses", "scales", "x"]),
                inner,
                max_size=4,
            )
        ),
        max_leaves=12,
    )
)
@settings(max_examples=150, deadline=None)
def test_anything_at_all_is_read_or_refused(build):
    data = json.dumps({"format": "oaken-scale/build", "version": 2, "build": build}).encode()
    with contextlib.suppress(BuildFaultError):
        assert load(data).name
