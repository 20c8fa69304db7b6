"""A phone comes in by a code and is shut out again; a page follows a workshop that was renewed."""

import re
import socket

import pytest
from playwright.sync_api import expect

from tests.server import Server


def free_port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


@pytest.fixture
def open_door(tmp_path):
    """The demo workshop with a door to the network; (this machine's address, the network's)."""
    port = free_port()
    more = ("--lan", "--lan-port", str(port), "--lan-address", "localhost")
    server = Server("demo", tmp_path / "demo.sqlite", more=more).start()
    yield server.url, f"https://localhost:{port}"
    server.kill()


@pytest.fixture
def phone(chromium):
    context = chromium.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, ignore_https_errors=True
    )
    opened = context.new_page()
    opened.set_default_timeout(30_000)
    yield opened
    context.close()


def test_a_phone_is_let_in_by_a_code_works_and_is_shut_out(page, phone, open_door):
    here, network = open_door
    phone.goto(f"{network}/build/sandpiper/bench")
    phone.wait_for_url("**/let-in")
    expect(phone.get_by_role("heading", name="Come in")).to_be_visible()
    expect(phone.get_by_text("Sandpiper")).to_have_count(0)

    page.goto(here)
    page.get_by_role("button", name="Let a phone in").click()
    page.get_by_role("button", name="Show a code").click()
    expect(page.get_by_alt_text("The code, to be scanned")).to_be_visible()
    code = page.locator(".letters").inner_text()
    phone.get_by_label("Code").fill("ABCD-2345")
    phone.get_by_label("What this phone is called").fill("Thumb")
    phone.get_by_role("button", name="Come in").click()
    expect(phone.get_by_role("alert")).to_have_text(re.compile("^this code does not open: it was"))
    phone.get_by_label("Code").fill(code.lower())
    phone.get_by_role("button", name="Come in").click()
    expect(page.get_by_text("Thumb was let in.")).to_be_visible()
    expect(phone.get_by_role("heading", name="Shed")).to_be_visible()
    expect(phone.get_by_role("button", name="Let a phone in")).to_have_count(0)

    phone.goto(f"{network}/build/sandpiper/bench")
    expect(phone.locator("[data-part=motor]")).to_be_visible()
    expect(page.get_by_text("Thumb", exact=True)).to_be_visible()
    expect(page.locator(".letters")).to_have_count(0)  # It opens nothing any more.
    page.get_by_role("button", name="Shut Thumb out").click()
    expect(page.get_by_text("Nobody yet.")).to_be_visible()
    phone.goto(f"{network}/build/sandpiper/bench")
    phone.wait_for_url("**/let-in")


def test_where_there_is_no_door_it_is_said_how_to_open_one(page, demo_served):
    page.goto(demo_served.url)
    page.get_by_role("button", name="Let a phone in").press("Enter")
    expect(page.get_by_text("oaken-scale serve --lan")).to_be_visible()
    page.get_by_role("button", name="Close").focus()
    page.keyboard.press("Escape")
    expect(page.get_by_role("button", name="Let a phone in")).to_be_focused()


def test_a_page_follows_a_renewed_workshop_when_nobody_is_typing(bench):
    bench.evaluate("window.before = true")

    def renewed(route):
        if route.request.url.endswith("/events"):
            return route.continue_()
        answer = route.fetch()
        return route.fulfill(
            response=answer, headers={**answer.headers, "oaken-pages": "index-new.js"}
        )

    bench.route("**/api/v1/builds/**", renewed)
    bench.get_by_label("Reading", exact=False).first.fill("12.3")
    bench.evaluate("document.activeElement.focus()")
    bench.locator("[data-part=motor]").first.dispatch_event("click")
    expect(bench.get_by_text("The workshop was renewed")).to_be_visible()
    assert bench.evaluate("window.before") is True
    bench.evaluate("document.activeElement.blur()")
    bench.wait_for_function("() => window.before === undefined")
    bench.unroute_all(behavior="ignoreErrors")
    expect(bench.locator("[data-part=motor]")).to_be_visible()
    expect(bench.get_by_text("The workshop was renewed")).to_have_count(0)


def test_a_press_that_wants_a_piece_of_older_pages_opens_the_newer_ones(phone, demo_served):
    """A workshop that was renewed has the pieces of the page before no more."""
    phone.goto(demo_served.url)
    verb = phone.get_by_role("button", name="Begin a build")
    expect(verb).to_be_visible()
    phone.evaluate("window.before = true")
    phone.route("**/assets/BeginBuild*", lambda route: route.fulfill(status=404))

    def renewed(route):
        answer = route.fetch()
        headers = {**answer.headers, "oaken-pages": "index-new.js"}
        return route.fulfill(response=answer, headers=headers)

    phone.route("**/api/v1/door", renewed)
    verb.click()
    phone.wait_for_function("() => window.before === undefined")
    phone.unroute_all(behavior="ignoreErrors")
    expect(phone.get_by_text("The workshop was renewed")).to_have_count(0)
    verb.click()
    expect(phone.get_by_role("dialog", name="Begin a build")).to_be_visible()
