"""A build's ledger and checks together: the plane as each loadout flies it."""

from dataclasses import dataclass
from typing import Final

from oaken_scale.core.flight.centre_of_gravity import Stations, stations
from oaken_scale.core.flight.flying import Flying, flying
from oaken_scale.core.flight.part_masses import been_on_pan
from oaken_scale.core.geometry.wing import WingFigures, wing_figures
from oaken_scale.core.ledger.mixture import Estimate, estimate
from oaken_scale.core.ledger.posterior import Posterior
from oaken_scale.core.model.arrays import Vector
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.target import Thrust
from oaken_scale.core.power.drive_aboard import power_of, thrust_of
from oaken_scale.core.trim.checks import CheckTold, checked

AS_BUILT: Final = ("as-built", "As built")
"""The loadout of a build that names none: everything aboard."""


@dataclass(frozen=True, slots=True, eq=False)
class Flown:
    """A build's ledger, and the plane as each loadout flies it.

    ``summed`` is the ledger of the weighings alone; ``after`` and ``where`` are the masses and the
    stations with the checks of the balance. ``been`` (N,) says what has been on a pan.
    """

    estimate: Estimate
    summed: Posterior
    after: Posterior
    where: Stations
    wing: WingFigures | None
    checks: tuple[CheckTold, ...]
    been: Vector
    planes: tuple[Flying, ...]
    names: tuple[tuple[str, str], ...]


def drive_of(
    build: Build, loadout: Loadout | None
) -> tuple[Thrust | None, tuple[float, float] | None]:
    """A loadout's own thrust, and the power that its pack gives.

    >>> drive_of(Build("b", "B"), None)
    (None, None)
    """
    return thrust_of(build, loadout), power_of(build, loadout)


def fly(build: Build) -> Flown:
    """Work out masses, stations and the CG of every loadout: what all else is told from.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> told = fly(Build("b", "B", parts=(Part("w", "Wing", Pedigree.GUESS, stated_g=90.0),)))
    >>> [round(plane.auw_g) for plane in told.planes]
    [90]
    """
    told, wing = estimate(build), wing_figures(build.surfaces)
    summed = told.after
    after, where, checks = checked(build, summed, stations(build, wing))
    been = been_on_pan(build, after)
    planes = tuple(
        flying(build, loadout, after, where, wing, been, told, *drive_of(build, loadout))
        for loadout in build.loadouts or (None,)
    )
    names = tuple((loadout.id, loadout.name) for loadout in build.loadouts) or (AS_BUILT,)
    return Flown(told, summed, after, where, wing, checks, been, planes, names)
