"""A reading away from the Bench says which scale it was made on, where there are several."""

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until
from tests.http import HTTP

POCKET = {"id": "pocket", "name": "Pocket scale", "step_g": 0.01, "capacity_g": 200}


@pytest.fixture
def two_scales(page, sandpiper) -> str:
    url = sandpiper.replace("/build/", "/api/v1/builds/")
    told = HTTP.get(url).json()
    scales = [*told["build"]["scales"], POCKET]
    headers = {"If-Match": f'"{told["revision"]}"'}
    assert HTTP.patch(url, json={"scales": scales}, headers=headers).status_code == 200
    return sandpiper


def last(page) -> dict:
    return build_told(page)["build"]["weighings"][-1]


def test_a_square_is_weighed_on_the_scale_that_is_chosen(page, two_scales):
    page.goto(f"{two_scales}/stock?on=rack")
    page.locator("[data-lot=sheet-b]").click()
    on = page.get_by_label("The scale it is on")
    expect(on).to_have_value("Kitchen scale")
    choose(on, "Pocket scale")
    reading = page.get_by_label("What the scale shows")
    reading.fill("3.47")
    reading.press("Enter")
    until(page, lambda: last(page), lambda told: told["reading_g"] == 3.47)
    assert last(page)["scale"] == "pocket"
    # The next one is on the same, in another place too, and a template is as sure as its step.
    page.get_by_role("link", name="Outlines").click()
    template = page.get_by_role("form", name="Weigh a paper template")
    expect(template.get_by_label("The scale it is on")).to_have_value("Pocket scale")
    template.get_by_label("The template weighs").fill("8")
    template.get_by_label("The template weighs").press("Enter")
    fine = template.locator("output")
    expect(fine).to_contain_text("10.00 dm² ±")
    finely = fine.inner_text()
    choose(template.get_by_label("The scale it is on"), "Kitchen scale")
    template.get_by_label("The template weighs").fill("8")
    template.get_by_label("The template weighs").press("Enter")
    expect(fine).not_to_have_text(finely)


def test_where_there_is_one_scale_nothing_is_asked(page, sandpiper):
    page.goto(f"{sandpiper}/stock?on=rack")
    page.locator("[data-lot=sheet-b]").click()
    expect(page.get_by_label("What the scale shows")).to_be_visible()
    expect(page.get_by_label("The scale it is on")).to_have_count(0)


def test_a_check_on_two_supports_names_its_scale(page, two_scales):
    page.goto(f"{two_scales}/balance")
    page.get_by_role("button", name="Two supports").click()
    form = page.locator("form", has=page.get_by_label("aft support"))
    choose(form.get_by_label("The scale it is on"), "Pocket scale")
    form.locator("input").first.fill("100")
    form.get_by_label("aft support").fill("500")
    form.get_by_label("the scale reads").fill("150")
    form.get_by_label("the scale reads").press("Enter")
    checks = until(page, lambda: build_told(page)["build"]["checks"], lambda all: len(all) > 0)
    assert checks[-1]["scale"] == "pocket"
    assert checks[-1]["reading_g"] == 150


def test_a_square_in_inches_is_of_four_by_four(page, sandpiper):
    """Four inches by four are 1.0323 dm2, and 0.17 oz are 4.82 g."""
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")
    page.goto(f"{sandpiper}/stock?on=rack")
    page.locator("[data-lot=sheet-b]").click()
    expect(page.get_by_label("Size of the piece")).to_have_value("4 x 4 in")
    choose(page.get_by_label("Units"), "g, mm, g/dm²")
    expect(page.get_by_label("Size of the piece")).to_have_value("100 x 100")
    choose(page.get_by_label("Units"), "oz, in, oz/ft²")
    before = len(build_told(page)["build"]["weighings"])
    page.get_by_label("What the scale shows").fill("0.17")
    page.get_by_label("What the scale shows").press("Enter")
    until(page, lambda: len(build_told(page)["build"]["weighings"]), lambda now: now > before)
    (sample,) = last(page)["pan"]["samples"]
    assert sample == {"lot": "sheet-b", "amount": pytest.approx(1.0323, abs=1e-4)}
    assert last(page)["reading_g"] == pytest.approx(4.82, abs=0.01)
