"""The pans: what a simulated scale shows of what is on them, whoever put it there."""

from types import SimpleNamespace

import pytest

from oaken_scale.api import bench as bench_module
from oaken_scale.demo.sandpiper import true_constants, true_masses
from tests.api.asking import begin, change, part, problem

AT = "/api/v1/builds/sandpiper"


@pytest.fixture
def clock(monkeypatch):
    """A clock of the test's own, in seconds."""
    told = SimpleNamespace(now=100.0)
    monkeypatch.setattr(bench_module.time, "monotonic", lambda: told.now)
    return told


def shown(client, clock, build: str = "sandpiper", seconds: float = 4.0):
    """What the scale shows once it had time to settle."""
    line = None
    for _ in range(int(seconds * 12)):
        clock.now += 1 / 12
        shows = client.app.state.benches.line(build)
        line = shows.line if shows else None
    return line


def test_every_line_of_the_scale_says_which_turn_of_the_pan_it_was_read_in(demo, clock):
    """So that a display at rest from before a change is never taken for a reading after it."""
    benches = demo.app.state.benches
    before = demo.get(f"{AT}/pan").json()["turn"]
    assert shown(demo, clock).steady
    put = demo.put(f"{AT}/pan", json={"loads": [{"part": "motor"}]}).json()["turn"]
    assert put > before
    shows = benches.line("sandpiper")
    assert (shows.turn, shows.line.steady) == (put, False)
    assert shown(demo, clock).steady
    for verb in ("tare", "clear"):
        after = demo.post(f"{AT}/{verb}").json()["turn"]
        assert after > put
        assert benches.line("sandpiper").turn == after
        put = after


@pytest.mark.parametrize(
    ("pan", "load"),
    [
        ({"loads": [{"part": "motor"}]}, true_masses()["motor"]),
        ({"loads": [{"part": "screws", "count": 5}]}, 5 * true_masses()["screws"]),
        ({"samples": [{"lot": "sheet-b", "amount": 3}]}, 3 * true_constants()["sheet-b"]),
        ({"loads": [{"part": "motor"}], "known_g": 100}, 100 + true_masses()["motor"]),
        (
            {"loads": [{"part": "fin"}, {"part": "tailplane"}]},
            true_masses()["fin"] + true_masses()["tailplane"],
        ),
    ],
)
def test_the_simulated_scale_shows_the_true_load(demo, clock, pan, load):
    demo.get(f"{AT}/pan")
    shown(demo, clock, seconds=1)
    demo.put(f"{AT}/pan", json=pan)
    line = shown(demo, clock)
    assert line.steady
    assert line.reading_g == pytest.approx(load, abs=0.25 + 0.002 * load)


def test_after_a_tare_only_the_new_load_shows(demo, clock):
    demo.get(f"{AT}/pan")
    shown(demo, clock, seconds=1)
    demo.put(f"{AT}/pan", json={"loads": [{"part": "pack-1300"}]})
    shown(demo, clock)
    demo.post(f"{AT}/tare")
    assert shown(demo, clock).reading_g == pytest.approx(0.0, abs=0.11)
    demo.put(f"{AT}/pan", json={"loads": [{"part": "fin"}]})
    line = shown(demo, clock)
    assert line.reading_g == pytest.approx(true_masses()["fin"], abs=0.3)
    demo.post(f"{AT}/clear")
    assert shown(demo, clock).reading_g == pytest.approx(0.0, abs=0.11)


def test_a_part_added_to_a_simulated_build_weighs_what_is_believed_of_it(demo, clock):
    told = demo.get(AT).json()
    part(demo, told, name="Ballast", stated_g=12.0)
    demo.put(f"{AT}/pan", json={"loads": [{"part": "ballast"}]})
    assert shown(demo, clock).reading_g == pytest.approx(12.0, abs=0.25)


def test_more_than_it_can_bear_is_over(demo, clock):
    told = demo.get(AT).json()
    part(demo, told, name="Anvil", stated_g=4000.0)
    demo.put(f"{AT}/pan", json={"loads": [{"part": "anvil"}]})
    line = shown(demo, clock)
    assert line.over
    assert not line.steady


def test_a_real_build_has_no_scale_to_listen_to(client, clock):
    told = begin(client)
    id = told["build"]["id"]
    state = client.get(f"/api/v1/builds/{id}/pan").json()
    assert state["simulated"] is False
    assert shown(client, clock, id) is None


def test_another_scale_is_taken_by_its_name(client):
    told = begin(client)
    id = told["build"]["id"]
    scales = [*told["build"]["scales"], {"id": "fine", "name": "Fine", "step_g": 0.01}]
    told = part(client, change(client, told, scales=scales), name="Servo", stated_g=0.15)
    servo = {"loads": [{"part": "servo"}]}
    coarse = client.put(f"/api/v1/builds/{id}/pan", json=servo).json()
    assert coarse["expected"]["warning"] == "too_light"
    fine = client.put(f"/api/v1/builds/{id}/pan", json={**servo, "scale": "fine"}).json()
    assert fine["scale"] == "fine"
    assert fine["expected"]["sd_g"] < coarse["expected"]["sd_g"]
    refused = client.put(f"/api/v1/builds/{id}/pan", json={**servo, "scale": "butcher"})
    assert problem(refused, "scale", "it has scale, fine")


def test_a_scale_that_changed_is_set_up_anew(client):
    told = begin(client)
    id = told["build"]["id"]
    assert client.get(f"/api/v1/builds/{id}/pan").json()["scale"] == "scale"
    (scale,) = told["build"]["scales"]
    change(client, told, scales=[{**scale, "step_g": 1.0}])
    assert client.get(f"/api/v1/builds/{id}/pan").json()["scale"] == "scale"
    gone = client.get("/api/v1/builds/none/pan")
    assert gone.status_code == 404
