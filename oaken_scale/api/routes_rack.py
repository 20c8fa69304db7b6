"""The rack and the drawer, common to all builds of the workshop."""

from collections.abc import Mapping
from datetime import UTC, datetime

from fastapi import APIRouter, Response

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, sharing, told
from oaken_scale.api.stock_documents import (
    DrawerThing,
    Fitting,
    NewLot,
    NewThing,
    RackLot,
    Taking,
    Whereabouts,
)
from oaken_scale.core.changes.shelf import with_lot, with_thing_moved
from oaken_scale.core.ledger.learned import combined
from oaken_scale.core.ledger.prior import together
from oaken_scale.core.material.drawer import Thing, as_its_name_says, expected
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known, Lot
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1", tags=["stock"])


@router.get("/rack", response_model=list[RackLot])
def the_rack(shop: Shop) -> list[RackLot]:
    """The lots that all builds share, with what the builds' weighings make of each now."""
    return [rack_lot(shop, lot) for lot in shop.rack.lots()]


@router.post("/rack", response_model=RackLot, status_code=201, responses=documented(409))
def hang(new: NewLot, shop: Shop) -> RackLot:
    """Hang a lot on the rack."""
    return rack_lot(shop, shop.rack.hang(new.value(new.id or "new"), new.id))


@router.put("/rack/{lot_id}", response_model=RackLot, responses=documented(404))
def describe(lot_id: Named, new: NewLot, shop: Shop) -> RackLot:
    """Change what is said of a lot, here and in every build that uses it."""
    shop.rack.describe(new.value(lot_id))
    return rack_lot(shop, shop.rack.lot(lot_id))


@router.delete("/rack/{lot_id}", status_code=204, responses=documented(404, 409))
def take_down(lot_id: Named, shop: Shop) -> Response:
    """Take a lot that no build uses off the rack."""
    shop.rack.take_down(lot_id)
    return Response(status_code=204)


@router.post(
    "/builds/{build_id}/lots",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def take(build_id: BuildId, taking: Taking, if_match: Revision, shop: Shop) -> Response:
    """Take a lot of the rack into a build, with all that the workshop knows of it."""

    def taken(build: Build) -> Build:
        return with_lot(build, shop.rack.lot(taking.rack))

    shop.change(build_id, number(if_match), taken)
    shop.sharing.share(build_id)
    return told(shop.held(build_id), 201)


@router.put(
    "/builds/{build_id}/lots/{lot_id}/rack",
    response_model=Opened,
    responses=documented(404, 409, 412),
)
def put_on_rack(build_id: BuildId, lot_id: Named, if_match: Revision, shop: Shop) -> Response:
    """Put a build's own lot on the rack, for all builds to use."""
    held = shop.rack.hang_own(build_id, number(if_match), lot_id)
    return told(held, after=sharing(shop, build_id))


@router.get("/drawer", response_model=list[DrawerThing])
def the_drawer(shop: Shop) -> list[DrawerThing]:
    """The things that move from build to build, what each weighs by now, and where it sits."""
    return [drawer_thing(shop, thing, where) for thing, where in shop.drawer.things()]


@router.post("/drawer", response_model=DrawerThing, status_code=201, responses=documented())
def lay(new: NewThing, shop: Shop) -> DrawerThing:
    """Lay a thing into the drawer: what its name says of it and nobody told is taken from there."""
    return drawer_thing(shop, shop.drawer.lay(as_its_name_says(new.value("new"))), [])


@router.put("/drawer/{thing_id}", response_model=DrawerThing, responses=documented(404))
def redescribe(thing_id: Named, new: NewThing, shop: Shop) -> DrawerThing:
    """Change what is said of a thing; what builds weighed of it stands."""
    shop.drawer.describe(new.value(thing_id))
    found = next(entry for entry in shop.drawer.things() if entry[0].id == thing_id)
    return drawer_thing(shop, *found)


@router.delete("/drawer/{thing_id}", status_code=204, responses=documented(404, 409))
def take_out(thing_id: Named, shop: Shop) -> Response:
    """Take a thing that sits in no build out of the drawer for good."""
    shop.drawer.take_out(thing_id)
    return Response(status_code=204)


@router.post(
    "/builds/{build_id}/things",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def fit(build_id: BuildId, fitting: Fitting, if_match: Revision, shop: Shop) -> Response:
    """Fit a thing of the drawer into a build; it brings along what other builds weighed of it.

    With ``move`` it comes out of the builds that it sits in: there it retires.
    """
    at = datetime.now(UTC)

    def holding() -> list[str]:
        return shop.drawer.that_hold(fitting.thing) if fitting.move else []

    def fitted(builds: Mapping[str, Build]) -> Mapping[str, Build]:
        thing = shop.drawer.thing(fitting.thing)
        return with_thing_moved(builds, build_id, thing, fitting.where(), at)

    shop.change_together(build_id, number(if_match), holding, fitted)
    shop.sharing.share(build_id)
    return told(shop.held(build_id), 201)


def rack_lot(shop: Workshop, lot: Lot) -> RackLot:
    """A lot of the rack with what builds found of it, and which of them use it."""
    where, found = [], []
    for id in shop.rack.using(lot.id):
        build = shop.held(id).build
        own = next(each for each in build.lots if each.rack == lot.id)
        where.append(Whereabouts(id, build.name, own.id))
        known = shop.sharing.learned(id).lots.get(lot.id)
        if known is not None:
            found.append((build.name, known))
    known = combined((each for _, each in found), ", ".join(name for name, _ in found))
    now = together(lot.constant, lot.doubt, known)
    return RackLot(lot, Known(*now), known, tuple(where))


def found_to_weigh(shop: Workshop, thing: Thing) -> Known | None:
    """What builds found that a thing of the drawer weighs; None where none did."""
    found = (
        shop.sharing.learned(id).things.get(thing.id) for id in shop.drawer.that_held(thing.id)
    )
    return combined([known for known in found if known is not None])


def drawer_thing(shop: Workshop, thing: Thing, where: list[tuple[str, str]]) -> DrawerThing:
    """A thing of the drawer with what builds found that it weighs, and where it sits."""
    known = found_to_weigh(shop, thing)
    now = together(*expected(thing), known)
    sits = tuple(Whereabouts(id, shop.held(id).build.name, part) for id, part in where)
    return DrawerThing(thing, Known(*now), known is not None, sits)
