"""The order of the day through the API."""

from tests.api.asking import problem
from tests.api.test_life import AT, act, opened


def day(client, **query):
    return client.get(f"{AT}/day", params=query).json()


def test_a_step_is_done_timed_taken_back_and_told_to_the_next_build(demo):
    told = day(demo, minutes=20)
    first = told["slots"][0]["step"]["id"]
    assert {slot["step"]["id"] for slot in told["now"]} <= {
        slot["step"]["id"] for slot in told["slots"]
    }
    kept = demo.post(f"{AT}/day/done", json={"step": first, "minutes": 44.0}).json()["build"]
    assert kept["day"]["done"][0]["minutes"] == 44.0
    told = day(demo)
    assert first not in {slot["step"]["id"] for slot in told["slots"]}
    assert told["done"] == [first]
    # Another build is told by that pace.
    other = demo.get("/api/v1/builds/avocet/day").json()
    assert [pace["times"] for pace in other["paces"]] == [1]
    again = demo.post(f"{AT}/day/done", json={"step": first})
    assert problem(again, "step", "is left to do")
    assert demo.post(f"{AT}/day/undone", json={"step": first}).status_code == 200
    assert first in {slot["step"]["id"] for slot in day(demo)["slots"]}


def test_the_order_is_moved_and_kept(demo):
    order = [slot["step"]["id"] for slot in day(demo)["slots"]]
    wanted = [order[1], order[0], *order[2:]]
    own = [{"id": "sand", "name": "Sand the nose", "minutes": 12.0}]
    kept = act(demo, "", method="PATCH", day={"order": wanted, "own": own}).json()["build"]["day"]
    assert (kept["order"], kept["own"]) == (wanted, own)
    told = [slot["step"]["id"] for slot in day(demo)["slots"]]
    assert told[:2] == wanted[:2]
    assert "sand" in told
    # In the file too, and back from it.
    file = demo.get(f"{AT}/file").json()
    assert file["build"]["day"]["own"] == own
    assert opened(demo)["build"]["day"]["order"] == wanted


def test_minutes_that_cannot_be(demo):
    for minutes in ("0", "-3", "nan", "many"):
        assert demo.get(f"{AT}/day", params={"minutes": minutes}).status_code == 422
    refused = demo.post(f"{AT}/day/done", json={"step": "cut:Wing", "minutes": 0})
    assert problem(refused, "minutes", "more than 0")
