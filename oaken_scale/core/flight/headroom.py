"""Grams in hand: how much heavier a loadout may get until the first target breaks."""

from dataclasses import dataclass

from oaken_scale.core.flight.metrics import Flying
from oaken_scale.core.model.build import TargetKind


@dataclass(frozen=True, slots=True)
class Headroom:
    """What a loadout may gain until a target breaks [g], one sigma; less than nothing where it is
    broken already."""

    kind: TargetKind
    grams: float
    sd_g: float


def headroom(plane: Flying) -> tuple[Headroom, ...]:
    """What a loadout may gain for each target that its weight can break, the first to break first.

    ``min(AUW_max, WL_max S, T/TW_min) - M``. Source: docs/methods.md, section 10.
    """
    told = []
    for target in plane.build.targets:
        if target.kind is TargetKind.AUW and target.high is not None:
            told.append(Headroom(target.kind, target.high - plane.auw_g, plane.auw_sd_g))
        elif target.kind is TargetKind.WING_LOADING and target.high is not None and plane.wing:
            most = target.high * plane.wing.area_dm2
            told.append(Headroom(target.kind, most - plane.auw_g, plane.auw_sd_g))
        elif target.kind is TargetKind.THRUST_TO_WEIGHT and target.low and plane.thrust:
            bears, sd = plane.thrust.thrust_gf / target.low, plane.thrust_sd_gf / target.low
            told.append(
                Headroom(target.kind, bears - plane.auw_g, (sd**2 + plane.auw_sd_g**2) ** 0.5)
            )
    return tuple(sorted(told, key=lambda each: each.grams))
