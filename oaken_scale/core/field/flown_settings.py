"""How the tabs and controls stood when the plane was thrown, and how far each setting went."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from math import exp, fsum, log

from oaken_scale.core.model.field import Control, Setting, Throw


@dataclass(frozen=True, slots=True)
class SettingFlown:
    """One setting that was thrown: where every control of today stood [mm], the throws of which a
    distance was taken, by their ids in order, and how far it goes [m]."""

    settings: tuple[Setting, ...]
    throws: tuple[str, ...]
    goes_m: float


def differing(one: Sequence[Setting], other: Sequence[Setting]) -> set[str]:
    """The controls that two settings have otherwise; one that is not told is at 0.

    >>> differing((Setting("tab", 0.0), Setting("rudder", 1.0)), ())
    {'rudder'}
    """
    if one == other:
        return set()
    a, b = ({each.control: each.mm for each in settings} for settings in (one, other))
    return {id for id in a.keys() | b.keys() if a.get(id, 0.0) != b.get(id, 0.0)}


def control_at(settings: Sequence[Setting], control: str) -> float:
    """Where a setting has a control [mm]; one that is not told is at 0.

    >>> control_at((Setting("tab", -1.5),), "tab"), control_at((), "tab")
    (-1.5, 0.0)
    """
    return next((each.mm for each in settings if each.control == control), 0.0)


def set_as(settings: Sequence[Setting], throws: Sequence[Throw]) -> list[Throw]:
    """The throws of one setting, in their order.

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 2, 14, tzinfo=UTC)
    >>> bent = Throw("a", at, settings=(Setting("tab", 1.0),))
    >>> [each.id for each in set_as((Setting("tab", 0.0),), (bent, Throw("b", at)))]
    ['b']
    """
    return [each for each in throws if not differing(each.settings, settings)]


def settings_flown(
    controls: Sequence[Control], throws: Sequence[Throw], bad: Collection[str] = ()
) -> tuple[SettingFlown, ...]:
    """Every setting that was thrown for distance, in the order of its first throw.

    Distances scatter by a share of themselves: a setting goes as far as ``exp(mean ln distance)``
    of its throws, of those that are ``bad`` only where there are no others. Source:
    docs/methods.md, "Better, or luck".

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 2, 14, tzinfo=UTC)
    >>> page = [Throw(f"{k}", at, settings=(Setting("tab", mm),), distance_m=far)
    ...         for k, (mm, far) in enumerate([(0.0, 8.0), (-1.0, 12.0), (0.0, 18.0)])]
    >>> [(each.throws, round(each.goes_m, 6)) for each in settings_flown((), page)]
    [(('0', '2'), 12.0), (('1',), 12.0)]
    """
    groups: list[list[Throw]] = []
    for each in throws:
        if each.distance_m is None:
            continue
        alike = (group for group in groups if not differing(group[0].settings, each.settings))
        group = next(alike, None)
        if group is None:
            groups.append([each])
        else:
            group.append(each)
    return tuple(
        SettingFlown(
            tuple(Setting(one.id, control_at(group[0].settings, one.id)) for one in controls),
            tuple(each.id for each in group),
            _goes(group, bad),
        )
        for group in groups
    )


def _goes(group: Sequence[Throw], bad: Collection[str]) -> float:
    fair = [each for each in group if each.id not in bad] or group
    logs = [log(each.distance_m) for each in fair if each.distance_m is not None]
    return exp(fsum(logs) / len(logs))
