"""Lists through the API: out as files, in as a preview first, kept once."""

import csv
from io import BytesIO, StringIO

import pytest
from openpyxl import load_workbook

from tests.api.asking import begin, problem

AT = "/api/v1/builds/sandpiper"
OURS = "Bauteil;Gewicht (g);Anzahl;Hebelarm (mm)\nMotor;28,5;1;40\nServo;18;2;300\nSumme;46,5;;\n"


def look(client, text: str, build: str, **more):
    return client.post(
        "/api/v1/parts-list",
        params={"build": build, **more},
        content=text.encode(),
        headers={"Content-Type": "application/octet-stream"},
    )


def test_every_list_goes_out(demo):
    told = demo.get(AT).json()
    for name, many in (
        ("parts", len(told["build"]["parts"])),
        ("weighings", len(told["build"]["weighings"])),
        ("loadouts", len(told["build"]["loadouts"])),
        ("throws", 0),
    ):
        answer = demo.get(f"{AT}/tables/{name}.csv")
        assert answer.headers["content-type"].startswith("text/csv")
        assert f"sandpiper-{name}.csv" in answer.headers["content-disposition"]
        rows = list(csv.reader(StringIO(answer.content.decode("utf-8-sig"))))
        assert len(rows) == many + 1
    runs = demo.get(f"{AT}/tables/runs.csv", params={"mark": ","}).content.decode("utf-8-sig")
    assert runs.splitlines()[0].count(";") == 9
    book = load_workbook(BytesIO(demo.get(f"{AT}/tables.xlsx").content))
    assert book["weighings"].max_row == len(told["build"]["weighings"]) + 1


def test_a_list_is_looked_at_kept_and_never_added_twice(client):
    told = begin(client)
    id = told["build"]["id"]
    seen = look(client, OURS, id).json()
    assert [column["field"] for column in seen["columns"]] == ["name", "mass", "pieces", "station"]
    assert client.get(f"/api/v1/builds/{id}").json()["revision"] == told["revision"]
    fitting = [row for row in seen["rows"] if row["why_not"] is None]
    parts = [
        {key: row[key] for key in ("name", "assembly", "mass_g", "pieces", "station_mm")}
        for row in fitting
    ]
    at = f"/api/v1/builds/{id}/parts-list"
    kept = client.post(at, json={"parts": parts}, headers={"If-Match": f'"{told["revision"]}"'})
    assert kept.status_code == 201, kept.text
    found = {part["name"]: part for part in kept.json()["build"]["parts"]}
    assert found["Servo"]["pieces"] == 2
    assert found["Servo"]["stated_g"] == 18
    assert found["Motor"]["station"]["x_mm"] == 40
    many = len(kept.json()["build"]["parts"])
    assert all(row["why_not"] for row in look(client, OURS, id).json()["rows"])
    again = client.post(
        at, json={"parts": parts}, headers={"If-Match": f'"{kept.json()["revision"]}"'}
    )
    assert len(again.json()["build"]["parts"]) == many


def test_columns_may_be_said(client):
    id = begin(client)["build"]["id"]
    text = "x;y;z\nMotor;40;28\n"
    told = look(client, text, id, column=["0:name", "1:station", "2:mass"]).json()
    row = next(row for row in told["rows"] if row["name"] == "Motor")
    assert (row["mass_g"], row["station_mm"]) == (28.0, 40.0)


@pytest.mark.parametrize(
    ("text", "column", "field", "says"),
    [
        ("", [], "file", "holds nothing"),
        ("\0", [], "file", "no text"),
        ("a,b\n1,2\n", ["0:nothing"], "file", "no column of names"),
        ("a,b\n1,2\n", ["0:weight"], "column", "2:mass"),
    ],
)
def test_what_is_no_list_is_said(client, text, column, field, says):
    id = begin(client)["build"]["id"]
    assert problem(look(client, text, id, column=column), field, says)


def test_a_list_that_is_too_long_for_a_build_changes_nothing(client):
    told = begin(client)
    at = f"/api/v1/builds/{told['build']['id']}"
    parts = [{"name": f"Part {k}", "mass_g": 1.0} for k in range(2000)]
    match = {"If-Match": f'"{told["revision"]}"'}
    assert problem(
        client.post(f"{at}/parts-list", json={"parts": parts}, headers=match),
        "parts",
        "at most 2000",
    )
    assert client.get(at).json()["revision"] == told["revision"]
    assert look(client, OURS, "no-such-build").status_code == 404
