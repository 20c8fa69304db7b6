"""Whether a loadout's balance was checked since the plane was last changed."""

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.trim.as_it_stood import ChangeKind, changed_since


def unchecked_since(build: Build, loadout: str | None) -> DiaryEntry | None:
    """What was last done to the plane after its balance was last checked with a loadout; None
    where nothing was. What was only moved, added or taken off since stands in no diary: it is
    told by what sits otherwise than it did."""
    mine = [
        each
        for each in build.checks
        if each.set_aside is None and each.loadout == loadout and each.is_of_the_plane
    ]
    last = max(mine, key=lambda each: each.at, default=None)
    since = [each for each in build.diary if last is None or each.at > last.at]
    if since or last is None:
        return max(since, key=lambda each: each.at, default=None)
    changed = changed_since(build, last)
    if not changed:
        return None
    names = {part.id: part.name for part in build.parts}
    done = {ChangeKind.ADDED: "added", ChangeKind.TAKEN_OFF: "taken off", ChangeKind.MOVED: "moved"}
    words = f"{names.get(changed[0].part, changed[0].part)} {done[changed[0].kind]}"
    if len(changed) > 1:
        words += f", and {len(changed) - 1} more"
    parts = tuple(each.part for each in changed)
    return DiaryEntry("", last.at, DiaryKind.MOVE, words, parts)
