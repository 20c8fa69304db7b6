"""For every hand: keys alone, one thumb, what is said aloud, undo over places; counted."""

import re

from playwright.sync_api import expect

from tests.browser.waits import build_told, until


def test_grams_and_inches_and_a_decimal_comma_are_chosen(bench):
    bench.get_by_label("Units").select_option("own")
    sheet = bench.get_by_role("dialog", name="Units")
    sheet.locator(".v-select", has_text="Lengths").click()
    bench.get_by_role("option", name="inches").click()
    sheet.locator(".v-select", has_text="Decimals").click()
    bench.get_by_role("option", name="a comma: 12,4").click()
    bench.keyboard.press("Escape")
    expect(bench.locator("[data-rod=wing_loading]")).to_contain_text(re.compile(r"28,6 ±\d,\d"))
    expect(sheet).to_have_count(0)
    expect(bench.get_by_label("Units")).to_have_value("own")
    bench.reload()
    expect(bench.locator("[data-rod=auw]")).to_contain_text(" g")
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("What the drawing comes to")).to_contain_text("42,52 in")
    bench.get_by_label("Units").select_option("metric")
    expect(bench.get_by_label("What the drawing comes to")).to_contain_text("1080 mm")


class Hands:
    """A page worked on by keys alone, each press counted."""

    def __init__(self, page):
        self.page, self.presses = page, 0

    def key(self, *keys: str):
        for key in keys:
            self.page.keyboard.press(key)
            self.presses += 1

    def type(self, text: str):
        self.page.keyboard.type(text)
        self.presses += len(text)


PARTS = [
    "Left panel 10 dm2 of foam in Wing at 290", "Right panel 10 dm2 of foam in Wing at 290",
    "Spar 21 g at 262", "Spar glue 9 g at 262", "Left aileron 8 g at 370",
    "Right aileron 8 g at 370", "Wing tape 5 g at 300", "Brace 3 g at 260", "Tail 15 g at 750",
    "Elevator 5 g at 800", "Fin 9 g at 740", "Hinges 2 g at 780", "Tail glue 4 g at 750",
    "Box 42 g at 350", "Doublers 8 g at 90", "Plate 6 g at 30", "Bulkheads 4 g at 200",
    "Hatch 3 g at 130", "Box glue 8 g at 280", "Skid 4 g at 300", "Motor 60 g at 20",
    "Propeller 8 g at 5", "Controller 25 g at 80", "Receiver 9 g at 250", "Servos 4 x 9 g at 300",
    "Rods 6 g at 550", "Horns 3 g at 600", "Wires 12 g at 160", "Bands 4 g at 290",
    "Strap 4 g at 140",
]  # fmt: skip
SHEET = "Foam board 5 mm, both papers"
READINGS = {"Motor": "61.2", "Box": "44.5", "Fin": "9.4", "Tail": "15.6", "Spar": "21.3",
            "Hatch": "3.1"}  # fmt: skip


def last_reading(page) -> dict:
    return build_told(page)["build"]["weighings"][-1]


def kept(page, readings: int = 6, last=lambda reading: True) -> dict:
    """The build once so many readings are home, and the last is the one that is waited for."""
    return until(
        page,
        lambda: build_told(page)["build"],
        lambda build: len(build["weighings"]) >= readings and last(build["weighings"][-1]),
    )


def test_thirty_parts_loadouts_and_six_readings_by_keys_alone(page, served):
    """From an empty shelf: a build, its drawing, 30 parts, four loadouts, six readings."""
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()
    hands = Hands(page)
    hands.key("b")
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    hands.type("Curlew")
    hands.key("Enter")
    expect(page.get_by_label("Span of the first drawing")).to_be_focused()
    hands.type("1100")
    hands.key("Tab")
    hands.type("200")
    hands.key("Enter")
    expect(page.get_by_label("What the drawing comes to")).to_contain_text("22.00 dm²")
    hands.key("a")
    line = page.get_by_label("Name of the next part")
    for count, part in enumerate(PARTS, start=1):
        expect(line).to_be_focused()
        expect(line).to_have_value("")
        text = part.replace(" of foam ", f" of {SHEET} ")
        hands.type(text)
        hands.key("Enter")
        expect(page.get_by_text(f"{count + 1} of {count + 1}")).to_be_visible()
    hands.key("Alt+o")
    expect(page.get_by_label("The next of the packs")).to_be_focused()
    for pack in ("2-cell 62 g at 110", "3-cell 110 g at 110"):
        hands.type(pack)
        hands.key("Enter")
    hands.key("Enter")
    hands.type("Camera 60 g at 240")
    hands.key("Enter", "Enter")
    expect(page.get_by_label("Name of 3-cell, Camera")).to_be_visible()
    hands.key("Alt+4")
    expect(page.locator("[data-part=motor]")).to_be_visible()
    for part, grams in READINGS.items():
        hands.key("/")
        hands.type(part.lower())
        hands.key("Enter")
        expect(page.locator(".tag.on")).to_have_count(1)
        hands.type(grams)
        hands.key("Enter")
        row = page.locator("section[aria-label='Till roll'] li").first
        expect(row).to_contain_text(part)
    expect(page.locator(".waits")).to_have_count(0)
    told = kept(page)
    assert len(told["parts"]) == 1 + 30 + 3
    assert len(told["loadouts"]) == 4
    assert len(told["weighings"]) == 6
    print(f"\nby keys alone: {hands.presses} presses")
    assert hands.presses < 900


def test_the_same_build_by_one_thumb(chromium, served):
    """Each press of a finger counts, and each field that is typed into."""
    context = chromium.new_context(viewport={"width": 390, "height": 844}, has_touch=True,
                                   is_mobile=True, service_workers="block")  # fmt: skip
    page = context.new_page()
    page.goto(served.url)
    actions = 0

    def tap(what):
        nonlocal actions
        what.tap()
        actions += 1

    def fill(what, text: str, enter: bool = True):
        nonlocal actions
        what.fill(text)
        if enter:
            what.press("Enter")
        actions += 2 if enter else 1

    tap(page.get_by_role("button", name="Begin a build"))
    fill(page.get_by_label("Name", exact=True), "Curlew")
    fill(page.get_by_label("Span of the first drawing"), "1100")
    fill(page.get_by_label("Chord of the first drawing"), "200")
    expect(page.get_by_label("What the drawing comes to")).to_contain_text("22.00 dm²")
    tap(page.get_by_role("link", name="Parts", exact=True))
    line = page.get_by_label("Name of the next part")
    for count, part in enumerate(PARTS, start=1):
        fill(line, part.replace(" of foam ", f" of {SHEET} "))
        expect(page.get_by_text(f"{count + 1} of {count + 1}")).to_be_visible()
    tap(page.get_by_role("link", name="Loadouts", exact=True))
    for pack in ("2-cell 62 g at 110", "3-cell 110 g at 110"):
        fill(page.get_by_label("The next of the packs"), pack)
    fill(page.get_by_label("The next of the payloads"), "Camera 60 g at 240")
    tap(page.get_by_role("button", name="Make the loadouts"))
    expect(page.get_by_label("Name of 3-cell, Camera")).to_be_visible()
    tap(page.get_by_role("link", name="Bench"))
    for part, grams in READINGS.items():
        tap(page.locator(f"[data-part={part.lower()}]"))
        fill(page.locator("#typed"), grams)
        expect(page.locator("section[aria-label='Till roll'] li").first).to_contain_text(part)
    told = kept(page)
    assert (len(told["parts"]), len(told["loadouts"]), len(told["weighings"])) == (34, 4, 6)
    print(f"\nby one thumb: {actions} actions")
    context.close()
    assert actions < 250


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


def test_undo_and_redo_over_places_in_the_order_they_were_made(bench):
    bench.locator("[data-part=wear-pads]").click()
    bench.keyboard.type("2.2")
    bench.keyboard.press("Enter")
    expect(bench.locator("section[aria-label='Till roll'] li").first).to_contain_text("2.2")
    kept(bench, len(build_told(bench)["build"]["weighings"]), lambda last: last["reading_g"] == 2.2)
    bench.keyboard.press("Alt+2")
    chord = bench.get_by_label("Wing, section 1, chord")
    chord.fill("210")
    chord.press("Enter")
    numbers = bench.get_by_label("What the drawing comes to")
    expect(numbers).not_to_contain_text("20.52 dm²")
    bench.keyboard.press("Control+z")
    expect(bench.locator(".line .words").first).to_contain_text("Taken back: Wing changed.")
    expect(numbers).to_contain_text("20.52 dm²")
    bench.keyboard.press("Control+z")
    expect(bench.locator(".line .words").first).to_contain_text("Taken back: the reading of 2.2 g")
    until(bench, lambda: last_reading(bench)["set_aside"] == "taken back")
    bench.keyboard.press("Control+Shift+Z")
    bench.keyboard.press("Control+Shift+Z")
    expect(numbers).not_to_contain_text("20.52 dm²")
    until(bench, lambda: last_reading(bench)["set_aside"] is None)
    bench.get_by_role("button", name="undo", exact=True).click()
    expect(numbers).to_contain_text("20.52 dm²")


def test_single_keys_can_be_switched_off(bench):
    bench.keyboard.press("?")
    sheet = bench.get_by_role("dialog", name="Keys")
    sheet.get_by_label("single keys").uncheck()
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("n")
    bench.keyboard.press("9")
    expect(bench.locator("#typed")).to_have_value("")
    assert bench.locator(".tag.on").count() == 0
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("On the plan")).to_be_visible()
    bench.keyboard.press("?")
    sheet.get_by_label("single keys").check()
    bench.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("4")
    expect(bench.locator("[data-part=motor]")).to_be_visible()


def test_every_place_has_its_keys_its_title_and_a_way_past_the_rule(page, demo_served):
    titles = set()
    for place in ("plan", "stock", "bench", "balance", "power", "field"):
        page.goto(f"{demo_served.url}/build/sandpiper/{place}")
        expect(page).to_have_title(f"Sandpiper, {place.capitalize()} · Oaken Scale")
        titles.add(page.title())
        page.keyboard.press("?")
        sheet = page.get_by_role("dialog", name="Keys")
        expect(sheet).to_contain_text("take the last change back")
        page.keyboard.press("Escape")
        expect(sheet).to_have_count(0)
    assert len(titles) == 6
    page.keyboard.press("Tab")
    for _ in range(3):
        if page.evaluate("() => document.activeElement.className === 'skip'"):
            break
        page.keyboard.press("Tab")
    page.locator(".skip").press("Enter")
    assert page.evaluate("() => document.activeElement.id") == "work"


def test_each_place_says_what_it_is_until_it_is_hidden(bench):
    line = bench.locator("p.what")
    expect(line).to_contain_text("Put a part on the pan")
    foot = bench.locator(".clocks").bounding_box()
    assert foot["y"] + foot["height"] <= 800.5
    bench.keyboard.press("Alt+5")
    expect(line).to_contain_text("Where the plane hangs level")
    line.get_by_role("button", name="hide these lines").press("Enter")
    expect(line).to_have_count(0)
    bench.reload()
    expect(bench.get_by_role("heading", name="Where it belongs")).to_be_visible()
    expect(line).to_have_count(0)
    bench.keyboard.press("?")
    bench.get_by_role("dialog", name="Keys").get_by_label("each place says").check()
    bench.keyboard.press("Escape")
    expect(line).to_be_visible()


def test_each_view_of_the_plan_says_what_it_is(page, sandpiper):
    page.goto(f"{sandpiper}/plan")
    line = page.locator("p.what span")
    views = page.get_by_label("On the plan").get_by_role("link")
    expect(views).to_have_count(8)
    said = set()
    for view in views.all():
        view.click()
        expect(view).to_have_attribute("aria-current", "page")
        said.add(line.inner_text())
    assert len(said) == 8


def test_words_are_explained_where_they_stand(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    words = page.locator("form[aria-label='The next part'] details")
    words.locator("summary").press("Enter")
    for word in ("pieces", "option", "station", "known by"):
        expect(words.locator("dt", has_text=word)).to_be_visible()
    expect(words).to_contain_text("Aboard in some loadouts only")
    page.goto(page.url.replace("/plan?on=parts", "/balance"))
    schools = page.locator("details", has_text="Builders do not agree")
    schools.locator("summary").press("Enter")
    expect(schools.locator("dt", has_text="school")).to_be_visible()


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


def test_what_was_recorded_and_a_verdict_that_turned_are_said_aloud(bench):
    aloud = bench.locator(".aloud")
    expect(aloud).to_have_text("")
    bench.locator("[data-part=wear-pads]").click()
    bench.keyboard.type("2.2")
    bench.keyboard.press("Enter")
    expect(aloud).to_contain_text("Recorded: 2.2 g")
    bench.goto(bench.url.replace("/bench", "/plan?on=targets"))
    limit = bench.get_by_label("All-up weight, at most")
    limit.fill("900")
    limit.press("Enter")
    expect(aloud).to_contain_text(re.compile("All-up weight: on course"))


def test_a_note_from_any_place_stands_in_the_notebook(bench):
    bench.keyboard.press("m")
    sheet = bench.get_by_role("dialog", name="A note")
    sheet.get_by_label("Note", exact=True).fill("the tape pulls the paper off")
    bench.keyboard.press("Enter")
    expect(sheet).to_have_count(0)
    bench.keyboard.press("Alt+2")
    expect(bench.get_by_label("On the plan")).to_be_visible()
    bench.keyboard.press("n")
    notebook = bench.get_by_label("Notebook", exact=True)
    expect(notebook.locator("li").first).to_contain_text("the tape pulls the paper off")


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


def test_the_table_sorts_filters_and_groups(page, sandpiper):
    page.goto(f"{sandpiper}/plan?on=parts")
    names = page.locator("tr.part button.name")
    expect(names).to_have_count(38)
    page.keyboard.press("/")
    page.keyboard.type("aileron,")
    expect(names).to_have_count(2)
    page.keyboard.press("Escape")
    page.get_by_label("Show only").select_option("guesses")
    expect(page.locator(".tools [role=status]")).to_contain_text(" of 38")
    assert names.count() < 20
    page.get_by_label("Show only").select_option("all parts")
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
