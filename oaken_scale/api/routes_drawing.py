"""The Plan: a first drawing, a surface made to a figure, its parts, a part typed on one line, and
loadouts from packs and payloads."""

from collections.abc import Sequence
from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Response
from pydantic import Field

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, sharing, told
from oaken_scale.core.changes import drawing
from oaken_scale.core.changes.drawn_parts import cut, parts_drawn
from oaken_scale.core.changes.shelf import taken_lot
from oaken_scale.core.changes.ways_of_flying import flown_with
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part_line import Units, part_of_line
from oaken_scale.core.model.plausible import FigureOf, asked_of_part
from oaken_scale.core.model.surface import Surface
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["plan"])

Mm = Annotated[float, fields.number(gt=0, le=20_000)]
Dm2 = Annotated[float, fields.number(gt=0, le=10_000)]
SHELF: Final = "rack:"
Unit = Annotated[str, Field(max_length=8)]
_UNITS: Final = {
    FigureOf.STATION: "mm",
    FigureOf.MASS: "g",
    FigureOf.RUN: "m",
    FigureOf.AREA: "dm2",
}
_UNUSUAL: Final = {
    FigureOf.STATION: "from the nose lies off the plane",
    FigureOf.MASS: "is unusual for one part",
    FigureOf.RUN: "is unusual for one part",
    FigureOf.AREA: "is unusual for one part",
}


class FirstDrawing(fields.Edge):
    """The span of a first drawing, and its chord at the root or the area of its wings."""

    span_mm: Mm
    chord_mm: Mm | None = None
    area_dm2: Dm2 | None = None


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

    def added(self, build: Build, shelf: Sequence[Lot]) -> Build:
        """The build with the part that it says, and with the lot of the rack that it is cut from.

        Raises BuildFaultError where it is not understood, ProblemError (409) where its station is
        absurd.
        """
        units = Units(self.mass, self.length, self.area, self.run)
        here = {lot.rack for lot in build.lots}
        others = [replace(lot, id=SHELF + lot.id) for lot in shelf if lot.id not in here]
        part = part_of_line(self.line, build.lots, units, others)
        absurd = asked_of_part(part, (*build.lots, *others), build.surfaces)
        if absurd is not None and not self.sure:
            of, asked = absurd
            meant = f"; {asked.instead:g} {_UNITS[of]}?" if asked.instead is not None else ""
            words = f"{asked.value:g} {_UNITS[of]} {_UNUSUAL[of]}{meant}"
            raise ProblemError(409, "Is that meant?", words, "line")
        for use in part.uses:
            if use.lot.startswith(SHELF):
                wanted = next(lot for lot in shelf if SHELF + lot.id == use.lot)
                lot = taken_lot(build, wanted)
                build = replace(build, lots=(*build.lots, lot))
                part = replace(part, uses=(replace(use, lot=lot.id),))
        part = replace(part, assembly=part.assembly or self.assembly, added_at=datetime.now(UTC))
        return drawing.with_parts(build, (part,), _id)


class Flying(fields.Edge):
    """The packs and payloads that may be aboard: parts by their ids, new ones on a line each."""

    packs: Annotated[tuple[declared.Id, ...], Field(max_length=12)] = ()
    payloads: Annotated[tuple[declared.Id, ...], Field(max_length=12)] = ()
    new_packs: Annotated[tuple[PartLine, ...], Field(max_length=12)] = ()
    new_payloads: Annotated[tuple[PartLine, ...], Field(max_length=12)] = ()


def _id(build: Build, name: str) -> str:
    return free_id(name, (part.id for part in build.parts))


@router.post("/drawing", response_model=Opened, responses=documented(404, 412))
def first_drawing(
    build_id: BuildId, first: FirstDrawing, if_match: Revision, shop: Shop
) -> Response:
    """Draw the build's layout anew, to a span and a chord or an area."""

    def drawn(build: Build) -> Build:
        return drawing.with_first_drawing(build, first.span_mm, first.chord_mm, first.area_dm2)

    return told(shop.change(build_id, number(if_match), drawn))


@router.post("/surfaces/{surface_id}/shape", response_model=Opened, responses=documented(404, 412))
def shape(
    build_id: BuildId, surface_id: Named, made: Shape, if_match: Revision, shop: Shop
) -> Response:
    """Make a surface to a span, a chord, an area, or its tip to a length along the slope."""
    given = [
        (way, value)
        for way, value in (
            (drawing.spanned, made.span_mm),
            (drawing.chorded, made.chord_mm),
            (drawing.of_area, made.area_dm2),
            (drawing.along_the_slope, made.tip_mm),
        )
        if value is not None
    ]
    if not given:
        raise BuildFaultError([Fault("span_mm", "give a span, a chord, an area or a tip")])

    def shaped(surface: Surface) -> Surface:
        for way, value in given:
            surface = way(surface, value)
        return surface

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
        return drawing.with_parts(build, (replace(each, added_at=at) for each in parts), _id)

    return told(shop.change(build_id, number(if_match), added), 201)


@router.post("/parts/cut", response_model=Opened, responses=documented(404, 412))
def cut_out(build_id: BuildId, parts: CutOut, if_match: Revision, shop: Shop) -> Response:
    """Say that parts are cut: they follow the drawing no more."""
    return told(shop.change(build_id, number(if_match), lambda build: cut(build, parts.parts)))


@router.post(
    "/parts/line", response_model=Opened, status_code=201, responses=documented(404, 409, 412)
)
def add_line(build_id: BuildId, line: PartLine, if_match: Revision, shop: Shop) -> Response:
    """Add a part typed on one line: "Left panel 13 dm2 of sheet b in Wing at 266"."""

    shelf = shop.rack.lots()

    def added(build: Build) -> Build:
        return line.added(build, shelf)

    held = shop.change(build_id, number(if_match), added)
    return told(held, 201, after=sharing(shop, build_id))


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

    shelf = shop.rack.lots()

    def changed(build: Build) -> Build:
        named: dict[str, list[str]] = {
            "packs": list(flying.packs),
            "payloads": list(flying.payloads),
        }
        for field, lines in (("packs", flying.new_packs), ("payloads", flying.new_payloads)):
            for line in lines:
                build = line.added(build, shelf)
                named[field].append(build.parts[-1].id)
        return flown_with(build, named["packs"], named["payloads"])

    return told(
        shop.change(build_id, number(if_match), changed), 201, after=sharing(shop, build_id)
    )
