"""What a build takes from the workshop's rack and drawer, and gives back to it."""

from dataclasses import replace
from datetime import datetime

from oaken_scale.core.changes.life import Act, moved_away
from oaken_scale.core.changes.parts import with_part
from oaken_scale.core.material.drawer import Thing, fitted
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Station


def taken_lot(build: Build, lot: Lot) -> Lot:
    """A lot of the rack as a build's own, under an id that is free there.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> sheet = Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2)
    >>> again = taken_lot(Build("b", "B", lots=(sheet,)), sheet)
    >>> again.id, again.rack
    ('sheet-2', 'sheet')
    """
    return replace(lot, id=free_id(lot.id, (each.id for each in build.lots)), rack=lot.id)


def with_lot(build: Build, lot: Lot) -> Build:
    """The build with a lot of the rack among its own.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> with_lot(Build("b", "B"), Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2)).lots[0].rack
    'sheet'
    """
    return replace(build, lots=(*build.lots, taken_lot(build, lot)))


def with_lot_hung(build: Build, lot_id: str, rack_id: str) -> Build:
    """The build whose own lot hangs on the rack from now on, under its id there.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> build = Build("b", "B", lots=(Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2),))
    >>> with_lot_hung(build, "sheet", "sheet-b").lots[0].rack
    'sheet-b'
    """
    lots = (replace(each, rack=rack_id) if each.id == lot_id else each for each in build.lots)
    return replace(build, lots=tuple(lots))


def with_thing(build: Build, thing: Thing, station: Station | None, at: datetime) -> Build:
    """The build with a thing of the drawer for a part of its own, fitted ``at``.

    >>> from oaken_scale.core.material.drawer import ThingKind
    >>> told = with_thing(Build("b", "B"), Thing("rx", "Receiver", ThingKind.RECEIVER, 7.0),
    ...     Station(120.0), datetime(2026, 3, 7))
    >>> told.parts[0].id, told.parts[0].thing, told.parts[0].station.x_mm
    ('receiver', 'rx', 120.0)
    """
    part = fitted(thing, free_id(thing.name, (part.id for part in build.parts)))
    return with_part(build, replace(part, station=station, added_at=at))


def with_thing_gone(build: Build, part_id: str, words: str, at: datetime) -> Build:
    """The build that a thing left for another one: there it retires, and the diary says why.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> radio = Part("rx", "Receiver", Pedigree.LISTING, stated_g=7.0, thing="rx")
    >>> told = with_thing_gone(Build("b", "B", parts=(radio,)), "rx", "lent", datetime(2026, 3, 7))
    >>> told.parts[0].retired, told.diary[0].words
    (True, 'lent')
    """
    act = Act(free_id(words, [each.id for each in build.diary]), at, words)
    return moved_away(build, act, part_id)
