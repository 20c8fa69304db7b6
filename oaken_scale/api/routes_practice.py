"""The practice bench: begun from a seed, and the truth beside the estimate at the end."""

import random
from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Shop, told
from oaken_scale.demo.practice import PURPOSE, practice
from oaken_scale.demo.truth_told import Truth, truth_told
from oaken_scale.formats.fields import Edge

router = APIRouter(prefix="/api/v1", tags=["practice"])


class NewPractice(Edge):
    """Which practice bench; without a seed, any."""

    seed: Annotated[int, Field(strict=True, ge=0, le=999_999)] | None = None


@router.post("/practice", response_model=Opened, status_code=201, responses=documented())
def begin_practice(new: NewPractice, shop: Shop) -> object:
    """Lay out a half-built plane with hidden masses and one slip."""
    seed = random.SystemRandom().randrange(1_000_000) if new.seed is None else new.seed
    made = practice(seed)
    return told(shop.add(made.build, (made.masses_g, made.constants)), 201)


@router.get("/builds/{build_id}/truth", response_model=Truth, responses=documented(404, 409))
def truth(build_id: BuildId, shop: Shop) -> Truth:
    """What is true of a practice bench; a real build keeps no truth to show."""
    held = shop.held(build_id)
    build, assessment = held.build, held.assessment
    masses, constants = shop.truth(build_id)
    if build.purpose != PURPOSE or not masses:
        words = f"{build.name} is no practice bench; what its things weigh is for the scale to say"
        raise ProblemError(409, "Nothing to show", words, "build_id")
    return truth_told(build, assessment, masses, constants)
