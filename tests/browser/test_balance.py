"""The place Balance, by mouse and by keys alone."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until
from tests.http import HTTP


@pytest.fixture
def balance(page, sandpiper):
    page.goto(f"{sandpiper}/balance")
    expect(page.get_by_label("Beam", exact=True)).to_contain_text("Tail-heavy")
    expect(page.get_by_label("What would fix it")).not_to_contain_text("Working it out")
    return page


def rod(page) -> str:
    return page.locator("[data-rod=balance]").inner_text()


def test_one_look_says_which_way_and_what_to_do(balance):
    expect(balance.get_by_label("Beam", exact=True).get_by_role("heading")).to_have_text(
        re.compile(r"Tail-heavy: \d+ mm aft of its range")
    )
    fix = balance.get_by_label("What would fix it")
    expect(fix).to_contain_text("Slide the pack")
    expect(fix).to_contain_text("no ballast")
    expect(balance.get_by_label("Where it belongs")).to_contain_text("chord rule")


LAID_OUT = """() => {
  const box = (node) => node.getBoundingClientRect()
  return [...document.querySelectorAll('.hung')].map((hung) => ({
    name: hung.querySelector('.name').textContent,
    boxes: [box(hung.querySelector('circle.disc')), box(hung.querySelector('.name'))],
  }))
}"""


@pytest.mark.parametrize("build", ["sandpiper", "night-heron", "avocet", "mayfly", "dunlin"])
def test_no_name_under_the_beam_lies_on_another(page, demo_served, build):
    page.goto(f"{demo_served.url}/build/{build}/balance")
    expect(page.locator(".hung .name").first).to_be_visible()
    hung = page.evaluate(LAID_OUT)
    assert len(hung) > 3
    for k, one in enumerate(hung):
        for other in hung[k + 1 :]:
            for a in one["boxes"]:
                for b in other["boxes"]:
                    apart = (
                        a["right"] <= b["left"] + 1
                        or b["right"] <= a["left"] + 1
                        or a["bottom"] <= b["top"] + 2
                        or b["bottom"] <= a["top"] + 2
                    )
                    assert apart, (one["name"], other["name"])


@pytest.mark.parametrize(
    ("lead", "hangs", "slope"),
    [
        ("Lead 300 g in Tailplane at 760", "tailplane", 0.1),
        ("Lead 300 g in Nose at 10", "nose", -0.04),
    ],
)
def test_all_that_hangs_is_below_a_beam_that_tips_far(page, sandpiper, lead, hangs, slope):
    """And what rises stays in the picture, and the figure of where the CG is now on its paper,
    however far off that is."""
    url = sandpiper.replace("/build/", "/api/v1/builds/")
    header = {"If-Match": HTTP.get(url).headers["etag"]}
    HTTP.post(f"{url}/parts/line", json={"line": lead}, headers=header).raise_for_status()
    page.goto(f"{sandpiper}/balance")
    expect(page.locator(".hung .name", has_text=hangs).first).to_be_visible()
    page.wait_for_function(
        """(least) => {
          const oak = document.querySelector('rect.oak'), to = oak.getScreenCTM()
          const corner = (x) => new DOMPoint(x, oak.y.baseVal.value + oak.height.baseVal.value)
          const left = corner(oak.x.baseVal.value).matrixTransform(to)
          const right = corner(oak.x.baseVal.value + oak.width.baseVal.value).matrixTransform(to)
          const slope = (right.y - left.y) / (right.x - left.x)
          const under = (x) => left.y + (x - left.x) * slope
          const hung = [...document.querySelectorAll('.hung circle.disc, .hung .name')]
          const boxes = hung.map((each) => each.getBoundingClientRect())
          const top = oak.ownerSVGElement.getBoundingClientRect().top
          const drawn = [...document.querySelectorAll('.fuselage, .side')]
          return slope / least > 1
            && drawn.length > 3 && drawn.every((each) => each.getBoundingClientRect().top >= top)
            && boxes.every((b) => b.top >= Math.max(under(b.left), under(b.right)))
        }""",
        arg=slope,
    )
    paper, now = (
        page.locator(each).bounding_box()
        for each in ("section[aria-label='Where it belongs']", ".now span")
    )
    assert paper["x"] <= now["x"]
    assert now["x"] + now["width"] <= paper["x"] + paper["width"]


def test_arrows_move_what_may_move_everything_answers_and_enter_keeps(balance):
    pack = balance.locator("[data-hung=pack-1300]")
    before = rod(balance)
    pack.focus()
    for _ in range(4):
        balance.keyboard.press("Shift+ArrowLeft")
    expect(pack).to_have_attribute("aria-valuenow", "172")
    expect(balance.locator("[data-rod=balance]")).not_to_have_text(before)
    expect(balance.get_by_text("tried, not kept")).to_be_visible()
    balance.keyboard.press("Escape")
    expect(pack).to_have_attribute("aria-valuenow", "212")
    expect(balance.get_by_text("tried, not kept")).not_to_be_visible()
    balance.keyboard.press("ArrowLeft")
    balance.keyboard.press("Enter")
    expect(balance.get_by_text("tried, not kept")).not_to_be_visible()

    def pack_mm() -> float:
        parts = build_told(balance)["build"]["parts"]
        return next(each["station"]["x_mm"] for each in parts if each["id"] == "pack-1300")

    until(balance, pack_mm, lambda told: told == 211)
    balance.reload()
    expect(balance.locator("[data-hung=pack-1300]")).to_have_attribute("aria-valuenow", "211")


def test_a_thing_is_dragged_no_further_than_it_may_slide(balance):
    disc = balance.locator("[data-hung=pack-1300] circle.disc")
    box = disc.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    balance.mouse.move(x, y)
    balance.mouse.down()
    balance.mouse.move(x - 400, y, steps=6)
    balance.mouse.up()
    expect(balance.locator("[data-hung=pack-1300]")).to_have_attribute("aria-valuenow", "130")
    expect(balance.get_by_label("Beam", exact=True)).to_contain_text("Balanced")


def test_the_fix_is_shown_on_the_beam_and_done(balance):
    fix = balance.get_by_label("What would fix it")
    fix.get_by_role("button", name="Show on the beam").click()
    expect(balance.get_by_label("Beam", exact=True)).to_contain_text("Balanced")
    fix.get_by_role("button", name="Do it").click()
    expect(fix).to_contain_text("Nothing to fix")
    expect(balance.get_by_label("Beam", exact=True)).to_contain_text("Balanced")


def test_a_check_on_the_fingertips_goes_in_and_disagrees_out_loud(balance):
    checks = balance.get_by_label("Checked on the bench")
    checks.get_by_role("button", name="Fingertips").click()
    checks.get_by_label("Where it rests").fill("a hand")
    checks.get_by_role("button", name="Record it").click()
    expect(checks.get_by_role("alert")).to_contain_text("Where it rests")
    choose(checks.get_by_label("level on"), "two pegs, ±1 mm")
    checks.get_by_label("Where it rests").fill("86")
    checks.get_by_role("button", name="Record it").click()
    expect(checks.locator("li")).to_contain_text("of the sum")
    expect(checks.get_by_role("note")).to_contain_text("What would explain it")
    expect(checks).to_contain_text("Checked by hand on")
    checks.get_by_role("button", name="set aside").click()
    expect(checks).to_contain_text("Not checked by hand yet")


def test_a_school_becomes_the_target(balance):
    school = balance.locator("[data-school='static margin, steady'] button")
    school.click()
    expect(school).to_have_attribute("aria-pressed", "true")
    expect(balance.get_by_label("Where it belongs")).to_contain_text(
        "The static margin, steady is chosen"
    )
    expect(balance.get_by_label("What would fix it")).to_contain_text(re.compile("Nothing|Slide"))


def test_loadouts_side_by_side_and_switched_in_place(balance):
    table = balance.get_by_label("Loadouts", exact=True)
    expect(table.locator("tbody tr")).to_have_count(3)
    expect(table).to_contain_text("may not fly")
    table.get_by_role("button", name="No camera, 3-cell 850").click()
    expect(balance.locator("[data-hung=camera]")).to_have_count(0)
    balance.keyboard.press("l")
    expect(balance.locator("[data-hung=camera]")).to_have_count(1)


def test_across_and_in_height_with_the_thrust_line(balance):
    front = balance.get_by_role("region", name="From the front")
    expect(front).to_contain_text("nose up with throttle")
    expect(front.locator("circle")).to_have_count(36)


def test_a_variant_is_kept_beside_it(balance):
    origin = balance.url
    family = balance.get_by_label("What if", exact=True)
    family.get_by_label("keep a copy to try on").fill("Longer nose")
    family.get_by_role("button", name="Keep it").click()
    expect(balance.get_by_label("Name of the build")).to_have_value("Longer nose")
    balance.goto(origin)
    row = balance.locator("[data-variant='Longer nose']")
    expect(row).to_contain_text("nothing yet")
    row.get_by_role("button", name="drop").click()
    expect(balance.locator("[data-variant='Longer nose']")).to_have_count(0)


def test_what_may_move_and_ballast_are_said_in_place(balance):
    moves = balance.get_by_label("What may move")
    others = moves.get_by_label("May move too")
    choose(others, "Speed controller")
    expect(moves.get_by_label("Speed controller, foremost")).to_have_count(0)
    moves.get_by_role("button", name="let it move").press("Enter")
    expect(moves.get_by_label("Speed controller, foremost")).to_have_value("55")
    expect(moves.get_by_label("Speed controller, foremost")).to_be_focused()
    expect(balance.locator("[data-hung=controller]")).to_have_attribute("role", "slider")
    moves.get_by_role("button", name="one more spot").press("Enter")
    expect(moves.get_by_label("Name of Spot 2")).to_be_focused()
    pieces = moves.get_by_label("Pieces of ballast at hand")
    pieces.fill("5; 0.5 oz; six coins of 2,4; and so on")
    pieces.blur()
    expect(moves.get_by_role("alert")).to_have_text(re.compile('^This says "and so on"; write'))
    pieces.fill("5; 0.5 oz; six coins of 2,4")
    pieces.blur()
    expect(pieces).to_have_value("5; 14.2; 6 x 2.4")
    expect(moves.get_by_role("alert")).to_have_count(0)
    moves.locator(".spot", has=balance.get_by_label("Name of Spot 2")).get_by_role(
        "button", name="remove"
    ).press("Enter")
    expect(moves.get_by_label("Name of Spot 2")).to_have_count(0)
    expect(moves.get_by_role("button", name="one more spot")).to_be_focused()
    balance.get_by_role("button", name="Bring it back").click()
    expect(moves.get_by_label("Name of Spot 2")).to_be_visible()
    moves.get_by_role("button", name="Speed controller stays").press("Enter")
    expect(moves.get_by_label("Speed controller, foremost")).to_have_count(0)
    expect(others).to_be_focused()


def test_what_a_longer_bay_would_save(balance):
    moves = balance.get_by_label("What may move")
    choose(moves.get_by_label("What if this might slide further"), "Receiver")
    moves.get_by_label("Further forward").fill("60")
    moves.get_by_label("Further aft").fill("340")
    moves.locator("form.save").get_by_role("button", name="work it out").click()
    expect(moves.get_by_role("status")).to_contain_text("It saves no ballast. Slide the")


def test_where_the_wing_belongs(balance):
    wing = balance.get_by_label("Where the wing belongs")
    wing.get_by_role("button", name="find its place").click()
    expect(wing).to_contain_text("The leading edge belongs at")
    wing.get_by_role("button", name="put it there").click()
    expect(balance.get_by_label("Beam", exact=True)).to_contain_text("Balanced")


@pytest.mark.parametrize("width", [1280, 390])
def test_nothing_runs_over_the_side(balance, width):
    balance.set_viewport_size({"width": width, "height": 800})
    assert balance.evaluate("document.documentElement.scrollWidth") <= width


def test_what_a_hand_feels_and_a_part_held_alone_go_into_the_ledger(balance):
    checks = balance.get_by_label("Checked on the bench")
    checks.get_by_role("button", name="By feel").click()
    choose(checks.get_by_label("What it does"), "the tail drops")
    checks.get_by_label("Where it rests").fill("40")
    checks.get_by_role("button", name="Record it").click()
    felt = checks.locator("[data-check]").first
    expect(felt).to_contain_text("tail drops at 226 mm: the sum agrees")
    checks.get_by_role("button", name="By feel").click()
    choose(checks.get_by_label("What it does"), "the nose drops")
    checks.get_by_label("Where it rests").fill("20")
    checks.get_by_role("button", name="Record it").click()
    expect(checks.locator("[data-check]").first).to_contain_text("the sum says otherwise")
    checks.get_by_role("button", name="Fingertips").click()
    checks.get_by_label("Where it rests").fill("4")
    checks.get_by_text("only a part of the plane was held").click()
    checks.get_by_label("Fuselage", exact=True).check()
    checks.get_by_label("Power and control", exact=True).check()
    checks.get_by_label("Where it rests").press("Enter")
    # By keys the hand is back on what opened the form.
    expect(checks.get_by_role("button", name="Fingertips")).to_be_focused()
    expect(checks.get_by_label("Where it rests")).to_have_count(0)
    expect(checks.locator("[data-check]").first).to_contain_text("Fuselage and Power and control")
    expect(checks).to_contain_text("Not checked by hand yet")


def test_what_has_no_place_is_named_before_ballast_and_leads_to_where_it_is_said(page, sandpiper):
    url = sandpiper.replace("/build/", "/api/v1/builds/")
    header = {"If-Match": HTTP.get(url).headers["etag"]}
    HTTP.post(f"{url}/parts/line", json={"line": "Clay 30 g"}, headers=header).raise_for_status()
    page.goto(f"{sandpiper}/balance")
    expect(page.locator("[data-rod=balance]")).to_contain_text("clay has no place yet")
    fix = page.get_by_label("What would fix it")
    told = re.compile(
        r"Clay has no place yet: .+ counted where the rest balances\. "
        r"Between −?[\d.]+ and [\d.]+ mm from the nose it brings the plane into its range\."
    )
    expect(fix).to_contain_text(told)
    fix.get_by_role("link", name="Say where").click()
    expect(page.get_by_role("button", name="Change Clay")).to_be_visible()
    expect(page.get_by_role("combobox", name="Show only")).to_have_value("not placed")
    page.get_by_role("button", name="Change Clay").click()
    page.get_by_role("textbox", name="Station").last.fill("20")
    page.keyboard.press("Enter")
    expect(page.locator("[data-rod=balance]")).not_to_contain_text("no place yet")


def test_what_has_no_place_is_placed_one_after_the_other_without_the_mouse(page, sandpiper):
    url = sandpiper.replace("/build/", "/api/v1/builds/")
    for line in ("Clay 30 g", "Putty 12 g", "Wax 3 g"):
        header = {"If-Match": HTTP.get(url).headers["etag"]}
        HTTP.post(f"{url}/parts/line", json={"line": line}, headers=header).raise_for_status()
    page.goto(f"{sandpiper}/plan?on=parts&only=adrift")
    expect(page.locator("[data-rod=balance]")).to_contain_text("3 parts have no place yet")
    page.get_by_role("button", name="say where Putty sits").press("Enter")
    for part, station in (("Putty", "20"), ("Wax", "30"), ("Clay", "40")):
        field = page.get_by_role("form", name=part).get_by_role("textbox", name="Station")
        expect(field).to_be_focused()
        page.keyboard.type(station)
        page.keyboard.press("Enter")
        expect(page.get_by_role("form", name=part)).to_have_count(0)
    # The last of them has gone from what is not placed; a line that stays has the hand again.
    expect(page.get_by_role("button", name=re.compile("^not placed"))).to_have_count(0)
    choose(page.get_by_role("combobox", name="Show only"), "all parts")
    for leave in ("Enter", "Escape"):
        page.get_by_role("button", name="Change Wax").press("Enter")
        expect(page.get_by_role("form", name="Wax").get_by_label("Name")).to_be_focused()
        page.keyboard.press(leave)
        expect(page.get_by_role("button", name="Change Wax")).to_be_focused()
    stations = {part["name"]: part["station"] for part in HTTP.get(url).json()["build"]["parts"]}
    assert [stations[name]["x_mm"] for name in ("Putty", "Wax", "Clay")] == [20, 30, 40]
    line = page.get_by_label("Name of the next part")
    line.fill("4 pins 2 g")
    line.press("Enter")
    expect(page.locator("[data-rod=balance]")).to_contain_text("4 pins have no place yet")
