"""The Sheet: the plane on one page, labels, balance marks and outlines at full size."""

from collections.abc import Sequence
from enum import StrEnum
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Query, Response

from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Shop
from oaken_scale.core.assess import LoadoutAnswers
from oaken_scale.core.flight.centre_of_gravity import is_pack
from oaken_scale.paper.drawing import PAPERS, Page, pdf, svg
from oaken_scale.paper.full_size import balance_marks, outline_sheets, sheets_taken
from oaken_scale.paper.labels import GRIDS, cards, free_grid, labels
from oaken_scale.paper.sheet import Subject, sheet
from oaken_scale.paper.shown import AreaUnit, DecimalMark, LengthUnit, MassUnit, Shown
from oaken_scale.workshop import Held

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["sheet"])


class PaperName(StrEnum):
    """The sizes of paper."""

    A4 = "a4"
    LETTER = "letter"


class GridName(StrEnum):
    """How labels lie on a sheet: by paper and how many it holds, or a free grid."""

    A4_24 = "a4-24"
    A4_21 = "a4-21"
    A4_14 = "a4-14"
    A4_65 = "a4-65"
    LETTER_30 = "letter-30"
    FREE = "free"


class Labelled(StrEnum):
    """What gets labels."""

    PARTS = "parts"
    PACKS = "packs"


def reader(
    mass: MassUnit = MassUnit.G,
    length: LengthUnit = LengthUnit.MM,
    area: AreaUnit = AreaUnit.DM2,
    mark: DecimalMark = DecimalMark.POINT,
) -> Shown:
    """The units that a page is printed in."""
    return Shown(mass, length, area, mark)


Reader = Annotated[Shown, Depends(reader)]
Loadout = Annotated[str | None, Query(max_length=64, description="None: the first")]
Paper = Annotated[PaperName, Query(description="The size of the paper")]


def _in_front(held: Held, id: str | None) -> LoadoutAnswers | None:
    loadouts = held.assessment.loadouts
    if id is None:
        return loadouts[0] if loadouts else None
    found = next((each for each in loadouts if each.id == id), None)
    if found is None:
        names = ", ".join(f'"{each.id}"' for each in loadouts)
        raise ProblemError(
            422, "No such loadout", f'there is no "{id}"; there is {names}', "loadout"
        )
    return found


def _printed(pages: Sequence[Page], held: Held, what: str) -> Response:
    name = "".join(each if each.isascii() and each.isalnum() else "-" for each in held.build.name)
    file = f"{name.strip('-').lower() or 'build'}-{what}.pdf"
    return Response(
        pdf(pages, f"{held.build.name}, {what}"),
        media_type="application/pdf",
        headers={"Content-Disposition": f'inline; filename="{file}"'},
    )


def _page(held: Held, loadout: str | None, paper: PaperName, shown: Shown) -> Page:
    subject = Subject(held.build, held.assessment, _in_front(held, loadout))
    return sheet(subject, PAPERS[paper.value], shown)


MOST_SHEETS: Final = 200
"""More paper than anyone glues together."""

PDF: Final[dict[int | str, dict[str, Any]]] = {
    200: {"content": {"application/pdf": {}}, "description": "The pages"}
}


@router.get("/sheet.pdf", response_class=Response, responses={**documented(404), **PDF})
def sheet_on_paper(
    build_id: BuildId,
    shop: Shop,
    shown: Reader,
    loadout: Loadout = None,
    paper: Paper = PaperName.A4,
) -> Response:
    """The plane, its weights, targets, loadouts, checks and balance mark on one page."""
    held = shop.held(build_id)
    return _printed([_page(held, loadout, paper, shown)], held, "sheet")


@router.get(
    "/sheet.svg",
    response_class=Response,
    responses={
        **documented(404),
        200: {"content": {"image/svg+xml": {}}, "description": "The same page"},
    },
)
def sheet_on_screen(
    build_id: BuildId,
    shop: Shop,
    shown: Reader,
    loadout: Loadout = None,
    paper: Paper = PaperName.A4,
) -> Response:
    """The same page for the screen, for the browser's own print, and as a picture."""
    held = shop.held(build_id)
    drawn = svg(_page(held, loadout, paper, shown), f"The sheet of {held.build.name}")
    return Response(drawn, media_type="image/svg+xml")


@router.get("/labels.pdf", response_class=Response, responses={**documented(404), **PDF})
def print_labels(
    build_id: BuildId,
    shop: Shop,
    shown: Reader,
    of: Labelled = Labelled.PARTS,
    part: Annotated[tuple[Annotated[str, Query(max_length=64)], ...], Query(max_length=500)] = (),
    grid: GridName = GridName.A4_21,
    paper: Paper = PaperName.A4,
    across: Annotated[int, Query(ge=1, le=8)] = 3,
    down: Annotated[int, Query(ge=1, le=20)] = 8,
    skip: Annotated[int, Query(ge=0, le=100)] = 0,
) -> Response:
    """Labels for parts or packs, or for the parts named: on a common sheet, the first so many
    places of a begun one skipped, or on a free grid of plain paper."""
    held = shop.held(build_id)
    chosen = list(part) or None
    if chosen is None and of is Labelled.PACKS:
        chosen = [each.id for each in held.build.parts if is_pack(each) and not each.retired]
    laid = (
        free_grid(PAPERS[paper.value], across, down) if grid is GridName.FREE else GRIDS[grid.value]
    )
    if skip >= laid.across * laid.down:
        words = f"a sheet holds {laid.across * laid.down} labels; skip fewer than all of them"
        raise ProblemError(422, "Nothing left on that sheet", words, "skip")
    made = cards(held.build, held.assessment, shown, chosen)
    if not made:
        words = "nothing aboard is of that kind; choose parts, or name them"
        raise ProblemError(422, "Nothing to label", words, "of")
    return _printed(labels(made, laid, skip), held, "labels")


@router.get("/balance-marks.pdf", response_class=Response, responses={**documented(404), **PDF})
def print_balance_marks(
    build_id: BuildId,
    shop: Shop,
    shown: Reader,
    loadout: Loadout = None,
    paper: Paper = PaperName.A4,
) -> Response:
    """Where it must balance, at full size, to lay on the wing's root chord."""
    held = shop.held(build_id)
    front = _in_front(held, loadout)
    pages = balance_marks(held.assessment, front, PAPERS[paper.value], shown)
    if not pages:
        raise ProblemError(422, "No wing", "draw the main wing on the Plan first", "surfaces")
    return _printed(pages, held, "balance marks")


@router.get("/outlines.pdf", response_class=Response, responses={**documented(404), **PDF})
def print_outlines(
    build_id: BuildId,
    shop: Shop,
    shown: Reader,
    surface: Annotated[str | None, Query(max_length=64, description="None: all")] = None,
    paper: Paper = PaperName.A4,
) -> Response:
    """The drawn surfaces at full size, on as many sheets as they take."""
    held = shop.held(build_id)
    drawn = [each for each in held.assessment.outlines if not each.is_port]
    chosen = [each for each in drawn if surface is None or each.id == surface]
    many = sheets_taken(chosen, PAPERS[paper.value])
    if not many:
        words = "draw surfaces on the Plan first" if not drawn else f'there is no "{surface}" drawn'
        raise ProblemError(422, "Nothing drawn", words, "surface")
    if many > MOST_SHEETS:
        words = f"takes {many} sheets; at most {MOST_SHEETS}, so choose one surface"
        raise ProblemError(422, "Too many sheets", words, "surface")
    pages = outline_sheets(chosen, held.assessment, PAPERS[paper.value], shown)
    return _printed(pages, held, "outlines")
