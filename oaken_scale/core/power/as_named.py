"""What names say of a drive's things: cells, capacity, Kv, amperes, diameter by pitch."""

import re
from math import inf
from typing import Any, Final, get_args

from oaken_scale.core.model.declared import (
    Amperes,
    Capacity,
    Cells,
    Diameter,
    Kv,
    Pitch,
    Range,
    Rating,
)
from oaken_scale.core.model.quantity import INCH_MM

_CELLS: Final = re.compile(r"(?<![\d.,])(\d{1,2})\s*-?\s*(?:cells?\b|s(?![a-z]))", re.IGNORECASE)
_CAPACITY: Final = re.compile(r"(?<![\d.,])(\d{3,5})(?![\d.,]*\d)(?!\s*(?:kv|rpm))", re.IGNORECASE)
_RATING: Final = re.compile(r"(?<![\d.,])(\d{1,3})\s*C\b")
_AMPERES: Final = re.compile(r"(?<![\d.,])(\d{1,3})\s*(?:a|amps?|amperes?)\b", re.IGNORECASE)
_KV: Final = re.compile(r"(?<![\d.,])(\d{3,5})\s*(?:kv|rpm)|\bkv\s*(\d{3,5})", re.IGNORECASE)
_SIZE: Final = re.compile(
    r"(?<![\d.,])(\d{1,3}(?:[.,]\d+)?)\s*(?:x|×|\*|by)\s*(\d{1,3}(?:[.,]\d+)?)\s*(mm\b)?",
    re.IGNORECASE,
)


def cells_named(name: str) -> int | None:
    """How many cells a pack's name says that it has, in series.

    >>> cells_named("Pack, 3-cell 1300"), cells_named("4S 2200"), cells_named("Pack 1300")
    (3, 4, None)
    """
    found = _CELLS.search(name)
    return int(found[1]) if found and _may_be(int(found[1]), Cells) else None


def capacity_named(name: str) -> float | None:
    """What a pack's name says that it holds [mAh].

    >>> capacity_named("3-cell 1300"), capacity_named("2s 450mAh"), capacity_named("3-cell")
    (1300.0, 450.0, None)
    """
    found = _CAPACITY.search(name)
    return float(found[1]) if found and _may_be(int(found[1]), Capacity) else None


def rating_named(name: str) -> float | None:
    """How many times its capacity a pack's name says that it gives in an hour.

    >>> rating_named("3-cell 1300 25C"), rating_named("3-cell 1300")
    (25.0, None)
    """
    found = _RATING.search(name)
    return float(found[1]) if found and _may_be(int(found[1]), Rating) else None


def amperes_named(name: str) -> float | None:
    """What a controller's name says that it stands [A].

    >>> amperes_named("ESC 40 A"), amperes_named("Speed controller 20A"), amperes_named("ESC")
    (40.0, 20.0, None)
    """
    found = _AMPERES.search(name)
    return float(found[1]) if found and _may_be(int(found[1]), Amperes) else None


def kv_named(name: str) -> float | None:
    """The Kv that a motor's name says [rpm/V].

    >>> kv_named("Motor 1400 rpm/V"), kv_named("2204, Kv 2300"), kv_named("Motor 2204")
    (1400.0, 2300.0, None)
    """
    found = _KV.search(name)
    kv = int(found[1] or found[2]) if found else 0
    return float(kv) if _may_be(kv, Kv) else None


def size_named(name: str) -> tuple[float, float] | None:
    """Diameter and pitch that a propeller's name says [mm]: in inches, unless it says mm.

    >>> size_named("Propeller 8 x 4.5"), size_named("200 by 100 mm"), size_named("Propeller")
    ((203.2, 114.3), (200.0, 100.0), None)
    """
    found = _SIZE.search(name)
    if found is None:
        return None
    diameter, pitch = (float(each.replace(",", ".")) for each in found.groups()[:2])
    unit = 1.0 if found[3] else INCH_MM
    size = round(diameter * unit, 1), round(pitch * unit, 1)
    return size if _may_be(size[0], Diameter) and _may_be(size[1], Pitch) else None


def _may_be(value: float, declared: Any) -> bool:
    """Whether a figure lies in the range of what it would be."""
    (among,) = (each for each in get_args(declared) if isinstance(each, Range))
    return (among.ge or 0.0) <= value <= (among.le or inf)
