"""Loadouts made from the packs and payloads that a plane may carry, in one step."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import count

from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part


def flown_with(build: Build, packs: Sequence[str], payloads: Sequence[str]) -> Build:
    """The build with a loadout for each pack, plain and with the payloads; what they carry becomes
    an option at the same time, so nobody's weight counts twice meanwhile.

    ``packs`` and ``payloads`` are part ids; with no pack there is one loadout plain and one with
    each payload. A loadout that carries the same already keeps its name, and others that are there
    stay. Raises BuildFaultError where an id is no part of the plane, or is named twice.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> def part(id):
    ...     return Part(id, id.capitalize(), Pedigree.LISTING, stated_g=50.0)
    >>> plane = Build("b", "B", parts=(part("small"), part("large"), part("camera")))
    >>> told = flown_with(plane, ["small", "large"], ["camera"])
    >>> [each.name for each in told.loadouts]
    ['Small', 'Small, Camera', 'Large', 'Large, Camera']
    >>> told.aboard(told.loadouts[0])
    (True, False, False)
    """
    there = {part.id: part for part in build.parts if not part.retired}
    named = [*packs, *payloads]
    for field, ids in (("packs", packs), ("payloads", payloads)):
        for id in ids:
            if id not in there:
                raise BuildFaultError([Fault(field, f'there is no part "{id}" on the plane')])
            if named.count(id) > 1:
                words = f"{there[id].name} is named twice; it is a pack or a payload, once"
                raise BuildFaultError([Fault(field, words)])
    if not named:
        raise BuildFaultError([Fault("packs", "say which packs, or which payloads, may be aboard")])
    wanted = [
        (*([pack] if pack else []), *([payload] if payload else []))
        for pack in (packs or (None,))
        for payload in (None, *payloads)
    ]
    parts = tuple(replace(part, option=True) if part.id in named else part for part in build.parts)
    kept = [
        each
        for each in build.loadouts
        if not set(each.carries) & set(named) or set(each.carries) in map(set, wanted)
    ]
    known = {frozenset(each.carries) for each in kept}
    fresh = [
        Loadout("", _called([there[id] for id in carries]), carries)
        for carries in wanted
        if frozenset(carries) not in known
    ]
    return replace(build, parts=parts, loadouts=_with_ids(kept, fresh))


def _called(carried: Sequence[Part]) -> str:
    return ", ".join(part.name for part in carried)[:80] or "Plain"


def _with_ids(kept: Sequence[Loadout], fresh: Sequence[Loadout]) -> tuple[Loadout, ...]:
    taken = {each.id for each in kept}
    free = (id for number in count(1) if (id := f"way-{number}") not in taken)
    return (*kept, *(replace(each, id=next(free)) for each in fresh))
