"""What a validator found, in the builder's words: the field, what was wrong, what is right."""

from collections.abc import Iterable
from typing import Any, Final

from oaken_scale.core.model.faults.fault import Fault

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
        path = [part for part in path if not _is_tag(part)]
        found.append(Fault(".".join(path) or "body", _words(path, error)))
    return tuple(found)


def unit_of(field: str) -> str:
    """The unit that a field's name carries, with a leading space; empty without one.

    >>> unit_of("stated_g"), unit_of("x_le_mm"), unit_of("count")
    (' g', ' mm', '')
    """
    return next((f" {unit}" for ending, unit in _UNITS if field.endswith(ending)), "")


_PLAIN: Final = (
    "it may not be blank or hold control characters, and an id has letters, digits, - and _ only"
)
_PATTERNED: Final = {
    "port": "it should be a serial port like /dev/ttyUSB0 or COM3, or empty",
    "line": "it should be plain ASCII, like ST,GS,{reading} g",
}


def _words(path: list[str], error: Any) -> str:
    context, unit = error.get("ctx") or {}, unit_of(path[-1] if path else "")
    given = _shown(error.get("input"))
    kind = error["type"]
    wanted = {
        "missing": "is missing; it has to be given",
        "extra_forbidden": "is not a field here; leave it out, or check its spelling",
        "float_type": f"is {given}; it should be a plain number{unit and ' in' + unit}",
        "float_parsing": f"is {given}; it should be a plain number{unit and ' in' + unit}",
        "int_type": f"is {given}; it should be a whole number",
        "int_from_float": f"is {given}; it should be a whole number",
        "finite_number": f"is {given}; it should be a finite number{unit and ' in' + unit}",
        "greater_than": f"is {given}; it should be more than {context.get('gt'):g}{unit}"
        if "gt" in context
        else "",
        "greater_than_equal": f"is {given}; it should be at least {_limit(context, 'ge')}{unit}",
        "less_than_equal": f"is {given}; it should be at most {_limit(context, 'le')}{unit}",
        "enum": f"is {given}; it should be {context.get('expected')}",
        "literal_error": f"is {given}; it should be {context.get('expected')}",
        "string_too_short": "is empty; it has to be given",
        "string_too_long": f"is too long; at most {context.get('max_length')} characters",
        "too_long": f"is too long; at most {context.get('max_length')} entries",
        "string_pattern_mismatch": f"is {given}; "
        + _PATTERNED.get(path[-1] if path else "", _PLAIN),
        "timezone_aware": "has no time zone; write it like 2026-03-07T09:30:00Z",
    }.get(kind)
    said = error["msg"].removeprefix("Value error, ")
    return wanted or f"{said[:1].lower()}{said[1:]}"


def _limit(context: dict[str, Any], name: str) -> str:
    limit = context.get(name)
    return f"{limit:g}" if isinstance(limit, int | float) else str(limit)


def _shown(given: object) -> str:
    text = repr(given)
    return text if len(text) <= 60 else text[:57] + "..."


def _is_tag(part: str) -> bool:
    """Whether a path part is the validator's own bookkeeping and no field."""
    return "[" in part or part in {"float", "nullable"}
