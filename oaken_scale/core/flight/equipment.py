"""What a plane carries besides its airframe, where the craft asks otherwise for it: whether it is
thrown, whether a pack flies in it, whether anything steers it."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from oaken_scale.core.flight.budget import group_of
from oaken_scale.core.flight.lateral_pairs import pairs
from oaken_scale.core.flight.verdict import Missing
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.kind_named import names_a_drive_pack, names_a_motor, names_a_propeller
from oaken_scale.core.model.part import Group, Part
from oaken_scale.core.model.presets import PURPOSES
from oaken_scale.core.model.target import TargetKind


@dataclass(frozen=True, slots=True)
class Equipment:
    """``thrown``: by hand, with no motor to reckon with; ``drive``: something of one is aboard, or
    one was listed; ``pack``: it is to fly with one, as all do but what is thrown without;
    ``controls``: something steers it."""

    thrown: bool
    drive: bool
    pack: bool
    controls: bool


def equipment(build: Build, parts: Sequence[Part]) -> Equipment:
    """What a plane of these ``parts`` carries.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> wing = Part("w", "Wing", Pedigree.GUESS, stated_g=20.0)
    >>> equipment(Build("b", "B", purpose="glider"), [wing])
    Equipment(thrown=True, drive=False, pack=False, controls=False)
    >>> equipment(Build("b", "B", purpose="park"), [wing])
    Equipment(thrown=False, drive=False, pack=True, controls=False)
    """
    lots = {lot.id: lot for lot in build.lots}
    groups = {group_of(part, lots) for part in parts}
    listed = build.power is not None or build.thrust is not None
    drive, thrown = listed or Group.POWER in groups, is_thrown(build)
    return Equipment(
        thrown=thrown,
        drive=drive,
        pack=drive or not thrown,
        controls=drive or Group.CONTROL in groups,
    )


def drive_lacks(build: Build, aboard: Iterable[bool]) -> Missing | None:
    """What the drive of a build is not told without, where these of its parts are aboard.

    None where it can be told.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> from oaken_scale.core.model.power import Motor, Pack, Power
    >>> part = Part("pack", "Pack", Pedigree.LISTING, stated_g=120.0)
    >>> drive = Power(Motor(1400, 60), packs=(Pack("s3", "3 cells", 3, 1300, part="pack"),))
    >>> drive_lacks(Build("b", "B", parts=(part,), power=drive), [True]).value
    'propeller'
    """
    power = build.power
    if power is None:
        return Missing.DRIVE
    if not power.propellers:
        return Missing.PROPELLER if power.packs else Missing.DRIVEN
    if not power.packs:
        return Missing.PACK
    flies = {part.id for part, on in zip(build.parts, aboard, strict=True) if on}
    return None if any(pack.part in flies for pack in power.packs) else Missing.PACK_ABOARD


def packs_at_once(build: Build) -> tuple[str, ...]:
    """Which parts called flight packs fly at once with some loadout, where there is more than one
    that is not the twin of another; a builder may have meant one at a time.

    >>> from oaken_scale.core.model.part import Pedigree
    >>> packs = tuple(Part(name, name, Pedigree.LISTING, stated_g=90.0)
    ...     for name in ("3S 1300", "3S 850", "Receiver pack"))
    >>> packs_at_once(Build("b", "B", parts=packs))
    ('3S 1300', '3S 850')
    >>> packs_at_once(Build("b", "B", parts=packs[1:]))
    ()
    """
    twins = pairs(build.parts)
    for loadout in build.loadouts or (None,):
        aboard = build.aboard(loadout)
        packs = {
            i for i, part in enumerate(build.parts) if aboard[i] and names_a_drive_pack(part.name)
        }
        packs -= {right for left, right in twins if left in packs}
        if len(packs) > 1:
            return tuple(build.parts[i].id for i in sorted(packs))
    return ()


def is_thrown(build: Build) -> bool:
    """Whether a build has no motor: its purpose asks for none, no part is called one, and neither a
    drive, a thrust nor a target for one was ever stated.

    >>> from oaken_scale.core.model.target import Thrust
    >>> is_thrown(Build("b", "B", purpose="glider"))
    True
    >>> is_thrown(Build("b", "B", purpose="glider", thrust=Thrust(60.0)))
    False
    """
    wanted = {target.kind for target in build.targets}
    return (
        any(each.id == build.purpose and each.thrown for each in PURPOSES)
        and build.power is None
        and build.thrust is None
        and not wanted & {TargetKind.THRUST_TO_WEIGHT, TargetKind.POWER_LOADING}
        and not any(
            names_a_motor(part.name) or names_a_propeller(part.name)
            for part in build.parts
            if not part.retired
        )
    )
