"""Several things moved at once on the plan, and what that would save."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part, Reference
from oaken_scale.core.model.shift_line import Shift
from oaken_scale.core.trim.flown import fly
from oaken_scale.core.trim.remedies import Remedies
from oaken_scale.core.trim.saving import saved


@dataclass(frozen=True, slots=True)
class CgThen:
    """Where a loadout balances now and with the moves [mm from the nose]; None without masses."""

    loadout: str
    name: str
    now_mm: float | None
    then_mm: float | None


@dataclass(frozen=True, slots=True)
class Shifted:
    """What moves asked as one come to: the moves as understood, where each loadout balances, the
    remedy as it is and with them, and the ballast that they save [g], None where one has none."""

    shifts: tuple[Shift, ...]
    loadouts: tuple[CgThen, ...]
    now: Remedies
    then: Remedies
    saves_g: float | None


def shifted(build: Build, shifts: Sequence[Shift]) -> Build:
    """The build with parts moved; where one may slide goes with it, as its bay would.

    Raises BuildFaultError where a part has no station to be moved from.

    >>> from oaken_scale.core.model.part import Pedigree, Station
    >>> pack = Part("p", "Pack", Pedigree.LISTING, stated_g=90.0, station=Station(120.0))
    >>> told = shifted(Build("b", "B", parts=(pack,)), [Shift("p", by_mm=-15.0)])
    >>> told.parts[0].station.x_mm
    105.0
    """
    wing = wing_figures(build.surfaces)
    edge = wing.leading_edge_x_mm if wing else 0.0
    by_part = {each.part: each for each in shifts}

    def moved(part: Part) -> Part:
        shift = by_part.get(part.id)
        if shift is None:
            return part
        if part.station is None:
            words = f"{part.name} has no station yet; say on the Plan where it sits"
            raise BuildFaultError([Fault("line", words)])
        by = shift.by_mm
        if by is None:
            zero = edge if part.station.reference is Reference.LEADING_EDGE else 0.0
            by = (shift.to_mm or 0.0) - zero - part.station.x_mm
        slide = part.slide
        if slide is not None:
            slide = replace(slide, low_mm=slide.low_mm + by, high_mm=slide.high_mm + by)
        station = replace(part.station, x_mm=part.station.x_mm + by)
        return replace(part, station=station, slide=slide)

    return replace(build, parts=tuple(moved(part) for part in build.parts))


def shifted_told(build: Build, shifts: Sequence[Shift], moved: Build) -> Shifted:
    """What moves asked as one come to, for a build and the same with them made.

    >>> told = shifted_told(Build("b", "B"), (), Build("b", "B"))
    >>> told.saves_g, told.now.outcome.value
    (None, 'no_target')
    """
    both = saved(build, moved)
    return Shifted(tuple(shifts), balances(build, moved), both.now, both.then, both.saves_g)


def balances(build: Build, moved: Build) -> tuple[CgThen, ...]:
    """Where every loadout balances, as it is and as it would be.

    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> from dataclasses import replace
    >>> nose = Part("n", "Nose", Pedigree.GUESS, stated_g=50.0, station=Station(0.0))
    >>> tail = Part("t", "Tail", Pedigree.GUESS, stated_g=50.0, station=Station(200.0))
    >>> build = Build("b", "B", parts=(nose, tail))
    >>> moved = replace(build, parts=(nose, replace(tail, station=Station(220.0))))
    >>> [round(each.then_mm - each.now_mm, 1) for each in balances(build, moved)]
    [10.0]
    """
    now, then = fly(build), fly(moved)
    return tuple(
        CgThen(
            *name,
            None if before.cg is None else before.cg.x_mm,
            None if after.cg is None else after.cg.x_mm,
        )
        for name, before, after in zip(now.names, now.planes, then.planes, strict=True)
    )
