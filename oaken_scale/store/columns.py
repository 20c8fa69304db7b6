"""The columns that a dataclass is kept in: they follow from its fields, one after another.

SQL is written out where it is used, and names the columns by these: ``f"SELECT {BAY} FROM bay"``.
"""

import json
from collections import defaultdict
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, fields
from datetime import date, datetime
from enum import Enum
from typing import Any, Final, Generic, TypeVar, get_args, get_origin, get_type_hints

from oaken_scale.store.rows import stamp

T = TypeVar("T")

Convert = Callable[[Any], Any]


@dataclass(frozen=True, slots=True)
class _Field:
    """A field of a dataclass, and the columns that it takes."""

    name: str
    names: tuple[str, ...]
    within: "Columns[Any] | None"
    kept: Convert | None
    read: Convert | None
    may_be_none: bool = False


class Columns(Generic[T]):
    """The columns of a dataclass, as text between commas.

    A column is called like its field, behind a ``prefix``; some are ``named`` otherwise. Fields of
    another dataclass lie ``within``; one that is not there has nothing in its columns but what is
    said in ``absent``. Fields kept ``apart``, in tables of their own, have no column here.

    >>> from oaken_scale.core.model.part import Slide
    >>> slide = Columns(Slide, prefix="slide_")
    >>> f"SELECT {slide} FROM part"
    'SELECT slide_low_mm, slide_high_mm FROM part'
    >>> slide.row(Slide(10.0, 40.0)), slide.value((10.0, 40.0))
    ((10.0, 40.0), Slide(low_mm=10.0, high_mm=40.0))
    """

    def __init__(
        self,
        kind: type[T],
        *,
        prefix: str = "",
        named: Mapping[str, str] | None = None,
        within: "Mapping[str, Columns[Any]] | None" = None,
        apart: Sequence[str] = (),
        absent: Mapping[str, Any] | None = None,
    ) -> None:
        """Look at the fields of ``kind``."""
        named, within, hints = named or {}, within or {}, get_type_hints(kind)
        own = [each.name for each in fields(kind) if each.name not in apart]  # type: ignore[arg-type]
        self.kind = kind
        self._fields = [
            _Field(name, within[name].names, within[name], None, None, _may_be_none(hints[name]))
            if name in within
            else _Field(name, (named.get(name, prefix + name),), None, *_conversions(hints[name]))
            for name in own
        ]
        self.names: tuple[str, ...] = tuple(
            column for each in self._fields for column in each.names
        )
        self.marks = ",".join("?" * len(self.names))
        self.renewed = ", ".join(f"{name} = excluded.{name}" for name in self.names)
        self.assigned = ", ".join(f"{name} = ?" for name in self.names)
        self._absent = tuple((absent or {}).get(name) for name in own)

    def __str__(self) -> str:
        """The columns, between commas."""
        return ", ".join(self.names)

    def row(self, value: T | None) -> tuple[Any, ...]:
        """What is written of a value; of one that is not there, nothing."""
        if value is None:
            return self._absent
        row: list[Any] = []
        for field in self._fields:
            given = getattr(value, field.name)
            if field.within is not None:
                row.extend(field.within.row(given))
            else:
                row.append(given if field.kept is None or given is None else field.kept(given))
        return tuple(row)

    def value(self, row: Sequence[Any], **apart: Any) -> T:
        """The value of a row, and of what was kept apart."""
        given, at = apart, 0
        for field in self._fields:
            if field.within is not None:
                own = row[at : at + len(field.names)]
                read = field.within.value_or_none if field.may_be_none else field.within.value
                given[field.name] = read(own)
                at += len(own)
                continue
            column = row[at]
            given[field.name] = (
                column if field.read is None or column is None else field.read(column)
            )
            at += 1
        return self.kind(**given)

    def value_or_none(self, row: Sequence[Any]) -> T | None:
        """The value of a row, whose first column is empty where there is none."""
        return None if row[0] is None else self.value(row)

    def values(self, rows: Iterable[Sequence[Any]]) -> tuple[T, ...]:
        """The values of rows of which nothing is kept apart."""
        return tuple(map(self.value, rows))

    def under(self, rows: Iterable[Sequence[Any]]) -> dict[str, tuple[T, ...]]:
        """The values of rows by the id of what they belong to, which comes first in each."""
        values: dict[str, list[T]] = defaultdict(list)
        for belongs_to, *row in rows:
            values[belongs_to].append(self.value(row))
        return {belongs_to: tuple(own) for belongs_to, own in values.items()}

    def placed(
        self, build_id: str, values: Iterable[T], start: int = 0
    ) -> Iterable[tuple[Any, ...]]:
        """Rows of a build in their places: the build, the place, the columns."""
        for place, value in enumerate(values, start):
            yield (build_id, place, *self.row(value))

    def placed_under(
        self, build_id: str, values: Iterable[tuple[str, Iterable[T]]]
    ) -> Iterable[tuple[Any, ...]]:
        """Rows of what belongs to something of a build: the build, its id, the place, the
        columns."""
        for belongs_to, own in values:
            for place, value in enumerate(own):
                yield (build_id, belongs_to, place, *self.row(value))


def _may_be_none(hint: Any) -> bool:
    return type(None) in get_args(hint)


def _conversions(hint: Any) -> tuple[Convert | None, Convert | None]:
    """How a value of a type is written, and how it is read; None where it stays as it is."""
    kinds = [each for each in get_args(hint) if each is not type(None)]
    if get_origin(hint) is not tuple and len(kinds) == 1:
        return _conversions(kinds[0])
    if get_origin(hint) is tuple:
        return json.dumps, lambda text: _of_json(hint, json.loads(text))
    if isinstance(hint, type) and issubclass(hint, Enum):
        return None, hint
    return _KEPT.get(hint, (None, None))


_KEPT: Final[dict[Any, tuple[Convert, Convert]]] = {
    bool: (int, bool),
    datetime: (stamp, datetime.fromisoformat),
    date: (date.isoformat, date.fromisoformat),
}


def _of_json(hint: Any, given: Any) -> Any:
    if get_origin(hint) is tuple:
        return tuple(_of_json(get_args(hint)[0], each) for each in given)
    return hint(given) if isinstance(hint, type) else given
