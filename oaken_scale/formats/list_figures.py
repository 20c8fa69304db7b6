"""Figures in a builder's own list, as the file as a whole writes them."""

import re
from collections.abc import Iterable

from oaken_scale.core.model.quantity import QuantityError, parse


def is_comma_decimal(figures: Iterable[str]) -> bool:
    """Whether commas stand before the tenths in the figures of a file. Where they may as well stand
    before the hundreds ("1,234") they do so only beside points: few parts weigh a kilogram.

    >>> is_comma_decimal(["28,5", "9"]), is_comma_decimal(["28.5", "1,234.0"])
    (True, False)
    """
    figures = list(figures)
    commas = sum(bool(re.search(r"\d,\d{1,2}(\D|$)|\b0,\d", each)) for each in figures)
    points = sum(bool(re.search(r"\d\.\d{1,2}(\D|$)|\b0\.\d", each)) for each in figures)
    if not any("." in each for each in figures):
        return any("," in each for each in figures)
    return commas > points


def figure(text: str, kind: str, unit: str | None, is_comma: bool) -> float | None:
    """A figure in a unit, where it names none itself, in the base unit of its kind; None for an
    empty cell. Raises QuantityError.

    >>> figure("28,5", "mass", "g", is_comma=True), figure("–", "mass", "g", is_comma=True)
    (28.5, None)
    """
    if not text or text in ("-", "–", "?"):
        return None
    if is_comma:
        text = re.sub(r"(?<=\d)\.(?=\d{3}(\D|$))", "", text)
    else:
        text = re.sub(r"(?<=\d),(?=\d{3}(\D|$))", "", text)
    sign = -1.0 if text[:1] in "-−" else 1.0
    value = parse(text.lstrip("-−"), kind, unit).value
    if sign < 0 and kind == "mass":
        raise QuantityError("is below zero")
    return sign * value


def pieces(text: str) -> int:
    """How many pieces a cell counts, from one to a thousand; one where it is empty. Raises
    QuantityError.

    >>> pieces("2.0"), pieces("2.6"), pieces(""), pieces("5000")
    (2, 3, 1, 1000)
    """
    if not text:
        return 1
    return max(1, min(round(parse(text.removesuffix(".0"), "pieces").value), 1000))
