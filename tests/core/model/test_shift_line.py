"""Several moves in one line, as builders say them, and what is said of a line that is none."""

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.part import Part, Pedigree
from oaken_scale.core.model.shift_line import MOST, Shift, shifts_of_line
from tests.benches import MORNING

PARTS = (
    Part("p", "Pack, 3-cell", Pedigree.LISTING, stated_g=106.0),
    Part("l", "Servo, left", Pedigree.LISTING, stated_g=9.0),
    Part("r", "Servo, right", Pedigree.LISTING, stated_g=9.0),
    Part("rx", "Receiver", Pedigree.LISTING, stated_g=8.0),
    Part("old", "Old camera", Pedigree.LISTING, stated_g=40.0, retired_at=MORNING, retired=True),
)


def by(part: str, mm: float) -> Shift:
    return Shift(part, by_mm=pytest.approx(mm))


def to(part: str, mm: float) -> Shift:
    return Shift(part, to_mm=pytest.approx(mm))


@pytest.mark.parametrize(
    ("line", "shifts"),
    [
        ("pack 15 mm forward", [by("p", -15)]),
        ("pack 15 forward", [by("p", -15)]),
        ("the pack 15 mm aft", [by("p", 15)]),
        ("bay of the pack 2 cm back", [by("p", 20)]),
        ("PACK 1 in FWD", [by("p", -25.4)]),
        ("pack 1 1/2 in ahead", [by("p", -38.1)]),
        ("pack by 4 backward", [by("p", 4)]),
        ("servo, left 5 aft", [by("l", 5)]),  # as it is called, comma and all
        ("pack, 3-cell, receiver 5 aft", [by("p", 5), by("rx", 5)]),
        ("pack, receiver and left 5 aft", [by("p", 5), by("rx", 5), by("l", 5)]),
        ("pack 15 mm forward and receiver 10 mm aft", [by("p", -15), by("rx", 10)]),
        ("move the pack 15 mm forward", [by("p", -15)]),
        ("slide pack forward 15 mm and receiver back by 1 cm", [by("p", -15), by("rx", 10)]),
        ("pack 15 mm towards the nose; receiver 2 to the tail", [by("p", -15), by("rx", 2)]),
        ("put the receiver at 210 from the nose", [to("rx", 210)]),
        ("receiver to the nose", [to("rx", 0)]),
        ("left & right both 7.5 mm aft", [by("l", 7.5), by("r", 7.5)]),
        ("pack and left and receiver all 3 aft", [by("p", 3), by("l", 3), by("rx", 3)]),
        ("receiver to 210", [to("rx", 210)]),
        ("receiver to 21 cm", [to("rx", 210)]),
        ("receiver to 8 1/2 in", [to("rx", 215.9)]),
        ("left and right both to 300", [to("l", 300), to("r", 300)]),
        ("pack to -20", [to("p", -20)]),
        ("pack to −20", [to("p", -20)]),
        ("pack 15 forward, receiver to 210; left 2 aft", [by("p", -15), to("rx", 210), by("l", 2)]),
        ("pack 12,5 mm forward", [by("p", -12.5)]),
        ("receiver to 210,5", [to("rx", 210.5)]),
        (
            "pack 12,5 forward,receiver to 210,5, left 1,5 aft",
            [by("p", -12.5), to("rx", 210.5), by("l", 1.5)],
        ),
    ],
)
def test_what_a_line_moves(line, shifts):
    assert list(shifts_of_line(line, PARTS)) == shifts


def test_a_bare_figure_is_in_the_unit_of_the_page():
    assert shifts_of_line("pack 2 aft", PARTS, "in") == (by("p", 50.8),)
    assert shifts_of_line("pack 2 mm aft", PARTS, "in") == (by("p", 2),)


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("", "say what moves"),
        (" , ;", "say what moves"),
        ("pack forward", '"pack forward" is not understood'),
        ("pack 15 mm up", '"pack 15 mm up" is not understood'),
        ("pack 15 forward, tidy up", '"tidy up" is not understood'),
        ("pack 15 furlongs forward", "furlongs"),
        ("pack 1/0 forward", "1/0"),
        ("winch 15 forward", 'no part "winch"'),
        ("camera 15 forward", 'no part "camera"'),  # it is not on the plane any more
        ("servo 15 forward", "servo"),  # two of them
        ("pack 15 forward, pack to 210", "Pack, 3-cell is moved twice"),
        ("pack and pack 15 forward", "Pack, 3-cell is moved twice"),
    ],
)
def test_what_is_said_of_a_line_that_moves_nothing(line, says):
    with pytest.raises(BuildFaultError) as told:
        shifts_of_line(line, PARTS)
    (fault,) = told.value.faults
    assert fault.field == "line"
    assert says in fault.words


def test_no_more_parts_at_once_than_can_be_looked_over():
    many = [Part(f"p{k}", f"Weight {k:02}", Pedigree.GUESS, stated_g=1.0) for k in range(MOST + 1)]
    line = " and ".join(f"weight {k:02}" for k in range(MOST))
    assert len(shifts_of_line(f"{line} 5 aft", many)) == MOST
    with pytest.raises(BuildFaultError):
        shifts_of_line(f"{line} and weight {MOST} 5 aft", many)


def test_a_name_with_an_and_in_it_is_one_part():
    strap = Part("c", "Camera and strap", Pedigree.LISTING, stated_g=40.0)
    both = [by("c", -5), by("p", -5)]
    assert list(shifts_of_line("camera and strap 5 forward", (*PARTS, strap))) == both[:1]
    assert list(shifts_of_line("camera and strap, pack 5 forward", (*PARTS, strap))) == both
    assert list(shifts_of_line("strap and pack 5 forward", (*PARTS, strap))) == both
