from datetime import UTC, datetime, timedelta

import pytest

from tests.api.asking import problem

AT = "/api/v1/builds/sandpiper"


def spread(client, **more):
    return client.post(f"{AT}/joints", json={"name": "Spar", "adhesive": "epoxy", **more})


def moments(answer, n: int = 0) -> dict:
    return {
        each["stage"]: each["at"] for each in answer.json()["assessment"]["joints"][n]["moments"]
    }


def test_a_joint_is_spread_at_the_servers_time(demo):
    before = datetime.now(UTC)
    answer = spread(demo, parts=["left-panel", "spar"])
    assert answer.status_code == 201
    kept = answer.json()["build"]["joints"][0]
    at = datetime.fromisoformat(kept["spread_at"])
    assert before <= at <= datetime.now(UTC)
    assert datetime.fromisoformat(moments(answer)["handle"]) == at + timedelta(minutes=20)
    again = demo.get(AT).json()
    assert again["build"]["joints"] == [kept]


def test_several_run_at_once_and_one_is_cleared(demo):
    spread(demo)
    spread(demo, adhesive="contact")
    told = demo.post(f"{AT}/joints/spar/clear").json()
    assert [each["id"] for each in told["assessment"]["joints"]] == ["spar-2"]
    assert [each["cleared"] for each in told["build"]["joints"]] == [True, False]


def test_the_makers_label_rules(demo):
    spread(demo)
    label = {"close_after_s": 0, "close_by_s": None, "handle_after_s": 600, "strong_after_s": 7200}
    answer = demo.put(f"{AT}/joints/spar/times", json=label)
    told = moments(answer)
    spread_at = datetime.fromisoformat(answer.json()["build"]["joints"][0]["spread_at"])
    assert datetime.fromisoformat(told["handle"]) == spread_at + timedelta(minutes=10)
    assert "close by" not in told


@pytest.mark.parametrize(
    ("sent", "field", "says"),
    [
        ({"adhesive": "spit"}, "adhesive", "should be one of hot-melt"),
        ({"parts": ["ghost"]}, "joints.0.parts.0", "no part"),
        ({"name": ""}, "name", "has to be given"),
        ({"times": {"close_after_s": -1}}, "times.close_after_s", "at least 0"),
        ({"spread_at": "2026-03-07T14:00:00Z"}, "spread_at", "not a field here"),
    ],
)
def test_a_joint_that_cannot_be_is_refused_in_words(demo, sent, field, says):
    assert problem(spread(demo, **sent), field, says)
    assert demo.get(AT).json()["build"]["joints"] == []


def test_times_out_of_order_are_refused(demo):
    spread(demo)
    label = {"close_after_s": 0, "close_by_s": None, "handle_after_s": 600, "strong_after_s": 60}
    refused = demo.put(f"{AT}/joints/spar/times", json=label)
    assert problem(refused, "joints.0.strong_after_s", "before it may be handled")
    assert demo.put(f"{AT}/joints/ghost/times", json=label).status_code == 404


def test_meanwhile_tells_the_time_and_what_is_free(demo):
    first = demo.get(f"{AT}/meanwhile").json()
    assert abs(datetime.fromisoformat(first["now"]) - datetime.now(UTC)) < timedelta(seconds=5)
    free = first["free"]
    assert len(free["suggestions"]) + len(free["parts"]) == 3
    named = [each["part"] for each in free["suggestions"] if each["part"]] + free["parts"]
    spread(demo, parts=[named[0]])
    later = demo.get(f"{AT}/meanwhile").json()["free"]
    assert named[0] not in [*later["parts"], *(each["part"] for each in later["suggestions"])]


def test_glueing_is_one_act_the_bead_becomes_a_part(demo):
    path = "/api/v1/builds/sandpiper"
    joint = {
        "name": "Hatch seam",
        "adhesive": "hot-melt",
        "parts": ["hatch", "saddle"],
        "bead": {"lot": "hot-glue", "amount": 0.4},
    }
    told = demo.post(f"{path}/joints", json=joint).json()
    glue = told["build"]["parts"][-1]
    assert (glue["name"], glue["pedigree"], glue["assembly"]) == ("Hatch seam", "joint", "Fuselage")
    assert glue["uses"] == [{"lot": "hot-glue", "amount": 0.4}]
    # Halfway between 150 and 275 mm from the nose, 30 and 45 mm up.
    assert (glue["station"]["x_mm"], glue["station"]["z_mm"]) == (212.5, 37.5)
    assert told["build"]["joints"][-1]["parts"] == ["hatch", "saddle", glue["id"]]
    mass = told["assessment"]["parts"][-1]
    assert mass["mass_g"] == pytest.approx(0.4 * 2.6, abs=0.1)


def test_a_bead_is_of_an_adhesive_or_a_tape(demo):
    before = demo.get("/api/v1/builds/sandpiper").json()
    joint = {"name": "Seam", "adhesive": "hot-melt", "bead": {"lot": "sheet-a", "amount": 0.4}}
    answer = demo.post("/api/v1/builds/sandpiper/joints", json=joint)
    assert problem(answer, "bead.lot", "is no adhesive or tape")
    assert demo.get("/api/v1/builds/sandpiper").json() == before
