"""In inches and ounces with a decimal comma: each place, and no figure left in others."""

import json
import re

import pytest
from playwright.sync_api import expect

from oaken_scale.core.model.quantity import OUNCE_G
from tests.browser.waits import until
from tests.http import HTTP


def test_in_inches_and_ounces_no_figure_is_metric_and_every_decimal_mark_is_the_chosen_one(
    looked_at, demo_served
):
    """Names of parts and sheets stay as they were given; all else is as it was chosen."""
    names = set()
    for plane in ("sandpiper", "night-heron", "avocet", "mayfly", "dunlin"):
        build = HTTP.get(f"{demo_served.url}/api/v1/builds/{plane}").json()["build"]
        given = [*build["parts"], *build["lots"], *build["loadouts"], *build["scales"]]
        names |= {each["name"] for each in given} | {build["notes"]}
        names |= {each["source"] for each in (*build["lots"], *build["targets"])}
        names |= {each["words"] for each in build["diary"]}
    for lot in HTTP.get(f"{demo_served.url}/api/v1/rack").json():
        names |= {lot["lot"]["name"], lot["lot"]["source"]}
    ask = r"""() => {
        const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
        const told = []
        for (let node = walker.nextNode(); node; node = walker.nextNode()) {
            const at = node.parentElement
            if (!at.checkVisibility({visibilityProperty: true})) continue
            if (['STYLE', 'SCRIPT', 'OPTION', 'TITLE'].includes(at.tagName)) continue
            const text = node.textContent.trim()
            if (/(mm|g|gf|dm[²2]|m|m\/s)(?!\w)|\d\.\d/.test(text)) told.push(text)
        }
        return told
    }"""
    metric = re.compile(
        # after a figure, or by itself: the unit of a field, a column or a row
        r"\d ?(mm|g|gf|dm[²2]|g/dm[²2]|m|m/s)(?!\w)"
        r"|(?<![\w/])(mm|gf|dm[²2]|g/dm[²2]|m/s)(?!\w)|^[gm]$|, [gm]$|\d\.\d"
    )
    left = []
    for place, texts in looked_at("desk", (ask,), units="imperial", mark=",").items():
        for text in texts[0]:
            rest = text
            for name in sorted(filter(None, names), key=len, reverse=True):
                rest = re.sub(re.escape(name), "", rest, flags=re.IGNORECASE)
            if metric.search(rest):
                left.append((place, text))
    assert not left, json.dumps(left, indent=1)


def test_a_scale_a_tray_and_a_sheet_are_said_in_the_chosen_units(page, sandpiper):
    page.add_init_script("localStorage.setItem('oaken-scale-units', 'imperial')")

    def told():
        return HTTP.get(sandpiper.replace("/build/", "/api/v1/builds/")).json()["build"]

    page.goto(f"{sandpiper}/plan?on=scales")
    step = page.get_by_label("Kitchen scale, step")
    expect(step).to_have_value("0.0035")  # a tenth of a gram, of 28.35
    step.fill("0.05")
    step.press("Enter")
    until(page, lambda: told()["scales"][0]["step_g"] == pytest.approx(0.05 * OUNCE_G))
    page.get_by_label("Tray, mass").fill("1")
    page.get_by_label("Tray, mass").press("Enter")
    until(page, lambda: told()["containers"][0]["mass_g"] == pytest.approx(OUNCE_G))
    page.get_by_label("Check weight on Kitchen scale").fill("4")
    page.get_by_label("Kitchen scale shows").fill("4.05")
    page.get_by_label("Kitchen scale shows").press("Enter")
    until(page, lambda: told()["weighings"][-1]["reading_g"] == pytest.approx(4.05 * OUNCE_G))
    assert told()["weighings"][-1]["pan"]["known_g"] == pytest.approx(4 * OUNCE_G)
    page.goto(f"{sandpiper}/stock?on=rack")
    per_m = {lot["id"] for lot in told()["lots"] if lot["unit"] == "m"}
    opened = HTTP.get(sandpiper.replace("/build/", "/api/v1/builds/")).json()
    for lot in opened["assessment"]["lots"]:
        if lot["id"] in per_m:  # as exact as 0.01 g/m
            per_foot = f"{lot['constant'] * 0.3048 / OUNCE_G:.4f}"
            expect(page.locator(f"[data-lot={lot['id']}]")).to_contain_text(per_foot)
    page.locator("[data-lot=sheet-a]").click()
    page.get_by_label("Length of one").fill("30")
    page.get_by_label("Width of one").fill("20")
    page.get_by_label("Width of one").press("Enter")
    until(page, lambda: told()["lots"][0]["width_mm"] == pytest.approx(508.0))
    assert told()["lots"][0]["length_mm"] == pytest.approx(762.0)
    stated = page.get_by_label("Sheet A, both papers, oz/ft²")
    before = told()["lots"][0]["constant"]
    expect(stated).to_have_value(f"{before / (OUNCE_G / 9.290304):.2f}".rstrip("0"))
    for typed, dm2 in (("45 g per m²", 0.45), ("1.5", 1.5 * OUNCE_G / 9.290304)):
        stated.fill(typed)
        stated.press("Enter")
        until(page, lambda dm2=dm2: told()["lots"][0]["constant"] == pytest.approx(dm2))
    page.get_by_role("button", name="the whole sheet").click()
    expect(page.get_by_label("Size of the piece")).to_have_value("30 x 20 in")
    # A sample is cut with the ruler at hand: a square of 4 in is a ninth of a square foot.
    page.goto(f"{sandpiper}/bench")
    page.locator(".sample", has_text="Sheet A").click()
    on = page.locator("label", has_text="Sheet A, both papers: on the pan")
    expect(on).to_contain_text("ft² (a 4 in square is 0.111)")
    expect(on.locator("input")).to_have_value("0.111")
    expect(page.get_by_label("Till roll")).to_be_visible()
    page.keyboard.type("0.17")
    page.keyboard.press("Enter")
    until(page, lambda: told()["weighings"][-1]["reading_g"] == pytest.approx(0.17 * OUNCE_G))
    (square,) = told()["weighings"][-1]["pan"]["samples"]
    assert square["amount"] == pytest.approx((4 * 0.254) ** 2)


def test_in_ounces_a_figure_says_as_much_as_in_grams(page, sandpiper):
    """Whole ounces are of 28 g: what is over its allotment by 7 g is not over by none. Each figure
    of the budget, of so far and of a moved weight against the same in grams, to a tenth; to a
    hundredth where it or its doubt would be nothing else."""
    page.goto(f"{sandpiper}/stock?on=budget")
    told = HTTP.get(sandpiper.replace("/build/", "/api/v1/builds/")).json()["assessment"]
    page.evaluate("() => localStorage.setItem('oaken-scale-units', 'imperial')")
    page.reload()
    for line in told["budget"]:
        if line["left_g"] is None:
            continue
        row = page.locator(f"[data-group={line['group']}]")
        least = min(abs(line["left_g"]), 2 * line["sd_g"]) / OUNCE_G
        digits = 1 if least >= 0.05 else 2
        expect(row).to_contain_text(f"{abs(line['left_g']) / OUNCE_G:.{digits}f} oz")
    head = page.get_by_text("So far on a pan")
    expect(head).to_contain_text(f"{told['so_far']['been_g'] / OUNCE_G:.1f} oz of")
    expect(head).to_contain_text(f"{told['so_far']['forecast_g'] / OUNCE_G:.1f} oz")
