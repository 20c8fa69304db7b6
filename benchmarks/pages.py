"""How soon the first parts stand on the screen, on a machine four times slower than this one."""

import statistics
import tempfile
from pathlib import Path

from playwright.sync_api import Browser, sync_playwright

from benchmarks.servers import free_port, started
from tests.browsers import QUIET, chromium_path

SLOWER = 4
FIRST_TAG = """new MutationObserver((_, all) => {
    if (!document.querySelector('[data-part=motor]')) return
    all.disconnect()
    requestAnimationFrame(() => (window.firstPart = performance.now()))
}).observe(document, {childList: true, subtree: true})"""


def first_parts(browser: Browser, url: str, is_warm: bool, times: int = 7) -> float:
    """The median of when the first tag is painted [ms], with or without what is kept of a page
    that was opened before."""
    taken = []
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    for k in range(times + is_warm):
        if not is_warm:
            context = browser.new_context(viewport={"width": 1280, "height": 800})
        page = context.new_page()
        slowed = context.new_cdp_session(page)
        slowed.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
        page.add_init_script(FIRST_TAG)
        page.goto(url)
        page.wait_for_selector("[data-part=motor]")
        page.wait_for_timeout(300)
        if k or not is_warm:
            taken.append(float(page.evaluate("() => window.firstPart")))
        page.close()
    return statistics.median(taken)


def pages() -> list[tuple[str, float]]:
    """What is measured, and its milliseconds; nothing where there is no browser."""
    path = chromium_path()
    if path is None:
        return []
    with tempfile.TemporaryDirectory() as folder, sync_playwright() as playwright:
        port = free_port()
        where = ["--port", str(port), "--database", str(Path(folder) / "demo.sqlite")]
        server = started(["-m", "oaken_scale.cli", "demo", *where], f"http://127.0.0.1:{port}/")
        browser = playwright.chromium.launch(executable_path=path, args=[*QUIET])
        url = f"http://127.0.0.1:{port}/build/sandpiper/bench"
        try:
            return [
                ("first parts, nothing kept of an earlier visit", first_parts(browser, url, False)),
                ("first parts, opened before", first_parts(browser, url, True)),
            ]
        finally:
            browser.close()
            server.kill()
