"""What is believed of every mass before the first weighing."""

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.build import Build, Item, Pedigree
from oaken_scale.core.lot import Known, Lot

Vector = NDArray[np.float64]
Matrix = NDArray[np.float64]

DOUBT: Final[dict[Pedigree, float]] = {
    Pedigree.GUESS: 0.25,
    Pedigree.LISTING: 0.05,
    Pedigree.CALCULATED: 0.03,
    Pedigree.JOINT: 0.40,
    Pedigree.COVERING: 0.10,
    Pedigree.ALLOWANCE: 1.00,
}
"""One sigma as a fraction of the estimate, by pedigree (docs/methods.md, section 1)."""

LISTING_FLOOR_G: Final = 0.2
"""A listing is never surer than this [g]."""

ALLOWANCE_SHARE: Final = 0.04
"""What nobody lists, as a share of what is always aboard."""


@dataclass(frozen=True, slots=True, eq=False)
class Prior:
    """Prior of the lot constants, item masses and scale errors.

    ``lot_mean``, ``lot_sd`` shape (K,) [g per unit]; ``uses`` shape (N, K) [units];
    ``stated`` and ``own_sd`` shape (N,) [g]; ``scale_sd`` shape (S,) [fraction].
    ``mass = stated + uses @ lot + own``, with ``own ~ N(0, own_sd)``.
    """

    lot_mean: Vector
    lot_sd: Vector
    uses: Matrix
    stated: Vector
    own_sd: Vector
    scale_sd: Vector

    @property
    def mass(self) -> Vector:
        """Prior mean of each item's mass, shape (N,) [g]."""
        mean: Vector = self.stated + self.uses @ self.lot_mean
        return mean

    @property
    def mass_sd(self) -> Vector:
        """Prior doubt of each item's mass, lots included, shape (N,) [g]."""
        sd: Vector = np.sqrt(self.own_sd**2 + (self.uses**2) @ (self.lot_sd**2))
        return sd


def own_doubt(item: Item, estimate_g: float) -> float:
    """One sigma of an item apart from its lots' doubt [g].

    Source: docs/methods.md, section 1, table of pedigrees.

    >>> own_doubt(Item("servo", "Servo", Pedigree.LISTING, stated_g=9.0), 9.0)
    0.45
    >>> own_doubt(Item("magnet", "Magnet", Pedigree.LISTING, stated_g=1.0), 1.0)
    0.2
    """
    if item.doubt_g is not None:
        return item.doubt_g
    doubt = DOUBT[item.pedigree] * abs(estimate_g)
    return max(doubt, LISTING_FLOOR_G) if item.pedigree is Pedigree.LISTING else doubt


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
    """What is believed of a lot before this build weighs: constant and one sigma [g per unit]."""
    return together(lot.constant, lot.doubt, lot.elsewhere)


def prior(build: Build) -> Prior:
    """Set up the prior of a build. An allowance without a figure of its own is 4 % of the rest, or
    the share that the workshop's finished builds had.

    Source: docs/methods.md, section 1.

    >>> from oaken_scale.core.lot import Lot, LotUnit, Use
    >>> sheet = Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4)
    >>> tail = Item("tail", "Tail", Pedigree.CALCULATED, uses=(Use("sheet", 5.0),), doubt_g=0.5)
    >>> believed = prior(Build("b", "B", lots=(sheet,), items=(tail,)))
    >>> believed.mass.round(3).tolist(), believed.mass_sd.round(4).tolist()
    ([23.0], [2.0616])
    """
    lot_index = {lot.id: k for k, lot in enumerate(build.lots)}
    lots = np.array([lot_prior(lot) for lot in build.lots], dtype=float).reshape(-1, 2)
    lot_mean = lots[:, 0].copy()
    uses = np.zeros((len(build.items), len(build.lots)))
    stated = np.zeros(len(build.items))
    for i, item in enumerate(build.items):
        stated[i] = item.stated_g or 0.0
        for use in item.uses:
            uses[i, lot_index[use.lot]] += use.amount
    estimate = stated + uses @ lot_mean
    share_doubt = _set_allowance(build, stated, estimate)
    own_sd = np.array(
        [share_doubt.get(i, own_doubt(item, estimate[i])) for i, item in enumerate(build.items)],
        dtype=float,
    )
    for i, item in enumerate(build.items):
        if item.elsewhere is not None:
            found, own_sd[i] = together(estimate[i], own_sd[i], item.elsewhere)
            stated[i] += found - estimate[i]
    return Prior(
        lot_mean=lot_mean,
        lot_sd=lots[:, 1].copy(),
        uses=uses,
        stated=stated,
        own_sd=own_sd,
        scale_sd=np.array([scale.calibration_doubt for scale in build.scales], dtype=float),
    )


def _set_allowance(build: Build, stated: Vector, estimate: Vector) -> dict[int, float]:
    """Fill in an allowance that has no figure of its own; its doubt, where finished builds tell it,
    by the item's place [g]."""
    always = [
        i
        for i, item in enumerate(build.items)
        if item.pedigree is not Pedigree.ALLOWANCE and not item.option and not item.retired
    ]
    usual = ALLOWANCE_SHARE if build.allowance is None else build.allowance.value
    rest = max(float(estimate[always].sum()), 0.0)
    doubt = {}
    for i, item in enumerate(build.items):
        if item.pedigree is Pedigree.ALLOWANCE and item.stated_g is None:
            stated[i] = estimate[i] = usual * rest
            if build.allowance is not None and item.doubt_g is None:
                doubt[i] = build.allowance.doubt * rest
    return doubt
