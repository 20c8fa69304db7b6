"""The practice bench: begun from a seed, and the truth beside the estimate at the end."""

import random
from dataclasses import dataclass
from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from oaken_scale.api.documents import Opened
from oaken_scale.api.problems import ProblemError, documented
from oaken_scale.api.routes_builds import BuildId, Shop, told
from oaken_scale.demo.practice import PURPOSE, STEP_G, practice
from oaken_scale.formats.fields import Edge

router = APIRouter(prefix="/api/v1", tags=["practice"])


class NewPractice(Edge):
    """Which practice bench; without a seed, any."""

    seed: Annotated[int, Field(strict=True, ge=0, le=999_999)] | None = None


@dataclass(frozen=True, slots=True)
class TrueMass:
    """A thing as it was found to weigh, and as it truly does [g]."""

    part: str
    estimate_g: float
    sd_g: float
    true_g: float


@dataclass(frozen=True, slots=True)
class WrongReading:
    """A reading that speaks and is not what lay on the pan [g]."""

    weighing: str
    reading_g: float
    true_g: float
    set_aside: bool


@dataclass(frozen=True, slots=True)
class Truth:
    """The truth of a practice bench beside the estimate.

    ``auw_true_g`` is that of the first loadout; ``weighed`` counts the readings taken since it was
    begun; ``settled`` the targets whose verdict the weighing settled, of ``targets``.
    """

    parts: tuple[TrueMass, ...]
    wrong: tuple[WrongReading, ...]
    auw_g: float
    auw_sd_g: float
    auw_true_g: float
    weighed: int
    settled: int
    targets: int


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
    wrong = []
    for each in build.weighings:
        pan = each.pan
        if any(load.part not in masses for load in pan.loads):
            continue
        true = pan.known_g + sum(masses[load.part] * load.count for load in pan.loads)
        true += sum(constants.get(on.lot, 0.0) * on.amount for on in pan.samples)
        if abs(each.reading_g - true) > max(20 * STEP_G, 0.01 * true):
            aside = each.set_aside is not None
            wrong.append(WrongReading(each.id, each.reading_g, true, aside))
    first = assessment.loadouts[0]
    aboard = build.aboard(next(iter(build.loadouts), None))
    judged = [a for a in first.answers if a.probability is not None]
    return Truth(
        parts=tuple(
            TrueMass(part.id, mass.mass_g, mass.sd_g, masses[part.id])
            for part, mass in zip(build.parts, assessment.parts, strict=True)
            if part.id in masses
        ),
        wrong=tuple(wrong),
        auw_g=first.answers[0].value or 0.0,
        auw_sd_g=first.answers[0].sd or 0.0,
        auw_true_g=sum(
            masses.get(part.id, 0.0)
            for part, flies in zip(build.parts, aboard, strict=True)
            if flies
        ),
        weighed=sum(1 for each in build.weighings if not each.id.startswith(PURPOSE)),
        settled=sum(1 for a in judged if not 0.025 < (a.probability or 0.0) < 0.975),
        targets=len(judged),
    )
