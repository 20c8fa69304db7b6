"""Taking changes of a build back, in the order they were made, and making them again."""

from dataclasses import dataclass
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response
from pydantic import TypeAdapter

from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, sharing
from oaken_scale.core.assess import Assessment
from oaken_scale.core.changes.taken_back import Touched
from oaken_scale.core.model.build import Build
from oaken_scale.workshop import Workshop
from oaken_scale.workshop.history import Undone

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["undo"])


@dataclass(frozen=True, slots=True)
class TakenBack:
    """A build after a change was taken back, or made again, and what that change had touched."""

    revision: int
    build: Build
    assessment: Assessment
    touched: tuple[Touched, ...]


TAKEN: Final = TypeAdapter(TakenBack)


def answer(done: Undone, shop: Workshop) -> Response:
    """A build after a step, its revision as ETag."""
    held = done.held
    body = TAKEN.dump_json(TakenBack(held.revision, held.build, held.assessment, done.touched))
    after = sharing(shop, held.build.id)
    return Response(
        body,
        headers={"ETag": f'"{held.revision}"'},
        media_type="application/json",
        background=after,
    )


@router.post("/undo", response_model=TakenBack, responses=documented(404, 409, 412))
def undo(
    build_id: BuildId,
    if_match: Revision,
    shop: Shop,
    made: Annotated[int | None, Query(ge=1)] = None,
) -> Response:
    """Take the last change of a build back, or the one that ``made`` a revision of it, whatever
    came since. What a log holds is set aside, never deleted.

    It is taken back from the revision that the page shows: sent again, because no answer came, it
    takes nothing more back (412).
    """
    return answer(shop.history.undo(build_id, number(if_match), made), shop)


@router.post("/redo", response_model=TakenBack, responses=documented(404, 409, 412))
def redo(build_id: BuildId, if_match: Revision, shop: Shop) -> Response:
    """Make the change again that was taken back last."""
    return answer(shop.history.redo(build_id, number(if_match)), shop)
