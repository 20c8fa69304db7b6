"""What a build takes from the workshop's rack and drawer, and gives back to it."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from datetime import datetime

from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.moved import moved_away
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


def lot_at_hand(build: Build, id: str, of_rack: Callable[[str], Lot]) -> Lot:
    """A lot of a build by its id here or on the rack; one that is only on the rack (``of_rack``) as
    if it were taken.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> sheet = Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2)
    >>> lot_at_hand(Build("b", "B"), "sheet", {"sheet": sheet}.__getitem__).rack
    'sheet'
    """
    own = {lot.id: lot for lot in build.lots}
    by_rack = {lot.rack: lot for lot in build.lots if lot.rack}
    return own.get(id) or by_rack.get(id) or taken_lot(build, of_rack(id))


def with_lot(build: Build, lot: Lot) -> Build:
    """The build with a lot of the rack among its own.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> with_lot(Build("b", "B"), Lot("sheet", "Sheet", LotUnit.DM2, 4.5, 0.2)).lots[0].rack
    'sheet'
    """
    return replace(build, lots=(*build.lots, taken_lot(build, lot)))


def with_lot_hung(build: Build, lot_id: str, taken: Iterable[str]) -> Build:
    """The build whose own lot hangs on the rack from now on, under an id made from its name that is
    not ``taken`` there.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> build = Build("b", "B", lots=(Lot("a", "Sheet", LotUnit.DM2, 4.5, 0.2),))
    >>> with_lot_hung(build, "a", ("sheet",)).lots[0].rack
    'sheet-2'
    """
    lot = next(each for each in build.lots if each.id == lot_id)
    rack_id = free_id(lot.name, taken)
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


def with_thing_moved(
    builds: Mapping[str, Build], to: str, thing: Thing, station: Station | None, at: datetime
) -> dict[str, Build]:
    """The builds that a thing sits in, and the one that it is fitted ``to``: it retires in those,
    and their diaries say where it went.

    >>> from oaken_scale.core.material.drawer import ThingKind
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> radio = Part("r", "Receiver", Pedigree.LISTING, stated_g=7.0, thing="rx")
    >>> both = {"b": Build("b", "B"), "c": Build("c", "C", parts=(radio,))}
    >>> after = with_thing_moved(both, "b", Thing("rx", "Receiver", ThingKind.RECEIVER, 7.0),
    ...     None, datetime(2026, 3, 7))
    >>> after["b"].parts[0].thing, after["c"].parts[0].retired, after["c"].diary[0].words
    ('rx', True, 'Receiver moved to B')
    """
    act = Act(at, f"{thing.name} moved to {builds[to].name}")
    made = {to: with_thing(builds[to], thing, station, at)}
    for id, build in builds.items():
        sits = [part.id for part in build.parts if part.thing == thing.id and not part.retired]
        if id != to and sits:
            made[id] = build
            for part_id in sits:
                made[id] = moved_away(made[id], act, part_id)
    return made
