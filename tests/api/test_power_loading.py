"""A fifth metric goes wherever the four go: kept, told, listed, printed, asked of a map."""

import csv
from io import StringIO

import pytest

from tests.api.test_begin import START, WHERE

AT = "/api/v1/builds/sandpiper"
TARGET = {"kind": "power_loading", "low": 120, "source": "a habit"}


@pytest.fixture
def wanted(demo):
    """The Sandpiper with a target for its power loading."""
    opened = demo.get(AT)
    targets = [*opened.json()["build"]["targets"], TARGET]
    match = {"If-Match": opened.headers["etag"]}
    kept = demo.patch(AT, json={"targets": targets}, headers=match)
    assert kept.status_code == 200
    return demo


def test_it_is_kept_and_told_of_every_loadout_with_its_pack(wanted):
    told = wanted.get(AT).json()
    assert [each["kind"] for each in told["build"]["targets"]][-1] == "power_loading"
    for loadout in told["assessment"]["loadouts"]:
        answers = {each["kind"]: each for each in loadout["answers"]}
        assert len(answers) == 5
        assert 120 < answers["power_loading"]["value"] < 400
        assert answers["power_loading"]["word"] == "on course"
        assert "power_loading" in [each["kind"] for each in loadout["headroom"]]


def test_a_file_takes_it_along(wanted):
    file = wanted.get(f"{AT}/file").content
    copied = wanted.post("/api/v1/builds/import", content=file).json()["build"]
    assert copied["targets"][-1]["kind"] == "power_loading"


def test_tables_and_the_sheet_show_it(wanted):
    text = wanted.get(f"{AT}/tables/loadouts.csv").content.decode("utf-8-sig")
    rows = list(csv.DictReader(StringIO(text)))
    answer = wanted.get(AT).json()["assessment"]["loadouts"][0]["answers"][3]
    assert float(rows[0]["power loading W/kg"]) == pytest.approx(answer["value"], abs=1e-3)
    assert rows[0]["power loading W/kg, verdict"] == "on course"
    sheet = wanted.get(f"{AT}/sheet.svg").text
    assert "Power loading" in sheet
    assert "W/kg" in sheet


def test_a_choice_of_packs_says_which_breaks_it(wanted):
    opened = wanted.get(AT)
    targets = [each for each in opened.json()["build"]["targets"] if each["kind"] == "balance"]
    match = {"If-Match": opened.headers["etag"]}
    body = {"targets": [*targets, {**TARGET, "low": 5000}]}
    assert wanted.patch(AT, json=body, headers=match).status_code == 200
    asked = wanted.post(f"{AT}/power/choices", json={})
    assert asked.status_code == 200
    assert asked.json()
    assert all("power_loading" in each["breaks"] for each in asked.json())


def test_a_map_without_a_drive_tells_no_chance_of_it(demo):
    told = demo.post("/api/v1/begin/map", json={**START, **WHERE, "targets": [TARGET]})
    assert told.status_code == 200
    chances = {each["kind"]: each["chance"] for each in told.json()["points"][0]["chances"]}
    assert chances["power_loading"] is None
