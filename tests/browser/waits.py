"""What the server has is waited for: a page shows what a hand did before it is kept."""

from collections.abc import Callable
from typing import TypeVar

from tests.http import HTTP

T = TypeVar("T")


def until(page, ask: Callable[[], T], holds: Callable[[T], bool] = bool) -> T:
    """What is asked, as soon as it holds; after 20 s the last answer is said."""
    for _ in range(200):
        answer = ask()
        if holds(answer):
            return answer
        page.wait_for_timeout(100)
    raise AssertionError(f"it did not come home: {answer}")


def build_told(page) -> dict:
    """The build of the page as the server has it, whatever the page shows."""
    at = page.url.split("?")[0].rsplit("/", 1)[0]
    return HTTP.get(at.replace("/build/", "/api/v1/builds/")).json()


def last_reading(page) -> dict:
    return build_told(page)["build"]["weighings"][-1]


def kept(page, readings: int, last=lambda reading: True) -> dict:
    """The build once so many readings are home, and the last is the one that is waited for."""
    return until(
        page,
        lambda: build_told(page)["build"],
        lambda build: len(build["weighings"]) >= readings and last(build["weighings"][-1]),
    )


def holding(page, address: str) -> tuple[list, list]:
    """What changes something at an address waits, in the first list, until it is let go."""
    held, let = [], []
    page.route(
        address,
        lambda route: (
            route.continue_() if let or route.request.method == "GET" else held.append(route)
        ),
    )
    return held, let


def let_go(page, held: list, let: list) -> None:
    """Let what is held go, once something is; what comes after it goes as well."""
    until(page, lambda: held)
    let.append(True)
    for route in held:
        route.continue_()
