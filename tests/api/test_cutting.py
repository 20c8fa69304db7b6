"""The sheets laid out through the API: step by step, stopped at any time, and out as files."""

import json
import time
from pathlib import Path

import pytest

from tests.api.asking import problem
from tests.http import HTTP

BUILD = "/api/v1/builds/sandpiper"


def steps(answer) -> list[dict]:
    assert answer.status_code == 200, answer.text
    assert answer.headers["content-type"] == "application/x-ndjson"
    return [json.loads(line) for line in answer.text.splitlines()]


def best(told: list[dict]) -> dict[str, dict]:
    return {step["plan"]["lot"]: step["plan"] for step in told if step["plan"]}


def as_asked(plans) -> dict:
    drawn = ("lot", "name", "length_mm", "width_mm", "sheets", "pieces")
    return {"plans": [{key: plan[key] for key in drawn} for plan in plans]}


def test_the_sandpiper_comes_out_of_the_sheets_at_hand(demo):
    told = steps(demo.post(f"{BUILD}/cutting", json={"seconds": 1.0}))
    assert [step["gone"] for step in told] == sorted(step["gone"] for step in told)
    assert told[-1] == {"gone": 1.0, "plan": None}
    plans = best(told)
    assert {lot: plan["sheets"] for lot, plan in plans.items()} == {"sheet-a": 1, "sheet-b": 1}
    assert all(plan["to_buy"] == 0 for plan in plans.values())
    assert sum(len(plan["pieces"]) for plan in plans.values()) == 15
    one = {"parts": ["fin"], "seconds": 0.5}
    (plan,) = best(steps(demo.post(f"{BUILD}/cutting", json=one))).values()
    assert [piece["part"] for piece in plan["pieces"]] == ["fin"]


@pytest.mark.parametrize(
    ("asked", "field", "says"),
    [
        ({"kerf_mm": 60.0}, "kerf_mm", "no narrower than"),
        ({"margin_mm": 250.0}, "margin_mm", "less than 250 mm"),
        ({"parts": ["motor"]}, "parts", "no part to lay"),
        ({"kerf_mm": -1.0}, "kerf_mm", ""),
        ({"seconds": 1e9}, "seconds", ""),
    ],
)
def test_what_cannot_be_laid_is_refused_in_words(demo, asked, field, says):
    problem(demo.post(f"{BUILD}/cutting", json=asked), field, says)
    assert demo.post("/api/v1/builds/nobody/cutting", json={}).status_code == 404


def test_whoever_stops_reading_ends_it(demo_served):
    """The process that lays is gone soon after, and the next one is not kept waiting."""

    def running() -> int:
        told = map(command, Path("/proc").glob("[0-9]*/cmdline"))
        return sum(b"oaken_scale.formats.cutting_apart" in each for each in told)

    url = f"{demo_served.url}{BUILD}/cutting"
    for _ in range(4):  # twice as many as may be laid at once
        asked = {"seconds": 60.0, "kerf_mm": 0.7}
        with HTTP.stream("POST", url, json=asked, timeout=60) as answer:
            first = json.loads(next(answer.iter_lines()))
            assert 0 <= first["gone"] < 1
            assert first["plan"]["sheets"] >= 1
        ends = time.monotonic() + 20
        while running() and time.monotonic() < ends:
            time.sleep(0.05)
        assert running() == 0


def command(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError:
        return b""


def test_a_plan_goes_out_as_files_and_on_paper(demo):
    plans = list(best(steps(demo.post(f"{BUILD}/cutting", json={"seconds": 0.5}))).values())
    heads = {"svg": b"<?xml", "dxf": b"  0\nSECTION", "csv": b"sheet,part", "pdf": b"%PDF"}
    for kind, head in heads.items():
        answer = demo.post(f"{BUILD}/cutting/{kind}", json=as_asked(plans))
        assert answer.status_code == 200, answer.text
        assert answer.content.startswith(head)
        assert f'filename="sandpiper-cuts.{kind}"' in answer.headers["content-disposition"]
    huge = [{**plans[0], "length_mm": 5000.0, "width_mm": 5000.0, "sheets": 3}]
    problem(demo.post(f"{BUILD}/cutting/pdf", json=as_asked(huge)), "plans", "sheets of paper")
    assert demo.post(f"{BUILD}/cutting/png", json=as_asked(plans)).status_code == 422


def test_the_parts_of_a_lot_without_a_size_are_named(demo):
    told = demo.get(BUILD).json()
    lots = [{**lot, "length_mm": None} for lot in told["build"]["lots"]]
    headers = {"If-Match": f'"{told["revision"]}"'}
    demo.patch(BUILD, json={"lots": lots}, headers=headers).raise_for_status()
    left = demo.get(f"{BUILD}/cutting/left-out").json()
    assert {each["lot"] for each in left} == {"Sheet A, both papers", "Sheet B, one paper off"}
    assert len(left) == 12
    problem(demo.post(f"{BUILD}/cutting", json={}), "parts", "a length and a width")


def test_an_outline_stays_with_its_part_through_edits_the_file_and_undo(demo):
    told = demo.get(BUILD).json()
    fin = next(each for each in told["build"]["parts"] if each["id"] == "fin")
    assert len(fin["pattern"]["rings"][0]) == 4
    headers = {"If-Match": f'"{told["revision"]}"'}
    turned = {**fin, "pattern": {**fin["pattern"], "grain": "across", "layers": 2}}
    after = demo.put(f"{BUILD}/parts/fin", json=turned, headers=headers).json()
    assert next(e for e in after["build"]["parts"] if e["id"] == "fin") == turned
    file = demo.get(f"{BUILD}/file").json()
    again = demo.post("/api/v1/builds/import", json=file).json()["build"]
    assert next(e for e in again["parts"] if e["id"] == "fin")["pattern"] == turned["pattern"]
    undo = {"If-Match": f'"{after["revision"]}"'}
    demo.post(f"{BUILD}/undo", headers=undo).raise_for_status()
    parts = demo.get(BUILD).json()["build"]["parts"]
    assert next(e for e in parts if e["id"] == "fin") == fin
    crossed = {**fin, "pattern": {"rings": [[[0, 0], [60, 9], [60, 0], [0, 9]]]}}
    answer = demo.put(f"{BUILD}/parts/fin", json=crossed, headers=headers)
    assert answer.status_code in (412, 422)
