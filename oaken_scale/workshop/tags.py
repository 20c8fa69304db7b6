"""What the tag of a build on the shelf says: kept with the build, so that a long shelf opens at
once."""

import hashlib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from importlib.resources.abc import Traversable
from typing import Final

from pydantic import TypeAdapter, ValidationError

from oaken_scale.core.assess import Outline
from oaken_scale.core.flight.verdict import Word
from oaken_scale.workshop.held import Held


@dataclass(frozen=True, slots=True)
class Tag:
    """What a tag says: masses [g], the worst verdict, how much of the work is done (0 to 1), and
    the plane from above."""

    name: str
    purpose: str
    layout: str
    readings: int
    auw_g: float
    auw_sd_g: float
    worst: Word | None
    progress: float
    outlines: tuple[Outline, ...]


TAG: Final = TypeAdapter(Tag)


def tag_of(held: Held) -> Tag:
    """The tag of a build as it is held."""
    build, told = held.build, held.assessment
    first = told.loadouts[0]
    return Tag(
        build.name,
        build.purpose,
        build.layout,
        len(build.weighings),
        first.answers[0].value or 0.0,
        first.answers[0].sd or 0.0,
        first.worst,
        (told.progress.plan + told.progress.bench) / 2,
        told.outlines,
    )


def written(tag: Tag) -> str:
    """A tag as it is kept."""
    return TAG.dump_json(tag).decode()


def read(says: str) -> Tag | None:
    """A tag that was kept; None where it cannot be read, and has to be worked out anew."""
    try:
        return TAG.validate_json(says)
    except ValidationError:
        return None


@cache
def reckoning() -> str:
    """The way in which tags are worked out, as a digest of the rules: what another version worked
    out does not hold for this one."""
    digest = hashlib.sha256()
    for source in _sources(files("oaken_scale.core")):
        digest.update(source)
    return digest.hexdigest()[:16]


def _sources(folder: Traversable) -> list[bytes]:
    found = []
    for each in sorted(folder.iterdir(), key=lambda one: one.name):
        if each.is_dir():
            found += _sources(each)
        elif each.name.endswith(".py"):
            found.append(each.read_bytes())
    return found
