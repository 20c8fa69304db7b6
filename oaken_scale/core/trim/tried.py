"""What is tried in the place of a plane's own: packs and motors, listed or from the drawer."""

from collections.abc import Iterable
from dataclasses import dataclass

from oaken_scale.core.ledger.prior import own_doubt
from oaken_scale.core.material.drawer import Thing, motor_of, pack_of
from oaken_scale.core.model.lot import Known
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack


@dataclass(frozen=True, slots=True)
class TriedPack:
    """A pack to be tried: as listed, its mass and one sigma [g]; ``thing`` of the drawer that it
    is, None where it was only typed in."""

    pack: Pack
    mass_g: float
    doubt_g: float
    thing: str | None = None


@dataclass(frozen=True, slots=True)
class TriedMotor:
    """A motor to be tried, one of those that fly: as listed, its name and one sigma of its mass
    [g]."""

    motor: Motor
    name: str
    doubt_g: float
    thing: str | None = None


def listed_pack(pack: Pack, mass_g: float) -> TriedPack:
    """A pack as a shop lists it, its mass [g] as sure as any listing.

    >>> listed_pack(Pack("p", "2-cell 850", 2, 850.0), 52.0).doubt_g
    2.6
    """
    return TriedPack(pack, mass_g, _doubt_of_listing(mass_g))


def listed_motor(motor: Motor, name: str) -> TriedMotor:
    """A motor as a shop lists it, its mass as sure as any listing.

    >>> listed_motor(Motor(2300.0, 3.0), "Motor").doubt_g  # a fifth of a gram at least
    0.2
    """
    return TriedMotor(motor, name, _doubt_of_listing(motor.mass_g))


def in_drawer(
    things: Iterable[tuple[Thing, Known]],
) -> tuple[tuple[TriedPack, ...], tuple[TriedMotor, ...]]:
    """The packs and the motors among things and what each is known to weigh [g]: those that say
    what they are.

    >>> from oaken_scale.core.material.drawer import ThingKind
    >>> thing = Thing("t", "2-cell 850", ThingKind.PACK, 52.0, cells=2, capacity_mah=850.0)
    >>> packs, motors = in_drawer([(thing, Known(53.1, 0.1))])
    >>> packs[0].mass_g, packs[0].thing, motors
    (53.1, 't', ())
    """
    packs, motors = [], []
    for thing, weighs in things:
        pack, motor = pack_of(thing), motor_of(thing, weighs.value)
        if pack is not None:
            packs.append(TriedPack(pack, weighs.value, weighs.doubt, thing.id))
        elif motor is not None and weighs.value > 0:
            motors.append(TriedMotor(motor, thing.name, weighs.doubt, thing.id))
    return tuple(packs), tuple(motors)


def _doubt_of_listing(grams: float) -> float:
    return own_doubt(Part("tried", "Tried", Pedigree.LISTING, stated_g=grams), grams)
