"""What one build learned, told to the workshop's other builds.

A lot on the rack and a thing in the drawer are the same in every build that uses them. What a
build's own weighings say of one is carried over as a single reading, its own prior taken out again,
so that nothing is counted twice.
"""

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Final

import numpy as np

from oaken_scale.core.ledger import habit
from oaken_scale.core.ledger.mixture import solve
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.ledger.prior import HABITUAL, SHARED
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Habit

LEAST_SHARE: Final = 1e-3
"""Weighings that sharpen a figure's precision by less than this share told nothing of it."""

LEAST_SHARED: Final = 0.5
"""Finished builds leave at least so much of a factor's own doubt: no two builds are alike."""


@dataclass(frozen=True, slots=True)
class Learned:
    """What a build's own weighings say of its lots on the rack and its things in the drawer.

    By rack id [g per unit] and by drawer id [g].
    """

    lots: dict[str, Known]
    things: dict[str, Known]


def learned(build: Build) -> Learned:
    """What the build's weighings alone say, whatever its prior and other builds said.

    With the posterior ``N(m, v)`` and the prior ``N(m0, v0)`` of one figure, the weighings are
    worth a reading of precision ``1/v - 1/v0`` at ``(m/v - m0/v0) / (1/v - 1/v0)``.

    Source: docs/methods.md, section 7.

    >>> from datetime import datetime, UTC
    >>> from oaken_scale.core.model.weighing import Pan, Sample, Scale, Weighing
    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> square = Weighing("1", datetime.now(UTC), "s", 5.0, Pan(samples=(Sample("a", 1.0),)))
    >>> told = learned(Build("b", "B", lots=(Lot("a", "A", LotUnit.DM2, 4.6, 0.4, rack="r"),),
    ...     scales=(Scale("s", "S", 0.1, 0.05, 0.0),), weighings=(square,)))
    >>> round(told.lots["r"].value, 6), round(told.lots["r"].doubt, 6)
    (5.0, 0.057735)
    """
    lots: dict[str, list[Known]] = {}
    things: dict[str, list[Known]] = {}
    shared = any(lot.rack for lot in build.lots) or any(part.thing for part in build.parts)
    if shared and build.weighings:
        after = solve(_alone(build))
        for k, lot in enumerate(build.lots):
            if lot.rack is not None:
                _gather(lots, lot.rack, _reading_of(after, k))
        for i, part in enumerate(build.parts):
            here = after.parts.start + i
            if part.thing is not None and not part.uses and after.of.loading.felt[here].any():
                _gather(things, part.thing, _reading_of(after, after.parts.start + i))
    return Learned(
        {id: known for id, found in lots.items() if (known := combined(found))},
        {id: known for id, found in things.items() if (known := combined(found))},
    )


def combined(found: Iterable[Known], source: str = "") -> Known | None:
    """Several builds' findings as one reading; None when there is nothing.

    >>> combined([Known(3.0, 1.0), Known(5.0, 1.0)]).value
    4.0
    """
    known = list(found)
    if not known:
        return None
    precision = sum(each.doubt**-2 for each in known)
    value = sum(each.value * each.doubt**-2 for each in known) / precision
    return Known(value, precision**-0.5, source)


def elsewhere(build: Build, others: Iterable[tuple[str, Learned]]) -> Build:
    """The build with what other builds, each by its name, found of its lots and things.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> lot = Lot("a", "Board", LotUnit.DM2, 4.6, 0.4, rack="board")
    >>> build = Build("b", "B", lots=(lot,))
    >>> told = elsewhere(build, [("Avocet", Learned({"board": Known(4.9, 0.1)}, {}))])
    >>> told.lots[0].elsewhere
    Known(value=4.9, doubt=0.1, source='Avocet')
    """
    told = list(others)

    def known(id: str | None, thing: bool) -> Known | None:
        found = [
            (name, each)
            for name, learned_there in told
            if (each := (learned_there.things if thing else learned_there.lots).get(id or ""))
        ]
        names = ", ".join(name for name, _ in found[:3]) + (" ..." if len(found) > 3 else "")
        return combined((each for _, each in found), names)

    return replace(
        build,
        lots=tuple(replace(lot, elsewhere=known(lot.rack, False)) for lot in build.lots),
        parts=tuple(
            replace(part, elsewhere=None if part.uses else known(part.thing, True))
            for part in build.parts
        ),
    )


def habits_of(builds: Iterable[Build]) -> tuple[Habit, ...]:
    """What finished builds teach the next one of guesses and listings; builds that are not
    finished teach nothing.

    Each finished build's own weighings are worth a reading of the factor, its prior taken out
    again; together they narrow it, to no less than half of what is believed without any.

    >>> habits_of([Build("b", "B")])  # nothing is finished
    ()
    """
    told = [
        (one, after)
        for build in builds
        if build.finished_at is not None
        for one in (replace(build, habits=()),)
        for after in (solve(one),)
    ]
    habits = []
    for p, pedigree in enumerate(HABITUAL):
        spread = SHARED[pedigree]
        weight, total, squares, count = spread**-2, spread**-2, 0.0, 0
        for build, after in told:
            at = after.factors.start + p
            now, before = float(after.sd[at]) ** -2, spread**-2
            if now > before * (1 + 1e-6):
                weight += now - before
                total += float(after.mean[at]) * now - before
            mine = after.prior.usual & (after.told > habit.WEIGHED)
            mine &= np.array([part.pedigree is pedigree for part in build.parts], dtype=bool)
            squares += float(np.minimum(after.own[mine] ** 2, (2 * habit.CLIPPED) ** 2).sum())
            count += int(mine.sum())
        if count:
            doubt = max(weight**-0.5, LEAST_SHARED * spread)
            habits.append(Habit(pedigree, total / weight, doubt, squares, count))
    return tuple(habits)


def _alone(build: Build) -> Build:
    """The build as if it were the only one of its workshop."""
    if not (any(lot.elsewhere for lot in build.lots) or any(i.elsewhere for i in build.parts)):
        return build
    return replace(
        build,
        lots=tuple(replace(lot, elsewhere=None) for lot in build.lots),
        parts=tuple(replace(part, elsewhere=None) for part in build.parts),
    )


def _reading_of(after: Posterior, at: int) -> Known | None:
    """What the weighings say of the state's figure ``at``; None when they say nothing."""
    first = after.parts.start
    mean0, sd0 = (
        (after.prior.lot_mean[at], after.prior.lot_sd[at])
        if at < first
        else (after.prior.mass[at - first], after.prior.mass_sd[at - first])
    )
    if sd0 <= 0 or after.sd[at] <= 0:
        return None
    before, now = float(sd0) ** -2, float(after.sd[at]) ** -2
    if now - before < LEAST_SHARE * before:
        return None
    value = (float(after.mean[at]) * now - float(mean0) * before) / (now - before)
    return Known(value, (now - before) ** -0.5)


def _gather(into: dict[str, list[Known]], id: str, known: Known | None) -> None:
    if known is not None:
        into.setdefault(id, []).append(known)
