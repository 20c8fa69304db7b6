"""The Plan through the API: a first drawing, figures of a surface, parts on a line, loadouts."""

import pytest

from tests.api.asking import problem
from tests.api.test_life import AT, act, opened
from tests.api.test_undo import undo

NEW = {"name": "Curlew", "purpose": "park", "layout": "tractor", "step_g": 0.1}


@pytest.fixture
def curlew(client):
    made = client.post("/api/v1/builds", json=NEW).json()["build"]["id"]
    return client, f"/api/v1/builds/{made}"


def refused(answer, status: int = 422) -> str:
    assert answer.status_code == status, answer.json()
    return (
        answer.json()["faults"][0]["words"] if answer.json()["faults"] else answer.json()["detail"]
    )


def test_a_first_drawing_asks_span_and_chord(curlew):
    client, at = curlew
    told = act(client, "drawing", at, span_mm=1200.0, chord_mm=200.0).json()
    assert told["assessment"]["wing"]["area_dm2"] == pytest.approx(24.0)
    assert {each["id"] for each in told["assessment"]["outlines"] if each["untouched"]} == {
        "tail",
        "fin",
    }
    assert told["assessment"]["proportions"]["length_mm"] > 700
    told = act(client, "drawing", at, span_mm=1000.0, area_dm2=20.0).json()
    assert told["assessment"]["wing"]["mac_mm"] == pytest.approx(200.0, abs=0.1)
    assert "chord at the root" in refused(act(client, "drawing", at, span_mm=1000.0))
    nothing = act(client, "drawing", at, span_mm=1000.0, chord_mm=1e-9)
    assert problem(nothing, "chord_mm", "give a larger one")


def test_a_wing_as_thin_as_a_hair_is_refused_in_words_and_asked_about_safely(demo):
    at = "/api/v1/builds/sandpiper"
    before = demo.get(at).json()["build"]["surfaces"]
    for chord, says in ((5e-324, "needs a chord"), (1e-8, "no area"), (0.0004, "no area")):
        wing = before[0] | {
            "sections": [each | {"chord_mm": chord} for each in before[0]["sections"]]
        }
        asked = demo.post(f"{at}/what-if", json={"surfaces": [wing, *before[1:]]})
        assert problem(asked, "surfaces.0.sections.0.chord_mm", says)
        kept = act(demo, "", at, method="PATCH", surfaces=[wing, *before[1:]])
        assert problem(kept, "surfaces.0.sections.0.chord_mm", says)
    assert demo.get(at).json()["build"]["surfaces"] == before


def test_a_surface_is_made_to_a_figure(curlew):
    client, at = curlew
    told = act(client, "surfaces/wing/shape", at, span_mm=1100.0, chord_mm=190.0).json()
    assert told["assessment"]["wing"]["area_dm2"] == pytest.approx(20.9)
    assert "give a span" in refused(act(client, "surfaces/wing/shape", at))
    assert "no surface" in refused(act(client, "surfaces/none/shape", at, span_mm=90.0))


def test_the_drawings_surfaces_become_parts(demo):
    before = opened(demo)
    told = act(demo, "surfaces/tailplane/parts", lot="sheet-a", layers=1.0).json()
    parts = told["build"]["parts"][len(before["build"]["parts"]) :]
    tail = next(each for each in told["assessment"]["outlines"] if each["id"] == "tailplane")
    assert [each["name"] for each in parts] == ["Tailplane, left", "Tailplane, right"]
    assert sum(each["uses"][0]["amount"] for each in parts) == pytest.approx(
        tail["area_dm2"], abs=2e-3
    )
    assert "take one from the rack" in refused(act(demo, "surfaces/tailplane/parts", lot="tape"))


def test_a_part_on_a_line(demo):
    told = act(demo, "parts/line", line="Antenna holder 1.2 g in Fuselage at 310").json()
    part = told["build"]["parts"][-1]
    assert (part["id"], part["stated_g"], part["assembly"]) == ("antenna-holder", 1.2, "Fuselage")
    assert part["station"]["x_mm"] == 310
    told = act(demo, "parts/line", line="Patch 40 x 60 of sheet a at le 20", assembly="Wing").json()
    part = told["build"]["parts"][-1]
    assert part["uses"] == [{"lot": "sheet-a", "amount": pytest.approx(0.24)}]
    assert (part["assembly"], part["station"]["reference"]) == ("Wing", "leading_edge")


def test_a_line_takes_its_lot_from_the_rack(curlew):
    client, at = curlew
    shelf = client.get("/api/v1/rack").json()
    sheet = next(each["lot"] for each in shelf if each["lot"]["unit"] == "dm2")
    told = act(client, "parts/line", at, line=f"Panel 12 dm2 of {sheet['name']}").json()
    assert [each["rack"] for each in told["build"]["lots"]] == [sheet["id"]]
    assert told["build"]["parts"][-1]["uses"][0]["lot"] == told["build"]["lots"][0]["id"]


def test_a_station_off_the_plane_is_asked_about_once(demo):
    line = "Tail light 2 g at 4 m"
    assert refused(act(demo, "parts/line", line=line), 409).endswith("400 mm?")
    assert act(demo, "parts/line", line=line, sure=True).status_code == 201


def test_another_layout_is_drawn_to_the_same_span_and_chord(demo):
    """One act: one press takes the layout and its drawing back."""
    before = opened(demo)
    anew = act(demo, "layout", method="PUT", layout="canard")
    told = anew.json()["build"]
    assert told["layout"] == "canard"
    assert sorted(each["role"] for each in told["surfaces"]) == ["canard", "fin", "wing"]
    was, now = before["assessment"]["wing"], anew.json()["assessment"]["wing"]
    assert now["span_mm"] == pytest.approx(was["span_mm"], abs=0.2)
    roots = [
        next(each["sections"][0]["chord_mm"] for each in of["surfaces"] if each["role"] == "wing")
        for of in (before["build"], told)
    ]
    assert roots[1] == pytest.approx(roots[0], abs=0.1)
    back = undo(demo, "/api/v1/builds/sandpiper").json()["build"]
    assert (back["layout"], back["surfaces"]) == ("tractor", before["build"]["surfaces"])
    assert "should be one of" in refused(act(demo, "layout", method="PUT", layout="kite"))


def test_without_a_wing_another_layout_is_chosen_and_nothing_drawn(client):
    made = client.post("/api/v1/builds", json={"name": "Plover"}).json()["build"]
    assert made["surfaces"] == []
    at = f"/api/v1/builds/{made['id']}"
    told = act(client, "layout", at, method="PUT", layout="flying-wing").json()["build"]
    assert (told["layout"], told["surfaces"]) == ("flying-wing", [])


def test_what_purpose_and_layout_suggest_stands_in_place_of_targets_of_its_kinds(demo):
    before = {each["kind"]: each for each in opened(demo)["build"]["targets"]}
    params = {"purpose": "sailplane", "layout": "tractor"}
    act(demo, "", "/api/v1/builds/sandpiper", method="PATCH", purpose="sailplane")
    suggested = demo.get("/api/v1/beginnings/targets", params=params).json()
    told = act(demo, "targets/suggested").json()["build"]["targets"]
    assert {each["kind"]: each for each in told} == before | {
        each["kind"]: each for each in suggested
    }
    none = demo.post("/api/v1/builds", json={"name": "Plover"}).json()["build"]["id"]
    assert problem(act(demo, "targets/suggested", f"/api/v1/builds/{none}"), "purpose", "one of")


@pytest.mark.parametrize(
    ("line", "meant"),
    [
        ("Spar 45 m of rod", "0.45 m?"),
        ("Spar 450 m of rod", "0.45 m?"),
        ("Panel 208 dm2 of sheet a", "2.08 dm2?"),
        ("Motor 2.8 kg at 20", "28 g?"),
    ],
)
def test_an_amount_that_no_part_has_is_asked_about_once(demo, line, meant):
    before = opened(demo)
    assert refused(act(demo, "parts/line", line=line), 409).endswith(meant)
    assert opened(demo) == before
    assert act(demo, "parts/line", line=line, sure=True).status_code == 201


def test_a_line_that_is_not_understood_changes_nothing(demo):
    before = opened(demo)
    assert "no lot" in refused(act(demo, "parts/line", line="Panel 3 dm2 of marble"))
    motor = act(demo, "parts/line", line="Motor")
    assert refused(motor).endswith('of what it is made of: "Motor 12 g"')
    assert refused(act(demo, "parts/line", line="Motor", mass="oz")).endswith('"Motor 0.4 oz"')
    bare = act(demo, "parts/line", line="Wing left 45 in Wing at le 70", mass="oz")
    assert refused(bare).endswith('"Wing left 45 oz in Wing at le 70"')
    weighed = act(demo, "parts/line", line="Motor 28.2 g weighed at 20")
    assert refused(weighed).endswith('add "Motor" as a guess, then type 28.2 g on the Bench')
    assert opened(demo) == before


def test_loadouts_from_packs_and_payloads_in_one_step(curlew):
    client, at = curlew
    for line in ("Airframe 200 g at 300", "Camera 60 g at 200"):
        assert act(client, "parts/line", at, line=line).status_code == 201
    told = act(
        client,
        "loadouts/from-packs",
        at,
        payloads=["camera"],
        new_packs=[{"line": "2-cell 62 g at 90"}, {"line": "3-cell 110 g at 90"}],
    )
    assert told.status_code == 201, told.json()
    names = [each["name"] for each in told.json()["build"]["loadouts"]]
    assert names == ["2-cell", "2-cell, Camera", "3-cell", "3-cell, Camera"]
    weights = [each["answers"][0]["value"] for each in told.json()["assessment"]["loadouts"]]
    assert weights == pytest.approx([w + 0.04 * 200 for w in (262, 322, 310, 370)])
    again = act(client, "loadouts/from-packs", at, packs=["2-cell", "3-cell"], payloads=["camera"])
    assert [each["name"] for each in again.json()["build"]["loadouts"]] == names
    assert "named twice" in refused(
        act(client, "loadouts/from-packs", at, packs=["2-cell"], payloads=["2-cell"])
    )
    assert "say which packs" in refused(act(client, "loadouts/from-packs", at))
    assert "no part" in refused(act(client, "loadouts/from-packs", at, packs=["none"]))


def test_an_absurd_length_is_asked_about_and_a_usual_one_is_not(demo):
    def asked(text: str, measure: str, kind: str = "length"):
        query = {"text": text, "kind": kind, "unit": "mm", "measure": measure, "build": "sandpiper"}
        return demo.get("/api/v1/quantity", params=query).json()["asked"]

    assert asked("86", "span") == {"value": 86.0, "instead": 860.0}
    assert asked("1080", "span") is None
    assert asked("19", "chord") == {"value": 19.0, "instead": 190.0}
    assert asked("4 m", "station") == {"value": 4000.0, "instead": 400.0}
    assert asked("738", "station") is None
    assert asked("45000", "run", "run") == {"value": 45.0, "instead": 0.45}
    assert asked("0.45 m", "run", "run") is None


def test_a_figure_of_a_sum_and_of_several(demo):
    for text, grams in (("101 + 53.4", 154.4), ("2 x 9", 18.0), ("2 x 9 g + 1 oz", 46.349523)):
        told = demo.get("/api/v1/quantity", params={"text": text, "kind": "mass"}).json()
        assert told["value"] == pytest.approx(grams)
    for text in ("1 +", "+", "0 x 9", "2 x", "2 x 3 x 4"):
        assert (
            demo.get("/api/v1/quantity", params={"text": text, "kind": "mass"}).status_code == 422
        )


def test_a_part_after_the_new_ways_is_taken_back_as_one(curlew):
    client, at = curlew
    act(client, "parts/line", at, line="Airframe 200 g at 300")
    before = opened(client, at)["build"]
    act(client, "loadouts/from-packs", at, new_packs=[{"line": "2-cell 62 g at 90"}])
    assert undo(client, at).status_code == 200
    assert opened(client, at)["build"] == before


def test_what_stands_on_the_demo_plan_is_all_drawn(demo):
    assert not any(each["untouched"] for each in opened(demo, AT)["assessment"]["outlines"])


def test_parts_of_a_body_follow_it_until_they_are_cut(curlew):
    client, at = curlew
    act(client, "lots", at, rack="board-both")
    frame = {"z_mm": 0.0, "width_mm": 60.0, "height_mm": 80.0}
    body = {
        "id": "body",
        "name": "Body",
        "shape": "box",
        "frames": [{"x_mm": 0.0, **frame}, {"x_mm": 600.0, **frame}],
    }

    def draw(body):
        told = act(client, "", at, "PATCH", bodies=[body])
        assert told.status_code == 200, told.json()
        return told.json()

    draw(body)
    lot = opened(client, at)["build"]["lots"][0]["id"]
    told = act(client, "surfaces/body/parts", at, lot=lot).json()["build"]
    assert {part["name"]: part["uses"][0]["amount"] for part in told["parts"] if part["drawn"]} == {
        "Body, left side": 4.8,
        "Body, right side": 4.8,
        "Body, bottom": 3.0,
        "Body, top": 3.0,
    }
    body["frames"][1]["x_mm"] = 700.0
    tried = client.post(f"{at}/what-if", json={"bodies": [body]}).json()
    longer = next(m for m in tried["parts"] if m["id"] == "body-left-side")["mass_g"]
    told = draw(body)
    assert next(m for m in told["assessment"]["parts"] if m["id"] == "body-left-side")[
        "mass_g"
    ] == pytest.approx(longer)
    act(client, "parts/cut", at, parts=["body-left-side"])
    body["frames"][1]["x_mm"] = 500.0
    told = draw(body)["build"]["parts"]
    amounts = {part["id"]: part["uses"][0]["amount"] for part in told if part["uses"]}
    assert (amounts["body-left-side"], amounts["body-right-side"]) == (5.6, 4.0)
    assert "no part" in refused(act(client, "parts/cut", at, parts=["kite"]))
    # One step back brings the longer body and its parts together.
    undo(client, at)
    told = opened(client, at)["build"]
    assert told["bodies"][0]["frames"][1]["x_mm"] == 700.0
    assert (
        next(i for i in told["parts"] if i["id"] == "body-right-side")["uses"][0]["amount"] == 5.6
    )


@pytest.mark.parametrize(
    ("frames", "words"),
    [([(0.0, 60.0)], "at least two frames"), ([(90.0, 60.0), (30.0, 60.0)], "not aft")],
)
def test_a_body_that_cannot_be(curlew, frames, words):
    client, at = curlew
    body = {
        "id": "body",
        "name": "Body",
        "shape": "tube",
        "frames": [{"x_mm": x, "width_mm": w, "height_mm": w} for x, w in frames],
    }
    assert words in refused(act(client, "", at, "PATCH", bodies=[body]))


@pytest.mark.parametrize(
    ("line", "grams", "if_each"),
    [
        ("4 servos 9 g", 9.0, 36.0),
        ("4 servos 9 g each", 36.0, None),
        ("2 horns 1 g in all", 1.0, None),
        ("Motor 28 g", 28.0, None),
    ],
)
def test_a_line_that_leaves_open_of_how_many_its_mass_is_tells_what_each_comes_to(
    demo, line, grams, if_each
):
    told = act(demo, "parts/line", line=line).json()
    assert (told["build"]["parts"][-1]["stated_g"], told["if_each_g"]) == (grams, if_each)


@pytest.mark.parametrize(
    ("line", "like"),
    [
        ("Motor", "Motor 12 g"),
        ("Motor 28", "Motor 28 g"),
        ("Boom, tube 12/10, from 250", "Boom, tube 12/10, from 250, 12 g"),
        ("Tube 12/10", "Tube 12/10, 12 g"),
    ],
)
def test_what_a_line_lacks_is_shown_by_one_that_says_what_was_meant(demo, line, like):
    answer = act(demo, "parts/line", line=line)
    assert problem(answer, "line", f'of what it is made of: "{like}"')
