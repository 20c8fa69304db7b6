"""A line chosen from a list, as a hand does it: the list opened, the line pressed."""

from playwright.sync_api import Locator, TimeoutError, expect

SCROLLED_PX = 200
TRIES, PATIENCE_MS = 10, 2_000


def choose(field: Locator, title: str) -> None:
    """Press the line `title` of the list that opens on `field`, and wait until it is closed."""
    field.locator("..").click()
    opened = field.page.locator(".v-overlay--active .v-list")
    expect(opened).to_be_visible()
    for _ in range(TRIES):
        line = _looked_for(opened, title)
        try:
            line.click(timeout=PATIENCE_MS)
        except TimeoutError:  # The list went to the line that was chosen before: look again.
            continue
        break
    expect(opened).to_have_count(0)


def _looked_for(opened: Locator, title: str) -> Locator:
    """The line, in sight: of a long list only the lines in sight are drawn."""
    line = opened.get_by_role("option").get_by_text(title, exact=True).first
    height, top = opened.evaluate("list => list.scrollHeight"), 0
    while not line.count() and top < height:
        opened.evaluate("(list, top) => { list.scrollTop = top }", top)
        opened.page.wait_for_timeout(50)
        top += SCROLLED_PX
    return line
