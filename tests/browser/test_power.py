"""The place Power: from a typed point to a run that is told on the rods."""

import re

import pytest
from playwright.sync_api import expect

from oaken_scale.core.model.power import Pack
from oaken_scale.demo.drives import SANDPIPER_TRUE
from oaken_scale.devices.simulated_port import SimulatedPort
from oaken_scale.devices.simulated_stand import SimulatedStand
from tests.browser.choosing import choose
from tests.http import HTTP


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
    expect(power.get_by_label("Runs")).to_contain_text("was read in ounces? It would be 218 gf")
    expect(section(power, "Thrust")).to_contain_text("run on the stand")


def test_six_is_its_key_and_a_loadout_is_chosen_in_the_table(power):
    power.keyboard.press("2")
    expect(power).to_have_url(re.compile("/plan$"))
    power.keyboard.press("6")
    expect(power).to_have_url(re.compile("/power$"))
    power.get_by_role("button", name="No camera, 3-cell 850").click()
    expect(power.get_by_text("loadout 3 of 3")).to_be_visible()


def test_points_typed_by_keys_alone_outlive_a_reload_and_become_a_run(power):
    choose(power.get_by_label("Pack on the stand"), "3-cell 850")
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


def test_points_that_nobody_understood_yet_outlive_a_reload_in_their_order(mine):
    held = []
    mine.route("**/api/v1/quantity*", lambda route: held.extend([route]))
    thrust = section(mine, "On the stand").get_by_label("Thrust", exact=True)
    for throttle, gf in (("40", "100"), ("80", "350")):
        mine.get_by_label("Throttle", exact=True).fill(throttle)
        thrust.fill(gf)
        mine.keyboard.press("Enter")
        expect(thrust).to_have_value("")
    mine.keyboard.press("Enter")  # once more, with nothing typed
    mine.unroute("**/api/v1/quantity*")
    mine.reload()
    waiting = mine.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_have_count(2)
    expect(waiting.first).to_contain_text("40 % · 100 gf")
    expect(waiting.last).to_contain_text("80 % · 350 gf")


def test_what_was_typed_wrong_is_said_and_stays(power):
    power.get_by_label("Throttle", exact=True).fill("130")
    section(power, "On the stand").get_by_label("Thrust", exact=True).fill("200")
    power.keyboard.press("Enter")
    expect(power.get_by_role("alert")).to_contain_text("0 to 100")
    expect(power.get_by_label("Throttle", exact=True)).to_have_value("130")


def test_a_drive_is_begun_from_the_parts(page, served):
    at = f"{served.url}/api/v1/builds"
    told = HTTP.post(at, json={"name": "Wren", "layout": "tractor"}).json()
    for name, grams in (
        ("Motor, outrunner", 24.0),
        ("Pack, 2-cell 850", 52.0),
        ("Pack, 3-cell", 80.0),
    ):
        told = HTTP.post(
            f"{at}/{told['build']['id']}/parts",
            json={"name": name, "pedigree": "listing", "stated_g": grams, "station": {"x_mm": 100}},
            headers={"If-Match": f'"{told["revision"]}"'},
        ).json()
    page.goto(f"{served.url}/build/{told['build']['id']}/power")
    page.get_by_role("button", name="List the drive").click()
    expect(page.get_by_label("Motor mass")).to_have_value("24")
    first = page.locator("[data-pack]").first
    expect(first.get_by_label("Cells", exact=True)).to_have_value("2")
    expect(first.get_by_label("Capacity", exact=True)).to_have_value("850")
    kv = page.get_by_label("Motor Kv")
    expect(kv).to_have_value("")
    expect(section(page, "The drive")).to_contain_text(
        "Nobody said its Kv: by its mass about 2580 ±"
    )
    expect(page.locator('[data-rod="thrust_to_weight"]')).to_contain_text("say its propeller")
    expect(section(page, "At full throttle")).to_contain_text("say its propeller in Power")
    unlisted = page.locator("[data-another]").last
    expect(unlisted.get_by_label("Cells of another")).to_have_value("3")
    unlisted.get_by_role("button", name="list it").click()
    expect(unlisted.get_by_role("alert")).to_have_text("Say its cells and what it holds.")
    expect(unlisted.get_by_label("Capacity of another")).to_be_focused()
    page.keyboard.type("1300")
    page.keyboard.press("Tab")
    expect(unlisted.get_by_role("button", name="list it")).to_be_focused()
    page.keyboard.press("Enter")
    packs = page.locator("[data-pack]")
    expect(packs).to_have_count(2)
    expect(packs.last.get_by_label("Pack", exact=True)).to_have_value("Pack, 3-cell")
    listing = page.locator("[data-another]")
    expect(listing).to_have_count(1)
    listing.get_by_label("Diameter of another").fill("8")
    listing.get_by_label("Pitch of another").fill("4 1/2")
    page.keyboard.press("Tab")
    listing.get_by_role("button", name="list it").click()
    expect(page.get_by_label("Propeller", exact=True)).to_have_value("8 x 4.5")
    expect(page.get_by_label("Diameter", exact=True)).to_have_value("203.2")
    expect(listing).to_have_count(0)
    kv.fill("1400")
    kv.press("Enter")
    page.get_by_role("link", name="On the stand").click()
    expect(section(page, "On the stand")).to_contain_text("No run yet")
    expect(section(page, "Thrust")).to_contain_text("a guess")


def test_a_pack_taken_off_the_list_comes_back_by_one_press(power):
    power.get_by_role("link", name="The drive").click()
    power.get_by_role("button", name="another pack").click()
    packs = power.locator("[data-pack]")
    listing = power.locator("[data-another]")
    expect(listing.get_by_label("Cells of another")).to_be_focused()
    listing.get_by_role("button", name="leave it").click()
    expect(power.get_by_role("button", name="another pack")).to_be_focused()
    power.keyboard.press("Enter")
    listing.get_by_label("Cells of another").fill("2")
    listing.get_by_label("Capacity of another").fill("450")
    power.keyboard.press("Tab")
    listing.get_by_role("button", name="list it").click()
    expect(packs).to_have_count(3)
    expect(packs.last.get_by_label("Pack", exact=True)).to_have_value("2-cell 450")
    expect(packs.last.get_by_label("Pack", exact=True)).to_be_focused()
    packs.last.get_by_role("button", name="remove").click()
    expect(packs).to_have_count(2)
    power.get_by_role("button", name="bring it back").click()
    expect(packs).to_have_count(3)
    packs.last.get_by_role("button", name="remove").click()
    expect(packs).to_have_count(2)


@pytest.mark.parametrize("width", [390, 1280])
def test_nothing_of_it_runs_off_the_page(power, width):
    power.set_viewport_size({"width": width, "height": 844})
    for view in ("On the stand", "Which pack, which motor", "Minutes", "The drive"):
        power.get_by_role("link", name=view).click()
        expect(power.get_by_role("link", name=view)).to_have_class(re.compile("here"))
        if view == "Which pack, which motor":
            expect(power.get_by_text("take it").first).to_be_visible()
        assert power.evaluate("document.documentElement.scrollWidth") <= width, view


@pytest.fixture
def mine(page, sandpiper):
    """The Power of a Sandpiper of its own."""
    page.goto(f"{sandpiper}/power")
    expect(page.get_by_role("button", name="Switch it on")).to_be_visible()
    return page


def test_a_run_on_the_simulated_stand_by_keys_alone(mine):
    mine.keyboard.press("s")
    throttle = mine.get_by_role("slider", name="Throttle of the stand, per cent")
    expect(throttle).to_be_visible()
    expect(section(mine, "On the stand").locator(".three")).to_contain_text("12.")
    mine.keyboard.press(" ")
    expect(mine.locator(".line .words")).to_contain_text("Open the throttle first")
    throttle.focus()
    for _ in range(10):
        mine.keyboard.press("ArrowRight")
    stand = section(mine, "On the stand")
    expect(stand.locator(".three")).to_contain_text("50 %")
    expect(stand.locator("output")).to_contain_text(re.compile(r"1[3-9]\d ?gf"))
    expect(stand.locator(".lamp")).to_have_text("steady")
    mine.keyboard.press(" ")
    waiting = mine.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_have_count(1)
    expect(waiting).to_contain_text("50 %")
    for _ in range(10):
        mine.keyboard.press("ArrowRight")
    expect(stand.locator(".three")).to_contain_text("100 %")
    expect(stand.locator(".lamp")).to_have_text("steady")
    mine.keyboard.press(" ")
    expect(waiting).to_have_count(2)
    mine.keyboard.press("s")
    expect(mine.get_by_role("button", name="Switch it on")).to_be_visible()
    mine.get_by_role("button", name="Keep the run, 2 points").press("Enter")
    expect(mine.get_by_label("Runs").locator("> li")).to_have_count(2)
    expect(waiting).to_have_count(0)


def test_a_stand_whose_cable_is_out_says_so_and_its_points_stay(mine, demo_served):
    device = SimulatedStand(SANDPIPER_TRUE, Pack("p", "P", 3, 1300.0))
    port = SimulatedPort(device, lines_per_s=25)
    mine.get_by_role("link", name="The drive").click()
    at = mine.get_by_label("Port of the stand")
    at.fill(port.port)
    at.press("Enter")
    expect(mine.get_by_label("Lines of the stand")).to_be_visible()
    mine.get_by_role("link", name="On the stand").click()
    mine.get_by_role("button", name="Switch it on").click()
    stand = section(mine, "On the stand")
    expect(stand.locator(".three")).to_contain_text("0 %")
    device.throttle(0.6)
    expect(stand.locator("output")).to_contain_text(re.compile(r"2\d\d ?gf"))
    mine.keyboard.press(" ")
    waiting = mine.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_contain_text("60 %")
    port.unplug()
    expect(stand.locator(".lamp")).to_contain_text("is its cable in?")
    mine.keyboard.press(" ")
    expect(mine.locator(".line .words")).to_contain_text("The points so far are kept")
    expect(waiting).to_have_count(1)


def test_what_lies_in_the_drawer_is_tried_and_taken_with_one_press(mine):
    mine.get_by_role("link", name="Which pack, which motor").click()
    table = section(mine, "Which pack, which motor")
    row = table.locator("tbody tr", has_text="Pack, 3-cell 1800").filter(has_text="flies,")
    expect(row).to_contain_text("all-up weight")
    expect(row).to_contain_text("slide it")
    row.get_by_role("button", name="Take Pack, 3-cell 1800 as a loadout").click()
    expect(row).to_contain_text("flies already")
    mine.get_by_role("link", name="On the stand").click()
    expect(section(mine, "Which pack").locator("tbody tr")).to_have_count(4)


def test_a_listing_is_tried_beside_them(mine):
    mine.get_by_role("link", name="Which pack, which motor").click()
    table = section(mine, "Which pack, which motor")
    rows = table.locator("tbody tr")
    expect(rows.first).to_be_visible()
    table.get_by_label("Called").fill("From a shop")
    table.get_by_label("mAh").fill("2200")
    mine.keyboard.press("Enter")
    expect(table.get_by_role("alert")).to_contain_text("Mass")
    table.get_by_label("Listed, g").fill("6 oz")
    mine.keyboard.press("Enter")
    expect(table.get_by_role("alert")).to_contain_text("Cells")
    table.get_by_label("Cells").fill("3")
    mine.keyboard.press("Enter")
    expect(table).to_contain_text("Listed: From a shop, 170.1 g")
    shop = table.locator("tbody tr", has_text="From a shop")
    expect(shop.filter(has_text="the motor that flies")).to_have_count(1)
    expect(shop.filter(has_text="Spare motor, lighter")).to_have_count(1)
    table.get_by_role("button", name="take it off").click()
    expect(shop).to_have_count(0)


def test_a_flight_written_down_sharpens_the_minutes_and_may_be_set_aside(mine):
    mine.get_by_role("link", name="Minutes").click()
    place = section(mine, "Minutes")
    expect(place).to_contain_text("a guess by layout until it is flown")
    shown = place.locator("header .figure").inner_text()
    place.get_by_label("Minutes flown").fill("7")
    place.get_by_label("mAh put back").fill("5000")
    mine.keyboard.press("Enter")
    expect(mine.locator(".line .words")).to_contain_text("the pack holds 1300")
    place.get_by_label("mAh put back").fill("1020")
    mine.keyboard.press("Enter")
    expect(place).to_contain_text("as 1 flight found it")
    expect(place.locator("header .figure")).not_to_have_text(shown)
    place.get_by_role("button", name="set aside").click()
    expect(place.locator("header .figure")).to_have_text(shown)


def test_what_was_felt_after_a_run_is_a_rung_for_every_pack(mine):
    ladders = section(mine, "At full throttle")
    expect(ladders).to_contain_text("52 °C was felt at 14")
    run = mine.get_by_label("Runs").locator("> li")
    run.get_by_text("how warm after it").click()
    run.get_by_label("controller after the run, °C").fill("78")
    mine.keyboard.press("Enter")
    expect(ladders).to_contain_text("78 °C was felt at 14")
    run.get_by_text("each reading beside what all the others say").click()
    expect(run.locator("tbody tr")).to_have_count(18)
    expect(run.locator("tr", has_text="not believed")).to_contain_text("thrust, gf")


@pytest.mark.cut_off
def test_a_run_that_is_kept_late_does_not_wait_here_too(mine):
    mine.get_by_label("Throttle", exact=True).fill("100")
    section(mine, "On the stand").get_by_label("Thrust", exact=True).fill("530")
    mine.keyboard.press("Enter")
    waiting = mine.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_have_count(1)
    mine.context.set_offline(True)
    mine.get_by_role("button", name="Keep the run, 1 point").click()
    expect(mine.locator(".line .words")).to_contain_text("does not answer")
    expect(waiting).to_have_count(1)
    mine.get_by_label("Throttle", exact=True).fill("70")
    section(mine, "On the stand").get_by_label("Amps", exact=True).fill("5.5")
    mine.keyboard.press("Enter")  # it waits until it can be understood
    mine.context.set_offline(False)
    expect(mine.get_by_label("Runs").locator("> li")).to_have_count(2)
    expect(mine.get_by_label("Runs").locator("> li").first).to_contain_text("1 point")
    # What came after it is no part of it, and stays.
    expect(waiting).to_have_count(1)
    expect(waiting).to_contain_text("70 % · 5.5 A")


def test_a_point_is_kept_once_though_its_view_was_left_meanwhile(mine):
    held = []
    mine.route("**/api/v1/quantity*", lambda route: held.extend([route]))
    mine.get_by_label("Throttle", exact=True).fill("60")
    section(mine, "On the stand").get_by_label("Amps", exact=True).fill("4")
    mine.keyboard.press("Enter")
    mine.get_by_role("link", name="Minutes").click()
    expect(section(mine, "Minutes")).to_be_visible()
    mine.unroute("**/api/v1/quantity*")
    mine.get_by_role("link", name="On the stand").click()
    waiting = mine.get_by_label("Points not kept as a run yet").locator("li")
    expect(waiting).to_have_count(1)
    mine.wait_for_timeout(500)
    expect(waiting).to_have_count(1)


def test_any_throttle_is_answered_with_its_doubt(mine):
    ask = section(mine, "At any throttle")
    expect(ask).to_contain_text("gf/W")
    before = ask.locator(".told .figure").first.inner_text()
    ask.get_by_label("Throttle asked, per cent").fill("40")
    mine.keyboard.press("Enter")
    expect(ask.locator(".told .figure").first).not_to_have_text(before)
    ask.get_by_label("Throttle asked, per cent").fill("130")
    mine.keyboard.press("Enter")
    expect(ask.get_by_role("alert")).to_contain_text("0 to 100")


def test_power_loading_is_a_target_where_its_builder_wants_one(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=targets")
    expect(page.locator("[data-rod]")).to_have_count(4)
    page.set_viewport_size({"width": 390, "height": 844})
    page.get_by_role("button", name="at least 120, as is usual").click()
    page.set_viewport_size({"width": 1280, "height": 800})
    rod = page.locator("[data-rod=power_loading]")
    expect(rod).to_contain_text("W/kg")
    expect(rod).to_contain_text("on course")
    expect(page.get_by_text("rule of thumb: 120 to 300 W/kg are usual")).to_be_visible()
    low = page.get_by_label("Power loading, at least")
    expect(low).to_have_value("120")
    low.fill("900")
    low.press("Tab")
    expect(rod).to_contain_text("off course")
    rod.click()
    expect(page.get_by_text("W more power")).to_be_visible()
    page.goto(f"{sandpiper}/balance?on=loadouts")
    expect(page.get_by_role("columnheader", name="power")).to_be_visible()
