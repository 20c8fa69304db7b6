"""A part typed on one line, put on the plane with the lot of the rack that it is cut from; a figure
that no part has is asked about first."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Final

from oaken_scale.core.changes.drawing import with_parts
from oaken_scale.core.changes.shelf import taken_lot
from oaken_scale.core.ledger.assembly import assemblies
from oaken_scale.core.model.amount import Amount
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.mass_in_words import FIELD, WEIGHED
from oaken_scale.core.model.part import WITHIN, Part, assembly_path
from oaken_scale.core.model.part_line import METRIC, Units, part_of_line, said_part
from oaken_scale.core.model.plausible import Asked, FigureOf, asked_of_part

ON_RACK: Final = "rack:"
"""What the id of a lot that still hangs on the rack begins with, where a build's own stand beside
it; no id of a build's own has a colon."""

_PLACED: Final = re.compile(r"\s(?:from|behind|to|by|x|no\.?|size)\s+[\d.,]+$", re.IGNORECASE)
"""How a name ends whose last number is no mass."""

_UNITS: Final = {
    FigureOf.STATION: "mm",
    FigureOf.MASS: "g",
    FigureOf.RUN: "m",
    FigureOf.AREA: "dm2",
}


class UnusualError(BuildFaultError):
    """A figure that no part has; it is kept once it is said to be meant."""


@dataclass(frozen=True, slots=True)
class TypedPart:
    """A part on one line, the assembly that it goes to where the line names none, the units that
    are meant where it names none, and whether an unusual figure is meant."""

    line: str
    assembly: str = ""
    units: Units = METRIC
    is_sure: bool = False


def with_typed_part(build: Build, typed: TypedPart, rack: Sequence[Lot], at: datetime) -> Build:
    """The build with a part more, and with the lot of the ``rack`` that it is cut from where it had
    none of it yet.

    Raises BuildFaultError on ``line`` where it is not understood, UnusualError where a figure is
    absurd for one part or its station lies off the plane, and nobody said that it is meant.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> rack = (Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2),)
    >>> typed = TypedPart("Panel 12 dm2 of sheet at 80", "Wing")
    >>> told = with_typed_part(Build("b", "B"), typed, rack, datetime(2026, 3, 7))
    >>> [(lot.id, lot.rack) for lot in told.lots], told.parts[0].id, told.parts[0].assembly
    ([('sheet', 'sheet')], 'panel', 'Wing')
    >>> told = with_typed_part(told, TypedPart("Spar 8 g in the wing"), (), datetime(2026, 3, 7))
    >>> told.parts[1].assembly  # which is there
    'Wing'
    """
    here = {lot.rack for lot in build.lots}
    others = {ON_RACK + lot.id: lot for lot in rack if lot.id not in here}
    shelf = [replace(lot, id=id) for id, lot in others.items()]
    part = part_of_line(typed.line, build.lots, typed.units, shelf)
    if part.stated_g is None and not part.uses:
        raise BuildFaultError([Fault(FIELD, _unweighed(part, typed))])
    _refuse_weighed(part)
    unusual = asked_of_part(part, (*build.lots, *shelf), build.surfaces)
    if unusual is not None and not typed.is_sure:
        raise UnusualError([_unusual(*unusual)])
    for use in part.uses:
        if use.lot in others:
            lot = taken_lot(build, others[use.lot])
            build = replace(build, lots=(*build.lots, lot))
            part = replace(part, uses=(replace(use, lot=lot.id),))
    assembly = _as_listed(build, part.assembly or typed.assembly)
    return with_parts(build, [replace(part, assembly=assembly, added_at=at)])


def if_of_each(build: Build, typed: TypedPart, rack: Sequence[Lot]) -> float | None:
    """What all the pieces of a typed part would weigh [g], were the mass on its line of each; None
    where the line says which it is, and of a single piece. Raises BuildFaultError on ``line``.

    >>> [if_of_each(Build("b", "B"), TypedPart(line), ()) for line in
    ...     ("4 servos 9 g", "4 servos 9 g each", "4 servos 36 g in all")]
    [36.0, None, None]
    """
    said = said_part(typed.line, build.lots, typed.units, rack)
    if not said.is_open or said.part.stated_g is None:
        return None
    return said.part.stated_g * said.part.pieces


def _as_listed(build: Build, assembly: str) -> str:
    """An assembly as it is written on the list already, however its letters were typed."""
    there = {name.casefold(): name for name in assemblies(build.parts)}
    path = ""
    for name in assembly_path(assembly).split(WITHIN):
        path = f"{path}{WITHIN}{name}" if path else name
        path = there.get(path.casefold(), path)
    return path


def with_typed_parts(
    build: Build, typed: Sequence[TypedPart], rack: Sequence[Lot], at: datetime
) -> tuple[Build, tuple[Part, ...]]:
    """The build with parts more, and the parts. Raises as with_typed_part does.

    >>> told, parts = with_typed_parts(Build("b", "B"), [TypedPart("Small pack 80 g")], (),
    ...     datetime(2026, 3, 7))
    >>> [part.id for part in parts], len(told.parts)
    (['small-pack'], 1)
    """
    before = len(build.parts)
    for each in typed:
        build = with_typed_part(build, each, rack, at)
    return build, build.parts[before:]


def _unweighed(part: Part, typed: TypedPart) -> str:
    """What a line lacks that says no mass: its unit, where its name ends with a number."""
    unit = typed.units.mass
    lacks_unit = re.search(r"\s[\d.,]+$", part.name) and not _PLACED.search(part.name)
    comma = "," if part.name[-1].isdigit() else ""
    some = "" if lacks_unit else f"{comma} {0.4 if unit == 'oz' else 12}"
    line = typed.line.strip().replace(part.name, f"{part.name}{some} {unit}", 1)
    return f'say what it weighs, or how much of what it is made of: "{line}"'


def _refuse_weighed(part: Part) -> None:
    """What was weighed is a reading, and counts as one: as a guess it would be doubted."""
    if part.stated_g is not None and (told := WEIGHED.search(part.name)):
        name = part.name[: told.start()]
        words = (
            f'what was weighed is a reading: add "{name}" as a guess, then type {{}} on the Bench'
        )
        raise BuildFaultError([Fault(FIELD, words, (Amount(part.stated_g, "g"),))])


def _unusual(of: FigureOf, asked: Asked) -> Fault:
    what = (
        "from the nose lies off the plane" if of is FigureOf.STATION else "is unusual for one part"
    )
    meant = () if asked.instead is None else (Amount(asked.instead, _UNITS[of]),)
    words = f"{{}} {what}; {{}}?" if meant else f"{{}} {what}"
    return Fault(FIELD, words, (Amount(asked.value, _UNITS[of]), *meant))
