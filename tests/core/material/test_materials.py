import pytest

from oaken_scale.core.material.joint_clock import ADHESIVES
from oaken_scale.core.material.materials import Trait, trade, traits
from oaken_scale.core.material.rack import STARTER, WASTE, waste
from oaken_scale.core.model.lot import Faces, Lot, LotKind, LotUnit

RACK = {lot.id: lot for lot in STARTER}


def test_every_adhesive_of_the_rack_is_on_the_joint_clock():
    clock = {adhesive.id for adhesive in ADHESIVES}
    used = {lot.adhesive for lot in STARTER if lot.kind is LotKind.ADHESIVE}
    assert used <= clock
    assert len(used) == sum(lot.kind is LotKind.ADHESIVE for lot in STARTER)


@pytest.mark.parametrize(
    ("before", "after", "gained", "lost"),
    [
        ("hot-melt", "contact", set(), {Trait.NO_FUMES}),
        ("epoxy", "cyanoacrylate", {Trait.QUICK}, {Trait.SHIFTS}),
        ("hot-melt", "packing-tape", {Trait.UNDONE, Trait.SHIFTS}, {Trait.STRONG}),
        ("board-none", "board-one", {Trait.HINGE}, {Trait.DRY}),
        ("white", "polyurethane", set(), {Trait.NO_FUMES}),
    ],
)
def test_what_is_traded(before, after, gained, lost):
    told = trade(RACK[before], RACK[after])
    assert (set(told[0]), set(told[1])) == (gained, lost)


@pytest.mark.parametrize("one", STARTER, ids=lambda lot: lot.id)
def test_what_is_gained_one_way_is_given_up_the_other(one):
    for other in STARTER:
        there, back = traits(other) - traits(one), traits(one) - traits(other)
        gained, lost = trade(one, other)
        assert len(gained) == len(there)
        assert len(lost) == len(back)


def test_foam_without_a_word_on_its_paper_has_none():
    plain = Lot("x", "X", LotUnit.DM2, 2.0, 0.2, kind=LotKind.FOAM)
    assert traits(plain) == traits(RACK["board-none"])


def test_a_lots_own_waste_comes_before_its_kinds():
    own = Lot("x", "X", LotUnit.DM2, 2.0, 0.2, kind=LotKind.FOAM, waste=1.5)
    assert waste(own) == 1.5
    assert waste(RACK["board-both"]) == WASTE[LotKind.FOAM]
    assert set(WASTE) == set(LotKind)


@pytest.mark.parametrize(
    ("unit", "length", "width", "size"),
    [
        (LotUnit.DM2, 700, 500, 35.0),
        (LotUnit.DM2, 700, None, None),
        (LotUnit.M, 66_000, 48, 66.0),
        (LotUnit.M, None, 48, None),
        (LotUnit.PIECE, None, None, 1.0),
    ],
)
def test_how_much_is_in_one(unit, length, width, size):
    lot = Lot("x", "X", unit, 2.0, 0.2, length_mm=length, width_mm=width, faces=Faces.BOTH)
    assert lot.size == size
