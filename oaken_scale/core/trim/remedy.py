"""What to do for a balance that is off: what slides, what ballast goes where, what it comes to."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.build import Build

STILL_MM: Final = 0.05
"""A shorter slide is none [mm]."""


@dataclass(frozen=True, slots=True)
class Slid:
    """One thing moved along x [mm from the nose]."""

    part: str
    from_mm: float
    to_mm: float


@dataclass(frozen=True, slots=True)
class Placed:
    """Ballast at one spot [g]: on each side for a pair. ``pieces`` of those at hand, per side."""

    spot: str
    grams: float
    pieces: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class Comes:
    """Where a loadout comes to with a remedy: CG [mm from the nose], sideways [mm], mass [g]."""

    loadout: str
    x_mm: float
    y_mm: float
    auw_g: float


@dataclass(frozen=True, slots=True)
class Remedy:
    """What to do: slides, ballast, and where every loadout comes to.

    ``chance`` is the least of the loadouts' chances of lying in its range then. An ``offer`` uses
    what nobody has allowed yet: the spots in ``spots``, and slides of things that may not move.
    """

    slides: tuple[Slid, ...]
    ballast: tuple[Placed, ...]
    ballast_g: float
    loadouts: tuple[Comes, ...]
    chance: float = 1.0
    offer: bool = False
    spots: tuple[BallastSpot, ...] = ()
    breaks_limit: bool = False


@dataclass(frozen=True, slots=True, eq=False)
class Balanceable:
    """A plane ready to be balanced: what flies in each loadout, and where it may go.

    ``mass`` (N,) [g], ``x`` and ``y`` (N,) [mm], ``aboard`` (L, N) of what has a station,
    ``all_aboard`` (L, N); ``low`` and ``high`` (L,) [mm from the nose] are the range narrowed by
    the CG's doubt ``u`` (L,) [mm], ``lowest`` and ``highest`` the range itself; ``most_g`` None
    without a weight limit. ``slide`` (K, 2) is where each of the ``movable`` may sit [mm from the
    nose]. ``across`` is false where only the balance lengthways is looked for.
    """

    build: Build
    names: tuple[str, ...]
    mass: Vector
    x: Vector
    y: Vector
    aboard: Matrix
    all_aboard: Matrix
    low: Vector
    high: Vector
    lowest: float
    highest: float
    u: Vector
    most_g: float | None
    movable: tuple[int, ...]
    slide: Matrix
    spots: tuple[BallastSpot, ...]
    pieces: tuple[float, ...]
    across: bool = True

    @property
    def is_one_sided(self) -> bool:
        """Whether there is a spot on one side alone: what hangs to the other can be held there."""
        return any(spot.y_mm and not spot.pair for spot in self.spots)


def comes_to(ready: Balanceable, x: Vector, placed: Sequence[Placed], k: int) -> Comes:
    """Where loadout ``k`` comes to with things at ``x`` (N,) [mm] and ballast placed.

    >>> import numpy as np
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([0.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> comes_to(ready, ready.x, [Placed("nose", 50.0, ())], 0)
    Comes(loadout='all', x_mm=80.0, y_mm=0.0, auw_g=250.0)
    """
    aboard = ready.mass * ready.aboard[k]
    mass, moment, side = float(aboard.sum()), float(aboard @ x), float(aboard @ ready.y)
    more = 0.0
    for each in placed:
        spot = next(spot for spot in ready.spots if spot.id == each.spot)
        sides = 2 if spot.pair else 1
        more += sides * each.grams
        moment += sides * each.grams * spot.x_mm
        side += 0.0 if spot.pair else each.grams * spot.y_mm
    whole = float(ready.mass @ ready.all_aboard[k])
    mass += more
    return Comes(ready.names[k], moment / mass, side / mass, whole + more)
