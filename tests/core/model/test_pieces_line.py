"""Pieces of ballast as builders say them."""

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.pieces_line import pieces_of_line

OUNCE = 28.349523125


@pytest.mark.parametrize(
    ("line", "grams"),
    [
        ("5; 14.2; 6 x 2.4", [5, 14.2, *[2.4] * 6]),
        ("5, 5, 10", [5, 5, 10]),
        ("2,4; 2,4", [2.4, 2.4]),
        ("2,4, 3 and 5 g + 5 g", [2.4, 3, 5, 5]),
        ("5 g & 7 g", [5, 7]),
        ("6x2.4g; 2.4 g x 6", [2.4] * 12),
        ("5 x 3; 2 g x two", [3, 3, 3, 3, 3, 2, 2]),
        ("2.4 x 5", [2.4] * 5),
        ("two 5 g coins; 2 7 g coins; two 9", [5, 5, 7, 7, 9, 9]),
        ("three coins of 7; 3 of 8 g each", [7, 7, 7, 8, 8, 8]),
        ("a 10 g bolt; steel bolt 12 g", [10, 12]),
        ("2 x ¼ oz; 1 1/2 oz", [OUNCE / 4, OUNCE / 4, 1.5 * OUNCE]),
        ("", []),
        (" ; ", []),
    ],
)
def test_pieces_are_read_as_they_are_said(line, grams):
    assert pieces_of_line(line) == pytest.approx(grams)


def test_a_bare_figure_is_in_the_unit_that_is_meant():
    assert pieces_of_line("1; 2 x 0.5; 3 g", "oz") == pytest.approx([OUNCE, *[OUNCE / 2] * 2, 3])


def test_what_nobody_touched_is_as_exact_as_it_was():
    shown = {"0.18": [5.0], "3 x 0.08": [2.4, 2.3, 2.4]}
    assert pieces_of_line("3 x 0.08; 0.18 ; 0.08", "oz", shown) == pytest.approx(
        (2.4, 2.3, 2.4, 5.0, 0.08 * OUNCE)
    )


@pytest.mark.parametrize(
    ("line", "says"),
    [
        ("5 10", '"5 10"; write pieces like 5 g; 12.4 g'),
        ("5,5,10", '"5,5,10"; write'),
        ("5 g; rubbish", '"rubbish"; write'),
        ("-3", '"-3"; write'),
        ("x" * 300, f'"{"x" * 40}"; write'),
        ("0", "above 0 and at most 5,000 g"),
        ("5001", "above 0 and at most 5,000 g"),
        ("0 x 5", "0 pieces; it should be 1 to 40"),
        ("41 x 1", "41 pieces; it should be 1 to 40"),
        ("30 x 1; 11 x 2", "names more than 40 pieces"),
        ("1/0", "divides by zero"),
    ],
)
def test_what_is_no_piece_is_refused_with_what_would_be(line, says):
    with pytest.raises(BuildFaultError) as refused:
        pieces_of_line(line)
    (fault,) = refused.value.faults
    assert fault.field == "line"
    assert says in fault.words


def test_so_many_as_are_kept_and_no_more():
    assert len(pieces_of_line("30 x 1; 10 x 2")) == 40
    assert pieces_of_line("5000") == (5000.0,)
