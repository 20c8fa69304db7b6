"""What places and words are is said where they stand, and what happens is said aloud."""

import re

from playwright.sync_api import expect


def test_each_place_says_what_it_is_until_it_is_hidden(bench):
    line = bench.locator("p.what")
    expect(line).to_contain_text("Put a part on the pan")
    foot = bench.locator(".clocks").bounding_box()
    assert foot["y"] + foot["height"] <= 800.5
    bench.keyboard.press("Alt+5")
    expect(line).to_contain_text("Where the plane hangs level")
    line.get_by_role("button", name="hide these lines").press("Enter")
    expect(line).to_have_count(0)
    bench.reload()
    expect(bench.get_by_role("heading", name="Where it belongs")).to_be_visible()
    expect(line).to_have_count(0)
    bench.keyboard.press("?")
    bench.get_by_role("dialog", name="Keys").get_by_label("each place says").check()
    bench.keyboard.press("Escape")
    expect(line).to_be_visible()


def test_each_view_of_the_plan_says_what_it_is(page, sandpiper):
    page.goto(f"{sandpiper}/plan")
    line = page.locator("p.what > span")
    views = page.get_by_label("On the plan").get_by_role("link")
    expect(views).to_have_count(8)
    said = set()
    for view in views.all():
        view.click()
        expect(view).to_have_attribute("aria-current", "page")
        said.add(line.inner_text())
    assert len(said) == 8


def test_words_are_explained_where_they_stand(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    words = page.locator("form[aria-label='The next part'] details")
    words.locator("summary").press("Enter")
    for word in ("pieces", "option", "station", "known by"):
        expect(words.locator("dt", has_text=word)).to_be_visible()
    expect(words).to_contain_text("Aboard in some loadouts only")
    page.goto(page.url.replace("/plan?on=parts", "/balance"))
    schools = page.locator("details", has_text="Builders do not agree")
    schools.locator("summary").press("Enter")
    expect(schools.locator("dt", has_text="school")).to_be_visible()


def test_what_was_recorded_and_a_verdict_that_turned_are_said_aloud(bench):
    aloud = bench.locator(".aloud")
    expect(aloud).to_have_text("")
    bench.locator("[data-part=wear-pads]").click()
    bench.keyboard.type("2.2")
    bench.keyboard.press("Enter")
    expect(aloud).to_contain_text("Recorded: 2.2 g")
    bench.goto(bench.url.replace("/bench", "/plan?on=targets"))
    limit = bench.get_by_label("All-up weight, at most")
    limit.fill("900")
    limit.press("Enter")
    expect(aloud).to_contain_text(re.compile("All-up weight: on course"))
