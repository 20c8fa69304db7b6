"""A build's lists out as CSV and xlsx, and a builder's own list of parts in."""

from datetime import UTC, datetime
from enum import StrEnum
from typing import Annotated, Any, Final

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import Field, TypeAdapter

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, sharing, told
from oaken_scale.core.changes.listed import with_list, with_listed_parts
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.formats import fields, lists_in, parts_columns, parts_list, tables
from oaken_scale.formats.apart import READER
from oaken_scale.paper.shown import DecimalMark

router = APIRouter(prefix="/api/v1", tags=["lists"])

PREVIEW: TypeAdapter[parts_list.Preview] = TypeAdapter(parts_list.Preview)


class TableName(StrEnum):
    """The lists that go out."""

    PARTS = "parts"
    WEIGHINGS = "weighings"
    LOADOUTS = "loadouts"
    THROWS = "throws"
    RUNS = "runs"


def _file(build: Build, what: str) -> dict[str, str]:
    plain = "".join(each if each.isascii() and each.isalnum() else "-" for each in build.name)
    name = f"{plain.strip('-').lower() or 'build'}-{what}"
    return {"Content-Disposition": f'attachment; filename="{name}"'}


@router.get(
    "/builds/{build_id}/tables/{table}.csv",
    response_class=Response,
    responses={**documented(404), 200: {"content": {"text/csv": {}}, "description": "The list"}},
)
def table_as_csv(
    build_id: BuildId,
    table: TableName,
    shop: Shop,
    mark: Annotated[DecimalMark, Query(description="Before the tenths")] = DecimalMark.POINT,
) -> Response:
    """One list as CSV: with decimal points and commas between, or decimal commas and semicolons."""
    held = shop.held(build_id)
    wanted = next(t for t in tables.tables(held.build, held.assessment) if t.name == table.value)
    content = tables.as_csv(wanted, mark is DecimalMark.COMMA)
    headers = _file(held.build, f"{table.value}.csv")
    return Response(content, media_type="text/csv; charset=utf-8", headers=headers)


XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@router.get(
    "/builds/{build_id}/tables.xlsx",
    response_class=Response,
    responses={**documented(404), 200: {"content": {XLSX: {}}, "description": "All lists"}},
)
def all_tables(build_id: BuildId, shop: Shop) -> Response:
    """All lists as one spreadsheet file, sums as formulas."""
    held = shop.held(build_id)
    content = tables.as_xlsx(tables.tables(held.build, held.assessment))
    return Response(content, media_type=XLSX, headers=_file(held.build, "lists.xlsx"))


def _choices(columns: tuple[str, ...]) -> dict[int, parts_columns.Field | None]:
    """What columns are said to hold, by their places. Raises BuildFaultError."""
    found: dict[int, parts_columns.Field | None] = {}
    known = {"nothing": None, **{each.value: each for each in parts_columns.Field}}
    for each in columns:
        place, _, what = each.partition(":")
        if not (place.isascii() and place.isdigit()) or len(place) > 2 or what not in known:
            words = f'is "{each}"; say a place and what it holds, as in "2:mass", of '
            raise BuildFaultError([Fault("column", words + ", ".join(known))])
        found[int(place)] = known[what]
    return found


@router.post(
    "/parts-list",
    response_model=parts_list.Preview,
    responses=documented(404, 413),
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {
                "application/octet-stream": {"schema": {"type": "string", "format": "binary"}}
            },
            "description": "A list of parts, CSV or xlsx",
        }
    },
)
async def look_at_a_list(
    request: Request,
    shop: Shop,
    build: Annotated[str, Query(max_length=64)],
    column: Annotated[tuple[Annotated[str, Query(max_length=20)], ...], Query(max_length=60)] = (),
) -> Response:
    """What a list of parts would add to a build; nothing is kept. ``column`` says what one is,
    as in "2:mass"."""
    held = await run_in_threadpool(shop.held, build)
    choices = _choices(column)
    rows = await run_in_threadpool(READER.cells, await request.body())
    found = parts_list.preview(rows, held.build, choices)
    return Response(PREVIEW.dump_json(found), media_type="application/json")


LIST_PREVIEW: TypeAdapter[lists_in.ListPreview] = TypeAdapter(lists_in.ListPreview)

A_LIST: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
        "description": "A list, CSV or xlsx",
    }
}


@router.post(
    "/builds/{build_id}/lists/{what}/preview",
    response_model=lists_in.ListPreview,
    responses=documented(404, 413),
    openapi_extra=A_LIST,
)
async def look_at_another_list(
    build_id: BuildId, what: lists_in.ListName, request: Request, shop: Shop
) -> Response:
    """What a list of weighings, loadouts, throws or runs would add; nothing is kept."""
    held = await run_in_threadpool(shop.held, build_id)
    rows = await run_in_threadpool(READER.cells, await request.body(), what.value)
    found, _ = await run_in_threadpool(lists_in.read_list, what, rows, held.build)
    return Response(LIST_PREVIEW.dump_json(found), media_type="application/json")


@router.post(
    "/builds/{build_id}/lists/{what}",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412, 413),
    openapi_extra=A_LIST,
)
async def keep_another_list(
    build_id: BuildId, what: lists_in.ListName, request: Request, if_match: Revision, shop: Shop
) -> Response:
    """Add what a list has that the build has not, all of it or nothing; a second time adds
    nothing."""
    rows = await run_in_threadpool(READER.cells, await request.body(), what.value)

    def added(build: Build) -> Build:
        _, entries = lists_in.read_list(what, rows, build)
        return with_list(build, entries)

    held = await run_in_threadpool(shop.change, build_id, number(if_match), added)
    return told(held, 201, after=sharing(shop, build_id))


Mm = Annotated[float, fields.number(ge=-20_000, le=20_000)]


class Listed(fields.Edge):
    """A part of a list, its figure of all its pieces."""

    name: declared.Name
    assembly: declared.Label = ""
    mass_g: Annotated[float, fields.number(ge=0, le=5000)] | None = None
    pieces: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1
    station_mm: Mm | None = None
    side_mm: Mm = 0.0
    height_mm: Mm = 0.0

    def value(self) -> Part:
        """The part that it is, without an id."""
        station = None
        if self.station_mm is not None:
            station = Station(self.station_mm, self.side_mm, self.height_mm)
        return Part(
            "",
            self.name,
            Pedigree.GUESS,
            self.assembly,
            self.mass_g,
            pieces=self.pieces,
            station=station,
            added_at=datetime.now(UTC),
        )


class PartsList(fields.Edge):
    """The parts of a list that are to be kept."""

    parts: Annotated[tuple[Listed, ...], Field(min_length=1, max_length=limits.PARTS)]


@router.post(
    "/builds/{build_id}/parts-list",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def keep_a_list(build_id: BuildId, given: PartsList, if_match: Revision, shop: Shop) -> Response:
    """Add the parts of a list, all or none; one of the same name and assembly stays as it is."""
    parts = [each.value() for each in given.parts]
    held = shop.change(build_id, number(if_match), lambda build: with_listed_parts(build, parts))
    return told(held, 201)
