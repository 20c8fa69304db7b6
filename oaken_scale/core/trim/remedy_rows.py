"""What a remedy may not overstep, as the rows of a mixed-integer program: how far things slide, how
much ballast a spot holds and what pieces are at hand, and each loadout's range, middle and weight.
"""

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.trim.remedy import STILL_MM, Balanceable

LEAST_PIECE_G: Final = 1e-6
"""A piece is told from another by so much, and is at least as heavy [g]."""

SIDEWAYS_MM: Final = 3.0
"""How far off the middle the CG may lie [mm]."""

SLACK_G: Final = 1e-6
"""What a spot may hold beyond its most, for the sake of rounding [g]."""


@dataclass(frozen=True, slots=True)
class BallastOption:
    """Ballast of one mass [g] at one spot: pieces of it, or plain grams; on each side of a pair.

    >>> BallastOption(BallastSpot("w", "Wing", 200.0, y_mm=300.0, pair=True), 5.0, 2).whole_g
    10.0
    """

    spot: BallastSpot
    grams: float
    sides: int

    @property
    def whole_g(self) -> float:
        """On all its sides [g]."""
        return self.grams * self.sides


@dataclass(frozen=True, slots=True)
class Columns:
    """Which variable stands in which column: how far each of ``count`` things slides forward and
    aft, whether it moved, how much ballast of each of the ``options`` is placed, and last the
    depth.

    >>> nose = BallastOption(BallastSpot("n", "Nose", 0.0), 5.0, 1)
    >>> columns = Columns(2, (nose,), {5.0: 3})
    >>> columns.size, columns.slides, columns.moved, columns.placed
    (8, slice(None, 4, None), slice(4, 6, None), slice(6, -1, None))
    >>> columns.slide(1), list(columns.ballast())
    ((1, 3, 5), [6])
    """

    count: int
    options: tuple[BallastOption, ...]
    pieces: Mapping[float, int]
    """How many pieces of each mass [g] are at hand; empty for ballast by the gram."""

    @classmethod
    def of(cls, ready: Balanceable) -> "Columns":
        """The columns for a plane that is ready to be balanced."""
        pieces = Counter(max(round(piece, 6), LEAST_PIECE_G) for piece in ready.pieces)
        options = [
            BallastOption(spot, grams, 2 if spot.pair else 1)
            for spot in ready.spots
            for grams in (pieces or (1.0,))
        ]
        return cls(len(ready.movable), tuple(options), pieces)

    @property
    def size(self) -> int:
        """How many there are."""
        return 3 * self.count + len(self.options) + 1

    @property
    def slides(self) -> slice:
        """How far forward, then how far aft."""
        return slice(2 * self.count)

    @property
    def moved(self) -> slice:
        """Whether each moved."""
        return slice(2 * self.count, 3 * self.count)

    @property
    def placed(self) -> slice:
        """How much ballast of each option."""
        return slice(3 * self.count, -1)

    def slide(self, k: int) -> tuple[int, int, int]:
        """The columns of one thing: forward, aft, moved."""
        return k, self.count + k, 2 * self.count + k

    def ballast(self) -> dict[int, BallastOption]:
        """Each option by its column."""
        return dict(enumerate(self.options, start=3 * self.count))


@dataclass(slots=True)
class Rows:
    """Rows of ``low <= row @ x <= high`` over so many columns, written one after the other.

    >>> rows = Rows(3)
    >>> rows.add({0: 1.0, 2: -2.0}, 0.0, 10.0)
    >>> rows.matrix().tolist(), rows.low, rows.high
    ([[1.0, 0.0, -2.0]], [0.0], [10.0])
    """

    size: int
    rows: list[Vector] = field(default_factory=list)
    low: list[float] = field(default_factory=list)
    high: list[float] = field(default_factory=list)

    def add(self, row: Mapping[int, float], low: float, high: float) -> None:
        """One more, of the columns that are not zero in it."""
        whole = np.zeros(self.size)
        for column, value in row.items():
            whole[column] = value
        self.rows.append(whole)
        self.low.append(low)
        self.high.append(high)

    def matrix(self) -> Matrix:
        """All of them, shape (rows, size)."""
        return np.array(self.rows).reshape(len(self.rows), self.size)


def add_slides(ready: Balanceable, columns: Columns, rows: Rows, most: Vector) -> None:
    """What slides counts as moved and stays where it may sit; what lies outside that, if it moves
    at all, moves into it. ``most`` (size,) gets how far each may go [mm].

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 1))
    >>> ready = Balanceable(Build("b", "B"), ("all",), np.array([50.0]), np.array([200.0]),
    ...     np.zeros(1), one, one, np.array([80.0]), np.array([90.0]), 80.0, 90.0,
    ...     np.zeros(1), None, (0,), np.array([[150.0, 220.0]]), (), ())
    >>> columns = Columns.of(ready)
    >>> rows, most = Rows(columns.size), np.zeros(columns.size)
    >>> add_slides(ready, columns, rows, most)
    >>> most.tolist(), rows.matrix().tolist()  # 50 mm forward, 20 mm aft; it moved if either
    ([50.0, 20.0, 1.0, 0.0], [[1.0, 1.0, -70.0, 0.0]])
    """
    most[columns.moved] = 1
    for k, i in enumerate(ready.movable):
        forward, aft, moved = columns.slide(k)
        here, (low, high) = float(ready.x[i]), ready.slide[k]
        most[forward], most[aft] = max(here - low, 0.0), max(high - here, 0.0)
        must = float(np.clip(here, low, high)) - here
        far = max(float(most[forward] + most[aft]), 1e-6)
        if abs(must) > STILL_MM:
            toward, away = (aft, forward) if must > 0 else (forward, aft)
            far = abs(must) + float(high - low)
            most[away], most[toward] = 0.0, far
            rows.add({toward: 1.0, moved: -abs(must)}, 0.0, np.inf)
        rows.add({forward: 1.0, aft: 1.0, moved: -far}, -np.inf, 0.0)


def add_ballast(ready: Balanceable, columns: Columns, rows: Rows, most: Vector) -> None:
    """No spot holds more than its most, and no piece is used twice. ``most`` (size,) gets how many
    pieces, or grams, of each option there may be.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([0.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), (20.0, 20.0, 30.0))
    >>> columns = Columns.of(ready)
    >>> rows, most = Rows(columns.size), np.zeros(columns.size)
    >>> add_ballast(ready, columns, rows, most)
    >>> most.tolist(), rows.high  # pieces of 20 g, of 30 g; on the spot, and of each
    ([2.0, 1.0, 0.0], [50.0, 2, 1])
    """
    ballast, pieces = columns.ballast(), columns.pieces
    for column, option in ballast.items():
        held = option.spot.most_g
        if pieces:
            held = min((held + SLACK_G) // option.grams, pieces[option.grams] // option.sides)
        most[column] = held
    for spot in ready.spots:
        row = {column: option.grams for column, option in ballast.items() if option.spot is spot}
        rows.add(row, 0.0, spot.most_g)
    for grams, number in pieces.items():
        row = {
            column: float(option.sides)
            for column, option in ballast.items()
            if option.grams == grams
        }
        rows.add(row, 0.0, number)


def add_balance(ready: Balanceable, columns: Columns, rows: Rows, deepest: bool) -> None:
    """Every loadout in its range along x, within its weight, and near the middle along y where
    there is a spot on one side: elsewhere ballast would only make it so heavy that it hangs less.

    For the best chance the range itself counts, less the depth [sigma] of the worst loadout.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([0.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> columns = Columns.of(ready)
    >>> rows = Rows(columns.size)
    >>> add_balance(ready, columns, rows, deepest=False)
    >>> rows.matrix().tolist(), rows.high  # b (0 - 90) <= -2000, and b (0 - 80) >= -4000
    ([[-90.0, 0.0], [-80.0, 0.0]], [-2000.0, inf])
    """
    ballast = columns.ballast()
    for k in range(len(ready.names)):
        _add_range(ready, columns, rows, k, deepest)
        aboard = ready.mass * ready.aboard[k]
        mass, side = float(aboard.sum()), float(aboard @ ready.y)
        if ready.across and ready.is_one_sided:
            for sign in (1.0, -1.0):
                row = {
                    column: option.grams
                    * option.sides
                    * (sign * _across(option.spot) - SIDEWAYS_MM)
                    for column, option in ballast.items()
                }
                rows.add(row, -np.inf, SIDEWAYS_MM * mass - sign * side)
        if ready.most_g is not None:
            whole = float(ready.mass @ ready.all_aboard[k])
            if whole <= ready.most_g or ballast:
                row = {column: option.whole_g for column, option in ballast.items()}
                rows.add(row, -np.inf, max(ready.most_g - whole, 0.0))


def _add_range(ready: Balanceable, columns: Columns, rows: Rows, k: int, deepest: bool) -> None:
    """One loadout between the low and the high end of its range along x."""
    aboard = ready.mass * ready.aboard[k]
    low, high = float(ready.low[k]), float(ready.high[k])
    if deepest:
        low, high = ready.lowest, ready.highest
    for limit, upper in ((high, True), (low, False)):
        row = {}
        for j, i in enumerate(ready.movable):
            forward, aft, _ = columns.slide(j)
            row[forward], row[aft] = -float(aboard[i]), float(aboard[i])
        for column, option in columns.ballast().items():
            row[column] = option.whole_g * (option.spot.x_mm - limit)
        if deepest:
            row[columns.size - 1] = (1.0 if upper else -1.0) * float(ready.u[k] * aboard.sum())
        now = float(aboard @ (ready.x - limit))
        rows.add(row, -np.inf if upper else -now, -now if upper else np.inf)


def _across(spot: BallastSpot) -> float:
    return 0.0 if spot.pair else spot.y_mm
