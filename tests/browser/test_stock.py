import re
from pathlib import Path

import pytest
from playwright.sync_api import expect
from reportlab.lib.units import mm
from reportlab.pdfgen import canvas

from tests.browser.choosing import choose
from tests.http import HTTP

EXAMPLE = Path(__file__).parents[2] / "docs" / "examples" / "tail.svg"


@pytest.fixture
def stock(bench):
    bench.keyboard.press("Alt+3")
    expect(bench.locator("[data-lot=sheet-a]")).to_be_visible()
    return bench


def test_one_square_of_a_sheet_moves_all_that_is_cut_from_it(stock):
    before = stock.locator("[data-rod=auw]").inner_text()
    stock.locator("[data-lot=sheet-b]").click()
    reading = stock.get_by_label("What the scale shows")
    reading.fill("3,5")
    reading.press("Enter")
    moved = stock.locator(".moved")
    expect(moved).to_contain_text("All-up weight")
    expect(moved).to_contain_text("Right wing panel")
    expect(moved.locator("li")).to_have_count(4)
    expect(stock.locator("[data-lot=sheet-b]")).to_contain_text("weighed; was 3.30")
    expect(stock.locator("[data-rod=auw]")).not_to_have_text(before)
    expect(reading).to_have_value("")


def test_a_sheet_weighed_again_after_storage_tells_that_it_is_damp(stock):
    """It was 4.9 g in March; the demo's clock is long past that."""
    reading = stock.get_by_label("What the scale shows")
    reading.fill("5.4")
    reading.press("Enter")
    damp = stock.locator(".damp")
    expect(damp).to_contain_text("+10.2 %")
    expect(damp).to_contain_text("damp")
    damp.get_by_role("button", name="the last, it will dry").click()
    expect(damp).to_have_count(0)
    expect(stock.locator("[data-lot=sheet-a]")).to_contain_text("4.94")


def test_a_reading_that_cannot_be_is_said_where_it_was_typed(stock):
    reading = stock.get_by_label("What the scale shows")
    reading.fill("heavy")
    reading.press("Enter")
    expect(stock.get_by_role("alert")).to_contain_text('"heavy" is not a number')
    expect(reading).to_have_value("heavy")


def test_a_lot_of_the_rack_is_taken_with_one_press(stock):
    stock.get_by_role("button", name="Take Extruded polystyrene 3 mm").click()
    expect(stock.locator("[data-lot=xps-3]")).to_have_attribute("aria-pressed", "true")
    panel = stock.get_by_role("complementary", name="Extruded polystyrene 3 mm")
    price = panel.get_by_label("Price of one")
    price.fill("4,5")
    price.press("Enter")
    expect(price).to_have_value("4.5")
    panel.get_by_role("button", name="take it out of this build").click()
    expect(stock.locator("[data-lot=xps-3]")).to_have_count(0)


def test_a_lot_that_is_not_on_the_rack_is_hung_up(stock):
    stock.get_by_label("Name of the next lot").fill("Wire 0.8 mm")
    choose(stock.get_by_label("What it is"), "rod, tube, strip")
    stock.get_by_label("How heavy, ").fill("4")
    stock.get_by_label("How heavy, ").press("Enter")
    expect(stock.locator("[data-lot^=wire-0-8]")).to_contain_text("±0.80 g/m")


def test_a_drawing_becomes_parts_with_a_twin(stock):
    stock.get_by_role("link", name="Parts from outlines").click()
    stock.locator("input[type=file]").set_input_files(EXAMPLE)
    line = stock.locator("tbody tr").first
    expect(line.get_by_label("Name of the part")).to_have_value("Tailplane half")
    expect(line).to_contain_text("1.96")
    for other in ("Fin", "Bulkhead front"):
        stock.get_by_label(f"Keep {other}", exact=True).uncheck()
    # Pressed on the picture, a part is left out as well.
    stock.get_by_role("button", name="Bulkhead rear").press("Enter")
    line.get_by_label("Tailplane half has a mirrored twin").check()
    choose(stock.get_by_label("Station of"), "its front corner at the root")
    line.get_by_label("Tailplane half, aft").fill("700")
    stock.get_by_label("Assembly").fill("Tail")
    stock.get_by_role("button", name="Keep one part").click()
    expect(stock.get_by_text("2 parts kept")).to_be_visible()
    stock.keyboard.press("2")
    stock.get_by_role("link", name="Parts", exact=True).click()
    part = stock.locator("tr", has_text="Tailplane half, right")
    expect(part).to_contain_text("1.96 dm² of Sheet A")
    expect(part).to_contain_text("Tail")


def test_a_drawing_without_a_scale_asks_for_one_length(stock, tmp_path):
    bare = tmp_path / "rib.svg"
    bare.write_text('<svg xmlns="http://www.w3.org/2000/svg"><rect width="95" height="40"/></svg>')
    stock.get_by_role("link", name="Parts from outlines").click()
    stock.locator("input[type=file]").set_input_files(bare)
    expect(stock.get_by_text("does not say its scale")).to_be_visible()
    stock.get_by_label("True length").fill("19 cm")
    stock.get_by_role("button", name="Take this scale").click()
    expect(stock.locator("tbody tr").first).to_contain_text("1.52")
    expect(stock.get_by_text("does not say its scale")).to_have_count(0)


def test_a_plan_in_pdf_to_half_size_and_in_tiles_becomes_parts(stock, tmp_path):
    plan = canvas.Canvas(str(tmp_path / "plan.pdf"), pagesize=(200 * mm, 200 * mm))
    for left, right in ((20, 200), (0, 120)):
        for y in (50, 90):
            plan.line(left * mm, y * mm, right * mm, y * mm)
        edge = left if left else right
        plan.line(edge * mm, 50 * mm, edge * mm, 90 * mm)
        plan.showPage()
    plan.save()
    stock.get_by_role("link", name="Parts from outlines").click()
    stock.locator("input[type=file]").set_input_files(tmp_path / "plan.pdf")
    stock.get_by_label("Columns of tiles").fill("2")
    stock.get_by_role("button", name="Put them together").click()
    line = stock.locator("tbody tr").first
    expect(line).to_contain_text("1.20")
    stock.get_by_role("button", name="It is not drawn to full size").click()
    stock.get_by_label("True length").fill("600")
    stock.get_by_role("button", name="Take this scale").click()
    expect(line).to_contain_text("4.80")


def test_a_drawing_that_cannot_be_read_says_why(stock, tmp_path):
    bad = tmp_path / "bad.svg"
    bad.write_text("<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>")
    stock.get_by_role("link", name="Parts from outlines").click()
    stock.locator("input[type=file]").set_input_files(bad)
    expect(stock.get_by_role("alert")).to_contain_text("bad.svg holds a script")


def test_a_shape_with_a_hole_is_measured_and_offered(stock):
    stock.get_by_role("link", name="Parts from outlines").click()
    form = stock.get_by_role("form", name="Measure a shape")
    form.get_by_label("Name of the shape").fill("Former")
    form.get_by_label("wide", exact=True).fill("60")
    form.get_by_label("high", exact=True).fill("5 cm")
    form.get_by_role("button", name="cut something out of it").click()
    choose(form.get_by_label("Shape of the cut-out"), "ellipse or circle")
    form.get_by_label("Cut-out, wide").fill("20")
    form.get_by_label("Cut-out, high").fill("20")
    form.get_by_label("Cut-out, from the left").fill("10")
    form.get_by_label("Cut-out, from the top").fill("10")
    form.get_by_role("button", name="measure", exact=True).click()
    expect(form.locator("output")).to_have_text("0.27 dm²")
    form.get_by_role("button", name="offer it").click()
    expect(stock.locator("tbody tr").first.get_by_label("Name of the part")).to_have_value("Former")
    template = stock.get_by_role("form", name="Weigh a paper template")
    template.get_by_label("The template weighs").fill("8")
    template.get_by_label("The template weighs").press("Enter")
    expect(template.locator("output")).to_contain_text("10.00 dm² ±")


def test_paper_off_side_by_side_and_made_so(stock):
    stock.get_by_role("link", name="Other ways").click()
    for part in ("Fuselage box", "Hatch"):
        stock.get_by_role("button", name=part, exact=True).click()
    stock.get_by_role("button", name="the same, one paper off").click()
    stock.get_by_role("button", name="Expanded polypropylene 6 mm").click()
    table = stock.locator("table")
    expect(table.locator("thead th")).to_have_count(4)
    expect(table).to_contain_text("a price is missing")
    expect(table).to_contain_text("stiffness: it wants tape, film or a spar")
    table.get_by_role("button", name="make it so (2)").last.click()
    expect(stock.get_by_text("From Sheet A, one paper off from now on.")).to_be_visible()
    stock.get_by_role("link", name="Rack", exact=True).click()
    expect(stock.locator("[data-lot^=sheet-a-one]")).to_contain_text("10.00 dm² in parts")


def test_a_thing_of_the_drawer_is_fitted(stock):
    stock.get_by_role("link", name="Drawer").click()
    spare = stock.locator("[data-thing=spare-servo]")
    spare.get_by_role("button", name=re.compile("fit it|move it here")).click()
    expect(spare).to_contain_text("this plane")
    stock.keyboard.press("2")
    stock.get_by_role("link", name="Parts", exact=True).click()
    expect(stock.get_by_role("button", name="Change Spare servo")).to_be_visible()


def test_the_next_thing_is_one_line(stock):
    stock.get_by_role("link", name="Drawer").click()
    stock.get_by_label("Name of the next thing").fill("Regulator")
    choose(stock.get_by_label("What it is"), "something else")
    stock.get_by_label("Its listing").fill("0.2 oz")
    stock.get_by_label("Its listing").press("Enter")
    expect(stock.locator("[data-thing^=regulator]")).to_contain_text("5.7 ±0.6")
    expect(stock.get_by_label("Name of the next thing")).to_be_focused()


def test_the_list_to_buy(stock):
    stock.get_by_role("link", name="Shopping").click()
    rod = stock.locator("tr", has_text="Carbon rod")
    expect(rod).to_contain_text("0.9 rod")
    expect(rod.locator(".buy")).to_have_text("1")
    expect(stock.locator("tr", has_text="Everything")).to_contain_text("122.49")
    with stock.expect_download() as download:
        stock.get_by_role("link", name="The list as CSV").click()
    assert download.value.suggested_filename == "sandpiper-shopping.csv"


def test_a_budget_is_allotted_and_says_where_it_stands(stock):
    stock.get_by_role("link", name="Budget").click()
    joining = stock.locator("[data-group=joining]")
    expect(joining).to_contain_text("5 g over")
    allotted = joining.get_by_label("Allotted to Joining")
    allotted.fill("60")
    allotted.press("Enter")
    expect(joining).to_contain_text("within, over 99 %")
    choose(stock.get_by_label("Dihedral brace belongs to"), "Foam and spars")
    expect(stock.get_by_label("Dihedral brace belongs to")).to_have_count(0)
    stock.get_by_role("button", name="usual shares of the limit").click()
    expect(stock.get_by_text("590 g, the usual shares of the weight limit")).to_be_visible()


def test_a_square_weighed_in_one_build_moves_another_that_is_open(page, chromium, demo_served):
    """Two builds of one sheet, on two screens: what one learns the other shows."""

    def plane(name):
        begun = HTTP.post(f"{demo_served.url}/api/v1/builds", json={"name": name}).json()
        url = f"{demo_served.url}/api/v1/builds/{begun['build']['id']}"
        taken = HTTP.post(
            f"{url}/lots", json={"rack": "epp-6"}, headers={"If-Match": f'"{begun["revision"]}"'}
        ).json()
        wing = {"name": "Wing", "pedigree": "calculated", "uses": [{"lot": "epp-6", "amount": 30}]}
        HTTP.post(f"{url}/parts", json=wing, headers={"If-Match": f'"{taken["revision"]}"'})
        return begun["build"]["id"]

    one, other = plane("Turnstone"), plane("Dotterel")
    page.goto(f"{demo_served.url}/build/{one}/stock?on=rack")
    context = chromium.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB")
    watching = context.new_page()
    watching.goto(f"{demo_served.url}/build/{other}/bench")
    rod = watching.locator("[data-rod=auw]")
    expect(rod).to_contain_text("44 ±")
    page.get_by_label("What the scale shows").fill("1,7")
    page.get_by_label("What the scale shows").press("Enter")
    expect(page.locator(".moved")).to_contain_text("All-up weight")
    expect(rod).to_contain_text("53 ±")
    context.close()
    page.goto(f"{demo_served.url}/build/{other}/stock?on=rack")
    panel = page.get_by_role("complementary", name="Expanded polypropylene 6 mm")
    expect(panel).to_contain_text("in Turnstone")


def test_a_donors_weights_from_a_scrap_of_cardboard(stock):
    stock.get_by_role("link", name="Budget").click()
    stock.get_by_role("button", name="or as a donor weighs").click()
    stock.keyboard.type("Left wing 92 g\nMotor 28 g\nWhatnot")
    form = stock.get_by_role("form", name="A donor’s weights")
    expect(form).to_contain_text("Line 3: say what")
    stock.keyboard.type(" 4 g")
    expect(form).to_contain_text("Counted as the rest: Whatnot")
    form.get_by_label("what it was").fill("Old Plover")
    form.get_by_role("button", name="Take it as the budget").click()
    expect(form).to_have_count(0)
    expect(stock.get_by_role("region", name="Budget")).to_contain_text("as Old Plover weighs")
    expect(stock.get_by_label("Allotted to Foam and spars")).to_have_value("92")


def test_a_glue_of_ones_own_is_on_the_clock_by_its_label(stock):
    stock.locator("[data-lot=hot-glue]").click()
    after = stock.get_by_label("handle after, min")
    after.fill("240")
    after.press("Enter")
    expect(stock.get_by_label("strong after, h")).to_have_value("24")
    stock.get_by_label("rubbery when dry").check()
    holds = stock.get_by_label("What one stick or bottle holds")
    holds.fill("50")
    holds.press("Enter")
    stock.keyboard.press("Alt+4")
    stock.get_by_role("button", name="Spread a joint").click()
    own = stock.get_by_role("dialog").get_by_role("button", name="Hot glue bead")
    expect(own).to_contain_text("handle after 4 h")
    stock.keyboard.press("1")
    expect(stock.get_by_role("dialog")).to_have_count(0)
    stock.keyboard.press("Alt+3")
    stock.get_by_role("link", name="Shopping").click()
    row = stock.get_by_role("row", name=re.compile("Hot glue bead"))
    expect(row).to_contain_text("bottle")


def test_any_part_may_have_a_price(stock):
    stock.get_by_role("link", name="Shopping").click()
    missing = stock.get_by_text("Without a price")
    expect(missing).to_be_visible()
    prices = stock.get_by_label(re.compile("^Price of"))
    empty = next(each for each in prices.all() if each.input_value() == "")
    label = empty.get_attribute("aria-label").removeprefix("Price of ")
    expect(missing).to_contain_text(label)
    empty.fill("3.5")
    empty.press("Enter")
    expect(stock.get_by_label(f"Price of {label}", exact=True)).to_have_value("3.5")
    expect(missing).not_to_contain_text(label)
