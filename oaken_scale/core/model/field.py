"""What a plane is trimmed and flown by: its controls, the list before flight, throws and notes."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import Stood
from oaken_scale.core.model.declared import (
    Coordinate,
    Hole,
    Id,
    Length,
    Name,
    Range,
    Reading,
    Share,
    Spelling,
    TimeAsTold,
    Travel,
    Trimmed,
    Words,
)


class ControlKind(StrEnum):
    """What moves, or is bent. A ruddervator is one of the two halves of a V-tail."""

    ELEVATOR = "elevator"
    AILERON = "aileron"
    ELEVON = "elevon"
    RUDDER = "rudder"
    RUDDERVATOR = "ruddervator"
    FLAP = "flap"
    TAB = "tab"


@dataclass(frozen=True, slots=True)
class Control:
    """A control surface or a bendable tab on the trailing edge of ``surface``.

    It reaches from ``from_share`` to ``to_share`` of the half span (root 0, tip 1) and takes
    ``chord_share`` of the chord there; of a surface that is mirrored there are two. Its trailing
    edge travels so many mm up (or right) and down (or left). ``horn_mm`` is the hole of its horn
    above the hinge, ``arm_mm`` the hole of the servo's arm from its middle. A rudder may go
    ``with_aileron``. ``set_mm`` is where it is trimmed to now, up (or right) positive.
    """

    id: Id
    name: Name
    kind: ControlKind
    surface: Id
    from_share: Share = 0.0
    to_share: Share = 1.0
    chord_share: Annotated[float, Range(gt=0, le=1)] = 0.25
    up_mm: Travel | None = None
    down_mm: Travel | None = None
    horn_mm: Hole | None = None
    arm_mm: Hole | None = None
    with_aileron: bool = False
    set_mm: Trimmed = 0.0


class Seen(StrEnum):
    """What a throw or a flight did."""

    GOOD = "good"
    STALLS = "stalls"
    DIVES = "dives"
    TWITCHY = "twitchy"
    TURNS_LEFT = "turns_left"
    TURNS_RIGHT = "turns_right"
    LEFT_UNDER_POWER = "left_under_power"
    RIGHT_UNDER_POWER = "right_under_power"
    UP_WITH_THROTTLE = "up_with_throttle"
    WALLOWS = "wallows"


@dataclass(frozen=True, slots=True)
class Setting:
    """Where one control was trimmed to [mm at its trailing edge, up or right positive]."""

    control: Id
    mm: Trimmed


@dataclass(frozen=True, slots=True)
class Throw:
    """One throw: the setting as it was, what it did, how far [m], from which height [m], how long
    [s], in which wind [m/s]; any of them may be missing. One that is set aside says nothing.

    ``auw_g`` and ``cg_mm`` (from the nose) are what the plane weighed and where it balanced then.
    """

    id: Id
    at: TimeAsTold
    loadout: Id | None = None
    settings: Annotated[tuple[Setting, ...], Length(20)] = ()
    seen: Seen | None = None
    distance_m: Annotated[float, Range(gt=0, le=limits.THROW_M)] | None = None
    height_m: Annotated[float, Range(gt=0, le=limits.THROW_HEIGHT_M)] | None = None
    seconds: Annotated[float, Range(gt=0, le=limits.THROW_S)] | None = None
    wind_m_s: Annotated[float, Range(ge=0, le=limits.WIND_M_S)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    auw_g: Reading | None = None
    cg_mm: Coordinate | None = None


@dataclass(frozen=True, slots=True)
class Stance:
    """The plane as it stood when lines of the list were ticked, under a name made from it."""

    id: Id
    stood: Annotated[tuple[Stood, ...], Length(limits.PARTS)] = ()


@dataclass(frozen=True, slots=True)
class Tick:
    """A line of the list, ticked or opened again: when, with which loadout, and as the plane stood.

    ``stance`` names the stance; one that the build does not keep is a plane that nobody here saw.
    ``about`` is what the line asked for then, where it may come to ask for something else.
    """

    id: Id
    at: TimeAsTold
    line: Annotated[str, Spelling(r"^[A-Za-z0-9][A-Za-z0-9_-]{0,79}$")]
    loadout: Id | None = None
    done: bool = True
    stance: Annotated[str, Length(64), Spelling(r"^[A-Za-z0-9]*$")] = ""
    about: Annotated[str, Length(600), Spelling(r"^[\x20-\x7e]*$")] = ""


@dataclass(frozen=True, slots=True)
class OwnLine:
    """A line that the builder put on the list."""

    id: Id
    words: Name


class NoteKind(StrEnum):
    """What a note is."""

    NOTE = "note"
    WENT_WELL = "went_well"
    WISH = "wish"
    REMINDER = "reminder"


@dataclass(frozen=True, slots=True)
class Note:
    """A dated note; a wish is for the next version, a reminder is ``due`` on a day."""

    id: Id
    at: TimeAsTold
    kind: NoteKind
    words: Annotated[Words, Length(limits.NOTE_LENGTH, least=1)]
    due: date | None = None
    done: bool = False


@dataclass(frozen=True, slots=True)
class FieldLog:
    """All of it, each collection in the order in which it came here."""

    controls: Annotated[tuple[Control, ...], Length(20)] = ()
    throws: Annotated[tuple[Throw, ...], Length(limits.THROWS)] = ()
    ticks: Annotated[tuple[Tick, ...], Length(limits.ENTRIES)] = ()
    stances: Annotated[tuple[Stance, ...], Length(limits.ENTRIES)] = ()
    own_lines: Annotated[tuple[OwnLine, ...], Length(limits.OWN_LINES)] = ()
    notes: Annotated[tuple[Note, ...], Length(limits.ENTRIES)] = ()


NO_FIELD: Final = FieldLog()
