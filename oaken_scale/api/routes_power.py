"""Power: which pack and motor might fly, a pack taken as a loadout, and the thrust stand."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import Field, TypeAdapter, model_validator

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, told
from oaken_scale.api.routes_rack import drawer_thing
from oaken_scale.api.stand import Stands, StandState
from oaken_scale.core.changes.drive import drive_begun, with_drawer_pack, with_listed_pack
from oaken_scale.core.material.drawer import Thing
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build, loadout_meant
from oaken_scale.core.model.declared import Amperes, Capacity, Cells, Kv, Rating
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.power import Motor, Pack
from oaken_scale.core.power.drive_aboard import drive_estimate
from oaken_scale.core.power.drive_estimate import Predicted
from oaken_scale.core.trim.one_more import Cost, one_more
from oaken_scale.core.trim.tried import in_drawer, listed_motor, listed_pack
from oaken_scale.core.trim.which_pack import TriedDrive, which_pack
from oaken_scale.formats import fields
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["power"])

Grams = Annotated[float, fields.number(gt=0, le=limits.PART_MASS_G)]
Throttle = Annotated[float, fields.number(ge=0, le=1)]


class ListedPack(fields.Edge):
    """A pack as a shop lists it."""

    name: declared.Name
    cells: Cells
    capacity_mah: Capacity
    c_rating: Rating | None = None
    mass_g: Grams

    def pack(self, id: str, part: str | None = None) -> Pack:
        """The pack of a drive."""
        return Pack(id, self.name, self.cells, self.capacity_mah, self.c_rating, part)


class ListedMotor(fields.Edge):
    """A motor as a shop lists it, one of those that fly."""

    name: declared.Name
    kv: Kv
    most_a: Amperes | None = None
    mass_g: Annotated[float, fields.number(ge=0.5, le=2_000)]

    def motor(self) -> Motor:
        """The motor of a drive."""
        return Motor(self.kv, self.mass_g, most_a=self.most_a)


class Trying(fields.Edge):
    """What to try in the place of a loadout's own, besides what lies in the drawer."""

    loadout: declared.Id | None = None
    packs: Annotated[tuple[ListedPack, ...], Field(max_length=20)] = ()
    motors: Annotated[tuple[ListedMotor, ...], Field(max_length=5)] = ()


class Adopting(fields.Edge):
    """A pack of the drawer, or a listed one, to be taken as a loadout beside another."""

    loadout: declared.Id | None = None
    thing: declared.Id | None = None
    pack: ListedPack | None = None

    @model_validator(mode="after")
    def _is_one(self) -> "Adopting":
        if (self.thing is None) == (self.pack is None):
            raise ValueError("say a thing of the drawer or a listed pack, one of them")
        return self

    def listed(self) -> ListedPack:
        """The listed pack. Raises BuildFaultError where none is said."""
        if self.pack is None:
            raise BuildFaultError([Fault("pack", "say a thing of the drawer or a listed pack")])
        return self.pack


class Standing(fields.Edge):
    """The stand: on with a pack and a propeller, or off; the throttle of the stand-in, 0 to 1."""

    on: bool = True
    pack: declared.Id | None = None
    propeller: declared.Id | None = None
    throttle: Throttle | None = None


@dataclass(frozen=True, slots=True)
class OneMore:
    """A loadout as it is now, and as it is then."""

    now: Cost
    then: Cost


CHOICES: TypeAdapter[tuple[TriedDrive, ...]] = TypeAdapter(tuple[TriedDrive, ...])


async def stands(request: Request) -> Stands:
    """The stands that the application reads."""
    served: Stands = request.app.state.stands
    return served


OnStand = Annotated[Stands, Depends(stands)]


@router.post("/power", response_model=Opened, status_code=201, responses=documented(404, 412))
def begin(build_id: BuildId, if_match: Revision, shop: Shop) -> Response:
    """List a drive from what the build's parts say; all of it is there to be put right."""
    drawer = [thing for thing, _ in shop.drawer.things()]
    held = shop.change(build_id, number(if_match), lambda build: drive_begun(build, drawer))
    return told(held, 201)


@router.post("/power/choices", response_model=tuple[TriedDrive, ...], responses=documented(404))
def choices(build_id: BuildId, trying: Trying, shop: Shop) -> Response:
    """Every pack and motor of the drawer, and those listed, tried on this plane."""
    build = shop.held(build_id).build
    packs, motors = in_drawer(_in_drawer(shop, build))
    listed = [
        listed_pack(each.pack(f"listed-{k}"), each.mass_g) for k, each in enumerate(trying.packs)
    ]
    others = [listed_motor(each.motor(), each.name) for each in trying.motors]
    flies = loadout_meant(build, trying.loadout)
    found = which_pack(build, flies, (*packs, *listed), (*motors, *others))
    return Response(CHOICES.dump_json(found), media_type="application/json")


@router.post(
    "/power/adopted", response_model=Opened, status_code=201, responses=documented(404, 412)
)
def adopt(build_id: BuildId, adopting: Adopting, if_match: Revision, shop: Shop) -> Response:
    """Take a pack as a loadout of its own: it sits where the loadout's own pack does."""
    at = datetime.now(UTC)

    def taken(build: Build) -> Build:
        if adopting.thing is not None:
            thing = shop.drawer.thing(adopting.thing)
            return with_drawer_pack(build, adopting.loadout, thing, at)
        listed = adopting.listed()
        return with_listed_pack(build, adopting.loadout, listed.pack("listed"), listed.mass_g, at)

    return told(shop.change(build_id, number(if_match), taken), 201)


@router.get("/power/prediction", response_model=Predicted, responses=documented(404))
def prediction(
    build_id: BuildId,
    shop: Shop,
    pack: Annotated[declared.Id, Query(pattern=declared.ID)],
    propeller: Annotated[declared.Id, Query(pattern=declared.ID)],
    throttle: Annotated[float, Query(ge=0, le=1, allow_inf_nan=False)] = 1.0,
    rest_v_per_cell: Annotated[float, Query(ge=2.5, le=4.4, allow_inf_nan=False)] = 3.85,
) -> Predicted:
    """What the drive does with a pack and a propeller at a throttle."""
    build = shop.held(build_id).build
    if build.power is None:
        raise BuildFaultError([Fault("power", "no drive is listed; list it on Power")])
    estimate = drive_estimate(build.power, build.thrust)
    return estimate.predict(pack, propeller, throttle, rest_v_per_cell)


@router.get("/one-more", response_model=OneMore, responses=documented(404))
def what_one_more_costs(
    build_id: BuildId,
    shop: Shop,
    grams: Annotated[float, Query(ge=0, le=limits.PART_MASS_G, allow_inf_nan=False)],
    wing_dm2: Annotated[float, Query(ge=0, le=limits.AREA_DM2, allow_inf_nan=False)] = 0.0,
    loadout: Annotated[declared.Id | None, Query(pattern=declared.ID)] = None,
) -> OneMore:
    """A loadout as it is, and with so much more aboard."""
    build = shop.held(build_id).build
    return OneMore(*one_more(build, loadout_meant(build, loadout), grams, wing_dm2))


@router.get("/stand", response_model=StandState, responses=documented(404))
def the_stand(build_id: BuildId, on_stand: OnStand) -> StandState:
    """The thrust stand of a build, and whether it is on."""
    return on_stand.state(build_id)


@router.put("/stand", response_model=StandState, responses=documented(404))
def set_stand(build_id: BuildId, standing: Standing, on_stand: OnStand) -> StandState:
    """Switch the stand on or off, or set the throttle of the stand-in."""
    if not standing.on:
        return on_stand.stop(build_id)
    if standing.pack is not None or standing.propeller is not None:
        on_stand.start(build_id, standing.pack or "", standing.propeller or "")
    if standing.throttle is not None:
        on_stand.throttle(build_id, standing.throttle)
    return on_stand.state(build_id)


def _in_drawer(shop: Workshop, build: Build) -> Iterator[tuple[Thing, Known]]:
    """The things of the drawer that are not in the build, and what each weighs by now."""
    here = {part.thing for part in build.parts if not part.retired}
    for thing, where in shop.drawer.things():
        if thing.id not in here:
            yield thing, drawer_thing(shop, thing, where).now
