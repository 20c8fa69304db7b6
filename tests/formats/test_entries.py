"""The file of a field card, and what is wrong with one."""

import json

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.core.model.field import Seen, Throw
from oaken_scale.formats.entries import read_card

AT = "2026-03-07T09:00:00Z"


def card(*entries: object, **changed: object) -> bytes:
    whole = {
        "format": "oaken-scale/field-card",
        "version": 1,
        "build": "b",
        "name": "B",
        "entries": entries,
        **changed,
    }
    return json.dumps(whole).encode()


def test_entries_are_read_and_a_wrong_one_takes_no_other_down():
    good = {"entry": "throw", "id": "a", "at": AT, "seen": "stalls", "distance_m": 9.5}
    far = {**good, "id": "b", "distance_m": 1000}
    told = read_card(card(good, far, {"entry": "dance"}, 7))
    thrown, wrong, *others = told.entries
    assert isinstance(thrown, Throw)
    assert (thrown.seen, thrown.distance_m) == (Seen.STALLS, 9.5)
    assert "at most 300" in wrong[0].words
    assert all(isinstance(each, tuple) for each in others)


@pytest.mark.parametrize(
    ("data", "field"),
    [
        (b"\xff\xfe", "file"),
        (b"[" * 100_000, "file"),
        (b"[]", "format"),
        (card(format="oaken-scale/build"), "format"),
        (card(version=2), "version"),
        (card(version=True), "version"),
        (card(build=3), "build"),
        (card(entries="many"), "entries"),
        (b" " * (4 * 1024 * 1024 + 1), "file"),
    ],
)
def test_what_is_no_card_says_which_field(data, field):
    with pytest.raises(BuildFaultError) as refused:
        read_card(data)
    assert refused.value.faults[0].field == field
