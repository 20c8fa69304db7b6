"""The mouse away: every place, every answer, by keys alone."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.waits import build_told, kept, last_reading, until


@pytest.fixture
def shed(page, demo_served):
    page.goto(demo_served.url)
    expect(page.locator("article")).to_have_count(5)
    return page


def test_places_are_a_key_away(shed):
    shed.keyboard.press("Tab")
    shed.get_by_role("link", name="Sandpiper", exact=True).focus()
    shed.keyboard.press("Enter")
    expect(shed.locator("[data-part=motor]")).to_be_visible()
    shed.keyboard.press("Alt+2")
    expect(shed.get_by_label("On the plan")).to_be_visible()
    shed.keyboard.press("4")
    expect(shed.locator("[data-part=motor]")).to_be_visible()
    shed.keyboard.press("Alt+1")
    expect(shed.get_by_role("heading", name="Shed")).to_be_visible()
    shed.keyboard.press("2")
    expect(shed.get_by_label("On the plan")).to_be_visible()


def test_on_the_bench_a_digit_begins_a_reading_and_no_journey(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    page.keyboard.press("1")
    expect(page.locator("#typed")).to_have_value("1")
    assert page.url.endswith("/bench")
    page.keyboard.press("Escape")


def test_the_keys_are_shown_and_put_away(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog", name="Keys")
    expect(sheet).to_contain_text("record the steady reading")
    page.keyboard.press("n")
    assert page.locator(".tag.on").count() == 0
    page.keyboard.press("Escape")
    expect(sheet).not_to_be_visible()


def test_a_tag_is_pressed_by_enter_and_space_still_records(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    tag = page.locator("[data-part=wear-pads]")
    expect(tag).to_be_visible()
    tag.focus()
    page.keyboard.press("Enter")
    expect(tag).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("Space")
    row = page.locator("section[aria-label='Till roll'] li").first
    expect(row).to_contain_text("Wear pads")
    expect(tag).to_have_attribute("aria-pressed", "false")


def test_a_rod_opens_and_closes_by_keys(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/plan")
    rod = page.locator("[data-rod=auw]")
    expect(rod).to_be_visible()
    rod.focus()
    page.keyboard.press("Enter")
    inside = page.locator(".v-overlay .inside")
    expect(inside).to_contain_text("at most 590 g")
    expect(inside).to_contain_text("the count's own limit")
    page.keyboard.press("Escape")
    expect(inside).not_to_be_visible()


def test_a_targets_figure_is_typed_and_its_source_becomes_the_builders(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/plan?on=targets")
    limit = page.get_by_label("All-up weight, at most")
    expect(limit).to_have_value("590")
    limit.fill("1 lb 5 oz")
    limit.press("Enter")
    expect(limit).to_have_value("595.34")
    expect(page.get_by_role("row", name=re.compile("All-up weight"))).to_contain_text(
        "your own figure"
    )
    limit.fill("heavy")
    limit.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("not a number")
    limit.fill("590")
    limit.press("Enter")
    expect(limit).to_have_value("590")


def test_a_range_moves_as_a_whole_where_one_end_passes_the_other(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/plan?on=targets")
    low = page.get_by_label("Balance, at least")
    expect(low).to_have_value("28")
    low.fill("40")
    low.press("Enter")
    expect(page.get_by_label("Balance, at most")).to_have_value("45")
    expect(low).to_have_value("40")
    low.fill("28")
    low.press("Enter")
    page.get_by_label("Balance, at most").fill("33")
    page.get_by_label("Balance, at most").press("Enter")
    expect(page.get_by_label("Balance, at most")).to_have_value("33")


def test_undo_and_redo_over_places_in_the_order_they_were_made(bench):
    bench.locator("[data-part=wear-pads]").click()
    bench.keyboard.type("2.2")
    bench.keyboard.press("Enter")
    expect(bench.locator("section[aria-label='Till roll'] li").first).to_contain_text("2.2")
    kept(bench, len(build_told(bench)["build"]["weighings"]), lambda last: last["reading_g"] == 2.2)
    bench.keyboard.press("Alt+2")
    chord = bench.get_by_label("Wing, section 1, chord")
    chord.fill("210")
    chord.press("Enter")
    numbers = bench.get_by_label("What the drawing comes to")
    expect(numbers).not_to_contain_text("20.52 dm²")
    bench.keyboard.press("Control+z")
    expect(bench.locator(".line .words").first).to_contain_text("Taken back: Wing changed.")
    expect(numbers).to_contain_text("20.52 dm²")
    bench.keyboard.press("Control+z")
    expect(bench.locator(".line .words").first).to_contain_text("Taken back: the reading of 2.2 g")
    until(bench, lambda: last_reading(bench)["set_aside"] == "taken back")
    bench.keyboard.press("Control+Shift+Z")
    bench.keyboard.press("Control+Shift+Z")
    expect(numbers).not_to_contain_text("20.52 dm²")
    until(bench, lambda: last_reading(bench)["set_aside"] is None)
    bench.get_by_role("button", name="undo", exact=True).click()
    expect(numbers).to_contain_text("20.52 dm²")


def test_single_keys_can_be_switched_off(bench):
    bench.keyboard.press("?")
    sheet = bench.get_by_role("dialog", name="Keys")
    sheet.get_by_label("single keys").uncheck()
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("n")
    bench.keyboard.press("9")
    expect(bench.locator("#typed")).to_have_value("")
    assert bench.locator(".tag.on").count() == 0
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("On the plan")).to_be_visible()
    bench.keyboard.press("?")
    sheet.get_by_label("single keys").check()
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("4")
    expect(bench.locator("[data-part=motor]")).to_be_visible()


def test_every_place_has_its_keys_its_title_and_a_way_past_the_rule(page, demo_served):
    titles = set()
    for place in ("plan", "stock", "bench", "balance", "power", "field"):
        page.goto(f"{demo_served.url}/build/sandpiper/{place}")
        expect(page).to_have_title(f"Sandpiper, {place.capitalize()} · Oaken Scale")
        titles.add(page.title())
        page.keyboard.press("?")
        sheet = page.get_by_role("dialog", name="Keys")
        expect(sheet).to_contain_text("take the last change back")
        page.keyboard.press("Escape")
        expect(sheet).to_have_count(0)
    assert len(titles) == 6
    page.keyboard.press("Tab")
    for _ in range(3):
        if page.evaluate("() => document.activeElement.className === 'skip'"):
            break
        page.keyboard.press("Tab")
    page.locator(".skip").press("Enter")
    assert page.evaluate("() => document.activeElement.id") == "work"


def what_happened(page, sandpiper):
    """What asks what happened to the hatch, pressed, and the sheet that it opens."""
    page.goto(f"{sandpiper}/plan?on=parts")
    page.get_by_role("button", name="Change Hatch").press("Enter")
    verb = page.get_by_role("button", name="it was repaired, replaced …")
    verb.press("Enter")
    sheet = page.get_by_role("dialog", name="What happened to it")
    expect(sheet).to_be_visible()
    return verb, sheet


@pytest.mark.parametrize("leave", ["Escape", "Nothing happened"])
def test_a_sheet_that_goes_gives_the_hand_back_to_what_opened_it(page, sandpiper, leave):
    verb, sheet = what_happened(page, sandpiper)
    if leave == "Escape":
        page.keyboard.press("Escape")
    else:
        sheet.get_by_role("button", name=leave).press("Enter")
    expect(sheet).not_to_be_visible()
    expect(verb).to_be_focused()


def test_esc_while_the_hand_is_still_on_what_opened_a_sheet_puts_only_the_sheet_away(
    page, sandpiper
):
    verb, sheet = what_happened(page, sandpiper)
    verb.dispatch_event("keydown", {"key": "Escape", "bubbles": True})
    expect(sheet).not_to_be_visible()
    expect(verb).to_be_focused()


def test_a_build_that_is_not_begun_gives_the_hand_back_too(page, sandpiper):
    page.goto(sandpiper.split("/build/")[0])
    verb = page.get_by_role("button", name="Begin a build")
    for leave in ("Escape", "Not now", "Escape"):
        verb.press("Enter")
        sheet = page.get_by_role("dialog", name="Begin a build")
        name = sheet.get_by_role("textbox", name="Name")
        expect(name).to_be_focused()
        name.fill("Whimbrel")
        sheet.get_by_label("What it is for").first.press("ArrowDown")
        expect(page.get_by_role("listbox")).to_be_visible()
        page.keyboard.press("Escape")  # the list goes, the sheet with what is typed stays
        expect(page.get_by_role("listbox")).to_have_count(0)
        expect(name).to_have_value("Whimbrel")
        if leave == "Escape":
            page.keyboard.press("Escape")
        else:
            sheet.get_by_role("button", name=leave).press("Enter")
        expect(sheet).not_to_be_visible()
        expect(verb).to_be_focused()
