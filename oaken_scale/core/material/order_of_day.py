"""The order of the day: steps from parts, joints and checks, what waits for what, what is done
while glue sets, and what can be done in the minutes that are left.

One pair of hands; glue sets by itself. Of what is ready, that is begun first which the longest way
to the end still hangs on (list scheduling by critical path; Graham 1966), unless its builder moved
it. Source: docs/methods.md, section 6.
"""

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from math import exp, log
from typing import Final

from oaken_scale.core.material.joint_clock import ADHESIVES, own_adhesives
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.day import Done, StepKind
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
from oaken_scale.core.model.part import Part, Pedigree

CUT_MIN: Final = (4.0, 0.5)
"""Minutes for an assembly's parts: for each piece, and more for each square decimetre."""

WEIGH_MIN: Final = 0.7
JOIN_MIN: Final = (4.0, 2.0)
"""Minutes to glue: for the joint, and more for each metre or square decimetre."""

COVER_MIN: Final = {LotUnit.M: 1.5, LotUnit.DM2: 1.0, LotUnit.PIECE: 1.0}
"""Minutes for a metre of tape, or a square decimetre of film or paint."""

FIT_MIN: Final = 5.0
STRAIGHT_MIN: Final = 4.0
BALANCE_MIN: Final = 6.0
"""Minutes to lay out and fix a thing, to look along a plane, to balance it by hand."""

PAINT_DRIES_MIN: Final = 60.0
"""[min]."""

BELIEF: Final = 2.0
"""The usual minutes count as so many times that were taken."""

COATING: Final = frozenset({LotKind.PAINT, LotKind.FILM, LotKind.TAPE})


@dataclass(frozen=True, slots=True)
class Step:
    """One step: the parts in it, its minutes of work and of waiting after it, and the steps that
    come before it. ``subject`` is its assembly, its part or its loadout."""

    id: str
    kind: StepKind
    subject: str
    parts: tuple[str, ...]
    usual_min: float
    wait_min: float = 0.0
    needs: tuple[str, ...] = ()
    name: str = ""


@dataclass(frozen=True, slots=True)
class Slot:
    """When a step is done, from now on [min]: ``ready_min`` is when it may be built upon, and
    ``meanwhile`` whether it is done while something sets."""

    step: Step
    minutes: float
    start_min: float
    end_min: float
    ready_min: float
    meanwhile: bool


@dataclass(frozen=True, slots=True)
class Pace:
    """How one kind of step went so far: ``factor`` times the usual minutes, of how many times."""

    kind: StepKind
    factor: float
    times: int


@dataclass(frozen=True, slots=True)
class Sets:
    """A joint that is still setting, and for how long [min]."""

    joint: str
    name: str
    minutes: float


@dataclass(frozen=True, slots=True)
class DayTold:
    """The steps that are left in their order, those that can be done in the minutes at hand, what
    sets, when all is done, how much of that is waiting, and the builder's pace."""

    slots: tuple[Slot, ...]
    now: tuple[Slot, ...]
    setting: tuple[Sets, ...]
    total_min: float
    idle_min: float
    done: tuple[str, ...]
    paces: tuple[Pace, ...]


def steps(build: Build) -> tuple[Step, ...]:
    """The steps that a build still asks for: cut, weigh, join, cover, fit, look along, balance.

    What was on a pan is cut and weighed; a glue that was on a pan or stands on the clock is joined.

    >>> from oaken_scale.core.model.lot import Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, "Wing", uses=(Use("a", 10.0),))
    >>> [(step.id, step.usual_min, step.needs) for step in steps(
    ...     Build("b", "B", lots=(sheet,), parts=(wing,)))][:2]
    [('cut:Wing', 9.0, ()), ('weigh:Wing', 0.7, ('cut:Wing',))]
    """
    done = {each.step for each in build.day.done}
    told = [step for step in _all_steps(build) if step.id not in done]
    left = {step.id for step in told}
    return tuple(replace(step, needs=tuple(id for id in step.needs if id in left)) for step in told)


def _all_steps(build: Build) -> Iterator[Step]:
    lots = {lot.id: lot for lot in build.lots}
    on_pan = _on_a_pan(build)
    clocked = {id for joint in build.joints for id in joint.parts}
    there = [part for part in build.parts if not part.retired and part.host is None]
    assemblies: dict[str, list[Part]] = defaultdict(list)
    for part in there:
        if part.pedigree is not Pedigree.ALLOWANCE:
            assemblies[part.assembly].append(part)
    made: dict[str, list[str]] = defaultdict(list)
    for assembly, parts in assemblies.items():
        for step in _assembly_steps(assembly, parts, lots, on_pan, clocked, build):
            made[assembly].append(step.id)
            yield step
    before = tuple(id for ids in made.values() for id in ids)
    yield Step("straight", StepKind.STRAIGHT, "", (), STRAIGHT_MIN, needs=before)
    checked = {check.loadout for check in build.checks if check.set_aside is None}
    for loadout in build.loadouts or (None,):
        id, name = (loadout.id, loadout.name) if loadout else (None, "")
        if id not in checked:
            needs = (*before, "straight")
            yield Step(f"balance:{id or ''}", StepKind.BALANCE, name, (), BALANCE_MIN, needs=needs)
    for own in build.day.own:
        yield Step(own.id, StepKind.OWN, "", (), own.minutes, name=own.name)


def _on_a_pan(build: Build) -> frozenset[str]:
    readings = (each for each in build.weighings if each.set_aside is None)
    return frozenset(load.part for each in readings for load in each.pan.loads)


def _assembly_steps(
    assembly: str,
    parts: Sequence[Part],
    lots: Mapping[str, Lot],
    on_pan: frozenset[str],
    clocked: Iterable[str],
    build: Build,
) -> Iterator[Step]:
    """Cut and weigh what is new of an assembly, join it, cover it, fit what is bought."""
    kinds = {part.id: _kind_of(part, lots) for part in parts}
    fresh = [part for part in parts if part.id not in on_pan]
    cut = [i for i in fresh if kinds[i.id] is StepKind.CUT and not (i.drawn and i.drawn.is_cut)]
    if cut:
        area = sum(u.amount for i in cut for u in i.uses if lots[u.lot].unit is LotUnit.DM2)
        minutes = CUT_MIN[0] * len(cut) + CUT_MIN[1] * max(area, 0.0)
        yield Step(f"cut:{assembly}", StepKind.CUT, assembly, _ids(cut), minutes)
    weigh = [i for i in fresh if kinds[i.id] in (StepKind.CUT, StepKind.FIT)]
    if weigh:
        needs = (f"cut:{assembly}",) if cut else ()
        minutes = round(WEIGH_MIN * len(weigh), 1)
        yield Step(f"weigh:{assembly}", StepKind.WEIGH, assembly, _ids(weigh), minutes, needs=needs)
    before = tuple(f"{kind}:{assembly}" for kind in ("cut", "weigh"))
    open_joints = [i for i in fresh if kinds[i.id] is StepKind.JOIN and i.id not in clocked]
    for part in open_joints:
        amount = sum(max(use.amount, 0.0) for use in part.uses)
        yield Step(
            f"join:{part.id}",
            StepKind.JOIN,
            part.name,
            (part.id,),
            JOIN_MIN[0] + JOIN_MIN[1] * amount,
            _sets_min(part, lots, build),
            before,
        )
    joined = (*before, *(f"join:{part.id}" for part in open_joints))
    for part in fresh:
        if kinds[part.id] is StepKind.COVER:
            lot = lots[part.uses[0].lot] if part.uses else None
            rate = COVER_MIN[lot.unit] if lot else 1.0
            minutes = 2.0 + rate * sum(max(use.amount, 0.0) for use in part.uses)
            dries = PAINT_DRIES_MIN if lot and lot.kind is LotKind.PAINT else 0.0
            yield Step(
                f"cover:{part.id}", StepKind.COVER, part.name, (part.id,), minutes, dries, joined
            )
    fitted = [i for i in parts if kinds[i.id] is StepKind.FIT and i.station is None]
    if fitted:
        minutes = FIT_MIN * len(fitted)
        yield Step(f"fit:{assembly}", StepKind.FIT, assembly, _ids(fitted), minutes, needs=joined)


def _ids(parts: Sequence[Part]) -> tuple[str, ...]:
    return tuple(part.id for part in parts)


def _kind_of(part: Part, lots: Mapping[str, Lot]) -> StepKind:
    """What is done with a part, by what it is made of and how its mass is known."""
    kinds = {lots[use.lot].kind for use in part.uses}
    if LotKind.ADHESIVE in kinds:
        return StepKind.JOIN
    if kinds & COATING:
        return StepKind.COVER
    if kinds:
        return StepKind.CUT
    by_pedigree = {Pedigree.JOINT: StepKind.JOIN, Pedigree.COVERING: StepKind.COVER}
    return by_pedigree.get(part.pedigree, StepKind.FIT)


def _sets_min(part: Part, lots: Mapping[str, Lot], build: Build) -> float:
    """How long a joint sets until it may be handled [min]: its glue's own time, or the usual."""
    for use in part.uses:
        lot = lots[use.lot]
        glue = next((each for each in own_adhesives(build) if each.id == lot.id), None)
        glue = glue or next((each for each in ADHESIVES if each.id == lot.adhesive), None)
        if glue is not None:
            return glue.handle_after_s / 60
    return ADHESIVES[0].handle_after_s / 60


def paces(done: Iterable[Done]) -> tuple[Pace, ...]:
    """How long each kind of step took beside what is usual, of the times that were taken: the mean
    of ``ln(taken/usual)``, the usual counted as two times.

    >>> from datetime import UTC
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> told = paces([Done("cut:a", StepKind.CUT, at, 20.0, 10.0)] * 2)
    >>> told[0].kind.value, round(told[0].factor, 3), told[0].times
    ('cut', 1.414, 2)
    """
    logs: dict[StepKind, list[float]] = defaultdict(list)
    for each in done:
        if each.minutes and each.usual_min:
            logs[each.kind].append(log(each.minutes / each.usual_min))
    return tuple(
        Pace(kind, exp(sum(logs[kind]) / (len(logs[kind]) + BELIEF)), len(logs[kind]))
        for kind in StepKind
        if kind in logs
    )


def order_of_day(
    build: Build, now: datetime, minutes: float | None = None, earlier: Iterable[Done] = ()
) -> DayTold:
    """The order of the day from now on, and what can be done in so many ``minutes``; ``earlier``
    are steps of other builds that were timed.

    Raises BuildFaultError where the builder's own steps have no time.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.part import Pedigree
    >>> motor = Part("m", "Motor", Pedigree.GUESS, "Nose", stated_g=50.0)
    >>> told = order_of_day(Build("b", "B", parts=(motor,)), datetime(2026, 3, 7, tzinfo=UTC), 6.0)
    >>> [slot.step.id for slot in told.slots], [slot.step.id for slot in told.now]
    (['weigh:Nose', 'fit:Nose', 'straight', 'balance:'], ['weigh:Nose', 'fit:Nose'])
    """
    left = steps(build)
    told = paces((*earlier, *build.day.done))
    factor = {pace.kind: pace.factor for pace in told}
    takes = {step.id: step.usual_min * factor.get(step.kind, 1.0) for step in left}
    setting = tuple(_setting(build, now))
    held = _held(left, build, setting)
    ranked = in_order(left, takes, build.day.order)
    slots = tuple(_schedule(ranked, takes, held))
    end = max((slot.ready_min for slot in slots), default=0.0)
    busy = sum(slot.minutes for slot in slots)
    last = max((slot.end_min for slot in slots), default=0.0)
    short = () if minutes is None else tuple(_schedule(ranked, takes, held, minutes))
    return DayTold(
        slots,
        short,
        setting,
        end,
        max(last - busy, 0.0),
        tuple(each.step for each in build.day.done),
        told,
    )


def _setting(build: Build, now: datetime) -> Iterator[Sets]:
    for joint in build.joints:
        until = joint.spread_at + timedelta(seconds=joint.handle_after_s)
        if not joint.cleared and until > now:
            yield Sets(joint.id, joint.name, (until - now).total_seconds() / 60)


def _held(left: Sequence[Step], build: Build, setting: Sequence[Sets]) -> dict[str, float]:
    """Until when each step's parts are held by a joint that sets [min]."""
    until = {each.joint: each.minutes for each in setting}
    of_part: dict[str, float] = {}
    for joint in build.joints:
        for part in joint.parts:
            of_part[part] = max(of_part.get(part, 0.0), until.get(joint.id, 0.0))
    return {
        step.id: max((of_part.get(part, 0.0) for part in step.parts), default=0.0) for step in left
    }


def in_order(
    left: Sequence[Step], takes: Mapping[str, float], wanted: Sequence[str] = ()
) -> list[Step]:
    """Steps as they are to be begun: as their builder wants them and what those need before, the
    others by the longest way to the end that hangs on each, work and waiting.

    >>> cut = Step("cut", StepKind.CUT, "", (), 9.0)
    >>> join = Step("join", StepKind.JOIN, "", (), 4.0, wait_min=60.0)
    >>> [step.id for step in in_order([cut, join], {"cut": 9.0, "join": 4.0})]  # it sets meanwhile
    ['join', 'cut']
    """
    after: dict[str, list[str]] = defaultdict(list)
    by_id = {step.id: step for step in left}
    for step in left:
        for need in step.needs:
            after[need].append(step.id)
    longest: dict[str, float] = {}

    def way(id: str) -> float:
        if id not in longest:
            rest = max((way(other) for other in after[id]), default=0.0)
            longest[id] = takes[id] + by_id[id].wait_min + rest
        return longest[id]

    place = {id: k for k, id in enumerate(wanted) if id in by_id}
    for id in list(place):
        _ahead(by_id, id, place)
    stands = {step.id: k for k, step in enumerate(left)}
    return sorted(
        left,
        key=lambda s: (place.get(s.id, len(wanted)), -way(s.id), stands[s.id]),
    )


def _ahead(by_id: Mapping[str, Step], id: str, place: dict[str, int]) -> None:
    """What a step needs comes no later than the step itself."""
    for need in by_id[id].needs:
        if place.get(need, place[id] + 1) > place[id]:
            place[need] = place[id]
            _ahead(by_id, need, place)


def _schedule(
    ranked: Sequence[Step],
    takes: Mapping[str, float],
    held: Mapping[str, float],
    within: float | None = None,
) -> Iterator[Slot]:
    """One pair of hands: of the steps that are ready the first is done; where none is, one waits.
    ``within`` so many minutes only what comes to an end in them."""
    waiting, ready, clock = list(ranked), dict[str, float](), 0.0
    while waiting:
        free = [
            (max([held[step.id], *(ready[id] for id in step.needs)]), step)
            for step in waiting
            if all(id in ready for id in step.needs)
        ]
        if not free:
            return
        at = max(clock, min(start for start, _ in free))
        fits = [
            step
            for start, step in free
            if start <= at and (within is None or at + takes[step.id] <= within)
        ]
        if not fits:
            later = sorted({start for start, _ in free if start > at})
            if not later or (within is not None and later[0] > within):
                return
            clock = later[0]
            continue
        step = fits[0]
        end = at + takes[step.id]
        meanwhile = any(until > at for until in (*ready.values(), *held.values()))
        waiting.remove(step)
        ready[step.id], clock = end + step.wait_min, end
        yield Slot(step, takes[step.id], at, end, end + step.wait_min, meanwhile)


def step_done(build: Build, step_id: str, at: datetime, minutes: float | None) -> Build:
    """The build with a step done, in so many minutes where somebody looked at the clock.

    Raises BuildFaultError where the build asks for no such step.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.part import Pedigree
    >>> motor = Part("m", "Motor", Pedigree.GUESS, stated_g=50.0)
    >>> build = Build("b", "B", parts=(motor,))
    >>> done = step_done(build, "straight", datetime(2026, 3, 7, tzinfo=UTC), 6.0)
    >>> [(each.step, each.minutes) for each in done.day.done]
    [('straight', 6.0)]
    """
    step = next((each for each in steps(build) if each.id == step_id), None)
    if step is None:
        words = f'no step "{step_id}" is left to do; look at the order again'
        raise BuildFaultError([Fault("step", words)])
    done = Done(step.id, step.kind, at, minutes, step.usual_min)
    return replace(build, day=replace(build.day, done=(*build.day.done, done)))


def step_undone(build: Build, step_id: str) -> Build:
    """The build with a step to be done again. Raises BuildFaultError where it was not done.

    >>> from datetime import UTC
    >>> build = step_done(Build("b", "B"), "straight", datetime(2026, 3, 7, tzinfo=UTC), 6.0)
    >>> step_undone(build, "straight").day.done
    ()
    """
    kept = tuple(each for each in build.day.done if each.step != step_id)
    if len(kept) == len(build.day.done):
        raise BuildFaultError([Fault("step", f'"{step_id}" was not done')])
    return replace(build, day=replace(build.day, done=kept))
