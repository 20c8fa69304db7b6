"""The plane as it was at a moment."""

from dataclasses import replace
from datetime import datetime

from oaken_scale.core.model.build import Build


def as_of(build: Build, day: datetime) -> Build:
    """The plane as it was at a moment: its parts of then, and the readings up to then.

    A reading that was set aside since stays aside: a slip was one then as well. A part whose
    adding nobody dated was there from the start.

    >>> from datetime import UTC, timedelta
    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> noon = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> fin = Part("fin", "Fin", Pedigree.GUESS, stated_g=4.0, added_at=noon)
    >>> build = Build("b", "B", parts=(fin,))
    >>> len(as_of(build, noon).parts), len(as_of(build, noon - timedelta(hours=1)).parts)
    (1, 0)
    """
    weighings = tuple(each for each in build.weighings if each.at <= day)
    spoken_of = {load.part for each in weighings for load in each.pan.loads}
    parts = tuple(
        replace(part, retired=False, retired_at=None)
        if part.retired and part.retired_at is not None and part.retired_at > day
        else part
        for part in build.parts
        if part.added_at is None or part.added_at <= day or part.id in spoken_of
    )
    kept = {part.id for part in parts}
    return replace(
        build,
        parts=parts,
        weighings=weighings,
        loadouts=tuple(
            replace(each, carries=tuple(id for id in each.carries if id in kept))
            for each in build.loadouts
        ),
        joints=tuple(
            replace(each, parts=tuple(id for id in each.parts if id in kept))
            for each in build.joints
            if each.spread_at <= day
        ),
        diary=tuple(
            replace(each, parts=tuple(id for id in each.parts if id in kept))
            for each in build.diary
            if each.at <= day
        ),
        checks=tuple(
            replace(each, stood=tuple(one for one in each.stood if one.part in kept))
            for each in build.checks
            if each.at <= day
        ),
        finished_at=build.finished_at if build.finished_at and build.finished_at <= day else None,
    )
