"""The order of the day as a builder uses it."""

import pytest
from playwright.sync_api import expect

from tests.browser.waits import holding, let_go, until


@pytest.fixture
def day(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=day")
    expect(page.get_by_role("region", name="Order of the day")).to_contain_text("Hands busy")
    return page


def steps(page):
    return page.get_by_role("region", name="Order of the day").get_by_role("listitem")


def test_what_now_with_the_minutes_that_are_left(day):
    now = day.get_by_role("list", name="In the minutes that are left")
    expect(now).to_contain_text("Cut Wing")
    left = day.get_by_label("Minutes that are left", exact=True)
    left.fill("5")
    left.press("Enter")
    expect(now).not_to_contain_text("Cut Wing")
    expect(now).to_contain_text("Spread: Paint")


def test_a_step_is_moved_begun_and_done(day):
    expect(steps(day).first).to_contain_text("Cut Fuselage")
    day.get_by_role("button", name="Cut Wing: earlier").click()
    expect(steps(day).first).to_contain_text("Cut Wing")
    steps(day).first.get_by_role("button", name="begin").click()
    expect(day.get_by_role("timer")).to_contain_text("so far")
    day.reload()
    expect(day.get_by_role("timer")).to_contain_text("so far")
    day.get_by_role("button", name="Cut Wing: done").click()
    expect(steps(day).first).not_to_contain_text("Cut Wing")
    day.get_by_role("button", name="not yet").click()
    expect(steps(day).first).to_contain_text("Cut Wing")
    day.get_by_role("button", name="put it back in order").click()
    expect(steps(day).first).to_contain_text("Cut Fuselage")


def test_a_step_of_ones_own(day):
    day.get_by_label("what is to be done").fill("Sand the nose")
    day.keyboard.press("Enter")
    own = steps(day).filter(has_text="Sand the nose")
    expect(own).to_contain_text("10 min")
    day.get_by_role("button", name="Forget Sand the nose").click()
    expect(own).to_have_count(0)


def titles(page) -> list[str]:
    return [each.split("\n")[0] for each in steps(page).all_inner_texts()]


def test_a_step_moved_twice_in_a_hurry_is_moved_twice(day):
    """The second press comes before the first was answered."""
    day.get_by_label("what is to be done").fill("Sand the nose")
    day.keyboard.press("Enter")
    expect(steps(day).filter(has_text="Sand the nose")).to_be_visible()
    before = titles(day)
    at = before.index("Sand the nose")
    assert at >= 2
    held, let = holding(day, "**/api/v1/builds/**")
    earlier = day.get_by_role("button", name="Sand the nose: earlier")
    earlier.press("Enter")
    earlier.press("Enter")
    let_go(day, held, let)
    until(day, lambda: titles(day).index("Sand the nose"), lambda now: now == at - 2)
