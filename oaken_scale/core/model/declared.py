"""What may stand in a field: said once, on the field of its dataclass.

Files, requests and their schemas follow from it (:mod:`oaken_scale.formats.fields`). A number is in
the unit of its field's name.
"""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Final

from oaken_scale.core.model import limits


@dataclass(frozen=True, slots=True)
class Range:
    """Between which numbers one lies: above ``gt`` or from ``ge`` on, below ``lt`` or up to
    ``le``."""

    gt: float | None = None
    ge: float | None = None
    lt: float | None = None
    le: float | None = None


@dataclass(frozen=True, slots=True)
class Length:
    """How many characters a text has, or how many entries a collection."""

    most: int
    least: int = 0


@dataclass(frozen=True, slots=True)
class Spelling:
    """The regular expression that a text matches, and what that is in words."""

    pattern: str
    words: str = ""


@dataclass(frozen=True, slots=True)
class Years:
    """The years that a moment lies in."""

    first: int
    last: int


PORT: Final = (
    r"^(/dev/(tty|cu)[A-Za-z0-9_-][A-Za-z0-9._-]{0,58}|/dev/pts/[0-9]{1,6}|/dev/rfcomm[0-9]{1,3}"
    r"|/dev/serial/by-(id|path)/[A-Za-z0-9_-][A-Za-z0-9._:-]{0,58}|COM[0-9]{1,3})?$"
)
"""The serial ports of the usual systems; nothing else is ever opened."""

ID: Final = r"^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$"
Id = Annotated[str, Spelling(ID, "Letters, digits, - and _")]
Name = Annotated[
    str,
    Length(limits.NAME_LENGTH, least=1),
    Spelling(r"^[^\x00-\x1f\x7f]*[^\x00-\x20\x7f][^\x00-\x1f\x7f]*$"),
]
Label = Annotated[str, Length(limits.NAME_LENGTH), Spelling(r"^[^\x00-\x1f\x7f]*$")]
Words = Annotated[
    str, Length(limits.NOTE_LENGTH), Spelling(r"^[^\x00-\x08\x0b\x0c\x0e-\x1f\x7f]*$")
]
Port = Annotated[str, Length(80), Spelling(PORT)]
Line = Annotated[str, Length(limits.NAME_LENGTH), Spelling(r"^[\x20-\x7e]*$")]
Baud = Annotated[int, Range(ge=300, le=921_600)]

IN_OUR_TIME: Final = Years(2000, 2199)
Moment = Annotated[datetime, IN_OUR_TIME]
TimeAsTold = Annotated[datetime, Years(1970, 2199)]
"""A moment by the clock of a phone, which may have lost its time."""

Mass = Annotated[float, Range(ge=0, le=limits.PART_MASS_G)]
MassOrLess = Annotated[float, Range(ge=-limits.PART_MASS_G, le=limits.PART_MASS_G)]
SomeMass = Annotated[float, Range(gt=0, le=limits.PART_MASS_G)]
"""The mass of something that is there."""
Doubt = Annotated[float, Range(ge=0, le=limits.PART_MASS_G)]
Reading = Annotated[float, Range(gt=0, le=limits.READING_G)]
ReadingOrNothing = Annotated[float, Range(ge=0, le=limits.READING_G)]
Coordinate = Annotated[float, Range(ge=-limits.STATION_MM, le=limits.STATION_MM)]
Side = Annotated[float, Range(gt=0, le=limits.CHORD_MM)]
"""How long, wide or high something is."""
Size = Annotated[float, Range(gt=0, le=limits.SHEET_MM)]
"""How long or wide a sheet or a roll is."""
Amount = Annotated[float, Range(ge=-limits.AREA_DM2, le=limits.AREA_DM2)]
SampleAmount = Annotated[float, Range(gt=0, le=limits.AREA_DM2)]
Count = Annotated[float, Range(gt=0, le=limits.PIECES)]
Layers = Annotated[int, Range(ge=1, le=20)]
Price = Annotated[float, Range(ge=0, le=limits.PRICE)]
Share = Annotated[float, Range(ge=0, le=1)]
JointTime = Annotated[float, Range(ge=0, le=limits.JOINT_S)]
CloseBy = Annotated[float, Range(gt=0, le=limits.JOINT_S)]
Minutes = Annotated[float, Range(gt=0, le=100_000)]
StepId = Annotated[str, Length(120, least=1), Spelling(r"^[^\x00-\x1f\x7f]+$")]

Amperes = Annotated[float, Range(gt=0, le=limits.CURRENT_A)]
Current = Annotated[float, Range(ge=0, le=limits.CURRENT_A)]
Kv = Annotated[float, Range(ge=50, le=20_000)]
Capacity = Annotated[float, Range(ge=10, le=50_000)]
Rating = Annotated[float, Range(ge=0.5, le=300)]
Cells = Annotated[int, Range(ge=1, le=14)]
Diameter = Annotated[float, Range(ge=20, le=1_000)]
Pitch = Annotated[float, Range(ge=5, le=1_000)]
Celsius = Annotated[float, Range(ge=-30, le=250)]
ThrustRead = Annotated[float, Range(ge=0, le=limits.THRUST_GF)]

Travel = Annotated[float, Range(ge=0, le=limits.TRAVEL_MM)]
Hole = Annotated[float, Range(gt=0, le=limits.TRAVEL_MM)]
Trimmed = Annotated[float, Range(ge=-limits.TRAVEL_MM, le=limits.TRAVEL_MM)]
