"""The Plan's drawing: corners dragged or moved by keys, other layouts, notes; scales on a cable."""

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until


@pytest.fixture
def plan(page, sandpiper):
    page.goto(f"{sandpiper}/plan")
    expect(page.get_by_label("Drawing", exact=True)).to_be_visible()
    return page


def numbers(page):
    return page.get_by_label("What the drawing comes to")


def test_a_corner_moved_by_keys_changes_the_wing(plan):
    expect(numbers(plan)).to_contain_text("1080 mm")
    tip = plan.get_by_label("Wing, section 3, leading edge", exact=True)
    tip.focus()
    plan.keyboard.press("Shift+ArrowUp")
    expect(numbers(plan)).to_contain_text("1100 mm")
    expect(plan.get_by_label("Wing, section 3, out from the middle")).to_have_value("550")


def test_a_corner_dragged_redraws_and_is_kept_when_let_go(plan):
    tip = plan.get_by_label("Wing, section 3, trailing edge", exact=True)
    tip.scroll_into_view_if_needed()
    box = tip.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    plan.mouse.move(x, y)
    plan.mouse.down()
    plan.mouse.move(x - 30, y, steps=4)
    plan.mouse.up()
    chord = plan.get_by_label("Wing, section 3, chord")
    expect(chord).not_to_have_value("190")
    kept = chord.input_value()

    def tip_mm() -> float:
        return build_told(plan)["build"]["surfaces"][0]["sections"][-1]["chord_mm"]

    until(plan, tip_mm, lambda told: told == pytest.approx(float(kept), abs=0.01))
    plan.reload()
    expect(plan.get_by_label("Wing, section 3, chord")).to_have_value(kept)


def test_another_layout_with_one_press_and_its_notes(plan):
    choose(plan.get_by_label("Draw it anew as"), "V-tail")
    plan.get_by_label("The next surface").click()
    expect(plan.get_by_label("Name of V-tail")).to_be_visible()
    plan.get_by_label("The surface before").click()
    expect(numbers(plan)).to_contain_text("Neutral point")
    chord = plan.get_by_label("Wing, section 2, chord")
    chord.fill("900")
    chord.press("Tab")
    expect(numbers(plan)).to_contain_text("is below the usual")


def test_how_a_surface_is_shaped_goes_into_the_stall(plan):
    expect(numbers(plan)).to_contain_text("6.3 m/s")
    choose(plan.get_by_label("How Wing is shaped"), "flat plate")
    expect(numbers(plan)).to_contain_text("8.1 m/s")


def test_a_scale_on_a_cable_is_set_up_in_place(plan):
    plan.keyboard.press("k")
    scales = plan.get_by_label("Scales", exact=True)
    scales.get_by_text("read by eye; or on a cable").click()
    line = scales.get_by_label("Kitchen scale, lines")
    line.fill("{weight} g")
    line.press("Tab")
    expect(plan.get_by_text("is none of {reading}")).to_be_visible()
    line.fill("ST,GS,{reading} g")
    line.press("Tab")
    port = scales.get_by_label("Kitchen scale, port")
    port.fill("/dev/ttyOakenNone")
    port.press("Tab")
    expect(scales).to_contain_text("on a cable at /dev/ttyOakenNone")
    plan.goto(plan.url.replace("/plan", "/bench"))
    expect(plan.locator("section[aria-label=Pan] .lamp")).to_contain_text(
        "the scale does not answer"
    )
    plan.locator("[data-part=fuselage-box]").click()
    plan.keyboard.press("Space")
    expect(plan.get_by_text("What is on the pan stays on the list")).to_be_visible()
    plan.keyboard.type("46.3")
    plan.keyboard.press("Enter")
    expect(plan.locator("section[aria-label='Till roll'] li").first).to_contain_text("46.3")


def parts_that_follow(page):
    return page.locator("[data-test=follows]")


def left_side_dm2(page) -> float:
    parts = build_told(page)["build"]["parts"]
    (side,) = [each for each in parts if each["name"] == "Fuselage, left side"]
    return side["uses"][0]["amount"]


def test_a_body_gives_its_parts_and_they_follow_it_until_they_are_cut(plan):
    for _ in range(3):
        plan.keyboard.press("]")
    body = plan.get_by_role("region", name="Fuselage")
    body.get_by_role("button", name="Make parts of it").click()
    expect(parts_that_follow(plan)).to_contain_text("4 parts follow it")
    # Made 100 mm longer by keys on its last frame, its sides are as much longer.
    top = plan.get_by_label("Fuselage, frame 4, top", exact=True)
    top.focus()
    for _ in range(10):
        plan.keyboard.press("Shift+ArrowRight")
    expect(body.get_by_label("Fuselage, frame 4, from nose")).to_have_value("752")
    # 75 mm slope by (66+84)/2 high, 210 by 84, and 422 mm by (84+36)/2: by hand, bent sides.
    by_hand = (108.02 * 75 + 210 * 84 + 422.2 * 60) / 1e4
    until(plan, lambda: left_side_dm2(plan), lambda area: area == pytest.approx(by_hand, abs=0.002))
    plan.get_by_role("button", name="they are cut").click()
    expect(parts_that_follow(plan)).to_contain_text("stay as they were drawn")


def test_a_body_begun_dragged_and_removed(plan):
    plan.get_by_role("button", name="body", exact=True).click()
    body = plan.get_by_role("region", name="Body", exact=True)
    expect(body.get_by_label("Body, frame 1, from nose")).to_have_value("0")
    side = plan.get_by_label("Body, frame 2, side", exact=True)
    side.scroll_into_view_if_needed()
    box = side.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    plan.mouse.move(x, y)
    plan.mouse.down()
    plan.mouse.move(x - 20, y - 10, steps=4)
    plan.mouse.up()
    expect(body.get_by_label("Body, frame 2, width")).not_to_have_value("50")
    body.get_by_role("button", name="tube", exact=True).click()
    expect(body.get_by_role("button", name="tube", exact=True)).to_have_attribute(
        "aria-pressed", "true"
    )
    plan.get_by_role("button", name="remove Body").click()
    expect(body).to_have_count(0)
    plan.get_by_role("button", name="bring it back").click()
    expect(plan.get_by_text("4 of 5").or_(body)).to_be_visible()


def lengths_told(page) -> list[float | None]:
    parts = build_told(page)["build"]["parts"]
    return [each["fit"]["length_mm"] for each in parts if each["fit"]]


def test_what_fits_is_told_while_a_thing_is_given_its_size(plan):
    plan.keyboard.press("f")
    room = plan.get_by_role("region", name="What takes up room")
    pack = room.get_by_role("listitem").filter(has_text="Pack, 3-cell 1300")
    expect(pack).to_contain_text("such would go in")
    notes = plan.get_by_role("list", name="What does not fit")
    expect(notes).to_contain_text("Pack, 3-cell 850 does not reach Speed controller")
    lead = plan.get_by_label("Pack, 3-cell 850, lead")
    lead.fill("20 cm")
    lead.press("Enter")
    expect(plan.get_by_text("Nothing is in the way of anything.")).to_be_visible()
    high = plan.get_by_label("Pack bay, high inside")
    high.fill("20")
    high.press("Enter")
    expect(notes).to_contain_text("Pack, 3-cell 1300 does not go into Pack bay, however it lies: 4")
    choose(plan.get_by_label("Say what takes up"), "Camera and strap")
    camera = plan.get_by_label("Camera and strap, along")
    camera.fill("60")
    camera.press("Enter")
    until(plan, lambda: 60 in lengths_told(plan))
    plan.reload()
    expect(plan.get_by_label("Camera and strap, along")).to_have_value("60")


def test_a_body_too_thin_for_its_board_is_refused_by_name_and_in_the_chosen_units(plan):
    plan.evaluate("() => localStorage.setItem('oaken-scale-units', 'imperial')")
    plan.reload()
    expect(plan.get_by_label("What the drawing comes to")).to_contain_text("in")
    for _ in range(3):
        plan.keyboard.press("]")
    wide = plan.get_by_label("Fuselage, frame 1, width")
    wide.fill("0.3")
    wide.press("Enter")
    plan.get_by_role("button", name="Make parts of it").click()
    refused = plan.get_by_text("Fuselage, frame 1, is 0.30 in; two walls alone take 0.39 in")
    expect(refused).to_be_visible()


@pytest.mark.parametrize("hand", ["mouse", "keys"])
def test_what_is_pressed_while_a_figure_is_read_comes_after_the_figure(plan, hand):
    held: list = []
    plan.route("**/api/v1/quantity?*", lambda route: held.extend([route]))
    for _ in range(3):
        plan.keyboard.press("]")
    wide = plan.get_by_label("Fuselage, frame 1, width")
    wide.fill("5")
    make = plan.get_by_role("button", name="Make parts of it")
    if hand == "mouse":
        make.click()
    else:
        make.press("Enter")
    plan.keyboard.press("[")
    until(plan, lambda: len(held))
    expect(plan.get_by_label("Fuselage", exact=True)).to_be_visible()
    for late in held:
        late.continue_()
    expect(
        plan.get_by_text("Fuselage, frame 1, is 5 mm; two walls alone take 10 mm")
    ).to_be_visible()
    expect(plan.get_by_label("Fuselage", exact=True)).to_have_count(0)
    assert not [each for each in build_told(plan)["build"]["parts"] if each["drawn"]]


def test_a_size_typed_and_left_at_once_is_kept(plan):
    plan.keyboard.press("f")
    lead = plan.get_by_label("Pack, 3-cell 850, lead")
    expect(lead).to_have_value("150")

    def slowly(route):
        plan.wait_for_timeout(600)
        route.continue_()

    plan.route("**/api/v1/quantity?*", slowly)
    lead.fill("20 cm")
    lead.press("Enter")
    plan.get_by_role("link", name="Targets").click()
    plan.wait_for_timeout(1500)
    plan.get_by_role("link", name="Fit", exact=True).click()
    expect(lead).to_have_value("200")


def coloured(plan, part: str, colour: str) -> None:
    """Choose a part's colour on its line, and keep it."""
    plan.get_by_role("button", name=f"Change {part}", exact=True).click()
    form = plan.get_by_role("form", name=part, exact=True)
    choose(form.get_by_label("Colour"), colour)
    form.get_by_role("button", name="keep").click()
    expect(form).to_have_count(0)


def test_a_part_has_a_colour_on_its_line_and_on_the_plan_view(plan):
    plan.keyboard.press("]")
    expect(plan.get_by_label("Tailplane", exact=True)).to_be_visible()
    plan.get_by_role("button", name="Make parts of it").click()
    made = until(
        plan, lambda: [i["name"] for i in build_told(plan)["build"]["parts"] if i["drawn"]]
    )
    expect(plan.get_by_role("img", name="Elevator, orange")).to_have_attribute("fill", "#e2802b")
    address = plan.url
    plan.goto(f"{address.split('?')[0]}?on=parts")
    coloured(plan, "Elevator", "plain")
    coloured(plan, "Hatch", "green")
    coloured(plan, made[0], "blue")

    def kept() -> list:
        colours = {each["name"]: each["colour"] for each in build_told(plan)["build"]["parts"]}
        return [colours[name] for name in ("Elevator", "Hatch", made[0])]

    until(plan, kept, lambda told: told == [None, "green", "blue"])
    plan.goto(address)
    expect(plan.get_by_role("img", name="Hatch, green")).to_have_attribute("fill", "#4f8a4a")
    expect(plan.get_by_role("img", name="Elevator,")).to_have_count(0)
    blue = plan.locator(".surface").nth(1).locator(".plate").first
    expect(blue).to_have_css("fill", "rgb(59, 110, 168)")


def test_another_part_in_its_place_has_the_colour_that_was_typed(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    page.get_by_role("button", name="Change Motor, leads on", exact=True).click()
    form = page.get_by_role("form", name="Motor, leads on", exact=True)
    form.get_by_label("Mass", exact=True).fill("58")
    choose(form.get_by_label("Colour"), "red")
    form.get_by_role("button", name="keep").click()
    form.get_by_role("button", name="another part, to be weighed anew").click()

    def colours() -> list:
        parts = build_told(page)["build"]["parts"]
        return [each["colour"] for each in parts if each["replaces"] == "motor"]

    until(page, colours, lambda told: told == ["red"])
