"""Twins: left and right parts compared. A gram at the tip is a turn that trim has to hold."""

import re
from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Part
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role
from oaken_scale.core.model.traits import wherever

WORTH_CURING_G: Final = 0.3
"""Less than this at a tip is not worth a strip of tape."""

_SIDE: Final = re.compile(r"\b(left|right|port|starboard)\b", re.IGNORECASE)
_OTHER: Final = {"left": "right", "right": "left", "port": "starboard", "starboard": "port"}


@dataclass(frozen=True, slots=True)
class Twin:
    """A left and a right part.

    ``heavier_g`` is how much more the right one weighs (less, below zero), ``moment_gmm`` their
    moment about the middle, to starboard; one sigma each. ``cure_g`` at the light wing's tip would
    undo it; None where nothing is sure, or there is no wing. ``is_sure`` tells that one of the two
    weighs more, or pulls more, than their doubt explains.
    """

    left: str
    right: str
    heavier_g: float
    heavier_sd_g: float
    moment_gmm: float
    moment_sd_gmm: float
    cure_g: float | None
    is_sure: bool


def twins(build: Build, after: Posterior) -> tuple[Twin, ...]:
    """Every pair that is named alike but for its side, and has a station on each.

    ``moment = m_r y_r + m_l y_l`` with the ledger's covariance; the cure is the moment over the
    half span, and is told when it is over twice its doubt.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> def panel(id, grams, y):
    ...     return Part(id, f"Panel, {id}", Pedigree.LISTING, stated_g=grams, doubt_g=0.1,
    ...         station=Station(200.0, y))
    >>> build = Build("b", "B", parts=(panel("left", 41.0, -250.0), panel("right", 43.0, 250.0)))
    >>> told = twins(build, solve(build))[0]
    >>> told.heavier_g, told.moment_gmm, told.cure_g, told.is_sure
    (2.0, 500.0, None, True)
    """
    half_span = max(
        (s.sections[-1].y_mm for s in build.surfaces if s.role is Role.WING and s.sections),
        default=0.0,
    )
    told = []
    for i, j in pairs(build.parts):
        part, here, there = build.parts[i], build.parts[i].station, build.parts[j].station
        if here is None or there is None:
            continue
        weigh = np.zeros(len(build.parts))
        weigh[[j, i]] = 1.0, -1.0
        lever = np.zeros(len(build.parts))
        lever[[j, i]] = there.y_mm, here.y_mm
        heavier, moment = after.total(weigh), after.total(lever)
        cure = abs(moment[0]) / half_span if half_span > 0 else 0.0
        sure = cure >= WORTH_CURING_G and abs(moment[0]) > 2 * moment[1]
        differ = sure or abs(heavier[0]) > 2 * heavier[1]
        other = build.parts[j].id
        told.append(Twin(part.id, other, *heavier, *moment, cure if sure else None, differ))
    return tuple(told)


def pairs(parts: tuple[Part, ...]) -> tuple[tuple[int, int], ...]:
    """The places of each left part and of its right twin.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> pairs(tuple(Part(side, f"{side} panel", Pedigree.GUESS) for side in ("Right", "Left")))
    ((1, 0),)
    """
    return _pairs(wherever(parts))


@recalled(keep=8)
def _pairs(parts: tuple[Part, ...]) -> tuple[tuple[int, int], ...]:
    by_name = {part.name.lower(): i for i, part in enumerate(parts) if not part.retired}
    pairs = []
    for i, part in enumerate(parts):
        side = _SIDE.search(part.name)
        if part.retired or side is None or side[0].lower() not in ("left", "port"):
            continue
        other = part.name[: side.start()] + _OTHER[side[0].lower()] + part.name[side.end() :]
        if other.lower() in by_name:
            pairs.append((i, by_name[other.lower()]))
    return tuple(pairs)
