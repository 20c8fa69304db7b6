"""Entries of a list that was handed in, all of them added at once."""

from collections.abc import Sequence
from dataclasses import replace

from oaken_scale.core.changes.drawing import with_parts
from oaken_scale.core.model import limits
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.part import Part, assembly_path
from oaken_scale.core.model.power import Run
from oaken_scale.core.model.weighing import Weighing

Entry = Weighing | Throw | Run | Loadout


def as_listed(name: str, assembly: str) -> tuple[str, str]:
    """What a part of a list is known by, however it is written.

    >>> as_listed("Motor ", "Nose / Bay") == as_listed("motor", "nose/bay")
    True
    """
    return name.strip().lower(), assembly_path(assembly).lower()


def listed_there(build: Build) -> set[tuple[str, str]]:
    """What the parts of a build are known by; one taken off may come again.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> listed_there(Build("b", "B", parts=(Part("m", "Motor", Pedigree.GUESS, "Nose"),)))
    {('motor', 'nose')}
    """
    return {as_listed(part.name, part.assembly) for part in build.parts if not part.retired}


def with_listed_parts(build: Build, parts: Sequence[Part]) -> Build:
    """A build with the parts of a list, without ids (``""``), all or none; one that it has already
    stays as it is. Raises BuildFaultError on ``parts`` where it would have too many.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> build = Build("b", "B", parts=(Part("m", "Motor", Pedigree.GUESS, stated_g=28.0),))
    >>> listed = [Part("", "motor", Pedigree.GUESS, stated_g=30.0), Part("", "Fin", Pedigree.GUESS)]
    >>> [(part.id, part.stated_g) for part in with_listed_parts(build, listed).parts]
    [('m', 28.0), ('fin', None)]
    """
    there = listed_there(build)
    fresh = [part for part in parts if as_listed(part.name, part.assembly) not in there]
    many = len(build.parts) + len(fresh)
    if many > limits.PARTS:
        words = f"would make {many} parts; at most {limits.PARTS}"
        raise BuildFaultError([Fault("parts", words)])
    return with_parts(build, fresh)


def with_list(build: Build, entries: Sequence[Entry]) -> Build:
    """A build with the entries of a list, readings in the order of their times.

    >>> with_list(Build("b", "B"), []).parts
    ()
    """
    weighings = sorted((e for e in entries if isinstance(e, Weighing)), key=lambda e: e.at)
    throws = [e for e in entries if isinstance(e, Throw)]
    runs = [e for e in entries if isinstance(e, Run)]
    loadouts = [e for e in entries if isinstance(e, Loadout)]
    power = build.power
    if power is not None and runs:
        power = replace(power, runs=(*power.runs, *runs))
    return replace(
        build,
        weighings=(*build.weighings, *weighings),
        loadouts=(*build.loadouts, *loadouts),
        field=replace(build.field, throws=(*build.field.throws, *throws)),
        power=power,
    )
