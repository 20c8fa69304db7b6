"""The forecast through the API: a curve that narrows, and what is behind a figure."""

import pytest


def test_the_curve_ends_where_the_answers_are(demo):
    told = demo.get("/api/v1/builds/sandpiper").json()["assessment"]
    points = demo.get("/api/v1/builds/sandpiper/forecast").json()
    assert [point["readings"] for point in points] == list(range(21))
    first = told["loadouts"][0]
    assert points[-1]["auw_g"] == pytest.approx(first["answers"][0]["value"])
    assert points[-1]["x_mm"] == pytest.approx(first["cg"]["x_mm"])
    assert points[-1]["balance"] == pytest.approx(first["answers"][3]["value"])
    assert points[-1]["balance_sd"] == pytest.approx(first["answers"][3]["sd"])
    assert points[-1]["auw_sd_g"] < points[0]["auw_sd_g"]


def test_every_loadout_has_a_curve_of_its_own(demo):
    path = "/api/v1/builds/sandpiper/forecast"
    heavy = demo.get(path, params={"loadout": "camera-1300"}).json()
    light = demo.get(path, params={"loadout": "scout-850"}).json()
    assert heavy[-1]["auw_g"] - light[-1]["auw_g"] == pytest.approx(99.2 + 40.1 - 76.1, abs=1)
    assert demo.get(path, params={"loadout": "ghost"}).json() == heavy


def test_a_build_that_was_never_weighed_has_one_point(client):
    told = client.post("/api/v1/builds", json={"name": "Curlew"}).json()
    points = client.get(f"/api/v1/builds/{told['build']['id']}/forecast").json()
    assert [(point["readings"], point["x_mm"]) for point in points] == [(0, None)]


def test_the_whole_makeup_is_told_for_every_loadout(demo):
    for each in demo.get("/api/v1/builds/sandpiper").json()["assessment"]["loadouts"]:
        grams = sum(part["mass_g"] for part in each["behind"]["makeup"])
        assert grams == pytest.approx(each["answers"][0]["value"])
        shares = [source["share"] for source in each["behind"]["auw_sources"]]
        assert shares == sorted(shares, reverse=True)
