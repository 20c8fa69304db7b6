"""Stock of one build: parts from outlines and shapes, alternatives, shopping, the budget."""

from dataclasses import dataclass
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Query, Request, Response
from fastapi.concurrency import run_in_threadpool

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, sharing, told
from oaken_scale.api.routes_sheet import MOST_SHEETS, Paper, PaperName, Reader
from oaken_scale.api.stock_documents import (
    CANDIDATE,
    COMPARISON,
    OUTLINES,
    REPLACEMENTS,
    SHOPPING,
    Choosing,
    Chosen,
    Keeping,
    NewShape,
    Template,
    TemplateArea,
)
from oaken_scale.core.changes.cutting import with_cuts
from oaken_scale.core.changes.shelf import lot_at_hand
from oaken_scale.core.geometry.outline import Candidate, Outlines
from oaken_scale.core.material.instead import (
    Replacements,
    Way,
    instead,
    replacements,
    ways,
)
from oaken_scale.core.material.shopping import Shopping, shopping
from oaken_scale.core.material.template import weighed_template
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.named import free_id
from oaken_scale.core.trim.alternatives import Comparison, compare
from oaken_scale.formats.apart import READER
from oaken_scale.formats.shopping_csv import shopping_csv
from oaken_scale.paper.drawing import PAPERS, pdf
from oaken_scale.paper.full_size import part_sheets, part_sheets_taken
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1", tags=["stock"])

A_DRAWING: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
        "description": "An SVG, DXF or PDF drawing",
    }
}


@dataclass(frozen=True, slots=True)
class Read:
    """How a drawing is read: gaps closed up to so much [mm], its scale, and how its pages lie."""

    close_within_mm: float
    mm_per_unit: float | None
    columns: int | None
    overlap_mm: float

    async def read(self, data: bytes, is_to_cut: bool = False) -> Outlines:
        """The parts that it offers."""
        how = (self.close_within_mm, self.mm_per_unit, self.columns, self.overlap_mm, is_to_cut)
        return await run_in_threadpool(READER.outlines, data, *how)


def scaling(
    close_within_mm: Annotated[float, Query(ge=0, le=50, allow_inf_nan=False)] = 0.0,
    mm_per_unit: Annotated[float | None, Query(gt=1e-6, le=1e6, allow_inf_nan=False)] = None,
    columns: Annotated[int | None, Query(ge=1, le=60)] = None,
    overlap_mm: Annotated[float, Query(ge=0, le=500, allow_inf_nan=False)] = 0.0,
) -> Read:
    """How a drawing is read: ``mm_per_unit`` gives the scale where it has none of its own, or is to
    another one; with ``columns`` the pages of a PDF are tiles of one plan, that overlap by
    ``overlap_mm``."""
    return Read(close_within_mm, mm_per_unit, columns, overlap_mm)


Scaling = Annotated[Read, Depends(scaling)]


@router.post(
    "/outlines",
    response_model=Outlines,
    responses=documented(413),
    openapi_extra=A_DRAWING,
)
async def read_outlines(request: Request, scaling: Scaling) -> Response:
    """The parts that a drawing offers; nothing is kept."""
    told = await scaling.read(await request.body())
    return Response(OUTLINES.dump_json(told), media_type="application/json")


@router.post(
    "/outlines.pdf",
    response_class=Response,
    responses={
        **documented(413),
        200: {"content": {"application/pdf": {}}, "description": "The parts at full size"},
    },
    openapi_extra=A_DRAWING,
)
async def outlines_on_paper(
    request: Request,
    scaling: Scaling,
    shown: Reader,
    paper: Paper = PaperName.A4,
    part: Annotated[tuple[Annotated[int, Query(ge=0)], ...], Query(max_length=500)] = (),
) -> Response:
    """Parts of a drawing at full size, on as many sheets as they take; ``part`` says which, by
    their places among those that it offers. Nothing is kept."""
    found = await scaling.read(await request.body(), is_to_cut=True)
    chosen = [found.parts[k] for k in part if k < len(found.parts)] if part else found.parts
    whole = [each for each in chosen if each.flaw is None]
    if not whole:
        raise ProblemError(422, "Nothing to print", "no part of it can be printed", "part")
    many = part_sheets_taken(whole, PAPERS[paper.value])
    if many > MOST_SHEETS:
        words = f"take {many} sheets; at most {MOST_SHEETS}, so choose fewer parts"
        raise ProblemError(422, "Too many sheets", words, "part")
    pages = await run_in_threadpool(part_sheets, whole, PAPERS[paper.value], shown)
    return Response(
        pdf(pages, "Parts at full size"),
        media_type="application/pdf",
        headers={"Content-Disposition": 'inline; filename="parts-full-size.pdf"'},
    )


@router.post("/shapes", response_model=Candidate, responses=documented())
def measure(new: NewShape) -> Response:
    """Area and centroid of a plain shape less its cut-outs; nothing is kept."""
    return Response(CANDIDATE.dump_json(new.value()), media_type="application/json")


@router.post("/template", response_model=TemplateArea, responses=documented())
def template(new: Template) -> TemplateArea:
    """The area that a paper template's weight tells."""
    found = weighed_template(new.reading_g, new.step_g, new.paper_g_m2, new.paper_doubt_g_m2)
    return TemplateArea(*found)


@router.post(
    "/builds/{build_id}/cuts",
    response_model=Opened,
    status_code=201,
    responses=documented(404, 412),
)
def keep(build_id: BuildId, keeping: Keeping, if_match: Revision, shop: Shop) -> Response:
    """Keep parts of a drawing or a shape: each with its lot, layers, twin and place."""

    def kept(build: Build) -> Build:
        return with_cuts(build, [each.value() for each in keeping.cuts])

    return told(shop.change(build_id, number(if_match), kept), 201)


@router.post(
    "/builds/{build_id}/replacements", response_model=Replacements, responses=documented(404)
)
def what_else(build_id: BuildId, choosing: Chosen, shop: Shop) -> Response:
    """What the chosen parts might be made from instead; nothing is kept."""
    told = replacements(shop.held(build_id).build, choosing.parts, shop.rack.lots())
    return Response(REPLACEMENTS.dump_json(told), media_type="application/json")


@router.post(
    "/builds/{build_id}/alternatives", response_model=Comparison, responses=documented(404)
)
def alternatives(build_id: BuildId, choosing: Choosing, shop: Shop) -> Response:
    """The chosen parts made otherwise, from each of the lots and then with each of the faces, side
    by side with today's; nothing is kept."""
    build = shop.held(build_id).build
    told = compare(build, choosing.parts, _ways(shop, build, choosing))
    return Response(COMPARISON.dump_json(told), media_type="application/json")


@router.post(
    "/builds/{build_id}/alternatives/adopt",
    response_model=Opened,
    responses=documented(404, 412),
)
def adopt(build_id: BuildId, choosing: Choosing, if_match: Revision, shop: Shop) -> Response:
    """Make the chosen parts in another way from now on; give just one."""

    def adopted(build: Build) -> Build:
        asked = _ways(shop, build, choosing)
        if len(asked) != 1:
            words = f"holds {len(asked)} ways; adopt one at a time"
            raise BuildFaultError([Fault("lots", words)])
        return instead(build, choosing.parts, asked[0])

    held = shop.change(build_id, number(if_match), adopted)
    return told(held, after=sharing(shop, build_id))


@router.get("/builds/{build_id}/shopping", response_model=Shopping, responses=documented(404))
def shopping_list(build_id: BuildId, shop: Shop) -> Response:
    """Sheets, rolls and rods wanted, what is in the rack, and what it costs."""
    told = shopping(shop.held(build_id).build)
    return Response(SHOPPING.dump_json(told), media_type="application/json")


@router.get(
    "/builds/{build_id}/shopping.csv",
    responses={200: {"content": {"text/csv": {"schema": {"type": "string"}}}}, **documented(404)},
    response_class=Response,
)
def shopping_file(build_id: BuildId, shop: Shop) -> Response:
    """The shopping list as CSV."""
    build = shop.held(build_id).build
    units = {lot.id: str(lot.unit) for lot in build.lots}
    name = free_id(build.name, ())
    headers = {"Content-Disposition": f'attachment; filename="{name}-shopping.csv"'}
    return Response(shopping_csv(shopping(build), units), headers=headers, media_type="text/csv")


def _ways(shop: Workshop, build: Build, choosing: Choosing) -> tuple[Way, ...]:
    """The ways that are asked for: a lot of the rack as if it were taken."""
    lots = [lot_at_hand(build, id, shop.rack.lot) for id in choosing.lots]
    return ways(build, choosing.parts, lots, choosing.faces)
