"""Renew the pictures in docs/screenshots from the demo workshop: `make screenshots`."""

import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.browser.choosing import choose
from tests.browsers import QUIET, chromium_path

PICTURES = Path(__file__).parent / "screenshots"
DESK = {"width": 1280, "height": 800}
PHONE = {"width": 390, "height": 844}


def serve(folder: str) -> tuple[subprocess.Popen[bytes], str]:
    """Start the demo on a free port."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    where = ["--port", str(port), "--database", f"{folder}/demo.sqlite"]
    server = subprocess.Popen([sys.executable, "-m", "oaken_scale.cli", "demo", *where])
    url = f"http://127.0.0.1:{port}"
    for _ in range(600):
        try:
            urllib.request.urlopen(f"{url}/api/v1/builds").close()
            return server, url
        except OSError:
            time.sleep(0.1)
    server.kill()
    raise RuntimeError("the demo did not start")


def bench(page: Page, url: str) -> None:
    """Put the right wing panel on the pan and let it settle."""
    page.goto(f"{url}/build/sandpiper/bench")
    panel = page.locator("[data-part=right-panel]")
    panel.wait_for()
    page.wait_for_timeout(600)
    if panel.get_attribute("aria-pressed") == "false":
        panel.click()
    page.get_by_text("expected").wait_for()
    page.wait_for_timeout(1500)
    page.locator(".lamp.steady").first.wait_for()


def stock(page: Page, url: str) -> None:
    """The Stock: a square of sheet weighed, outlines read, a wing folded, parts laid."""
    page.goto(f"{url}/build/sandpiper/stock?on=rack")
    page.locator("[data-lot=sheet-b]").click()
    page.get_by_label("What the scale shows").fill("3.2")
    page.get_by_label("What the scale shows").press("Enter")
    page.locator(".moved").wait_for()
    page.wait_for_timeout(500)
    page.screenshot(path=PICTURES / "stock.png")
    page.goto(f"{url}/build/sandpiper/stock?on=outlines")
    page.locator("input[type=file]").set_input_files(PICTURES.parent / "examples" / "tail.svg")
    page.locator(".drawing").wait_for()
    page.wait_for_timeout(300)
    page.screenshot(path=PICTURES / "outlines.png")
    page.goto(f"{url}/build/sandpiper/stock?on=cutting")
    page.get_by_role("button", name="Lay them on sheets").click()
    page.get_by_role("button", name="Lay them again").wait_for()
    page.wait_for_timeout(300)
    page.screenshot(path=PICTURES / "cutting.png")
    page.goto(f"{url}/build/sandpiper/stock?on=ways")
    for part in ("Fuselage box", "Hatch", "Tailplane"):
        page.get_by_role("button", name=part, exact=True).click()
    page.get_by_role("button", name="the same, one paper off").click()
    page.get_by_role("button", name="Extruded polystyrene 6 mm").click()
    page.locator("thead th:nth-child(4)").wait_for()
    page.wait_for_timeout(300)
    page.screenshot(path=PICTURES / "ways.png")


def balance(page: Page, url: str) -> None:
    """The Balance of Sandpiper; what its drive gives."""
    page.goto(f"{url}/build/sandpiper/balance")
    page.get_by_text("Slide the").first.wait_for()
    page.wait_for_timeout(900)
    page.screenshot(path=PICTURES / "balance.png")
    page.goto(f"{url}/build/sandpiper/power")
    page.get_by_role("heading", name="On the stand").wait_for()
    page.wait_for_timeout(500)
    page.screenshot(path=PICTURES / "power.png")


def plan_day(page: Page, url: str) -> None:
    """What fits where, and the order of the day."""
    for on, words in (("fit", "such would go in"), ("day", "Hands busy")):
        page.goto(f"{url}/build/sandpiper/plan?on={on}")
        page.get_by_text(words).first.wait_for()
        page.wait_for_timeout(400)
        page.screenshot(path=PICTURES / f"{on}.png")


def sheet(page: Page, url: str) -> None:
    """The plane on one page."""
    page.goto(f"{url}/build/sandpiper/sheet")
    page.locator(".paper > svg").wait_for()
    page.locator(".rods .v-select").wait_for()
    page.screenshot(path=PICTURES / "sheet.png")


def begin(page: Page) -> None:
    """The map of spans and chords, from the Shed."""
    page.get_by_role("link", name="With what is there").click()
    page.get_by_role("application").wait_for()
    for label, wanted in (("All-up weight, at most", "590"), ("Static thrust", "480")):
        page.get_by_label(label).fill(wanted)
        page.get_by_label(label).press("Enter")
    choose(page.get_by_label("What it is for"), "Camera carrier")
    page.wait_for_timeout(1500)
    page.get_by_text("refining").wait_for(state="detached")
    page.wait_for_timeout(300)
    page.screenshot(path=PICTURES / "begin.png")


def field(phone: Page, desk: Page, url: str) -> None:
    """The list on a phone, and a page of throws."""
    phone.goto(f"{url}/build/night-heron/field")
    phone.get_by_role("heading", name="Not ready").wait_for()
    phone.wait_for_timeout(400)
    phone.screenshot(path=PICTURES / "field-phone.png")
    desk.goto(f"{url}/build/dunlin/field?on=throw")
    desk.get_by_label("What next").wait_for()
    desk.wait_for_timeout(400)
    desk.screenshot(path=PICTURES / "field-throws.png")


def main() -> None:
    """Take every picture."""
    PICTURES.mkdir(exist_ok=True)
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        server, url = serve(folder)
        browser = playwright.chromium.launch(executable_path=chromium_path(), args=[*QUIET])
        desk = browser.new_context(viewport=DESK, locale="en-GB").new_page()
        bench(desk, url)
        desk.wait_for_timeout(500)
        desk.screenshot(path=PICTURES / "bench.png")
        desk.keyboard.press("d")
        desk.wait_for_timeout(500)
        desk.screenshot(path=PICTURES / "doubt.png")
        desk.locator("h2", has_text="Weigh next").click()
        desk.get_by_text("lamp", exact=True).click()
        desk.wait_for_timeout(300)
        desk.screenshot(path=PICTURES / "bench-lamp.png")
        desk.get_by_text("daylight", exact=True).click()
        desk.goto(f"{url}/")
        desk.locator("article").first.wait_for()
        desk.wait_for_timeout(300)
        desk.screenshot(path=PICTURES / "shed.png")
        begin(desk)
        plan_day(desk, url)
        desk.goto(f"{url}/build/sandpiper/plan")
        desk.get_by_label("What the drawing comes to").wait_for()
        desk.wait_for_timeout(500)
        desk.screenshot(path=PICTURES / "plan.png")
        desk.goto(f"{url}/build/sandpiper/plan?on=parts")
        desk.get_by_label("by assembly").check()
        desk.wait_for_timeout(400)
        desk.screenshot(path=PICTURES / "parts.png")
        balance(desk, url)
        stock(desk, url)
        phone = browser.new_context(viewport=PHONE, has_touch=True, is_mobile=True).new_page()
        bench(phone, url)
        phone.evaluate("scrollTo(0, 0)")
        phone.wait_for_timeout(400)
        phone.screenshot(path=PICTURES / "bench-phone.png")
        sheet(desk, url)
        field(phone, desk, url)
        browser.close()
        server.kill()


if __name__ == "__main__":
    main()
