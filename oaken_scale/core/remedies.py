"""Remedies: what would bring the balance into its range. Moves first, ballast last, and the least.

Every loadout that is to fly must balance. What may slide has its range, ballast its spots and its
pieces. The least ballast comes first, then the fewest moves, then the shortest: three small
mixed-integer programs, one after the other.
"""

from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array

from oaken_scale.core.answers import Flying, balance_axis
from oaken_scale.core.balancing import BallastSpot
from oaken_scale.core.build import Build, Item, Pedigree, Reference, Station, TargetKind
from oaken_scale.core.prior import Matrix, Vector
from oaken_scale.core.wing import WingFigures

SIDEWAYS_MM: Final = 3.0
"""How far off the middle the CG may lie [mm]."""

NARROWED: Final = 1.0
"""The range is narrowed by so many sigma of the CG at each end, so that it holds."""

LEAST_BAND: Final = 0.2
"""But no more than leaves so much of it."""

STILL_MM: Final = 0.05
"""A shorter slide is none [mm]."""

FINE_MM: Final = 0.5
"""A CG no farther than this outside its narrowed range needs no remedy [mm]."""

SLACK_G: Final = 1e-6


class Limit(StrEnum):
    """What may stand in the way of every remedy."""

    WEIGHT = "the weight limit"
    SIDEWAYS = "the balance sideways"
    SLIDES = "how far things may slide"
    BALLAST = "how much ballast there is room for"
    RANGE = "the range itself"


@dataclass(frozen=True, slots=True)
class Slid:
    """One thing moved along x [mm from the nose]."""

    item: str
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
    """What to do: slides, ballast, and where every loadout comes to; ``words`` say it."""

    slides: tuple[Slid, ...]
    ballast: tuple[Placed, ...]
    ballast_g: float
    loadouts: tuple[Comes, ...]
    words: str


@dataclass(frozen=True, slots=True)
class Remedies:
    """The best remedy first, and other ways; or what stands in the way of all."""

    best: Remedy | None
    others: tuple[Remedy, ...]
    in_the_way: Limit | None
    words: str


@dataclass(frozen=True, slots=True, eq=False)
class Bench:
    """A plane ready to be balanced: what flies in each loadout, and where it may go.

    ``mass`` (N,) [g], ``x`` and ``y`` (N,) [mm], ``aboard`` (L, N) of what has a station,
    ``all_aboard`` (L, N); ``low`` and ``high`` (L,) [mm from the nose]; ``most_g`` None without a
    weight limit.
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
    most_g: float | None
    movable: tuple[int, ...]
    slide: Matrix
    spots: tuple[BallastSpot, ...]
    pieces: tuple[float, ...]


def bench(build: Build, planes: Sequence[Flying], names: Sequence[str]) -> Bench | None:
    """Set a plane up to be balanced; None without a balance target, stations or mass."""
    target = planes[0].target(TargetKind.BALANCE)
    if target is None or any(plane.cg is None for plane in planes):
        return None
    wing: WingFigures | None = planes[0].wing
    origin, size = balance_axis(target.balance_unit, wing)
    where, after = planes[0].where, planes[0].after
    far = 1e5
    low0 = -far if target.low is None else origin + size * target.low
    high0 = far if target.high is None else origin + size * target.high
    u = NARROWED * np.array([plane.cg.x_sd_mm for plane in planes if plane.cg])
    u = np.minimum(u, (1 - LEAST_BAND) / 2 * (high0 - low0))
    movable = tuple(
        i
        for i, item in enumerate(build.items)
        if item.slide is not None and item.station is not None and not item.retired
    )
    edge = wing.leading_edge_x_mm if wing else 0.0
    slide = np.array([_range(build.items[i], edge) for i in movable]).reshape(-1, 2)
    limits = [t.high for t in build.targets if t.kind is TargetKind.AUW]
    all_aboard = np.array([plane.aboard for plane in planes])
    return Bench(
        build=build,
        names=tuple(names),
        mass=after.mass,
        x=where.xyz[:, 0],
        y=where.xyz[:, 1],
        aboard=all_aboard * where.placed,
        all_aboard=all_aboard,
        low=low0 + u if target.low is not None else np.full(len(u), low0),
        high=high0 - u if target.high is not None else np.full(len(u), high0),
        most_g=limits[0] if limits else None,
        movable=movable,
        slide=slide,
        spots=build.ballast.spots,
        pieces=build.ballast.pieces,
    )


def _range(item: Item, edge_mm: float) -> tuple[float, float]:
    """How far a thing may be moved, from the nose [mm]; where it is now is always allowed."""
    assert item.slide is not None
    assert item.station is not None
    add = edge_mm if item.station.reference is Reference.LEADING_EDGE else 0.0
    return item.slide.low_mm + add, item.slide.high_mm + add


def remedies(ready: Bench) -> Remedies:
    """The least that brings every loadout into its range, and other ways to do it.

    Source: docs/methods.md, section 5a; SciPy's ``milp`` (HiGHS).
    """
    if _is_fine(ready):
        comes = tuple(_comes(ready, ready.x, (), k) for k in range(len(ready.names)))
        words = "Every loadout is in its range as it is."
        return Remedies(Remedy((), (), 0.0, comes, words), (), None, words)
    best = solve_least(ready)
    if best is None:
        limit = _in_the_way(ready)
        return Remedies(None, (), limit, f"Nothing works: {limit.value} stands in the way.")
    others = []
    if best.slides:
        still = solve_least(replace(ready, movable=(), slide=ready.slide[:0]))
        if still is None:
            free = solve_least(replace(ready, movable=(), slide=ready.slide[:0], most_g=None))
            if free is not None:
                words = f"{free.words[:-1]}, but that breaks the weight limit."
                others.append(replace(free, words=f"or {words[:1].lower()}{words[1:]}"))
        else:
            others.append(replace(still, words=f"or {still.words[:1].lower()}{still.words[1:]}"))
    for slid in best.slides if len(best.slides) == 1 else ():
        k = next(k for k, i in enumerate(ready.movable) if ready.build.items[i].id == slid.item)
        kept = [j for j in range(len(ready.movable)) if j != k]
        other = solve_least(
            replace(ready, movable=tuple(ready.movable[j] for j in kept), slide=ready.slide[kept])
        )
        if other is not None and other.slides and other.ballast_g <= best.ballast_g + SLACK_G:
            others.append(replace(other, words=f"or {other.words[:1].lower()}{other.words[1:]}"))
    return Remedies(best, tuple(others), None, best.words)


def _is_fine(ready: Bench) -> bool:
    """Whether everything may stay: a millimetre at the edge of a narrowed range is none."""
    for k in range(len(ready.names)):
        at = _comes(ready, ready.x, (), k)
        if not ready.low[k] - FINE_MM <= at.x_mm <= ready.high[k] + FINE_MM:
            return False
        if abs(at.y_mm) > SIDEWAYS_MM:
            return False
    here = ready.x[list(ready.movable)]
    low, high = ready.slide.T
    return bool(((here >= low - STILL_MM) & (here <= high + STILL_MM)).all())


def solve_least(ready: Bench) -> Remedy | None:
    """The least ballast, then the fewest and the shortest moves; None where nothing works.

    With ``d_i`` the slides and ``b`` the ballast, every loadout l must keep
    ``lo_l M_l <= sum m (x + d) + sum b x_s <= hi_l M_l``, ``|sum m y| <= tol M_l`` and its weight.
    """
    told = _Program.of(ready)
    fixed: list[tuple[Vector, float]] = []
    solution = None
    for objective in (told.ballast_cost, told.move_cost, told.length_cost):
        found = told.solved(objective, fixed)
        if found is None:
            return None
        solution = found
        reached = float(objective @ found)
        fixed.append((objective, reached + 1e-7 * (1 + abs(reached))))
    assert solution is not None
    return told.remedy(solution)


@dataclass(frozen=True, slots=True, eq=False)
class _Program:
    """The mixed-integer program. Variables: slides forward and aft (2K), whether each moved (K),
    and ballast: pieces of each mass at each spot, or plain grams where no pieces are at hand."""

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
    def of(cls, ready: Bench) -> "_Program":
        """Write the program down."""
        movable, count = ready.movable, len(ready.movable)
        groups = Counter(round(piece, 6) for piece in ready.pieces)
        lots: list[tuple[BallastSpot, float, int]] = []
        for spot in ready.spots:
            sides = 2 if spot.pair else 1
            lots += [(spot, grams, sides) for grams in groups] if groups else [(spot, 1.0, sides)]
        size = 3 * count + len(lots)
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
            if abs(must[k]) > STILL_MM:  # it lies outside its range now, and has to go there
                push = np.zeros(size)
                push[count + k if must[k] > 0 else k] = 1.0
                add(push, abs(float(must[k])), np.inf)
                most[k] = max(most[k], abs(float(must[k])))
                most[count + k] = max(most[count + k], abs(float(must[k])))
                rows[-2][2 * count + k] = -max(float(room[k].sum()), abs(float(must[k])))
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
        _balance_rows(ready, lots, size, add)
        ballast = np.zeros(size)
        ballast[at:] = [grams * sides for _, grams, sides in lots]
        moved, length = np.zeros(size), np.zeros(size)
        moved[2 * count : 3 * count] = 1.0
        moved[at:] = 1e-3 if groups else 0.0  # among equals, the fewer pieces
        length[: 2 * count] = 1.0
        whole = np.zeros(size)
        whole[2 * count : 3 * count] = 1
        whole[at:] = 1 if groups else 0
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
        if not len(self.most):
            inside = (self.low <= SLACK_G).all() and (self.high >= -SLACK_G).all()
            return np.zeros(0) if inside else None
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
                slides.append(Slid(ready.build.items[i].id, float(x[i]), float(x[i]) + by))
                x[i] += by
        placed = []
        for spot in ready.spots:
            pieces: list[float] = []
            grams = 0.0
            for (other, mass, _), number in zip(self.lots, found[3 * count :], strict=True):
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
        comes = tuple(_comes(ready, x, placed, k) for k in range(len(ready.names)))
        words = _words(ready, slides, placed, ballast_g)
        return Remedy(tuple(slides), tuple(placed), ballast_g, comes, words)


def _balance_rows(
    ready: Bench,
    lots: Sequence[tuple[BallastSpot, float, int]],
    size: int,
    add: Callable[[Vector, float, float], None],
) -> None:
    """Every loadout in its range along x, near the middle along y, within its weight."""
    movable, count = ready.movable, len(ready.movable)
    at = 3 * count
    for k in range(len(ready.names)):
        aboard = ready.mass * ready.aboard[k]
        mass = float(aboard.sum())
        for limit, upper in ((ready.high[k], True), (ready.low[k], False)):
            row = np.zeros(size)
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
            row[at:] = [grams * sides for _, grams, sides in lots]
            whole = float(ready.mass @ ready.all_aboard[k])
            if whole <= ready.most_g or lots:
                add(row, -np.inf, max(ready.most_g - whole, 0.0))


def _off(ready: Bench, k: int) -> bool:
    """Whether a loadout lies off the middle by more than is allowed."""
    aboard = ready.mass * ready.aboard[k]
    return abs(float(aboard @ ready.y)) > SIDEWAYS_MM * float(aboard.sum())


def _comes(ready: Bench, x: Vector, placed: Sequence[Placed], k: int) -> Comes:
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


def _in_the_way(ready: Bench) -> Limit:
    """Which limit, lifted alone, would let something work."""
    wide = replace(ready, slide=ready.slide + np.array([-5000.0, 5000.0]))
    roomy = replace(
        ready,
        pieces=(),
        spots=tuple(replace(spot, most_g=5000.0) for spot in ready.spots),
    )
    for limit, lifted in (
        (Limit.WEIGHT, replace(ready, most_g=None)),
        (Limit.SLIDES, wide),
        (Limit.BALLAST, replace(roomy, most_g=None)),
        (Limit.SIDEWAYS, replace(ready, y=np.zeros_like(ready.y))),
    ):
        if solve_least(lifted) is not None:
            return limit
    return Limit.RANGE


def _words(ready: Bench, slides: Sequence[Slid], placed: Sequence[Placed], ballast_g: float) -> str:
    """A remedy as a builder would say it."""
    names = {item.id: item.name.lower() for item in ready.build.items}
    said = []
    for each in slides:
        by = each.to_mm - each.from_mm
        way = "forward" if by < 0 else "aft"
        name = names[each.item] + ("," if "," in names[each.item] else "")
        said.append(f"slide the {name} {abs(by):.0f} mm {way}")
    for spot in ready.spots:
        for ballast in placed:
            if ballast.spot == spot.id:
                both = " on each side" if spot.pair else ""
                said.append(f"{ballast.grams:.3g} g at the {spot.name.lower()}{both}")
    if not said:
        return "Nothing to do."
    ending = "; no ballast" if slides and ballast_g <= SLACK_G else ""
    sentence = ", then ".join(said) + ending + "."
    return sentence[:1].upper() + sentence[1:]


def applied(build: Build, remedy: Remedy, wing: WingFigures | None) -> Build:
    """The build with a remedy done: stations moved, ballast aboard as parts of their own."""
    from_edge = wing.leading_edge_x_mm if wing else 0.0
    moved = {each.item: each.to_mm for each in remedy.slides}
    items = list(build.items)
    for i, item in enumerate(items):
        if item.id in moved and item.station is not None:
            less = from_edge if item.station.reference is Reference.LEADING_EDGE else 0.0
            station = replace(item.station, x_mm=round(moved[item.id] - less, 1))
            items[i] = replace(item, station=station)
    taken = {item.id for item in items}
    for each in remedy.ballast:
        spot = next(spot for spot in build.ballast.spots if spot.id == each.spot)
        for side in (1.0, -1.0) if spot.pair else (1.0,):
            items.append(_ballast_item(spot, each, side, taken))
            taken.add(items[-1].id)
    return replace(build, items=tuple(items))


def _ballast_item(spot: BallastSpot, placed: Placed, side: float, taken: set[str]) -> Item:
    stem = f"ballast-{spot.id}"[:50] + ("" if not spot.pair else "-right" if side > 0 else "-left")
    id, number = stem, 2
    while id in taken:
        id, number = f"{stem}-{number}", number + 1
    where = "" if not spot.pair else ", right" if side > 0 else ", left"
    return Item(
        id=id,
        name=f"Ballast, {spot.name.lower()}{where}"[:80],
        pedigree=Pedigree.LISTING,
        assembly="Ballast",
        stated_g=round(placed.grams, 2),
        station=Station(spot.x_mm, side * spot.y_mm, spot.z_mm),
    )
