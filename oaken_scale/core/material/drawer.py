"""The electronics drawer: things that move from build to build and carry their weighing along."""

from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

from oaken_scale.core.ledger.prior import DOUBT, LISTING_FLOOR_G
from oaken_scale.core.model.part import Group, Part, Pedigree
from oaken_scale.core.model.power import Motor, Pack
from oaken_scale.core.power.as_named import (
    capacity_named,
    cells_named,
    kv_named,
    rating_named,
)


class ThingKind(StrEnum):
    """What lies in the drawer."""

    MOTOR = "motor"
    CONTROLLER = "controller"
    PROPELLER = "propeller"
    PACK = "pack"
    SERVO = "servo"
    RECEIVER = "receiver"
    WIRING = "wiring"
    CAMERA = "camera"
    OTHER = "other"


GROUPS: Final[dict[ThingKind, Group]] = {
    ThingKind.MOTOR: Group.POWER,
    ThingKind.CONTROLLER: Group.POWER,
    ThingKind.PROPELLER: Group.POWER,
    ThingKind.PACK: Group.POWER,
    ThingKind.SERVO: Group.CONTROL,
    ThingKind.RECEIVER: Group.CONTROL,
    ThingKind.WIRING: Group.CONTROL,
    ThingKind.CAMERA: Group.PAYLOAD,
    ThingKind.OTHER: Group.REST,
}

LEADS_SHARE: Final[dict[ThingKind, float]] = {
    ThingKind.MOTOR: 0.06,
    ThingKind.CONTROLLER: 0.25,
    ThingKind.PACK: 0.05,
    ThingKind.SERVO: 0.10,
}
"""What leads and plugs add to a listing that leaves them out, as a share of it; half of that is
its doubt."""


@dataclass(frozen=True, slots=True)
class Thing:
    """One thing in the drawer: its listing [g] for one, and whether that counts its leads.

    A pack is listed with its cells, what they hold [mAh] and its C rating, a motor with its Kv
    [rpm/V] and the current that it stands [A].
    """

    id: str
    name: str
    kind: ThingKind
    listing_g: float
    leads_included: bool = True
    price: float | None = None
    note: str = ""
    cells: int | None = None
    capacity_mah: float | None = None
    c_rating: float | None = None
    kv: float | None = None
    most_a: float | None = None


def as_its_name_says(thing: Thing) -> Thing:
    """A pack with the cells and the capacity, a motor with the Kv, that its name says and its
    listing left out.

    >>> laid = as_its_name_says(Thing("p", "Pack, 3-cell 1300", ThingKind.PACK, 108.0, cells=4))
    >>> laid.cells, laid.capacity_mah
    (4, 1300.0)
    """
    if thing.kind is ThingKind.PACK:
        return replace(
            thing,
            cells=thing.cells or cells_named(thing.name),
            capacity_mah=thing.capacity_mah or capacity_named(thing.name),
            c_rating=thing.c_rating or rating_named(thing.name),
        )
    if thing.kind is ThingKind.MOTOR:
        return replace(thing, kv=thing.kv or kv_named(thing.name))
    return thing


def expected(thing: Thing) -> tuple[float, float]:
    """What a thing should weigh with its leads, by its listing: mass and one sigma [g].

    A listing is 5 % in doubt, at least 0.2 g; one without its leads gains their usual share, half
    of which is in doubt. Source: docs/methods.md, section 7.

    >>> expected(Thing("m", "Motor", ThingKind.MOTOR, 44.0))
    (44.0, 2.2)
    >>> mass, sd = expected(Thing("c", "Controller", ThingKind.CONTROLLER, 20.0, False))
    >>> mass, round(sd, 3)
    (25.0, 2.693)
    """
    share = 0.0 if thing.leads_included else LEADS_SHARE.get(thing.kind, 0.0)
    leads = share * thing.listing_g
    listing = max(DOUBT[Pedigree.LISTING] * thing.listing_g, LISTING_FLOOR_G)
    return thing.listing_g + leads, (listing**2 + (leads / 2) ** 2) ** 0.5


def pack_of(thing: Thing) -> Pack | None:
    """The pack of a drive that a thing is; None where it is none, or does not say what it holds.

    >>> pack_of(Thing("p", "2-cell 850", ThingKind.PACK, 52.0, cells=2, capacity_mah=850.0)).cells
    2
    """
    if thing.kind is not ThingKind.PACK or thing.cells is None or thing.capacity_mah is None:
        return None
    return Pack(thing.id, thing.name, thing.cells, thing.capacity_mah, thing.c_rating)


def motor_of(thing: Thing, weighs_g: float) -> Motor | None:
    """The motor of a drive that a thing is, as it weighs [g]; None where it is none, or does not
    say how fast it turns.

    >>> motor_of(Thing("m", "Motor", ThingKind.MOTOR, 28.0, kv=2300.0), 28.4).mass_g
    28.4
    """
    if thing.kind is not ThingKind.MOTOR or thing.kv is None:
        return None
    return Motor(thing.kv, weighs_g, most_a=thing.most_a)


def fitted(thing: Thing, part_id: str) -> Part:
    """The thing as a part of a build, not placed yet.

    >>> fitted(Thing("p", "Pack", ThingKind.PACK, 74.0), "pack").option
    True
    """
    mass, doubt = expected(thing)
    return Part(
        id=part_id,
        name=thing.name,
        pedigree=Pedigree.LISTING,
        assembly="Power and control",
        stated_g=mass,
        doubt_g=doubt,
        option=thing.kind in (ThingKind.PACK, ThingKind.CAMERA),
        thing=thing.id,
        group=GROUPS[thing.kind],
        price=thing.price,
    )
