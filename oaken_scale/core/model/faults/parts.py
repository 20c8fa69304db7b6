"""What is wrong with parts, what they are made of, and what was done to them."""

from collections.abc import Iterator

from oaken_scale.core.model.amount import grams, mm
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault, twice, unknown
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.part import HABITUAL, Part, Pedigree
from oaken_scale.core.model.pattern import is_sound


def habit_faults(build: Build) -> Iterator[Fault]:
    """Habits of a pedigree that has none: only guesses and listings run light or heavy.

    >>> from oaken_scale.core.model.part import Habit
    >>> odd = Build("b", "B", habits=(Habit(Pedigree.JOINT, 1.0, 0.1, 1.0, 3),))
    >>> next(habit_faults(odd)).field
    'habits.0.pedigree'
    """
    for k, habit in enumerate(build.habits):
        if habit.pedigree not in HABITUAL:
            words = f'is "{habit.pedigree}"; only {" and ".join(HABITUAL)} run heavy or light'
            yield Fault(f"habits.{k}.pedigree", words)


def curing_faults(k: int, lot: Lot) -> Iterator[Fault]:
    """An adhesive's times follow one another.

    >>> from oaken_scale.core.model.lot import Curing, LotKind, LotUnit
    >>> glue = Lot("g", "G", LotUnit.M, 1.5, 0.5, kind=LotKind.ADHESIVE,
    ...     curing=Curing(0, 1800, 900, 600))
    >>> [fault.field for fault in curing_faults(0, glue)]
    ['lots.0.curing.strong_after_s']
    """
    curing = lot.curing
    if curing is None:
        return
    path = f"lots.{k}.curing"
    if curing.close_by_s is not None and curing.close_by_s < curing.close_after_s:
        yield Fault(f"{path}.close_by_s", "is before it may be closed; it should be later")
    if curing.handle_after_s < curing.close_after_s:
        yield Fault(f"{path}.handle_after_s", "is before it may be closed; it should be later")
    if curing.strong_after_s < curing.handle_after_s:
        yield Fault(f"{path}.strong_after_s", "is before it may be handled; it should be later")


def lot_faults(build: Build) -> Iterator[Fault]:
    """A build takes a lot of the rack once.

    >>> from oaken_scale.core.model.lot import LotUnit
    >>> taken = [Lot(id, "A", LotUnit.DM2, 4.6, 0.4, rack="board") for id in ("a", "b")]
    >>> [fault.field for fault in lot_faults(Build("b", "B", lots=tuple(taken)))]
    ['lots.1.rack']
    """
    yield from (
        Fault(f"lots.{k}.rack", "is in this build already; use the lot that is there")
        for k, lot in enumerate(build.lots)
        if lot.rack is not None and lot.rack in {each.rack for each in build.lots[:k]}
    )


def budget_faults(build: Build) -> Iterator[Fault]:
    """A budget allots grams to each group once.

    >>> from oaken_scale.core.model.part import Group
    >>> from oaken_scale.core.model.target import Allotment, Budget
    >>> twice_foam = Budget((Allotment(Group.FOAM, 200.0), Allotment(Group.FOAM, 220.0)))
    >>> [fault.field for fault in budget_faults(Build("b", "B", budget=twice_foam))]
    ['budget.allotments.1']
    """
    groups = [each.group for each in build.budget.allotments] if build.budget else []
    yield from twice("budget.allotments", [str(group) for group in groups])


def part_faults(build: Build) -> Iterator[Fault]:
    """Parts made of lots that are not there, without a figure, with a pattern that crosses itself,
    and a second allowance.

    >>> from oaken_scale.core.model.lot import Use
    >>> tail = Part("tail", "Tail", Pedigree.CALCULATED, uses=(Use("sheet-b", 5.0),))
    >>> next(part_faults(Build("b", "B", parts=(tail,)))).field
    'parts.0.uses.0.lot'
    """
    lots = [lot.id for lot in build.lots]
    allowances = 0
    for i, part in enumerate(build.parts):
        for k, use in enumerate(part.uses):
            if use.lot not in lots:
                yield Fault(f"parts.{i}.uses.{k}.lot", unknown("lot", use.lot, lots))
        yield from figure_faults(i, part)
        if part.pattern is not None and not is_sound(part.pattern):
            words = (
                "its sides cross, or a hole reaches out of it; give the corners in order around "
                "the part, and holes inside it"
            )
            yield Fault(f"parts.{i}.pattern", words)
        if part.pedigree is Pedigree.ALLOWANCE and not part.retired:
            allowances += 1
            if allowances > 1:
                yield Fault(f"parts.{i}.pedigree", "a build has one allowance; edit the first")


def figure_faults(i: int, part: Part) -> Iterator[Fault]:
    """A part needs a figure, except the allowance, which has a rule of its own.

    >>> next(figure_faults(0, Part("fin", "Fin", Pedigree.GUESS))).field
    'parts.0.stated_g'
    """
    if part.stated_g is None and not part.uses and part.pedigree is not Pedigree.ALLOWANCE:
        yield Fault(f"parts.{i}.stated_g", "give a mass, or how much of a lot it is made of")


def life_faults(build: Build) -> Iterator[Fault]:
    """What was done to a part names a part; what is taken off has something to be taken off.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> off = Part("off", "Off the nose", Pedigree.GUESS, stated_g=-3.0)
    >>> next(life_faults(Build("b", "B", parts=(off,)))).words
    'is -3 g; it should be at least 0 g, unless it was taken off a host'
    """
    hosts = {part.id: part.host for part in build.parts}
    for i, part in enumerate(build.parts):
        if part.stated_g is not None and part.stated_g < 0 and part.host is None:
            yield Fault(
                f"parts.{i}.stated_g",
                "is {}; it should be at least {}, unless it was taken off a host",
                (grams(part.stated_g), grams(0)),
            )
        if part.host is not None:
            if part.host not in hosts:
                yield Fault(f"parts.{i}.host", unknown("part", part.host, list(hosts)))
            elif part.host == part.id or hosts[part.host] is not None:
                words = "a part is done to a part that stands by itself; name that one"
                yield Fault(f"parts.{i}.host", words)
        if part.slide is not None and part.slide.low_mm >= part.slide.high_mm:
            words = "{} is not below {}; it slides from the smaller on"
            facts = (mm(part.slide.low_mm), mm(part.slide.high_mm))
            yield Fault(f"parts.{i}.slide.low_mm", words, facts)
    for k, each in enumerate(build.diary):
        for j, id in enumerate(each.parts):
            if id not in hosts:
                yield Fault(f"diary.{k}.parts.{j}", unknown("part", id, list(hosts)))
