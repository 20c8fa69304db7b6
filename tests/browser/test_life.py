"""What happened to a part, told from the Plan; the diary; a repaired part on the Bench."""

from playwright.sync_api import expect

from tests.browser.choosing import choose


def to(page, place: str) -> None:
    page.goto(page.url.rsplit("/", 1)[0] + f"/{place}")


def test_a_repair_is_told_and_the_part_goes_on_the_pan_as_it_is_now(bench):
    to(bench, "plan?on=parts")
    bench.get_by_role("button", name="Change Fuselage box").click()
    bench.get_by_role("button", name="it was repaired, replaced …").click()
    sheet = bench.get_by_label("What happened to it")
    sheet.get_by_label("glue and tape, about").fill("2")
    sheet.get_by_label("patches and doublers, about").fill("3.5")
    sheet.get_by_label("in words").fill("flew into a post")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet).not_to_be_visible()
    bench.get_by_role("link", name="Notebook", exact=True).click()
    diary = bench.get_by_label("Notebook")
    expect(diary.locator("li")).to_contain_text("flew into a post")
    expect(diary).to_contain_text("Balance not checked since")
    to(bench, "bench")
    bench.locator("[data-part=fuselage-box]").click()
    expect(bench.locator(".tag.on")).to_have_count(3)
    bench.locator("[data-part=fuselage-box]").click()
    expect(bench.locator(".tag.on")).to_have_count(0)


def test_a_pocket_is_cut_and_what_goes_in_sits_there(bench):
    to(bench, "plan?on=parts")
    bench.get_by_role("button", name="Change Fuselage box").click()
    bench.get_by_role("button", name="it was repaired, replaced …").click()
    sheet = bench.get_by_label("What happened to it")
    sheet.get_by_label("a pocket cut in it").check()
    sheet.get_by_label("Length of the pocket").fill("6 cm")
    sheet.get_by_label("Width of the pocket").fill("40")
    sheet.get_by_label("Depth of the pocket").fill("9")
    sheet.get_by_role("button", name="Write it down").click()
    expect(bench.get_by_text("5 mm thick")).to_be_visible()
    sheet.get_by_label("Depth of the pocket").fill("3")
    choose(sheet.get_by_label("What goes into it"), "Receiver")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet).not_to_be_visible()
    expect(bench.get_by_text("pocket in fuselage box").first).to_be_visible()


def test_what_cannot_be_is_said_in_the_sheet_and_nothing_is_written(bench):
    to(bench, "plan?on=parts")
    bench.get_by_role("button", name="Change Fin", exact=True).click()
    bench.get_by_role("button", name="it was repaired, replaced …").click()
    sheet = bench.get_by_label("What happened to it")
    sheet.get_by_label("sanded, trimmed").check()
    sheet.get_by_label("about").fill("a bit")
    sheet.get_by_role("button", name="Write it down").click()
    expect(sheet.get_by_role("alert")).to_contain_text("What came off")
    bench.keyboard.press("Escape")  # What is begun is there when the sheet is opened again.
    expect(sheet).not_to_be_visible()
    bench.get_by_role("button", name="it was repaired, replaced …").click()
    expect(sheet.get_by_label("about")).to_have_value("a bit")
    expect(sheet.get_by_role("alert")).to_have_count(0)
    sheet.get_by_label("about").fill("1.5")
    sheet.get_by_role("button", name="Write it down").click()
    expect(bench.get_by_label("Parts", exact=True)).to_contain_text("off fin")
    bench.get_by_role("button", name="it was repaired, replaced …").click()
    expect(sheet.get_by_label("glue and tape, about")).to_have_value("")
    sheet.get_by_role("button", name="Nothing happened").click()
    bench.get_by_role("link", name="Notebook", exact=True).click()
    expect(bench.get_by_label("Notebook")).to_contain_text("Fin trimmed")


def test_the_plane_as_it_was_on_a_day_and_finished(bench):
    to(bench, "plan?on=notebook")
    diary = bench.get_by_label("Notebook")
    diary.get_by_label("The plane as it was on").fill("2026-01-01")
    expect(diary.locator("[data-then]")).to_contain_text("% MAC")
    box = diary.get_by_label("finished")
    box.check()
    expect(diary).to_contain_text("finished on")


def test_the_running_total_stands_with_the_budget(bench):
    to(bench, "stock?on=budget")
    table = bench.get_by_label("So far")
    expect(table).to_contain_text("So far on a pan")
    expect(table.locator("tbody tr").first).to_contain_text("Wing")
    choose(bench.get_by_label("Measured by"), "Sandpiper")
    expect(table.locator("thead")).to_contain_text("running there")


def test_a_nose_within_the_fuselage_stands_under_it(bench):
    to(bench, "plan?on=parts")
    bench.get_by_role("button", name="Change Hatch").click()
    line = bench.locator("td form")
    line.get_by_label("Assembly").fill("Fuselage/Nose")
    line.get_by_label("Assembly").press("Enter")
    expect(bench.get_by_role("button", name="Change Hatch")).to_be_visible()
    to(bench, "bench")
    tray = bench.get_by_label("Tray")
    expect(tray.get_by_role("heading", name="Nose")).to_be_visible()
    tray.get_by_role("heading", name="Fuselage").click()
    expect(bench.locator("[data-part=hatch]")).to_have_attribute("aria-pressed", "true")
