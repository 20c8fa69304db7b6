"""What is believed of every mass before the first weighing."""

from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Lot
from oaken_scale.core.model.part import Habit, Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.weighing import Pan, Scale

DOUBT: Final[dict[Pedigree, float]] = {
    Pedigree.GUESS: 0.25,
    Pedigree.LISTING: 0.05,
    Pedigree.CALCULATED: 0.03,
    Pedigree.JOINT: 0.40,
    Pedigree.COVERING: 0.10,
    Pedigree.ALLOWANCE: 1.00,
}
"""One sigma as a fraction of the estimate, by pedigree (docs/methods.md, section 1)."""

SHARED: Final[dict[Pedigree, float]] = {Pedigree.GUESS: 0.15, Pedigree.LISTING: 0.03}
"""The part of it that all guesses, or all listings, of one builder have in common."""

LISTING_FLOOR_G: Final = 0.2
"""A listing is never surer than this [g]."""

ALLOWANCE_SHARE: Final = 0.04
"""What nobody lists, as a share of what is always aboard."""

UNKNOWN_SHARE: Final = 0.04
UNKNOWN_LEAST_G: Final = 5.0
"""A part whose mass nobody knows counts as so much of what is always aboard, at least so many grams
[g]; one sigma is as much again, until somebody says or weighs it. On a pan it may be all of what
that showed or nothing: half of it, and one sigma as much again."""

HABITUAL: Final = tuple(SHARED)
"""The pedigrees whose figures have a factor in common, in the order of the state."""


@dataclass(frozen=True, eq=False)
class Prior:
    """Prior of the lot constants, the factors of guesses and listings, part masses, scale errors.

    ``mass = stated + shares @ common + own``, with ``own ~ N(0, own_sd)``. ``common_mean`` and
    ``common_sd`` (K+P,) are of the lots [g per unit] and then of the factors (P of them, near 1);
    ``shares`` (N, K+P) is how much of each a part has [units; g]; ``stated`` and ``own_sd`` (N,)
    [g]; ``scale_sd`` (S,) [fraction]. ``usual`` (N,) says whose doubt is its pedigree's usual one;
    ``freedom`` (N,) is how many degrees of freedom that doubt was learned with, infinite for one
    that is given.

    >>> tail = Part("t", "Tail", Pedigree.LISTING, stated_g=60.0)
    >>> believed = prior(Build("b", "B", parts=(tail,)))
    >>> believed.lot_mean, believed.uses.shape, believed.common_mean.tolist()
    (array([], dtype=float64), (1, 0), [1.0, 1.0])
    >>> believed.mass.tolist(), believed.mass_sd.round(3).tolist()
    ([60.0], [3.0])
    >>> believed.deviation(np.array([0.0, 1.0, 1.0])).round(3).tolist()  # guesses, listings, it
    [0.0, 0.03, 4.2]
    >>> believed.pulled(np.array([0.0, 0.0, 1.0])).round(3).tolist()
    [0.0, 1.8, 2.4]
    >>> believed.folded(np.eye(3)).round(3).tolist()
    [[0.022, 0.0, 0.0], [0.0, 3.241, 4.32], [0.0, 4.32, 5.76]]
    >>> believed.spread(np.eye(3)).round(3)[2].tolist()
    [0.0, 0.054, 9.0]
    >>> believed.widened(np.array([2.0]), np.array([9.0])).mass_sd.round(3).tolist()
    [5.126]
    """

    lots: int
    common_mean: Vector
    common_sd: Vector
    shares: Matrix
    stated: Vector
    own_sd: Vector
    scale_sd: Vector
    usual: NDArray[np.bool_]
    freedom: Vector

    @property
    def lot_mean(self) -> Vector:
        """Prior mean of the lot constants, shape (K,) [g per unit]."""
        return self.common_mean[: self.lots]

    @property
    def lot_sd(self) -> Vector:
        """Prior doubt of the lot constants, shape (K,) [g per unit]."""
        return self.common_sd[: self.lots]

    @property
    def uses(self) -> Matrix:
        """How much of each lot a part uses, shape (N, K) [units]."""
        return self.shares[:, : self.lots]

    @cached_property
    def mass(self) -> Vector:
        """Prior mean of each part's mass, shape (N,) [g]."""
        mean: Vector = self.stated + self.shares @ self.common_mean
        return mean

    @cached_property
    def mass_sd(self) -> Vector:
        """Prior doubt of each part's mass, all that it shares included, shape (N,) [g]."""
        sd: Vector = np.sqrt(self.own_sd**2 + (self.shares**2) @ (self.common_sd**2))
        return sd

    @cached_property
    def _in_common(self) -> Matrix:
        """Each part's share of unit deviations of what is common, shape (N, K+P) [g]."""
        in_common: Matrix = self.shares * self.common_sd
        return in_common

    def deviation(self, unit: Vector) -> Vector:
        """``D u``: unit deviations (K+P+N,) as deviations of the lots, factors and parts."""
        start = len(self.common_sd)
        common, own = unit[:start], unit[start:]
        return np.concatenate(
            [self.common_sd * common, self._in_common @ common + self.own_sd * own]
        )

    def pulled(self, states: Vector) -> Vector:
        """``D' s``: pulls on lots, factors and parts (K+P+N,) as pulls on unit deviations."""
        start = len(self.common_sd)
        own = states[start:]
        common = self.common_sd * states[:start] + own @ self._in_common
        return np.concatenate([common, self.own_sd * own])

    def folded(self, product: Matrix) -> Matrix:
        """``D' A D`` of a symmetric matrix over lots, factors and parts (K+P+N square)."""
        start = len(self.common_sd)
        common = self.common_sd[:, None] * product[:start] + self._in_common.T @ product[start:]
        folded = np.empty_like(product)
        folded[:start, :start] = common[:, :start] * self.common_sd
        folded[:start, :start] += common[:, start:] @ self._in_common
        folded[:start, start:] = common[:, start:] * self.own_sd
        folded[start:, :start] = folded[:start, start:].T
        own = folded[start:, start:]
        np.multiply(product[start:, start:], self.own_sd, out=own)
        own *= self.own_sd[:, None]
        return folded

    def spread(self, unit: Matrix) -> Matrix:
        """``D V D'`` over the whole state, scale errors too: the covariance of unit deviations
        (K+P+N+S square) as that of the state."""
        start = len(self.common_sd)
        own = slice(start, start + len(self.own_sd))
        sd = np.concatenate([self.common_sd, self.own_sd, self.scale_sd])
        half = unit * sd[:, None]
        half[own] += self._in_common @ unit[:start]
        spread: Matrix = half * sd
        spread[:, own] += half[:, :start] @ self._in_common.T
        return spread

    def widened(self, by: Vector, freedom: Vector) -> "Prior":
        """The same with each part's own doubt ``by`` so many times as wide, learned with so many
        degrees of ``freedom``, both (N,)."""
        return replace(self, own_sd=self.own_sd * by, freedom=freedom)


def own_doubt(part: Part, estimate_g: float) -> float:
    """One sigma of a part apart from its lots' doubt [g], what its pedigree shares included.

    Source: docs/methods.md, section 1, table of pedigrees.

    >>> own_doubt(Part("servo", "Servo", Pedigree.LISTING, stated_g=9.0), 9.0)
    0.45
    >>> own_doubt(Part("magnet", "Magnet", Pedigree.LISTING, stated_g=1.0), 1.0)
    0.2
    """
    if part.doubt_g is not None:
        return part.doubt_g
    doubt = DOUBT[part.pedigree] * abs(estimate_g)
    return max(doubt, LISTING_FLOOR_G) if part.pedigree is Pedigree.LISTING else doubt


def habit_of(part: Part) -> int | None:
    """Which shared factor scales a part's figure: its place in ``HABITUAL``; None for none.

    A figure with a doubt of its own, or one that another build weighed, is beyond the habit.

    >>> habit_of(Part("brace", "Brace", Pedigree.GUESS, stated_g=4.0))
    0
    """
    if part.pedigree not in SHARED or not part.stated_g:
        return None
    if part.doubt_g is not None or part.elsewhere is not None:
        return None
    return HABITUAL.index(part.pedigree)


def together(mean: float, sd: float, known: Known | None) -> tuple[float, float]:
    """A figure and what other builds tell of it, weighed by their precision; mean and one sigma.

    ``1/s^2 = 1/s1^2 + 1/s2^2``. A figure without doubt stays as it is.

    >>> value, sd = together(2.0, 0.6, Known(3.0, 0.6))
    >>> round(value, 9), round(sd, 6)
    (2.5, 0.424264)
    """
    if known is None or sd == 0:
        return mean, sd
    if known.doubt == 0:
        return known.value, 0.0
    weight = sd**2 / (sd**2 + known.doubt**2)
    return mean + weight * (known.value - mean), sd * (1 - weight) ** 0.5


def lot_prior(lot: Lot) -> tuple[float, float]:
    """What is believed of a lot before this build weighs: constant and one sigma [g per unit].

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> lot_prior(Lot("a", "A", LotUnit.DM2, 4.6, 0.4))
    (4.6, 0.4)
    """
    return together(lot.constant, lot.doubt, lot.elsewhere)


def prior(build: Build) -> Prior:
    """Set up the prior of a build. An allowance without a figure of its own is 4 % of the rest, or
    the share that the workshop's finished builds had.

    Source: docs/methods.md, section 1.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit, Use
    >>> sheet = Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4)
    >>> tail = Part("tail", "Tail", Pedigree.CALCULATED, uses=(Use("sheet", 5.0),), doubt_g=0.5)
    >>> believed = prior(Build("b", "B", lots=(sheet,), parts=(tail,)))
    >>> believed.mass.round(3).tolist(), believed.mass_sd.round(4).tolist()
    ([23.0], [2.0616])

    Two guesses share most of what is wrong with them:

    >>> guesses = tuple(Part(id, id, Pedigree.GUESS, stated_g=100.0) for id in "ab")
    >>> believed = prior(Build("b", "B", parts=guesses))
    >>> believed.mass_sd.round(6).tolist(), believed.own_sd.round(6).tolist()
    ([25.0, 25.0], [20.0, 20.0])
    """
    shown = _shown(build)
    return _prior(build.lots, build.parts, build.scales, build.allowance, build.habits, shown)


def planned(build: Build) -> Prior:
    """What was believed before anything was weighed.

    >>> planned(Build("b", "B", parts=(Part("h", "Hatch", Pedigree.GUESS),))).mass.tolist()
    [5.0]
    """
    return prior(replace(build, weighings=()))


def nobody_knows(build: Build, pan: Pan) -> bool:
    """Whether something on a pan has no figure and has never been on one: whatever that pan shows
    is no surprise.

    >>> from oaken_scale.core.model.weighing import Load
    >>> hatch = Part("h", "Hatch", Pedigree.GUESS)
    >>> nobody_knows(Build("b", "B", parts=(hatch,)), Pan((Load("h"),)))
    True
    """
    unknown = _unknown(build.parts)
    if not unknown:
        return False
    most = _most(build, unknown)
    return any(load.part in unknown and load.part not in most for load in pan.loads)


@recalled(keep=8)
def _unknown(parts: tuple[Part, ...]) -> frozenset[str]:
    return frozenset(part.id for part in parts if is_unknown(part))


def _most(build: Build, unknown: frozenset[str]) -> dict[str, float]:
    """The most that a pan has shown with each part whose mass nobody knows on it [g for one]."""
    most: dict[str, float] = {}
    for each in build.weighings:
        if each.set_aside is None:
            for load in each.pan.loads:
                if load.part in unknown:
                    grams = (each.reading_g - each.pan.known_g) / load.count
                    most[load.part] = max(most.get(load.part, UNKNOWN_LEAST_G), grams)
    return most


def _shown(build: Build) -> tuple[float, ...]:
    """That by the parts' places, 0 where a part is known or was on no pan; nothing where all are
    known. Equal ones are one object, so that a prior is remembered."""
    unknown = _unknown(build.parts)
    if not unknown:
        return ()
    most = _most(build, unknown)
    return _one(tuple(most.get(part.id, 0.0) for part in build.parts))


@lru_cache(maxsize=32)
def _one(shown: tuple[float, ...]) -> tuple[float, ...]:
    return shown


@recalled(keep=4)
def _prior(
    lots_: tuple[Lot, ...],
    parts: tuple[Part, ...],
    scales: tuple[Scale, ...],
    allowance: Known | None,
    habits: tuple[Habit, ...],
    shown: tuple[float, ...],
) -> Prior:
    lots = len(lots_)
    lot_index = {lot.id: k for k, lot in enumerate(lots_)}
    common = np.array([*(lot_prior(lot) for lot in lots_), *_factors(habits)], dtype=float).reshape(
        -1, 2
    )
    shares = np.zeros((len(parts), len(common)))
    stated = np.zeros(len(parts))
    for i, part in enumerate(parts):
        stated[i] = part.stated_g or 0.0
        for use in part.uses:
            shares[i, lot_index[use.lot]] += use.amount
    estimate = stated + shares @ common[:, 0]
    share_doubt = _set_allowance(parts, allowance, stated, estimate, shown)
    own_sd = np.zeros(len(parts))
    for i, part in enumerate(parts):
        doubt = share_doubt.get(i, own_doubt(part, estimate[i]))
        habit = habit_of(part)
        if habit is not None:
            shares[i, lots + habit] = stated[i]
            in_common = SHARED[part.pedigree] * stated[i]
            doubt = max(doubt**2 - in_common**2, 0.0) ** 0.5
            stated[i] = 0.0
        if part.elsewhere is not None:
            found, doubt = together(estimate[i], doubt, part.elsewhere)
            stated[i] += found - estimate[i]
        own_sd[i] = doubt
    usual = [i.doubt_g is None and i.elsewhere is None and not is_unknown(i) for i in parts]
    return Prior(
        lots=lots,
        common_mean=common[:, 0].copy(),
        common_sd=common[:, 1].copy(),
        shares=shares,
        stated=stated,
        own_sd=own_sd,
        scale_sd=np.array([scale.calibration_doubt for scale in scales], dtype=float),
        usual=np.array(usual, dtype=bool),
        freedom=np.full(len(parts), np.inf),
    )


def _factors(habits: tuple[Habit, ...]) -> list[tuple[float, float]]:
    """What is believed of each shared factor: mean and one sigma, from finished builds or 1."""
    heard = {each.pedigree: each for each in habits}
    return [
        (heard[pedigree].factor, heard[pedigree].doubt) if pedigree in heard else (1.0, spread)
        for pedigree, spread in SHARED.items()
    ]


def allowance_share(learned: Known | None) -> float:
    """The share of the rest that an allowance without a figure of its own counts as [1]: what the
    builder's own finished builds had, else the usual 4 %.

    >>> allowance_share(None), allowance_share(Known(0.062, 0.01, "finished builds"))
    (0.04, 0.062)
    """
    return ALLOWANCE_SHARE if learned is None else learned.value


def is_unknown(part: Part) -> bool:
    """Whether nobody knows a part's mass yet: no figure, no lot, and no other build that weighed
    it.

    >>> is_unknown(Part("hatch", "Hatch", Pedigree.GUESS))
    True
    """
    told = part.stated_g is not None or part.uses or part.elsewhere is not None
    return not told and part.pedigree is not Pedigree.ALLOWANCE


def _set_allowance(
    parts: tuple[Part, ...],
    allowance: Known | None,
    stated: Vector,
    estimate: Vector,
    shown: tuple[float, ...],
) -> dict[int, float]:
    """Fill in an allowance that has no figure of its own, and parts whose mass nobody knows; their
    doubt, where it is not the pedigree's, by the part's place [g]."""
    always = [
        i
        for i, part in enumerate(parts)
        if part.pedigree is not Pedigree.ALLOWANCE and not part.option and not part.retired
    ]
    usual = allowance_share(allowance)
    rest = max(float(estimate[always].sum()), 0.0)
    doubt = {}
    for i, part in enumerate(parts):
        if part.pedigree is Pedigree.ALLOWANCE and part.stated_g is None:
            stated[i] = estimate[i] = usual * rest
            if allowance is not None and part.doubt_g is None:
                doubt[i] = allowance.doubt * rest
        elif is_unknown(part):
            unseen = max(UNKNOWN_SHARE * rest, UNKNOWN_LEAST_G)
            stated[i] = estimate[i] = shown[i] / 2 or unseen
            doubt[i] = stated[i] if part.doubt_g is None or shown[i] else part.doubt_g
    return doubt
