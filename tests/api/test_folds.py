"""What is folded from one board, over HTTP: worked by hand, and refused with the field's name."""

from math import hypot

import pytest

from tests.api.asking import problem

AT = "/api/v1/folds"
BOX = {
    "kind": "box",
    "length_mm": 600.0,
    "width_mm": 60.0,
    "height_mm": 80.0,
    "board_mm": 5.0,
}
WING = {
    "kind": "wing",
    "span_mm": 500.0,
    "chord_mm": 190.0,
    "thickness_mm": 22.0,
    "board_mm": 5.0,
    "way": "groove",
}
SIDES = {
    "kind": "sides",
    "span_mm": 500.0,
    "lower_mm": 190.0,
    "front_mm": 59.27,
    "rear_mm": 133.99,
    "board_mm": 5.0,
}


def folded(client, given: dict) -> dict:
    answer = client.post(AT, json=given)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_box_open_above_is_its_bottom_and_two_sides(client):
    told = folded(client, BOX)
    assert told["unfolded_mm"] == pytest.approx(220.0)
    assert told["part"]["area_dm2"] == pytest.approx(13.2)
    assert [each["name"] for each in told["panels"]] == ["bottom", "right side", "left side"]


def test_a_box_that_tapers_has_slanted_folds(client):
    told = folded(client, {**BOX, "rear_width_mm": 30.0, "rear_height_mm": 40.0, "name": "Pod"})
    slant = hypot(600, 15)
    assert told["part"]["name"] == "Pod"
    assert told["part"]["area_dm2"] * 1e4 == pytest.approx(600 * 45 + 2 * slant * 60, rel=1e-6)


def test_a_wing_and_the_same_wing_by_what_was_cut(client):
    """Sides of 59.27 and 133.99 above 190 close on the spar that they were unfolded from."""
    planned, cut = folded(client, WING), folded(client, SIDES)
    widths = [[round(panel["width_mm"], 2) for panel in each["panels"]] for each in (planned, cut)]
    assert widths[0] == [190.0, 59.27, 133.99]
    assert widths[1] == pytest.approx(widths[0], abs=0.05)
    assert cut["part"]["area_dm2"] == pytest.approx(planned["part"]["area_dm2"], rel=1e-3)


@pytest.mark.parametrize(
    ("given", "field", "says"),
    [
        ({**BOX, "board_mm": 60.0}, "width_mm", "or the board thinner"),
        ({**BOX, "length_mm": 0.0}, "length_mm", "more than 0"),
        ({**BOX, "rear_width_mm": -1.0}, "rear_width_mm", "more than 0"),
        ({**BOX, "colour": "red"}, "colour", "is not a field here"),
        ({**WING, "thickness_mm": 9.0}, "thickness_mm", "is 9 mm"),
        ({**WING, "spar_at": 1.0}, "spar_at", "is 1.0; it should be less than 1"),
        ({**SIDES, "front_mm": 20.0}, "rear_mm", "it does not close over 190 mm"),
        ({key: each for key, each in SIDES.items() if key != "rear_mm"}, "rear_mm", "missing"),
    ],
)
def test_what_does_not_fold_names_its_field(client, given, field, says):
    assert problem(client.post(AT, json=given), field, says)


def test_a_kind_nobody_folds_is_refused(client):
    answer = client.post(AT, json={**BOX, "kind": "cone"})
    assert answer.status_code == 422
    assert "kind" in answer.text
