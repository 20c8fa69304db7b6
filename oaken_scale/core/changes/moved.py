"""Parts that go from one build to another, or the like of them.

What a part was found to weigh is its figure in the build that it comes to.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from oaken_scale.core.changes.act import Act, noted, off, there
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.diary import DiaryKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Part, Pedigree


def moved(here: Build, other: Build, act: Act, parts: Sequence[str]) -> tuple[Build, Build]:
    """Both builds after parts, by their ids, were taken off one and put on the other; their
    readings speak on where they were taken.

    Raises BuildFaultError where it is one build, or there is no such part on it.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "to the next")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> here, other = moved(Build("b", "B", parts=(motor,)), Build("c", "C"), act, ("m",))
    >>> here.parts[0].retired, [part.id for part in other.parts], other.diary[0].words
    (True, ['motor'], 'Motor came from B')
    """
    ids = _under(here, other, parts)
    came = replace(act, words="")
    arriving = _arriving(here, act, ids)
    for id in ids:
        here = off(here, id, act.at)
    what = _called(here, ids)
    usual, arrived = f"{what} moved to {other.name}", f"{what} came from {here.name}"
    return (
        noted(here, act, DiaryKind.MOVE, tuple(ids), usual),
        _with_arrived(other, came, arriving, arrived),
    )


def copied(here: Build, other: Build, act: Act, parts: Sequence[str]) -> Build:
    """The other build with the like of some parts of this one, as they were found to weigh; what
    lies in the drawer is one thing, and is not copied with it. Raises as :func:`moved` does.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "the same again")
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0)
    >>> other = copied(Build("b", "B", parts=(fin,)), Build("c", "C", parts=(fin,)), act, ("fin",))
    >>> [(part.id, part.stated_g) for part in other.parts]
    [('fin', 4.0), ('fin-2', 4.0)]
    """
    ids = _under(here, other, parts)
    arriving = tuple(replace(each, thing=None) for each in _arriving(here, act, ids))
    return _with_arrived(other, act, arriving, f"{_called(here, ids)} copied from {here.name}")


def moved_away(build: Build, act: Act, id: str) -> Build:
    """A part taken off this build for another one; its readings speak on, and what was before that
    stays as it was. Raises BuildFaultError for no such part.

    >>> from datetime import UTC, datetime
    >>> act = Act(datetime(2026, 3, 7, tzinfo=UTC), "lent")
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0)
    >>> after = moved_away(Build("b", "B", parts=(motor,)), act, "m")
    >>> after.parts[0].retired, after.diary[0].kind.value
    (True, 'move')
    """
    name = there(build, id).name
    return noted(off(build, id, act.at), act, DiaryKind.MOVE, (id,), f"{name} moved away")


def _under(here: Build, other: Build, parts: Sequence[str]) -> dict[str, str]:
    """The ids that parts get on the other build, free there, by their own."""
    if here.id == other.id:
        they = "it is" if len(parts) == 1 else "they are"
        raise BuildFaultError([Fault("to", f"{they} on this build; name another one")])
    taken, ids = [part.id for part in other.parts], {}
    for id in dict.fromkeys(parts):
        ids[id] = free_id(there(here, id).name, taken)
        taken.append(ids[id])
    return ids


def _called(here: Build, ids: Mapping[str, str]) -> str:
    """One part by its name, several by how many they are."""
    if len(ids) > 1:
        return f"{len(ids)} parts"
    return next(part.name for part in here.parts if part.id in ids)


def _with_arrived(other: Build, act: Act, arriving: tuple[Part, ...], usual: str) -> Build:
    ids = tuple(each.id for each in arriving)
    other = replace(other, parts=(*other.parts, *arriving))
    return noted(other, act, DiaryKind.MOVE, ids, usual)


def _arriving(here: Build, act: Act, ids: Mapping[str, str]) -> tuple[Part, ...]:
    """Parts as they come to another build, by their own ids and those that they get there."""
    after = solve(here)
    places = {part.id: k for k, part in enumerate(here.parts)}
    came = []
    for id, new in ids.items():
        part, at = here.parts[places[id]], after.parts.start + places[id]
        arriving = Part(
            id=new,
            name=part.name,
            pedigree=Pedigree.LISTING,
            assembly=part.assembly,
            pieces=part.pieces,
            thing=part.thing,
            group=part.group,
            price=part.price,
            added_at=act.at,
        )
        # Of a thing the drawer tells the other build what was found here.
        grams, doubt = part.stated_g, part.doubt_g
        if part.thing is None:
            grams = max(round(float(after.mean[at]), 2), 0.0)
            doubt = round(float(after.sd[at]), 3)
        came.append(replace(arriving, stated_g=grams, doubt_g=doubt))
    return tuple(came)
