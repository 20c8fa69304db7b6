"""Two figures typed one after the other, before the first is answered: both are kept."""

import pytest
from playwright.sync_api import expect

from tests.browser.waits import build_told, holding, let_go, until
from tests.http import HTTP


def target(build: dict, kind: str) -> dict:
    return next(each for each in build["targets"] if each["kind"] == kind)


def thing(build: dict, many: str, id: str) -> dict:
    return next(each for each in build[many] if each["id"] == id)


def span(surface: dict) -> float:
    return 2 * max(section["y_mm"] for section in surface["sections"])


TWO = {
    "two targets": (
        "plan?on=targets",
        {"All-up weight, at most": "575", "Wing loading, at most": "29"},
        lambda b: (target(b, "auw")["high"], target(b, "wing_loading")["high"]),
        (575, 29),
    ),
    "both ends of one": (
        "plan?on=targets",
        {"Balance, at least": "27", "Balance, at most": "32"},
        lambda b: (target(b, "balance")["low"], target(b, "balance")["high"]),
        (27, 32),
    ),
    "thrust and its doubt": (
        "plan?on=targets",
        {"Static thrust": "470", "Doubt of the thrust, one sigma": "15"},
        lambda b: (b["thrust"]["thrust_gf"], b["thrust"]["doubt_gf"]),
        (470, 15),
    ),
    "a scale": (
        "plan?on=scales",
        {"Kitchen scale, step": "0.5", "Kitchen scale, capacity": "900"},
        lambda b: (b["scales"][0]["step_g"], b["scales"][0]["capacity_g"]),
        (0.5, 900),
    ),
    "a container": (
        "plan?on=scales",
        {"Tray, mass": "30", "Kitchen scale, capacity": "900"},
        lambda b: (b["containers"][0]["mass_g"], b["scales"][0]["capacity_g"]),
        (30, 900),
    ),
    "the drive": (
        "power?on=drive",
        {"Motor Kv": "1300", "Motor mass": "61"},
        lambda b: (b["power"]["motor"]["kv"], b["power"]["motor"]["mass_g"]),
        (1300, 61),
    ),
    "the budget": (
        "stock?on=budget",
        {"Allotted to Foam and spars": "210", "Allotted to Joining": "35"},
        lambda b: {each["group"]: each["grams"] for each in b["budget"]["allotments"]},
        {"foam": 210, "joining": 35},
    ),
    "a span and an incidence": (
        "plan?on=drawing",
        {"Wing, span": "1200", "Wing, incidence in degrees": "1.5"},
        lambda b: [span(thing(b, "surfaces", "wing")), b["surfaces"][0]["incidence_deg"]],
        [1200, 1.5],
    ),
    "a chord and a thickness": (
        "plan?on=drawing",
        {"Wing, chord at the root": "200", "Wing, thickness": "21"},
        lambda b: (b["surfaces"][0]["sections"][0]["chord_mm"], b["surfaces"][0]["thickness_mm"]),
        (200, 21),
    ),
    "how far it may slide": (
        "balance",
        {"Receiver, foremost": "255", "Receiver, aftmost": "335"},
        lambda b: thing(b, "parts", "receiver")["slide"],
        {"low_mm": 255, "high_mm": 335},
    ),
    "where ballast may go, and of what": (
        "balance",
        {"Nose, from the nose": "9", "Nose, at most": "28"},
        lambda b: [b["ballast"]["spots"][0][each] for each in ("x_mm", "most_g")],
        [9, 28],
    ),
}


def fill_both(page, two: dict[str, str]) -> None:
    for label, text in two.items():
        box = page.get_by_label(label, exact=True).first
        box.fill(text)
        box.press("Tab")


@pytest.mark.parametrize("which", TWO)
def test_both_are_kept_while_answers_are_slow(page, sandpiper, which):
    place, two, told, wanted = TWO[which]
    page.goto(f"{sandpiper}/{place}")
    expect(page.get_by_label(next(iter(two)), exact=True).first).to_be_visible()
    held, let = holding(page, "**/api/v1/builds/**")
    fill_both(page, two)
    let_go(page, held, let)
    if isinstance(wanted, dict):
        until(page, lambda: wanted.items() <= told(build_told(page)["build"]).items())
    else:
        until(page, lambda: told(build_told(page)["build"]), lambda has: has == wanted)


@pytest.mark.cut_off
@pytest.mark.parametrize("which", ["two targets", "the drive", "how far it may slide"])
def test_both_are_kept_where_nothing_answered(page, sandpiper, which):
    place, two, told, wanted = TWO[which]
    page.goto(f"{sandpiper}/{place}")
    expect(page.get_by_label(next(iter(two)), exact=True).first).to_be_visible()
    cut = "**/api/v1/builds/**"
    page.route(cut, lambda route: route.abort("failed"))
    fill_both(page, two)
    expect(page.locator(".waits")).to_contain_text("kept here")
    page.unroute(cut)
    until(page, lambda: told(build_told(page)["build"]), lambda has: has == wanted)


def test_two_things_pressed_aboard_are_both_aboard(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=loadouts")
    mine = page.locator(".loadout").last
    boxes = mine.get_by_role("checkbox")
    expect(boxes.first).to_be_visible()
    was = thing(build_told(page)["build"], "loadouts", "scout-850")["carries"]
    held, let = holding(page, "**/api/v1/builds/**")
    missing = [box for box in boxes.all() if not box.is_checked()][:2]
    for box in missing:
        box.press("Space")
    let_go(page, held, let)
    until(
        page,
        lambda: thing(build_told(page)["build"], "loadouts", "scout-850")["carries"],
        lambda has: len(has) == len(was) + 2 and set(was) < set(has),
    )


def test_two_figures_of_a_thing_in_the_drawer(page, sandpiper):
    page.goto(f"{sandpiper}/stock?on=drawer")
    name = f"Servo {sandpiper[-6:]}"
    page.get_by_label("Name of the next thing").fill(name)
    page.get_by_label("Its listing").fill("8")
    page.get_by_label("Its listing").press("Enter")
    mine = page.locator("tr", has=page.get_by_label(f"{name}, listing"))
    expect(mine).to_be_visible()
    held, let = holding(page, "**/api/v1/drawer/*")
    for label, typed in ((f"{name}, listing", "9.5"), (f"{name}, price", "3.2")):
        box = mine.get_by_label(label)
        box.fill(typed)
        box.press("Tab")
    let_go(page, held, let)
    drawer = sandpiper.split("/build/")[0] + "/api/v1/drawer"

    def told() -> list[float]:
        things = [each["thing"] for each in HTTP.get(drawer).json()]
        thing = next(each for each in things if each["name"] == name)
        return [thing["listing_g"], thing["price"]]

    until(page, told, lambda has: has == [9.5, 3.2])


def test_a_thing_laid_down_before_the_drawer_was_told_is_in_it(page, sandpiper):
    """The first answer is on its way, made before the thing was laid there, and comes last."""
    first = []

    def slow(route):
        if route.request.method == "GET" and not first:
            first.append((route, route.fetch()))
        else:
            route.continue_()

    page.route("**/api/v1/drawer", slow)
    page.goto(f"{sandpiper}/stock?on=drawer")
    name = f"Horn {sandpiper[-6:]}"
    page.get_by_label("Name of the next thing").fill(name)
    page.get_by_label("Its listing").fill("2")
    page.get_by_label("Its listing").press("Enter")
    drawer = sandpiper.split("/build/")[0] + "/api/v1/drawer"
    until(page, lambda: name in HTTP.get(drawer).text)
    ((route, answer),) = first
    if not page.get_by_label(f"{name}, listing").is_visible():
        route.fulfill(response=answer)
    expect(page.get_by_label(f"{name}, listing")).to_be_visible()
