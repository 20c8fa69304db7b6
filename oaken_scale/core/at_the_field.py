"""What the field is told of a build: the list, the throws, what to try next, what it has flown."""

from collections import Counter
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Final

from oaken_scale.core.assess import Assessment
from oaken_scale.core.field.advice import (
    Advice,
    LastChange,
    PlannedSetting,
    Trim,
    advice,
    changes,
    last_change,
    pitch_control,
    planned_setting,
)
from oaken_scale.core.field.controls import (
    ControlTold,
    control_told,
    drawn_controls,
    incidence_difference_deg,
)
from oaken_scale.core.field.flown_settings import SettingFlown, set_as, settings_flown
from oaken_scale.core.field.glide import Glide, glide_ratio, sink_m_s
from oaken_scale.core.field.looking_back import LookingBack, looking_back
from oaken_scale.core.field.ready import BenchSays, LineKind, ReadyList, ready_list
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import Fault
from oaken_scale.core.model.field import FieldLog, Note, NoteKind, Setting, Throw
from oaken_scale.core.model.power import Flight, Landing
from oaken_scale.core.trim.beam import LoadoutBalance

LONGEST: Final = 6.0
"""A flight is at most so many times as long as a pack is told to last: engines rest in thermals."""

SHORT_MIN: Final = 45.0
"""Shorter flights are believed whatever was told [min]."""

FELT_MM: Final = 1.0
"""A CG that is nearer to its range is in it, for what is felt in the air [mm]."""


@dataclass(frozen=True, slots=True)
class BestThrow:
    """The setting that goes furthest, as a whole: where every control stood, its throws, how far
    it goes [m], with which loadout and CG, and what was changed on the plane since."""

    settings: tuple[Setting, ...]
    loadout: str | None
    throws: int
    distance_m: float
    cg_mm: float | None
    changed_since: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Flew:
    """How often something flew, and for how many minutes."""

    id: str
    flights: int
    minutes: float


@dataclass(frozen=True, slots=True)
class Counts:
    """What was flown: throws, flights, their minutes, hard landings and crashes; each pack's."""

    throws: int
    flights: int
    minutes: float
    hard: int
    crashes: int
    packs: tuple[Flew, ...]


@dataclass(frozen=True, slots=True)
class LoadoutField:
    """What the field is told of one loadout."""

    id: str | None
    name: str
    auw_g: float | None
    cg_mm: float | None
    cg_percent: float | None
    ready: ReadyList
    advice: Advice
    last_change: LastChange | None
    changes: tuple[LastChange, ...]
    planned: PlannedSetting | None
    glide: Glide | None
    sink: Glide | None
    flown: tuple[SettingFlown, ...]
    best: BestThrow | None


@dataclass(frozen=True, slots=True)
class FieldTold:
    """Everything that is told at the field."""

    loadouts: tuple[LoadoutField, ...]
    controls: tuple[ControlTold, ...]
    incidence_deg: float | None
    counts: Counts
    reminders: tuple[Note, ...]
    looking_back: LookingBack


def field_told(build: Build, assessment: Assessment, now: datetime) -> FieldTold:
    """Tell everything about a plane at the field, as it stands ``now``.

    >>> from datetime import UTC
    >>> from oaken_scale.core.assess import assess
    >>> build = Build("b", "B")
    >>> told = field_told(build, assess(build), datetime(2026, 5, 1, tzinfo=UTC))
    >>> told.counts.throws, told.controls
    (0, ())
    """
    return FieldTold(
        loadouts=tuple(
            _loadout(build, assessment, k, now) for k in range(len(assessment.loadouts))
        ),
        controls=tuple(control_told(build, each) for each in drawn_controls(build)),
        incidence_deg=incidence_difference_deg(build),
        counts=counts(build),
        reminders=reminders(build.field, now.date()),
        looking_back=looking_back(build, assessment.parts, assessment.loadouts[0].cg),
    )


def counts(build: Build) -> Counts:
    """What a plane has flown; what is set aside does not count.

    >>> from datetime import UTC
    >>> from oaken_scale.core.model.power import Motor, Power
    >>> at = datetime(2026, 5, 1, tzinfo=UTC)
    >>> flights = (Flight("f", at, "s3", 8.0), Flight("g", at, "s3", 7.5, landing=Landing.HARD))
    >>> told = counts(Build("b", "B", power=Power(Motor(1400, 60), flights=flights)))
    >>> told.flights, told.minutes, told.hard, told.packs
    (2, 15.5, 1, (Flew(id='s3', flights=2, minutes=15.5),))
    """
    throws = [each for each in build.field.throws if each.set_aside is None]
    power = build.power
    flights = [each for each in power.flights if each.set_aside is None] if power else []
    number = Counter(each.pack for each in flights)
    return Counts(
        throws=len(throws),
        flights=len(flights),
        minutes=sum(each.minutes for each in flights),
        hard=sum(each.landing is Landing.HARD for each in flights),
        crashes=sum(each.landing is Landing.CRASH for each in flights),
        packs=tuple(
            Flew(pack, count, sum(each.minutes for each in flights if each.pack == pack))
            for pack, count in number.items()
        ),
    )


def reminders(log: FieldLog, today: date) -> tuple[Note, ...]:
    """What is due by today and not done, the longest due first.

    >>> from datetime import UTC
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> note = Note("n", at, NoteKind.REMINDER, "charge", due=date(2026, 3, 8))
    >>> log = FieldLog(notes=(note,))
    >>> len(reminders(log, date(2026, 3, 7))), len(reminders(log, date(2026, 3, 9)))
    (0, 1)
    """
    due = [
        each
        for each in log.notes
        if each.kind is NoteKind.REMINDER and not each.done and each.due and each.due <= today
    ]
    return tuple(sorted(due, key=lambda each: each.due or today))


def _loadout(build: Build, assessment: Assessment, k: int, now: datetime) -> LoadoutField:
    told = assessment.loadouts[k]
    id = told.id if build.loadouts else None
    since = next((each for each in assessment.unchecked if each.loadout == told.id), None)
    balance = next((each for each in assessment.beam.loadouts if each.id == told.id), None)
    bench = BenchSays(
        answers=told.answers,
        unchecked=None if since is None else since.since,
        checked=any(
            each.loadout == id and each.set_aside is None and each.is_of_the_plane
            for each in build.checks
        ),
        doubted=len(assessment.doubts),
        stall_speed_m_s=assessment.proportions.stall_speed,
    )
    ready = ready_list(build, id, bench, now)
    straight = next(each for each in ready.lines if each.kind is LineKind.STRAIGHT)
    throws = [each for each in build.field.throws if each.set_aside is None and each.loadout == id]
    trim = Trim(*_trim(balance), straight=straight.reason is None)
    control = pitch_control(build)
    answer = {each.kind.value: each for each in told.answers}
    wing, cg = assessment.wing, told.cg.x_mm if told.cg else None
    changed = changes(throws)
    bad = {id for each in changed for id in each.bad}
    flown = settings_flown(build.field.controls, throws, bad)
    return LoadoutField(
        id=id,
        name=told.name,
        auw_g=answer["auw"].value,
        cg_mm=cg,
        cg_percent=100 * (cg - wing.mac_le_x_mm) / wing.mac_mm if wing and cg is not None else None,
        ready=ready,
        advice=advice(build, throws, trim),
        last_change=last_change(throws),
        changes=changed,
        planned=planned_setting(control, throws) if control else None,
        glide=glide_ratio(_as_set(throws)),
        sink=sink_m_s(_as_set(throws)),
        flown=flown,
        best=best_throw(build, throws, flown),
    )


def _trim(balance: LoadoutBalance | None) -> tuple[float | None, str | None, float | None]:
    if balance is None:
        return None, None, None
    off = balance.off_mm if abs(balance.off_mm) >= FELT_MM else 0.0
    return off, balance.light_side, balance.tip_g


def _as_set(throws: list[Throw]) -> list[Throw]:
    """The throws with the setting of the last one."""
    return set_as(throws[-1].settings, throws) if throws else []


def best_throw(
    build: Build, throws: Sequence[Throw], flown: Sequence[SettingFlown]
) -> BestThrow | None:
    """The setting whose throws go furthest, of those thrown twice at least where there are such;
    None where no distance was taken.

    >>> best_throw(Build("b", "B"), [], ()) is None
    True
    """
    if not flown:
        return None
    often = [each for each in flown if len(each.throws) > 1] or flown
    best = max(often, key=lambda each: each.goes_m)
    last = next(each for each in throws if each.id == best.throws[-1])
    since = tuple(each.words for each in build.diary if each.at > last.at)
    many = len(best.throws)
    return BestThrow(best.settings, last.loadout, many, best.goes_m, last.cg_mm, since)


def flight_faults(build: Build, assessment: Assessment, flight: Flight) -> Iterator[Fault]:
    """What speaks against a flight: it is longer than any pack of the plane lasts.

    >>> from datetime import UTC
    >>> from oaken_scale.core.assess import assess
    >>> build = Build("b", "B")
    >>> long = Flight("f", datetime(2026, 5, 1, tzinfo=UTC), "s3", 90.0)
    >>> list(flight_faults(build, assess(build), long))  # no drive says how long a pack lasts
    []
    """
    told = assessment.power
    lasts = [each.minutes for each in told.loadouts if each.minutes] if told else []
    most = max(max(lasts, default=0.0) * LONGEST, SHORT_MIN)
    if lasts and flight.minutes > most:
        words = (
            f"is {flight.minutes:g} min, and the packs of {build.name} last about"
            f" {max(lasts):.0f}; say the minutes of one flight"
        )
        yield Fault("minutes", words)


def taken_now(build: Build, assessment: Assessment, throw: Throw) -> Throw:
    """A throw with what the plane weighs and where it balances now, where it does not say.

    >>> from datetime import UTC
    >>> from oaken_scale.core.assess import assess
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> glider = Part("g", "Glider", Pedigree.GUESS, stated_g=62.0)
    >>> build = Build("b", "B", parts=(glider,))
    >>> throw = Throw("t", datetime(2026, 5, 1, tzinfo=UTC))
    >>> taken_now(build, assess(build), throw).auw_g
    62.0
    """
    told = next(
        (each for each in assessment.loadouts if throw.loadout in (None, each.id)),
        assessment.loadouts[0],
    )
    auw = next(each.value for each in told.answers if each.kind.value == "auw")
    cg = told.cg.x_mm if told.cg else None
    return replace(
        throw,
        auw_g=throw.auw_g if throw.auw_g is not None or auw is None else round(auw, 1),
        cg_mm=throw.cg_mm if throw.cg_mm is not None or cg is None else round(cg, 1),
    )
