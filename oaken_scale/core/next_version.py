"""The next version of a plane: its plan again, with what this one taught."""

from dataclasses import replace

from oaken_scale.core.assess import Assessment
from oaken_scale.core.changes.outing import next_version as field_of_next
from oaken_scale.core.flight.forecast import Mark
from oaken_scale.core.flight.stages import reference_of
from oaken_scale.core.ledger.prior import is_unknown
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.part import Pedigree


def next_version(build: Build, assessment: Assessment, name: str) -> Build:
    """A build to be made again, nothing of it weighed, thrown or finished yet.

    What its parts were found to weigh are the figures of the next; repairs and what was taken off
    are left behind, and it is measured by this one. Controls, lines of the list and wishes come
    along; runs of the drive do, flights do not.

    >>> from oaken_scale.core.assess import assess
    >>> from oaken_scale.core.model.part import Part
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=90.0)
    >>> plane = Build("b", "B", parts=(wing,))
    >>> told = next_version(plane, assess(plane), "B 2")
    >>> told.name, told.reference_build.name, told.parts[0].stated_g
    ('B 2', 'B', 90.0)
    """
    weighs = {each.id: each.mass_g for each in assessment.parts}
    known = {each.id for each in assessment.parts if each.mark in (Mark.WEIGHED, Mark.DIFFERENCE)}
    parts = tuple(
        replace(
            part,
            stated_g=round(weighs[part.id], 2)
            if part.stated_g is not None or (is_unknown(part) and part.id in known)
            else None,
            added_at=None,
            replaces=None,
        )
        if part.pedigree is not Pedigree.ALLOWANCE
        else part
        for part in build.parts
        if not part.retired and part.host is None
    )
    here = {part.id for part in parts}
    power = build.power
    return replace(
        build,
        name=name,
        parts=parts,
        loadouts=tuple(
            replace(each, carries=tuple(id for id in each.carries if id in here))
            for each in build.loadouts
        ),
        joints=(),
        diary=(),
        checks=(),
        weighings=(),
        finished_at=None,
        variant_of=None,
        reference_build=reference_of(assessment.so_far, build.name),
        power=None if power is None else replace(power, flights=()),
        field=field_of_next(build.field),
        day=replace(build.day, done=()),
    )
