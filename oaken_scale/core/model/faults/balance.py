"""What is wrong with balance checks, joints, loadouts and targets."""

from collections.abc import Iterator
from typing import Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.amount import Amount, mm
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault, twice, unknown
from oaken_scale.core.model.target import UNIT_OF, BalanceUnit, Target, TargetKind

APART_MM: Final = 20.0
"""Two supports nearer than this tell nothing [mm]."""


def target_faults(k: int, target: Target) -> Iterator[Fault]:
    """A target needs a limit, and a band needs its low edge below its high one.

    >>> next(target_faults(0, Target(TargetKind.AUW, low=600.0, high=590.0))).field
    'targets.0.low'
    """
    for name, limit in (("low", target.low), ("high", target.high)):
        if limit is None:
            continue
        if target.kind is not TargetKind.BALANCE and limit <= 0:
            facts = (_in_its_unit(target, limit), _in_its_unit(target, 0))
            yield Fault(f"targets.{k}.{name}", "is {}; it should be more than {}", facts)
        most = -limits.READING_G if limit < 0 else limits.READING_G
        if abs(limit) > abs(most):
            words = (
                "is {}; it should be at least {}" if limit < 0 else "is {}; it should be at most {}"
            )
            facts = (_in_its_unit(target, limit), _in_its_unit(target, most))
            yield Fault(f"targets.{k}.{name}", words, facts)
    if target.low is None and target.high is None:
        yield Fault(f"targets.{k}", "give a low or a high limit, or both for a band")
    elif target.low is not None and target.high is not None and target.low >= target.high:
        yield Fault(
            f"targets.{k}.low",
            "{} is not below the high limit {}; a range runs from the smaller to the larger",
            (_in_its_unit(target, target.low), _in_its_unit(target, target.high)),
        )


def _in_its_unit(target: Target, limit: float) -> Amount:
    unit = UNIT_OF.get(target.kind, "")
    if target.kind is TargetKind.BALANCE and target.balance_unit is not BalanceUnit.PERCENT_MAC:
        unit = "mm"
    return Amount(limit, unit)


def check_faults(build: Build, k: int, check: BalanceCheck) -> Iterator[Fault]:
    """What a check of the balance lacks or has too much of.

    >>> from datetime import UTC, datetime
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> pegs = BalanceCheck("c", noon, CheckKind.SUPPORTS, None, 100.0, other_mm=105.0)
    >>> [fault.field for fault in check_faults(Build("b", "B"), 0, pegs)]
    ['checks.0.other_mm', 'checks.0.reading_g']
    """
    path = f"checks.{k}"
    loadouts = [each.id for each in build.loadouts]
    if check.loadout is not None and check.loadout not in loadouts:
        yield Fault(f"{path}.loadout", unknown("loadout", check.loadout, loadouts))
    scales = [each.id for each in build.scales]
    if check.scale is not None and check.scale not in scales:
        yield Fault(f"{path}.scale", unknown("scale", check.scale, scales))
    if check.kind in (CheckKind.SUPPORTS, CheckKind.SIDES):
        if check.other_mm is None:
            yield Fault(f"{path}.other_mm", "say where the second support is")
        elif check.other_mm - check.x_mm < APART_MM:
            yield Fault(
                f"{path}.other_mm",
                "{} is not behind the first support at {}; they should be at least {} apart",
                (mm(check.other_mm), mm(check.x_mm), mm(APART_MM)),
            )
        if check.reading_g is None:
            yield Fault(f"{path}.reading_g", "say what the scale under the second support read")
    if check.kind is CheckKind.HANG:
        if check.z_mm is None:
            yield Fault(f"{path}.z_mm", "say how high the point is that it hangs from")
        if check.nose_down_deg is None:
            words = "say how far the nose points down, in degrees; negative for up"
            yield Fault(f"{path}.nose_down_deg", words)


def balance_faults(build: Build) -> Iterator[Fault]:
    """Checks that lack what their kind needs, or that stood on parts which are not there.

    >>> from datetime import UTC, datetime
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> hung = BalanceCheck("c", noon, CheckKind.HANG, None, 100.0)
    >>> [fault.field for fault in balance_faults(Build("b", "B", checks=(hung,)))]
    ['checks.0.z_mm', 'checks.0.nose_down_deg']
    """
    parts = [part.id for part in build.parts]
    known = set(parts)
    for k, check in enumerate(build.checks):
        yield from check_faults(build, k, check)
        yield from twice(f"checks.{k}.stood", [each.part for each in check.stood])
        for j, each in enumerate(check.stood):
            if each.part not in known:
                yield Fault(f"checks.{k}.stood.{j}.part", unknown("part", each.part, parts))


def joint_faults(build: Build) -> Iterator[Fault]:
    """A joint's times come in their order, and its parts are parts of the build.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.joint import Joint
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> joint = Joint("j", "J", "epoxy", noon, 0, 300.0, 3600, 86400, ("fin",))
    >>> next(joint_faults(Build("b", "B", joints=(joint,)))).field
    'joints.0.parts.0'
    """
    parts = [part.id for part in build.parts]
    for k, joint in enumerate(build.joints):
        if joint.close_by_s is not None and joint.close_by_s <= joint.close_after_s:
            yield Fault(
                f"joints.{k}.close_by_s",
                f"{joint.close_by_s:g} s is not after it may be closed ({joint.close_after_s:g} s)",
            )
        if joint.handle_after_s < joint.close_after_s:
            yield Fault(
                f"joints.{k}.handle_after_s",
                f"{joint.handle_after_s:g} s is before it may be closed "
                f"({joint.close_after_s:g} s)",
            )
        if joint.strong_after_s < joint.handle_after_s:
            yield Fault(
                f"joints.{k}.strong_after_s",
                f"{joint.strong_after_s:g} s is before it may be handled "
                f"({joint.handle_after_s:g} s)",
            )
        for j, part in enumerate(joint.parts):
            if part not in parts:
                yield Fault(f"joints.{k}.parts.{j}", unknown("part", part, parts))


def loadout_faults(build: Build) -> Iterator[Fault]:
    """Loadouts that carry what is no option.

    >>> from oaken_scale.core.model.build import Loadout
    >>> next(loadout_faults(Build("b", "B", loadouts=(Loadout("far", "Far", ("camera",)),)))).words
    'no option "camera" in this build; it has none'
    """
    options = [part.id for part in build.parts if part.option]
    for k, loadout in enumerate(build.loadouts):
        for j, carried in enumerate(loadout.carries):
            if carried not in options:
                yield Fault(f"loadouts.{k}.carries.{j}", unknown("option", carried, options))
