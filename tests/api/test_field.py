"""The field over HTTP: what is kept, in which words it is refused, and what survives a kill."""

import json

import pytest

from tests.api.asking import problem
from tests.http import HTTP

AT = "2026-03-07T09:00:00Z"


@pytest.fixture
def dunlin(demo):
    at = next(each for each in demo.get("/api/v1/builds").json() if each["name"] == "Dunlin")
    return f"/api/v1/builds/{at['id']}"


def throw(id: str, **changed: object) -> dict:
    return {
        "entry": "throw",
        "id": id,
        "at": AT,
        "loadout": "as-thrown",
        "seen": "good",
        "distance_m": 12.5,
        **changed,
    }


def test_a_throw_is_kept_once_and_answered_with_what_it_tells(demo, dunlin):
    before = demo.get(f"{dunlin}/field").json()
    sent = throw("one", settings=[{"control": "tail-tab", "mm": -1.5}])
    first = demo.post(f"{dunlin}/field/entries", json=sent).json()
    assert first["is_new"]
    assert len(first["field"]["log"]["throws"]) == len(before["log"]["throws"]) + 1
    kept = first["field"]["log"]["throws"][-1]
    assert (kept["at"], kept["auw_g"] > 50, kept["cg_mm"] > 100) == (AT, True, True)
    assert first["field"]["log"]["controls"][0]["set_mm"] == -1.5
    again = demo.post(f"{dunlin}/field/entries", json=sent).json()
    assert not again["is_new"]
    assert again["field"]["revision"] == first["field"]["revision"]
    assert again["field"]["log"] == first["field"]["log"]


@pytest.mark.parametrize(
    ("changed", "field", "says"),
    [
        ({"distance_m": 1000}, "distance_m", "at most 300"),
        ({"seconds": -1}, "seconds", "more than 0"),
        ({"height_m": 0}, "height_m", "more than 0"),
        ({"wind_m_s": 90}, "wind_m_s", "at most 20"),
        ({"seen": "loops"}, "seen", "should be"),
        ({"at": "1950-01-01T00:00:00Z"}, "at", "1970"),
    ],
)
def test_what_no_throw_can_be_is_refused_in_words(demo, dunlin, changed, field, says):
    told = demo.post(f"{dunlin}/field/entries", json=throw("wrong", **changed))
    assert told.status_code == 422
    (fault,) = told.json()["faults"]
    assert fault["field"] == field
    assert says in fault["words"]
    assert "wrong" not in demo.get(f"{dunlin}/field").text


def test_a_phone_that_lost_its_time_brings_everything_home(demo, dunlin):
    sent = throw("lost", at="1970-01-01T00:03:00Z")
    kept = demo.post(f"{dunlin}/field/entries", json=sent).json()["field"]["log"]["throws"][-1]
    assert (kept["id"], kept["at"]) == ("lost", "1970-01-01T00:03:00Z")


def test_ticks_close_the_list_and_a_repair_opens_it(demo, dunlin):
    def lines() -> dict:
        (told,) = demo.get(f"{dunlin}/field").json()["told"]["loadouts"]
        return {line["id"]: line for line in told["ready"]["lines"]}

    (told,) = demo.get(f"{dunlin}/field").json()["told"]["loadouts"]
    at = demo.get(f"{dunlin}/field").json()["at"]
    for line in told["ready"]["lines"]:
        if line["by_thumb"]:
            tick = {
                "entry": "tick",
                "id": f"tick-{line['id']}",
                "at": at,
                "line": line["id"],
                "loadout": "as-thrown",
                "stance": told["ready"]["stance"],
                "about": line["about"],
            }
            assert demo.post(f"{dunlin}/field/entries", json=tick).status_code == 200
    (told,) = demo.get(f"{dunlin}/field").json()["told"]["loadouts"]
    assert told["ready"]["ready"]
    revision = demo.get(dunlin).json()["revision"]
    crash = {
        "words": "hit the gate",
        "damage": [
            {"part": "pod", "added": [{"name": "Glue", "pedigree": "joint", "stated_g": 0.8}]},
            {"part": "fin", "replaced": {"name": "Fin", "pedigree": "guess", "stated_g": 1.6}},
        ],
    }
    told = demo.post(f"{dunlin}/crash", json=crash, headers={"If-Match": f'"{revision}"'})
    assert told.status_code == 200
    now = lines()
    assert now["straight"]["reason"]["why"] == "happened"
    assert now["straight"]["reason"]["words"] == "hit the gate"
    assert now["balance"]["reason"]["why"] == "not_checked_since"
    assert now["wind"]["reason"] is None


def test_controls_in_degrees_become_mm_and_travel_that_cannot_be_is_refused(demo, dunlin):
    def put(**changed):
        revision = demo.get(dunlin).json()["revision"]
        made = {"name": "Rudder", "kind": "rudder", "surface": "fin", "chord_share": 0.5, **changed}
        return demo.put(
            f"{dunlin}/field/controls",
            json={"controls": [made]},
            headers={"If-Match": f'"{revision}"'},
        )

    told = put(up_deg=30.0, down_mm=10)
    (control,) = told.json()["build"]["field"]["controls"]
    # Half of a fin that tapers from 75 to 50 is 31.25 mm deep on the average.
    assert control["up_mm"] == pytest.approx(31.25 * 0.5, abs=0.01)
    assert control["down_mm"] == 10
    refused = put(up_mm=30)
    assert refused.status_code == 422
    assert "goes 22.1 mm at most" in refused.json()["detail"]
    assert put(surface="hull").json()["faults"][0]["field"] == "controls.0.surface"


def test_a_shim_gives_the_incidence(demo, dunlin):
    revision = demo.get(dunlin).json()["revision"]
    sent = {"surface": "wing", "shim_mm": 3.4}
    told = demo.put(f"{dunlin}/field/shim", json=sent, headers={"If-Match": f'"{revision}"'})
    assert told.json()["build"]["surfaces"][0]["incidence_deg"] == pytest.approx(1.5, abs=0.01)
    assert demo.get(f"{dunlin}/field").json()["told"]["incidence_deg"] == pytest.approx(1.5)


def card(build: str, name: str, *entries: dict) -> bytes:
    return json.dumps(
        {
            "format": "oaken-scale/field-card",
            "version": 1,
            "build": build,
            "name": name,
            "entries": entries,
        }
    ).encode()


def test_a_card_taken_in_twice_adds_nothing_twice(demo, dunlin):
    id = dunlin.rsplit("/", 1)[1]
    file = card(id, "Dunlin", throw("c1"), throw("c2", distance_m=2000), throw("c3"))
    first = demo.post(f"{dunlin}/field/card", content=file).json()
    assert (first["new"], first["known"]) == (2, 0)
    (wrong,) = first["refused"]
    assert wrong["entry"] == 2
    assert "at most 300" in wrong["words"]
    second = demo.post(f"{dunlin}/field/card", content=file).json()
    assert (second["new"], second["known"]) == (0, 2)
    assert second["field"]["log"]["throws"] == first["field"]["log"]["throws"]


def test_a_card_of_another_build_is_refused_with_its_name(demo, dunlin):
    told = demo.post(f"{dunlin}/field/card", content=card("other", "Heron", throw("c1")))
    assert told.status_code == 409
    assert "the card is of Heron, this is Dunlin" in told.json()["detail"]
    assert "c1" not in demo.get(f"{dunlin}/field").text


def test_what_was_acknowledged_at_the_field_survives_a_kill(served):
    begun = HTTP.post(f"{served.url}/api/v1/builds", json={"name": "Kite", "layout": "glider"})
    at = f"/api/v1/builds/{begun.json()['build']['id']}"
    entries = [
        throw("t", loadout=None, settings=[{"control": "tab", "mm": 0.5}]),
        {"entry": "tick", "id": "k", "at": AT, "line": "wind"},
        {
            "entry": "note",
            "id": "n",
            "at": AT,
            "kind": "reminder",
            "words": "tape",
            "due": "2026-10-01",
        },
        {"entry": "own_line", "id": "o", "words": "Dry the nose"},
        {"entry": "set_aside", "id": "t", "reason": "hit a post"},
    ]
    for entry in entries:
        told = HTTP.post(f"{served.url}{at}/field/entries", json=entry)
        assert told.status_code == 200, told.text
    before = HTTP.get(f"{served.url}{at}/field").json()["log"]
    served.kill()
    served.start()
    after = HTTP.get(f"{served.url}{at}/field").json()["log"]
    assert after == before
    assert (after["throws"][0]["set_aside"], after["notes"][0]["due"]) == (
        "hit a post",
        "2026-10-01",
    )
    # The next of its layout is begun with the line of one's own.
    fresh = HTTP.post(f"{served.url}/api/v1/builds", json={"name": "K 2", "layout": "glider"})
    assert fresh.json()["build"]["field"]["own_lines"][0]["words"] == "Dry the nose"


def test_the_next_version_is_a_build_of_its_own(demo, dunlin):
    told = demo.post(f"{dunlin}/next-version", json={"name": "Dunlin 2"})
    assert told.status_code == 201
    build = told.json()["build"]
    assert (build["name"], build["weighings"], build["reference_build"]["name"]) == (
        "Dunlin 2",
        [],
        "Dunlin",
    )
    assert demo.get(dunlin).json()["build"]["name"] == "Dunlin"


def test_the_file_carries_the_field_along(demo, dunlin):
    file = demo.get(f"{dunlin}/file").content
    fresh = demo.post("/api/v1/builds/import", content=file).json()["build"]
    assert fresh["field"] == demo.get(dunlin).json()["build"]["field"]


def test_a_card_keeps_what_it_can_and_says_of_the_rest_why_not(demo, dunlin):
    build = dunlin.rpartition("/")[2]
    absurd, unknown = throw("far", distance_m=5000), {"entry": "song", "id": "s"}
    strange = {"entry": "flight", "id": "f1", "at": AT, "pack": "none", "minutes": 5}
    sent = card(build, "Dunlin", throw("home"), absurd, unknown, strange, throw("last"))
    told = demo.post(f"{dunlin}/field/card", content=sent)
    assert told.status_code == 200, told.text
    told = told.json()
    assert (told["new"], told["known"]) == (2, 0)
    assert [each["entry"] for each in told["refused"]] == [2, 3, 4]
    assert "distance_m" in told["refused"][0]["words"]
    kept = [each["id"] for each in demo.get(f"{dunlin}/field").json()["log"]["throws"]]
    assert kept[-2:] == ["home", "last"]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"\xff\xfe\x00", "not a field card's file"),
        (b"[" * 100_000, "not a field card's file"),
        (b"[1, 2]", "is None"),
        (b'{"format": "another"}', "is 'another'"),
        (b'{"format": "oaken-scale/field-card", "version": 2}', "is 2; this one reads version 1"),
        (b'{"format": "oaken-scale/field-card", "version": true}', "is True"),
        (b'{"format": "oaken-scale/field-card", "version": 1}', "should be a list"),
        (
            b'{"format": "oaken-scale/field-card", "version": 1, "entries": [], "build": 5}',
            "which build",
        ),
    ],
)
def test_what_is_no_card_is_refused_in_words(demo, dunlin, content, says):
    answer = demo.post(f"{dunlin}/field/card", content=content)
    assert answer.status_code == 422, answer.text
    assert says in answer.json()["detail"]


def test_a_shim_under_nothing_or_as_high_as_a_brick_is_refused(demo, dunlin):
    def put(**sent):
        match = {"If-Match": f'"{demo.get(dunlin).json()["revision"]}"'}
        return demo.put(f"{dunlin}/field/shim", json=sent, headers=match)

    assert problem(put(surface="hull", shim_mm=3.0), "surface", 'no surface "hull" is drawn')
    assert problem(put(surface="wing", shim_mm=90.0), "shim_mm", "it is a quarter at most")
    before = demo.get(dunlin).json()["build"]["surfaces"][0]
    chord = before["sections"][0]["chord_mm"]
    down = put(surface="wing", shim_mm=-chord / 10).json()["build"]["surfaces"][0]
    assert down["incidence_deg"] == pytest.approx(-5.74, abs=0.01)  # asin of a tenth


def test_both_travels_in_degrees_become_mm(demo, dunlin):
    made = {"name": "Rudder", "kind": "rudder", "surface": "fin", "chord_share": 0.5}
    match = {"If-Match": f'"{demo.get(dunlin).json()["revision"]}"'}
    sent = {"controls": [{**made, "up_deg": 20.0, "down_deg": 10.0}, made]}
    told = demo.put(f"{dunlin}/field/controls", json=sent, headers=match).json()
    one, other = told["build"]["field"]["controls"]
    assert one["up_mm"] == pytest.approx(31.25 * 0.34202, abs=0.01)
    assert one["down_mm"] == pytest.approx(31.25 * 0.173648, abs=0.01)
    assert (other["up_mm"], other["down_mm"]) == (None, None)
    assert one["id"] != other["id"]
