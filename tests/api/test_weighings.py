import threading

import pytest

from oaken_scale.core.assess import assess
from oaken_scale.formats.build_file import load
from tests.api.asking import problem, reading

AT = "/api/v1/builds/sandpiper"


def test_a_reading_is_answered_with_what_it_tells(demo):
    answer = demo.post(f"{AT}/weighings", json=reading("a1", 47.0, fuselage_box=1))
    assert answer.status_code == 201
    told = answer.json()
    masses = {each["id"]: each for each in told["assessment"]["parts"]}
    assert masses["fuselage-box"]["mark"] == "weighed"
    assert masses["fuselage-box"]["mass_g"] == pytest.approx(47.0, abs=0.4)
    assert told["revision"] == 2
    assert {news["lot"] or news["part"] for news in told["news"]} <= {"sheet-a", "body-glue"}
    kept = demo.get(AT).json()
    assert kept["assessment"] == told["assessment"]
    assert kept["build"]["weighings"][-1] == told["weighing"]


def test_what_is_held_is_what_is_on_disk(demo):
    demo.post(f"{AT}/weighings", json=reading("a1", 47.0, fuselage_box=1))
    demo.put(f"{AT}/weighings/a1/set-aside", json={"reason": "bumped the table"})
    held = demo.get(AT).json()
    demo.app.state.workshop._held.clear()
    assert demo.get(AT).json() == held
    assert len(assess(load(demo.get(f"{AT}/file").content)).parts) == len(held["build"]["parts"])


def test_a_retry_never_records_twice(demo):
    sent = reading("a1", 47.0, fuselage_box=1)
    first, again = (demo.post(f"{AT}/weighings", json=sent) for _ in range(2))
    assert (first.status_code, again.status_code) == (201, 200)
    assert {**first.json(), "news": []} == again.json()
    assert len(demo.get(AT).json()["build"]["weighings"]) == 21


def test_an_id_taken_by_another_reading_is_refused(demo):
    demo.post(f"{AT}/weighings", json=reading("a1", 47.0, fuselage_box=1))
    clash = demo.post(f"{AT}/weighings", json=reading("a1", 48.0, fuselage_box=1))
    assert clash.status_code == 409
    assert problem(clash, "id", "give a new one")


def test_several_go_aside_for_one_reason_all_or_none(demo):
    for k, grams in enumerate((47.0, 47.1)):
        demo.post(f"{AT}/weighings", json=reading(f"a{k}", grams, fuselage_box=1))
    before = demo.get(AT).json()
    both = {"weighings": ["a0", "a1"], "reason": "damp"}
    unknown = demo.put(f"{AT}/weighings/set-aside", json={**both, "weighings": ["a0", "no"]})
    assert unknown.status_code == 404
    assert demo.get(AT).json() == before
    told = demo.put(f"{AT}/weighings/set-aside", json=both).json()
    assert [each["set_aside"] for each in told["build"]["weighings"][-2:]] == ["damp", "damp"]
    assert told["revision"] == before["revision"] + 1
    back = demo.post(f"{AT}/undo", headers={"If-Match": f'"{told["revision"]}"'})
    assert [each["set_aside"] for each in back.json()["build"]["weighings"][-2:]] == [None, None]


def test_taking_back_is_a_new_row_and_can_be_undone(demo):
    before = demo.get(AT).json()
    demo.post(f"{AT}/weighings", json=reading("a1", 99.0, fuselage_box=1))
    aside = demo.put(f"{AT}/weighings/a1/set-aside", json={"reason": "taken back"}).json()
    assert aside["build"]["weighings"][-1]["set_aside"] == "taken back"
    assert aside["assessment"]["parts"] == before["assessment"]["parts"]
    back = demo.put(f"{AT}/weighings/a1/set-aside", json={"reason": None}).json()
    assert back["build"]["weighings"][-1]["set_aside"] is None
    assert back["assessment"]["parts"] != before["assessment"]["parts"]


@pytest.mark.parametrize(
    ("change", "field", "says"),
    [
        ({"reading_g": -3}, "reading_g", "more than 0 g"),
        ({"reading_g": 0}, "reading_g", "more than 0 g"),
        ({"reading_g": "12 oz"}, "reading_g", "plain number in g"),
        ({"reading_g": 25_000}, "reading_g", "at most 20000 g"),
        ({"reading_g": 3500}, "reading_g", "at most 3000 g"),
        ({"pan": {}}, "pan", "empty"),
        ({"pan": {"loads": [{"part": "heron-wing"}]}}, "pan.loads.0.part", "no part"),
        ({"pan": {"loads": [{"part": "motor"}, {"part": "motor"}]}}, "pan.loads.1", "twice"),
        ({"pan": {"loads": [{"part": "motor", "count": -1}]}}, "pan.loads.0.count", "more than 0"),
        ({"pan": {"samples": [{"lot": "x", "amount": 1}]}}, "pan.samples.0.lot", "no lot"),
        ({"scale": "butcher"}, "scale", "it has kitchen"),
        ({"weight": 3}, "weight", "not a field here"),
        ({"id": ""}, "id", "letters, digits"),
        ({"at": "yesterday"}, "at", ""),
    ],
)
def test_a_bad_reading_names_its_field_and_changes_nothing(demo, change, field, says):
    before = demo.get(AT).json()
    refused = demo.post(f"{AT}/weighings", json={**reading("bad", 47.0, motor=1), **change})
    assert problem(refused, field, says)
    assert demo.get(AT).json() == before


def test_a_retired_part_is_refused_on_the_pan(demo):
    told = demo.get(AT).json()
    motor = next(each for each in told["build"]["parts"] if each["id"] == "motor")
    demo.put(
        f"{AT}/parts/motor",
        json={**motor, "retired": True},
        headers={"If-Match": f'"{told["revision"]}"'},
    )
    sent = demo.post(f"{AT}/weighings", json=reading("late", 46.0, motor=1))
    assert problem(sent, "pan.loads.0.part", "retired")
    put = demo.put(f"{AT}/pan", json={"loads": [{"part": "motor"}]})
    assert problem(put, "pan.loads.0.part", "retired")


def test_a_servo_of_50_kg_is_refused(demo):
    told = demo.get(AT).json()
    servo = {"name": "Servo", "pedigree": "listing", "stated_g": 50_000}
    refused = demo.post(f"{AT}/parts", json=servo, headers={"If-Match": f'"{told["revision"]}"'})
    assert problem(refused, "stated_g", "at most 5000 g")


def test_a_body_over_the_limit_is_refused_whole(demo):
    huge = reading("huge", 47.0, motor=1) | {"note": "x" * 2_000_000}
    refused = demo.post(f"{AT}/weighings", json=huge)
    assert refused.status_code == 413
    assert "1024 KiB" in refused.json()["detail"]


def test_a_body_of_undeclared_size_is_counted_as_it_comes(demo):
    refused = demo.post(f"{AT}/weighings", content=(b"x" * 65_536 for _ in range(40)))
    assert refused.status_code == 413


def test_the_pan_says_what_it_should_read_and_is_cleared_by_the_record(demo):
    state = demo.put(f"{AT}/pan", json={"loads": [{"part": "right-panel"}]}).json()
    assert state["simulated"] is True
    assert 39 < state["expected"]["reading_g"] < 44
    assert state["expected"]["warning"] is None
    light = demo.put(f"{AT}/pan", json={"loads": [{"part": "screws", "count": 0.25}]}).json()
    assert light["expected"]["warning"] == "too_light"
    demo.put(f"{AT}/pan", json={"loads": [{"part": "right-panel"}]})
    demo.post(f"{AT}/weighings", json=reading("a1", 42.7, right_panel=1))
    assert demo.get(f"{AT}/pan").json()["loads"]["loads"] == []


def test_what_was_put_on_the_pan_before_a_late_reading_came_stays(demo):
    """N pressed right after Space: the reading may reach the server after the new pan does."""
    demo.put(f"{AT}/pan", json={"loads": [{"part": "fuselage-box"}]})
    demo.put(f"{AT}/pan", json={"loads": [{"part": "controller"}]})
    sent = {
        "id": "late",
        "scale": "kitchen",
        "reading_g": 46.3,
        "pan": {"loads": [{"part": "fuselage-box"}]},
    }
    assert demo.post(f"{AT}/weighings", json=sent).status_code == 201
    assert demo.get(f"{AT}/pan").json()["loads"]["loads"] == [{"part": "controller", "count": 1.0}]
    again = {**sent, "id": "next", "reading_g": 23.3, "pan": {"loads": [{"part": "controller"}]}}
    assert demo.post(f"{AT}/weighings", json=again).status_code == 201
    assert demo.get(f"{AT}/pan").json()["loads"]["loads"] == []


def test_tared_things_no_longer_count(demo):
    demo.put(f"{AT}/pan", json={"loads": [{"part": "motor"}]})
    state = demo.post(f"{AT}/tare").json()
    assert state["loads"]["loads"] == []
    assert state["tared"]["loads"] == [{"part": "motor", "count": 1.0}]
    again = demo.put(f"{AT}/pan", json={"loads": [{"part": "propeller"}]}).json()
    assert again["tared"]["loads"] == [{"part": "motor", "count": 1.0}]
    assert demo.post(f"{AT}/clear").json()["tared"]["loads"] == []


def test_readings_from_two_hands_at_once_are_all_kept(demo):
    answers = []

    def weigh(hand: str) -> None:
        for number in range(15):
            sent = reading(f"{hand}-{number}", 47.0 + number % 2 / 10, fuselage_box=1)
            answers.append(demo.post(f"{AT}/weighings", json=sent).status_code)

    hands = [threading.Thread(target=weigh, args=(hand,)) for hand in "ab"]
    for hand in hands:
        hand.start()
    for hand in hands:
        hand.join()
    assert answers == [201] * 30
    told = demo.get(AT).json()
    assert len(told["build"]["weighings"]) == 50
    assert told["revision"] == 31


def test_a_doubtful_reading_is_put_right_in_a_new_row_and_back_again(demo):
    path = "/api/v1/builds/sandpiper"
    before = demo.get(path).json()
    (doubt,) = before["assessment"]["doubts"]
    slip = doubt["slips"][0]
    assert (slip["kind"], slip["subject"]) == ("not tared", "tray")
    right = {"id": "c1", "reading_g": slip["reading_g"], "pan": slip["pan"], "reason": "tray on"}
    answer = demo.post(f"{path}/weighings/{doubt['weighing']}/correction", json=right)
    assert answer.status_code == 201
    told = answer.json()
    assert told["assessment"]["doubts"] == []
    old = next(w for w in told["build"]["weighings"] if w["id"] == doubt["weighing"])
    assert (old["set_aside"], old["reading_g"]) == ("tray on", 37.5)
    new = told["build"]["weighings"][-1]
    assert (new["corrects"], new["at"]) == (doubt["weighing"], old["at"])
    # Sent again, it is done once.
    again = demo.post(f"{path}/weighings/{doubt['weighing']}/correction", json=right)
    assert again.json()["revision"] == told["revision"]
    back = demo.put(
        f"{path}/weighings/c1/set-aside", json={"reason": "taken back", "restore": True}
    ).json()
    assert back["assessment"]["doubts"] == before["assessment"]["doubts"]


def test_a_doubtful_reading_may_be_right(demo):
    path = "/api/v1/builds/sandpiper"
    told = demo.put(f"{path}/weighings/reading-03/accepted", json={"accepted": True}).json()
    assert told["assessment"]["doubts"] == []
    assert (
        demo.put(f"{path}/weighings/reading-03/accepted", json={"accepted": True}).json()[
            "revision"
        ]
        == told["revision"]
    )
    again = demo.put(f"{path}/weighings/reading-03/accepted", json={"accepted": False}).json()
    assert len(again["assessment"]["doubts"]) == 1
    none = demo.put(f"{path}/weighings/ghost/accepted", json={"accepted": True})
    assert none.status_code == 404


def test_a_correction_that_cannot_stand_changes_nothing(demo):
    path = "/api/v1/builds/sandpiper"
    before = demo.get(path).json()
    wrong = {"id": "c1", "reading_g": 6.1, "pan": {}, "reason": "tray on"}
    answer = demo.post(f"{path}/weighings/reading-03/correction", json=wrong)
    assert problem(answer, "pan", "empty")
    taken = {**wrong, "id": "reading-01", "pan": {"loads": [{"part": "motor"}]}}
    answer = demo.post(f"{path}/weighings/reading-03/correction", json=taken)
    assert answer.status_code == 409
    assert demo.get(path).json() == before


def test_a_reading_is_doubted_before_it_is_recorded(demo):
    path = "/api/v1/builds/sandpiper"
    demo.put(f"{path}/pan", json={"loads": [{"part": "right-panel"}]})
    assert demo.get(f"{path}/pan/doubt", params={"reading_g": 42.0}).json() is None
    doubt = demo.get(f"{path}/pan/doubt", params={"reading_g": 73.9}).json()
    assert (doubt["slips"][0]["kind"], doubt["slips"][0]["subject"]) == ("not tared", "tray")
    demo.post(f"{path}/clear")
    assert demo.get(f"{path}/pan/doubt", params={"reading_g": 42.0}).json() is None
