"""What is typed is read in no time, whatever it is: a pattern that tries every way to divide a line
would hold the workshop up for years."""

import signal
from contextlib import suppress

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.lot import Lot, LotUnit
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.part_line import part_of_line
from oaken_scale.core.model.pieces_line import pieces_of_line
from oaken_scale.core.model.quantity import FACTORS, QuantityError, parse
from oaken_scale.core.model.shift_line import shifts_of_line

LONGEST = 200
SOON_S = 20.0
"""A thousand times what it takes on a busy machine; tried every way, it takes years."""

SHEET = (Lot("sheet", "Sheet", LotUnit.DM2, 3.2, 0.3),)
PACK = (Part("pack", "Pack", Pedigree.GUESS),)

AGAIN_AND_AGAIN = (
    *("1 ", "1 + ", "1+", "1 x ", "1/1 ", "1 1/1 + ", "1 g + ", "1 g ", "1 in ", "1 ft 1 in + "),
    *("1 sheet + ", "1 sheets + ", "sheet + ", "half a sheet + ", "1 of a sheet + ", "2 of "),
    *(
        "1 mm x 1 mm + ",
        "left 1 ",
        "at 1, 1 left ",
        "1 up and ",
        "(1 g) ",
        "pack 1 mm forward, ",
        " ,",
        "~",
        "1.",
        "a ",
    ),
)


def _late(*_) -> None:
    raise AssertionError("it is still being read")


@pytest.fixture(autouse=True)
def soon():
    before = signal.signal(signal.SIGALRM, _late)
    signal.setitimer(signal.ITIMER_REAL, SOON_S)
    yield
    signal.setitimer(signal.ITIMER_REAL, 0.0)
    signal.signal(signal.SIGALRM, before)


@pytest.mark.parametrize("piece", AGAIN_AND_AGAIN)
@pytest.mark.parametrize("around", ["{}", "a {}", "a {}!", "a {} of sheet", "a 1 g at {}", "{} g"])
def test_a_line(piece, around):
    typed = around.format((piece * LONGEST)[:LONGEST])
    with suppress(BuildFaultError):
        part_of_line(typed, SHEET)
    with suppress(BuildFaultError):
        shifts_of_line(typed, PACK)
    with suppress(BuildFaultError):
        pieces_of_line(typed)


@pytest.mark.parametrize("piece", AGAIN_AND_AGAIN)
def test_a_figure(piece):
    for kind in FACTORS:
        for end in ("", "!", "g"):
            with suppress(QuantityError):
                parse((piece * LONGEST)[:LONGEST] + end, kind, None, 10.0)
