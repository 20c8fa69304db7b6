"""The order of the day: what is left, what can be done in the minutes at hand, what was done."""

from datetime import UTC, datetime
from typing import Annotated, Final

from fastapi import APIRouter, Query, Response
from pydantic import TypeAdapter

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Shop, told
from oaken_scale.core.material.order_of_day import DayTold, order_of_day, step_done, step_undone
from oaken_scale.core.model.declared import Minutes, StepId
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1/builds/{build_id}/day", tags=["joints"])

_DAY: Final = TypeAdapter(DayTold)


class StepDone(fields.Edge):
    """A step that was done just now, and in how many minutes where somebody looked at the clock."""

    step: StepId
    minutes: Minutes | None = None


class StepNamed(fields.Edge):
    """A step by its id."""

    step: StepId


@router.get("", response_model=DayTold, responses=documented(404))
def order(
    build_id: BuildId,
    shop: Shop,
    minutes: Annotated[float | None, Query(gt=0, le=100_000, allow_inf_nan=False)] = None,
) -> Response:
    """The steps that are left in their order, and what can be done in so many minutes."""
    build = shop.held(build_id).build
    earlier = shop.timed_steps(besides=build_id)
    found = order_of_day(build, datetime.now(UTC), minutes, earlier)
    return Response(_DAY.dump_json(found), media_type="application/json")


@router.post("/done", response_model=Opened, responses=documented(404))
def do(build_id: BuildId, done: StepDone, shop: Shop) -> Response:
    """A step was done."""
    now = datetime.now(UTC)
    return told(
        shop.change(build_id, None, lambda build: step_done(build, done.step, now, done.minutes))
    )


@router.post("/undone", response_model=Opened, responses=documented(404))
def undo(build_id: BuildId, undone: StepNamed, shop: Shop) -> Response:
    """A step is to be done again."""
    return told(shop.change(build_id, None, lambda build: step_undone(build, undone.step)))
