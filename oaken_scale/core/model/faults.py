"""What is wrong with a build, field by field, in words that say what would be right."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Final

from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.body import Body
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.part import HABITUAL, Part, Pedigree
from oaken_scale.core.model.pattern import is_sound
from oaken_scale.core.model.power import FULL_V_PER_CELL
from oaken_scale.core.model.surface import Role, Surface
from oaken_scale.core.model.target import Target, TargetKind
from oaken_scale.core.model.weighing import Pan, Weighing

APART_MM: Final = 20.0
"""Two supports nearer than this tell nothing [mm]."""


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong: the field (a path), and words for what is wrong and what would be right."""

    field: str
    words: str


class BuildFaultError(ValueError):
    """A build, or a change to one, that cannot stand. Carries its faults."""

    def __init__(self, faults: Iterable[Fault]) -> None:
        """Keep the faults and join them into one message."""
        self.faults = tuple(faults)
        super().__init__("; ".join(f"{fault.field}: {fault.words}" for fault in self.faults))


def faults(build: Build) -> tuple[Fault, ...]:
    """Everything that does not fit together in a build: references, duplicates, ranges.

    Plain ranges of single numbers are the edge's affair; this finds what only the whole shows.

    >>> from oaken_scale.core.model.lot import Use
    >>> tail = Part("tail", "Tail", Pedigree.CALCULATED, uses=(Use("sheet-b", 5.0),))
    >>> faults(Build("b", "B", parts=(tail,)))[0].words
    'no lot "sheet-b" in this build; it has none'
    """
    return (
        *_twice("lots", [lot.id for lot in build.lots]),
        *_twice("parts", [part.id for part in build.parts]),
        *_twice("surfaces", [surface.id for surface in build.surfaces]),
        *_twice("bodies", [body.id for body in build.bodies]),
        *_twice("bays", [bay.id for bay in build.bays]),
        *_twice("scales", [scale.id for scale in build.scales]),
        *_twice("containers", [container.id for container in build.containers]),
        *_twice("loadouts", [loadout.id for loadout in build.loadouts]),
        *_twice("joints", [joint.id for joint in build.joints]),
        *_twice("targets", [target.kind for target in build.targets]),
        *_twice("diary", [each.id for each in build.diary]),
        *_twice("checks", [each.id for each in build.checks]),
        *_twice("habits", [each.pedigree for each in build.habits]),
        *_twice("ballast.spots", [spot.id for spot in build.ballast.spots]),
        *_habit_faults(build),
        *_life_faults(build),
        *_balance_faults(build),
        *_twice("weighings", [weighing.id for weighing in build.weighings]),
        *_lot_faults(build),
        *_part_faults(build),
        *_budget_faults(build),
        *_power_faults(build),
        *_flight_faults(build),
        *_field_faults(build),
        *_loadout_faults(build),
        *_joint_faults(build),
        *(fault for k, target in enumerate(build.targets) for fault in target_faults(k, target)),
        *(fault for k, each in enumerate(build.surfaces) for fault in surface_faults(k, each)),
        *(fault for k, each in enumerate(build.lots) for fault in curing_faults(k, each)),
        *(fault for k, each in enumerate(build.bodies) for fault in body_faults(k, each)),
        *_log_faults(build),
    )


def _habit_faults(build: Build) -> Iterator[Fault]:
    for k, habit in enumerate(build.habits):
        if habit.pedigree not in HABITUAL:
            words = f'is "{habit.pedigree}"; only {" and ".join(HABITUAL)} run heavy or light'
            yield Fault(f"habits.{k}.pedigree", words)


def check(build: Build) -> Build:
    """Return the build, or raise :class:`BuildFaultError` with all that is wrong with it."""
    found = faults(build)
    if found:
        raise BuildFaultError(found)
    return build


def pan_faults(build: Build, pan: Pan, scale_id: str | None) -> Iterator[Fault]:
    """What speaks against having something on the pan now; an empty pan is fine."""
    if pan != Pan():
        yield from _pan_faults(_Known.of(build), "pan", pan)
    retired = {part.id for part in build.parts if part.retired}
    for k, load in enumerate(pan.loads):
        if load.part in retired:
            yield Fault(
                f"pan.loads.{k}.part",
                f'"{load.part}" is retired and off the plane; weigh what replaced it',
            )
    scales = [scale.id for scale in build.scales]
    if scale_id is not None and scale_id not in scales:
        yield Fault("scale", _unknown("scale", scale_id, scales))


def weighing_faults(build: Build, weighing: Weighing) -> Iterator[Fault]:
    """What speaks against adding a new reading to a build."""
    if weighing.pan == Pan():
        yield from _pan_faults(_Known.of(build), "pan", weighing.pan)
    yield from pan_faults(build, weighing.pan, weighing.scale)
    scale = next((scale for scale in build.scales if scale.id == weighing.scale), None)
    if scale is not None and weighing.reading_g > scale.capacity_g:
        yield Fault(
            "reading_g",
            f"{weighing.reading_g:g} g is over what the {scale.name} can weigh; "
            f"it must be at most {scale.capacity_g:g} g",
        )


def target_faults(k: int, target: Target) -> Iterator[Fault]:
    """A target needs a limit, and a band needs its low edge below its high one."""
    if target.kind is not TargetKind.BALANCE:
        for name, limit in (("low", target.low), ("high", target.high)):
            if limit is not None and limit <= 0:
                yield Fault(f"targets.{k}.{name}", f"is {limit:g}; it should be more than 0")
    if target.low is None and target.high is None:
        yield Fault(f"targets.{k}", "give a low or a high limit, or both for a band")
    elif target.low is not None and target.high is not None and target.low >= target.high:
        yield Fault(
            f"targets.{k}.low",
            f"{target.low:g} is not below the high limit {target.high:g}; a range runs from "
            "the smaller to the larger",
        )


def curing_faults(k: int, lot: Lot) -> Iterator[Fault]:
    """An adhesive's times follow one another."""
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


def body_faults(k: int, body: Body) -> Iterator[Fault]:
    """A body needs two frames, each aft of the last."""
    path = f"bodies.{k}.frames"
    if len(body.frames) < 2:
        yield Fault(path, "a body needs at least two frames, the front one first")
    for j, (ahead, behind) in enumerate(pairwise(body.frames), start=1):
        if behind.x_mm <= ahead.x_mm:
            words = f"{behind.x_mm:g} is not aft of the frame before it, {ahead.x_mm:g}"
            yield Fault(f"{path}.{j}.x_mm", words)


def surface_faults(k: int, surface: Surface) -> Iterator[Fault]:
    """A surface needs two sections, each farther out than the last, and some area."""
    path = f"surfaces.{k}.sections"
    if len(surface.sections) < 2:
        yield Fault(path, "a surface needs at least two sections, root first")
    axis = "z_mm" if surface.role is Role.FIN else "y_mm"
    for j, (inner, outer) in enumerate(pairwise(surface.sections), start=1):
        here, there = getattr(inner, axis), getattr(outer, axis)
        if there <= here:
            yield Fault(
                f"{path}.{j}.{axis}",
                f"{there:g} is not farther out than the section before it ({here:g})",
            )
    if surface.role is not Role.FIN and surface.sections and surface.sections[0].y_mm < 0:
        yield Fault(f"{path}.0.y_mm", "draw the starboard half: y from 0 outward")
    if not any(section.chord_mm > 0 for section in surface.sections):
        yield Fault(f"{path}.0.chord_mm", "at least one section needs a chord above 0 mm")
    elif _half_area_mm2(surface, axis) < limits.LEAST_AREA_MM2:
        yield Fault(f"{path}.0.chord_mm", "comes to no area; give it a chord and a span")


def _half_area_mm2(surface: Surface, axis: str) -> float:
    area = 0.0
    for inner, outer in pairwise(surface.sections):
        step = abs(getattr(outer, axis) - getattr(inner, axis))
        area += step * (inner.chord_mm + outer.chord_mm) / 2
    return area


def _lot_faults(build: Build) -> Iterator[Fault]:
    """A build takes a lot of the rack once; a sheet's width needs its length."""
    yield from (
        Fault(f"lots.{k}.rack", "is in this build already; use the lot that is there")
        for k, lot in enumerate(build.lots)
        if lot.rack is not None and lot.rack in {each.rack for each in build.lots[:k]}
    )


def _power_faults(build: Build) -> Iterator[Fault]:
    """A drive's packs are parts of the build, and its runs were taken with what it has."""
    power = build.power
    if power is None:
        return
    for name in ("propellers", "packs", "runs", "flights"):
        yield from _twice(f"power.{name}", [each.id for each in getattr(power, name)])
    parts = {part.id for part in build.parts}
    packs = {pack.id: pack for pack in power.packs}
    propellers = [each.id for each in power.propellers]
    for k, pack in enumerate(power.packs):
        if pack.part is not None and pack.part not in parts:
            yield Fault(f"power.packs.{k}.part", _unknown("part", pack.part, sorted(parts)))
    for k, run in enumerate(power.runs):
        if run.pack not in packs:
            yield Fault(f"power.runs.{k}.pack", _unknown("pack", run.pack, list(packs)))
        if run.propeller not in propellers:
            words = _unknown("propeller", run.propeller, propellers)
            yield Fault(f"power.runs.{k}.propeller", words)
        cells = packs[run.pack].cells if run.pack in packs else None
        for j, point in enumerate(run.points):
            if cells is None or point.pack_v is None:
                continue
            if not LEAST_V * cells <= point.pack_v <= MOST_V * FULL_V_PER_CELL * cells:
                than = "more" if point.pack_v > LEAST_V * cells else "less"
                words = (
                    f"is {point.pack_v:g} V, {than} than {cells} cells have; say which pack it was "
                    "run with"
                )
                yield Fault(f"power.runs.{k}.points.{j}.pack_v", words)


def _flight_faults(build: Build) -> Iterator[Fault]:
    """Flights were made with packs of the drive; a controller is made for some cells."""
    power = build.power
    if power is None:
        return
    packs = {pack.id: pack for pack in power.packs}
    for k, flight in enumerate(power.flights):
        if flight.pack not in packs:
            yield Fault(f"power.flights.{k}.pack", _unknown("pack", flight.pack, list(packs)))
            continue
        back, held = flight.put_back_mah, packs[flight.pack].capacity_mah
        if back is not None and back > MOST_PUT_BACK * held:
            words = f"is {back:g} mAh, and the pack holds {held:g}; say which pack it was"
            yield Fault(f"power.flights.{k}.put_back_mah", words)
    scales = {scale.port: scale.name for scale in build.scales if scale.port}
    if power.stand is not None and power.stand.port in scales:
        words = f"is where {scales[power.stand.port]} is read; say the stand's own"
        yield Fault("power.stand.port", words)
    made_for = power.controller
    least = None if made_for is None else made_for.least_cells
    most = None if made_for is None else made_for.most_cells
    if least is not None and most is not None and least > most:
        yield Fault("power.controller.least_cells", f"is {least}, over the most of {most}")


def _field_faults(build: Build) -> Iterator[Fault]:
    """Everything that was kept has an id of its own, and a control ends further out than it begins.

    One on a surface that is not drawn any more is no fault: it waits until that is drawn again.
    """
    log = build.field
    for name in ("controls", "throws", "ticks", "own_lines", "notes", "stances"):
        yield from _twice(f"field.{name}", [each.id for each in getattr(log, name)])
    for k, control in enumerate(log.controls):
        if control.from_share >= control.to_share:
            words = f"is {control.from_share:g}; it should be under where it ends"
            yield Fault(f"field.controls.{k}.from_share", f"{words}, {control.to_share:g}")


LEAST_V: Final = 2.5
"""No cell shows less while it runs a motor [V]."""

MOST_PUT_BACK: Final = 1.3
"""A charger puts back at most so many times what a pack is listed to hold."""

MOST_V: Final = 1.05
"""A voltmeter shows at most so many times what the cells of a pack have."""


def _budget_faults(build: Build) -> Iterator[Fault]:
    """A budget allots grams to each group once."""
    groups = [each.group for each in build.budget.allotments] if build.budget else []
    yield from _twice("budget.allotments", [str(group) for group in groups])


def _part_faults(build: Build) -> Iterator[Fault]:
    lots = [lot.id for lot in build.lots]
    allowances = 0
    for i, part in enumerate(build.parts):
        for k, use in enumerate(part.uses):
            if use.lot not in lots:
                yield Fault(f"parts.{i}.uses.{k}.lot", _unknown("lot", use.lot, lots))
        yield from _figure_faults(i, part)
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


def _figure_faults(i: int, part: Part) -> Iterator[Fault]:
    """A part needs a figure, except the allowance, which has a rule of its own."""
    if part.stated_g is None and not part.uses and part.pedigree is not Pedigree.ALLOWANCE:
        yield Fault(
            f"parts.{i}.stated_g", "give a mass in grams, or how much of a lot it is made of"
        )


def _life_faults(build: Build) -> Iterator[Fault]:
    """What was done to a part names a part; what is taken off has something to be taken off."""
    hosts = {part.id: part.host for part in build.parts}
    for i, part in enumerate(build.parts):
        if part.stated_g is not None and part.stated_g < 0 and part.host is None:
            yield Fault(
                f"parts.{i}.stated_g",
                f"is {part.stated_g:g}; it should be at least 0 g, unless it was taken off a host",
            )
        if part.host is not None:
            if part.host not in hosts:
                yield Fault(f"parts.{i}.host", _unknown("part", part.host, list(hosts)))
            elif part.host == part.id or hosts[part.host] is not None:
                words = "a part is done to a part that stands by itself; name that one"
                yield Fault(f"parts.{i}.host", words)
        if part.slide is not None and part.slide.low_mm >= part.slide.high_mm:
            words = f"{part.slide.low_mm:g} is not below {part.slide.high_mm:g}"
            yield Fault(f"parts.{i}.slide.low_mm", f"{words}; it slides from the smaller on")
    for k, each in enumerate(build.diary):
        for j, id in enumerate(each.parts):
            if id not in hosts:
                yield Fault(f"diary.{k}.parts.{j}", _unknown("part", id, list(hosts)))


def check_faults(build: Build, k: int, check: BalanceCheck) -> Iterator[Fault]:
    """What a check of the balance lacks or has too much of."""
    path = f"checks.{k}"
    loadouts = [each.id for each in build.loadouts]
    if check.loadout is not None and check.loadout not in loadouts:
        yield Fault(f"{path}.loadout", _unknown("loadout", check.loadout, loadouts))
    scales = [each.id for each in build.scales]
    if check.scale is not None and check.scale not in scales:
        yield Fault(f"{path}.scale", _unknown("scale", check.scale, scales))
    if check.kind in (CheckKind.SUPPORTS, CheckKind.SIDES):
        if check.other_mm is None:
            yield Fault(f"{path}.other_mm", "say where the second support is, in mm")
        elif check.other_mm - check.x_mm < APART_MM:
            yield Fault(
                f"{path}.other_mm",
                f"{check.other_mm:g} mm is not behind the first support at {check.x_mm:g} mm; "
                f"they should be at least {APART_MM:g} mm apart",
            )
        if check.reading_g is None:
            yield Fault(f"{path}.reading_g", "say what the scale under the second support read")
    if check.kind is CheckKind.HANG:
        if check.z_mm is None:
            yield Fault(f"{path}.z_mm", "say how high the point is that it hangs from, in mm")
        if check.nose_down_deg is None:
            words = "say how far the nose points down, in degrees; negative for up"
            yield Fault(f"{path}.nose_down_deg", words)


def _balance_faults(build: Build) -> Iterator[Fault]:
    parts = [part.id for part in build.parts]
    known = set(parts)
    for k, check in enumerate(build.checks):
        yield from check_faults(build, k, check)
        yield from _twice(f"checks.{k}.stood", [each.part for each in check.stood])
        for j, each in enumerate(check.stood):
            if each.part not in known:
                yield Fault(f"checks.{k}.stood.{j}.part", _unknown("part", each.part, parts))


def _joint_faults(build: Build) -> Iterator[Fault]:
    """A joint's times come in their order, and its parts are parts of the build."""
    parts = [part.id for part in build.parts]
    for k, joint in enumerate(build.joints):
        if joint.close_by_s is not None and joint.close_by_s <= joint.close_after_s:
            yield Fault(
                f"joints.{k}.close_by_s",
                f"{joint.close_by_s:g} s is not after it may be closed ({joint.close_after_s:g} s)",
            )
        if joint.handle_after_s < joint.close_after_s:
            yield Fault(
                f"joints.{k}.handle_after_s",
                f"{joint.handle_after_s:g} s is before it may be closed "
                f"({joint.close_after_s:g} s)",
            )
        if joint.strong_after_s < joint.handle_after_s:
            yield Fault(
                f"joints.{k}.strong_after_s",
                f"{joint.strong_after_s:g} s is before it may be handled "
                f"({joint.handle_after_s:g} s)",
            )
        for j, part in enumerate(joint.parts):
            if part not in parts:
                yield Fault(f"joints.{k}.parts.{j}", _unknown("part", part, parts))


def _loadout_faults(build: Build) -> Iterator[Fault]:
    options = [part.id for part in build.parts if part.option]
    for k, loadout in enumerate(build.loadouts):
        for j, carried in enumerate(loadout.carries):
            if carried not in options:
                yield Fault(f"loadouts.{k}.carries.{j}", _unknown("option", carried, options))


@dataclass(frozen=True, slots=True)
class _Known:
    """The ids that a pan may speak of."""

    parts: frozenset[str]
    lots: frozenset[str]

    @classmethod
    def of(cls, build: Build) -> "_Known":
        return cls(frozenset(i.id for i in build.parts), frozenset(lot.id for lot in build.lots))


def _pan_faults(known: _Known, path: str, pan: Pan) -> Iterator[Fault]:
    if not pan.loads and not pan.samples and pan.known_g <= 0:
        yield Fault(path, "the pan is empty; put on at least one thing, a sample or a check weight")
    yield from _twice(f"{path}.loads", [load.part for load in pan.loads])
    yield from _twice(f"{path}.samples", [sample.lot for sample in pan.samples])
    for k, load in enumerate(pan.loads):
        if load.part not in known.parts:
            yield Fault(
                f"{path}.loads.{k}.part",
                f'no part "{load.part}" in this build; use the id of one of its parts',
            )
    for k, sample in enumerate(pan.samples):
        if sample.lot not in known.lots:
            lots = sorted(known.lots)
            yield Fault(f"{path}.samples.{k}.lot", _unknown("lot", sample.lot, lots))


def _log_faults(build: Build) -> Iterator[Fault]:
    """What is wrong with readings already in the log; their parts may have retired since.

    Each pan is looked at once, however often it was weighed.
    """
    known = _Known.of(build)
    scales = [scale.id for scale in build.scales]
    sound: set[int] = set()
    for k, weighing in enumerate(build.weighings):
        if id(weighing.pan) not in sound:
            found = tuple(_pan_faults(known, f"weighings.{k}.pan", weighing.pan))
            yield from found
            if not found:
                sound.add(id(weighing.pan))
        if weighing.scale not in scales:
            yield Fault(f"weighings.{k}.scale", _unknown("scale", weighing.scale, scales))


def _twice(path: str, ids: list[str]) -> Iterator[Fault]:
    seen: set[str] = set()
    for k, each in enumerate(ids):
        if each in seen:
            yield Fault(f"{path}.{k}", f'"{each}" is there twice; each may stand once')
        seen.add(each)


def _unknown(what: str, given: str, known: list[str]) -> str:
    has = ", ".join(known[:8]) + (" ..." if len(known) > 8 else "") if known else "none"
    return f'no {what} "{given}" in this build; it has {has}'
