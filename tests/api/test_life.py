"""The life of parts and of builds through the API."""

from datetime import UTC, datetime, timedelta

import pytest

from tests.api.asking import problem

AT = "/api/v1/builds/sandpiper"


def opened(client, at: str = AT) -> dict:
    return client.get(at).json()


def act(client, path: str, at: str = AT, method: str = "POST", **body):
    match = {"If-Match": f'"{opened(client, at)["revision"]}"'}
    return client.request(method, f"{at}/{path}".rstrip("/"), json=body, headers=match)


def part(told: dict, id: str) -> dict:
    return next(each for each in told["build"]["parts"] if each["id"] == id)


def auw(told: dict) -> float:
    return told["assessment"]["loadouts"][0]["answers"][0]["value"]


def record(client, number: int, grams: float, *parts: str, at: str = AT):
    scale = opened(client, at)["build"]["scales"][0]["id"]
    sent = {
        "id": f"new-{number}",
        "scale": scale,
        "reading_g": grams,
        "pan": {"loads": [{"part": each} for each in parts]},
    }
    assert client.post(f"{at}/weighings", json=sent).status_code == 201


def test_a_repair_is_written_down_and_goes_on_the_pan_with_its_part(demo):
    # Without the slip: one more thing that might have been left on the pan is no matter then.
    aside = {"reason": "the tray was on"}
    assert demo.put(f"{AT}/weighings/reading-03/set-aside", json=aside).status_code == 200
    before = auw(opened(demo))
    patch = {"name": "Patch", "pedigree": "guess", "stated_g": 3.0, "doubt_g": 1.0}
    glue = {"name": "Patch", "pedigree": "joint", "stated_g": 2.0}
    told = act(demo, "parts/fuselage-box/repair", words="flew into a post", added=[patch, glue])
    assert told.status_code == 200
    assert auw(told.json()) == pytest.approx(before + 5.0, abs=1e-6)
    assert part(told.json(), "patch-2")["host"] == "fuselage-box"
    assert told.json()["build"]["diary"][0]["words"] == "flew into a post"
    assert {each["loadout"] for each in told.json()["assessment"]["unchecked"]} == {
        each["id"] for each in told.json()["build"]["loadouts"]
    }
    record(demo, 1, 53.9, "fuselage-box", "patch", "patch-2")
    assert auw(opened(demo)) == pytest.approx(before + 53.9 - 46.3, abs=1.5)


def test_every_change_of_a_part_is_one_act_and_may_be_refused_in_words(demo):
    assert act(demo, "parts/fin/trim", grams=1.5).status_code == 200
    assert (
        act(
            demo,
            "parts/motor/replace",
            part={"name": "Motor", "pedigree": "listing", "stated_g": 40.0},
        ).status_code
        == 200
    )
    assert act(demo, "parts/screws/retire", words="went to glue").status_code == 200
    told = opened(demo)
    assert part(told, "off-fin")["stated_g"] == -1.5
    assert part(told, "motor-2")["replaces"] == "motor"
    assert part(told, "motor")["retired"]
    assert part(told, "screws")["retired_at"] is not None
    assert [each["kind"] for each in told["build"]["diary"]] == ["trim", "replace", "retire"]
    revision = told["revision"]
    for path, body, field in (
        ("parts/fin/trim", {"grams": 900}, "grams"),
        ("parts/keel/retire", {}, "part"),
        ("parts/fin/repair", {"added": []}, "added"),
        ("parts/fin/move", {"to": "sandpiper"}, "to"),
        ("parts/fin/trim", {"grams": 0}, "grams"),
    ):
        refused = act(demo, path, **body)
        assert refused.status_code == 422, path
        assert refused.json()["faults"][0]["field"].endswith(field), refused.json()
    assert act(demo, "parts/fin/move", to="nobody").status_code == 404
    assert opened(demo)["revision"] == revision


def test_a_part_moves_to_another_build_and_neither_is_left_half_done(demo):
    other = demo.post("/api/v1/builds", json={"name": "Dunlin"}).json()["build"]["id"]
    told = act(demo, "parts/fuselage-box/move", to=other, words="a better use for it")
    assert told.status_code == 200
    assert part(told.json(), "fuselage-box")["retired"]
    there = opened(demo, f"/api/v1/builds/{other}")
    came = part(there, "fuselage-box")
    mass = next(m for m in told.json()["assessment"]["parts"] if m["id"] == "fuselage-box")
    assert came["stated_g"] == pytest.approx(mass["mass_g"], abs=0.01)
    assert there["build"]["diary"][0]["words"] == "Fuselage box came from Sandpiper"
    assert there["revision"] == 2


def test_the_plane_as_of_a_day(demo):
    first = opened(demo)
    told = act(demo, "parts/fin/retire")
    assert auw(told.json()) < auw(first) - 5
    before = (datetime.now(UTC) - timedelta(hours=1)).isoformat()
    then = demo.get(f"{AT}/as-of", params={"at": before}).json()
    assert then["loadouts"][0]["answers"][0]["value"] == pytest.approx(auw(first))
    start = demo.get(f"{AT}/as-of", params={"at": "2020-01-01T00:00:00Z"}).json()
    assert all(each["mark"] in ("guess", "listed") for each in start["parts"])
    assert demo.get(f"{AT}/as-of", params={"at": "yesterday"}).status_code == 422


def whole_plane(client, name: str, extra: float) -> str:
    """A finished build that came out ``extra`` grams over its list of 200 g."""
    told = client.post("/api/v1/builds", json={"name": name}).json()
    at = f"/api/v1/builds/{told['build']['id']}"
    for part, grams in (("Wing", 120.0), ("Body", 80.0)):
        sent = {"name": part, "pedigree": "listing", "stated_g": grams}
        match = {"If-Match": f'"{opened(client, at)["revision"]}"'}
        assert client.post(f"{at}/parts", json=sent, headers=match).status_code == 201
    record(client, 1, 120.0, "wing", at=at)
    record(client, 2, 80.0, "body", at=at)
    record(client, 3, 200.0 + extra, "wing", "body", "still-to-come", at=at)
    assert act(client, "finished", at, "PUT", finished=True).status_code == 200
    return at


def test_three_finished_builds_tell_the_next_how_much_is_left_out(client):
    open_one = client.post("/api/v1/builds", json={"name": "Going on"}).json()["build"]["id"]
    whole_plane(client, "One", 12.0)
    last = whole_plane(client, "Two", 16.0)
    assert opened(client, f"/api/v1/builds/{open_one}")["build"]["allowance"] is None
    whole_plane(client, "Three", 20.0)
    learned = opened(client, f"/api/v1/builds/{open_one}")["build"]["allowance"]
    assert learned["value"] == pytest.approx(0.08, abs=1e-3)
    assert learned["source"] == "One, Two, Three"
    begun = client.post("/api/v1/builds", json={"name": "Four"}).json()["build"]
    assert begun["allowance"] == learned
    assert act(client, "finished", last, "PUT", finished=False).status_code == 200
    assert opened(client, f"/api/v1/builds/{open_one}")["build"]["allowance"] is None


def test_a_build_is_measured_by_an_earlier_one(demo):
    other = demo.post("/api/v1/builds", json={"name": "Next"}).json()["build"]["id"]
    at = f"/api/v1/builds/{other}"
    told = act(demo, "reference-build", at, "PUT", build="sandpiper").json()
    assert told["build"]["reference_build"]["name"] == "Sandpiper"
    first = opened(demo)["assessment"]["so_far"]
    assert told["assessment"]["so_far"]["reference_g"] == pytest.approx(
        first["forecast_g"], abs=1.0
    )
    assert (
        act(demo, "reference-build", at, "PUT", build=None).json()["build"]["reference_build"]
        is None
    )


def test_a_part_added_and_retired_knows_when(demo):
    match = {"If-Match": f'"{opened(demo)["revision"]}"'}
    sent = {"name": "Pennant", "pedigree": "guess", "stated_g": 2.0}
    added = demo.post(f"{AT}/parts", json=sent, headers=match).json()
    pennant = part(added, "pennant")
    assert datetime.now(UTC) - datetime.fromisoformat(pennant["added_at"]) < timedelta(minutes=5)
    gone = demo.put(
        f"{AT}/parts/pennant",
        json={**pennant, "retired": True},
        headers={"If-Match": f'"{added["revision"]}"'},
    ).json()
    assert part(gone, "pennant")["retired_at"] is not None
    back = demo.put(
        f"{AT}/parts/pennant",
        json={**part(gone, "pennant"), "retired": False},
        headers={"If-Match": f'"{gone["revision"]}"'},
    ).json()
    assert part(back, "pennant")["retired_at"] is None


def test_a_pocket_takes_foam_out_and_holds_what_goes_in(demo):
    """60 by 30 of board: 0.18 dm2 of its own sheet's grams less, and the servo sits where it is."""
    before = opened(demo)
    fuselage = part(before, "fuselage-box")
    lot = next(each for each in before["build"]["lots"] if each["id"] == fuselage["uses"][0]["lot"])
    station = {"x_mm": 300.0, "y_mm": 0.0, "z_mm": 10.0}
    told = act(
        demo,
        "parts/fuselage-box/pocket",
        length_mm=60.0,
        width_mm=30.0,
        station=station,
        words="a hatch",
    )
    assert told.status_code == 200, told.text
    (cut,) = [
        each
        for each in told.json()["build"]["parts"]
        if each["host"] == "fuselage-box" and each["id"] not in ids(before)
    ]
    assert cut["uses"][0]["lot"] == lot["id"]
    assert cut["uses"][0]["amount"] == pytest.approx(-0.18)
    assert cut["station"]["x_mm"] == 300.0
    assert told.json()["build"]["diary"][-1]["words"] == "a hatch"
    for sent, field in (
        ({"length_mm": 0.0, "width_mm": 30.0}, "length_mm"),
        ({"length_mm": 60.0, "width_mm": 30.0, "holds": "keel"}, "holds"),
        ({"length_mm": 60.0, "width_mm": 30.0, "depth_mm": -1.0}, "depth_mm"),
    ):
        assert problem(act(demo, "parts/fuselage-box/pocket", **sent), field, "")
    assert act(demo, "parts/keel/pocket", length_mm=60.0, width_mm=30.0).status_code in (404, 422)


def ids(told: dict) -> set[str]:
    return {each["id"] for each in told["build"]["parts"]}


@pytest.mark.parametrize(
    ("at", "says"),
    [
        ("2026-03-07", "has no time zone"),
        ("2026-03-07T09:00:00", "has no time zone"),
        ("1999-12-31T23:59:59Z", "must be a date between 2000 and 2199"),
        ("2199-12-31T23:59:59-14:00", "must be a date between 2000 and 2199"),
        ("9999-12-31T23:59:59-14:00", "must be a date between 2000 and 2199"),
        ("0001-01-01T00:00:00+14:00", "must be a date between 2000 and 2199"),
        ("soon", "valid datetime"),
    ],
)
def test_a_day_that_is_none_is_refused_with_what_would_be_one(demo, at, says):
    assert problem(demo.get(f"{AT}/as-of", params={"at": at}), "at", says)


def test_a_moment_is_held_to_its_years_where_it_is_kept(demo):
    """The last hour of 2199 in the far west is 2200 by the clock that all is kept by: a throw of it
    once stopped the file from going out."""
    dunlin = next(b["id"] for b in demo.get("/api/v1/builds").json() if b["name"] == "Dunlin")
    at = f"/api/v1/builds/{dunlin}"

    def thrown(when: str):
        sent = {"entry": "throw", "id": f"t{len(when)}", "at": when, "distance_m": 9.0}
        return demo.post(f"{at}/field/entries", json=sent)

    assert problem(thrown("2199-12-31T23:59:59-14:00"), "at", "between 1970 and 2199")
    assert thrown("1969-12-31T23:30:00.5-02:00").status_code == 200  # half past one in 1970
    file = demo.get(f"{at}/file")
    assert file.status_code == 200
    assert demo.post("/api/v1/builds/import", content=file.content).status_code == 201
