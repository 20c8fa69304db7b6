"""What to change next: the likely cause of what was seen, and the smallest change that helps.

In this order: straightness, the CG, tabs, the power line; and one change at a time. Source:
docs/methods.md, "Trim and flight".
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from itertools import pairwise
from typing import Final

from oaken_scale.core.field.better_or_luck import Compared, compared
from oaken_scale.core.field.controls import drawn_controls
from oaken_scale.core.field.flown_settings import control_at, differing
from oaken_scale.core.field.next_setting import BestSetting, Thrown, best_setting
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.field import Control, ControlKind, Seen, Setting, Throw

IN_PITCH: Final = (ControlKind.ELEVATOR, ControlKind.ELEVON, ControlKind.RUDDERVATOR)
HALF_MM: Final = 0.5
FIRST_TURN_MM: Final = 1.0
"""How far a tab is first bent against a turn [mm]."""


class Cause(StrEnum):
    """The likely cause of what was seen."""

    CG_BEHIND = "cg_behind"
    CG_AHEAD = "cg_ahead"
    TOO_MUCH_UP = "too_much_up"
    TOO_MUCH_DOWN = "too_much_down"
    CG_TOO_FAR_AFT = "cg_too_far_aft"
    HEAVY_SIDE = "heavy_side"
    WARP_OR_FIN = "warp_or_fin"
    SIDE_THRUST = "side_thrust"
    THRUST_LINE_LOW = "thrust_line_low"
    LITTLE_FIN = "little_fin"
    IN_TRIM = "in_trim"
    NOT_STRAIGHT = "not_straight"
    NOTHING_SEEN = "nothing_seen"


class Do(StrEnum):
    """What to do about it."""

    LOOK_STRAIGHT = "look_straight"
    CG_FORWARD = "cg_forward"
    CG_AFT = "cg_aft"
    STOP = "stop"
    BALANCE_SIDEWAYS = "balance_sideways"
    SET = "set"
    MOTOR_LINE = "motor_line"
    LOWER_CG = "lower_cg"
    MORE_FIN = "more_fin"
    THROW = "throw"
    LEAVE = "leave"
    BEND_A_TAB = "bend_a_tab"


@dataclass(frozen=True, slots=True)
class Trim:
    """How the plane balances with the loadout that was thrown: how far the CG lies outside its
    range [mm, aft positive; None where nobody knows], and the side that hangs with the grams at the
    other tip that would hold it; whether its straightness is still to be looked at."""

    off_mm: float | None = None
    light_side: str | None = None
    tip_g: float | None = None
    straight: bool = True


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do next: the cause, and the change; a control's setting from and to [mm, up or right
    positive], or by how much [mm of CG, g at a tip]. ``halved`` where the last change went too
    far."""

    cause: Cause
    do: Do
    control: str | None = None
    from_mm: float | None = None
    to_mm: float | None = None
    amount: float | None = None
    side: str | None = None
    halved: bool = False


@dataclass(frozen=True, slots=True)
class LastChange:
    """Whether the last change helped: the control, from and to [mm], in which figure the throws are
    compared, the comparison, which of the two to throw next (A B B A, for the wind), how many
    throws were compared, and which of them, by their ids, are more likely bad than not."""

    control: str
    from_mm: float
    to_mm: float
    measure: str
    compared: Compared
    next_mm: float
    throws: int
    bad: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class PlannedSetting:
    """Where one tab is best and where to try it next, from all its throws."""

    control: str
    best: BestSetting


def advice(build: Build, throws: Sequence[Throw], trim: Trim) -> Advice:
    """The likely cause of what the last throw did, and the smallest next change.

    ``throws`` are those with the loadout that is flown, in their order, none set aside.

    >>> from datetime import UTC, datetime
    >>> stalled = Throw("t", datetime(2026, 2, 14, tzinfo=UTC), seen=Seen.STALLS)
    >>> told = advice(Build("b", "B"), [stalled], Trim(off_mm=4.0))
    >>> told.cause.value, told.do.value, told.amount
    ('cg_behind', 'cg_forward', 4.0)
    """
    seen = [each for each in throws if each.seen is not None]
    off = trim.off_mm or 0.0
    if not seen or seen[-1].seen is None:
        return _balance_first(off) if off else Advice(Cause.NOTHING_SEEN, Do.THROW)
    last = seen[-1].seen
    if not trim.straight and last is not Seen.GOOD:
        return Advice(Cause.NOT_STRAIGHT, Do.LOOK_STRAIGHT)
    if off and last in (Seen.STALLS, Seen.DIVES, Seen.GOOD):
        return _balance_first(off)
    if last in (Seen.STALLS, Seen.DIVES):
        return _in_pitch(build, throws, last)
    if last in (Seen.TURNS_LEFT, Seen.TURNS_RIGHT):
        return _turning(build, seen, last, trim)
    return replace(_ALWAYS[last], amount=trim.off_mm) if last is Seen.TWITCHY else _ALWAYS[last]


_ALWAYS: Final = {
    Seen.TWITCHY: Advice(Cause.CG_TOO_FAR_AFT, Do.STOP),
    Seen.LEFT_UNDER_POWER: Advice(Cause.SIDE_THRUST, Do.MOTOR_LINE, side="right"),
    Seen.RIGHT_UNDER_POWER: Advice(Cause.SIDE_THRUST, Do.MOTOR_LINE, side="left"),
    Seen.UP_WITH_THROTTLE: Advice(Cause.THRUST_LINE_LOW, Do.MOTOR_LINE, side="down"),
    Seen.WALLOWS: Advice(Cause.LITTLE_FIN, Do.MORE_FIN),
    Seen.GOOD: Advice(Cause.IN_TRIM, Do.LEAVE),
}
"""What to do where the balance and the other throws make no difference."""


def _balance_first(off_mm: float) -> Advice:
    if off_mm > 0:
        return Advice(Cause.CG_BEHIND, Do.CG_FORWARD, amount=off_mm)
    return Advice(Cause.CG_AHEAD, Do.CG_AFT, amount=-off_mm)


def _in_pitch(build: Build, throws: Sequence[Throw], last: Seen) -> Advice:
    """A little down where it stalls, a little up where it dives; the search says how far."""
    cause = Cause.TOO_MUCH_UP if last is Seen.STALLS else Cause.TOO_MUCH_DOWN
    control = pitch_control(build)
    if control is None:
        return Advice(cause, Do.BEND_A_TAB, side="down" if last is Seen.STALLS else "up")
    planned = planned_setting(control, throws)
    at = _set(throws[-1], control)
    to = planned.best.next_mm if planned else at + (-1.0 if last is Seen.STALLS else 1.0)
    if (to - at) * (-1 if last is Seen.STALLS else 1) <= 0:
        to = at - HALF_MM if last is Seen.STALLS else at + HALF_MM  # never against the word
    return Advice(cause, Do.SET, control.id, at, to, halved=_turned_over(throws, control, to - at))


def _turning(build: Build, seen: Sequence[Throw], last: Seen, trim: Trim) -> Advice:
    """The heavy side first, then the fin's tab against the turn, half as far each time it turns
    over."""
    if trim.tip_g and trim.light_side:
        heavy = "left" if trim.light_side == "right" else "right"
        if (last is Seen.TURNS_LEFT) == (heavy == "left"):
            side = trim.light_side
            return Advice(Cause.HEAVY_SIDE, Do.BALANCE_SIDEWAYS, amount=trim.tip_g, side=side)
    against = 1.0 if last is Seen.TURNS_LEFT else -1.0
    control = turn_control(build)
    if control is None:
        return Advice(Cause.WARP_OR_FIN, Do.BEND_A_TAB, side="right" if against > 0 else "left")
    words = [each for each in seen if each.seen in (Seen.TURNS_LEFT, Seen.TURNS_RIGHT)]
    step = FIRST_TURN_MM
    for before, after in pairwise(words):
        if before.seen is not after.seen:
            step = max(step / 2, HALF_MM)
    at = _set(seen[-1], control)
    to = at + against * step
    return Advice(Cause.WARP_OR_FIN, Do.SET, control.id, at, to, halved=step < FIRST_TURN_MM)


def pitch_control(build: Build) -> Control | None:
    """What trims it in pitch: a tab on a tail or a canard, else the elevator or elevons.

    >>> pitch_control(Build("b", "B")) is None
    True
    """
    level = {each.id for each in build.surfaces if each.role.value in ("tail", "canard")}
    controls = drawn_controls(build)
    tabs = [c for c in controls if c.kind is ControlKind.TAB and c.surface in level]
    return next(iter([*tabs, *(c for c in controls if c.kind in IN_PITCH)]), None)


def turn_control(build: Build) -> Control | None:
    """What trims it in a turn: a tab on a fin, else the rudder.

    >>> turn_control(Build("b", "B")) is None
    True
    """
    fins = {each.id for each in build.surfaces if each.role.value == "fin"}
    controls = drawn_controls(build)
    tabs = [c for c in controls if c.kind is ControlKind.TAB and c.surface in fins]
    return next(iter([*tabs, *(c for c in controls if c.kind is ControlKind.RUDDER)]), None)


def planned_setting(control: Control, throws: Sequence[Throw]) -> PlannedSetting | None:
    """Where a tab is best and what to throw next, from the throws that only it differs in; None
    where no throw says a word or a distance.

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 2, 14, tzinfo=UTC)
    >>> tab = Control("tab", "Tab", ControlKind.TAB, "tail")
    >>> planned_setting(tab, [Throw("t", at, seen=Seen.DIVES)]).best.next_mm > 0
    True
    """
    alike = _alike_but_for(control, throws)
    told = [
        Thrown(_set(each, control), each.seen, each.distance_m)
        for each in alike
        if each.distance_m or each.seen in (Seen.STALLS, Seen.DIVES, Seen.GOOD)
    ]
    return PlannedSetting(control.id, best_setting(told)) if told else None


def last_change(throws: Sequence[Throw]) -> LastChange | None:
    """Whether the last change of a setting helped; None where nothing was changed yet, or too
    little was measured. Throws of the two settings count, whenever they were thrown.

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 2, 14, tzinfo=UTC)
    >>> page = [Throw(f"{k}", at, settings=(Setting("tab", mm),), distance_m=far)
    ...         for k, (mm, far) in enumerate([(0.0, 9.0), (-1.0, 13.0), (-1.0, 12.0)])]
    >>> told = last_change(page)
    >>> told.control, told.from_mm, told.to_mm, told.next_mm
    ('tab', 0.0, -1.0, 0.0)
    """
    now = throws[-1].settings if throws else ()
    before = next(
        (each.settings for each in reversed(throws) if len(differing(each.settings, now)) == 1),
        None,
    )
    return None if before is None else _change(throws, before, now)


def changes(throws: Sequence[Throw]) -> tuple[LastChange, ...]:
    """Every change of one control that was ever made, in order, and whether it helped; at the end
    the last one, where nothing says of it yet, either way.

    >>> changes([])
    ()
    """
    told: list[LastChange] = []
    known: list[tuple[Setting, ...]] = []
    for before, after in pairwise(throws):
        known.append(before.settings)
        seen = any(not differing(each, after.settings) for each in known)
        if not seen and len(differing(before.settings, after.settings)) == 1:
            change = _change(throws, before.settings, after.settings)
            told += [] if change is None else [change]
    last = last_change(throws)
    if last is not None and all(_ends(each) != _ends(last) for each in told):
        told.append(last)
    return tuple(told)


def _ends(change: LastChange) -> tuple[str, frozenset[float]]:
    """What is compared, whichever of the two was first."""
    return change.control, frozenset((change.from_mm, change.to_mm))


def _change(
    throws: Sequence[Throw], before: tuple[Setting, ...], after: tuple[Setting, ...]
) -> LastChange | None:
    """Two settings that one control differs in, compared by the figure that was taken most."""
    (control,) = differing(before, after)
    both = [
        each
        for each in throws
        if not differing(each.settings, before) or not differing(each.settings, after)
    ]
    for measure in ("distance_m", "seconds", "height_m"):
        with_it = [each for each in both if getattr(each, measure)]
        second = [not differing(each.settings, after) for each in with_it]
        if any(second) and not all(second):
            told = compared([getattr(each, measure) for each in with_it], second)
            a, b = control_at(before, control), control_at(after, control)
            turn = a if _turn(second) == "from" else b
            bad = tuple(with_it[k].id for k in told.bad)
            return LastChange(control, a, b, measure, told, turn, len(with_it), bad)
    return None


def _turn(second: Sequence[bool]) -> str:
    """Whose turn it is, A B B A A B B A."""
    of_two = "from", "to", "to", "from"
    a, b = second.count(False), second.count(True)
    if a != b:
        return "from" if a < b else "to"
    return of_two[len(second) % 4]


def _alike_but_for(control: Control, throws: Sequence[Throw]) -> list[Throw]:
    """The throws whose other settings are those of the last one."""
    if not throws:
        return []
    now = throws[-1].settings
    return [each for each in throws if not differing(each.settings, now) - {control.id}]


def _set(throw: Throw, control: Control) -> float:
    return control_at(throw.settings, control.id)


def _turned_over(throws: Sequence[Throw], control: Control, by: float) -> bool:
    """Whether a change goes back on the last one of that control."""
    settings = [_set(each, control) for each in throws]
    steps = [b - a for a, b in pairwise(settings) if a != b]
    return bool(steps) and steps[-1] * by < 0
