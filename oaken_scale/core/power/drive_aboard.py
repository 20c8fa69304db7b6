"""The drive that flies in a loadout: which pack, how strong with it half used, how sure that is."""

from collections import deque
from typing import Final

from oaken_scale.core.flight.flying import THRUST_DOUBT
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.power import FULL_V_PER_CELL, Pack, Power, Propeller
from oaken_scale.core.model.recall import recalled
from oaken_scale.core.model.target import Thrust
from oaken_scale.core.power.drive_estimate import DriveEstimate, Predicted, estimate_drive
from oaken_scale.core.power.drive_readings import Stated
from oaken_scale.core.power.drive_train import HALF_V_PER_CELL


def drive_estimate(power: Power, thrust: Thrust | None) -> DriveEstimate:
    """What runs, listings and a stated thrust tell of a drive; remembered while nobody changes
    them, whatever is flown meanwhile.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> told = drive_estimate(drive, None).predict("s3", "p8", 1.0, 4.2)
    >>> round(told.thrust_gf), round(told.pack_a, 1)
    (1130, 23.1)
    """
    return _estimate(as_measured(power), thrust)


_BEFORE: Final[deque[Power]] = deque(maxlen=32)
"""The last drives that differ in what a run tells of."""


@recalled(keep=64)
def as_measured(power: Power) -> Power:
    """A drive for what runs and listings tell of it: one object for all that have motor, packs,
    propellers and runs alike, so that what was worked out of it is remembered while flights are
    written down and ratings typed.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> from dataclasses import replace
    >>> as_measured(drive) is as_measured(replace(drive, plug_a=40.0))
    True
    """
    bare = Power(
        power.motor,
        power.motors,
        propellers=power.propellers,
        packs=power.packs,
        runs=power.runs,
    )
    for before in tuple(_BEFORE):
        if before == bare:
            return before
    _BEFORE.appendleft(bare)
    return bare


@recalled(keep=16)
def _estimate(power: Power, thrust: Thrust | None) -> DriveEstimate:
    if thrust is None or thrust.thrust_gf <= 0:
        return estimate_drive(power)
    doubt = THRUST_DOUBT * thrust.thrust_gf if thrust.doubt_gf is None else thrust.doubt_gf
    return estimate_drive(power, stated=Stated(thrust.thrust_gf, max(doubt, 1.0)))


def pack_aboard(build: Build, loadout: Loadout | None) -> Pack | None:
    """The first of the drive's packs that flies with a loadout.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> pack_aboard(build, None).id
    's3'
    """
    if build.power is None:
        return None
    aboard = {part.id for part, on in zip(build.parts, build.aboard(loadout), strict=True) if on}
    return next((each for each in build.power.packs if each.part in aboard), None)


def thrust_of(build: Build, loadout: Loadout | None) -> Thrust | None:
    """A loadout's own static thrust [gf] with its pack half used, by the drive's runs and listings;
    as stated where the drive has none of the packs aboard, or no propeller.

    Its line is the stated one's.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> told = thrust_of(build, None)
    >>> round(told.thrust_gf), told.source
    (972, '3 cells: guess')
    """
    pack, power = pack_aboard(build, loadout), build.power
    if power is None or pack is None or not power.propellers:
        return build.thrust
    found = at_full(power, build.thrust, pack, power.propellers[0], HALF_V_PER_CELL)
    stated = build.thrust or Thrust(0.0)
    source = f"{pack.name}: {found.known}"
    line = (stated.line_z_mm, stated.line_y_mm)
    return Thrust(found.thrust_gf, found.thrust_sd_gf, source, *line)


def power_of(build: Build, loadout: Loadout | None) -> tuple[float, float] | None:
    """What a loadout's fresh pack gives at full throttle, one sigma [W]; None without one of the
    drive's packs aboard, or without a propeller.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> watts, sd = power_of(build, None)
    >>> round(watts), bool(0 < sd < watts)
    (276, True)
    """
    pack, power = pack_aboard(build, loadout), build.power
    if power is None or pack is None or not power.propellers:
        return None
    found = at_full(power, build.thrust, pack, power.propellers[0], FULL_V_PER_CELL)
    return found.power_w, found.power_sd_w


def at_full(
    power: Power, thrust: Thrust | None, pack: Pack, propeller: Propeller, per_cell: float
) -> Predicted:
    """A drive at full throttle with one of its packs and propellers, the pack rested at so many
    volts a cell; remembered.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.power import Motor
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60, 0.06, 1.2), propellers=(Propeller("p8", "8 by 4", 203, 102),),
    ...     packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> build = Build("b", "B", parts=(part,), power=drive)
    >>> told = at_full(drive, None, drive.packs[0], drive.propellers[0], 4.2)
    >>> round(told.power_w)
    276
    """
    return _at_full(as_measured(power), thrust, pack, propeller, per_cell)


@recalled(keep=64)
def _at_full(
    power: Power, thrust: Thrust | None, pack: Pack, propeller: Propeller, per_cell: float
) -> Predicted:
    return _estimate(power, thrust).predict(pack.id, propeller.id, 1.0, per_cell)
