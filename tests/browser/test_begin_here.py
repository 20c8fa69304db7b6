"""Begin with what is there: the map answers, a point is chosen by keys, and becomes a build."""

import re

import pytest
from playwright.sync_api import expect


@pytest.fixture
def here(page, demo_served):
    page.goto(demo_served.url)
    page.get_by_role("link", name="With what is there").click()
    expect(page.get_by_role("application")).to_be_visible()
    return page


def keep(page, label, text):
    field = page.get_by_label(label)
    field.fill(text)
    field.press("Enter")


def test_a_point_of_the_map_becomes_a_build(here):
    keep(here, "All-up weight, at most", "590")
    told = here.get_by_label("Span against chord", exact=True)
    expect(told).to_contain_text("all-up weight")
    expect(told.get_by_text("refining")).to_have_count(0)
    size = told.locator("h2")
    before = size.inner_text()
    here.get_by_role("application").focus()
    here.keyboard.press("ArrowUp")
    expect(size).not_to_have_text(before)
    chosen = size.inner_text()
    told.get_by_role("button", name="Begin this one").click()
    expect(told.get_by_role("alert")).to_contain_text("Give it a name")
    told.get_by_label("Name of the plane").fill("Ruff")
    told.get_by_label("Name of the plane").press("Enter")
    expect(here).to_have_url(re.compile("/build/.*/plan"))
    expect(here.get_by_role("heading", name="Ruff", level=1)).to_be_visible()
    span = re.match(r"(\d+) mm", chosen)[1]
    expect(here.get_by_label("Wing, span")).to_have_value(span)


def test_wants_that_quarrel_say_so(here):
    keep(here, "All-up weight, at most", "200")
    note = here.get_by_role("note")
    expect(note).to_contain_text("No point here meets the all-up weight")
    keep(here, "All-up weight, at most", "900")
    expect(note).to_have_count(0)


def test_minutes_are_a_want_of_the_map(here):
    keep(here, "All-up weight, at most", "900")
    keep(here, "Minutes in level flight, at least", "300")
    note = here.get_by_role("note")
    expect(note).to_contain_text("No point here meets the minutes level on the first pack")
    keep(here, "Minutes in level flight, at least", "4")
    expect(note).to_have_count(0)
    told = here.get_by_label("Span against chord", exact=True)
    expect(told).to_contain_text(re.compile(r"minutes level on the first pack\s*\d+ min \d+ %"))
