"""The weight budget: grams allotted to foam, joining, power, control and payload, and where each
stands."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.flight.verdict import Word, chance_below, word
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.kind_named import place_in_budget
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import Allotment, Budget, TargetKind
from oaken_scale.core.model.traits import wherever

_OF_LOT: Final[dict[LotKind, Group]] = {
    LotKind.FOAM: Group.FOAM,
    LotKind.ROD: Group.FOAM,
    LotKind.PLYWOOD: Group.FOAM,
    LotKind.WOOD: Group.FOAM,
    LotKind.CARD: Group.FOAM,
    LotKind.TAPE: Group.JOINING,
    LotKind.ADHESIVE: Group.JOINING,
    LotKind.FILM: Group.REST,
    LotKind.PAINT: Group.REST,
}
_OF_PEDIGREE: Final[dict[Pedigree, Group]] = {
    Pedigree.CALCULATED: Group.FOAM,
    Pedigree.JOINT: Group.JOINING,
    Pedigree.COVERING: Group.JOINING,
}

SHARES: Final[dict[str, tuple[float, float, float, float, float, float]]] = {
    "indoor": (0.38, 0.07, 0.30, 0.20, 0.00, 0.05),
    "trainer": (0.40, 0.09, 0.33, 0.12, 0.00, 0.06),
    "park": (0.38, 0.09, 0.35, 0.12, 0.00, 0.06),
    "aerobatic": (0.32, 0.08, 0.42, 0.13, 0.00, 0.05),
    "camera": (0.38, 0.08, 0.32, 0.10, 0.07, 0.05),
    "sailplane": (0.45, 0.10, 0.28, 0.12, 0.00, 0.05),
    "glider": (0.72, 0.14, 0.00, 0.00, 0.00, 0.14),
}
"""Usual shares of all-up weight by purpose: foam, joining, power, control, payload, the rest."""


@dataclass(frozen=True, slots=True)
class BudgetLine:
    """Where one group stands: its mass now [g], one sigma, what it was allotted and what is left of
    that (below 0: over), and the chance that it stays within, in a word too. All but the mass is
    None where nothing was allotted."""

    group: Group
    mass_g: float
    sd_g: float
    allotted_g: float | None
    left_g: float | None
    probability: float | None
    word: Word | None


def group_of(part: Part, lots: dict[str, Lot]) -> Group:
    """Where a part stands in the budget: as its builder says, else as its first lot does.

    What is neither goes to foam or joining by how its mass is known, to what its name says, or to
    the rest.

    >>> group_of(Part("g", "Glue", Pedigree.JOINT, stated_g=3.0), {}).value
    'joining'
    >>> group_of(Part("m", "Motor", Pedigree.LISTING, stated_g=28.0), {}).value
    'power'
    """
    if part.group is not None:
        return part.group
    for use in part.uses:
        lot = lots[use.lot]
        if lot.kind in _OF_LOT:
            return _OF_LOT[lot.kind]
        if lot.unit is LotUnit.DM2 and part.pedigree is Pedigree.CALCULATED:
            return Group.FOAM
    return _OF_PEDIGREE.get(part.pedigree) or place_in_budget(part.name) or Group.REST


@dataclass(frozen=True, slots=True)
class GuessedGroup:
    """A part that nobody sorted, and the group that it counts in until somebody does."""

    part: str
    group: Group


def guessed_groups(build: Build) -> tuple[GuessedGroup, ...]:
    """The parts that only their names sort, into the rest where those say nothing.

    >>> parts = (Part("m", "Motor", Pedigree.LISTING, stated_g=28.0),
    ...          Part("l", "Whatnot", Pedigree.GUESS, stated_g=4.0))
    >>> [(each.part, each.group.value) for each in guessed_groups(Build("b", "B", parts=parts))]
    [('m', 'power'), ('l', 'rest')]
    """
    lots = {lot.id: lot for lot in build.lots}
    return tuple(
        GuessedGroup(part.id, group_of(part, lots))
        for part in build.parts
        if part.group is None
        and part.pedigree in (Pedigree.GUESS, Pedigree.LISTING)
        and not part.retired
        and not part.uses
    )


def budget_lines(build: Build, after: Posterior, aboard: Vector) -> tuple[BudgetLine, ...]:
    """Every group's mass among what is ``aboard`` (N,), against what it was allotted.

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Group, Pedigree
    >>> from oaken_scale.core.model.target import Allotment
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0, group=Group.POWER)
    >>> build = Build("b", "B", parts=(motor,), budget=Budget((Allotment(Group.POWER, 80.0),)))
    >>> (line,) = [each for each in budget_lines(build, solve(build), np.ones(1)) if each.mass_g]
    >>> line.group.value, line.mass_g, line.left_g, line.word.value
    ('power', 60.0, 20.0, 'on course')
    """
    inside = aboard * _in_groups(wherever(build.parts), build.lots)
    allotted = {each.group: each.grams for each in build.budget.allotments} if build.budget else {}
    told = []
    for group, row, (mass, sd) in zip(Group, inside, after.totals(inside), strict=True):
        grams = allotted.get(group)
        if grams is None and not row.any():
            continue
        if grams is None:
            told.append(BudgetLine(group, mass, sd, None, None, None, None))
            continue
        chance = chance_below(grams, mass, sd)
        # A plan of grams is never met or missed for good: what is allotted may be allotted anew.
        judged = word(chance, fully_weighed=False)
        told.append(BudgetLine(group, mass, sd, grams, grams - mass, chance, judged))
    return tuple(told)


@recalled(keep=8)
def _in_groups(parts: tuple[Part, ...], lots: tuple[Lot, ...]) -> Matrix:
    """Which parts are in each group, 0 or 1, shape (G, N)."""
    by_id = {lot.id: lot for lot in lots}
    order = {group: k for k, group in enumerate(Group)}
    inside = np.zeros((len(order), len(parts)))
    for i, part in enumerate(parts):
        inside[order[group_of(part, by_id)], i] = 1.0
    return inside


def preset_budget(build: Build) -> Budget:
    """The usual shares of the build's purpose, of its all-up weight limit.

    Raises BuildFaultError where there is no purpose or no limit to share out.

    >>> from oaken_scale.core.model.target import Target
    >>> limit = (Target(TargetKind.AUW, high=500.0),)
    >>> preset_budget(Build("b", "B", purpose="trainer", targets=limit)).allotments[0].grams
    200.0
    """
    shares = SHARES.get(build.purpose)
    if shares is None:
        words = f'no usual shares for "{build.purpose}"; choose a purpose, or allot grams yourself'
        raise BuildFaultError([Fault("purpose", words)])
    limits = [t.high for t in build.targets if t.kind is TargetKind.AUW and t.high is not None]
    if not limits:
        words = "no all-up weight limit to share out; set one first, or allot grams yourself"
        raise BuildFaultError([Fault("targets", words)])
    allotments = (
        Allotment(group, round(share * limits[0], 1))
        for group, share in zip(Group, shares, strict=True)
        if share > 0
    )
    return Budget(tuple(allotments), "the usual shares of the weight limit for its purpose")


def budget_of(lines: tuple[BudgetLine, ...], name: str) -> Budget:
    """What an earlier build came to, as a budget for the next one.

    >>> from oaken_scale.core.model.part import Group
    >>> lines = (BudgetLine(Group.FOAM, 204.0, 6.0, None, None, None, None),)
    >>> [(each.group.value, each.grams) for each in budget_of(lines, "Sandpiper").allotments]
    [('foam', 204.0)]
    """
    return Budget(
        tuple(Allotment(line.group, round(max(line.mass_g, 0.0), 1)) for line in lines),
        f"as {name} came out",
    )
