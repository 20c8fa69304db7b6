"""The field: the list before flight, throws and flights, what to try next, crash and repair."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import Field, TypeAdapter

from oaken_scale.api.documents import NewPart, Opened, new_parts
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, told
from oaken_scale.core.at_the_field import FieldTold, field_told
from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.controls import Turned, shimmed, with_controls
from oaken_scale.core.changes.crash import Damage, mended
from oaken_scale.core.model import declared
from oaken_scale.core.model import field as core
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.named import free_id
from oaken_scale.core.next_version import next_version
from oaken_scale.formats import fields
from oaken_scale.formats.documents import ControlDoc
from oaken_scale.formats.entries import EntryDoc, read_card, value
from oaken_scale.workshop import Held, Workshop

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["field"])

Degrees = Annotated[float, fields.number(ge=0, le=45)]


@dataclass(frozen=True, slots=True)
class AtTheField:
    """A build at the field: what was kept, what is told of it, at the workshop's time."""

    revision: int
    build: str
    name: str
    at: datetime
    log: core.FieldLog
    told: FieldTold


@dataclass(frozen=True, slots=True)
class CameHome:
    """What became of one entry: new, there already, or (with faults in words) not kept."""

    is_new: bool
    field: AtTheField


@dataclass(frozen=True, slots=True)
class NotKept:
    """An entry of a card that cannot be: its place in the file, counted from 1, and why."""

    entry: int
    words: str


@dataclass(frozen=True, slots=True)
class CardTaken:
    """What a card brought home: how many entries are new, how many were there already, and which
    cannot be."""

    new: int
    known: int
    refused: tuple[NotKept, ...]
    field: AtTheField


class NewControl(ControlDoc):
    """A control as typed: its travel in mm, or in degrees, which become mm."""

    id: declared.Id | None = None
    up_deg: Degrees | None = None
    down_deg: Degrees | None = None


class Controls(fields.Edge):
    """All controls and tabs of a plane."""

    controls: Annotated[tuple[NewControl, ...], Field(max_length=20)]


class Shim(fields.Edge):
    """A shim under a surface's leading edge, at its root [mm]; below 0 under its trailing edge."""

    surface: declared.Id
    shim_mm: declared.Coordinate


class DamageDoc(fields.Edge):
    """One part that was hurt: what mends it, or what takes its place; with neither it is off."""

    part: declared.Id
    added: Annotated[tuple[NewPart, ...], Field(max_length=20)] = ()
    replaced: NewPart | None = None


class Crash(fields.Edge):
    """A crash and its repair: in words, when, and every part that was hurt."""

    words: declared.Words = ""
    at: declared.Moment | None = None
    damage: Annotated[tuple[DamageDoc, ...], Field(min_length=1, max_length=40)]

    def hurt(self, build: Build) -> tuple[Damage, ...]:
        """As the core has it: all that comes onto the plane under ids that are free there."""
        hurt, grown = [], build
        for each in self.damage:
            new = (each.replaced,) if each.replaced else ()
            fresh, many = new_parts(grown, (*each.added, *new)), len(each.added)
            grown = replace(grown, parts=(*grown.parts, *fresh))
            hurt.append(Damage(each.part, fresh[:many], next(iter(fresh[many:]), None)))
        return tuple(hurt)


class Next(fields.Edge):
    """The name of the next version."""

    name: declared.Name


AT_THE_FIELD: TypeAdapter[AtTheField] = TypeAdapter(AtTheField)
CAME_HOME: TypeAdapter[CameHome] = TypeAdapter(CameHome)
CARD_TAKEN: TypeAdapter[CardTaken] = TypeAdapter(CardTaken)


@router.get("/field", response_model=AtTheField, responses=documented(404))
def at_the_field(build_id: BuildId, shop: Shop) -> Response:
    """The list, the throws and what they tell, for every loadout."""
    body = AT_THE_FIELD.dump_json(_as_it_is(shop.held(build_id)))
    return Response(body, media_type="application/json")


@router.post("/field/entries", response_model=CameHome, responses=documented(404))
def come_home(build_id: BuildId, entry: EntryDoc, shop: Shop) -> Response:
    """Keep a throw, a flight, a tick, a note, a setting. One that is sent again under its id is
    kept once; times are kept as told, the order is that of arrival."""
    home = shop.outings.come_home(build_id, value(entry))
    body = CAME_HOME.dump_json(CameHome(home.is_new, _as_it_is(home.held)))
    return Response(body, media_type="application/json")


@router.post(
    "/field/card",
    response_model=CardTaken,
    responses=documented(404, 409, 413),
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {"application/json": {"schema": {"type": "object"}}},
            "description": "The file that a field card gives",
        }
    },
)
async def take_card(build_id: BuildId, request: Request, shop: Shop) -> Response:
    """Take a field card's file in: each entry once, whatever was taken in before."""
    data = await request.body()
    body = await run_in_threadpool(_take_card, shop, build_id, data)
    return Response(body, media_type="application/json")


def _take_card(shop: Workshop, build_id: str, data: bytes) -> bytes:
    held, card = shop.held(build_id), read_card(data)
    if card.build != build_id:
        words = f"the card is of {card.name}, this is {held.build.name}; open {card.name} for it"
        raise ProblemError(409, "A card of another build", words, "build")
    new, known, refused = 0, 0, []
    for place, entry in enumerate(card.entries, start=1):
        if isinstance(entry, tuple):
            refused.append(NotKept(place, "; ".join(f"{f.field} {f.words}" for f in entry)))
            continue
        try:
            home = shop.outings.come_home(build_id, entry)
        except BuildFaultError as error:
            refused.append(NotKept(place, str(error)))
            continue
        held = home.held
        new, known = new + home.is_new, known + (not home.is_new)
    return CARD_TAKEN.dump_json(CardTaken(new, known, tuple(refused), _as_it_is(held)))


@router.put("/field/controls", response_model=Opened, responses=documented(404, 412))
def set_controls(build_id: BuildId, controls: Controls, if_match: Revision, shop: Shop) -> Response:
    """All controls and tabs of the plane anew; travel in degrees becomes mm at their chord."""

    def changed(build: Build) -> Build:
        typed: list[core.Control] = []
        for each in controls.controls:
            id = each.id or free_id(each.name, (one.id for one in typed))
            typed.append(_CONTROL.validate_python({**_in_mm(each), "id": id}))
        turned = [Turned(each.up_deg, each.down_deg) for each in controls.controls]
        return with_controls(build, typed, turned)

    return told(shop.change(build_id, number(if_match), changed))


@router.put("/field/shim", response_model=Opened, responses=documented(404, 412))
def set_incidence(build_id: BuildId, shim: Shim, if_match: Revision, shop: Shop) -> Response:
    """The incidence of a surface by the height of the shim under its leading edge."""

    def tilted(build: Build) -> Build:
        return shimmed(build, shim.surface, shim.shim_mm)

    return told(shop.change(build_id, number(if_match), tilted))


_CONTROL: TypeAdapter[core.Control] = TypeAdapter(core.Control)


def _in_mm(each: NewControl) -> dict[str, object]:
    return each.model_dump(exclude={"up_deg", "down_deg"})


@router.post("/crash", response_model=Opened, responses=documented(404, 412))
def crash(build_id: BuildId, crash: Crash, if_match: Revision, shop: Shop) -> Response:
    """A crash and its repair in one act: the list opens, the balance counts as not checked."""

    act = Act(crash.at or datetime.now(UTC), crash.words)

    def repaired(build: Build) -> Build:
        return mended(build, act, crash.hurt(build))

    return told(shop.change(build_id, number(if_match), repaired))


@router.post("/next-version", response_model=Opened, status_code=201, responses=documented(404))
def begin_next(build_id: BuildId, naming: Next, shop: Shop) -> Response:
    """Begin the next version: this plan with its weights as figures, and the wishes for it."""
    held = shop.held(build_id)
    return told(shop.add(next_version(held.build, held.assessment, naming.name)), 201)


def _as_it_is(held: Held) -> AtTheField:
    now = datetime.now(UTC)
    return AtTheField(
        held.revision,
        held.build.id,
        held.build.name,
        now,
        held.build.field,
        field_told(held.build, held.assessment, now),
    )
