"""Builds and readings for the tests, and an independent reckoning to hold the core against."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import numpy as np

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Station
from oaken_scale.core.model.weighing import Load, Pan, Sample, Scale, Weighing

MORNING = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)


def reading(
    number: int,
    grams: float,
    parts: dict[str, float] | str = (),
    scale: str = "kitchen",
    samples: dict[str, float] | None = None,
    known_g: float = 0.0,
) -> Weighing:
    """A reading of some parts, the n-th of the morning."""
    loads = {parts: 1.0} if isinstance(parts, str) else dict(parts)
    pan = Pan(
        tuple(sorted(Load(part, count) for part, count in loads.items())),
        tuple(sorted(Sample(lot, amount) for lot, amount in (samples or {}).items())),
        known_g,
    )
    at = MORNING + timedelta(minutes=number)
    return Weighing(f"r{number}", at, scale, grams, pan)


def case_l(weighings: tuple[Weighing, ...] = ()) -> Build:
    """Reference case L of docs/methods.md."""

    def foam(name: str, area: float, doubt: float, x: float) -> Part:
        uses = (Use("sheet", area),)
        station = Station(x, doubt_mm=0.0)
        return Part(name, name, Pedigree.CALCULATED, uses=uses, doubt_g=doubt, station=station)

    def thing(name: str, pedigree: Pedigree, grams: float, doubt: float, x: float) -> Part:
        station = Station(x, doubt_mm=0.0)
        return Part(name, name, pedigree, stated_g=grams, doubt_g=doubt, station=station)

    return Build(
        id="l",
        name="Case L",
        lots=(Lot("sheet", "Sheet", LotUnit.DM2, 4.6, 0.4),),
        parts=(
            foam("wing", 18, 1.6, 210),
            foam("tail", 5, 0.5, 760),
            foam("fuselage", 14, 1.3, 330),
            thing("motor", Pedigree.LISTING, 28, 1.4, 15),
            thing("glue", Pedigree.JOINT, 9, 3, 400),
        ),
        scales=(Scale("kitchen", "Kitchen scale", 0.1, 0.05, 0.0),),
        weighings=weighings,
    )


def random_build(seed: int, parts: int = 12, readings: int = 20) -> Build:
    """A made-up build whose readings come from true masses drawn from its own prior."""
    rng = np.random.default_rng(seed)
    lots = tuple(
        Lot(f"lot{k}", f"Lot {k}", LotUnit.DM2, 4 + k, 0.4 + 0.1 * k, "made up") for k in range(3)
    )
    constants = [rng.normal(lot.constant, lot.doubt) for lot in lots]
    things, truth = [], []
    for i in range(parts):
        x = Station(float(rng.uniform(0, 800)), float(rng.normal(0, 40)), float(rng.normal(0, 9)))
        if i % 3 == 0:
            k, area = int(rng.integers(3)), float(rng.uniform(1, 20))
            part = Part(
                f"i{i}", f"Part {i}", Pedigree.CALCULATED, uses=(Use(f"lot{k}", area),), station=x
            )
            mean = area * constants[k]
            spread = 0.03 * area * lots[k].constant
        else:
            stated = float(rng.uniform(3, 60))
            pedigree = (Pedigree.GUESS, Pedigree.LISTING)[i % 2]
            part = Part(f"i{i}", f"Thing {i}", pedigree, stated_g=stated, station=x)
            mean, spread = stated, (0.25, 0.05)[i % 2] * stated
        things.append(part)
        truth.append(max(rng.normal(mean, spread), 0.2))
    scales = (Scale("kitchen", "Kitchen", 1.0), Scale("pocket", "Pocket", 0.1, None, 0.002))
    log = []
    for n in range(readings):
        chosen = rng.choice(parts, size=int(rng.integers(1, 5)), replace=False)
        scale = scales[n % 2]
        load = sum(truth[i] for i in chosen)
        shown = round(load / scale.step_g) * scale.step_g
        log.append(reading(n, max(shown, scale.step_g), {f"i{i}": 1 for i in chosen}, scale.id))
    return Build(
        f"b{seed}", "Made up", lots=lots, parts=tuple(things), scales=scales, weighings=tuple(log)
    )


def reckon(build: Build) -> tuple:  # noqa: PLR0912
    """Masses and covariance one reading at a time, by the plain conditioning formula.

    Written apart from the core: an explicit joint prior over (lots, parts, scales) and a rank-one
    update for every reading, the scale error linearised at the final estimate.
    """
    K, N, S = len(build.lots), len(build.parts), len(build.scales)
    shared = {"guess": 0.15, "listing": 0.03}
    F = K + len(shared)
    n = F + N + S
    lot_at = {lot.id: k for k, lot in enumerate(build.lots)}
    part_at = {part.id: F + i for i, part in enumerate(build.parts)}
    scale_at = {scale.id: F + N + s for s, scale in enumerate(build.scales)}
    mean0, cov0 = np.zeros(n), np.zeros((n, n))
    for lot in build.lots:
        mean0[lot_at[lot.id]] = lot.constant
        cov0[lot_at[lot.id], lot_at[lot.id]] = lot.doubt**2
    habit = np.zeros((N, len(shared)))
    for f, (pedigree, spread) in enumerate(shared.items()):
        mean0[K + f] = 1.0
        cov0[K + f, K + f] = spread**2
        for i, part in enumerate(build.parts):
            if part.pedigree == pedigree and part.doubt_g is None:
                habit[i, f] = part.stated_g or 0.0
    fractions = {"guess": 0.25, "listing": 0.05, "calculated": 0.03, "joint": 0.4, "covering": 0.1}
    for i, part in enumerate(build.parts):
        row = part_at[part.id]
        mean0[row] = part.stated_g or 0.0
        for use in part.uses:
            mean0[row] += use.amount * mean0[lot_at[use.lot]]
        own = part.doubt_g
        if own is None:
            own = fractions[part.pedigree] * abs(mean0[row])
            own = max(own, 0.2) if part.pedigree == "listing" else own
            own = (own**2 - sum((habit[i] * list(shared.values())) ** 2)) ** 0.5
        cov0[row, row] += own**2
        for a in part.uses:
            k = lot_at[a.lot]
            cov0[row, k] += a.amount * cov0[k, k]
            cov0[k, row] = cov0[row, k]
        for f in range(len(shared)):
            cov0[row, K + f] = cov0[K + f, row] = habit[i, f] * cov0[K + f, K + f]
            cov0[row, F : F + N] += habit[i, f] * habit[:, f] * cov0[K + f, K + f]
    for a in build.parts:
        for b in build.parts:
            for ua in a.uses:
                for ub in b.uses:
                    if ua.lot == ub.lot:
                        k = lot_at[ua.lot]
                        shared = ua.amount * ub.amount * cov0[k, k]
                        cov0[part_at[a.id], part_at[b.id]] += shared
    for scale in build.scales:
        s = scale_at[scale.id]
        cov0[s, s] = scale.calibration_doubt**2
    at = mean0.copy()
    for _ in range(12):
        mean, cov = mean0.copy(), cov0.copy()
        for weighing in build.weighings:
            if weighing.set_aside is not None:
                continue
            h = np.zeros(n)
            for load in weighing.pan.loads:
                h[part_at[load.part]] += load.count
            for sample in weighing.pan.samples:
                h[lot_at[sample.lot]] += sample.amount
            s = scale_at[weighing.scale]
            scale = build.scales[s - F - N]
            load0, gamma = h @ at + weighing.pan.known_g, at[s]
            jacobian = h * (1 + gamma)
            jacobian[s] = load0
            predicted = (1 + gamma) * load0 + jacobian @ (mean - at)
            sd = scale.step_g / 2 if scale.repeatability_g is None else scale.repeatability_g
            noise = scale.step_g**2 / 12 + sd**2
            gain = cov @ jacobian / (jacobian @ cov @ jacobian + noise)
            mean = mean + gain * (weighing.reading_g - predicted)
            cov = cov - np.outer(gain, jacobian @ cov)
        at = mean
    return mean, cov


def with_readings(build: Build, *weighings: Weighing) -> Build:
    """The build with more readings in its log."""
    return replace(build, weighings=(*build.weighings, *weighings))


def accepted(build: Build) -> Build:
    """The build with every reading accepted: no slip is weighed up, the ledger stands alone.

    A slip is one of the many things that could have been left on, in grams of this display: its
    share hangs on how many those are, and on the unit.
    """
    log = tuple(replace(each, accepted=True) for each in build.weighings)
    return replace(build, weighings=log)
