"""What all builds share: the lots on the rack, the things in the drawer, what is to be bought."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import TYPE_CHECKING

from oaken_scale.core.changes.shelf import with_lot_hung
from oaken_scale.core.material.drawer import Thing
from oaken_scale.core.material.ordering import Freight, Wanted
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.named import free_id
from oaken_scale.store import drawer, rack, wanted
from oaken_scale.workshop.held import Held
from oaken_scale.workshop.refused import (
    FullError,
    HungError,
    InUseError,
    NoSuchError,
    TakenError,
)

if TYPE_CHECKING:
    from oaken_scale.workshop.workshop import Workshop


class Rack:
    """The lots that hang on a workshop's rack."""

    def __init__(self, shop: Workshop) -> None:
        """That of ``shop``."""
        self._shop = shop

    def lots(self) -> tuple[Lot, ...]:
        """The lots on the rack."""
        with self._shop.turn, self._shop.database.reading() as connection:
            return rack.read_rack(connection)

    def lot(self, rack_id: str) -> Lot:
        """One lot of the rack. Raises RefusedError when there is none."""
        found = next((lot for lot in self.lots() if lot.id == rack_id), None)
        if found is None:
            raise NoSuchError("lot on the rack", rack_id)
        return found

    def using(self, rack_id: str) -> list[str]:
        """The builds that use a lot of the rack."""
        with self._shop.turn, self._shop.database.reading() as connection:
            return rack.using_lot(connection, rack_id)

    def hang(self, lot: Lot, id: str | None = None) -> Lot:
        """Hang a new lot up under ``id``, or under one that is made from its name. Raises
        TakenError where another has that id."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            taken = [each.id for each in rack.read_rack(connection)]
            if id in taken:
                raise TakenError(id, "lot on the rack")
            own = id or free_id(lot.name, taken)
            fresh = replace(lot, id=own, rack=own, elsewhere=None)
            rack.write_rack_lot(connection, fresh)
            return fresh

    def describe(self, lot: Lot) -> None:
        """Change what is said of a lot, here and in every build. Raises NoSuchError when it is not
        on the rack."""
        with self._shop.turn:
            with self._shop.database.transaction() as connection:
                shelved = replace(lot, rack=self.lot(lot.id).id, elsewhere=None)
                spread = self._shop.sharing.spread(connection, (shelved,))
                rack.write_rack_lot(connection, shelved)
            for each in spread:
                self._shop.tell(self._shop.hold(each))

    def hang_own(self, build_id: str, revision: int | None, lot_id: str) -> Held:
        """Hang a build's own lot up, for all builds to use. Raises NoSuchError when it has none
        such, HungError when that hangs there already."""

        def hung(builds: Mapping[str, Build]) -> Mapping[str, Build]:
            build = builds[build_id]
            lot = next((lot for lot in build.lots if lot.id == lot_id), None)
            if lot is None:
                raise NoSuchError("lot", lot_id)
            if lot.rack is not None:
                raise HungError(lot.name)
            return {build_id: with_lot_hung(build, lot_id, (each.id for each in self.lots()))}

        return self._shop.change_together(build_id, revision, lambda: (), hung, hung=lot_id)

    def take_down(self, rack_id: str) -> None:
        """Take a lot off the rack. Raises RefusedError while a build uses it."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            lot = self.lot(rack_id)
            names = [self._shop.held(id).build.name for id in self.using(rack_id)]
            if names:
                raise InUseError(lot.name, names, "lot_id")
            rack.take_off_rack(connection, rack_id)


class Drawer:
    """The things that lie in a workshop's drawer."""

    def __init__(self, shop: Workshop) -> None:
        """That of ``shop``."""
        self._shop = shop

    def things(self) -> list[tuple[Thing, list[tuple[str, str]]]]:
        """The things in the drawer, and where each sits now: build and part."""
        with self._shop.turn, self._shop.database.reading() as connection:
            things = drawer.read_drawer(connection)
            return [(thing, drawer.holding(connection, thing.id)) for thing in things]

    def that_hold(self, thing_id: str) -> list[str]:
        """The builds that a thing sits in now."""
        with self._shop.turn, self._shop.database.reading() as connection:
            return [build_id for build_id, _ in drawer.holding(connection, thing_id)]

    def that_held(self, thing_id: str) -> list[str]:
        """The builds that hold a thing or held it."""
        with self._shop.database.reading() as connection:
            return drawer.that_held(connection, thing_id)

    def thing(self, thing_id: str) -> Thing:
        """One thing of the drawer. Raises RefusedError when there is none."""
        found = next((thing for thing, _ in self.things() if thing.id == thing_id), None)
        if found is None:
            raise NoSuchError("thing in the drawer", thing_id)
        return found

    def lay(self, thing: Thing) -> Thing:
        """Lay a new thing into the drawer, under an id that is made from its name."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            taken = [each.id for each in drawer.read_drawer(connection)]
            fresh = replace(thing, id=free_id(thing.name, taken))
            drawer.write_thing(connection, fresh)
            return fresh

    def describe(self, thing: Thing) -> None:
        """Change what is said of a thing. Raises NoSuchError when it is not in the drawer."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            self.thing(thing.id)
            drawer.write_thing(connection, thing)

    def take_out(self, thing_id: str) -> None:
        """Take a thing out of the drawer for good. Raises RefusedError while a build holds it."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            thing = self.thing(thing_id)
            where = drawer.holding(connection, thing_id)
            if where:
                names = [self._shop.held(build_id).build.name for build_id, _ in where]
                raise InUseError(thing.name, names, "thing_id")
            drawer.take_out_of_drawer(connection, thing_id)


class Wants:
    """What a workshop wants to buy."""

    def __init__(self, shop: Workshop) -> None:
        """Those of ``shop``."""
        self._shop = shop

    def listed(self) -> tuple[tuple[Wanted, ...], tuple[Freight, ...]]:
        """What is wanted, and what orders cost to be brought."""
        with self._shop.turn, self._shop.database.reading() as connection:
            return wanted.read_wanted(connection), wanted.read_freights(connection)

    def write(self, one: Wanted, most: int) -> None:
        """Write something down, or write it anew. Raises FullError beyond so many."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            wanted.write_wanted(connection, one)
            if len(wanted.read_wanted(connection)) > most:
                raise FullError("the list", most, "wanted_id")

    def strike(self, id: str) -> None:
        """Take something off the list. Raises RefusedError when it is not there."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            if not wanted.strike_wanted(connection, id):
                raise NoSuchError("thing on the list", id)

    def bring(self, freight: Freight, most: int) -> None:
        """Say what an order costs to be brought. Raises FullError beyond so many shops."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            wanted.write_freight(connection, freight)
            if len(wanted.read_freights(connection)) > most:
                raise FullError("the list of shops", most, "shop")
