"""Balance through the API: tried, kept, checked, mended, and variants beside it."""

import pytest

from tests.api.asking import problem

AT = "/api/v1/builds/sandpiper"


def opened(client, at: str = AT) -> dict:
    return client.get(at).json()


def act(client, path: str, at: str = AT, method: str = "POST", **body):
    match = {"If-Match": f'"{opened(client, at)["revision"]}"'}
    return client.request(method, f"{at}/{path}", json=body, headers=match)


def x_of(assessment: dict, loadout: int = 0) -> float:
    return assessment["loadouts"][loadout]["cg"]["x_mm"]


def station(told: dict, id: str) -> float:
    return next(i for i in told["build"]["parts"] if i["id"] == id)["station"]["x_mm"]


def test_the_demo_is_a_little_tail_heavy_and_moving_the_pack_cures_it(demo):
    beam = opened(demo)["assessment"]["beam"]
    assert {each["heavy"] for each in beam["loadouts"]} == {"tail-heavy"}
    told = demo.get(f"{AT}/remedies").json()
    assert {each["part"] for each in told["best"]["slides"]} == {"pack-1300", "pack-850"}
    assert told["best"]["ballast_g"] == 0
    assert (told["outcome"], told["best"]["ballast"]) == ("found", [])
    done = act(demo, "remedies/done", which=0).json()
    assert {each["heavy"] for each in done["assessment"]["beam"]["loadouts"]} == {"in its range"}
    for slid in told["best"]["slides"]:
        assert station(done, slid["part"]) == pytest.approx(slid["to_mm"], abs=0.06)
    again = demo.get(f"{AT}/remedies").json()
    assert again["outcome"] == "fine"
    refused = act(demo, "remedies/done", which=9)
    assert refused.status_code == 422
    assert "which" in refused.json()["faults"][0]["field"]


def test_a_drag_is_told_by_the_same_reckoning_and_kept_only_when_asked(demo):
    before = opened(demo)
    body = {"moved": [{"part": "pack-1300", "x_mm": 180.0}]}
    tried = demo.post(f"{AT}/what-if", json=body).json()
    assert opened(demo) == before
    mass = next(m for m in before["assessment"]["parts"] if m["id"] == "pack-1300")["mass_g"]
    total = before["assessment"]["loadouts"][0]["answers"][0]["value"]
    assert x_of(tried) == pytest.approx(x_of(before["assessment"]) - 32 * mass / total, abs=0.5)
    kept = act(demo, "moved", **body).json()
    assert kept["assessment"] == tried
    servo = act(demo, "moved", moved=[{"part": "aileron-servos", "x_mm": 300.0}]).json()
    part = next(i for i in servo["build"]["parts"] if i["id"] == "aileron-servos")
    assert part["station"]["reference"] == "leading_edge"
    assert part["station"]["x_mm"] == pytest.approx(300.0 - 186.0)


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("what-if", {"moved": [{"part": "keel", "x_mm": 1}]}, "moved.0.part"),
        ("what-if", {"moved": [{"part": "still-to-come", "x_mm": 1}]}, "moved.0.part"),
        (
            "checks",
            {"id": "c", "kind": "supports", "x_mm": 100, "other_mm": 100, "reading_g": 5},
            "checks.0.other_mm",
        ),
        ("checks", {"id": "c", "kind": "supports", "x_mm": 100}, "checks.0.other_mm"),
        ("checks", {"id": "c", "kind": "hang", "x_mm": 100}, "checks.0.z_mm"),
        (
            "checks",
            {"id": "c", "kind": "support", "x_mm": 1, "loadout": "none"},
            "checks.0.loadout",
        ),
    ],
)
def test_what_cannot_be_names_its_field_and_changes_nothing(demo, path, body, field):
    before = opened(demo)
    told = demo.post(f"{AT}/{path}", json=body)
    assert told.status_code == 422
    assert field in [each["field"] for each in told.json()["faults"]]
    assert opened(demo) == before


def test_a_check_is_recorded_once_set_aside_and_counted_again(demo):
    x = x_of(opened(demo)["assessment"])
    sent = {"id": "c1", "kind": "support", "loadout": "camera-1300", "x_mm": x + 6, "by": "pegs"}
    first = demo.post(f"{AT}/checks", json=sent)
    assert first.status_code == 201
    assert demo.post(f"{AT}/checks", json=sent).json()["revision"] == first.json()["revision"]
    assert demo.post(f"{AT}/checks", json={**sent, "x_mm": 1.0}).status_code == 409
    told = first.json()["assessment"]
    assert x + 3 < x_of(told) < x + 6
    (check,) = told["beam"]["checks"]
    assert check["sum_mm"] == pytest.approx(x)
    gone = demo.put(f"{AT}/checks/c1/set-aside", json={"reason": "without its hatch"}).json()
    assert x_of(gone["assessment"]) == pytest.approx(x)
    back = demo.put(f"{AT}/checks/c1/set-aside", json={"reason": None}).json()
    assert x_of(back["assessment"]) == pytest.approx(x_of(told))
    assert demo.put(f"{AT}/checks/zz/set-aside", json={"reason": "x"}).status_code == 404


def test_a_check_measured_from_the_leading_edge_is_kept_from_the_nose(demo):
    sent = {"id": "c", "kind": "support", "loadout": "camera-1300", "x_mm": 55.0, "by": "pegs"}
    sent["reference"] = "leading_edge"
    first = demo.post(f"{AT}/checks", json=sent).json()
    edge = first["assessment"]["wing"]["leading_edge_x_mm"]
    assert first["build"]["checks"][-1]["x_mm"] == 55.0 + edge
    assert demo.post(f"{AT}/checks", json=sent).json()["revision"] == first["revision"]
    assert demo.post(f"{AT}/checks", json={**sent, "reference": "nose"}).status_code == 409
    wrong = demo.post(f"{AT}/checks", json={**sent, "id": "d", "reference": "tail"})
    problem(wrong, "reference", "nose")


def test_the_balance_target_is_the_same_range_in_another_unit(demo):
    before = opened(demo)
    told = act(demo, "balance-target/unit", method="PUT", unit="mm_from_leading_edge").json()
    target = next(t for t in told["build"]["targets"] if t["kind"] == "balance")
    was = next(t for t in before["build"]["targets"] if t["kind"] == "balance")
    wing, beam = told["assessment"]["wing"], told["assessment"]["beam"]
    low = wing["mac_le_x_mm"] + was["low"] * wing["mac_mm"] / 100 - wing["leading_edge_x_mm"]
    assert (target["low"], target["source"]) == (pytest.approx(low, abs=1e-3), was["source"])
    assert beam["low_mm"] == pytest.approx(before["assessment"]["beam"]["low_mm"], abs=1e-3)
    for unit in ("percent_mac", "mm_from_nose", "percent_mac"):
        told = act(demo, "balance-target/unit", method="PUT", unit=unit).json()
    again = next(t for t in told["build"]["targets"] if t["kind"] == "balance")
    assert (again["low"], again["high"]) == pytest.approx((was["low"], was["high"]), abs=1e-3)
    problem(act(demo, "balance-target/unit", method="PUT", unit="inches"), "unit", "percent_mac")


def test_what_is_aboard_and_what_hangs_is_told_with_every_answer(demo):
    told = opened(demo)
    of = {each["id"]: each["carries"] for each in told["build"]["loadouts"]}
    options = {each["id"] for each in told["build"]["parts"] if each["option"]}
    for flown in told["assessment"]["loadouts"]:
        assert set(flown["aboard"]) & options == set(of[flown["id"]])
    hung = told["assessment"]["beam"]["loadouts"][0]["hung"]
    pack = next(each for each in hung if each["part"] == "pack-1300")
    assert (pack["low_mm"] is None, pack["parts"]) == (False, ["pack-1300"])


def test_one_school_is_chosen_as_the_target_with_its_reason(demo):
    told = act(demo, "balance-target", school="static margin, steady").json()
    target = next(t for t in told["build"]["targets"] if t["kind"] == "balance")
    beam = told["assessment"]["beam"]
    school = next(s for s in beam["schools"] if s["kind"] == "static margin, steady")
    assert beam["low_mm"] == pytest.approx(school["low_mm"], abs=0.01)
    assert target["source"] == "static margin, steady"
    assert beam["chosen"] == "static margin, steady"
    other = demo.post("/api/v1/builds", json={"name": "C", "layout": "canard"}).json()
    refused = act(
        demo, "balance-target", f"/api/v1/builds/{other['build']['id']}", school="chord rule"
    )
    assert refused.status_code == 422
    assert "one of: static margin, steady" in refused.json()["faults"][0]["words"]


def test_what_a_longer_bay_would_save(demo):
    tight = {"low_mm": 215.0, "high_mm": 240.0}
    match = opened(demo)
    for id in ("pack-1300", "pack-850", "camera"):
        part = next(i for i in match["build"]["parts"] if i["id"] == id)
        slide = tight if id != "camera" else None
        match = demo.put(
            f"{AT}/parts/{id}",
            json={**part, "slide": slide},
            headers={"If-Match": f'"{match["revision"]}"'},
        ).json()
    limit = [t for t in match["build"]["targets"] if t["kind"] != "auw"]
    demo.patch(AT, json={"targets": limit}, headers={"If-Match": f'"{match["revision"]}"'})
    now = demo.get(f"{AT}/remedies").json()
    assert now["best"]["ballast_g"] > 0
    wider = {"part": "receiver", "slide": {"low_mm": 60.0, "high_mm": 340.0}}
    told = demo.post(f"{AT}/remedies/what-if", json=wider).json()
    assert told["now"]["best"]["ballast_g"] == now["best"]["ballast_g"]
    assert told["saves_g"] == pytest.approx(
        told["now"]["best"]["ballast_g"] - told["then"]["best"]["ballast_g"]
    )
    assert told["saves_g"] > 0
    assert demo.post(f"{AT}/remedies/what-if", json={**wider, "part": "keel"}).status_code == 404


def test_the_wing_is_put_where_it_belongs(demo):
    place = demo.get(f"{AT}/wing-place", params={"loadout": "camera-1300"}).json()
    assert place["now_mm"] == 186.0
    moved = act(demo, "wing-place?loadout=camera-1300").json()
    assert moved["assessment"]["wing"]["leading_edge_x_mm"] == pytest.approx(
        place["edge_mm"], abs=0.06
    )
    answer = moved["assessment"]["loadouts"][0]["answers"][3]
    assert answer["value"] == pytest.approx((answer["low"] + answer["high"]) / 2, abs=0.1)
    assert demo.get(f"{AT}/wing-place", params={"loadout": "none"}).status_code == 422
    assert demo.get(f"{AT}/wing-place", params={"assembly": "Keel"}).status_code == 422


def test_a_variant_stands_beside_its_build_and_is_adopted(demo):
    made = demo.post(f"{AT}/variants", json={"name": "Lighter motor"}).json()["build"]
    there = f"/api/v1/builds/{made['id']}"
    assert made["variant_of"] == "sandpiper"
    motor = next(i for i in made["parts"] if i["id"] == "motor")
    act(
        demo,
        "parts/motor/replace",
        there,
        part={"name": "Spare motor", "pedigree": "listing", "stated_g": 29.0},
    )
    demo.post(
        f"{there}/weighings",
        json={
            "id": "new-one",
            "scale": "kitchen",
            "reading_g": 30.2,
            "pan": {"loads": [{"part": "spare-motor"}]},
        },
    )
    family = demo.get(f"{AT}/variants").json()
    assert [each["name"] for each in family] == ["Sandpiper", "Lighter motor"]
    assert family[0]["changes"] == []
    changes = {(each["kind"], each["name"]) for each in family[1]["changes"]}
    assert changes == {("without", motor["name"]), ("with", "Spare motor")}
    assert demo.get(f"{there}/variants").json() == family
    told = act(demo, f"variants/{made['id']}/adopted").json()
    assert told["build"]["name"] == "Sandpiper"
    assert told["build"]["variant_of"] is None
    assert next(i for i in told["build"]["parts"] if i["id"] == "motor")["retired"]
    assert told["build"]["weighings"][-1]["id"] == "new-one"
    assert opened(demo)["build"] == told["build"]
    assert [each["name"] for each in demo.get(f"{AT}/variants").json()] == ["Sandpiper"]
    stranger = demo.post("/api/v1/builds", json={"name": "Other"}).json()["build"]["id"]
    assert act(demo, f"variants/{stranger}/adopted").status_code == 409


def test_a_part_held_alone_names_what_it_is_made_of(demo):
    build = "/api/v1/builds/sandpiper"
    check = {"id": "c1", "kind": "support", "x_mm": 180.0, "loadout": None, "by": "tail drops"}
    problem(
        demo.post(f"{build}/checks", json={**check, "held_alone": "Fuselage"}),
        "parts",
        "which parts",
    )
    problem(
        demo.post(f"{build}/checks", json={**check, "parts": ["motor"]}),
        "held_alone",
        "which parts",
    )
    ghost = {**check, "held_alone": "Fuselage", "parts": ["motor", "nobody"]}
    problem(demo.post(f"{build}/checks", json=ghost), "parts", "not aboard")
    nothing = {**check, "held_alone": "Keel", "assemblies": ["Keel"]}
    problem(demo.post(f"{build}/checks", json=nothing), "assemblies", "nothing that is aboard")
    held = {**check, "held_alone": "Fuselage", "parts": ["motor", "fuselage-box"]}
    for _ in range(2):  # sent twice is once
        answer = demo.post(f"{build}/checks", json=held)
        assert answer.status_code in (200, 201), answer.text
    (kept,) = [each for each in answer.json()["build"]["checks"] if each["id"] == "c1"]
    assert {each["part"] for each in kept["stood"]} == {"motor", "fuselage-box"}
    assert (kept["held_alone"], kept["by"]) == ("Fuselage", "tail drops")
    (told,) = [e for e in answer.json()["assessment"]["beam"]["checks"] if e["id"] == "c1"]
    assert (told["held_alone"], told["feel"]) == ("Fuselage", "tail drops")
    loadouts = answer.json()["assessment"]["beam"]["loadouts"]
    assert {each["checked"]["how"] for each in loadouts} == {"never"}
    again = demo.get(f"{build}/file").json()["build"]["checks"]
    assert next(each for each in again if each["id"] == "c1") == kept
