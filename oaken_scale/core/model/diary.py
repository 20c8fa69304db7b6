"""What happened to a plane after it was first put together, as the build's own diary keeps it."""

from dataclasses import dataclass
from enum import StrEnum
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import Id, Length, Moment, Words


class DiaryKind(StrEnum):
    """What can happen to a part."""

    REPAIR = "repair"
    REPLACE = "replace"
    TRIM = "trim"
    RETIRE = "retire"
    MOVE = "move"


@dataclass(frozen=True, slots=True)
class DiaryEntry:
    """One thing done to the plane, when, in words, and the parts that it concerns.

    A repair adds glue and patches, a trim takes off, a replacement puts one part in another's
    place, a move takes a part to another build. After any of them the balance counts as not
    checked.
    """

    id: Id
    at: Moment
    kind: DiaryKind
    words: Words
    parts: Annotated[tuple[Id, ...], Length(limits.PARTS)] = ()
