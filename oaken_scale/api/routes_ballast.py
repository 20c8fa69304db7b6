"""What may move, and the ballast that may be put in."""

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented, no_such
from oaken_scale.api.routes_builds import BuildId, Named, Revision, Shop, number, told
from oaken_scale.core.changes.ballast import let_slide, with_one_more_spot, with_pieces
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.build import Build
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["balance"])


class Alike(fields.Edge):
    """Pieces of ballast [g] that look alike as they are shown."""

    text: Annotated[str, Field(max_length=40)]
    grams: Annotated[tuple[declared.SomeMass, ...], Field(max_length=limits.BALLAST_PIECES)]


class PiecesTyped(fields.Edge):
    """Pieces of ballast as one line, and the unit that is meant where it names none.

    What stands in ``shown`` as it is typed is those pieces, as exact as they were.
    """

    line: Annotated[str, Field(max_length=600)]
    unit: Annotated[str, Field(max_length=8)] = "g"
    shown: Annotated[tuple[Alike, ...], Field(max_length=limits.BALLAST_PIECES)] = ()


@router.post("/parts/{part_id}/slide", response_model=Opened, responses=documented(404, 412))
def let_it_slide(build_id: BuildId, part_id: Named, if_match: Revision, shop: Shop) -> Response:
    """Let a part slide a little either way of where it sits."""

    def changed(build: Build) -> Build:
        if part_id not in [each.id for each in build.parts]:
            raise no_such("part", part_id)
        return let_slide(build, part_id)

    return told(shop.change(build_id, number(if_match), changed))


@router.post("/ballast/spots", response_model=Opened, responses=documented(404, 412))
def one_more_spot(build_id: BuildId, if_match: Revision, shop: Shop) -> Response:
    """One more spot where ballast may be fixed."""
    return told(shop.change(build_id, number(if_match), with_one_more_spot))


@router.put("/ballast/pieces", response_model=Opened, responses=documented(404, 412))
def at_hand(build_id: BuildId, typed: PiecesTyped, if_match: Revision, shop: Shop) -> Response:
    """The pieces of ballast at hand, as they are typed: "5; 14.2; 6 x 2.4"."""
    shown = {each.text: each.grams for each in typed.shown}

    def changed(build: Build) -> Build:
        return with_pieces(build, typed.line, typed.unit, shown)

    return told(shop.change(build_id, number(if_match), changed))
