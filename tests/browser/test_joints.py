import re

from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.http import HTTP


def spread(page, number: str, name: str) -> None:
    page.keyboard.press("j")
    sheet = page.get_by_label("Spread a joint")
    expect(sheet).to_contain_text("the maker's label rules")
    page.get_by_label("Name of the joint").fill(name)
    page.get_by_label("Name of the joint").blur()
    page.keyboard.press(number)
    expect(page.locator(".clock", has_text=name)).to_be_visible()
    expect(sheet).not_to_be_visible()


def test_j_and_a_number_start_the_clock(bench):
    bench.locator("[data-part=spar]").click()
    bench.keyboard.press("j")
    expect(bench.get_by_label("Name of the joint")).to_have_value("Spar, 900 mm rod")
    bench.keyboard.press("3")
    clock = bench.locator(".clock")
    expect(clock).to_contain_text("foam-safe contact adhesive")
    expect(clock).to_contain_text(re.compile(r"close in 1[45]:\d\d"))
    expect(bench.locator("footer[aria-label='Joint clocks']")).to_contain_text("meanwhile: weigh")


def test_the_clock_runs_and_says_when_it_is_due(bench):
    at = bench.url.replace("/build/", "/api/v1/builds/").removesuffix("/bench")
    soon = {"close_after_s": 8, "close_by_s": None, "handle_after_s": 14, "strong_after_s": 3600}
    sent = {"name": "Nose doubler", "adhesive": "epoxy", "times": soon}
    assert HTTP.post(f"{at}/joints", json=sent).status_code == 201
    clock = bench.locator(".clock")
    expect(clock).to_contain_text(re.compile("close in 0:0"))
    expect(clock).to_contain_text(re.compile("handle in 0:0"))
    expect(bench).to_have_title("● Nose doubler may be closed")
    expect(bench).to_have_title("● Nose doubler may be handled")
    expect(clock).to_contain_text(re.compile(r"strong in 59:\d\d"))
    bench.keyboard.press("Shift")
    assert bench.title() == "Sandpiper, Bench · Oaken Scale"


def test_several_run_at_once_and_a_reload_shows_the_same(bench):
    spread(bench, "2", "Motor plate")
    spread(bench, "6", "Hatch")
    expect(bench.locator(".clock")).to_have_count(2)
    bench.reload()
    expect(bench.locator(".clock")).to_have_count(2)
    expect(bench.locator(".clock").first).to_contain_text("Motor plate")
    other = bench.context.new_page()
    other.goto(bench.url)
    expect(other.locator(".clock")).to_have_count(2)
    other.close()


def test_the_label_of_the_maker_rules(bench):
    spread(bench, "2", "Motor plate")
    bench.locator(".clock").click()
    sheet = bench.get_by_label("Joint", exact=True)
    expect(sheet).to_contain_text("Gloves, and air.")
    by, handle = sheet.get_by_label("closed by"), sheet.get_by_label("may be handled")
    by.fill("")
    handle.fill("12,5")
    handle.press("Enter")
    expect(bench.locator(".clock")).to_contain_text(re.compile(r"handle in 12:\d\d"))
    bench.locator(".clock").click()
    sheet.get_by_label("strong").fill("1")
    sheet.get_by_label("strong").press("Enter")
    expect(bench.locator(".line .words")).to_contain_text("before it may be handled")
    bench.keyboard.press("Escape")


def test_numbers_start_no_joint_once_the_sheet_is_put_away(bench):
    bench.keyboard.press("j")
    expect(bench.get_by_label("Spread a joint")).to_be_visible()
    bench.keyboard.press("Escape")
    expect(bench.get_by_label("Spread a joint")).not_to_be_visible()
    bench.keyboard.press("4")
    expect(bench.locator("#typed")).to_have_value("4")
    expect(bench.locator(".clock")).to_have_count(0)
    bench.keyboard.press("Escape")


def test_glueing_makes_the_bead_a_part(bench):
    for part in ("hatch", "saddle"):
        bench.locator(f"[data-part={part}]").click()
    bench.keyboard.press("j")
    sheet = bench.get_by_label("Spread a joint")
    sheet.get_by_label("How much of it").fill("40 cm")
    choose(sheet.get_by_label("Of which"), "Hot glue bead")
    sheet.get_by_label("Name of the joint").fill("Hatch seam")
    sheet.get_by_role("button", name=re.compile("Hot-melt glue")).click()
    expect(bench.locator("[data-part=hatch-seam]")).to_contain_text("1.0")
    expect(bench.locator(".clock")).to_contain_text("Hatch seam")
