import json
from pathlib import Path

import pytest

from oaken_scale.core.model.faults.fault import BuildFaultError
from oaken_scale.formats.build_file import dump, load

KEPT = Path(__file__).parent / "kept" / "build-1.json"


def changed(**fields):
    document = json.loads(KEPT.read_text())
    document["build"] |= fields
    return json.dumps(document).encode()


def test_a_kept_file_of_version_1_is_read_with_all_that_it_says():
    build, written = load(KEPT.read_bytes()), json.loads(KEPT.read_text())["build"]
    assert [part.id for part in build.parts] == [item["id"] for item in written["items"]]
    assert {load.part for each in build.weighings for load in each.pan.loads} == {
        load["item"] for each in written["weighings"] for load in each["pan"]["loads"]
    }
    assert (build.diary[0].words, build.diary[0].parts) == (
        "met a fence post, nose rebuilt",
        ("pod", "nose-glue"),
    )
    (check,) = build.checks
    assert (check.held_alone, [each.part for each in check.stood]) == (
        "Pod, loaded",
        ["pod", "motor"],
    )
    assert build.joints[0].parts == ("left-panel", "right-panel")
    assert build.reference_build.parts[0].grams == 170
    assert build.power.packs[0].part == "pack"
    assert [each.part for each in build.field.stances[0].stood] == ["left-panel", "right-panel"]


def test_it_is_written_as_version_2_and_is_the_same_build():
    build = load(KEPT.read_bytes())
    written = dump(build)
    assert json.loads(written)["version"] == 2
    assert load(written.encode()) == build
    assert '"item' not in written


def test_a_fault_is_named_as_the_file_has_it():
    items = json.loads(KEPT.read_text())["build"]["items"]
    items[1]["stated_g"] = 50_000
    with pytest.raises(BuildFaultError) as caught:
        load(changed(items=items))
    assert [each.field for each in caught.value.faults] == ["build.items.1.stated_g"]


@pytest.mark.parametrize(("name", "value"), [("parts", []), ("diary", []), ("wheels", 3)])
def test_what_version_1_did_not_know_is_refused(name, value):
    with pytest.raises(BuildFaultError) as caught:
        load(changed(**{name: value}))
    assert [each.field for each in caught.value.faults] == [f"build.{name}"]


@pytest.mark.parametrize("value", [None, 3, "wing", [1], {"items": {"items": 1}}])
def test_a_version_1_of_other_shapes_is_refused(value):
    with pytest.raises(BuildFaultError):
        load(json.dumps({"format": "oaken-scale/build", "version": 1, "build": value}).encode())
