"""What is to be bought, with no build needed: the list, where it is had, and the orders."""

from dataclasses import dataclass
from typing import Annotated, Final

from fastapi import APIRouter, Response
from pydantic import Field, TypeAdapter

from oaken_scale.api.problems import documented
from oaken_scale.api.routes_builds import Named, Shop
from oaken_scale.core.material.ordering import Buying, Freight, Offer, Wanted, buying, needed
from oaken_scale.core.model import declared
from oaken_scale.core.model.declared import Price
from oaken_scale.formats import fields
from oaken_scale.formats.fields import number
from oaken_scale.workshop import Workshop

router = APIRouter(prefix="/api/v1/buying", tags=["stock"])

MOST_WANTED: Final = 200
MOST_SHOPS: Final = 30


class OfferDoc(fields.Edge):
    """What one costs at a shop, and how many days later it is there."""

    shop: declared.Label
    price: Price
    lead_days: Annotated[float, number(ge=0, le=365)] | None = None


class WantedDoc(fields.Edge):
    """Something to be bought."""

    name: declared.Name
    count: Annotated[int, Field(strict=True, ge=1, le=10_000)] = 1
    offers: Annotated[tuple[OfferDoc, ...], Field(max_length=8)] = ()
    is_had: bool = False

    def value(self, id: str) -> Wanted:
        """As the core has it."""
        offers = tuple(Offer(each.shop, each.price, each.lead_days) for each in self.offers)
        return Wanted(id, self.name, self.count, offers, self.is_had)


class FreightDoc(fields.Edge):
    """What an order from a shop costs to be brought, and from which sum on it is free."""

    shop: declared.Label
    cost: Price
    free_from: Price | None = None

    def value(self) -> Freight:
        """As the core has it."""
        return Freight(self.shop, self.cost, self.free_from)


@dataclass(frozen=True, slots=True)
class BuyingList:
    """What was written down, what builds need beyond what is at hand, freights, and the orders."""

    wanted: tuple[Wanted, ...]
    needed: tuple[Wanted, ...]
    freights: tuple[Freight, ...]
    buying: Buying


@router.get("", response_model=BuyingList)
def to_buy(shop: Shop) -> Response:
    """What is to be bought, and where it costs least together."""
    return _told(shop)


@router.put("/wanted/{wanted_id}", response_model=BuyingList, responses=documented(409))
def want(wanted_id: Named, wanted: WantedDoc, shop: Shop) -> Response:
    """Write something down, or write it anew. Sent again, it is there once."""
    shop.wants.write(wanted.value(wanted_id), MOST_WANTED)
    return _told(shop)


@router.delete("/wanted/{wanted_id}", response_model=BuyingList, responses=documented(404))
def strike(wanted_id: Named, shop: Shop) -> Response:
    """Take something off the list."""
    shop.wants.strike(wanted_id)
    return _told(shop)


@router.put("/freight", response_model=BuyingList, responses=documented(409))
def say_freight(freight: FreightDoc, shop: Shop) -> Response:
    """Say what an order from a shop costs to be brought."""
    shop.wants.bring(freight.value(), MOST_SHOPS)
    return _told(shop)


def _told(shop: Workshop) -> Response:
    wanted, freights = shop.wants.listed()
    builds = shop.files(lambda row: not (row.put_away or row.is_finished or row.variant_of))
    needs = needed(builds)
    found = BuyingList(wanted, needs, freights, buying((*wanted, *needs), freights))
    return Response(_ADAPTER.dump_json(found), media_type="application/json")


_ADAPTER: Final = TypeAdapter(BuyingList)
