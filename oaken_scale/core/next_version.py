"""The next version of a plane: its plan again, with what this one taught."""

from dataclasses import replace

from oaken_scale.core.assess import Assessment
from oaken_scale.core.changes.outing import next_version as field_of_next
from oaken_scale.core.flight.forecast import Mark
from oaken_scale.core.flight.stages import past_of
from oaken_scale.core.ledger.prior import is_unknown
from oaken_scale.core.model.build import Build, Pedigree


def next_version(build: Build, assessment: Assessment, name: str) -> Build:
    """A build to be made again, nothing of it weighed, thrown or finished yet.

    What its parts were found to weigh are the figures of the next; repairs and what was taken off
    are left behind, and it is measured by this one. Controls, lines of the list and wishes come
    along; runs of the drive do, flights do not.

    >>> from oaken_scale.core.assess import assess
    >>> from oaken_scale.core.model.build import Item
    >>> wing = Item("w", "Wing", Pedigree.GUESS, stated_g=90.0)
    >>> plane = Build("b", "B", items=(wing,))
    >>> told = next_version(plane, assess(plane), "B 2")
    >>> told.name, told.past.name, told.items[0].stated_g
    ('B 2', 'B', 90.0)
    """
    weighs = {each.id: each.mass_g for each in assessment.items}
    known = {each.id for each in assessment.items if each.mark in (Mark.WEIGHED, Mark.DIFFERENCE)}
    items = tuple(
        replace(
            item,
            stated_g=round(weighs[item.id], 2)
            if item.stated_g is not None or (is_unknown(item) and item.id in known)
            else None,
            added_at=None,
            replaces=None,
        )
        if item.pedigree is not Pedigree.ALLOWANCE
        else item
        for item in build.items
        if not item.retired and item.host is None
    )
    here = {item.id for item in items}
    power = build.power
    return replace(
        build,
        name=name,
        items=items,
        loadouts=tuple(
            replace(each, carries=tuple(id for id in each.carries if id in here))
            for each in build.loadouts
        ),
        joints=(),
        happenings=(),
        checks=(),
        weighings=(),
        finished_at=None,
        variant_of=None,
        past=past_of(assessment.so_far, build.name),
        power=None if power is None else replace(power, flights=()),
        field=field_of_next(build.field),
        day=replace(build.day, done=()),
    )
