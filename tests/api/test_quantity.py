from importlib.metadata import version

import pytest

from oaken_scale.core.model.quantity import FACTORS
from tests.api.asking import problem


def ask(client, text, kind, unit=None):
    params = {"text": text, "kind": kind} | ({"unit": unit} if unit else {})
    return client.get("/api/v1/quantity", params=params)


@pytest.mark.parametrize(
    ("text", "kind", "unit", "value"),
    [
        ("12,4", "mass", None, 12.4),
        ("0.44oz", "mass", "g", 12.474),
        ("2", "mass", "oz", 56.699),
        ("3 1/2 in", "length", "mm", 88.9),
        ("-8", "station", "mm", -8.0),
        ("1 ft2", "area", "dm2", 9.2903),
    ],
)
def test_what_is_typed_is_understood_in_one_place(client, text, kind, unit, value):
    told = ask(client, text, kind, unit).json()
    assert told["value"] == pytest.approx(value, rel=1e-4)
    assert told["unit"] == next(iter(FACTORS[kind]))


@pytest.mark.parametrize(
    ("text", "kind", "unit", "field", "says"),
    [
        ("twelve", "mass", None, "text", "like 12.4 g"),
        ("-8", "length", None, "text", "below zero"),
        ("8 g", "length", None, "text", "not a unit of length"),
        ("8", "mass", "mm", "text", "not a unit of mass"),
        ("8", "colour", None, "kind", "should be"),
    ],
)
def test_what_is_not_is_answered_with_what_would_be(client, text, kind, unit, field, says):
    assert problem(ask(client, text, kind, unit), field, says)


def test_beginnings_tell_every_unit_that_may_be_typed(client):
    told = client.get("/api/v1/beginnings").json()
    assert told["version"] == version("oaken-scale")
    assert told["units"]["mass"]["oz"] == pytest.approx(28.3495, abs=1e-4)
    assert {each["id"] for each in told["layouts"]} >= {"tractor", "canard", "flying-wing"}
    assert all(each["wing_loading_high"] > 0 for each in told["purposes"])


def test_a_share_of_a_lot_of_the_build_and_of_the_rack(demo):
    def area(lot, **build):
        asked = {"text": "2/3 sheet", "kind": "area", "lot": lot, **build}
        return demo.get("/api/v1/quantity", params=asked)

    # A sheet of the demo is 700 by 500: 35 dm2.
    told = area("sheet-a", build="sandpiper").json()
    assert told["value"] == pytest.approx(23.3333, abs=1e-3)
    shelf = next(
        r["lot"] for r in demo.get("/api/v1/rack").json() if r["lot"]["id"] == "board-both"
    )
    size = shelf["length_mm"] * shelf["width_mm"] / 1e4
    assert area("rack:board-both").json()["value"] == pytest.approx(size * 2 / 3)
    assert "on the Rack" in area("kite", build="sandpiper").json()["detail"]
