import re

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until
from tests.http import HTTP
from tests.server import Server


def rod(page, kind: str) -> str:
    return page.locator(f"[data-rod={kind}]").inner_text()


def doubt(page) -> int:
    return int(re.search(r"±(\d+)", rod(page, "auw"))[1])


def steady(page) -> None:
    expect(page.locator("section[aria-label=Pan] .lamp")).to_have_class(re.compile("steady"))


def first_row(page):
    return page.locator("section[aria-label='Till roll'] li").first


def test_the_four_answers_stand_on_top(bench):
    assert "too close to call" in rod(bench, "auw")
    assert "on course" in rod(bench, "wing_loading")
    assert "on course" in rod(bench, "thrust_to_weight")
    assert "aft" in rod(bench, "balance")
    expect(bench.get_by_text("simulated")).to_be_visible()


def test_a_tag_on_the_pan_and_space_records_what_is_steady(bench):
    bench.locator("[data-part=fuselage-box]").click()
    expect(bench.locator("section[aria-label=Pan]")).to_contain_text("expected")
    steady(bench)
    bench.keyboard.press("Space")
    expect(first_row(bench)).to_contain_text("Fuselage box")
    expect(first_row(bench)).to_contain_text("46.")
    expect(bench.locator("[data-part=fuselage-box] [data-mark]")).to_have_attribute(
        "data-mark", "weighed"
    )
    expect(bench.locator("[data-part=fuselage-box]")).to_have_attribute("aria-pressed", "false")


def test_space_pressed_early_waits_until_it_is_steady(bench):
    held = []
    bench.route("**/pan", lambda route: held.extend([route]))
    bench.locator("[data-part=controller]").click()
    bench.keyboard.press("Space")
    expect(bench.locator("body")).to_contain_text("records when steady")
    until(bench, lambda: len(held))
    for route in held:
        route.continue_()
    bench.unroute("**/pan")
    expect(first_row(bench)).to_contain_text("Speed controller")
    expect(first_row(bench)).to_contain_text("23.")


def test_n_and_space_alone_sharpen_the_forecast(bench):
    before = doubt(bench)
    for _ in range(3):
        count = bench.locator("section[aria-label='Till roll'] li").count()
        bench.keyboard.press("n")
        expect(bench.locator(".tag.on")).to_have_count(1)
        steady(bench)
        bench.keyboard.press("Space")
        expect(bench.locator("section[aria-label='Till roll'] li")).to_have_count(count + 1)
    # The row is there at once, the rods as soon as the server has answered.
    for _ in range(100):
        if doubt(bench) < before:
            break
        bench.wait_for_timeout(100)
    assert doubt(bench) < before


@pytest.mark.parametrize(
    ("typed", "kept", "echo"),
    [("12,4", "12.4 g", "12.40 g"), ("0.44oz", "12.5 g", "12.47 g"), (".9", "0.9 g", "0.90 g")],
)
def test_digits_typed_anywhere_are_a_reading(bench, typed, kept, echo):
    bench.locator("[data-part=wiring]").click()
    bench.keyboard.type(typed)
    expect(bench.get_by_text("understood as")).to_contain_text(echo)
    bench.keyboard.press("Enter")
    expect(first_row(bench)).to_contain_text(kept)
    expect(first_row(bench)).to_contain_text(f"typed “{typed}”")
    expect(bench.locator("#typed")).not_to_be_focused()


def test_what_is_no_reading_is_said_and_not_kept(bench):
    rows = bench.locator("section[aria-label='Till roll'] li").count()
    bench.locator("[data-part=wiring]").click()
    bench.keyboard.type("12 stone")
    bench.keyboard.press("Enter")
    expect(bench.get_by_role("alert")).to_contain_text("not a unit of mass")
    assert bench.locator("section[aria-label='Till roll'] li").count() == rows
    bench.keyboard.press("Escape")
    expect(bench.locator("#typed")).to_have_value("")


def test_what_is_refused_late_is_in_the_hand_again(bench):
    held = []
    bench.route("**/api/v1/quantity*", lambda route: held.extend([route]))
    bench.locator("[data-part=wiring]").click()
    bench.keyboard.type("12 stone")
    bench.keyboard.press("Enter")
    expect(bench.locator(".line .words")).to_contain_text("not a unit of mass")
    expect(bench.locator("#typed")).to_have_value("12 stone")
    expect(bench.locator("#typed")).to_be_focused()
    expect(bench.locator("section[aria-label='Pan']")).to_contain_text("Wires and plugs")
    bench.keyboard.press("Escape")
    expect(bench.locator("#typed")).to_have_value("")
    for late in held:
        late.continue_()
    bench.keyboard.type("12.6")
    bench.keyboard.press("Enter")
    expect(first_row(bench)).to_contain_text("12.6 g")


def test_what_is_typed_outlives_an_answer_that_comes_meanwhile(bench):
    held = []
    bench.route("**/pan", lambda route: held.extend([route]))
    bench.locator("[data-part=screws]").click()
    count = bench.get_by_label("Motor screws, four: pieces on the pan")
    count.fill("20")
    until(bench, lambda: len(held))
    with bench.expect_response("**/pan"):
        held[0].continue_()
    bench.unroute("**/pan")
    expect(bench.locator("output")).to_contain_text(re.compile(r"2\.\d"))
    expect(count).to_have_value("20")
    count.press("Enter")
    expect(bench.locator("output")).to_contain_text(re.compile(r"1[12]\.\d"))


def test_an_empty_pan_records_nothing(bench):
    bench.keyboard.press("Space")
    expect(bench.locator(".line .words")).to_contain_text("The pan is empty: press a tag")
    expect(bench.locator("section[aria-label='Till roll'] .head")).to_contain_text("20 readings")


def test_u_takes_back_the_last_and_it_can_be_used_again(bench):
    bench.keyboard.press("u")
    expect(first_row(bench)).to_have_class(re.compile("aside"))
    expect(first_row(bench)).to_contain_text("taken back")
    expect(bench.locator("[data-part=receiver] [data-mark]")).to_have_attribute(
        "data-mark", "listed"
    )
    first_row(bench).get_by_text("use again").click()
    expect(first_row(bench)).not_to_have_class(re.compile("aside"))


def test_tare_lets_only_the_new_thing_count(bench):
    bench.locator("[data-part=motor]").click()
    steady(bench)
    bench.keyboard.press("t")
    expect(bench.get_by_text("tared: Motor, leads on")).to_be_visible()
    bench.locator("[data-part=propeller]").click()
    expect(bench.locator("output")).to_contain_text(re.compile(r"8\.\d"))
    steady(bench)
    bench.keyboard.press("Space")
    expect(first_row(bench)).to_contain_text("Propeller")


def test_ten_screws_of_which_four_are_fitted(bench):
    bench.locator("[data-part=screws]").click()
    bench.get_by_label("Motor screws, four: pieces on the pan").fill("20")
    bench.get_by_label("Motor screws, four: pieces on the pan").press("Enter")
    expect(bench.locator("output")).to_contain_text(re.compile(r"1[12]\.\d"))
    bench.locator("h2").first.click()
    steady(bench)
    bench.keyboard.press("Space")
    expect(first_row(bench)).to_contain_text("× 20")


def test_presses_faster_than_answers_are_all_kept(bench):
    for group in ("Wing", "Fuselage", "Power and control", "Tail"):
        bench.get_by_role("button", name=re.compile(rf"^{group} \d")).click()
    bench.locator("[data-part=camera]").click()
    expect(bench.locator("output")).to_contain_text(re.compile(r"65\d\."))
    expect(bench.locator(".tag.on")).to_have_count(36)


def test_l_changes_the_loadout_and_slash_finds_a_part(bench):
    bench.keyboard.press("l")
    expect(bench.locator("header")).to_contain_text("With camera, 3-cell 850")
    bench.keyboard.press("/")
    bench.keyboard.type("receiv")
    bench.keyboard.press("Enter")
    expect(bench.locator("[data-part=receiver]")).to_have_attribute("aria-pressed", "true")


def test_keys_do_not_fire_while_typing_in_a_field(bench):
    bench.keyboard.press("/")
    bench.keyboard.type("nut")
    assert bench.locator(".tag.on").count() == 0
    expect(bench.locator("section[aria-label='Till roll'] .head")).to_contain_text("20 readings")


def test_what_one_page_records_the_other_shows(bench):
    other = bench.context.new_page()
    other.goto(bench.url)
    expect(other.locator("[data-part=motor]")).to_be_visible()
    bench.locator("[data-part=skid]").click()
    expect(other.locator("[data-part=skid]")).to_have_attribute("aria-pressed", "true")
    bench.keyboard.type("2.6")
    bench.keyboard.press("Enter")
    expect(first_row(other)).to_contain_text("Skid, bamboo")
    expect(other.locator("[data-part=skid]")).to_have_attribute("aria-pressed", "false")


def test_units_are_chosen_once_and_kept(bench):
    choose(bench.get_by_label("Units"), "oz, in, oz/ft²")
    expect(bench.locator("[data-rod=auw]")).to_contain_text("oz")
    bench.reload()
    expect(bench.locator("[data-rod=wing_loading]")).to_contain_text("oz/ft²")


def test_a_rod_says_what_would_bring_it_back(bench):
    bench.locator("[data-rod=balance]").click()
    inside = bench.locator(".v-overlay .inside")
    expect(inside).to_contain_text("between 28.0 and 33.0 %")
    expect(inside).to_contain_text("Pack, 3-cell 1300")
    expect(inside).to_contain_text("forward")


@pytest.mark.cut_off
def test_a_reading_outlives_a_server_that_went_away(page, tmp_path):
    server = Server("demo", tmp_path / "demo.sqlite").start()
    page.goto(f"{server.url}/build/sandpiper/bench")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    page.locator("[data-part=skid]").click()
    expect(page.locator("section[aria-label=Pan]")).to_contain_text("expected")
    page.keyboard.type("2.6")
    expect(page.get_by_text("understood as")).to_be_visible()
    page.route("**/weighings", lambda route: route.abort())
    page.keyboard.press("Enter")
    expect(first_row(page)).to_contain_text("on its way to the log")
    server.kill()
    page.unroute("**/weighings")
    again = Server("serve", tmp_path / "demo.sqlite")
    again.start(server.port)
    expect(first_row(page)).not_to_contain_text("on its way", timeout=15_000)
    expect(first_row(page)).to_contain_text("Skid, bamboo")
    expect(page.locator("section[aria-label='Till roll'] .head")).to_contain_text("21 readings")
    again.kill()


def test_a_reading_typed_at_once_after_a_press_leaves_an_empty_pan(bench):
    for grams in ("3.1", "3.2", "3.3"):
        bench.locator("[data-part=wear-pads]").click()
        bench.keyboard.type(grams)
        bench.keyboard.press("Enter")
        expect(first_row(bench)).to_contain_text(f"{grams} g")
        expect(bench.locator(".waiting")).to_have_count(0)
        expect(bench.locator(".tag.on")).to_have_count(0)
    told = until(
        bench, lambda: build_told(bench)["build"], lambda build: len(build["weighings"]) >= 23
    )
    assert len(told["weighings"]) == 23
    at = bench.url.replace("/build/", "/api/v1/builds/").removesuffix("/bench")
    until(
        bench,
        lambda: HTTP.get(f"{at}/pan").json()["loads"]["loads"],
        lambda loads: loads == [],
    )


HELD_BACK = """() => {
    window.late = []
    window.EventSource = class extends EventSource {
        addEventListener(type, hear, ...more) {
            const heard = (event) =>
                type === 'pan' && window.isLate ? window.late.push([hear, event]) : hear(event)
            super.addEventListener(type, heard, ...more)
        }
    }
}"""


def test_word_of_the_pan_that_comes_late_puts_nothing_back_on_it(bench):
    bench.add_init_script(f"({HELD_BACK})()")
    bench.reload()
    expect(bench.locator(".lamp .bulb")).to_be_visible()
    bench.evaluate("() => { window.isLate = true }")
    for part, grams in (("wear-pads", "3.1"), ("skid", "2.6")):
        bench.locator(f"[data-part={part}]").click()
        bench.keyboard.type(grams)
        bench.keyboard.press("Enter")
        expect(first_row(bench)).to_contain_text(f"{grams} g")
        expect(bench.locator(".waiting")).to_have_count(0)
    # Pads on, pads off, skid on, skid off: all but the last word of it comes now.
    lain = "() => window.late.map(([, e]) => JSON.parse(e.data).loads.loads.map((x) => x.part))"
    until(bench, lambda: bench.evaluate(lain)[-2:] == [["skid"], []])
    assert ["wear-pads"] in bench.evaluate(lain)
    while bench.evaluate("() => window.late.length") > 1:
        bench.evaluate("() => { const [hear, event] = window.late.shift(); hear(event) }")
    bench.locator("[data-part=hatch]").click()
    expect(bench.locator(".tag.on")).to_have_count(1)
    at = bench.url.replace("/build/", "/api/v1/builds/").removesuffix("/bench")
    loads = until(bench, lambda: HTTP.get(f"{at}/pan").json()["loads"]["loads"])
    assert [each["part"] for each in loads] == ["hatch"]
    # Word of another hand is heard all the same.
    bench.evaluate("() => { window.isLate = false; window.late.forEach(([f, e]) => f(e)) }")
    expect(bench.locator(".tag.on")).to_have_count(1)
    HTTP.put(f"{at}/pan", json={"loads": [{"part": "bands"}, {"part": "skid"}]})
    expect(bench.locator(".tag.on")).to_have_count(2)


def test_space_pressed_before_anything_is_known_of_the_scale_waits_for_it(page, demo_served):
    page.route("**/events", lambda route: route.abort())
    page.goto(f"{demo_served.url}/build/sandpiper/bench")
    page.locator("[data-part=hatch]").click()
    page.keyboard.press("Space")
    expect(page.get_by_text("Hatch", exact=True).first).to_be_visible()
    page.unroute("**/events")
    expect(first_row(page)).to_contain_text("Hatch", timeout=15_000)
    expect(first_row(page)).to_contain_text(re.compile(r"[34]\.\d g"))


def test_a_rod_says_what_it_is_made_of_and_how_it_narrowed(bench):
    bench.locator("[data-rod=auw]").click()
    inside = bench.locator(".v-sheet.inside")
    expect(inside).to_contain_text("Made of")
    expect(inside).to_contain_text("73 % of the doubt")
    expect(inside).to_contain_text("Where its doubt comes from")
    expect(inside.locator("figure")).to_contain_text("before the first reading")
    bench.keyboard.press("Escape")


def test_twins_are_compared_with_what_to_do_about_it(bench):
    pair = bench.locator("[data-twin=left-panel]")
    expect(pair).to_have_count(0)
    bench.locator("[data-part=right-panel]").click()
    bench.keyboard.type("44.6")
    bench.keyboard.press("Enter")
    expect(pair).to_contain_text("right one heavier by 3.0")
    expect(pair).to_contain_text("1.5 g at the left tip.")


def test_what_lies_within_an_assembly_is_of_it_however_it_was_typed(page, sandpiper):
    """A part whose assembly was typed with spaces lies in the tray, goes on the pan with all of the
    assembly that it is within, and is held with that alone."""
    at = sandpiper.replace("/build/", "/api/v1/builds/")
    for name in ("Dowel", "Latch"):
        revision = HTTP.get(at).headers["etag"]
        line = {"line": f"{name} 5 g in Tail / Nose"}
        HTTP.post(f"{at}/parts/line", json=line, headers={"If-Match": revision}).raise_for_status()
    page.goto(f"{sandpiper}/bench")
    expect(page.locator("[data-part=dowel]")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Tail")).click()
    expect(page.get_by_label("Pan", exact=True)).to_contain_text("Tail, put together")
    build = HTTP.get(at).json()["build"]
    tail = {each["id"] for each in build["parts"] if each["assembly"] in ("Tail", "Tail/Nose")}
    assert {"dowel", "latch"} < tail

    def on_it() -> set:
        return {load["part"] for load in HTTP.get(f"{at}/pan").json()["loads"]["loads"]}

    until(page, on_it, lambda told: told == tail)
    page.goto(f"{sandpiper}/balance")
    checks = page.get_by_label("Checked on the bench")
    checks.get_by_role("button", name="Fingertips").click()
    checks.get_by_label("Where it rests").fill("500")
    checks.get_by_text("only a part of the plane was held").click()
    checks.get_by_label("Tail", exact=True).check()
    checks.get_by_role("button", name="Record it").click()
    expect(checks.locator("[data-check]").first).to_contain_text("Tail")

    def held() -> set:
        checks = build_told(page)["build"]["checks"]
        return {each["part"] for each in checks[-1]["stood"]} if checks else set()

    until(page, held, lambda told: told == tail)
