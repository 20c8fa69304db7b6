"""The practice bench: a slip to find, a truth to look at in the end."""

import pytest

from tests.api.asking import begin, problem


@pytest.fixture
def bench(client):
    told = client.post("/api/v1/practice", json={"seed": 7}).json()
    return client, told, f"/api/v1/builds/{told['build']['id']}"


def test_one_reading_is_wrong_and_is_found(bench):
    client, told, path = bench
    truth = client.get(f"{path}/truth").json()
    (wrong,) = truth["wrong"]
    assert wrong["reading_g"] - wrong["true_g"] == pytest.approx(27.6, abs=0.2)
    assert not wrong["set_aside"]
    doubt = told["assessment"]["doubts"][0]
    assert doubt["weighing"] == wrong["weighing"]
    assert doubt["slips"][0]["kind"] == "not tared"
    right = {"id": "c", "reading_g": doubt["slips"][0]["reading_g"], "reason": "tray on"}
    pan = {"pan": doubt["slips"][0]["pan"]}
    client.post(f"{path}/weighings/{doubt['weighing']}/correction", json=right | pan)
    assert client.get(f"{path}/truth").json()["wrong"][0]["set_aside"]


def test_the_scale_knows_the_truth_that_is_shown_in_the_end(bench):
    client, told, path = bench
    truth = {each["part"]: each for each in client.get(f"{path}/truth").json()["parts"]}
    part = told["assessment"]["weigh_next"][0]["part"] or "motor"
    client.put(f"{path}/pan", json={"loads": [{"part": part}]})
    body = {"id": "w", "scale": "kitchen", "reading_g": round(truth[part]["true_g"], 1)}
    pan = {"pan": {"loads": [{"part": part}]}}
    client.post(f"{path}/weighings", json=body | pan)
    after = client.get(f"{path}/truth").json()
    assert after["weighed"] == 1
    mass = next(each for each in after["parts"] if each["part"] == part)
    assert mass["estimate_g"] == pytest.approx(mass["true_g"], abs=1.0)


def test_benches_differ_by_their_seed_and_stay_the_same_for_one(client):
    def readings(seed):
        told = client.post("/api/v1/practice", json={"seed": seed}).json()
        return [each["reading_g"] for each in told["build"]["weighings"]]

    assert readings(1) == readings(1)
    assert readings(1) != readings(2)
    assert client.post("/api/v1/practice", json={}).status_code == 201


def test_a_real_build_keeps_no_truth_to_show(client):
    told = begin(client)
    answer = client.get(f"/api/v1/builds/{told['build']['id']}/truth")
    assert problem(answer, "build_id", "is no practice bench")
    assert client.post("/api/v1/practice", json={"seed": -1}).status_code == 422


def test_the_demo_gives_its_truth_away_to_nobody(demo):
    assert demo.get("/api/v1/builds/sandpiper/truth").status_code == 409
