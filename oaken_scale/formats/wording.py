"""What a validator found, in the builder's words: the field, what was wrong, what is right."""

from collections.abc import Iterable
from typing import Any, Final

from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.faults.fault import Fact, Fault

MOST_SAID: Final = 1e9
"""A larger figure is nobody's, and is shown as it was sent."""

_UNITS: Final = (
    ("_dm2", "dm2"),
    ("_mm", "mm"),
    ("_gf", "gf"),
    ("_g", "g"),
)


def field_faults(errors: Iterable[Any], drop: tuple[str, ...] = ()) -> tuple[Fault, ...]:
    """Turn a validator's errors into faults; leading path parts in ``drop`` are left out."""
    found = []
    for error in errors:
        path = [str(part) for part in error["loc"]]
        while path and path[0] in drop:
            path.pop(0)
        path = _as_sent(path)
        text, facts = _said(path, error)
        found.append(Fault(".".join(path) or "body", text, facts))
    return tuple(found)


def unit_of(field: str) -> str:
    """The unit that a field's name carries; empty without one.

    >>> unit_of("stated_g"), unit_of("x_le_mm"), unit_of("count")
    ('g', 'mm', '')
    """
    return next((unit for ending, unit in _UNITS if field.endswith(ending)), "")


_PLAIN: Final = (
    "it may not be blank or hold control characters, and an id has letters, digits, - and _ only"
)
_PATTERNED: Final = {
    "port": "it should be a serial port like /dev/ttyUSB0 or COM3, or empty",
    "line": "it should be plain ASCII, like ST,GS,{reading} g",
}


_WANTED: Final = {
    "missing": "is missing; it has to be given",
    "extra_forbidden": "is not a field here; leave it out, or check its spelling",
    "string_too_short": "is empty; it has to be given",
    "timezone_aware": "has no time zone; write it like 2026-03-07T09:30:00Z",
}
_WANTED_OF: Final = {
    "float_type": "is {}; it should be a plain number",
    "float_parsing": "is {}; it should be a plain number",
    "int_type": "is {}; it should be a whole number",
    "int_from_float": "is {}; it should be a whole number",
    "finite_number": "is {}; it should be a finite number",
}
_LIMITS: Final = {
    "greater_than": ("is {}; it should be more than {}", "gt"),
    "greater_than_equal": ("is {}; it should be at least {}", "ge"),
    "less_than_equal": ("is {}; it should be at most {}", "le"),
    "less_than": ("is {}; it should be less than {}", "lt"),
    "enum": ("is {}; it should be {}", "expected"),
    "literal_error": ("is {}; it should be {}", "expected"),
}
_LENGTHS: Final = {
    "string_too_long": "is too long; at most {} characters",
    "too_long": "is too long; at most {} entries",
}


def _said(path: list[str], error: Any) -> tuple[str, tuple[Fact, ...]]:
    """The text of a fault, and the facts in it."""
    last, kind = path[-1] if path else "", error["type"]
    context, unit = error.get("ctx") or {}, unit_of(last)
    given = _given(error.get("input"), unit)
    if kind in _WANTED:
        return _WANTED[kind], ()
    if kind in _WANTED_OF:
        is_number = unit and not kind.startswith("int")
        return _WANTED_OF[kind] + (f" in {unit}" if is_number else ""), (given,)
    if kind in _LIMITS and _LIMITS[kind][1] in context:
        text, name = _LIMITS[kind]
        return text, (given, _limit(context[name], unit))
    if kind in _LENGTHS:
        return _LENGTHS[kind], (str(context.get("max_length")),)
    if kind == "string_pattern_mismatch":
        return "is {}; {}", (given, _PATTERNED.get(last, _PLAIN))
    said = error["msg"].removeprefix("Value error, ")
    return f"{said[:1].lower()}{said[1:]}", ()


def _given(given: object, unit: str) -> Fact:
    if not unit or isinstance(given, bool) or not isinstance(given, int | float):
        return _shown(given)
    return Amount(given, unit) if abs(given) < MOST_SAID else _shown(given)


def _limit(limit: object, unit: str) -> Fact:
    if not isinstance(limit, int | float):
        return str(limit)
    return Amount(limit, unit) if unit else f"{limit:g}"


def _shown(given: object) -> str:
    text = repr(given)
    return text if len(text) <= 60 else text[:57] + "..."


_KINDS: Final = frozenset({"box", "wing", "sides"})
_ENTRIES: Final = frozenset({"throw", "flight", "tick", "note", "own_line", "bent", "set_aside"})
_SHAPES: Final = frozenset({"rectangle", "trapezoid", "triangle", "ellipse", "polygon"})


def _as_sent(path: list[str]) -> list[str]:
    """A path without the validator's own bookkeeping, and without the kind of what was sent: that
    stands beside its fields and not over them."""
    path = [part for part in path if "[" not in part and part not in {"float", "nullable"}]
    if len(path) > 1 and path[0] in _KINDS | _ENTRIES:
        path = path[1:]
    return [part for k, part in enumerate(path) if not (part in _SHAPES and path[k - 1] == "shape")]
