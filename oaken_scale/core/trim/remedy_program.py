"""The least that balances a plane, as small mixed-integer programs.

What may slide has its range, ballast its spots and its pieces; every loadout must come into its
range. The least ballast comes first, then the fewest moves, then the shortest; where pieces step
over a range narrowed by its doubt, the best worst-case chance of lying in the range comes first.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from oaken_scale.core.flight.verdict import chance_within
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.trim.remedy import (
    STILL_MM,
    Balanceable,
    Comes,
    Placed,
    Remedy,
    Slid,
    comes_to,
)
from oaken_scale.core.trim.remedy_rows import Columns, Rows, add_balance, add_ballast, add_slides

AT_EDGE_MM: Final = 1e-3
"""What is nearer to an edge than this is inside [mm]."""


FAR_MM: Final = 1e5
"""An end of a range that is so far away is none [mm]."""

DEEPEST: Final = 30.0
"""Farther inside its range than so many sigma no loadout is looked for."""


SURE_ENOUGH: Final = 0.84
"""A plan whose chance is less wants a weighing to be surer."""

AS_SURE: Final = 0.02
"""A plan whose chance is less by no more than this is as good as another."""

MUCH_LESS_G: Final = 5.0
"""With so much less ballast [g], and half of it at most, a plan that is as sure is the better."""


def solve(ready: Balanceable) -> Remedy | None:
    """The least that brings every loadout into its range narrowed by its doubt, else what does so
    with the best chance; None where nothing works.

    Where the doubt is as wide as the range the narrowed one is a wish: a plan that is as sure with
    much less ballast is the better one.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([0.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> round(solve(ready).ballast_g, 2)
    22.22
    """
    best = solve_least(ready)
    if best is None:
        return solve_best_chance(ready)
    if best.chance >= SURE_ENOUGH or best.ballast_g <= MUCH_LESS_G:
        return best
    lighter = solve_least(_as_sure(ready, best.chance - AS_SURE))
    if lighter is None or lighter.chance < best.chance - 2 * AS_SURE:
        return best
    most = min(best.ballast_g / 2, best.ballast_g - MUCH_LESS_G)
    return lighter if lighter.ballast_g <= most else best


def _as_sure(ready: Balanceable, chance: float) -> Balanceable:
    """The same where a loadout's doubt is as wide as its range: that is as wide as it may be for a
    chance of lying in the whole of it."""

    def out_to(k: int, inner: float, edge: float) -> float:
        def is_sure(x: float) -> bool:
            return chance_of_one(ready, k, x) >= chance

        is_narrowed_whole = abs(edge - inner) > 0.999 * float(ready.u[k])
        if abs(edge) >= FAR_MM or is_narrowed_whole or not is_sure(inner):
            return inner
        near, far = inner, edge
        for _ in range(30):
            middle = (near + far) / 2
            near, far = (middle, far) if is_sure(middle) else (near, middle)
        return near

    loadouts = range(len(ready.names))
    low = np.array([out_to(k, float(ready.low[k]), ready.lowest) for k in loadouts])
    high = np.array([out_to(k, float(ready.high[k]), ready.highest) for k in loadouts])
    return replace(ready, low=low, high=high)


def solve_least(ready: Balanceable) -> Remedy | None:
    """The least ballast, then the fewest and the shortest moves; None where nothing works.

    With ``d_i`` the slides and ``b`` the ballast, every loadout l must keep
    ``lo_l M_l <= sum m (x + d) + sum b x_s <= hi_l M_l``, ``|sum m y| <= tol M_l`` and its weight,
    the range narrowed by one sigma of its CG.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([0.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> round(solve_least(ready).ballast_g, 2)  # 200 g at 100 mm: 20 000 / (200 + b) = 90
    22.22
    """
    return _in_turn(_Program.of(ready), [])


def solve_best_chance(ready: Balanceable) -> Remedy | None:
    """The plan with the best worst-case chance of lying in the range, and of those the least;
    None where no plan has every loadout in it.

    A depth ``t`` inside is the largest with ``lo + t u_l <= x_l <= hi - t u_l`` in every loadout.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([4.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), (20.0, 30.0, 5.0))
    >>> told = solve_best_chance(ready)
    >>> told.ballast_g, round(told.chance, 2)
    (35.0, 0.79)
    """
    told = _Program.of(ready, deepest=True)
    depth = np.zeros(len(told.most))
    depth[-1] = -1.0
    found = told.solved(depth, [])
    if found is None or found[-1] <= 0:
        return None
    return _in_turn(told, [(depth, -float(found[-1]) + 1e-6 * (1 + abs(float(found[-1]))))])


def _in_turn(told: "_Program", fixed: list[tuple[Vector, float]]) -> Remedy | None:
    """Least ballast, fewest moves, shortest moves, each under what came before."""
    solution = None
    for objective in (told.ballast_cost, told.move_cost, told.length_cost):
        found = told.solved(objective, fixed)
        if found is None:
            return None if solution is None else told.remedy(solution)
        solution = found
        reached = float(objective @ found)
        fixed.append((objective, reached + 1e-7 * (1 + abs(reached))))
    return None if solution is None else told.remedy(solution)


def chance_of(ready: Balanceable, loadouts: Sequence[Comes]) -> float:
    """The least of the loadouts' chances of lying in its range.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([5.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> round(chance_of(ready, [Comes("all", 85.0, 0.0, 236.0)]), 3)  # one sigma either way
    0.683
    """
    return min(chance_of_one(ready, k, each.x_mm) for k, each in enumerate(loadouts))


def chance_of_one(ready: Balanceable, k: int, x_mm: float) -> float:
    """The chance that loadout ``k`` lies in its range with its CG believed at ``x_mm``.

    >>> from oaken_scale.core.model.build import Build
    >>> one = np.ones((1, 2))
    >>> mass, x, y = np.array([100.0, 100.0]), np.array([0.0, 200.0]), np.zeros(2)
    >>> ready = Balanceable(Build("b", "B"), ("all",), mass, x, y, one, one, np.array([80.0]),
    ...     np.array([90.0]), 80.0, 90.0, np.array([5.0]), None, (), np.zeros((0, 2)),
    ...     (BallastSpot("nose", "Nose", 0.0),), ())
    >>> round(chance_of_one(ready, 0, 90.0), 3)  # at its end
    0.477
    """
    low = None if ready.lowest <= -FAR_MM else ready.lowest - AT_EDGE_MM
    high = None if ready.highest >= FAR_MM else ready.highest + AT_EDGE_MM
    return chance_within(low, high, x_mm, float(ready.u[k]))


@dataclass(frozen=True, slots=True, eq=False)
class _Program:
    """The mixed-integer program. Variables: slides forward and aft (2K), whether each moved (K),
    ballast (pieces of each mass at each spot, or plain grams where no pieces are at hand), and
    last how deep inside its range the worst loadout lies [sigma], where that is to be largest."""

    ready: Balanceable
    columns: Columns
    rows: Matrix
    low: Vector
    high: Vector
    least: Vector
    most: Vector
    whole: Vector
    ballast_cost: Vector
    move_cost: Vector
    length_cost: Vector

    @classmethod
    def of(cls, ready: Balanceable, deepest: bool = False) -> "_Program":
        """Write the program down; ``deepest`` looks for the best chance, not for a sure one."""
        columns = Columns.of(ready)
        rows = Rows(columns.size)
        least, most, whole, ballast, moved, length = np.zeros((6, columns.size))
        add_slides(ready, columns, rows, most)
        add_ballast(ready, columns, rows, most)
        add_balance(ready, columns, rows, deepest)
        least[-1], most[-1] = (-DEEPEST, DEEPEST) if deepest else (0.0, 0.0)
        ballast[columns.placed] = [option.whole_g for option in columns.options]
        moved[columns.moved] = 1.0
        moved[columns.placed] = 1e-3 if columns.pieces else 0.0  # among equals, the fewer pieces
        length[columns.slides] = 1.0
        whole[columns.moved] = 1
        whole[columns.placed] = 1 if columns.pieces else 0
        return cls(
            ready,
            columns,
            rows.matrix(),
            np.array(rows.low),
            np.array(rows.high),
            least,
            most,
            whole,
            ballast,
            moved,
            length,
        )

    def solved(self, objective: Vector, fixed: list[tuple[Vector, float]]) -> Vector | None:
        """One optimum under what the earlier ones fixed; None where there is none."""
        rows = np.vstack([self.rows, *(row[None] for row, _ in fixed)])
        low = np.concatenate([self.low, np.full(len(fixed), -np.inf)])
        high = np.concatenate([self.high, [most for _, most in fixed]])
        told = milp(
            objective,
            integrality=self.whole,
            bounds=Bounds(self.least, self.most),
            constraints=LinearConstraint(csr_array(rows), low, high),
            options={"time_limit": 2.0},
        )
        if told.x is None:
            return None
        found: Vector = np.where(self.whole > 0, np.round(told.x), told.x)
        return found

    def remedy(self, found: Vector) -> Remedy:
        """The optimum as something to do."""
        ready, columns = self.ready, self.columns
        slides, x = [], ready.x.copy()
        for k, i in enumerate(ready.movable):
            forward, aft, _ = columns.slide(k)
            by = float(found[aft] - found[forward])
            if abs(by) > STILL_MM:
                slides.append(Slid(ready.build.parts[i].id, float(x[i]), float(x[i]) + by))
                x[i] += by
        placed = tuple(each for spot in ready.spots if (each := self._placed(spot, found)))
        ballast_g = sum(
            each.grams * (2 if spot.pair else 1)
            for each in placed
            for spot in ready.spots
            if spot.id == each.spot
        )
        comes = tuple(comes_to(ready, x, placed, k) for k in range(len(ready.names)))
        return Remedy(tuple(slides), placed, ballast_g, comes, chance_of(ready, comes))

    def _placed(self, spot: BallastSpot, found: Vector) -> Placed | None:
        """What goes to one spot; None where nothing does."""
        grams, pieces = 0.0, []
        for column, option in self.columns.ballast().items():
            number = float(found[column])
            if option.spot is spot and number > 1e-9:
                grams += option.grams * number
                pieces += [option.grams] * round(number) if self.columns.pieces else []
        return Placed(spot.id, grams, tuple(pieces)) if grams > 1e-6 else None
