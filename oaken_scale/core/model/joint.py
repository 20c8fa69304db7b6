"""A joint that was glued, and its times."""

from dataclasses import dataclass
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.declared import (
    CloseBy,
    Id,
    JointTime,
    Length,
    Moment,
    Name,
)


@dataclass(frozen=True, slots=True)
class Joint:
    """A joint on the clock: when it was spread, its times from then [s], and the parts in it."""

    id: Id
    name: Name
    adhesive: Id
    spread_at: Moment
    close_after_s: JointTime
    close_by_s: CloseBy | None
    handle_after_s: JointTime
    strong_after_s: JointTime
    parts: Annotated[tuple[Id, ...], Length(limits.PARTS)] = ()
    cleared: bool = False
