"""Beginning with what is there, through the API."""

import time

import pytest

from tests.api.asking import problem

START = {
    "purpose": "camera",
    "layout": "tractor",
    "targets": [{"kind": "auw", "high": 590.0}, {"kind": "wing_loading", "high": 45.0}],
    "wing_lot": "board-one",
    "body_lot": "board-both",
    "things": ["motor", "propeller", "controller", "pack-1300", "receiver"],
    "thrust_gf": 480.0,
}
WHERE = {"spans_mm": [800.0, 1000.0, 1200.0], "chords_mm": [150.0, 190.0]}


def test_a_point_of_the_map_is_the_plane_that_is_begun_there(demo):
    told = demo.post("/api/v1/begin/map", json={**START, **WHERE})
    assert told.status_code == 200, told.text
    point = told.json()["points"][2]
    assert (point["span_mm"], point["chord_mm"]) == (1000.0, 150.0)
    here = {**START, "name": "Ruff", "span_mm": 1000.0, "chord_mm": 150.0}
    begun = demo.post("/api/v1/begin/here", json=here)
    assert begun.status_code == 201, begun.text
    answers = begun.json()["assessment"]["loadouts"][0]["answers"]
    assert answers[0]["value"] == pytest.approx(point["auw_g"], rel=1e-9)
    build = begun.json()["build"]
    assert (build["name"], build["layout"]) == ("Ruff", "tractor")
    assert {part["thing"] for part in build["parts"] if part["thing"]} == set(START["things"])
    assert {lot["rack"] for lot in build["lots"]} == {"board-one", "board-both"}
    wing = next(part for part in build["parts"] if part["name"] == "Wing, left")
    assert wing["pattern"]["layers"] == 2
    assert begun.json()["build"]["id"] in [each["id"] for each in demo.get("/api/v1/builds").json()]


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"wing_lot": "nothing"}, "wing_lot"),
        ({"things": ["motor", "ghost"]}, "things.1"),
        ({"layout": "saucer"}, "layout"),
        ({"body_lot": "hot-melt"}, "body_lot"),
        (
            {
                "spans_mm": [100.0 + k for k in range(60)],
                "chords_mm": [100.0 + k for k in range(60)],
            },
            "spans_mm",
        ),
        ({"spans_mm": [-5.0]}, "spans_mm.0"),
    ],
)
def test_what_is_not_there_is_named(demo, wrong, field):
    problem(demo.post("/api/v1/begin/map", json={**START, **WHERE, **wrong}), field, "")


def test_the_map_is_there_within_two_seconds(demo):
    spans = [600.0 + 125 * k for k in range(8)]
    chords = [120.0 + 20 * k for k in range(8)]
    began = time.monotonic()
    told = demo.post("/api/v1/begin/map", json={**START, "spans_mm": spans, "chords_mm": chords})
    assert len(told.json()["points"]) == 64
    assert time.monotonic() - began < 10  # 0.5 s on an idle machine; a busy one is no fault
