"""What may slide, spots for ballast and its pieces, through the API."""

import pytest

from tests.api.asking import problem

AT = "/api/v1/builds/sandpiper"


def opened(client) -> dict:
    return client.get(AT).json()


def act(client, path: str, method: str = "POST", **body):
    match = {"If-Match": f'"{opened(client)["revision"]}"'}
    return client.request(method, f"{AT}/{path}", json=body, headers=match)


def part(told: dict, id: str) -> dict:
    return next(each for each in told["build"]["parts"] if each["id"] == id)


def test_a_part_is_let_slide_about_where_it_sits(demo):
    x = part(opened(demo), "controller")["station"]["x_mm"]
    told = act(demo, "parts/controller/slide").json()
    assert part(told, "controller")["slide"] == {"low_mm": x - 20, "high_mm": x + 20}
    assert act(demo, "parts/nothing/slide").status_code == 404


def test_pieces_are_kept_as_they_are_said(demo):
    told = act(demo, "ballast/pieces", "PUT", line="two 5 g coins; 0.5", unit="oz").json()
    assert told["build"]["ballast"]["pieces"] == pytest.approx([5, 5, 14.1747615625])
    shown = [{"text": "2 x 0.18", "grams": [5.0, 5.1]}]
    told = act(demo, "ballast/pieces", "PUT", line="2 x 0.18", unit="oz", shown=shown).json()
    assert told["build"]["ballast"]["pieces"] == [5.0, 5.1]
    refused = act(demo, "ballast/pieces", "PUT", line="5; many")
    assert problem(refused, "line", 'says "many"')
    assert opened(demo) == told


def test_what_is_put_in_is_at_hand_no_more_and_again_once_it_is_taken_back(demo):
    for each in opened(demo)["build"]["parts"]:
        if each["slide"]:
            stays = act(demo, f"parts/{each['id']}", "PUT", **(each | {"slide": None}))
            assert stays.status_code == 200, stays.text
    told = act(demo, "ballast/spots").json()
    assert [each["name"] for each in told["build"]["ballast"]["spots"]] == ["Nose", "Spot 2"]
    free = [each for each in told["build"]["targets"] if each["kind"] == "balance"]
    headers = {"If-Match": f'"{told["revision"]}"'}
    assert demo.patch(AT, json={"targets": free}, headers=headers).status_code == 200
    pieces = [10.0] * 40
    before = act(demo, "ballast/pieces", "PUT", line="40 x 10").json()
    best = demo.get(f"{AT}/remedies").json()["best"]
    used = sum(len(each["pieces"]) for each in best["ballast"])
    assert used > 0
    done = act(demo, "remedies/done").json()
    assert done["build"]["ballast"]["pieces"] == pieces[used:]
    back = act(demo, "undo").json()
    assert back["build"] == before["build"]
