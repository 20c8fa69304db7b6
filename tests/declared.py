"""Whatever may stand in a field, as Hypothesis draws it: it follows from what the core declares."""

import re
import typing
from dataclasses import fields, is_dataclass
from datetime import UTC, date, datetime
from enum import Enum
from functools import cache
from types import UnionType

from hypothesis import strategies as st

from oaken_scale.core.model.declared import Length, Range, Spelling, Years

IDS = st.sampled_from("abcdefgh")
TEXTS = st.text(
    st.characters(codec="utf-8", exclude_categories=["Cc", "Cs"]), min_size=1, max_size=9
)
LEAST = 1e-9
MOST_ENTRIES = 2
"""So many of a collection are drawn at most."""


def values(kind: type, **told: st.SearchStrategy) -> st.SearchStrategy:
    """Values of a dataclass: each field as it is declared, or as it is ``told``."""
    return st.builds(kind, **{**_fields(kind), **told})


@cache
def _fields(kind: type) -> dict[str, st.SearchStrategy]:
    hints = typing.get_type_hints(kind, include_extras=True)
    return {each.name: drawn(hints[each.name]) for each in fields(kind)}


@cache
def drawn(hint: typing.Any) -> st.SearchStrategy:
    """What may stand in a field of a type."""
    origin, given = typing.get_origin(hint), typing.get_args(hint)
    if origin is typing.Annotated:
        return _said(*given)
    if origin in (typing.Union, UnionType):
        return st.one_of(*map(drawn, given))
    if origin is tuple and given[-1] is Ellipsis:
        return _lists(given[0], 0, MOST_ENTRIES)
    if origin is tuple:
        return st.tuples(*map(drawn, given))
    if is_dataclass(hint):
        return values(hint)
    return _PLAIN[hint] if hint in _PLAIN else st.sampled_from(hint)


_PLAIN = {
    type(None): st.none(),
    bool: st.booleans(),
    date: st.dates(date(2000, 1, 1), date(2199, 12, 31)),
}


def _lists(of: typing.Any, least: int, most: int) -> st.SearchStrategy:
    """Entries, no two of one id."""
    key = (lambda each: each.id) if "id" in getattr(of, "__dataclass_fields__", ()) else None
    if isinstance(of, type) and issubclass(of, Enum):
        key = str
    return st.lists(drawn(of), min_size=least, max_size=most, unique_by=key).map(tuple)


def _said(base: typing.Any, *says: object) -> st.SearchStrategy:
    of = {type(say): say for say in says}
    if base is datetime:
        years = of[Years]
        first, last = datetime(years.first, 1, 1), datetime(years.last, 12, 31)
        return st.datetimes(first, last, timezones=st.just(UTC))
    if base in (float, int):
        return _numbers(base, of[Range])
    if base is str:
        return _texts(of.get(Length, Length(60)), of[Spelling].pattern)
    length = of[Length]
    (one, _) = typing.get_args(base)
    return _lists(one, length.least, min(length.most, max(length.least, MOST_ENTRIES)))


def _numbers(base: type, within: Range) -> st.SearchStrategy:
    low = within.ge if within.ge is not None else within.gt + LEAST
    if base is int:
        return st.integers(int(low), int(within.le))
    ends = st.sampled_from([low, within.le])
    anything = st.floats(low, within.le).map(lambda value: 0.0 if abs(value) < LEAST else value)
    return (ends | anything).filter(lambda value: within.gt is None or value > within.gt)


def _texts(length: Length, pattern: str) -> st.SearchStrategy:
    fits = re.compile(pattern)
    if fits.match("a") and not fits.match("ü"):
        return IDS if fits.match("a-b") else st.sampled_from(["A", "x9"])
    plain = TEXTS.filter(lambda text: fits.match(text) and len(text) >= length.least)
    some = plain if fits.match("ü") else st.from_regex(pattern, fullmatch=True)
    longest = st.just("x" * length.most).filter(fits.match)
    return some | longest if fits.match("x") else some
