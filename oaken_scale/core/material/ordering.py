"""What is to be bought, for planes and for the workshop, with no build needed: where each thing is
had, what the ways to it cost, when it is there, and from how many on an order is worth its freight.

Source: docs/methods.md, section 7 (a fixed-charge problem, solved by HiGHS).
"""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import ceil
from typing import Final

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from oaken_scale.core.material.shopping import NEARLY, shopping
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot
from oaken_scale.core.model.named import free_id

MOST_WORTH: Final = 1000
"""So many of one thing are looked at; more make no order worth its freight."""

TAKEN: Final = 0.5
"""A binary that is more than this is 1."""


@dataclass(frozen=True, slots=True)
class Offer:
    """What one costs at a shop, and how many days later it is there (None: nobody said)."""

    shop: str
    price: float
    lead_days: float | None = None


@dataclass(frozen=True, slots=True)
class Wanted:
    """Something to be bought, so many of it; a tool or a charger flies with no plane."""

    id: str
    name: str
    count: int = 1
    offers: tuple[Offer, ...] = ()
    is_had: bool = False


@dataclass(frozen=True, slots=True)
class Freight:
    """What an order from a shop costs to be brought, and from which sum on it is free."""

    shop: str
    cost: float
    free_from: float | None = None

    def of(self, goods: float) -> float:
        """The freight of an order of so much.

        >>> Freight("far", 6.0, free_from=50.0).of(49.0), Freight("far", 6.0, 50.0).of(50.0)
        (6.0, 0.0)
        """
        return 0.0 if self.free_from is not None and goods >= self.free_from - NEARLY else self.cost


@dataclass(frozen=True, slots=True)
class OrderLine:
    """What of an order is wanted, and what it costs."""

    wanted: str
    name: str
    count: int
    cost: float
    lead_days: float | None


@dataclass(frozen=True, slots=True)
class Order:
    """All that is best had from one shop, and when the last of it is there."""

    shop: str
    lines: tuple[OrderLine, ...]
    goods: float
    freight: float
    lead_days: float | None


@dataclass(frozen=True, slots=True)
class Worth:
    """From how many on a thing is cheaper at one shop, freight and all, than at another; None for
    no number up to a thousand."""

    wanted: str
    name: str
    shop: str
    other: str
    count: int | None


@dataclass(frozen=True, slots=True)
class Buying:
    """The orders that cost least together, what has no price yet, and what makes freight worth
    it."""

    orders: tuple[Order, ...]
    total: float
    unpriced: tuple[str, ...]
    worth: tuple[Worth, ...]


def buying(wanted: Sequence[Wanted], freights: Sequence[Freight] = ()) -> Buying:
    """Where to buy what, so that goods and freight together cost least.

    >>> rod = Wanted("rod", "Carbon rod", 2, (Offer("near", 4.0), Offer("far", 2.5, 5.0)))
    >>> told = buying([rod], [Freight("far", 6.0)])
    >>> [(order.shop, order.goods, order.freight) for order in told.orders], told.worth[0].count
    ([('near', 8.0, 0.0)], 5)
    """
    open_ = [each for each in wanted if not each.is_had]
    priced = [each for each in open_ if each.offers]
    by_shop = {each.shop: each for each in freights}
    chosen = _cheapest(priced, by_shop)
    lines: dict[str, list[OrderLine]] = defaultdict(list)
    for each, offer in zip(priced, chosen, strict=True):
        cost = each.count * offer.price
        lines[offer.shop].append(OrderLine(each.id, each.name, each.count, cost, offer.lead_days))
    orders = tuple(_order(shop, tuple(lines[shop]), by_shop) for shop in sorted(lines))
    return Buying(
        orders=orders,
        total=sum(each.goods + each.freight for each in orders),
        unpriced=tuple(each.name for each in open_ if not each.offers),
        worth=tuple(each for one in priced for each in _worth(one, by_shop)),
    )


def _order(shop: str, lines: tuple[OrderLine, ...], freights: dict[str, Freight]) -> Order:
    goods = sum(each.cost for each in lines)
    freight = freights[shop].of(goods) if shop in freights else 0.0
    days = [each.lead_days for each in lines if each.lead_days is not None]
    return Order(shop, lines, goods, freight, max(days, default=None))


def _cheapest(wanted: Sequence[Wanted], freights: dict[str, Freight]) -> list[Offer]:
    """The offer that is taken of each thing: binary ``x`` for each offer, ``y`` where a shop is
    bought from, ``f`` where its freight is free: minimise ``sum price x + sum freight (y - f)``
    with one offer of each thing, ``x <= y``, ``f <= y`` and ``goods >= free_from f``."""
    if not wanted:
        return []
    offers = [(k, offer) for k, each in enumerate(wanted) for offer in each.offers]
    shops = sorted({offer.shop for _, offer in offers})
    n, m = len(offers), len(shops)
    price = np.array([wanted[k].count * offer.price for k, offer in offers])
    of_thing = np.array([[k == w for k, _ in offers] for w in range(len(wanted))], dtype=float)
    at_shop = np.array([[offer.shop == shop for shop in shops] for _, offer in offers], dtype=float)
    cost, free = (
        np.array(each) for each in zip(*(_terms(freights.get(s)) for s in shops), strict=True)
    )
    goods = at_shop.T * price
    # Where nothing is ever free, more than all the goods would be asked for it.
    free = np.minimum(free, goods.sum(axis=1) + 1.0)
    rows = np.block(
        [
            [of_thing, np.zeros((len(wanted), 2 * m))],
            [np.eye(n), -at_shop, np.zeros((n, m))],
            [np.zeros((m, n)), -np.eye(m), np.eye(m)],
            [goods, np.zeros((m, m)), -np.diag(free)],
        ]
    )
    low = np.repeat([1.0, -np.inf, 0.0], [len(wanted), n + m, m])
    high = np.repeat([1.0, 0.0, np.inf], [len(wanted), n + m, m])
    found = milp(
        np.concatenate([price, cost, -cost]),
        constraints=LinearConstraint(rows, low, high),
        integrality=np.ones(n + 2 * m),
        bounds=Bounds(0, 1),
    )
    taken = {k: offer for (k, offer), x in zip(offers, found.x[:n], strict=True) if x > TAKEN}
    return [taken[k] for k in range(len(wanted))]


def _terms(freight: Freight | None) -> tuple[float, float]:
    """What an order from a shop costs to be brought, and from which sum on it is free."""
    if freight is None:
        return 0.0, np.inf
    return freight.cost, np.inf if freight.free_from is None else freight.free_from


def _worth(wanted: Wanted, freights: dict[str, Freight]) -> Iterable[Worth]:
    """Of a thing, each shop that is cheaper by the piece and dearer by its freight."""

    def all_in(offer: Offer, count: int) -> float:
        goods = count * offer.price
        return goods + (freights[offer.shop].of(goods) if offer.shop in freights else 0.0)

    for far in wanted.offers:
        for near in wanted.offers:
            if far.price >= near.price or all_in(far, 1) <= all_in(near, 1):
                continue
            counts = range(2, MOST_WORTH + 1)
            count = next((n for n in counts if all_in(far, n) < all_in(near, n)), None)
            yield Worth(wanted.id, wanted.name, far.shop, near.shop, count)


def needed(builds: Iterable[Build]) -> tuple[Wanted, ...]:
    """What builds want beyond what is at hand: sheets, rolls and bottles, those of one lot of the
    rack, or of one name, for all of them together.

    >>> from oaken_scale.core.model.part import Part, Pedigree
    >>> from oaken_scale.core.model.lot import LotUnit, Use
    >>> sheet = Lot("a", "Sheet", LotUnit.DM2, 4.6, 0.4, length_mm=700, width_mm=500, price=3.0,
    ...     waste=1.0, rack="board", shop="near", stock=1.0)
    >>> wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 28.0),))
    >>> one = Build("b", "B", lots=(sheet,), parts=(wing,))
    >>> [(each.name, each.count, each.offers) for each in needed([one, one])]
    [('Sheet', 1, (Offer(shop='near', price=3.0, lead_days=None),))]
    """
    lots: dict[str, Lot] = {}
    stock: dict[str, float] = defaultdict(float)
    ones: dict[str, float] = defaultdict(float)
    for build in builds:
        by_id = {lot.id: lot for lot in build.lots}
        for line in shopping(build).lots:
            lot = by_id[line.lot]
            key = lot.rack or free_id(f"{lot.name} {lot.unit}", ())
            lots.setdefault(key, lot)
            stock[key] = max(stock[key], lot.stock or 0.0)
            ones[key] += line.sheets or 0.0
    told = []
    for key, lot in lots.items():
        count = ceil(ones[key] - stock[key] - NEARLY)
        if count > 0:
            offers = () if lot.price is None else (Offer(lot.shop, lot.price, lot.lead_days),)
            told.append(Wanted(f"lot-{key}"[:64], lot.name, count, offers))
    return tuple(told)
