"""What a plane is trimmed and flown by, as its file and its requests have it."""

from datetime import date
from typing import Annotated

from pydantic import Field

from oaken_scale.core.model import field, limits
from oaken_scale.formats.fields import (
    Coordinate,
    Edge,
    Id,
    Name,
    TimeAsTold,
    Words,
    number,
)

Share = Annotated[float, number(ge=0, le=1)]
Travel = Annotated[float, number(ge=0, le=limits.TRAVEL_MM)]
Hole = Annotated[float, number(gt=0, le=limits.TRAVEL_MM)]
Trimmed = Annotated[float, number(ge=-limits.TRAVEL_MM, le=limits.TRAVEL_MM)]
Token = Annotated[str, Field(max_length=600, pattern=r"^[\x20-\x7e]*$")]


class ControlDoc(Edge):
    """A control surface or a tab: where it is on its surface, its travel and setting [mm]."""

    id: Id
    name: Name
    kind: field.ControlKind
    surface: Id
    from_share: Share = 0.0
    to_share: Share = 1.0
    chord_share: Annotated[float, number(gt=0, le=1)] = 0.25
    up_mm: Travel | None = None
    down_mm: Travel | None = None
    horn_mm: Hole | None = None
    arm_mm: Hole | None = None
    with_aileron: bool = False
    set_mm: Trimmed = 0.0


class SettingDoc(Edge):
    """Where one control was trimmed to [mm, up or right positive]."""

    control: Id
    mm: Trimmed


class ThrowDoc(Edge):
    """One throw; what was not seen or measured is null."""

    id: Id
    at: TimeAsTold
    loadout: Id | None = None
    settings: Annotated[tuple[SettingDoc, ...], Field(max_length=20)] = ()
    seen: field.Seen | None = None
    distance_m: Annotated[float, number(gt=0, le=limits.THROW_M)] | None = None
    height_m: Annotated[float, number(gt=0, le=limits.THROW_HEIGHT_M)] | None = None
    seconds: Annotated[float, number(gt=0, le=limits.THROW_S)] | None = None
    wind_m_s: Annotated[float, number(ge=0, le=limits.WIND_M_S)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    auw_g: Annotated[float, number(gt=0, le=limits.READING_G)] | None = None
    cg_mm: Coordinate | None = None


class StoodDoc(Edge):
    """One part that was aboard, and where it sat [mm]."""

    item: Id
    x_mm: Coordinate | None = None
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


class StanceDoc(Edge):
    """The plane as it stood when lines were ticked."""

    id: Id
    stood: Annotated[tuple[StoodDoc, ...], Field(max_length=limits.ITEMS)] = ()


class TickDoc(Edge):
    """A line of the list, ticked or opened again."""

    id: Id
    at: TimeAsTold
    line: Annotated[str, Field(pattern=r"^[A-Za-z0-9][A-Za-z0-9_-]{0,79}$")]
    loadout: Id | None = None
    done: bool = True
    stance: Annotated[str, Field(max_length=64, pattern=r"^[A-Za-z0-9]*$")] = ""
    about: Token = ""


class OwnLineDoc(Edge):
    """A line that the builder put on the list."""

    id: Id
    words: Name


class NoteDoc(Edge):
    """A dated note; a reminder is due on a day."""

    id: Id
    at: TimeAsTold
    kind: field.NoteKind
    words: Annotated[Words, Field(min_length=1)]
    due: date | None = None
    done: bool = False


class FieldDoc(Edge):
    """All of it, each collection in the order in which it came."""

    controls: Annotated[tuple[ControlDoc, ...], Field(max_length=20)] = ()
    throws: Annotated[tuple[ThrowDoc, ...], Field(max_length=limits.THROWS)] = ()
    ticks: Annotated[tuple[TickDoc, ...], Field(max_length=limits.ENTRIES)] = ()
    stances: Annotated[tuple[StanceDoc, ...], Field(max_length=limits.ENTRIES)] = ()
    own_lines: Annotated[tuple[OwnLineDoc, ...], Field(max_length=limits.OWN_LINES)] = ()
    notes: Annotated[tuple[NoteDoc, ...], Field(max_length=limits.ENTRIES)] = ()
