"""Every change taken back in the order it was made, and made again, through the API."""

from copy import deepcopy

import pytest

from tests.api.test_life import AT, act, opened, part, record


def patched(client, **fields):
    match = {"If-Match": f'"{opened(client)["revision"]}"'}
    return client.patch(AT, json=fields, headers=match)


def undo(client, at: str = AT, way: str = "undo"):
    told = client.get(at)
    match = {"If-Match": told.headers.get("etag", '"1"')}
    return client.post(f"{at}/{way}", headers=match)


def surfaces(client, chord: float):
    told = deepcopy(opened(client)["build"]["surfaces"])
    told[0]["sections"][0]["chord_mm"] = chord
    return told


def fresh(client, **fields):
    return {"name": "Camera hatch", "pedigree": "guess", "stated_g": 4.0} | fields


ACTS = {
    "a section": lambda c: patched(c, surfaces=surfaces(c, 205.0)),
    "the name": lambda c: patched(c, name="Redshank"),
    "a target": lambda c: patched(c, targets=[]),
    "no thrust": lambda c: patched(c, thrust=None),
    "a loadout less": lambda c: patched(c, loadouts=opened(c)["build"]["loadouts"][1:]),
    "a part more": lambda c: act(c, "parts", **fresh(c)),
    "a part less": lambda c: act(c, "parts/brace", method="DELETE"),
    "a part repaired": lambda c: act(
        c, "parts/fuselage-box/repair", words="a post", added=[fresh(c, name="Patch")]
    ),
    "a part replaced": lambda c: act(c, "parts/motor/replace", part=fresh(c, name="Motor, larger")),
    "a part retired": lambda c: act(c, "parts/left-panel/retire", words="broken"),
    "finished": lambda c: act(c, "finished", method="PUT", finished=True),
}


def plain(told: dict) -> dict:
    return told["build"]


@pytest.mark.parametrize("name", ACTS)
def test_each_act_is_taken_back_and_made_again(demo, name):
    before = opened(demo)
    done = ACTS[name](demo)
    assert done.status_code < 300, done.json()
    after = opened(demo)
    assert plain(after) != plain(before)
    back = undo(demo)
    assert back.status_code == 200, back.json()
    assert back.json()["touched"]
    assert plain(opened(demo)) == plain(before)
    again = undo(demo, way="redo")
    assert again.status_code == 200, again.json()
    assert plain(opened(demo)) == plain(after)


def test_all_of_them_in_their_order_and_back_again(demo):
    seen = [plain(opened(demo))]
    for name in ("a section", "the name", "a part more", "a part repaired", "a target"):
        assert ACTS[name](demo).status_code < 300
        seen.append(plain(opened(demo)))
    for before in reversed(seen[:-1]):
        assert undo(demo).status_code == 200
        assert plain(opened(demo)) == before
    for after in seen[1:]:
        assert undo(demo, way="redo").status_code == 200
        assert plain(opened(demo)) == after


def test_nothing_to_take_back_is_said(demo):
    told = undo(demo)
    assert told.status_code == 409
    assert "nothing was changed in this build" in told.json()["detail"]
    assert undo(demo, way="redo").status_code == 409
    assert undo(demo, "/api/v1/builds/no-such").status_code == 404


def test_a_new_change_forgets_what_was_taken_back(demo):
    ACTS["the name"](demo)
    undo(demo)
    ACTS["a target"](demo)
    assert undo(demo, way="redo").status_code == 409


def test_a_reading_is_set_aside_never_deleted(demo):
    before = len(opened(demo)["build"]["weighings"])
    record(demo, 1, 12.4, "motor")
    told = undo(demo).json()
    assert len(told["build"]["weighings"]) == before + 1
    assert told["build"]["weighings"][-1]["set_aside"] == "taken back"
    assert told["touched"] == [
        {"field": "weighings", "how": "added", "name": "", "grams": pytest.approx(12.4)}
    ]
    again = undo(demo, way="redo").json()
    assert again["build"]["weighings"][-1]["set_aside"] is None


def test_a_reading_that_was_set_aside_speaks_again(demo):
    aside = {"reason": "the tray was on"}
    assert demo.put(f"{AT}/weighings/reading-03/set-aside", json=aside).status_code == 200
    told = undo(demo).json()
    (reading,) = (each for each in told["build"]["weighings"] if each["id"] == "reading-03")
    assert reading["set_aside"] is None


def test_a_part_that_was_weighed_meanwhile_retires(demo):
    added = act(demo, "parts", **fresh(demo)).json()
    hatch = added["build"]["parts"][-1]["id"]
    record(demo, 1, 4.2, hatch)
    undo(demo)
    told = undo(demo).json()
    assert part(told, hatch)["retired"]
    assert [each["field"] for each in told["touched"]] == ["parts"]


def test_what_was_changed_meanwhile_stays(demo):
    """A page takes its own last change back although a reading came after it elsewhere."""
    ACTS["the name"](demo)
    record(demo, 1, 12.4, "motor")
    assert undo(demo).json()["touched"][0]["field"] == "weighings"
    told = undo(demo).json()
    assert told["build"]["name"] == "Sandpiper"
    assert told["build"]["weighings"][-1]["id"] == "new-1"


def test_a_part_moved_to_another_build_comes_home(demo):
    moved = act(demo, "parts/motor/move", to="mayfly")
    assert moved.status_code == 200, moved.json()
    there = opened(demo, "/api/v1/builds/mayfly")
    told = undo(demo, "/api/v1/builds/mayfly")
    assert told.status_code == 200, told.json()
    assert not part(opened(demo), "motor")["retired"]
    names = [
        each["id"]
        for each in opened(demo, "/api/v1/builds/mayfly")["build"]["parts"]
        if not each["retired"]
    ]
    was = [each["id"] for each in there["build"]["parts"] if not each["retired"]]
    assert len(names) == len(was) - 1


def test_an_undo_that_is_sent_again_takes_nothing_more_back(demo):
    ACTS["the name"](demo)
    ACTS["a target"](demo)
    match = {"If-Match": demo.get(AT).headers["etag"]}
    assert demo.post(f"{AT}/undo", headers=match).status_code == 200
    assert demo.post(f"{AT}/undo", headers=match).status_code == 412
    assert opened(demo)["build"]["name"] == "Redshank"


def test_what_was_said_of_a_lot_of_the_rack_is_taken_back_there_too(demo):
    before = opened(demo)["build"]
    lot = next(each for each in before["lots"] if each["rack"])
    changed = [
        {**each, "name": "Foam, other"} if each["id"] == lot["id"] else each
        for each in before["lots"]
    ]
    assert patched(demo, lots=changed).status_code == 200

    def on_rack():
        shelf = demo.get("/api/v1/rack").json()
        return next(each["lot"]["name"] for each in shelf if each["lot"]["id"] == lot["rack"])

    assert on_rack() == "Foam, other"
    assert undo(demo).status_code == 200
    assert on_rack() == lot["name"]
    assert opened(demo)["build"]["lots"] == before["lots"]


def test_an_act_is_taken_back_by_the_revision_it_made_whatever_came_since(demo):
    """A pack that flew nowhere yet: back in its place on the list, in its loadouts, and as the
    drive's pack; what was done after it stays."""
    drive = opened(demo)["build"]["power"]
    spare = {"name": "Spare pack", "pedigree": "listing", "stated_g": 95.0, "option": True}
    listed = act(demo, "parts", **spare).json()["build"]["parts"][-1]["id"]
    pack = drive["packs"][0] | {"id": "spare", "name": "Spare pack", "part": listed}
    patched(demo, power=drive | {"packs": [*drive["packs"], pack]})
    patched(
        demo,
        loadouts=[
            each | {"carries": [*each["carries"], listed]}
            for each in opened(demo)["build"]["loadouts"]
        ],
    )
    act(demo, "parts", **fresh(demo))
    before = opened(demo)["build"]
    gone = act(demo, f"parts/{listed}", method="DELETE").json()
    assert all(each["part"] != listed for each in gone["build"]["power"]["packs"])
    renamed = patched(demo, name="Redshank").json()
    match = {"If-Match": f'"{renamed["revision"]}"'}
    back = demo.post(f"{AT}/undo", params={"made": gone["revision"]}, headers=match)
    assert back.status_code == 200, back.json()
    assert back.json()["build"] == before | {"name": "Redshank"}
    # Once: it is not there to be taken back a second time, and the rename is the last act again.
    match = {"If-Match": f'"{back.json()["revision"]}"'}
    again = demo.post(f"{AT}/undo", params={"made": gone["revision"]}, headers=match)
    assert again.status_code == 409
    assert "not remembered" in again.json()["detail"]
    assert undo(demo).json()["build"] == before
