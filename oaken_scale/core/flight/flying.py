"""What one loadout carries and how it comes out: its mass, its centre of gravity and what is not
believed of them, for the metrics to share."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from oaken_scale.core.flight.centre_of_gravity import CentreOfGravity, Stations, centre_of_gravity
from oaken_scale.core.geometry.wing import WingFigures
from oaken_scale.core.ledger.mixture import Estimate
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Matrix, Vector
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import Target, TargetKind, Thrust

THRUST_DOUBT: Final = 0.10
"""Doubt of a stated thrust, as a fraction, where none is given."""


@dataclass(frozen=True, slots=True, eq=False)
class Flying:
    """What one loadout carries and how it comes out, for the answers to share.

    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> nose = Part("nose", "Nose", Pedigree.GUESS, stated_g=50.0)
    >>> build = Build("b", "B", parts=(nose,))
    >>> plane = flying(build, None, solve(build), stations(build, None), None, np.zeros(1))
    >>> plane.has_mass, plane.thrust_sd_gf, plane.target(TargetKind.AUW)
    (True, 0.0, None)
    >>> plane.believed_auw_g, plane.believed_x_mm  # no reading is doubted
    (None, None)
    """

    build: Build
    wing: WingFigures | None
    where: Stations
    after: Posterior
    aboard: Vector
    auw_g: float
    auw_sd_g: float
    cg: CentreOfGravity | None
    fully_weighed: bool
    forms: tuple[tuple[float, float, float], ...] = ()
    """The mixture's branches: share, all-up weight and its doubt [g]."""
    disbelieving: tuple[str, ...] = ()
    """The readings that are not believed."""
    believing_g: Vector | None = None
    """Part masses if they are right, shape (N,); None where nothing is doubted."""
    unchecked_scale: str | None = None
    """A scale that felt what is aboard, and no known weight."""
    thrust: Thrust | None = None
    """This loadout's own."""
    power: tuple[float, float] | None = None
    """From its fresh pack at full throttle, one sigma [W]."""

    @property
    def thrust_sd_gf(self) -> float:
        """One sigma of its thrust [gf]; 0 where it has none."""
        if self.thrust is None:
            return 0.0
        given = self.thrust.doubt_gf
        return THRUST_DOUBT * self.thrust.thrust_gf if given is None else given

    @property
    def has_mass(self) -> bool:
        """Whether anything aboard weighs anything: before that there is nothing to tell."""
        return self.auw_g > 0

    @property
    def placed_g(self) -> float:
        """What has a place aboard [g]: what has none sits where the rest balances, and moves with
        it."""
        return float(self.after.mass @ (self.aboard * self.where.placed))

    @property
    def believed_auw_g(self) -> float | None:
        """All-up weight if the readings that are not believed are right [g]."""
        return None if self.believing_g is None else float(self.believing_g @ self.aboard)

    @property
    def believed_x_mm(self) -> float | None:
        """The CG along x then [mm from the nose]."""
        if self.believing_g is None:
            return None
        here = self.believing_g * self.aboard * self.where.placed
        total = float(here.sum())
        return float(here @ self.where.xyz[:, 0]) / total if total > 0 else None

    def target(self, kind: TargetKind) -> Target | None:
        """The build's target of a kind."""
        return next((target for target in self.build.targets if target.kind is kind), None)


def flying(
    build: Build,
    loadout: Loadout | None,
    after: Posterior,
    where: Stations,
    wing: WingFigures | None,
    been_on_pan: Vector,
    told: Estimate | None = None,
    thrust: Thrust | None = None,
    power: tuple[float, float] | None = None,
) -> Flying:
    """Work out mass and CG of a loadout. ``been_on_pan`` (N,) says which parts a pan has felt,
    ``told`` which readings are not believed; ``thrust`` and ``power`` are the loadout's own.

    >>> from oaken_scale.core.flight.centre_of_gravity import stations
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree, Station
    >>> ends = [Part(k, k, Pedigree.GUESS, stated_g=50.0, station=Station(x)) for k, x in
    ...     (("nose", 0.0), ("tail", 300.0))]
    >>> build = Build("b", "B", parts=tuple(ends))
    >>> plane = flying(build, None, solve(build), stations(build, None), None, np.zeros(2))
    >>> plane.auw_g, plane.cg.x_mm
    (100.0, 150.0)
    """
    aboard = aboard_of(build, loadout)
    auw, auw_sd = after.total(aboard)
    forms: tuple[tuple[float, float, float], ...] = ()
    if told is not None and told.after is after and len(told.branches) > 1:
        here = after.parts
        forms = tuple(
            (each.share, float(aboard @ each.mean[here]), _sd(each.cov[here, here], aboard))
            for each in told.branches
        )
    return Flying(
        build=build,
        wing=wing,
        where=where,
        after=after,
        aboard=aboard,
        auw_g=auw,
        auw_sd_g=auw_sd,
        cg=centre_of_gravity(after.mass, after.mass_cov, where, aboard),
        fully_weighed=bool(aboard.any() and (been_on_pan[aboard > 0] > 0).all()),
        forms=forms,
        disbelieving=() if told is None else told.disbelieving,
        believing_g=told.believing.mass if told is not None and told.doubts else None,
        unchecked_scale=unchecked_scale(build, after, aboard),
        thrust=thrust,
        power=power,
    )


def aboard_of(build: Build, loadout: Loadout | None) -> Vector:
    """What flies with a loadout, 0 or 1, shape (N,).

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> parts = (Part("w", "Wing", Pedigree.GUESS, stated_g=90.0),
    ...         Part("c", "Camera", Pedigree.LISTING, stated_g=62.0, option=True))
    >>> aboard_of(Build("b", "B", parts=parts), Loadout("light", "Light")).tolist()
    [1.0, 0.0]
    """
    return _as_numbers(build.aboard(loadout))


@recalled(keep=32)
def _as_numbers(flags: tuple[bool, ...]) -> Vector:
    return np.array(flags, dtype=float)


def _sd(cov: Matrix, weight: Vector) -> float:
    return float(max(float(weight @ cov @ weight), 0.0) ** 0.5)


def unchecked_scale(build: Build, after: Posterior, aboard: Vector) -> str | None:
    """The scale that felt most of what is aboard while no known weight was ever on it; None where
    every scale was checked. It shows in nothing that is weighed on it.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.ledger.posterior import solve
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Scale, Weighing
    >>> motor = Part("m", "Motor", Pedigree.LISTING, stated_g=60.0)
    >>> log = (Weighing("r", datetime(2026, 3, 7, tzinfo=UTC), "s", 63.0, Pan((Load("m"),))),)
    >>> build = Build("x", "X", parts=(motor,), scales=(Scale("s", "S", 0.1),), weighings=log)
    >>> unchecked_scale(build, solve(build), np.ones(1))
    's'
    """
    pans, scale = after.of.loading, after.of.scale
    checked = set(scale[after.of.known_g > 0].tolist())
    mass = aboard * after.mass
    grams = {
        k: float(pans.felt_in(scale == k)[after.parts] @ mass)
        for k in dict.fromkeys(scale.tolist())
        if k not in checked
    }
    most = max(grams, key=lambda k: grams[k], default=None)
    return build.scales[most].id if most is not None and grams[most] > 0 else None
