"""A crash and its repair in one act: what broke, what took its place, patches and glue."""

from dataclasses import dataclass, replace

from oaken_scale.core.changes.act import Act
from oaken_scale.core.changes.life import repaired, replaced, retired
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError, Fault
from oaken_scale.core.model.part import Part


@dataclass(frozen=True, slots=True)
class Damage:
    """One part that was hurt: mended with what is ``added`` to it, or ``replaced`` by another part,
    or, with neither, off the plane."""

    part: str
    added: tuple[Part, ...] = ()
    replaced: Part | None = None


def mended(build: Build, act: Act, damage: tuple[Damage, ...]) -> Build:
    """The build after a crash and its repair. All of it, or nothing.

    Raises BuildFaultError where nothing is said to be hurt, there is no such part, or one is both
    mended and replaced.

    >>> from datetime import UTC, datetime
    >>> from oaken_scale.core.model.part import Pedigree
    >>> pod = Part("pod", "Pod", Pedigree.GUESS, stated_g=30.0)
    >>> glue = Part("glue", "Glue", Pedigree.JOINT, stated_g=2.0)
    >>> act = Act(datetime(2026, 2, 22, tzinfo=UTC), "met a fence post")
    >>> after = mended(Build("b", "B", parts=(pod,)), act, (Damage("pod", (glue,)),))
    >>> [part.id for part in after.parts], after.diary[0].words
    (['pod', 'glue'], 'met a fence post')
    """
    if not damage:
        raise BuildFaultError([Fault("damage", "say what broke: at least one part")])
    act = replace(act, words=act.words.strip() or "Crashed and repaired")
    for k, each in enumerate(damage):
        if each.added and each.replaced is not None:
            words = "is both mended and replaced; say one of the two"
            raise BuildFaultError([Fault(f"damage.{k}", words)])
        if each.added:
            build = repaired(build, act, each.part, each.added)
        elif each.replaced is not None:
            build = replaced(build, act, each.part, each.replaced)
        else:
            build = retired(build, act, each.part)
    return build
