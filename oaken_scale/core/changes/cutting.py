"""Parts that were drawn, as they come onto the list: each cut from its sheet, with its twin."""

from collections.abc import Sequence
from dataclasses import replace

from oaken_scale.core.geometry.placing import Cut, parts_from
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.named import free_id


def with_cuts(build: Build, cuts: Sequence[Cut]) -> Build:
    """The build with parts that are cut from its sheets, under ids made from their names.

    Raises BuildFaultError on ``cuts.K.lot`` where that is no sheet of the build.

    >>> from oaken_scale.core.geometry.outline import Box
    >>> build = Build("b", "B", lots=(Lot("board", "Board", LotUnit.DM2, 4.6, 0.4),))
    >>> cut = Cut("Aileron", 2.0, 0.0, 0.0, Box(0.0, 0.0, 400.0, 50.0), "board", twin=True)
    >>> [(part.id, part.name) for part in with_cuts(build, (cut,)).parts]
    [('aileron', 'Aileron, right'), ('aileron-2', 'Aileron, left')]
    """
    for k, cut in enumerate(cuts):
        sheet = _sheet(build, cut.lot, f"cuts.{k}.lot")
        taken = [part.id for part in build.parts]
        first = free_id(cut.name, taken)
        ids = (first, free_id(cut.name, [*taken, first]))
        build = replace(build, parts=(*build.parts, *parts_from(cut, ids, sheet.constant)))
    return build


def _sheet(build: Build, id: str, field: str) -> Lot:
    sheets = {lot.id: lot for lot in build.lots if lot.unit is LotUnit.DM2}
    if id not in sheets:
        words = f'"{id}" is no sheet of this build; it has {", ".join(sheets) or "none"}'
        raise BuildFaultError([Fault(field, words)])
    return sheets[id]
