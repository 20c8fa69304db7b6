import csv
from io import StringIO

import pytest

from oaken_scale.core.material.shopping import shopping
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.demo.sandpiper import sandpiper
from oaken_scale.formats.shopping_csv import HEADINGS, shopping_csv


def rows(build: Build) -> list[list[str]]:
    units = {lot.id: str(lot.unit) for lot in build.lots}
    return list(csv.reader(StringIO(shopping_csv(shopping(build), units))))


def test_every_row_is_as_wide_as_its_headings():
    told = rows(sandpiper())
    assert told[0] == list(HEADINGS)
    assert {len(row) for row in told} == {len(HEADINGS)}


def test_figures_are_plain_decimals_and_the_sums_are_there():
    told = rows(sandpiper())
    list_of = shopping(sandpiper())
    by_name = {row[0]: row for row in told[1:]}
    assert float(by_name["Carbon rod, 4 mm"][7]) == 1
    assert float(by_name["Motor, leads on"][8]) == 14.0
    assert float(by_name["Airframe"][8]) == pytest.approx(list_of.airframe_cost, abs=0.006)
    assert float(by_name["To buy"][9]) == pytest.approx(list_of.to_buy_cost, abs=0.006)


def test_what_is_not_known_is_left_empty():
    lot = Lot("g", 'Glue, "best"', LotUnit.M, 2.0, 0.6, kind=LotKind.ADHESIVE)
    seam = Part("s", "Seam", Pedigree.JOINT, uses=(Use("g", 2.0),))
    row = rows(Build("b", "B", lots=(lot,), parts=(seam,)))[1]
    assert row[0] == 'Glue, "best"'
    assert row[1] == "2.00"
    assert row[5:6] + row[7:] == ["", "", "", ""]


@pytest.mark.parametrize("name", ["=SUM(A1)", "+1", "-1", "@x"])
def test_a_name_never_begins_a_formula(name):
    lot = Lot("g", name, LotUnit.M, 2.0, 0.6)
    seam = Part("s", "Seam", Pedigree.JOINT, uses=(Use("g", 2.0),))
    assert rows(Build("b", "B", lots=(lot,), parts=(seam,)))[1][0] == f"'{name}"
