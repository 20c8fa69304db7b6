"""What a reading changed elsewhere: the things that were not alone on the pan."""

from dataclasses import dataclass
from typing import Final

from oaken_scale.core.assess import Assessment
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.weighing import Pan

TOLD: Final = 2
"""At most so many things are told of one reading."""

WORTH_TELLING: Final = 0.5
"""A move counts from this share of the doubt that there was before."""

LEAST_G: Final = 0.5
"""A move of less than this is not told [g]."""


@dataclass(frozen=True, slots=True)
class News:
    """A mass or a lot's constant that a reading moved, and how many parts a lot took along.

    One of ``part`` and ``lot`` is set; ``before`` and ``after`` are g, or g per unit of the lot.
    """

    part: str | None
    lot: str | None
    before: float
    after: float
    made_of_it: int = 0


def news(build: Build, pan: Pan, before: Assessment, after: Assessment) -> tuple[News, ...]:
    """What a reading of ``pan`` moved most, surest first.

    Parts that moved because their lot did are told once, as the lot.

    >>> from oaken_scale.core.assess import assess
    >>> told = assess(Build("b", "B"))
    >>> news(Build("b", "B"), Pan(), told, told)
    ()
    """
    alone = pan.loads[0].part if len(pan.loads) == 1 and not pan.samples else None
    moved: list[tuple[float, News]] = []
    of_moved_lot: set[str] = set()
    for lot, old, new in zip(build.lots, before.lots, after.lots, strict=True):
        strength = abs(new.constant - old.constant) / old.sd if old.sd > 0 else 0.0
        if strength < WORTH_TELLING:
            continue
        cut = [i.id for i in build.parts if any(u.lot == lot.id for u in i.uses)]
        if cut:
            moved.append((strength, News(None, lot.id, old.constant, new.constant, len(cut))))
            of_moved_lot.update(cut)
    for was, now in zip(before.parts, after.parts, strict=True):
        step = abs(now.mass_g - was.mass_g)
        if now.id == alone or now.id in of_moved_lot or was.sd_g <= 0 or step < LEAST_G:
            continue
        if step / was.sd_g >= WORTH_TELLING:
            moved.append((step / was.sd_g, News(now.id, None, was.mass_g, now.mass_g)))
    moved.sort(key=lambda each: -each[0])
    return tuple(each for _, each in moved[:TOLD])
