"""Everything that is wrong with a build, field by field."""

from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.balance import (
    balance_faults,
    joint_faults,
    loadout_faults,
    target_faults,
)
from oaken_scale.core.model.faults.drawing import body_faults, surface_faults
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault, twice
from oaken_scale.core.model.faults.log import log_faults
from oaken_scale.core.model.faults.parts import (
    budget_faults,
    curing_faults,
    habit_faults,
    life_faults,
    lot_faults,
    part_faults,
)
from oaken_scale.core.model.faults.power import field_faults, flight_faults, power_faults


def faults(build: Build) -> tuple[Fault, ...]:
    """Everything that does not fit together in a build: references, duplicates, ranges.

    Plain ranges of single numbers are the edge's affair; this finds what only the whole shows.

    >>> from oaken_scale.core.model.lot import Use
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> tail = Part("tail", "Tail", Pedigree.CALCULATED, uses=(Use("sheet-b", 5.0),))
    >>> faults(Build("b", "B", parts=(tail,)))[0].words
    'no lot "sheet-b" in this build; it has none'
    """
    return (
        *twice("lots", [lot.id for lot in build.lots]),
        *twice("parts", [part.id for part in build.parts]),
        *twice("surfaces", [surface.id for surface in build.surfaces]),
        *twice("bodies", [body.id for body in build.bodies]),
        *twice("bays", [bay.id for bay in build.bays]),
        *twice("scales", [scale.id for scale in build.scales]),
        *twice("containers", [container.id for container in build.containers]),
        *twice("loadouts", [loadout.id for loadout in build.loadouts]),
        *twice("joints", [joint.id for joint in build.joints]),
        *twice("targets", [target.kind for target in build.targets]),
        *twice("diary", [each.id for each in build.diary]),
        *twice("checks", [each.id for each in build.checks]),
        *twice("habits", [each.pedigree for each in build.habits]),
        *twice("ballast.spots", [spot.id for spot in build.ballast.spots]),
        *habit_faults(build),
        *life_faults(build),
        *balance_faults(build),
        *twice("weighings", [weighing.id for weighing in build.weighings]),
        *lot_faults(build),
        *part_faults(build),
        *budget_faults(build),
        *power_faults(build),
        *flight_faults(build),
        *field_faults(build),
        *loadout_faults(build),
        *joint_faults(build),
        *(fault for k, target in enumerate(build.targets) for fault in target_faults(k, target)),
        *(fault for k, each in enumerate(build.surfaces) for fault in surface_faults(k, each)),
        *(fault for k, each in enumerate(build.lots) for fault in curing_faults(k, each)),
        *(fault for k, each in enumerate(build.bodies) for fault in body_faults(k, each)),
        *log_faults(build),
    )


def validated(build: Build) -> Build:
    """Return the build, or raise :class:`BuildFaultError` with all that is wrong with it.

    >>> validated(Build("b", "B")).id
    'b'
    """
    found = faults(build)
    if found:
        raise BuildFaultError(found)
    return build
