import re

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, until


@pytest.fixture
def shed(page, shared):
    page.goto(shared.url)
    expect(page.get_by_role("button", name="Begin a build")).to_be_visible()
    return page


def test_an_empty_shed_says_how_to_begin(page, served):
    page.goto(served.url)
    expect(page.get_by_text("The shelves are empty")).to_be_visible()


def turn(page, on: str) -> None:
    page.get_by_label("On the plan").get_by_role("link", name=on, exact=True).click()


def begin(page, name: str, limit: str = "", on: str = "Parts") -> None:
    page.get_by_role("button", name="Begin a build").click()
    page.get_by_label("Name", exact=True).fill(name)
    if limit:
        page.get_by_label("All-up weight limit").fill(limit)
    page.get_by_role("button", name="Begin", exact=True).click()
    expect(page.get_by_label("A first drawing")).to_be_visible()
    turn(page, on)


PARTS = (
    ("Wing", "Wing", "calculated", "18", "LE", "70"),
    ("Fuselage", "Body", "guess", "64", "nose", "330"),
    ("Tail", "Tail", "guess", "23", "nose", "740"),
    ("Motor", "Power", "listing", "1 oz", "nose", "15"),
    ("Pack", "Power", "listing", "62", "nose", "120"),
    ("Servos", "Power", "listing", "18", "nose", "260"),
)


def put(field, line: str) -> None:
    """Choose a line, unless it stands there already."""
    if field.input_value() != line:
        choose(field, line)


def test_a_build_from_nothing_to_its_four_answers(shed):
    page = shed
    begin(page, "Curlew", "300 g")
    expect(page.locator("[data-rod=auw]")).to_contain_text("add the parts on the Plan")

    name = page.get_by_label("Name of the next part")
    line = page.locator("form", has=name)
    name.focus()
    for part, group, known, mass, reference, station in PARTS:
        expect(name).to_be_focused()
        page.keyboard.type(part)
        line.get_by_label("Assembly").fill(group)
        put(line.get_by_label("How the mass is known"), known)
        if known == "calculated":
            put(line.get_by_label("Made of"), "of Foam board 5 mm, both papers")
        else:
            put(line.get_by_label("Made of"), "by itself")
        line.get_by_label(re.compile("^(Mass|How much)")).fill(mass)
        line.get_by_label("Station").fill(station)
        datum = "of leading edge" if reference == "LE" else "of nose"
        put(line.get_by_label("Measured from"), datum)
        line.get_by_label("Station").press("Enter")
        expect(page.get_by_role("button", name=f"Change {part}", exact=True)).to_be_visible()
    expect(name).to_be_focused()

    # 18 dm2 of 4.5 g, 64, 23, one ounce, 62 and 18 g, and 4 % for what nobody lists.
    weight = (18 * 4.5 + 64 + 23 + 28.3495 + 62 + 18) * 1.04
    expect(page.locator("[data-rod=auw]")).to_contain_text(f"{weight:.0f} ±")
    expect(page.locator("[data-rod=wing_loading]")).to_contain_text(f"{weight / 18:.1f} ±")
    turn(page, "Targets")
    page.get_by_label("Static thrust").fill("260")
    page.get_by_label("Static thrust").press("Enter")
    expect(page.locator("[data-rod=thrust_to_weight]")).to_contain_text(f"{260 / weight:.2f} ±")
    expect(page.locator("[data-rod=balance]")).to_contain_text("%")

    page.keyboard.press("Alt+4")
    page.locator("[data-part=wing]").click()
    page.keyboard.type("90.2")
    page.keyboard.press("Enter")
    expect(page.locator("[data-part=wing] [data-mark]")).to_have_attribute("data-mark", "weighed")
    expect(page.locator("section[aria-label='Till roll'] li").first).to_contain_text("90.2 g")
    expect(page.get_by_text("read by eye")).to_be_visible()


def test_the_drawing_answers_while_a_chord_is_typed(shed):
    page = shed
    begin(page, "Curlew", on="Drawing")
    numbers = page.get_by_label("What the drawing comes to")
    expect(numbers).to_contain_text("18.00 dm²")
    chord = page.get_by_label("Wing, section 1, chord")
    chord.fill("220")
    expect(numbers).to_contain_text("20.00 dm²")
    page.get_by_label("Wing, section 2, chord").fill("220")
    page.get_by_label("Wing, section 2, chord").press("Enter")
    expect(numbers).to_contain_text("22.00 dm²")

    def chords() -> list[float]:
        return [each["chord_mm"] for each in build_told(page)["build"]["surfaces"][0]["sections"]]

    until(page, chords, lambda told: told == [220, 220])
    page.reload()
    expect(page.get_by_label("What the drawing comes to")).to_contain_text("22.00 dm²")


def test_crossing_sections_are_refused_in_words_and_nothing_is_lost(shed):
    page = shed
    begin(page, "Curlew", on="Drawing")
    out = page.get_by_label("Wing, section 2, out from the middle")
    out.fill("0")
    out.press("Enter")
    expect(page.locator(".line .words.wrong").last).to_contain_text("not farther out")
    expect(out).to_have_value("500")


def test_a_mistyped_mass_names_its_field_and_keeps_the_line(shed):
    page = shed
    begin(page, "Curlew")
    page.get_by_label("Name of the next part").fill("Motor")
    mass = page.locator("form", has=page.get_by_label("Name of the next part")).get_by_label(
        "Mass", exact=True
    )
    mass.fill("heavy")
    mass.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Mass:")
    expect(page.get_by_label("Name of the next part")).to_have_value("Motor")
    mass.fill("50 kg")
    mass.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("unusual for one part; 50 g? Enter again")
    mass.press("Enter")
    expect(page.locator(".line .words.wrong").last).to_contain_text("at most 5000 g")
    expect(page.get_by_label("Name of the next part")).to_have_value("Motor")


def test_a_line_is_answered_where_it_is_typed(shed):
    page = shed
    begin(page, "Curlew")
    line = page.get_by_label("Name of the next part")
    line.fill("Receiver 4 g 250")
    line.press("Enter")
    form = page.get_by_role("form", name="The next part")
    expect(form.get_by_role("alert")).to_have_text('where is it? "Receiver 4 g at 250"')
    expect(line).to_have_value("Receiver 4 g 250")
    line.fill("Receiver 4 g at 250 left 30")
    line.press("Enter")
    told = "Receiver: 4.0 g, 250 mm from the nose, 30 mm to port"
    expect(form.get_by_text(told)).to_have_attribute("role", "status")
    expect(form.get_by_role("alert")).to_have_count(0)
    expect(line).to_have_value("")

    # What is open is taken as of all, and may be of each by a press; the hand is on the line again.
    line.fill("4 servos 9 g at 240")
    line.press("Enter")
    status = form.get_by_role("status").first
    expect(status).to_contain_text("4 servos: 9.0 g in all, 4 pieces of 2.3 g")
    each = form.get_by_role("button", name="or each of them: 36.0 g in all")
    each.press("Enter")
    expect(status).to_contain_text("4 servos: 36.0 g in all, 4 pieces of 9.0 g")
    expect(each).to_have_count(0)
    expect(line).to_be_focused()


def test_a_part_is_changed_in_its_line_and_removed(shed):
    page = shed
    begin(page, "Curlew")
    name = page.get_by_label("Name of the next part")
    name.fill("Servo")
    page.locator("form", has=name).get_by_label("Mass", exact=True).fill("9")
    name.press("Enter")
    page.get_by_role("button", name="Change Servo").click()
    row = page.locator("td form", has=page.get_by_label("Name", exact=True))
    row.get_by_label("Mass", exact=True).fill("11")
    row.get_by_label("Mass", exact=True).press("Enter")
    expect(page.locator("[data-rod=auw]")).to_contain_text("11 ±")
    page.get_by_role("button", name="Change Servo").click()
    page.get_by_text("remove", exact=True).last.click()
    expect(page.locator("[data-rod=auw]")).to_contain_text("add the parts on the Plan")


def test_a_figure_of_each_is_multiplied_in_sight_and_one_of_all_is_not(shed):
    page = shed
    begin(page, "Curlew")
    name = page.get_by_label("Name of the next part")
    line = page.locator("form", has=name)
    auw = page.locator("[data-rod=auw]")
    name.fill("Servos")
    line.get_by_label("Mass", exact=True).fill("9")
    expect(line.get_by_label("The figure is of")).to_have_count(0)
    line.get_by_label("Pieces").fill("2")
    choose(line.get_by_label("The figure is of"), "each")
    expect(line.locator(".times")).to_contain_text("18")
    name.press("Enter")
    expect(auw).to_contain_text("19 ±")  # 18, and 4 % for what nobody lists
    # The next line starts plain: one piece, nothing multiplied.
    expect(line.get_by_label("Pieces")).to_have_value("1")
    name.fill("Screws")
    line.get_by_label("Mass", exact=True).fill("6")
    line.get_by_label("Pieces").fill("4")
    choose(line.get_by_label("The figure is of"), "in all")
    name.press("Enter")
    expect(auw).to_contain_text("25 ±")  # 24, and 4 %
    # Of a lot the same holds for lengths.
    name.fill("Skewers")
    choose(line.get_by_label("Made of"), "of Bamboo skewer 3 mm")
    line.get_by_label("How much of the lot").fill("300 mm")
    line.get_by_label("Pieces").fill("3")
    choose(line.get_by_label("The figure is of"), "each")
    name.press("Enter")
    expect(auw).to_contain_text("29 ±")  # 24 and 3 times 0.3 m of 4.8 g/m, and 4 %


def test_an_option_flies_only_with_its_loadout(shed):
    page = shed
    begin(page, "Curlew")
    name = page.get_by_label("Name of the next part")
    line = page.locator("form", has=name)
    for part, mass, option in (("Wing", "100", False), ("Camera", "50", True)):
        name.fill(part)
        line.get_by_label("Mass", exact=True).fill(mass)
        if option:
            line.get_by_label("Only in some loadouts").check()
        name.press("Enter")
        expect(page.get_by_role("button", name=f"Change {part}")).to_be_visible()
    turn(page, "Loadouts")
    for loadout in ("Light", "Loaded"):
        page.get_by_label("Name of the next loadout").fill(loadout)
        page.get_by_label("Name of the next loadout").press("Enter")
        expect(page.get_by_label(f"Name of {loadout}")).to_be_visible()
    page.locator("section[aria-label=Loadouts] .loadout").nth(1).get_by_label("Camera").check()
    expect(page.locator("[data-rod=auw]")).to_contain_text("104 ±")
    page.locator("h2").first.click()
    page.keyboard.press("l")
    expect(page.locator("[data-rod=auw]")).to_contain_text("154 ±")


def test_two_packs_typed_as_parts_become_a_loadout_each(shed):
    """Nobody flies both: the weight of the second is not lost in the first's verdict."""
    page = shed
    begin(page, "Whimbrel")
    line = page.get_by_label("Name of the next part")
    for part in ("Wing 200 g at 250", "3S 1300 110 g at 90", "3S 850 76 g at 90"):
        line.fill(part)
        line.press("Enter")
        expect(line).to_have_value("")
    told = page.get_by_text("3S 1300 flies at once with it: if one flies at a time")
    expect(told).to_be_visible()
    expect(page.locator("[data-rod=auw] .value")).to_contain_text("401")
    turn(page, "Loadouts")
    expect(page.get_by_text("3S 1300 and 3S 850 fly at once now")).to_be_visible()
    page.get_by_role("button", name="Make the loadouts").click()
    expect(page.get_by_label("Name of 3S 850")).to_be_visible()
    expect(page.get_by_text("fly at once now")).not_to_be_visible()
    expect(page.locator("[data-rod=auw] .value")).to_contain_text(
        "318"
    )  # 4 % of the wing still to come


def test_a_file_out_of_one_shelf_and_into_it_again(page, served, tmp_path):
    page.goto(served.url)
    begin(page, "Curlew")
    page.keyboard.press("Alt+1")
    with page.expect_download() as download:
        page.get_by_text("as a file").click()
    path = tmp_path / "curlew.json"
    download.value.save_as(path)
    page.get_by_label("Build file").set_input_files(path)
    expect(page.locator("article")).to_have_count(2)
    bad = tmp_path / "bad.json"
    bad.write_text('{"format": "oaken-scale/build", "version": 7}')
    page.get_by_label("Build file").set_input_files(bad)
    expect(page.locator(".line .words.wrong")).to_contain_text("newer Oaken Scale")
    expect(page.locator("article")).to_have_count(2)
    page.get_by_role("button", name="put away").first.click()
    expect(page.locator("article")).to_have_count(1)
    expect(page.get_by_text("1 put away")).to_be_visible()


def test_a_build_that_is_not_there_is_said(page, shared):
    page.goto(f"{shared.url}/build/none/bench")
    expect(page.get_by_text("This build does not answer")).to_be_visible(timeout=15_000)


def test_a_build_is_renamed_and_its_scale_told(shed):
    page = shed
    begin(page, "Curlew")
    page.get_by_label("Name of the build").fill("Whimbrel")
    page.get_by_label("Name of the build").press("Enter")
    expect(page.get_by_role("heading", name="Whimbrel")).to_be_visible()
    turn(page, "Scales")
    step = page.get_by_label("My scale, step")
    step.fill("1")
    step.press("Enter")
    page.keyboard.press("Alt+4")
    expect(page.locator("section[aria-label=Pan]")).to_contain_text("My scale, 1 g steps")
    page.keyboard.press("Alt+2")
    turn(page, "Scales")
    step.fill("0")
    step.press("Enter")
    expect(page.locator(".line .words.wrong")).to_contain_text("at least 0.0001 g")
    expect(step).to_have_value("1")
