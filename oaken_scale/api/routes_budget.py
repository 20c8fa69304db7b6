"""The budget: what each group may weigh as it is typed, by the usual shares, as an earlier build
came out or as a donor weighs."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import Field

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import BuildId, Revision, Shop, number, told
from oaken_scale.core.changes.budget import with_allotment, with_budget_of, with_usual_shares
from oaken_scale.core.changes.donor import DonorPart, donor_parts, measured_by_donor
from oaken_scale.core.model import declared, limits
from oaken_scale.core.model.part import Group
from oaken_scale.core.model.part_line import Units
from oaken_scale.formats import fields

router = APIRouter(prefix="/api/v1", tags=["stock"])


class Allotted(fields.Edge):
    """What a group may weigh [g]; null for no figure."""

    grams: Annotated[float, fields.number(ge=0, le=limits.READING_G)] | None


class Donor(fields.Edge):
    """A donor's weights, a part on each line, and the unit that is meant where none is typed."""

    name: declared.Name
    lines: Annotated[str, Field(max_length=20_000)]
    unit: Annotated[str, Field(max_length=8)] = "g"


@router.put(
    "/builds/{build_id}/budget/groups/{group}",
    response_model=Opened,
    responses=documented(404, 412),
)
def allot(
    build_id: BuildId, group: Group, allotted: Allotted, if_match: Revision, shop: Shop
) -> Response:
    """What one group may weigh."""
    held = shop.change(
        build_id, number(if_match), lambda build: with_allotment(build, group, allotted.grams)
    )
    return told(held)


@router.put(
    "/builds/{build_id}/budget/usual", response_model=Opened, responses=documented(404, 412)
)
def usual_shares(build_id: BuildId, if_match: Revision, shop: Shop) -> Response:
    """A budget by the usual shares of the weight limit, for the build's purpose."""
    return told(shop.change(build_id, number(if_match), with_usual_shares))


@router.put(
    "/builds/{build_id}/budget/earlier", response_model=Opened, responses=documented(404, 412)
)
def as_earlier(
    build_id: BuildId,
    earlier: Annotated[str, Query(pattern=declared.ID)],
    if_match: Revision,
    shop: Shop,
) -> Response:
    """A budget as an ``earlier`` build came out."""
    other = shop.held(earlier)
    lines, name = other.assessment.budget, other.build.name
    held = shop.change(build_id, number(if_match), lambda build: with_budget_of(build, lines, name))
    return told(held)


@router.post("/donor", response_model=tuple[DonorPart, ...], responses=documented())
def read_donor(donor: Donor) -> tuple[DonorPart, ...]:
    """A donor's weights as they were understood; nothing is kept."""
    return donor_parts(donor.lines, Units(mass=donor.unit))


@router.put(
    "/builds/{build_id}/budget/donor", response_model=Opened, responses=documented(404, 412)
)
def budget_by_donor(build_id: BuildId, donor: Donor, if_match: Revision, shop: Shop) -> Response:
    """Take a donor's weights for the first budget, and measure the build by them."""
    parts = donor_parts(donor.lines, Units(mass=donor.unit))
    held = shop.change(
        build_id, number(if_match), lambda build: measured_by_donor(build, donor.name, parts)
    )
    return told(held)
