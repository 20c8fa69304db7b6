"""Many pages of one browser on a build: a browser keeps six connections to a server."""

from playwright.sync_api import expect

from tests.browser.waits import until

PAGES = 12


def test_many_pages_of_one_browser_hold_one_stream_and_hear_the_same(bench, demo_served):
    address, context = bench.url, bench.context
    streams = []
    context.on("request", lambda sent: sent.url.endswith("/events") and streams.append(sent))
    pages = [context.new_page() for _ in range(PAGES - 1)]
    for each in pages:
        each.goto(address, wait_until="commit")
    last = pages[-1]
    expect(last.locator("[data-part=motor]")).to_be_visible()
    assert len(streams) <= 1
    bench.locator("[data-part=motor]").first.click()
    expect(last.locator(".pan")).to_contain_text("expected")
    expect(pages[0].locator(".pan")).to_contain_text("expected")

    bench.close()
    last.bring_to_front()
    last.keyboard.press("t")
    expect(pages[3].locator(".pan")).not_to_contain_text("expected")
    until(last, lambda: len(streams))  # one of those left has taken the stream over
    assert len(streams) <= 3
