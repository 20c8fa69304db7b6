"""Where what is to be bought costs least, against every way to buy it; and freight by hand."""

from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oaken_scale.core.material.ordering import Freight, Offer, Wanted, buying, needed
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree

SHOPS = ("near", "far", "post")
MONEY = st.integers(0, 400).map(lambda cents: cents / 4)
OFFERS = st.lists(
    st.builds(Offer, st.sampled_from(SHOPS), MONEY),
    min_size=1,
    max_size=3,
    unique_by=lambda offer: offer.shop,
).map(tuple)
WANTED = st.lists(
    st.builds(Wanted, st.just("w"), st.just("W"), st.integers(1, 5), OFFERS), min_size=1, max_size=4
)
FREIGHTS = st.lists(
    st.builds(Freight, st.sampled_from(SHOPS), MONEY, st.none() | MONEY),
    max_size=3,
    unique_by=lambda freight: freight.shop,
)


def least(wanted, freights):
    """The cheapest of every way to choose an offer of each."""
    by_shop = {each.shop: each for each in freights}
    best = float("inf")
    for ways in product(*(each.offers for each in wanted)):
        goods = {}
        for each, offer in zip(wanted, ways, strict=True):
            goods[offer.shop] = goods.get(offer.shop, 0.0) + each.count * offer.price
        brought = sum(by_shop[shop].of(sum_) for shop, sum_ in goods.items() if shop in by_shop)
        best = min(best, sum(goods.values()) + brought)
    return best


@given(WANTED, FREIGHTS)
def test_no_way_to_buy_is_cheaper(wanted, freights):
    told = buying(wanted, freights)
    assert told.total == pytest.approx(least(wanted, freights), abs=1e-6)
    assert sum(len(order.lines) for order in told.orders) == len(wanted)


def test_one_shop_for_both_where_its_freight_is_free_from_there():
    """A charger 39 here or 31 by post, an iron 20 here or 19 by post, freight 12, free from 50."""
    charger = Wanted("c", "Charger", 1, (Offer("near", 39.0, 2.0), Offer("post", 31.0, 9.0)))
    iron = Wanted("i", "Iron", 1, (Offer("near", 20.0), Offer("post", 19.0, 4.0)))
    apart = buying([charger, iron], [Freight("post", 12.0)])
    assert [order.shop for order in apart.orders] == ["near"]
    assert apart.total == 59.0
    (order,) = buying([charger, iron], [Freight("post", 12.0, 50.0)]).orders
    assert (order.shop, order.goods, order.freight, order.lead_days) == ("post", 50.0, 0.0, 9.0)


@pytest.mark.parametrize(
    ("freight", "count"),
    [(Freight("far", 6.0), 5), (Freight("far", 6.0, 10.0), 4), (Freight("far", 5000.0), None)],
)
def test_from_how_many_on_freight_is_worth_it(freight, count):
    """4.00 here, 2.50 there: 6.00 of freight is made up by the fifth (7.50 against 6.00); free from
    10.00, four at 2.50 come free."""
    rod = Wanted("r", "Rod", 1, (Offer("near", 4.0), Offer("far", 2.5)))
    (worth,) = buying([rod], [freight]).worth
    assert (worth.shop, worth.other, worth.count) == ("far", "near", count)


def test_what_is_there_is_in_no_order_and_what_has_no_price_is_named():
    told = buying(
        [Wanted("a", "Iron", offers=(Offer("near", 9.0),), is_had=True), Wanted("b", "Charger")]
    )
    assert (told.orders, told.unpriced, told.total) == ((), ("Charger",), 0.0)


def test_planes_share_what_is_at_hand():
    """56 dm2 at 1.25 in each of two planes is four sheets of 35; one is at hand."""
    sheet = Lot(
        "a",
        "Sheet",
        LotUnit.DM2,
        4.6,
        0.4,
        length_mm=700,
        width_mm=500,
        waste=1.25,
        stock=1.0,
        rack="board",
    )
    wing = Part("wing", "Wing", Pedigree.CALCULATED, uses=(Use("a", 56.0),))
    one = Build("b", "B", lots=(sheet,), parts=(wing,))
    assert [(each.name, each.count) for each in needed([one, one])] == [("Sheet", 3)]
    assert needed([]) == ()
