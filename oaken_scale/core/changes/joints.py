"""The joints on the clock: spread, given the times of a label, taken off it."""

from collections.abc import Callable
from dataclasses import replace

from oaken_scale.core.material.joining import seam
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.joint import Joint
from oaken_scale.core.model.named import free_id


def spread(build: Build, joint: Joint, bead: tuple[str, float] | None = None) -> Build:
    """The build with a joint on its clock; with a ``bead`` (a lot, and how much of it) its glue is
    a part of the plane from now on, between those that it joins.

    Raises BuildFaultError where the lot is not one of the build's adhesives or tapes.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.lot import Lot, LotKind, LotUnit
    >>> glue = Lot("g", "Glue", LotUnit.M, 2.4, 0.6, kind=LotKind.ADHESIVE)
    >>> at = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> fin = Joint("j", "Fin", "hot-glue", at, 0, 40, 60, 600)
    >>> told = spread(Build("b", "B", lots=(glue,)), fin, ("g", 0.4))
    >>> told.parts[0].id, told.joints[0].parts
    ('fin', ('fin',))
    """
    if bead is None:
        return replace(build, joints=(*build.joints, joint))
    lot, amount = bead
    id = free_id(joint.name, (part.id for part in build.parts))
    glue = seam(build, id, joint.name, joint.parts, lot, amount)
    joint = replace(joint, parts=(*joint.parts, id))
    return replace(build, parts=(*build.parts, glue), joints=(*build.joints, joint))


def with_joint(build: Build, joint_id: str, change: Callable[[Joint], Joint]) -> Build:
    """The build with one of its joints changed: other times, or off the clock.

    >>> from datetime import UTC, datetime
    >>> at = datetime(2026, 3, 7, 12, tzinfo=UTC)
    >>> fin = Joint("j", "Fin", "hot-glue", at, 0, 40, 60, 600)
    >>> build = Build("b", "B", joints=(fin,))
    >>> with_joint(build, "j", lambda joint: replace(joint, cleared=True)).joints[0].cleared
    True
    """
    joints = (change(each) if each.id == joint_id else each for each in build.joints)
    return replace(build, joints=tuple(joints))
