"""What people type: "12,4", "0.44oz", "3 1/2 in". Read in one place, into base units."""

import math
import re
from dataclasses import dataclass
from typing import Final

OUNCE_G: Final = 28.349523125
"""One avoirdupois ounce [g]."""

INCH_MM: Final = 25.4
"""One inch [mm]."""

FOOT_DM: Final = 12 * INCH_MM / 100
"""One foot [dm]."""

FACTORS: Final[dict[str, dict[str, float]]] = {
    "mass": {"g": 1.0, "kg": 1000.0, "mg": 0.001, "oz": OUNCE_G, "lb": 16 * OUNCE_G},
    "length": {
        "mm": 1.0,
        "cm": 10.0,
        "m": 1000.0,
        "in": INCH_MM,
        "ft": 12 * INCH_MM,
    },
    "area": {
        "dm2": 1.0,
        "mm2": 1e-4,
        "cm2": 0.01,
        "m2": 100.0,
        "in2": INCH_MM**2 / 1e4,
        "ft2": (12 * INCH_MM) ** 2 / 1e4,
    },
    "run": {
        "m": 1.0,
        "mm": 0.001,
        "cm": 0.01,
        "in": INCH_MM / 1e3,
        "ft": 12 * INCH_MM / 1e3,
        "yd": 36 * INCH_MM / 1e3,
    },
    "thrust": {"gf": 1.0, "g": 1.0, "kgf": 1e3, "kg": 1e3, "oz": OUNCE_G}
    | {"lb": 16 * OUNCE_G, "n": 1e3 / 9.80665},
    "loading": {
        "g/dm2": 1.0,
        "kg/m2": 10.0,
        "oz/ft2": OUNCE_G / FOOT_DM**2,
        "g/m2": 0.01,
        "g/cm2": 100.0,
        "g/ft2": 1 / FOOT_DM**2,
        "g/in2": 144 / FOOT_DM**2,
        "oz/dm2": OUNCE_G,
        "oz/in2": 144 * OUNCE_G / FOOT_DM**2,
        "oz/yd2": OUNCE_G / (9 * FOOT_DM**2),
        "lb/ft2": 16 * OUNCE_G / FOOT_DM**2,
    },
    "per_run": {
        "g/m": 1.0,
        "oz/ft": OUNCE_G / (FOOT_DM / 10),
        "g/cm": 100.0,
        "g/ft": 10 / FOOT_DM,
        "g/in": 120 / FOOT_DM,
        "g/yd": 10 / (3 * FOOT_DM),
        "oz/m": OUNCE_G,
        "oz/in": 120 * OUNCE_G / FOOT_DM,
        "oz/yd": 10 * OUNCE_G / (3 * FOOT_DM),
    },
    "number": {"": 1.0, "%": 1.0},
    "pieces": {"": 1.0, "pcs": 1.0, "x": 1.0},
}
"""Each kind's units in its base unit, which stands first."""

FACTORS["station"] = FACTORS["length"]

SPELLINGS: Final[dict[str, str]] = {
    spelling: unit
    for unit, spellings in {
        "g": "gram grams gramme grammes gr gm gms",
        "kg": "kilogram kilograms kilo kilos",
        "oz": "ounce ounces ozs",
        "lb": "pound pounds lbs",
        "mm": "millimetre millimetres millimeter millimeters",
        "cm": "centimetre centimetres centimeter centimeters",
        "m": "metre metres meter meters",
        "in": 'inch inches ins "',
        "ft": "foot feet '",
        "yd": "yard yards yds",
        "pcs": "pc piece pieces",
        "n": "newton newtons",
    }.items()
    for spelling in spellings.split()
}
"""Units as they are written out, each by its own name."""

_SQUARE: Final = re.compile(r"(?<=[\d/])\s*(?:square|sq\.?)\s*(?P<unit>[a-z]+)", re.IGNORECASE)
_DOTTED: Final = re.compile(
    r"(?P<figure>[\d\"'/]\s*(?:in|ft|yd|oz|lbs?|kg|g|mm|cm|m)2?)\.(?!\S)", re.IGNORECASE
)
_PER: Final = re.compile(r"(?<=[a-z])\s*(?:/|\bper\b)\s*", re.IGNORECASE)
_IN_A_LINE: Final = re.compile(r"(?<=[\d½¼¾⅛⅜⅝⅞])[″”“′’‘½¼¾⅛⅜⅝⅞]|(?<!\S)[½¼¾⅛⅜⅝⅞]")
_PRINTED: Final = str.maketrans(
    {"″": '"', "”": '"', "“": '"', "′": "'", "’": "'", "‘": "'", "⁄": "/", "∕": "/"}
    | {"½": " 1/2", "¼": " 1/4", "¾": " 3/4", "⅛": " 1/8", "⅜": " 3/8", "⅝": " 5/8", "⅞": " 7/8"}
    | {"\u00a0": " ", "\u202f": " "}
)
"""What keyboards of phones and copied text write, as it is typed."""


def as_typed(text: str) -> str:
    """Text with its printed fractions, quotes and squares as they are typed on a keyboard.

    >>> as_typed("6½″ × 12 sq in")
    '6 1/2" × 12 in2'
    """
    typed = _PER.sub("/", text.translate(_PRINTED).replace("^2", "2"))
    return _squared(typed).strip()


def _squared(text: str) -> str:
    """ "12 sq. in." as "12 in2", and "oz/sq ft" as "oz/ft2"."""
    squared = _SQUARE.sub(
        lambda told: f"{'' if text[told.start() - 1] == '/' else ' '}{told['unit']}2", text
    )
    return _DOTTED.sub(r"\g<figure>", squared)


def figures_as_typed(line: str) -> str:
    """A line with its figures as they are typed on a keyboard, and its words as they were.

    >>> figures_as_typed("Pilot’s seat 6½″ of tape, 12 sq in")
    'Pilot’s seat 6 1/2" of tape, 12 in2'
    """
    typed = _IN_A_LINE.sub(lambda sign: sign[0].translate(_PRINTED), line)
    return _squared(typed)


def spellings_of(kind: str) -> list[str]:
    """All that the units of a kind are called.

    >>> "ounces" in spellings_of("mass"), "ft" in spellings_of("mass")
    (True, False)
    """
    units = FACTORS[kind]
    return [*units, *(typed for typed, unit in SPELLINGS.items() if unit in units)]


def unit_of(typed: str) -> str:
    """A unit by the name that it has here, "inches" as in; what is none as it was typed.

    >>> unit_of("Inches"), unit_of("feet2"), unit_of('"'), unit_of("furlong")
    ('in', 'ft2', 'in', 'furlong')
    >>> unit_of("ounces/foot2"), unit_of("gsm")
    ('oz/ft2', 'g/m2')
    """
    over, slash, under = typed.replace("²", "2").lower().partition("/")
    return "".join((_called(over), slash, _called(under))) if over != "gsm" else "g/m2"


def _called(unit: str) -> str:
    plain = unit.removesuffix("2")
    return SPELLINGS.get(plain, plain) + unit[len(plain) :]


SIGNED: Final = frozenset({"station"})
"""Kinds that may lie on either side of zero: forward of the nose, to port."""

NUMBER: Final = r"(?:\d+\s+)?\d+/\d+|\d+(?:[.,]\d*)?|[.,]\d+"
"""A number as it is typed: a decimal, a fraction, a whole and a fraction."""

_TERM = re.compile(
    rf"\s*(?P<number>{NUMBER})\s*(?P<unit>[a-z%\"'/]*(?:²|2(?![\d.,]*\s*[a-z\"']))?)", re.IGNORECASE
)
_TIMES = re.compile(r"\s*[x×*]\s*", re.IGNORECASE)
_COUNT = re.compile(r"[1-9]\d{0,3}")
_AREA = re.compile(r"[a-z](?:2|²)\s*$", re.IGNORECASE)
_LETTERS = re.compile(r"[a-z\"']+\s*$", re.IGNORECASE)
_LONGEST = 40

WHOLES: Final = ("sheet", "roll", "rod", "tube", "stick", "bottle")
"""What a lot comes in, one of it."""

_PARTS: Final = {
    "half": 1 / 2,
    "third": 1 / 3,
    "thirds": 1 / 3,
    "quarter": 1 / 4,
    "quarters": 1 / 4,
    "fifth": 1 / 5,
    "fifths": 1 / 5,
    "eighth": 1 / 8,
    "eighths": 1 / 8,
}
COUNTS: Final = {
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "seven": 7,
    "eight": 8,
    "nine": 9,
    "ten": 10,
    "twelve": 12,
}
"""Counts that are said in words."""

_COUNTS: Final = {"a": 1, "an": 1, "one": 1} | COUNTS
SHARE: Final = (
    rf"(?:(?:(?:{'|'.join(_COUNTS)})\s+)?(?:{'|'.join(_PARTS)})|{'|'.join(_COUNTS)}|{NUMBER})?"
    rf"\s*(?:of\s+)?(?:an?\s+|one\s+|the\s+)?(?:{'|'.join(WHOLES)})s?"
)
"""A share of one, as it is said: "2/3 sheet", "two thirds of a sheet", "half a roll"."""

_SHARE: Final = re.compile(SHARE, re.IGNORECASE)


class QuantityError(ValueError):
    """Text that is no quantity of its kind; the message says what would be."""


@dataclass(frozen=True, slots=True)
class Quantity:
    """A number in the base unit of its kind, and how it was understood."""

    value: float
    unit: str


def parse(
    text: str, kind: str, default_unit: str | None = None, whole: float | None = None
) -> Quantity:
    """Read a quantity that somebody typed, into the base unit of its kind.

    ``default_unit`` is meant where no unit is typed (None: the base unit). One decimal mark,
    point or comma; fractions; units may follow each other, as in "1 lb 2 oz". An area may be typed
    as the two sides of a rectangle, in mm unless they say otherwise.

    An area, a run or pieces may be a share of one sheet, roll or rod, which is ``whole`` in the
    base unit.

    Raises QuantityError in words that say what was wrong and what would be right.

    >>> parse("12,4", "mass").value
    12.4
    >>> round(parse("0.44oz", "mass").value, 3)
    12.474
    >>> round(parse("3 1/2 in", "length").value, 6)
    88.9
    >>> round(parse("540 x 190", "area").value, 6), round(parse("54 x 19 cm", "area").value, 6)
    (10.26, 10.26)
    >>> parse("1/4", "length", "in").value, parse("-8", "station").value
    (6.35, -8.0)

    Sums, and so many of one:

    >>> round(parse("101 + 53.4", "mass").value, 6), parse("2 x 9 g + 1 g", "mass").value
    (154.4, 19.0)

    >>> round(parse("two thirds of a sheet", "area", whole=35.0).value, 3)
    23.333
    """
    factors = FACTORS[kind]
    base = next(iter(factors))
    fallback = (default_unit or base).lower()
    example = f"like 12.4 {base}".strip()
    given = as_typed(text)
    if not given:
        raise QuantityError(f"nothing typed; give a number, {example}")
    if len(given) > _LONGEST:
        raise QuantityError(f"too long for a number; give one {example}")
    made = _made_of(given, kind, default_unit, whole)
    if made is not None:
        return Quantity(made, base)
    sign = -1.0 if given.startswith(("-", "−")) else 1.0
    if sign < 0 and kind in SIGNED:
        given = given[1:].lstrip()
    elif sign < 0:
        raise QuantityError(f'"{given}" is below zero; give a number above it, {example}')
    total, at = 0.0, 0
    while at < len(given):
        term = _TERM.match(given, at)
        if term is None or term.end() == at:
            raise QuantityError(f'"{given}" is not a number with a unit; give one {example}')
        unit = unit_of(term["unit"]) or fallback
        if unit not in factors:
            known = ", ".join(name for name in factors if name)
            raise QuantityError(f'"{term["unit"]}" is not a unit of {kind} here; use {known}')
        total += _number(term["number"]) * factors[unit]
        at = term.end()
        if at < len(given) and not term["unit"]:
            raise QuantityError(f'"{given}" is not one number with a unit; give one {example}')
    if not math.isfinite(total):
        raise QuantityError(f'"{given}" is too large; give a number {example}')
    return Quantity(sign * total, base)


def _made_of(given: str, kind: str, unit: str | None, whole: float | None) -> float | None:
    """A share of one, a sum, the sides of a rectangle, or so many of one; None for none of them."""
    if kind in ("area", "run", "pieces") and _SHARE.fullmatch(given):
        return _share_of(given, whole)
    terms = given.split("+")
    if len(terms) > 1 and all(term.strip() for term in terms):
        return sum(parse(term, kind, unit, whole).value for term in terms)
    sides = _TIMES.split(given)
    if kind == "area" and len(sides) == 2 and not _AREA.search(sides[1]):
        return _rectangle(sides[0], sides[1], (unit or "dm2").lower())
    if len(sides) == 2 and _COUNT.fullmatch(sides[0].strip()) and sides[1].strip():
        return int(sides[0]) * parse(sides[1], kind, unit).value
    return None


def _share_of(text: str, whole: float | None) -> float:
    """So many of one, or a share of it, in the base unit."""
    if whole is None:
        words = f'how much "{text}" is nobody said: give its size on the Rack, or the figure itself'
        raise QuantityError(words)
    number = re.match(NUMBER, text)
    if number:
        return _number(number.group()) * whole
    said = text.lower().split()
    part = next((_PARTS[word] for word in said if word in _PARTS), 1.0)
    return _COUNTS.get(said[0], 1) * part * whole


def _rectangle(one: str, other: str, area_unit: str) -> float:
    """Area of a rectangle from its sides [dm2]; a unit after the last side holds for both."""
    usual = "in" if area_unit in ("in2", "ft2") else "mm"
    unit = _LETTERS.search(other)
    shared = unit.group() if unit else usual
    return parse(one, "length", shared).value * parse(other, "length", shared).value / 1e4


def _number(text: str) -> float:
    """A decimal, a fraction, or a whole number and a fraction."""
    whole, _, fraction = text.strip().rpartition(" ")
    if "/" not in text:
        return float(text.replace(",", "."))
    over, under = fraction.split("/")
    if int(under) == 0:
        raise QuantityError(f'"{text.strip()}" divides by zero')
    return (float(whole.replace(",", ".")) if whole.strip() else 0.0) + int(over) / int(under)
