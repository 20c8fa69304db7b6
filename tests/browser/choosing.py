"""A line chosen from a list, as a hand does it: the list opened and at rest, the line pressed."""

from playwright.sync_api import Locator, TimeoutError, expect

SCROLLED_PX = 200
TRIES, PATIENCE_MS = 10, 2_000

# A list that opens goes to the line that was chosen before: it is at rest once it moves no more.
AT_REST = """list => new Promise((told) => {
    let last, still = 0
    const look = () => {
        const at = `${list.scrollTop} ${list.getBoundingClientRect().top}`
        still = at === last ? still + 1 : 0
        last = at
        if (still > 5 || !list.isConnected) told()
        else requestAnimationFrame(look)
    }
    look()
})"""


def choose(field: Locator, title: str) -> None:
    """Press the line `title` of the list that opens on `field`, and wait until it is closed."""
    field.locator("..").click()
    opened = field.page.locator(".v-overlay--active .v-list")
    expect(opened).to_be_visible()
    opened.evaluate(AT_REST)
    for _ in range(TRIES):
        try:
            _looked_for(opened, title).click(timeout=PATIENCE_MS)
            expect(opened).to_have_count(0, timeout=PATIENCE_MS)
        except (TimeoutError, AssertionError):  # It moved under the press: look again.
            if opened.count():
                continue
        return
    raise AssertionError(f"{title} was not chosen")


def _looked_for(opened: Locator, title: str) -> Locator:
    """The line, in sight: of a long list only the lines in sight are drawn."""
    line = opened.get_by_role("option").get_by_text(title, exact=True).first
    height, top = opened.evaluate("list => list.scrollHeight"), 0
    while not line.count() and top < height:
        opened.evaluate("(list, top) => { list.scrollTop = top }", top)
        opened.page.wait_for_timeout(50)
        top += SCROLLED_PX
    return line
