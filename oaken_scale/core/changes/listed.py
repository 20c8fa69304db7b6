"""Entries of a list that was handed in, all of them added at once."""

from collections.abc import Sequence
from dataclasses import replace

from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.field import Throw
from oaken_scale.core.model.power import Run
from oaken_scale.core.model.weighing import Weighing

Entry = Weighing | Throw | Run | Loadout


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
