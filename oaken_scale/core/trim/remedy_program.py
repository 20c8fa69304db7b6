"""The least that balances a plane, as small mixed-integer programs.

What may slide has its range, ballast its spots and its pieces; every loadout must come into its
range. The least ballast comes first, then the fewest moves, then the shortest; where pieces step
over a range narrowed by its doubt, the best worst-case chance of lying in the range comes first.
"""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from oaken_scale.core.flight.verdict import chance_within
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.balancing import BallastSpot
from oaken_scale.core.model.build import Build

SIDEWAYS_MM: Final = 3.0
"""How far off the middle the CG may lie [mm]."""

STILL_MM: Final = 0.05
"""A shorter slide is none [mm]."""

SLACK_G: Final = 1e-6

AT_EDGE_MM: Final = 1e-3
"""What is nearer to an edge than this is inside [mm]."""

DEEPEST: Final = 30.0
"""Farther inside its range than so many sigma no loadout is looked for."""


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
class Bench:
    """A plane ready to be balanced: what flies in each loadout, and where it may go.

    ``mass`` (N,) [g], ``x`` and ``y`` (N,) [mm], ``aboard`` (L, N) of what has a station,
    ``all_aboard`` (L, N); ``low`` and ``high`` (L,) [mm from the nose] are the range narrowed by
    the CG's doubt ``u`` (L,) [mm], ``lowest`` and ``highest`` the range itself; ``most_g`` None
    without a weight limit. ``slide`` (K, 2) is where each of the ``movable`` may sit [mm from the
    nose].
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


def solve_least(ready: Bench) -> Remedy | None:
    """The least ballast, then the fewest and the shortest moves; None where nothing works.

    With ``d_i`` the slides and ``b`` the ballast, every loadout l must keep
    ``lo_l M_l <= sum m (x + d) + sum b x_s <= hi_l M_l``, ``|sum m y| <= tol M_l`` and its weight,
    the range narrowed by one sigma of its CG.
    """
    return _in_turn(_Program.of(ready), [])


def solve_best_chance(ready: Bench) -> Remedy | None:
    """The plan with the best worst-case chance of lying in the range, and of those the least;
    None where no plan has every loadout in it.

    A depth ``t`` inside is the largest with ``lo + t u_l <= x_l <= hi - t u_l`` in every loadout.
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


def chance_of(ready: Bench, loadouts: Sequence[Comes]) -> float:
    """The least of the loadouts' chances of lying in its range."""
    far = 1e5
    low = None if ready.lowest <= -far else ready.lowest - AT_EDGE_MM
    high = None if ready.highest >= far else ready.highest + AT_EDGE_MM
    return min(
        chance_within(low, high, each.x_mm, float(u))
        for each, u in zip(loadouts, ready.u, strict=True)
    )


@dataclass(frozen=True, slots=True, eq=False)
class _Program:
    """The mixed-integer program. Variables: slides forward and aft (2K), whether each moved (K),
    ballast (pieces of each mass at each spot, or plain grams where no pieces are at hand), and
    last how deep inside its range the worst loadout lies [sigma], where that is to be largest."""

    ready: Bench
    rows: Matrix
    low: Vector
    high: Vector
    least: Vector
    most: Vector
    whole: Vector
    ballast_cost: Vector
    move_cost: Vector
    length_cost: Vector
    lots: tuple[tuple[BallastSpot, float, int], ...]

    @classmethod
    def of(cls, ready: Bench, deepest: bool = False) -> "_Program":  # noqa: PLR0915
        """Write the program down; ``deepest`` looks for the best chance, not for a sure one."""
        movable, count = ready.movable, len(ready.movable)
        groups = Counter(round(piece, 6) for piece in ready.pieces)
        lots: list[tuple[BallastSpot, float, int]] = []
        for spot in ready.spots:
            sides = 2 if spot.pair else 1
            lots += [(spot, grams, sides) for grams in groups] if groups else [(spot, 1.0, sides)]
        size = 3 * count + len(lots) + 1
        here = ready.x[list(movable)] if movable else np.zeros(0)
        room = np.column_stack(
            [np.maximum(here - ready.slide[:, 0], 0), np.maximum(ready.slide[:, 1] - here, 0)]
        ).reshape(-1, 2)
        must = np.clip(here, ready.slide[:, 0], ready.slide[:, 1]) - here if count else here
        least, most = np.zeros(size), np.zeros(size)
        most[:count], most[count : 2 * count] = room[:, 0], room[:, 1]
        most[2 * count : 3 * count] = 1
        rows, low, high = [], [], []

        def add(row: Vector, lo: float, hi: float) -> None:
            rows.append(row)
            low.append(lo)
            high.append(hi)

        for k in range(count):  # a thing that slides counts as moved
            row = np.zeros(size)
            row[k] = row[count + k] = 1.0
            row[2 * count + k] = -max(float(room[k].sum()), 1e-6)
            add(row, -np.inf, 0.0)
            # It lies outside its range: if it moves at all, then into it.
            if abs(must[k]) > STILL_MM:
                toward, away = (count + k, k) if must[k] > 0 else (k, count + k)
                most[away] = 0.0
                far = abs(float(must[k])) + float(np.diff(ready.slide[k])[0])
                most[toward] = far
                rows[-1][2 * count + k] = -far
                push = np.zeros(size)
                push[toward], push[2 * count + k] = 1.0, -abs(float(must[k]))
                add(push, 0.0, np.inf)
        at = 3 * count
        for j, (spot, grams, sides) in enumerate(lots):
            most[at + j] = (spot.most_g + SLACK_G) // grams if groups else spot.most_g
            if groups:
                most[at + j] = min(most[at + j], groups[round(grams, 6)] // sides)
        for spot in ready.spots:
            row = np.zeros(size)
            for j, (other, grams, _) in enumerate(lots):
                row[at + j] = grams if other is spot else 0.0
            add(row, 0.0, spot.most_g)
        for grams, number in groups.items():
            row = np.zeros(size)
            for j, (_, mass, sides) in enumerate(lots):
                row[at + j] = sides if round(mass, 6) == grams else 0.0
            add(row, 0.0, number)
        _balance_rows(ready, lots, size, add, deepest)
        least[-1], most[-1] = (-DEEPEST, DEEPEST) if deepest else (0.0, 0.0)
        ballast = np.zeros(size)
        ballast[at:-1] = [grams * sides for _, grams, sides in lots]
        moved, length = np.zeros(size), np.zeros(size)
        moved[2 * count : 3 * count] = 1.0
        moved[at:-1] = 1e-3 if groups else 0.0  # among equals, the fewer pieces
        length[: 2 * count] = 1.0
        whole = np.zeros(size)
        whole[2 * count : 3 * count] = 1
        whole[at:-1] = 1 if groups else 0
        return cls(
            ready,
            np.array(rows).reshape(len(rows), size),
            np.array(low),
            np.array(high),
            least,
            most,
            whole,
            ballast,
            moved,
            length,
            tuple(lots),
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
        ready, count = self.ready, len(self.ready.movable)
        slides, x = [], ready.x.copy()
        for k, i in enumerate(ready.movable):
            by = float(found[count + k] - found[k])
            if abs(by) > STILL_MM:
                slides.append(Slid(ready.build.parts[i].id, float(x[i]), float(x[i]) + by))
                x[i] += by
        placed = []
        for spot in ready.spots:
            pieces: list[float] = []
            grams = 0.0
            for (other, mass, _), number in zip(self.lots, found[3 * count : -1], strict=True):
                if other is spot and number > 1e-9:
                    grams += mass * float(number)
                    pieces += [mass] * round(float(number)) if ready.pieces else []
            if grams > 1e-6:
                placed.append(Placed(spot.id, grams, tuple(pieces)))
        ballast_g = sum(
            each.grams * (2 if spot.pair else 1)
            for each in placed
            for spot in ready.spots
            if spot.id == each.spot
        )
        comes = tuple(comes_to(ready, x, placed, k) for k in range(len(ready.names)))
        chance = chance_of(ready, comes)
        return Remedy(tuple(slides), tuple(placed), ballast_g, comes, chance)


def _balance_rows(
    ready: Bench,
    lots: Sequence[tuple[BallastSpot, float, int]],
    size: int,
    add: Callable[[Vector, float, float], None],
    deepest: bool,
) -> None:
    """Every loadout in its range along x, near the middle along y, within its weight.

    For the best chance the range itself counts, less the depth [sigma] of the worst loadout.
    """
    movable, count = ready.movable, len(ready.movable)
    at = 3 * count
    for k in range(len(ready.names)):
        aboard = ready.mass * ready.aboard[k]
        mass = float(aboard.sum())
        low, high = float(ready.low[k]), float(ready.high[k])
        if deepest:
            low, high = ready.lowest, ready.highest
        for limit, upper in ((high, True), (low, False)):
            row = np.zeros(size)
            if deepest:
                row[-1] = (1.0 if upper else -1.0) * float(ready.u[k]) * mass
            for j, i in enumerate(movable):
                row[j], row[count + j] = -aboard[i], aboard[i]
            for j, (spot, grams, sides) in enumerate(lots):
                row[at + j] = sides * grams * (spot.x_mm - limit)
            now = float(aboard @ (ready.x - limit))
            add(row, -np.inf if upper else -now, -now if upper else np.inf)
        if any(spot.y_mm and not spot.pair for spot, *_ in lots) or _off(ready, k):
            side = float(aboard @ ready.y)
            for sign in (1.0, -1.0):
                row = np.zeros(size)
                for j, (spot, grams, sides) in enumerate(lots):
                    y = 0.0 if spot.pair else spot.y_mm
                    row[at + j] = grams * (sign * y - SIDEWAYS_MM) * sides
                add(row, -np.inf, SIDEWAYS_MM * mass - sign * side)
        if ready.most_g is not None:
            row = np.zeros(size)
            row[at:-1] = [grams * sides for _, grams, sides in lots]
            whole = float(ready.mass @ ready.all_aboard[k])
            if whole <= ready.most_g or lots:
                add(row, -np.inf, max(ready.most_g - whole, 0.0))


def _off(ready: Bench, k: int) -> bool:
    """Whether a loadout lies off the middle by more than is allowed."""
    aboard = ready.mass * ready.aboard[k]
    return abs(float(aboard @ ready.y)) > SIDEWAYS_MM * float(aboard.sum())


def comes_to(ready: Bench, x: Vector, placed: Sequence[Placed], k: int) -> Comes:
    """Where loadout ``k`` comes to with things at ``x`` (N,) [mm] and ballast placed."""
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
