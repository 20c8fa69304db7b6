"""Glueing parts together is one act: the seam becomes a part with a prior of its own."""

from oaken_scale.core.flight.centre_of_gravity import x_from_nose
from oaken_scale.core.geometry.wing import wing_figures
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.lot import LotKind, Use
from oaken_scale.core.model.part import Part, Pedigree, Station


def seam(
    build: Build, id: str, name: str, joined: tuple[str, ...], lot_id: str, amount: float
) -> Part:
    """The glue or tape between parts: so much of a lot, halfway between them, in their assembly.

    Its mass is found by weighing the parts before and the whole after. The station is the middle of
    those that have one, from the nose; none of them placed, it is not placed either.

    Raises BuildFaultError where the lot is not one of the build's adhesives or tapes.

    >>> from oaken_scale.core.model.lot import Lot, LotUnit
    >>> glue = Lot("g", "Glue", LotUnit.M, 2.4, 0.6, kind=LotKind.ADHESIVE)
    >>> parts = tuple(Part(id, id, Pedigree.GUESS, "Tail", stated_g=5.0, station=Station(x))
    ...     for id, x in (("fin", 740.0), ("tailplane", 760.0)))
    >>> made = seam(Build("b", "B", lots=(glue,), parts=parts), "j", "Seam",
    ...     ("fin", "tailplane"), "g", 0.4)
    >>> made.station.x_mm, made.assembly, made.uses[0].amount, made.pedigree.value
    (750.0, 'Tail', 0.4, 'joint')
    """
    joins = [lot for lot in build.lots if lot.kind in (LotKind.ADHESIVE, LotKind.TAPE)]
    lot = next((each for each in joins if each.id == lot_id), None)
    if lot is None:
        known = ", ".join(each.id for each in joins) or "none"
        words = f'"{lot_id}" is no adhesive or tape of this build; it has {known}'
        raise BuildFaultError([Fault("bead.lot", words)])
    together = [part for part in build.parts if part.id in joined]
    wing = wing_figures(build.surfaces)
    at = [
        (x_from_nose(p.station.x_mm, p.station.reference, wing), p.station.y_mm, p.station.z_mm)
        for p in together
        if p.station is not None
    ]
    middle = [sum(axis) / len(at) for axis in zip(*at, strict=True)] if at else None
    assemblies = {each.assembly for each in together}
    return Part(
        id=id,
        name=name,
        pedigree=Pedigree.COVERING if lot.kind is LotKind.TAPE else Pedigree.JOINT,
        assembly=assemblies.pop() if len(assemblies) == 1 else "",
        uses=(Use(lot.id, amount),),
        station=None if middle is None else Station(*middle),
    )
