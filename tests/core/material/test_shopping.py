from dataclasses import replace

import pytest

from oaken_scale.core.material.rack import PAPER_SHARE, STARTER, stripped, waste
from oaken_scale.core.material.shopping import shopping
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit, Use
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.demo.sandpiper import sandpiper

SHEET = Lot(
    "a",
    "Sheet",
    LotUnit.DM2,
    4.6,
    0.4,
    kind=LotKind.FOAM,
    length_mm=700,
    width_mm=500,
    price=3.0,
    stock=1.0,
)


def part(id: str, *uses: tuple[str, float], **more) -> Part:
    return Part(id, id, Pedigree.CALCULATED, uses=tuple(Use(*use) for use in uses), **more)


def test_sheets_needed_by_hand():
    """Two wings of 20 dm2 and a tail of 4, a quarter of offcuts: 55 dm2 of 35 dm2 sheets."""
    build = Build(
        "b",
        "B",
        lots=(SHEET,),
        parts=(
            part("left", ("a", 20.0)),
            part("right", ("a", 20.0)),
            part("tail", ("a", 4.0)),
        ),
    )
    (line,) = shopping(build).lots
    assert line.used == pytest.approx(44.0)
    assert line.wanted == pytest.approx(55.0)
    assert line.sheets == pytest.approx(55 / 35)
    assert (line.stock, line.to_buy) == (1.0, 1)
    assert line.cost_used == pytest.approx(3 * 55 / 35)
    assert line.cost_to_buy == pytest.approx(3.0)


def test_a_pocket_saves_no_sheet():
    pocket = part("box", ("a", 9.0), ("a", -1.5))
    assert shopping(Build("b", "B", lots=(SHEET,), parts=(pocket,))).lots[0].used == 9.0


def test_whole_sheets_are_not_rounded_up():
    build = Build(
        "b", "B", lots=(replace(SHEET, stock=0, waste=1.0),), parts=(part("x", ("a", 70.0)),)
    )
    assert shopping(build).lots[0].to_buy == 2


def test_what_has_no_size_or_price_says_so():
    bare = Lot("g", "Glue", LotUnit.M, 2.0, 0.6, kind=LotKind.ADHESIVE)
    motor = Part("m", "Motor", Pedigree.LISTING, stated_g=44.0, thing="m")
    told = shopping(Build("b", "B", lots=(bare,), parts=(part("seam", ("g", 2.0)), motor)))
    (line,) = told.lots
    assert (line.sheets, line.to_buy, line.cost_used) == (None, None, None)
    assert told.unpriced == ("Glue", "Motor")
    assert told.everything_cost == 0


def test_the_demo_adds_up():
    told = shopping(sandpiper())
    assert told.airframe_cost == pytest.approx(sum(line.cost_used for line in told.lots))
    things = sum(thing.price for thing in told.things if thing.price is not None)
    assert told.everything_cost == pytest.approx(told.airframe_cost + things)
    # Every part that is cut from no lot may be given a price; what has none is named.
    bought = {i.id for i in sandpiper().parts if not i.uses and i.pedigree.value != "allowance"}
    assert {thing.part for thing in told.things} >= bought
    assert told.unpriced == tuple(each.name for each in told.things if each.price is None)
    rod = next(line for line in told.lots if line.lot == "rod")
    assert rod.to_buy == 1


def test_stripping_a_face_takes_its_share():
    both = Lot("a", "A, both papers", LotUnit.DM2, 5.0, 0.2, faces=Faces.BOTH, kind=LotKind.FOAM)
    share, share_sd = PAPER_SHARE
    one, none = stripped(both, Faces.ONE), stripped(both, Faces.NONE)
    assert one.constant == pytest.approx(5.0 * (1 - share))
    assert none.constant == pytest.approx(5.0 * (1 - 2 * share))
    assert one.doubt == pytest.approx(((0.2 * (1 - share)) ** 2 + (5 * share_sd) ** 2) ** 0.5)
    assert stripped(one, Faces.NONE).constant == pytest.approx(none.constant)
    assert one.name == "A, one paper off"


def test_the_doubt_of_stripping_a_bare_face_agrees_with_a_finite_difference(monkeypatch):
    one = Lot("a", "A", LotUnit.DM2, 3.0, 0.0, faces=Faces.ONE, kind=LotKind.FOAM)
    share, share_sd = PAPER_SHARE
    told = stripped(one, Faces.NONE).doubt

    def left(p: float) -> float:
        monkeypatch.setattr("oaken_scale.core.material.rack.PAPER_SHARE", (p, 0.0))
        return stripped(one, Faces.NONE).constant

    slope = (left(share + 1e-6) - left(share - 1e-6)) / 2e-6
    assert told == pytest.approx(abs(slope) * share_sd, rel=1e-6)


def test_the_starter_rack_holds_together():
    assert len({lot.id for lot in STARTER}) == len(STARTER)
    assert {lot.kind for lot in STARTER} == set(LotKind) - {LotKind.OTHER}
    for lot in STARTER:
        assert 0.02 <= lot.doubt / lot.constant <= 0.6
        assert waste(lot) >= 1
        assert (lot.faces is not None) == (lot.kind is LotKind.FOAM)
    both, one, none = STARTER[:3]
    # The three pedigrees of one board agree with the share of its paper.
    assert abs(stripped(both, Faces.ONE).constant - one.constant) < one.doubt
    assert abs(stripped(both, Faces.NONE).constant - none.constant) < none.doubt
