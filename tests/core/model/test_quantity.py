import contextlib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.model.quantity import FACTORS, SIGNED, QuantityError, parse


@pytest.mark.parametrize(
    ("text", "kind", "default", "value"),
    [
        ("12.4", "mass", None, 12.4),
        ("12,4", "mass", None, 12.4),
        (" 0.44 oz ", "mass", None, 12.4738),
        ("1 lb 2 oz", "mass", None, 510.2914),
        (".5", "mass", "oz", 14.1748),
        ("3 1/2 in", "length", None, 88.9),
        ('3 1/2"', "length", None, 88.9),
        ("1' 6\"", "length", None, 457.2),
        ("19 cm", "length", None, 190.0),
        ("1 ft²", "area", None, 9.2903),
        ("250 cm2", "area", None, 2.5),
        ("10 oz/ft2", "loading", None, 30.5152),
        ("2.5kg/m2", "loading", None, 25.0),
        ("28 %", "number", None, 28.0),
        ("2 N", "thrust", None, 203.9432),
        ("1 lb 2 oz", "thrust", None, 510.2914),
        ("540 x 190", "area", None, 10.26),
        ("540×190 mm", "area", None, 10.26),
        ("54 * 19 cm", "area", None, 10.26),
        ("21 1/4 x 7,5 in", "area", None, 10.28223),
        ("20 x 30", "area", "ft2", 38.70960),
        ("1 ft x 6 in", "area", None, 4.64515),
        ('18" x 6 1/2"', "area", None, 7.548372),
        ("6½″", "length", None, 165.1),
        ("3′ 6″", "length", None, 1066.8),
        ("1’ ½”", "length", None, 317.5),
        ("3ft2in", "length", None, 965.2),
        ("12 inches", "length", None, 304.8),
        ("2 feet 3 inch", "run", None, 0.6858),
        ("36 in", "run", None, 0.9144),
        ("3'", "run", None, 0.9144),
        ("2 yards", "run", None, 1.8288),
        ("108 sq in", "area", None, 6.967728),
        ("2 square feet", "area", None, 18.580608),
        ("2 x 12 dm2", "area", None, 24.0),
        ("3 x 4 sq in", "area", None, 0.774192),
        ("1 ft2 20 in2", "area", None, 10.580624),
        ("1 pound 2 ounces", "mass", None, 510.2914),
        ("1lb2oz", "mass", None, 510.2914),
        ("28 grams", "mass", "oz", 28.0),
        ("¼ oz", "mass", None, 7.08738),
        ("4 pieces", "pieces", None, 4.0),
        ("6 in.", "length", None, 152.4),
        ("7.5 oz.", "mass", None, 212.621423),
        ("12 sq. in.", "area", None, 0.774192),
        ("18 in. x 6 in.", "area", None, 6.967728),
        ("12 oz/sq ft", "loading", None, 36.618208),
        ("12 ounces per square foot", "loading", None, 36.618208),
        ("10 oz/ft^2", "loading", None, 30.5152),
        ("80 gsm", "loading", None, 0.8),
        ("45 g / m²", "loading", "g/ft2", 0.45),
        ("42.7", "loading", "g/ft2", 4.596190),
        ("0.7 g/ft", "per_run", None, 2.296588),
        ("3 grams per metre", "per_run", "oz/ft", 3.0),
    ],
)
def test_what_people_type(text, kind, default, value):
    assert parse(text, kind, default).value == pytest.approx(value, rel=1e-5)


# By definition: the pound is 453.59237 g, the foot 304.8 mm, the newton what 101.97 gf weigh.
UNITS = {
    "mass": {"g": 1, "kg": 1000, "mg": 1e-3, "oz": 28.349523125, "lb": 453.59237},
    "length": {"mm": 1, "cm": 10, "m": 1000, "in": 25.4, "ft": 304.8},
    "area": {
        "dm2": 1,
        "mm2": 1e-4,
        "cm2": 1e-2,
        "m2": 100,
        "in2": 0.064516,
        "ft2": 9.290304,
    },
    "run": {"m": 1, "mm": 1e-3, "cm": 1e-2, "in": 0.0254, "ft": 0.3048, "yd": 0.9144},
    "thrust": {"gf": 1, "g": 1, "kgf": 1000, "kg": 1000, "oz": 28.349523125}
    | {"lb": 453.59237, "n": 101.9716213},
    "loading": {
        "g/dm2": 1,
        "kg/m2": 10,
        "oz/ft2": 3.051517,
        "g/m2": 0.01,
        "g/cm2": 100,
        "g/ft2": 0.107639104,
        "g/in2": 15.5000310,
        "oz/dm2": 28.349523125,
        "oz/in2": 439.418488,
        "oz/yd2": 0.339057466,
        "lb/ft2": 48.8242764,
    },
    "per_run": {
        "g/m": 1,
        "oz/ft": 93.01025,
        "g/cm": 100,
        "g/ft": 3.2808399,
        "g/in": 39.3700787,
        "g/yd": 1.0936133,
        "oz/m": 28.349523125,
        "oz/in": 1116.12296,
        "oz/yd": 31.0034154,
    },
    "number": {"": 1, "%": 1},
    "pieces": {"": 1, "pcs": 1, "x": 1},
}


def test_every_unit_is_worth_what_it_is_by_definition():
    assert {
        kind: {unit: pytest.approx(factor, rel=1e-6) for unit, factor in units.items()}
        for kind, units in {**UNITS, "station": UNITS["length"]}.items()
    } == FACTORS


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("", "nothing typed"),
        ("-3", "below zero"),
        ("twelve", "not a number"),
        ("1.2.3", "not one number"),
        ("12 stone", "not a unit of mass"),
        ("12 mm", "not a unit of mass"),
        ("1/0 g", "divides by zero"),
        ("9" * 39 + "9" * 5, "too long"),
        ("nan", "not a number"),
        ("1e5", "not a"),
    ],
)
def test_what_is_no_mass(text, says):
    with pytest.raises(QuantityError, match=says):
        parse(text, "mass")


@pytest.mark.parametrize("text", ["540 x", "x 190", "540 x 190 x 5", "540 x 190 g", "540 x -190"])
def test_what_is_no_rectangle(text):
    with pytest.raises(QuantityError):
        parse(text, "area")


@given(st.text(max_size=60), st.sampled_from(sorted(FACTORS)))
def test_any_text_is_read_or_refused_in_words(text, kind):
    with contextlib.suppress(QuantityError):
        assert parse(text, kind).value >= 0 or kind in SIGNED


@given(
    st.integers(0, 10**6).map(lambda n: n / 1000),
    st.sampled_from([(k, u) for k, units in FACTORS.items() for u in units if u not in ("", "'")]),
)
def test_units_in_and_out_agree(number, kind_unit):
    kind, unit = kind_unit
    assert parse(f"{number} {unit}", kind).value == pytest.approx(number * FACTORS[kind][unit])


@pytest.mark.parametrize(
    ("text", "of_one"),
    [
        ("2/3 sheet", 2 / 3),
        ("two thirds of a sheet", 2 / 3),
        ("1 1/2 sheets", 1.5),
        ("1,5 sheets", 1.5),
        ("half a roll", 0.5),
        ("a quarter of the rod", 0.25),
        ("Three quarters of one tube", 0.75),
        ("sheet", 1.0),
        ("two sheets", 2.0),
        ("half a sheet + 1 sheet", 1.5),
    ],
)
@pytest.mark.parametrize("kind", ["area", "run"])
def test_a_share_of_a_sheet(text, of_one, kind):
    assert parse(text, kind, whole=35.0).value == pytest.approx(35.0 * of_one)


def test_a_share_of_a_sheet_whose_size_nobody_said():
    with pytest.raises(QuantityError, match="give its size on the Rack"):
        parse("2/3 sheet", "area")
    with pytest.raises(QuantityError, match="not a unit of mass"):
        parse("2/3 sheet", "mass", whole=35.0)
    with pytest.raises(QuantityError, match="divides by zero"):
        parse("1/0 sheet", "area", whole=35.0)


SHARES = {
    "half": 0.5,
    "third": 0.333333333,
    "thirds": 0.333333333,
    "quarter": 0.25,
    "quarters": 0.25,
    "fifth": 0.2,
    "fifths": 0.2,
    "eighth": 0.125,
    "eighths": 0.125,
}
COUNTED = {"a": 1, "an": 1, "one": 1, "two": 2, "three": 3, "four": 4, "five": 5}


@pytest.mark.parametrize("whole", ["sheet", "roll", "rod", "tube", "stick", "bottle"])
@pytest.mark.parametrize(("count", "many"), COUNTED.items())
def test_every_count_of_every_share_of_every_whole(whole, count, many):
    for share, of_one in SHARES.items():
        told = parse(f"{count} {share} of a {whole}", "run", whole=24.0).value
        assert told == pytest.approx(24.0 * many * of_one), share
    assert parse(f"{count} {whole}s", "run", whole=24.0).value == pytest.approx(24.0 * many)
