"""Parts on the sheets at hand: laid out step by step, and the plan as files and on paper."""

from collections.abc import AsyncIterator
from enum import StrEnum
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Request, Response
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import StreamingResponse
from pydantic import Field, TypeAdapter

from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Shop
from oaken_scale.api.routes_sheet import MOST_SHEETS, Paper, PaperName, Reader
from oaken_scale.core.geometry.blanks import Knife
from oaken_scale.core.material.cutting import CutPlan, CutStep, NotLaid, jobs
from oaken_scale.core.model import declared, limits, pattern
from oaken_scale.core.model.named import free_id
from oaken_scale.formats import fields
from oaken_scale.formats.cut_files import cut_dxf, cut_list, cut_svg, label
from oaken_scale.formats.cutting_apart import Cutter
from oaken_scale.formats.fields import number
from oaken_scale.paper.cut_sheets import cut_sheets, cut_sheets_taken
from oaken_scale.paper.drawing import PAPERS, pdf

router = APIRouter(prefix="/api/v1/builds/{build_id}/cutting", tags=["stock"])

LINES: Final = "application/x-ndjson"

_SIDE: Final = limits.STATION_MM


class Cutting(fields.Edge):
    """How the parts are to be laid: what the knife takes, how far they stay off the edge, which of
    them (null: all), and for how long better ways are looked for."""

    kerf_mm: Annotated[float, number(ge=0, le=100)] = 0.5
    margin_mm: Annotated[float, number(ge=0, le=500)] = 5.0
    parts: Annotated[tuple[declared.Id, ...], Field(max_length=limits.PARTS)] | None = None
    seconds: Annotated[float, number(ge=0.2, le=60)] = 8.0


class CutPieceDoc(fields.Edge):
    """A piece where it lies [mm]."""

    part: declared.Id
    name: declared.Name
    number: Annotated[int, Field(strict=True, ge=1, le=20_000)]
    of: Annotated[int, Field(strict=True, ge=1, le=20_000)]
    joined: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1
    joined_of: Annotated[int, Field(strict=True, ge=1, le=1000)] = 1
    sheet: Annotated[int, Field(strict=True, ge=0, le=400)]
    turn_deg: Annotated[int, Field(strict=True, ge=0, le=270)] = 0
    is_flipped: bool = False
    is_supposed: bool = False
    x_mm: declared.Coordinate = 0.0
    y_mm: declared.Coordinate = 0.0
    rings: Annotated[tuple[pattern.Ring, ...], Field(min_length=1, max_length=60)]
    name_at: pattern.Corner
    folds: Annotated[tuple[pattern.FoldLine, ...], Field(max_length=60)] = ()


class CutPlanDoc(fields.Edge):
    """A plan as it was answered, to be made a file of; what only the page looks at may stay out."""

    lot: declared.Id
    name: declared.Name
    length_mm: Annotated[float, number(gt=0, le=_SIDE)]
    width_mm: Annotated[float, number(gt=0, le=_SIDE)]
    sheets: Annotated[int, Field(strict=True, ge=0, le=400)]
    pieces: Annotated[tuple[CutPieceDoc, ...], Field(max_length=400)] = ()


class CutPlans(fields.Edge):
    """The plans of all lots."""

    plans: Annotated[tuple[CutPlanDoc, ...], Field(min_length=1, max_length=50)]

    def value(self) -> tuple[CutPlan, ...]:
        """As the core has them, without what is not drawn."""
        nothing: dict[str, Any] = {"least": 0, "at_hand": 0.0, "to_buy": 0, "cost_to_buy": None}
        nothing |= {"used_share": 0.0, "left_mm": 0.0, "joins": (), "odd": ()}
        return tuple(_PLAN.validate_python({**plan.model_dump(), **nothing}) for plan in self.plans)


class CutKind(StrEnum):
    """A file of a plan of cuts."""

    SVG = "svg"
    DXF = "dxf"
    CSV = "csv"
    PDF = "pdf"


MEDIA: Final = {
    CutKind.SVG: "image/svg+xml",
    CutKind.DXF: "image/vnd.dxf",
    CutKind.CSV: "text/csv",
    CutKind.PDF: "application/pdf",
}

_PLAN: Final = TypeAdapter(CutPlan)
_STEP: Final = TypeAdapter(CutStep)
_NOT_LAID: Final = TypeAdapter(tuple[NotLaid, ...])


async def cutter(request: Request) -> Cutter:
    """What lays parts for the application."""
    served: Cutter = request.app.state.cutter
    return served


@router.post("", response_model=CutStep, responses=documented(404, 503))
async def lay(
    build_id: BuildId, cutting: Cutting, shop: Shop, cutter: Annotated[Cutter, Depends(cutter)]
) -> Response:
    """Lay the parts on sheets: a line of JSON for each step, with the lot's plan wherever it got
    better. Whoever stops reading ends it; the last plans stand. Nothing is kept."""
    build = (await run_in_threadpool(shop.held, build_id)).build
    knife = Knife(cutting.kerf_mm, cutting.margin_mm)
    only = None if cutting.parts is None else frozenset(cutting.parts)
    to_lay, _ = await run_in_threadpool(jobs, build, knife, only)
    if not to_lay:
        words = (
            "there is no part to lay: give a part an area of a sheet that has a length and a width"
        )
        raise ProblemError(422, "Nothing to lay", words, "parts")
    steps = cutter.lay(to_lay, knife, cutting.seconds)
    first = await anext(steps, None)
    if first is None:
        words = "it ended before it had begun; the machine may be out of memory: try again"
        raise ProblemError(503, "No layout", words)

    async def lines() -> AsyncIterator[bytes]:
        yield _STEP.dump_json(first) + b"\n"
        try:
            async for step in steps:
                yield _STEP.dump_json(step) + b"\n"
        finally:
            await steps.aclose()

    return StreamingResponse(lines(), media_type=LINES)


@router.get("/left-out", response_model=tuple[NotLaid, ...], responses=documented(404))
def left_out(build_id: BuildId, shop: Shop) -> Response:
    """The parts that cannot be laid, as their lot's sheet has no size."""
    _, unlaid = jobs(shop.held(build_id).build, Knife())
    return Response(_NOT_LAID.dump_json(unlaid), media_type="application/json")


@router.post(
    "/{kind}",
    response_class=Response,
    responses={
        **documented(404),
        200: {
            "content": {media: {} for media in MEDIA.values()},
            "description": "The plan as a file",
        },
    },
)
def cut_file(
    build_id: BuildId,
    kind: CutKind,
    asked: CutPlans,
    shop: Shop,
    shown: Reader,
    paper: Paper = PaperName.A4,
) -> Response:
    """A plan as SVG or DXF to full size, its cut list as CSV, or at full size on paper."""
    build, plans = shop.held(build_id).build, asked.value()
    if kind is CutKind.PDF:
        many = cut_sheets_taken(plans, PAPERS[paper.value])
        if many > MOST_SHEETS:
            words = f"take {many} sheets of paper; at most {MOST_SHEETS}, so print one lot at once"
            raise ProblemError(422, "Too many sheets", words, "plans")
        body: str | bytes = pdf(
            cut_sheets(plans, label, PAPERS[paper.value], shown), "Sheets to cut"
        )
    else:
        body = {CutKind.SVG: cut_svg, CutKind.DXF: cut_dxf, CutKind.CSV: cut_list}[kind](plans)
    name = f"{free_id(build.name, ())}-cuts.{kind}"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(body, headers=headers, media_type=MEDIA[kind])
