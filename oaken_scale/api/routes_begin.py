"""Begin with what is there: the map of spans and chords, and the plane at one of its points."""

from dataclasses import replace
from typing import Annotated, Final

from fastapi import APIRouter, Response
from pydantic import Field, TypeAdapter

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import Shop, told, usual_allowance, usual_habits
from oaken_scale.api.routes_rack import found_to_weigh, rack_lot
from oaken_scale.core.changes.sketch import Start, begun_from
from oaken_scale.core.material.drawer import Thing
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.faults.whole import validated
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.target import Target
from oaken_scale.core.span_chord_map import SpanChordMap, span_chord_map
from oaken_scale.formats import documents, fields
from oaken_scale.formats.fields import number
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1/begin", tags=["builds"])

MOST_POINTS: Final = 400
"""So many planes are worked out at once."""

_Span = Annotated[float, number(ge=100, le=2 * limits.CHORD_MM)]
_Chord = Annotated[float, number(ge=20, le=limits.CHORD_MM)]

_TARGETS: Final = TypeAdapter(tuple[Target, ...])
_MAP: Final = TypeAdapter(SpanChordMap)


class StartDoc(fields.Edge):
    """What a plane is begun with: lots of the rack and things of the drawer by their ids."""

    purpose: declared.Label = "park"
    layout: declared.Label = "tractor"
    targets: Annotated[tuple[documents.TargetDoc, ...], Field(max_length=4)] = ()
    wing_lot: declared.Id
    body_lot: declared.Id
    wing_layers: Annotated[float, number(ge=1, le=4)] = 2.0
    things: Annotated[tuple[declared.Id, ...], Field(max_length=60)] = ()
    thrust_gf: Annotated[float, number(gt=0, le=limits.THRUST_GF)] | None = None
    least_minutes: Annotated[float, number(gt=0, le=600)] | None = None

    def value(self, shop: Workshop) -> Start:
        """As the core has it, with what the workshop's finished builds taught. Raises
        BuildFaultError for a lot or a thing that is not there."""
        things = tuple(_thing(shop, id, k) for k, id in enumerate(self.things))
        return Start(
            purpose=self.purpose,
            layout=self.layout,
            targets=_TARGETS.validate_python([each.model_dump() for each in self.targets]),
            wing_lot=_lot(shop, self.wing_lot, "wing_lot"),
            body_lot=_lot(shop, self.body_lot, "body_lot"),
            wing_layers=self.wing_layers,
            things=things,
            weighed=tuple(
                (each.id, known) for each in things if (known := found_to_weigh(shop, each))
            ),
            thrust_gf=self.thrust_gf,
            least_minutes=self.least_minutes,
            allowance=usual_allowance(shop),
            habits=usual_habits(shop),
        )


class MapAsked(StartDoc):
    """A map over some spans and chords [mm]; the wing's thickness for its rule."""

    spans_mm: Annotated[tuple[_Span, ...], Field(min_length=1, max_length=60)]
    chords_mm: Annotated[tuple[_Chord, ...], Field(min_length=1, max_length=60)]
    wing_thickness_mm: Annotated[float, number(gt=0, le=limits.CHORD_MM)] | None = None


class HereBegun(StartDoc):
    """One point of the map, and what the plane is called."""

    name: declared.Name
    span_mm: _Span
    chord_mm: _Chord


@router.post("/map", response_model=SpanChordMap, responses=documented())
def show_map(asked: MapAsked, shop: Shop) -> Response:
    """Which span and chord meet the targets with what is there; nothing is kept."""
    if len(asked.spans_mm) * len(asked.chords_mm) > MOST_POINTS:
        words = f"come to more than {MOST_POINTS} planes with these chords; ask for fewer"
        raise BuildFaultError([Fault("spans_mm", words)])
    found = span_chord_map(
        asked.value(shop), asked.spans_mm, asked.chords_mm, asked.wing_thickness_mm
    )
    return Response(_MAP.dump_json(found), media_type="application/json")


@router.post("/here", response_model=Opened, status_code=201, responses=documented())
def begin_here(here: HereBegun, shop: Shop) -> Response:
    """Begin the plane of one point of the map: a build like any other."""
    begun = begun_from(here.value(shop), here.span_mm, here.chord_mm, here.name)
    held = shop.add(validated(begun), is_of_here=True)
    shop.sharing.share(held.build.id)
    return told(shop.held(held.build.id), 201)


def _lot(shop: Workshop, id: str, field: str) -> Lot:
    lot = next((each for each in shop.rack.lots() if each.id == id), None)
    if lot is None:
        words = f'no lot "{id}" on the rack; choose one that hangs there'
        raise BuildFaultError([Fault(field, words)])
    return replace(lot, rack=lot.id, elsewhere=rack_lot(shop, lot).learned)


def _thing(shop: Workshop, id: str, k: int) -> Thing:
    thing = next((each for each, _ in shop.drawer.things() if each.id == id), None)
    if thing is None:
        words = f'no "{id}" in the drawer; choose from what lies there'
        raise BuildFaultError([Fault(f"things.{k}", words)])
    return thing
