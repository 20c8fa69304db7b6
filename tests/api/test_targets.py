"""Targets through the API: one end at a time, refused in words; a page that is behind."""

import pytest

from tests.api.asking import begin, problem


@pytest.fixture
def told(client):
    return begin(client, purpose="park", layout="tractor", auw_high_g=600)


def put(client, told: dict, what: str, **body):
    at = f"/api/v1/builds/{told['build']['id']}/{what}"
    return client.put(at, json=body, headers={"If-Match": f'"{told["revision"]}"'})


def test_an_end_is_set_moved_along_and_taken_away(client, told):
    then = put(client, told, "targets/balance", end="low", value=40).json()
    balance = next(each for each in then["build"]["targets"] if each["kind"] == "balance")
    assert (balance["low"], balance["high"], balance["source"]) == (40, 48, "your own figure")
    answer = then["assessment"]["loadouts"][0]["answers"][3]
    assert (answer["kind"], answer["low"]) == ("balance", 40)
    usual = put(
        client, then, "targets/power_loading", end="low", value=90, source="a rule of thumb"
    ).json()
    added = next(each for each in usual["build"]["targets"] if each["kind"] == "power_loading")
    assert (added["low"], added["source"]) == (90, "a rule of thumb")
    gone = put(client, usual, "targets/power_loading", end="low", value=None).json()
    assert gone["build"]["targets"] == then["build"]["targets"]
    stale = put(client, told, "targets/auw", end="high", value=580)
    assert stale.status_code == 412


@pytest.mark.parametrize(
    ("what", "body", "field", "says"),
    [
        ("targets/auw", {"end": "high", "value": 1e9}, "targets.0.high", "at most 20000 g"),
        ("targets/balance", {"end": "low", "value": -1e9}, "targets.3.low", "at least"),
        ("targets/auw", {"end": "middle", "value": 1}, "end", "low"),
        ("targets/auw", {"end": "high"}, "value", ""),
        ("targets/auw", {"end": "high", "value": -5}, "targets.0.high", "more than 0 g"),
        ("targets/speed", {"end": "high", "value": 1}, "kind", "auw"),
        ("thrust", {"thrust_gf": 0}, "thrust_gf", "0"),
        ("thrust", {}, "thrust_gf", ""),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_is_kept(client, told, what, body, field, says):
    refused = put(client, told, what, **body)
    assert problem(refused, field, says)
    now = client.get(f"/api/v1/builds/{told['build']['id']}").json()
    assert (now["revision"], now["build"]) == (told["revision"], told["build"])


def test_thrust_is_stated_anew_and_taken_away(client, told):
    first = put(client, told, "thrust", thrust_gf=440).json()
    assert first["build"]["thrust"]["thrust_gf"] == 440
    again = put(client, first, "thrust", thrust_gf=470).json()
    assert again["build"]["thrust"]["source"] == "your own figure"
    assert put(client, again, "thrust", thrust_gf=None).json()["build"]["thrust"] is None
