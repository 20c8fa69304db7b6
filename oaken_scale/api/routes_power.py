"""Power: which pack and motor might fly, a pack taken as a loadout, and the thrust stand."""

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
from oaken_scale.core.changes.drive import adopted_pack, drive_begun
from oaken_scale.core.material.drawer import Thing, ThingKind, fitted
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.declared import Amperes, Capacity, Cells, Kv, Rating
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack
from oaken_scale.core.power.drive_aboard import drive_estimate
from oaken_scale.core.power.drive_estimate import Predicted
from oaken_scale.core.trim.one_more import Cost, one_more
from oaken_scale.core.trim.which_pack import TriedDrive, TriedMotor, TriedPack, which_pack
from oaken_scale.formats import fields
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["power"])

LISTING_DOUBT = 0.05
"""One sigma of a listed mass, as a fraction."""

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
    drawer = _drawer(shop, build)
    packs = [each.pack for each in drawer if each.pack is not None]
    packs += [
        TriedPack(each.pack(f"listed-{k}"), each.mass_g, LISTING_DOUBT * each.mass_g)
        for k, each in enumerate(trying.packs)
    ]
    motors = [each.motor for each in drawer if each.motor is not None]
    motors += [
        TriedMotor(
            Motor(each.kv, each.mass_g, most_a=each.most_a), each.name, LISTING_DOUBT * each.mass_g
        )
        for each in trying.motors
    ]
    found = which_pack(build, _loadout(build, trying.loadout), packs, motors)
    return Response(CHOICES.dump_json(found), media_type="application/json")


@router.post(
    "/power/adopted", response_model=Opened, status_code=201, responses=documented(404, 412)
)
def adopt(build_id: BuildId, adopting: Adopting, if_match: Revision, shop: Shop) -> Response:
    """Take a pack as a loadout of its own: it sits where the loadout's own pack does."""
    thing = None if adopting.thing is None else shop.drawer.thing(adopting.thing)
    at = datetime.now(UTC)

    def taken(build: Build) -> Build:
        ids = [part.id for part in build.parts]
        beside = _loadout(build, adopting.loadout)
        if thing is not None:
            part = fitted(thing, free_id(thing.name, ids))
            return adopted_pack(build, beside, _pack_of(thing), part, at)
        listed = adopting.pack or _nothing_listed()
        part = _listed_part(listed, free_id(listed.name, ids))
        return adopted_pack(build, beside, listed.pack("listed"), part, at)

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
    return OneMore(*one_more(build, _loadout(build, loadout), grams, wing_dm2))


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


@dataclass(frozen=True, slots=True)
class _InDrawer:
    pack: TriedPack | None = None
    motor: TriedMotor | None = None


def _drawer(shop: Workshop, build: Build) -> list[_InDrawer]:
    """The packs and motors of the drawer that say what they are, and are not in the build."""
    here = {part.thing for part in build.parts if not part.retired}
    found = []
    for thing, where in shop.drawer.things():
        if thing.id in here:
            continue
        pack, motor = _as_pack(thing), _as_motor(thing)
        if pack is None and motor is None:
            continue
        weighs = drawer_thing(shop, thing, where).now
        if pack is not None:
            found.append(_InDrawer(TriedPack(pack, weighs.value, weighs.doubt, thing.id)))
        elif motor is not None and weighs.value > 0:
            listed = Motor(motor.kv, weighs.value, most_a=motor.most_a)
            tried = TriedMotor(listed, thing.name, weighs.doubt, thing.id)
            found.append(_InDrawer(motor=tried))
    return found


def _as_pack(thing: Thing) -> Pack | None:
    if thing.kind is not ThingKind.PACK or thing.cells is None or thing.capacity_mah is None:
        return None
    return Pack(thing.id, thing.name, thing.cells, thing.capacity_mah, thing.c_rating)


def _pack_of(thing: Thing) -> Pack:
    pack = _as_pack(thing)
    if pack is None:
        words = f"{thing.name} does not say its cells and what it holds; say so in the drawer"
        raise BuildFaultError([Fault("thing", words)])
    return pack


def _nothing_listed() -> ListedPack:
    raise BuildFaultError([Fault("pack", "say a thing of the drawer or a listed pack")])


def _as_motor(thing: Thing) -> Motor | None:
    if thing.kind is not ThingKind.MOTOR or thing.kv is None:
        return None
    return Motor(thing.kv, thing.listing_g, most_a=thing.most_a)


def _listed_part(listed: ListedPack, id: str) -> Part:
    return Part(
        id,
        listed.name,
        Pedigree.LISTING,
        assembly="Power and control",
        stated_g=listed.mass_g,
        option=True,
        group=Group.POWER,
    )


def _loadout(build: Build, id: str | None) -> Loadout | None:
    """A loadout by its id, or the first; None where the build has none."""
    if id is None:
        return next(iter(build.loadouts), None)
    found = next((each for each in build.loadouts if each.id == id), None)
    if found is None:
        there = ", ".join(each.id for each in build.loadouts) or "none"
        raise BuildFaultError([Fault("loadout", f'no loadout "{id}" here; there is {there}')])
    return found
