"""What runs on a stand tell of a drive train: motor, propellers and packs in one estimate.

A run with one pack sharpens what another pack or propeller will do; without any run it is what the
listings say, wide, and told so.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Final

import numpy as np

from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.power import Power, Run
from oaken_scale.core.power.drive_readings import (
    Beliefs,
    Stated,
    asked,
    beliefs,
    gathered,
    pack_of,
    predicted,
    propeller_of,
    train_of,
)
from oaken_scale.core.power.drive_settling import settled
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL, DriveTrain
from oaken_scale.core.power.point_doubts import (
    OtherPropeller,
    PointDoubt,
    PointFit,
    explained,
    fits,
    left_out,
    other_propellers,
    worst,
)

THROTTLE_SD: Final = 0.015
THRUST_MODEL: Final = 0.02
CURRENT_MODEL: Final = 0.03
"""What the model leaves out of a prediction, as fractions: warm windings, small propellers.
Source of all: docs/methods.md, section 10."""

MOST_DOUBTS: Final = 6
"""So many points are told as doubtful."""


class HowKnown(StrEnum):
    """How a prediction is known: run just so, stated, calculated from what was, or guessed."""

    RUN = "run"
    STATED = "stated"
    CALCULATED = "calculated"
    GUESS = "guess"


@dataclass(frozen=True, slots=True)
class Predicted:
    """What a drive train will do: each figure with one sigma."""

    thrust_gf: float
    thrust_sd_gf: float
    pack_a: float
    pack_sd_a: float
    pack_v: float
    pack_sd_v: float
    power_w: float
    power_sd_w: float
    known: HowKnown
    gf_per_w: float = 0.0
    gf_per_w_sd: float = 0.0


@dataclass(frozen=True, slots=True, eq=False)
class DriveEstimate:
    """A drive as runs and listings tell it together: ``mean`` (U,) and ``cov`` (U, U) of the
    unknowns of :class:`Beliefs`, and which pairs of pack and propeller were run.

    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller
    >>> pack, propeller = Pack("s3", "3 cells", 3, 1300), Propeller("p8", "8 by 4", 203, 102)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(propeller,), packs=(pack,))
    >>> estimate = estimate_drive(drive)
    >>> full = estimate.predict("s3", "p8", 1.0, 4.2)
    >>> round(full.thrust_gf), round(full.pack_a, 1), full.known.value
    (1130, 23.1, 'guess')
    """

    drive: Power
    beliefs: Beliefs
    mean: Vector
    cov: Matrix
    log_evidence: float
    runs: tuple[Run, ...]
    stated: Stated | None = None
    doubts: tuple[PointDoubt, ...] = field(default=())
    others: tuple[OtherPropeller, ...] = field(default=())
    fits: tuple[PointFit, ...] = field(default=())

    def predict(
        self,
        pack: str,
        propeller: str,
        throttle: float = 1.0,
        rest_v_per_cell: float = HALF_V_PER_CELL,
    ) -> Predicted:
        """What the drive does with a pack and a propeller at a throttle, 0 to 1, the pack rested at
        so many volts a cell.

        Raises BuildFaultError for a pack or a propeller that is not in the drive.
        """
        return self.predict_all([(pack, propeller, throttle, rest_v_per_cell)])[0]

    def predict_all(self, asks: Sequence[tuple[str, str, float, float]]) -> tuple[Predicted, ...]:
        """The same for many packs, propellers, throttles and rest voltages at once.

        >>> from oaken_scale.core.model.power import Motor, Pack, Propeller
        >>> pack, propeller = Pack("s3", "3 cells", 3, 1300), Propeller("p8", "8 by 4", 203, 102)
        >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(propeller,), packs=(pack,))
        >>> asks = [("s3", "p8", throttle, 4.2) for throttle in (0.5, 1.0)]
        >>> [round(one.thrust_gf) for one in estimate_drive(drive).predict_all(asks)]
        [345, 1130]
        """
        for pack, propeller, _, _ in asks:
            pack_of(self.drive, pack), propeller_of(self.drive, propeller)
        rows = asked(self.drive, self.beliefs, asks)
        found, slope, _ = predicted(self.drive, self.beliefs, rows, self.mean)
        return tuple(
            self._told(found[k], slope[k], self._known(pack, propeller))
            for k, (pack, propeller, _, _) in enumerate(asks)
        )

    def _told(self, shown: Vector, by: Matrix, known: HowKnown) -> Predicted:
        thrust, amps, volts = shown
        cov = by @ self.cov @ by.T
        cov[0, 0] += (THRUST_MODEL * thrust) ** 2
        cov[1, 1] += (CURRENT_MODEL * amps) ** 2
        power_by = np.array([0.0, volts, amps])
        sd = np.sqrt(np.maximum(np.diag(cov), 0.0))
        return Predicted(
            float(thrust),
            float(sd[0]),
            float(amps),
            float(sd[1]),
            float(volts),
            float(sd[2]),
            float(amps * volts),
            float(max(power_by @ cov @ power_by, 0.0) ** 0.5),
            known,
            *_per_watt(shown, cov),
        )

    def _known(self, pack: str, propeller: str) -> HowKnown:
        taken = [each for each in self.runs if each.points]
        if any((each.pack, each.propeller) == (pack, propeller) for each in taken):
            return HowKnown.RUN
        if self.stated is None or not (self.drive.packs and self.drive.propellers):
            return HowKnown.CALCULATED if taken else HowKnown.GUESS
        as_stated = (self.drive.packs[0].id, self.drive.propellers[0].id)
        return HowKnown.STATED if (pack, propeller) == as_stated else HowKnown.CALCULATED


def _per_watt(shown: Vector, cov: Matrix) -> tuple[float, float]:
    """Thrust for the power that it takes [gf/W], one sigma; 0 where it stands still."""
    thrust, amps, volts = (float(each) for each in shown)
    if thrust <= 0 or amps <= 0:
        return 0.0, 0.0
    ratio = thrust / (amps * volts)
    by = ratio * np.array([1 / thrust, -1 / amps, -1 / volts])
    return ratio, max(float(by @ cov @ by), 0.0) ** 0.5


def one_of_them(
    estimate: DriveEstimate, pack: str, propeller: str, rest_v_per_cell: float, seed: int
) -> DriveTrain:
    """One of the drive trains that an estimate leaves possible, by a seed: with a pack rested at so
    many volts a cell and a propeller.

    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = estimate_drive(drive)
    >>> one, other = (one_of_them(told, "s3", "p8", 4.2, seed) for seed in (1, 2))
    >>> one.diameter_mm == other.diameter_mm, one.kv == other.kv
    (True, False)
    """
    shaken = np.random.default_rng(seed).standard_normal(len(estimate.mean))
    spread, turned = np.linalg.eigh(estimate.cov)
    z = estimate.mean + turned @ (np.sqrt(np.maximum(spread, 0.0)) * shaken)
    return train_of(estimate.drive, estimate.beliefs, z, pack, propeller, rest_v_per_cell)


def estimate_drive(
    drive: Power,
    believed: Beliefs | None = None,
    throttle_sd: float = THROTTLE_SD,
    stated: Stated | None = None,
) -> DriveEstimate:
    """What runs and listings tell of a drive together, by Gauss-Newton to convergence.

    A thrust is read as ``(1 + stand) T``, a current as ``(1 + ammeter) I_b``; a point's throttle is
    known to ``throttle_sd``, which moves all that it read together. A ``stated`` thrust is one more
    reading. A point that the others contradict is left out, and told of, one after another.

    Source: docs/methods.md, section 10, reference case P2; JCGM 100:2008. Raises BuildFaultError
    for figures that no drive has.

    >>> from oaken_scale.core.model.power import Motor, Pack, Propeller
    >>> motor = Motor(1400, 60, 0.06, 1.2)
    >>> drive = Power(motor, propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300),))
    >>> told = estimate_drive(drive).predict("s3", "p8", 1.0, 4.2)
    >>> round(told.thrust_gf), bool(told.thrust_sd_gf > 100)  # by its listing alone
    (1130, True)
    """
    believed = beliefs(drive) if believed is None else believed
    runs = tuple(run for run in drive.runs if run.set_aside is None)
    rows = gathered(drive, believed, runs, stated)
    kept = np.isfinite(rows.read)
    doubts: list[PointDoubt] = []
    while True:
        mean, cov, evidence = settled(drive, believed, rows, kept, throttle_sd)
        expected, t = left_out(drive, believed, rows, kept, mean, cov, throttle_sd)
        found = worst(t) if kept.sum() > 1 else None
        if found is None or len(doubts) >= MOST_DOUBTS:
            break
        r, c = found
        out = kept.copy()
        out[r, c] = False
        alone = settled(drive, believed, rows, out, throttle_sd)
        doubt, whole = explained(drive, believed, rows, r, c, alone[0], alone[1], throttle_sd)
        kept = out
        if whole:
            kept[r] = False
        doubts.append(doubt)
    others = other_propellers(drive, believed, runs, rows, kept, mean, evidence, throttle_sd)
    told = fits(rows, kept, expected, t)
    return DriveEstimate(
        drive, believed, mean, cov, evidence, runs, stated, tuple(doubts), others, told
    )
