import re

from playwright.sync_api import expect


def row(page, words: str):
    return page.locator("section[aria-label='Till roll'] li", has_text=words)


def test_d_and_enter_put_a_doubtful_reading_right_and_u_takes_it_back(bench):
    plate = row(bench, "Motor plate")
    expect(plate.get_by_role("note")).to_contain_text("Reads like the tray, 31.4 g, was not tared")
    before = bench.locator("[data-rod=auw]").inner_text()
    bench.keyboard.press("d")
    expect(plate.get_by_role("button", name="put it right: 6.1 g")).to_be_focused()
    bench.keyboard.press("Enter")
    expect(plate).to_have_count(2)
    expect(bench.get_by_role("note")).to_have_count(0)
    expect(plate.first).to_contain_text("the tray, 31.4 g, was not tared")
    expect(bench.locator("[data-rod=auw]")).not_to_have_text(before)
    bench.locator("h2", has_text="Till roll").click()
    bench.keyboard.press("d")
    expect(bench.get_by_text("No reading is doubtful.")).to_be_visible()
    bench.keyboard.press("u")
    expect(bench.get_by_role("note")).to_have_count(1)
    expect(bench.locator("[data-rod=auw]")).to_have_text(before, use_inner_text=True)


def test_a_doubtful_reading_may_be_right_and_doubted_again(bench):
    plate = row(bench, "Motor plate")
    plate.get_by_role("button", name="it is right").click()
    expect(plate).to_contain_text("doubted, and right")
    expect(plate.get_by_role("note")).to_have_count(0)
    plate.get_by_role("button", name="doubt it").click()
    expect(plate.get_by_role("note")).to_be_visible()


def test_weighing_again_puts_the_same_things_on_the_pan(bench):
    row(bench, "Motor plate").get_by_role("button", name="weigh it again").click()
    expect(bench.locator("[data-part=motor-plate]")).to_have_attribute("aria-pressed", "true")
    expect(row(bench, "Motor plate")).to_contain_text("to be weighed again")


def test_what_is_not_expected_is_asked_about_before_it_is_recorded(bench):
    bench.locator("[data-part=right-panel]").click()
    expect(bench.get_by_text("expected")).to_be_visible()
    bench.keyboard.type("73.9")
    expect(bench.locator(".suspicion")).to_contain_text("is the tray on?")
    bench.locator("#typed").fill("42.5")
    expect(bench.locator(".suspicion")).to_have_count(0)


def test_a_tray_is_kept_with_the_scales(bench):
    bench.keyboard.press("Alt+2")
    bench.get_by_role("link", name="Scales", exact=True).click()
    mass = bench.get_by_label("Tray, mass")
    expect(mass).to_have_value("31.4")
    bench.get_by_role("button", name="one more tray").click()
    empty = bench.get_by_label("Mass of one more tray")
    expect(empty).to_be_focused()
    bench.keyboard.press("Escape")
    expect(empty).to_have_count(0)
    expect(bench.get_by_label("Tray 3, mass")).to_have_count(0)
    expect(bench.get_by_role("button", name="one more tray")).to_be_focused()
    bench.keyboard.press("Enter")
    bench.keyboard.type("0.5 oz")
    bench.keyboard.press("Enter")
    expect(bench.get_by_label("Tray 3, mass")).to_have_value("14.17")
    bench.get_by_role("button", name="one more scale").click()
    bench.get_by_label("Steps of one more scale").fill("1")
    bench.keyboard.press("Enter")
    expect(bench.get_by_label(re.compile(r"^Scale \d, step"))).to_have_value("1")


def test_a_practice_bench_from_the_shed_to_its_truth(page, demo_served):
    page.goto(demo_served.url)
    page.get_by_role("button", name="Practise").click()
    expect(page.get_by_text("One reading on the roll is wrong")).to_be_visible()
    expect(page.get_by_role("note").first).to_be_visible()
    page.keyboard.press("d")
    page.keyboard.press("Enter")
    expect(page.locator("section[aria-label='Till roll'] li.aside")).to_have_count(1)
    page.get_by_role("button", name="show the truth").click()
    truth = page.get_by_label("The truth")
    expect(truth).to_contain_text("Found: a reading of")
    expect(truth.locator("tbody tr")).to_have_count(38)
    page.keyboard.press("Escape")
    expect(truth).not_to_be_visible()


def test_a_check_weight_narrows_the_scales_error(bench):
    bench.keyboard.press("Alt+2")
    bench.get_by_role("link", name="Scales", exact=True).click()
    scales = bench.locator("section[aria-label=Scales]")
    expect(scales).to_contain_text("; a weight of")
    before = scales.locator(".check").inner_text()
    scales.get_by_label("Check weight on Kitchen scale").fill("500")
    scales.get_by_label("Kitchen scale shows").fill("501,5")
    scales.get_by_role("button", name="check").click()
    expect(scales.locator(".check")).to_contain_text("reads 0.")
    expect(scales.locator(".check")).not_to_have_text(before, use_inner_text=True)
