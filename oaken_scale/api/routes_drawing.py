"""The Plan: a first drawing, a surface made to a figure, its parts, a part typed on one line, and
loadouts from packs and payloads."""

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from oaken_scale.api.documents import PART_ADDED, Opened, PartAdded
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, sharing, told
from oaken_scale.core.changes import drawing
from oaken_scale.core.changes.drawn_parts import cut, parts_drawn
from oaken_scale.core.changes.first_drawing import redrawn, with_first_drawing
from oaken_scale.core.changes.typed_part import (
    TypedPart,
    if_of_each,
    with_typed_part,
    with_typed_parts,
)
from oaken_scale.core.changes.ways_of_flying import flown_with
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part_line import Units
from oaken_scale.core.model.surface import Surface
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["plan"])

Mm = Annotated[float, fields.number(gt=0, le=20_000)]
Dm2 = Annotated[float, fields.number(gt=0, le=10_000)]
Unit = Annotated[str, Field(max_length=8)]


class FirstDrawing(fields.Edge):
    """The span of a first drawing, and its chord at the root or the area of its wings."""

    span_mm: Mm
    chord_mm: Mm | None = None
    area_dm2: Dm2 | None = None


class Anew(fields.Edge):
    """The layout that is drawn in place of what is."""

    layout: declared.Id


class Shape(fields.Edge):
    """What a surface is made to: one of its span (a fin's height), its chord at the root, its area,
    and how long its last panel is along its slope."""

    span_mm: Mm | None = None
    chord_mm: Mm | None = None
    area_dm2: Dm2 | None = None
    tip_mm: Mm | None = None


class Skin(fields.Edge):
    """What a surface is cut from, and in how many layers: 2 for a wing folded over."""

    lot: declared.Id
    layers: Annotated[float, fields.number(gt=0, le=10)] = 1.0


class CutOut(fields.Edge):
    """Parts that are cut now."""

    parts: Annotated[tuple[declared.Id, ...], Field(min_length=1, max_length=limits.PARTS)]


class PartLine(fields.Edge):
    """A whole part on one line, the assembly it goes to where the line names none, and the units
    that are meant where it names none. ``sure``: an absurd figure was meant."""

    line: Annotated[str, Field(max_length=200)]
    assembly: declared.Label = ""
    mass: Unit = "g"
    length: Unit = "mm"
    area: Unit = "dm2"
    run: Unit = "m"
    sure: bool = False

    def value(self) -> TypedPart:
        """The part as it was typed."""
        units = Units(self.mass, self.length, self.area, self.run)
        return TypedPart(self.line, self.assembly, units, self.sure)


class Flying(fields.Edge):
    """The packs and payloads that may be aboard: parts by their ids, new ones on a line each."""

    packs: Annotated[tuple[declared.Id, ...], Field(max_length=12)] = ()
    payloads: Annotated[tuple[declared.Id, ...], Field(max_length=12)] = ()
    new_packs: Annotated[tuple[PartLine, ...], Field(max_length=12)] = ()
    new_payloads: Annotated[tuple[PartLine, ...], Field(max_length=12)] = ()


@router.post("/drawing", response_model=Opened, responses=documented(404, 412))
def first_drawing(
    build_id: BuildId, first: FirstDrawing, if_match: Revision, shop: Shop
) -> Response:
    """Draw the build's layout anew, to a span and a chord or an area."""

    def drawn(build: Build) -> Build:
        return with_first_drawing(build, first.span_mm, first.chord_mm, first.area_dm2)

    return told(shop.change(build_id, number(if_match), drawn))


@router.put("/layout", response_model=Opened, responses=documented(404, 412))
def draw_anew(build_id: BuildId, anew: Anew, if_match: Revision, shop: Shop) -> Response:
    """Draw another layout in place of what is drawn, to the same span and chord."""
    held = shop.change(build_id, number(if_match), lambda build: redrawn(build, anew.layout))
    return told(held)


@router.post("/surfaces/{surface_id}/shape", response_model=Opened, responses=documented(404, 412))
def shape(
    build_id: BuildId, surface_id: Named, made: Shape, if_match: Revision, shop: Shop
) -> Response:
    """Make a surface to a span, a chord, an area, or its tip to a length along the slope."""

    def shaped(surface: Surface) -> Surface:
        return drawing.made_to(surface, made.span_mm, made.chord_mm, made.area_dm2, made.tip_mm)

    def changed(build: Build) -> Build:
        return drawing.reshaped(build, surface_id, shaped)

    return told(shop.change(build_id, number(if_match), changed))


@router.post(
    "/surfaces/{surface_id}/parts",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def parts_of_surface(
    build_id: BuildId, surface_id: Named, skin: Skin, if_match: Revision, shop: Shop
) -> Response:
    """Make the parts that a surface or a body is made of, with their area or run and their
    station; they follow the drawing until they are cut."""

    def added(build: Build) -> Build:
        at = datetime.now(UTC)
        parts = parts_drawn(build, surface_id, skin.lot, skin.layers)
        return drawing.with_parts(build, (replace(each, added_at=at) for each in parts))

    return told(shop.change(build_id, number(if_match), added), 201)


@router.post("/parts/cut", response_model=Opened, responses=documented(404, 412))
def cut_out(build_id: BuildId, parts: CutOut, if_match: Revision, shop: Shop) -> Response:
    """Say that parts are cut: they follow the drawing no more."""
    return told(shop.change(build_id, number(if_match), lambda build: cut(build, parts.parts)))


@router.post(
    "/parts/line", response_model=PartAdded, status_code=201, responses=documented(404, 409, 412)
)
def add_line(build_id: BuildId, line: PartLine, if_match: Revision, shop: Shop) -> Response:
    """Add a part typed on one line: "Left panel 13 dm2 of sheet b in Wing at 266"."""
    rack, at = shop.rack.lots(), datetime.now(UTC)

    def added(build: Build) -> Build:
        return with_typed_part(build, line.value(), rack, at)

    held = shop.change(build_id, number(if_match), added)
    if_each = if_of_each(held.build, line.value(), rack)
    body = PartAdded(held.revision, held.build, held.assessment, if_each)
    etag = {"ETag": f'"{held.revision}"'}
    after = sharing(shop, build_id)
    return Response(PART_ADDED.dump_json(body), 201, etag, "application/json", background=after)


@router.post(
    "/loadouts/from-packs",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 409, 412),
)
def loadouts_from_packs(
    build_id: BuildId, flying: Flying, if_match: Revision, shop: Shop
) -> Response:
    """Make the loadouts of packs and payloads at once; what they carry becomes an option."""
    rack, at = shop.rack.lots(), datetime.now(UTC)

    def flown(build: Build) -> Build:
        build, packs = with_typed_parts(build, [i.value() for i in flying.new_packs], rack, at)
        build, loads = with_typed_parts(build, [i.value() for i in flying.new_payloads], rack, at)
        return flown_with(
            build,
            [*flying.packs, *(part.id for part in packs)],
            [*flying.payloads, *(part.id for part in loads)],
        )

    held = shop.change(build_id, number(if_match), flown)
    return told(held, 201, after=sharing(shop, build_id))
