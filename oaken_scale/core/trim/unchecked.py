"""Whether a loadout's balance was checked since the plane was last changed."""

from dataclasses import dataclass
from datetime import datetime

from oaken_scale.core.model.build import Build
from oaken_scale.core.trim.as_it_stood import ChangedSince, changed_since


@dataclass(frozen=True, slots=True)
class Since:
    """What was done to a plane after its balance was last checked: in its builder's ``words`` and
    at that moment, or, where it stands in no diary, the parts that sit otherwise than they did at
    the check, and when that was."""

    at: datetime
    words: str = ""
    changed: tuple[ChangedSince, ...] = ()


def unchecked_since(build: Build, loadout: str | None) -> Since | None:
    """What was last done to the plane after its balance was last checked with a loadout; None
    where nothing was.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
    >>> entry = DiaryEntry("d", datetime(2026, 3, 7, tzinfo=UTC), DiaryKind.REPAIR, "nose glued")
    >>> unchecked_since(Build("b", "B", diary=(entry,)), None).words
    'nose glued'
    """
    mine = [
        each
        for each in build.checks
        if each.set_aside is None and each.loadout == loadout and each.is_of_the_plane
    ]
    last = max(mine, key=lambda each: each.at, default=None)
    since = [each for each in build.diary if last is None or each.at > last.at]
    if since or last is None:
        done = max(since, key=lambda each: each.at, default=None)
        return None if done is None else Since(done.at, done.words)
    changed = changed_since(build, last)
    return Since(last.at, changed=changed) if changed else None
