"""The place Power: from a typed point to a run that is told on the rods."""

import re

import httpx
import pytest
from playwright.sync_api import expect


@pytest.fixture
def power(page, demo_served):
    page.goto(f"{demo_served.url}/build/sandpiper/power")
    expect(page.get_by_role("heading", name="On the stand")).to_be_visible()
    return page


def section(page, name):
    return page.get_by_role("region", name=name, exact=True)


def test_one_look_says_which_pack_and_what_stands_in_the_way(power):
    expect(section(power, "At full throttle")).to_contain_text("over what it stands")
    table = section(power, "Which pack")
    expect(table.locator("tbody tr")).to_have_count(3)
    expect(table.locator("tbody tr").first).to_contain_text("◆")
    expect(section(power, "Left to add")).to_contain_text("breaks first")
    expect(power.get_by_label("Runs")).to_contain_text("was read in ounces? It would be 230 gf")
    expect(section(power, "Thrust")).to_contain_text("run on the stand")


def test_six_is_its_key_and_a_loadout_is_chosen_in_the_table(power):
    power.keyboard.press("2")
    expect(power).to_have_url(re.compile("/plan$"))
    power.keyboard.press("6")
    expect(power).to_have_url(re.compile("/power$"))
    power.get_by_role("button", name="No camera, 3-cell 850").click()
    expect(power.get_by_text("loadout 3 of 3")).to_be_visible()


def test_points_typed_by_keys_alone_outlive_a_reload_and_become_a_run(power):
    power.get_by_label("Pack on the stand").select_option(label="3-cell 850")
    for throttle, thrust, amps in (("50", "165", "2.6"), ("100", "556", "13.9")):
        power.get_by_label("Throttle", exact=True).fill(throttle)
        power.keyboard.press("Tab")
        power.keyboard.type(thrust)
        power.keyboard.press("Tab")
        power.keyboard.type(amps)
        power.keyboard.press("Enter")
        expect(power.get_by_label("Throttle", exact=True)).to_be_focused()
        expect(power.get_by_label("Throttle", exact=True)).to_have_value("")
    power.reload()
    waiting = power.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_have_count(2)
    power.get_by_role("button", name="Keep the run, 2 points").click()
    expect(waiting).to_have_count(0)
    runs = power.get_by_label("Runs").locator("li")
    expect(runs).to_have_count(2)
    expect(runs.first).to_contain_text("3-cell 850, 6 x 3: 2 points, up to 556 gf")
    runs.first.get_by_role("button", name="set aside").click()
    expect(runs.first.get_by_role("button", name="count it again")).to_be_visible()


def test_what_was_typed_wrong_is_said_and_stays(power):
    power.get_by_label("Throttle", exact=True).fill("130")
    section(power, "On the stand").get_by_label("Thrust", exact=True).fill("200")
    power.keyboard.press("Enter")
    expect(power.get_by_role("alert")).to_contain_text("0 to 100")
    expect(power.get_by_label("Throttle", exact=True)).to_have_value("130")


def test_a_drive_is_begun_from_the_parts(page, served):
    at = f"{served.url}/api/v1/builds"
    told = httpx.post(at, json={"name": "Wren", "layout": "tractor"}).json()
    for name, grams in (("Motor, outrunner", 24.0), ("Pack, 2-cell 850", 52.0)):
        told = httpx.post(
            f"{at}/{told['build']['id']}/items",
            json={"name": name, "pedigree": "listing", "stated_g": grams,
                  "station": {"x_mm": 100}},
            headers={"If-Match": f'"{told["revision"]}"'},
        ).json()  # fmt: skip
    page.goto(f"{served.url}/build/{told['build']['id']}/power")
    page.get_by_role("button", name="List the drive").click()
    expect(page.get_by_label("Motor mass")).to_have_value("24")
    expect(page.locator("[data-pack] [aria-label=Cells]")).to_have_value("2")
    expect(page.locator("[data-pack] [aria-label=Capacity]")).to_have_value("850")
    expect(section(page, "On the stand")).to_contain_text("No run yet")
    kv = page.get_by_label("Motor Kv")
    kv.fill("1400")
    kv.press("Enter")
    expect(section(page, "Thrust")).to_contain_text("a guess")


def test_a_pack_taken_off_the_list_comes_back_by_one_press(power):
    power.get_by_role("button", name="another pack").click()
    packs = power.locator("[data-pack]")
    expect(packs).to_have_count(3)
    packs.last.get_by_role("button", name="remove").click()
    expect(packs).to_have_count(2)
    power.get_by_role("button", name="bring it back").click()
    expect(packs).to_have_count(3)
    packs.last.get_by_role("button", name="remove").click()
    expect(packs).to_have_count(2)


@pytest.mark.parametrize("width", [390, 1280])
def test_nothing_of_it_runs_off_the_page(power, width):
    power.set_viewport_size({"width": width, "height": 844})
    assert power.evaluate("document.documentElement.scrollWidth") <= width
