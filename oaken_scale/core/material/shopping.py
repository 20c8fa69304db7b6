"""Shopping: sheets, rolls and rods wanted, what is in the rack already, and what it all costs."""

from dataclasses import dataclass
from math import ceil
from typing import Final

from oaken_scale.core.material.rack import waste
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.part import Part, Pedigree

NEARLY: Final = 1e-9
"""Sheets that come out whole are whole."""


@dataclass(frozen=True, slots=True)
class ShoppingLine:
    """One lot: what the parts use, with waste, and in sheets, rolls or pieces.

    ``used`` and ``wanted`` are in the lot's unit. ``sheets`` is the share of a sheet (or roll, or
    piece) that is wanted; ``to_buy`` whole ones beyond the stock. None where the lot's size is not
    known; the costs None where its price is not.
    """

    lot: str
    name: str
    used: float
    waste: float
    wanted: float
    size: float | None
    sheets: float | None
    stock: float
    to_buy: int | None
    cost_used: float | None
    cost_to_buy: float | None


@dataclass(frozen=True, slots=True)
class ThingLine:
    """One thing with a price of its own, or without one yet."""

    part: str
    name: str
    pieces: int
    price: float | None


@dataclass(frozen=True, slots=True)
class Shopping:
    """What a build eats and costs.

    ``airframe_cost`` is of all that is cut or run from lots, by the share that is used;
    ``everything_cost`` adds the things; ``unpriced`` names what has no price.
    """

    lots: tuple[ShoppingLine, ...]
    things: tuple[ThingLine, ...]
    airframe_cost: float
    everything_cost: float
    to_buy_cost: float
    unpriced: tuple[str, ...]


def shopping(build: Build) -> Shopping:
    """The list for a build: area or run by lot, times its waste, over a sheet's size.

    Pockets are cut out of sheet that was bought, so negative uses save nothing. Retired parts were
    cut too: they count as long as they stand in the build.

    Source: docs/methods.md, section 7.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.lot import LotKind, LotUnit, Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM, length_mm=700,
    ...     width_mm=500, price=3.0, stock=1.0)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 56.0),))
    >>> line = shopping(Build("b", "B", lots=(sheet,), parts=(wing,))).lots[0]
    >>> line.wanted, line.sheets, line.to_buy, line.cost_used, line.cost_to_buy
    (70.0, 2.0, 1, 6.0, 3.0)
    """
    used = {lot.id: 0.0 for lot in build.lots}
    for part in build.parts:
        for use in part.uses:
            used[use.lot] += max(use.amount, 0.0)
    lots = tuple(_line(lot, used[lot.id]) for lot in build.lots if used[lot.id] > 0)
    things = tuple(
        ThingLine(part.id, part.name, part.pieces, part.price)
        for part in build.parts
        if not part.retired and _is_bought(part)
    )
    airframe = sum(line.cost_used or 0.0 for line in lots)
    return Shopping(
        lots=lots,
        things=things,
        airframe_cost=airframe,
        everything_cost=airframe + sum(thing.price or 0.0 for thing in things),
        to_buy_cost=sum(line.cost_to_buy or 0.0 for line in lots),
        unpriced=(
            *(line.name for line in lots if line.cost_used is None),
            *(thing.name for thing in things if thing.price is None),
        ),
    )


def _is_bought(part: Part) -> bool:
    """Whether a part is bought as it is: it is cut from no lot, or has a price of its own."""
    if part.price is not None or part.thing:
        return True
    return not part.uses and part.host is None and part.pedigree is not Pedigree.ALLOWANCE


def cost(lot: Lot, amount: float) -> float | None:
    """What an amount of a lot costs with its waste; None without a price or a size.

    >>> from oaken_scale.core.model.lot import LotKind, LotUnit
    >>> sheet = Lot("a", "A", LotUnit.DM2, 4.6, 0.4, kind=LotKind.FOAM, length_mm=700, width_mm=500,
    ...             price=3.5, waste=1.2)
    >>> round(cost(sheet, 7.0), 2)
    0.84
    """
    if lot.price is None or not lot.size:
        return None
    return lot.price * amount * waste(lot) / lot.size


def _line(lot: Lot, used: float) -> ShoppingLine:
    wanted = used * waste(lot)
    sheets = None if not lot.size else wanted / lot.size
    stock = lot.stock or 0.0
    to_buy = None if sheets is None else max(0, ceil(sheets - stock - NEARLY))
    return ShoppingLine(
        lot=lot.id,
        name=lot.name,
        used=used,
        waste=waste(lot),
        wanted=wanted,
        size=lot.size,
        sheets=sheets,
        stock=stock,
        to_buy=to_buy,
        cost_used=cost(lot, used),
        cost_to_buy=None if lot.price is None or to_buy is None else to_buy * lot.price,
    )
