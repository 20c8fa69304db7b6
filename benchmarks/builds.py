"""Made-up builds of any size for measuring."""

from datetime import UTC, datetime, timedelta

import numpy as np

from oaken_scale.core.model.balancing import Ballast, BallastSpot
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree, Slide, Station
from oaken_scale.core.model.surface import Role, Section, Surface
from oaken_scale.core.model.target import BalanceUnit, Target, TargetKind, Thrust
from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing


def made_up_build(parts: int, weighings: int, most_sets: int | None = None) -> Build:
    """A build of so many parts and weighings, at most ``most_sets`` of them of different things."""
    rng = np.random.default_rng(parts)
    lots = tuple(Lot(f"lot{k}", f"Lot {k}", LotUnit.DM2, 3.0 + k, 0.3) for k in range(6))
    things = tuple(
        Part(
            f"i{i}",
            f"Part {i}",
            Pedigree.CALCULATED if i % 2 else Pedigree.LISTING,
            assembly=f"Group {i % 9}",
            stated_g=None if i % 2 else float(rng.uniform(2, 40)),
            uses=(Use(f"lot{i % 6}", float(rng.uniform(0.5, 6))),) if i % 2 else (),
            station=Station(float(rng.uniform(0, 900)), float(rng.normal(0, 60))),
        )
        for i in range(parts)
    )
    pans = []
    for _ in range(min(weighings, most_sets or weighings)):
        chosen = rng.choice(parts, size=int(rng.integers(1, 5)), replace=False)
        pans.append(Pan(tuple(sorted(Load(f"i{i}") for i in chosen))))
    constants = [float(rng.normal(lot.constant, lot.doubt)) for lot in lots]
    truth = {
        thing.id: (thing.stated_g or 0.0) * float(rng.normal(1, 0.04))
        + sum(use.amount * constants[i % 6] * float(rng.normal(1, 0.03)) for use in thing.uses)
        for i, thing in enumerate(things)
    }
    start = datetime(2026, 3, 7, 9, 0, tzinfo=UTC)
    log = tuple(
        Weighing(
            f"w{n}",
            start + timedelta(seconds=n),
            "kitchen",
            round(sum(truth[on.part] for on in pan.loads) + float(rng.normal(0, 0.05)), 1),
            pan,
        )
        for n in range(weighings)
        for pan in (pans[n % len(pans)],)
    )
    wing = Surface("wing", "Wing", Role.WING, (Section(200, 0, 0, 200), Section(220, 600, 0, 150)))
    return Build(
        "bench",
        "Bench",
        lots=lots,
        parts=things,
        surfaces=(wing,),
        scales=(Scale("kitchen", "Kitchen", 0.1),),
        targets=(
            Target(TargetKind.AUW, high=15.0 * parts),
            Target(TargetKind.WING_LOADING, high=40.0),
            Target(TargetKind.THRUST_TO_WEIGHT, low=0.5),
            Target(TargetKind.BALANCE, low=25.0, high=33.0),
        ),
        thrust=Thrust(8.0 * parts),
        weighings=log,
    )


def to_be_balanced() -> Build:
    """A plane with six things that slide, four loadouts, and three spots for pieces of ballast."""
    sliding = tuple(
        Part(
            f"m{k}",
            f"Thing {k}",
            Pedigree.LISTING,
            stated_g=10.0 + 8 * k,
            station=Station(200.0 + 20 * k),
            slide=Slide(170.0 + 20 * k, 240.0 + 20 * k),
            option=k >= 3,
        )
        for k in range(6)
    )
    body = Part("body", "Body", Pedigree.LISTING, stated_g=320.0, station=Station(300.0))
    loadouts = tuple(
        Loadout(f"l{k}", f"Loadout {k}", tuple(f"m{3 + j}" for j in range(3) if k >> j & 1))
        for k in (1, 2, 4, 7)
    )
    spots = tuple(BallastSpot(f"s{k}", f"Spot {k}", 60.0 * k) for k in range(3))
    return Build(
        "b",
        "B",
        parts=(body, *sliding),
        loadouts=loadouts,
        targets=(Target(TargetKind.BALANCE, 240.0, 262.0, "", BalanceUnit.MM_FROM_NOSE),),
        ballast=Ballast(spots, (2.0, 2.0, 5.0, 5.0, 10.0, 20.0)),
    )
