"""Parts moved or copied as a group, builds copied, several moves asked as one."""

import pytest

from tests.api.test_life import AT, act, auw, opened, part, record
from tests.api.test_undo import undo

WING = ["left-panel", "right-panel", "spar"]
MAYFLY = "/api/v1/builds/mayfly"


def active(told: dict) -> list[str]:
    return [each["name"] for each in told["build"]["parts"] if not each["retired"]]


def test_a_group_goes_to_another_build_with_what_it_weighs(demo):
    record(demo, 1, 41.7, "right-panel")
    weighs = {each["id"]: each["mass_g"] for each in opened(demo)["assessment"]["parts"]}
    told = act(demo, "parts-together", parts=WING, to="mayfly")
    assert told.status_code == 200, told.json()
    assert all(part(told.json(), id)["retired"] for id in WING)
    there = opened(demo, MAYFLY)
    came = {each["name"]: each for each in there["build"]["parts"][-3:]}
    assert came["Right wing panel"]["stated_g"] == pytest.approx(weighs["right-panel"], abs=0.01)
    assert came["Right wing panel"]["doubt_g"] < 0.5
    assert there["build"]["diary"][-1]["words"] == "3 parts came from Sandpiper"
    assert undo(demo).status_code == 200
    assert not any(part(opened(demo), id)["retired"] for id in WING)
    assert "Right wing panel" not in active(opened(demo, MAYFLY))


def test_a_group_is_copied_and_stays(demo):
    before = opened(demo)
    told = act(demo, "parts-together", parts=WING, to="mayfly", copy_them=True)
    assert told.status_code == 200, told.json()
    assert opened(demo)["build"] == before["build"]
    assert {"Left wing panel", "Right wing panel"} <= set(active(opened(demo, MAYFLY)))


@pytest.mark.parametrize(
    ("fields", "status"),
    [
        ({"parts": ["none"], "to": "mayfly"}, 422),
        ({"parts": WING, "to": "sandpiper"}, 422),
        ({"parts": WING, "to": "nowhere"}, 404),
        ({"parts": [], "to": "mayfly"}, 422),
    ],
)
def test_a_group_that_cannot_go_changes_nothing(demo, fields, status):
    before = opened(demo), opened(demo, MAYFLY)
    assert act(demo, "parts-together", **fields).status_code == status
    assert (opened(demo), opened(demo, MAYFLY)) == before


def test_a_build_is_copied_with_its_weighings(demo):
    told = demo.post(f"{AT}/copy", json={"name": "Sandpiper, again"})
    assert told.status_code == 201, told.json()
    copy = told.json()
    assert len(copy["build"]["weighings"]) == len(opened(demo)["build"]["weighings"])
    assert auw(copy) == pytest.approx(auw(opened(demo)), abs=0.5)
    at = f"/api/v1/builds/{copy['build']['id']}"
    record(demo, 1, 12.4, "motor", at=at)
    assert len(opened(demo)["build"]["weighings"]) + 1 == len(
        opened(demo, at)["build"]["weighings"]
    )
    assert demo.post(f"{AT}/copy", json={"name": " "}).status_code == 422


def asked(client, line: str, unit: str = "mm"):
    return client.post(f"{AT}/remedies/shifted", json={"line": line, "unit": unit})


def test_several_moves_are_asked_as_one(demo):
    before = opened(demo)
    called = asked(demo, "pack, 3-cell 1300 20 mm forward").json()  # comma and all
    alone = asked(demo, "3-cell 1300 20 mm forward").json()
    assert called == alone
    assert [each["by_mm"] for each in called["shifts"]] == [-20.0]
    told = asked(demo, "3-cell 1300 and motor, leads 20 mm forward").json()
    assert [each["part"] for each in told["shifts"]] == ["pack-1300", "motor"]
    told = asked(demo, "3-cell 1300 and receiver both 20 mm forward").json()
    assert [(each["by_mm"]) for each in told["shifts"]] == [-20.0, -20.0]
    masses = {each["id"]: each["mass_g"] for each in before["assessment"]["parts"]}
    names = {each["id"]: each["name"] for each in before["build"]["parts"]}
    loadout = told["loadouts"][0]
    weight = before["assessment"]["loadouts"][0]["answers"][0]["value"]
    moved = sum(masses[each["part"]] for each in told["shifts"])
    assert loadout["then_mm"] - loadout["now_mm"] == pytest.approx(-20 * moved / weight, abs=0.3)
    assert {names[each["part"]] for each in told["shifts"]} == {"Receiver", "Pack, 3-cell 1300"}
    assert opened(demo) == before


def test_moves_by_inches_and_to_a_station(demo):
    told = asked(demo, "receiver 1 in aft; 3-cell 1300 to 150").json()
    assert told["shifts"][0]["by_mm"] == pytest.approx(25.4)
    assert told["shifts"][1]["to_mm"] == 150
    assert asked(demo, "receiver 1 aft", "in").json()["shifts"][0]["by_mm"] == pytest.approx(25.4)


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("", "say what moves"),
        ("receiver", "is not understood"),
        ("the moon 5 forward", "no part"),
        ("panel 5 forward", "may be"),
        ("receiver 5 forward; receiver to 200", "moved twice"),
        ("receiver 5 kg forward", "not a unit"),
        ("still to come 5 forward", "no station"),
    ],
)
def test_moves_that_are_not_understood(demo, line, words):
    told = asked(demo, line)
    assert told.status_code == 422
    assert words in told.json()["faults"][0]["words"]


def test_moves_that_were_asked_are_kept_as_one(demo):
    line = {"line": "3-cell 1300 and receiver both 20 mm forward", "unit": "mm"}
    then = asked(demo, line["line"]).json()["loadouts"][0]["then_mm"]
    kept = act(demo, "remedies/shifted/kept", **line)
    assert kept.status_code == 200, kept.json()
    cg = kept.json()["assessment"]["loadouts"][0]["cg"]["x_mm"]
    assert cg == pytest.approx(then, abs=1e-6)
    back = undo(demo).json()
    assert {each["field"] for each in back["touched"]} == {"parts"}
