"""Changes made while nothing answers, what was taken off, and a weighed part edited."""

import json

import pytest
from playwright.sync_api import expect

from tests.browser.waits import build_told, until
from tests.http import HTTP


def asked(page) -> dict:
    return build_told(page)["build"]


def part(page, id: str) -> dict | None:
    return next((each for each in asked(page)["parts"] if each["id"] == id), None)


def stated(page, id: str, grams: float) -> None:
    """Wait until the server has a part's mass so."""
    until(page, lambda: part(page, id)["stated_g"], lambda has: has == grams)


@pytest.fixture
def plan(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    expect(page.get_by_role("heading", name="Parts")).to_be_visible()
    return page


def figure(page, part: str, typed: str) -> None:
    page.get_by_role("button", name=f"Change {part}", exact=True).click()
    box = page.get_by_label("Mass", exact=True).last
    box.fill(typed)
    box.press("Enter")


@pytest.mark.cut_off
def test_a_change_made_while_nothing_answers_waits_and_is_kept(plan):
    plan.route("**/api/v1/builds/**", lambda route: route.abort())
    figure(plan, "Wires and plugs", "17")
    expect(plan.locator(".waits")).to_contain_text("1 change kept here")
    assert part(plan, "wiring")["stated_g"] != 17
    plan.unroute("**/api/v1/builds/**")
    expect(plan.locator(".waits")).to_have_count(0)
    stated(plan, "wiring", 17)


@pytest.mark.cut_off
def test_a_change_that_waits_outlives_the_page(plan):
    plan.route("**/api/v1/builds/**", lambda route: route.abort("failed"))
    figure(plan, "Wires and plugs", "18")
    expect(plan.locator(".waits")).to_contain_text("1 change kept here")
    plan.unroute("**/api/v1/builds/**")
    plan.reload()
    expect(plan.get_by_role("heading", name="Parts")).to_be_visible()
    expect(plan.locator(".waits")).to_have_count(0)
    stated(plan, "wiring", 18)


def test_a_part_removed_comes_back_as_it_was(plan):
    was = asked(plan)["parts"]
    plan.get_by_role("button", name="Change Hook-and-loop strap").click()
    remove = plan.get_by_label("Parts").get_by_role("button", name="remove", exact=True)
    remove.press("Enter")
    expect(plan.get_by_role("button", name="Change Hook-and-loop strap")).to_have_count(0)
    until(plan, lambda: part(plan, "hook-and-loop"), lambda part: part is None)
    plan.get_by_role("button", name="Bring it back").click()
    expect(plan.get_by_role("button", name="Change Hook-and-loop strap")).to_be_visible()
    until(plan, lambda: asked(plan)["parts"], lambda parts: parts == was)


def test_a_weighed_part_left_as_it_was_is_not_asked_about(plan):
    for part in ("Left wing panel", "Motor, leads on"):
        plan.get_by_role("button", name=f"Change {part}", exact=True).click()
        plan.get_by_role("button", name="keep Enter").first.click()
        expect(plan.get_by_role("button", name=f"Change {part}", exact=True)).to_be_visible()
        expect(plan.get_by_role("alertdialog")).to_have_count(0)


def test_a_weighed_part_with_another_figure_asks_which_it_is(plan):
    figure(plan, "Motor, leads on", "70")
    question = plan.get_by_role("alertdialog", name="It was weighed before")
    expect(question).to_contain_text("Was its figure wrong, or is it another part now?")
    assert part(plan, "motor")["stated_g"] != 70
    plan.keyboard.press("Escape")
    expect(question).to_have_count(0)
    plan.get_by_label("Mass", exact=True).last.press("Enter")
    expect(question.get_by_role("button").first).to_be_focused()
    plan.keyboard.press("Tab")
    plan.keyboard.press("Enter")
    expect(question).to_have_count(0)

    def another(parts: list[dict]) -> bool:
        return any(each["stated_g"] == 70 for each in parts)

    now = until(plan, lambda: asked(plan)["parts"], another)
    (fresh,) = [each for each in now if each["stated_g"] == 70]
    assert fresh["replaces"] == "motor"
    assert next(each for each in now if each["id"] == "motor")["retired"]


def test_while_a_line_is_edited_nothing_lies_past_the_edge(plan):
    """What each part weighs now stays in sight beside the fields, and Esc puts back what was."""
    now = plan.locator("th.now")
    before = now.bounding_box()
    plan.get_by_role("button", name="Change Motor plate").click()
    line = plan.locator("tr", has=plan.get_by_label("Name", exact=True))
    line.get_by_label("Mass", exact=True).fill("9")
    after = now.bounding_box()
    assert after["x"] + after["width"] <= 1280
    assert after["width"] == pytest.approx(before["width"], abs=60)
    plan.get_by_role("button", name="leave it as it was").click()
    expect(plan.get_by_role("button", name="Change Motor plate")).to_be_visible()
    row = plan.locator("tr", has=plan.get_by_role("button", name="Change Motor plate"))
    expect(row).to_contain_text("5.5 g")


def test_a_figure_is_kept_though_the_place_is_left_before_it_was_read(plan):
    """Enter and gone, and gone without Enter: the workshop reads the figure after the place was
    left."""

    def late(route):
        answer = route.fetch()
        plan.wait_for_timeout(700)
        route.fulfill(response=answer)

    plan.goto(plan.url.split("?")[0] + "?on=targets")
    limit = plan.get_by_label("All-up weight, at most")
    expect(limit).to_have_value("590")
    plan.route("**/quantity?*", late)
    for figure, leave in (("601", ("Enter", "Alt+4")), ("602", ("Alt+4",))):
        limit.fill(figure)
        for key in leave:
            plan.keyboard.press(key)
        expect(plan.locator("[data-part=motor]")).to_be_visible()
        plan.keyboard.press("Alt+2")
        plan.get_by_label("On the plan").get_by_role("link", name="Targets").click()
        expect(limit).to_have_value(figure)


@pytest.fixture
def questions(page) -> list[str]:
    """What the page asks on being left; it is left all the same."""
    asked_on_leaving = []

    def leave(dialog):
        asked_on_leaving.append(dialog.type)
        dialog.accept()

    page.on("dialog", leave)
    return asked_on_leaving


def test_the_page_asks_before_it_is_left_while_a_figure_is_read(plan, questions):
    held = []
    plan.goto(plan.url.split("?")[0] + "?on=targets")
    limit = plan.get_by_label("All-up weight, at most")
    limit.fill("601")
    limit.press("Enter")
    # What the rod says is of the answer: nothing is on its way any more.
    expect(plan.locator("[data-rod=auw]")).to_contain_text("15 g in hand")
    plan.reload()
    expect(limit).to_have_value("601")
    assert questions == []
    plan.route("**/quantity?*", lambda route: held.extend([route]))
    limit.fill("602")
    limit.press("Enter")
    plan.reload()
    assert questions == ["beforeunload"]


def test_the_page_asks_before_it_is_left_while_a_change_is_on_its_way(plan, questions):
    held = []
    plan.route("**/parts/wiring", lambda route: held.extend([route]))
    with plan.expect_request("**/parts/wiring"):
        figure(plan, "Wires and plugs", "17")
    plan.reload()
    assert questions == ["beforeunload"]


BEYOND_THE_BUILD = {
    "rack": (
        "/build/sandpiper/stock?on=rack",
        {"Name of the next lot": "Wire", "How heavy, ": "4"},
    ),
    "drawer": (
        "/build/sandpiper/stock?on=drawer",
        {"Name of the next thing": "Regulator", "Its listing": "9"},
    ),
    "buying/wanted/*": ("/buying", {"something to buy": "Charger"}),
}


@pytest.mark.parametrize("kept_in", BEYOND_THE_BUILD)
def test_so_it_does_while_rack_drawer_and_list_are_written(page, sandpiper, questions, kept_in):
    place, typed = BEYOND_THE_BUILD[kept_in]
    held = []

    def hold(route):
        if route.request.method == "GET":
            route.continue_()
        else:
            held.append(route)

    page.route(f"**/api/v1/{kept_in}", hold)
    page.goto(sandpiper.split("/build/")[0] + place.replace("sandpiper", sandpiper.split("/")[-1]))
    for label, text in typed.items():
        page.get_by_label(label).fill(text)
    page.get_by_label(label).press("Enter")
    until(page, lambda: len(held), lambda count: count == 1)
    page.reload()
    assert questions == ["beforeunload"]


def test_a_reading_that_waited_since_an_older_version_is_taken_in(page, sandpiper):
    build = sandpiper.rsplit("/", 1)[1]
    pan = {"loads": [{"item": "motor", "count": 1}], "samples": [], "known_g": 0}
    reading = {"id": "waited", "scale": "kitchen", "reading_g": 58.2, "pan": pan}
    waiting = json.dumps({"build": build, "reading": reading})
    page.add_init_script(f"localStorage.setItem('oaken-scale-waiting-waited', {waiting!r})")
    page.goto(f"{sandpiper}/bench")
    log = until(
        page,
        lambda: asked(page)["weighings"],
        lambda log: any(each["id"] == "waited" for each in log),
    )
    (kept,) = (each for each in log if each["id"] == "waited")
    assert kept["pan"]["loads"] == [{"part": "motor", "count": 1.0}]


def test_a_change_that_waited_since_an_older_version_is_made(page, sandpiper, demo_served):
    build = sandpiper.rsplit("/", 1)[1]
    told = HTTP.get(f"{demo_served.url}/api/v1/builds/{build}")
    (wiring,) = (each for each in told.json()["build"]["parts"] if each["id"] == "wiring")
    act = {
        "id": "waited",
        "build": build,
        "at": "2026-03-07T15:00:00Z",
        "method": "PUT",
        "url": f"{demo_served.url}/api/v1/builds/{build}/items/wiring",
        "match": told.headers["etag"],
        "body": json.dumps({**wiring, "stated_g": 17.5}),
    }
    page.add_init_script(f"localStorage.setItem('oaken-scale-act-waited', {json.dumps(act)!r})")
    page.goto(f"{sandpiper}/plan?on=parts")
    stated(page, "wiring", 17.5)
