"""Typed and chosen without haste: nothing is passed over, led away or asked twice."""

import re

from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until


def test_grams_and_inches_and_a_decimal_comma_are_chosen(bench):
    choose(bench.get_by_label("Units"), "your own …")
    sheet = bench.get_by_role("dialog", name="Units")
    sheet.locator(".v-select", has_text="Lengths").click()
    bench.get_by_role("option", name="inches").click()
    sheet.locator(".v-select", has_text="Decimals").click()
    bench.get_by_role("option", name="a comma: 12,4").click()
    bench.keyboard.press("Escape")
    expect(bench.locator("[data-rod=wing_loading]")).to_contain_text(re.compile(r"28,6 ±\d,\d"))
    expect(sheet).to_have_count(0)
    expect(bench.get_by_label("Units")).to_have_value("g, in, g/dm²")
    bench.reload()
    expect(bench.locator("[data-rod=auw]")).to_contain_text(" g")
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("What the drawing comes to")).to_contain_text("42,52 in")
    choose(bench.get_by_label("Units"), "g, mm, g/dm²")
    expect(bench.get_by_label("What the drawing comes to")).to_contain_text("1080 mm")


def test_what_is_chosen_beside_a_line_is_never_passed_over(page, sandpiper):
    """A line is the whole part while all else is plain; with an option ticked it is a name."""
    page.goto(f"{sandpiper}/plan?on=parts")
    line = page.get_by_label("Name of the next part")
    line.fill("Float 28 g")
    option = page.get_by_label("Only in some loadouts").first
    option.check()
    line.press("Enter")
    expect(page.locator(".line .words.wrong")).to_be_visible()
    expect(line).to_have_value("Float 28 g")
    option.uncheck()
    line.press("Enter")
    expect(page.get_by_role("button", name="Change Float", exact=True)).to_be_visible()
    until(
        page,
        lambda: build_told(page)["build"]["parts"][-1]["stated_g"],
        lambda grams: grams == 28,
    )


IN_A_LIST = "() => document.activeElement.closest('.v-select')?.textContent ?? ''"


def test_the_hand_stays_where_it_chose_from_a_list(page, served):
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    page.keyboard.type("Curlew")
    page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    glider = page.get_by_role("option", name=re.compile("glider", re.IGNORECASE)).first
    expect(glider).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_role("option")).to_have_count(0)
    assert "What it is for" in page.evaluate(IN_A_LIST)
    page.keyboard.press("Tab")
    assert "How it is laid out" in page.evaluate(IN_A_LIST)


def test_keys_pressed_before_a_list_stands_are_acted_on_in_their_order(page, served):
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    page.keyboard.press("Tab")
    chosen = page.locator(".v-select", has_text="What it is for").locator(".v-select__selection")
    before = chosen.text_content()
    for opener in ("Enter", "ArrowDown", "Space"):
        for key in (opener, "ArrowDown", "ArrowDown", "Enter"):
            page.keyboard.down(key)
            page.keyboard.up(key)
        expect(page.get_by_role("option")).to_have_count(0)
        expect(chosen).not_to_have_text(before)
        for key in (opener, "ArrowUp", "ArrowUp", "Enter"):
            page.keyboard.press(key)
        expect(page.get_by_role("option")).to_have_count(0)
        expect(chosen).to_have_text(before)


def test_a_span_in_centimetres_is_asked_about_in_place(page, served):
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()
    page.keyboard.press("b")
    page.get_by_label("Name", exact=True).fill("Curlew")
    page.keyboard.press("Enter")
    span = page.get_by_label("Span of the first drawing")
    span.fill("86")
    span.press("Enter")
    question = page.get_by_role("alertdialog", name=re.compile("Is that meant"))
    expect(question.get_by_role("button", name="860 mm", exact=True)).to_be_focused()
    page.keyboard.press("Enter")
    expect(span).to_have_value("860")
    page.get_by_label("Chord of the first drawing").fill("180")
    page.keyboard.press("Enter")
    expect(page.get_by_label("What the drawing comes to")).to_contain_text("860 mm")


def test_a_fast_hand_is_not_led_back_to_the_field_where_it_began(page, served):
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()
    page.evaluate(
        """() => {
            window.begun = 0
            addEventListener('focusin', ({ target }) => {
                const fields = [...document.querySelectorAll('form.begin input:not([type=hidden])')]
                if (target !== fields[0]) return
                window.begun += 1
                requestAnimationFrame(() => fields[1].focus())
            }, { capture: true })
        }"""
    )
    page.keyboard.press("b")
    page.wait_for_function("() => window.begun > 0")
    page.wait_for_timeout(500)
    assert page.evaluate("() => window.begun") == 1
    assert "What it is for" in page.evaluate(IN_A_LIST)


def test_the_table_sorts_filters_and_groups(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    names = page.locator("tr.part button.name")
    expect(names).to_have_count(38)
    page.keyboard.press("/")
    page.keyboard.type("aileron,")
    expect(names).to_have_count(2)
    page.keyboard.press("Escape")
    choose(page.get_by_label("Show only"), "guesses")
    expect(page.locator(".tools [role=status]")).to_contain_text(" of 38")
    assert names.count() < 20
    choose(page.get_by_label("Show only"), "all parts")
    page.locator("th.now button").click()
    page.locator("th.now button").click()
    expect(page.locator("th.now")).to_have_attribute("aria-sort", "descending")
    expect(names.first).to_have_text(re.compile("Pack, 3-cell 1300"))
    page.get_by_label("by assembly").check()
    expect(page.locator("tr.group")).to_have_count(
        len({each["assembly"] for each in build_told(page)["build"]["parts"]})
    )


def test_several_moves_are_asked_and_kept_as_one(page, sandpiper):
    page.goto(f"{sandpiper}/balance")
    line = page.get_by_label("Several moves as one")
    line.fill("3-cell 1300 and receiver both 20 forward")
    line.press("Enter")
    told = page.locator("form.several [role=status]")
    expect(told).to_contain_text("Receiver 20 forward")
    page.get_by_role("button", name="move them so").click()
    expect(line).to_have_value("")
    page.keyboard.press("Control+z")
    expect(page.locator(".line .words").first).to_contain_text("Receiver changed")


def test_an_act_is_one_request_though_word_of_it_comes_before_the_answer(bench):
    asked_for: list[str] = []

    def late(route):
        answer = route.fetch()
        bench.wait_for_timeout(400)
        route.fulfill(response=answer)

    bench.route("**/weighings", late)
    bench.route("**/moved", late)
    bench.on("request", lambda each: asked_for.append(f"{each.method} {each.url}"))
    at = bench.url.rsplit("/", 1)[0].replace("/build/", "/api/v1/builds/")

    def of_build() -> list[str]:
        whole = f"GET {at}"
        return [each for each in asked_for if each == whole or "POST" in each]

    bench.locator("[data-part=wear-pads]").click()
    bench.keyboard.type("301")
    bench.keyboard.press("Enter")
    row = bench.locator("section[aria-label='Till roll'] li").first
    expect(row).to_contain_text("301")
    expect(bench.locator(".waits")).to_have_count(0)
    bench.wait_for_timeout(300)
    assert of_build() == [f"POST {at}/weighings"]
    bench.keyboard.press("Alt+5")
    pack = bench.locator("[data-hung=pack-1300]")
    pack.focus()
    asked_for.clear()
    bench.keyboard.press("ArrowLeft")
    expect(bench.get_by_text("tried, not kept")).to_be_visible()
    bench.keyboard.press("Enter")
    expect(bench.get_by_text("tried, not kept")).to_have_count(0)
    bench.wait_for_timeout(600)
    assert [each for each in of_build() if "what-if" not in each] == [f"POST {at}/moved"]


def test_a_note_from_any_place_stands_in_the_notebook(bench):
    bench.keyboard.press("m")
    sheet = bench.get_by_role("dialog", name="A note")
    sheet.get_by_label("Note", exact=True).fill("the tape pulls the paper off")
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("m")
    expect(sheet.get_by_label("Note", exact=True)).to_have_value("the tape pulls the paper off")
    bench.keyboard.press("Enter")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("m")
    expect(sheet.get_by_label("Note", exact=True)).to_have_value("")
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("On the plan")).to_be_visible()
    bench.keyboard.press("n")
    notebook = bench.get_by_label("Notebook", exact=True)
    expect(notebook.locator("li").first).to_contain_text("the tape pulls the paper off")


def test_a_list_acts_when_it_is_chosen_from_not_while_it_is_walked_through(bench):
    """Letters lead to a line of an open list; nothing acts before Enter, and Esc puts it back."""
    units = bench.get_by_label("Units")
    auw = bench.locator("[data-rod=auw]")
    units.press("Enter")
    expect(bench.get_by_role("option").first).to_be_focused()
    bench.keyboard.type("oz")
    expect(bench.get_by_role("option", name="oz, in, oz/ft²")).to_be_focused()
    expect(auw).to_contain_text(" g")
    bench.keyboard.press("Escape")
    expect(bench.get_by_role("option")).to_have_count(0)
    expect(units).to_have_value("g, mm, g/dm²")
    expect(units).to_be_focused()
    expect(auw).to_contain_text(" g")
    units.press("Enter")
    expect(bench.get_by_role("option").first).to_be_focused()
    bench.keyboard.type("oz")
    expect(bench.get_by_role("option", name="oz, in, oz/ft²")).to_be_focused()
    bench.keyboard.press("Enter")
    expect(auw).to_contain_text("oz")
    expect(units).to_be_focused()


def test_a_list_pressed_by_hand_lets_go_of_the_keyboard(bench):
    """The figure that is typed next goes on the pan, as it did before."""
    units = bench.get_by_label("Units")
    choose(units, "g, in, oz/ft²")
    expect(units).not_to_be_focused()
    bench.keyboard.type("12.4")
    expect(bench.locator("#typed")).to_have_value("12.4")


def test_enter_on_a_list_within_a_line_opens_it_and_keeps_nothing(page, sandpiper):
    """Elsewhere on the line Enter keeps it: the list is chosen from first."""
    page.goto(f"{sandpiper}/plan?on=parts")
    line = page.get_by_label("Name of the next part")
    line.fill("Float")
    known = page.get_by_label("How the mass is known")
    known.press("Enter")
    expect(page.get_by_role("option").first).to_be_visible()
    page.keyboard.type("list")
    expect(page.get_by_role("option", name="listing")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("option")).to_have_count(0)
    expect(known).to_have_value("listing")
    expect(known).to_be_focused()
    assert all(part["name"] != "Float" for part in build_told(page)["build"]["parts"])
    page.get_by_label("Mass", exact=True).first.fill("28")
    page.get_by_label("Mass", exact=True).first.press("Enter")
    added = until(
        page,
        lambda: [p for p in build_told(page)["build"]["parts"] if p["name"] == "Float"],
        lambda found: len(found) == 1,
    )
    assert added[0]["pedigree"] == "listing"


def test_a_list_that_is_left_as_it_was_changes_nothing(page, sandpiper):
    """The line that stands there, chosen again, is no act: nothing is sent."""
    page.goto(f"{sandpiper}/plan?on=targets")
    before = build_told(page)["revision"]
    purpose = page.get_by_label("What it is for")
    choose(purpose, "Camera carrier")
    expect(purpose).to_have_value("Camera carrier")
    assert build_told(page)["revision"] == before
    choose(purpose, "Trainer")
    until(page, lambda: build_told(page)["build"]["purpose"], lambda is_for: is_for != "camera")
    assert build_told(page)["revision"] > before


def test_the_balance_target_takes_another_unit_by_keys(page, sandpiper):
    """The same range in inches behind the leading edge, and one press brings it back."""
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")
    page.goto(f"{sandpiper}/plan?on=targets")
    low, high = page.get_by_label("Balance, at least"), page.get_by_label("Balance, at most")
    expect(low).to_have_value("28")
    told = build_told(page)
    wing = told["assessment"]["wing"]
    unit = page.get_by_label("Balance measured in")
    unit.press("Enter")
    expect(page.get_by_role("option").first).to_be_focused()
    page.keyboard.type("from")
    expect(page.get_by_role("option", name="from leading edge")).to_be_focused()
    page.keyboard.press("Enter")

    def inches(percent: float) -> str:
        mm = wing["mac_le_x_mm"] + percent / 100 * wing["mac_mm"] - wing["leading_edge_x_mm"]
        return f"{mm / 25.4:.2f}".rstrip("0")

    expect(low).to_have_value(inches(28))
    expect(high).to_have_value(inches(33))
    page.get_by_role("button", name="undo").click()
    expect(low).to_have_value("28")
    expect(high).to_have_value("33")
