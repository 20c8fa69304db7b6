"""What is done to parts: when, in whose words, and what the diary keeps of it."""

from dataclasses import dataclass, replace
from datetime import datetime

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryEntry, DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part


@dataclass(frozen=True, slots=True)
class Act:
    """When something was done, and in which words; without any, the diary has the usual ones."""

    at: datetime
    words: str = ""


def noted(build: Build, act: Act, kind: DiaryKind, parts: tuple[str, ...], usual: str) -> Build:
    """The build with an act in its diary, under an id made from the ``usual`` words for it.

    >>> from datetime import UTC
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC))
    >>> noted(Build("b", "B"), act, DiaryKind.RETIRE, ("fin",), "Fin taken off").diary[0].id
    'fin-taken-off'
    """
    id = free_id(usual, (each.id for each in build.diary))
    entry = DiaryEntry(id, act.at, kind, act.words.strip() or usual, parts)
    return replace(build, diary=(*build.diary, entry))


def there(build: Build, id: str, field: str = "part") -> Part:
    """A part that is on the plane. Raises BuildFaultError on ``field`` where it is not.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> there(Build("b", "B", parts=(Part("fin", "Fin", Pedigree.GUESS),)), "fin").name
    'Fin'
    """
    found = next((part for part in build.parts if part.id == id and not part.retired), None)
    if found is None:
        names = ", ".join(part.id for part in build.parts if not part.retired)
        words = f'no part "{id}" on this plane; it has {names[:200] or "none"}'
        raise BuildFaultError([Fault(field, words)])
    return found


def off(build: Build, id: str, at: datetime) -> Build:
    """A part off the plane, with all that was done to it.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.part import Pedigree
    >>> build = Build("b", "B", parts=(Part("fin", "Fin", Pedigree.GUESS),))
    >>> off(build, "fin", datetime(2026, 3, 7, tzinfo=UTC)).parts[0].retired
    True
    """
    return replace(
        build,
        parts=tuple(
            replace(part, retired=True, retired_at=at)
            if not part.retired and id in (part.id, part.host)
            else part
            for part in build.parts
        ),
    )


def carried_along(build: Build, with_id: str, id: str) -> Build:
    """Every loadout that carries one part carries another as well.

    >>> from oaken_scale.core.model.build import Loadout
    >>> build = Build("b", "B", loadouts=(Loadout("film", "Film", ("camera",)),))
    >>> carried_along(build, "camera", "mount").loadouts[0].carries
    ('camera', 'mount')
    """
    return replace(
        build,
        loadouts=tuple(
            replace(each, carries=(*each.carries, id)) if with_id in each.carries else each
            for each in build.loadouts
        ),
    )
