"""Parts as they come onto the list, change and leave it."""

from dataclasses import replace
from datetime import datetime
from enum import StrEnum

from oaken_scale.core.changes.drive import without_part
from oaken_scale.core.model.build import Build, Loadout
from oaken_scale.core.model.part import Part


class BoundBy(StrEnum):
    """What keeps a part on the list: records that speak of it and are never rewritten."""

    BALANCED = "balanced"
    WEIGHED = "weighed"


def bound_by(build: Build, part_id: str) -> BoundBy | None:
    """Why a part can only be retired; None where it may leave the list.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.weighing import Load, Pan, Weighing
    >>> at = datetime(2026, 3, 7)
    >>> log = (Weighing("w", at, "s", 40.0, Pan((Load("box"),))),)
    >>> build = Build("b", "B", parts=(Part("box", "Box", Pedigree.GUESS),), weighings=log)
    >>> bound_by(build, "box").value, bound_by(replace(build, weighings=()), "box")
    ('weighed', None)
    """
    if any(one.part == part_id for each in build.checks for one in each.stood):
        return BoundBy.BALANCED
    if any(load.part == part_id for each in build.weighings for load in each.pan.loads):
        return BoundBy.WEIGHED
    return None


def with_part(build: Build, part: Part) -> Build:
    """The build with one more part on its list.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> len(with_part(Build("b", "B"), Part("box", "Box", Pedigree.GUESS)).parts)
    1
    """
    return replace(build, parts=(*build.parts, part))


def with_part_changed(build: Build, fresh: Part, at: datetime) -> Build:
    """The build with a part as it is now, retired ``at`` where it was not before; what is no option
    any more is carried by no loadout.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> camera = Part("camera", "Camera", Pedigree.LISTING, stated_g=62.0, option=True)
    >>> film = Loadout("film", "Film", ("camera",))
    >>> build = Build("b", "B", parts=(camera,), loadouts=(film,))
    >>> told = with_part_changed(build, replace(camera, option=False), datetime(2026, 3, 7))
    >>> told.loadouts[0].carries, told.parts[0].retired_at
    ((), None)
    """
    before = next(each for each in build.parts if each.id == fresh.id)
    if fresh.retired != before.retired:
        fresh = replace(fresh, retired_at=at if fresh.retired else None)
    parts = tuple(fresh if each.id == fresh.id else each for each in build.parts)
    loadouts = build.loadouts if fresh.option else _carried_by_none(build.loadouts, fresh.id)
    return replace(build, parts=parts, loadouts=loadouts)


def without(build: Build, part_id: str) -> Build:
    """The build without a part on its list, in its loadouts and among its drive's packs.

    Whether it may go is :func:`bound_by`'s to say.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> film = Loadout("film", "Film", ("camera",))
    >>> camera = Part("camera", "Camera", Pedigree.LISTING, stated_g=62.0, option=True)
    >>> told = without(Build("b", "B", parts=(camera,), loadouts=(film,)), "camera")
    >>> told.parts, told.loadouts[0].carries
    ((), ())
    """
    parts = tuple(each for each in build.parts if each.id != part_id)
    loadouts = _carried_by_none(build.loadouts, part_id)
    return replace(without_part(build, part_id), parts=parts, loadouts=loadouts)


def _carried_by_none(loadouts: tuple[Loadout, ...], part_id: str) -> tuple[Loadout, ...]:
    return tuple(
        replace(each, carries=tuple(id for id in each.carries if id != part_id))
        for each in loadouts
    )
