"""Thirty parts and six readings by keys alone, and by one thumb; each press counted."""

from playwright.sync_api import expect

from tests.browser.waits import kept


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
    "Left panel 10 dm2 of foam in Wing at 290",
    "Right panel 10 dm2 of foam in Wing at 290",
    "Spar 21 g at 262",
    "Spar glue 9 g at 262",
    "Left aileron 8 g at 370",
    "Right aileron 8 g at 370",
    "Wing tape 5 g at 300",
    "Brace 3 g at 260",
    "Tail 15 g at 750",
    "Elevator 5 g at 800",
    "Fin 9 g at 740",
    "Hinges 2 g at 780",
    "Tail glue 4 g at 750",
    "Box 42 g at 350",
    "Doublers 8 g at 90",
    "Plate 6 g at 30",
    "Bulkheads 4 g at 200",
    "Hatch 3 g at 130",
    "Box glue 8 g at 280",
    "Skid 4 g at 300",
    "Motor 60 g at 20",
    "Propeller 8 g at 5",
    "Controller 25 g at 80",
    "Receiver 9 g at 250",
    "Servos 4 x 9 g at 300",
    "Rods 6 g at 550",
    "Horns 3 g at 600",
    "Wires 12 g at 160",
    "Bands 4 g at 290",
    "Strap 4 g at 140",
]


SHEET = "Foam board 5 mm, both papers"


READINGS = {
    "Motor": "61.2",
    "Box": "44.5",
    "Fin": "9.4",
    "Tail": "15.6",
    "Spar": "21.3",
    "Hatch": "3.1",
}


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
    expect(page.get_by_role("region", name="Wing", exact=True)).to_be_focused()
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
    told = kept(page, 6)
    assert len(told["parts"]) == 1 + 30 + 3
    assert len(told["loadouts"]) == 4
    assert len(told["weighings"]) == 6
    print(f"\nby keys alone: {hands.presses} presses")
    assert hands.presses < 900


def test_the_same_build_by_one_thumb(chromium, served):
    """Each press of a finger counts, and each field that is typed into."""
    context = chromium.new_context(
        viewport={"width": 390, "height": 844},
        has_touch=True,
        is_mobile=True,
        service_workers="block",
    )
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
    told = kept(page, 6)
    assert (len(told["parts"]), len(told["loadouts"]), len(told["weighings"])) == (34, 4, 6)
    print(f"\nby one thumb: {actions} actions")
    context.close()
    assert actions < 250
