"""What a plane is trimmed and flown by: its controls, the list before flight, throws and notes."""

from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum
from typing import Final

from oaken_scale.core.model.balancing import Stood


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

    id: str
    name: str
    kind: ControlKind
    surface: str
    from_share: float = 0.0
    to_share: float = 1.0
    chord_share: float = 0.25
    up_mm: float | None = None
    down_mm: float | None = None
    horn_mm: float | None = None
    arm_mm: float | None = None
    with_aileron: bool = False
    set_mm: float = 0.0


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

    control: str
    mm: float


@dataclass(frozen=True, slots=True)
class Throw:
    """One throw: the setting as it was, what it did, how far [m], from which height [m], how long
    [s], in which wind [m/s]; any of them may be missing. One that is set aside says nothing.

    ``auw_g`` and ``cg_mm`` (from the nose) are what the plane weighed and where it balanced then.
    """

    id: str
    at: datetime
    loadout: str | None = None
    settings: tuple[Setting, ...] = ()
    seen: Seen | None = None
    distance_m: float | None = None
    height_m: float | None = None
    seconds: float | None = None
    wind_m_s: float | None = None
    note: str = ""
    set_aside: str | None = None
    auw_g: float | None = None
    cg_mm: float | None = None


@dataclass(frozen=True, slots=True)
class Stance:
    """The plane as it stood when lines of the list were ticked, under a name made from it."""

    id: str
    stood: tuple[Stood, ...]


@dataclass(frozen=True, slots=True)
class Tick:
    """A line of the list, ticked or opened again: when, with which loadout, and as the plane stood.

    ``stance`` names the stance; one that the build does not keep is a plane that nobody here saw.
    ``about`` is what the line asked for then, where it may come to ask for something else.
    """

    id: str
    at: datetime
    line: str
    loadout: str | None = None
    done: bool = True
    stance: str = ""
    about: str = ""


@dataclass(frozen=True, slots=True)
class OwnLine:
    """A line that the builder put on the list."""

    id: str
    words: str


class NoteKind(StrEnum):
    """What a note is."""

    NOTE = "note"
    WENT_WELL = "went_well"
    WISH = "wish"
    REMINDER = "reminder"


@dataclass(frozen=True, slots=True)
class Note:
    """A dated note; a wish is for the next version, a reminder is ``due`` on a day."""

    id: str
    at: datetime
    kind: NoteKind
    words: str
    due: date | None = None
    done: bool = False


@dataclass(frozen=True, slots=True)
class FieldLog:
    """All of it, each collection in the order in which it came here."""

    controls: tuple[Control, ...] = ()
    throws: tuple[Throw, ...] = ()
    ticks: tuple[Tick, ...] = ()
    stances: tuple[Stance, ...] = ()
    own_lines: tuple[OwnLine, ...] = ()
    notes: tuple[Note, ...] = ()


NO_FIELD: Final = FieldLog()
