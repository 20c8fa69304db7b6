"""The shopping list as CSV, for a spreadsheet or a phone."""

import csv
from io import StringIO

from oaken_scale.core.material.shopping import Shopping

HEADINGS = (
    "what",
    "used",
    "unit",
    "waste factor",
    "wanted",
    "sheets or rolls",
    "in the rack",
    "to buy",
    "cost of what is used",
    "cost to buy",
)


def shopping_csv(told: Shopping, units: dict[str, str]) -> str:
    """The list, a line for each lot and thing, then the sums (RFC 4180, decimal points).

    ``units`` gives the unit of each lot by its id.
    """
    out = StringIO()
    table = csv.writer(out)
    table.writerow(HEADINGS)
    for line in told.lots:
        table.writerow(
            [
                _words(line.name),
                _figure(line.used, 2),
                units[line.lot],
                _figure(line.waste, 2),
                _figure(line.wanted, 2),
                _figure(line.sheets, 2),
                _figure(line.stock, 2),
                "" if line.to_buy is None else line.to_buy,
                _figure(line.cost_used, 2),
                _figure(line.cost_to_buy, 2),
            ]
        )
    for thing in told.things:
        table.writerow(
            [_words(thing.name), thing.pieces, "piece", *[""] * 5, _figure(thing.price, 2), ""]
        )
    for name, cost in (("Airframe", told.airframe_cost), ("Everything", told.everything_cost)):
        table.writerow([name, *[""] * 7, _figure(cost, 2), ""])
    table.writerow(["To buy", *[""] * 8, _figure(told.to_buy_cost, 2)])
    return out.getvalue()


def _figure(value: float | None, digits: int) -> str:
    return "" if value is None else f"{value:.{digits}f}"


def _words(text: str) -> str:
    """A name that no spreadsheet takes for a formula."""
    return f"'{text}" if text[:1] in ("=", "+", "-", "@", "\t") else text
