"""What all builds share: the lots on the rack, the things in the drawer, what is to be bought."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from oaken_scale.core.material.drawer import Thing
from oaken_scale.core.material.ordering import Freight, Wanted
from oaken_scale.core.model.lot import Lot
from oaken_scale.store import drawer, rack, wanted
from oaken_scale.workshop.refused import FullError, InUseError, NoSuchError

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

    def hang(self, lot: Lot) -> None:
        """Hang a lot on the rack, or change what is said of it, here and in every build."""
        with self._shop.turn:
            shelved = replace(lot, rack=lot.id, elsewhere=None)
            with self._shop.database.transaction() as connection:
                spread = self._shop.sharing.spread(connection, (shelved,))
                rack.write_rack_lot(connection, shelved)
            for each in spread:
                self._shop.tell(self._shop.hold(each))

    def take_down(self, rack_id: str) -> None:
        """Take a lot off the rack. Raises RefusedError while a build uses it."""
        with self._shop.turn:
            lot = self.lot(rack_id)
            names = [self._shop.held(id).build.name for id in self.using(rack_id)]
            if names:
                raise InUseError(lot.name, names, "lot_id")
            with self._shop.database.transaction() as connection:
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

    def lay(self, thing: Thing) -> None:
        """Lay a thing into the drawer, or change what is said of it."""
        with self._shop.turn, self._shop.database.transaction() as connection:
            drawer.write_thing(connection, thing)

    def take_out(self, thing_id: str) -> None:
        """Take a thing out of the drawer for good. Raises RefusedError while a build holds it."""
        with self._shop.turn:
            thing = self.thing(thing_id)
            with self._shop.database.reading() as connection:
                where = drawer.holding(connection, thing_id)
            if where:
                names = [self._shop.held(build_id).build.name for build_id, _ in where]
                raise InUseError(thing.name, names, "thing_id")
            with self._shop.database.transaction() as connection:
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
