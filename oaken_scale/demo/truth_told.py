"""The truth of a practice bench, beside what was made of its readings."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from oaken_scale.core.assess import Assessment
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Pan
from oaken_scale.demo.practice import PURPOSE, STEP_G

WRONG_STEPS: Final = 20
"""A reading that is off by more steps of the scale than that, and by more than
:data:`WRONG_SHARE`, is no reading of what lay on the pan."""

WRONG_SHARE: Final = 0.01
"""... as a share of what lay there."""

SETTLED: Final = 0.975
"""A verdict is settled from this chance on, for or against."""


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


def truth_told(
    build: Build,
    assessment: Assessment,
    masses: Mapping[str, float],
    constants: Mapping[str, float],
) -> Truth:
    """What is true of a practice bench: the masses of its parts by their ids [g] and the constants
    of its lots, beside the estimate.

    >>> from oaken_scale.core.assess import assess
    >>> from oaken_scale.demo.practice import practice
    >>> made = practice(7)
    >>> told = truth_told(made.build, assess(made.build), made.masses_g, made.constants)
    >>> len(told.wrong), told.weighed, told.targets
    (1, 0, 4)
    """
    first = assessment.loadouts[0]
    aboard = build.aboard(next(iter(build.loadouts), None))
    judged = [each.probability for each in first.answers if each.probability is not None]
    flying = (part.id for part, flies in zip(build.parts, aboard, strict=True) if flies)
    return Truth(
        parts=tuple(
            TrueMass(part.id, mass.mass_g, mass.sd_g, masses[part.id])
            for part, mass in zip(build.parts, assessment.parts, strict=True)
            if part.id in masses
        ),
        wrong=tuple(_wrong(build, masses, constants)),
        auw_g=first.answers[0].value or 0.0,
        auw_sd_g=first.answers[0].sd or 0.0,
        auw_true_g=sum(masses.get(id, 0.0) for id in flying),
        weighed=sum(1 for each in build.weighings if not each.id.startswith(PURPOSE)),
        settled=sum(1 for chance in judged if not 1 - SETTLED < chance < SETTLED),
        targets=len(judged),
    )


def _wrong(
    build: Build, masses: Mapping[str, float], constants: Mapping[str, float]
) -> Iterator[WrongReading]:
    """The readings that are not what lay on the pan, as far as that is known."""
    for each in build.weighings:
        if any(load.part not in masses for load in each.pan.loads):
            continue
        true = _on_the_pan(each.pan, masses, constants)
        if abs(each.reading_g - true) > max(WRONG_STEPS * STEP_G, WRONG_SHARE * true):
            yield WrongReading(each.id, each.reading_g, true, each.set_aside is not None)


def _on_the_pan(pan: Pan, masses: Mapping[str, float], constants: Mapping[str, float]) -> float:
    true = pan.known_g + sum(masses[load.part] * load.count for load in pan.loads)
    return true + sum(constants.get(on.lot, 0.0) * on.amount for on in pan.samples)
