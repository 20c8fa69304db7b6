"""What files and requests are made of: models whose fields may hold what the core says.

What may stand in a field is declared on the core's own dataclasses
(:mod:`oaken_scale.core.model.declared`). A :class:`Document` follows from such a dataclass; any
other :class:`Edge` uses the same declarations.
"""

import inspect
from collections.abc import Iterator
from dataclasses import MISSING, dataclass, is_dataclass
from dataclasses import Field as DataclassField
from dataclasses import fields as fields_of
from datetime import UTC, datetime
from functools import reduce
from operator import or_
from types import GenericAlias, UnionType, new_class
from typing import (
    TYPE_CHECKING,
    Annotated,
    Any,
    Final,
    Union,
    get_args,
    get_origin,
    get_type_hints,
)

from annotated_types import Ge, GroupedMetadata, Gt, Le, Lt, MaxLen, MinLen
from pydantic import (
    AfterValidator,
    AllowInfNan,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    Strict,
    StringConstraints,
)

from oaken_scale.core.model.declared import Length, Range, Spelling, Years

NOTHING: Final = 1e-9
"""What is less than this, in any unit of ours, is nothing: no scale and no rule shows it."""


def _or_nothing(given: object) -> object:
    return 0.0 if isinstance(given, float) and abs(given) < NOTHING else given


@dataclass(frozen=True)
class Checked(GroupedMetadata):
    """What is declared of a value, as Pydantic checks it. A number is finite, and one that is
    nothing is 0, and refused where 0 is."""

    of: Range | Length | Spelling | Years
    is_whole: bool = False

    def __iter__(self) -> Iterator[object]:
        """What it is made of, for Pydantic."""
        match self.of:
            case Range(gt, ge, lt, le):
                yield Strict()
                if not self.is_whole:
                    yield AllowInfNan(False)
                ends = ((Gt, gt), (Ge, ge), (Lt, lt), (Le, le))
                yield from (end(at) for end, at in ends if at is not None)
                yield BeforeValidator(_or_nothing)
            case Length(most, least):
                if least:
                    yield MinLen(least)
                yield MaxLen(most)
            case Spelling(pattern):
                yield from StringConstraints(pattern=pattern)
            case Years(first, last):
                yield AfterValidator(lambda at: _between(first, last, at))


def _between(first: int, last: int, at: datetime) -> datetime:
    """A moment in UTC, in which it is kept and goes out again: there it has to lie between them."""
    try:
        moment = at.astimezone(UTC)
    except OverflowError:
        moment = None
    if moment is None or not first <= moment.year <= last:
        raise ValueError(f"must be a date between {first} and {last}")
    return moment


def number(**limits_of: Any) -> Any:
    """The range of a plain, finite number."""
    return Checked(Range(**limits_of))


def checked(declared: Any) -> Any:
    """A type as the core declares it, as Pydantic checks it: dataclasses are documents, moments
    have a time zone, and a pair is a list of two."""
    given = get_args(declared)
    origin = get_origin(declared)
    if origin is Annotated:
        base, *says = given
        return reduce(lambda kind, say: Annotated[kind, say], _said(base, says), checked(base))
    if origin in (Union, UnionType):
        return reduce(or_, [checked(each) for each in given])
    if origin is tuple and given and given[-1] is not Ellipsis:
        of_any_length = GenericAlias(tuple, (given[0], ...))
        return Annotated[checked(of_any_length), Checked(Length(len(given), len(given)))]
    if origin is tuple:
        return GenericAlias(tuple, (checked(given[0]), ...))
    if declared is datetime:
        return AwareDatetime
    is_of_ours = isinstance(declared, type) and is_dataclass(declared)
    return document(declared) if is_of_ours else declared


def _said(base: object, says: list[Any]) -> Iterator[Any]:
    for say in says:
        yield (
            Checked(say, base is int) if isinstance(say, Range | Length | Spelling | Years) else say
        )
        if isinstance(say, Spelling) and say.words:
            yield Field(description=say.words)


class Edge(BaseModel):
    """Unknown fields are refused; values may be read off the core's dataclasses."""

    model_config = ConfigDict(extra="forbid", from_attributes=True, frozen=True)

    def __init_subclass__(cls, **given: Any) -> None:
        """Have Pydantic check what is declared of the fields."""
        super().__init_subclass__(**given)
        own = inspect.get_annotations(cls)
        cls.__annotations__ = {name: checked(kind) for name, kind in own.items()}


class Document(Edge):
    """A document ``of`` a dataclass of the core: of all its fields, or ``only`` of some. In one
    that is ``partial`` every field may be left out. A field may be told otherwise in its body."""

    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...

    def __init_subclass__(
        cls,
        of: type | None = None,
        only: tuple[str, ...] = (),
        partial: bool = False,
        **given: Any,
    ) -> None:
        """Take the fields over, in their order, with what is declared of them."""
        own = inspect.get_annotations(cls)
        if of is not None:
            hints = get_type_hints(of, include_extras=True)
            chosen = [each for each in fields_of(of) if not only or each.name in only]
            cls.__annotations__ = {
                each.name: own.pop(each.name, None)
                or (hints[each.name] | None if partial else hints[each.name])
                for each in chosen
            } | own
            for each in chosen:
                if each.name not in cls.__dict__ and (partial or _may_be_left_out(each)):
                    setattr(cls, each.name, None if partial else _default(each))
            cls.__doc__ = cls.__doc__ or of.__doc__
            if not only and not partial:
                if of in _DOCUMENTS:
                    raise TypeError(f"{of.__name__} has its document already: {_DOCUMENTS[of]}")
                _DOCUMENTS[of] = cls
        super().__init_subclass__(**given)


_DOCUMENTS: Final[dict[type, type[Edge]]] = {}


def document(of: type) -> type[Edge]:
    """The document of a dataclass of the core."""
    if of not in _DOCUMENTS:
        where = {"__module__": __name__}
        new_class(f"{of.__name__}Doc", (Document,), {"of": of}, lambda body: body.update(where))
    return _DOCUMENTS[of]


def _may_be_left_out(field: "DataclassField[Any]") -> bool:
    return field.default is not MISSING


def _default(field: "DataclassField[Any]") -> Any:
    value = field.default
    if not is_dataclass(value) or isinstance(value, type):
        return value
    return document(type(value)).model_validate(value)
