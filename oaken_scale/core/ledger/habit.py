"""The builder's own habit: guesses and listings run light or heavy together, and more or less far.

A factor that all guesses share (and one for all listings) stands in the ledger's state; weighed
ones move those still to be weighed. How far the weighed ones of a pedigree lie from what was
believed widens or narrows what is believed of the rest.
"""

from dataclasses import dataclass, field
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import HABITUAL, Prior, habit_of
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Habit, Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.traits import traits, wherever

TRIED: Final = 8
"""What the table of pedigrees is worth, in weighed parts."""

WEIGHED: Final = 0.5
"""A part counts as weighed when readings took away so much of its own doubt's variance."""

FELT: Final = 0.02
"""One that readings say less of says nothing of how far its pedigree lies off."""

CLIPPED: Final = 2.5
"""Parts farther off than so many times the learned doubt are more likely slips: they count as
this far."""

OTHERS: Final = 4
"""What the table is worth, in weighed parts, against what the other pedigrees' weighed parts tell
of this one."""

MOST_HEARD: Final = 40
"""Finished builds are worth at most so many weighed parts: habits change."""

WIDE: Final = 1.3
"""A pedigree whose doubt is learned to be so many times as wide is told."""

RUNS: Final = 0.05
"""A factor this far from 1, and surely so, is told."""


@dataclass(frozen=True, slots=True)
class HabitFound:
    """How one pedigree's figures run on this build.

    ``factor`` with ``sd`` (one sigma); ``width`` is how many times as far off as usual they are,
    told by ``weighed`` parts; the ``left`` not yet weighed were moved by ``moved_g`` together.
    """

    pedigree: Pedigree
    factor: float
    sd: float
    width: float
    weighed: int
    left: int
    moved_g: float
    is_wide: bool = field(init=False, default=False)

    def __post_init__(self) -> None:
        """Whether they are surely farther off than usual."""
        object.__setattr__(self, "is_wide", self.width > WIDE)


@dataclass(frozen=True, slots=True)
class Width:
    """How many times as wide a pedigree's own doubt is as the table says, ``times`` as learned with
    ``freedom`` degrees of freedom, and ``taken`` for what is believed of the rest.

    ``taken`` is the wider one: what was learned from few is a Student's t, whose variance is
    ``nu/(nu - 2)`` times its scale's; and where other pedigrees came out wider than the table says,
    this one is taken to be so too until it is weighed itself.
    """

    times: float
    freedom: float
    taken: float


USUAL_WIDTH: Final = Width(1.0, TRIED, 1.0)


def widths(
    build: Build, usual: NDArray[np.bool_], own: Vector, told: Vector
) -> dict[Pedigree, Width]:
    """How many times as wide each pedigree's own doubt is as the table says.

    ``tau^2 = (8 + sum t_i^2) / (8 + n)`` over the ``n`` weighed parts whose doubt is the usual one;
    ``own`` (N,) are the ``t_i``, each part left out itself, ``told`` (N,) how much of its doubt
    was weighed away: one weighed by difference counts by so much. One that is over 2.5 tau counts
    as 2.5 tau, so that a slip does not widen all.

    Source: docs/methods.md, section 1; Huber, *Robust Statistics*, chapter 5 (the clipping);
    Gelman et al., *Bayesian Data Analysis*, 3.2 and 5.4 (Student's t, and learning from others).

    >>> from oaken_scale.core.model.part import Part
    >>> build = Build("b", "B", parts=tuple(
    ...     Part(str(k), "x", Pedigree.LISTING, stated_g=9.0) for k in range(4)))
    >>> far = widths(build, np.ones(4, bool), np.array([2.0, -2.0, 1.5, 1.0]), np.ones(4))
    >>> round(far[Pedigree.LISTING].times, 4)  # sqrt((8 + 11.25) / 12)
    1.2666
    """
    heard = {each.pedigree: each for each in build.habits}
    weighed = usual & (told > FELT)
    of = pedigree_numbers(wherever(build.parts))
    seen = {PEDIGREES[pedigree] for pedigree in heard} | set(of[usual].tolist())
    tallies: dict[Pedigree, _Tally] = {}
    for pedigree, number in PEDIGREES.items():
        if number in seen and pedigree is not Pedigree.ALLOWANCE:
            here = weighed & (of == number)
            tallies[pedigree] = _tally(own[here] ** 2, told[here], heard.get(pedigree))
    return {pedigree: _width(pedigree, tallies) for pedigree in tallies}


PEDIGREES: Final = {pedigree: number for number, pedigree in enumerate(Pedigree)}
"""Each pedigree by its place among them."""


@dataclass(frozen=True, slots=True)
class _Tally:
    """The sum of ``t^2`` of a pedigree's weighed parts, and how many they are."""

    squares: float
    count: float


def _tally(squares: Vector, weights: Vector, heard: Habit | None) -> _Tally:
    base, count = 0.0, 0.0
    if heard is not None and heard.weighed:
        share = min(1.0, MOST_HEARD / heard.weighed)
        base, count = share * heard.squares, share * heard.weighed
    count += float(weights.sum())
    total = count
    for _ in range(60):
        most = CLIPPED**2 * (TRIED + total) / (TRIED + count)
        total, before = base + float(weights @ np.minimum(squares, most)), total
        if abs(total - before) < 1e-9:
            break
    return _Tally(total, count)


def _width(pedigree: Pedigree, tallies: dict[Pedigree, _Tally]) -> Width:
    """Source: docs/methods.md, section 1."""
    mine = tallies[pedigree]
    others = [each for other, each in tallies.items() if other is not pedigree]
    square = OTHERS + sum(each.squares for each in others)
    wide = max(1.0, square / (OTHERS + sum(each.count for each in others)))
    freedom = TRIED + mine.count
    few = freedom / (freedom - 2) if mine.count else 1.0
    return Width(
        times=((TRIED + mine.squares) / freedom) ** 0.5,
        freedom=freedom,
        taken=((TRIED * wide + mine.squares) / freedom * few) ** 0.5,
    )


def widening(build: Build, believed: Prior, wide: dict[Pedigree, Width]) -> tuple[Vector, Vector]:
    """How many times as wide each part's own doubt is by what was learned of its pedigree, and with
    how many degrees of freedom, both (N,); one that the builder gave stays as it is.

    >>> from oaken_scale.core.ledger.prior import prior
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0, doubt_g=4.0))
    >>> build = Build("x", "X", parts=parts)
    >>> wide = {pedigree: Width(1.0, 8.0, 2.0) for pedigree in PEDIGREES}
    >>> [values.tolist() for values in widening(build, prior(build), wide)]
    [[2.0, 1.0], [8.0, inf]]
    """
    given = Width(1.0, np.inf, 1.0)
    table = [
        given if pedigree is Pedigree.ALLOWANCE else wide.get(pedigree, USUAL_WIDTH)
        for pedigree in PEDIGREES
    ]
    of = pedigree_numbers(wherever(build.parts))
    by, freedom = (
        np.array([(each.taken, each.freedom) for each in table], dtype=float)[of].reshape(-1, 2).T
    )
    usual = believed.usual
    return np.where(usual, by, 1.0), np.where(usual, freedom, np.inf)


@recalled(keep=8)
def pedigree_numbers(parts: tuple[Part, ...]) -> NDArray[np.intp]:
    """Which pedigree each part has, by its place among them, shape (N,).

    >>> parts = (Part("m", "Motor", Pedigree.LISTING), Part("b", "Box", Pedigree.GUESS))
    >>> len(set(pedigree_numbers(parts).tolist()))
    2
    """
    return np.array([PEDIGREES[part.pedigree] for part in parts], dtype=np.intp)


@recalled(keep=8)
def _habits(parts: tuple[Part, ...]) -> tuple[NDArray[np.intp], Vector]:
    """Which shared factor each part has, -1 for none, and its stated figure [g], both (N,)."""
    habits = [habit_of(part) for part in parts]
    return (
        np.array([-1 if habit is None else habit for habit in habits], dtype=np.intp),
        np.array([part.stated_g or 0.0 for part in parts], dtype=float),
    )


def found(build: Build, after: Posterior, wide: dict[Pedigree, Width]) -> tuple[HabitFound, ...]:
    """How guesses and listings run on this build, where weighing told anything of it.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> log = (Weighing("r", datetime(2026, 3, 7, tzinfo=UTC), "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> (told,) = found(build, solve(build), {})
    >>> told.pedigree.value, round(told.factor, 2)
    ('listing', 1.02)
    """
    habits, stated = _habits(wherever(build.parts))
    told = []
    for p, pedigree in enumerate(HABITUAL):
        here = habits == p
        weighed = here & (after.told > WEIGHED)
        if not weighed.any():
            continue
        at = after.factors.start + p
        left = here & ~weighed & traits(build.parts).there
        told.append(
            HabitFound(
                pedigree=pedigree,
                factor=float(after.mean[at]),
                sd=float(after.sd[at]),
                width=wide.get(pedigree, USUAL_WIDTH).times,
                weighed=int(weighed.sum()),
                left=int(left.sum()),
                moved_g=float((after.mass - stated)[left].sum()),
            )
        )
    return tuple(told)


def tells(habit: HabitFound) -> bool:
    """Whether a habit is worth a line: it runs surely heavy or light, or farther off than usual.

    >>> tells(HabitFound(Pedigree.GUESS, 1.4, 0.06, 1.0, 15, 5, 37.0))
    True
    >>> tells(HabitFound(Pedigree.GUESS, 1.04, 0.06, 1.1, 15, 5, 4.0))
    False
    """
    runs = abs(habit.factor - 1) >= RUNS and abs(habit.factor - 1) > 2 * habit.sd
    return runs or habit.is_wide
