"""Targets: one end of one at a time, as they are typed, and the thrust that is stated."""

from typing import Annotated

from fastapi import APIRouter, Response

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, told
from oaken_scale.core.changes.targets import (
    OWN,
    End,
    with_suggested_targets,
    with_target_end,
    with_thrust,
)
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.target import TargetKind
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1/builds/{build_id}", tags=["builds"])


class TargetEnd(fields.Edge):
    """An end of a target in its own unit, none with null, and where the figure comes from."""

    end: End
    value: Annotated[float, fields.number()] | None
    source: declared.Words = OWN


class StatedThrust(fields.Edge):
    """A static thrust as stated [gf], none with null."""

    thrust_gf: Annotated[float, fields.number(gt=0, le=limits.THRUST_GF)] | None


@router.put("/targets/{kind}", response_model=Opened, responses=documented(404, 412))
def set_end(
    build_id: BuildId, kind: TargetKind, wanted: TargetEnd, if_match: Revision, shop: Shop
) -> Response:
    """One end of a target; an end beyond the other takes it along."""
    held = shop.change(
        build_id,
        number(if_match),
        lambda build: with_target_end(build, kind, wanted.end, wanted.value, wanted.source),
    )
    return told(held)


@router.post("/targets/suggested", response_model=Opened, responses=documented(404, 412))
def suggest(build_id: BuildId, if_match: Revision, shop: Shop) -> Response:
    """What the build's purpose and layout suggest, in place of its own targets of those kinds."""
    return told(shop.change(build_id, number(if_match), with_suggested_targets))


@router.put("/thrust", response_model=Opened, responses=documented(404, 412))
def state_thrust(
    build_id: BuildId, stated: StatedThrust, if_match: Revision, shop: Shop
) -> Response:
    """Another stated thrust; the line that it pulls along stays where it is."""
    held = shop.change(
        build_id, number(if_match), lambda build: with_thrust(build, stated.thrust_gf)
    )
    return told(held)
