"""What the tests share: an application over a fresh workshop, and a server as users run it."""

import shutil
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING
from urllib.parse import urlsplit

import pytest
from hypothesis import settings

from tests.browsers import QUIET, chromium_path

# What serves is read where a test asks for it: the core's own tests begin six seconds earlier.
if TYPE_CHECKING:
    from fastapi.testclient import TestClient
    from playwright.sync_api import BrowserContext, Page

    from tests.server import Server

# A run tells the same every time; `pytest --hypothesis-profile=default` looks for new examples. How
# long an example takes says how busy the machine is, and nothing of what is tested.
settings.register_profile("the same every time", derandomize=True, deadline=None)
settings.load_profile("the same every time")


def _opened(database: Path) -> "TestClient":
    from fastapi.testclient import TestClient  # noqa: PLC0415

    from oaken_scale.api.app import create_app  # noqa: PLC0415

    return TestClient(create_app(database))


def _server(database: Path) -> "Server":
    from tests.server import Server  # noqa: PLC0415

    return Server("serve", database)


@pytest.fixture
def client(tmp_path: Path) -> Iterator["TestClient"]:
    """The application over an empty workshop."""
    with _opened(tmp_path / "workshop.sqlite") as opened:
        yield opened


@pytest.fixture(scope="session")
def demo_file(tmp_path_factory) -> Path:
    """The demo workshop, laid out once for all tests, which copy it."""
    from oaken_scale.demo.workshop import load_demo  # noqa: PLC0415

    path = tmp_path_factory.mktemp("laid-out") / "demo.sqlite"
    load_demo(path)
    return path


@pytest.fixture
def demo(tmp_path: Path, demo_file: Path) -> Iterator["TestClient"]:
    """The application over a copy of the demo workshop."""
    shutil.copy(demo_file, tmp_path / "demo.sqlite")
    with _opened(tmp_path / "demo.sqlite") as opened:
        yield opened


@pytest.fixture
def served(tmp_path: Path) -> Iterator["Server"]:
    """A builder's own workshop, served."""
    server = _server(tmp_path / "own.sqlite").start()
    yield server
    server.kill()


@pytest.fixture(scope="module")
def shared(tmp_path_factory) -> Iterator["Server"]:
    """A builder's own workshop, served; shared by the tests of one file."""
    server = _server(tmp_path_factory.mktemp("own") / "own.sqlite").start()
    yield server
    server.kill()


@pytest.fixture(scope="module")
def demo_served(tmp_path_factory, demo_file: Path) -> Iterator["Server"]:
    """A copy of the demo workshop, served; shared by the tests of one file."""
    path = tmp_path_factory.mktemp("demo") / "demo.sqlite"
    shutil.copy(demo_file, path)
    server = _server(path).start()
    yield server
    server.kill()


@pytest.fixture(scope="session")
def chromium() -> Iterator:
    """The machine's own Chromium, without a monitor."""
    from playwright.sync_api import sync_playwright  # noqa: PLC0415

    path = chromium_path()
    assert path, "no Chromium here; `make test` installs it"
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=path, args=[*QUIET])
        yield browser
        browser.close()


@dataclass
class Desk:
    """One browser for many tests: what it fetched once it has, and pages open in half the time."""

    context: "BrowserContext"
    kept_at: set[str] = field(default_factory=set)
    """The addresses at which a test may have kept something."""

    def page(self) -> "Page":
        """A page of 1280 by 800 that knows nothing of those before it."""
        opened = self.context.new_page()
        broom = self.context.new_cdp_session(opened)
        while self.kept_at:
            left = {"origin": self.kept_at.pop(), "storageTypes": "all"}
            broom.send("Storage.clearDataForOrigin", left)
        broom.detach()
        opened.set_default_timeout(30_000)
        return opened

    def clear(self) -> None:
        """Close what a test opened, let go of what it holds back and forget who came in."""
        for page in self.context.pages[1:]:
            at = urlsplit(page.url)
            if at.scheme == "http":
                self.kept_at.add(f"{at.scheme}://{at.netloc}")
            page.unroute_all(behavior="ignoreErrors")
            page.close()
        self.context.unroute_all(behavior="ignoreErrors")
        self.context.set_offline(False)
        self.context.clear_cookies()


@pytest.fixture(scope="session")
def desk(chromium) -> Iterator[Desk]:
    """The browser that tests share, one after the other."""
    context = chromium.new_context(
        viewport={"width": 1280, "height": 800}, locale="en-GB", service_workers="block"
    )
    context.new_page()  # stays: with its last page a browser forgets all that it has fetched
    yield Desk(context)
    context.close()


@pytest.fixture
def page(desk, request) -> Iterator["Page"]:
    """A page of 1280 by 800 that fails its test when the console shows an error, or a request
    fails. What a builder typed may be refused; marked ``cut_off``, a test ends servers or wires."""
    if "served" in request.fixturenames:
        request.getfixturevalue("served")  # begins before its pages, so that it ends after them
    opened = desk.page()
    errors: list[str] = []
    opened.on("pageerror", lambda error: errors.append(str(error)))
    opened.on("console", lambda said: errors.extend(_errors_in(said)))
    if request.node.get_closest_marker("cut_off") is None:
        opened.on("requestfailed", lambda each: errors.extend(_failure_of(each)))
        opened.on("response", lambda answer: errors.extend(_refusal_in(answer)))
    yield opened
    desk.clear()
    assert errors == []


def _errors_in(said) -> Iterator[str]:
    """What the console says is an error, but for answers and wires: those are looked at apart."""
    if said.type == "error" and not said.text.startswith("Failed to load resource"):
        yield said.text


def _failure_of(each) -> Iterator[str]:
    """A request that nobody answered. One that its page let go of did not fail, and the stream of
    what happened ends with its server."""
    if each.failure != "net::ERR_ABORTED" and not each.url.endswith("/events"):
        yield f"{each.method} {each.url}: {each.failure}"


def _refusal_in(answer) -> Iterator[str]:
    """A server error; for what no builder typed, any refusal."""
    least = 500 if answer.request.resource_type in ("fetch", "xhr") else 400
    if answer.status >= least:
        yield f"{answer.request.method} {answer.url}: {answer.status}"
