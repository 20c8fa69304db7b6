"""A build's drive through the API: listed, run, told for each loadout, and never lost."""

import pytest

from oaken_scale.demo.sandpiper import on_the_shelf, sandpiper
from oaken_scale.formats.build_file import dump, load
from tests.api.asking import begin, change, part, problem

DRIVE = {
    "motor": {"kv": 2200, "mass_g": 27, "most_a": 14},
    "controller": {"most_a": 12, "burst_a": 15, "burst_s": 10},
    "propellers": [{"id": "six", "name": "6 x 3", "diameter_mm": 152.4, "pitch_mm": 76.2}],
    "packs": [
        {
            "id": "three",
            "name": "3-cell",
            "cells": 3,
            "capacity_mah": 1300,
            "c_rating": 25,
            "part": "pack-three",
        },
        {"id": "two", "name": "2-cell", "cells": 2, "capacity_mah": 1300, "part": "pack-two"},
    ],
}
RUN = {
    "id": "run-1",
    "at": "2026-03-07T15:00:00Z",
    "pack": "three",
    "propeller": "six",
    "points": [
        {"throttle": 0.5, "thrust_gf": 160, "pack_a": 2.6, "pack_v": 12.4},
        {"throttle": 1.0, "thrust_gf": 540, "pack_a": 14.0, "pack_v": 11.9},
    ],
}


BARE = {"name": "Outrunner", "kind": "motor", "listing_g": 28}


@pytest.fixture
def told(client):
    """A build with two packs, one loadout each, and a target of thrust-to-weight."""
    told = begin(client, purpose="trainer", layout="tractor", auw_high_g=600)
    for name, grams in (("Wing", 300.0), ("Pack three", 105.0), ("Pack two", 75.0)):
        told = part(
            client, told, name=name, stated_g=grams, option="Pack" in name, station={"x_mm": 200}
        )
    loadouts = [
        {"id": "big", "name": "Big", "carries": ["pack-three"]},
        {"id": "small", "name": "Small", "carries": ["pack-two"]},
    ]
    return change(client, told, loadouts=loadouts, power=DRIVE)


def ratio(told, k):
    answers = told["assessment"]["loadouts"][k]["answers"]
    return next(each for each in answers if each["kind"] == "thrust_to_weight")


def weight(told, k):
    return told["assessment"]["loadouts"][k]["answers"][0]["value"]


def refused(client, told, field, says, **patch):
    answer = client.patch(
        f"/api/v1/builds/{told['build']['id']}",
        json=patch,
        headers={"If-Match": f'"{told["revision"]}"'},
    )
    return problem(answer, field, says)


def test_each_loadout_has_a_thrust_of_its_own(client, told):
    big, small = told["assessment"]["power"]["loadouts"]
    assert (big["pack"], small["pack"]) == ("three", "two")
    assert big["half"]["known"] == "guess"
    for k, each in enumerate((big, small)):
        assert ratio(told, k)["value"] == pytest.approx(each["half"]["thrust_gf"] / weight(told, k))
    assert ratio(told, 1)["value"] < ratio(told, 0)["value"]
    ran = change(client, told, power={**DRIVE, "runs": [RUN]})
    after = ran["assessment"]["power"]["loadouts"]
    assert [each["half"]["known"] for each in after] == ["run", "calculated"]
    assert ratio(ran, 0)["sd"] < 0.7 * ratio(told, 0)["sd"]
    assert ran["assessment"]["progress"]["power"] == 0.5
    assert (
        change(client, ran, power={**DRIVE, "runs": [{**RUN, "set_aside": "wrong propeller"}]})[
            "assessment"
        ]["power"]["loadouts"][0]["half"]
        == big["half"]
    )


def test_without_a_pack_of_the_drive_aboard_the_stated_thrust_holds(client, told):
    packs = [{**each, "part": None} for each in DRIVE["packs"]]
    told = change(client, told, power={**DRIVE, "packs": packs}, thrust={"thrust_gf": 111})
    assert told["assessment"]["power"]["loadouts"] == []
    assert ratio(told, 0)["value"] == pytest.approx(111 / weight(told, 0))
    told = change(client, told, power=None)
    assert told["assessment"]["power"] is None


def test_ladders_have_a_rung_and_name_what_stands_in_the_way(told):
    big = told["assessment"]["power"]["loadouts"][0]
    fresh = big["fresh"]["pack_a"]
    assert fresh > big["half"]["pack_a"]
    rungs = {each["part"]: each for each in big["margins"]}
    assert set(rungs) == {"motor", "controller", "burst", "pack"}
    assert rungs["pack"]["most_a"] == pytest.approx(25 * 1.3)
    assert rungs["burst"]["seconds"] == 10
    for each in rungs.values():
        share = each["current_a"] / each["most_a"]
        wanted = "over" if share > 1 else "little in hand" if share > 0.8 else "in hand"
        assert each["rung"] == wanted
        assert each["current_a"] == pytest.approx(fresh)
    assert big["watts_per_kg"] == pytest.approx(1000 * big["fresh"]["power_w"] / weight_of(told))


def weight_of(told):
    return weight(told, 0)


def test_minutes_are_energy_over_the_mix(told):
    big = told["assessment"]["power"]["loadouts"][0]
    held_wh = 0.8 * 1.3 * 3 * 3.7
    mean_w = 0.8 * big["level_w"] + 0.2 * big["half"]["power_w"]
    assert big["minutes"] == pytest.approx(60 * held_wh / mean_w)
    stall = told["assessment"]["proportions"]["stall_speed"]  # of the heaviest, which is this one
    assert big["level_w"] == pytest.approx(
        weight(told, 0) / 1000 * 9.80665 / 6 * 1.4 * stall / 0.42, rel=1e-6
    )
    assert 0 < big["minutes_sd"] < big["minutes"]


def test_what_is_left_to_add_is_told_for_each_target_the_first_to_break_first(told):
    for k, loadout in enumerate(told["assessment"]["loadouts"]):
        room = {each["kind"]: each for each in loadout["headroom"]}
        thrust = told["assessment"]["power"]["loadouts"][k]["half"]["thrust_gf"]
        area = told["assessment"]["wing"]["area_dm2"]
        assert room["auw"]["grams"] == pytest.approx(600 - weight(told, k))
        assert room["wing_loading"]["grams"] == pytest.approx(35 * area - weight(told, k))
        assert room["thrust_to_weight"]["grams"] == pytest.approx(thrust / 0.5 - weight(told, k))
        order = [each["grams"] for each in loadout["headroom"]]
        assert order == sorted(order)


def test_a_run_that_was_taken_stays(client, told):
    told = change(client, told, power={**DRIVE, "runs": [RUN]})
    assert refused(client, told, "power.runs", "set it aside", power=DRIVE)
    assert refused(client, told, "power.runs", "set it aside", power=None)
    other = {**RUN, "points": RUN["points"][:1]}
    assert refused(client, told, "power.runs", "as it was read", power={**DRIVE, "runs": [other]})
    told = change(client, told, power={**DRIVE, "runs": [{**RUN, "set_aside": "windy"}]})
    assert told["build"]["power"]["runs"][0]["set_aside"] == "windy"


@pytest.mark.parametrize(
    ("patch", "field", "says"),
    [
        ({"packs": [{**DRIVE["packs"][0], "part": "none"}]}, "power.packs.0.part", "no part"),
        ({"runs": [{**RUN, "pack": "four"}]}, "power.runs.0.pack", "no pack"),
        ({"runs": [{**RUN, "propeller": "x"}]}, "power.runs.0.propeller", "no propeller"),
        (
            {"runs": [{**RUN, "points": [{"throttle": 1.2}]}]},
            "power.runs.0.points.0.throttle",
            "at most 1",
        ),
        (
            {"runs": [{**RUN, "points": [{"throttle": 0.5, "pack_v": 16.4}]}]},
            "power.runs.0.points.0.pack_v",
            "more than 3 cells have",
        ),
        (
            {"runs": [{**RUN, "points": [{"throttle": 0.5, "thrust_gf": -4}]}]},
            "power.runs.0.points.0.thrust_gf",
            "at least 0",
        ),
        (
            {"propellers": [{**DRIVE["propellers"][0], "pitch_mm": 0}]},
            "power.propellers.0.pitch_mm",
            "at least 5",
        ),
        ({"motor": {"kv": -1, "mass_g": 20}}, "power.motor.kv", "at least 50"),
        ({"propellers": [DRIVE["propellers"][0]] * 2}, "power.propellers.1", "twice"),
    ],
)
def test_what_cannot_be_is_named(client, told, patch, field, says):
    assert refused(client, told, field, says, power={**DRIVE, **patch})


def test_a_pack_that_is_removed_as_a_part_stays_in_the_drive(client, told):
    id = told["build"]["id"]
    answer = client.delete(
        f"/api/v1/builds/{id}/parts/pack-two", headers={"If-Match": f'"{told["revision"]}"'}
    )
    assert answer.status_code == 200, answer.text
    packs = answer.json()["build"]["power"]["packs"]
    assert [each["part"] for each in packs] == ["pack-three", None]


def test_one_point_no_points_and_thrust_that_falls_are_no_trouble(client, told):
    for points in (
        [],
        [{"throttle": 1.0}],
        [{"throttle": 0.0, "thrust_gf": 0, "pack_a": 0}],
        [{"throttle": k / 4, "thrust_gf": 500 - 100 * k, "pack_a": 2 * k} for k in range(5)],
        [{"throttle": 1.0, "thrust_gf": 20_000, "pack_a": 500}],
    ):
        fresh = begin(client, name="Other")
        fresh = change(client, fresh, power={**bare(), "runs": [{**RUN, "points": points}]})
        assert fresh["assessment"]["power"]["constants"][0]["value"] > 0


def bare():
    return {**DRIVE, "packs": [{**each, "part": None} for each in DRIVE["packs"]]}


def test_a_drive_goes_out_and_comes_in_again():
    build = sandpiper()
    assert build.power is not None
    assert load(dump(build).encode()) == build
    assert on_the_shelf().power == build.power


def drawer(client, **thing):
    answer = client.post("/api/v1/drawer", json=thing)
    assert answer.status_code == 201, answer.text
    return answer.json()["thing"]["id"]


def at(told, what):
    return f"/api/v1/builds/{told['build']['id']}/{what}"


def test_what_lies_in_the_drawer_and_what_is_listed_is_tried(client, told):
    drawer(client, name="Pack 2200", kind="pack", listing_g=170, cells=3, capacity_mah=2200)
    drawer(client, name="Nobody knows", kind="pack", listing_g=100)
    drawer(client, name="Spare motor", kind="motor", listing_g=40, kv=1500, most_a=12)
    listed = {"name": "Tiny", "cells": 2, "capacity_mah": 450, "mass_g": 32}
    answer = client.post(at(told, "power/choices"), json={"packs": [listed]})
    found = answer.json()
    names = {(each["pack"], each["motor"]) for each in found}
    packs = {"3-cell", "2-cell", "Pack 2200", "Tiny"}
    assert names == {(pack, motor) for pack in packs for motor in (None, "Spare motor")}
    (tiny,) = [each for each in found if (each["pack"], each["motor"]) == ("Tiny", None)]
    assert tiny["auw_g"] == pytest.approx(weight(told, 0) - 105 + 32)
    assert client.get(at(told, "")[:-1]).json()["revision"] == told["revision"]


def test_a_pack_of_the_drawer_is_taken_as_a_loadout(client, told):
    thing = drawer(client, name="Pack 2200", kind="pack", listing_g=170, cells=3, capacity_mah=2200)
    header = {"If-Match": f'"{told["revision"]}"'}
    body = {"loadout": "big", "thing": thing}
    taken = client.post(at(told, "power/adopted"), json=body, headers=header)
    assert taken.status_code == 201, taken.text
    taken = taken.json()
    assert [each["name"] for each in taken["build"]["loadouts"]] == ["Big", "Small", "Pack 2200"]
    assert weight(taken, 2) == pytest.approx(weight(told, 0) - 105 + 170)
    assert taken["assessment"]["power"]["loadouts"][2]["minutes"] > 0
    part = taken["build"]["parts"][-1]
    assert (part["thing"], part["station"]["x_mm"]) == (thing, 200)
    # It is aboard now, so the drawer offers it no more.
    found = client.post(at(told, "power/choices"), json={"loadout": "big"}).json()
    assert [each["loadouts"] for each in found] == [["big"], ["small"], [taken_id(taken)]]


def taken_id(told):
    return told["build"]["loadouts"][2]["id"]


@pytest.mark.parametrize(
    ("body", "field", "says"),
    [
        ({}, "body", "say a thing"),
        ({"thing": "bare"}, "thing", "say so in the drawer"),
        ({"loadout": "none", "thing": "bare"}, "loadout", "there is big, small"),
        ({"pack": {"name": "X", "cells": 0, "capacity_mah": 100, "mass_g": 9}}, "pack.cells", "1"),
    ],
)
def test_what_cannot_be_taken_is_refused_in_words(client, told, body, field, says):
    drawer(client, name="Bare", kind="pack", listing_g=100)
    header = {"If-Match": f'"{told["revision"]}"'}
    answer = client.post(at(told, "power/adopted"), json=body, headers=header)
    problem(answer, field, says)
    assert client.get(at(told, "")[:-1]).json()["revision"] == told["revision"]


def test_the_stand_in_is_switched_on_set_and_off(client, told):
    typed = client.put(at(told, "stand"), json={"pack": "three", "propeller": "six"})
    problem(typed, "stand", "type the points")
    scales = [{"id": "s", "name": "S", "step_g": 0.1, "simulated": True}]
    told = change(client, told, scales=scales)
    assert client.get(at(told, "stand")).json() == {
        "there": True,
        "simulated": True,
        "on": False,
        "pack": None,
        "propeller": None,
        "throttle": 0.0,
    }
    problem(client.put(at(told, "stand"), json={"throttle": 0.5}), "throttle", "not on")
    on = client.put(at(told, "stand"), json={"pack": "three", "propeller": "six"}).json()
    assert (on["on"], on["pack"]) == (True, "three")
    assert client.put(at(told, "stand"), json={"throttle": 0.5}).json()["throttle"] == 0.5
    problem(client.put(at(told, "stand"), json={"throttle": 1.5}), "throttle", "1")
    problem(
        client.put(at(told, "stand"), json={"pack": "none", "propeller": "six"}), "pack", "three"
    )
    off = client.put(at(told, "stand"), json={"on": False}).json()
    assert (off["on"], off["throttle"]) == (False, 0.0)


def test_a_port_of_a_stand_is_one_of_the_usual_and_its_lines_can_be_read(client, told):
    bad = {**DRIVE, "stand": {"port": "/dev/pts/../../any/path"}}
    refused(client, told, "power.stand.port", "", power=bad)
    odd = {**DRIVE, "stand": {"port": "/dev/ttyUSB9", "line": "{watts}"}}
    scales = [{"id": "s", "name": "Bench scale", "step_g": 0.1, "port": "/dev/ttyUSB9"}]
    refused(client, told, "power.stand.port", "Bench scale", power=odd, scales=scales)
    told = change(client, told, power=odd)
    answer = client.put(at(told, "stand"), json={"pack": "three", "propeller": "six"})
    problem(answer, "power.stand.line", "none of")


def test_flights_sharpen_the_minutes_and_stay(client, told):
    before = told["assessment"]["power"]["loadouts"][0]
    flight = {
        "id": "f",
        "at": "2026-05-01T10:00:00Z",
        "pack": "three",
        "minutes": 6,
        "put_back_mah": 1000,
    }
    told = change(client, told, power={**DRIVE, "flights": [flight]})
    after = told["assessment"]["power"]["loadouts"][0]
    assert after["minutes"] < before["minutes"]
    assert after["minutes_sd"] < before["minutes_sd"]
    refused(client, told, "power.flights", "set it aside", power=DRIVE)
    long = {**flight, "id": "g", "put_back_mah": 2600}
    refused(
        client,
        told,
        "power.flights.1.put_back_mah",
        "1300",
        power={**DRIVE, "flights": [flight, long]},
    )


def test_any_pack_propeller_and_throttle_is_predicted(client, told):
    def asked(**query):
        return client.get(at(told, "power/prediction"), params={"propeller": "six", **query})

    full, half = (asked(pack="three", throttle=k).json() for k in (1.0, 0.5))
    loadout = told["assessment"]["power"]["loadouts"][0]
    assert full == loadout["half"]
    assert 0 < half["thrust_gf"] < full["thrust_gf"]
    assert half["gf_per_w"] > full["gf_per_w"]
    assert full["gf_per_w"] == pytest.approx(full["thrust_gf"] / full["power_w"])
    assert 0 < full["gf_per_w_sd"] < full["gf_per_w"]
    still = asked(pack="three", throttle=0).json()
    assert (still["thrust_gf"], still["gf_per_w"], still["gf_per_w_sd"]) == (0, 0, 0)
    problem(asked(pack="none"), "pack", "three")
    problem(asked(pack="three", throttle=1.2), "throttle", "1")
    bare = change(client, told, power=None)
    problem(
        client.get(at(bare, "power/prediction"), params={"pack": "x", "propeller": "y"}),
        "power",
        "list it",
    )


@pytest.mark.parametrize(("volts", "says"), [(7.4, "less than 3 cells"), (16.0, "more than 3")])
def test_volts_of_other_cells_are_refused_in_words(client, told, volts, says):
    run = {**RUN, "points": [{"throttle": 1, "thrust_gf": 300, "pack_v": volts}]}
    refused(client, told, "power.runs.0.points.0.pack_v", says, power={**DRIVE, "runs": [run]})


@pytest.mark.parametrize(
    "points",
    [
        [],
        [{"throttle": 1.0}],
        [{"throttle": 0.0, "thrust_gf": 0.0}],
        [{"throttle": 0.5, "thrust_gf": 400}, {"throttle": 1.0, "thrust_gf": 150}],
        [{"throttle": 1.0, "pack_a": 140}],
    ],
    ids=["no points", "nothing read", "at rest", "falling with throttle", "ten times over"],
)
def test_an_odd_run_is_kept_and_all_is_told_of_it(client, told, points):
    told = change(client, told, power={**DRIVE, "runs": [{**RUN, "points": points}]})
    for loadout in told["assessment"]["power"]["loadouts"]:
        for at_full in (loadout["half"], loadout["fresh"]):
            assert all(
                isinstance(at_full[k], float) for k in ("thrust_gf", "thrust_sd_gf", "pack_a")
            )
            assert at_full["thrust_gf"] > 0


def test_what_one_more_costs(client, told):
    query = {"grams": 60, "loadout": "small"}
    answer = client.get(at(told, "one-more"), params=query).json()
    now, then = answer["now"], answer["then"]
    assert now["auw_g"] == pytest.approx(weight(told, 1))
    assert then["auw_g"] == pytest.approx(weight(told, 1) + 60)
    assert then["thrust_to_weight"] < now["thrust_to_weight"]
    assert then["minutes"] < now["minutes"]
    problem(client.get(at(told, "one-more"), params={"grams": -1}), "grams", "0")
    problem(client.get(at(told, "one-more"), params={"grams": 1, "loadout": "x"}), "loadout", "big")


def test_a_drive_is_listed_from_what_the_drawer_knows_of_the_parts(client):
    """Laid into the drawer with what its name says, fitted, and listed with it: no second time."""
    laid = client.post(
        "/api/v1/drawer", json={"name": "Outrunner, 1650 kv", "kind": "motor", "listing_g": 28}
    ).json()["thing"]
    assert laid["kv"] == 1650
    for name, says in (("4-cell 1500 30C", (4, 1500, 30)), ("Lead-acid", (None, None, None))):
        pack = client.post(
            "/api/v1/drawer", json={"name": name, "kind": "pack", "listing_g": 150}
        ).json()["thing"]
        assert (pack["cells"], pack["capacity_mah"], pack["c_rating"]) == says
    kept = client.put(
        f"/api/v1/drawer/{laid['id']}", json={**BARE, "name": "Outrunner, 1650 kv"}
    ).json()["thing"]
    assert kept["kv"] is None  # put right by hand it is as it was put
    client.put(f"/api/v1/drawer/{laid['id']}", json={**BARE, "name": "Outrunner", "kv": 1650})
    blades = {"name": "Prop 6 x 3", "kind": "propeller", "listing_g": 3}
    prop = client.post("/api/v1/drawer", json=blades).json()["thing"]
    told = begin(client)
    at = f"/api/v1/builds/{told['build']['id']}"
    for thing in (laid["id"], "4-cell-1500-30c", prop["id"]):
        told = client.post(
            f"{at}/things",
            json={"thing": thing, "station": {"x_mm": 40}},
            headers={"If-Match": f'"{told["revision"]}"'},
        ).json()
    now = {"If-Match": f'"{told["revision"]}"'}
    listed = client.post(f"{at}/power", headers=now)
    assert listed.status_code == 201
    drive = listed.json()["build"]["power"]
    assert (drive["motor"]["kv"], drive["motor"]["mass_g"], drive["motors"]) == (1650, 28, 1)
    (pack,) = drive["packs"]
    assert (pack["cells"], pack["capacity_mah"], pack["c_rating"]) == (4, 1500, 30)
    assert [each["name"] for each in drive["propellers"]] == ["6 x 3"]
    assert listed.json()["assessment"]["power"]["loadouts"]
    again = client.post(f"{at}/power", headers={"If-Match": listed.headers["ETag"]})
    assert problem(again, "power", "listed already")
    assert client.post(f"{at}/power", headers=now).status_code == 412
