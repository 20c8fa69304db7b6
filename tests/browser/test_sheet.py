"""The Sheet in the real page: what is shown is what is printed."""

import re
from io import BytesIO
from pathlib import Path
from xml.etree import ElementTree

import pytest
from playwright.sync_api import expect
from pypdf import PdfReader

from tests.browser.choosing import choose


@pytest.fixture
def paper(bench):
    bench.keyboard.press("Alt+8")
    expect(bench.locator(".paper > svg")).to_be_visible()
    choose(bench.get_by_label("Paper", exact=True), "A4")
    expect(bench.locator('.paper > svg[viewBox="0 0 210 297"]')).to_be_visible()
    return bench


def test_the_page_on_the_screen_is_the_page_on_paper(paper):
    shown = paper.locator(".paper > svg text").all_text_contents()
    printed = PdfReader(BytesIO(paper.pdf(format="A4", print_background=True)))
    assert len(printed.pages) == 1
    words = re.sub(r"\s", "", printed.pages[0].extract_text())
    for text in shown:
        assert re.sub(r"\s", "", text) in words
    assert "undo" not in words
    with paper.context.expect_event("request", lambda asked: ".pdf" in asked.url) as asked:
        paper.get_by_role("link", name="PDF").click()
    made = PdfReader(BytesIO(paper.request.get(asked.value.url).body()))
    text = re.sub(r"\s", "", made.pages[0].extract_text())
    assert all(re.sub(r"\s", "", each) in text for each in shown)


def test_it_follows_the_loadout_and_the_units(paper):
    name = paper.locator(".rods .loadout").inner_text()
    expect(paper.locator(".paper > svg")).to_contain_text(name)
    expect(paper.get_by_label("Paper", exact=True)).not_to_be_focused()
    paper.keyboard.press("l")
    expect(paper.locator(".rods .loadout")).not_to_have_text(name)
    now = paper.locator(".rods .loadout").inner_text()
    first = paper.locator(".paper > svg text", has_text=re.compile("cell")).first
    expect(first).to_have_text(now)
    choose(paper.get_by_label("Units"), "oz, in, oz/ft²")
    expect(paper.locator(".paper > svg")).to_contain_text("Weights, oz")


@pytest.mark.parametrize("ending", ["SVG", "PNG"])
def test_it_is_kept_as_a_picture(paper, ending, tmp_path):
    with paper.expect_download() as kept:
        paper.get_by_role("button", name=ending).click()
    assert kept.value.suggested_filename == f"sandpiper-sheet.{ending.lower()}"
    file = Path(tmp_path / "picture")
    kept.value.save_as(file)
    begins = file.read_bytes()[:80]
    assert begins.startswith(b"<svg" if ending == "SVG" else b"\x89PNG")
    assert file.stat().st_size > 50_000


def kind(page, link: str) -> str:
    ask = "link => fetch(link).then((answer) => answer.headers.get('content-type'))"
    return page.evaluate(ask, link)


def test_labels_and_full_size_are_a_press_away(paper):
    paper.get_by_label("On paper").get_by_role("link", name="Labels").click()
    choose(paper.get_by_label("Labels for"), "packs")
    choose(paper.get_by_label("Sheet of labels"), "plain paper, to cut")
    link = paper.get_by_role("link", name="Labels, PDF").get_attribute("href")
    assert "of=packs" in link
    assert "grid=free" in link
    assert kind(paper, link) == "application/pdf"
    paper.get_by_label("On paper").get_by_role("link", name="At full size").click()
    for name in ("Balance marks, PDF", "Wing, PDF"):
        link = paper.get_by_role("link", name=name).get_attribute("href")
        assert kind(paper, link) == "application/pdf"


def test_a_builders_own_list_is_looked_at_and_taken_in(paper):
    paper.get_by_label("On paper").get_by_role("link", name="Files").click()
    text = (
        "Bauteil;Gewicht (g);Hebelarm (cm);Anzahl\n"
        "Schleppkupplung;4,5;12;1\nLampe;2;30;2\nSumme;8,5;;\n"
    )
    paper.get_by_label("List of parts").set_input_files(
        {"name": "liste.csv", "mimeType": "text/csv", "buffer": text.encode("cp1252")}
    )
    rows = paper.locator(".from-file tbody tr")
    expect(rows).to_have_count(3)
    expect(rows.nth(0)).to_contain_text("120")
    expect(rows.nth(2)).to_contain_text("is a sum")
    # 4.5 and two of 2 are 8.5, as the sum says.
    several = paper.locator(".from-file p", has_text="2 × Lampe weigh")
    expect(several).to_contain_text("is of each piece: 2 × Lampe weigh 4.0 g together")
    several.get_by_role("button", name="it is of all of them").press("Enter")
    expect(several).to_contain_text("is of all the pieces: 2 × Lampe weigh 2.0 g together")
    several.get_by_role("button", name="it is of each").press("Enter")
    expect(rows.nth(1)).to_contain_text("4.0")
    paper.get_by_label("Take Lampe").uncheck()
    paper.get_by_role("button", name="Take in 1").click()
    expect(rows.nth(0)).to_contain_text("is on the list already")
    expect(rows.nth(1)).not_to_contain_text("is on the list already")
    paper.get_by_role("button", name="undo", exact=True).click()
    expect(paper.locator(".line .words").first).to_contain_text("Taken back")
    with paper.expect_download() as kept:
        paper.get_by_role("link", name="Everything as one spreadsheet").click()
    assert kept.value.suggested_filename == "sandpiper-lists.xlsx"


@pytest.mark.parametrize(
    ("place", "what"), [("plan?on=drawing", "drawing"), ("balance", "beam"), ("power", "curves")]
)
def test_drawings_are_kept_as_pictures_that_stand_alone(bench, place, what, tmp_path):
    bench.goto(bench.url.replace("/bench", f"/{place}"))
    for ending in ("SVG", "PNG"):
        with bench.expect_download() as kept:
            bench.get_by_role("button", name=f"{what} as {ending}").click()
        assert kept.value.suggested_filename == f"sandpiper-{what}.{ending.lower()}"
        file = Path(tmp_path / ending)
        kept.value.save_as(file)
        if ending == "PNG":
            assert file.read_bytes().startswith(b"\x89PNG")
            continue
        drawn = ElementTree.fromstring(file.read_text())
        looks = [each.get("style", "") for each in drawn.iter() if each.tag.endswith("text")]
        assert looks
        assert all("font-size:" in look and "var(" not in look for look in looks)
        assert "font/woff2;base64," in file.read_text()


def test_a_log_from_a_file_is_looked_at_and_kept_once(paper, tmp_path):
    log = tmp_path / "log.csv"
    paper.get_by_role("link", name="Files").click()
    with paper.expect_download() as out:
        paper.get_by_role("link", name="Weighings, CSV").click()
    lines = Path(out.value.path()).read_text("utf-8-sig").splitlines()
    name = lines[1].split('"')[1] if '"' in lines[1] else lines[1].split(",")[2]
    more = [f'2026-03-08T09:00:00,62.4,"{name}"', "2026-03-08,12.0,Nobody's part"]
    log.write_text("\n".join([*lines, *more]))
    paper.get_by_label("File with a list").set_input_files(log)
    expect(paper.get_by_text("1 new", exact=True)).to_be_visible()
    expect(paper.get_by_text("1 cannot be taken")).to_be_visible()
    expect(paper.get_by_text('there is no part "Nobody\'s part"')).to_be_visible()
    paper.get_by_role("button", name="Keep 1 new").click()
    expect(paper.get_by_text("1 line of weighings added")).to_be_visible()
    paper.get_by_label("File with a list").set_input_files(log)
    expect(paper.get_by_text("0 new", exact=True)).to_be_visible()
    expect(paper.get_by_role("button", name="Keep 0 new")).to_be_disabled()
