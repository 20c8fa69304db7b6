"""What is told beside the figures: contradictions, gaps, strained scales, damp lots, drift."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.ledger.drift import drifts
from oaken_scale.core.ledger.moisture import Damp
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.build import Build, Pedigree

STRAINED: Final = 3.0
"""A scale error of more than this many times its doubt is not the scale's."""


@dataclass(frozen=True, slots=True)
class Notice:
    """Something the builder should know, in words, and which items it is about."""

    code: str
    words: str
    items: tuple[str, ...] = ()


def notices(
    build: Build, after: Posterior, is_doubted: bool, gained: tuple[Damp, ...]
) -> tuple[Notice, ...]:
    """All that is told beside the figures; ``is_doubted``: a reading is doubted already, so a scale
    that it strains is not told of as well. ``gained`` are the lots whose weight changed."""
    return (
        *_notices(build, after),
        *(() if is_doubted else _strained(build, after)),
        *_damp_notices(build, gained),
        *_drift_notices(build),
    )


def _notices(build: Build, after: Posterior) -> tuple[Notice, ...]:
    """Contradictions and gaps. A negative mass is told, never clipped."""
    told = []
    mass = after.mass
    impossible = (mass < -after.sd[after.items]) & (after.prior.mass >= 0)
    for i in np.flatnonzero(impossible):
        item = build.items[i]
        if not item.retired:
            words = (
                f"The weighings contradict each other: {item.name} would weigh "
                f"{mass[i]:.1f} g. One of the readings with it on the pan is wrong."
            )
            told.append(Notice("negative_mass", words, (item.id,)))
    adrift = tuple(
        item.id
        for item in build.items
        if item.station is None and not item.retired and item.pedigree is not Pedigree.ALLOWANCE
    )
    if adrift:
        number = "One thing has" if len(adrift) == 1 else f"{len(adrift)} things have"
        words = f"{number} no station yet and count at the CG of the rest."
        told.append(Notice("no_station", words, adrift))
    return tuple(told)


def _strained(build: Build, after: Posterior) -> tuple[Notice, ...]:
    """Scales that would have to be off by more than they can be for the readings to agree."""
    told = []
    for scale, error in zip(build.scales, after.mean[after.scales], strict=True):
        if abs(error) > STRAINED * scale.calibration_doubt > 0:
            words = (
                f"The readings only agree if {scale.name} reads {100 * abs(error):.1f} % "
                f"{'high' if error > 0 else 'low'}. One of them is probably wrong."
            )
            told.append(Notice("strained_scale", words))
    return tuple(told)


def _damp_notices(build: Build, gained: tuple[Damp, ...]) -> tuple[Notice, ...]:
    """Lots whose weight changed in storage by more than the scale's doubt."""
    names = {lot.id: lot.name for lot in build.lots}
    return tuple(
        Notice(
            "damp",
            f"{names[each.lot]} weighs {100 * abs(each.gain):.1f} % "
            f"{'more' if each.gain > 0 else 'less'} than when it was first weighed: "
            f"{'damp' if each.gain > 0 else 'it has dried'}. Set one of the two aside.",
        )
        for each in gained
        if each.sure
    )


def _drift_notices(build: Build) -> tuple[Notice, ...]:
    """Scales that read a known weight otherwise than they did before."""
    names = {scale.id: scale.name for scale in build.scales}
    return tuple(
        Notice(
            "drift",
            f"{names[each.scale]} reads {abs(each.by_g):.2g} g "
            f"{'more' if each.by_g > 0 else 'less'} of {each.known_g:g} g than it did before: "
            "it has drifted. Tare it, and weigh the check weight again.",
        )
        for each in drifts(build)
    )
