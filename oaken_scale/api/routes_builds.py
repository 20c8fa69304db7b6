"""Builds: the shelf, one whole build, its parts, its file."""

from dataclasses import replace
from datetime import UTC, datetime
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Header, Path, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import JSONResponse
from starlette.background import BackgroundTask

from oaken_scale.api.documents import (
    OPENED,
    BuildPatch,
    NewBuild,
    NewPart,
    Opened,
    PuttingAway,
    Shelved,
)
from oaken_scale.api.problems import ProblemError, documented, no_such
from oaken_scale.core.changes import parts
from oaken_scale.core.changes.begin import begun
from oaken_scale.core.changes.outing import with_lines_of
from oaken_scale.core.changes.parts import BoundBy
from oaken_scale.core.ledger.allowance import left_out, usual_share
from oaken_scale.core.ledger.learned import habits_of
from oaken_scale.core.model import declared
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.named import free_id
from oaken_scale.core.model.part import Habit, Part
from oaken_scale.formats import build_file, fields
from oaken_scale.formats.apart import READER
from oaken_scale.store.builds import Shelved as Row
from oaken_scale.workshop import Held, Workshop

router = APIRouter(prefix="/api/v1", tags=["builds"])

Named = Annotated[str, Path(pattern=declared.ID)]
"""The id of something in a path."""

BuildId = Named


class Copying(fields.Edge):
    """What the copy is called."""

    name: declared.Name


Revision = Annotated[
    str,
    Header(
        alias="If-Match",
        pattern=r'^"[0-9]{1,15}"$',
        description="The revision that the change was made to, as the ETag gave it",
    ),
]


async def workshop(request: Request) -> Workshop:
    """The workshop that the application serves."""
    served: Workshop = request.app.state.workshop
    return served


Shop = Annotated[Workshop, Depends(workshop)]


def told(held: Held, status: int = 200, after: BackgroundTask | None = None) -> Response:
    """A build with its assessment, its revision as ETag; ``after`` runs once it is sent."""
    body = OPENED.dump_json(Opened(held.revision, held.build, held.assessment))
    headers = {"ETag": f'"{held.revision}"'}
    return Response(body, status, headers, "application/json", background=after)


def sharing(shop: Workshop, build_id: str) -> BackgroundTask:
    """Afterwards, let the builds that share a lot or a thing know what was learned."""
    return BackgroundTask(shop.sharing.share, build_id)


def _teaches(row: Row) -> bool:
    return row.is_finished and row.purpose != "practice"


def usual_allowance(shop: Shop) -> Known | None:
    """What the workshop's finished builds turned out to have left off their lists."""
    return usual_share([found for each in shop.files(_teaches) if (found := left_out(each))])


def usual_habits(shop: Shop) -> tuple[Habit, ...]:
    """How the workshop's finished builds found guesses and listings to run."""
    return habits_of(shop.files(_teaches))


@router.get("/builds", response_model=list[Shelved], summary="The shelf")
def shelf(shop: Shop) -> list[Shelved]:
    """Every build with its tag, in the order they were begun."""
    return [
        Shelved(
            id=row.id,
            name=tag.name,
            purpose=tag.purpose,
            layout=tag.layout,
            created_at=row.created_at,
            put_away=row.put_away,
            readings=tag.readings,
            auw_g=tag.auw_g,
            auw_sd_g=tag.auw_sd_g,
            worst=tag.worst,
            progress=tag.progress,
            outlines=tag.outlines,
        )
        for row, tag in shop.shelf()
    ]


@router.post("/builds", response_model=Opened, status_code=201, responses=documented())
def begin(new: NewBuild, shop: Shop) -> Response:
    """Begin a build from a purpose and a layout, with the targets and the drawing they suggest."""
    fresh = begun(new.name, new.purpose, new.layout, new.auw_high_g, new.step_g)
    fresh = replace(fresh, allowance=usual_allowance(shop), habits=usual_habits(shop))
    earlier = shop.files(lambda row: row.has_own_lines and row.layout == fresh.layout)
    return told(shop.add(with_lines_of(fresh, earlier)), 201)


@router.post(
    "/builds/import",
    response_model=Opened,
    status_code=201,
    responses=documented(413),
    openapi_extra={
        "requestBody": {
            "required": True,
            "content": {"application/json": {"schema": {"type": "object"}}},
            "description": "A build file, as GET /api/v1/file-schema describes it",
        }
    },
)
async def bring_in(request: Request, shop: Shop) -> Response:
    """Bring in a build file. It becomes a build of its own; nothing is overwritten."""
    data = await request.body()
    build, _ = await run_in_threadpool(READER.build, data)
    held = await run_in_threadpool(shop.add, build)
    return told(held, 201)


@router.post(
    "/builds/{build_id}/copy", response_model=Opened, status_code=201, responses=documented(404)
)
def copy(build_id: BuildId, naming: Copying, shop: Shop) -> Response:
    """Put a copy on the shelf, with its weighings and all that was written down of it. Without
    them it is the next version: POST next-version."""
    held = shop.held(build_id)
    hidden = shop.truth(build_id)
    named = replace(held.build, name=naming.name, variant_of=None)
    return told(shop.add(named, hidden if any(hidden) else None), 201)


@router.get("/builds/{build_id}", response_model=Opened, responses=documented(404))
def whole(build_id: BuildId, shop: Shop) -> Response:
    """A whole build and everything that is told about it."""
    return told(shop.held(build_id))


@router.patch("/builds/{build_id}", response_model=Opened, responses=documented(404, 412))
def change(build_id: BuildId, patch: BuildPatch, if_match: Revision, shop: Shop) -> Response:
    """Change a build's name, purpose, drawing, lots, scales, loadouts, targets, budget, thrust."""
    held = shop.change(build_id, number(if_match), patch.applied)
    return told(held, after=sharing(shop, build_id))


@router.post(
    "/builds/{build_id}/parts",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def add_part(build_id: BuildId, part: NewPart, if_match: Revision, shop: Shop) -> Response:
    """Add a part."""

    def added(build: Build) -> Build:
        fresh = part.value(build)
        if "added_at" not in part.model_fields_set:  # a part brought back says since when itself
            fresh = replace(fresh, added_at=datetime.now(UTC))
        return parts.with_part(build, fresh)

    return told(shop.change(build_id, number(if_match), added), 201)


@router.put(
    "/builds/{build_id}/parts/{part_id}", response_model=Opened, responses=documented(404, 412)
)
def change_part(
    build_id: BuildId, part_id: Named, part: NewPart, if_match: Revision, shop: Shop
) -> Response:
    """Change a part, or retire it; its readings speak on."""

    def changed(build: Build) -> Build:
        _part(build, part_id)
        return parts.with_part_changed(build, part.value(build, part_id), datetime.now(UTC))

    return told(shop.change(build_id, number(if_match), changed), after=sharing(shop, build_id))


@router.delete(
    "/builds/{build_id}/parts/{part_id}",
    response_model=Opened,
    responses=documented(404, 409, 412),
)
def remove_part(build_id: BuildId, part_id: Named, if_match: Revision, shop: Shop) -> Response:
    """Remove a part that was never weighed; one that was can only be retired."""

    def removed(build: Build) -> Build:
        part, bound = _part(build, part_id), parts.bound_by(build, part_id)
        if bound is not None:
            title, why = _BOUND[bound]
            raise ProblemError(409, title, f"{part.name} {why}; retire it", "part_id")
        return parts.without(build, part_id)

    return told(shop.change(build_id, number(if_match), removed), after=sharing(shop, build_id))


@router.put("/builds/{build_id}/put-away", status_code=204, responses=documented(404))
def put_away(build_id: BuildId, putting: PuttingAway, shop: Shop) -> Response:
    """Take a build off the shelf, or put it back."""
    shop.put_away(build_id, putting.away)
    return Response(status_code=204)


@router.get(
    "/builds/{build_id}/file",
    response_model=build_file.BuildFile,
    responses=documented(404),
    summary="A build as a file",
)
def as_file(build_id: BuildId, shop: Shop) -> Response:
    """The build file, to keep or to hand on."""
    build = shop.held(build_id).build
    name = free_id(build.name, ())
    headers = {"Content-Disposition": f'attachment; filename="{name}.oaken.json"'}
    return Response(build_file.dump(build), headers=headers, media_type="application/json")


@router.get("/file-schema", response_model=dict[str, Any])
def file_schema() -> Response:
    """The JSON Schema of the build file."""
    return JSONResponse(build_file.BuildFile.model_json_schema())


def _part(build: Build, part_id: str) -> Part:
    part = next((part for part in build.parts if part.id == part_id), None)
    if part is None:
        raise no_such("part", part_id)
    return part


_BOUND: Final = {
    BoundBy.BALANCED: ("It has been balanced", "was aboard when the balance was checked"),
    BoundBy.WEIGHED: (
        "It has been weighed",
        "stands in the weighing log, which is never rewritten",
    ),
}


def number(if_match: str) -> int:
    """The revision that an If-Match header names."""
    return int(if_match.strip('"'))
