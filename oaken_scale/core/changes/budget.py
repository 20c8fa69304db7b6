"""What each group of parts may weigh: one figure after the other as it is typed, the usual shares
of the limit, or as an earlier build came out."""

from dataclasses import replace

from oaken_scale.core.flight.budget import BudgetLine, budget_of, preset_budget
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Group
from oaken_scale.core.model.target import Allotment, Budget

OWN = "your own"
"""Where a budget comes from that was typed from its first figure on."""


def with_allotment(build: Build, group: Group, grams: float | None) -> Build:
    """The build with so much allotted to a group [g]; None for nothing. A budget without any figure
    is none; one that came from elsewhere says so still.

    >>> told = with_allotment(Build("b", "B"), Group.POWER, 120.0)
    >>> told.budget.allotments, told.budget.source
    ((Allotment(group=<Group.POWER: 'power'>, grams=120.0),), 'your own')
    >>> with_allotment(told, Group.POWER, None).budget is None
    True
    """
    old = build.budget or Budget((), OWN)
    allotted = {each.group: each for each in old.allotments if each.group is not group}
    if grams is not None:
        allotted[group] = Allotment(group, grams)
    allotments = tuple(allotted[each] for each in Group if each in allotted)
    return replace(build, budget=replace(old, allotments=allotments) if allotments else None)


def with_usual_shares(build: Build) -> Build:
    """The build with the usual shares of its weight limit, for its purpose.

    Raises BuildFaultError where there is no purpose or no limit to share out.

    >>> from oaken_scale.core.model.target import Target, TargetKind
    >>> limit = (Target(TargetKind.AUW, high=500.0),)
    >>> told = with_usual_shares(Build("b", "B", purpose="trainer", targets=limit))
    >>> sum(each.grams for each in told.budget.allotments)
    500.0
    """
    return replace(build, budget=preset_budget(build))


def with_budget_of(build: Build, lines: tuple[BudgetLine, ...], name: str) -> Build:
    """The build with what an earlier build came to as its budget, by that one's name.

    >>> lines = (BudgetLine(Group.FOAM, 204.0, 6.0, None, None, None, None),)
    >>> with_budget_of(Build("b", "B"), lines, "Sandpiper").budget.source
    'as Sandpiper came out'
    """
    return replace(build, budget=budget_of(lines, name))
