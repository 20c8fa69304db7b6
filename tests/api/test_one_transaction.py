"""Nothing lost: what cannot be assessed is not kept, two servers never overwrite each other."""

import json
import sqlite3
import threading
from dataclasses import replace
from datetime import UTC, datetime

import pytest
from fastapi.testclient import TestClient

from oaken_scale.api.app import create_app
from oaken_scale.core.model import limits
from oaken_scale.core.model.balancing import BalanceCheck, CheckKind
from oaken_scale.core.model.build import Build
from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.workshop import Workshop, held
from oaken_scale.workshop.held import exportable
from oaken_scale.workshop.refused import OutOfDateError
from tests.api.asking import begin, change, part

AT = "/api/v1/builds/sandpiper"


def matched(told: dict) -> dict:
    return {"If-Match": f'"{told["revision"]}"'}


def hollow(client) -> str:
    """20 g placed and a pocket of -20 dm2 without a station: the whole weighs less than nothing."""
    told = begin(client)
    lot = {"id": "a", "name": "Sheet", "unit": "dm2", "constant": 4.6, "doubt": 0.4}
    told = change(client, told, lots=[lot])
    told = part(client, told, name="Block", stated_g=20.0, station={"x_mm": 100.0})
    told = part(
        client, told, name="Pocket", pedigree="calculated", uses=[{"lot": "a", "amount": -20.0}]
    )
    return f"/api/v1/builds/{told['build']['id']}"


def test_a_build_that_weighs_less_than_nothing_takes_no_page_down(client):
    at = hollow(client)
    sent = {"id": "c", "kind": "support", "x_mm": 100.0}
    answer = client.post(f"{at}/checks", json=sent)
    assert answer.status_code in (201, 422)
    assert client.get("/api/v1/builds").status_code == 200
    assert client.get(at).status_code == 200
    assert client.get(f"{at}/file").status_code == 200
    again = client.post(
        "/api/v1/builds/import",
        content=client.get(f"{at}/file").content,
        headers={"Content-Type": "application/json"},
    )
    assert again.status_code in (201, 422)
    assert client.get("/api/v1/builds").status_code == 200


def test_what_cannot_be_assessed_is_refused_and_not_kept(client, monkeypatch):
    told = begin(client)

    def broken(build):
        if any(part.name == "Odd" for part in build.parts):
            raise ZeroDivisionError("in the middle of it")
        return real(build)

    real = held.assess
    monkeypatch.setattr(held, "assess", broken)
    answer = client.post(
        f"/api/v1/builds/{told['build']['id']}/parts",
        json={"name": "Odd", "pedigree": "guess", "stated_g": 3.0},
        headers=matched(told),
    )
    assert answer.status_code == 422
    assert "cannot be worked out" in answer.json()["detail"]
    now = client.get(f"/api/v1/builds/{told['build']['id']}").json()
    assert now["revision"] == told["revision"]
    assert now["build"] == told["build"]


def test_the_shelf_survives_a_build_that_cannot_be_assessed(tmp_path, monkeypatch):
    """One that is in the database all the same: it stands there with a word about it."""
    path = tmp_path / "w.sqlite"
    with TestClient(create_app(path)) as client:
        bad, good = begin(client), begin(client)
        real = held.assess

        def broken(build):
            if build.id == bad["build"]["id"] and build.parts:
                raise ValueError("what is in there")
            return real(build)

        monkeypatch.setattr(held, "assess", broken)
    with TestClient(create_app(path)) as client:
        assert len(client.get("/api/v1/builds").json()) == 2
        told = client.get(f"/api/v1/builds/{bad['build']['id']}").json()
        assert told["assessment"]["notices"][0]["code"] == "cannot_be_assessed"
        assert client.get(f"/api/v1/builds/{good['build']['id']}").json()["build"] == good["build"]
        assert client.get(f"/api/v1/builds/{bad['build']['id']}/file").status_code == 200
    assert [build.name for build in Workshop(path).files()] == ["Curlew", "Curlew"]


def test_two_servers_on_one_database_lose_no_edit(tmp_path):
    path = tmp_path / "w.sqlite"
    one, other = Workshop(path), Workshop(path)
    with TestClient(create_app(path)) as client:
        id = begin(client)["build"]["id"]
    kept: list[str] = []

    def edit(shop: Workshop, who: str) -> None:
        for n in range(12):
            while True:
                revision = shop.held(id).revision
                mark = f"{who}{n}"
                try:
                    shop.change(
                        id, revision, lambda b, mark=mark: replace(b, notes=f"{b.notes} {mark}")
                    )
                except (OutOfDateError, sqlite3.OperationalError):
                    continue
                kept.append(mark)
                break

    threads = [threading.Thread(target=edit, args=pair) for pair in ((one, "a"), (other, "b"))]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    assert len(kept) == 24
    assert set(one.held(id).build.notes.split()) == set(kept)
    one.close()
    other.close()


def test_a_412_has_changed_nothing_not_even_the_rack(demo):
    told = demo.get(AT).json()
    lot = {"id": "own", "name": "Own sheet", "unit": "dm2", "constant": 4.0, "doubt": 0.3}
    lots = [*told["build"]["lots"], lot]
    fresh = demo.patch(AT, json={"lots": lots}, headers=matched(told)).json()
    before = demo.get("/api/v1/rack").json()
    answer = demo.put(f"{AT}/lots/own/rack", headers=matched(told))
    assert answer.status_code == 412
    assert demo.get("/api/v1/rack").json() == before
    assert demo.put(f"{AT}/lots/own/rack", headers=matched(fresh)).status_code == 200
    assert len(demo.get("/api/v1/rack").json()) == len(before) + 1


def test_moved_through_the_drawer_it_leaves_its_history_and_a_word(demo):
    then = datetime.now(UTC).isoformat()
    told = demo.get(AT).json()
    before = demo.get(f"{AT}/as-of", params={"at": then}).json()
    auw = before["loadouts"][0]["answers"][0]["value"]
    other = demo.post("/api/v1/builds", json={"name": "Turnstone"}).json()
    at = f"/api/v1/builds/{other['build']['id']}"
    answer = demo.post(
        f"{at}/things", json={"thing": "receiver", "move": True}, headers=matched(other)
    )
    assert answer.status_code == 201
    now = demo.get(AT).json()
    assert now["revision"] > told["revision"]
    assert next(i for i in now["build"]["parts"] if i["id"] == "receiver")["retired"]
    assert "moved to Turnstone" in now["build"]["diary"][-1]["words"]
    assert now["assessment"]["unchecked"]
    again = demo.get(f"{AT}/as-of", params={"at": then}).json()
    assert again["loadouts"][0]["answers"][0]["value"] == pytest.approx(auw, abs=0.01)


def test_a_part_removed_while_it_lies_on_the_pan_is_off_it(demo):
    told = demo.get(AT).json()
    demo.put(f"{AT}/pan", json={"loads": [{"part": "wear-pads"}, {"part": "motor"}]})
    assert demo.delete(f"{AT}/parts/wear-pads", headers=matched(told)).status_code == 200
    pan = demo.get(f"{AT}/pan")
    assert pan.status_code == 200
    assert [load["part"] for load in pan.json()["loads"]["loads"]] == ["motor"]
    assert demo.post(f"{AT}/tare").status_code == 200


def test_what_was_written_can_be_exported_however_long_its_name(demo):
    told = demo.get(AT).json()
    long = "L" * limits.NAME_LENGTH
    part_ = next(i for i in told["build"]["parts"] if i["id"] == "tailplane")
    named = demo.put(f"{AT}/parts/tailplane", json={**part_, "name": long}, headers=matched(told))
    trimmed = demo.post(
        f"{AT}/parts/tailplane/trim", json={"grams": 1.0}, headers=matched(named.json())
    )
    assert trimmed.status_code == 200
    assert demo.get(f"{AT}/file").status_code == 200


def test_what_could_not_be_exported_is_not_written(demo):
    checks = tuple(
        BalanceCheck(f"c{k}", datetime.now(UTC), CheckKind.SUPPORT, None, 1.0)
        for k in range(limits.ENTRIES + 1)
    )
    assert exportable(Build("b", "B", checks=checks[:-1])).checks == checks[:-1]
    with pytest.raises(BuildFaultError, match="checks"):
        exportable(Build("b", "B", checks=checks))


def test_a_typed_reading_is_understood_by_the_server_that_keeps_it(demo):
    pan = {"loads": [{"part": "receiver"}]}
    sent = {"id": "typed-1", "scale": "kitchen", "typed": "0.26", "unit": "oz", "pan": pan}
    answer = demo.post(f"{AT}/weighings", json=sent)
    assert answer.status_code == 201
    assert answer.json()["weighing"]["reading_g"] == pytest.approx(0.26 * 28.349523125)
    assert answer.json()["weighing"]["typed"] == "0.26"
    assert demo.post(f"{AT}/weighings", json=sent).status_code == 200
    for typed in ("", "heavy", "0"):
        refused = demo.post(f"{AT}/weighings", json={**sent, "id": f"t-{typed}x", "typed": typed})
        assert refused.status_code == 422
        assert refused.json()["faults"][0]["field"] in ("typed", "reading_g")


def test_remedies_say_what_they_were_worked_out_for_and_are_done_for_that_alone(demo):
    worked = demo.get(f"{AT}/remedies")
    match = worked.headers["ETag"]
    told = demo.get(AT).json()
    assert match == f'"{told["revision"]}"'
    demo.patch(AT, json={"notes": "another page was busy"}, headers=matched(told))
    late = demo.post(f"{AT}/remedies/done", json={"which": 0}, headers={"If-Match": match})
    assert late.status_code == 412


def test_a_reading_that_came_between_takes_no_change_back(demo):
    told = demo.get(AT).json()
    pan = {"loads": [{"part": "receiver"}]}
    sent = {"id": "between", "scale": "kitchen", "typed": "7.4", "pan": pan}
    assert demo.post(f"{AT}/weighings", json=sent).status_code == 201
    later = demo.patch(AT, json={"notes": "typed meanwhile"}, headers=matched(told))
    assert later.status_code == 200
    assert later.json()["build"]["weighings"][-1]["id"] == "between"
    assert later.json()["build"]["notes"] == "typed meanwhile"
    over = demo.patch(AT, json={"notes": "another page"}, headers=matched(told))
    assert over.status_code == 412
    assert demo.get(AT).json()["build"]["notes"] == "typed meanwhile"


def test_what_was_worked_out_from_the_readings_is_not_done_after_another(demo):
    match = {"If-Match": demo.get(f"{AT}/remedies").headers["ETag"]}
    sent = {
        "id": "between",
        "scale": "kitchen",
        "typed": "7.4",
        "pan": {"loads": [{"part": "receiver"}]},
    }
    demo.post(f"{AT}/weighings", json=sent)
    assert demo.post(f"{AT}/remedies/done", json={"which": 0}, headers=match).status_code == 412
    assert demo.post(f"{AT}/wing-place", headers=match).status_code == 412
    assert demo.post(f"{AT}/undo", headers=match).status_code == 412


def test_a_change_that_waited_for_a_killed_workshop_comes_home_after_a_reading(tmp_path):
    path = tmp_path / "w.sqlite"
    with TestClient(create_app(path)) as client:
        told = begin(client)
        at = f"/api/v1/builds/{told['build']['id']}"
        part = {"name": "Motor", "pedigree": "guess", "stated_g": 60}
        told = client.post(f"{at}/parts", json=part, headers=matched(told)).json()
    with TestClient(create_app(path)) as client:
        sent = {
            "id": "waited",
            "scale": "scale",
            "typed": "61",
            "pan": {"loads": [{"part": "motor"}]},
        }
        assert client.post(f"{at}/weighings", json=sent).status_code == 201
        home = client.patch(at, json={"notes": "waited too"}, headers=matched(told))
        assert home.status_code == 200


def test_a_check_keeps_the_plane_as_it_stood(demo):
    sent = {"id": "c1", "kind": "support", "loadout": "scout-850", "x_mm": 250.0, "by": "pegs"}
    told = demo.post(f"{AT}/checks", json=sent).json()
    (check,) = told["build"]["checks"]
    stood = {each["part"]: each["x_mm"] for each in check["stood"]}
    assert "camera" not in stood
    assert stood["pack-850"] == 212.0
    assert stood["left-panel"] == 186.0 + 80.0
    assert stood["still-to-come"] is None
    file = demo.get(f"{AT}/file").content
    back = demo.post(
        "/api/v1/builds/import", content=file, headers={"Content-Type": "application/json"}
    ).json()
    assert back["build"]["checks"] == told["build"]["checks"]
    refused = demo.delete(f"{AT}/parts/wear-pads", headers=matched(told))
    assert refused.status_code == 409
    assert "retire it" in refused.json()["detail"]


def test_finished_builds_teach_the_next_one_how_guesses_run(client):
    for name in ("Knot", "Ruff"):
        told = begin(client, name=name)
        for k in range(4):
            told = part(client, told, id=f"p{k}", name=f"Part {k}", stated_g=20.0)
        at = f"/api/v1/builds/{told['build']['id']}"
        for k in range(4):
            pan = {"loads": [{"part": f"p{k}"}]}
            sent = {"id": f"w{k}", "scale": "scale", "reading_g": 26.0 + 0.1 * k, "pan": pan}
            assert client.post(f"{at}/weighings", json=sent).status_code == 201
        now = client.get(at).json()
        assert (
            client.put(f"{at}/finished", json={"finished": True}, headers=matched(now)).status_code
            == 200
        )
    fresh = begin(client, name="Godwit")
    (habit,) = fresh["build"]["habits"]
    assert habit["pedigree"] == "guess"
    assert 1.15 < habit["factor"] < 1.32
    told = part(client, fresh, name="Skid", stated_g=10.0)
    skid = next(m for m in told["assessment"]["parts"] if m["id"] == "skid")
    assert skid["mass_g"] == pytest.approx(10.0 * habit["factor"])
    assert json.loads(client.get(f"/api/v1/builds/{fresh['build']['id']}/file").content)


@pytest.mark.parametrize(
    ("at", "sent"),
    [
        ("drawer", {"name": "Receiver", "kind": "receiver", "listing_g": 7.0}),
        ("rack", {"name": "Sheet", "unit": "dm2", "constant": 4.6, "doubt": 0.4}),
    ],
)
def test_what_two_servers_lay_down_under_one_name_are_as_many(tmp_path, at, sent):
    """Each gets an id of its own: none is written over the other."""
    path, made = tmp_path / "w.sqlite", []

    def lay(client: TestClient) -> None:
        for _ in range(8):
            answer = client.post(f"/api/v1/{at}", json=sent)
            while answer.status_code == 503:  # the other server holds the database
                answer = client.post(f"/api/v1/{at}", json=sent)
            made.append((answer.status_code, answer.json()))

    with TestClient(create_app(path)) as one, TestClient(create_app(path)) as other:
        before = len(one.get(f"/api/v1/{at}").json())
        threads = [threading.Thread(target=lay, args=(client,)) for client in (one, other)]
        for each in threads:
            each.start()
        for each in threads:
            each.join()
        assert {status for status, _ in made} == {201}
        listed = other.get(f"/api/v1/{at}").json()
    assert len(listed) == before + 16
