"""Which run on the stand would tell most about a target that is not settled yet."""

from collections import defaultdict
from collections.abc import Sequence
from typing import Final

from oaken_scale.core.flight.flying import Flying
from oaken_scale.core.flight.verdict import Answer
from oaken_scale.core.flight.weigh_next import TELLING, Because, Suggestion, settled
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.power import Pack
from oaken_scale.core.model.target import TargetKind
from oaken_scale.core.power.drive_aboard import pack_aboard
from oaken_scale.core.power.drive_estimate import HowKnown
from oaken_scale.core.power.loadout_power import PowerTold

AFTER_A_RUN: Final = 0.03
"""A thrust that was run is known to so much: the stand's scale, and what the model leaves out."""


def telling_runs(
    build: Build,
    told: PowerTold | None,
    planes: Sequence[Flying],
    answers: Sequence[Sequence[Answer]],
) -> tuple[Suggestion, ...]:
    """The run that would take away most of what is unsure about thrust-to-weight, of the packs that
    none was taken with yet; none where no run would tell.

    It takes ``(u_T^2 - (0.03 T)^2)/M^2`` from the variance of ``T/M``. Source: docs/methods.md,
    sections 3 and 10.

    >>> telling_runs(Build("b", "B"), None, (), ())
    ()
    """
    if told is None:
        return ()
    known = {each.pack: each.half.known for each in told.loadouts}
    worth: dict[Pack, float] = defaultdict(float)
    share: dict[Pack, float] = defaultdict(float)
    for loadout, plane, four in zip(build.loadouts or (None,), planes, answers, strict=True):
        pack = pack_aboard(build, loadout)
        answer = next(each for each in four if each.kind is TargetKind.THRUST_TO_WEIGHT)
        if pack is None or known.get(pack.id) in (None, HowKnown.RUN) or settled(answer):
            continue
        if plane.thrust is None or not answer.sd or answer.margin is None:
            continue
        left = (AFTER_A_RUN * plane.thrust.thrust_gf) ** 2
        taken = max(plane.thrust_sd_gf**2 - left, 0.0) / plane.auw_g**2
        worth[pack] += taken / max(answer.margin**2, answer.sd**2)
        share[pack] = max(share[pack], taken / answer.sd**2)
    best = max(worth, key=lambda pack: worth[pack], default=None)
    if best is None or share[best] <= TELLING:
        return ()
    guess = known[best.id] is HowKnown.GUESS
    because = Because.NEVER_RUN if guess else Because.NOT_WITH_THIS_PACK
    kind = TargetKind.THRUST_TO_WEIGHT
    return (Suggestion(None, None, share[best], kind, because, run=best.id),)


def in_their_order(
    weighings: Sequence[Suggestion], runs: Sequence[Suggestion]
) -> tuple[Suggestion, ...]:
    """Weighings in their order, a run before the first that tells less of its goal.

    >>> in_their_order((), ())
    ()
    """
    told = list(weighings)
    for run in runs:
        less = (k for k, each in enumerate(told) if each.share < run.share)
        told.insert(next(less, len(told)), run)
    return tuple(told)
