"""A build as one immutable value: everything the product tells is a function of it."""

import dataclasses
from dataclasses import dataclass
from typing import Annotated

from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import NO_BALLAST, BalanceCheck, Ballast, PlanMark
from oaken_scale.core.model.body import Body
from oaken_scale.core.model.day import NO_DAY, Day
from oaken_scale.core.model.declared import (
    Id,
    Label,
    Length,
    Moment,
    Name,
    Words,
)
from oaken_scale.core.model.diary import DiaryEntry
from oaken_scale.core.model.field import NO_FIELD, FieldLog
from oaken_scale.core.model.fitting import Bay
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.lot import Known, Lot
from oaken_scale.core.model.named import by_id
from oaken_scale.core.model.part import Habit, Part
from oaken_scale.core.model.power import Power
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.reference_build import ReferenceBuild
from oaken_scale.core.model.surface import Surface
from oaken_scale.core.model.target import Budget, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Container, Scale, Weighing


@dataclass(frozen=True, slots=True)
class Loadout:
    """A way of flying: the options it carries, besides all that is always aboard."""

    id: Id
    name: Name
    carries: Annotated[tuple[Id, ...], Length(limits.PARTS)] = ()


@dataclass(frozen=True, slots=True)
class Build:
    """A whole build.

    ``allowance`` is the share of the rest that the workshop's finished builds had in things nobody
    listed, ``habits`` how their guesses and listings ran; ``reference_build`` the
    earlier build that this one is measured by; ``variant_of`` the build that it is a what-if of.
    """

    id: Id
    name: Name
    purpose: Label = ""
    layout: Label = ""
    notes: Words = ""
    lots: Annotated[tuple[Lot, ...], Length(200)] = ()
    parts: Annotated[tuple[Part, ...], Length(limits.PARTS)] = ()
    surfaces: Annotated[tuple[Surface, ...], Length(20)] = ()
    bodies: Annotated[tuple[Body, ...], Length(20)] = ()
    bays: Annotated[tuple[Bay, ...], Length(20)] = ()
    scales: Annotated[tuple[Scale, ...], Length(20)] = ()
    containers: Annotated[tuple[Container, ...], Length(50)] = ()
    loadouts: Annotated[tuple[Loadout, ...], Length(50)] = ()
    targets: Annotated[tuple[Target, ...], Length(len(TargetKind))] = ()
    thrust: Thrust | None = None
    budget: Budget | None = None
    joints: Annotated[tuple[Joint, ...], Length(limits.ENTRIES)] = ()
    diary: Annotated[tuple[DiaryEntry, ...], Length(limits.ENTRIES)] = ()
    checks: Annotated[tuple[BalanceCheck, ...], Length(limits.ENTRIES)] = ()
    ballast: Ballast = NO_BALLAST
    plan_mark: PlanMark | None = None
    reference_build: ReferenceBuild | None = None
    allowance: Known | None = None
    habits: Annotated[tuple[Habit, ...], Length(2)] = ()
    power: Power | None = None
    field: FieldLog = NO_FIELD
    day: Day = NO_DAY
    finished_at: Moment | None = None
    variant_of: Id | None = None
    weighings: Annotated[tuple[Weighing, ...], Length(limits.WEIGHINGS)] = dataclasses.field(
        default=(), repr=False
    )

    def aboard(self, loadout: Loadout | None) -> tuple[bool, ...]:
        """Say for each part whether it flies with ``loadout`` (None: everything not retired).

        >>> from oaken_scale.core.model.part import Pedigree
        >>> build = Build("b", "B", parts=(
        ...     Part("wing", "Wing", Pedigree.GUESS, stated_g=90.0),
        ...     Part("camera", "Camera", Pedigree.LISTING, stated_g=62.0, option=True)))
        >>> build.aboard(Loadout("light", "Light"))
        (True, False)
        """
        return _aboard(self.parts, loadout)


def loadout_meant(build: Build, id: str | None) -> Loadout | None:
    """The loadout of an id, without one the first; None where the build has none. Raises
    BuildFaultError where there is none such.

    >>> build = Build("b", "B", loadouts=(Loadout("film", "Film"), Loadout("light", "Light")))
    >>> loadout_meant(build, "light").name, loadout_meant(build, None).name
    ('Light', 'Film')
    """
    if id is None:
        return next(iter(build.loadouts), None)
    return by_id(build.loadouts, id, "loadout")


@recalled(keep=32)
def _aboard(parts: tuple[Part, ...], loadout: Loadout | None) -> tuple[bool, ...]:
    return tuple(
        not part.retired and (loadout is None or not part.option or part.id in loadout.carries)
        for part in parts
    )
