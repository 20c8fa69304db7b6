"""What is said on the printed sheet: figures in the chosen units, verdicts, checks and days."""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Final

from oaken_scale.core.flight.verdict import Answer, Missing, Word
from oaken_scale.core.model.balancing import CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.as_it_stood import ChangeKind
from oaken_scale.core.trim.checks import CheckTold
from oaken_scale.core.trim.unchecked import Since
from oaken_scale.core.trim.unplaced import Unplaced
from oaken_scale.paper.shown import Measure, Shown, rounded


def in_sentence(name: str) -> str:
    """A name inside a sentence: it begins small, but for a letter that stands alone.

    >>> in_sentence("Twin motors"), in_sentence("V-tail")
    ('twin motors', 'V-tail')
    """
    return name[:1].lower() + name[1:] if name[1:2].isalpha() else name


@dataclass(frozen=True, slots=True)
class Printed:
    """A metric as it is printed: its title and what its figures are printed in."""

    title: str
    measure: Callable[[Shown], Measure]


PRINTED: Final = {
    TargetKind.AUW: Printed("All-up weight", lambda shown: shown.masses),
    TargetKind.WING_LOADING: Printed("Wing loading", lambda shown: shown.loadings),
    TargetKind.THRUST_TO_WEIGHT: Printed("Thrust-to-weight", lambda shown: Measure("", 1.0, 2)),
    TargetKind.POWER_LOADING: Printed("Power loading", lambda shown: Measure("W/kg", 1.0, 0)),
    TargetKind.BALANCE: Printed("Balance", lambda shown: Measure("%\u00a0MAC", 1.0, 1)),
}


TO_TELL: Final = {
    Missing.PARTS: "add the parts on the Plan",
    Missing.WING: "draw the wing on the Plan",
    Missing.STATIONS: "give the parts their stations on the Plan",
    Missing.THRUST: "say its drive in Power, or its thrust on the Plan",
    Missing.DRIVE: "list the drive in Power",
    Missing.DRIVEN: "say its pack and propeller in Power",
    Missing.PACK: "say its pack in Power",
    Missing.PACK_ABOARD: "none of the drive's packs is aboard; say in Power which part is which",
    Missing.PROPELLER: "say its propeller in Power",
    Missing.MOTOR: "thrown: it has no motor",
}


BALANCE_BY_LENGTH: Final = Printed("Balance", lambda shown: shown.lengths)


HOW_CHECKED: Final = {
    CheckKind.SUPPORT: "level on",
    CheckKind.SUPPORTS: "two supports",
    CheckKind.SIDES: "left and right",
    CheckKind.HANG: "hung",
}


_BECAME: Final = {
    ChangeKind.ADDED: "added",
    ChangeKind.TAKEN_OFF: "taken off",
    ChangeKind.MOVED: "moved",
}


def done_since(since: Since, build: Build) -> str:
    """What was done to a plane after its balance was checked: in its builder's words, or by what
    sits otherwise."""
    if not since.changed:
        return since.words
    names = {part.id: part.name for part in build.parts}
    first, *others = since.changed
    more = f", and {len(others)} more" if others else ""
    return f"{names.get(first.part, first.part)} {_BECAME[first.kind]}{more}"


def without_place(told: Unplaced, build: Build) -> str:
    """Who has no place yet: at most three by their names."""
    names = [part.name for part in build.parts if part.id in told.parts]
    more = f" and {len(names) - 3} more" if len(names) > 3 else ""
    return f"Without a place yet, counted where the rest balances: {'; '.join(names[:3])}{more}."


def checked(check: CheckTold, build: Build, shown: Shown) -> str:
    """A balance check by hand: when, how, what was aboard, where it balanced, what the sum says."""
    made = next(each for each in build.checks if each.id == check.id)
    aboard = next((each.name for each in build.loadouts if each.id == check.loadout), "all aboard")
    aboard = check.held_alone or aboard
    gap = check.found_mm - check.sum_mm
    unit = shown.length_unit.value
    ways = ("to the right", "to the left") if check.across else ("aft", "ahead")
    if check.feel is not None:
        agrees = "the sum agrees" if check.agrees else "the sum says otherwise"
    elif check.agrees:
        agrees = "agrees with the sum"
    else:
        agrees = f"{shown.length(abs(gap))} {unit} {ways[gap < 0]} of the sum"
    how = f"{HOW_CHECKED[made.kind]} {made.by}".strip()
    if check.feel is not None:
        how = f"by feel, {check.feel} at {shown.length(made.x_mm)} {unit}"
    found = f"{shown.length(check.found_mm)} ±{shown.length(2 * check.found_sd_mm)} {unit}"
    return f"{day(check.at)}, {how}, {aboard}: {found}, {agrees}."


def figure_of(answer: Answer, value: float, shown: Shown) -> str:
    """A figure of an answer's metric, in the chosen units, as exact as its doubt lets it be."""
    measure = printed(answer).measure(shown)
    return shown.figure(value, measure, measure.exact_to(answer.sd))


def unit_of(answer: Answer, shown: Shown) -> str:
    """Its unit; nothing where it has none."""
    return printed(answer).measure(shown).unit


def printed(answer: Answer) -> Printed:
    """How an answer is printed: a balance by its own unit."""
    is_length = answer.kind is TargetKind.BALANCE and answer.unit != "percent_mac"
    return BALANCE_BY_LENGTH if is_length else PRINTED[answer.kind]


def wanted(answer: Answer, shown: Shown) -> str:
    """The stretch that its target allows."""
    low, high = (
        None if end is None else _end(answer, end, shown) for end in (answer.low, answer.high)
    )
    unit = unit_of(answer, shown)
    if low is not None and high is not None:
        return f"{low} to {high}\u00a0{unit}".strip()
    if high is not None:
        return f"at most {high}\u00a0{unit}".strip()
    return f"at least {low}\u00a0{unit}".strip() if low is not None else "–"


def _end(answer: Answer, end: float, shown: Shown) -> str:
    return shown.stated(end) if answer.kind is TargetKind.AUW else figure_of(answer, end, shown)


def as_now(answer: Answer, shown: Shown) -> str:
    """What it is now, two sigma beside it."""
    if answer.value is None:
        return "–"
    doubt = f" ±{figure_of(answer, 2 * answer.sd, shown)}" if answer.sd is not None else ""
    return f"{figure_of(answer, answer.value, shown)}{doubt}"


def as_sum(answer: Answer, shown: Shown) -> str:
    """What it comes to as a mass, two sigma beside it."""
    if answer.value is None or answer.sd is None:
        return "–"
    digits = shown.masses.exact_to(answer.sd)
    return f"{shown.mass(answer.value, digits)} ±{shown.mass(2 * answer.sd, digits)}"


def verdict(answer: Answer, shown: Shown) -> str:
    """Whether it holds and how likely, or what has to be told first."""
    if answer.missing:
        return TO_TELL[answer.missing]
    if answer.word is None or answer.probability is None:
        return "no target set"
    chance = ""
    if answer.word in (Word.ON_COURSE, Word.OFF_COURSE, Word.TOO_CLOSE):
        chance = f", {percent(answer.probability)}"
    doubted = ""
    if answer.kind is TargetKind.AUW and answer.believing is not None and answer.disbelieving:
        other = f"{figure_of(answer, answer.believing, shown)}\u00a0{unit_of(answer, shown)}"
        doubted = f"; {other} if a doubted reading is right"
    return f"{answer.word.value}{chance}{doubted}"


def percent(probability: float) -> str:
    """A probability, never said surer than it is."""
    if probability > 0.99:
        return "over\u00a099\u00a0%"
    if probability < 0.01:
        return "under\u00a01\u00a0%"
    return f"{rounded(100 * probability, 0)}\u00a0%"


def day(at: datetime) -> str:
    """A day in words."""
    return f"{at.day} {at:%B %Y}"


def counted(many: int, what: str) -> str:
    """So many of something."""
    return f"{many} {what}{'' if many == 1 else 's'}"
