"""What a build is held against, one figure after the other as it is typed."""

from collections.abc import Iterable
from dataclasses import replace
from enum import StrEnum
from typing import Final

from oaken_scale.core.model import presets
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.target import Target, TargetKind, Thrust

OWN: Final = "your own figure"
"""Where a figure comes from that was typed."""


class End(StrEnum):
    """An end of a target: at least, or at most."""

    LOW = "low"
    HIGH = "high"


def with_target_end(
    build: Build, kind: TargetKind, end: End, value: float | None, source: str = OWN
) -> Build:
    """The build with one end of a target, in the target's own unit; None for no such end. A target
    without any end is none.

    A band is typed one end after the other: an end beyond the other takes it along, as far from it
    as it was, or takes its place where it stood alone.

    >>> build = Build("b", "B", targets=(Target(TargetKind.BALANCE, 25.0, 30.0),))
    >>> (moved,) = with_target_end(build, TargetKind.BALANCE, End.LOW, 31.0).targets
    >>> moved.low, moved.high, moved.source
    (31.0, 36.0, 'your own figure')
    >>> with_target_end(build, TargetKind.AUW, End.HIGH, 590.0).targets[0].high
    590.0
    """
    old = next((each for each in build.targets if each.kind is kind), Target(kind))
    low, high = (value, old.high) if end is End.LOW else (old.low, value)
    if low is not None and high is not None and low >= high:
        wide = old.high - old.low if old.low is not None and old.high is not None else None
        if end is End.LOW:
            high = None if wide is None else low + wide
        else:
            low = None if wide is None else high - wide
    others = [each for each in build.targets if each.kind is not kind]
    if low is not None or high is not None:
        others.append(replace(old, low=low, high=high, source=source))
    return replace(build, targets=_in_order(others))


def with_suggested_targets(build: Build) -> Build:
    """The build with what its purpose and its layout suggest, in place of its own targets of the
    same kinds; the others stay.

    Raises BuildFaultError where it has no purpose or no layout yet.

    >>> own = (Target(TargetKind.AUW, high=590.0), Target(TargetKind.BALANCE, 20.0, 25.0))
    >>> told = with_suggested_targets(
    ...     Build("b", "B", purpose="trainer", layout="tractor", targets=own))
    >>> [(each.kind.value, each.low, each.high) for each in told.targets][0]
    ('auw', None, 590.0)
    >>> told.targets[-1].source
    'chord rule for: conventional, motor in front'
    """
    suggested = presets.starting_targets(
        presets.purpose(build.purpose), presets.layout(build.layout)
    )
    kinds = {each.kind for each in suggested}
    own = [each for each in build.targets if each.kind not in kinds]
    return replace(build, targets=_in_order([*own, *suggested]))


def _in_order(targets: Iterable[Target]) -> tuple[Target, ...]:
    order = list(TargetKind)
    return tuple(sorted(targets, key=lambda each: order.index(each.kind)))


def with_thrust(build: Build, thrust_gf: float | None) -> Build:
    """The build with a stated static thrust [gf]; None for none.

    Another figure is another source, and its doubt was not the old one's; the line that it pulls
    along stays where it is.

    >>> build = Build("b", "B", thrust=Thrust(440.0, 22.0, "a listing", 12.0))
    >>> thrust = with_thrust(build, 470.0).thrust
    >>> thrust.doubt_gf, thrust.source, thrust.line_z_mm
    (None, 'your own figure', 12.0)
    """
    old = build.thrust
    if thrust_gf is None or (old is not None and old.thrust_gf == thrust_gf):
        return replace(build, thrust=None if thrust_gf is None else old)
    if old is None:
        return replace(build, thrust=Thrust(thrust_gf))
    return replace(build, thrust=replace(old, thrust_gf=thrust_gf, doubt_gf=None, source=OWN))
