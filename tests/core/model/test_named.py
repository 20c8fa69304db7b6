"""What a piece of a name means, as people type it."""

from dataclasses import replace

import pytest

from oaken_scale.core.material.rack import STARTER
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.named import is_wholly, named
from oaken_scale.core.model.part_line import part_of_line

BARE = next(lot for lot in STARTER if lot.id == "board-none")
SHELF = tuple(lot for lot in STARTER if lot is not BARE)


@pytest.mark.parametrize(
    ("typed", "meant"),
    [
        ("hot glue", "hot-melt"),
        ("6 mm carbon tube", "tube-6"),
        ("carbon tube 6mm", "tube-6"),
        ("2mm carbon rod", "rod-2"),
        ("craft sticks", "craft-stick"),
        ("skewers", "skewer"),
        ("3 mm xps", "xps-3"),
        ("EPP", "epp-6"),
        ("iron on film", "film"),
        ("3 mm light ply", "light-ply-3"),
        ("Foam board 5 mm, both papers", "board-both"),
        ("foam board 5mm both papers", "board-both"),
    ],
)
def test_words_in_any_order_name_a_lot(typed, meant):
    assert named(typed, STARTER, "line").id == meant


@pytest.mark.parametrize("typed", ["foil", "hot tube", "5 mm carbon tube", "1 mm craft stick", "—"])
def test_words_that_no_name_has_all_of_name_none(typed):
    assert named(typed, STARTER, "line") is None


def test_words_that_several_names_have_are_asked_about():
    with pytest.raises(BuildFaultError, match='"tube carbon" may be Carbon tube 4 mm; '):
        named("tube carbon", STARTER, "line")


def test_a_whole_name_is_that_lot_wherever_it_hangs():
    """The bare sheet in the build begins as the papered one's whole name does, and weighs half."""
    whole = "Foam board 5 mm, both papers"
    assert BARE.name.startswith(whole)
    for typed, lot in ((whole, "board-both"), ("foam board", "board-none")):
        (use,) = part_of_line(f"Panel 5 dm2 of {typed}", (BARE,), shelf=SHELF).uses
        assert use.lot == lot
    assert not is_wholly("", BARE)
    assert not is_wholly("—", replace(BARE, name="…"))
    assert is_wholly("board-none", BARE)
