"""What every page needs: what a build can begin from, and what people type."""

from enum import StrEnum
from importlib.metadata import version
from typing import Annotated

from fastapi import APIRouter, Query

from oaken_scale.api.documents import Beginnings, Understood
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import Shop
from oaken_scale.core.changes.typed_part import ON_RACK
from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.model import presets
from oaken_scale.core.model.part_line import KNOWN_BY
from oaken_scale.core.model.plausible import FigureOf, asked_about
from oaken_scale.core.model.quantity import FACTORS, QuantityError, parse
from oaken_scale.formats.documents import TargetDoc
from oaken_scale.workshop.workshop import Workshop

router = APIRouter(prefix="/api/v1", tags=["workshop"])

Kind = StrEnum("Kind", {kind: kind for kind in FACTORS})  # type: ignore[misc]


@router.get("/beginnings", response_model=Beginnings)
def beginnings(shop: Shop) -> Beginnings:
    """Purposes, layouts, adhesives, and the units that may be typed, each in its base unit."""
    return Beginnings(
        presets.PURPOSES,
        presets.LAYOUTS,
        ADHESIVES,
        FACTORS,
        KNOWN_BY,
        version("oaken-scale"),
        shop.rescued(),
    )


@router.get("/beginnings/targets", response_model=tuple[TargetDoc, ...], responses=documented())
def suggested_targets(purpose: str, layout: str) -> tuple[TargetDoc, ...]:
    """The targets that a purpose and a layout suggest, each saying where its figure comes from."""
    suggested = presets.starting_targets(presets.purpose(purpose), presets.layout(layout))
    return tuple(TargetDoc.model_validate(target) for target in suggested)


@router.get("/quantity", response_model=Understood, responses=documented(404))
def quantity(
    text: Annotated[str, Query(max_length=200)],
    kind: Kind,
    shop: Shop,
    unit: Annotated[str | None, Query(max_length=8)] = None,
    measure: FigureOf | None = None,
    build: Annotated[str | None, Query(max_length=64)] = None,
    lot: Annotated[str | None, Query(max_length=80)] = None,
) -> Understood:
    """Read what somebody typed: "12.4", "12,4", "0.44oz", "3 1/2 in", "101 + 53.4", "2 x 9", and
    of a ``lot`` of the build, or of the rack (``rack:`` and its id), "2/3 sheet".

    With a ``measure`` a figure that is absurd for it is asked about, on the plane of a ``build``.
    """
    try:
        understood = parse(text, kind.value, unit, _size(shop, build, lot))
    except QuantityError as error:
        raise ProblemError(422, "That cannot be right", str(error), "text") from error
    asked = None
    if measure is not None:
        surfaces = shop.held(build).build.surfaces if build is not None else ()
        asked = asked_about(understood.value, measure, surfaces)
    return Understood(understood.value, understood.unit, asked)


def _size(shop: Workshop, build: str | None, lot: str | None) -> float | None:
    """How much is in one of a lot, in its unit; None where nobody said, or there is no such lot."""
    if lot is None:
        return None
    on_rack = lot.removeprefix(ON_RACK)
    lots = shop.rack.lots() if on_rack != lot or build is None else shop.held(build).build.lots
    return next((each.size for each in lots if each.id == on_rack), None)
