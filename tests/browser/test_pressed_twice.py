"""Enter pressed twice, or held, before the first was answered: what is kept is kept once; what is
typed meanwhile stays for the next."""

import pytest
from playwright.sync_api import expect

from tests.browser.waits import build_told, holding, let_go, until
from tests.http import HTTP


def listed(page, many: str) -> int:
    return len(build_told(page)["build"][many])


def sample(page):
    page.locator("[data-lot=sheet-b]").click()
    return page.get_by_label("What the scale shows"), "3.5"


def check_weight(page):
    page.get_by_label("Check weight on Kitchen scale").fill("100")
    return page.get_by_label("Kitchen scale shows"), "100.1"


def loadout(page):
    return page.get_by_label("Name of the next loadout"), "Bare"


def flight(page):
    return page.get_by_label("Minutes flown"), "7.5"


def rack(page):
    page.get_by_label("How heavy").fill("4.4")
    return page.get_by_label("Name of the next lot"), "Sheet from the attic"


def check(page):
    page.get_by_role("button", name="Fingertips").click()
    return page.get_by_label("Where it rests"), "60"


def drawer(page):
    page.get_by_label("Its listing").fill("9")
    return page.get_by_label("Name of the next thing"), "Servo from the shelf"


def cut_down(page):
    page.get_by_role("button", name="Change Motor plate").click()
    page.get_by_role("button", name="it was repaired, replaced").click()
    sheet = page.get_by_label("What happened to it")
    sheet.get_by_label("sanded, trimmed").check()
    return sheet.get_by_label("about"), "0.4"


def part(page):
    return page.get_by_label("Name of the next part"), "Skid 4 g at 200"


def step(page):
    return page.get_by_label("what is to be done"), "Sand the tips"


def typed(page):
    page.locator("[data-part=motor]").click()
    page.keyboard.press("6")
    return page.locator("#typed"), "62.5"


TWICE = {
    "a square weighed": ("stock?on=rack", sample, lambda page: listed(page, "weighings")),
    "a check weight": ("plan?on=scales", check_weight, lambda page: listed(page, "weighings")),
    "a loadout": ("plan?on=loadouts", loadout, lambda page: listed(page, "loadouts")),
    "a flight": (
        "power?on=minutes",
        flight,
        lambda page: len(build_told(page)["build"]["power"]["flights"]),
    ),
    "a lot hung on the rack": (
        "stock?on=rack",
        rack,
        lambda page: len(HTTP.get(page.url.split("/build/")[0] + "/api/v1/rack").json()),
    ),
    "a part": ("plan?on=parts", part, lambda page: listed(page, "parts")),
    "a step of one's own": (
        "plan?on=day",
        step,
        lambda page: len(build_told(page)["build"]["day"]["own"]),
    ),
    "a reading typed on the Bench": ("bench", typed, lambda page: listed(page, "weighings")),
    "what was sanded off": ("plan?on=parts", cut_down, lambda page: listed(page, "parts")),
    "a thing for the drawer": (
        "stock?on=drawer",
        drawer,
        lambda page: len(HTTP.get(page.url.split("/build/")[0] + "/api/v1/drawer").json()),
    ),
    "a check by hand": ("balance", check, lambda page: listed(page, "checks")),
}


#: What is typed next, where the field is there for another as soon as the first is on its way.
NEXT = {
    "a square weighed": "4.5",
    "a check weight": "100.3",
    "a loadout": "With wheels",
    "a flight": "8.5",
    "a lot hung on the rack": "Sheet from the cellar",
    "a thing for the drawer": "Another servo",
    "a part": "Wheel 7 g at 210",
    "a step of one's own": "Sand the nose",
}


@pytest.mark.parametrize("which", TWICE)
def test_what_is_kept_twice_in_a_hurry_is_kept_once(page, sandpiper, which):
    place, prepared, many = TWICE[which]
    page.goto(f"{sandpiper}/{place}")
    expect(page.locator("[data-rod=auw]")).to_be_visible()
    field, text = prepared(page)
    before = many(page)
    field.fill(text)
    held, let = holding(page, "**/api/v1/**")
    page.route(
        "**/api/v1/quantity*", lambda route: held.append(route) if not let else route.continue_()
    )
    field.press("Enter")
    field.press("Enter")
    if which in NEXT:
        field.fill(NEXT[which])
    let_go(page, held, let)
    until(page, lambda: many(page), lambda now: now > before)
    # What a second press sent would come right behind it.
    page.wait_for_timeout(400)
    assert many(page) == before + 1
    if which in NEXT:
        expect(field).to_have_value(NEXT[which])
