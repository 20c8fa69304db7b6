"""What a build records about its balance: checks by hand, the plan's mark, ballast at hand."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated, Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    Coordinate,
    Id,
    Label,
    Length,
    Moment,
    Name,
    Range,
    ReadingOrNothing,
    SomeMass,
    Words,
)


class CheckKind(StrEnum):
    """How a builder finds where a plane balances.

    ``support``: it rests level on fingertips, two pegs or a string at x. ``supports``: it lies
    level on two supports along x, one of them on a scale. ``sides``: the same across, along y.
    ``hang``: it hangs from a point and its nose points down by an angle.
    """

    SUPPORT = "support"
    SUPPORTS = "supports"
    SIDES = "sides"
    HANG = "hang"


class Feel(StrEnum):
    """What a hand feels of a plane on two fingertips: ``by`` of a ``support`` that was not looked
    at closely."""

    LEVEL = "level by feel"
    TAIL_DROPS = "tail drops"
    NOSE_DROPS = "nose drops"
    NOSE_HAND_LOW = "nose a hand low"
    TAIL_HAND_LOW = "tail a hand low"


FEELS: Final = {each.value: each for each in Feel}

SUPPORT_DOUBT_MM: Final[dict[str, float]] = {"fingertips": 3.0, "pegs": 1.0, "string": 2.0}
"""How well a balance point is found, one sigma [mm], by what holds the plane."""

HANG_DOUBT_DEG: Final = 1.0
"""How well a hang angle is read, one sigma [degrees]."""


@dataclass(frozen=True, slots=True)
class Stood:
    """One thing that was aboard when a check was made, and where it sat then [mm from the nose,
    to starboard, up]; None where nobody had said where."""

    part: Id
    x_mm: Coordinate | None = None
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0


@dataclass(frozen=True, slots=True)
class BalanceCheck:
    """One check of the balance by hand, with one loadout aboard.

    ``stood`` is the plane as it was: what was aboard, and where it sat. Without it (a check from an
    older file) the dates of the parts say what was aboard, and all sat where it sits now.

    Lengths are from the nose along x [mm], or across along y for ``sides``.
    ``support`` has ``x_mm``; ``supports`` and ``sides`` have the two supports ``x_mm`` (front, or
    port) and ``other_mm`` (aft, or starboard), and ``reading_g`` on the scale under the second;
    ``hang`` has the pivot ``x_mm``, ``z_mm`` and the angle ``nose_down_deg``. ``doubt`` (one
    sigma; mm of the balance point, or degrees of an angle) is None for the usual one.
    ``held_alone`` says what was held where it was not the whole plane: it is no check of the
    loadout.
    """

    id: Id
    at: Moment
    kind: CheckKind
    loadout: Id | None
    x_mm: Coordinate
    by: Label = ""
    other_mm: Coordinate | None = None
    reading_g: ReadingOrNothing | None = None
    scale: Id | None = None
    z_mm: Coordinate | None = None
    nose_down_deg: Annotated[float, Range(ge=-80, le=80)] | None = None
    doubt: Annotated[float, Range(gt=0, le=100)] | None = None
    note: Words = ""
    set_aside: Words | None = None
    stood: Annotated[tuple[Stood, ...], Length(limits.PARTS)] = ()
    held_alone: Label = ""

    @property
    def is_of_the_plane(self) -> bool:
        """Whether it checks where its whole loadout balances: a part held alone does not, nor does
        an end that drops.

        >>> from datetime import UTC, datetime
        >>> at = datetime(2026, 3, 7, 12, tzinfo=UTC)
        >>> BalanceCheck("c", at, CheckKind.SUPPORT, None, 247.0, "pegs").is_of_the_plane
        True
        >>> BalanceCheck("c", at, CheckKind.SUPPORT, None, 90.0, held_alone="Wing").is_of_the_plane
        False
        """
        return not self.held_alone and FEELS.get(self.by, Feel.LEVEL) is Feel.LEVEL


@dataclass(frozen=True, slots=True)
class BallastSpot:
    """A place where ballast may be fixed [mm]: how much it takes at most [g].

    A ``pair`` is loaded alike at y and at -y.
    """

    id: Id
    name: Name
    x_mm: Coordinate
    y_mm: Coordinate = 0.0
    z_mm: Coordinate = 0.0
    most_g: SomeMass = 50.0
    pair: bool = False


@dataclass(frozen=True, slots=True)
class Ballast:
    """Where ballast may go, and the pieces at hand [g]: each may be used once."""

    spots: Annotated[tuple[BallastSpot, ...], Length(20)] = ()
    pieces: Annotated[tuple[SomeMass, ...], Length(limits.BALLAST_PIECES)] = ()


NO_BALLAST: Final = Ballast()


@dataclass(frozen=True, slots=True)
class PlanMark:
    """Where the plan says that it balances [mm from the nose], give or take ``tolerance_mm``."""

    x_mm: Coordinate
    tolerance_mm: Annotated[float, Range(gt=0, le=200)] = 3.0
