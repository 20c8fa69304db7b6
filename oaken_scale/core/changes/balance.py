"""What is done about the balance: things moved, checks made and set aside, the range it is held
to."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from oaken_scale.core.flight.centre_of_gravity import x_from_nose
from oaken_scale.core.flight.metrics.balance import balance_axis
from oaken_scale.core.geometry.neutral_point import neutral_point
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.ledger.assembly import lies_within
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Reference, Slide
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind
from oaken_scale.core.trim.as_it_stood import as_it_stands, loadout_of
from oaken_scale.core.trim.cg_ranges import School, SchoolKind, schools
from oaken_scale.core.trim.flown import fly


@dataclass(frozen=True, slots=True)
class Elsewhere:
    """Where a part is dragged to [mm], x from the nose; None for what stays as it was."""

    part: str
    x_mm: float
    y_mm: float | None = None
    z_mm: float | None = None


def dragged(build: Build, moved: Sequence[Elsewhere]) -> Build:
    """The build with things where they were dragged to; each keeps what it is measured from.

    Raises BuildFaultError (``moved.0.part``) for what is no placed part.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> at = Station(150.0, 0, -8.0)
    >>> pack = Part("pack", "Pack", Pedigree.LISTING, stated_g=90.0, station=at)
    >>> dragged(Build("b", "B", parts=(pack,)), [Elsewhere("pack", 128.0)]).parts[0].station
    Station(x_mm=128.0, y_mm=0, z_mm=-8.0, reference=<Reference.NOSE: 'nose'>, doubt_mm=None)
    """
    known = {part.id for part in build.parts if part.station is not None}
    for k, each in enumerate(moved):
        if each.part not in known:
            words = f'no placed part "{each.part}" in this build; give it a station first'
            raise BuildFaultError([Fault(f"moved.{k}.part", words)])
    if not moved:
        return build
    wing = wing_figures(build.surfaces)
    to = {each.part: each for each in moved}
    parts = []
    for part in build.parts:
        at, new = part.station, to.get(part.id)
        if at is not None and new is not None:
            at = replace(
                at,
                x_mm=new.x_mm - x_from_nose(0.0, at.reference, wing),
                y_mm=at.y_mm if new.y_mm is None else new.y_mm,
                z_mm=at.z_mm if new.z_mm is None else new.z_mm,
            )
            part = replace(part, station=at)  # noqa: PLW2901
        parts.append(part)
    return replace(build, parts=tuple(parts))


def measured_from(build: Build, check: BalanceCheck, reference: Reference) -> BalanceCheck:
    """A check whose places along the plane were measured from ``reference``, from the nose.

    What rests left and right was measured from the middle, and stays.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> wing = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 180), Section(200, 500, 0, 180)))
    >>> at = datetime(2026, 3, 7, tzinfo=UTC)
    >>> pegs = BalanceCheck("c", at, CheckKind.SUPPORT, None, 48.0, "pegs")
    >>> measured_from(Build("b", "B", surfaces=(wing,)), pegs, Reference.LEADING_EDGE).x_mm
    248.0
    """
    if check.kind is CheckKind.SIDES:
        return check
    wing = wing_figures(build.surfaces)
    x = x_from_nose(check.x_mm, reference, wing)
    other = check.other_mm
    return replace(
        check, x_mm=x, other_mm=None if other is None else x_from_nose(other, reference, wing)
    )


def with_check(build: Build, check: BalanceCheck, parts: Sequence[str] = ()) -> Build:
    """The build with a check made now: it speaks of what is aboard its loadout as it sits, or of
    those ``parts`` of it that were held alone.

    Raises BuildFaultError (``parts``) where one of them is not aboard.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=50.0, station=Station(12.0))
    >>> pegs = BalanceCheck("c", datetime(2026, 3, 7, tzinfo=UTC), CheckKind.SUPPORT, None, 12.0)
    >>> with_check(Build("b", "B", parts=(motor,)), pegs).checks[0].stood[0].x_mm
    12.0
    """
    stood = as_it_stands(build, check.loadout, parts or None)
    if len(stood) < len(set(parts)):
        words = "name a part that is not aboard now; choose from those that are"
        raise BuildFaultError([Fault("parts", words)])
    return replace(build, checks=(*build.checks, replace(check, stood=stood)))


def held_alone(build: Build, loadout_id: str | None, assemblies: Sequence[str]) -> tuple[str, ...]:
    """What is held when assemblies are held alone: the parts aboard of a loadout that lie in them,
    or in one within them. Raises BuildFaultError (``assemblies``) where none is.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> parts = (Part("nose", "Nose", Pedigree.GUESS, "Fuselage/Nose"),
    ...     Part("wing", "Wing", Pedigree.GUESS, "Wing"))
    >>> held_alone(Build("b", "B", parts=parts), None, ("Fuselage",))
    ('nose',)
    """
    aboard = build.aboard(loadout_of(build, loadout_id))
    parts = tuple(
        part.id
        for part, here in zip(build.parts, aboard, strict=True)
        if here and any(lies_within(part, each) for each in assemblies)
    )
    if assemblies and not parts:
        words = "name nothing that is aboard now; choose what was held"
        raise BuildFaultError([Fault("assemblies", words)])
    return parts


def with_slide(build: Build, part_id: str, slide: Slide) -> Build:
    """The build with a part that may slide so far [mm from its station's reference].

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> pack = Part("p", "Pack", Pedigree.LISTING)
    >>> with_slide(Build("b", "B", parts=(pack,)), "p", Slide(80.0, 120.0)).parts[0].slide.low_mm
    80.0
    """
    parts = (replace(each, slide=slide) if each.id == part_id else each for each in build.parts)
    return replace(build, parts=tuple(parts))


def with_check_aside(build: Build, check_id: str, reason: str | None) -> Build:
    """The build with a check set aside for a reason, or (None) speaking again.

    >>> from datetime import UTC, datetime
    >>> pegs = BalanceCheck("c", datetime(2026, 3, 7, tzinfo=UTC), CheckKind.SUPPORT, None, 12.0)
    >>> with_check_aside(Build("b", "B", checks=(pegs,)), "c", "wind").checks[0].set_aside
    'wind'
    """
    checks = (
        replace(each, set_aside=reason) if each.id == check_id else each for each in build.checks
    )
    return replace(build, checks=tuple(checks))


def held_to_school(build: Build, kind: SchoolKind) -> Build:
    """The build with one school's range for its balance target, in % of the mean chord.

    Raises BuildFaultError (``school``) where that school has no range for the plane.

    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> def plate(role, x, out, chord):
    ...     return Surface(role, role, role, (Section(x, 0, 0, chord), Section(x, out, 0, chord)))
    >>> build = Build("b", "B", surfaces=(plate(Role.WING, 200, 500, 200),
    ...     plate(Role.TAIL, 700, 200, 100)))
    >>> (target,) = held_to_school(build, SchoolKind.CHORD).targets
    >>> target.low, target.high, target.balance_unit.value, target.source
    (25.0, 33.0, 'percent_mac', 'chord rule')
    """
    plane = fly(build).planes[0]
    neutral = neutral_point(build.surfaces) if plane.wing else None
    offered = schools(build, plane.wing, neutral, plane.cg)
    school = next((each for each in offered if each.kind is kind), None)
    if school is None or school.low_mm is None or school.high_mm is None:
        raise BuildFaultError([Fault("school", _no_range(offered))])
    unit = BalanceUnit.PERCENT_MAC
    origin, size = balance_axis(unit, plane.wing)
    low, high = (round((x - origin) / size, 4) for x in (school.low_mm, school.high_mm))
    target = Target(TargetKind.BALANCE, low, high, school.kind.value, unit)
    others = (each for each in build.targets if each.kind is not TargetKind.BALANCE)
    return replace(build, targets=(*others, target))


def _no_range(offered: Sequence[School]) -> str:
    kinds = ", ".join(each.kind.value for each in offered if each.low_mm is not None)
    if not kinds:
        return "it has no range for this plane yet; draw the wing on the Plan first"
    return f"it has no range for this plane; it should be one of: {kinds}"


def with_balance_in(build: Build, unit: BalanceUnit) -> Build:
    """The build whose balance target is the same range in another unit; its source goes with it.

    Raises BuildFaultError (``unit``) without such a target, or without the wing that one of the
    two units is measured by.

    >>> target = Target(TargetKind.BALANCE, 240.0, 258.0, "plan", BalanceUnit.MM_FROM_NOSE)
    >>> from oaken_scale.core.model.surface import Role, Section, Surface
    >>> wing = Surface("w", "Wing", Role.WING, (Section(200, 0, 0, 180), Section(200, 500, 0, 180)))
    >>> build = Build("b", "B", surfaces=(wing,), targets=(target,))
    >>> (same,) = with_balance_in(build, BalanceUnit.MM_FROM_LEADING_EDGE).targets
    >>> same.low, same.high, same.source
    (40.0, 58.0, 'plan')
    """
    old = next((each for each in build.targets if each.kind is TargetKind.BALANCE), None)
    if old is None:
        words = "no balance target is set yet; set one, then choose its unit"
        raise BuildFaultError([Fault("unit", words)])
    wing = wing_figures(build.surfaces)
    if wing is None and {unit, old.balance_unit} != {BalanceUnit.MM_FROM_NOSE}:
        words = "draw the wing first: without it there is no leading edge and no mean chord"
        raise BuildFaultError([Fault("unit", words)])
    origin, size = balance_axis(old.balance_unit, wing)
    to, step = balance_axis(unit, wing)

    def over(value: float | None) -> float | None:
        return None if value is None else round((origin + size * value - to) / step, 4)

    same = replace(old, balance_unit=unit, low=over(old.low), high=over(old.high))
    targets = (same if each.kind is TargetKind.BALANCE else each for each in build.targets)
    return replace(build, targets=tuple(targets))
