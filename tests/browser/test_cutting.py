"""Parts on sheets as a builder sees them: laid while one looks on, and taken along as files."""

import re

import pytest
from playwright.sync_api import expect

from tests.browser.choosing import choose
from tests.browser.waits import build_told, holding, let_go, until


@pytest.fixture
def cutting(page, sandpiper):
    page.goto(f"{sandpiper}/stock?on=cutting")
    expect(page.get_by_role("checkbox", name="Lay Fin")).to_be_visible()
    return page


def lay(page):
    page.get_by_role("button", name=re.compile("^Lay them")).click()
    # Better ways are looked for as long as 10 s, of a machine that may have more to do.
    expect(page.get_by_role("button", name="Lay them again")).to_be_visible(timeout=60_000)


def test_the_sheets_that_it_takes_and_where_each_part_lies(cutting):
    lay(cutting)
    for name, parts in (("Sheet A", "Fuselage box"), ("Sheet B", "Left wing panel")):
        plan = cutting.get_by_role("region", name=re.compile(name))
        expect(plan).to_contain_text("One sheet; the areas alone would need 1.")
        expect(plan.get_by_role("img")).to_have_accessible_name(re.compile(parts))
    # Kept on this device: it is there again, and says when a part has changed since.
    cutting.reload()
    expect(cutting.get_by_role("region", name=re.compile("Sheet A"))).to_be_visible()
    expect(cutting.get_by_text("have changed since")).to_have_count(0)
    cutting.get_by_label("How Fin lies on the sheet").select_option("along")
    expect(cutting.get_by_text("have changed since these were laid")).to_be_visible()


def test_it_can_be_stopped_and_what_was_found_stands(cutting):
    field = cutting.get_by_label("Margin at the sheet’s edge")
    field.fill("3 cm")  # now sheet B takes one more than its areas: better ways are looked for
    field.press("Enter")
    cutting.get_by_role("button", name="Lay them on sheets").click()
    stop = cutting.get_by_role("button", name="Stop: this will do")
    expect(cutting.get_by_role("progressbar")).to_be_visible()
    plan = cutting.get_by_role("region", name=re.compile("Sheet A"))
    expect(plan).to_be_visible()
    stop.evaluate_all("(buttons) => buttons.forEach((button) => button.click())")
    expect(cutting.get_by_role("button", name="Lay them again")).to_be_visible()
    expect(plan.get_by_role("img").first).to_be_visible()


def test_a_kerf_as_wide_as_a_part_is_refused_by_the_name_on_the_screen(cutting):
    field = cutting.get_by_label("Kerf", exact=True)
    field.fill("6 cm")
    field.press("Enter")
    cutting.get_by_role("button", name="Lay them on sheets").click()
    expect(cutting.get_by_role("alert")).to_contain_text(
        re.compile("^The kerf is 60 mm, no narrower")
    )


def test_only_what_is_wanted_is_laid_and_it_goes_out_as_a_file(cutting):
    for box in cutting.get_by_role("checkbox").all()[1:]:
        box.uncheck()
    lay(cutting)
    sheet = cutting.get_by_role("img", name=re.compile("sheet 1"))
    expect(sheet).to_have_accessible_name(re.compile("sheet 1: Left wing panel$"))
    with cutting.expect_download() as told:
        cutting.get_by_role("button", name="DXF").click()
    assert told.value.suggested_filename == "sandpiper-cuts.dxf"
    assert "LWPOLYLINE" in open(told.value.path()).read()  # noqa: SIM115


def test_a_part_without_an_outline_gets_its_sides_typed(page, demo_served):
    page.goto(f"{demo_served.url}/build/avocet/stock?on=cutting")
    long = page.get_by_label(re.compile("length of its outline")).first
    wide = page.get_by_label(re.compile("width of its outline")).first
    name = long.get_attribute("aria-label").split(",")[0]
    row = page.get_by_role("row", name=re.compile(re.escape(name)))
    expect(row).to_contain_text("counts as a plain rectangle")
    long.fill("40 cm")
    long.press("Enter")
    wide.fill("120")
    wide.press("Enter")
    expect(row).to_contain_text("400 mm by 120 mm")
    expect(page.get_by_label(f"How {name} lies on the sheet")).to_be_visible()


def test_a_wing_is_folded_kept_left_and_right_and_cut(page, sandpiper):
    page.goto(f"{sandpiper}/stock?on=folds")
    choose(page.get_by_label("What is folded", exact=True), "a half wing, by its section")
    folds = page.get_by_role("region", name="Folds")
    expect(folds).to_contain_text("to cut, across the folds")
    expect(folds).to_contain_text("393.2 mm")  # worked by hand: 190 + 9.95 + 59.27 + 133.99
    thick = page.get_by_label("thick over all")
    thick.fill("9")
    expect(folds.get_by_role("alert")).to_contain_text("“thick over all” is 9 mm")
    expect(page.get_by_role("button", name="Keep it")).to_be_disabled()
    thick.fill("2.2 cm")
    thick.press("Enter")
    page.get_by_label("Name of what is folded").fill("Spare wing")
    station = page.get_by_label("Where it begins, from the nose")
    station.fill("186")
    station.press("Enter")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("Spare wing kept")).to_be_visible()
    page.get_by_role("link", name="Cutting").click()
    for side in ("left", "right"):
        row = page.get_by_role("row", name=re.compile(f"Spare wing, {side}"))
        expect(row).to_contain_text("500 mm by 393 mm")
    lay(page)
    expect(page.locator(".piece .fold")).to_have_count(4)


def test_the_sides_of_a_body_are_doubled_and_cut_with_it(page, sandpiper):
    page.goto(f"{sandpiper}/stock?on=folds")
    folds = page.get_by_role("region", name="Folds")
    back = page.get_by_label("sides doubled, back to")
    back.fill("70 cm")
    expect(folds.get_by_role("alert")).to_contain_text("at most 600 mm")
    back.fill("20 cm")
    back.press("Enter")
    expect(folds).to_contain_text("40.0 wide, 75.0 mm high")
    expect(folds).to_contain_text("2 × 1.50 dm²")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("Fuselage box kept")).to_be_visible()
    page.get_by_role("link", name="Cutting").click()
    for side in ("left", "right"):
        row = page.get_by_role("row", name=re.compile(f"Fuselage box, doubler, {side}"))
        expect(row).to_contain_text("200 mm by 75 mm")


def test_what_is_refused_is_said_in_the_units_that_were_chosen(bench):
    bench.evaluate("() => localStorage.setItem('oaken-scale-units', 'imperial')")
    bench.goto(bench.url.replace("/bench", "/stock?on=folds"))
    wide = bench.get_by_label("wide outside")
    wide.fill("0.3")
    wide.press("Enter")
    told = bench.get_by_role("region", name="Folds").get_by_role("alert")
    expect(told).to_contain_text("“wide outside” is 0.30 in; its two walls alone take 0.39 in")


def test_what_is_folded_is_of_the_sizes_that_stand_there(page, sandpiper):
    """Typed and kept in one go, before the workshop told how it folds."""
    page.goto(f"{sandpiper}/stock?on=folds")
    folds = page.get_by_role("region", name="Folds")
    expect(folds).to_contain_text("to cut, across the folds")
    held, let = holding(page, "**/api/v1/folds")
    long = folds.get_by_label("long", exact=True)
    long.fill("400")
    long.press("Enter")
    page.get_by_role("button", name="Keep it").click()
    let_go(page, held, let)
    parts = until(
        page,
        lambda: [p for p in build_told(page)["build"]["parts"] if p["assembly"] == "Fuselage"],
        lambda found: any(each["pattern"] and each["pattern"]["folds"] for each in found),
    )
    (box,) = [each for each in parts if each["pattern"] and each["pattern"]["folds"]]
    across = [x for ring in box["pattern"]["rings"] for x, _ in ring]
    assert max(across) - min(across) == pytest.approx(400)
