"""The fields that files and requests are made of: the shape and range of every single value."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any, Final

from annotated_types import Ge, GroupedMetadata, Gt, Le, Lt
from pydantic import (
    AfterValidator,
    AllowInfNan,
    AwareDatetime,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    Strict,
)

from oaken_scale.core.model import limits, pattern


def _in_our_time(at: datetime) -> datetime:
    if not 2000 <= at.year <= 2199:
        raise ValueError("must be a date between 2000 and 2199")
    return at.astimezone(UTC)


def _as_told(at: datetime) -> datetime:
    if not 1970 <= at.year <= 2199:
        raise ValueError("must be a date between 1970 and 2199")
    return at.astimezone(UTC)


NOTHING: Final = 1e-9
"""What is less than this, in any unit of ours, is nothing: no scale and no rule shows it."""


def _or_nothing(given: object) -> object:
    return 0.0 if isinstance(given, float) and abs(given) < NOTHING else given


@dataclass(frozen=True)
class Number(GroupedMetadata):
    """The range of a plain, finite number; one that is nothing is 0, and refused where 0 is."""

    gt: float | None = None
    ge: float | None = None
    lt: float | None = None
    le: float | None = None

    def __iter__(self) -> Iterator[object]:
        """What it is made of, for Pydantic."""
        yield Strict()
        yield AllowInfNan(False)
        ends = ((Gt, self.gt), (Ge, self.ge), (Lt, self.lt), (Le, self.le))
        yield from (of(end) for of, end in ends if end is not None)
        yield BeforeValidator(_or_nothing)


def number(**limits_of: Any) -> Any:
    """The range of a plain, finite number."""
    return Number(**limits_of)


PORT: Final = (
    r"^(/dev/(tty|cu)[A-Za-z0-9_-][A-Za-z0-9._-]{0,58}|/dev/pts/[0-9]{1,6}|/dev/rfcomm[0-9]{1,3}"
    r"|/dev/serial/by-(id|path)/[A-Za-z0-9_-][A-Za-z0-9._:-]{0,58}|COM[0-9]{1,3})?$"
)
"""The serial ports of the usual systems; nothing else is ever opened."""

Baud = Annotated[int, Field(strict=True, ge=300, le=921_600)]
Id = Annotated[
    str,
    Field(pattern=r"^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$", description="Letters, digits, - and _"),
]
Name = Annotated[
    str,
    Field(
        min_length=1,
        max_length=limits.NAME_LENGTH,
        pattern=r"^[^\x00-\x1f\x7f]*[^\x00-\x20\x7f][^\x00-\x1f\x7f]*$",
    ),
]
Words = Annotated[
    str, Field(max_length=limits.NOTE_LENGTH, pattern=r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$")
]
Label = Annotated[str, Field(max_length=limits.NAME_LENGTH, pattern=r"^[^\x00-\x1f\x7f]*$")]
Moment = Annotated[AwareDatetime, AfterValidator(_in_our_time)]
TimeAsTold = Annotated[AwareDatetime, AfterValidator(_as_told)]
"""A moment by the clock of a phone, which may have lost its time."""

Mass = Annotated[float, number(ge=0, le=limits.ITEM_MASS_G)]
MassOrLess = Annotated[float, number(ge=-limits.ITEM_MASS_G, le=limits.ITEM_MASS_G)]
Doubt = Annotated[float, number(ge=0, le=limits.ITEM_MASS_G)]
Coordinate = Annotated[float, number(ge=-limits.STATION_MM, le=limits.STATION_MM)]
Corner = Annotated[tuple[Coordinate, ...], Field(min_length=2, max_length=2)]
Ring = Annotated[tuple[Corner, ...], Field(min_length=3, max_length=pattern.CORNERS)]
FoldLine = Annotated[tuple[Corner, ...], Field(min_length=2, max_length=2)]
Amount = Annotated[float, number(ge=-limits.AREA_DM2, le=limits.AREA_DM2)]
SampleAmount = Annotated[float, number(gt=0, le=limits.AREA_DM2)]
Count = Annotated[float, number(gt=0, le=limits.PIECES)]
Reading = Annotated[float, number(gt=0, le=limits.READING_G)]


class Edge(BaseModel):
    """Unknown fields are refused; values may be read off the core's dataclasses."""

    model_config = ConfigDict(extra="forbid", from_attributes=True, frozen=True)
