"""``assess(build) -> Assessment``: everything the product tells about a build."""

from collections.abc import Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from oaken_scale.core.changes.drawing import layers_of, slope_of, span_of
from oaken_scale.core.changes.drawn_parts import DrawnPart, drawn_parts
from oaken_scale.core.changes.first_drawing import untouched
from oaken_scale.core.field.fit import FitTold, fit_told
from oaken_scale.core.flight.budget import BudgetLine, GuessedGroup, budget_lines, guessed_groups
from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity
from oaken_scale.core.flight.equipment import Equipment, equipment, packs_at_once
from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.forecast import Behind, Lesson, Mark, behind, lessons
from oaken_scale.core.flight.headroom import Headroom, at_the_ends, headroom
from oaken_scale.core.flight.lateral_pairs import Twin, twins
from oaken_scale.core.flight.metrics.registry import answers_of
from oaken_scale.core.flight.part_masses import PartMass, part_masses
from oaken_scale.core.flight.stages import SoFar, so_far
from oaken_scale.core.flight.verdict import Answer, Word, worst
from oaken_scale.core.flight.weigh_next import Suggestion, checks_of_scales, goals, rank
from oaken_scale.core.geometry.body import plan_corners
from oaken_scale.core.geometry.proportions import Proportions, proportions
from oaken_scale.core.geometry.wing import (
    WingFigures,
    area_dm2,
    plan_outline,
    side_outline,
)
from oaken_scale.core.ledger.assembly import membership
from oaken_scale.core.ledger.habit import HabitFound, tells
from oaken_scale.core.ledger.habit import found as habits_found
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.moisture import Damp, damp
from oaken_scale.core.ledger.outliers import DOUBTFUL, Doubt, predicted
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import allowance_share, nobody_knows
from oaken_scale.core.ledger.scale import Unfit, before_the_fact
from oaken_scale.core.material.joint_clock import Adhesive, JointTimes, joint_times, own_adhesives
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.kind_named import never_mended
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.surface import Role
from oaken_scale.core.model.traits import traits
from oaken_scale.core.model.weighing import Pan
from oaken_scale.core.notices import Notice, notices
from oaken_scale.core.power.loadout_power import PowerTold, power_told
from oaken_scale.core.power.which_run import in_their_order, telling_runs
from oaken_scale.core.trim.beam import Beam, beam
from oaken_scale.core.trim.flown import Flown, fly
from oaken_scale.core.trim.unchecked import Since, unchecked_since
from oaken_scale.core.trim.wing_placement import WingGroups, wing_groups


@dataclass(frozen=True, slots=True)
class LotConstant:
    """One lot's constant after the weighings [g per unit], one sigma."""

    id: str
    constant: float
    sd: float


@dataclass(frozen=True, slots=True)
class ScaleError:
    """How far a scale reads off, as a fraction, one sigma; whether that is within its doubt.

    >>> ScaleError("kitchen", 0.002, 0.003).is_true, ScaleError("kitchen", 0.004, 0.003).is_true
    (True, False)
    """

    id: str
    error: float
    sd: float
    is_true: bool = field(init=False, default=True)

    def __post_init__(self) -> None:
        """Work out what follows."""
        object.__setattr__(self, "is_true", abs(self.error) < self.sd)


@dataclass(frozen=True, slots=True)
class AssemblyMass:
    """An assembly's mass [g], one sigma: all its parts not retired, and what lies within it.

    ``name`` is its whole path, "Fuselage/Nose".
    """

    name: str
    mass_g: float
    sd_g: float


@dataclass(frozen=True, slots=True)
class LoadoutAnswers:
    """The four answers for one loadout, the parts aboard, its CG, whether all of them have been on
    a pan, what is behind it all, what it may gain until a target breaks, and what nose and tail
    bear."""

    id: str
    name: str
    aboard: tuple[str, ...]
    answers: tuple[Answer, ...]
    cg: CentreOfGravity | None
    fully_weighed: bool
    worst: Word | None
    behind: Behind
    headroom: tuple[Headroom, ...]
    ends: tuple[Headroom, ...]


@dataclass(frozen=True, slots=True)
class Unchecked:
    """A loadout whose balance was not checked since something was done to the plane."""

    loadout: str
    since: Since


@dataclass(frozen=True, slots=True)
class Outline:
    """A surface as it is drawn: corners (x, y) from above, ``side`` (x, z) [mm], its area [dm2].

    ``span_mm`` is a fin's height; ``tip_mm`` how long the last panel is along its slope.
    ``layers``: how many of a sheet lie in it, as it is shaped. ``untouched``: it is still as the
    layout brought it, and nobody's yet. ``is_port``: it is the
    other one of twins, under the id of both.
    """

    id: str
    name: str
    role: Role
    corners: tuple[tuple[float, float], ...]
    side: tuple[tuple[float, float], ...]
    area_dm2: float
    span_mm: float
    chord_mm: float
    tip_mm: float
    layers: int
    untouched: bool
    is_port: bool = False


@dataclass(frozen=True, slots=True)
class BodyOutline:
    """A body as it is drawn from above: corners (x, y) [mm]; of twins there are two."""

    id: str
    name: str
    corners: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Progress:
    """How much of each stage's work is done, 0 to 1."""

    plan: float
    stock: float
    bench: float
    balance: float
    power: float


@dataclass(frozen=True, slots=True)
class Assessment:
    """Everything that is told about a build: a function of the build alone."""

    build: str
    loadouts: tuple[LoadoutAnswers, ...]
    parts: tuple[PartMass, ...]
    lots: tuple[LotConstant, ...]
    scales: tuple[ScaleError, ...]
    assemblies: tuple[AssemblyMass, ...]
    wing_groups: WingGroups
    wing: WingFigures | None
    outlines: tuple[Outline, ...]
    bodies: tuple[BodyOutline, ...]
    drawn: tuple[DrawnPart, ...]
    proportions: Proportions
    weigh_next: tuple[Suggestion, ...]
    joints: tuple[JointTimes, ...]
    adhesives: tuple[Adhesive, ...]
    doubts: tuple[Doubt, ...]
    lessons: tuple[Lesson, ...]
    habits: tuple[HabitFound, ...]
    twins: tuple[Twin, ...]
    budget: tuple[BudgetLine, ...]
    damp: tuple[Damp, ...]
    beam: Beam
    so_far: SoFar
    allowance_share: float
    unchecked: tuple[Unchecked, ...]
    power: PowerTold | None
    fit: FitTold
    notices: tuple[Notice, ...]
    progress: Progress
    carries: Equipment
    never_mended: tuple[str, ...]
    packs_at_once: tuple[str, ...]
    guessed_groups: tuple[GuessedGroup, ...]


@dataclass(frozen=True, slots=True)
class Expected:
    """What a pan should read [g], one sigma, what the scale makes of such a load, and between
    which readings nothing speaks against one [g]."""

    reading_g: float
    sd_g: float
    warning: Unfit | None
    least_g: float
    most_g: float


def assess(build: Build) -> Assessment:
    """Tell everything about a build.

    >>> from oaken_scale.core.model.part import Part
    >>> motor = Part("motor", "Motor", Pedigree.LISTING, stated_g=28.0)
    >>> told = assess(Build("b", "B", parts=(motor,)))
    >>> told.loadouts[0].answers[0].value, round(told.loadouts[0].answers[0].sd, 6)
    (28.0, 1.4)
    """
    flown = fly(build)
    summed, after, wing = flown.summed, flown.after, flown.wing
    been, planes, names = flown.been, flown.planes, flown.names
    answers = tuple(answers_of(plane) for plane in planes)
    shape = proportions(build, wing, max(plane.auw_g for plane in planes))
    parts = part_masses(build, after, wing, been)
    marks = [part.mark for part in parts]
    masses = [(name[0], plane.auw_g) for name, plane in zip(names, planes, strict=True)]
    power = power_told(build, masses, shape.stall_speed)
    return Assessment(
        build=build.id,
        loadouts=tuple(
            _loadout(build, flown, name, plane, four, marks)
            for name, plane, four in zip(names, planes, answers, strict=True)
        ),
        parts=parts,
        lots=_lots(build, after),
        scales=_scales(build, after),
        assemblies=_assemblies(build, after),
        wing_groups=wing_groups(build),
        wing=wing,
        outlines=_outlines(build),
        bodies=tuple(
            BodyOutline(each.id, each.name, corners)
            for each in build.bodies
            for corners in plan_corners(each)
        ),
        drawn=drawn_parts(build),
        proportions=shape,
        weigh_next=(
            *in_their_order(
                rank(build, after, goals(planes, answers), 4),
                telling_runs(build, power, planes, answers),
            ),
            *checks_of_scales(build, (answer for four in answers for answer in four)),
        ),
        joints=joint_times(build),
        adhesives=own_adhesives(build),
        doubts=(doubted := flown.estimate.doubts),
        lessons=lessons(build, after),
        habits=tuple(
            each for each in habits_found(build, summed, flown.estimate.wide) if tells(each)
        ),
        twins=twins(build, after),
        budget=budget_lines(build, after, planes[0].aboard),
        damp=(gained := damp(build)),
        beam=beam(build, planes, answers, [id for id, _ in names], flown.checks),
        so_far=so_far(build, after, planes[0].aboard, been),
        allowance_share=allowance_share(build.allowance),
        unchecked=_unchecked(build, names),
        power=power,
        fit=fit_told(build),
        notices=notices(build, after, bool(doubted), gained),
        progress=_progress(build, after, marks),
        carries=equipment(build, build.parts),
        packs_at_once=packs_at_once(build),
        never_mended=tuple(part.id for part in build.parts if never_mended(part.name)),
        guessed_groups=guessed_groups(build),
    )


def expect(build: Build, pan: Pan, scale_id: str) -> Expected | None:
    """What a pan should read on a scale before it is recorded: ``h . z +- sqrt(h'Sh + r^2)``; None
    where something on it has no figure and was never on one.

    The scale's own error counts in it.

    >>> from oaken_scale.core.model.weighing import Load, Scale
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, stated_g=90.0, doubt_g=9.0),)
    >>> build = Build("b", "B", parts=parts, scales=(Scale("s", "S", 0.1),))
    >>> told = expect(build, Pan((Load("w"),)), "s")
    >>> told.reading_g, round(told.sd_g, 1)
    (90.0, 9.0)
    """
    if nobody_knows(build, pan):
        return None
    scale = next(scale for scale in build.scales if scale.id == scale_id)
    told = predicted(build, solve(build), pan, scale_id, 0.0, recorded=False)
    warning = before_the_fact(scale, told.expected_g)
    sd = told.variance**0.5
    off = DOUBTFUL * sd
    return Expected(told.expected_g, sd, warning, told.expected_g - off, told.expected_g + off)


def _loadout(
    build: Build,
    flown: Flown,
    name: tuple[str, str],
    plane: Flying,
    four: tuple[Answer, ...],
    marks: Sequence[Mark],
) -> LoadoutAnswers:
    return LoadoutAnswers(
        *name,
        tuple(build.parts[k].id for k in np.flatnonzero(plane.aboard).tolist()),
        four,
        plane.cg,
        plane.fully_weighed,
        worst(four),
        behind(build, flown.after, flown.where, plane.aboard, marks),
        headroom(plane),
        at_the_ends(plane),
    )


def _lots(build: Build, after: Posterior) -> tuple[LotConstant, ...]:
    constants, sds = after.mean[after.lots].tolist(), after.sd[after.lots].tolist()
    return tuple(
        LotConstant(lot.id, constant, sd)
        for lot, constant, sd in zip(build.lots, constants, sds, strict=True)
    )


def _scales(build: Build, after: Posterior) -> tuple[ScaleError, ...]:
    errors, sds = after.mean[after.scales].tolist(), after.sd[after.scales].tolist()
    return tuple(
        ScaleError(scale.id, error, sd)
        for scale, error, sd in zip(build.scales, errors, sds, strict=True)
    )


def _assemblies(build: Build, after: Posterior) -> tuple[AssemblyMass, ...]:
    names, inside = membership(build.parts)
    totals = after.totals(inside.astype(float))
    return tuple(AssemblyMass(name, *total) for name, total in zip(names, totals, strict=True))


def _outlines(build: Build) -> tuple[Outline, ...]:
    """Every surface as it is drawn; of twin fins both."""
    told = []
    # What has been on a pan is a plane: nobody asks any more whether its drawing is meant.
    as_it_came = frozenset() if build.weighings else untouched(build.layout, build.surfaces)
    for each in build.surfaces:
        drawn = Outline(
            each.id,
            each.name,
            each.role,
            plan_outline(each),
            side_outline(each),
            area_dm2(each),
            span_of(each),
            each.sections[0].chord_mm,
            slope_of(each),
            layers_of(each),
            each.id in as_it_came,
        )
        told.append(drawn)
        if each.twin and each.role is Role.FIN:
            port = tuple((x, -y) for x, y in drawn.corners)
            told.append(replace(drawn, corners=port, is_port=True))
    return tuple(told)


def _unchecked(build: Build, names: Sequence[tuple[str, str]]) -> tuple[Unchecked, ...]:
    told = []
    for id, _ in names:
        since = unchecked_since(build, id if build.loadouts else None)
        if since is not None:
            told.append(Unchecked(id, since))
    return tuple(told)


def _balance_done(build: Build) -> float:
    """The share of the loadouts whose balance was checked by hand since the plane last changed."""
    names: list[str | None] = [each.id for each in build.loadouts]
    names = names or [None]
    made = (each for each in build.checks if each.set_aside is None and each.is_of_the_plane)
    by_hand = {each.loadout for each in made}
    done = [name in by_hand and unchecked_since(build, name) is None for name in names]
    return sum(done) / len(done)


def _power_done(build: Build) -> float:
    """The share of the drive's packs that were run on a stand."""
    power = build.power
    if power is None or not power.packs:
        return 0.0
    taken = {run.pack for run in power.runs if run.set_aside is None and run.points}
    return sum(pack.id in taken for pack in power.packs) / len(power.packs)


@recalled(keep=8)
def _laid_out(parts: tuple[Part, ...]) -> tuple[frozenset[str], bool]:
    """The lots that parts on the plane use, and whether all of those parts have a place."""
    active = [part for part in parts if not part.retired]
    used = frozenset(use.lot for part in active for use in part.uses)
    placed = all(part.station or part.pedigree is Pedigree.ALLOWANCE for part in active)
    return used, bool(active) and placed


def _progress(build: Build, after: Posterior, marks: Sequence[Mark]) -> Progress:
    there, (used, placed) = traits(build.parts).there, _laid_out(build.parts)
    steps = (
        any(surface for surface in build.surfaces),
        bool(build.targets),
        bool(there.any()),
        build.thrust is not None or build.power is not None,
        placed,
    )
    grams = np.abs(after.mass) * there
    known = [mark is Mark.WEIGHED or mark is Mark.DIFFERENCE for mark in marks]
    total = float(grams.sum())
    sampled = after.of.loading.felt[after.lots].tolist()
    told = {
        lot.id
        for lot, here in zip(build.lots, sampled, strict=True)
        if here or lot.elsewhere is not None
    }
    return Progress(
        plan=sum(steps) / len(steps),
        stock=len(used & told) / len(used) if used else 0.0,
        bench=float(grams @ np.array(known, dtype=float)) / total if total else 0.0,
        balance=_balance_done(build),
        power=_power_done(build),
    )
