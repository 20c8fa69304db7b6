"""A slip that people make at a scale: its kinds, how often each is made, what it is tried on."""

from dataclasses import dataclass
from enum import StrEnum
from math import inf, log, pi
from typing import Final

from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.weighing import Pan

NAMED: Final = 0.014
"""How often a reading is a slip that has a name."""


UNNAMED: Final = 0.006
"""How often it is wrong by any amount, evenly over the scale's range."""


class SlipKind(StrEnum):
    """The slips that people make at a scale."""

    NOT_TARED = "not tared"
    TARED_TWICE = "tared twice"
    LEFT_ON = "left on"
    LEFT_OFF = "left off"
    OUNCES = "ounces"
    GRAMS = "grams"
    DECIMAL = "decimal"
    DIGITS = "digits"
    WRONG_PART = "wrong part"
    UNSTEADY = "unsteady"
    GLUED = "glued since"
    PIECES = "pieces"


USUAL: Final[dict[SlipKind, float]] = {
    SlipKind.NOT_TARED: 0.22,
    SlipKind.TARED_TWICE: 0.07,
    SlipKind.LEFT_ON: 0.15,
    SlipKind.LEFT_OFF: 0.15,
    SlipKind.OUNCES: 0.06,
    SlipKind.GRAMS: 0.03,
    SlipKind.DECIMAL: 0.08,
    SlipKind.DIGITS: 0.06,
    SlipKind.WRONG_PART: 0.06,
    SlipKind.UNSTEADY: 0.05,
    SlipKind.GLUED: 0.04,
    SlipKind.PIECES: 0.03,
}
"""How often each slip is made among all slips; a kind's share is spread over all that it could
have been: every container, every thing."""


@dataclass(frozen=True, slots=True)
class Slip:
    """One slip that would explain a reading, and the reading put right.

    ``subject`` is the container or the part; ``reading_g`` and ``pan`` what would have been
    recorded without the slip; ``t`` how far that is from what the rest predicts, in sigma;
    ``share`` its chance among all that was tried. Without ``repair`` nobody knows what it would
    have read: ``reading_g`` is what is expected, and the thing has to be weighed again.
    """

    kind: SlipKind
    subject: str | None
    reading_g: float
    pan: Pan
    t: float
    share: float
    repair: bool = True


@dataclass(frozen=True, slots=True, eq=False)
class Prediction:
    """A reading, and what the rest of the ledger says of it and of every part.

    ``variance`` is that of the prediction, the scale's noise included; ``mass``,
    ``mass_variance`` and ``covariance`` (of each part with the pan's row) have shape (N,).

    >>> import numpy as np
    >>> from oaken_scale.core.model.weighing import Load
    >>> some = np.array([9.0])
    >>> told = Prediction(63.0, Pan((Load("m"),)), 60.0, 9.0, 0.01, 0.0, some, some, some, 0.1)
    >>> told.gap, told.t(60.0, 57.0, 36.0)
    (1.0, 0.5)
    """

    reading_g: float
    pan: Pan
    expected_g: float
    variance: float
    noise: float
    error: float
    mass: Vector
    mass_variance: Vector
    covariance: Vector
    step_g: float
    recorded: bool = True
    """Whether the reading is in the log already, or still on the pan."""
    freedom: float = inf
    """With how many degrees of freedom ``variance`` is known."""

    @property
    def gap(self) -> float:
        """How far the reading is from what is expected, in sigma."""
        return self.t(self.reading_g, self.expected_g, self.variance)

    def t(self, reading_g: float, expected_g: float, variance: float) -> float:
        """How far a reading is from what is expected, in sigma."""
        return float((reading_g - expected_g) / variance**0.5)


@dataclass(frozen=True, slots=True)
class Tried:
    """A slip that was tried, and the logarithm of how likely it is together with the reading."""

    slip: Slip
    log_weight: float


def log_density(t: float, variance: float) -> float:
    """Logarithm of the normal density at ``t`` sigma of a variance [g2], per gram.

    >>> round(log_density(0.0, 1.0), 4)  # 1/sqrt(2 pi)
    -0.9189
    """
    return -t * t / 2 - 0.5 * log(2 * pi * variance)
