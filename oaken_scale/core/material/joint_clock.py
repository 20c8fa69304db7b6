"""The joint clock: when a joint may be closed, when it may be handled, when it is strong.

Glue time sets the order of the day: while one joint sets, something else is weighed or cut.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Final

from oaken_scale.core.flight.weigh_next import Suggestion
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import LotKind
from oaken_scale.core.model.part import ALL_OVER

MINUTE: Final = 60.0
HOUR: Final = 3600.0
"""[s]."""


class JointStage(StrEnum):
    """What a joint comes to, in its order."""

    CLOSE = "close"
    CLOSE_BY = "close by"
    HANDLE = "handle"
    STRONG = "strong"


class Caution(StrEnum):
    """What to mind with a glue: the nozzle and the glue burn; gloves and air; it grips at once, air
    and no flame; keep it from eyes and skin, air; it foams, gloves."""

    BURNS = "burns"
    GLOVES_AND_AIR = "gloves and air"
    ONE_TRY_NO_FLAME = "one try, no flame"
    EYES_AND_SKIN = "eyes and skin"
    FOAMS = "foams"


@dataclass(frozen=True, slots=True)
class Adhesive:
    """A kind of adhesive and its usual times after spreading [s]; the maker's label rules.

    It may be closed from ``close_after_s`` on and must be by ``close_by_s`` (None: no hurry).
    """

    id: str
    name: str
    close_after_s: float
    close_by_s: float | None
    handle_after_s: float
    strong_after_s: float
    caution: Caution | None


ADHESIVES: Final = (
    Adhesive("hot-melt", "Hot-melt glue", 0, 20, MINUTE, 5 * MINUTE, Caution.BURNS),
    Adhesive(
        "epoxy", "Five-minute epoxy", 0, 4 * MINUTE, 20 * MINUTE, 24 * HOUR, Caution.GLOVES_AND_AIR
    ),
    Adhesive(
        "contact",
        "Foam-safe contact adhesive",
        15 * MINUTE,
        HOUR,
        16 * MINUTE,
        24 * HOUR,
        Caution.ONE_TRY_NO_FLAME,
    ),
    Adhesive(
        "cyanoacrylate", "Foam-safe cyanoacrylate", 0, 15, MINUTE, 8 * HOUR, Caution.EYES_AND_SKIN
    ),
    Adhesive(
        "polyurethane", "Polyurethane glue", 0, 15 * MINUTE, 4 * HOUR, 24 * HOUR, Caution.FOAMS
    ),
    Adhesive("white", "White glue", 0, 10 * MINUTE, 2 * HOUR, 24 * HOUR, None),
)
"""Habits of the workshop, every one editable for each joint (docs/methods.md, section 6)."""


@dataclass(frozen=True, slots=True)
class Moment:
    """When a joint comes to a stage."""

    stage: JointStage
    at: datetime


@dataclass(frozen=True, slots=True)
class JointTimes:
    """A joint on the clock: all its moments in order, whatever time it is."""

    id: str
    name: str
    adhesive: str
    caution: Caution | None
    moments: tuple[Moment, ...]


def own_adhesives(build: Build) -> tuple[Adhesive, ...]:
    """A build's own glues: adhesives among its lots whose times are theirs, under the lots' ids.

    >>> from oaken_scale.core.model.lot import Curing, Lot, LotKind, LotUnit
    >>> slow = Lot("slow", "Slow epoxy", LotUnit.M, 1.5, 0.5, kind=LotKind.ADHESIVE,
    ...     adhesive="epoxy", curing=Curing(0, 1800, 14400, 86400))
    >>> [(each.id, each.handle_after_s, each.caution.value) for each in own_adhesives(
    ...     Build("b", "B", lots=(slow,)))]
    [('slow', 14400, 'gloves and air')]
    """
    cautions = {each.id: each.caution for each in ADHESIVES}
    return tuple(
        Adhesive(
            lot.id,
            lot.name,
            lot.curing.close_after_s,
            lot.curing.close_by_s,
            lot.curing.handle_after_s,
            lot.curing.strong_after_s,
            cautions.get(lot.adhesive),
        )
        for lot in build.lots
        if lot.kind is LotKind.ADHESIVE and lot.curing is not None
    )


def adhesive(id: str, own: Sequence[Adhesive] = ()) -> Adhesive:
    """The adhesive of an id, among a build's ``own`` too. Raises BuildFaultError when there is
    none.

    >>> adhesive("epoxy").handle_after_s
    1200.0
    """
    found = next((each for each in (*own, *ADHESIVES) if each.id == id), None)
    if found is None:
        known = ", ".join(each.id for each in (*own, *ADHESIVES))
        raise BuildFaultError([Fault("adhesive", f'is "{id}"; it should be one of {known}')])
    return found


def moments(joint: Joint) -> tuple[Moment, ...]:
    """The moments that a joint comes to, counted from when it was spread.

    What may be closed at once has no moment for it, and what has no hurry none to be closed by.

    >>> from datetime import UTC
    >>> spread = datetime(2026, 3, 7, 14, 0, tzinfo=UTC)
    >>> joint = Joint("j", "Spar", "contact", spread, 900, 3600, 960, 86400)
    >>> [f"{moment.stage} {moment.at:%H:%M}" for moment in moments(joint)]
    ['close 14:15', 'handle 14:16', 'close by 15:00', 'strong 14:00']
    """
    stages = (
        (JointStage.CLOSE, joint.close_after_s or None),
        (JointStage.CLOSE_BY, joint.close_by_s),
        (JointStage.HANDLE, joint.handle_after_s),
        (JointStage.STRONG, joint.strong_after_s),
    )
    told = [
        Moment(stage, joint.spread_at + timedelta(seconds=after))
        for stage, after in stages
        if after is not None
    ]
    return tuple(sorted(told, key=lambda moment: moment.at))


def joint_times(build: Build) -> tuple[JointTimes, ...]:
    """The joints on a build's clock, oldest first; those cleared are left out.

    An adhesive that is none of ours goes by its id.

    >>> from datetime import UTC
    >>> spread = datetime(2026, 3, 7, 14, 0, tzinfo=UTC)
    >>> joint = Joint("j", "Spar", "contact", spread, 900, 3600, 960, 86400)
    >>> (told,) = joint_times(Build("b", "B", joints=(joint,)))
    >>> [(told.adhesive, told.caution.value)]
    [('Foam-safe contact adhesive', 'one try, no flame')]
    """
    known = {each.id: each for each in (*ADHESIVES, *own_adhesives(build))}
    told = []
    for joint in build.joints:
        if not joint.cleared:
            glue = known.get(joint.adhesive)
            name, caution = (glue.name, glue.caution) if glue else (joint.adhesive, None)
            told.append(JointTimes(joint.id, joint.name, name, caution, moments(joint)))
    return tuple(told)


def setting(build: Build, now: datetime) -> frozenset[str]:
    """The parts that may not be handled yet: they are in a joint that is still setting.

    >>> from datetime import UTC
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> joint = Joint("j", "J", "epoxy", noon, 0, 300.0, 3600, 86400, ("left", "right"))
    >>> build = Build("b", "B", joints=(joint,))
    >>> sorted(setting(build, noon)), sorted(setting(build, noon + timedelta(hours=2)))
    (['left', 'right'], [])
    """
    return frozenset(
        part
        for joint in build.joints
        if not joint.cleared and now < joint.spread_at + timedelta(seconds=joint.handle_after_s)
        for part in joint.parts
    )


@dataclass(frozen=True, slots=True)
class Free:
    """What can be weighed while joints set: the ``suggestions`` that hold nothing which sets, the
    most telling first, and then ``parts`` that no pan has felt yet."""

    suggestions: tuple[Suggestion, ...]
    parts: tuple[str, ...]


def meanwhile(
    build: Build, suggestions: tuple[Suggestion, ...], now: datetime, most: int = 3
) -> Free:
    """What can be weighed while joints set, at ``most`` so many things of it.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> plane = Build("b", "B", parts=(Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0),))
    >>> meanwhile(plane, (), datetime(2026, 3, 7)).parts
    ('fin',)
    """
    held = setting(build, now)
    free = [each for each in suggestions if held.isdisjoint((each.part, *each.parts))]
    told = {each.part for each in free}
    felt = {load.part for weighing in build.weighings for load in weighing.pan.loads}
    parts = [
        part.id
        for part in build.parts
        if not part.retired
        and part.pedigree not in ALL_OVER
        and part.id not in felt
        and part.id not in held
        and part.id not in told
    ]
    return Free(tuple(free[:most]), tuple(parts[: max(most - len(free), 0)]))
