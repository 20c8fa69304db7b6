"""Which of the slips that were tried explain a reading, and how likely each is among them."""

from dataclasses import replace
from math import exp, inf, lgamma, log, log1p, pi
from typing import Final

from oaken_scale.core.ledger.slip import NAMED, UNNAMED, Prediction, Slip, Tried, log_density
from oaken_scale.core.ledger.slips_tried import tried
from oaken_scale.core.model.build import Build

EXPLAINED: Final = 2.5
"""A slip explains a reading that it brings within so many sigma: put right, one in eight would lie
outside 1.5, and one in eighty outside 2.5."""


MOST_SLIPS: Final = 6
"""So many are offered at most: of thirty things several weigh about as much as the gap."""


def slips(build: Build, told: Prediction) -> tuple[Slip, ...]:
    """The slips that explain a reading, most likely first; none where the reading is more likely
    chance than any of them.

    A kind's usual share is spread over all that it could have been; the reading's density under it
    does the rest, so that a gap which fits the tray is the tray before it is one of forty things
    that weigh about as much.

    >>> import numpy as np
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),))
    >>> told = Prediction(112.0, Pan((Load("b"),)), 40.0, 81.0, 0.01, 0.0,
    ...     np.array([60.0, 40.0]), np.array([9.0, 81.0]), np.array([0.0, 81.0]), 0.1)
    >>> slips(build, told)[0].kind.value
    'left on'
    """
    shares = shared_out(tried(build, told), log_chance(told))
    if sum(share for _, share in shares) < NAMED_ENOUGH:
        return ()
    explained = [(slip, share) for slip, share in shares if abs(slip.t) <= EXPLAINED]
    explained.sort(key=lambda each: -each[1])
    return tuple(replace(slip, share=share) for slip, share in explained[:MOST_SLIPS])


NAMED_ENOUGH: Final = 0.75
"""A slip is named where all that were tried are together three times as likely as chance."""


def log_chance(told: Prediction) -> float:
    """Logarithm of how likely the reading is with no slip in it: normal, or Student's t where the
    doubt of what is expected was itself learned from few.

    >>> import numpy as np
    >>> from oaken_scale.core.model.weighing import Load, Pan
    >>> told = Prediction(112.0, Pan((Load("b"),)), 40.0, 81.0, 0.01, 0.0,
    ...     np.array([60.0, 40.0]), np.array([9.0, 81.0]), np.array([0.0, 81.0]), 0.1)
    >>> round(log_chance(told), 1)  # 8 sigma off
    -35.1
    """
    if told.freedom == inf:
        return log(1 - NAMED - UNNAMED) + log_density(told.gap, told.variance)
    n = told.freedom
    square = told.variance * (n - 2) / n  # of the t's own scale: its variance is n/(n - 2) times
    t = (told.reading_g - told.expected_g) / square**0.5
    scale = lgamma((n + 1) / 2) - lgamma(n / 2) - 0.5 * log(n * pi * square)
    return log(1 - NAMED - UNNAMED) + scale - (n + 1) / 2 * log1p(t * t / n)


def log_any(range_g: float) -> float:
    """Logarithm of how likely a reading is that is wrong by any amount, on a scale's range [g].

    >>> round(log_any(2000.0), 2)
    -12.72
    """
    return log(UNNAMED / range_g)


def shared_out(tried_: list[Tried], chance: float) -> list[tuple[Slip, float]]:
    """Each slip's share of all that could have been, chance included.

    >>> import numpy as np
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale
    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=60.0),
    ...     Part("b", "Box", Pedigree.GUESS, stated_g=40.0))
    >>> build = Build("x", "X", parts=parts, scales=(Scale("s", "S", 0.1),))
    >>> told = Prediction(112.0, Pan((Load("b"),)), 40.0, 81.0, 0.01, 0.0,
    ...     np.array([60.0, 40.0]), np.array([9.0, 81.0]), np.array([0.0, 81.0]), 0.1)
    >>> shares = [share for _, share in shared_out(tried(build, told), log_chance(told))]
    >>> round(sum(shares), 3)  # something went wrong
    1.0
    """
    top = max([chance, *(each.log_weight for each in tried_)])
    weights = [exp(each.log_weight - top) for each in tried_]
    total = exp(chance - top) + sum(weights)
    return [
        (each.slip, weight / total) for each, weight in zip(tried_, weights, strict=True) if weight
    ]
