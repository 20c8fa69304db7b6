"""Ready or not: the list before flight, made from the plane, its loadout and what happened since.

A line that is ticked stays so until something happens that it spoke of: a repair, another pack, a
part that sits elsewhere, a landing that was felt, another day. What the bench answers (weight,
balance, doubtful readings) is no line to tick: it closes and opens with its answer.
"""

import zlib
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum
from typing import Final

from oaken_scale.core.field.controls import drawn_controls
from oaken_scale.core.flight.budget import group_of
from oaken_scale.core.flight.equipment import Equipment, equipment
from oaken_scale.core.flight.verdict import Answer, Word
from oaken_scale.core.model.balancing import Stood
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import Control, ControlKind, Stance, Tick
from oaken_scale.core.model.part import Group, Part
from oaken_scale.core.model.power import Landing
from oaken_scale.core.model.surface import Role
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.trim.as_it_stood import ChangedSince, as_it_stands
from oaken_scale.core.trim.unchecked import Since

OUTING: Final = timedelta(hours=12)
"""What was looked at on the field holds for one outing."""

STILL_MM: Final = 0.5
"""A part that sits nearer to where it sat has not moved [mm]."""

BALLAST: Final = "ballast"


class LineKind(StrEnum):
    """What a line of the list asks for, in the order in which it is asked."""

    DOUBT = "doubt"
    WEIGHT = "weight"
    BALANCE = "balance"
    STRAIGHT = "straight"
    FIXED = "fixed"
    BALLAST = "ballast"
    LEADS = "leads"
    CONTROL = "control"
    CONTROLS = "controls"
    TABS = "tabs"
    OWN = "own"
    PROPELLER = "propeller"
    PACK = "pack"
    RANGE = "range"
    WIND = "wind"
    PEOPLE = "people"
    PLACE = "place"


BY_THE_BENCH: Final = frozenset({LineKind.DOUBT, LineKind.WEIGHT, LineKind.BALANCE})
"""Lines that no tick closes."""

EACH_OUTING: Final = frozenset(
    {
        LineKind.CONTROL,
        LineKind.CONTROLS,
        LineKind.TABS,
        LineKind.PROPELLER,
        LineKind.PACK,
        LineKind.RANGE,
        LineKind.WIND,
        LineKind.PEOPLE,
        LineKind.PLACE,
    }
)
"""Lines that are looked at on every outing."""

OF_THE_LOADOUT: Final = frozenset({LineKind.FIXED, LineKind.BALLAST, LineKind.LEADS, LineKind.PACK})
"""Lines that are ticked for one loadout, not for another."""

AFTER_A_LANDING: Final = frozenset(
    {
        LineKind.STRAIGHT,
        LineKind.FIXED,
        LineKind.BALLAST,
        LineKind.CONTROL,
        LineKind.CONTROLS,
        LineKind.PROPELLER,
    }
)
"""Lines that a hard landing opens."""

AFTER_A_REPAIR: Final = AFTER_A_LANDING - {LineKind.PROPELLER} | {LineKind.TABS}
"""Lines that whatever is done to the plane opens."""


class Why(StrEnum):
    """Why a line is open."""

    NEVER = "never"
    UNTICKED = "unticked"
    OTHER_LOADOUT = "other_loadout"
    HAPPENED = "happened"
    LANDED_HARD = "landed_hard"
    ADDED = "added"
    TAKEN_OFF = "taken_off"
    MOVED = "moved"
    ASKS_OTHERWISE = "asks_otherwise"
    SEEN_NOWHERE = "seen_nowhere"
    ANOTHER_DAY = "another_day"
    VERDICT = "verdict"
    NOT_TOLD = "not_told"
    NO_TARGET = "no_target"
    NOT_CHECKED = "not_checked"
    NOT_CHECKED_SINCE = "not_checked_since"
    DOUBTFUL = "doubtful"


@dataclass(frozen=True, slots=True)
class Reason:
    """Why a line is open: about what (a part, a loadout, a verdict), since when, by how much [mm,
    or how many; of a verdict in its ``unit`` beyond its range, aft or over positive], and the
    builder's own words where there are some, or the parts that sit otherwise since."""

    why: Why
    subject: str = ""
    at: datetime | None = None
    amount: float | None = None
    unit: str = ""
    words: str = ""
    changed: tuple[ChangedSince, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadyLine:
    """One line: what it asks for and about what (a control, a line of the builder's own, ``pack``
    or ``controls`` where it speaks of them, parts by their names), whether it can be ticked, who
    closed it, and why it is open where it is."""

    id: str
    kind: LineKind
    subject: str = ""
    parts: tuple[str, ...] = ()
    by_thumb: bool = True
    about: str = ""
    closed_at: datetime | None = None
    closed_with: str | None = None
    reason: Reason | None = None


@dataclass(frozen=True, slots=True)
class ReadyList:
    """The list of one loadout: its lines, the name of how the plane stands, whether all is closed,
    and the wind that it should not be flown in [m/s]."""

    loadout: str | None
    stance: str
    lines: tuple[ReadyLine, ...]
    ready: bool
    wind_m_s: float | None = None


@dataclass(frozen=True, slots=True)
class BenchSays:
    """What the bench answers for one loadout: the four answers, what happened since the balance was
    checked with it (words and when; None for nothing), whether it was ever checked, and how many
    readings are doubted."""

    answers: tuple[Answer, ...] = ()
    unchecked: Since | None = None
    checked: bool = False
    doubted: int = 0
    stall_speed_m_s: float | None = None


def stance(build: Build, loadout: str | None) -> Stance:
    """How the plane stands with a loadout: what is aboard and where it sits, under a name made
    from it, so that two that stand alike have one name.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> one = stance(Build("b", "B", parts=(motor,)), None)
    >>> one == stance(Build("c", "C", parts=(motor,)), None)
    True
    """
    stood = tuple(
        each
        if each.x_mm is None
        else Stood(each.part, round(each.x_mm, 1), round(each.y_mm, 1), round(each.z_mm, 1))
        for each in as_it_stands(build, loadout)
    )
    text = ";".join(f"{s.part}:{s.x_mm}:{s.y_mm}:{s.z_mm}" for s in stood)
    return Stance(f"{zlib.crc32(text.encode()):08x}{zlib.adler32(text.encode()):08x}", stood)


def ready_list(build: Build, loadout: str | None, bench: BenchSays, now: datetime) -> ReadyList:
    """The list of a loadout as it stands ``now``.

    >>> from datetime import UTC
    >>> told = ready_list(Build("b", "B"), None, BenchSays(), datetime(2026, 3, 1, tzinfo=UTC))
    >>> [line.kind.value for line in told.lines], told.ready
    (['balance', 'straight', 'fixed', 'wind', 'people', 'place'], False)
    """
    here = stance(build, loadout)
    wind = None if bench.stall_speed_m_s is None else max(bench.stall_speed_m_s / 3, 1.0)
    lines = tuple(
        _with(line, _bench_reason(line.kind, bench))
        if line.kind in BY_THE_BENCH
        else _ticked(build, line, loadout, here, now)
        for line in _lines(build, loadout, bench)
    )
    return ReadyList(loadout, here.id, lines, all(each.reason is None for each in lines), wind)


def _lines(build: Build, loadout: str | None, bench: BenchSays) -> Iterator[ReadyLine]:
    """Every line that this plane has, with this loadout."""
    aboard = _aboard(build, loadout)
    carries = equipment(build, aboard)
    yield from _bench_lines(build, bench, carries)
    yield ReadyLine("straight", LineKind.STRAIGHT)
    options = tuple(each.name for each in aboard if each.option)
    held = "controls" if carries.controls else ""
    yield ReadyLine("fixed", LineKind.FIXED, held, parts=options)
    ballast = tuple(each.name for each in aboard if _is_ballast(each))
    if ballast:
        yield ReadyLine("ballast", LineKind.BALLAST, parts=ballast)
    if carries.controls:
        yield ReadyLine("leads", LineKind.LEADS)
    drawn = drawn_controls(build)
    yield from _control_lines(build, drawn, carries.controls)
    for own in build.field.own_lines:
        yield ReadyLine(f"own-{own.id}", LineKind.OWN, own.words)
    if carries.drive and not carries.thrown:
        yield ReadyLine("propeller", LineKind.PROPELLER)
    if carries.drive:
        yield ReadyLine("pack", LineKind.PACK)
    if carries.controls or any(each.kind is not ControlKind.TAB for each in drawn):
        yield ReadyLine("range", LineKind.RANGE)
    for kind in (LineKind.WIND, LineKind.PEOPLE, LineKind.PLACE):
        yield ReadyLine(kind.value, kind)


def _bench_lines(build: Build, bench: BenchSays, carries: Equipment) -> Iterator[ReadyLine]:
    """What the bench answers."""
    targets = {target.kind for target in build.targets}
    if bench.doubted:
        yield ReadyLine("doubt", LineKind.DOUBT, by_thumb=False)
    if TargetKind.AUW in targets:
        yield ReadyLine("weight", LineKind.WEIGHT, by_thumb=False)
    with_it = "pack" if carries.pack else ""
    yield ReadyLine("balance", LineKind.BALANCE, with_it, by_thumb=False)


def _control_lines(build: Build, drawn: Sequence[Control], steered: bool) -> Iterator[ReadyLine]:
    """Each control that is drawn, or one line for all where none is; the tabs as they are set."""
    moving = [each for each in drawn if each.kind is not ControlKind.TAB]
    for control in moving:
        about = _travel(control)
        yield ReadyLine(f"control-{control.id}", LineKind.CONTROL, control.id, about=about)
    if steered and not moving:
        yield ReadyLine("controls", LineKind.CONTROLS, _steering(build))
    tabs = [each for each in drawn if each.kind is ControlKind.TAB or each.set_mm]
    if tabs:
        about = " ".join(f"{each.id}:{each.set_mm:g}" for each in tabs)
        yield ReadyLine("tabs", LineKind.TABS, about=about)


def _steering(build: Build) -> str:
    """What steers a plane whose controls nobody has drawn: "elevons" without a tail, an elevator on
    a "canard" ahead of the wing, else one on the "tail"."""
    roles = {surface.role for surface in build.surfaces}
    if Role.CANARD in roles:
        return Role.CANARD.value
    return Role.TAIL.value if Role.TAIL in roles or not roles else "elevons"


def _travel(control: Control) -> str:
    """What a control line asks for; another travel, place or kind is another question."""
    figures = (control.from_share, control.to_share, control.up_mm, control.down_mm)
    told = " ".join("-" if each is None else f"{each:g}" for each in figures)
    mixed = " with aileron" if control.with_aileron else ""
    return f"{control.kind.value} {control.surface} {told}{mixed}"


def _bench_reason(kind: LineKind, bench: BenchSays) -> Reason | None:
    if kind is LineKind.DOUBT:
        return Reason(Why.DOUBTFUL, amount=float(bench.doubted)) if bench.doubted else None
    target = TargetKind.AUW if kind is LineKind.WEIGHT else TargetKind.BALANCE
    answer = next((each for each in bench.answers if each.kind is target), None)
    if answer is None or answer.word is None:
        is_aimed_for = answer is None or answer.low is not None or answer.high is not None
        return Reason(Why.NOT_TOLD if is_aimed_for else Why.NO_TARGET)
    if answer.word not in (Word.MET, Word.ON_COURSE):
        return Reason(Why.VERDICT, answer.word.value, amount=_beyond(answer), unit=answer.unit)
    if kind is LineKind.BALANCE:
        if not bench.checked:
            return Reason(Why.NOT_CHECKED)
        if bench.unchecked is not None:
            since = bench.unchecked
            return Reason(
                Why.NOT_CHECKED_SINCE, at=since.at, words=since.words, changed=since.changed
            )
    return None


def _beyond(answer: Answer) -> float | None:
    """How far an answer lies beyond its range: over it or aft of it positive; None within."""
    if answer.value is not None and answer.high is not None and answer.value > answer.high:
        return answer.value - answer.high
    if answer.value is not None and answer.low is not None and answer.value < answer.low:
        return answer.value - answer.low
    return None


def _ticked(
    build: Build, line: ReadyLine, loadout: str | None, here: Stance, now: datetime
) -> ReadyLine:
    """A line that is ticked by thumb: closed, or open and why."""
    mine = [each for each in build.field.ticks if each.line == line.id]
    if line.kind in OF_THE_LOADOUT:
        others, mine = mine, [each for each in mine if each.loadout == loadout]
        if not mine and others and others[-1].done:
            name = _loadout_name(build, others[-1].loadout)
            return _with(line, Reason(Why.OTHER_LOADOUT, name, others[-1].at))
    if not mine:
        return _with(line, Reason(Why.NEVER))
    last = mine[-1]
    if not last.done:
        return _with(line, Reason(Why.UNTICKED, at=last.at))
    return _with(line, _opened_since(build, line, last, here, now), last)


def _opened_since(
    build: Build, line: ReadyLine, tick: Tick, here: Stance, now: datetime
) -> Reason | None:
    """What happened since a tick that its line spoke of; the latest that can be named."""
    if tick.about != line.about:
        return Reason(Why.ASKS_OTHERWISE, at=tick.at)
    if line.kind in AFTER_A_REPAIR:
        since = [each for each in build.diary if each.at > tick.at]
        if since:
            last = max(since, key=lambda each: each.at)
            return Reason(Why.HAPPENED, last.kind.value, last.at, words=last.words)
    if line.kind in AFTER_A_LANDING and build.power is not None:
        hard = [
            each
            for each in build.power.flights
            if each.at > tick.at
            and each.set_aside is None
            and each.landing in (Landing.HARD, Landing.CRASH)
        ]
        if hard:
            return Reason(Why.LANDED_HARD, at=hard[-1].at, words=hard[-1].note)
    changed = _stands_otherwise(build, line.kind, tick, here)
    if changed is not None:
        return changed
    if line.kind in EACH_OUTING and not now - OUTING <= min(tick.at, now):
        return Reason(Why.ANOTHER_DAY, at=tick.at)
    return None


_CONCERNS: Final[dict[LineKind, Callable[[Group, Part], bool]]] = {
    LineKind.STRAIGHT: lambda group, part: group in (Group.FOAM, Group.JOINING),
    LineKind.FIXED: lambda group, part: True,
    LineKind.BALLAST: lambda group, part: _is_ballast(part),
    LineKind.LEADS: lambda group, part: group in (Group.POWER, Group.CONTROL, Group.PAYLOAD),
    LineKind.CONTROL: lambda group, part: group is Group.CONTROL,
    LineKind.CONTROLS: lambda group, part: group is Group.CONTROL,
    LineKind.PROPELLER: lambda group, part: group is Group.POWER and not part.option,
}
"""Which parts a line speaks of. Where they sit counts for what must be fixed and reach."""

_WHERE_COUNTS: Final = frozenset({LineKind.FIXED, LineKind.BALLAST, LineKind.LEADS})


def _stands_otherwise(build: Build, kind: LineKind, tick: Tick, here: Stance) -> Reason | None:
    """The first part that a line speaks of and that is otherwise than when it was ticked."""
    concerns = _CONCERNS.get(kind)
    if concerns is None or tick.stance == here.id:
        return None
    seen = next((each for each in build.field.stances if each.id == tick.stance), None)
    if seen is None:
        return Reason(Why.SEEN_NOWHERE, at=tick.at)
    parts = {each.id: each for each in build.parts}
    then = {each.part: each for each in seen.stood}
    now = {each.part: each for each in here.stood}
    for id in [*now, *(id for id in then if id not in now)]:
        part = parts.get(id)
        if part is None or not concerns(_group(build, part), part):
            continue
        if id not in then:
            return Reason(Why.ADDED, part.name, tick.at)
        if id not in now:
            return Reason(Why.TAKEN_OFF, part.name, tick.at)
        by = _moved_mm(then[id], now[id])
        if kind in _WHERE_COUNTS and by > STILL_MM:
            return Reason(Why.MOVED, part.name, tick.at, by)
    return None


def _moved_mm(then: Stood, now: Stood) -> float:
    if then.x_mm is None or now.x_mm is None:
        return 0.0
    apart = (then.x_mm - now.x_mm, then.y_mm - now.y_mm, then.z_mm - now.z_mm)
    return float(sum(each * each for each in apart) ** 0.5)


def _with(line: ReadyLine, reason: Reason | None, tick: Tick | None = None) -> ReadyLine:
    return ReadyLine(
        line.id,
        line.kind,
        line.subject,
        line.parts,
        line.by_thumb,
        line.about,
        None if tick is None else tick.at,
        None if tick is None else tick.loadout,
        reason,
    )


def _aboard(build: Build, loadout: str | None) -> list[Part]:
    flown = next((each for each in build.loadouts if each.id == loadout), None)
    return [part for part, on in zip(build.parts, build.aboard(flown), strict=True) if on]


def _group(build: Build, part: Part) -> Group:
    return group_of(part, {lot.id: lot for lot in build.lots})


def _is_ballast(part: Part) -> bool:
    return part.assembly.split("/")[0].lower() == BALLAST


def _loadout_name(build: Build, id: str | None) -> str:
    return next((each.name for each in build.loadouts if each.id == id), id or "")
