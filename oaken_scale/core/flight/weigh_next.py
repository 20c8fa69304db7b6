"""What to put on the pan next: the weighing that tells most about the targets not yet settled."""

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.metrics.registry import METRICS
from oaken_scale.core.flight.verdict import Answer, Word
from oaken_scale.core.ledger.assembly import membership
from oaken_scale.core.ledger.loading import Loading
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.scale import FEW_STEPS, NEAR_CAPACITY, reading_doubt
from oaken_scale.core.model.arrays import Flags, Matrix, Vector
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import LotUnit
from oaken_scale.core.model.part import ALL_OVER, WITHIN, Part, Pedigree
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.model.traits import traits, wherever
from oaken_scale.core.model.weighing import Scale

SETTLED: Final = 0.975
"""A target met or missed with at least this probability needs no more weighing."""

TELLING: Final = 0.002
"""A weighing that takes away less than this share is not worth the walk to the scale."""

SAMPLE: Final = 1.0
"""A sample of a lot: a 100 mm square, a metre, one piece."""


class Because(StrEnum):
    """Why a suggestion is worth it: the thing is only a guess or a listing so far; it also tells
    about lots; parts are made of the lot; what joins things is weighed with them; one by one they
    are too light for the scale; no known weight was ever on the scale, which may be off by more
    than is in hand; nothing was run yet, or never with this pack."""

    GUESS = "guess"
    LISTING = "listing"
    TELLS_OF = "tells_of"
    PARTS_OF = "parts_of"
    JOINED = "joined"
    TOO_LIGHT = "too_light"
    SCALE_UNCHECKED = "scale_unchecked"
    NEVER_RUN = "never_run"
    NOT_WITH_THIS_PACK = "not_with_this_pack"


class Together(StrEnum):
    """What several parts on the pan are."""

    WHOLE_PLANE = "whole_plane"
    AS_IT_IS = "as_it_is"
    ASSEMBLY = "assembly"
    LIGHT_ONES = "light_ones"


@dataclass(frozen=True, slots=True)
class Suggestion:
    """One thing to weigh: a part, a sample of a lot, or several together, and why.

    ``parts`` go on the pan ``together``: the plane as the loadout ``called`` so flies it, the part
    called so with what was done to it, the assembly, or those too light by themselves; ``part``
    alone; on ``scale`` a known weight, to check it; with the pack ``run`` the drive on its stand.
    ``share`` is the part of the goal's variance that this would take away; the goal is that of
    ``loadout``, None where there is none.
    """

    part: str | None
    lot: str | None
    share: float
    goal: TargetKind
    because: Because
    parts: tuple[str, ...] = ()
    scale: str | None = None
    run: str | None = None
    lots: tuple[str, ...] = ()
    made_of_it: int = 0
    together: Together | None = None
    called: str = ""
    loadout: str | None = None


@dataclass(frozen=True, slots=True)
class Goal:
    """What a weighing should sharpen: one answer of one loadout, None where there is none."""

    kind: TargetKind
    loadout: str | None


@dataclass(frozen=True, slots=True, eq=False)
class Goals:
    """What the weighing should sharpen: a gradient over the parts and a weight for each goal.

    ``gradient`` shape (G, N); ``weight`` shape (G,), one over the square of the margin.
    """

    goals: tuple[Goal, ...]
    gradient: Matrix
    weight: Vector


def reduction(cov: Matrix, goal: Vector, row: Vector, reading_sd: float) -> float:
    """How much a weighing ``row`` (n,) lowers the variance of ``goal . z`` (n,).

    ``(g' S h)^2 / (h' S h + r^2)``. Source: docs/methods.md, section 3.

    >>> reduction(np.diag([4.0, 1.0]), np.array([1.0, 1.0]), np.array([1.0, 0.0]), 0.0)
    4.0
    """
    spread = cov @ row
    return float((goal @ spread) ** 2 / (row @ spread + reading_sd**2))


def goals(planes: tuple[Flying, ...], answers: tuple[tuple[Answer, ...], ...]) -> Goals:
    """Gradients of every target not yet settled; all-up weight alone when there is none.

    >>> from oaken_scale.core.model.build import Build
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.trim.flown import fly
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=500.0, doubt_g=5.0)
    >>> (plane,) = fly(Build("b", "B", parts=(wing,))).planes
    >>> from oaken_scale.core.flight.metrics.all_up_weight import all_up_weight
    >>> told = goals((plane,), ((all_up_weight(plane),),))
    >>> [goal.kind.value for goal in told.goals]
    ['auw']
    """
    unsettled: list[Goal] = []
    gradients: list[Vector] = []
    weights: list[float] = []
    loadouts: list[str | None] = [each.id for each in planes[0].build.loadouts]
    loadouts = loadouts or [None]
    for loadout, plane, four in zip(loadouts, planes, answers, strict=True):
        for answer in four:
            if settled(answer) or not answer.sd or answer.margin is None:
                continue
            unsettled.append(Goal(answer.kind, loadout))
            gradients.append(METRICS[answer.kind].gradient(plane, answer))
            weights.append(1.0 / max(answer.margin**2, answer.sd**2))
    if not unsettled:
        aim = Goal(TargetKind.AUW, loadouts[0])
        return Goals((aim,), planes[0].aboard[None, :], np.ones(1))
    return Goals(tuple(unsettled), np.array(gradients), np.array(weights))


def rank(build: Build, after: Posterior, aims: Goals, most: int) -> tuple[Suggestion, ...]:
    """The ``most`` telling weighings: single things not yet weighed alone, samples of the lots,
    assemblies and the whole plane once all of it has been on a pan.

    What has been weighed as one with its glue is one piece now and cannot be weighed alone.

    >>> from oaken_scale.core.ledger.posterior import solve
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, stated_g=90.0, doubt_g=18.0),
    ...         Part("m", "Motor", Pedigree.LISTING, stated_g=50.0, doubt_g=1.0))
    >>> build = Build("b", "B", parts=parts)
    >>> aims = Goals((Goal(TargetKind.AUW, None),), np.ones((1, 2)), np.ones(1))
    >>> [each.part for each in rank(build, solve(build), aims, 2)]
    ['w', 'm']
    """
    scale = _finest(build)
    doubt = reading_doubt(scale)
    lots, parts, mean = after.lots, after.parts, after.mean
    masses = slice(0, parts.stop)
    cov = after.cov[masses, masses]
    own_variance = np.diag(cov)
    towards = np.zeros((len(aims.goals), parts.stop))
    towards[:, parts] = aims.gradient
    spread = towards @ cov
    variance = np.einsum("gi,gi->g", spread, towards)

    trait = traits(build.parts)
    may = _listed(wherever(build.parts)) & trait.there & ~trait.host & ~trait.done
    may &= ~_been_alone_or_glued(build, after)
    light = may & (mean[parts] < FEW_STEPS * scale.step_g)
    may &= ~light
    rows: list[tuple[int, float]] = [(parts.start + i, 1.0) for i in np.flatnonzero(may).tolist()]
    used = (after.prior.uses != 0).any(axis=0)
    rows += [
        (lots.start + k, SAMPLE)
        for k, lot in enumerate(build.lots)
        if used[k] and lot.unit is not LotUnit.PIECE
    ]
    groups = _together(build, after, most_g(scale)) + _light_ones(after, light)
    if not rows and not groups:
        return ()
    columns = np.array([column for column, _ in rows], dtype=np.intp)
    amounts = np.array([amount for _, amount in rows])
    heaped = np.array([each.load for each in groups]).reshape(-1, len(build.parts))
    load = np.concatenate([mean[columns] * amounts, heaped @ mean[parts]])
    own = np.concatenate(
        [
            own_variance[columns] * amounts**2,
            ((heaped @ after.mass_cov) * heaped).sum(axis=1),
        ]
    )
    noise = own + doubt**2 + (scale.calibration_doubt * load) ** 2
    told = np.hstack([spread[:, columns] * amounts, spread[:, parts] @ heaped.T])
    taken = told**2 / noise
    weighted = taken * aims.weight[:, None]
    worth, best = weighted.sum(axis=0), weighted.argmax(axis=0)
    share = taken[best, np.arange(len(worth))] / np.maximum(variance[best], 1e-30)
    order = np.argsort(-worth, kind="stable")
    order = order[share[order] > TELLING][:most]
    return tuple(
        _suggest(build, int(columns[j]), parts.start, float(share[j]), aims.goals[best[j]])
        if j < len(rows)
        else _suggest_group(build, groups[j - len(rows)], float(share[j]), aims.goals[best[j]])
        for j in order.tolist()
    )


def checks_of_scales(build: Build, answers: Iterable[Answer]) -> tuple[Suggestion, ...]:
    """A known weight for each scale that decides a target with a margin thinner than it may be
    off, once for each scale.

    >>> checks_of_scales(Build("b", "B"), [])
    ()
    """
    found = {}
    for answer in answers:
        scale = next((s for s in build.scales if s.id == answer.unchecked_scale), None)
        if scale is not None and scale.id not in found:
            why = Because.SCALE_UNCHECKED
            found[scale.id] = Suggestion(None, None, 0.0, answer.kind, why, scale=scale.id)
    return tuple(found.values())


def most_g(scale: Scale) -> float:
    """The heaviest load that a scale weighs well [g].

    >>> most_g(Scale("s", "S", step_g=0.1, capacity_g=500.0))
    475.0
    """
    return NEAR_CAPACITY * scale.capacity_g


@dataclass(frozen=True, slots=True, eq=False)
class _Group:
    """Things that can go on the pan together; ``load`` (N,) counts those ``inside`` (N,)."""

    together: Together
    called: str
    inside: Flags
    load: Vector
    count: int


def _together(build: Build, after: Posterior, most: float) -> list[_Group]:
    """Assemblies, and the plane as each loadout flies it, all of which has been on a pan before,
    and which weigh at most so much [g]; and each part that something was done to, which is one
    piece with it."""
    pans, mass = after.of.loading, after.mass
    groups, loads, pieces = _groups(wherever(build.parts), build.loadouts)
    unfelt = _listed(wherever(build.parts)) & ~pans.felt[after.parts] & ~pieces
    may = (loads @ unfelt == 0) & (loads @ mass <= most)
    return [
        groups[k]
        for k in np.flatnonzero(may).tolist()
        if not _weighed_as_one(pans, after.parts, groups[k])
    ]


def _light_ones(after: Posterior, light: Flags) -> list[_Group]:
    """All that is too light for the scale by itself, at once; none where just these have been."""
    group = _Group(Together.LIGHT_ONES, "", light, light.astype(float), int(light.sum()))
    if group.count < 2 or _weighed_as_one(after.of.loading, after.parts, group):
        return []
    return [group]


def _weighed_as_one(pans: Loading, parts: slice, group: _Group) -> bool:
    """Whether just these things were on a pan together."""
    if pans.most < group.count:
        return False
    as_many = np.flatnonzero(pans.many >= group.count)
    return bool((pans.loaded[as_many, parts] == group.inside).all(axis=1).any())


@recalled(keep=8)
def _groups(
    parts: tuple[Part, ...], loadouts: tuple[Loadout, ...]
) -> tuple[tuple[_Group, ...], Matrix, Flags]:
    """Everything that might go on the pan together; of two names for the same things the narrower
    stands. Their loads together (any, N), and which parts are parts that something was done to,
    with that, shape (N,)."""
    build, trait = Build("", "", parts=parts, loadouts=loadouts), traits(parts)
    groups: list[tuple[Together, str, Flags]] = []
    pieces = np.zeros(len(parts), dtype=bool)
    for loadout in loadouts or (None,):
        inside = np.array(build.aboard(loadout), dtype=bool)
        groups.append((Together.WHOLE_PLANE, loadout.name if loadout else "", inside))
    for i in np.flatnonzero(trait.host).tolist():
        inside = np.array([parts[i].id in (part.id, part.host) for part in parts], dtype=bool)
        inside &= trait.there
        pieces |= inside
        groups.append((Together.AS_IT_IS, parts[i].name, inside))
    for name, members in zip(*membership(parts), strict=True):
        if name:
            groups.append((Together.ASSEMBLY, name.split(WITHIN)[-1], members))
    alike = {each[-1].tobytes(): each for each in groups}
    told = tuple(
        _Group(together, called, inside, inside.astype(float), int(inside.sum()))
        for together, called, inside in alike.values()
        if inside.sum() > 1
    )
    loads = np.array([group.load for group in told]).reshape(len(told), len(parts))
    return told, loads, pieces


@recalled(keep=8)
def _listed(parts: tuple[Part, ...]) -> NDArray[np.bool_]:
    """Which parts can lie on a pan by themselves, shape (N,)."""
    return np.array([part.pedigree not in ALL_OVER for part in parts], dtype=bool)


def _suggest_group(build: Build, group: _Group, share: float, goal: Goal) -> Suggestion:
    return Suggestion(
        part=None,
        lot=None,
        share=share,
        goal=goal.kind,
        because=Because.TOO_LIGHT if group.together is Together.LIGHT_ONES else Because.JOINED,
        parts=tuple(build.parts[i].id for i in np.flatnonzero(group.inside)),
        together=group.together,
        called=group.called,
        loadout=goal.loadout,
    )


def settled(answer: Answer) -> bool:
    """Whether no weighing would change the verdict any more.

    >>> from oaken_scale.core.flight.verdict import judge
    >>> from oaken_scale.core.model.target import Target
    >>> limit = Target(TargetKind.AUW, high=590.0)
    >>> [settled(judge(TargetKind.AUW, "g", g, 5.0, limit, False)) for g in (588.0, 500.0)]
    [False, True]
    """
    if answer.word is None or answer.probability is None:
        return True
    if answer.word in (Word.MET, Word.MISSED):
        return True
    return not (1 - SETTLED < answer.probability < SETTLED)


def _been_alone_or_glued(build: Build, after: Posterior) -> NDArray[np.bool_]:
    """Which parts were weighed alone, or as one piece with their glue, shape (N,)."""
    pans, joint = after.of.loading, traits(build.parts).joint
    if not (pans.felt[after.parts] & joint).any():
        return pans.felt_alone[after.parts]
    glued = pans.loaded[:, after.parts][:, joint].any(axis=1)
    return pans.felt_in(glued | pans.alone)[after.parts]


def _finest(build: Build) -> Scale:
    """The scale with the finest reading, or a plain one when the build has none."""
    return min(build.scales, key=reading_doubt, default=Scale("scale", "Scale", step_g=1.0))


def _suggest(build: Build, column: int, first: int, share: float, goal: Goal) -> Suggestion:
    """What a candidate is, and why it is worth weighing."""
    kind, loadout = goal.kind, goal.loadout
    if column < len(build.lots):
        lot = build.lots[column]
        cut = sum(1 for part in build.parts if any(use.lot == lot.id for use in part.uses))
        why = Because.PARTS_OF
        return Suggestion(None, lot.id, share, kind, why, made_of_it=cut, loadout=loadout)
    part = build.parts[column - first]
    lots = tuple(lot.id for lot in build.lots if any(use.lot == lot.id for use in part.uses))
    known = {Pedigree.GUESS: Because.GUESS, Pedigree.LISTING: Because.LISTING}
    because = known.get(part.pedigree, Because.TELLS_OF)
    return Suggestion(part.id, None, share, kind, because, lots=lots, loadout=loadout)
